"""Tracing on drawn faults: minutes to the cause against plain orders, and how often it is found, as ratios; and how long one
`next_check` of 40 causes and 60 checks takes."""

import json
import random
import sys
import time
from collections.abc import Callable, Sequence
from statistics import mean

from lumvek_core.catalogue import load
from lumvek_core.catalogue.symptoms import causes_in
from lumvek_core.faults.suspicion import Signals, suspect
from lumvek_core.faults.trace import Answer, NextLook, Traced, along_the_machine, posture_of, traced, tracing_checks
from lumvek_core.faults.tracing import chance_bad
from lumvek_core.planning import walk
from lumvek_core.planning.shortest import shortest
from lumvek_core.registry import find

MISSED, SEEN_WRONGLY = 0.05, 0.02
"""Chance that a fault is overlooked, and that something sound is taken for it."""
CATALOGUE = load.load()
MOVES = walk.ways(CATALOGUE.safety.moves)
Order = Callable[[Traced], NextLook]

Drawn = tuple[int, str, str, str]
"""Seed, symptom, family, the hidden cause."""


def drawn(seed: int) -> Drawn:
    """A fault of several causes, by their weights."""
    chance = random.Random(seed)
    symptom = chance.choice([one for one in CATALOGUE.symptoms.symptoms if len(one.causes) > 2])
    family = chance.choice(symptom.families)
    causes = causes_in(symptom, CATALOGUE.symptoms.looks, CATALOGUE.families[family])
    hidden = chance.choices(causes, [one.weight for one in causes])[0]
    return seed, symptom.key, family, hidden.key


def minutes_to_cause(fault: Drawn, order: Order) -> tuple[float, bool]:
    """Minutes until a cause is nearly certain or nothing is left to look at, and whether it is the right one."""
    seed, key, name, hidden = fault
    chance = random.Random(f"{seed} answers")
    family, looks = CATALOGUE.families[name], CATALOGUE.symptoms.looks
    symptom = next(one for one in CATALOGUE.symptoms.symptoms if one.key == key)
    checks = tracing_checks(symptom, looks, family, {})
    signs = {look: (chance.random(), chance.random()) for look in checks}
    # What is known beforehand: the check of the hidden cause has an open finding in a third of cases, another one in a tenth.
    suspicions = {
        one.key: suspect(one.weight, Signals(finding="due" if chance.random() < (0.33 if one.key == hidden else 0.1) else ""))
        for one in causes_in(symptom, looks, family)
    }
    answers: list[Answer] = []
    posture, minutes = family.start, 0.0
    while True:
        found = shortest(MOVES, [posture])[posture]
        stands = traced(symptom, looks, family, suspicions, answers, {to: m for to, (m, _) in found.items()})
        if stands.sure or not stands.looks or stands.all_clear:
            return minutes, stands.sure == hidden
        look = order(stands)
        minutes += look.minutes + look.way_minutes
        posture = posture_of(look.key, looks, family) or posture
        shows, errs = signs[look.key]
        bad = shows < chance_bad(checks[look.key], hidden)
        answers.append(Answer(look.key, bad != (errs < (MISSED if bad else SEEN_WRONGLY))))


def best(stands: Traced) -> NextLook:
    """What tells most a minute."""
    return stands.looks[0]


def commonest(stands: Traced) -> NextLook:
    """The check of the likeliest cause."""
    by_key = {one.key: one for one in stands.looks}
    return next((by_key[one.look] for one in stands.causes if one.look in by_key), stands.looks[0])


def cheapest(stands: Traced) -> NextLook:
    """The look that takes least where it is made."""
    return min(stands.looks, key=lambda one: one.minutes)


def nearest(stands: Traced) -> NextLook:
    """The look that takes least with the way to it."""
    return min(stands.looks, key=lambda one: one.minutes + one.way_minutes)


def in_order(stands: Traced, symptom_looks: Sequence[str]) -> NextLook:
    """As they are written down."""
    by_key = {one.key: one for one in stands.looks}
    return next((by_key[key] for key in symptom_looks if key in by_key), stands.looks[0])


def next_check_ms() -> float:
    """Milliseconds of one with 40 causes and 60 checks: the best of ten."""
    names = [f"cause {i}" for i in range(40)]
    checks = [
        {
            "name": f"check {i}",
            "minutes": 1 + i % 20,
            "proves": names[i % 30 : i % 30 + 10],
            "clears": names[i % 30 : i % 30 + 5],
        }
        for i in range(60)
    ]
    given = {"candidates": [{"name": name, "weight": 1 + i % 7} for i, name in enumerate(names)], "checks": checks}
    times = []
    for _ in range(10):
        began = time.perf_counter()
        find("next_check").run(given)
        times.append(time.perf_counter() - began)
    return 1000 * min(times)


def main(many: int = 400) -> None:
    faults = [drawn(seed) for seed in range(many)]

    def written(fault: Drawn) -> Order:
        symptom = next(one for one in CATALOGUE.symptoms.symptoms if one.key == fault[1])
        looks = list(tracing_checks(symptom, CATALOGUE.symptoms.looks, CATALOGUE.families[fault[2]], {}))
        return lambda stands: in_order(stands, looks)

    def along(fault: Drawn) -> Order:
        symptom = next(one for one in CATALOGUE.symptoms.symptoms if one.key == fault[1])
        family = CATALOGUE.families[fault[2]]
        checks = tracing_checks(symptom, CATALOGUE.symptoms.looks, family, {})
        return lambda stands: in_order(stands, along_the_machine(checks, CATALOGUE.symptoms.looks, family))

    orders: dict[str, Callable[[Drawn], Order]] = {
        "traced": lambda _: best,
        "most common first": lambda _: commonest,
        "cheapest first": lambda _: cheapest,
        "cheapest with the way": lambda _: nearest,
        "as written": written,
        "along the machine": along,
    }
    results = {name: [minutes_to_cause(fault, order(fault)) for fault in faults] for name, order in orders.items()}
    traced_min = mean(minutes for minutes, _ in results["traced"])
    found = {
        name: {
            "minutes_ratio": round(mean(minutes for minutes, _ in rows) / traced_min, 2),
            "found_share": round(mean(right for _, right in rows), 3),
        }
        for name, rows in results.items()
    }
    print(json.dumps({"faults": many, **found, "next_check_40_60_ms": round(next_check_ms(), 2)}, indent=1))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 400)
