"""Recording how a machine shakes: simulated, from a file, with the phone's own sensor; two speeds of the engine beside each other."""

import math
import re

from hands import lose_answer, machine, sure
from playwright.sync_api import Page, expect


def csv(hz: float) -> str:
    rows = (f"{i / 100:.2f},{2 * math.sin(2 * math.pi * hz * i / 100):.4f},0,9.81" for i in range(1000))
    return "time_s,x,y,z\n" + "\n".join(rows)


def test_the_recording_names_the_chopper_at_both_speeds_and_a_sound_machine_nothing(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    heron = machine(page, "Heron 4")
    page.goto(f"/machines/{heron}/recordings")
    expect(page.get_by_role("heading", name="By ear first")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Chopper 2860 rpm"))).to_be_visible()
    accessible(page)
    lose_answer(page, "**/api/faults/machines/*/recordings")
    page.get_by_role("button", name="Simulated: it shakes").click()
    expect(page.get_by_text("It is the chopper")).to_be_visible(timeout=30_000)
    accessible(page)
    page.get_by_role("link", name="All recordings").click()
    engine = page.get_by_role("textbox", name="Engine rpm")
    engine.fill("0")
    page.get_by_role("button", name="Simulated: it shakes").click()
    expect(page.get_by_role("alert")).to_be_visible()
    expect(engine).to_have_value("0")
    engine.fill("1600")
    page.get_by_role("button", name="Simulated: it shakes").click()
    expect(page.get_by_text("engine at 1600 rpm")).to_be_visible()
    page.get_by_role("combobox", name="Beside it").select_option(index=1)
    beside = page.get_by_role("region", name="Beside the other")
    expect(beside.get_by_role("listitem").first).to_contain_text("follows the engine")
    page.set_viewport_size({"width": 390, "height": 844})
    accessible(page)
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("link", name="All recordings").click()
    page.get_by_role("button", name="Simulated: it is sound").click()
    expect(page.get_by_text("No match.")).to_be_visible()
    page.get_by_role("button", name="Take this recording back").click()
    expect(page.get_by_text("taken back")).to_be_visible()


def test_a_file_is_read_a_bad_one_refused_and_a_shaft_is_written_as_the_manual_has_it(page: Page, sign_in, accessible):
    sign_in("ada", at=None)
    heron = machine(page, "Heron 6")
    page.goto(f"/machines/{heron}/recordings")
    pick = page.locator("input[type=file]")
    pick.set_input_files({"name": "shield.wav", "mimeType": "audio/wav", "buffer": b"RIFFnothing"})
    expect(page.get_by_role("alert")).to_contain_text("no WAV file")
    shafts = page.get_by_role("region", name="What turns")
    shafts.get_by_role("button", name="Change Cleaning fan").click()
    form = page.get_by_role("form", name="Change Cleaning fan")
    form.get_by_label("Orders").fill("often blades")
    form.get_by_role("button", name="Keep").click()
    expect(form.get_by_role("alert")).to_contain_text("no number of times a turn")
    form.get_by_label("Orders").fill("1 turn, 6 blades")
    form.get_by_label("Speed").fill("1200")
    form.get_by_label("As says").fill("manual, 7-12")
    accessible(page)
    lose_answer(page, "**/api/faults/machines/*/shafts")
    form.get_by_role("button", name="Keep").click()
    fan = shafts.get_by_role("listitem").filter(has_text="Cleaning fan")
    expect(fan).to_contain_text("1200 rpm", timeout=30_000)
    pick.set_input_files({"name": "shield.csv", "mimeType": "text/csv", "buffer": csv(20.05).encode()})
    expect(page.get_by_text("It is the cleaning fan")).to_be_visible()
    expect(page.get_by_text("from a file")).to_be_visible()
    page.get_by_role("link", name="All recordings").click()
    sure(page, fan.get_by_role("button", name="Cleaning fan as before"), "As before")
    expect(fan).to_contain_text("starting value")


def test_the_phone_records_and_says_so_where_it_feels_nothing(page: Page, sign_in, accessible):
    sign_in("tomas", at=None)
    heron = machine(page, "Heron 6")
    page.goto(f"/machines/{heron}/recordings")
    # Whether it may be asked at all depends on the browser.
    page.evaluate("DeviceMotionEvent.requestPermission = () => Promise.resolve('denied')")
    page.get_by_role("button", name="with this phone").click()
    expect(page.get_by_role("alert")).to_contain_text("does not let the page use its motion sensor")
    page.evaluate("DeviceMotionEvent.requestPermission = () => Promise.resolve('granted')")
    page.get_by_role("button", name="with this phone").click()
    expect(page.get_by_role("alert")).to_contain_text("feels nothing", timeout=10_000)
    page.get_by_role("button", name="with this phone").click()
    lose_answer(page, "**/api/faults/machines/*/recordings-file")
    page.evaluate(
        """() => {
          let i = 0
          const feel = () => {
            for (let k = 0; k < 10; k++, i++) {
              const event = new Event('devicemotion')
              Object.defineProperty(event, 'timeStamp', {value: 1000 + i * 10})
              Object.defineProperty(event, 'acceleration', {value: {x: 2 * Math.sin(2 * Math.PI * 16 * i / 100), y: 0, z: 0}})
              window.dispatchEvent(event)
            }
            if (i < 3100) setTimeout(feel, 5)
          }
          feel()
        }"""
    )
    again = page.get_by_role("button", name="Send what the phone felt")
    expect(again).to_be_enabled(timeout=30_000)  # its answer was lost
    page.reload()
    again.click()
    expect(page.get_by_text("from the phone’s own sensor")).to_be_visible(timeout=30_000)
    expect(page.get_by_text("It is the rotor")).to_be_visible()
    accessible(page)
