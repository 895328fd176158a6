"""Endpoints of a shop's own checks, and of shipped ones that it words otherwise or leaves out."""

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile

from shops.access import member_of
from shops.endpoints import allowed
from tabular import sheets
from tabular.schemas import TableReportOut

from .actions import check_file, own_checks
from .queries import own_check_pages
from .schemas_checks import AlterIn, AsBeforeIn, CheckFormOut, OwnCheckIn, OwnChecksOut, TakeAwayIn, TrialIn, TrialOut

own_check_endpoints = Router(tags=["own checks"])


@own_check_endpoints.get("", response=OwnChecksOut, **allowed(own_checks.set_check))
def all_own_checks(request: HttpRequest) -> OwnChecksOut:
    """The shop's own checks, and the shipped ones that it altered."""
    return own_check_pages.all_own(member_of(request))


@own_check_endpoints.get("/form", response=CheckFormOut, **allowed(own_checks.set_check))
def check_form(request: HttpRequest) -> CheckFormOut:
    """What may be picked for an own check."""
    return own_check_pages.form(member_of(request))


@own_check_endpoints.post("", response=OwnChecksOut, **allowed(own_checks.set_check))
def set_own_check(request: HttpRequest, typed: OwnCheckIn) -> OwnChecksOut:
    """Add a check of the shop's own, or change one."""
    member = member_of(request)
    own_checks.set_check(member, typed)
    return own_check_pages.all_own(member)


@own_check_endpoints.post("/trial", response=TrialOut, **allowed(own_checks.set_check))
def try_own_check(request: HttpRequest, wanted: TrialIn) -> TrialOut:
    """A check as the walk-around will show it, and a reading judged by it. Nothing is kept."""
    return own_check_pages.trial(member_of(request), wanted)


@own_check_endpoints.post("/altered", response=OwnChecksOut, **allowed(own_checks.alter))
def alter_check(request: HttpRequest, wanted: AlterIn) -> OwnChecksOut:
    """Word a shipped check otherwise, or leave it out."""
    member = member_of(request)
    own_checks.alter(member, wanted)
    return own_check_pages.all_own(member)


@own_check_endpoints.post("/taken-away", response=OwnChecksOut, **allowed(own_checks.take_away))
def take_check_away(request: HttpRequest, wanted: TakeAwayIn) -> OwnChecksOut:
    """An own check is made no more; a shipped one is as shipped again."""
    member = member_of(request)
    own_checks.take_away(member, wanted.uuid, wanted.family, wanted.key, wanted.reason)
    return own_check_pages.all_own(member)


@own_check_endpoints.post("/as-before", response=OwnChecksOut, **allowed(own_checks.as_before))
def check_as_before(request: HttpRequest, wanted: AsBeforeIn) -> OwnChecksOut:
    """The version before the one that holds, once more."""
    member = member_of(request)
    own_checks.as_before(member, wanted.uuid, wanted.family, wanted.key)
    return own_check_pages.all_own(member)


@own_check_endpoints.post("/file", response=TableReportOut, **allowed(check_file.take_file))
def checks_file(request: HttpRequest, file: File[UploadedFile], dry: Form[bool] = True) -> TableReportOut:
    """Own checks from a file. dry: only say what each would do."""
    return TableReportOut.of(check_file.take_file(member_of(request), sheets.words_of(file), dry=dry), dry=dry)
