"""Bench subjects that look ahead: where a part will stand, and whether to renew it now."""

from typing import Literal

from ..counted import counted
from ..units import plain
from .drawings import CostsDrawing, FanDrawing, FanReading, PartCost
from .model import Example, Field, Line, Mark, Sheet, Subject, Table, Work, pct

MARKS: dict[str, Mark] = {"unlikely": "sound", "possible": "watch", "likely": "due", "almost surely": "due"}


def forecast(work: Work) -> Sheet:
    given = {"readings": []} | work.given
    found = work.run("wear_forecast", **given)
    lines = [
        Line("Rate", f"{plain(found['rate'], 4).replace('-', '−')} ± {plain(found['rate_sd'], 4)} per h or ha"),
        Line("Expected", plain(found["value"], 2)),
        Line("Nine of ten", f"{plain(found['low'], 2)} to {plain(found['high'], 2)}"),
        Line("Chance to cross", pct(100 * found["p_cross"], 1), MARKS[found["chance_word"]]),
    ]
    lines += [
        Line(f"Reading {i + 1}", f"{plain(given['readings'][i]['value'], 2)} does not fit the others", "watch")
        for i in found["suspect"]
    ]
    n = len(given["readings"])
    rests = f"It rests on {counted(n, 'reading')} and on what is usual." if n else "It rests on what is usual alone."
    return work.sheet(
        f"{found['chance_word'].capitalize()}, {pct(100 * found['p_cross'], 1)}",
        f"Expected {plain(found['value'], 2)}, nine of ten between {plain(found['low'], 2)} and {plain(found['high'], 2)}; "
        f"the limit is {plain(given['limit'], 2)}. {rests}",
        MARKS[found["chance_word"]],
        lines=lines,
        why=[
            "A straight line from new: start, rate and readings are each unsure by what is given, and seasons differ. "
            "The more readings, the less the usual rate counts.",
            "A reading further than 3.5 standard deviations from what all others say is marked, and still counted.",
        ],
        caution="An expectation, not a promise: damage does not announce itself. Safety items are renewed at their limit.",
        drawing=FanDrawing(
            [FanReading(one["use"], one["value"]) for one in given["readings"]],
            found["suspect"],
            given["new"],
            given["limit"],
            given["use_next"],
            found["value"],
            found["low"],
            found["high"],
            found["rate"],
        ),
    )


ADVICE: dict[str, Literal["renew", "leave", "either"]] = {"replace": "renew", "wait": "leave", "either": "either"}


def decision(work: Work) -> Sheet:
    found = work.run("replace_decision", **work.given)
    words = {"replace": "Renew it now", "wait": "Run one more season", "either": "Either way"}
    marks: dict[str, Mark] = {"replace": "due", "wait": "sound", "either": "watch"}
    even = "" if found["break_even"] is None else f" Even at a chance of {pct(100 * found['break_even'], 1)}."
    return work.sheet(
        words[found["advice"]],
        f"Now costs {plain(found['cost_now'], 2)} of life thrown away, waiting {plain(found['cost_wait'], 2)} of risk.{even}",
        marks[found["advice"]],
        lines=[
            Line("Now", plain(found["cost_now"], 2)),
            Line("Waiting", plain(found["cost_wait"], 2)),
            Line("If it fails in the field", plain(found["extra_if_fails"], 2)),
            Line("Break-even chance", "none" if found["break_even"] is None else pct(100 * found["break_even"], 1)),
        ],
        why=[
            "Now: the share of life that a season would still have used, of part and labour. Waiting: the chance to cross times the "
            "chance that it then fails, times what failing in the field costs on top.",
            "Within 20 % of the break-even chance the figures do not decide. In the shop's own currency.",
        ],
        caution="Never for brakes, steering, locks or anything else that can hurt somebody: those are renewed.",
        drawing=CostsDrawing([PartCost("This part", found["cost_now"], found["cost_wait"], ADVICE[found["advice"]])]),
    )


SUBJECTS = (
    Subject(
        key="wear-ahead",
        name="Wear ahead",
        group="Upkeep",
        about="Where a part will stand at the end of the season, from its own readings.",
        draws=FanDrawing,
        calculators=("wear_forecast",),
        fields=(
            Table("readings", "Readings since it was fitted", (Field("use", "At", "number", "h or ha"), Field("value", "Read", "number")), optional=True),
            Field("new", "When new", "number", "", "381"),
            Field("limit", "Limit", "number", "", "368"),
            Field("use_next", "End of the season at", "number", "h or ha", "860"),
            Field("prior_rate_mean", "Usual change per h or ha", "number", "", "-0.012"),
            Field("prior_rate_sd", "give or take", "number", "", "0.006"),
            Field("reading_sd", "A reading errs by", "number", "", "0.8"),
            Field("new_sd", "New parts differ by", "number", "", "0.3"),
            Field("season_sd_share", "Seasons differ by a share of", "number", "", "0.2"),
            Field("season_use", "A season is", "number", "h or ha", "220"),
        ),
        examples=(
            Example("Three winters", {"readings": [["210", "379.2"], ["430", "376.1"], ["640", "373.4"]]}),
            Example("No readings yet", {"readings": []}),
            Example("A slip of the tape", {"readings": [["210", "379.2"], ["430", "376.1"], ["640", "378.6"], ["700", "372.5"]], "use_next": "920"}),
            Example("Nearly through", {"readings": [["210", "377.6"], ["430", "373.4"], ["640", "369.9"]]}),
        ),
        source="Bayesian line with a walk between seasons; closed form.",
        work=forecast,
    ),
    Subject(
        key="renew-or-wait",
        name="Renew or wait",
        group="Upkeep",
        about="Throwing away life now against the chance of failing in the field.",
        draws=CostsDrawing,
        calculators=("replace_decision",),
        fields=(
            Field("p_cross", "Chance to cross the limit", "number", "", "0.302", hint="0 to 1, this season"),
            Field("p_fail_if_crossed", "then fails with", "number", "", "1", hint="0 to 1"),
            Field("p_fail_new", "A new one fails with", "number", "", "0"),
            Field("remaining", "Life left", "number", "", "0.31", hint="1 when new, 0 at the limit"),
            Field("season_share", "A season takes", "number", "", "0.2", hint="share of a life"),
            Field("part_cost", "Part", "number", "", "48"),
            Field("labour_h", "In the shop", "number", "h", "0.4"),
            Field("field_labour_h", "In the field", "number", "h", "0.9"),
            Field("labour_rate", "Labour", "number", "an hour", "62"),
            Field("downtime_h", "Standing", "number", "h", "1.5"),
            Field("downtime_rate", "An hour standing costs", "number", "", "240"),
            Field("secondary_cost", "What it breaks", "number", "", "0"),
        ),
        examples=(
            Example("Cheap part, dear failure", {}),
            Example("Too near to call", {"p_cross": "0.04"}),
            Example("Dear part, cheap failure", {"p_cross": "0.15", "part_cost": "812", "labour_h": "5", "field_labour_h": "6", "downtime_h": "2"}),
        ),
        source="Expected cost; chances from the forecast.",
        work=decision,
    ),
)  # fmt: skip
