"""The field card and the daily card on a phone, with gloves on: what worked is taken again, what is wrong is said where it is."""

import re
import uuid

from hands import lose_answer, machine, post, settle
from playwright.sync_api import Page, expect


def test_what_worked_is_offered_and_taken_the_next_time(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"/machines/{machine(page, 'Heron 6')}/field")
    page.get_by_role("combobox", name="Crop").select_option(label="Lupins")
    page.get_by_role("button", name="Keep how it is set").click()
    expect(page.get_by_role("alert")).to_contain_text("at least one thing")
    page.get_by_role("button", name="damp", exact=True).click()
    page.get_by_label("Rotor speed").fill("455")
    page.get_by_label("Float").fill("middle")
    page.get_by_label("Why so").fill("splits in the tank")
    page.reload()
    expect(page.get_by_label("Rotor speed")).to_have_value("455")
    accessible(page)
    lose_answer(page, "**/api/field/machines/*/card")
    page.get_by_role("button", name="Keep how it is set").click()
    kept = page.get_by_role("region", name="Kept")
    expect(kept.get_by_role("listitem")).to_have_count(2, timeout=30_000)
    expect(kept).to_contain_text("because splits in the tank")
    expect(page.get_by_label("Rotor speed")).to_have_value("")
    lose_answer(page, "**/api/field/settings/*/worked")
    kept.get_by_role("button", name="It worked").first.click()
    expect(kept.get_by_role("listitem").first).to_contain_text("✓ worked", timeout=30_000)
    page.get_by_title("Take 455").click()
    expect(page.get_by_label("Rotor speed")).to_have_value("455")
    accessible(page)
    lose_answer(page, "**/api/field/**/take-back")
    kept.get_by_role("button", name="Take back").first.click()
    expect(page.get_by_title("Take 455")).to_have_count(0, timeout=30_000)


def test_what_was_set_where_there_is_no_signal_is_kept_and_comes_back_if_it_is_refused(page: Page, sign_in):
    sign_in("tomas", at=None)
    page.goto(f"/machines/{machine(page, 'Heron 6')}/field")
    page.get_by_role("combobox", name="Crop").select_option(label="Lupins")
    speed, height, why = (page.get_by_label(name) for name in ("Rotor speed", "First cut height", "Why so"))
    away = page.get_by_role("status").filter(has_text="on its way to the server")
    page.route("**/card", lambda route: route.abort() if route.request.method == "POST" else route.continue_())
    for field, figure, reason in ((speed, "455", "splits in the tank"), (height, "90 spans", "stones")):
        field.fill(figure)
        why.fill(reason)
        page.get_by_role("button", name="Keep how it is set").click()
        expect(field).to_have_value("")
        expect(why).to_have_value("")
    expect(away).to_have_count(2)
    expect(away.first).to_contain_text("Rotor speed 455 1/min")
    page.unroute("**/card")
    settle(page)
    expect(page.get_by_role("region", name="Kept")).to_contain_text("because splits in the tank")
    expect(page.get_by_role("alert")).to_contain_text("Is not a length")
    expect(height).to_have_value("90 spans")
    expect(height).to_have_attribute("aria-invalid", "true")
    expect(why).to_have_value("stones")
    expect(away).to_have_count(0)


def test_whoever_reads_inches_types_them_and_the_next_reads_millimetres(page: Page, sign_in):
    sign_in("ines", at=None)
    heron = machine(page, "Heron 6")
    page.goto(f"/machines/{heron}/field")
    height = page.get_by_label("First cut height")
    height.fill("90")  # begun in millimetres
    page.get_by_role("button", name="in", exact=True).click()
    expect(height).to_have_value("90")
    expect(page.locator("li", has=height).locator(".unit")).to_have_text("mm")  # what was typed means what it meant
    height.fill("3 1/2 in")
    page.get_by_role("button", name="Keep how it is set").click()
    kept = page.get_by_role("region", name="Kept").get_by_role("listitem").first
    expect(kept).to_contain_text("First cut height 3 1/2 in")
    expect(page.locator("li", has=height).locator(".unit")).to_have_text("in")
    page.get_by_role("button", name="mm", exact=True).click()
    expect(kept).to_contain_text("First cut height 88.9 mm")


def test_the_day_is_ticked_in_a_minute_and_the_lead_sees_it(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"/machines/{heron}/today")
    page.get_by_role("button", name="Engine oil: wrong").or_(page.get_by_role("button", name="Engine oil level: wrong")).click()
    form = page.get_by_role("form", name="What is wrong with Engine oil")
    form.get_by_role("button", name="Keep").click()
    expect(form.get_by_role("alert")).to_contain_text("Say what is wrong")
    form.get_by_label("What is wrong").fill("two litres low")
    accessible(page)
    lose_answer(page, "**/api/field/machines/*/daily")
    form.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("two litres low")).to_be_visible(timeout=30_000)
    page.get_by_role("button", name="are right").click()
    expect(page.get_by_text("All looked at")).to_be_visible()
    expect(page.get_by_text("1 day in a row.")).to_be_visible()
    page.goto(f"/machines/{heron}")
    expect(page.get_by_text("two litres low")).to_be_visible()
    page.context.clear_cookies()
    page.set_viewport_size({"width": 1280, "height": 800})
    sign_in("ada")
    page.get_by_role("link", name="Daily cards").click()
    expect(page.get_by_role("listitem").filter(has_text="Heron 4")).to_contain_text("1 day in a row")
    accessible(page)


def test_the_day_is_ticked_without_a_signal_and_stands_when_there_is_one(page: Page, sign_in):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/today")
    page.route("**/daily", lambda route: route.abort() if route.request.method == "POST" else route.continue_())
    page.get_by_role("button", name=re.compile("^Engine oil.*: wrong$")).click()
    page.get_by_role("textbox", name="What is wrong").fill("two litres low")
    page.keyboard.press("Enter")
    oil = page.get_by_role("listitem").filter(has_text="Engine oil")
    expect(oil).to_contain_text("two litres low · on its way")
    first = page.get_by_role("button", name=re.compile(": right$")).nth(1)
    name = first.get_attribute("aria-label").removesuffix(": right")
    first.click()
    expect(page.get_by_role("listitem").filter(has_text=name)).to_contain_text("on its way")
    page.reload()
    expect(oil).to_contain_text("two litres low · on its way")
    page.get_by_role("button", name="are right").click()
    expect(page.get_by_text("All looked at")).to_be_visible()
    page.unroute("**/daily")
    settle(page)
    expect(oil).to_contain_text("two litres low Tomas Vey")
    card = page.request.get(f"/api/field/machines/{heron}/daily").json()
    assert sorted(one["state"] for one in card["items"]) == ["not"] + ["right"] * (len(card["items"]) - 1)


def test_what_was_ticked_without_a_signal_and_not_taken_is_said_with_its_words(page: Page, sign_in):
    sign_in("tomas", at=None)
    page.goto(f"/machines/{machine(page, 'Heron 4')}/today")
    away = [True]
    refusal = {"error": {"field": "day", "message": "that day is over"}}

    def answer(route):
        if route.request.method != "POST":
            return route.continue_()
        return route.abort() if away else route.fulfill(status=422, json=refusal)

    page.route("**/daily", answer)
    page.get_by_role("button", name=re.compile("^Engine oil.*: wrong$")).click()
    page.get_by_role("textbox", name="What is wrong").fill("two litres low")
    page.keyboard.press("Enter")
    oil = page.get_by_role("listitem").filter(has_text="Engine oil")
    expect(oil).to_contain_text("two litres low · on its way")
    away.clear()
    said = oil.get_by_role("alert")
    expect(said).to_contain_text("Daily card, “two litres low” was not taken: that day is over")
    expect(oil).not_to_contain_text("on its way")
    page.unroute("**/daily")
    said.get_by_role("link").click()
    page.get_by_role("button", name="Try again").click()
    settle(page)
    page.go_back()
    expect(oil).to_contain_text("two litres low Tomas Vey")


def test_losses_are_chosen_from_drawings_and_stand_on_the_field_card(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron, walk = machine(page, "Heron 6"), str(uuid.uuid4())
    assert post(page, f"/api/machines/{heron}/walk-arounds", id=walk, phase="first-field", crop="pod").ok
    posture = "header down, engine off"
    assert post(page, f"/api/walk-arounds/{walk}/postures", uuid=str(uuid.uuid4()), posture=posture).ok
    page.goto(f"/walk-arounds/{walk}?check=field-losses")
    losses = page.get_by_role("button", name="Behind it, loose")
    expect(losses.locator("svg.look")).to_be_visible()
    accessible(page)
    losses.click()
    settle(page)
    assert post(page, f"/api/walk-arounds/{walk}/finish", uuid=str(uuid.uuid4())).ok
    page.goto(f"/machines/{heron}/field")
    behind = page.get_by_role("region", name="Looked at behind it")
    expect(behind).to_contain_text("Grain lost, and where: behind it, loose")
    page.get_by_role("combobox", name="Field").fill("Long Silt")
    page.get_by_role("button", name="stony").click()
    page.get_by_role("button", name="Keep how it is set").click()
    expect(page.get_by_role("region", name="Kept").get_by_role("listitem").first).to_contain_text("Long Silt, stony")
    accessible(page)
