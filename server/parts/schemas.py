"""The parts list of a walk-around, as it is read and as the API gives it."""

from typing import Literal

from pydantic import BaseModel as Schema


class PieceOut(Schema):
    """What one position needs of a part. because: the check or the slot that called for it, in words."""

    position: str
    label: str
    quantity: int
    origin: Literal["finding", "companion", "apart"]
    because: str
    why: str
    declined_reason: str
    declined_by: str


class PartOut(Schema):
    """One line of the list. order: pieces to order, in full packs; number is empty where it is still to be found.

    found_at, along_at, declined_at: where it was found worn, goes along with another part, or was left out, in words.
    """

    slot: str
    name: str
    side: str
    side_name: str
    number: str
    pack: int
    note: str
    quantity: int
    order: int
    declined: int
    found_at: str
    along_at: str
    declined_at: str
    pieces: list[PieceOut]
