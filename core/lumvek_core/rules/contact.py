"""Opener contact: the verdict on one row, and the washer that would put it right."""

import datetime as dt
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from statistics import fmean
from typing import Annotated, ClassVar, Literal

from .. import positions
from ..bounds import Over, Within
from ..calculators import opener, opener_shims
from ..catalogue.model import Check, Family
from ..compare import exceeds
from ..counted import counted, noun
from ..errors import BadInput
from ..judgement.context import Context, Past
from ..judgement.parse_reading import Value
from ..judgement.words import Words
from ..positions import Position
from ..units import plain
from .base import Case, Limit, OtherCheck, Rule, Span
from .verdict import Advice, Facts, Row, Then, Verdict
from .wear import WearRule

NEW_DISCS = 2.0
"""A disc that measures this many mm more than before is another disc: what washers did to the old ones teaches nothing."""


@dataclass(frozen=True)
class Band:
    """The wanted band by another feeler."""

    feeler: float
    low: float
    high: float


@dataclass(frozen=True)
class ContactFacts(Facts):
    """diameter: of the pair. span: mean of the places. equivalent: what they come to by the band's feeler. bands: by each
    feeler, the wanted one's name in by_shown.

    overlap: of the discs; true_contact: steel on steel; spread: between the places.
    """

    compared: ClassVar[str] = "equivalent"
    worked_out: ClassVar[str] = "equivalent"
    kind: Literal["contact"] = "contact"
    diameter: float = 0.0
    angle: float = 0.0
    feeler: float = 0.0
    span: float = 0.0
    overlap: float = 0.0
    equivalent: float = 0.0
    true_contact: float = 0.0
    spread: float = 0.0
    low: float = 0.0
    high: float = 0.0
    by_shown: str = ""
    bands: list[Band] = field(default_factory=list)


@dataclass(frozen=True)
class ContactRule(Rule):
    """Opener contact between two feelers, several places a row, held against a band stated for one feeler.

    washers_from: the check in which spacing washers are counted; washer: their thickness, for trials of one thickness are not
    trials of another.
    """

    answers, facts, by_feeler, wants = "measure", ContactFacts, True, frozenset({"log"})
    drawings = frozenset({"contact"})

    kind: Literal["contact"]
    low: Annotated[float, Within(0), Limit("From")]
    high: Annotated[float, Limit("To")]
    feeler: Annotated[float, Over(0), Limit("By feeler")]
    angle_deg: Annotated[float, Within(2, 40), Limit("Included angle", "°")]
    spread: Annotated[float, Over(0), Limit("Spread up to", shown_as="amount")]
    diameter_from: Annotated[str, OtherCheck("row")]
    if_low: str = ""
    if_high: str = ""
    washers_from: Annotated[str, OtherCheck("row")] = ""
    washer: Annotated[float, Over(0), Limit("Washer thickness")] = 1

    def judge(self, case: Case) -> Verdict:
        """The verdict on one row's spans, in one currency whatever the feeler, with the washers to move where they are
        counted.
        """
        check, position, value, context, say = case.check, case.position, case.value, case.context, case.say
        disc = self.longest(position, context)
        try:
            result = _contact(self, value, disc)
        except BadInput as problem:
            reason = f"Cannot be worked out: the span or feeler {problem.message} (disc {say.figure(disc)})."
            return Verdict("due", "investigate", reason)
        band = f"{say.figure(self.low)} to {say.figure(self.high)} by {plain(self.feeler, 2)} mm feeler"
        equivalent = say.figure(result.equivalent_span_mm)
        facts = _facts(self, value, disc, result)
        why = [
            f"Spans {say.all(value.numbers)} with a {plain(value.feeler_mm or self.feeler, 2)} mm feeler on "
            f"{say.figure(disc)} discs at "
            f"{plain(self.angle_deg, 1)}° come to {equivalent} by the band's feeler. Geometric approximation: two flat "
            "discs; real ones also flex.",
            f"Steel on steel about {say.figure(result.true_contact_mm)}"
            + ("." if result.true_contact_mm else ": touching by feeler, not by steel."),
            f"Spread over the places {say.figure(result.spread_mm)}, bent disc or hub above {say.figure(self.spread)}.",
        ]
        if exceeds(result.spread_mm, self.spread):
            differ, usual = say.figure(result.spread_mm), say.figure(self.spread)
            reason = f"The places differ by {differ} (up to {usual} is usual): bent disc or hub."
            return Verdict("due", "investigate", reason, why, facts)
        if result.state == "in_band":
            return Verdict("sound", "none", f"{equivalent} of contact, wanted {band}.", why, facts)
        word, cure = ("Too little", self.if_low) if result.state == "low" else ("Too much", self.if_high)
        through = " (the feeler passes right through)" if result.overlap_is_upper_bound else ""
        found = _washers(check, self, position, result, disc, context, say)
        advice, told = found if found else (None, cure)
        reason = f"{word} contact: {equivalent}{through}, wanted {band}. {told}".strip()
        if advice:
            why = [*why, f"One washer brings {advice.rows[-1].shown} on this machine. Linear over one or two washers only."]
        return Verdict("due", "adjust", reason, why, facts, advice=advice)

    def longest(self, position: Position, context: Context) -> float:
        """Mean of the pair's diameters as measured today, which no span can exceed; where nothing was measured, the size when
        new."""
        measured = context.others.get(self.diameter_from, {})
        found = [measured[key].numbers[0] for key in _pair(position.row or 0) if key in measured]
        return fmean(found) if found else _discs(self, context).new

    def undone_by(self) -> str:
        return self.washers_from

    def alike(self, other: Rule) -> bool:
        return isinstance(other, ContactRule) and other.washer == self.washer

    def problems(self, check: Check, family: Family) -> Iterator[str]:
        source = family.checks.get(self.diameter_from)
        if source is None or not isinstance(source.rule, WearRule):
            yield "diameter_from must name a check of wear"
        elif source.per != "row-side" or check.per != "row":
            yield "contact is per row and its diameters per row and side"

    def sizes(self) -> list[str]:
        return ["angle_deg"]

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["49", "50", "48"]

    def usual_span(self, check: Check) -> Span:
        """By the thinnest usual feeler a pair shows about half of what the card does."""
        room = (self.high - self.low) * 0.25
        return (self.low - room) / 2, (self.high + room) / 2


def _discs(rule: ContactRule, context: Context) -> WearRule:
    found = context.rules[rule.diameter_from]
    assert isinstance(found, WearRule)  # noqa: S101 - the catalogue's own check holds it
    return found


def _pair(row: int) -> list[str]:
    return [positions.row_side(row, side).key for side in ("L", "R")]


def _contact(rule: ContactRule, value: Value, disc: float) -> opener.Contact:
    feeler = value.feeler_mm or rule.feeler
    spans = [opener.ContactReading(span, feeler) for span in value.numbers]
    return opener.opener_contact(
        opener.ContactGiven(spans, disc, opener.ContactBand(rule.low, rule.high, rule.feeler), rule.angle_deg)
    )


def _facts(rule: ContactRule, value: Value, disc: float, result: opener.Contact) -> ContactFacts:
    return ContactFacts(
        diameter=disc,
        angle=rule.angle_deg,
        feeler=value.feeler_mm or rule.feeler,
        span=fmean(value.numbers),
        overlap=result.overlap_mm,
        equivalent=result.equivalent_span_mm,
        true_contact=result.true_contact_mm,
        spread=result.spread_mm,
        low=rule.low,
        high=rule.high,
        by_shown="by the card" if rule.feeler == opener.FEELERS_MM["card"] else f"by {plain(rule.feeler, 2)} mm feeler",
        bands=[Band(band.feeler_mm, band.low_mm, band.high_mm) for band in result.band_equivalents],
    )


def _washers(
    check: Check, rule: ContactRule, position: Position, result: opener.Contact, disc: float, context: Context, say: Words
) -> tuple[Advice, str] | None:
    """(advice, the sentence for it), nothing where the washers of this row are not counted."""
    washers = context.others.get(rule.washers_from, {})
    left, right = _pair(position.row or 0)
    if not (left in washers and right in washers):
        return None
    inside = opener_shims.Washers(int(washers[left].numbers[0]), int(washers[right].numbers[0]))
    outside = opener_shims.Washers(int(washers[left].numbers[1]), int(washers[right].numbers[1]))
    pairs = trials(check.key, rule, context.log)
    gain = opener_shims.shim_gain(opener_shims.GainGiven(pairs))
    limit = _discs(rule, context).limit
    on_for_a_season = context.schools.get("disc-at-limit") == "shim-on" and disc <= limit
    given = opener_shims.ShimGiven(
        contact_mm=result.equivalent_span_mm,
        band=opener.ContactBand(rule.low, rule.high, rule.feeler),
        disc_diameter_mm=disc,
        disc_limit_mm=disc / 2 if on_for_a_season else limit,
        inside=inside,
        outside=outside,
        gain_mm=gain.gain_mm,
        gain_sd_mm=gain.gain_sd_mm,
    )
    shim = opener_shims.opener_shim(given)
    gains = f"{say.figure(gain.gain_mm)} ± {say.figure(gain.gain_sd_mm)} ({counted(len(pairs), 'trial')} here)"
    rows = [Row("One washer brings", gains)]
    if shim.advice == "replace_discs":
        return Advice(rows), f"The discs are at their limit, {say.figure(limit)}: renew both, whatever washers could do."
    if shim.advice == "no_help":
        return Advice(rows), "No washer helps here: look at bearings, hub and disc."
    if result.state == "low" and context.schools.get("contact-low") == "discs-at-once":
        return Advice(rows), "The shop's way: new discs at once, no washers moved."
    return _move(rule, shim, given, (left, right), rows, on_for_a_season, say)


def _move(
    rule: ContactRule,
    shim: opener_shims.Shim,
    given: opener_shims.ShimGiven,
    places: tuple[str, str],
    rows: list[Row],
    on_for_a_season: bool,
    say: Words,
) -> tuple[Advice, str]:
    way = "from inside to outside" if shim.move > 0 else "from outside to inside"
    many = abs(shim.move)
    sides = [f"{abs(moved)} at the {side} disc" for moved, side in ((shim.left, "left"), (shim.right, "right")) if moved]
    expected = f"{say.figure(shim.predicted_mm)} ± {say.figure(shim.predicted_sd_mm)}"
    told = f"Move {counted(many, 'washer')} {way} ({' and '.join(sides)}), then measure again: about {expected}"
    told += "." if shim.lands_in_band else ", still outside the band."
    if on_for_a_season:
        told += " The discs are at their limit: the tube guard pays for this season."
    moves = (
        (places[0], given.inside.left, given.outside.left, shim.left),
        (places[1], given.inside.right, given.outside.right, shim.right),
    )
    then = [
        Then(rule.washers_from, place, [str(inside - moved), str(outside + moved)])
        for place, inside, outside, moved in moves
        if moved
    ]
    return Advice(rows, f"{noun(many, 'Washer')} moved: measure again", then), told


def trials(contact_key: str, rule: ContactRule, log: Sequence[Past]) -> list[opener_shims.Moved]:
    """What moving washers did on this machine: contacts of one row before and after its washers changed.

    Both of one visit and on the same discs, for a season between them wears more than a washer moves. log: readings of contact,
    washers and disc diameter, oldest first, of one washer thickness.
    """
    found: list[opener_shims.Moved] = []
    inside: dict[str, int] = {}
    discs: dict[str, float] = {}
    before: dict[str, tuple[float, int, object]] = {}
    for past in log:
        row = positions.find(past.position).row or 0
        if past.check == rule.washers_from:
            inside[past.position] = int(past.value.numbers[0])
        elif past.check == rule.diameter_from:
            if past.value.numbers[0] > discs.get(past.position, past.value.numbers[0]) + NEW_DISCS:
                before.pop(str(row), None)
            discs[past.position] = past.value.numbers[0]
        elif past.check == contact_key:
            pair = _pair(row)
            sizes = [discs[place] for place in pair if place in discs]
            if not sizes or not all(place in inside for place in pair):
                continue
            try:
                now = _contact(rule, past.value, fmean(sizes)).equivalent_span_mm
            except BadInput:
                continue
            total = sum(inside[place] for place in pair)
            had = before.get(str(row))
            if had and had[1] != total and had[2] == past.visit:
                found.append(opener_shims.Moved(had[1] - total, had[0], now))
            before[str(row)] = (now, total, past.visit)
    return found
