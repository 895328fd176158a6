"""For every calculation that takes lists: the largest input it states, filled so that it costs as much as we know how to make it."""

import datetime as dt
import itertools
from collections.abc import Callable
from typing import Any

from lumvek_core.tests.drawn_shops import shop

DAY = dt.date(2026, 11, 30)


def spacings() -> dict[str, Any]:
    return {"nominal_mm": 165, "spacings_mm": [20 + (i * 37) % 400 for i in range(20000)]}


def everything_open() -> dict[str, Any]:
    jobs = [{"id": str(i), "done": False, "finish": str(DAY), "part_here": False} for i in range(5000)]
    parts = [{"id": str(i), "here": False, "promised": str(DAY)} for i in range(5000)]
    return {"today": str(DAY), "looked_pct": 100, "season_date": str(DAY), "jobs": jobs, "parts": parts}


def route(chained: bool) -> dict[str, Any]:
    """600 checks in postures that each lead to each other; chained, each waits for others in other postures."""
    postures = [f"posture {i}" for i in range(17)]
    checks = [
        {
            "id": str(i),
            "posture": postures[(i * 7) % 17],
            "station": i % 60,
            "after": [str(j) for j in range(max(0, i - 60), i, 3)] if chained else [],
        }
        for i in range(600)
    ]
    pairs = list(itertools.permutations(postures, 2))
    moves = [{"from": a, "to": b, "minutes": 1 + (i * 13) % 29} for i, (a, b) in enumerate(pairs)]
    return {"checks": checks, "moves": moves[:300], "start": postures[0]}


def knotted_route() -> dict[str, Any]:
    """Blocks that wait for each other two by two over twelve postures: as many orders as there can be."""
    postures = [f"posture {i}" for i in range(12)]
    checks = [
        {"id": f"{i}", "posture": postures[i % 12], "station": i % 60, "after": [str(i - 12 + 5)] if i >= 12 and i % 3 else []}
        for i in range(600)
    ]
    moves = [{"from": a, "to": b, "minutes": 1 + i % 7} for i, (a, b) in enumerate(itertools.permutations(postures, 2))]
    return {"checks": checks, "moves": moves[:300], "start": postures[0]}


def sourcing() -> dict[str, Any]:
    """1,500 lines, each offered by nearly half of 30 suppliers, whose trips and deliveries are alike in price."""
    suppliers = [
        {
            "name": f"S{s}",
            "distance_km": 10 + s,
            "travel_min": 10 + s,
            "call_min": 5,
            "open": [{"weekday": d, "from": "07:30", "to": "17:30"} for d in range(6)],
            "deliveries": [{"name": f"d{n}", "lead_days": 1 + n % 9, "price": 5 + n} for n in range(20)],
        }
        for s in range(30)
    ]
    offers = [
        {"supplier": f"S{i % 30}", "part": f"P{i // 13}", "unit_price": 10 + (i * 7) % 11, "stock": 5, "p_stock": 0.5, "restock_days": 3}
        for i in range(20_000)
    ]  # fmt: skip
    lines = [
        {"id": f"L{n}", "part": f"P{n}", "qty": 2, "late_cost_per_day": 50, "need_by": str(DAY + dt.timedelta(days=3 + n % 14))}
        for n in range(1500)
    ]  # fmt: skip
    return {
        "start": f"{DAY}T08:00", "lines": lines, "suppliers": suppliers, "offers": offers,
        "labour_rate": 60, "km_cost": 0.5, "horizon_days": 120,
    }  # fmt: skip


def rotor() -> dict[str, Any]:
    names = [f"k{i}" for i in range(200)]
    return {
        "positions": [{"name": n, "angle_deg": i * 1.8, "radius_mm": 250, "mass_g": 500 + i, "axial_mm": i} for i, n in enumerate(names)],
        "rotor_mass_kg": 80, "speed_rpm": 3000, "must_renew": names[:100],
        "plans": [{"name": f"p{i}", "renew": names[:64], "new_mass_g": 500 + i} for i in range(400)],
    }  # fmt: skip


def _worn(many: int) -> list[dict[str, Any]]:
    return [{"use": 2.0 * i, "value": 400 - 0.05 * i + (i * 7 % 5) / 10} for i in range(1, many + 1)]


EXPECTED = {
    "new": 400, "limit": 370, "prior_rate_mean": -0.02, "prior_rate_sd": 0.01, "reading_sd": 0.5, "new_sd": 0.5, "use_next": 2000,
    "season_sd_share": 0.2, "season_use": 250,
}  # fmt: skip


def forecast() -> dict[str, Any]:
    return EXPECTED | {"readings": _worn(400)}


def forecast_rows() -> dict[str, Any]:
    return EXPECTED | {"rows": [{"name": str(r), "readings": _worn(400), "group": str(r % 7)} for r in range(100)]}


def depths() -> dict[str, Any]:
    rows = {str(r): [40 + (r * d) % 17 for d in range(200)] for r in range(1, 101)}
    return {"rows": rows, "target_mm": 45, "tolerance_mm": 5, "track_rows": list(range(1, 101))}


def evenness() -> dict[str, Any]:
    named = {str(n): float(n % 13) for n in range(200)}
    return {"readings": named, "tolerance": 2, "targets": named, "per_turn": 2}


def sieves() -> dict[str, Any]:
    one = {"shown_mm": 6, "gap_mm": {"left": 6, "right": 7}, "gap_tolerance_mm": 1, "zero_tolerance_mm": 1}
    return {"sieves": {f"s{i}": one for i in range(20)}}


def services() -> dict[str, Any]:
    one = {"every_h": 50, "every_days": 365, "last_h": 100, "last_date": "2025-03-05"}
    return {
        "counter_now": 400,
        "date_now": "2026-03-05",
        "counter_per_day": 8,
        "services": [one | {"name": f"s{i}"} for i in range(200)],
    }


def apart() -> dict[str, Any]:
    parts = [{"name": f"p{i}", "part_cost": 10 + i, "p_fail": 0.3, "remaining": 0.4} for i in range(200)]
    return {"parts": parts, "teardown_h": 4, "labour_rate": 60, "downtime_h": 5, "downtime_rate": 200}


def contact() -> dict[str, Any]:
    readings = [{"span_mm": 20 + i % 30, "feeler_mm": 0.1} for i in range(400)]
    return {"readings": readings, "disc_diameter_mm": 380, "band": {"low_mm": 20, "high_mm": 50, "feeler_mm": 0.1}}


def calibrations() -> dict[str, Any]:
    """A chain of calibrations, each after all before it as far as that goes, and an event a day."""
    keys = [f"c{i}" for i in range(100)]
    return {
        "calibrations": [
            {
                "key": key,
                "due_after": ["header", *(f"calibrated:{one}" for one in keys[max(0, i - 40) : i])],
                "after": [{"key": one, "because": "so"} for one in keys[max(0, i - 20) : i]],
                "saved": "2026-01-01",
            }
            for i, key in enumerate(keys)
        ],
        "events": [{"event": "header", "at": f"2026-02-{1 + i % 28:02}"} for i in range(2000)],
    }


def tracing() -> dict[str, Any]:
    """200 causes, 400 checks that each prove and clear half of them."""
    names = [f"cause {i}" for i in range(200)]
    checks = [
        {
            "name": f"check {i}",
            "minutes": 1 + i % 30,
            "proves": names[i % 100 : i % 100 + 100],
            "clears": names[i % 100 : i % 100 + 50],
        }
        for i in range(400)
    ]
    return {"candidates": [{"name": name, "weight": 1 + i % 9} for i, name in enumerate(names)], "checks": checks}


def swapped() -> dict[str, Any]:
    """400 runs of 40 rows with ten slots, the fault nowhere decided."""
    slots = [f"slot {i}" for i in range(10)]
    observations = [
        {"row": str(i % 40), "parts": {slot: f"{slot} {i % 40}" for slot in slots}, "fault": i % 40 == 0} for i in range(400)
    ]
    return {"observations": observations, "slots": [{"slot": slot, "weight": i + 1} for i, slot in enumerate(slots)]}


def recording() -> dict[str, Any]:
    """The longest recording, held against the most shafts with the most multiples."""
    samples = [float((i * 7919) % 1000) / 500 - 1 for i in range(200_000)]
    shafts = [{"name": f"shaft {i}", "rpm": 100 + 37 * i, "multiples": [1 + k / 3 for k in range(60)]} for i in range(100)]
    return {"sample_hz": 400, "samples": samples, "shafts": shafts}


def changeover() -> dict[str, Any]:
    """As many items as a machine may have, each at many places, in many postures."""
    postures = [f"p{i}" for i in range(15)]
    moves = [{"from": a, "to": b, "minutes": 1 + i} for i, a in enumerate(postures) for b in postures if a != b][:300]
    items = [
        {
            "key": f"i{i}",
            "posture": postures[i % 15],
            "station": i,
            "places": {f"r{k}": "a" for k in range(200)},
            "wants": {"ear": ["b"], "pod": ["a"]},
        }
        for i in range(200)
    ]
    return {"items": items, "crop": "ear", "moves": moves, "start": "p0", "then_crop": "pod", "then_days": 8}


def roughly() -> dict[str, Any]:
    """400 machines with all the jobs they may have, and forty people with a day each and a skill of their own."""
    shifts = [
        {"start": f"{DAY + dt.timedelta(days=n)}T08:00", "end": f"{DAY + dt.timedelta(days=n)}T17:00"} for n in range(400)
    ]
    jobs = [{"minutes": 30 + n % 90, "hands": 1 + n % 2, "skill": f"s{n % 40}"} for n in range(700)]
    return {
        "now": f"{DAY}T08:00",
        "technicians": [{"name": f"t{n}", "shifts": shifts, "skills": [f"s{n}"]} for n in range(40)],
        "machines": [{"name": f"m{n}", "jobs": jobs} for n in range(400)],
    }


LARGEST: dict[str, list[Callable[[], dict[str, Any]]]] = {
    "calibrations_due": [calibrations],
    "readiness": [everything_open],
    "changeover": [changeover],
    "next_check": [tracing],
    "swap_test": [swapped],
    "vibration_match": [recording],
    "depth_check": [depths],
    "even": [evenness],
    "hold_down": [
        lambda: {"low_mm": 0.1, "high_mm": 0.6, "results": [{"name": f"h{i}", "measured_mm": i % 9 / 10} for i in range(400)]}
    ],
    "moisture_offset": [lambda: {"stored_pct": 1, "pairs": [{"shown_pct": 14, "reference_pct": 15}] * 200}],
    "opener_contact": [contact],
    "plate_fit": [
        lambda: {
            "seed_lengths_mm": [5 + i % 9 for i in range(2000)],
            "plates": [{"name": f"p{i}", "cell_mm": 5 + i / 10} for i in range(200)],
            "clearance_mm": 0.5,
        }
    ],
    "posture_route": [lambda: route(False), lambda: route(True), knotted_route],
    "rotor_balance": [rotor],
    "season_roughly": [roughly],
    "season_schedule": [lambda: {**shop(1, 60, 700, 12), "time_limit_s": 2, "causes": False}],
    "seed_spacing": [spacings],
    "services_due": [services],
    "shim_gain": [lambda: {"pairs": [{"moved": 1, "before_mm": 10, "after_mm": 20}] * 200}],
    "sieve_zero": [sieves],
    "source_parts": [sourcing],
    "truck_stock": [lambda: {"events": 90_000, "hours": 1, "hours_ahead": 1, "prior_hours": 1e-9, "service": 1 - 1e-12}],
    "wear_forecast": [forecast],
    "wear_forecast_rows": [forecast_rows],
    "while_apart": [apart],
    "yield_factor": [lambda: {"loads": [{"machine_kg": 4000 + i, "scale_kg": 4100} for i in range(200)]}],
}
"""Builders by calculation; those that take no list are not here."""
