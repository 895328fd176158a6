"""Starting values and examples for a reader of inches: they carry their own unit, for a bare figure means inches there."""

import re
from dataclasses import replace
from functools import lru_cache

from ..units import System
from .model import Example, Field, Subject, Table, Texts

_UNIT = r"\s*(?:mm|cm|in|inch|inches|thou|ft|foot|feet)\b|\s*[\"'′″]"
_BARE = re.compile(rf"(?<![\d.,/])([0-9]+(?:[.,][0-9]+)?|[.,][0-9]+)(?![\d.,/]|\s*-?\s*[0-9]+\s*/|{_UNIT})", re.IGNORECASE)
LENGTHS = ("length", "signed", "lengths", "feeler")


def carrying(field: Field, text: str, unit: System = "mm") -> str:
    """A text of this field with the unit that its bare figures have: ``371.5`` is ``371.5mm``; what has a unit keeps it."""
    return _BARE.sub(lambda found: f"{found[1]}{unit}", text) if field.kind in LENGTHS else text


@lru_cache(maxsize=128)
def _for_inches(key: str) -> Subject:
    from .subjects import SUBJECTS

    subject = SUBJECTS[key]
    fields = tuple(_field(one) if isinstance(one, Field) else _table(one) for one in subject.fields)
    examples = tuple(Example(one.name, carried(subject, one.texts)) for one in subject.examples)
    return replace(subject, fields=fields, examples=examples)


def in_units(subject: Subject, system: System) -> Subject:
    """The subject as a reader of these units sees it. What it starts with is the same in both."""
    return subject if system == "mm" else _for_inches(subject.key)


def carried(subject: Subject, texts: Texts, unit: System = "mm") -> Texts:
    """Texts that were typed where a bare figure is in `unit`, so that they mean the same to everybody."""
    known = {one.key: one for one in subject.fields}
    found: dict[str, str | list[list[str]]] = {}
    for key, text in texts.items():
        one = known.get(key)
        if isinstance(one, Field) and isinstance(text, str):
            found[key] = carrying(one, text, unit)
        elif isinstance(one, Table) and isinstance(text, list):
            found[key] = [
                [carrying(column, cell, unit) for column, cell in zip(one.columns, row, strict=False)] for row in text
            ]
        else:
            found[key] = text
    return found


def _field(field: Field) -> Field:
    return replace(field, start=carrying(field, field.start))


def _table(table: Table) -> Table:
    return replace(table, columns=tuple(_field(column) for column in table.columns))
