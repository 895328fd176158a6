"""What the API says of links to a report."""

import datetime as dt
from uuid import UUID

from ninja import Schema


class LinkIn(Schema):
    uuid: UUID | None = None
    days: int = 14


class LinkOut(Schema):
    """A link that works. path: only when it was just made, for it is not kept."""

    id: int
    expires_at: dt.datetime
    made_by: str
    path: str = ""
