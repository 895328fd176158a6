"""A shop's own checks as a file of the catalogue, read in."""

import uuid
from dataclasses import replace

from django.db import transaction

from fleet.models import MachineModel
from lumvek_core.catalogue import files
from lumvek_core.catalogue.own import Altered, OwnCheck, OwnChecks, misfits
from lumvek_core.errors import BadInput
from shops.models import Member
from shops.rights import action
from tabular.tables import Table, TableLine

from ..models import CheckVersion
from ..queries import own_check_typed, rule_books
from ..queries.own_checks import said
from . import own_checks


@action("change checks")
def take_file(member: Member, text: str, *, dry: bool) -> Table:
    """Add what the file has, change what it says otherwise. Nothing is taken while something is refused, or on a dry run.

    What is there and not in the file stays. Raises BadInput with field ``file`` for what is no such file.
    """
    given: OwnChecks = files.read_foreign(OwnChecks, text)
    if given.family not in rule_books.shipped().families:
        raise BadInput("file", f"there is no kind of machine {given.family}")
    found = Table()
    every: list[OwnCheck | Altered] = [*given.checks, *given.altered]
    for number, one in enumerate(every, 1):
        found.lines.append(take(member, number, given.family, one))
    if dry or found.count("refused"):
        transaction.set_rollback(True)
    return found


def called(one: OwnCheck, key: str) -> OwnCheck:
    """The same check under another key."""
    return replace(one, check=replace(one.check, key=key))


def take(member: Member, number: int, family: str, one: OwnCheck | Altered, model: MachineModel | None = None) -> TableLine:
    """One check of a file, kept unless it is there to the letter or does not fit."""
    if isinstance(one, Altered):
        name, complaint = _altered(family, one)
    else:
        name = one.check.name
        complaint = next((words for _, words in misfits(rule_books.shipped(), rule_books.shipped().families[family], one)), "")
    if complaint:
        return TableLine(number, "refused", f"{name}: {complaint}")
    newest = CheckVersion.objects.of(member).filter(family=family, key=key_of(one)).last()
    if newest is not None and said(newest) == one and newest.model == model:
        return TableLine(number, "there", name)
    own_checks.keep(member, uuid.uuid4(), family, model, one, "from a file")
    return TableLine(number, "taken", f"{name}: {'changed' if newest is not None and newest.content else 'new'}")


def key_of(one: OwnCheck | Altered) -> str:
    return one.check.key if isinstance(one, OwnCheck) else one.check


def _altered(family: str, one: Altered) -> tuple[str, str]:
    """(name of the check, what keeps it from being altered so)."""
    known = rule_books.shipped().families[family]
    shipped = known.checks.get(own_check_typed.full_key(known, one.check))
    if shipped is None:
        return one.check, "there is no such check"
    return shipped.name, "a safety item stays in" if shipped.safety and one.left_out else ""
