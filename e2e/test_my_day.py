"""Somebody's own day in the real interface: what is next, begun, done, answered for without a signal and with lost answers."""

import re
from pathlib import Path

from hands import SOLVES, lose_answer, settle, sure, until_planned
from playwright.sync_api import Page, Route, expect

STEP = re.compile("^Heron 6: Weld the tank step")


def stays(page: Page):
    """Whatever is begun, a walk-around as well: the day stays, as without a signal."""
    page.route("**/api/machines/*/start", lambda route: route.abort())


def test_a_technician_calls_in_sick_and_works_by_the_plan(planned: Page, sign_in, accessible):
    page = planned
    page.get_by_role("link", name="Hands and weather").click()
    ines = page.get_by_role("region", name="Ines Marrow")
    ines.get_by_text("Hours, skills, days off").click()
    first = page.evaluate("fetch('/api/season').then((r) => r.json()).then((s) => s.plan.jobs.find((j) => j.technicians.join() === 'Ines Marrow').stretches[0].start.slice(0, 10))")  # fmt: skip
    ines.get_by_label("Away from").fill(first)
    ines.get_by_label("because").fill("ill")
    ines.get_by_role("button", name="Add").click()
    expect(ines).to_contain_text(": ill")
    accessible(page)
    page.get_by_role("link", name="Work plan", exact=True).last.click()
    page.get_by_role("button", name="Plan again", exact=True).click()
    until_planned(page)
    expect(page.get_by_text(re.compile(r"\d+ jobs? moved:"))).to_be_visible()
    page.context.clear_cookies()
    sign_in("tomas", at=None)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto("/plan/mine")
    expect(page.get_by_role("heading", name="Tomas Vey: what is next")).to_be_visible()
    accessible(page)
    lose_answer(page, "**/api/season/marks")
    stays(page)
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("Under way, begun by Tomas Vey")).to_be_visible(timeout=30_000)
    page.get_by_role("button", name="Done").click()
    page.get_by_label("Minutes it took").fill("25")
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_text("Done since")).to_be_visible()
    page.get_by_role("button", name="Cannot, because").click()
    page.get_by_label("Why it cannot be done").fill("the wrong seal came")
    page.get_by_role("button", name="Say so").click()
    expect(page.get_by_text("The season is being planned anew")).to_be_visible()
    expect(page.get_by_text("The season is being planned anew")).to_have_count(0, timeout=SOLVES)
    expect(page.get_by_role("heading", name="Tomas Vey: what is next")).to_be_visible()
    with page.expect_download() as calendar:
        page.get_by_role("link", name="As a file").click()
    assert "BEGIN:VEVENT" in Path(calendar.value.path()).read_text()


def test_a_typed_job_is_planned_begun_by_key_and_taken_back(planned: Page, accessible):
    page = planned
    page.get_by_role("button", name="Add a job").click()
    form = page.get_by_role("form", name="Add a job")
    form.get_by_role("combobox", name="Machine").select_option(label="Comb 61")
    form.get_by_label("What is to be done").fill("Straighten the hitch")
    form.get_by_label("Minutes").fill("40")
    form.get_by_role("combobox", name="Where").select_option(label="at the bench")
    accessible(page)
    form.get_by_role("button", name="Add and plan again").click()
    expect(form).to_have_count(0)
    until_planned(page)
    job = page.get_by_role("button", name=re.compile("^Comb 61: Straighten the hitch")).first
    job.click()
    panel = page.get_by_role("region", name="Straighten the hitch")
    expect(panel).to_contain_text("at the bench")
    panel.get_by_role("button", name="Change the job").click()
    form = page.get_by_role("form", name="Change the job")
    expect(form.get_by_label("What is to be done")).to_have_value("Straighten the hitch")
    form.get_by_label("What is to be done").fill("  ")
    form.get_by_role("button", name="Change and plan again").click()
    expect(form.get_by_role("alert")).to_contain_text("Say what is to be done")
    form.get_by_label("What is to be done").fill("Straighten the hitch pin")
    lose_answer(page, "**/api/season/jobs/*")
    form.get_by_role("button", name="Change and plan again").click()
    expect(form).to_have_count(0, timeout=30_000)
    until_planned(page)
    panel = page.get_by_role("region", name="Straighten the hitch pin")
    sure(page, panel.get_by_role("button", name="Take the job back"), "Take it back")
    until_planned(page)
    expect(page.get_by_role("button", name=re.compile("Straighten the hitch"))).to_have_count(0)
    page.goto("/plan/mine")
    page.get_by_role("combobox", name="For").select_option(label="Tomas Vey")
    expect(page.get_by_role("heading", name="Tomas Vey: what is next")).to_be_visible()
    page.keyboard.press("Escape")
    page.locator("h1").click()
    stays(page)
    page.keyboard.press("s")
    expect(page.get_by_text("Under way, begun by Ada Quill")).to_be_visible()
    page.keyboard.press("s")
    expect(page.get_by_text("Under way")).to_have_count(0)
    page.keyboard.press("d")
    expect(page.get_by_label("Minutes it took")).to_be_focused()


def test_starting_a_walk_around_opens_it_at_its_place_and_back_leads_to_the_day(planned: Page):
    page = planned

    def looks_alone(route: Route):
        season = route.fetch().json()
        season["plan"]["jobs"] = [job for job in season["plan"]["jobs"] if job["name"] == "Finish the walk-around"]
        route.fulfill(json=season)

    page.route("**/api/season", looks_alone)
    page.route("**/api/season/marks", looks_alone)
    page.goto("/plan/mine")
    page.get_by_role("combobox", name="For").select_option(label="Tomas Vey")
    machine = page.locator("article h2").inner_text()
    page.get_by_role("button", name="Start").click()
    page.locator(".gate").or_(page.locator("#reading")).first.wait_for()
    expect(page.get_by_role("heading", level=1)).to_contain_text(machine)
    page.go_back()
    page.get_by_role("combobox", name="For").select_option(label="Tomas Vey")
    expect(page.get_by_text("Under way, begun by Ada Quill")).to_be_visible()


def test_what_is_done_without_a_signal_moves_the_day_on(planned: Page):
    page = planned
    whose = page.get_by_role("combobox", name="For")
    next_job = page.locator("article .what")

    page.goto("/plan/mine")
    whose.select_option(label="Tomas Vey")
    job = next_job.inner_text()
    stays(page)
    page.route("**/api/season/marks", lambda route: route.abort())
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("Under way, begun by Ada Quill")).to_be_visible()
    page.get_by_role("button", name="Done").click()
    page.get_by_role("button", name="Done").click()
    done_now = page.get_by_text("Done since").filter(has_text=job)
    expect(done_now).to_be_visible()
    expect(next_job).not_to_have_text(job)
    page.get_by_role("button", name="Cannot, because").click()
    page.get_by_label("Why it cannot be done").fill("the wrong seal came")
    page.keyboard.press("Enter")
    laid_aside = page.get_by_text("Cannot be done, on its way to the server")
    expect(laid_aside).to_be_visible()
    page.reload()
    whose.select_option(label="Tomas Vey")
    expect(done_now).to_be_visible()
    expect(laid_aside).to_be_visible()
    page.unroute("**/api/season/marks")
    settle(page)
    expect(laid_aside).to_have_count(0)
    expect(done_now).to_be_visible()


def test_what_waited_and_was_not_taken_is_said_where_it_was_typed_until_somebody_deals_with_it(planned: Page):
    page = planned
    page.goto("/plan/mine")
    page.get_by_role("combobox", name="For").select_option(label="Tomas Vey")
    job = page.locator("article .what").inner_text()
    away = [True]
    refusal = {"error": {"field": "key", "message": "that job is no longer in the plan"}}
    page.route("**/api/season/marks", lambda route: route.abort() if away else route.fulfill(status=422, json=refusal))
    for reason in ("the wrong seal came", "no light in the bay"):
        page.get_by_role("button", name="Cannot, because").click()
        page.get_by_label("Why it cannot be done").fill(reason)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Why it cannot be done")).to_have_count(0)
    away.clear()
    said = page.get_by_role("main").get_by_role("alert").filter(has_text="was not taken: that job is no longer in the plan")
    expect(said).to_have_count(2)
    expect(said.first).to_contain_text("the wrong seal came")
    page.reload()
    page.get_by_role("combobox", name="For").select_option(label="Tomas Vey")
    expect(said).to_have_count(2)
    expect(page.locator("article .what")).to_have_text(job)
    page.unroute("**/api/season/marks")
    said.first.get_by_role("link").click()
    for word in ("it came after all", "the light is mended"):
        page.get_by_role("button", name="Discard").first.click()
        page.keyboard.type(word)
        page.keyboard.press("Enter")
        expect(page.get_by_role("status").filter(has_text="discarded")).to_be_visible()
    expect(page.get_by_text("Everything typed on this device has reached the server.")).to_be_visible()
