"""From verdicts to decisions and parts."""

import uuid

import pytest

from inspection.actions import decisions
from inspection.judging import rejudging
from inspection.models import Decision, Verdict
from inspection.queries import serializers_findings
from lumvek_core.errors import BadInput
from parts.models import PartsLine


@pytest.fixture
def parts(yard, as_):
    def listed():
        found = as_(yard.lead).get(f"/api/walk-arounds/{yard.walk_around.pk}/parts").json()["parts"]
        return {(part["slot"], part["side"]): part for part in found}

    return listed


def decide(yard, choice, *positions, check="opener-disc-diameter", decision=None, **words):
    decisions.decide(yard.lead, yard.walk_around.pk, decision or uuid.uuid4(), check, positions, choice, **words)


def test_a_worn_disc_calls_for_its_pair_scraper_and_guard(read, parts):
    read("opener-disc-diameter", "3L", "385")
    found = parts()
    assert {slot: part["quantity"] for (slot, _), part in found.items()} == {
        "opener-disc": 2,
        "centre-scraper": 1,
        "seed-tube-guard": 1,
    }
    disc = found["opener-disc", ""]
    assert (disc["number"], disc["found_at"], disc["along_at"], disc["order"]) == ("D12-4001", "row 3 left", "row 3 right", 2)


def test_lines_without_a_number_come_first(read, parts):
    read("opener-disc-diameter", "3L", "385")
    assert [bool(part["number"]) for part in parts().values()] == [False, False, True]


def test_packs_are_rounded_up_after_adding_up(read, parts, yard):
    read("opener-disc-diameter", "3L", "385")
    read("opener-disc-diameter", "4L", "384")
    decisions.decline_companion(yard.lead, yard.walk_around.pk, "opener-disc", ["3R"], "changed last month")
    disc = parts()["opener-disc", ""]
    assert (disc["quantity"], disc["order"], disc["declined"]) == (3, 4, 1)


def test_reading_again_takes_the_parts_away(read, parts):
    read("opener-disc-diameter", "3L", "385")
    read("opener-disc-diameter", "3L", "395")
    assert parts() == {}


def test_withdrawing_takes_the_parts_away(read, parts):
    read("opener-disc-diameter", "3L", "385")
    read("opener-disc-diameter", "3L", state="withdrawn")
    assert parts() == {}


@pytest.mark.parametrize(
    ("choice", "words"), [("wait", {"until": "after drilling"}), ("decline", {"reason": "sold in spring"})]
)
def test_what_waits_or_is_declined_calls_for_nothing_until_it_is_opened_again(choice, words, yard, read, parts):
    read("opener-disc-diameter", "3L", "385")
    decide(yard, choice, "3L", **words)
    assert parts() == {}
    decide(yard, "open", "3L")
    assert len(parts()) == 3
    assert Decision.objects.count() == 2


@pytest.mark.parametrize(
    ("choice", "positions", "words", "field"),
    [
        ("wait", ["3L"], {}, "until"),
        ("decline", ["3L"], {"reason": " "}, "reason"),
        ("do", ["5L"], {}, "positions"),
        ("do", [], {}, "positions"),
    ],
)
def test_decisions_need_their_words_and_a_finding(choice, positions, words, field, yard, read):
    read("opener-disc-diameter", "3L", "385")
    with pytest.raises(BadInput) as problem:
        decide(yard, choice, *positions, **words)
    assert problem.value.field == field


def test_a_stop_can_be_put_right_but_not_put_off(yard, read):
    read("shank", "3", "broken")
    with pytest.raises(BadInput, match="cannot wait"):
        decide(yard, "wait", "3", check="shank", until="spring")
    decide(yard, "do", "3", check="shank")


def test_the_same_decision_sent_twice_is_one(yard, read):
    read("opener-disc-diameter", "3L", "385")
    same = uuid.uuid4()
    decide(yard, "do", "3L", decision=same)
    decide(yard, "do", "3L", decision=same)
    assert Decision.objects.count() == 1


def test_a_declined_companion_stays_declined_and_comes_back_when_asked(yard, read, parts):
    read("opener-disc-diameter", "3L", "385")
    decisions.decline_companion(yard.parts, yard.walk_around.pk, "centre-scraper", ["3"], "new last year")
    read("opener-disc-diameter", "5L", "385")
    scraper = parts()["centre-scraper", ""]
    assert (scraper["quantity"], scraper["along_at"], scraper["declined_at"]) == (1, "row 5", "row 3")
    decisions.decline_companion(yard.parts, yard.walk_around.pk, "centre-scraper", ["3"], "")
    assert parts()["centre-scraper", ""]["quantity"] == 2


def test_a_companion_found_worn_itself_is_a_new_question(yard, read):
    read("opener-disc-diameter", "3L", "385")
    decisions.decline_companion(yard.lead, yard.walk_around.pk, "opener-disc", ["3R"], "looked fine")
    read("opener-disc-diameter", "3R", "384")
    line = PartsLine.objects.get(slot="opener-disc", position_key="3R")
    assert (line.origin, line.declined_reason) == ("finding", "")


def test_findings_are_worst_first_with_their_decisions(yard, read, as_):
    read("opener-disc-diameter", "3L", "388")
    read("opener-disc-diameter", "1R", "385")
    read("shank", "2", "broken")
    decide(yard, "do", "1R")
    groups = as_(yard.lead).get(f"/api/walk-arounds/{yard.walk_around.pk}/findings").json()["groups"]
    assert [(group["severity"], group["name"]) for group in groups] == [
        ("stop", "Row unit shank and castings"),
        ("due", "Opener disc diameter"),
    ]
    assert [(f["label"], f["decision"], f["decided_by"]) for f in groups[1]["findings"]] == [
        ("Row 1 right", "do", "Lead"),
        ("Row 3 left", "open", ""),
    ]


def test_findings_are_searched_filtered_sorted_and_paged(yard, read, as_, monkeypatch):
    read("opener-disc-diameter", "3L", "388")
    read("opener-disc-diameter", "1R", "385")
    read("shank", "2", "broken")
    decide(yard, "do", "1R")
    browser, path = as_(yard.lead), f"/api/walk-arounds/{yard.walk_around.pk}/findings"
    look = lambda **asked: browser.get(path, asked).json()  # noqa: E731
    at = lambda **asked: [one["label"] for group in look(**asked)["groups"] for one in group["findings"]]  # noqa: E731
    assert look()["sum"] == {"all": 3, "open": 2}
    assert look(severity="stop")["sum"] == {"all": 3, "open": 2}, "the sum is of all of them"
    assert at(decision="open") == ["Row 2", "Row 3 left"]
    assert at(decision="decided") == ["Row 1 right"]
    assert at(severity="due") == ["Row 1 right"]
    assert at(search="DISC left") == ["Row 3 left"]
    read("parallel-arm-play", "4", "loose")
    assert [one["key"] for one in look()["found_at"]] == ["arms", "opener"]
    assert at(station="arms") == ["Row 4"] and at(station="closing") == []
    assert [one["check"] for one in look(order="station")["groups"]] == ["parallel-arm-play", "shank", "opener-disc-diameter"]
    monkeypatch.setattr(serializers_findings, "PAGE", 1)
    assert (at(page=1), at(page=2)) == (["Row 2"], ["Row 4"]), "the worst kind, then the next"


def test_a_decision_is_answered_with_its_finding_as_it_stands(yard, read, as_):
    read("opener-disc-diameter", "1R", "385")
    path = f"/api/walk-arounds/{yard.walk_around.pk}/decisions"
    body = {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "positions": ["1R"], "choice": "do"}
    told = as_(yard.lead).send(path, **body).json()
    assert told["sum"] == {"all": 1, "open": 0} and told["group"]["findings"][0]["decision"] == "do"


def test_left_hand_parts_are_not_bought_for_the_right(read, parts):
    read("outer-scraper", "2L", "worn")
    assert sorted(parts()) == [("outer-scraper", "L"), ("outer-scraper", "R")]


@pytest.mark.parametrize("readings", [0, 6])
def test_lists_take_the_same_number_of_queries_however_long(readings, yard, read, as_, django_assert_num_queries):
    for row in range(1, readings + 1):
        read("opener-disc-diameter", f"{row}L", "385")
    browser, walk_around = as_(yard.lead), f"/api/walk-arounds/{yard.walk_around.pk}"
    browser.get(walk_around)
    browser.get("/api/machines")  # how machines stand is worked out once
    # session, user with member and shop, machines, walk-arounds, coupled headers, owners; headers that are on, with their
    # walk-arounds; how each stands, with what that rests on: walk-arounds, those coupled in, what was fitted
    with django_assert_num_queries(12):
        browser.get("/api/machines")
    # session, user with member and shop, walk-around, newest reading, feelers, hand-over, headers, people, holds, pictures,
    # notes,
    # verdicts, names, part numbers, lines, how it was set up the last time,
    # pinned pictures
    with django_assert_num_queries(18):
        browser.get(f"/api/walk-arounds/{yard.walk_around.pk}")


def test_saving_a_reading_takes_a_constant_number_of_queries(yard, read, django_assert_max_num_queries):
    for row in range(1, 6):
        read("opener-disc-diameter", f"{row}L", "385")
    with django_assert_max_num_queries(16):
        read("opener-disc-diameter", "6L", "385")


def test_verdicts_can_be_recomputed_from_readings_alone(yard, read):
    for check, position, *raw in (
        ("opener-disc-diameter", "3L", "385"),
        ("opener-contact", "3", "46", "44", "47"),
        ("depth-handle", "1", "7"),
        ("depth-handle", "2", "6"),
    ):
        read(check, position, *raw, feeler="card")
    stored = list(Verdict.objects.order_by("check_key", "position_key").values_list("severity", "action", "reason"))
    Verdict.objects.update(severity="sound", action="none", reason="lost")
    rejudging.recompute(yard.walk_around)
    assert list(Verdict.objects.order_by("check_key", "position_key").values_list("severity", "action", "reason")) == stored
