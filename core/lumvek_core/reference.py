"""The parts of docs/ that follow from the code: every field of the catalogue, every kind of rule, every calculation, with an
example.

``./lumvek catalogue`` writes them between the marks in each page; a test holds them to what they would be now.
"""

import dataclasses
import datetime as dt
import inspect
import json
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from . import positions, registry, structure
from .bounds import AtMost, Over, Within
from .catalogue import in_force, lists, load, model
from .judgement.context import Context
from .judgement.parse_reading import parse_reading
from .judgement.verdicts import judge
from .rules import base, kinds
from .workbench.read import work
from .workbench.subjects import SUBJECTS

DOCS = Path(__file__).resolve().parents[2] / "docs"
BEGIN, END = "<!-- written by ./lumvek catalogue -->\n", "<!-- end -->\n"
Lines = Iterator[str]


def _type(kind: Any) -> str:
    """A type as somebody who writes YAML or JSON reads it."""
    origin, args = get_origin(kind), get_args(kind)
    if origin is Annotated:
        bounds = (one.schema() for one in args[1:] if isinstance(one, Over | Within | AtMost))
        return f"{_type(args[0])} {' '.join(map(_bound, bounds))}".strip()
    if origin is Literal:
        return ", ".join(f"`{one}`" if one else "nothing" for one in args)
    if origin is list:
        return f"list of {_type(args[0])}"
    if origin is dict:
        return f"name → {_type(args[1])}"
    if origin is Union or type(kind).__name__ == "UnionType":
        return " or ".join(_type(one) for one in args if one is not type(None))
    names = {str: "text", float: "number", int: "whole number", bool: "true or false", base.Rule: "a rule (docs/rules.md)"}
    return names.get(kind, getattr(kind, "__name__", str(kind)))


def _bound(schema: dict[str, Any]) -> str:
    if most := schema.get("maxItems") or schema.get("maxProperties"):
        return f"(at most {most})"
    if "exclusiveMinimum" in schema:
        return f"over {schema['exclusiveMinimum']:g}"
    low = schema["minimum"]
    return f"from {low:g} to {schema['maximum']:g}" if "maximum" in schema else f"from {low:g}"


def _fields(kind: type) -> Lines:
    """A table of the fields of a dataclass."""
    hints = get_type_hints(kind, include_extras=True)
    yield "| field | what | if it is left out |"
    yield "|---|---|---|"
    for field in dataclasses.fields(kind):
        yield f"| `{structure.json_name(field)}` | {_type(hints[field.name])} | {_default(field)} |"


def _default(field: "dataclasses.Field[Any]") -> str:
    if field.default is dataclasses.MISSING:
        made = field.default_factory() if field.default_factory is not dataclasses.MISSING else None
        return "it must be there" if made is None else f"`{json.dumps(made)}`" if made else "none"
    return "nothing" if field.default in (None, "") else f"`{json.dumps(field.default)}`"


def _prose(thing: Any) -> str:
    """What somebody wrote of it; nothing where Python only lists the fields."""
    said = " ".join((inspect.getdoc(thing) or "").split())
    return "" if said.startswith(f"{thing.__name__}(") else said


def catalogue_fields() -> Lines:
    """Every field of every file."""
    pages: list[tuple[str, type]] = [
        ("A family: `families/<family>/family.yaml`", model.FamilyHead),
        ("Stations that families share: `shared/<name>/shared.yaml`", model.SharedHead),
        ("A thing there are several of: under `things`", model.Thing),
        ("A part's place: under `slots`", model.Slot),
        ("A station: `<station>.yaml` beside its family", model.Station),
        ("A check: under `checks` of a station", model.Check),
        ("A part that is asked for: under `parts` of a check", model.PartUse),
        ("How it wears: under `wears` of a check", model.Wears),
        ("What is renewed along: `companions.yaml`", lists.Companion),
        ("Where practitioners disagree: `schools.yaml`", lists.School),
        ("One accepted way: under `choices` of a school", lists.SchoolChoice),
        ("A condition on a school: under `school`", lists.SchoolCondition),
        ("Postures, hazards and moves: `safety.yaml`", lists.Safety),
        ("A posture", lists.Posture),
        ("A move from posture to posture", lists.Move),
        ("What lies open: `strip-downs.yaml`", lists.StripDown),
        ("What a strip-down reaches", lists.Reach),
        ("Work that comes round: `services.yaml`", lists.Service),
        ("How long work takes: `work.yaml`", lists.WorkTimes),
        ("Renamed keys: `renamed.yaml`", lists.Renamed),
    ]
    for title, kind in pages:
        yield from (f"### {title}", "", _prose(kind), "", *_fields(kind), "")
    yield from ("### One check with a reading", "", *_check_example(), "")


def _check_example() -> Lines:
    book = in_force.rule_book(load.shipped(), "row-crop-planter")
    check = book.family.checks["opener-disc-diameter"]
    text = (load.SHIPPED / "families/row-crop-planter/opener.yaml").read_text(encoding="utf-8")
    lines = text[text.index(f"  - key: {check.key}") :].splitlines()
    end = next(i for i, line in enumerate(lines) if i and line.startswith("  - key: "))
    yield from ("```yaml", *lines[:end], "```", "")
    for typed in (["374"], ["14 1/2"], ["480"]):
        verdict = judge(check, positions.find("3L"), parse_reading(check, typed, default_unit="mm"), Context(typed=typed))
        yield f"- `{typed[0]}` typed at row 3 left: {(verdict.ask and 'asked') or verdict.severity}. {verdict.reason}"


def rule_kinds() -> Lines:
    """Every kind of rule with a check of the catalogue that has it."""
    books = [in_force.rule_book(load.shipped(), family) for family in load.shipped().families]
    found = {check.rule.kind: check for book in reversed(books) for check in reversed(book.family.checks.values())}
    for name, kind in kinds.kinds().items():
        yield from (f"### `{name}`", "", _prose(kind), "", *_fields(kind), "")
        if limits := base.limits(kind):
            called = (f"`{figure}` ({limit.name}{', ' + limit.unit if limit.unit else ''})" for figure, limit in limits.items())
            yield from (f"A model or a shop may replace: {', '.join(called)}.", "")
        traits = [f"judges {kind.answers or 'any kind of check'}"]
        traits += [f"has {kind.figures} figures a reading"] if kind.figures else []
        traits += ["looks at its own like places"] if kind.compares else []
        traits += [f"looks at {', '.join(sorted(kind.wants))}"] if kind.wants else []
        traits += [f"is drawn as {', '.join(sorted(kind.drawings))}"] if kind.drawings else []
        traits += [f"tells `{kind.facts.__name__}`"] if kind.facts else []
        yield from (f"It {'; '.join(traits)}.", "", *_rule_example(found[name]), "")


def _rule_example(check: model.Check) -> Lines:
    counter, day = 1890.0, dt.date(2026, 3, 5)
    typed = check.rule.sample(check, counter, day)
    rules = {key: other.rule for key, other in _all_checks().items()}
    value = parse_reading(check, typed, "card" if check.rule.by_feeler else "")
    place = positions.find("3" if check.per.endswith("row") else "knife-1" if check.per.endswith("knife") else "all")
    context = Context(confirmed=True, typed=typed, rules=rules, counter_h=counter, today=day)
    verdict = judge(check, place, value, context)
    yield f"For example **{check.name}**, read `{' · '.join(typed)}`: {verdict.severity}. {verdict.reason}"


def _all_checks() -> dict[str, model.Check]:
    catalogue = load.shipped()
    return {key: check for family in catalogue.families.values() for key, check in family.checks.items()}


def calculators() -> Lines:
    """Every calculation: what goes in, what comes out, and one that the bench makes."""
    runs: dict[str, tuple[str, Any]] = {}
    for subject in SUBJECTS.values():
        for example in subject.examples:
            start = {} if example is subject.examples[0] else dict(subject.examples[0].texts)
            for name, run in work(subject, start | dict(example.texts)).runs.items():
                runs.setdefault(name, (subject.key, run))
    for name, one in registry.calculators().items():
        yield from (f"### `{name}`", "", " ".join(one.description.split()), "")
        for title, kind in (("In", one.given), ("Out", one.result)):
            forms = get_args(kind) or (kind,)
            for form in forms:
                yield from (f"{title}: {_prose(form)}".strip(": "), "", *_fields(form), "")
        if name in runs:
            subject_key, run = runs[name]
            yield from (f"For example (bench, {subject_key}):", "", "```json", *_json(run.given), *_json(run.result), "```", "")


def _json(data: Any) -> Lines:
    text = json.dumps(structure.write(data), ensure_ascii=False)
    yield text if len(text) <= 600 else f"{text[:600]} …"


PAGES: dict[str, Callable[[], Lines]] = {"catalogue": catalogue_fields, "rules": rule_kinds, "calculators": calculators}


def written(page: str) -> str:
    """A page of docs/ as it should stand: what people wrote, with the part between the marks made anew."""
    text = (DOCS / f"{page}.md").read_text(encoding="utf-8")
    head, _, rest = text.partition(BEGIN)
    _, _, tail = rest.partition(END)
    return f"{head}{BEGIN}\n" + "\n".join(PAGES[page]()) + f"\n{END}{tail}"


def main() -> None:
    for page in PAGES:
        (DOCS / f"{page}.md").write_text(written(page), encoding="utf-8")


if __name__ == "__main__":
    main()
