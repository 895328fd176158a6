"""A whole machine by keyboard, with answers that come late: every figure stands where it was meant for."""

import os
import random

import pytest
from hands import begin
from late_answers import drain, late_answers, pause, typed
from playwright.sync_api import Page


def whole_machine(page: Page, machine: str, posture: str, pace: int, seed: int) -> tuple[int, int, list]:
    """By keyboard from the first place to the last, with late answers; returns keys, places and wrong places."""
    late_answers(page, seed)
    page.goto("/")
    walk_around = begin(page, check="", machine=machine, posture=posture)
    data = page.request.get(f"/api/walk-arounds/{walk_around}").json()
    checks = {check["key"]: check for check in data["checks"]}
    dice, keys, meant = random.Random(seed), 0, {}
    gate = page.locator(".gate")
    for visit in data["plan"]["visits"]:
        for key in visit["checks"]:
            check = checks[key]
            if check["optional"]:
                continue
            for position in check["positions"]:
                if gate.is_visible():
                    pause(page, 700)
                    page.keyboard.press("l")
                    gate.wait_for(state="detached")
                    keys += 1
                pressed, raw = what_to_type(check, dice)
                for one in pressed:
                    page.keyboard.press("Space" if one == "␣" else one)
                keys += len(pressed)
                meant[key, position] = raw
                pause(page, pace)
    drain(page)
    stands = typed(page, walk_around)
    return keys, len(meant), [(place, raw, stands.get(place)) for place, raw in meant.items() if stands.get(place) != raw]


def what_to_type(check: dict, dice: random.Random) -> tuple[list[str], list[str]]:
    """Keys that record something for a check, and what must stand there then."""
    if check["options"]:
        n = dice.randrange(len(check["options"]))
        return [str(n + 1)], [check["options"][n]["key"]]
    raw = []
    for _ in check["values"] or [""]:
        low, high = check["limits"].get("low"), check["limits"].get("high")
        middle = (low + high) / 2 if low is not None and high is not None else check["limits"].get("new", 12)
        if check["unit"] in ("hole", "notch", "washers"):
            raw.append(str(round(middle)))
            continue
        if check["unit"] == "mbar":
            raw.append(f"{middle:.0f} mbar")
            continue
        raw.append(
            {"interval": "2100 h", "count": "0", "note": f"seen {dice.randrange(99)}"}.get(
                check["kind"], str(round(middle + dice.random(), 1))
            )
        )
    return [key for one in raw for key in [*one.replace(" ", "␣"), "Enter"]], raw


ALL_PACES = os.environ.get("LUMVEK_ALL_PACES") == "1"
"""Each machine at each pace takes minutes; without it the planter goes at the quickest pace and the combine at the slowest."""
MACHINES = {"Dunmere 12": "unfolded, raised and locked", "Heron 6": "header down, engine off"}
RUNS = [(machine, pace) for machine in MACHINES for pace in (200, 1000, 2500)]


@pytest.mark.parametrize(("machine", "pace"), RUNS if ALL_PACES else [("Dunmere 12", 200), ("Heron 6", 2500)])
def test_a_whole_machine_by_keyboard_ends_with_every_figure_in_its_place(machine, pace, page: Page, sign_in):
    sign_in()
    keys, places, wrong = whole_machine(page, machine, MACHINES[machine], pace, seed=pace)
    print(f"{machine} at {pace} ms: {places} places, {keys / places:.2f} keys a reading, {len(wrong)} in a wrong place")
    assert wrong == []
    assert places > 100
