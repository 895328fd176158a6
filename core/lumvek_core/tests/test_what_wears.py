"""What a forecast adds to a verdict, what a part still gives, and the catalogue's word on what wears and what comes round."""

import dataclasses
import datetime as dt
import shutil

import pytest
import yaml
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import positions
from lumvek_core.calculators.decision import DecisionGiven, replace_decision, still_serves
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.lists import Service
from lumvek_core.catalogue.model import Wears
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.forecast.wearing import wearing_of
from lumvek_core.judgement.context import Context, Expected
from lumvek_core.judgement.parse_reading import Value
from lumvek_core.judgement.verdicts import judge
from lumvek_core.simulators.telematics import Sent, newest

CATALOGUE = load.shipped()
PLANTER = in_force.rule_book(
    CATALOGUE, "row-crop-planter", [LimitOverride("opener-disc-diameter", "watch_chance", 0.2, "shop")]
)
DISC = PLANTER.family.checks["opener-disc-diameter"]
CHAIN = CATALOGUE.families["rotary-combine"].checks["feeder-chain-stretch"]
EXPECTED = Expected(now=369.6, value=366, low=364.4, high=367.6, chance=0.24, word="possible")


def verdict(check, reading, expected=EXPECTED, **more):
    return judge(check, positions.find("3L"), Value([reading]), Context(expected=expected, **more))


def test_the_reason_is_one_sentence_with_now_the_limit_what_is_left_and_what_is_expected():
    found = verdict(DISC, 369.5)
    assert found.reason == (
        "369.5 mm, limit 368.3 mm (14 1/2 in): 9 % of its wear left; expected 366 mm (364.4 to 367.6) by the end of the season; "
        "possible (24 %) that it reaches its limit."
    )
    assert (found.severity, found.action) == ("watch", "recheck")
    assert (found.facts.ahead.expected, found.facts.ahead.chance) == (366, 0.24)


def test_inches_are_told_to_who_reads_inches():
    assert "(14 11/32 to 14 15/32) by the end" in verdict(DISC, 369.5, system="in").reason


@pytest.mark.parametrize(("chance", "severity"), [(0.19, "sound"), (0.2, "watch"), (0.99, "watch"), (0.001, "sound")])
def test_a_part_short_of_its_limit_is_watched_from_the_shops_own_chance_on_whatever_its_share(chance, severity):
    for reading in (380, 369):
        assert verdict(DISC, reading, dataclasses.replace(EXPECTED, chance=chance)).severity == severity


def test_at_its_limit_a_part_is_due_whatever_is_expected_and_says_where_it_would_end():
    found = verdict(DISC, 367, dataclasses.replace(EXPECTED, chance=0.0))
    assert found.severity == "due"
    assert found.reason.endswith("past it by 1.3 mm. Left in, 366 mm (364.4 to 367.6) by the end of the season.")


def test_a_chance_of_nothing_is_not_told_as_nothing():
    assert "unlikely (under 1 %)" in verdict(DISC, 380, dataclasses.replace(EXPECTED, chance=1e-9, word="unlikely")).reason


def test_a_chain_is_told_in_per_cent_of_stretch():
    found = verdict(CHAIN, 846, Expected(846, 850, 848, 852, 0.3, "possible"))
    assert "2.17 % stretch, limit 3 %; expected 2.66 % (2.42 to 2.9) by the end of the season" in found.reason
    assert found.severity == "watch"


def test_what_does_not_fit_is_asked_about_until_it_is_confirmed():
    doubted = dataclasses.replace(EXPECTED, now=374, doubted=True)
    assert verdict(DISC, 369.5, doubted).ask == "369.5 mm? By what was read before it should stand near 374 mm."
    assert verdict(DISC, 369.5, doubted, confirmed=True).ask == ""


def test_cost_and_chance_leave_safety_items_alone():
    safety = dataclasses.replace(DISC, safety=True)
    assert verdict(safety, 369.5).severity == "stop"
    assert verdict(safety, 367, dataclasses.replace(EXPECTED, chance=0.0)).severity == "stop"


def test_a_part_with_less_left_than_a_season_takes_serves_it_out_unless_it_fails():
    assert still_serves(0.5, 0.2, 0.3) == 0.5
    assert still_serves(0.05, 0.2, 0.3) == pytest.approx(0.05 + 0.7 * 0.15)
    assert still_serves(0.05, 0.2, 1) == 0.05
    assert still_serves(0, 0.2, 0.3) == 0 and still_serves(-0.1, 0.2, 0.3) == -0.1


@given(st.floats(0.001, 2), st.floats(0, 2), st.floats(0, 1))
def test_what_still_serves_is_never_less_than_what_is_left_nor_more_than_the_season(left, share, p_fail):
    serves = still_serves(left, share, p_fail)
    assert left - 1e-12 <= serves <= max(left, share) + 1e-12


@given(st.floats(0, 1), st.floats(0.01, 1), st.floats(0, 500), st.floats(0, 20))
def test_the_advice_turns_at_the_break_even_chance(p, remaining, part, downtime):
    found = replace_decision(
        DecisionGiven(p, remaining, part, 0.4, 0.9, 62, downtime, 240, p_fail_if_crossed=0.7, season_share=0.2)
    )
    assert found.break_even is not None
    if found.advice == "replace":
        assert p > found.break_even and found.cost_wait >= found.cost_now - 1e-9
    if found.advice == "wait":
        assert p < found.break_even and found.cost_wait <= found.cost_now + 1e-9


def test_everything_that_wears_can_be_forecast_and_names_the_part_it_renews():
    for family in CATALOGUE.families.values():
        for check in family.checks.values():
            if check.wears:
                assert wearing_of(check), f"{check.key}: this kind of rule has no line to forecast"
                assert check.renewed_parts, check.key
                assert check.reading_error, f"{check.key}: a forecast needs the reading's own error"


@pytest.fixture
def broken(tmp_path):
    """What is said of a catalogue whose first service is another."""

    def change(**how):
        folder = shutil.copytree(load.SHIPPED, tmp_path / "catalogue", dirs_exist_ok=True)
        services = yaml.safe_load((folder / "services.yaml").read_text())
        services[0] = {name: value for name, value in (services[0] | how).items() if value is not None}
        (folder / "services.yaml").write_text(yaml.safe_dump(services))
        try:
            load.load(folder)
        except BadInput as problem:
            return problem.message
        return ""

    return change


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"every_h": None, "every_days": None}, "needs an interval"),
        ({"families": ["tractor"]}, "there is no family tractor"),
        ({"check": "moon"}, "has no check moon"),
        ({"slot": "moon"}, "has no slot moon"),
        ({"option": "moon"}, "has no option moon"),
        ({"school": {"subject": "order", "choice": "moon"}}, "there is no school order: moon"),
    ],
)
def test_a_service_that_leads_nowhere_is_refused(change, said, broken):
    assert said in broken(**change)
    assert broken() == ""


def test_a_service_twice_is_refused(broken):
    assert "twice" in broken(key=CATALOGUE.services[1].key)


def test_the_services_of_the_trade_are_there():
    by_key: dict[str, Service] = {one.key: one for one in CATALOGUE.services}
    assert by_key["splines"].every_h == 500 and by_key["gear-oil"].every_days == 365
    yearly = {key for key, one in by_key.items() if one.school and one.school.choice == "yearly"}
    assert yearly == {"unload-chains", "tank-chains"}


def test_a_modem_tells_its_newest_message_and_a_machine_without_one_nothing():
    now = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)
    told = newest({"TH6": Sent(2143.5, "h", hours_ago=6)}, "TH6", now)
    assert (told["counter"], told["unit"], told["at"]) == (2143.5, "h", "2026-11-23T06:00:00+00:00")
    with pytest.raises(BadInput, match="sends nothing"):
        newest({}, "TH6", now)


def test_what_wears_has_figures_that_can_be():
    with pytest.raises(TypeError):
        Wears()  # type: ignore[call-arg]
    assert (Wears(1200).spread, Wears(1200).p_fail) == (0.5, 0.5)
