"""How those outside answer – mail, the suppliers' desk, the machines' modems – and trying the mail."""

import uuid

from django.http import HttpRequest
from ninja import Router

from .access import member_of
from .actions import outside as actions
from .endpoints import allowed
from .queries import outside
from .schemas import InquiryOut, OutsideLineOut

router = Router(tags=["outside"])


@router.get("", response=list[OutsideLineOut], **allowed("see people"))
def lines(request: HttpRequest) -> list[OutsideLineOut]:
    """Who is reached outside, and how each answered last."""
    return outside.lines()


@router.post("/mail/tried", response=list[OutsideLineOut], **allowed(actions.try_mail))
def try_mail(request: HttpRequest) -> list[OutsideLineOut]:
    """Send a letter to oneself. What comes of it is said of the line."""
    actions.try_mail(member_of(request))
    return outside.lines()


@router.get("/inquiries/{uuid:inquiry_id}", response=InquiryOut)
def inquiry(request: HttpRequest, inquiry_id: uuid.UUID) -> InquiryOut:
    """How an inquiry stands: under way, or what came of it."""
    return outside.inquiry_of(member_of(request), inquiry_id)
