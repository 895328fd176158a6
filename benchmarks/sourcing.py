"""How soon there is a plan for a shop's lines and six suppliers, and how sure three plans are when their time is over: shares of
the five seconds that the first may take."""

import random
import time

from lumvek_core import structure
from lumvek_core.planning.sourcing import source_parts
from lumvek_core.planning.sourcing_model import SourceGiven

SIZES, SUPPLIERS, FIRST_S, LIMIT_S = (300, 1500), 6, 5.0, 15.0
WEEK = [{"weekday": day, "from": "07:30", "to": "17:00"} for day in range(5)]


def question(seed: int, many: int) -> SourceGiven:
    """Six suppliers near and far with two deliveries each; seven of ten have a part, a third of them not for certain."""
    dice = random.Random(seed)
    suppliers = [
        {
            "name": f"s{i}", "distance_km": 10 + 20 * i, "travel_min": 15 + 18 * i, "open": WEEK, "call_min": 5,
            "deliveries": [{"name": "van", "lead_days": 1 + i % 2, "price": 12 + 3 * i}, {"name": "post", "lead_days": 3, "price": 6 + i}],
        }
        for i in range(SUPPLIERS)
    ]  # fmt: skip
    offers = [
        {
            "supplier": f"s{i}", "part": f"p{j}", "unit_price": round(dice.uniform(5, 90), 2), "stock": dice.choice([0, 2, 10, 50]),
            "p_stock": dice.choice([0.5, 0.7, 0.9, 1, 1, 1]), "restock_days": dice.choice([None, 4, 7]),
        }
        for i in range(SUPPLIERS)
        for j in range(many)
        if dice.random() < 0.7
    ]  # fmt: skip
    lines = [
        {
            "id": str(j), "part": f"p{j}", "qty": dice.randint(1, 4), "need_by": dice.choice(["2026-11-24", "2026-11-26", "2026-12-01"]),
            "late_cost_per_day": dice.choice([0, 50, 300]),
        }
        for j in range(many)
    ]  # fmt: skip
    raw = {
        "start": "2026-11-23T08:00",
        "lines": lines,
        "suppliers": suppliers,
        "offers": offers,
        "labour_rate": 62,
        "km_cost": 0.4,
        "time_limit_s": LIMIT_S,
    }
    given: SourceGiven = structure.read(SourceGiven, raw)
    return given


def main() -> None:
    source_parts(question(0, 40))  # SciPy is loaded once
    for many in SIZES:
        for seed in (1, 2, 3):
            begun, reached = time.monotonic(), {}

            def told(what: str, _done: int, _of: int, begun: float = begun, reached: dict[str, float] = reached) -> None:
                reached[what] = time.monotonic() - begun

            found = source_parts(question(seed, many), told)
            gaps = ", ".join(f"{plan.kind} {'proved' if plan.optimal else f'gap {plan.gap_pct:.2f} %'}" for plan in found.plans)
            first, whole = reached["cheapest"] / FIRST_S, (time.monotonic() - begun) / FIRST_S
            print(f"sourcing {many} lines x {SUPPLIERS} suppliers: first plan {first:.2f}, with reasons {whole:.2f}; {gaps}")


if __name__ == "__main__":
    main()
