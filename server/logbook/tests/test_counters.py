"""Counters in the shop: typed, from a file, from the modem; meters exchanged; what cannot be is asked about and nothing
doubled."""

import datetime as dt
import json
import uuid
from types import SimpleNamespace

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from fleet.actions import counting
from fleet.models import CounterReading, Machine, MachineModel
from logbook.actions import counter_import
from testing.streams import report, steps


@pytest.fixture
def send(planter, as_):
    """Send what the meter shows: send(2900), send(0, exchanged=True, old_shown=2870)."""
    path = f"/api/logbook/machines/{planter.machine.pk}/counters"

    def sent(shown, browser=None, **more):
        body = {"uuid": str(uuid.uuid4()), "shown": shown} | more
        return (browser or as_(planter.technician)).send(path, **body)

    return sent


def test_what_the_meter_shows_moves_the_machine_along(planter, send):
    found = send(2890).json()
    assert found["now"] == 2890 and found["readings"][0]["source"] == "typed"
    planter.machine.refresh_from_db()
    assert planter.machine.area_ha == 2890 and planter.machine.wear_stale


def test_sending_it_twice_is_one_reading(planter, send):
    same = str(uuid.uuid4())
    before = CounterReading.objects.count()
    for _ in range(2):
        assert send(2890, uuid=same).status_code == 200
    assert CounterReading.objects.count() == before + 1


def test_a_jump_is_asked_about_and_stands_when_it_is_confirmed(send):
    asked = send(3600)
    assert asked.status_code == 422 and asked.json()["error"]["field"] == "shown"
    assert "no machine does more than 250 ha a day" in asked.json()["error"]["message"]
    kept = send(3600, confirmed=True).json()["readings"][0]
    assert (kept["total"], kept["confirmed"]) == (3600, True)


def test_a_counter_that_runs_back_cannot_be_confirmed_but_a_meter_can_be_exchanged(planter, send):
    assert "Was the meter exchanged" in send(12).json()["error"]["message"]
    assert send(12, confirmed=True).status_code == 422
    found = send(12, exchanged=True, old_shown=2870).json()
    assert found["now"] == 2870
    assert send(40).json()["now"] == 2898, "the machine's own count goes on"
    assert send(12, exchanged=True, old_shown=3).json()["error"]["field"] == "old_shown"


def test_a_wrong_reading_is_withdrawn_and_stays_in_the_log(planter, send, as_):
    wrong = str(uuid.uuid4())
    send(3000, uuid=wrong)
    browser, path = as_(planter.technician), f"/api/logbook/machines/{planter.machine.pk}"
    found = browser.send(f"{path}/counters/{wrong}/withdraw").json()
    assert found["now"] == 2860 and found["readings"][0]["withdrawn"]
    told = browser.get(f"{path}/logbook?kind=counter&search=withdrawn").json()
    assert [entry["title"] for entry in told["entries"]] == ["Counter read: 3000 ha"]


def test_an_exchange_that_later_readings_rest_on_is_not_withdrawn(planter, send, as_):
    exchange = str(uuid.uuid4())
    send(0, uuid=exchange, exchanged=True)
    send(10)
    answer = as_(planter.technician).send(f"/api/logbook/machines/{planter.machine.pk}/counters/{exchange}/withdraw")
    assert answer.status_code == 422 and "withdraw them first" in answer.json()["error"]["message"]


def test_what_is_still_to_come_is_refused(send):
    later = (timezone.now() + dt.timedelta(days=2)).isoformat()
    assert send(2900, at=later).json()["error"]["field"] == "at"


def test_a_combine_has_two_meters_that_do_not_mix(planter, as_):
    model = MachineModel.objects.create(shop=planter.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    combine = Machine.objects.create(shop=planter.shop, model=model, name="Heron 4", hours=3870)
    browser, path = as_(planter.technician), f"/api/logbook/machines/{combine.pk}/counters"
    for shown, unit in ((3880, ""), (9100, "ha"), (9140, "ha"), (3881, "h")):
        found = browser.send(path, uuid=str(uuid.uuid4()), shown=shown, unit=unit)
        assert found.status_code == 200, found.content
    assert (found.json()["now"], found.json()["also"], found.json()["two"]) == (3881, 9140, True)
    assert browser.send(path, uuid=str(uuid.uuid4()), shown=12, unit="ha").status_code == 422


def test_a_planter_has_no_hour_meter(send):
    assert send(100, unit="h").json()["error"]["field"] == "unit"


def csv(browser, text, **more):
    file = SimpleUploadedFile("counters.csv", text.encode(), "text/csv")
    return report(browser.post("/api/logbook/counters-file", {"file": file, **more}))


def test_a_file_is_tried_first_and_sent_again_changes_nothing(planter, as_):
    browser, before = as_(planter.technician), CounterReading.objects.count()
    today = timezone.localdate().isoformat()
    text = f"machine;date;counter\nDunmere 12;{today};2866,5\nDunmere 12;{today[:4]}-13-40;3\nElsewhere 3;{today};5\nDunmere 12;{today};9\n"
    tried = csv(browser, text, dry="true")
    assert (tried["taken"], tried["refused"]) == (1, 3) and CounterReading.objects.count() == before
    said = {line["line"]: line["words"] for line in tried["lines"]}
    assert "Elsewhere 3 is not known" in said[4] and "Was the meter exchanged" in said[5]
    csv(browser, text, dry="false")
    assert CounterReading.objects.count() == before, "nothing is taken while a line is refused"
    right = "\n".join(text.splitlines()[:2])
    for taken, there in ((1, 0), (0, 1)):
        sent = csv(browser, right, dry="false")
        assert (sent["taken"], sent["there"]) == (taken, there)
    assert CounterReading.objects.count() == before + 1
    planter.machine.refresh_from_db()
    assert planter.machine.area_ha == 2866.5


def test_a_file_may_be_written_as_people_write(planter, as_):
    day = timezone.localdate()
    text = f"machine;date;counter\nDunmere 12;{day:%d.%m.%Y};2.866,5\nDunmere 12;{day};2,867\n"
    one, other = csv(as_(planter.technician), text, dry="true")["lines"]
    assert (one["outcome"], one["words"]) == ("taken", "Dunmere 12: 2866.5 ha")
    assert (other["outcome"], other["words"]) == ("refused", "counter can be read in two ways: write 2867 or 2.867")


def test_a_file_of_another_shop_knows_none_of_ours(planter, neighbour, as_):
    planter.machine.serial = "D12-0417"
    planter.machine.save()
    found = csv(as_(neighbour.lead), "machine,date,counter\nD12-0417,2026-01-01,5\n", dry="false")
    assert (found["taken"], found["refused"]) == (0, 1)


def test_what_somebody_elses_figure_has_made_impossible_meanwhile_is_refused_after_all(planter, as_, monkeypatch):
    midnight = timezone.make_aware(dt.datetime.combine(timezone.localdate(), dt.time()))
    text = f"machine,date,counter\nDunmere 12,{timezone.localdate()},2870\n"
    tried = counter_import._tried

    def while_it_is_tried(lines):
        found = list(tried(lines))
        counting.record(planter.lead, planter.machine, uuid.uuid4(), 2880, midnight - dt.timedelta(minutes=1), "typed")
        return found

    monkeypatch.setattr(counter_import, "_tried", while_it_is_tried)
    found = csv(as_(planter.technician), text, dry="false")
    assert (found["taken"], found["refused"]) == (0, 1)
    assert "2 880" in found["lines"][0]["words"] or "2880" in found["lines"][0]["words"]


def test_a_long_file_is_told_step_by_step_and_stored_in_batches(planter, as_, monkeypatch, django_assert_max_num_queries):
    monkeypatch.setattr(counter_import, "BATCH", 50)
    first = timezone.now() - dt.timedelta(hours=400)
    lines = "".join(f"Dunmere 12,{first + dt.timedelta(hours=n):%Y-%m-%dT%H:%M},{2861 + n * 0.01:.2f}\n" for n in range(300))
    CounterReading.objects.all().delete()
    file = SimpleUploadedFile("c.csv", f"machine,date,counter\n{lines}".encode(), "text/csv")
    with django_assert_max_num_queries(130):
        answer = as_(planter.technician).post("/api/logbook/counters-file", {"file": file, "dry": "false"})
        told = steps(answer)
    assert answer["X-Accel-Buffering"] == "no"
    assert [step["steps"] for step in told if step["what"] == "Taking"] == [0, 50, 100, 150, 200, 250]
    assert (told[-1]["done"], told[-1]["report"]["taken"]) == (True, 300)
    assert CounterReading.objects.filter(source="file").count() == 300


def answered(body):
    return SimpleNamespace(status=200, read=lambda most: body[:most], release_conn=lambda: None)


@pytest.fixture
def modem(planter, settings, monkeypatch):
    """What the machine's modem sends: modem(counter=2871)."""
    settings.TELEMATICS_URL, planter.machine.serial = "http://127.0.0.1:9/telematics", "D12-0417"
    planter.machine.save()

    def sends(data=None, **more):
        told = {"at": timezone.now().isoformat(), "counter": 2871, "unit": "ha"} | more
        body = json.dumps(told).encode() if data is None else data
        monkeypatch.setattr(counter_import, "_pool", SimpleNamespace(request=lambda *_, **__: answered(body)))

    return sends


def ask(planter, as_):
    browser = as_(planter.technician)
    asked = browser.send(f"/api/logbook/machines/{planter.machine.pk}/counters/telematics", uuid=str(uuid.uuid4())).json()
    assert not asked["under_way"]
    return asked, browser.get(f"/api/logbook/machines/{planter.machine.pk}/counters").json()


def test_the_modem_is_asked_and_believed_as_much_as_anybody(planter, modem, as_):
    modem()
    asked, found = ask(planter, as_)
    assert (found["now"], found["readings"][0]["source"]) == (2871, "telematics")
    assert [(one["who"], one["said"]) for one in asked["told"]] == [(planter.machine.name, "2871 ha")]
    modem(counter=30500)
    asked, found = ask(planter, as_)
    assert "no machine does more" in asked["trouble"] and asked["field"] == "shown"
    assert found["now"] == 2871


@pytest.mark.parametrize(
    "answer",
    [
        {"data": b"<html>"},
        {"data": b"{}"},
        {"data": b"[" * 10_000},
        {"unit": "h"},
        {"counter": None},
        {"counter": 1e300},
        {"at": "2030-01-01T00:00:00Z"},
        {"at": "1999-01-01T00:00:00Z"},
        {"at": "2026-11-01T00:00:00"},
    ],
)
def test_a_modem_that_talks_nonsense_says_so_and_changes_nothing(planter, modem, as_, answer):
    modem(**answer)
    before = CounterReading.objects.count()
    asked, _ = ask(planter, as_)
    assert asked["trouble"] and not asked["told"]
    assert CounterReading.objects.count() == before
