"""The report: everything that was read, decided, called for, and not seen, with where the limits come from."""

import csv
import io
import uuid

import pytest
from django.utils import timezone
from pypdf import PdfReader

from demo.sample_readings import usual
from inspection.actions import decisions, recording
from inspection.judging.typed_readings import NewReading
from inspection.queries import rule_books
from lumvek_core import positions
from report import views
from report.labels import code_of


@pytest.fixture
def report(yard, read, as_):
    read("opener-disc-diameter", "3L", "15 1/8")
    read("opener-disc-diameter", "4L", "395")
    read("opener-disc-diameter", "4L", "394")
    read("seed-tube-guard", "2", state="not-seen", reason="=meter still on")
    decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), "opener-disc-diameter", ["3L"], "do")
    browser = as_(yard.lead)
    return lambda name: browser.get(f"/walk-arounds/{yard.walk_around.pk}/{name}")


SAID = [
    "Sallow Bridge",
    "Not complete",
    "384.2 mm, limit 386 mm, past it by 1.8 mm.",
    "Do it (Lead)",
    "D12-4001",
    "Centre scraper",
    "All spacing washers back inside to the standard count",
    "meter still on",
    "operator's manual",
    "starting value",
    "does not declare a machine safe",
    "check the operator's manual",
]


@pytest.mark.parametrize("said", SAID)
def test_the_page_says(said, report):
    assert said in report("report").content.decode().replace("&#x27;", "'")


def test_the_page_runs_no_script_and_its_style_carries_the_nonce(report):
    response = report("report")
    assert b"<script" not in response.content
    assert f'nonce="{response["Content-Security-Policy"].split("nonce-")[1].split(chr(39))[0]}"' in response.content.decode()


def test_the_pdf_says_the_same(report):
    response = report("report.pdf")
    assert response["Content-Type"] == "application/pdf"
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(response.content)).pages).split())
    for said in (
        "Dunmere 12",
        "Not complete",
        "past it by 1.8 mm",
        "D12-4001",
        "meter still on",
        "does not declare a machine safe",
    ):
        assert said in text


def rows(response):
    return list(csv.DictReader(io.StringIO(response.content.decode("utf-8-sig"))))


def test_readings_as_csv_keep_what_was_replaced(report):
    found = rows(report("readings.csv"))
    assert [(row["position"], row["typed"], row["in force"]) for row in found[:3]] == [
        ("Row 3 left", "15 1/8", "yes"),
        ("Row 4 left", "395", "replaced"),
        ("Row 4 left", "394", "yes"),
    ]
    assert found[0]["severity"] == "due"


def test_a_cell_never_starts_a_formula(report):
    assert rows(report("readings.csv"))[3]["value"] == "'=meter still on"


def test_parts_as_csv(report):
    found = {row["part"]: row for row in rows(report("parts.csv"))}
    assert (found["Opener disc"]["needed"], found["Opener disc"]["along with new parts at"]) == ("2", "row 3 right")
    assert found["Centre scraper"]["number"] == "to be found"


def test_a_complete_walk_around_says_so(yard, as_):
    new = []
    for check in rule_books.checks_of(yard.walk_around):
        for position in positions.expand(check.per, yard.walk_around.layout):
            if not check.optional:
                new.append(
                    NewReading(
                        uuid=uuid.uuid4(),
                        check=check.key,
                        position=position.key,
                        raw=usual(check, 0, timezone.now()),
                        feeler="card",
                    )
                )
    recording.record_readings(yard.technician, yard.walk_around.pk, new)
    page = as_(yard.lead).get(f"/walk-arounds/{yard.walk_around.pk}/report").content.decode()
    assert f"Complete: all {len(new)} places seen." in page
    assert "Nothing found that needs doing." in page


def test_a_machines_label_opens_the_machine_when_it_is_scanned(yard, as_, monkeypatch):
    """The code is the address; around it stands what the eye needs."""
    coded = []
    monkeypatch.setattr(views, "code_of", lambda text: coded.append(text) or code_of(text))
    yard.machine.serial = "D12-0417"
    yard.machine.save()
    answer = as_(yard.technician).get(f"/machines/{yard.machine.pk}/label.pdf")
    assert answer["Content-Type"] == "application/pdf"
    text = " ".join(PdfReader(io.BytesIO(answer.content)).pages[0].extract_text().split())
    assert text.startswith("Dunmere 12 Dunmere 12 Serial D12-0417 Sallow Bridge")
    assert coded == [f"http://testserver/machines/{yard.machine.pk}"]
