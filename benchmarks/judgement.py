"""What a rule for renewing worn parts costs: machines made up by dice, with a truth that only the dice know.

Many machines of twelve like positions run many seasons. Every winter each position is read with the reading's error, and a rule
says what to renew. A part that crosses its limit in the season may fail there, which costs field labour, the hours lost and
what it breaks. Rules: renew at the limit; every year; at three quarters of the wear; Lumvek's own (its forecast of like places
and `replace_decision`); somebody who knows today's wear and rate exactly, but not the season ahead; and somebody who knows the
wear of every season to come and plans for the least expected cost. What is left of a part's life at the end is credited to
every rule. Nothing is tuned on the seed that is reported.
"""

import sys
from collections.abc import Callable
from dataclasses import dataclass, field
from math import erfc

import numpy as np

from lumvek_core import registry
from lumvek_core.calculators.decision import DecisionGiven, replace_decision, still_serves
from lumvek_core.forecast import history
from lumvek_core.forecast.history import Place, PlaceAhead
from lumvek_core.forecast.wearing import Coming, Measured, Wearing

REPORTED, TRIED = 20261123, (1, 2, 3)
MACHINES, SEASONS, ROWS, WHEELS = 60, 10, 12, (4, 5)
LABOUR, STANDING = 62.0, 240.0


@dataclass(frozen=True)
class Part:
    """A kind of part: sizes in mm, rates in mm per hectare or hour, hours and money as in `replace_decision`."""

    name: str
    new: float
    limit: float
    rate: float
    reading_sd: float
    season: float
    part_cost: float
    labour_h: float
    field_labour_h: float
    downtime_h: float
    p_fail: float
    secondary: float = 0.0

    @property
    def price(self) -> float:
        return self.part_cost + self.labour_h * LABOUR

    @property
    def failing(self) -> float:
        """What failing in the field costs on top."""
        return (self.field_labour_h - self.labour_h) * LABOUR + self.downtime_h * STANDING + self.secondary


PARTS = (
    Part("opener disc", 400, 386, -0.012, 0.5, 240, 48.9, 0.4, 0.9, 1.5, 0.7),
    Part("feeder chain", 100, 103, 0.0028, 0.12, 220, 812, 5, 6.5, 3, 0.3),
    Part("shaft bearing play", 0.05, 0.35, 0.0003, 0.02, 220, 52.6, 3.5, 5, 8, 0.8, 150),
)
RATE_SD, SEASON_SHARE, NEW_SD_SHARE, SEASON_SD = 0.35, 0.2, 0.02, 0.25
"""Of the mean rate: between machines; between seasons. Of the wear allowed: between new parts. Of a season's use: its length.
"""


@dataclass
class Position:
    """One part in place. value: the truth; use: since it was fitted."""

    value: float
    rate: float
    use: float = 0.0
    read: list[tuple[float, float]] = field(default_factory=list)


@dataclass
class Tally:
    cost: float = 0.0
    renewed: int = 0
    failed: int = 0
    inside: int = 0
    told: int = 0


@dataclass(frozen=True)
class Truth:
    """What only the dice know. By season and position: wear, luck, what a part fitted then starts from, the reading's slip."""

    uses: list[float]
    wear: list[list[float]]
    luck: list[list[float]]
    fresh: list[list[float]]
    slip: list[list[float]]
    rates: list[float]


Rule = Callable[[Part, list[Position], Truth, int], list[bool]]
"""Part, positions, the truth (for those who know it) and the season ahead: renew which?"""


def used(part: Part, value: float) -> float:
    return (part.new - value) / (part.new - part.limit)


def at_limit(part: Part, positions: list[Position], _truth: Truth, _season: int) -> list[bool]:
    return [used(part, one.read[-1][1]) >= 1 if one.read else False for one in positions]


def yearly(_part: Part, positions: list[Position], _truth: Truth, _season: int) -> list[bool]:
    return [one.use > 0 for one in positions]


def three_quarters(part: Part, positions: list[Position], _truth: Truth, _season: int) -> list[bool]:
    return [used(part, one.read[-1][1]) >= 0.75 if one.read else False for one in positions]


def knows_today(part: Part, positions: list[Position], truth: Truth, _season: int) -> list[bool]:
    """Wear and rate as they are; how long the season will be and how hard on the parts is not known."""
    renew = []
    for i, one in enumerate(positions):
        rate = truth.rates[i]
        sd = np.hypot(SEASON_SHARE * part.rate * part.season, rate * part.season * SEASON_SD)
        left = abs(part.limit - one.value) * (1 if used(part, one.value) < 1 else -1)
        p = 0.5 * erfc((left - abs(rate) * part.season) / sd / 2**0.5)
        renew.append(one.use > 0 and decided(part, p, one.value, rate))
    return renew


def plan(part: Part, truth: Truth, i: int, begun: float) -> Callable[[int, int], bool]:
    """The least expected cost of one position from every season on, knowing all wear to come but not the luck."""
    renew: dict[tuple[int, int], bool] = {}
    costs: dict[tuple[int, int], float] = {}

    def value(fitted: int, season: int) -> float:
        start = begun if fitted < 0 else truth.fresh[fitted][i]
        return start + sum(truth.wear[t][i] for t in range(max(fitted, 0), season))

    for season in range(SEASONS, -1, -1):
        for fitted in range(-1, season + 1):
            if season == SEASONS:
                costs[fitted, season] = -min(1.0, max(0.0, 1 - used(part, value(fitted, season)))) * part.price
                continue

            def ahead(since: int, season: int = season) -> float:
                after = costs[since, season + 1]
                if used(part, value(since, season + 1)) < 1:
                    return after
                return part.p_fail * (part.price + part.failing + costs[season + 1, season + 1]) + (1 - part.p_fail) * after

            keep, new = ahead(fitted), part.price + ahead(season)
            renew[fitted, season] = new < keep and fitted != season
            costs[fitted, season] = min(keep, new) if fitted != season else keep
    return lambda fitted, season: renew[fitted, season]


def forecast(part: Part, positions: list[Position], counter: float, use: float, use_sd: float = 0.0) -> list[PlaceAhead]:
    """What the product makes of the readings, for each position, at the end of a season of that use."""
    wearing = Wearing(part.new, part.limit, (part.limit - part.new) / part.rate, part.reading_sd, RATE_SD)
    places = [
        Place(
            name=str(i),
            readings=[Measured(j, counter - one.use + u, v) for j, (u, v) in enumerate(one.read)],
            fitted=counter - one.use,
            group="wheels" if i in WHEELS else None,
        )
        for i, one in enumerate(positions)
    ]
    return history.forecast(wearing, places, Coming(counter, counter + use, part.season, SEASON_SHARE, use_sd)).places


def decided(part: Part, p: float, value: float, rate: float) -> bool:
    """The core's decision for one part; where the figures do not decide, the cheaper expectation."""
    share = abs(rate) * part.season / abs(part.new - part.limit)
    found = replace_decision(
        DecisionGiven(
            p_cross=min(1.0, max(0.0, p)),
            remaining=still_serves(1 - used(part, value), share, part.p_fail),
            season_share=share,
            part_cost=part.part_cost,
            labour_h=part.labour_h,
            field_labour_h=part.field_labour_h,
            labour_rate=LABOUR,
            downtime_h=part.downtime_h,
            downtime_rate=STANDING,
            p_fail_if_crossed=part.p_fail,
            secondary_cost=part.secondary,
        )
    )
    return found.advice == "replace" or (found.advice == "either" and found.cost_wait > found.cost_now)


def lumvek(part: Part, positions: list[Position], truth: Truth, season: int) -> list[bool]:
    seen = truth.uses[:season]
    use_sd = float(np.std(seen, ddof=1)) if len(seen) > 2 else SEASON_SD * part.season
    found = forecast(part, positions, sum(seen), part.season, use_sd)
    return [
        one.use > 0 and decided(part, place.p_cross, place.now, place.rate) for one, place in zip(positions, found, strict=True)
    ]


RULES: dict[str, Rule] = {
    "(a) at the limit": at_limit,
    "(b) every year": yearly,
    "(c) three quarters": three_quarters,
    "(d) Lumvek": lumvek,
    "(e) knows every season": knows_today,  # stands for its turn; `run` plans it whole
    "(f) knows today, not the season": knows_today,
}


def dice_of(part: Part, seed: int, machine: int) -> tuple[Truth, list[float]]:
    """The truth of one machine, the same for every rule, and what its first parts start from."""
    dice = np.random.default_rng([seed, machine])
    sd, new_sd = RATE_SD * abs(part.rate), NEW_SD_SHARE * abs(part.new - part.limit)
    common, wheel = dice.normal(0, sd), dice.normal(0, sd / 2)
    rates = [part.rate + common + (wheel if i in WHEELS else 0) + dice.normal(0, sd / 4) for i in range(ROWS)]
    rates = [rate if rate * part.rate > 0 else 0.1 * part.rate for rate in rates]
    uses = [part.season * max(0.4, dice.normal(1, SEASON_SD)) for _ in range(SEASONS)]
    wear = [
        [rates[i] * use + dice.normal(0, SEASON_SHARE * abs(part.rate) * np.sqrt(part.season * use)) for i in range(ROWS)]
        for use in uses
    ]
    luck = dice.random((SEASONS, ROWS)).tolist()
    fresh = dice.normal(part.new, new_sd, (SEASONS + 1, ROWS)).tolist()
    slip = dice.normal(0, part.reading_sd, (SEASONS, ROWS)).tolist()
    return Truth(uses, wear, luck, fresh, slip, rates), dice.normal(part.new, new_sd, ROWS).tolist()


def run(part: Part, name: str, seed: int) -> Tally:
    """One rule over all machines."""
    tally, rule = Tally(), RULES[name]
    for machine in range(MACHINES):
        truth, begun = dice_of(part, seed, machine)
        positions = [Position(begun[i], truth.rates[i]) for i in range(ROWS)]
        fitted = [-1] * ROWS
        plans = [plan(part, truth, i, begun[i]) for i in range(ROWS)] if name.startswith("(e)") else None
        for season, use in enumerate(truth.uses):
            renew = [p(fitted[i], season) for i, p in enumerate(plans)] if plans else rule(part, positions, truth, season)
            told = forecast(part, positions, sum(truth.uses[:season]), use) if rule is lumvek else None
            for i, one in enumerate(positions):
                if renew[i]:
                    tally.cost += part.price
                    tally.renewed += 1
                    fitted[i] = season
                    positions[i] = one = Position(truth.fresh[season][i], truth.rates[i])
                one.value += truth.wear[season][i]
                one.use += use
                if told and not renew[i]:
                    tally.told += 1
                    tally.inside += told[i].low <= one.value <= told[i].high
                if used(part, one.value) >= 1 and truth.luck[season][i] < part.p_fail:
                    tally.cost += part.price + part.failing
                    tally.failed += 1
                    fitted[i] = season + 1
                    positions[i] = Position(truth.fresh[season + 1][i], truth.rates[i])
                else:
                    one.read.append((one.use, one.value + truth.slip[season][i]))
        tally.cost -= sum(min(1.0, max(0.0, 1 - used(part, one.value))) * part.price for one in positions)
    return tally


def table(seed: int) -> list[str]:
    """One line a part and rule: cost a season and machine, against knowing the truth, and how often the range held."""
    lines = ["| part | rule | cost a season | renewed | failed in the field | range held |", "|---|---|---|---|---|---|"]
    years = MACHINES * SEASONS
    whole: dict[str, float] = dict.fromkeys(RULES, 0.0)
    for part in PARTS:
        found = {name: run(part, name, seed) for name in RULES}
        for name, tally in found.items():
            whole[name] += tally.cost / years
            held = f"{100 * tally.inside / tally.told:.1f} %" if tally.told else ""
            lines.append(
                f"| {part.name} | {name} | {tally.cost / years:.2f} | {tally.renewed / years:.2f} | "
                f"{tally.failed / years:.3f} | {held} |"
            )
        lines += against(part.name, {name: tally.cost / years for name, tally in found.items()})
    lines += [f"| all three | {name} | {cost:.2f} | | | |" for name, cost in whole.items()]
    return lines + against("all three", whole)


def against(what: str, cost: dict[str, float]) -> list[str]:
    """Lumvek's cost beside those who know more, and beside the best of the plain rules."""
    own, least, today = cost["(d) Lumvek"], cost["(e) knows every season"], cost["(f) knows today, not the season"]
    best = min((value, name) for name, value in cost.items() if name[1] in "abc")
    return [
        f"| {what} | (d) against (e) | {100 * (own / least - 1):+.1f} % | | | |",
        f"| {what} | (d) against (f) | {100 * (own / today - 1):+.1f} % | | | |",
        f"| {what} | (d) against the best of (a) to (c), {best[1]} | {100 * (own / best[0] - 1):+.1f} % | | | |",
    ]


def main() -> None:
    seed = REPORTED if "--report" in sys.argv else next((int(one) for one in sys.argv[1:] if one.isdigit()), TRIED[0])
    registry.calculators()
    print(f"Seed {seed}, {MACHINES} machines of {ROWS} positions, {SEASONS} seasons.")
    print("\n".join(table(seed)))


if __name__ == "__main__":
    main()
