"""What the trade's corrections are held against: verdicts and parts by the shipped catalogue."""

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.judgement.companions import Called, parts_for
from lumvek_core.judgement.context import Context
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import judge

CATALOGUE = load.shipped()
BOOKS = {family: in_force.rule_book(CATALOGUE, family) for family in CATALOGUE.families}
SCHOOLS = BOOKS["rotary-combine"].schools


def check_of(family, key):
    return BOOKS[family].family.checks[key]


def verdict(family, key, where, *typed, others=None, crop="", schools=None, unit="mm"):
    """others: what was read at the other places, by position."""
    check = check_of(family, key)
    read = {place: parse_reading(check, [text], "", "mm") for place, text in (others or {}).items()}
    value = parse_reading(check, list(typed), "", unit)
    context = Context(others={key: read}, crop=crop, schools=SCHOOLS | (schools or {}))
    return judge(check, positions.find(where), value, context)


def parts(family, key, where, action, option=""):
    return {need.slot for need in parts_for(BOOKS[family], [Called(key, where, action, option, 1)])}
