"""Every kind of rule, walked from the registry: a kind that forgets something is found here."""

import dataclasses
import datetime as dt
from typing import get_args

import pytest

from lumvek_core import positions, reference, structure
from lumvek_core.catalogue import in_force, load, model
from lumvek_core.judgement.context import Context
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import judge, looks_at
from lumvek_core.rules import base, figures, kinds

CATALOGUE = load.shipped()
BOOKS = [in_force.rule_book(CATALOGUE, family) for family in CATALOGUE.families]
CHECKS = {check.key: check for book in BOOKS for check in book.family.checks.values()}
EVERY = sorted(CHECKS.values(), key=lambda check: check.key)
DAY = dt.date(2026, 3, 5)


def place_of(check):
    if check.per == "machine":
        return positions.WHOLE
    if check.per == "side":
        return positions.find("L")
    thing = positions.thing_of(check.per)
    family = next(book.family for book in BOOKS if check.key in book.family.checks)
    places = family.things[thing].places
    if places:
        return positions.named(places[0])
    return positions.numbered(thing.rpartition(".")[2], 1, "L" if check.per.endswith("-side") else None)


def judged(check, typed, **more):
    rules = {key: CHECKS[key].rule for key in looks_at(check) if key in CHECKS}
    context = Context(confirmed=True, typed=typed, rules=rules, counter_h=1890, today=DAY, **more)
    return judge(check, place_of(check), parse_reading(check, typed, "card" if check.rule.by_feeler else ""), context)


def test_the_catalogue_uses_every_kind():
    assert {check.rule.kind for check in EVERY} == set(kinds.kinds())


@pytest.mark.parametrize("name", kinds.kinds())
def test_a_kind_says_what_it_is(name):
    kind = kinds.kinds()[name]
    assert kind.__doc__ and kind.judge is not base.Rule.judge and kind.sample is not base.Rule.sample
    assert kind.answers is None or kind.answers in get_args(base.Answers)
    assert kind.drawings <= set(get_args(model.Drawing))
    if kind.facts:
        assert kind.facts().kind in kinds.facts()
        named = {field.name for field in dataclasses.fields(kind.facts)}
        assert {kind.facts.compared, kind.facts.worked_out} - {""} <= named
    for figure in base.limits(kind):
        assert figure in {field.name for field in dataclasses.fields(kind)}


def test_every_drawing_shows_some_kind_and_every_fact_is_of_one():
    shown = set().union(*(kind.drawings for kind in kinds.kinds().values()))
    assert shown == set(get_args(model.Drawing))
    assert len(kinds.facts()) == len({kind.facts for kind in kinds.kinds().values() if kind.facts})


@pytest.mark.parametrize("check", EVERY, ids=lambda check: check.key)
def test_its_sample_is_understood_and_judged_with_facts_that_can_be_kept(check):
    typed = check.rule.sample(check, 1890, DAY)
    verdict = judged(check, typed)
    assert verdict.reason and verdict.severity in get_args(base.Severity)
    if check.kind in ("choice", "bearing", "level", "gauge", "yes-no", "count"):
        assert verdict.severity == "sound", "what a kind gives as a sample is sound"
    if verdict.facts:
        assert type(verdict.facts) is check.rule.facts
        assert structure.read(check.rule.facts, structure.write(verdict.facts)) == verdict.facts


@pytest.mark.parametrize("check", [check for check in EVERY if check.rule.states()], ids=lambda check: check.key)
def test_every_state_is_judged_as_it_says(check):
    for state in check.rule.states():
        verdict = judged(check, [state.key])
        worst = "stop" if check.safety and state.severity in ("watch", "due") else state.severity
        assert (verdict.severity, verdict.action) == (worst, state.action)


@pytest.mark.parametrize("check", EVERY, ids=lambda check: check.key)
def test_every_limit_has_a_name_and_reads_as_it_is_typed(check):
    for figure, value in figures.in_force(check).items():
        assert figures.name(check, figure)
        for system in ("mm", "in"):
            assert figures.shown(check, figure, value, system)
        if base.limits(type(check.rule))[figure].shown_as == "share":
            assert figures.typed(check, figure, 100 * value) == pytest.approx(value)


@pytest.mark.parametrize("check", [check for check in EVERY if check.kind == "measure"], ids=lambda check: check.key)
def test_a_gauge_finds_where_readings_usually_lie(check):
    low, high = check.rule.usual_span(check)
    assert low <= high


@pytest.mark.parametrize("page", reference.PAGES)
def test_the_pages_that_follow_from_the_code_are_current(page):
    """Run ./lumvek catalogue when this fails."""
    assert (reference.DOCS / f"{page}.md").read_text(encoding="utf-8") == reference.written(page)


@pytest.mark.parametrize("check", [one for one in EVERY if one.kind == "measure"], ids=lambda check: check.key)
def test_a_check_that_takes_more_than_figures_says_so(check):
    """A phone shows a keypad of figures for the rest, and on it there is no word and no sign of less or of parting."""
    signed = any(check.rule.negative(text) is not None for text in ("-5", "2 past"))
    with_words = check.rule.keeps_unit or check.rule.read(check, ["1010 / 985"], "mm") is not None
    assert check.rule.more_than_figures() == (signed or with_words)
