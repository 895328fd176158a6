"""A shop's own checks come, are changed and taken away; shipped ones are worded otherwise or left out. Each is a version that
stays, and holds for walk-arounds that begin after it."""

import uuid

from fleet.actions.history import history_changed
from fleet.models import Machine, MachineModel
from lumvek_core import structure
from lumvek_core.catalogue.model import Family
from lumvek_core.catalogue.own import Altered, OwnCheck, is_own
from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere
from shops.actions import own_rules as shops
from shops.actions.log import log_change
from shops.actions.shop import hold
from shops.models import Change, Member
from shops.rights import action

from ..models import CheckVersion
from ..queries import own_check_typed, rule_books
from ..queries.own_checks import said
from ..queries.rules_in_force import book_of
from ..schemas_checks import AlterIn, OwnCheckIn

MOST = 300
"""Own checks of a shop: a walk-around is one day's work."""


@action("change checks")
def set_check(member: Member, typed: OwnCheckIn) -> None:
    """Add a check of the shop's own, or change one. The same UUID twice is one version. Raises BadInput at the field."""
    if _known(member, typed.uuid):
        return
    there = CheckVersion.objects.of(member).filter(family=typed.family)
    keys = list(there.values_list("key", flat=True).distinct())
    if typed.key and (typed.key not in keys or not is_own(typed.key)):
        raise NotFoundHere("There is no such check.")
    if not typed.key and len(keys) >= MOST:
        raise BadInput("name", f"a shop has at most {MOST} checks of its own")
    model, made = _model(member, typed), own_check_typed.understood(member, typed, keys)
    keep(member, typed.uuid, typed.family, model, made, typed.reason)
    try:
        # Limits that a model has of its own must go with it.
        for one in [model] if model else MachineModel.objects.of(member).filter(family=typed.family):
            book_of(one, member.shop)
    except BadInput as problem:
        raise BadInput("", f"{made.check.name}: {problem.message}") from None


@action("change checks")
def alter(member: Member, wanted: AlterIn) -> None:
    """Word a shipped check otherwise, leave it out, or with nothing said have it as shipped. Raises BadInput at the field."""
    if _known(member, wanted.uuid):
        return
    family = _family(wanted.family)
    shipped = family.checks.get(own_check_typed.full_key(family, wanted.key))
    if shipped is None:
        raise NotFoundHere("There is no such check.")
    words = {name: getattr(wanted, name).strip() for name in ("name", "how", "why")}
    words = {name: "" if text == getattr(shipped, name) else text for name, text in words.items()}
    altered = Altered(wanted.key, wanted.reason.strip(), left_out=wanted.left_out, **words)
    if not (wanted.left_out or any(words.values())):
        _take_away(member, wanted.uuid, wanted.family, wanted.key, wanted.reason)
        return
    if not altered.reason:
        raise BadInput("reason", "say why, for whoever looks for it")
    if wanted.left_out and shipped.safety:
        raise BadInput("left_out", "a safety item stays in; it can be worded otherwise")
    keep(member, wanted.uuid, wanted.family, None, altered, altered.reason)


@action("change checks")
def take_away(member: Member, write: uuid.UUID, family: str, key: str, reason: str) -> None:
    """An own check is in no walk-around that begins from now on; a shipped one is as shipped again."""
    if not _known(member, write):
        _take_away(member, write, family, key, reason)


@action("change checks")
def as_before(member: Member, write: uuid.UUID, family: str, key: str) -> None:
    """The version before the one that holds, once more. Raises Conflict where there is none."""
    if _known(member, write):
        return
    some = list(CheckVersion.objects.of(member).filter(family=family, key=key).select_related("model"))
    if len(some) < 2:
        raise Conflict("There is no earlier version.")
    before = some[-2]
    _put(member, write, family, key, before.model, before.content, "as before")


def keep(
    member: Member, write: uuid.UUID, family: str, model: MachineModel | None, what: OwnCheck | Altered, reason: str
) -> None:
    """A new version of a check. Called inside an action of whoever changes it."""
    key = what.check.key if isinstance(what, OwnCheck) else what.check
    _put(member, write, family, key, model, structure.write(what), reason)


def _known(member: Member, write: uuid.UUID) -> bool:
    """Whether this was done already; the same sent twice at once waits here. Raises NotFoundHere for what another shop did."""
    hold(member)
    there = CheckVersion.objects.filter(uuid=write).first()
    if there is not None and there.shop_id != member.shop_id:
        raise NotFoundHere("There is no such check.")
    return there is not None


def _family(key: str) -> Family:
    family = rule_books.shipped().families.get(key)
    if family is None:
        raise NotFoundHere("There is no such kind of machine.")
    return family


def _model(member: Member, typed: OwnCheckIn) -> MachineModel | None:
    if typed.model is None:
        return None
    found = MachineModel.objects.of(member).filter(pk=typed.model, family=typed.family).first()
    if found is None:
        raise BadInput("model", "is no model of this kind")
    return found


def _take_away(member: Member, write: uuid.UUID, family: str, key: str, reason: str) -> None:
    newest = CheckVersion.objects.of(member).filter(family=family, key=key).last()
    if newest is None:
        raise NotFoundHere("There is no such check.")
    if newest.content:
        _put(member, write, family, key, newest.model, {}, reason.strip())


def _put(
    member: Member,
    write: uuid.UUID,
    family: str,
    key: str,
    model: MachineModel | None,
    content: dict[str, object],
    reason: str,
) -> None:
    before = CheckVersion.objects.of(member).filter(family=family, key=key).last()
    made = CheckVersion.objects.create(
        uuid=write,
        shop=member.shop,
        family=family,
        key=key,
        model=model,
        content=content,
        reason=reason.strip(),
        by_id=member.user_id,
    )
    shops.checks_changed(member)
    history_changed(Machine.objects.in_shop(member.shop_id).filter(model__family=family).values_list("pk", flat=True))
    named = _family(family)
    what = next((_name(one, named) for one in (made, before) if one is not None and one.content), key)
    log_change(member, Change.About.CHECK, f"{what} ({named.name.lower()})", in_words(before), in_words(made))


def _name(one: CheckVersion, family: Family) -> str:
    what = said(one)
    if isinstance(what, OwnCheck):
        return what.check.name
    shipped = family.checks.get(own_check_typed.full_key(family, one.key))
    return shipped.name if shipped else one.key


def in_words(one: CheckVersion | None) -> str:
    """A version as the log of changes says it."""
    what = said(one) if one is not None else None
    if one is None or what is None:
        return "" if one is None or is_own(one.key) else "as shipped"
    if isinstance(what, Altered):
        words = "; ".join(f"{name}: {text}" for name in ("name", "how", "why") if (text := getattr(what, name)))
        return f"{'left out' if what.left_out else words} ({what.reason})"
    check = what.check
    states = ", ".join(f"{state.name.lower()}: {state.severity}" for state in check.rule.states())
    rule = structure.write(check.rule)
    limits = ", ".join(f"{name} {value}" for name, value in rule.items() if isinstance(value, int | float) and value)
    model = f" for {one.model.full_name}" if one.model else ""
    return f"{check.name}{model}, {check.per}, {check.rule.kind}: {states or limits or check.how}"
