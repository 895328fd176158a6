"""Barley to sunflower and back on the Heron 4, and the calibrations that follow, at the pace of hands."""

import re

from hands import lose_answer, machine, post, settle
from playwright.sync_api import Page, expect


def choose(page: Page, crop: str, header: str):
    page.get_by_role("combobox", name="Next crop").select_option(label=crop)
    page.get_by_role("combobox", name="with", exact=True).select_option(label=header)


def test_barley_to_sunflower_one_side_forgotten_and_back(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/changeover")
    expect(page.get_by_text("Choose the crop that comes.")).to_be_visible()
    choose(page, "Sunflower", "Maddow 8")
    expect(page.get_by_text(re.compile("10 items to set"))).to_be_visible()
    drum = page.get_by_role("listitem").filter(has_text="Feeder drum fitted")
    expect(drum).to_contain_text("Left, Right")
    expect(page.get_by_role("listitem").filter(has_text="Stationary knives")).to_contain_text("not into this crop as it is")
    order = page.get_by_role("region", name="Calibrate afterwards, in this order").get_by_role("listitem")
    raise_speed, height = (order.filter(has_text=re.compile(f"^{name}")) for name in ("Feeder raise speed", "Header height"))
    assert raise_speed.bounding_box()["y"] < height.bounding_box()["y"], "the height rests on the speed"
    accessible(page)
    page.set_viewport_size({"width": 390, "height": 844})
    accessible(page)
    page.set_viewport_size({"width": 1280, "height": 800})
    lose_answer(page, "**/api/machines/*/walk-arounds")
    page.get_by_role("button", name="Begin the changeover").click()
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_role("button", name="Begin the changeover").click()  # the same one: its answer was lost
    page.wait_for_url(re.compile("/walk-arounds/"))
    walk = page.url.split("/walk-arounds/")[1].split("?")[0]
    posture = "header raised, feeder lock engaged, engine off"
    held = "01234567-89ab-4cde-8f01-23456789abcd"
    assert post(page, f"/api/walk-arounds/{walk}/postures", uuid=held, posture=posture).ok
    page.goto(f"/walk-arounds/{walk}?check=drum-position")
    expect(page.get_by_text("for ear crops").first).to_be_visible()
    page.keyboard.press(".")  # as the crop would have it
    expect(page.get_by_text("Up, as ear crops want", exact=False).first).to_be_visible()
    page.context.set_offline(True)  # out at the machine there is no signal
    page.keyboard.press("1")  # down: the other side is forgotten
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 kept", exact=True)).to_be_visible()
    expect(page.get_by_text("Down; ear crops want: up", exact=False)).to_have_count(0)
    page.context.set_offline(False)
    settle(page)
    expect(page.get_by_text("Down; ear crops want: up", exact=False).first).to_be_visible()
    page.goto(f"/machines/{heron}/changeover")
    expect(page.get_by_text("A changeover of this machine is under way.")).to_be_visible()
    choose(page, "Sunflower", "Maddow 8")
    expect(drum).to_contain_text("Right")
    expect(drum).not_to_contain_text("Left")
    choose(page, "Malting barley", "Sill 61")
    expect(drum).to_contain_text("Left")
    with page.expect_popup() as card:
        page.get_by_role("link", name="Print the card").click()
    expect(card.value.get_by_text("changeover to small grain")).to_be_visible()


def test_calibrations_in_order_one_aborted_one_saved(page: Page, sign_in, accessible):
    sign_in("ines", at=None)
    heron = machine(page, "Heron 6")
    page.goto(f"/machines/{heron}/calibrations")
    page.get_by_role("combobox", name="On it").select_option(label="Maddow 8")
    lose_answer(page, "**/api/calibration/machines/*/happened")
    page.get_by_role("button", name="It was coupled").click()
    due = page.get_by_role("list", name="Due, in this order")
    expect(due.get_by_role("heading", name="Deck plates")).to_be_visible(timeout=30_000)
    height = due.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Header height"))
    expect(height).to_contain_text(
        "After feeder raise speed: the height control moves the header with the speed that was found there."
    )
    accessible(page)
    page.get_by_role("link", name="Begin Feeder raise speed").click()
    begin = page.get_by_role("button", name="Begin")
    expect(begin).to_be_disabled()
    accessible(page)
    expect(page.get_by_role("checkbox").first).to_be_visible()
    for one in page.get_by_role("checkbox").all():
        one.check()
    begin.click()
    expect(page.get_by_text("Begin the calibration and hold the raise switch.")).to_be_visible()
    page.get_by_role("button", name="Count from now").click()
    accessible(page)
    page.reload()
    expect(page.get_by_role("heading", name="Step 1 of 3")).to_be_visible()
    page.get_by_role("button", name="Done").click()
    page.get_by_role("button", name="Abort").click()
    page.get_by_label("Aborting loses it").fill("figures stood still")
    page.get_by_role("button", name="Abort it").click()
    log = page.get_by_role("region", name="What came of them")
    expect(log).to_contain_text("Feeder raise speed aborted after step 1 of 3: figures stood still")
    page.get_by_role("link", name="Begin Feeder raise speed").click()
    expect(page.get_by_role("checkbox").first).to_be_visible()
    for one in page.get_by_role("checkbox").all():
        one.check()
    page.get_by_role("button", name="Begin").click()
    for _ in range(3):
        page.get_by_role("button", name="Done").click()
    expect(page.get_by_role("heading", name="Did it work?")).to_be_visible()
    page.get_by_label("Value found").fill("about 40")
    page.get_by_role("button", name="It worked").click()
    expect(page.get_by_role("heading", name="Is it saved on the machine?")).to_be_visible()
    page.get_by_role("button", name="Yes, it is saved").click()
    expect(page.get_by_role("alert")).to_contain_text("figure")
    page.get_by_role("button", name="Back").click()
    page.get_by_label("Value found").fill("43")
    page.get_by_role("button", name="It worked").click()
    lose_answer(page, "**/api/calibration/machines/*/runs")
    page.get_by_role("button", name="Yes, it is saved").click()
    expect(log).to_contain_text("Feeder raise speed saved: Value found 43", timeout=30_000)
    expect(due.get_by_role("heading", name="Feeder raise speed")).to_have_count(0)
    log.get_by_role("button", name="Take back Feeder raise speed").first.click()
    expect(due.get_by_role("heading", name="Feeder raise speed")).to_be_visible()


def test_an_offset_is_worked_out_of_loads_that_were_weighed_later(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/calibrations")
    form = page.get_by_role("form", name="Collect a load")
    form.get_by_label("Field or trailer").fill("Long Drain, 2")
    form.get_by_role("button", name="Collect").click()
    expect(page.get_by_role("alert")).to_contain_text("kilograms or moisture")
    expect(form.get_by_label("Field or trailer")).to_have_value("Long Drain, 2")
    form.get_by_label("shown").press_sequentially("14,2")
    form.get_by_label("Machine").fill("2080")
    form.get_by_role("button", name="Collect").click()
    expect(form.get_by_label("Field or trailer")).to_have_value("")  # kept, and not kept twice
    load = page.get_by_role("form", name="What was found of Long Drain, 2")
    load.get_by_label("Scale").fill("2000")
    load.get_by_label("Store").fill("about 16")
    load.get_by_role("button", name="Keep").click()
    expect(load.get_by_role("alert")).to_contain_text("Must be a figure")
    load.get_by_label("Store").fill("15,9")
    lose_answer(page, "**/api/calibration/loads/*/weigh*")
    load.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("machine 2080 kg, scale 2000 kg, shown 14.2 %, store 15.9 %")).to_be_visible()
    expect(
        page.get_by_role("region", name="Loads for yield and moisture").get_by_role("button", name="Take back").first
    ).to_be_visible()
    page.get_by_role("combobox", name="Something was done").select_option(
        label="The grain store disagrees with the moisture shown"
    )
    page.get_by_role("button", name="Note it").click()
    page.get_by_role("link", name="Begin Moisture offset").click()
    page.get_by_role("checkbox").first.check()
    page.get_by_role("button", name="Begin").click()
    worked = page.get_by_role("region", name="Moisture offset")
    worked.get_by_label("Offset stored now").fill("-0.8")
    expect(worked).to_contain_text("Store +0.9 %")
    accessible(page)
    for _ in range(3):
        page.get_by_role("button", name="Done").click()
    page.get_by_label("Offset, %").fill("1.7")
    page.get_by_role("button", name="It worked").click()
    page.get_by_role("button", name="Yes, it is saved").click()
    expect(page.get_by_role("alert")).to_contain_text("bare difference")
    page.get_by_role("button", name="Back").click()
    page.get_by_role("button", name="Take this figure").click()
    expect(page.get_by_label("Offset, %")).to_have_value("0.9")
    page.get_by_role("button", name="It worked").click()
    page.get_by_role("button", name="Yes, it is saved").click()
    expect(page.get_by_role("region", name="What came of them")).to_contain_text("Moisture offset saved: Offset 0.9 %")


def test_a_kept_length_is_typed_in_inches_and_kept_through_a_refusal(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/calibrations/sieve-opening")
    page.get_by_role("button", name="in", exact=True).click()
    expect(page.get_by_role("checkbox").first).to_be_visible()
    for one in page.get_by_role("checkbox").all():
        one.check()
    page.get_by_role("button", name="Begin").click()
    while page.get_by_role("button", name="Done").is_visible():
        page.get_by_role("button", name="Done").click()
    expect(page.get_by_role("heading", name="Did it work?")).to_be_visible()
    expect(page.get_by_label("Sieve, line 1")).to_have_value("Chaffer")
    expect(page.get_by_label("Gap left, line 1")).to_have_value("")
    expect(page.get_by_role("button", name="Take this figure")).to_have_count(0)
    chaffer = page.get_by_label("Chaffer to add, in")
    chaffer.fill("2")
    page.get_by_label("Sieve to add, in").fill("-1/8")
    accessible(page)
    page.get_by_role("button", name="It worked").click()
    page.get_by_role("button", name="Yes, it is saved").click()
    expect(page.get_by_role("alert")).to_contain_text("between −1 3/16 and 1 3/16 in")
    page.get_by_role("button", name="Back").click()
    expect(chaffer).to_have_value("2")
    chaffer.fill("2 mm")
    page.get_by_role("button", name="It worked").click()
    page.get_by_role("button", name="Yes, it is saved").click()
    log = page.get_by_role("region", name="What came of them")
    expect(log).to_contain_text("Chaffer and sieve opening saved: Chaffer to add 79 thou, Sieve to add −1/8 in")
