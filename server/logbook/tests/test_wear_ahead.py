"""Wear ahead in the running shop: watch comes from the forecast, and what it says rests on this machine's own history."""

import datetime as dt
import uuid
from dataclasses import replace

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from season_helpers import fitted, size, winter

from fleet.actions.history import history_changed
from fleet.models import LimitOverride, Machine
from inspection.actions import recording
from inspection.judging import forecasting
from inspection.judging.typed_readings import NewReading
from inspection.models import PlacesBefore, Verdict, WearForecast
from inspection.queries import preparing, rule_books
from lumvek_core.catalogue.lists import Renamed
from parts.models import PartNumber
from supply.models import Supplier, Terms


@pytest.fixture
def read_all(planter, read):
    def record(other=None):
        for row in range(1, 7):
            for side in "LR":
                read("opener-disc-diameter", f"{row}{side}", (other or {}).get(f"{row}{side}", size(row, 720, side)))

    return record


def verdict(planter, position):
    return Verdict.objects.get(walk_around=planter.walk_around, check_key="opener-disc-diameter", position_key=position)


def before(planter):
    return PlacesBefore.objects.get(walk_around=planter.walk_around, check_key="opener-disc-diameter")


def test_watch_comes_from_the_forecast_and_says_what_it_expects(planter, read_all):
    read_all()
    slow, fast = verdict(planter, "1L"), verdict(planter, "3L")
    assert (slow.severity, fast.severity) == ("sound", "watch"), "both have more than a quarter of their wear left or not"
    assert "expected 38" in fast.reason and "by the end of the season; " in fast.reason and fast.action == "recheck"
    assert fast.facts["ahead"]["chance"] > 0.4 > 0.01 > slow.facts["ahead"]["chance"]


def test_rows_behind_the_wheels_come_out_by_themselves(read_all, discs):
    read_all()
    assert sorted(position for position, place in discs().items() if place["faster"]) == ["3L", "3R", "4L", "4R"]


def test_a_reading_that_does_not_fit_is_asked_about_and_kept_when_it_stands(planter, read, read_all, discs):
    read_all()
    read("opener-disc-diameter", "1L", "389")
    asked = verdict(planter, "1L")
    assert asked.ask.startswith("389 mm? By what was read before it should stand near 394")
    assert discs()["1L"]["last"] != 389, "what is asked about is not in force yet"
    read("opener-disc-diameter", "1L", "389", confirmed=True)
    assert verdict(planter, "1L").ask == "" and discs()["1L"]["last"] == 389


def test_an_older_slip_is_marked_and_left_out_though_it_was_waved_through(planter, read_all, discs):
    winter(planter, 2, other={"2R": "389.1"})
    read_all()
    place = discs()["2R"]
    assert place["marked"] == ["1 reading does not fit the others and is left out of the line."]
    assert place["p"] < 0.01


def test_a_renewed_disc_begins_anew(planter, read_all, discs):
    fitted(planter, "5L", 2620, timezone.now() - dt.timedelta(days=350))
    read_all(other={"5L": "398.2"})
    place = discs()["5L"]
    assert place["n"] == 1 and "2620 ha" in place["fitted"] and place["rests_on"].startswith("One reading since it was fitted")
    assert place["now"] == pytest.approx(398.2, abs=0.3)


def test_a_hardened_disc_is_expected_to_wear_slower(planter, read_all, discs):
    PartNumber.objects.create(model=planter.model, slot="opener-disc", number="D12-4001H", pack=2, kind="upgraded", life=1.3)
    now = timezone.now()
    fitted(planter, "5L", 2860, now)
    fitted(planter, "5R", 2860, now, number="D12-4001H")
    read_all(other={"5L": "400", "5R": "400"})
    found = discs()
    assert found["5R"]["rate"] == pytest.approx(found["5L"]["rate"] / 1.3, rel=0.1)


def test_forecasts_are_stored_with_what_they_rest_on_and_made_anew_only_when_that_changes(planter, read_all, read, discs):
    read_all()
    discs()
    stored = WearForecast.objects.get(machine=planter.machine, check_key="opener-disc-diameter")
    assert len(stored.rests_on) == 48
    discs()
    read("closing-play", "1", "none")
    discs()
    assert WearForecast.objects.get(pk=stored.pk).made_at == stored.made_at
    read("opener-disc-diameter", "1L", "394.2")
    discs()
    again = WearForecast.objects.get(pk=stored.pk)
    assert again.made_at > stored.made_at and again.rests_on != stored.rests_on


def test_what_was_read_before_a_check_was_renamed_counts_for_it(planter, read_all, discs, monkeypatch):
    older = Verdict.objects.exclude(walk_around=planter.walk_around).filter(check_key="opener-disc-diameter")
    older.update(check_key="disc-size")
    read_all()
    assert discs()["1L"]["n"] == 1
    renamed = Renamed({"disc-size": "opener-disc-diameter"})
    monkeypatch.setattr(rule_books._shipped, "catalogue", replace(rule_books.shipped(), renamed=renamed))
    history_changed([planter.machine.pk])
    assert discs()["1L"]["n"] == 4


def test_another_limit_is_another_forecast(planter, read_all, discs, as_):
    read_all()
    before = discs()["3L"]["p"]
    as_(planter.lead).send(
        f"/api/rules/models/{planter.model.pk}/limits", check="opener-disc-diameter", figure="limit", text="380"
    )
    assert discs()["3L"]["p"] < before


def test_a_longer_season_tips_places_over_and_stores_nothing(planter, read_all, as_):
    LimitOverride.objects.filter(model=planter.model, figure="limit").update(value=390)
    read_all()
    browser, path = as_(planter.lead), f"/api/logbook/machines/{planter.machine.pk}/ahead"
    base = browser.get(path).json()
    stored = list(WearForecast.objects.values_list("pk", "made_at"))
    more = browser.get(f"{path}?more=2").json()
    assert base["tips"] == []
    assert {tip["position"] for tip in more["tips"]} == {f"{row}{side}" for row in (1, 2, 5, 6) for side in "LR"}
    assert all((tip["before"], tip["after"]) == ("sound", "watch") for tip in more["tips"])
    assert list(WearForecast.objects.values_list("pk", "made_at")) == stored
    assert browser.get(f"{path}?more=9").status_code == 422


def test_the_coming_season_is_asked_once_or_taken_from_the_last_ones(planter, read_all, discs, as_):
    read_all()
    browser, path = as_(planter.lead), f"/api/logbook/machines/{planter.machine.pk}"
    usual = browser.get(f"{path}/ahead").json()["next_use"]
    assert (usual["use"], usual["source"]) == (pytest.approx(240), "mean of the last 3 seasons")
    before = discs()["3L"]["value"]
    asked = browser.send(f"{path}/next-use", use=400).json()["next_use"]
    assert (asked["use"], asked["end"], asked["source"]) == (400, 3260, "as asked for")
    assert discs()["3L"]["value"] < before
    assert browser.send(f"{path}/next-use", use=-1).json()["error"]["field"] == "next_use"
    assert browser.send(f"{path}/next-use", use=None).json()["next_use"]["use"] == pytest.approx(240)


def test_what_waiting_costs_needs_a_price_and_safety_items_are_never_weighed(planter, read_all, discs):
    read_all()
    assert discs()["3L"]["break_even"] is None and discs()["3L"]["advice"] == ""
    Terms.objects.get_or_create(shop=planter.shop)
    supplier = Supplier.objects.create(shop=planter.shop, name="Northmere Depot")
    supplier.offers.create(number="D12-4001", unit_price="48.90", stock=9, source="typed", at=timezone.now())
    place = discs()["3L"]
    assert place["advice"] == "replace" and 0 < place["break_even"] < place["p"]
    assert discs()["1L"]["advice"] == "wait"


def test_the_wear_of_a_part_shows_readings_fittings_seasons_and_others(planter, read_all, as_):
    read_all()
    found = as_(planter.lead).get(f"/api/logbook/machines/{planter.machine.pk}/wear/opener-disc-diameter").json()
    place = next(one for one in found["places"] if one["position"] == "3L")
    assert place["wheels"] and len(place["readings"]) == 4 and place["fitments"][0]["counter"] == 2140
    assert [round(season["start"]) for season in found["seasons"]] == [2140, 2390, 2620]
    rates = {cell["position"]: cell["rate"] for cell in found["seasons"][1]["cells"]}
    assert rates["3L"] > 1.4 > 1.0 > rates["1L"]
    assert {one["name"] for one in found["against"]} == {"Dunmere 12", "Usual for this part"}
    assert as_(planter.lead).get(f"/api/logbook/machines/{planter.machine.pk}/wear/tyres").status_code == 404


def test_readers_of_inches_get_inches(planter, read_all, discs):
    read_all()
    planter.lead.units = "in"
    planter.lead.save()
    assert discs()["1L"]["now"] == pytest.approx(394.5 / 25.4, abs=0.05)


def test_the_fleets_list_is_sorted_by_what_waiting_costs_with_a_constant_number_of_queries(
    planter, read_all, as_, django_assert_num_queries
):
    read_all()
    browser = as_(planter.lead)
    found = browser.get("/api/logbook/ahead").json()
    costs = [line["cost_wait"] for line in found["lines"]]
    assert costs == sorted(costs, reverse=True) and {line["position"] for line in found["lines"]} == {"3L", "3R", "4L", "4R"}
    with django_assert_num_queries(9):
        browser.get("/api/logbook/ahead")
    for n in range(3):
        Machine.objects.create(
            shop=planter.shop, model=planter.model, name=f"Dunmere {n}", rows=6, area_ha=10, wear_stale=False
        )
    with django_assert_num_queries(9):
        browser.get("/api/logbook/ahead")


def test_an_owner_sees_the_own_machines_only(planter, read_all, neighbour, as_):
    read_all()
    assert as_(planter.owner).get("/api/logbook/ahead").json()["lines"] == []
    planter.machine.owners.add(planter.owner)
    assert as_(planter.owner).get("/api/logbook/ahead").json()["lines"]
    assert as_(planter.owner).send(f"/api/logbook/machines/{planter.machine.pk}/next-use", use=3).status_code == 403
    assert as_(neighbour.lead).get("/api/logbook/ahead").json()["lines"] == []


def test_finishing_judges_every_place_by_all_that_was_read(planter, read_all, as_):
    """The first disc was judged before the others were read, and they are more worn than they were to be."""
    read_all(
        other={
            f"{row}{side}": f"{float(size(row, 720, side)) - 1.2:.1f}"
            for row in range(1, 7)
            for side in "LR"
            if (row, side) != (1, "L")
        }
    )
    first = verdict(planter, "1L").facts["ahead"]["expected"]
    as_(planter.technician).send(f"/api/walk-arounds/{planter.walk_around.pk}/finish", uuid=str(uuid.uuid4()))
    known = forecasting.forecasts([Machine.objects.select_related("model").get(pk=planter.machine.pk)], planter.shop)
    expected = next(one for one in known[planter.machine.pk][0].places if one["name"] == "1L")["value"]
    assert verdict(planter, "1L").facts["ahead"]["expected"] == pytest.approx(expected, abs=0.03)
    assert abs(first - expected) > 0.1


@pytest.mark.parametrize(("position", "severity"), [("1R", "sound"), ("3R", "watch")])
@pytest.mark.parametrize("again", [False, True])
def test_saving_a_disc_takes_ten_queries_at_most_with_forecasts_on(planter, read, as_, position, severity, again):
    read("opener-disc-diameter", "1L", size(1, 720, "L"))  # pools what was known before, once
    if again:
        read("opener-disc-diameter", position, size(int(position[0]), 720, "R"))
    browser = as_(planter.technician)
    with CaptureQueriesContext(connection) as queries:
        body = {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": position}
        browser.send(f"/api/walk-arounds/{planter.walk_around.pk}/readings", **body, raw=[size(int(position[0]), 720, "R")])
    assert verdict(planter, position).severity == severity
    assert len([one for one in queries.captured_queries if "SAVEPOINT" not in one["sql"]]) <= 10


def test_what_was_known_before_is_pooled_again_when_it_changes(planter, read, read_all):
    read("opener-disc-diameter", "1L", size(1, 720, "L"))
    once = before(planter)
    read("opener-disc-diameter", "1R", size(1, 720, "R"))
    assert before(planter).places == once.places
    fitted(planter, "5L", 2860, timezone.now() - dt.timedelta(minutes=5))
    history_changed([planter.machine.pk])
    read("opener-disc-diameter", "5L", "400")
    renewed = before(planter).places["5L"]
    assert renewed["value"] == pytest.approx(400, abs=0.5) and verdict(planter, "5L").severity == "sound"


def test_the_last_place_of_a_check_lets_all_learn_from_each_other(planter, read, as_):
    """All discs wore far more than before: what that says of the first one is known once the last is read."""
    harder = {f"{row}{side}": f"{float(size(row, 720, side)) - 1.5:.1f}" for row in range(1, 7) for side in "LR"}
    last = harder.pop("6R")
    for position, figure in harder.items():
        read("opener-disc-diameter", position, figure)
    kept = before(planter).places["1L"]["rate"]
    Verdict.objects.filter(pk=verdict(planter, "1L").pk).update(severity="watch")
    path, body = f"/api/walk-arounds/{planter.walk_around.pk}/readings", {"check": "opener-disc-diameter", "position": "6R"}
    told = as_(planter.technician).send(path, uuid=str(uuid.uuid4()), raw=[last], **body).json()
    assert before(planter).places["1L"]["rate"] < kept
    # Whoever stands otherwise now is told with the answer, and nothing is gone.
    assert {place["position"]: place["severity"] for place in told["places"]} == {"6R": "sound", "1L": "sound"}
    assert told["gone"] == []


def test_a_watched_share_counts_again_where_there_is_no_counter(yard, read):
    read("opener-disc-diameter", "1L", "388")
    assert "86 % of its wear used" in Verdict.objects.get(position_key="1L", check_key="opener-disc-diameter").reason


def test_the_shop_may_say_from_which_chance_a_part_is_watched(planter, read_all):
    LimitOverride.objects.create(
        model=planter.model, check_key="opener-disc-diameter", figure="watch_chance", value=0.999, source="shop"
    )
    fresh = NewReading(uuid.uuid4(), "opener-disc-diameter", "3L", raw=[size(3, 720, "L")])
    from inspection.actions import starting

    again = starting.start(planter.technician, planter.machine, uuid.uuid4(), preparing.Wanted("winter"))
    recording.record_reading(planter.technician, again.pk, fresh)
    found = Verdict.objects.get(walk_around=again, position_key="3L", check_key="opener-disc-diameter")
    assert found.severity == "sound" and found.facts["ahead"]["chance"] > 0.4


def test_a_watched_disc_that_is_renewed_before_it_is_due_calls_for_its_parts(planter, read_all, read, as_):
    read_all()
    browser, path = as_(planter.lead), f"/api/walk-arounds/{planter.walk_around.pk}"

    def discs():
        return [part["quantity"] for part in browser.get(f"{path}/parts").json()["parts"] if part["slot"] == "opener-disc"]

    def decide(choice, **more):
        body = {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "positions": ["3L"], "choice": choice} | more
        return browser.send(f"{path}/decisions", **body)

    assert discs() == [], "a watched disc by itself calls for nothing"
    found = decide("do").json()
    assert discs() == [2], "with the other of its pair"
    finding = next(one for one in found["group"]["findings"] if one["place"]["position"] == "3L")
    assert finding["parts"] == ["Opener disc"]
    decide("wait", until="next winter")
    assert discs() == []
    decide("do")
    read("opener-disc-diameter", "3L", "395", confirmed=True)
    assert discs() == [], "read again, and sound"
