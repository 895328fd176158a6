"""From rows and core objects to what the endpoints give."""

from collections.abc import Mapping, Sequence

from django.contrib.auth.base_user import AbstractBaseUser
from django.db.models import Prefetch

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.calculators.opener import FEELERS_MM
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement import describe
from lumvek_core.judgement.words import unit_of
from lumvek_core.looks.wanted import motif_of
from lumvek_core.rules.fitted import FittedRule
from lumvek_core.units import System
from lumvek_core.vocabulary import CROP_NAMES
from parts.queries import parts_list
from parts.schemas import PartOut
from shops.models import Member
from shops.rights import may

from ..models import NotePhoto, Photo, PinnedPicture, StripPicture, WalkAround
from ..schemas import (
    HandOverOut,
    LeftOutOut,
    MachineOut,
    PersonOut,
    PhotoOut,
    WalkAroundBrief,
    WalkAroundOut,
)
from ..schemas_notes import NoteOut, StripPictureOut
from ..schemas_plan import CheckOut, HoldOut, LastOut, OptionOut, PinnedOut, PlanOut, PositionOut, PostureOut, RouteStationOut
from . import coupled, limits, pictures, rule_books, set_up, walk_arounds


def system_of(member: Member) -> System:
    return "in" if member.units == "in" else "mm"


def brief(walk_around: WalkAround) -> WalkAroundBrief:
    by = walk_around.started_by
    return WalkAroundBrief(
        id=walk_around.pk,
        phase=walk_around.phase,
        crop=walk_around.crop,
        started_at=walk_around.started_at,
        started_by=by.get_full_name() or by.get_username(),
        finished_at=walk_around.finished_at,
        version=walk_around.version,
        discarded=walk_around.discarded_at is not None,
    )


def kind_name(family_key: str) -> str:
    """What machines of a family are called; the key itself of one that is not shipped any more."""
    family = rule_books.shipped().families.get(family_key)
    return family.name if family else family_key


def machine_out(machine: Machine) -> MachineOut:
    family = rule_books.shipped().families.get(machine.model.family)
    return MachineOut(
        id=machine.pk,
        name=machine.name,
        model=machine.model.full_name,
        family=machine.model.family,
        kind=kind_name(machine.model.family),
        is_header=bool(family and family.is_header),
        rows=machine.rows,
        track_rows=machine.track_rows,
        serial=machine.serial,
        area_ha=machine.area_ha,
        hours=machine.hours,
        season_date=machine.season_date,
    )


def check_out(
    book: CoreBook,
    check: Check,
    layout: positions.Layout,
    crop: str,
    system: System,
    feelers: list[str],
    last: Mapping[set_up.Place, set_up.Stands],
    pins: Sequence[PinnedPicture] = (),
) -> CheckOut:
    """A check as the walk-around shows it. layout: how many there are of each thing; last: how its places stood."""
    places = [position.key for position in positions.expand(check.per, layout)]
    stood = [last[check.key, place] for place in places if (check.key, place) in last]
    return CheckOut(
        key=check.key,
        name=check.name,
        station=book.station_of[check.key].key,
        kind=check.kind,
        per=check.per,
        unit=check.unit or "",
        unit_shown=(check.rule.keeps_unit and stood and stood[-1].value.text) or unit_of(check, system),
        more_than_figures=check.rule.more_than_figures(),
        values=check.values,
        how=check.how,
        why=check.why,
        ways=book.ways.get(check.key, []),
        tools=check.tools,
        hazards=[book.hazards[name] for name in check.hazards],
        drawing=check.drawing or "",
        look=motif_of(check),
        together=check.together,
        optional=check.optional,
        often_missed=check.often_missed,
        safety=check.safety,
        bulk=in_force.seen_in_bulk(check, in_force.right_states(check, crop, book.schools)),
        posture=check.posture,
        thing=positions.thing_of(check.per),
        grade=check.rule.oil_grade(),
        options=_options(book, check, crop),
        feelers=feelers if check.rule.by_feeler else [],
        figures=limits.of_check(book, check, system),
        limits={name: limit.value for name, limit in book.limits[check.key].items()},
        positions=places,
        pinned=[pinned(one) for one in pins],
        last=[
            LastOut(position=one.position, shown=describe.full(check, one.value, system), day=one.at.date()) for one in stood
        ],
    )


def pinned(one: PinnedPicture) -> PinnedOut:
    path = f"/api/walk-arounds/{one.photo.walk_around_id}/photos/{one.photo.uuid}"
    words = ": ".join(filter(None, [one.state_name, one.photo.caption])) or "How it looks here"
    return PinnedOut(uuid=one.uuid, photo=one.photo.uuid, path=path, state=one.state, words=words)


def _options(book: CoreBook, check: Check, crop: str) -> list[OptionOut]:
    """The states to choose from, with what the crop that comes would have."""
    wanted = {one.key for one in check.rule.wanted(crop, book.schools)} if isinstance(check.rule, FittedRule) else set()
    right = in_force.right_states(check, crop, book.schools)
    return [
        OptionOut(
            key=option.key,
            name=option.name,
            severity=option.severity,
            hint=f"for {CROP_NAMES[crop]}" if option.key in wanted else "",
            right=option.key in right,
        )
        for option in check.rule.states()
    ]


def parts(walk_around: WalkAround, book: CoreBook) -> list[PartOut]:
    """The parts that a walk-around calls for, merged."""
    models = {prefix: machine.model_id for prefix, machine in coupled.of(walk_around)}
    return parts_list(walk_around.pk, models, book)


def walk_around(found: WalkAround, book: CoreBook, member: Member) -> WalkAroundOut:
    """Everything the walk-around screen shows."""
    checks = rule_books.checks_of(found)
    keys = {position.key: position for check in checks for position in positions.expand(check.per, found.layout)}
    last, feelers = walk_arounds.last_reading(found), feelers_of(member)
    headers = list(found.headers.select_related("model"))
    stood = set_up.last_before(found, [found.machine, *headers], [check for check in checks if check.rule.sets_up])
    pins = pictures.pinned(member.shop_id, [found.machine, *headers])
    hand_over = found.hand_overs.select_related("giver", "taker").last()
    return WalkAroundOut(
        walk_around=brief(found),
        machine=machine_out(found.machine),
        headers=[machine_out(header) for header in headers],
        people=[person(one) for one in found.people.select_related("user")],
        route=[RouteStationOut(key=station["key"], name=station["name"]) for station in found.stations],
        postures=[
            PostureOut(name=name, lock=p.lock, cautions=p.cautions, running=p.running, off_machine=p.off_machine)
            for name, p in book.postures.items()
        ],
        plan=PlanOut.model_validate(found.plan),
        holds=holds(found),
        photos=[photo(one) for one in pictures.of(found)],
        notes=[one for machine in [found.machine, *headers] for one in notes(machine)],
        hand_over=HandOverOut(
            giver=full_name(hand_over.giver), taker=full_name(hand_over.taker), note=hand_over.note, at=hand_over.at
        )
        if hand_over
        else None,
        last=last,
        checks=[
            check_out(book, check, found.layout, found.crop, system_of(member), feelers, stood, pins.get(check.key, ()))
            for check in checks
        ],
        positions=[PositionOut(key=p.key, label=p.label, thing=p.thing, number=p.number, side=p.side) for p in keys.values()],
        places=walk_arounds.places(found, book, member),
        stations=walk_arounds.station_states(found),
        parts=parts(found, book),
        left_out=[LeftOutOut(checks=one["checks"], words=one["words"]) for one in found.left_out],
        notice=book.notice,
        may_record=may_record(found, member),
        may_decide=may(member, "decide findings"),
        may_pin=may(member, "pin pictures"),
    )


def may_record(walk_around: WalkAround, member: Member) -> bool:
    """Whether this member may record in this walk-around now."""
    return may(member, "record readings") and walk_around.finished_at is None and walk_around.discarded_at is None


def feelers_of(member: Member) -> list[str]:
    """Names of the feelers to choose from: the shop's own, then the usual ones it has not measured."""
    own = list(member.shop.feelers.values_list("name", flat=True))
    return own + [name for name in FEELERS_MM if name not in {one.lower() for one in own}]


def full_name(user: AbstractBaseUser) -> str:
    return user.get_full_name() or user.get_username()  # type: ignore[attr-defined]


def person(member: Member) -> PersonOut:
    return PersonOut(id=member.pk, name=member.name)


def holds(walk_around: WalkAround) -> list[HoldOut]:
    """The postures that are confirmed and still hold."""
    current = walk_around.holds.filter(ended_at=None).select_related("by")
    return [HoldOut(posture=hold.posture, by=full_name(hold.by), at=hold.at) for hold in current]


def photo(photo: Photo) -> PhotoOut:
    return PhotoOut(
        uuid=photo.uuid,
        check=photo.check_key,
        position=photo.position_key,
        caption=photo.caption,
        width=photo.width,
        height=photo.height,
        by=full_name(photo.by),
    )


def strip_picture(picture: StripPicture) -> StripPictureOut:
    return StripPictureOut(
        uuid=picture.uuid,
        strip_down=picture.strip_down,
        place=picture.place,
        words=picture.words,
        loose=picture.loose,
        by=full_name(picture.by),
        at=picture.at,
    )


def notes(machine: Machine, *, closed: bool = False) -> list[NoteOut]:
    """What the operator noticed and nobody has explained yet; with `closed`, all of it."""
    found = (
        machine.operator_notes.filter(taken_back_at=None)
        .select_related("by", "closed_by")
        .prefetch_related(Prefetch("photos", NotePhoto.objects.defer("image")))
    )
    family = rule_books.shipped().families.get(machine.model.family)
    names = {station.key: station.name for station in family.stations} if family else {}
    return [
        NoteOut(
            uuid=note.uuid,
            text=note.text,
            machine=machine.pk,
            station=note.station_key,
            station_name=names.get(note.station_key, ""),
            photos=[f"/api/machines/{machine.pk}/notes/{note.uuid}/photos/{one.uuid}" for one in note.photos.all()],
            by=full_name(note.by),
            at=note.at,
            cause=note.cause,
            closed_by=full_name(note.closed_by) if note.closed_by else "",
        )
        for note in (found if closed else found.filter(closed_at=None))
    ]
