"""The trade's symptoms with what a shop has added to them, and the page where it does."""

import datetime as dt
from collections.abc import Iterable

from django.db.models import Q, QuerySet

from fleet.models import Machine
from inspection.queries import rule_books, serializers
from inspection.queries.stands_now import coupled_now
from lumvek_core.catalogue import own_symptoms as core
from lumvek_core.catalogue.model import Family
from lumvek_core.catalogue.symptoms import Look, Symptom, SymptomCause, Symptoms
from lumvek_core.coupled import short
from lumvek_core.faults.trace import name_of
from shops.models import Member, Shop
from shops.rights import may

from ..models import OwnCause, OwnSymptom
from ..schemas import KeyNameOut
from ..schemas_own_symptoms import OwnCauseOut, OwnSymptomOut, OwnSymptomsOut, SymptomOfOut

RIGHT = "change checks"


def of_shop(shop: Shop, at: dt.datetime | None = None) -> Symptoms:
    """As they are now, or as they were at a moment. Two queries."""
    then = Q(taken_back_at=None)
    if at is not None:
        then = Q(at__lte=at) & (then | Q(taken_back_at__gt=at))
    return _with(OwnSymptom.objects.in_shop(shop.pk).filter(then), OwnCause.objects.in_shop(shop.pk).filter(then))


def ever(shop: Shop) -> Symptoms:
    """With those that were taken away since: what was traced keeps its name. Two queries."""
    return _with(OwnSymptom.objects.in_shop(shop.pk), OwnCause.objects.in_shop(shop.pk))


def _with(symptoms: QuerySet[OwnSymptom], causes: QuerySet[OwnCause]) -> Symptoms:
    shipped = rule_books.shipped().symptoms
    return core.with_own(shipped, [as_symptom(one) for one in symptoms], [as_cause(one) for one in causes])


def as_symptom(row: OwnSymptom) -> Symptom:
    return Symptom(row.key, row.name, [row.family], row.stations, [], row.also)


def as_cause(row: OwnCause) -> core.OwnCause:
    cause = SymptomCause(row.key, row.name, row.weight, row.check_key or row.key)
    look = None if row.check_key else Look(row.minutes, row.look, row.posture, row.how)
    return core.OwnCause(row.symptom, cause, look)


def page(member: Member, machine: Machine) -> OwnSymptomsOut:
    """The symptoms of a machine and of what hangs on it, with their causes; which are the shop's own. A constant number of
    queries."""
    header = coupled_now(machine)
    machines = [machine, *([header] if header else [])]
    own = {one.key: one for one in OwnSymptom.objects.of(member).filter(taken_back_at=None)}
    causes = {one.key: one for one in OwnCause.objects.of(member).filter(taken_back_at=None)}
    symptoms = of_shop(member.shop)
    families = rule_books.shipped().families
    return OwnSymptomsOut(
        machine=serializers.machine_out(machine),
        kinds=[_kind(one, families[one.model.family]) for one in machines],
        postures=list(rule_books.shipped().safety.postures),
        symptoms=[
            OwnSymptomOut(
                key=one.key,
                name=one.name,
                also=one.also,
                family=_family(one, machines).family,
                own=own[one.key].uuid if one.key in own else None,
                causes=[
                    OwnCauseOut(
                        key=cause.key,
                        name=cause.name,
                        weight=cause.weight,
                        shown_by=name_of(cause.check, symptoms.looks, _family(one, machines)),
                        own=causes[cause.key].uuid if cause.key in causes else None,
                    )
                    for cause in one.causes
                ],
            )
            for one in symptoms.of([families[one.model.family].family for one in machines])
        ],
        may_change=may(member, RIGHT),
    )


def _family(symptom: Symptom, machines: Iterable[Machine]) -> Family:
    return rule_books.shipped().families[next(one.model.family for one in machines if one.model.family in symptom.families)]


def _kind(machine: Machine, family: Family) -> SymptomOfOut:
    return SymptomOfOut(
        family=family.family,
        name=machine.name,
        stations=[KeyNameOut(key=short(one.key), name=one.name) for one in family.stations],
        checks=[KeyNameOut(key=short(one.key), name=one.name) for one in family.checks.values()],
    )
