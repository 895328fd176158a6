"""The limits of a rule in words: what each is called, in which unit it is shown and typed."""

from ..catalogue.model import Check
from ..judgement.words import Words, with_unit
from ..units import System, plain
from .base import Limit, limits


def limit_of(check: Check, figure: str) -> Limit:
    """How a figure of a check's rule is called and shown."""
    return limits(type(check.rule))[figure]


def name(check: Check, figure: str) -> str:
    return limit_of(check, figure).name


def unit(check: Check, figure: str) -> str:
    """The unit that a bare figure is typed in."""
    limit = limit_of(check, figure)
    if limit.shown_as == "share":
        return "%"
    return (check.unit or "") if limit.unit is None else limit.unit


def shown(check: Check, figure: str, value: float, system: System) -> str:
    """A limit with its unit."""
    limit = limit_of(check, figure)
    if limit.unknown and not value:
        return limit.unknown
    if limit.shown_as == "share":
        return f"{plain(100 * value, 0)} %"
    if limit.unit == "°":
        return f"{plain(value, 1)}°"
    if limit.unit is not None:
        return f"{plain(value, 3)} {limit.unit}".strip()
    return Words(check, system).amount(value) if limit.shown_as == "amount" else with_unit(check, value, system)


def typed(check: Check, figure: str, value: float) -> float:
    """A figure as the rule takes it: a share is typed in per cent."""
    return value / 100 if limit_of(check, figure).shown_as == "share" else value


def in_force(check: Check) -> dict[str, float]:
    """The figures of a check's rule, without those that are not set."""
    values = {figure: getattr(check.rule, figure) for figure in limits(type(check.rule))}
    return {figure: value for figure, value in values.items() if value is not None}
