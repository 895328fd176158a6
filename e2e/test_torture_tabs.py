"""Tabs under torture: somebody reads, notes and takes pictures without a signal, the tab is killed, the clock is set back, and it comes
home in another tab. What was typed last stands, every note and picture is there once.

Here in short; ``./lumvek torture --tabs 40`` goes on for longer.
"""

import os
import random
from pathlib import Path

import pytest
from hands import begin, field, machine, settle
from playwright.sync_api import Page, expect

from demo.pictures import drawn

ROUNDS, SEED = int(os.environ.get("LUMVEK_TABS", "3")), int(os.environ.get("LUMVEK_SEED", "5"))
DAY_MS = 86_400_000
SHIFTED = "(by) => { const real = Date.now.bind(Date); Date.now = () => real() + by }"


class Tabs:
    """One device, its tabs one after the other."""

    def __init__(self, page: Page, chance: random.Random, folder: Path) -> None:
        self.page, self.chance = page, chance
        self.picture = folder / "part.jpg"
        self.picture.write_bytes(drawn("part"))
        self.notes: dict[str, int] = {}
        self.done = {"tabs killed": 0, "clock set back": 0, "readings": 0, "pictures": 0}

    def anew(self) -> None:
        """Killed: no question, no last word."""
        context = self.page.context
        self.page.close()
        self.page = context.new_page()
        self.done["tabs killed"] += 1

    def set_clock(self) -> None:
        by = self.chance.choice([0, -DAY_MS, -3_600_000, 3_600_000])
        self.page.evaluate(SHIFTED, by)
        self.done["clock set back"] += by < 0

    def read(self, started: str, figures: list[str]) -> None:
        """Several figures at one place, one after the other, the clock turned between them."""
        self.page.goto(f"/walk-arounds/{started}?check=opener-disc-diameter&at=1L")
        field(self.page).wait_for()
        self.page.context.set_offline(True)
        for nth, figure in enumerate(figures):
            self.set_clock()
            if nth:
                self.page.keyboard.press("Backspace")
            field(self.page).fill(figure)
            self.page.keyboard.press("Enter")
            self.done["readings"] += 1
            expect(self.page.get_by_text("kept on this device")).to_be_visible()

    def note(self, number: int) -> None:
        self.page.goto(f"/machines/{number}/logbook")
        form = self.page.get_by_role("form", name="What was odd this season?")
        form.wait_for()
        self.page.context.set_offline(True)
        words, pictures = f"odd {len(self.notes) + 1}", self.chance.randint(0, 2)
        form.get_by_label("What was odd").fill(words)
        if pictures:
            form.get_by_label("Pictures").set_input_files([str(self.picture)] * pictures)
            expect(form).to_contain_text(", ".join(["part.jpg"] * pictures))
        form.get_by_role("button", name="Save").click()
        expect(form).to_contain_text(f"“{words}”")
        self.notes[words], self.done["pictures"] = pictures, self.done["pictures"] + pictures

    def home(self) -> None:
        self.page.context.set_offline(False)
        self.page.goto("/")
        settle(self.page)


@pytest.fixture
def tabs(page: Page, sign_in, tmp_path):
    sign_in("tomas")
    return Tabs(page, random.Random(SEED), tmp_path)


def test_what_was_typed_and_taken_comes_home_once(tabs, product, capsys):
    started, number = begin(tabs.page), machine(tabs.page, "Heron 4")
    for _ in range(ROUNDS):
        figures = [str(figure) for figure in tabs.chance.sample(range(386, 396), tabs.chance.randint(1, 3))]
        tabs.read(started, figures)
        tabs.anew()
        tabs.home()
        places = tabs.page.request.get(f"/api/walk-arounds/{started}").json()["places"]
        assert [place["raw"] for place in places] == [[figures[-1]]], figures
        tabs.note(number)
        tabs.anew()
        tabs.home()
    stored = product.ask_database(
        "SELECT REPLACE(n.text, ' ', '-'), COUNT(p.id) FROM inspection_operatornote n LEFT JOIN inspection_notephoto p ON p.note_id = n.id "
        "WHERE n.text LIKE 'odd %' GROUP BY n.id"
    ).split()
    found = dict(zip((one.replace("-", " ") for one in stored[::2]), map(int, stored[1::2]), strict=True))
    assert found == tabs.notes and len(stored) == 2 * ROUNDS
    with capsys.disabled():
        print("\n  " + ", ".join(f"{what} {count}" for what, count in tabs.done.items()) + ": nothing lost, nothing doubled")
