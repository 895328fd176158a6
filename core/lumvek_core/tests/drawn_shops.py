"""Shops with their season's work, drawn by a seed: for tests, and for the benchmark of the season's plan."""

import datetime as dt
import random

MONDAY = dt.datetime(2026, 3, 2, 7)
POSTURES = ("down", "raised", "open")
MOVES = [{"from": a, "to": b, "minutes": 10 if "down" in (a, b) else 20} for a in POSTURES for b in POSTURES if a != b]


def moment(when):
    return when.isoformat(timespec="minutes")


def shifts(dice, days, off=0.05, start=7.0, hours=(5.0, 3.5)):
    """Monday to Friday, a morning and an afternoon, now and then a day off."""
    found = []
    for day in range(days):
        morning = (MONDAY + dt.timedelta(days=day)).replace(hour=0)
        if morning.weekday() > 4 or dice.random() < off:
            continue
        at = morning + dt.timedelta(hours=start)
        for length in hours:
            found.append({"start": moment(at), "end": moment(at + dt.timedelta(hours=length))})
            at += dt.timedelta(hours=length + 1)
    return found


def shop(seed, machines=10, jobs=120, technicians=3, days=28, slot_min=15, load=0.75):
    """A shop with one bay and a yard, and work for so much of its people's time."""
    dice = random.Random(seed)
    people = [
        {"name": f"person {i}", "shifts": shifts(dice, days), "skills": ["hydraulics"] if i % 2 == 0 else ["electrics"]}
        for i in range(technicians)
    ]
    hours = sum(
        (dt.datetime.fromisoformat(one["end"]) - dt.datetime.fromisoformat(one["start"])).total_seconds() / 3600
        for person in people
        for one in person["shifts"]
    )
    fleet = [
        {
            "name": f"machine {i}",
            "season_date": str((MONDAY + dt.timedelta(days=dice.randint(days // 3, days - 1))).date()),
            "priority": dice.choice([1, 1, 1, 2, 3]),
            "width_mm": dice.choice([3000, 3500, 4200, 5900]),
            "posture": "down",
        }
        for i in range(machines)
    ]
    work = [_job(dice, i, machines, days) for i in range(jobs)]
    scale = load * hours * 60 / sum(job["minutes"] * job["hands"] for job in work)
    of_machine = {}
    for job in work:
        job["minutes"] = max(slot_min, round(job["minutes"] * scale / slot_min) * slot_min)
        there = of_machine.setdefault(job["machine"], [])
        if there and dice.random() < 0.35:
            job["after"] = [dice.choice(there)]
        there.append(job["id"])
    return {
        "now": moment(MONDAY),
        "horizon_days": days + 7,
        "slot_min": slot_min,
        "technicians": people,
        "places": [
            {"name": "Bay", "kind": "bay", "door_width_mm": 5200, "capacity": max(1, technicians // 3)},
            {"name": "Yard", "kind": "outside", "capacity": machines},
        ],
        "lifts": 1,
        "machines": fleet,
        "moves": MOVES,
        "jobs": work,
        "dry": [
            {"start": moment(MONDAY + dt.timedelta(days=day)), "end": moment(MONDAY + dt.timedelta(days=day, hours=10))}
            for day in range(days)
            if dice.random() < 0.6
        ],
    }


def _job(dice, i, machines, days):
    place = dice.choices(["bay", "outside", "bench"], [5, 2, 3])[0]
    return {
        "id": f"job {i}",
        "machine": f"machine {i % machines}",
        "minutes": dice.choice([30, 45, 60, 90, 120, 180, 300]),
        "hands": 2 if dice.random() < 0.15 else 1,
        "skill": dice.choice(["hydraulics", "electrics"]) if dice.random() < 0.25 else None,
        "posture": dice.choice(POSTURES) if place != "bench" else None,
        "place_kind": place,
        "lift": dice.random() < 0.05,
        "weather_bound": place != "bench" and dice.random() < 0.2,
        "parts": [{"id": f"part {i}", "arrives": moment(MONDAY + dt.timedelta(days=dice.randint(2, days // 2)))}]
        if dice.random() < 0.25
        else [],
        "splittable": dice.random() < 0.85,
    }
