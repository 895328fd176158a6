"""From an empty database to a finished walk-around, and from its backup to a new server that says the same."""

import re
import subprocess
from contextlib import contextmanager

from hands import field, settle, unlock
from playwright.sync_api import Browser, Page, expect

from conftest import ROOT, Product, script, wait_for


def manage(environment: dict[str, str], *command: str) -> str:
    done = subprocess.run(
        [".venv/bin/python", "server/manage.py", *command],
        cwd=ROOT,
        env=environment,
        capture_output=True,
        text=True,
        check=True,
    )
    return done.stdout.strip()


@contextmanager
def empty_server(product: Product, name: str):
    """A database of its own beside the demo's, with nothing in it; dropped when it is done with."""
    script(f"sql -e 'CREATE DATABASE {name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'", f"db_allow {name}")
    try:
        yield product.environment | {"LUMVEK_DB_NAME": name}
    finally:
        script(f"sql -e 'DROP DATABASE {name}'")


@contextmanager
def served(environment: dict[str, str]):
    """Its address, while it answers."""
    port = script(f"free_port {int(environment['LUMVEK_DB_PORT']) + 60}")
    server = subprocess.Popen(
        [".venv/bin/gunicorn", "--chdir", "server", "--bind", f"127.0.0.1:{port}", "--workers", "1", "--threads", "4", "config.wsgi:application"],
        cwd=ROOT, env=environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    try:
        wait_for(f"http://127.0.0.1:{port}/health")
        yield f"http://127.0.0.1:{port}"
    finally:
        server.terminate()
        server.wait(10)


def add_machine(page: Page, kind: str, maker: str, model: str, name: str, *has: str, goes_with: str = "", rows: int = 0):
    page.get_by_role("link", name="Lumvek, to the machines").click()
    page.get_by_role("link", name="Add a machine").first.click()
    page.get_by_role("button", name=kind, exact=True).click()
    page.get_by_role("textbox", name="Maker").fill(maker)
    page.get_by_role("textbox", name="Model").fill(model)
    for one in has:
        page.get_by_role("group", name=one, exact=True).get_by_role("button", name="Yes").click()
    page.get_by_label(re.compile("^Name as you call it")).fill(name)
    if rows:
        page.get_by_label("Rows", exact=True).fill(str(rows))
    if goes_with:
        page.get_by_role("checkbox", name=goes_with).check()
    page.get_by_role("button", name="Add the machine").click()
    expect(page.get_by_role("heading", name=name)).to_be_visible()


def ask_somebody_to_join(page: Page, browser: Browser, name: str, called: str):
    """Invited by the lead, joined by the link on a device of their own."""
    page.goto(f"{page.url.split('/machines')[0].rstrip('/')}/people")
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_role("button", name="Make the link").click()
    link = page.get_by_label(f"Invitation for {name}").input_value()
    theirs = browser.new_page(service_workers="block")
    theirs.goto(link)
    theirs.get_by_label("A name to log in with").fill(called)
    theirs.get_by_label("Password").fill("shingle-and-sedge")
    theirs.keyboard.press("Enter")
    expect(theirs.get_by_role("heading", name="Machines")).to_be_visible()
    theirs.context.close()


def add_check(page: Page, name: str, how: str, station: str, *states: str):
    """An own check of the planter, tried before it is kept. The last state stops the machine."""
    page.get_by_role("link", name="Shop", exact=True).click()
    page.get_by_role("link", name="Own checks").click()
    page.get_by_role("link", name="Add a check").click()
    page.get_by_role("combobox", name="Kind of machine").select_option(label="Row-crop planter")
    page.get_by_role("combobox", name="Station").select_option(label=station)
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("How it is done").fill(how)
    page.get_by_label("The sound state").fill(states[0])
    page.get_by_label("State 2", exact=True).fill(states[1])
    page.get_by_label(f"What {states[1]} means").select_option(label="Stop")
    trial = page.get_by_role("complementary", name="As the walk-around will show it")
    trial.get_by_role("button", name=states[1]).click()
    expect(trial.get_by_text("Repair")).to_be_visible()
    page.get_by_role("button", name="Add the check").click()
    page.wait_for_url("**/own-checks")
    expect(page.get_by_role("heading", name=name)).to_be_visible()


def report_of(page: Page, walk_around: str) -> str:
    """The report but for what is of the request: its nonce."""
    answer = page.request.get(f"{walk_around}/report")
    assert answer.status == 200
    return re.sub(r'nonce="[^"]*"', "", answer.text())


def test_a_shop_is_founded_works_and_is_restored_elsewhere(page: Page, browser, product, tmp_path, accessible):
    with empty_server(product, "nothing") as environment:
        manage(environment, "migrate", "--no-input")
        key = manage(environment, "set_up_key")
        with served(environment) as address:
            page.goto(address)
            accessible(page)
            page.get_by_label("The key the server printed").fill("aaaa-aaaa-aaaa-aaaa")
            page.get_by_label("Your shop").fill("Wharf Lane Workshop")
            page.get_by_label("Your name").fill("Maud Terrow")
            page.get_by_label("A name to log in with").fill("maud")
            page.get_by_label("Password").fill("linseed-and-lupins")
            page.keyboard.press("Enter")
            expect(page.get_by_role("alert")).to_contain_text("printed when it started")
            page.get_by_label("The key the server printed").fill(key)
            page.keyboard.press("Enter")
            expect(page.get_by_role("heading", name="The first day")).to_be_visible()
            add_machine(page, "Rotary combine", "Tavric", "Heron 6", "Heron 6", "Accelerator or feed beater")
            for kind, model in (("Draper header", "Weir 107"), ("Rigid auger platform", "Sill 61")):
                add_machine(page, kind, "Lorne", model, model, goes_with="Heron 6")
            add_machine(page, "Row-crop planter", "Dunmere", "8", "Dunmere 8", "Vacuum plate meters", rows=8)
            ask_somebody_to_join(page, browser, "Jory Marsh", "jory")
            add_check(page, "Camera bracket", "Shake it; nothing gives.", "Hitch and hoses", "Firm", "Loose")
            page.get_by_role("link", name="Lumvek, to the machines").click()
            page.get_by_role("link", name="Dunmere 8").click()
            page.get_by_role("button", name="Start walk-around").click()
            page.wait_for_url("**/walk-arounds/*")
            walk_around = page.url.split("?")[0]
            page.goto(f"{walk_around}?check=opener-disc-diameter")
            unlock(page)
            for typed in ("378", "377.5", "14 3/8"):
                expect(field(page)).to_be_focused()
                page.keyboard.type(typed, delay=40)
                page.keyboard.press("Enter")
            page.goto(f"{walk_around}?check=own-camera-bracket")
            expect(field(page)).to_be_focused()
            page.keyboard.type("2", delay=40)
            settle(page)
            page.goto(f"{walk_around}/summary")
            page.get_by_role("button", name="Finish walk-around").click()
            page.wait_for_timeout(700)
            page.get_by_role("button", name="Finish all the same").click()
            page.wait_for_url("**/findings")
            told = report_of(page, walk_around)
            assert "365.1 mm" in told and "Wharf Lane Workshop" in told
            assert "Camera bracket" in told and "Loose." in told and "Jory" not in told
            kept = manage(environment, "backup", str(tmp_path / "kept.zip"))
        page.goto("about:blank")

    with empty_server(product, "elsewhere") as environment:
        back = manage(environment, "restore", str(tmp_path / "kept.zip"))
        assert back.rpartition("digest ")[2] == kept.rpartition("digest ")[2]
        with served(environment) as address:
            page.goto(f"{address}/sign-in")
            page.get_by_label("Name").fill("maud")
            page.get_by_label("Password").fill("linseed-and-lupins")
            page.keyboard.press("Enter")
            expect(page.get_by_role("heading", name="Machines")).to_be_visible()
            assert report_of(page, f"{address}{walk_around[walk_around.index('/walk-arounds') :]}") == told
            page.goto("about:blank")
