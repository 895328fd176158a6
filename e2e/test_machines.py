"""A combine with its header, posture by posture; what a shop decides; a report by its link."""

import re

import pytest
from hands import settle, start, sure, unlock
from playwright.sync_api import Page, Route, expect

from demo.pictures import drawn

HERON_4 = "ebf6c402-9e3b-5278-a338-5c8a284346b2"


def answer(check: dict) -> list[str]:
    """Keys that record something sound for a check."""
    if check["options"]:
        return ["1"]
    limits = check["limits"]
    if "low" in limits and "high" in limits:
        text = str((limits["low"] + limits["high"]) / 2)
    else:
        text = {"interval": "2100 h", "count": "0", "note": "nothing noticed"}.get(check["kind"], "12")
    return [*text, "Enter"]


def test_a_combine_posture_by_posture_by_keyboard_to_the_shared_report(page: Page, sign_in, accessible, new_context):
    sign_in()
    page.get_by_role("link", name="Heron 6", exact=True).click()
    page.get_by_label("Daily", exact=False).first.check()
    page.get_by_label("Weir 107").check()
    page.get_by_label("Ines Marrow").check()
    expect(page.get_by_text(re.compile(r"of moving the machine, \d+ min station by station"))).to_be_visible()
    accessible(page)
    # One is under way: going on with it comes first, and a second one wants a reason.
    expect(page.get_by_role("button", name=re.compile("Go on with the winter"))).to_be_visible()
    page.get_by_role("button", name="Begin a second one").click()
    page.keyboard.type("daily round with the stripper")
    page.get_by_role("button", name="Begin the second one").click()
    gate = page.locator(".gate .main")
    gate.wait_for()
    accessible(page)
    walk_around = page.url.split("/")[-1].partition("?")[0]
    checks = {c["key"]: c for c in page.request.get(f"/api/walk-arounds/{walk_around}").json()["checks"]}

    postures, marked_in_bulk = [], 0
    field = page.locator("#reading")
    for _ in range(400):
        gate.or_(field).first.wait_for()
        if gate.is_visible():
            postures.append(page.locator(".gate h2").inner_text())
            unlock(page)
            continue
        if page.get_by_text("Every place has been looked at.").is_visible():
            break
        key = re.search(r"check=([^&]+)", page.url)[1]
        if key == "draper.knife-sections":
            page.keyboard.type("3: 7, 21, 22")
            page.keyboard.press("Enter")
            continue
        rest = page.get_by_role("button", name=re.compile(r"rest right"))
        if rest.count() and checks[key]["bulk"] and not marked_in_bulk:
            marked_in_bulk = int(re.search(r"\((\d+)\)", rest.inner_text())[1])
            page.keyboard.press("+")
            expect(page.get_by_text(f"+ again: {marked_in_bulk} place")).to_be_visible()
            page.keyboard.press("+")
            continue
        before = page.url
        for pressed in answer(checks[key]):
            page.keyboard.press(pressed)
        if page.url == before:
            page.wait_for_timeout(50)
    settle(page)
    assert len(postures) >= 8 and len(set(postures)) == len(postures), "each posture is taken up once"
    assert marked_in_bulk >= 1

    # A picture of the knife, with its caption.
    page.goto(f"/walk-arounds/{walk_around}?check=draper.knife-sections")
    page.get_by_role("button", name="Only look or correct").click()
    page.keyboard.press("Alt+p")
    page.keyboard.type("Three chipped")
    page.locator("input[type=file]").set_input_files({"name": "k.jpg", "mimeType": "image/jpeg", "buffer": drawn("knife")})
    expect(page.get_by_alt_text("Three chipped")).to_be_visible()
    page.keyboard.press("Alt+p")
    page.keyboard.type("Blurred")
    page.locator("input[type=file]").set_input_files({"name": "k.png", "mimeType": "image/jpeg", "buffer": drawn("blur")})
    page.get_by_role("button", name="Remove picture Blurred").click()
    expect(page.get_by_alt_text("Blurred")).to_have_count(0)
    accessible(page)

    # A companion is declined, with its reason.
    page.get_by_role("link", name="Parts", exact=True).click()
    row = page.get_by_role("row").filter(has_text="Section bolt set")
    row.get_by_role("button", name="Decline").click()
    page.keyboard.type("bolts are new")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("bolts are new")

    page.get_by_role("link", name="Summary", exact=True).click()
    expect(page.get_by_role("heading", name="Complete: every place has been seen.")).to_be_visible()
    page.get_by_role("button", name="Finish walk-around").click()
    page.get_by_role("heading", name=re.compile("findings?")).first.wait_for()
    page.get_by_role("button", name="Make a link").click()
    link = page.locator(".made a").get_attribute("href")
    accessible(page)

    # Whoever has the link reads this one report without an account.
    stranger = new_context().new_page()
    stranger.goto(link)
    expect(stranger.get_by_role("heading", name="Heron 6: what was found")).to_be_visible()
    expect(stranger.get_by_text("3 of 140 (7, 21, 22)")).to_be_visible()
    expect(stranger.get_by_alt_text("Knife sections: Three chipped")).to_be_visible()
    assert stranger.evaluate("document.images[0].naturalWidth") > 100
    accessible(stranger)
    sure(page, page.get_by_role("button", name="End it now"), "End the link")
    expect(page.get_by_role("button", name="End it now")).to_have_count(0)
    stranger.reload()
    expect(stranger.get_by_role("heading", name="This link has ended")).to_be_visible()
    stranger.context.close()


def test_a_stop_stays_on_top_until_it_is_cleared(page: Page, sign_in):
    sign_in(at=None)
    started = start(page, "Heron 4")
    page.goto(f"/walk-arounds/{started}?check=tie-rods&at=L")
    unlock(page)
    page.keyboard.press("2")
    bar = page.get_by_role("alert").filter(has_text="Do not run or drive")
    expect(bar).to_contain_text("Tie rods, left")
    page.goto(f"/walk-arounds/{started}?check=wheel-bolts")
    expect(bar).to_be_visible()
    page.get_by_role("link", name="Summary", exact=True).click()
    expect(page.get_by_text("Stop. Tie rods, left:")).to_be_visible()
    page.get_by_role("link", name="Read again").click()
    page.locator("#reading").wait_for()
    page.keyboard.press("1")
    expect(bar).to_have_count(0)


def test_going_to_another_posture_asks_for_its_locks_again(page: Page, sign_in):
    sign_in(at=None)
    started = start(page, "Heron 4")
    page.goto(f"/walk-arounds/{started}?check=feeder-trash")
    unlock(page)
    page.locator("#reading").wait_for()
    page.get_by_role("button", name=re.compile("Shields open, engine off")).first.click()
    expect(page.locator(".gate h2")).to_have_text("Shields open, engine off")
    unlock(page)
    page.locator("#reading").wait_for()
    page.go_back()
    expect(page.locator(".gate h2")).to_have_text("Header raised, feeder lock engaged, engine off")


def test_the_second_technician_sees_readings_and_that_the_machine_was_moved(page: Page, sign_in, new_context):
    sign_in(at=None)
    started = start(page, "Heron 4")
    page.goto(f"/walk-arounds/{started}?check=feeder-trash")
    unlock(page)
    page.locator("#reading").wait_for()
    other = new_context().new_page()
    sign_in("ines", at=None, on=other)
    other.goto(f"/walk-arounds/{started}?check=drum-bearings")
    other.locator("#reading").wait_for()
    other.keyboard.press("1")
    expect(page.get_by_text("Ines Marrow: 1 place read meanwhile")).to_be_visible()
    other.get_by_role("button", name=re.compile("Shields open, engine off")).first.click()
    unlock(other)
    expect(page.locator(".gate h2")).to_have_text("Header raised, feeder lock engaged, engine off")
    other.context.close()


def test_the_lead_changes_a_limit_and_a_school_and_it_is_logged(page: Page, sign_in, accessible):
    sign_in("ada")
    page.get_by_role("link", name="Shop", exact=True).click()
    page.get_by_role("link", name="Rules").click()
    page.get_by_label("Model", exact=True).select_option(label="Dunmere 6 (row-crop planter)")
    page.get_by_label("Find a limit").fill("guard width")
    page.get_by_role("button", name="Change Seed tube guard width, Renew at").click()
    page.keyboard.type("a bit")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_label("Seed tube guard width: Renew at").fill("18.5")
    page.keyboard.press("Enter")
    row = page.get_by_role("row").filter(has_text="Renew at")
    expect(row).to_contain_text("18.5 mm")
    expect(row).to_contain_text("this shop")
    accessible(page)
    page.get_by_role("link", name="Schools").click()
    page.get_by_label("Once round the machine").check()
    expect(page.get_by_label("Once round the machine")).to_be_checked()
    page.goto("/rules?tab=schools")
    expect(page.get_by_label("With the crop or the soil")).to_be_checked()  # what is not saved is not so
    page.get_by_label("Once round the machine").check()
    accessible(page)
    page.get_by_role("button", name="Save: Order of a walk-around").click()
    expect(page.get_by_role("status").filter(has_text="once round the machine from now on")).to_be_visible()
    page.get_by_role("link", name="Feelers").click()
    page.get_by_label("Name of the feeler").fill("folded paper")
    page.get_by_label("Thickness", exact=True).fill("0.21 mm")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row").filter(has_text="folded paper")).to_contain_text("0.21 mm")
    page.get_by_role("link", name="What was changed").click()
    expect(page.get_by_role("row").filter(has_text="Order of a walk-around")).to_contain_text("Once round the machine")
    expect(page.get_by_role("row").filter(has_text="Seed tube guard width")).to_contain_text(
        "19.05 mm (3/4 in) (starting value)"
    )
    page.get_by_role("link", name="Schools").click()
    page.get_by_label("With the crop or the soil").check()
    page.get_by_role("button", name="Save: Order of a walk-around").click()
    expect(page.get_by_role("status").filter(has_text="with the crop or the soil from now on")).to_be_visible()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_label("Once round the machine")).to_be_checked()
    page.get_by_role("link", name="Feelers").click()
    page.get_by_role("button", name="Remove folded paper").click()
    expect(page.get_by_role("row").filter(has_text="folded paper")).to_have_count(0)
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("row").filter(has_text="folded paper")).to_contain_text("0.21 mm")


def test_what_is_put_back_is_the_change_that_was_said_last_however_late_it_is(page: Page, sign_in):
    sign_in("ada", at="/rules?tab=schools")
    save, back = page.get_by_role("button", name="Save: Order of a walk-around"), page.get_by_role("button", name="Put it back")
    page.get_by_label("Once round the machine").check()
    save.click()
    expect(back).to_be_visible()
    held: list[Route] = []
    page.route("**/api/rules/schools", lambda route: held.append(route))
    page.get_by_label("With the crop or the soil").check()
    save.click()
    page.wait_for_timeout(300)
    expect(back).to_have_count(0)  # the first change's would put back the wrong one
    held.pop().fulfill(status=503)
    expect(page.get_by_role("alert")).to_be_visible()
    expect(back).to_be_visible()  # the second never happened
    page.unroute("**/api/rules/schools")
    save.click()
    expect(page.get_by_role("status").filter(has_text="with the crop or the soil from now on")).to_be_visible()
    back.click()
    expect(page.get_by_label("Once round the machine")).to_be_checked()


def test_the_catalogue_can_be_looked_through(page: Page, sign_in, accessible):
    sign_in("lotte")
    page.get_by_role("link", name="Catalogue").click()
    page.get_by_role("button", name=re.compile("Rotary combine")).click()
    page.get_by_label("Find in this catalogue").fill("tie rods")
    page.get_by_text("Tie rods", exact=True).click()
    expect(page.get_by_text("Grab and pull by hand")).to_be_visible()
    accessible(page)


@pytest.mark.parametrize(
    "path",
    [
        f"/walk-arounds/{HERON_4}",
        f"/walk-arounds/{HERON_4}/map",
        f"/walk-arounds/{HERON_4}/summary",
        "/machines/1",
        "/catalogue",
        "/rules",
    ],
)
def test_new_screens_on_a_phone_in_the_dark(path, page: Page, sign_in, accessible, quiet):
    page.set_viewport_size({"width": 390, "height": 844})
    page.add_init_script("localStorage.setItem('lumvek:theme', 'dark')")
    sign_in("ada", at=path)
    page.get_by_role("heading").first.wait_for()
    quiet()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    accessible(page)


def test_the_report_of_a_combine_and_a_card_to_print(page: Page, sign_in, accessible):
    sign_in("ada", at=f"/walk-arounds/{HERON_4}/report")
    expect(page.get_by_text("Complete: all")).to_be_visible()
    expect(page.get_by_alt_text(re.compile("Hard strip gone"))).to_be_visible()
    accessible(page)
    page.goto("/")
    page.get_by_role("link", name="Heron 4", exact=True).click()
    page.get_by_label("Daily").check()
    page.get_by_role("link", name="Print this list as a card").click()
    expect(page.get_by_role("heading", name="Heron 4: daily")).to_be_visible()
    accessible(page)
