"""Pages of faults: where one begins, and one trace with what it may still be and what to look at next."""

from collections.abc import Sequence

from fleet.models import Machine
from inspection.queries import coupled, rule_books, serializers
from inspection.queries.stands_now import coupled_now
from lumvek_core.catalogue.model import Family
from lumvek_core.catalogue.symptoms import Symptom, Symptoms, causes_in, check_of
from lumvek_core.coupled import short
from lumvek_core.faults.symptom_search import Shows, search
from lumvek_core.faults.trace import ELSE, ELSE_NAME, NextLook, name_of, posture_of, tracing_checks
from shops.models import Member
from shops.rights import may

from ..models import LookAnswer, SwapTest, Trace
from ..schemas import (
    CauseOut,
    FaultLookOut,
    FaultsOut,
    HeardOut,
    KeyNameOut,
    LookedOut,
    MachineDrawnOut,
    SymptomOut,
    TraceBriefOut,
    TraceOut,
)
from . import own_symptoms, standing, swapping
from .swapping import RIGHT

NEWEST = 40


def start(member: Member, machine: Machine, words: str, shows: Shows) -> FaultsOut:
    """What a trace of this machine can begin with. A constant number of queries."""
    header = coupled_now(machine)
    families = [rule_books.shipped().families[one.model.family] for one in owners(machine, header)]
    symptoms = own_symptoms.of_shop(machine.shop)
    names = {short(station.key): station.name for family in families for station in family.stations}
    causes = {
        one.key: len(causes_in(one, symptoms.looks, _family(owner_of(machine, header, one))))
        for one in symptoms.of([family.family for family in families])
    }
    listed = [one for one in symptoms.symptoms if causes.get(one.key)]
    hits = search(words, listed, shows, names)
    ever = own_symptoms.ever(machine.shop)
    rows = Trace.objects.filter(machine=machine).select_related("by").order_by("-begun_at", "-id")[:NEWEST]
    swaps = SwapTest.objects.filter(machine=machine, taken_back_at=None).select_related("by").order_by("-begun_at", "-id")
    return FaultsOut(
        machine=serializers.machine_out(machine),
        header=header.name if header else "",
        drawn=[_drawn(one, listed) for one in owners(machine, header)],
        symptoms=[
            SymptomOut(
                key=hit.symptom.key,
                name=hit.symptom.name,
                also=hit.symptom.also,
                of=owner_of(machine, header, hit.symptom).name,
                causes=causes[hit.symptom.key],
                hits=hit.hits,
                swap=hit.symptom.swap,
            )
            for hit in hits
        ],
        notes=serializers.notes(machine),
        traces=[brief(row, ever) for row in rows],
        swaps=[swapping.brief(one) for one in swaps[:NEWEST]],
        swap_slots=[KeyNameOut(key=one.slot, name=one.name) for one in swapping.parts_of(machine) if (machine.rows or 0) > 1],
        may_trace=may(member, RIGHT),
    )


def _drawn(machine: Machine, listed: Sequence[Symptom]) -> MachineDrawnOut:
    family = _family(machine)
    spoken = {key for symptom in listed if family.family in symptom.families for key in symptom.stations}
    stations = [KeyNameOut(key=short(one.key), name=one.name) for one in family.stations if short(one.key) in spoken]
    return MachineDrawnOut(family=family.family, of=machine.name, stations=stations)


def owners(machine: Machine, header: Machine | None) -> list[Machine]:
    """A machine and what is coupled to it."""
    return [machine, *([header] if header else [])]


def owner_of(machine: Machine, header: Machine | None, symptom: Symptom) -> Machine:
    """Whose symptom it is."""
    return next((one for one in owners(machine, header) if one.model.family in symptom.families), machine)


def brief(row: Trace, known: Symptoms) -> TraceBriefOut:
    """A trace in a line. known: every symptom that the shop ever had."""
    symptom = known.get(row.symptom)
    return TraceBriefOut(
        uuid=row.uuid,
        symptom=symptom.name if symptom else row.symptom,
        words=row.words,
        outcome=row.outcome,  # type: ignore[arg-type]
        was=was(row, symptom),
        begun_at=row.begun_at,
        ended_at=row.ended_at,
        by=serializers.full_name(row.by),
        taken_back=row.taken_back_at is not None,
    )


def was(row: Trace, symptom: Symptom | None) -> str:
    """What it was in the end: the cause's name, or the words that were given."""
    if row.otherwise:
        return row.otherwise
    known = {one.key: one.name for one in symptom.causes} if symptom else {}
    return known.get(row.cause, ELSE_NAME if row.cause == ELSE else row.cause)


def page(member: Member, trace: Trace) -> TraceOut:
    """One trace. A constant number of queries."""
    stands = standing.standing(trace)
    found = stands.traced
    owner = trace.header or trace.machine
    ended = trace.ended_by
    made, plain = standing.minutes(stands, trace.cause)
    return TraceOut(
        uuid=trace.uuid,
        machine=serializers.machine_out(trace.machine),
        header=trace.header.name if trace.header else "",
        symptom=stands.symptom.name,
        symptom_key=stands.symptom.key,
        words=trace.words,
        by=serializers.full_name(trace.by),
        begun_at=trace.begun_at,
        walk_around=trace.walk_around_id,
        stands_in=stands.stands_in,
        causes=[
            CauseOut(
                key=one.key,
                name=one.name,
                share=one.share,
                begun=one.begun,
                because=one.because,
                look=one.look,
                ruled_out=one.ruled_out,
            )
            for one in found.causes
        ],
        looks=[_look(one, stands, owner) for one in found.looks],
        looked=_looked(trace, stands, owner),
        entropy_bits=found.entropy_bits,
        sure=found.sure,
        all_clear=found.all_clear,
        swap=stands.symptom.swap,
        turns=bool(stands.turns),
        heard=_heard(stands.heard) if stands.heard else None,
        loosens=[check.name for key in stands.symptom.loosens if (check := check_of(stands.family, key))],
        minutes=made,
        plain_minutes=plain,
        outcome=trace.outcome,  # type: ignore[arg-type]
        cause=trace.cause,
        otherwise=trace.otherwise,
        gone=trace.gone,  # type: ignore[arg-type]
        ended_at=trace.ended_at,
        ended_by=serializers.full_name(ended) if ended else "",
        may_trace=may(member, RIGHT),
        may_add=may(member, own_symptoms.RIGHT),
    )


def _heard(one: standing.Heard) -> HeardOut:
    return HeardOut(recording=one.row.uuid, at=one.row.at, names=list(one.names.values()))


def _look(one: NextLook, stands: standing.Standing, owner: Machine) -> FaultLookOut:
    safety, look = rule_books.shipped().safety, stands.looks[one.key]
    check = check_of(stands.family, one.key)
    posture = safety.postures[one.posture]
    hazards = [*look.hazards, *(check.hazards if check else [])]
    return FaultLookOut(
        key=one.key,
        name=one.name,
        how=look.how or (check.how if check else ""),
        check=coupled.long(owner, one.key) if check else "",
        posture=one.posture,
        lock=posture.lock,
        cautions=[*posture.cautions, *(safety.hazards[name] for name in dict.fromkeys(hazards))],
        minutes=one.minutes,
        way_minutes=one.way_minutes,
        p_bad=one.p_bad,
        gain_bits=one.gain_bits,
        why=one.why,
    )


def _looked(trace: Trace, stands: standing.Standing, owner: Machine) -> list[LookedOut]:
    rows: dict[str, LookAnswer] = {}
    for row in LookAnswer.objects.filter(trace=trace, taken_back_at=None).select_related("by").order_by("id"):
        rows[row.look] = row
    found = []
    for one in stands.answers:
        answered = rows.get(one.look)
        found.append(
            LookedOut(
                uuid=answered.uuid if answered else None,
                look=one.look,
                name=name_of(one.look, stands.looks, stands.family),
                check="" if answered else coupled.long(owner, one.look),
                bad=one.bad,
                words=answered.words if answered else "",
                at=answered.at if answered else None,
                by=serializers.full_name(answered.by) if answered else "",
            )
        )
    return found


def lock_of(trace: Trace, look: str) -> str:
    """What is confirmed before this look; empty where nothing is."""
    subject = standing.subject_of(trace)
    posture = posture_of(look, subject.looks, subject.family)
    known = rule_books.shipped().safety.postures
    return known[posture].lock if posture in known else ""


def looks_of(trace: Trace) -> Sequence[str]:
    """The looks that are answered on the trace's own page: those that are no checks of the catalogue."""
    about = standing.subject_of(trace)
    return [key for key in tracing_checks(about.symptom, about.looks, about.family, {}) if not check_of(about.family, key)]


def _family(machine: Machine) -> Family:
    return rule_books.shipped().families[machine.model.family]
