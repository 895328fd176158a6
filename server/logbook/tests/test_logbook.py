"""The logbook: everything that happened, in order and to be found again; services, the put-away list, and notes from the cab."""

import datetime as dt
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from season_helpers import fitted

from demo.pictures import drawn
from fleet.models import Machine, MachineModel
from inspection.actions import notes, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing
from logbook.api import PAGE
from logbook.models import PutAwayTick, ServiceDone
from lumvek_core.catalogue import load
from lumvek_core.catalogue.station_guess import guess_station

FAMILIES = load.shipped().families


@pytest.fixture
def book(planter, as_):
    """The logbook's entries: book(), book("search=row+3"), with everything else as sent."""
    path = f"/api/logbook/machines/{planter.machine.pk}/logbook"
    return lambda query="", member=None: as_(member or planter.lead).get(f"{path}?{query}").json()


def test_everything_is_there_newest_first_with_who_and_the_counter(planter, book):
    fitted(planter, "3L", 2860, timezone.now())
    found = book()
    at = [entry["at"] for entry in found["entries"]]
    assert at == sorted(at, reverse=True)
    kinds = {entry["kind"] for entry in found["entries"]}
    assert {"walk-around", "reading", "part", "counter"} <= kinds
    newest = next(entry for entry in found["entries"] if entry["kind"] == "part")
    assert newest["title"] == "Opener disc D12-4001 fitted" and newest["counter"] == "2860 ha"
    assert all(entry["by"] for entry in found["entries"])


def test_it_is_searched_by_any_words_and_filtered_by_kind(planter, book, read):
    read("opener-bearing", "5L", "rough")
    found = book("search=rough+row+5+LEFT&kind=reading")
    assert [entry["station"] for entry in found["entries"]] == ["Opener discs"]
    assert "Opener disc bearing: row 5 left Rough" in found["entries"][0]["text"]
    assert book("search=rough&kind=counter")["page"]["total"] == 0


def test_it_is_read_a_page_at_a_time_from_either_end(planter, as_, book):
    technician = as_(planter.technician)
    for i in range(PAGE + 3):
        body = {"uuid": str(uuid.uuid4()), "text": f"note {i}", "station": ""}
        assert technician.send(f"/api/machines/{planter.machine.pk}/notes", **body).status_code == 200
    first, second = book("kind=note"), book("kind=note&page=2")
    assert (len(first["entries"]), second["page"]["first"], second["page"]["last"]) == (PAGE, PAGE + 1, PAGE + 3)
    assert [book(f"kind=note&order={one}")["entries"][0]["title"] for one in ("newest", "oldest")] == [
        f"note {PAGE + 2}",
        "note 0",
    ]
    assert book("kind=note&page=99")["page"]["number"] == 2


def test_its_queries_do_not_grow_with_the_years(planter, as_, read, django_assert_max_num_queries):
    browser, path = as_(planter.lead), f"/api/logbook/machines/{planter.machine.pk}/logbook"
    read("opener-bearing", "5L", "rough")
    browser.get(path)
    with django_assert_max_num_queries(30):
        browser.get(path)


def test_a_header_has_its_own_logbook_and_an_owner_not_somebody_elses_combine(planter, as_):
    combine_model = MachineModel.objects.create(shop=planter.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    header_model = MachineModel.objects.create(shop=planter.shop, maker="Lorne", name="Sill 61", family="auger-platform")
    combine = Machine.objects.create(shop=planter.shop, model=combine_model, name="Heron 4", hours=3870)
    header = Machine.objects.create(shop=planter.shop, model=header_model, name="Sill 61", area_ha=2310)
    header.owners.add(planter.owner)
    starting.start(planter.technician, combine, uuid.uuid4(), preparing.Wanted("winter", headers=[header.pk]))
    path = f"/api/logbook/machines/{header.pk}/logbook"
    assert as_(planter.lead).get(path).json()["page"]["total"] == 1
    assert as_(planter.owner).get(path).json()["page"]["total"] == 0
    assert as_(planter.owner).get(f"/api/logbook/machines/{combine.pk}/logbook").status_code == 404


def test_it_goes_out_as_a_table_and_on_paper_as_it_was_filtered(planter, as_, read):
    read("opener-bearing", "5L", "rough")
    browser = as_(planter.lead)
    table = browser.get(f"/machines/{planter.machine.pk}/logbook.csv?kind=reading").content.decode("utf-8-sig")
    assert table.startswith("when,counter,what,title") and "Rough" in table and "Counter read" not in table
    page = browser.get(f"/machines/{planter.machine.pk}/logbook/print?search=rough").content.decode()
    assert "Opener discs: " in page and "with “rough”" in page and "Counter read" not in page


def due(planter, as_):
    found = as_(planter.lead).get(f"/api/logbook/machines/{planter.machine.pk}/services").json()
    return {one["key"]: one for one in found["services"]}


def test_a_service_is_due_by_counter_or_date_and_done_with_one_tap(planter, as_):
    before = due(planter, as_)["arm-bolts"]
    assert (before["state"], before["last"]) == ("unknown", "not on record")
    path, same = f"/api/logbook/machines/{planter.machine.pk}/services", str(uuid.uuid4())
    for _ in range(2):
        as_(planter.technician).send(path, uuid=same, key="arm-bolts", day="2026-02-01", counter=2700)
    assert ServiceDone.objects.count() == 1
    after = due(planter, as_)["arm-bolts"]
    assert (after["state"], after["left"], after["interval"]) == ("overdue", "40 ha over", "every 120 ha")
    as_(planter.technician).send(path, uuid=str(uuid.uuid4()), key="arm-bolts")
    now = due(planter, as_)["arm-bolts"]
    assert now["state"] == "later" and now["last"].endswith("at 2860 ha")


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"key": "engine-oil"}, "key"),
        ({"key": "arm-bolts", "counter": 9000}, "counter"),
        ({"key": "arm-bolts", "day": "2199-01-01"}, "day"),
    ],
)
def test_a_service_that_cannot_be_is_refused(planter, as_, body, field):
    answer = as_(planter.technician).send(
        f"/api/logbook/machines/{planter.machine.pk}/services", uuid=str(uuid.uuid4()), **body
    )
    assert answer.status_code == 422 and answer.json()["error"]["field"] == field


@pytest.fixture
def combine(planter):
    model = MachineModel.objects.create(shop=planter.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    return Machine.objects.create(shop=planter.shop, model=model, name="Heron 4", hours=3870)


def services_of(combine, planter, as_):
    found = as_(planter.lead).get(f"/api/logbook/machines/{combine.pk}/services").json()
    return {one["key"]: one for one in found["services"]}


def test_what_was_read_at_the_machine_counts_as_done(combine, planter, as_):
    from inspection.actions import recording

    found = starting.start(planter.technician, combine, uuid.uuid4(), preparing.Wanted("winter"))
    recording.record_reading(planter.technician, found.pk, NewReading(uuid.uuid4(), "spline-grease", "rotor-1", raw=["3320 h"]))
    one = services_of(combine, planter, as_)["splines"]
    assert one["state"] == "overdue" and one["last"].startswith("3320 h, read") and one["left"] == "50 h over"


def test_chains_come_round_yearly_only_where_the_shop_follows_that_school_and_a_fitted_chain_begins_the_year(
    combine, planter, as_
):
    assert "unload-chains" not in services_of(combine, planter, as_)
    as_(planter.lead).send("/api/rules/schools", subject="chain-retirement", choice="yearly")
    assert services_of(combine, planter, as_)["unload-chains"]["state"] == "unknown"
    planter.machine = combine
    fitted(planter, "all", 3600, timezone.now() - dt.timedelta(days=400), number="TH-2000", slot="unload-chain")
    one = services_of(combine, planter, as_)["unload-chains"]
    assert one["state"] == "overdue" and "fitted TH-2000" in one["last"]


def put_away(planter, as_, **body):
    path = f"/api/logbook/machines/{planter.machine.pk}/put-away"
    return as_(planter.technician).send(path, **body).json() if body else as_(planter.lead).get(path).json()


def test_the_put_away_list_is_ticked_dated_and_can_be_taken_back(planter, as_):
    before = put_away(planter, as_)
    keys = [one["key"] for one in before["items"]]
    assert "meters-empty" in keys and "bowls-hung" not in keys, "only what this machine has"
    same = str(uuid.uuid4())
    for _ in range(2):
        after = put_away(planter, as_, uuid=same, key="meters-empty", season=before["season"], done=True)
    ticked = next(one for one in after["items"] if one["key"] == "meters-empty")
    assert PutAwayTick.objects.count() == 1 and ticked["done"] and ticked["by"] and ticked["at"] and after["done"] == 1
    back = put_away(planter, as_, uuid=str(uuid.uuid4()), key="meters-empty", season=before["season"], done=False)
    assert back["done"] == 0


def test_what_an_after_season_walk_around_found_put_away_is_ticked(planter, as_):
    from inspection.actions import recording

    found = starting.start(planter.technician, planter.machine, uuid.uuid4(), preparing.Wanted("after-season"))
    read = [NewReading(uuid.uuid4(), "meters-empty", str(row), raw=["yes"]) for row in range(1, 7)]
    recording.record_readings(planter.technician, found.pk, read)
    one = next(one for one in put_away(planter, as_)["items"] if one["key"] == "meters-empty")
    assert one["done"] and one["by"] == "Technician"


def test_nobody_ticks_a_season_that_has_not_ended(planter, as_):
    answer = put_away(planter, as_, uuid=str(uuid.uuid4()), key="meters-empty", season=2199, done=True)
    assert answer["error"]["field"] == "season"


@pytest.mark.parametrize(
    ("family", "text", "station"),
    [
        ("rotary-combine", "Clean-grain elevator rattles when it is full", "elevators"),
        ("rotary-combine", "Something smelled hot", ""),
        ("row-crop-planter", "gauge wheels of row 5 ran shallow", "gauge-wheel"),
    ],
)
def test_a_note_goes_to_the_station_its_words_name(family, text, station):
    assert guess_station(FAMILIES[family], text) == station


def test_a_note_from_the_cab_comes_up_with_its_picture_at_its_station(planter, as_):
    note, photo = str(uuid.uuid4()), str(uuid.uuid4())
    browser, path = as_(planter.parts), f"/api/machines/{planter.machine.pk}/notes"
    browser.send(path, uuid=note, text="Row 5 ran shallow", station="gauge-wheel")
    for _ in range(2):
        kept = browser.post(
            f"{path}/{note}/photos", {"uuid": photo, "photo": SimpleUploadedFile("p.jpg", drawn("furrow"), "image/jpeg")}
        ).json()
    address = f"{path}/{note}/photos/{photo}"
    assert kept[0]["photos"] == [address] and browser.get(address)["Content-Type"] == "image/jpeg"
    shown = as_(planter.technician).get(f"/api/walk-arounds/{planter.walk_around.pk}").json()["notes"]
    assert [(one["station"], one["station_name"], one["photos"]) for one in shown] == [
        ("gauge-wheel", "Gauge wheels", [address])
    ]
    notes.close_note(planter.technician, planter.machine, uuid.UUID(note), "depth stop slipped")
    told = browser.get(f"/api/logbook/machines/{planter.machine.pk}/logbook?kind=note").json()["entries"][0]
    assert "Cause: depth stop slipped" in told["text"] and told["photos"] == [address]


def test_a_station_there_is_not_is_refused_and_the_words_are_kept_by_the_sender(planter, as_):
    answer = as_(planter.lead).send(
        f"/api/machines/{planter.machine.pk}/notes", uuid=str(uuid.uuid4()), text="odd", station="moon"
    )
    assert answer.json()["error"]["field"] == "station"


def test_a_service_that_was_not_done_after_all_is_taken_back_and_stays_in_the_logbook(planter, as_, book):
    technician, path = as_(planter.technician), f"/api/logbook/machines/{planter.machine.pk}/services"
    before = technician.get(path).json()["services"]
    key, done = before[0]["key"], str(uuid.uuid4())
    technician.send(path, uuid=done, key=key)
    now = next(one for one in technician.get(path).json()["services"] if one["key"] == key)
    assert now["record"] == done and now["last"] != before[0]["last"]
    assert as_(planter.owner).send(f"{path}/{done}/take-back").status_code in (403, 404)
    for _ in range(2):
        assert technician.send(f"{path}/{done}/take-back").json()["services"] == before
    (entry,) = book("kind=service")["entries"]
    assert entry["title"] == f"Taken back: {now['name']}" and entry["text"].startswith("taken back by Technician")


def test_a_note_is_opened_again_when_that_was_not_the_cause_or_taken_back(planter, as_, book):
    technician, note = as_(planter.technician), str(uuid.uuid4())
    path = f"/api/machines/{planter.machine.pk}/notes"
    technician.send(path, uuid=note, text="row 4 knocked")
    assert technician.send(f"{path}/{note}/close", cause="loose stop").json() == []
    assert [one["cause"] for one in technician.send(f"{path}/{note}/open").json()] == [""]
    for _ in range(2):
        assert technician.send(f"{path}/{note}/take-back").json() == []
    assert [entry["title"] for entry in book("kind=note")["entries"]] == ["Taken back: row 4 knocked"]
