"""What goes out of the plan: sheets, tables, calendars; the board's readiness; and when it will be dry."""

import csv
import datetime as dt
import io
import uuid
from types import SimpleNamespace

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from icalendar import Calendar

from fleet.models import Machine
from inspection.actions import starting
from inspection.queries import preparing
from outside.models import Line
from season.actions import feeds, hands, marking, planning, weather
from season.models import DrySpell, Feed
from shops.models import Workplace
from testing.seen import see_everything

WEEK = "Mon–Sun 08:00–12:00"


@pytest.fixture
def planned(yard):
    """A job of six hours at the machine and one at the bench, in a plan that people work by."""
    Workplace.objects.create(uuid=uuid.uuid4(), shop=yard.shop, kind="bay", name="Bay", door_width_mm=5200)
    hands.set_hands(yard.lead, yard.technician.pk, planned=True, hours=WEEK, skills="welding")
    for name, minutes, place in (("Weld the frame", 360, "bay"), ("Paint the step", 60, "bench")):
        marking.add_job(yard.lead, uuid.uuid4(), yard.machine.pk, {"name": name, "minutes": minutes, "place": place})
    plan = uuid.uuid4()
    list(planning.stream(yard.lead, plan, planning.Try()))
    planning.take(yard.lead, plan)
    return yard


def table(client):
    return list(csv.DictReader(io.StringIO(client.get("/plan.csv").content.decode("utf-8-sig"))))


def events(answer):
    return {str(one["SUMMARY"]): one for one in Calendar.from_ical(answer.content).walk("VEVENT")}


def test_the_day_sheet_has_times_places_and_room_for_what_it_took(planned, as_):
    page = as_(planned.technician).get("/plan/sheet").content.decode()
    assert "Day sheet" in page and "Weld the frame" in page and "Took, min" in page
    begins = min(row["start"] for row in table(as_(planned.technician)) if row["start"])
    assert f"{begins[11:16]}–" in page, "now, where the shop is open"
    week = as_(planned.technician).get("/plan/sheet?days=7").content.decode()
    assert "Week sheet" in week and "(goes on)" in week, "what is left in the evening stands on the next day too"
    pdf = as_(planned.technician).get("/plan/sheet.pdf?days=7")
    assert pdf["Content-Type"] == "application/pdf" and pdf.content.startswith(b"%PDF")


@pytest.mark.parametrize("path", ["/plan/sheet", "/plan/sheet.pdf", "/plan.csv", "/plan/mine.ics"])
def test_who_may_not_see_the_plan_finds_no_sheet(path, planned, neighbour, as_):
    assert as_(planned.owner).get(path).status_code == 404
    assert as_(neighbour.lead).get(path).status_code == 404, "there is no plan"
    assert as_().get(path).status_code == 302


@pytest.mark.parametrize("path", ["/plan/sheet?day=soon", "/plan/sheet.doc", "/plan.doc", "/plan/feed/secret.ics"])
def test_what_is_not_there_is_not_found(path, planned, as_):
    assert as_(planned.lead).get(path).status_code == 404


def test_the_table_has_every_job(planned, as_):
    rows = table(as_(planned.lead))
    assert {row["job"] for row in rows} >= {"Weld the frame", "Paint the step"}
    paint = next(row for row in rows if row["job"] == "Paint the step")
    assert (paint["place"], paint["people"], paint["minutes"]) == ("bench", "Technician", "60")


def test_somebody_s_work_opens_in_a_calendar(planned, as_):
    found = events(as_(planned.technician).get("/plan/mine.ics"))
    weld = found[f"{planned.machine.name}: Weld the frame"]
    assert str(weld["LOCATION"]) == "Bay" and weld["DTSTART"].dt.tzinfo is not None
    assert weld["DTSTART"].dt < weld["DTEND"].dt
    assert events(as_(planned.lead).get("/plan/mine.ics")) == {}, "nothing is planned for the lead"


def test_a_calendar_reads_it_by_its_address_until_it_is_ended(planned, as_):
    first = {"uuid": str(uuid.uuid4())}
    made = as_(planned.technician).send("/api/season/feed", **first).json()
    stranger = as_()
    assert len(events(stranger.get(made["path"]))) >= 2
    assert made["path"].split("/")[-1].removesuffix(".ics") not in str(list(Feed.objects.values())), "only its hash is kept"
    assert as_(planned.technician).send("/api/season/feed", **first).json()["path"] == made["path"], (
        "a lost answer loses it not"
    )
    again = as_(planned.technician).send("/api/season/feed", uuid=str(uuid.uuid4())).json()
    assert stranger.get(made["path"]).status_code == 404, "a new address ends the one before"
    assert as_(planned.technician).get("/api/season/feed").json()["path"] == "", "it is shown once"
    as_(planned.technician).send("/api/season/feed/end")
    assert stranger.get(again["path"]).status_code == 404


def test_an_address_ends_after_a_year_and_says_when_it_was_last_read(planned, as_):
    path = as_(planned.technician).send("/api/season/feed", uuid=str(uuid.uuid4())).json()["path"]
    shown = lambda: as_(planned.technician).get("/api/season/feed").json()  # noqa: E731
    assert shown()["used_at"] is None and shown()["ends_at"][:4] == str(int(shown()["made_at"][:4]) + 1)
    as_().get(path)
    first = shown()["used_at"]
    as_().get(path)
    assert shown()["used_at"] == first is not None, "to the hour: a calendar that looks every minute writes nothing"
    Feed.objects.update(used_at=timezone.now() - dt.timedelta(hours=2))
    as_().get(path)
    assert shown()["used_at"] >= first
    Feed.objects.update(made_at=timezone.now() - Feed.LASTS)
    assert as_().get(path).status_code == 404


def test_an_address_opens_nothing_for_whoever_was_let_go(planned, as_):
    secret = feeds.make(planned.technician, uuid.uuid4())
    planned.technician.left_at = planned.walk_around.started_at
    planned.technician.save()
    assert as_().get(f"/plan/feed/{secret}.ics").status_code == 404


def test_the_board_says_when_a_machine_is_ready_and_how_sure_that_is(planned, as_):
    (mine,) = as_(planned.lead).get("/api/season/readiness").json()
    assert mine["machine"] == planned.machine.pk and mine["jobs_left"] >= 3 and mine["hours_left"] >= 7
    assert (mine["state"], mine["short"]) == ("not_looked_at", "too little seen"), "a plan makes nothing ready"
    see_everything(planned.walk_around)
    (mine,) = as_(planned.lead).get("/api/season/readiness").json()
    assert mine["state"] == "ready_after" and mine["first"] <= mine["ready_on"] <= mine["last"], "whatever is put away later"
    assert mine["said"].startswith("Ready ")


def test_the_board_has_first_what_is_late_most(planned, as_):
    late = Machine.objects.create(
        shop=planned.shop, model=planned.model, name="Dunmere 6", rows=6, season_date=timezone.localdate()
    )
    job = {"name": "Weld the hitch", "minutes": 60, "place": "bench"}
    marking.add_job(planned.lead, uuid.uuid4(), late.pk, job)
    plan = uuid.uuid4()
    list(planning.stream(planned.lead, plan, planning.Try()))
    planning.take(planned.lead, plan)
    see_everything(planned.walk_around)
    see_everything(starting.start(planned.technician, late, uuid.uuid4(), preparing.Wanted("winter")))
    shown = as_(planned.lead).get("/api/season/readiness").json()
    assert [one["machine"] for one in shown] == [late.pk, planned.machine.pk]
    assert shown[0]["late_days"] > (shown[1]["late_days"] or 0)


# Weather


def spells(shop):
    return [(one.source, one.start.isoformat()) for one in DrySpell.objects.of(shop.lead).filter(taken_back_at=None)]


def told(monkeypatch, settings, content, status=200):
    settings.FORECAST_URL = "http://127.0.0.1:9/forecast"
    answer = SimpleNamespace(status=status, read=lambda most: content[:most], release_conn=lambda: None)
    monkeypatch.setattr(weather, "_pool", SimpleNamespace(request=lambda *_, **__: answer))


def test_the_forecast_takes_the_place_of_what_it_said_before(yard, as_, settings, monkeypatch):
    for day in ("2026-12-07", "2026-12-09"):
        told(monkeypatch, settings, f'{{"dry": [{{"start": "{day}T08:00", "end": "{day}T18:00"}}]}}'.encode())
        answer = as_(yard.lead).send("/api/season/forecast", uuid=str(uuid.uuid4())).json()
        assert answer["told"] == [{"who": "The weather forecast", "said": "1 dry spell", "trouble": ""}]
    assert [source for source, _ in spells(yard)] == ["forecast"] and "2026-12-09" in spells(yard)[0][1]


@pytest.mark.parametrize("content", [b"sun", b'{"dry": 1}', b'{"dry": [{"start": "soon", "end": "later"}]}', b'{"dry": [{"start": "2030-01-02T08:00", "end": "2030-01-01T08:00"}]}'])  # fmt: skip
def test_an_odd_forecast_is_a_refusal_in_words_and_changes_nothing(content, yard, as_, settings, monkeypatch):
    told(monkeypatch, settings, content)
    answer = as_(yard.lead).send("/api/season/forecast", uuid=str(uuid.uuid4())).json()
    assert "Type when it will be dry." in answer["trouble"] and spells(yard) == []


def test_a_forecast_that_fails_rests(yard, as_, settings, monkeypatch):
    told(monkeypatch, settings, b"", status=503)
    for _ in range(3):
        as_(yard.lead).send("/api/season/forecast", uuid=str(uuid.uuid4()))
    assert Line.objects.get(name="forecast").rests_until is not None
    settings.FORECAST_URL = ""
    assert as_(yard.lead).send("/api/season/forecast", uuid=str(uuid.uuid4())).status_code == 409


def test_a_calendar_file_gives_dry_spells_in_the_place_of_the_last_one(yard, as_):
    def send(*days):
        body = "".join(f"BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:{day}\r\nEND:VEVENT\r\n" for day in days)
        file = SimpleUploadedFile("dry.ics", f"BEGIN:VCALENDAR\r\n{body}END:VCALENDAR\r\n".encode(), "text/calendar")
        return as_(yard.lead).post("/api/season/dry-file", {"file": file})

    assert send("20261207", "20261209").status_code == 200
    assert send("20261211").status_code == 200
    assert [source for source, _ in spells(yard)] == ["file"]
    assert send().json()["error"] == {"field": "file", "message": "has no events"}
