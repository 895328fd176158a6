"""From rows and core objects to what the endpoints give."""

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.calculators.opener import FEELERS_MM
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.judgement.companions import parts_for, tasks_for
from lumvek_core.judgement.rules import ContactRule, options
from lumvek_core.units import System, plain, show_length
from parts.queries import parts_list
from shops.access import DECIDERS, INSPECTORS
from shops.models import Member

from . import queries, recording, services
from .models import WalkAround
from .schemas import (
    BoardMachineOut,
    ChangedOut,
    CheckOut,
    FigureOut,
    FindingGroupOut,
    FindingOut,
    FindingsOut,
    MachineOut,
    NotSeenOut,
    OptionOut,
    PartOut,
    PartsOut,
    PlaceKey,
    PositionOut,
    RouteStationOut,
    TaskOut,
    WalkAroundBrief,
    WalkAroundOut,
)

FIGURE_NAMES = {
    "new": "When new",
    "limit": "Replace at",
    "watch_from": "Watch from",
    "low": "From",
    "high": "To",
    "target": "Aim for",
    "tolerance": "Alike within",
    "feeler": "By feeler",
    "angle_deg": "Included angle",
    "spread": "Spread up to",
    "go": "Go",
    "no_go": "No-go",
    "set_share": "Whole set above",
}
SOURCES = {"manual": "operator's manual", "shop": "this shop", "school": "school"}


def system_of(member: Member) -> System:
    return "in" if member.units == "in" else "mm"


def brief(walk_around: WalkAround) -> WalkAroundBrief:
    by = walk_around.started_by
    return WalkAroundBrief(
        id=walk_around.pk,
        phase=walk_around.phase,
        started_at=walk_around.started_at,
        started_by=by.get_full_name() or by.get_username(),
        finished_at=walk_around.finished_at,
    )


def machine_out(machine: Machine) -> MachineOut:
    return MachineOut(
        id=machine.pk,
        name=machine.name,
        model=machine.model.full_name,
        family=machine.model.family,
        rows=machine.rows,
        track_rows=machine.track_rows,
        serial=machine.serial,
        area_ha=machine.area_ha,
        hours=machine.hours,
        season_date=machine.season_date,
    )


def board(member: Member) -> list[BoardMachineOut]:
    return [
        BoardMachineOut(
            machine=machine_out(card.machine),
            recent=[brief(walk_around) for walk_around in card.recent],
            stations=card.stations,
        )
        for card in queries.board(member)
    ]


def figure(check: Check, name: str, value: float, system: System) -> str:
    """A limit with its unit."""
    if name in ("watch_from", "set_share"):
        return f"{plain(100 * value, 0)} %"
    if name == "angle_deg":
        return f"{plain(value, 1)}°"
    return show_length(value, system) if check.unit == "mm" else f"{plain(value, 2)} {check.unit or ''}".strip()


def figures(book: CoreBook, check: Check, system: System) -> list[FigureOut]:
    """The limits of a check with where each comes from."""
    return [
        FigureOut(
            name=FIGURE_NAMES[name],
            shown=figure(check, name, limit.value, system),
            source=SOURCES.get(limit.source, limit.source),
            note=limit.note,
        )
        for name, limit in book.limits[check.key].items()
    ]


def _check(book: CoreBook, check: Check, station: str, walk_around: WalkAround, system: System) -> CheckOut:
    return CheckOut(
        key=check.key,
        name=check.name,
        station=station,
        kind=check.kind,
        per=check.per,
        unit=check.unit or "",
        values=check.values,
        how=check.how,
        why=check.why,
        tools=check.tools,
        hazards=[book.hazards[name] for name in check.hazards],
        drawing=check.drawing or "",
        optional=check.optional,
        often_missed=check.often_missed,
        options=[OptionOut(key=option.key, name=option.name, severity=option.severity) for option in options(check.rule)],
        feelers=list(FEELERS_MM) if isinstance(check.rule, ContactRule) else [],
        figures=figures(book, check, system),
        limits={name: limit.value for name, limit in book.limits[check.key].items()},
        positions=[position.key for position in positions.expand(check.per, walk_around.rows)],
    )


def parts(walk_around: WalkAround, book: CoreBook) -> list[PartOut]:
    listed = parts_list(walk_around.pk, walk_around.machine.model_id, book)
    return [PartOut.model_validate(vars(part) | {"pieces": [vars(piece) for piece in part.pieces]}) for part in listed]


def walk_around(found: WalkAround, book: CoreBook, member: Member) -> WalkAroundOut:
    """Everything the walk-around screen shows."""
    applicable = in_force.applicable(book, found.options)
    stations = [(s, [check for check in applicable if check in s.checks]) for s in book.family.stations]
    stations = [(station, checks) for station, checks in stations if checks]
    keys = {position.key: position for check in applicable for position in positions.expand(check.per, found.rows)}
    return WalkAroundOut(
        walk_around=brief(found),
        machine=machine_out(found.machine),
        route=[
            RouteStationOut(
                key=station.key,
                name=station.name,
                posture=station.posture,
                lock=book.postures[station.posture].lock,
                cautions=book.postures[station.posture].cautions,
            )
            for station, _ in stations
        ],
        checks=[_check(book, c, station.key, found, system_of(member)) for station, checks in stations for c in checks],
        positions=[PositionOut.model_validate(vars(position)) for position in keys.values()],
        places=queries.places(found, book, member),
        stations=queries.station_states(found),
        parts=parts(found, book),
        notice=book.notice,
        may_record=member.role in INSPECTORS and found.finished_at is None,
        may_decide=member.role in DECIDERS,
    )


def changed(found: WalkAround, book: CoreBook, member: Member, what: recording.Changed) -> ChangedOut:
    """What a write changed, for the screen to follow."""
    now = queries.places(found, book, member, what.pairs)
    there = {(place.check, place.position) for place in now}
    return ChangedOut(
        places=now,
        gone=[PlaceKey(check=pair[0], position=pair[1]) for pair in what.pairs if pair not in there],
        stations=queries.station_states(found),
        parts=parts(found, book) if what.parts else None,
    )


def findings(found: WalkAround, book: CoreBook, member: Member) -> FindingsOut:
    groups = [
        FindingGroupOut(
            check=group.check.key,
            name=group.check.name,
            station=group.station,
            severity=group.severity,  # type: ignore[arg-type]
            safety=group.check.safety,
            findings=[
                FindingOut(
                    place=finding.place,
                    label=positions.find(finding.place.position).label,
                    decision=finding.decision,  # type: ignore[arg-type]
                    until=finding.until,
                    decision_reason=finding.decision_reason,
                    decided_by=finding.decided_by,
                )
                for finding in group.findings
            ],
        )
        for group in queries.findings(found, book, member)
    ]
    return FindingsOut(
        walk_around=brief(found),
        machine=machine_out(found.machine),
        groups=groups,
        not_seen=not_seen(found, book, member),
        stations=queries.station_states(found),
        may_decide=member.role in DECIDERS,
    )


def not_seen(found: WalkAround, book: CoreBook, member: Member) -> list[NotSeenOut]:
    """What was passed over, with the reason given."""
    return [
        NotSeenOut(
            check=book.family.checks[place.check].name,
            label=positions.find(place.position).label,
            reason=place.reason.removeprefix("Not seen: "),
            by=place.by,
        )
        for place in queries.places(found, book, member)
        if place.severity == "not-seen"
    ]


def parts_page(found: WalkAround, book: CoreBook, member: Member) -> PartsOut:
    needs = parts_for(book, services.called(found))
    listed = parts(found, book)
    declined = {(part.slot, piece.position) for part in listed for piece in part.pieces if piece.declined_reason}
    tasks = tasks_for(book, [need for need in needs if (need.slot, need.position) not in declined])
    return PartsOut(
        walk_around=brief(found),
        machine=machine_out(found.machine),
        parts=listed,
        tasks=[TaskOut(label=positions.find(task.position).label, text=task.text, why=task.why) for task in tasks],
        may_decide=member.role in DECIDERS,
    )
