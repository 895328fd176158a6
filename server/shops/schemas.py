"""What the API says and takes about sessions, accounts and people."""

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from tabular.lengths import Figure, Key, Line, Secret
from tabular.paging import ListAsked, PageOut

from .rights import RIGHTS

Role = Literal["lead", "technician", "parts", "owner"]
Right = Annotated[str, Field(json_schema_extra={"enum": list(RIGHTS)})]


class ShopOfMine(Schema):
    """member: what its person is called there, to change over to."""

    member: int
    name: str


class Me(Schema):
    """shops: all that this person belongs to. code_first: the shop wants a second factor that is not set up yet. begun: the
    shop's first day is over."""

    id: int
    name: str
    roles: list[Role]
    role_name: str
    rights: list[Right]
    shop: str
    shops: list[ShopOfMine]
    units: Literal["mm", "in"]
    code_first: bool
    begun: bool
    time_zone: str
    day_form: Literal["words", "month", "figures"]


class Session(Schema):
    """csrf: to be sent back as X-CSRFToken with every write. to_found: nobody has a shop here yet."""

    csrf: str
    me: Me | None
    to_found: bool


class Credentials(Schema):
    """code: of the authenticator app, or one for once, where the account asks for it."""

    username: Line
    password: Secret
    code: Figure = ""


class Preferences(Schema):
    units: Literal["mm", "in"]


class WhichShop(Schema):
    member: int


class Refusal(Schema):
    error: dict[str, str]


class DeviceOut(Schema):
    id: int
    device: str
    address: str
    at: dt.datetime
    here: bool


class AccountOut(Schema):
    username: str
    name: str
    email: str
    second_factor: bool
    second_factor_wanted: bool
    codes_left: int
    devices: list[DeviceOut]


class AccountIn(Schema):
    name: Line
    email: Line = ""


class NewPassword(Schema):
    old: Secret
    new: Secret


class KeyOut(Schema):
    """A key for an authenticator app: as the address of a picture to scan (data:), and in letters to type."""

    picture: str
    letters: str


class CodeIn(Schema):
    code: Figure


class CodesOut(Schema):
    """For once each, shown once."""

    codes: list[str]


class PasswordIn(Schema):
    password: Secret


class WhichDevices(Schema):
    """ids: None for all but this one."""

    ids: list[int] | None = None


class Forgotten(Schema):
    """name: to log in with, or the e-mail address."""

    name: Line


class SaidOut(Schema):
    said: str


class ResetIn(Schema):
    who: Secret
    token: Secret
    password: Secret = ""


class CropIn(Schema):
    name: Annotated[str, Field(max_length=40)]
    group: Literal["small-grain", "pod", "ear", "fine-seed"]


class SeasonIn(Schema):
    """first, last: days of any year, as ``04-15``."""

    name: Annotated[str, Field(max_length=40)]
    first: Annotated[str, Field(max_length=5)]
    last: Annotated[str, Field(max_length=5)]


class WorkplaceIn(Schema):
    """A bay, yard, lift or bench; door sizes as typed, empty where nothing is in the way."""

    uuid: uuid.UUID
    kind: Literal["bay", "yard", "lift", "bench"]
    name: Annotated[str, Field(max_length=60)]
    many: Annotated[int, Field(ge=1, le=50)] = 1
    door_width: Annotated[str, Field(max_length=20)] = ""
    door_height: Annotated[str, Field(max_length=20)] = ""
    note: Annotated[str, Field(max_length=200)] = ""


class WorkplaceOut(WorkplaceIn):
    kind_name: str


class WaysIn(Schema):
    """time_zone: empty for the server's. units: of those who join."""

    time_zone: Key
    units: Literal["mm", "in"]
    day_form: Literal["words", "month", "figures"]


class HoursIn(Schema):
    """As people write them: ``Mon–Fri 07:30–17:00``; closed on ``2026-12-24``."""

    hours: Annotated[str, Field(max_length=300)]
    closed: Annotated[str, Field(max_length=2000)] = ""


class CropsIn(Schema):
    crops: list[CropIn]
    seasons: list[SeasonIn]


class ShopOut(Schema):
    """described: its lead has gone over it. people, asked: who belongs to it, and who was asked to. zones: the time zones there
    are; day_forms: how days may be written, each with an example."""

    name: str
    address: str
    has_mark: bool
    time_zone: str
    zones: list[str]
    units: Literal["mm", "in"]
    day_form: Literal["words", "month", "figures"]
    day_forms: dict[str, str]
    hours: str
    closed: str
    crops: list[CropIn]
    seasons: list[SeasonIn]
    places: list[WorkplaceOut]
    second_factor: bool
    described: bool
    people: int
    asked: int


class ShopIn(Schema):
    name: Annotated[str, Field(max_length=120)]
    address: Annotated[str, Field(max_length=300)] = ""
    second_factor: bool = False


class LoggedChangeOut(Schema):
    at: dt.datetime
    by: str
    about: str
    what: str
    before: str
    after: str


class ChangesAsked(ListAsked):
    about: Annotated[str, Field(max_length=20)] = ""


class ChangesOut(Schema):
    """A page of the log. about: what may be changed, in words."""

    about: dict[str, str]
    page: PageOut
    changes: list[LoggedChangeOut]


class FoundIn(Schema):
    """secret: as the server printed it in its log."""

    secret: Secret
    shop: Line
    username: Line
    name: Line
    password: Secret


class OutsideLineOut(Schema):
    """Somebody outside. trouble: what was wrong when it was asked last (asked_at); empty where it answered."""

    key: Literal["mail", "desk", "modems", "forecast"]
    name: str
    connected: bool
    trouble: str
    rests: str
    asked_at: dt.datetime | None


class InquiryIn(Schema):
    """uuid: made by the client; the same one again asks nothing again."""

    uuid: uuid.UUID


class ToldOut(Schema):
    """What one of those who were asked said; trouble: why it said nothing."""

    who: str
    said: str
    trouble: str


class InquiryOut(Schema):
    """Something asked of somebody outside. trouble: why nothing came of it, field: about which field."""

    uuid: uuid.UUID
    under_way: bool
    told: list[ToldOut]
    trouble: str
    field: str
