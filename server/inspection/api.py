"""Endpoints of machines, walk-arounds, readings, findings and parts."""

import uuid
from typing import TYPE_CHECKING

from django.http import HttpRequest
from ninja import File, Form, Query, Router, UploadedFile

from fleet.queries.machines import machine_for
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from shops.access import member_of
from shops.endpoints import allowed
from tabular import sheets

from .actions import closing, decisions, exchange, postures, recording, starting
from .judging import readings_table
from .judging.typed_readings import NewReading
from .queries import (
    before_start,
    board,
    changed_places,
    changeover_page,
    preparing,
    row_map,
    rule_books,
    serializers,
    serializers_findings,
    set_up_page,
    summary,
)
from .queries.walk_arounds import walk_around_for
from .schemas import BoardAsked, BoardOut, ChangedOut, MachineNameOut, RecordedOut, WalkAroundBrief, WalkAroundOut
from .schemas_changeover import ChangeoverAsked, ChangeoverOut
from .schemas_findings import DecidedOut, FindingsAsked, FindingsOut, PartsOut
from .schemas_plan import HoldOut, PlanOut
from .schemas_set_up import SetUpOut
from .schemas_views import (
    BeforehandAsked,
    BeforehandOut,
    FileLineOut,
    GridOut,
    PreviewOut,
    ReadingsFileOut,
    StartInfoOut,
    SummaryOut,
)
from .schemas_writes import (
    CompanionIn,
    DecisionIn,
    EventIn,
    HandOverIn,
    HoldIn,
    OrderIn,
    ReadingIn,
    ReadingsIn,
    SetAsideIn,
    StartIn,
)

if TYPE_CHECKING:
    from .models import WalkAround

machines = Router(tags=["machines"])
walk_arounds = Router(tags=["walk-arounds"])


@machines.get("", response=BoardOut)
def machine_board(request: HttpRequest, asked: Query[BoardAsked]) -> BoardOut:
    """The machines of the shop with the state of their newest walk-around, a page as it is asked for."""
    return board.board(member_of(request), asked)


@machines.get("/names", response=list[MachineNameOut])
def machine_names(request: HttpRequest) -> list[MachineNameOut]:
    """Every machine in use, to choose from."""
    return board.names(member_of(request))


@machines.get("/{int:machine_id}/start", response=StartInfoOut)
def start_info(request: HttpRequest, machine_id: int) -> StartInfoOut:
    """What there is to choose before a walk-around of this machine begins."""
    member = member_of(request)
    return before_start.info(member, machine_for(member, machine_id))


@machines.get("/{int:machine_id}/set-up", response=SetUpOut)
def machine_set_up(request: HttpRequest, machine_id: int) -> SetUpOut:
    """How a machine is set up, as it was read the last times, what each crop wants of it, and when it changed."""
    member = member_of(request)
    return set_up_page.page(member, machine_for(member, machine_id))


@machines.post("/{int:machine_id}/changeover", response=ChangeoverOut, **allowed(starting.start))
def machine_changeover(request: HttpRequest, machine_id: int, asked: ChangeoverAsked) -> ChangeoverOut:
    """What is to be set otherwise for the crop that comes, and what is calibrated afterwards. Begins nothing."""
    member = member_of(request)
    return changeover_page.page(member, machine_for(member, machine_id), asked)


@machines.post("/{int:machine_id}/preview", response=PreviewOut, **allowed(starting.start))
def preview(request: HttpRequest, machine_id: int, wanted: StartIn) -> PreviewOut:
    """What a walk-around would be: checks, postures in order, tools. Begins nothing."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    return before_start.preview(member, machine, _wanted(wanted))


@machines.get("/{int:machine_id}/beforehand", response=BeforehandOut, **allowed(starting.as_if_begun))
def beforehand(request: HttpRequest, machine_id: int, asked: Query[BeforehandAsked]) -> BeforehandOut:
    """A walk-around as it would be, whole, to be begun where there is no signal. Begins nothing."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    phase = asked.phase or before_start.usual_phase(rule_books.now_of(machine, member.shop))
    wanted = preparing.Wanted(phase, asked.crop, asked.headers, take_in=asked.take_in)
    return BeforehandOut(
        preview=before_start.preview(member, machine, wanted), walk_around=starting.as_if_begun(member, machine, wanted)
    )


@machines.post("/{int:machine_id}/walk-arounds", response=WalkAroundBrief, **allowed(starting.start))
def start(request: HttpRequest, machine_id: int, wanted: StartIn) -> WalkAroundBrief:
    """Begin a walk-around under a UUID made by the client."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    return serializers.brief(starting.start(member, machine, wanted.id, _wanted(wanted), wanted.at, wanted.why or ""))


def _wanted(given: StartIn) -> preparing.Wanted:
    return preparing.Wanted(
        given.phase, given.crop, given.headers, given.people, given.take_in, given.then_crop, given.then_days
    )


def opened_for(request: HttpRequest, walk_around_id: uuid.UUID) -> "tuple[WalkAround, CoreBook]":
    walk_around = walk_around_for(member_of(request), walk_around_id)
    return walk_around, rule_books.opened(walk_around.rule_book_id)


@walk_arounds.get("/{uuid:walk_around_id}", response=WalkAroundOut)
def walk_around(request: HttpRequest, walk_around_id: uuid.UUID) -> WalkAroundOut:
    """One walk-around, whole."""
    return serializers.walk_around(*opened_for(request, walk_around_id), member_of(request))


@walk_arounds.get("/{uuid:walk_around_id}/changes", response=ChangedOut)
def changes(request: HttpRequest, walk_around_id: uuid.UUID, after: int = 0) -> ChangedOut:
    """What anybody has recorded since the reading with this number."""
    return changed_places.changed_since(*opened_for(request, walk_around_id), member_of(request), after)


@walk_arounds.post("/{uuid:walk_around_id}/readings", response=ChangedOut, **allowed(recording.record_reading))
def record(request: HttpRequest, walk_around_id: uuid.UUID, new: ReadingIn) -> ChangedOut:
    """Record one reading. The same UUID twice is one reading."""
    member = member_of(request)
    changed = recording.record_reading(member, walk_around_id, NewReading(**new.model_dump()))
    return changed_places.changed(changed.walk_around, rule_books.opened(changed.walk_around.rule_book_id), member, changed)


@walk_arounds.post("/{uuid:walk_around_id}/readings-at-once", response=RecordedOut, **allowed(recording.record_each))
def record_at_once(request: HttpRequest, walk_around_id: uuid.UUID, new: ReadingsIn) -> RecordedOut:
    """Record readings that waited on a device; one that is refused is named and holds up none of the others."""
    member = member_of(request)
    given = [NewReading(**reading.model_dump()) for reading in new.readings]
    taken, refused = recording.record_each(member, walk_around_id, given)
    walk_around, book = opened_for(request, walk_around_id)
    return RecordedOut(
        changed=changed_places.changed(walk_around, book, member, recording.together(walk_around, taken)),
        refused=[changed_places.refused(key, problem) for key, problem in refused.items()],
    )


@walk_arounds.post("/{uuid:walk_around_id}/postures", response=list[HoldOut], **allowed(postures.confirm_posture))
def hold(request: HttpRequest, walk_around_id: uuid.UUID, new: HoldIn) -> list[HoldOut]:
    """Confirm that the machine stands in a posture with its locks set."""
    member = member_of(request)
    found, _ = opened_for(request, walk_around_id)
    postures.confirm_posture(member, walk_around_id, new.uuid, new.posture, new.at)
    return serializers.holds(found)


@walk_arounds.post("/{uuid:walk_around_id}/take-in", response=WalkAroundOut, **allowed(starting.take_in))
def take_in(request: HttpRequest, walk_around_id: uuid.UUID) -> WalkAroundOut:
    """Take in the checks that the round left out."""
    member = member_of(request)
    taken = starting.take_in(member, walk_around_id)
    return serializers.walk_around(taken, rule_books.opened(taken.rule_book_id), member)


@walk_arounds.post("/{uuid:walk_around_id}/order", response=PlanOut, **allowed(starting.reorder))
def order(request: HttpRequest, walk_around_id: uuid.UUID, new: OrderIn) -> PlanOut:
    """Put the visits in another order."""
    member = member_of(request)
    opened_for(request, walk_around_id)
    return PlanOut.model_validate(starting.reorder(member, walk_around_id, new.order).plan)


@walk_arounds.post("/{uuid:walk_around_id}/hand-over", response=WalkAroundBrief, **allowed(postures.hand_over))
def hand_over(request: HttpRequest, walk_around_id: uuid.UUID, new: HandOverIn) -> WalkAroundBrief:
    """Pass the walk-around to another technician."""
    member = member_of(request)
    found, _ = opened_for(request, walk_around_id)
    postures.hand_over(member, walk_around_id, new.uuid, new.to, new.note)
    return serializers.brief(found)


@walk_arounds.get("/{uuid:walk_around_id}/summary", response=SummaryOut)
def summarised(request: HttpRequest, walk_around_id: uuid.UUID) -> SummaryOut:
    """Whether the walk-around is complete, and what is missing."""
    return summary.build(*opened_for(request, walk_around_id), member_of(request))


@walk_arounds.get("/{uuid:walk_around_id}/map", response=GridOut)
def like_things_map(request: HttpRequest, walk_around_id: uuid.UUID, thing: str = "") -> GridOut:
    """Like things side by side: rows, runners, knives."""
    return row_map.build(*opened_for(request, walk_around_id), member_of(request), thing)


@walk_arounds.post("/{uuid:walk_around_id}/readings-file", response=ReadingsFileOut, **allowed(exchange.take))
def readings_file(
    request: HttpRequest, walk_around_id: uuid.UUID, file: File[UploadedFile], dry: Form[bool] = True
) -> ReadingsFileOut:
    """Readings from a CSV or XLSX file. dry: only say what each line would do."""
    member = member_of(request)
    found, _ = opened_for(request, walk_around_id)
    text = sheets.uploaded(file)
    report = readings_table.read(member, found, text) if dry else exchange.take(member, walk_around_id, text)
    return ReadingsFileOut(
        dry=dry,
        taken=report.count("taken"),
        there=report.count("there"),
        refused=report.count("refused"),
        lines=[FileLineOut.model_validate(vars(line)) for line in report.lines],
    )


@walk_arounds.post("/{uuid:walk_around_id}/finish", response=WalkAroundBrief, **allowed(closing.finish))
def finish(request: HttpRequest, walk_around_id: uuid.UUID, new: EventIn) -> WalkAroundBrief:
    """Close the walk-around; what was not seen stays named."""
    member = member_of(request)
    closing.finish(member, walk_around_id, new.uuid)
    return serializers.brief(walk_around_for(member, walk_around_id))


@walk_arounds.post("/{uuid:walk_around_id}/reopen", response=WalkAroundBrief, **allowed(closing.reopen))
def reopen(request: HttpRequest, walk_around_id: uuid.UUID, new: EventIn) -> WalkAroundBrief:
    """Open a finished walk-around again, with a reason, as its next version."""
    member = member_of(request)
    closing.reopen(member, walk_around_id, new.uuid, new.reason)
    return serializers.brief(walk_around_for(member, walk_around_id))


@walk_arounds.post("/{uuid:walk_around_id}/discard", response=WalkAroundBrief, **allowed(closing.discard))
def discard(request: HttpRequest, walk_around_id: uuid.UUID, new: EventIn) -> WalkAroundBrief:
    """Take a walk-around that was begun by mistake out of the lists; it stays in the log."""
    member = member_of(request)
    closing.discard(member, walk_around_id, new.uuid, new.reason)
    return serializers.brief(walk_around_for(member, walk_around_id))


@walk_arounds.post("/{uuid:walk_around_id}/restore", response=WalkAroundBrief, **allowed(closing.restore))
def restore(request: HttpRequest, walk_around_id: uuid.UUID, new: EventIn) -> WalkAroundBrief:
    """Bring a discarded walk-around back."""
    member = member_of(request)
    closing.restore(member, walk_around_id, new.uuid)
    return serializers.brief(walk_around_for(member, walk_around_id))


@walk_arounds.post("/{uuid:walk_around_id}/set-aside", response=WalkAroundBrief, **allowed(closing.set_aside))
def set_aside(request: HttpRequest, walk_around_id: uuid.UUID, new: SetAsideIn) -> WalkAroundBrief:
    """Keep a reading that could not be taken in the logbook, or discard it with a word."""
    member = member_of(request)
    what = closing.NotTaken(new.uuid, new.check, new.position, new.shown, new.refused, new.taken_at)
    closing.set_aside(member, walk_around_id, what, new.outcome, new.word)
    return serializers.brief(walk_around_for(member, walk_around_id))


@walk_arounds.get("/{uuid:walk_around_id}/findings", response=FindingsOut)
def findings(request: HttpRequest, walk_around_id: uuid.UUID, asked: Query[FindingsAsked]) -> FindingsOut:
    """What needs something done, with decisions."""
    return serializers_findings.findings(*opened_for(request, walk_around_id), member_of(request), asked)


@walk_arounds.post("/{uuid:walk_around_id}/decisions", response=DecidedOut, **allowed(decisions.decide))
def decide(request: HttpRequest, walk_around_id: uuid.UUID, new: DecisionIn) -> DecidedOut:
    """Decide a finding at one or several positions: do, wait until, decline with a reason, or open again."""
    member = member_of(request)
    found, book = opened_for(request, walk_around_id)
    decisions.decide(member, walk_around_id, new.uuid, new.check, new.positions, new.choice, new.until, new.reason)
    return serializers_findings.decided(found, book, member, new.check)


@walk_arounds.get("/{uuid:walk_around_id}/parts", response=PartsOut)
def parts(request: HttpRequest, walk_around_id: uuid.UUID) -> PartsOut:
    """The parts that findings and companions call for, merged."""
    return serializers_findings.parts_page(*opened_for(request, walk_around_id), member_of(request))


@walk_arounds.post("/{uuid:walk_around_id}/companions", response=PartsOut, **allowed(decisions.decline_companion))
def companions(request: HttpRequest, walk_around_id: uuid.UUID, new: CompanionIn) -> PartsOut:
    """Decline companions with a reason, or take that back."""
    member = member_of(request)
    found, book = opened_for(request, walk_around_id)
    decisions.decline_companion(member, walk_around_id, new.slot, new.positions, new.reason)
    return serializers_findings.parts_page(found, book, member)
