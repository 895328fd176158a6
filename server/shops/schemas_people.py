"""What the endpoints of people and invitations take and give."""

import datetime as dt
import uuid

from ninja import Schema

from tabular.lengths import Key, Line, Secret

from .schemas import Role


class MemberOut(Schema):
    """named: they were not taken out by name."""

    id: int
    name: str
    username: str
    email: str
    roles: list[Role]
    role_name: str
    second_factor: bool
    left_at: dt.datetime | None
    named: bool


class InvitationOut(Schema):
    """path: of the link, as long as it works."""

    uuid: uuid.UUID
    name: str
    email: str
    role_name: str
    expires_at: dt.datetime
    path: str


class PeopleOut(Schema):
    """mails: letters go out from here, so that an invitation can be sent."""

    people: list[MemberOut]
    invitations: list[InvitationOut]
    mails: bool
    second_factor: bool


class InviteIn(Schema):
    uuid: uuid.UUID
    name: Line
    email: Line = ""
    roles: list[Key]


class InvitedOut(Schema):
    """said: what became of the letter, where there was one to send."""

    people: PeopleOut
    path: str
    said: str


class RolesIn(Schema):
    roles: list[Key]


class PasswordLinkOut(Schema):
    path: str
    said: str


class InvitedTo(Schema):
    """What a link shows before it is taken up."""

    shop: str
    name: str
    role_name: str
    asked_by: str


class JoinIn(Schema):
    """An account of one's own; nothing of it where somebody is signed in and joins as who they are."""

    username: Line = ""
    name: Line = ""
    password: Secret = ""
