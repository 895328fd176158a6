"""A walk-around of a combine with its header: start, postures, bulk, hand-over, notes, pictures, summary, map; and two people
at once."""

import threading
import uuid
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import connection

from demo.record_helpers import usual_but
from fleet.models import Machine, MachineModel
from inspection.actions import closing, notes, postures, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import HandOver, OperatorNote, PostureHold, Reading, Verdict, WalkAround
from inspection.queries import preparing, row_map, rule_books, serializers, serializers_findings, summary, walk_arounds
from lumvek_core import positions
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere


@pytest.fixture
def combine(yard):
    """The yard with a combine, its draper, and a winter walk-around of both."""

    def made(maker, name, family, **more):
        counts = more.pop("counts", {})
        model = MachineModel.objects.create(shop=yard.shop, maker=maker, name=name, family=family, counts=counts)
        return Machine.objects.create(shop=yard.shop, model=model, name=name, **more)

    yard.combine = made("Tavric", "Heron 6", "rotary-combine", hours=2140, options=["windrow-door"], counts={"knife": 8})
    yard.draper = made("Lorne", "Weir 107", "draper-header", options=["flex"], counts={"runner": 5})
    wanted = preparing.Wanted("winter", headers=[yard.draper.pk], people=[yard.lead.pk])
    yard.winter = starting.start(yard.technician, yard.combine, uuid.uuid4(), wanted)
    return yard


def new(check, position, *raw, **more):
    more = {"uuid": uuid.uuid4(), "raw": list(raw), **more}
    return NewReading(check=check, position=position, **more)


def test_a_header_comes_with_its_options_counts_and_limits(combine):
    checks = {check.key: check for check in rule_books.checks_of(combine.winter)}
    assert "draper.float-preload-foot" in checks, "the draper is flexible"
    assert "draper.height-arms" not in checks, "and has no height arms"
    assert "stationary-knives" in checks, "a windrow door still chops"
    assert len(positions.expand("draper.runner", combine.winter.layout)) == 5
    assert len(positions.expand("knife", combine.winter.layout)) == 8
    assert sorted(check for visit in combine.winter.plan["visits"] for check in visit["checks"]) == sorted(checks)
    assert set(combine.winter.people.all()) == {combine.technician, combine.lead}


@pytest.mark.parametrize("phase", ["after-season", "daily", "crop-change", "arrival"])
def test_each_time_of_the_season_has_its_own_list(combine, phase):
    found = starting.start(combine.lead, combine.combine, uuid.uuid4(), preparing.Wanted(phase))
    assert {phase} <= set.intersection(*(set(check.phases) for check in rule_books.checks_of(found)))


def test_what_cannot_be_started_is_refused(combine, neighbour):
    for wanted in (
        preparing.Wanted(headers=[neighbour.machine.pk]),
        preparing.Wanted(headers=[combine.combine.pk]),
        preparing.Wanted("emergence"),
    ):
        with pytest.raises(BadInput):
            starting.start(combine.lead, combine.combine, uuid.uuid4(), wanted)


def test_a_headers_walk_around_stands_on_its_own_card_too(combine, as_):
    recording.record_reading(combine.technician, combine.winter.pk, new("draper.side-belt-tension", "L", "slack"))
    cards = {card["machine"]["name"]: card for card in as_(combine.lead).get("/api/machines").json()["machines"]}
    assert cards["Weir 107"]["newest"]["id"] == str(combine.winter.pk)
    assert all(station["key"].startswith("draper.") for station in cards["Weir 107"]["stations"])
    assert sum(station["due"] for station in cards["Weir 107"]["stations"]) == 1


def test_an_owner_of_the_header_does_not_see_somebody_elses_combine(combine, as_):
    combine.draper.owners.add(combine.owner)
    owner = as_(combine.owner)
    cards = owner.get("/api/machines").json()["machines"]
    assert [(card["machine"]["name"], card["newest"]) for card in cards] == [("Weir 107", None)]
    assert owner.get(f"/api/walk-arounds/{combine.winter.pk}").status_code == 404


def test_a_posture_holds_until_another_is_taken_up_but_not_for_a_part_on_the_bench(yard):
    def current():
        return [hold.posture for hold in serializers.holds(yard.walk_around)]

    def hold(posture, with_uuid=None):
        postures.confirm_posture(yard.technician, yard.walk_around.pk, with_uuid or uuid.uuid4(), posture)

    once = uuid.uuid4()
    hold("unfolded, raised and locked", once)
    hold("unfolded, raised and locked", once)
    hold("bench")
    assert current() == ["unfolded, raised and locked", "bench"]
    hold("on concrete, units just touching")
    assert current() == ["on concrete, units just touching"]
    assert PostureHold.objects.count() == 3
    with pytest.raises(BadInput):
        hold("hanging from a crane")


def test_bulk_is_for_what_is_looked_at_only(combine, read):
    def mark(check, position, raw):
        return recording.record_reading(combine.technician, combine.winter.pk, new(check, position, raw, bulk=True))

    mark("feeder-trash", "all", "yes")
    assert Reading.objects.get(check_key="feeder-trash").bulk
    for check, position, raw in (
        ("feeder-chain-tension", "all", "35"),
        ("drum-bearings", "L", "smooth"),
        ("tie-rods", "L", "none"),
        ("feeder-seals", "all", "leak"),
        ("rotor-gear-oil", "rotor-1", "right"),
    ):
        with pytest.raises(BadInput, match="by itself"):
            mark(check, position, raw)


def test_does_not_apply_counts_as_done(combine):
    recording.record_reading(
        combine.technician, combine.winter.pk, new("guard-flap", "all", state="does-not-apply", reason="no knives fitted")
    )
    combine.winter.refresh_from_db()
    station = next(s for s in walk_arounds.station_states(combine.winter) if s.key == "shoe")
    assert (station.does_not_apply, station.open) == (1, station.total - 1)
    assert Verdict.objects.get().reason == "Does not apply: no knives fitted."


def test_whoever_works_alongside_learns_that_the_machine_was_moved(yard, as_):
    url = f"/api/walk-arounds/{yard.walk_around.pk}/changes"
    postures.confirm_posture(yard.technician, yard.walk_around.pk, uuid.uuid4(), "unfolded, raised and locked")
    assert [hold["by"] for hold in as_(yard.lead).get(url).json()["holds"]] == ["Technician"]
    postures.confirm_posture(yard.lead, yard.walk_around.pk, uuid.uuid4(), "on concrete, units just touching")
    assert [hold["posture"] for hold in as_(yard.technician).get(url).json()["holds"]] == ["on concrete, units just touching"]


def test_handing_over_brings_the_next_one_in_and_asks_for_the_locks_again(yard):
    postures.confirm_posture(yard.technician, yard.walk_around.pk, uuid.uuid4(), "unfolded, raised and locked")
    once = uuid.uuid4()
    for _ in range(2):
        postures.hand_over(yard.technician, yard.walk_around.pk, once, yard.lead.pk, "row 7 is apart")
    assert HandOver.objects.get().note == "row 7 is apart"
    assert yard.lead in yard.walk_around.people.all()
    assert serializers.holds(yard.walk_around) == []
    for to in (yard.technician.pk, yard.owner.pk, 0):
        with pytest.raises(BadInput):
            postures.hand_over(yard.technician, yard.walk_around.pk, uuid.uuid4(), to)


def test_an_operators_note_stays_open_until_its_cause_is_found(yard, neighbour):
    once = uuid.uuid4()
    for _ in range(2):
        notes.note(yard.lead, yard.machine, once, " rattles in the headland ")
    assert [note.text for note in serializers.notes(yard.machine)] == ["rattles in the headland"]
    with pytest.raises(BadInput):
        notes.close_note(yard.lead, yard.machine, once, " ")
    with pytest.raises(NotFoundHere):
        notes.close_note(neighbour.lead, neighbour.machine, once, "wind")
    notes.close_note(yard.technician, yard.machine, once, "loose marker pin")
    assert serializers.notes(yard.machine) == []
    assert OperatorNote.objects.get().cause == "loose marker pin"


def test_a_summary_does_not_call_complete_what_has_holes(combine):
    def state():
        return summary.build(combine.winter, rule_books.opened(combine.winter.rule_book_id), combine.lead)

    told = [new(check, place, **what) for check, place, what in usual_but(combine.winter, {})]
    held_back = next(one for one in told if one.check == "sieve-holes")
    recording.record_readings(combine.technician, combine.winter.pk, [one for one in told if one is not held_back])
    before = state()
    assert not before.complete
    assert [(hole.check, hole.count) for hole in before.holes] == [("sieve-holes", 1)]
    assert [(one.done, one.total) for one in before.missed if one.check == "sieve-holes"] == [(1, 2)]
    recording.record_reading(
        combine.technician, combine.winter.pk, new("sieve-holes", held_back.position, state="not-seen", reason="no lamp")
    )
    assert not state().complete, "not seen is not seen"
    recording.record_reading(combine.technician, combine.winter.pk, held_back)
    assert state().complete


def test_a_finding_names_the_set_it_calls_for_and_a_watch_names_none(combine):
    for strand, mm in ((1, "849"), (2, "853.5")):
        recording.record_reading(combine.technician, combine.winter.pk, new("feeder-chain-stretch", f"strand-{strand}", mm))
    found = serializers_findings.findings(combine.winter, rule_books.opened(combine.winter.rule_book_id), combine.lead)
    shown = {one.place.position: (one.place.severity, one.parts) for one in found.groups[0].findings}
    assert shown == {"strand-2": ("due", ["Feeder chain set"]), "strand-1": ("watch", [])}


def test_the_plan_can_be_put_in_another_order(combine):
    visits = combine.winter.plan["visits"]
    changed = starting.reorder(combine.technician, combine.winter.pk, list(reversed(range(len(visits)))))
    assert [visit["posture"] for visit in changed.plan["visits"]] == [visit["posture"] for visit in reversed(visits)]
    assert changed.plan["minutes"] == sum(visit["minutes"] for visit in changed.plan["visits"])
    with pytest.raises(BadInput):
        starting.reorder(combine.technician, combine.winter.pk, [0, 0])


def grid(yard, thing=""):
    return row_map.build(yard.walk_around, rule_books.opened(yard.walk_around.rule_book_id), yard.technician, thing)


def test_like_things_stand_against_each_other_and_against_last_time(yard, read):
    for row, mm in enumerate((395, 394, 388, 393, 395, 394), start=1):
        read("opener-disc-diameter", f"{row}L", str(mm))
    last = yard.walk_around
    closing.finish(yard.technician, last.pk, uuid.uuid4())
    yard.walk_around = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
    for row, mm in enumerate((394, 393.5, 385, 392, 394, 393), start=1):
        read("opener-disc-diameter", f"{row}L", str(mm))
    found = grid(yard)
    line = next(line for line in found.lines if (line.check, line.side) == ("opener-disc-diameter", "left"))
    assert (found.thing, found.columns, found.marked) == ("row", ["1", "2", "3", "4", "5", "6"], ["3", "4"])
    assert [cell.short for cell in line.cells] == ["394", "393.5", "385", "392", "394", "393"]
    assert (line.cells[2].off, line.cells[2].change, line.cells[2].severity, line.cells[2].deviation) == (
        "−8.25",
        "−3",
        "due",
        1,
    )
    assert found.worst[0] == "3"
    with pytest.raises(BadInput):
        grid(yard, "wing")


def test_what_others_read_meanwhile_is_asked_for_by_number(yard, read, as_):
    browser, url = as_(yard.lead), f"/api/walk-arounds/{yard.walk_around.pk}/changes"
    read("opener-disc-diameter", "1L", "395")
    first = browser.get(url).json()
    assert [place["position"] for place in first["places"]] == ["1L"]
    assert browser.get(url, {"after": first["last"]}).json()["places"] == []
    read("depth-handle", "1", "7")
    read("depth-handle", "2", "7", by=yard.lead)
    later = browser.get(url, {"after": first["last"]}).json()
    assert {(place["position"], place["by"]) for place in later["places"]} == {("1", "Technician"), ("2", "Lead")}


@pytest.mark.django_db(transaction=True)
def test_two_technicians_at_once_with_retries_lose_nothing_and_double_nothing(yard):
    """Two people, one machine, a shaky network: every reading is sent up to three times, some of them at the same moment."""
    checks = [("opener-disc-diameter", f"{row}{side}") for row in range(1, 7) for side in "LR"]
    checks += [("depth-handle", str(row)) for row in range(1, 7)] + [("opener-bearing", f"{row}L") for row in range(1, 7)]
    together = threading.Barrier(2)

    def work(member, shift):
        try:
            together.wait(10)
            sent = []
            for check, place in [*checks[shift:], *checks[:shift]]:
                raw = {"depth-handle": "7", "opener-bearing": "smooth"}.get(check, "395")
                reading = new(check, place, raw)
                for _ in range(3):
                    recording.record_reading(member, yard.walk_around.pk, reading)
                sent.append(reading.uuid)
            return sent
        finally:
            connection.close()

    with ThreadPoolExecutor(2) as pool:
        mine, theirs = pool.submit(work, yard.technician, 0), pool.submit(work, yard.lead, 9)
        sent = [*mine.result(60), *theirs.result(60)]
    assert len(sent) == 2 * len(checks)
    assert sorted(Reading.objects.values_list("uuid", flat=True)) == sorted(sent)
    assert Verdict.objects.count() == len(checks), "one verdict a place"
    for verdict in Verdict.objects.select_related("reading"):
        newest = Reading.objects.filter(check_key=verdict.check_key, position_key=verdict.position_key).latest("id")
        assert verdict.reading_id == newest.pk, "the newest is in force, the other stays in the log"
        assert newest.replaces_id is not None


def test_opening_takes_the_same_number_of_queries_however_much_was_read(combine, as_, django_assert_max_num_queries):
    browser, url = as_(combine.lead), f"/api/walk-arounds/{combine.winter.pk}"
    browser.get(url)
    for told in ([], [new(check, place, **what) for check, place, what in usual_but(combine.winter, {})]):
        if told:
            recording.record_readings(combine.technician, combine.winter.pk, told)
        with django_assert_max_num_queries(22):
            assert len(browser.get(url).json()["places"]) == len(told)
    assert WalkAround.objects.count() == 2
