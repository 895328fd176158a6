"""The season's plan in the real interface: made while one looks on, read at a glance, moved by key and by hand, tried out;
who is away and when it is dry."""

import datetime as dt
import re

from hands import SOLVES, lose_answer, sure, until_planned
from playwright.sync_api import Page, expect

SOON = dt.date.today() + dt.timedelta(days=21)
STEP = re.compile("^Heron 6: Weld the tank step")
LATE = re.compile(r"Late by \d+ days: it waits for parts. Rushing Knife guard LS-2042 gains \d+ days")


def starts(page: Page):
    """Where the job lies, in words."""
    return page.get_by_role("button", name=STEP).first.get_attribute("aria-label")


def test_one_look_tells_which_machine_will_not_be_ready_and_what_would_cure_it(planned: Page, accessible):
    page = planned
    late = page.get_by_role("list", name="Machines that will not be ready")
    expect(late.get_by_role("listitem")).to_have_count(2)
    sill = late.get_by_role("listitem").filter(has_text="Sill 61")
    # How many days depends on the weekday that the demo was loaded on.
    expect(sill).to_contain_text(LATE)
    late_by, gains = re.findall(r"(\d+) days", sill.inner_text())
    assert late_by == gains, "the guard alone is waited for"
    expect(page.get_by_role("region", name="No place in the plan")).to_contain_text("number to be found")
    accessible(page)
    page.get_by_role("button", name="Machines", exact=True).click()
    page.get_by_role("button", name="Season", exact=True).click()
    page.get_by_role("button", name=re.compile("^Corvane 90: Renew")).click()
    expect(page.get_by_role("region", name=re.compile("^Renew: seed firmer spring"))).to_contain_text("Wash-down yard")
    accessible(page)
    page.evaluate("document.documentElement.dataset.theme = 'dark'")
    page.wait_for_timeout(400)
    accessible(page)
    sill.get_by_role("button", name="Try it").click()
    expect(page.get_by_text("Tried out: LS-2042 is here at once.")).to_be_visible(timeout=SOLVES)
    expect(page.get_by_role("status").filter(has_text="Tried out")).to_contain_text("in time")
    page.get_by_role("button", name="Back to the plan").click()
    expect(late.get_by_role("listitem")).to_have_count(2)


def test_a_job_is_moved_by_keys_stays_and_is_taken_back(planned: Page):
    page = planned
    job = page.get_by_role("button", name=STEP).first
    before = starts(page)
    job.focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_text("Enter sets it there, Esc leaves it.")).to_be_visible()
    page.keyboard.press("Escape")
    assert starts(page) == before, "left alone it stays"
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="That will do")).to_be_visible()
    other = page.get_by_role("button", name=re.compile("^Comb 61: Walk-around")).first
    other.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")  # nobody waits for the solver
    until_planned(page)
    expect(page.get_by_role("button", name=re.compile("^Comb 61: Walk-around.*set by hand"))).not_to_have_count(0)
    moved = starts(page)
    assert "set by hand" in moved and moved.split(", ")[:3] != before.split(", ")[:3]
    page.get_by_role("button", name="Take back moving Walk-around").click()
    until_planned(page)
    assert "set by hand" in starts(page), "only what was moved last is taken back"
    expect(page.get_by_role("button", name=re.compile("^Comb 61: Walk-around.*set by hand"))).to_have_count(0)


def test_a_job_is_dragged_to_somebody_else_and_what_that_contradicts_is_said(planned: Page):
    page = planned
    job = page.get_by_role("button", name=STEP).first
    job.scroll_into_view_if_needed()
    box = job.bounding_box()
    page.mouse.move(box["x"] + 4, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] + 10, box["y"] + 4, steps=4)
    ines = page.locator("[data-row='Ines Marrow']").bounding_box()
    page.mouse.move(box["x"] + 4, ines["y"] + ines["height"] / 2, steps=6)
    page.mouse.up()
    expect(page.get_by_role("button", name="That will do")).to_be_visible()
    until_planned(page)
    page.get_by_role("button", name=STEP).first.click()
    panel = page.get_by_role("region", name="Weld the tank step")
    expect(panel).to_contain_text("none of them has the skill welding")
    expect(panel).to_contain_text("Ines Marrow")
    panel.get_by_role("button", name="Let it move again").click()
    expect(page.get_by_role("button", name="That will do")).to_be_visible()
    until_planned(page)
    expect(panel).not_to_contain_text("It stays where it was put")


def test_planning_again_moves_nothing_and_anew_asks_first(planned: Page):
    page = planned
    for _ in range(2):  # within working hours what should have begun since the demo was loaded has moved the first time
        page.get_by_role("button", name="Plan again", exact=True).click()
        until_planned(page)
    expect(page.get_by_text(re.compile(r"\d+ jobs? moved"))).to_have_count(0)
    sure(page, page.get_by_role("button", name="Plan anew"), "Plan anew")
    until_planned(page)


def test_the_board_has_first_what_will_not_be_ready_and_says_why(planned: Page, accessible):
    page = planned
    page.get_by_role("link", name="Machines", exact=True).first.click()
    cards = page.get_by_role("article")
    expect(cards.nth(0)).to_contain_text("Do not run or drive it")
    expect(cards.nth(0)).to_contain_text("Tie rods: right")
    expect(cards.nth(0)).not_to_contain_text("Ready ")
    expect(cards.nth(1)).to_contain_text(LATE)
    expect(page.get_by_role("article", name="Weir 107")).to_contain_text("Not ready within this plan: it waits for parts.")
    expect(page.get_by_role("article", name="Dunmere 12")).to_contain_text("Not ready: too little looked at")
    accessible(page)


def test_who_is_away_and_when_it_is_dry_is_kept_through_refusals_and_lost_answers(page: Page, sign_in, accessible, tmp_path):
    sign_in("ada", at="/plan/hands")
    ines = page.get_by_role("region", name="Ines Marrow")
    ines.get_by_text("Hours, skills, days off").click()
    ines.get_by_label("Away from").fill(f"{SOON}")
    ines.get_by_label("to", exact=True).fill(f"{SOON - dt.timedelta(days=3)}")
    ines.get_by_label("because").fill("a course")
    ines.get_by_role("button", name="Add").click()
    expect(ines.get_by_role("alert")).to_contain_text("before the first day")
    expect(ines.get_by_label("because")).to_have_value("a course")
    day_after = SOON + dt.timedelta(days=1)
    ines.get_by_label("to", exact=True).fill(f"{day_after}")
    lose_answer(page, "**/api/season/hands/*/away")
    ines.get_by_role("button", name="Add").click()
    expect(ines.get_by_text(f"{SOON:%-d %b %Y} to {day_after:%-d %b %Y}: a course")).to_have_count(1, timeout=30_000)
    ines.get_by_role("button", name="Take back").click()
    expect(ines.get_by_text("a course")).to_have_count(0)
    ines.get_by_label("Hours").fill("Monday to noon")
    ines.get_by_role("button", name="Keep").click()
    expect(ines.get_by_role("alert")).to_be_visible()
    expect(ines.get_by_label("Hours")).to_have_value("Monday to noon")
    dry = page.get_by_role("region", name="Dry spells")
    before = dry.get_by_role("listitem").count()
    dry.get_by_label("From", exact=True).fill(f"{SOON}T08:00")
    dry.get_by_label("to", exact=True).fill(f"{SOON}T07:00")
    dry.get_by_role("button", name="Add").click()
    expect(dry.get_by_role("alert")).to_contain_text("later than its start")
    dry.get_by_label("to", exact=True).fill(f"{SOON}T17:00")
    lose_answer(page, "**/api/season/dry")
    dry.get_by_role("button", name="Add").click()
    expect(dry.get_by_role("listitem")).to_have_count(before + 1, timeout=30_000)
    accessible(page)
    bad, good = tmp_path / "bad.ics", tmp_path / "dry.ics"
    bad.write_text("no calendar")
    good.write_text(
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20261101T000000Z\r\n"
        f"DTSTART:{day_after:%Y%m%d}T080000\r\nDTEND:{day_after:%Y%m%d}T160000\r\nSUMMARY:Dry\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    dry.get_by_label("From a calendar file").set_input_files(bad)
    expect(dry.get_by_role("alert")).to_be_visible()
    dry.get_by_label("From a calendar file").set_input_files(good)
    expect(dry).to_contain_text(f"{day_after:%a %-d %b %Y}, 08:00 to {day_after:%a %-d %b %Y}, 16:00")
    dry.get_by_role("button", name="Ask the forecast").click()
    expect(dry.get_by_role("listitem").nth(before + 2)).to_be_visible(timeout=30_000)
    page.goto("/shop/changes?about=plan")
    expect(page.get_by_role("row").filter(has_text="there after all")).to_have_count(1)


def test_a_plan_outlives_the_browser_that_asked_for_it(page: Page, sign_in):
    """The tab is closed while it is worked out, a connection breaks, and somebody else plans at the same time."""
    sign_in("ada", at="/plan")
    page.get_by_role("button", name="Plan again", exact=True).click()
    expect(page.get_by_role("button", name="That will do")).to_be_visible()
    page.goto("/plan")
    expect(page.get_by_text("A plan is being worked out")).to_be_visible()
    expect(page.get_by_text("A plan is being worked out")).to_have_count(0, timeout=SOLVES)
    lose_answer(page, "**/api/season/plans")
    page.get_by_role("button", name="Plan again", exact=True).click()
    expect(page.get_by_role("button", name="Plan again", exact=True)).to_be_enabled(timeout=SOLVES)
    expect(page.get_by_role("list", name="Machines that will not be ready")).to_be_visible()
    page.get_by_role("combobox", name="Compare with").select_option(index=1)
    page.get_by_role("button", name="Work by this one").click()
    expect(page.get_by_role("button", name="Work by this one")).to_have_count(0)
    other = page.context.new_page()
    other.goto("/plan")
    for one in (page, other):
        one.get_by_role("button", name="Plan again", exact=True).click()
    for one in (page, other):
        until_planned(one)
        expect(one.get_by_role("alert")).to_have_count(0)
