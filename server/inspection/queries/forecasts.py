"""What is known of the wear of a machine: readings, fitments and counters, and what the core foresees from them."""

import datetime as dt
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field

from django.db.models import Q

from fleet.models import Fitment, Machine
from fleet.queries import counters
from lumvek_core import counters as core_counters
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.own import is_own
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.counters import Count
from lumvek_core.coupled import prefix_of, short
from lumvek_core.forecast import history
from lumvek_core.forecast.history import Judged, Place
from lumvek_core.forecast.wearing import Coming, Measured, wearing_of
from lumvek_core.judgement.companions import place_at
from parts.models import PartNumber

from ..models import Verdict, WalkAround
from . import rule_books

Places = dict[str, dict[str, list[Measured]]]
"""check → position → readings, oldest first."""


@dataclass
class Known:
    """What is known of one machine: everything a forecast of it may rest on.

    read: of all its walk-arounds; read_at: when, by reading. lives: how long a variant lasts against the usual, by part number.
    """

    machine: Machine
    counts: list[Count] = field(default_factory=list)
    read: Places = field(default_factory=dict)
    read_at: dict[int, dt.datetime] = field(default_factory=dict)
    fitments: dict[tuple[str, str], Fitment] = field(default_factory=dict)
    lives: dict[str, float] = field(default_factory=dict)

    def coming(self, more: float = 0.0) -> Coming | None:
        """The season asked about, `more` of it as a share; None without a counter."""
        now = counters.now_of(self.machine)
        if now is None or not self.counts:
            return None
        usual, asked = self.usual_season(), self.asked_end()
        end = asked or now + usual
        # Whoever asked for a season knows its length; otherwise it is as unsure as the last ones were.
        unsure = 0.0 if asked else core_counters.season_sd(self.counts, self.counts[-1].at, usual)
        return Coming(now, now + (end - now) * (1 + more), usual, use_sd=unsure)

    def asked_end(self) -> float | None:
        """The counter at the end of the season as somebody asked for it; None once that is past, or never was."""
        now, machine = counters.now_of(self.machine), self.machine
        if now is None or machine.next_use is None or machine.next_use_from is None:
            return None
        end = machine.next_use_from + machine.next_use
        return end if end > now else None

    def usual_season(self) -> float:
        """The mean of its last seasons, counted back from its newest count; the family's where there is none."""
        family = rule_books.shipped().families[self.machine.model.family]
        return core_counters.usual_season(self.counts, self.counts[-1].at) or family.season_use

    def places(self, check: Check, named: Iterable[str] = ()) -> list[Place]:
        """The places of a check with the readings of the parts that are in them now. named: those to be told even without
        any.
        """
        found, read, named = [], self.read.get(check.key, {}), set(named)
        for position in sorted(read.keys() | named, key=positions.reading_order):
            fitment = self.fitment(check, position)
            mine = [one for one in read.get(position, ()) if fitment is None or self.read_at[one.key] > fitment.fitted_at]
            fitted = fitment.counter if fitment else self.machine.new_at
            if mine or fitted is not None or position in named:
                found.append(
                    Place(
                        name=position,
                        readings=mine,
                        fitted=fitted,
                        life=self.lives.get(fitment.number, 1.0) if fitment else 1.0,
                        group="wheels" if positions.find(position).row in self.machine.track_rows else None,
                    )
                )
        return found

    def fitment(self, check: Check, position: str) -> Fitment | None:
        """The part on record in a place of a check."""
        for part in check.own_parts:
            if found := self.fitments.get((short(part.slot), place_at(positions.find(position), part.at).key)):
                return found
        return None


def know(machines: Collection[Machine], checks: Iterable[str], without: WalkAround | None = None) -> dict[int, Known]:
    """Everything known of these machines at these checks, but for one walk-around's readings. Five queries, whatever their
    number."""
    found = {machine.pk: Known(machine) for machine in machines}
    for pk, counts in counters.counts_of(found).items():
        found[pk].counts = counts
    if not any(one.counts for one in found.values()):
        return found  # without a counter no reading has a place in time
    for fitment in Fitment.objects.filter(machine__in=found, until_at=None):
        found[fitment.machine_id].fitments[fitment.slot, fitment.position_key] = fitment
    numbers = {fitment.number for one in found.values() for fitment in one.fitments.values()}
    lives = (
        dict(
            PartNumber.objects.filter(model__in={m.model_id for m in machines}, number__in=numbers).values_list(
                "number", "life"
            )
        )
        if numbers
        else {}
    )
    for one in found.values():
        one.lives = {number: life for number, life in lives.items() if life}
    _read(found, set(checks), without)
    return found


def _read(found: dict[int, Known], checks: set[str], without: WalkAround | None) -> None:
    """The readings in force, each to the machine or header it was taken on; what is asked about is not in force yet."""
    headers: dict[object, dict[str, int]] = {}
    for walk_around, header, family in WalkAround.headers.through.objects.filter(machine__in=found).values_list(
        "walkaround", "machine", "machine__model__family"
    ):
        headers.setdefault(walk_around, {})[rule_books.shipped().families[family].prefix] = header
    keys = rule_books.ever(checks)
    rows = Verdict.objects.filter(
        Q(walk_around__machine__in=found) | Q(walk_around__in=headers), check_key__in=keys, ask="", reading__state="seen"
    )
    if without is not None:
        rows = rows.exclude(walk_around=without)
    listed = rows.order_by("reading__taken_at", "reading").values_list(
        "walk_around", "walk_around__machine", "check_key", "position_key",
        "reading", "reading__taken_at", "reading__value", "reading__confirmed",
    )  # fmt: skip
    for walk_around, machine, called, position, key, at, value, stands in listed:
        check = keys[called]
        known = found.get(headers.get(walk_around, {}).get(prefix_of(check), machine))
        if known and (is_own(check) or check in rule_books.shipped().families[known.machine.model.family].checks):
            add(known, check, position, key, at, value, stands)


def add(known: Known, check: str, position: str, key: int, at: dt.datetime, value: Mapping[str, object], stands: bool) -> None:
    """One reading to what is known, if it has a figure and the counter of its day is known."""
    numbers, counter = value.get("numbers"), core_counters.total_at(known.counts, at)
    if isinstance(numbers, list) and numbers and counter is not None:
        known.read.setdefault(check, {}).setdefault(position, []).append(Measured(key, counter, float(numbers[0]), stands))
        known.read_at[key] = at


def predict(known: Known, check: Check, more: float = 0.0) -> Judged | None:
    """The forecast of a check's places; None where nothing can be said."""
    wearing, coming, places = wearing_of(check), known.coming(more), known.places(check)
    if wearing is None or coming is None or not places:
        return None
    return history.forecast(wearing, places, coming)


def wearing_checks(book: CoreBook) -> dict[str, Check]:
    """The checks of a rule book whose wear is forecast."""
    return {key: check for key, check in book.family.checks.items() if wearing_of(check)}
