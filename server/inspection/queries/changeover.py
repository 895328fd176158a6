"""What is to be set otherwise on a machine and its headers for the crop that comes, as it stands by what was read last."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue.model import Check, Setting
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.planning import walk
from lumvek_core.planning.changeover import Changeover, ChangeoverGiven, Item
from lumvek_core.planning.changeover import changeover as core_changeover
from lumvek_core.rules.fitted import FittedRule, FittedState
from lumvek_core.vocabulary import CROP_NAMES

from . import rule_books, set_up


def listed(found: Changeover) -> set[str]:
    """The checks that something is done at."""
    return {key for visit in found.visits for key in visit.keys}


@dataclass(frozen=True)
class Crops:
    """Groups of crops: the one that comes, and the one after that with the days until then, where somebody knows."""

    next: str
    then: str = ""
    then_days: int | None = None


def found(
    book: CoreBook, machines: Sequence[Machine], checks: Sequence[Check], layout: Mapping[str, Any], crops: Crops
) -> Changeover:
    """The difference. checks: those of a changeover of these machines. One query."""
    stands = {(one.check, one.position): one.value.choice for one in set_up.read(machines, checks)}
    rank = {key: i for i, key in enumerate(walk.ranked(book))}
    known = {check.key for check in checks}
    items = [
        _item(check, rank[book.station_of[check.key].key], book.schools, known, {
            place.key: stands.get((check.key, place.key)) or None for place in positions.expand(check.per, layout)
        })
        for check in checks
    ]  # fmt: skip
    moves = walk.ways(rule_books.shipped().safety.moves)
    return core_changeover(ChangeoverGiven(items, crops.next, moves, book.family.start, crops.then, crops.then_days))


def _item(check: Check, station: int, schools: Mapping[str, str], known: set[str], places: dict[str, str | None]) -> Item:
    setting = check.setting or Setting()
    rule = check.rule if isinstance(check.rule, FittedRule) and check.rule.by_crop else None
    return Item(
        key=check.key,
        posture=check.posture,
        station=station,
        places=places if rule else dict.fromkeys(places),
        wants={crop: _best_first(rule, crop, schools) for crop in CROP_NAMES} if rule else {},
        minutes=setting.minutes,
        hands=setting.hands,
        lasting=bool(rule and any(rule.lasting(crop, schools) for crop in CROP_NAMES)),
        by_manual=list(rule.by_manual) if rule else [],
        always=rule is None,
        alike=rule.all_alike if rule else True,
        after=[key for key in check.after if key in known],
    )


def _best_first(rule: FittedRule, crop: str, schools: Mapping[str, str]) -> list[str]:
    """The states a crop would have, sound ones first."""
    wanted: list[FittedState] = rule.wanted(crop, schools) or rule.lasting(crop, schools)
    return [one.key for one in sorted(wanted, key=lambda one: one.severity != "sound")]
