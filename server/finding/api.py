"""Finding anything by words."""

from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import Query, Router, Schema

from shops.access import member_of

from .search import search

router = Router(tags=["search"])


class FoundOut(Schema):
    """path: the screen where it is."""

    kind: Literal["machine", "finding", "note", "part", "supplier", "person", "check", "symptom", "fault"]
    title: str
    words: str
    path: str


@router.get("", response=list[FoundOut])
def find(request: HttpRequest, q: Annotated[str, Query(max_length=120)] = "") -> list[FoundOut]:
    """Machines, findings, notes, parts, suppliers, people and checks that words are about, as far as the member sees them."""
    return [FoundOut(**vars(one)) for one in search(member_of(request), q)]
