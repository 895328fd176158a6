"""What the history of a machine lets expect of the places that are being read, while they are read."""

from collections.abc import Mapping

from fleet.models import Machine
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.judgement.context import Expected

from . import forecasts, rule_books
from .models import Reading, Verdict, WalkAround, WearForecast

Pair = tuple[str, str]
"""Check and position."""


def expected_at(
    walk_around: WalkAround, book: CoreBook, rows: Mapping[Pair, Verdict], touched: set[str], typed: set[Pair]
) -> dict[Pair, Expected]:
    """What is to be expected at the places of these checks, with what was just read (`rows`, all places of those checks).

    Only what was typed now, or is asked about, can be doubted: a place that was settled is not opened again by its neighbours.
    Six queries for each machine whose wear is touched, none where nothing wears. Its stored forecasts are stale from now on.
    """
    checks = {key: book.family.checks[key] for key in touched if key in book.family.checks and book.family.checks[key].wears}
    found: dict[Pair, Expected] = {}
    for machine, mine in _owners(walk_around, book, checks).items():
        known = forecasts.know([machine], mine, without=walk_around)[machine.pk]
        for (key, place), row in rows.items():
            if key in mine and row.reading.state == Reading.State.SEEN and (not row.ask or (key, place) in typed):
                reading = row.reading
                forecasts.add(known, key, place, reading.pk, reading.taken_at, reading.value, reading.confirmed)
        # How far its seasons differ was learnt from years of readings: one more today does not change it.
        shares = dict(WearForecast.objects.filter(machine=machine, check_key__in=mine).values_list("check_key", "season"))
        for key, check in mine.items():
            judged = forecasts.predict(known, check, season_share=shares.get(key, {}).get("season_share"))
            for one in judged.places if judged else ():
                if here := rows.get((key, one.name)):
                    open_ = (key, one.name) in typed or bool(here.ask)
                    doubted = open_ and here.reading.pk in one.doubted
                    found[key, one.name] = Expected(
                        one.now, one.value, one.low, one.high, one.p_cross, one.chance_word, doubted
                    )
        forecasts.mark_stale([machine.pk])
    return found


def _owners(walk_around: WalkAround, book: CoreBook, checks: Mapping[str, Check]) -> dict[Machine, dict[str, Check]]:
    """The machine or header that each check is made on."""
    owners = {"": walk_around.machine}
    if checks and walk_around.header_families:
        for header in walk_around.headers.select_related("model"):
            owners[rule_books.shipped().families[header.model.family].prefix] = header
    found: dict[Machine, dict[str, Check]] = {}
    for key, check in checks.items():
        found.setdefault(owners.get(book.prefix_of(key), walk_around.machine), {})[key] = check
    return found
