"""Lists that grow, a page at a time: what is asked of one, and which part of it is shown."""

from collections.abc import Sequence
from typing import Annotated, TypeVar

from django.core.paginator import Paginator
from django.db.models import Model, QuerySet
from ninja import Field, Schema

T = TypeVar("T")
M = TypeVar("M", bound=Model)


class ListAsked(Schema):
    """search: words that all stand in it, anywhere; page: from 1, one past the end is the last."""

    search: Annotated[str, Field(max_length=100)] = ""
    page: Annotated[int, Field(ge=1, le=100_000)] = 1

    def words(self) -> list[str]:
        """The words sought, in small letters."""
        return self.search.lower().split()


class PageOut(Schema):
    """first, last: places of its rows in the whole list, from 1; both 0 where there is none. total: rows of all pages."""

    number: int
    of: int
    first: int
    last: int
    total: int


def page_of(rows: Sequence[T], number: int, size: int) -> tuple[list[T], PageOut]:
    """A page of what is in memory."""
    return _page(Paginator(rows, size), number)


def page_of_query(rows: "QuerySet[M]", number: int, size: int) -> tuple[list[M], PageOut]:
    """A page of what is in the database, in the order of the query. Two queries and those of its prefetches."""
    return _page(Paginator(rows, size), number)


def _page(pages: "Paginator[T]", number: int) -> tuple[list[T], PageOut]:
    page = pages.get_page(number)
    first, last = page.start_index(), page.end_index()
    return list(page), PageOut(number=page.number, of=pages.num_pages, first=first, last=last, total=pages.count)


def holds(words: Sequence[str], text: str) -> bool:
    """Whether all words, in small letters, stand in a text, in any case and order."""
    text = text.lower()
    return all(word in text for word in words)
