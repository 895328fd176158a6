"""What is typed and taken lies on the device from that moment: a closed tab, a clock set back, a full device lose nothing unsaid."""

from hands import begin, field, machine, settle
from playwright.sync_api import Page, expect

from demo.pictures import drawn

STORED = """() => new Promise((done) => {
  const opening = indexedDB.open('lumvek')
  opening.onsuccess = () => {
    const asked = opening.result.transaction('photos').objectStore('photos').count()
    asked.onsuccess = () => { opening.result.close(); done(asked.result) }
  }
})"""


def pictures(tmp_path, *names):
    for name in names:
        (tmp_path / name).write_bytes(drawn(name))
    return [str(tmp_path / name) for name in names]


def note_form(page: Page):
    return page.get_by_role("form", name="What was odd this season?")


def open_logbook(page: Page, name: str = "Dunmere 12") -> str:
    address = f"/machines/{machine(page, name)}/logbook"
    page.goto(address)
    note_form(page).wait_for()
    return address


def test_a_note_with_pictures_outlives_its_tab(page: Page, sign_in, tmp_path):
    sign_in("tomas")
    address = open_logbook(page)
    page.context.set_offline(True)
    note_form(page).get_by_label("What was odd").fill("Row 7 rattles on the headland")
    note_form(page).get_by_label("Pictures").set_input_files(pictures(tmp_path, "a.jpg", "b.jpg"))
    expect(note_form(page)).to_contain_text("a.jpg, b.jpg")
    assert page.evaluate(STORED) == 2, "stored before they are shown"
    note_form(page).get_by_role("button", name="Save").click()
    expect(note_form(page)).to_contain_text(
        "Kept on this device, sent when the server is in reach: “Row 7 rattles on the headland”"
    )
    expect(note_form(page).get_by_label("What was odd")).to_have_value("")
    expect(page.get_by_text("All saved")).to_have_count(0)
    context = page.context
    page.close()
    context.set_offline(False)
    again = context.new_page()
    again.goto("/")
    settle(again)
    again.goto(address)
    entry = again.get_by_role("listitem").filter(has_text="Row 7 rattles on the headland").first
    expect(entry.get_by_role("img")).to_have_count(2)
    assert again.evaluate(STORED) == 0


def test_a_half_typed_note_is_there_again_with_its_pictures(page: Page, sign_in, tmp_path):
    sign_in("tomas")
    address = open_logbook(page)
    note_form(page).get_by_label("What was odd").fill("Row 7 rat")
    note_form(page).get_by_label("Pictures").set_input_files(pictures(tmp_path, "a.jpg"))
    expect(note_form(page)).to_contain_text("a.jpg")
    context = page.context
    page.close()  # killed: nobody was asked
    again = context.new_page()
    again.goto(address)
    expect(note_form(again).get_by_label("What was odd")).to_have_value("Row 7 rat")
    note_form(again).get_by_role("button", name="Save").click()
    settle(again)
    entry = again.get_by_role("listitem").filter(has_text="Row 7 rat").first
    expect(entry.get_by_role("img")).to_have_count(1)
    again.reload()
    expect(note_form(again).get_by_label("What was odd")).to_have_value("")


def test_a_note_that_is_refused_stands_in_its_form_with_its_pictures(page: Page, sign_in, tmp_path):
    sign_in("tomas")
    open_logbook(page)
    refusal = {"error": {"field": "text", "message": "say it in other words"}}
    page.route("**/api/machines/*/notes", lambda route: route.fulfill(status=422, json=refusal))
    note_form(page).get_by_label("What was odd").fill("Row 7 rattles")
    note_form(page).get_by_label("Pictures").set_input_files(pictures(tmp_path, "a.jpg"))
    expect(note_form(page)).to_contain_text("a.jpg")
    note_form(page).get_by_role("button", name="Save").click()
    expect(note_form(page).get_by_role("alert")).to_contain_text("Say it in other words")
    expect(note_form(page)).to_contain_text("a.jpg")
    page.unroute("**/api/machines/*/notes")
    note_form(page).get_by_role("button", name="Save").click()
    settle(page)
    entry = page.get_by_role("listitem").filter(has_text="Row 7 rattles").first
    expect(entry.get_by_role("img")).to_have_count(1)


def test_the_figure_typed_last_stands_though_the_clock_was_set_back(page: Page, sign_in):
    sign_in("tomas")
    started = begin(page)
    page.context.set_offline(True)
    page.keyboard.type("391")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 entry kept on this device")).to_be_visible()
    page.evaluate("() => { const real = Date.now; Date.now = () => real() - 86_400_000 }")
    page.keyboard.press("Backspace")
    field(page).fill("388")
    page.keyboard.press("Enter")
    expect(page.get_by_text("2 entries kept on this device")).to_be_visible()
    page.context.set_offline(False)
    settle(page)
    places = page.request.get(f"/api/walk-arounds/{started}").json()["places"]
    assert [place["raw"] for place in places] == [["388"]]


def test_a_full_device_says_so_and_not_that_all_is_saved(page: Page, sign_in):
    sign_in("tomas")
    begin(page)
    expect(page.get_by_text("All saved")).to_be_visible()
    page.evaluate("() => { Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError') } }")
    page.keyboard.type("39")
    expect(page.get_by_role("alert").filter(has_text="no room left")).to_be_visible()
    expect(page.get_by_text("Not kept", exact=True)).to_be_visible()
    expect(page.get_by_text("All saved")).to_have_count(0)
    page.keyboard.type("1")
    page.keyboard.press("Enter")
    expect(field(page)).to_have_value("391")
