"""What a shop decides for itself: limits of its models, schools, feelers. Every change is logged; running walk-arounds keep
theirs."""

from fleet.actions import own_rules
from fleet.actions.history import history_changed
from fleet.models import Machine, MachineModel
from lumvek_core import units
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import LimitInForce, RuleBook
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.rules import figures
from lumvek_core.rules.base import limits as rule_limits
from shops.actions import own_rules as shops
from shops.actions.log import log_change
from shops.models import Change, Member
from shops.rights import action

from ..queries import limits, rule_books
from ..queries.rules_in_force import book_of


@action("change limits")
def set_limit(member: Member, model: MachineModel, check_key: str, figure: str, text: str, source: str, note: str) -> None:
    """Replace a limit of a model, or with empty text take its own figure away. Raises BadInput with field ``text``."""
    before = book_of(model, member.shop)
    check = check_with(before, check_key, figure)
    had = before.limits[check_key].get(figure)
    put_limit(member, model, check, figure, text, source, note)
    try:
        after = book_of(model, member.shop).limits[check_key].get(figure)
    except BadInput as problem:
        raise BadInput("text", problem.message) from None
    history_changed(model.machines.values_list("pk", flat=True))
    name = f"{model.full_name}, {check.name}: {figures.name(check, figure).lower()}"
    log_change(member, Change.About.RULE, name, _said(check, figure, had), _said(check, figure, after))


def check_with(book: RuleBook, check_key: str, figure: str) -> Check:
    """The check that has this limit. Raises BadInput with field ``figure``."""
    check = book.family.checks.get(check_key)
    if check is None or figure not in rule_limits(type(check.rule)):
        raise BadInput("figure", "there is no such limit")
    return check


def put_limit(member: Member, model: MachineModel, check: Check, figure: str, text: str, source: str, note: str) -> None:
    """Put a limit in its place, without holding it against the others; empty text takes it away. Raises BadInput."""
    value = limits.typed(member, check, figure, text) if text.strip() else None
    own_rules.replace_limit(model, check.key, figure, value, source, note.strip())


def _said(check: Check, figure: str, limit: LimitInForce | None) -> str:
    if limit is None:
        return "none"
    return f"{figures.shown(check, figure, limit.value, 'mm')} ({limits.SOURCES.get(limit.source, limit.source)})"


@action("change sizes")
def set_count(member: Member, model: MachineModel, thing: str, count: int) -> None:
    """How many of a thing this model has."""
    family = rule_books.shipped().families[model.family]
    found = family.things.get(thing)
    if found is None or found.places:
        raise BadInput("thing", "is not counted on this kind of machine")
    before = model.counts.get(short(thing), found.count)
    own_rules.set_count(model, short(thing), count)
    log_change(member, Change.About.RULE, f"{model.full_name}: number of {found.name.lower()}s", str(before), str(count))


@action("pick schools")
def set_school(member: Member, subject: str, choice: str) -> None:
    """Pick a school. Raises BadInput for one that there is not."""
    school = rule_books.shipped().schools.get(subject)
    names = {one.key: one.name for one in school.choices} if school else {}
    if school is None or choice not in names:
        raise BadInput("choice", "there is no such school")
    before = shops.choose_school(member, subject, choice, school.default)
    if before != choice:
        history_changed(Machine.objects.in_shop(member.shop_id).values_list("pk", flat=True))
        log_change(member, Change.About.RULE, school.name, names.get(before, before), names[choice])


@action("change feelers")
def set_feeler(member: Member, name: str, thickness: str) -> None:
    """Own a feeler, change its thickness, or with empty thickness give it away. Raises BadInput with field ``thickness``."""
    name = name.strip().lower()
    if not thickness.strip():
        if not shops.give_feeler_away(member, name):
            raise BadInput("thickness", "say how thick it is")
        return
    try:
        value = units.parse_length(thickness)
    except BadInput as problem:
        raise BadInput("thickness", problem.message) from None
    if not 0 < value <= 5:
        raise BadInput("thickness", "must be between 0 and 5 mm")
    shops.own_feeler(member, name, value)
