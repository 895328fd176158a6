"""A shop adds symptoms and causes to those of the trade, and takes its own away again. The same UUID twice is once."""

import uuid
from typing import Any

from inspection.queries import rule_books
from lumvek_core.catalogue import own_symptoms as core
from lumvek_core.errors import BadInput
from shops import taken_back
from shops.access import Conflict, kept_already, there
from shops.actions.log import log_change
from shops.actions.shop import hold
from shops.models import Change, Member
from shops.rights import action

from ..models import OwnCause, OwnSymptom
from ..queries import own_symptoms
from ..schemas_own_symptoms import OwnCauseIn, OwnSymptomIn

MOST = 300
"""Of either in a shop."""


@action(own_symptoms.RIGHT)
def add_symptom(member: Member, new: OwnSymptomIn) -> None:
    """A symptom that the trade's list has not. It is traced as soon as it has a cause. Raises BadInput at the field."""
    hold(member)
    if kept_already(member, OwnSymptom, new.uuid):
        return
    _room(member, OwnSymptom)
    made = OwnSymptom(
        uuid=new.uuid,
        shop=member.shop,
        key=_key(new.uuid),
        family=new.family,
        name=new.name.strip(),
        also=[text for text in map(str.strip, new.also.split(",")) if text],
        stations=new.stations,
        by=member.user,
    )
    for field, complaint in core.symptom_complaints(own_symptoms.as_symptom(made), rule_books.shipped().families):
        raise BadInput(field, complaint)
    known = own_symptoms.of_shop(member.shop).of([new.family])
    if made.name.casefold() in {one.name.casefold() for one in known}:
        raise BadInput("name", "stands there already")
    made.save()
    log_change(member, Change.About.CHECK, f"symptom: {made.name}", "", "added")


@action(own_symptoms.RIGHT)
def add_cause(member: Member, new: OwnCauseIn) -> None:
    """A cause of any symptom, with what shows it. Raises BadInput at the field."""
    hold(member)
    if kept_already(member, OwnCause, new.uuid):
        return
    _room(member, OwnCause)
    made = OwnCause(
        uuid=new.uuid,
        shop=member.shop,
        key=_key(new.uuid),
        symptom=new.symptom,
        name=new.name.strip(),
        weight=new.weight,
        check_key=new.check,
        look=new.look.strip(),
        posture=new.posture,
        how=new.how.strip(),
        minutes=new.minutes,
        by=member.user,
    )
    symptom = own_symptoms.of_shop(member.shop).get(new.symptom)
    if symptom is None:
        raise BadInput("symptom", "is none that is traced here")
    book = rule_books.shipped()
    for field, complaint in core.cause_complaints(own_symptoms.as_cause(made), symptom, book.families, book.safety.postures):
        raise BadInput(field, complaint)
    made.save()
    log_change(member, Change.About.CHECK, f"cause of {symptom.name[:1].lower()}{symptom.name[1:]}: {made.name}", "", "added")


@action(own_symptoms.RIGHT)
def take_symptom_away(member: Member, uuid_: uuid.UUID) -> None:
    """It is traced no more; what was traced keeps it. Raises NotFoundHere, Conflict while it has causes."""
    rows = there(OwnSymptom.objects.of(member).filter(uuid=uuid_))
    if OwnCause.objects.of(member).filter(symptom=rows.get().key, taken_back_at=None).exists():
        raise Conflict("It has causes of its own. Take those away first.")
    _take_away(member, rows, "symptom")


@action(own_symptoms.RIGHT)
def take_cause_away(member: Member, uuid_: uuid.UUID) -> None:
    """It is looked for no more; what was traced keeps it. Raises NotFoundHere."""
    _take_away(member, there(OwnCause.objects.of(member).filter(uuid=uuid_)), "cause")


def _take_away(member: Member, rows: Any, what: str) -> None:
    if taken_back.take_back(member, rows):
        log_change(member, Change.About.CHECK, f"{what}: {rows.get().name}", "", "taken away")


def _room(member: Member, model: Any) -> None:
    if model.objects.of(member).filter(taken_back_at=None).count() >= MOST:
        raise BadInput("name", f"a shop has at most {MOST} of its own")


def _key(uuid_: uuid.UUID) -> str:
    return f"own-{uuid_.hex[:16]}"
