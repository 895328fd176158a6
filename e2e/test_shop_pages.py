"""What a shop says of itself, typed by its lead: refused at its field, kept through lost and late answers, in both units."""

import io
import re

from hands import lose_answer, sure
from PIL import Image
from playwright.sync_api import Page, expect


def picture() -> dict[str, object]:
    """As a file that is picked."""
    out = io.BytesIO()
    Image.new("RGB", (320, 200), "#6a3d78").save(out, "PNG")
    return {"name": "plate.png", "mimeType": "image/png", "buffer": out.getvalue()}


def units(page: Page, which: str):
    page.get_by_role("group", name="Units to read in").get_by_role("button", name=which, exact=True).click()


def places(page: Page) -> list[tuple[str, str]]:
    return [(one["name"], one["door_width"]) for one in page.request.get("/api/shop").json()["places"]]


def test_a_bay_in_both_units_refused_lost_and_put_back(page: Page, sign_in):
    sign_in("ada", at="/shop/places")
    page.get_by_role("button", name="Add a place").click()
    page.keyboard.type("Long bay", delay=20)
    page.get_by_label("Door width").fill("4.2")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("write it with its unit")
    expect(page.get_by_label("Name")).to_have_value("Long bay")
    page.get_by_label("Door width").fill("4.2 m")
    lose_answer(page, "**/api/shop/places")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("Door width")).to_have_value("4.2 m")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("heading", name="Long bay")).to_be_visible()
    assert [one for one in places(page) if one[0] == "Long bay"] == [("Long bay", "4200 mm")]
    units(page, "in")
    expect(page.get_by_text(re.compile(r"Door 165[ .]\S+ in wide"))).to_be_visible()
    page.get_by_role("button", name="Change Long bay").click()
    page.get_by_label("Door width").fill("14 ft")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Door 168 in wide")).to_be_visible()
    page.get_by_role("button", name="Remove Long bay").click()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_text("Door 168 in wide")).to_be_visible()


def test_hours_are_refused_at_their_field_and_read_back_as_understood(page: Page, sign_in):
    sign_in("ada", at="/shop/hours")
    page.get_by_label("Working hours").last.fill("Mon to Fri")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is not like Mon–Fri")
    page.get_by_label("Working hours").last.fill("mon-fri 7.30-17:00")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Working hours").last).to_have_value("Mon–Fri 07:30–17:00")


def test_a_rate_stands_as_it_is_understood(page: Page, sign_in):
    sign_in("bram", at="/parts/suppliers")
    page.get_by_label("An hour of work").fill("64,5")
    page.get_by_role("button", name="Save the rates").click()
    expect(page.get_by_text("Saved.")).to_be_visible()
    expect(page.get_by_label("An hour of work")).to_have_value("64.50")
    page.get_by_label("A kilometre").fill("far")
    page.get_by_role("button", name="Save the rates").click()
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("A kilometre")).to_have_value("far")


def test_what_is_typed_while_the_answer_is_late_stands(page: Page, sign_in):
    sign_in("ada", at="/shop/hours")
    held = []
    page.route("**/api/shop/hours", lambda route: held.append(route))
    page.get_by_label("Working hours").last.fill("mon 7.30-17:00")
    page.keyboard.press("Enter")
    page.keyboard.type(", tue 8:00-12:00", delay=20)
    with page.expect_response("**/api/shop/hours"):
        held[0].continue_()
    expect(page.get_by_text("Saved.")).to_be_visible()
    expect(page.get_by_label("Working hours").last).to_have_value("mon 7.30-17:00, tue 8:00-12:00")


def test_crops_are_shown_where_the_crop_that_comes_is_picked(page: Page, sign_in):
    sign_in("ada", at="/shop/crops")
    for name in ("Wheat", "wheat"):
        page.get_by_role("button", name="Add a crop").click()
        page.keyboard.type(name, delay=20)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("stands there twice", ignore_case=True)
    page.get_by_label("Crop 7", exact=True).fill("Maize")
    page.get_by_label("Group of Maize").select_option(label="Ear crops")
    page.get_by_role("button", name="Add a season").click()
    page.keyboard.type("Planting", delay=20)
    page.get_by_label("Planting: last day").fill("20")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved.")).to_be_visible()
    assert page.request.get("/api/shop").json()["seasons"] == [{"name": "Planting", "first": "04-01", "last": "05-20"}]
    page.goto("/machines/1")
    expect(page.get_by_text("Ear cropsSunflower, Grain sorghum, Maize")).to_be_visible()


def test_days_are_written_as_the_shop_writes_them(page: Page, sign_in):
    sign_in("ada", at="/shop/ways")
    page.get_by_role("combobox", name="Days are written").select_option(label="2026-11-28")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved.")).to_be_visible()
    page.get_by_role("link", name="Machines", exact=True).click()
    expect(page.get_by_text(re.compile(r"Needed in \d+ days, \d{4}-\d\d-\d\d")).first).to_be_visible()


def test_name_address_and_mark(page: Page, sign_in):
    sign_in("ada", at="/shop")
    page.get_by_label("Name").fill("")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("called", ignore_case=True)
    page.get_by_label("Name").fill("Sallow Bridge Ring")
    page.get_by_label("Address").fill("4 Weir Lane")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved.")).to_be_visible()
    page.get_by_label("Pick a picture").set_input_files({"name": "m.png", "mimeType": "image/png", "buffer": b"no picture"})
    expect(page.get_by_role("alert")).to_contain_text("not a picture")
    page.get_by_label("Pick a picture").set_input_files(picture())
    expect(page.get_by_role("img", name="The shop’s mark")).to_be_visible()
    page.get_by_role("button", name="Take it away").click()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("img", name="The shop’s mark")).to_be_visible()


def test_a_model_is_copied_once_and_handed_on(page: Page, sign_in):
    sign_in("ada", at="/rules")
    page.get_by_role("button", name="Copy this model").click()
    page.keyboard.type("Dunmere", delay=20)
    page.get_by_role("button", name="Copy", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("wanted", ignore_case=True)
    page.get_by_label("Model", exact=False).last.fill("12 narrow")
    lose_answer(page, "**/copies")
    page.get_by_role("button", name="Copy", exact=True).click()
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_role("button", name="Copy", exact=True).click()
    expect(page.get_by_label("Model").first).to_contain_text("Dunmere 12 narrow")
    names = [one["name"] for one in page.request.get("/api/rules").json()["models"]]
    assert names.count("Dunmere 12 narrow") == 1
    expect(page.get_by_text("No machine of this model in use.")).to_be_visible()
    with page.expect_download() as given:
        page.get_by_role("link", name="Give it to another shop").click()
    text = given.value.path().read_text().replace("name: 12 narrow", "name: 12 wide")
    page.get_by_role("button", name="Read one in").click()
    file = {"name": "model.yaml", "mimeType": "application/yaml", "buffer": text.encode()}
    page.get_by_label("Read a model from a file").set_input_files(file)
    expect(page.get_by_text("Dunmere 12 wide, row-crop planter: new")).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^Take \d+ changes")).click()
    expect(page.get_by_label("Model").first).to_contain_text("Dunmere 12 wide")


def test_a_picture_of_the_plate_waits_without_signal_and_is_there_once(page: Page, sign_in):
    sign_in("tomas", at="/machines/1/particulars")
    page.get_by_role("heading", name="Pictures").wait_for()
    page.route("**/pictures", lambda route: route.abort())
    page.get_by_label("Picture of its plate").set_input_files(picture())
    expect(page.get_by_text("A picture is on the way.")).to_be_visible()
    page.unroute("**/pictures")
    expect(page.get_by_role("img", name="Its plate")).to_be_visible(timeout=30_000)
    assert len(page.request.get("/api/machines/1/particulars").json()["pictures"]) == 1
    page.get_by_role("button", name="Take away: its plate").click()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("img", name="Its plate")).to_be_visible()


def test_a_board_of_many_is_narrowed_in_the_address(page: Page, sign_in, accessible):
    sign_in("ada")
    lines = "".join(f"Row-crop planter,Dunmere,12,Yard {n},12\n" for n in range(1, 9))
    token = page.request.get("/api/session").json()["csrf"]
    file = {"name": "m.csv", "mimeType": "text/csv", "buffer": f"kind,maker,model,name,rows\n{lines}".encode()}
    page.request.post("/api/machines/file", multipart={"file": file, "dry": "false"}, headers={"X-CSRFToken": token})
    page.goto("/")
    rows = page.get_by_role("main").get_by_role("listitem")
    expect(rows.first).to_contain_text("Heron 6")
    expect(rows.first).to_contain_text("Do not run or drive it.")
    accessible(page)
    late = []
    page.route("**/api/machines?*", lambda route: late.append(route))
    page.get_by_label("Find a machine").click()
    page.keyboard.type("yard", delay=30)
    for route in late:
        route.continue_()
    page.unroute("**/api/machines?*")
    page.keyboard.type(" 3", delay=30)
    expect(page.get_by_label("Find a machine")).to_have_value("yard 3")
    expect(page.get_by_label("Find a machine")).to_be_focused()
    expect(rows).to_have_count(1)
    expect(page).to_have_url(re.compile(r"search=yard(\+|%20)3"))
    page.route("**/api/machines?*", lambda route: route.abort())
    page.get_by_label("Kind").select_option(label="Rotary combine")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("Kind")).not_to_have_value("")
    page.unroute("**/api/machines?*")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_text("No machine is like that.")).to_be_visible()
    page.get_by_label("Kind").select_option("")
    expect(rows).to_have_count(1)
    page.get_by_label("Find a machine").fill("")
    page.get_by_label("State").select_option(label="Not begun")
    page.get_by_label("Order").select_option(label="By name")
    page.reload()
    expect(page.get_by_label("State")).to_have_value("none")
    expect(rows.first).to_contain_text("Comb 61")
    rows.filter(has_text="Yard 5").get_by_role("link", name="New walk-around of Yard 5").click()
    expect(page.get_by_role("heading", name="Yard 5")).to_be_visible()


def test_who_was_let_go_is_taken_out_by_name_after_a_question(page: Page, sign_in):
    sign_in("ada", at="/people")
    page.get_by_role("button", name="Change Ines Marrow").click()
    sure(page, page.get_by_role("button", name="Let go"), "Let go")
    sure(page, page.get_by_role("button", name="Take out by name: Ines Marrow"), "Take them out for good")
    expect(page.get_by_text(re.compile(r"^Former member \d+"))).to_be_visible()
    expect(page.get_by_text("Ines Marrow")).to_have_count(0)
