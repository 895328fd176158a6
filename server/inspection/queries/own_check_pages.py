"""What the pages of a shop's own checks show: those there are, what may be picked for one, and one tried out."""

from django.utils import timezone

from fleet.models import MachineModel
from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.catalogue.own import Altered, OwnCheck, OwnChecks, is_own, misfits, offered
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.judgement import parse_reading, verdicts
from lumvek_core.judgement.context import Context
from lumvek_core.rules.base import limits
from lumvek_core.rules.verdict import ACTION_WORDS, FAR_REACHING, SEVERITIES
from lumvek_core.vocabulary import CROP_NAMES, PHASE_NAMES, SEVERITY_WORDS
from shops.models import Member

from ..models import CheckVersion
from ..schemas_checks import (
    AlteredOut,
    CheckFormOut,
    FormFamilyOut,
    FormFigureOut,
    FormModelOut,
    FormRuleOut,
    FormStationOut,
    NamedKeyOut,
    OwnCheckOut,
    OwnChecksOut,
    ShippedCheckOut,
    TrialIn,
    TrialOut,
)
from ..schemas_plan import PositionOut
from . import own_check_typed, rule_books, serializers
from .own_checks import said

WORDS = ("name", "how", "why")


def versions(member: Member) -> dict[tuple[str, str], list[CheckVersion]]:
    """(family, key) → everything that was ever said of it, oldest first. One query."""
    found: dict[tuple[str, str], list[CheckVersion]] = {}
    for one in CheckVersion.objects.of(member).select_related("by", "model"):
        found.setdefault((one.family, one.key), []).append(one)
    return found


def all_own(member: Member) -> OwnChecksOut:
    """The shop's own checks and the shipped ones it altered, those taken away since as well."""
    families, listed = rule_books.shipped().families, versions(member)
    there = {key: some for key, some in listed.items() if key[0] in families}
    return OwnChecksOut(
        checks=[_own(member, families[family], some) for (family, key), some in there.items() if is_own(key)],
        altered=[_altered(families[family], some) for (family, key), some in there.items() if not is_own(key)],
    )


def _own(member: Member, family: Family, some: list[CheckVersion]) -> OwnCheckOut:
    newest, last = some[-1], next(one for one in reversed(some) if one.content)
    there, shown = said(newest), said(last)
    assert isinstance(shown, OwnCheck)  # noqa: S101 - its key says so
    complaints = [words for _, words in misfits(rule_books.shipped(), family, shown)]
    return OwnCheckOut(
        key=newest.key,
        family=family.family,
        family_name=family.name,
        model_name=last.model.full_name if last.model else "",
        station=station_name(family, shown.station),
        name=shown.check.name,
        kind=offered()[shown.check.rule.kind].offered,
        typed=own_check_typed.typed_again(member, family, last.model, shown) if there else None,
        misfit=complaints[0] if complaints and there else "",
        version=len(some),
        before=len(some) > 1,
        by=serializers.full_name(newest.by),
        at=newest.at,
        reason=newest.reason,
    )


def station_name(family: Family, key: str) -> str:
    return next((station.name for station in family.stations if short(station.key) == key), key)


def _altered(family: Family, some: list[CheckVersion]) -> AlteredOut:
    newest, last = some[-1], next(one for one in reversed(some) if one.content)
    there, shown = said(newest), said(last)
    assert isinstance(shown, Altered)  # noqa: S101 - its key says so
    shipped = family.checks.get(own_check_typed.full_key(family, newest.key))
    return AlteredOut(
        key=newest.key,
        family=family.family,
        family_name=family.name,
        station=next((one.name for one in family.stations if shipped in one.checks), ""),
        shipped={name: getattr(shipped, name, "") for name in WORDS},  # type: ignore[misc]
        own={name: getattr(shown, name) for name in WORDS},  # type: ignore[misc]
        left_out=shown.left_out,
        holds=there is not None and shipped is not None,
        reason=newest.reason,
        version=len(some),
        before=len(some) > 1,
        by=serializers.full_name(newest.by),
        at=newest.at,
    )


def form(member: Member) -> CheckFormOut:
    """What may be picked when a check is added or changed."""
    catalogue = rule_books.shipped()
    models = list(MachineModel.objects.of(member).order_by("maker", "name"))
    return CheckFormOut(
        families=[_family(family, [one for one in models if one.family == key]) for key, family in catalogue.families.items()],
        rules=[
            FormRuleOut(
                key=key,
                name=kind.offered,
                asks=own_check_typed.asks(kind),  # type: ignore[arg-type]
                figures=[
                    FormFigureOut(
                        key=name,
                        name=limit.name,
                        unit="%" if limit.shown_as == "share" else limit.unit or "",
                        wanted=own_check_typed.wanted(kind, name),
                    )
                    for name, limit in limits(kind).items()
                ],
            )
            for key, kind in offered().items()
        ],
        units=own_check_typed.units_offered(),
        postures=list(catalogue.safety.postures),
        hazards=[NamedKeyOut(key=key, name=words) for key, words in catalogue.safety.hazards.items()],
        phases=[NamedKeyOut(key=key, name=name) for key, name in PHASE_NAMES.items() if key != "everything"],
        crops=[NamedKeyOut(key=key, name=name) for key, name in CROP_NAMES.items()],
        severities=[NamedKeyOut(key=key, name=SEVERITY_WORDS[key]) for key in SEVERITIES],
        actions=[NamedKeyOut(key=key, name=ACTION_WORDS.get(key, key)) for key in FAR_REACHING],
    )


def _family(family: Family, models: list[MachineModel]) -> FormFamilyOut:
    return FormFamilyOut(
        family=family.family,
        name=family.name,
        counter=family.counter,
        stations=[
            FormStationOut(
                key=short(station.key),
                name=station.name,
                posture=station.posture,
                checks=[
                    ShippedCheckOut(key=short(one.key), name=one.name, how=one.how, why=one.why, safety=one.safety)
                    for one in station.checks
                ],
            )
            for station in family.stations
        ],
        per=[NamedKeyOut(key=key, name=name) for key, name in own_check_typed.places(family)],
        options=[NamedKeyOut(key=short(key), name=name) for key, name in family.options.items()],
        slots=sorted(
            (NamedKeyOut(key=short(key), name=slot.name) for key, slot in family.slots.items()), key=lambda one: one.name
        ),
        models=[FormModelOut(id=one.pk, name=one.full_name) for one in models],
    )


def trial(member: Member, wanted: TrialIn) -> TrialOut:
    """An own check as the walk-around will show it, and a reading at its first place judged. Nothing is kept.

    Raises BadInput at the field of the check that is at fault; what is wrong with the reading is said in ``problem``.
    """
    own, system = own_check_typed.understood(member, wanted.check, []), serializers.system_of(member)
    family = rule_books.shipped().families[wanted.check.family]
    try:
        mine = {family.family: OwnChecks(family.family, [own])}
        book = in_force.rule_book(rule_books.shipped(), family.family, schools=member.shop.schools, own=mine)
    except BadInput as problem:
        raise BadInput("", problem.message) from None
    check = book.family.checks[own_check_typed.full_key(family, own.check.key)]
    layout = in_force.layout(book, {})
    places = positions.expand(check.per, layout)
    station, posture = book.station_of[check.key], book.postures[check.posture]
    shown = TrialOut(
        check=serializers.check_out(book, check, layout, "", system, serializers.feelers_of(member), {}),
        places=[PositionOut(key=p.key, label=p.label, thing=p.thing, number=p.number, side=p.side) for p in places],
        station=station.name,
        posture=check.posture,
        cautions=[*posture.cautions, *(book.hazards[one] for one in check.hazards)],
        sample=check.rule.sample(check, 1000.0, timezone.localdate()),
        severity="",
        action="",
        verdict="",
        ask="",
        parts=[],
        problem="",
    )
    if any(text.strip() for text in wanted.raw):
        _judge(shown, book.family, check, places[0], wanted.raw, member)
    return shown


def _judge(shown: TrialOut, family: Family, check: Check, place: positions.Position, raw: list[str], member: Member) -> None:
    system = serializers.system_of(member)
    try:
        value = parse_reading.parse_reading(check, raw, default_unit=system)
    except BadInput as problem:
        shown.problem = problem.message
        return
    context = Context(
        system, typed=raw, typed_in=system, counter_h=1000.0, today=timezone.localdate(), schools=member.shop.schools
    )
    verdict = verdicts.judge(check, place, value, context)
    shown.severity, shown.verdict, shown.ask = verdict.severity, verdict.reason, verdict.ask
    shown.action = "" if verdict.action == "none" else ACTION_WORDS.get(verdict.action, verdict.action)
    shown.parts = [
        f"{part.quantity} × {family.slots[part.slot].name}"
        for part in check.parts
        if verdict.action in part.when and (not part.options or value.choice in part.options)
    ]
