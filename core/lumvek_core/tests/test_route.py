"""The order of postures: exact, ties as promised, and never worse than going from station to station."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.catalogue import in_force, load
from lumvek_core.errors import BadInput
from lumvek_core.planning import walk

CATALOGUE = load.shipped()


def route(checks, moves, start="down"):
    """checks: (id, posture, station, *after); moves: (from, to, minutes), each also back."""
    ways = [{"from": a, "to": b, "minutes": m} for x, y, m in moves for a, b in ((x, y), (y, x))]
    return registry.find("posture_route").run(
        {
            "checks": [{"id": i, "posture": p, "station": s, "after": list(after)} for i, p, s, *after in checks],
            "moves": ways,
            "start": start,
        }
    )


HUB = [("down", "raised", 3), ("down", "shields", 2), ("down", "tail", 4)]


def test_a_posture_is_taken_up_once_where_station_order_takes_it_up_twice():
    found = route([("knife", "raised", 1), ("belt", "shields", 2), ("floor", "raised", 3), ("sieve", "tail", 4)], HUB)
    assert [(v["posture"], v["via"], v["ids"]) for v in found["visits"]] == [
        ("raised", [], ["knife", "floor"]),
        ("shields", ["down"], ["belt"]),
        ("tail", ["down"], ["sieve"]),
    ]
    assert (found["minutes"], found["minutes_station_order"]) == (3 + 5 + 6, 3 + 5 + 5 + 7)


def test_what_must_come_first_brings_the_machine_back():
    found = route([("grease", "raised", 1, "clean"), ("look", "raised", 1), ("clean", "tail", 2)], HUB)
    assert found["order"] == ["clean", "grease", "look"]
    assert [v["posture"] for v in found["visits"]] == ["tail", "raised"]


def test_a_tie_goes_to_the_earlier_station():
    found = route([("b", "shields", 2), ("a", "tail", 1)], [("down", "shields", 2), ("down", "tail", 2)])
    assert found["order"] == ["a", "b"]


@pytest.mark.parametrize(
    ("checks", "said"),
    [
        ([("a", "raised", 1, "b"), ("b", "tail", 2, "a")], "wait for each other"),
        ([("a", "raised", 1, "ghost")], "no check ghost"),
        ([("a", "raised", 1), ("a", "tail", 1)], "twice"),
        ([("a", "roof", 1)], "no way leads to roof"),
    ],
)
def test_what_cannot_be_planned_is_refused(checks, said):
    with pytest.raises(BadInput, match=said):
        route(checks, HUB)


NAMES = ["down", "raised", "shields", "tail", "deck"]


@st.composite
def problems(draw):
    n = draw(st.integers(1, 8))
    checks = []
    for i in range(n):
        after = draw(st.lists(st.sampled_from([str(j) for j in range(i)]), max_size=2, unique=True)) if i else []
        checks.append((str(i), draw(st.sampled_from(NAMES)), draw(st.integers(1, 4)), *after))
    order = draw(st.permutations(range(n)))
    moves = [(NAMES[0], name, draw(st.integers(0, 9))) for name in NAMES[1:]]
    moves += [(a, b, draw(st.integers(0, 9))) for a, b in draw(st.lists(st.tuples(*[st.sampled_from(NAMES)] * 2), max_size=4))]
    return [checks[i] for i in order], moves


def least_by_trying_everything(checks, moves):
    """Every order of the checks that respects `after`; moving time between their postures."""
    ways = {(a, b): 0 if a == b else 10**6 for a in NAMES for b in NAMES}
    for a, b, m in moves:
        ways[a, b] = ways[b, a] = min(m, ways[a, b])
    for k, a, b in itertools.product(NAMES, NAMES, NAMES):
        ways[a, b] = min(ways[a, b], ways[a, k] + ways[k, b])
    best = {("down", frozenset()): 0}
    for _ in checks:
        following = {}
        for (at, done), minutes in best.items():
            for key, posture, _, *after in checks:
                if key not in done and set(after) <= done:
                    state = (posture, done | {key})
                    following[state] = min(following.get(state, 10**9), minutes + ways[at, posture])
        best = following
    return min(best.values())


@settings(max_examples=60, deadline=None)
@given(problems())
def test_nothing_is_shorter_and_nothing_is_left_out(problem):
    checks, moves = problem
    found = route(checks, moves)
    assert found["minutes"] == pytest.approx(least_by_trying_everything(checks, moves))
    assert found["minutes"] <= found["minutes_station_order"] + 1e-9
    assert sorted(found["order"]) == sorted(key for key, *_ in checks)
    for key, _, _, *after in checks:
        assert all(found["order"].index(other) < found["order"].index(key) for other in after)
    assert sum(visit["minutes"] for visit in found["visits"]) == pytest.approx(found["minutes"])


@pytest.mark.parametrize("phase", ["winter", "pre-season", "daily", "after-season"])
@pytest.mark.parametrize(
    ("family", "headers"),
    [
        ("rotary-combine", ["draper-header"]),
        ("rotary-combine", ["auger-platform", "stripper-header"]),
        ("row-crop-planter", []),
        ("air-seeder", []),
    ],
)
def test_every_machine_is_moved_less_and_cleaned_first(family, headers, phase):
    book = in_force.rule_book(CATALOGUE, family, headers=headers)
    checks = in_force.applicable(book, in_force.Scope(list(book.family.options), phase, headers=headers))
    found = walk.plan(book, checks, CATALOGUE.safety.moves)
    assert sorted(found.order) == sorted(check.key for check in checks)
    assert found.minutes <= found.minutes_station_order
    place = {key: i for i, key in enumerate(found.order)}
    by_key = {check.key: check for check in checks}
    for station in book.family.stations:
        here = [check for check in checks if check in station.checks]
        for first in (check for check in here if check.order == "first"):
            later = [check for check in here if check.order != "first" and check.key not in first.after]
            assert all(place[first.key] < place[check.key] for check in later)
    for visit in found.visits:
        assert {by_key[key].posture for key in visit.ids} == {visit.posture}, (
            "an engine-running check is never in a hands-in posture"
        )


@pytest.mark.parametrize(("order", "first"), [("flow", "hitch"), ("rear-first", "put-away"), ("meter-first", "meters")])
def test_the_order_of_stations_is_a_school(order, first):
    book = in_force.rule_book(CATALOGUE, "row-crop-planter", schools={"order": order})
    assert walk.ranked(book)[0] == first


def test_once_round_the_machine_comes_to_the_cab_late():
    book = in_force.rule_book(CATALOGUE, "rotary-combine", schools={"order": "round"})
    ranked = walk.ranked(book)
    assert ranked.index("residue") < ranked.index("feeder")
    assert ranked.index("tank") < ranked.index("cab")


def test_an_air_seeder_runs_dry_before_anything_is_looked_at_on_foot():
    book = in_force.rule_book(CATALOGUE, "air-seeder")
    checks = in_force.applicable(book, in_force.Scope(list(book.family.options), "winter"))
    found = walk.plan(book, checks, CATALOGUE.safety.moves)
    dry_run = ["fan-gauge", "seed-switch", "meters-turn", "discs-turn", "disc-spin", "outlet-flow"]
    assert sorted(dry_run, key=found.order.index) == dry_run
    postures = [visit.posture.partition(",")[0] for visit in found.visits if visit.posture != "folded"]
    assert postures[:3] == ["fan or vacuum running", "dry run", "dry run"]


def one_way(checks, moves, start="down"):
    """checks: (id, posture, station, *after); moves: (from, to, minutes), that way only."""
    return registry.find("posture_route").run(
        {
            "checks": [{"id": i, "posture": p, "station": s, "after": list(after)} for i, p, s, *after in checks],
            "moves": [{"from": a, "to": b, "minutes": m} for a, b, m in moves],
            "start": start,
        }
    )


def test_a_dead_end_is_taken_up_last_and_station_order_that_runs_into_it_has_no_time():
    found = one_way([("a", "apart", 1), ("b", "tail", 2)], [("down", "apart", 1), ("down", "tail", 5), ("tail", "apart", 2)])
    assert found["order"] == ["b", "a"]
    assert (found["minutes"], found["minutes_station_order"]) == (7, None)


@pytest.mark.parametrize("postures", [2, 18])
def test_moves_by_which_not_everything_is_reached_are_bad_input(postures):
    checks = [("a", "apart", 1), ("b", "tail", 2), *((f"c{i}", f"p{i}", 3) for i in range(postures - 2))]
    moves = [("down", "apart", 1), ("down", "tail", 5), *(("down", f"p{i}", 1) for i in range(postures - 2))]
    moves += [(f"p{i}", "down", 1) for i in range(postures - 2)]
    with pytest.raises(BadInput) as problem:
        one_way(checks, moves)
    assert problem.value.field == "moves"


def test_an_order_somebody_chose_by_which_no_way_leads_is_bad_input():
    book = in_force.rule_book(CATALOGUE, "row-crop-planter")
    with pytest.raises(BadInput) as problem:
        walk.minutes_of([book.family.start, "on the moon"], book, CATALOGUE.safety.moves)
    assert problem.value.field == "order"
