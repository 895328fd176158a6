"""Seeds dug up in every row, held against each other."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, ClassVar, Literal

from ..bounds import Over
from ..calculators import planter
from ..catalogue.model import Check
from ..counted import counted
from ..judgement.words import Words
from .base import Case, Limit, Rule, Span
from .verdict import Advice, Facts, Row, Verdict
from .window import FAR

CAUSES = {
    "none": "all rows at depth",
    "whole_planter": "the whole planter is off",
    "rows": "single rows are off",
    "track_rows": "the rows behind the wheels are off",
    "mixed": "the planter is off, and rows besides",
}


@dataclass(frozen=True)
class DepthFacts(Facts):
    """mean: of this row's digs; median: of the planter's rows. off: this row is off by itself, or may be."""

    worked_out: ClassVar[str] = "mean"
    kind: Literal["depth"] = "depth"
    mean: float = 0.0
    mean_shown: str = ""
    target: float = 0.0
    tolerance: float = 0.0
    median: float = 0.0
    digs: list[float] = field(default_factory=list)
    off: bool = False


@dataclass(frozen=True)
class DepthRule(Rule):
    """Several seeds dug up in each row, held against the wanted depth, the other rows and the rows behind wheels."""

    answers, facts, compares, wants = "measure", DepthFacts, True, frozenset({"track-rows"})
    drawings = frozenset({"furrow"})

    kind: Literal["depth"]
    target: Annotated[float, Over(0), Limit("Aim for")]
    tolerance: Annotated[float, Over(0), Limit("Alike within", shown_as="amount")]

    def judge(self, case: Case) -> Verdict:
        """One row's digs among all that are dug so far: off by itself, off with the others, or to be dug again."""
        say, here = case.say, case.position.key
        dug = {key: other.numbers for key, other in case.context.others.get(case.check.key, {}).items() if other.numbers}
        dug[here] = case.value.numbers
        track: list[str | int] = [str(row) for row in case.context.track_rows if str(row) in dug]
        found = planter.depth_check(planter.DepthGiven(dug, self.target, self.tolerance, track))
        row, offset = found.rows[here], found.offset_mm
        facts = DepthFacts(
            "depth",
            row.mean,
            say.figure(row.mean),
            self.target,
            self.tolerance,
            found.planter_median_mm,
            case.value.numbers,
            here in found.flagged or here in found.unsure,
        )
        why = [
            f"Row mean {say.figure(row.mean)}, median of {counted(len(dug), 'row')} {say.figure(found.planter_median_mm)}, "
            f"wanted {say.figure(self.target)} ± "
            f"{say.figure(self.tolerance)}. A row is off when it differs from the others by more than that, more than the "
            "usual scatter between rows, "
            "and more than its own digs can be wrong."
        ]
        advice = Advice(_rows(found, say))
        shown = f"{say.figure(row.mean)} on average"
        if here in found.flagged:
            side = "shallower" if row.mean < found.planter_median_mm else "deeper"
            behind = ", like the others behind wheels" if found.cause == "track_rows" else ""
            off = say.figure(abs(row.mean - found.planter_median_mm))
            reason = f"{shown}, {off} {side} than the other rows{behind}: settings first, then wear."
            return Verdict("due", "adjust", reason, why, facts, advice=advice)
        if here in found.unsure:
            reason = f"{shown}, unlike the other rows, but the digs scatter: dig more here before judging."
            return Verdict("watch", "recheck", reason, why, facts, advice=advice)
        if found.cause in ("whole_planter", "mixed"):
            reason = f"{shown}: like the whole planter {say.figure(abs(offset))} {'too deep' if offset > 0 else 'too shallow'}."
            return Verdict("due", "adjust", reason, why, facts, advice=advice)
        if here in found.uneven:
            return Verdict("watch", "recheck", f"{shown}, but uneven within the row.", why, facts, advice=advice)
        reason = f"{shown}, wanted {say.figure(self.target)} ± {say.figure(self.tolerance)}."
        return Verdict("sound", "none", reason, why, facts, advice=advice)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["49", "51", "50"]

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        return 0.0, FAR * self.target

    def usual_span(self, check: Check) -> Span:
        return self.target - 1.3 * self.tolerance, self.target + 1.3 * self.tolerance


def _rows(depths: planter.Depths, say: Words) -> list[Row]:
    rows = [Row("Planter median", say.figure(depths.planter_median_mm)), Row("Cause", CAUSES[depths.cause])]
    if depths.track_difference_mm is not None:
        difference = depths.track_difference_mm
        sign = "+" if difference > 0 else "−" if difference < 0 else ""
        rows.append(Row("Rows behind wheels", f"{sign}{say.figure(abs(difference))} against the others"))
    if depths.digs_needed:
        rows.append(Row("Digs a row needed", str(depths.digs_needed)))
    return rows
