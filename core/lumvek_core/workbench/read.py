"""From what was typed at the bench to a calculation's input, and errors back to the field they belong to."""

import datetime as dt
import re
from collections.abc import Mapping
from typing import Any

from .. import units
from ..calculators.opener import FEELERS_MM
from ..errors import BadInput
from ..units import System
from .model import Field, Sheet, Subject, Table, Texts, Work
from .notation import in_units

_NUMBER = re.compile(r"[+-]?(?:[0-9]+(?:[.,][0-9]*)?|[.,][0-9]+)")
_PAST = re.compile(r"past\s+(.+)|(.+?)\s*past", re.IGNORECASE)
_BETWEEN = re.compile(r"[\s;|]+")
LONGEST = 20_000
"""Characters in one field: a run of several thousand spacings."""


class Reading:
    """Reads the texts of one subject and remembers where each row came from."""

    def __init__(self, subject: Subject, texts: Texts, system: System, feelers: Mapping[str, float]) -> None:
        self.subject, self.texts, self.unit = subject, texts, "in" if system == "in" else "mm"
        self.feelers = {**FEELERS_MM, **feelers}
        self.rows: dict[str, list[int]] = {}
        self.names: dict[str, dict[str, int]] = {}

    def given(self) -> dict[str, Any]:
        """The input as JSON data, nested by the dots of its keys. Raises BadInput at the field as it stands on screen."""
        found: dict[str, Any] = {}
        for one in self.subject.fields:
            if not self._shown(one.when):
                continue
            value = self._table(one) if isinstance(one, Table) else self._field(one, self._text(one), one.key)
            if value is None:
                if not one.optional:
                    raise BadInput(one.key, "is missing")
                continue
            *outer, last = one.key.split(".")
            place = found
            for name in outer:
                place = place.setdefault(name, {})
            place[last] = value
        return found

    def _text(self, field: Field) -> str:
        text = self.texts.get(field.key, field.start)
        if not isinstance(text, str):
            raise BadInput(field.key, "must be text")
        return text

    def _shown(self, when: Mapping[str, tuple[str, ...]]) -> bool:
        starts = {one.key: one.start for one in self.subject.fields if isinstance(one, Field)}
        return all(self.texts.get(key, starts.get(key, "")) in wanted for key, wanted in when.items())

    def _table(self, table: Table) -> Any:
        rows = self.texts.get(table.key, [])
        if not isinstance(rows, list):
            raise BadInput(table.key, "must be rows")
        listed: list[Any] = []
        keyed: dict[str, Any] = {}
        self.rows[table.key], self.names[table.key] = [], {}
        for i, row in enumerate(rows):
            cells = [*row, *[""] * (len(table.columns) - len(row))]
            if not any(cell.strip() for cell in cells):
                continue
            self.rows[table.key].append(i)
            entry: dict[str, Any] = {}
            for column, cell in zip(table.columns, cells, strict=False):
                at = f"{table.key}.{i}.{column.key}"
                value = self._field(column, cell or column.start, at)
                if value is None:
                    if not column.optional:
                        raise BadInput(at, "is missing")
                    continue
                self._nest(entry, column.key, value)
            if not table.keyed:
                listed.append(entry)
                continue
            name = str(entry.pop(table.columns[0].key))
            if name in keyed:
                raise BadInput(f"{table.key}.{i}.{table.columns[0].key}", f"“{name}” is there already")
            self.names[table.key][name] = i
            keyed[name] = entry["value"] if set(entry) == {"value"} else entry
        return (keyed or None) if table.keyed else (listed or None)

    @staticmethod
    def _nest(entry: dict[str, Any], key: str, value: Any) -> None:
        *outer, last = key.split(".")
        for name in outer:
            entry = entry.setdefault(name, {})
        entry[last] = value

    def _field(self, field: Field, text: str, at: str) -> Any:
        text = text.strip()
        if len(text) > LONGEST:
            raise BadInput(at, "is too long")
        if not text:
            return None
        try:
            return self._value(field, text)
        except BadInput as problem:
            raise BadInput(at, problem.message) from None

    def _value(self, field: Field, text: str) -> Any:
        match field.kind:
            case "length":
                return self._length(text)
            case "signed":
                if past := _PAST.fullmatch(text):
                    return -self._length(past[1] or past[2])
                minus = text[0] in "-−"
                return (-1 if minus else 1) * self._length(text[1:] if minus else text)
            case "lengths":
                return [self._length(part) for part in _BETWEEN.split(text) if part]
            case "number" | "count":
                return number(text, field.unit, whole=field.kind == "count")
            case "feeler":
                return self._feeler(text)
            case "yes-no":
                return self._answer(text)
            case "choice":
                if text not in [choice.key for choice in field.choices]:
                    raise BadInput("", "must be one of: " + ", ".join(choice.name for choice in field.choices))
                return text
            case "date":
                return day(text)
            case "names":
                return [part for part in re.split(r"[\s,;]+", text) if part]
            case _:
                return text

    def _length(self, text: str) -> float:
        return units.parse_length(text.removesuffix("short"), self.unit)  # type: ignore[arg-type]

    def _feeler(self, text: str) -> float:
        return self.feelers[text.lower()] if text.lower() in self.feelers else self._length(text)

    @staticmethod
    def _answer(text: str) -> bool:
        words = {"yes": True, "y": True, "1": True, "no": False, "n": False, "0": False}
        if text.lower() not in words:
            raise BadInput("", "must be yes or no")
        return words[text.lower()]

    def on_screen(self, problem: BadInput) -> BadInput:
        """A calculation's error, at the field it was typed into."""
        head, _, rest = problem.field.partition(".")
        table = next((one for one in self.subject.fields if isinstance(one, Table) and one.key == head), None)
        if table is None or not rest:
            return problem
        name, _, column = rest.partition(".")
        if table.keyed:
            row = self.names[head].get(name)
            # A figure of a keyed table's only value, or one of several in a cell, belongs to the cell.
            column = column if any(one.key == column for one in table.columns) else table.columns[-1].key
        else:
            row = self.rows[head][int(name)] if name.isdigit() and int(name) < len(self.rows[head]) else None
            column = column or table.columns[0].key
        return problem if row is None else BadInput(f"{head}.{row}.{column}", problem.message)


def number(text: str, unit: str = "", *, whole: bool = False) -> float:
    """A plain figure with point or comma, with or without its unit. Raises BadInput."""
    cleaned = text.strip().replace("−", "-").removesuffix(unit).removesuffix("%").strip()
    if not _NUMBER.fullmatch(cleaned) or len(cleaned) > 20:
        raise BadInput("", f"must be a number{f' of {unit}' if unit else ''}")
    value = float(cleaned.replace(",", "."))
    if whole and not value.is_integer():
        raise BadInput("", "must be a whole number")
    return int(value) if whole else value


def day(text: str) -> str:
    """A date as ``2026-03-05`` or ``5.3.2026``, as the first. Raises BadInput."""
    for pattern in ("%Y-%m-%d", "%d.%m.%Y"):
        try:
            return dt.datetime.strptime(text, pattern).date().isoformat()
        except ValueError:
            continue
    raise BadInput("", "must be a day such as 2026-03-05 or 5.3.2026")


def work(subject: Subject, texts: Texts, system: System = "mm", feelers: Mapping[str, float] = FEELERS_MM) -> Sheet:
    """The answer to what was typed; a bare figure is in the reader's own unit. Raises BadInput at the field as it stands on screen (``readings.0.span_mm``)."""
    subject = in_units(subject, system)
    reading = Reading(subject, texts, system, feelers)
    given = reading.given()
    try:
        return subject.work(Work(given, system, reading.feelers))
    except BadInput as problem:
        raise reading.on_screen(problem) from None
    except (OverflowError, ZeroDivisionError):
        raise BadInput("", "the figures are too large or too small to work with") from None
