"""Beginning a trace, answering its looks, ending it. The same UUID twice is once."""

import uuid

from django.utils import timezone

from fleet.actions.holding import hold
from fleet.models import Machine
from inspection.actions import closing, notes, starting
from inspection.models import OperatorNote, Reading, WalkAround
from inspection.queries import preparing, rule_books
from inspection.queries.stands_now import coupled_now
from lumvek_core.catalogue.rounds import FAULT
from lumvek_core.catalogue.symptoms import causes_in, check_of
from lumvek_core.errors import BadInput
from lumvek_core.faults.trace import ELSE
from shops import taken_back
from shops.access import Conflict, kept_already, there
from shops.models import Member
from shops.rights import action

from ..models import LookAnswer, Trace
from ..queries import own_symptoms, standing, swapping, tracing
from ..schemas import LookAnswerIn, TraceEndIn, TraceIn

RIGHT = swapping.RIGHT
ENDED = ("outcome", "gone", "cause", "otherwise", "cleared")


def trace_for(member: Member, uuid_: uuid.UUID) -> Trace:
    """One of the shop's traces. Raises NotFoundHere."""
    found: Trace = (
        there(Trace.objects.of(member).filter(uuid=uuid_))
        .select_related("machine__model", "machine__shop", "header__model", "walk_around__machine__model", "by", "ended_by")
        .get()
    )
    return found


@action(RIGHT)
def begin(member: Member, machine: Machine, new: TraceIn) -> Trace:
    """Begin at a symptom; its checks of the catalogue get a walk-around of their own. Raises BadInput."""
    hold(machine)
    if kept_already(member, Trace, new.uuid):
        return trace_for(member, new.uuid)
    known, header = own_symptoms.of_shop(member.shop), coupled_now(machine)
    symptom = known.get(new.symptom)
    families = {one.model.family for one in tracing.owners(machine, header)}
    if symptom is None or not families & set(symptom.families):
        raise BadInput("symptom", "is none of this machine")
    owner = tracing.owner_of(machine, header, symptom)
    family = rule_books.shipped().families[owner.model.family]
    if not causes_in(symptom, known.looks, family):
        raise BadInput("symptom", "has no cause yet that could be looked for")
    checks = standing.Subject(symptom, family, known.looks).checks
    walk_around = None
    if checks:
        wanted = preparing.Wanted(FAULT, headers=[owner.pk] if owner.pk != machine.pk else [], checks=checks)
        walk_around = _walk_around(member, machine, new.uuid, wanted)
    note = OperatorNote.objects.filter(uuid=new.note, machine__in=tracing.owners(machine, header)).first() if new.note else None
    Trace.objects.create(
        uuid=new.uuid,
        machine=machine,
        header=owner if owner.pk != machine.pk else None,
        symptom=symptom.key,
        words=new.words.strip(),
        note=note,
        walk_around=walk_around,
        by=member.user,
    )
    return trace_for(member, new.uuid)


@action(RIGHT)
def answer(member: Member, trace: Trace, new: LookAnswerIn) -> None:
    """Keep what a look showed. Raises BadInput with field ``look`` or ``locked``, Conflict where the trace is ended."""
    hold(trace.machine)
    if kept_already(member, LookAnswer, new.uuid):
        return
    _running(trace)
    if new.look not in tracing.looks_of(trace):
        raise BadInput("look", "is answered by a reading, or not looked at here")
    lock = tracing.lock_of(trace, new.look)
    if lock and not new.locked:
        raise BadInput("locked", f"confirm first: {lock}")
    LookAnswer.objects.create(
        uuid=new.uuid,
        trace=trace,
        look=new.look,
        bad=new.bad,
        locked=new.locked,
        words=new.words.strip(),
        by=member.user,
    )


@action(RIGHT)
def take_back_answer(member: Member, uuid_: uuid.UUID) -> Trace:
    """It was not so. Raises NotFoundHere, Conflict."""
    rows = there(LookAnswer.objects.of(member).filter(uuid=uuid_))
    trace = trace_for(member, rows.get().trace.uuid)
    _running(trace)
    taken_back.take_back(member, rows)
    return trace


@action(RIGHT)
def end(member: Member, trace: Trace, said: TraceEndIn) -> None:
    """Say what it was, or that it was not found, or is to be watched; the same twice is once.

    Gone since a speed or range was changed is not cured: such a trace is watched. Found, the operator's note that it began with
    is closed with the cause, and what shaking may have loosened is noted at its stations. Raises BadInput, Conflict.
    """
    if trace.ended_at and (said.outcome, said.cause, said.gone) == (trace.outcome, trace.cause, trace.gone):
        return
    if trace.ended_at or trace.taken_back_at:
        raise Conflict("This trace is ended. Go on with it first.")
    about = standing.standing(trace)
    causes = {one.key: one.name for one in causes_in(about.symptom, about.looks, about.family)}
    if said.gone == "other-speed" and said.outcome != "watched":
        raise BadInput("outcome", "gone after a change of speed or range is not cured: it is to be watched")
    otherwise = said.otherwise.strip()
    if said.outcome == "found" and said.cause not in {*causes, ELSE}:
        raise BadInput("cause", "say which cause it was")
    if said.outcome == "found" and said.cause == ELSE and not otherwise:
        raise BadInput("otherwise", "say what it was")
    _close_walk_around(member, trace)
    trace.outcome, trace.gone = said.outcome, said.gone
    trace.cause = said.cause if said.outcome == "found" else ""
    trace.otherwise = otherwise
    trace.cleared = [one.name for one in about.traced.causes if one.ruled_out]
    trace.ended_at, trace.ended_by = timezone.now(), member.user
    trace.save(update_fields=[*ENDED, "ended_at", "ended_by"])
    if said.outcome == "found":
        was = otherwise or causes[said.cause]
        if trace.note and trace.note.closed_at is None:
            notes.close_note(member, trace.note.machine, trace.note.uuid, was)
        _loosened(member, trace, was)


@action(RIGHT)
def go_on(member: Member, trace: Trace) -> None:
    """Open an ended trace again: that was not it."""
    if trace.ended_at is None:
        return
    taken_back.take_back(member, OperatorNote.objects.filter(uuid__in=[uuid_ for uuid_, _ in _to_look_at(trace)]))
    trace.outcome = trace.cause = trace.otherwise = trace.gone = ""
    trace.cleared = []
    trace.ended_at = trace.ended_by = None
    trace.save(update_fields=[*ENDED, "ended_at", "ended_by"])
    if trace.note and trace.note.closed_at:
        notes.open_note(member, trace.note.machine, trace.note.uuid)
    _open_walk_around(member, trace)


@action(RIGHT)
def take_back(member: Member, trace: Trace) -> None:
    """It was begun by mistake: it stays in the log, and counts for no weights."""
    _close_walk_around(member, trace)
    taken_back.take_back(member, Trace.objects.filter(pk=trace.pk))


def _walk_around(member: Member, machine: Machine, trace: uuid.UUID, wanted: preparing.Wanted) -> WalkAround:
    return starting.start(member, machine, uuid.uuid5(trace, "looks"), wanted)


def _running(trace: Trace) -> None:
    if trace.ended_at or trace.taken_back_at:
        raise Conflict("This trace is ended. Go on with it first.")


def _close_walk_around(member: Member, trace: Trace) -> None:
    walk_around = trace.walk_around
    if walk_around is None or walk_around.finished_at or walk_around.discarded_at:
        return
    event = uuid.uuid5(trace.uuid, f"ended {walk_around.version} {walk_around.events.count()}")
    if Reading.objects.filter(walk_around=walk_around).exists():
        closing.finish(member, walk_around.pk, event)
    else:
        closing.discard(member, walk_around.pk, event, "the trace ended without a reading")


def _open_walk_around(member: Member, trace: Trace) -> None:
    """Each time under a name of its own: it may be closed and opened more than once."""
    walk_around = trace.walk_around
    if walk_around and walk_around.finished_at:
        event = uuid.uuid5(trace.uuid, f"again {walk_around.version}")
        closing.reopen(member, walk_around.pk, event, "the fault was not found there")
    elif walk_around and walk_around.discarded_at:
        closing.restore(member, walk_around.pk, uuid.uuid5(trace.uuid, f"back {walk_around.discarded_at.isoformat()}"))


def _to_look_at(trace: Trace) -> list[tuple[uuid.UUID, str]]:
    ended = trace.ended_at.isoformat() if trace.ended_at else ""
    loosens = standing.subject_of(trace).symptom.loosens
    return [(uuid.uuid5(trace.uuid, f"loosened {key} {ended}"), key) for key in loosens]


def _loosened(member: Member, trace: Trace, was: str) -> None:
    family = standing.subject_of(trace).family
    for uuid_, key in _to_look_at(trace):
        check = check_of(family, key)
        if check is None:
            continue
        station = next(one.key for one in family.stations if check in one.checks)
        text = f"It shook ({_small(was)}): look whether it came loose or cracked: {_small(check.name)}."
        notes.note(member, trace.header or trace.machine, uuid_, text, station)


def _small(text: str) -> str:
    return text[:1].lower() + text[1:]
