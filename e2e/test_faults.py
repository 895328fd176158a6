"""A fault from the operator's words to its cause, on the machine that shakes, with gloves on and answers lost."""

import re

from hands import lose_answer, machine, post, sure
from playwright.sync_api import Page, expect


def test_the_shaking_heron_is_traced_to_its_knife(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/faults")
    heard = page.get_by_role("region", name="What it sounds like").get_by_role("listitem").first
    page.locator("path[data-station=shoe]").click()  # where, on the drawing
    where = page.get_by_role("group", name="Where, Heron 4")
    expect(where.get_by_role("button", name="Cleaning shoe")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="knocks").click()
    expect(heard).to_contain_text("Knock once per shoe stroke")
    page.get_by_role("button", name="knocks").click()
    where.get_by_role("button", name="Cleaning shoe").click()
    page.get_by_role("button", name="Shakes from 900 rpm").click()
    likely = page.get_by_role("region", name="What it sounds like").get_by_role("listitem")
    expect(likely.first).to_contain_text("Machine shakes, with the speed")
    accessible(page)
    lose_answer(page, "**/api/faults/machines/*/traces")
    likely.first.get_by_role("button", name=re.compile("Trace it")).click()
    page.wait_for_url(re.compile(r"/faults/[0-9a-f-]{36}$"), timeout=30_000)
    trace = page.url.rsplit("/", 1)[1]
    causes = page.get_by_role("region", name="What it may be").get_by_role("listitem")
    expect(causes.first).to_contain_text("Chopper knife broken or missing")
    expect(causes.first).to_contain_text("open finding: due")
    accessible(page)
    # What turns is recorded from here, and what the recording names speaks for its causes.
    page.get_by_role("region", name="Recording").get_by_role("link", name="Record again").click()
    page.get_by_role("button", name="Simulated: it shakes").click()
    page.get_by_role("link", name="Back to the fault").click()
    expect(page.get_by_role("region", name="Recording")).to_contain_text("names the chopper")
    expect(causes.first).to_contain_text("a recording names the chopper")
    page.set_viewport_size({"width": 390, "height": 844})
    accessible(page)
    # Another look than the best: residue on the rotor. Hands go in, so its lock is confirmed by an act of its own.
    page.get_by_role("button", name="Residue packed on the rotor").click()
    look = page.get_by_role("article", name="Residue packed on the rotor")
    expect(look.get_by_role("heading")).to_be_focused()  # and in view
    expect(look.get_by_role("button", name="All right there")).to_have_count(0)
    look.get_by_role("button", name="It is locked").click()
    look.get_by_label("What was seen").fill("a little straw, all round")
    lose_answer(page, "**/api/faults/traces/*/answers")
    look.get_by_role("button", name="All right there").click()
    looked = page.get_by_role("region", name="Looked at")
    expect(looked).to_contain_text("a little straw, all round", timeout=30_000)
    expect(causes.filter(has_text="Residue on the rotor")).to_contain_text("ruled out")
    lose_answer(page, "**/api/faults/answers/*/take-back")
    looked.get_by_role("button", name="Take back").click()
    expect(causes.filter(has_text="Residue on the rotor")).not_to_contain_text("ruled out", timeout=30_000)
    page.set_viewport_size({"width": 1280, "height": 800})
    # The best look is a check of the catalogue: its reading is the answer.
    page.get_by_role("link", name="Look, and record it").click()
    page.wait_for_url(re.compile(r"/walk-arounds/.*check=chopper-knives"))
    walk = page.url.split("/walk-arounds/")[1].split("?")[0]
    posture = "inside rear (tail and sieves), engine off"
    assert post(page, f"/api/walk-arounds/{walk}/postures", uuid="01234567-89ab-4cde-8f01-23456789abce", posture=posture).ok
    body = {
        "uuid": "01234567-89ab-4cde-8f01-23456789abcf",
        "check": "chopper-knives",
        "position": "knife-14",
        "raw": ["broken"],
    }
    assert post(page, f"/api/walk-arounds/{walk}/readings", **body).ok
    page.goto(f"/walk-arounds/{walk}?check=chopper-knives")
    page.get_by_role("link", name="The fault").click()
    page.get_by_role("link", name="Go on").click()
    expect(page.get_by_text("Nearly certain: Chopper knife broken or missing")).to_be_visible()
    end = page.get_by_role("form", name="How it ends")
    expect(end.get_by_label("It was")).to_have_value("chopper-knife")
    end.get_by_label("Is it gone?").select_option(label="yes, since a speed or range was changed")
    end.get_by_role("button", name="End the trace").click()
    expect(end.get_by_role("alert")).to_contain_text("not cured")
    page.reload()  # what was said of its end stays
    expect(end.get_by_label("Is it gone?")).to_have_value("other-speed")
    end.get_by_label("Is it gone?").select_option(label="yes, since it was put right")
    lose_answer(page, f"**/api/faults/traces/{trace}/end")
    end.get_by_role("button", name="End the trace").click()
    expect(page.get_by_text("Found: Chopper knife broken or missing")).to_be_visible(timeout=30_000)
    expect(page.get_by_text("noted for the next round")).to_be_visible()
    shown = page.get_by_text(re.compile(r"\d+ min of looking; along the machine it would have been \d+ min")).inner_text()
    made, plain = (int(figure) for figure in re.findall(r"(\d+) min", shown))
    assert made < plain, shown
    accessible(page)
    lose_answer(page, f"**/api/faults/traces/{trace}/go-on")
    page.get_by_role("button", name="That was not it: go on").click()
    expect(end).to_be_visible(timeout=30_000)


def test_what_is_pressed_while_the_search_is_still_on_its_way_is_not_lost(page: Page, sign_in):
    sign_in("ada", at=None)
    page.goto(f"/machines/{machine(page, 'Heron 6')}/faults")
    press = page.get_by_role("button", name="Trace it: Clumps behind the machine")
    press.wait_for()
    late = []
    page.route(re.compile("words="), lambda route: late.append(route))
    with page.expect_request(re.compile("words=")):
        page.get_by_label("What do you notice?").fill("clumps behind")
    press.click()
    late[0].continue_()
    expect(page.get_by_role("form", name="How it ends")).to_be_visible()


def test_what_the_shop_found_beside_the_list_is_looked_for_the_next_time(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    heron = machine(page, "Heron 6")
    page.goto(f"/machines/{heron}/faults")
    page.get_by_label("What do you notice?").fill("clumps behind")
    page.get_by_role("button", name="Trace it: Clumps behind the machine").click()
    end = page.get_by_role("form", name="How it ends")
    end.get_by_label("It was").select_option(label="Something else")
    end.get_by_label("In words").fill("Wind board came loose")
    end.get_by_role("button", name="End the trace").click()
    page.get_by_role("link", name="Look for it the next time").click()
    form = page.get_by_role("form", name="A cause of: Clumps behind the machine")
    expect(form.get_by_label("It was")).to_have_value("Wind board came loose")
    form.get_by_label("Look at").fill("Wind board over the sieves")
    form.get_by_label("How one sees it").fill("Lamp from behind: it hangs on one side.")
    form.get_by_role("button", name="Add the cause").click()
    expect(form.get_by_role("alert")).to_contain_text("how the machine stands")
    page.reload()  # what was typed stands where it was typed
    expect(form.get_by_label("Look at")).to_have_value("Wind board over the sieves")
    stands = form.get_by_role("combobox", name="It stands")
    stands.select_option(label="Inside rear (tail and sieves), engine off")
    accessible(page)
    lose_answer(page, "**/api/faults/machines/*/own-causes")
    form.get_by_role("button", name="Add the cause").click()
    away = page.get_by_role("button", name="Take away: Wind board came loose")
    expect(away).to_be_visible(timeout=30_000)
    page.set_viewport_size({"width": 390, "height": 844})
    accessible(page)
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("link", name="All faults").click()
    page.get_by_label("What do you notice?").fill("clumps behind")
    page.get_by_role("button", name="Trace it: Clumps behind the machine").click()
    others = page.get_by_role("region", name="Or look at this")
    expect(page.get_by_role("region", name="What it may be")).to_contain_text("Wind board came loose")
    expect(others.get_by_role("button", name="Wind board over the sieves")).to_be_visible()
    page.goto(f"/machines/{heron}/symptoms?symptom=clumps")
    sure(page, away, "Take it away")
    expect(away).to_have_count(0)
    own = page.get_by_role("form", name="A symptom that is not listed")
    own.get_by_label("What is noticed").fill("Squeals on a cold morning")
    own.get_by_label("Cleaning shoe").check()
    lose_answer(page, "**/api/faults/machines/*/own-symptoms")
    own.get_by_role("button", name="Add the symptom").click()
    expect(page.get_by_role("form", name="A cause of: Squeals on a cold morning")).to_be_visible(timeout=30_000)
    expect(own.get_by_label("What is noticed")).to_have_value("")
    sure(page, page.get_by_role("button", name="Take away: Squeals on a cold morning"), "Take it away")
    expect(page.get_by_role("button", name="of: Squeals on a cold morning")).to_have_count(0)


def test_two_swaps_prove_the_motor_of_a_row(page: Page, sign_in, accessible):
    sign_in("ines", at=None)
    planter = machine(page, "Dunmere 12")
    page.goto(f"/machines/{planter}/faults")
    form = page.get_by_role("form", name="A row reports a fault: swap test")
    form.get_by_label("Row with the fault").fill("7")
    form.get_by_label("A row that runs").fill("70")
    form.get_by_role("button", name="Begin the swap test").click()
    expect(form.get_by_role("alert")).to_contain_text("row from 1 to 12")
    expect(form.get_by_label("Row with the fault")).to_have_value("7")
    form.get_by_label("A row that runs").fill("8")
    form.get_by_role("button", name="Numbers of the parts").click()
    form.get_by_label("Row 7: controller").focus()  # a scanner ends each number with Enter
    for field, scanned in (("controller", ""), ("motor", "M-1180"), ("sensor", "")):
        expect(form.get_by_label(f"Row 7: {field}")).to_be_focused()
        page.keyboard.type(scanned)
        page.keyboard.press("Enter")
    expect(form.get_by_label("Row 8: controller")).to_be_focused()
    accessible(page)
    form.get_by_role("button", name="Begin the swap test").click()
    page.wait_for_url(re.compile("/swap-tests/"))
    run = page.get_by_role("region", name="As it stands")
    expect(run).to_be_visible()
    accessible(page)
    page.keyboard.press("f")  # row 7 has the fault
    lose_answer(page, "**/api/faults/swap-tests/*/runs")
    page.keyboard.press(".")  # row 8 runs
    runs = page.get_by_role("region", name="Runs", exact=True).get_by_role("listitem")
    expect(runs).to_have_count(1, timeout=30_000)
    expect(page.get_by_text("Swap the controller of row 7 with that of row 8")).to_be_visible()
    page.set_viewport_size({"width": 390, "height": 844})
    accessible(page)
    page.get_by_role("button", name="Row 7: fault").click()
    page.get_by_role("button", name="Row 8: runs").click()
    expect(runs).to_have_count(2)
    expect(page.get_by_text("Swap the motor of row 7 with that of row 8")).to_be_visible()
    page.get_by_role("button", name="Row 7: runs").click()
    page.get_by_role("button", name="Row 8: fault").click()
    expect(page.get_by_text("Motor M-1180: moved with the motor")).to_be_visible()
    page.set_viewport_size({"width": 1280, "height": 800})
    accessible(page)
    lose_answer(page, "**/api/faults/swap-runs/*/take-back")
    runs.last.get_by_role("button", name="Take back").click()
    expect(runs).to_have_count(2, timeout=30_000)
    page.keyboard.press(".")
    page.keyboard.press("f")
    expect(page.get_by_text("Motor M-1180: moved with the motor")).to_be_visible()
    lose_answer(page, "**/api/faults/swap-tests/*/end")
    page.get_by_role("button", name="A new motor is fitted on row 8: end").click()
    expect(page.get_by_text("A new one was fitted.")).to_be_visible(timeout=30_000)
    lose_answer(page, "**/api/faults/swap-tests/*/go-on")
    page.get_by_role("button", name="Go on").click()
    page.get_by_role("button", name="A new motor is fitted on row 8: end").click()
    expect(page.get_by_text("A new one was fitted.")).to_be_visible()
