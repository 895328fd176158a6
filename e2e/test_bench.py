"""The bench by keyboard, its log, links and files; gauges and washers in the walk-around; readings from a file."""

import json
import re

import pytest
from hands import post, settle, start, sure
from playwright.sync_api import Page, expect

from lumvek_core.workbench.model import Table
from lumvek_core.workbench.subjects import SUBJECTS

DUNMERE_12 = "2bf30ed0-2ed8-5dd5-bceb-b7131910ad62"
HERON_6 = "7b08ba11-414b-5319-a0bd-a4c61b7c2f05"


def put(page: Page, text: str, kind: str):
    """Type into the focused field what belongs there, and Enter."""
    if kind in ("choice", "yes-no"):
        if text:
            page.keyboard.type(text)
    else:
        page.keyboard.press("Control+a")
        page.keyboard.press("Delete")
        # A long run of figures comes at once, as from a clipboard: each key would ask the server anew.
        (page.keyboard.insert_text if len(text) > 40 else page.keyboard.type)(text)
    page.keyboard.press("Enter")


def choice_name(field, key):
    return next((choice.name for choice in field.choices if choice.key == key), "")


def shown(field, texts):
    starts = {one.key: getattr(one, "start", "") for one in SUBJECTS[texts["_subject"]].fields}
    return all(texts.get(key, starts.get(key)) in wanted for key, wanted in field.when.items())


def type_all(page: Page, subject, texts):
    """Everything an example says, field by field, with nothing but the keyboard."""
    texts = {**texts, "_subject": subject.key}
    page.locator(".form").locator("input, select, textarea").first.focus()
    for field in subject.fields:
        if not shown(field, texts):
            continue
        if not isinstance(field, Table):
            text = texts.get(field.key, field.start)
            put(page, choice_name(field, text) if field.kind == "choice" else text, field.kind)
            continue
        rows = texts.get(field.key, [])
        for row in rows:
            cells = [*row, *[""] * (len(field.columns) - len(row))]
            for column, cell in zip(field.columns, cells, strict=True):
                put(page, choice_name(column, cell) if column.choices else cell, column.kind)
        for _ in field.columns:  # past the empty row that waits at the end
            page.keyboard.press("Enter")


@pytest.mark.parametrize("key", list(SUBJECTS))
def test_every_subject_is_worked_with_the_keyboard_alone(key, page: Page, sign_in, accessible):
    sign_in(at="/bench")
    link = page.get_by_role("link", name=SUBJECTS[key].name).first
    link.focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Empty").focus()
    page.keyboard.press("Enter")
    subject = SUBJECTS[key]
    example = subject.examples[-1]
    type_all(page, subject, dict(example.texts))
    texts = {field.key: field.start for field in subject.fields if not isinstance(field, Table)} | dict(example.texts)
    expected = post(page, f"/api/bench/{key}", texts=texts).json()
    expect(page.locator(".answer .big span").first).to_have_text(expected["answer"])
    expect(page.locator(".answer svg.drawing")).to_be_visible()
    why = page.get_by_role("button", name="Why?")
    why.focus()
    page.keyboard.press("Enter")
    expect(page.locator(".reasons li").first).to_have_text(expected["why"][0])
    accessible(page)


def test_an_answer_is_kept_linked_copied_and_written_as_a_file(page: Page, sign_in):
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    sign_in(at="/bench/wear")
    page.get_by_role("combobox", name="Machine").select_option(label="Dunmere 12")
    page.get_by_label("Reading", exact=True).fill("15 1/4")
    page.get_by_role("textbox", name="Limit").fill("386")
    page.get_by_role("textbox", name="When new").fill("400")
    expect(page.locator(".answer .big")).to_contain_text("90 % used")
    page.get_by_role("button", name="Save to its log").dblclick()
    expect(page.locator(".said")).to_have_text("Saved to the log of Dunmere 12.")
    page.get_by_role("button", name="Copy as text").click()
    assert "90 % used" in page.evaluate("navigator.clipboard.readText()")
    page.get_by_role("button", name="Copy link").click()
    link = page.evaluate("navigator.clipboard.readText()")
    with page.expect_download() as download:
        page.get_by_role("button", name="Export as JSON").click()
    assert json.loads(download.value.path().read_text())["runs"]["wear_used"]["given"]["limit"] == 386
    page.goto(link)
    expect(page.get_by_label("Reading", exact=True)).to_have_value("15 1/4")
    expect(page.locator(".answer .big")).to_contain_text("90 % used")
    page.goto("/")
    page.get_by_role("link", name="Dunmere 12", exact=True).click()
    log = page.get_by_role("region", name="Worked out at the bench")
    expect(log.get_by_role("listitem")).to_have_count(1)
    sure(page, log.get_by_role("button", name="Take back"), "Take it back")
    expect(log).to_have_count(0)


def test_a_machine_brings_its_own_limits(page: Page, sign_in):
    sign_in(at="/bench/opener")
    page.get_by_role("combobox", name="Machine").select_option(label="Dunmere 12")
    expect(page.get_by_label("Disc limit")).to_have_value("386 mm")
    expect(page.get_by_text("Dunmere 12: operator's manual")).to_be_visible()


def test_bad_input_stands_at_its_field_and_keeps_what_was_typed(page: Page, sign_in):
    sign_in(at="/bench/chain")
    field = page.get_by_label("Length under tension")
    field.fill("84q")
    expect(page.locator(".one", has=field).get_by_role("alert")).to_contain_text("not a unit of length")
    expect(field).to_have_value("84q")
    page.reload()
    expect(field).to_have_value("84q")


def test_a_run_of_spacings_is_dropped_in(page: Page, sign_in, tmp_path):
    sign_in(at="/bench/spacing")
    file = tmp_path / "run.csv"
    file.write_text("seed,spacing_mm\n" + "\n".join(f"{i},{160 + i % 9}" for i in range(120)) + "\n120,abc\n")
    page.locator("input[type=file]").set_input_files(file)
    expect(page.locator(".said")).to_have_text("120 taken from run.csv, 1 line cannot be used.")
    expect(page.locator(".answer .big")).to_contain_text("100 % regular")
    expect(page.get_by_text("Line 122")).to_be_visible()
    page.get_by_role("button", name="worn", exact=True).click()
    expect(page.locator(".said")).to_contain_text("simulated test stand")
    expect(page.locator(".answer .big")).not_to_contain_text("100 % regular")


def place(page: Page, walk_around: str, check: str, position: str):
    places = page.request.get(f"/api/walk-arounds/{walk_around}").json()["places"]
    return next((one for one in places if (one["check"], one["position"]) == (check, position)), None)


def test_a_gauge_types_into_the_walk_around_and_its_sign_is_no_key(page: Page, sign_in):
    sign_in(at=f"/walk-arounds/{DUNMERE_12}?check=seed-tube-guard&at=12")
    page.get_by_role("button", name="Only look or correct").click()
    field = page.locator("#reading")
    field.wait_for()
    field.focus()
    page.keyboard.type("+0021.40", delay=4)
    page.keyboard.press("Enter")
    settle(page)
    assert place(page, DUNMERE_12, "seed-tube-guard", "12")["shown"] == "21.4 mm"
    page.goto(f"/walk-arounds/{DUNMERE_12}?check=gauge-wheel-gap&at=12R")
    page.get_by_role("button", name="Only look or correct").click()
    page.get_by_text("Simulated gauge").first.click()
    page.get_by_role("button", name="caliper").click()
    settle(page)
    expect(page.locator(".verdict b").first).to_be_visible()
    read = place(page, DUNMERE_12, "gauge-wheel-gap", "12R")
    assert read["raw"][0].startswith("+"), "typed as a caliper types"


def test_moving_a_washer_as_advised_leads_to_measuring_again(page: Page, sign_in):
    sign_in(at=f"/walk-arounds/{DUNMERE_12}?check=opener-contact&at=6")
    page.get_by_role("button", name="Only look or correct").click()
    expect(page.locator(".rows").get_by_text("(3 trials here)")).to_be_visible()
    page.get_by_role("button", name=re.compile("moved: measure again")).click()
    expect(page.get_by_text("Washers were moved here since: measure again.")).to_be_visible()
    washers = [place(page, DUNMERE_12, "washers", f"6{side}")["raw"] for side in "LR"]
    assert sorted(washers) == [["0", "3"], ["1", "2"]]
    for span in ("46", "47", "46"):
        page.keyboard.type(span)
        page.keyboard.press("Enter")
    settle(page)
    again = place(page, DUNMERE_12, "opener-contact", "6")
    assert (again["severity"], again["ask"]) == ("sound", "")


def test_corrections_and_drawings_stand_beside_the_field(page: Page, sign_in):
    sign_in(at=f"/walk-arounds/{HERON_6}?check=feeder-take-up&at=L")
    page.get_by_role("button", name="Only look or correct").click()
    expect(page.get_by_role("img", name=re.compile("Take-up .* used of"))).to_be_visible()


def test_readings_from_a_file_are_shown_before_they_are_taken(page: Page, sign_in, tmp_path, accessible):
    sign_in("ada", at=None)
    started = start(page, "Dunmere 6")
    file = tmp_path / "gauge.csv"
    file.write_text(
        "check,position,typed\nopener-disc-diameter,1L,376\nopener-disc-diameter,1R,37,5,x\nopener-disc-diameter,7L,376\n"
    )
    page.goto(f"/walk-arounds/{started}/summary")
    page.get_by_label("Read a CSV or XLSX file in").set_input_files(file)
    expect(page.get_by_text("2 would be taken")).to_be_visible()
    expect(page.get_by_text("no position of opener disc diameter")).to_be_visible()
    assert place(page, started, "opener-disc-diameter", "1L") is None
    accessible(page)
    page.get_by_role("button", name="Take 2").click()
    expect(page.get_by_text("2 taken")).to_be_visible()
    assert place(page, started, "opener-disc-diameter", "1L")["raw"] == ["376"]


@pytest.mark.parametrize(("units", "shown"), [("mm", "mm"), ("in", "in")])
def test_a_bare_length_says_what_it_is_taken_for(units, shown, page: Page, sign_in):
    sign_in("ines")
    page.get_by_role("button", name=units, exact=True).click()
    page.goto("/bench/chain")
    pitch = page.locator(".typed").filter(has=page.get_by_label("Pitch", exact=True))
    page.get_by_label("Pitch", exact=True).fill("1.63")
    expect(pitch.locator(".unit")).to_have_text(shown)
    page.get_by_label("Pitch", exact=True).fill("1 5/8")  # which can only be inches
    expect(pitch.locator(".unit")).to_be_empty()
