"""What does not fit its description is said in our own words, at its field."""

import datetime as dt
import uuid
from typing import Annotated, Literal

import pytest
from pydantic import AwareDatetime, BaseModel, Field, FiniteFloat, ValidationError

from config.unfit_input import said
from tabular.moments import Day


class Typed(BaseModel):
    """One field of each kind that the API takes."""

    name: Annotated[str, Field(min_length=1, max_length=5)] = "A"
    password: Annotated[str, Field(min_length=10)] = "long enough"
    words: Annotated[list[str], Field(min_length=1, max_length=2)] = ["a"]
    share: Annotated[float, Field(gt=0, le=1.5)] = 1
    days: Annotated[int, Field(ge=0, lt=400)] = 3
    size: FiniteFloat = 1
    yes: bool = True
    phase: Literal["winter", "daily"] = "winter"
    day: Day = dt.date(2026, 12, 24)
    at: dt.datetime = dt.datetime(2026, 12, 24)
    seen: AwareDatetime = dt.datetime(2026, 12, 24, tzinfo=dt.UTC)
    key: uuid.UUID = uuid.UUID(int=0)
    more: dict[str, int] = {}


@pytest.mark.parametrize(
    ("field", "value", "words"),
    [
        ("name", "", "is missing"),
        ("name", "Corvane", "may have 5 letters and signs at most"),
        ("name", 7, "must be text"),
        ("password", "short", "must have 10 letters at least"),
        ("words", [], "is missing"),
        ("words", ["a", "b", "c"], "may have 2 entries at most"),
        ("words", "a", "must be a list"),
        ("share", 0, "must be more than 0"),
        ("share", 2, "must be at most 1.5"),
        ("share", "half", "must be a number"),
        ("days", -1, "must be at least 0"),
        ("days", 400, "must be less than 400"),
        ("days", 2.5, "must be a whole number"),
        ("days", "two", "must be a whole number"),
        ("size", float("inf"), "must be a finite number"),
        ("yes", "perhaps", "must be yes or no"),
        ("phase", "spring", "must be one of 'winter' or 'daily'"),
        ("day", "24.12.2026", "must be a day such as 2026-12-24"),
        ("day", "1888-01-01", "must lie between 1950 and 2149"),
        ("at", "noon", "must be a day with a time, such as 2026-12-24T08:15"),
        ("seen", "2026-12-24T08:15", "must be a day with a time and its zone, such as 2026-12-24T08:15Z"),
        ("key", "7", "must be a UUID"),
        ("more", "a", "must be an object"),
        ("more", {"a": "b"}, "must be a whole number"),
    ],
)
def test_words(field, value, words):
    with pytest.raises(ValidationError) as problem:
        Typed(**{field: value})
    assert said(problem.value.errors()[0]) == words


def test_what_is_missing_is_said_at_its_field(yard, as_):
    answer = as_(yard.lead).send("/api/shop/hours", closed="")
    assert answer.status_code == 422
    assert answer.json()["error"] == {"field": "hours", "message": "is missing"}
