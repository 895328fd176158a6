"""Every sentence the core can say with 0, 1 and 2 in it reads as a person would say it."""

import datetime as dt
import itertools
import re
from collections.abc import Iterator
from dataclasses import replace

import pytest

from lumvek_core import counters, positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.model import Check
from lumvek_core.counted import counted, noun
from lumvek_core.counters import Count
from lumvek_core.errors import BadInput
from lumvek_core.judgement.context import Context, Expected, Past
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.judgement.verdicts import judge
from lumvek_core.rules.interval import IntervalRule
from lumvek_core.rules.stretch import StretchRule
from lumvek_core.rules.verdict import Verdict
from lumvek_core.rules.wear import WearRule
from lumvek_core.workbench.model import Subject, Table
from lumvek_core.workbench.read import work
from lumvek_core.workbench.subjects import SUBJECTS

CATALOGUE = load.shipped()
FAMILIES = sorted(CATALOGUE.families)
FEW = ("0", "1", "2")

UNITS = re.compile(
    r"mm|cm|m|in|ft|thou|k?g|t|k?N|Nm|m?bar|kPa|psi|inHg|inH2O|A|V|rpm|h|ha|min|s|d|dB|C|km|EUR|l|kmh|ms|mph|ac|lb|k?g·mm|x|deg|°C"
)
"""What follows a figure and has no plural."""
GLUE = re.compile(
    r"of|to|and|at|or|by|on|in|from|left|right|is|are|was|above|below|over|under|past|short|more|less|beyond|upper|lower|with|the|an?|it"
    r"|than|against|for|instead|wanted|usual|used|counts|stands|looked|there|here|too|out|inner|outer|rear|front|still|also|that|behind"
    r"|before|after|no|per|between|each|every|then|up|down|away|together|apart|bad|off|worn|due|expected|standard"
    r"|Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec"
)
"""Words that go on with the sentence and are no thing that is counted."""
ONE_WITH_S = {"is", "was", "less", "lies", "stands", "has", "mass", "looks", "comes", "Does", "does", "needs", "fits"}
MANY_WITHOUT_S = {"teeth", "feet", "are", "have"}


def faults(sentence: str) -> list[str]:
    """What is wrong with the counting, the spacing or the stops of a sentence."""
    found = []
    for figure, word in re.findall(r"(?<![\w.,/–×-])(\d+(?:\.\d+)?) ([A-Za-z·°]+(?:2O)?)", sentence):
        if UNITS.fullmatch(word) or GLUE.fullmatch(word):
            continue
        if (float(figure) == 1 and word.endswith("s") and word not in ONE_WITH_S) or (
            float(figure) != 1 and not word.endswith("s") and word not in MANY_WITHOUT_S
        ):
            found.append(f"{figure} {word}")
    found += [
        f"{match!r}" for match in re.findall(r"  |\s[.,;:?]|\.\.(?!\.)|,,|\(\)|(?<!^)None|nan|\binf\b|\{|-0 |: no$", sentence)
    ]
    return found


@pytest.mark.parametrize(
    "wrong", ["1 holes", "2 hole", "0 reading", "in 1 days", "99 hole?", "2 mm .", "bolts  loose", "bolts: no"]
)
def test_what_is_wrong_is_seen(wrong):
    assert faults(wrong)


def typed(check: Check) -> Iterator[list[str]]:
    """What can be typed for a check: every answer, and 0, 1, 2 and the limits in every field."""
    if states := check.rule.states():
        yield from ([option.key] for option in states)
        return
    if isinstance(check.rule, IntervalRule):
        yield from ([text] for text in (*FEW, "2026-11-01", "2026-11-02"))
        return
    fields = max(1, len(check.values))
    limits = [f"{number:g}" for number in vars(check.rule).values() if isinstance(number, int | float)]
    for text in (*FEW, *limits):
        yield [text] * fields
    for mixed in itertools.islice(itertools.product(FEW, repeat=fields), 81):
        yield list(mixed)


def around(check: Check, rules: dict[str, object]) -> Iterator[Context]:
    """With nothing beside it, and with everything a rule looks at, forecasts included."""
    for system in ("mm", "in"):
        base = Context(system=system, rules=rules, counter_h=3.0, today=dt.date(2026, 11, 3))  # type: ignore[arg-type]
        yield base
        yield replace(base, confirmed=True)
        if not isinstance(check.rule, WearRule | StretchRule):
            continue
        for now, value, chance in ((1.0, 2.0, 0.5), (0.0, 1.0, 0.0), (2.0, 1.0, 1.0)):
            yield replace(base, expected=Expected(now, value, value - 1, value + 1, chance, "possible", doubted=value == 2))


def said(verdict: Verdict) -> Iterator[str]:
    yield from (verdict.reason, verdict.action, *verdict.why)
    if verdict.ask:
        yield str(getattr(verdict.ask, "text", verdict.ask))
    if verdict.advice:
        yield verdict.advice.done
        yield from (f"{row.name}: {row.shown}" for row in verdict.advice.rows)


@pytest.mark.parametrize("family", FAMILIES)
def test_verdicts(family):
    book = in_force.rule_book(CATALOGUE, family)
    layout = in_force.layout(book, {})
    rules = {key: check.rule for key, check in book.family.checks.items()}
    wrong, sentences = {}, 0
    for check in book.family.checks.values():
        place = positions.expand(check.per, layout)[0]
        for raw, context in itertools.product(typed(check), around(check, rules)):
            try:
                value = parse_reading(check, raw, "card")
            except BadInput as problem:
                told = [problem.message]
            else:
                told = list(said(judge(check, place, value, context)))
            sentences += len(told)
            wrong |= {sentence: faults(sentence) for sentence in told if faults(sentence)}
    assert wrong == {} and sentences > 100


def changed(subject: Subject) -> Iterator[dict[str, object]]:
    """Every example, and each with 0, 1 and 2 in each of its fields and that many lines in its tables."""
    for example in subject.examples:
        yield dict(example.texts)
        for field in subject.fields:
            if isinstance(field, Table):
                rows = list(example.texts.get(field.key, ()))
                for few in range(3):
                    yield {**example.texts, field.key: rows[:few]}
                continue
            for text in FEW if not field.choices else [choice.key for choice in field.choices]:
                yield {**example.texts, field.key: text}


@pytest.mark.parametrize("key", sorted(SUBJECTS))
@pytest.mark.parametrize("system", ["mm", "in"])
def test_the_bench(key, system):
    wrong, sentences = {}, 0
    for texts in changed(SUBJECTS[key]):
        try:
            sheet = work(SUBJECTS[key], texts, system)
        except BadInput as problem:
            told = [problem.message]
        else:
            told = [sheet.answer, sheet.words, *sheet.why, *(line.shown for line in sheet.lines)]
        sentences += len(told)
        wrong |= {sentence: faults(sentence) for sentence in told if faults(sentence)}
    assert wrong == {} and sentences


def test_washers_to_move():
    """One and two washers, with none, one and two trials of this machine's own behind them."""
    book = in_force.rule_book(CATALOGUE, "row-crop-planter").family.checks
    check, rules = book["opener-contact"], {key: check.rule for key, check in book.items()}

    def past(check, place, *figures):
        return Past(check, place, Value(numbers=[float(n) for n in figures], feeler_mm=0.3))

    trial = [
        past("washers", "5L", 2, 1), past("washers", "5R", 2, 1), past("opener-disc-diameter", "5L", 376), past("opener-contact", "5", 24, 24, 24),
        past("washers", "5L", 1, 2), past("opener-contact", "5", 40, 40, 40),
        past("washers", "5R", 1, 2), past("opener-contact", "5", 55, 55, 55),
    ]  # fmt: skip
    wrong, moves = {}, set()
    for washers, span, log in itertools.product(range(4), range(10, 90, 2), (trial[:0], trial[:6], trial)):
        others = {
            "washers": {place: Value(numbers=[float(3 - washers), float(washers)]) for place in ("3L", "3R")},
            "opener-disc-diameter": {place: Value(numbers=[376.0]) for place in ("3L", "3R")},
        }
        context = Context(rules=rules, others=others, log=log, confirmed=True)
        told = list(said(judge(check, positions.find("3"), parse_reading(check, [str(span)] * 3, "card"), context)))
        moves |= set(re.findall(r"Move (\d+) washers?", " ".join(told))) | set(
            re.findall(r"\((\d) trials? here", " ".join(told))
        )
        wrong |= {sentence: faults(sentence) for sentence in told if faults(sentence)}
    assert wrong == {} and {"1", "2"} <= moves


@pytest.mark.parametrize("broken", range(3))
def test_knives_of_a_rotor(broken):
    book = in_force.rule_book(CATALOGUE, "rotary-combine").family.checks
    check = next(check for check in book.values() if check.rule.__class__.__name__ == "KnivesRule")
    states = [option.key for option in check.rule.states()]
    places = [
        position.key
        for position in positions.expand(check.per, in_force.layout(in_force.rule_book(CATALOGUE, "rotary-combine"), {}))
    ]
    for looked_at in (1, 2, len(places)):
        others = {
            check.key: {
                place: Value(choice=states[-1] if i < broken else states[0]) for i, place in enumerate(places[:looked_at])
            }
        }
        value = others[check.key][places[0]]
        for sentence in said(judge(check, positions.find(places[0]), value, Context(others=others))):
            assert faults(sentence) == [], sentence


@pytest.mark.parametrize(("days", "hours"), list(itertools.product((0, 1, 2, 400), (0, 1, 2, 900, -1))))
def test_a_counter_that_cannot_be(days, hours):
    start = dt.datetime(2026, 11, 1, tzinfo=dt.UTC)
    counts = [Count(start - dt.timedelta(days=365 * years), 1000.0 - 100 * years) for years in (3, 2, 1, 0)]
    asked = counters.question(counts, Count(start + dt.timedelta(days=days), 1000.0 + hours), "h")
    assert faults(asked.message if asked else "") == []


@pytest.mark.parametrize("number", [0, 1, 2, 1.5])
def test_plurals_are_made_in_one_place(number):
    assert counted(number, "knife", "knives") == f"{number} {'knife' if number == 1 else 'knives'}"
    assert noun(number, "Chopper knife") == ("Chopper knife" if number == 1 else "Chopper knives")
    assert noun(number, "reading") == ("reading" if number == 1 else "readings")
