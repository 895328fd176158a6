"""Readings in from files: a dry run that says everything, lines refused with their reason, nothing lost and nothing doubled."""

import io
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook, load_workbook

from fleet.models import Machine, MachineModel
from inspection.actions import starting
from inspection.judging import readings_table
from inspection.models import Reading, Verdict
from inspection.queries import preparing
from tabular.sheets import as_csv, as_xlsx

FAMILIES = ("rotary-combine", "draper-header", "auger-platform")
FILE = """machine,check,position,typed,feeler,note
Dunmere 12,Opener disc diameter,Row 1 left,391,,after the sand
,opener-disc-diameter,1R,15 3/8,,
,opener-disc-diameter,9L,391,,
,Opener disc diameter,2L,abc,,
,No such check,2L,391,,
Heron 6,Opener disc diameter,3L,391,,
,Opener contact,3,46 | 44 | 47,card,
,Opener contact,4,46 | 44,card,
,opener-bearing,3L,rough,,
,opener-bearing,4L,odd,,
"""


@pytest.fixture
def put(yard, as_):
    def send(content, name="readings.csv", dry=False, by=None, walk_around=None):
        data = content if isinstance(content, bytes) else content.encode()
        path = f"/api/walk-arounds/{(walk_around or yard.walk_around).pk}/readings-file"
        return as_(by or yard.technician).post(path, {"file": SimpleUploadedFile(name, data), "dry": str(dry).lower()})

    return send


def outcomes(answer):
    return {line["line"]: line["outcome"] for line in answer["lines"]}


def test_a_dry_run_names_every_line_it_would_refuse_and_writes_nothing(put):
    answer = put(FILE, dry=True).json()
    assert (answer["taken"], answer["there"], answer["refused"]) == (4, 0, 6)
    why = {line["line"]: line["says"] for line in answer["lines"] if line["outcome"] == "refused"}
    assert "no position of opener disc diameter" in why[4]
    assert "not a length" in why[5]
    assert "no check of this walk-around" in why[6]
    assert "belongs to Heron 6" in why[7]
    assert "needs 3 entries" in why[9]
    assert "states shown" in why[11]
    assert not Reading.objects.exists()


def test_more_lines_than_are_taken_at_once_are_refused_as_a_whole(put, monkeypatch):
    monkeypatch.setattr(readings_table, "MOST", 9)
    answer = put(FILE)
    assert answer.status_code == 422 and not Reading.objects.exists()
    assert answer.json()["error"]["message"] == "has 10 lines, and 9 are taken at once: read it in parts"


def test_what_the_dry_run_promised_is_what_is_taken(put, yard):
    promised, done = put(FILE, dry=True).json(), put(FILE).json()
    assert promised["lines"] == done["lines"]
    assert Reading.objects.count() == 4
    disc = Verdict.objects.get(check_key="opener-disc-diameter", position_key="1L")
    assert (disc.reading.raw, disc.reading.note, disc.severity) == (["391"], "after the sand", "sound")
    assert Verdict.objects.get(check_key="opener-contact").facts["equivalent"] > 40


def test_the_same_file_twice_is_read_once(put):
    put(FILE)
    again = put(FILE).json()
    assert (again["taken"], again["there"], again["refused"]) == (0, 4, 6)
    assert Reading.objects.count() == 4


def test_a_feeler_put_right_in_the_file_is_taken(put):
    line = "check,position,typed,feeler\nopener-contact,3,46 | 44 | 47,{}\n"
    put(line.format("card"))
    assert put(line.format("paper")).json()["taken"] == 1
    assert Verdict.objects.get().reading.feeler == "paper"


def test_a_line_that_was_read_once_does_not_undo_a_later_correction(put, read):
    line = "check,position,typed\nopener-disc-diameter,1L,391\n"
    put(line)
    read("opener-disc-diameter", "1L", "392")
    again = put(line).json()
    assert (again["taken"], again["there"]) == (0, 1)
    assert Verdict.objects.get().reading.raw == ["392"]


def test_a_check_of_two_machines_needs_its_machine(put, yard):
    models = {name: MachineModel.objects.create(shop=yard.shop, maker="Lorne", name=name, family=name) for name in FAMILIES}
    combine, draper, platform = (Machine.objects.create(shop=yard.shop, model=models[name], name=name) for name in FAMILIES)
    wanted = preparing.Wanted("winter", headers=[draper.pk, platform.pk])
    coupled = starting.start(yard.technician, combine, uuid.uuid4(), wanted)
    answer = put(
        "machine,check,position,typed\n,Knife register,,1 | 1\ndraper-header,Knife register,,1 | 1\n", walk_around=coupled
    ).json()
    assert outcomes(answer) == {2: "refused", 3: "taken"}
    assert "name the machine" in answer["lines"][0]["says"]
    assert Verdict.objects.get().check_key == "draper.knife-register"


def test_refused_lines_come_back_whole_so_that_they_can_be_put_right(put):
    answer = put(FILE).json()
    assert {line["line"]: line["text"] for line in answer["lines"]}[5] == ",Opener disc diameter,2L,abc,,"


def test_what_was_exported_is_read_into_another_walk_around_of_the_machine(put, yard, as_, read):
    read("opener-disc-diameter", "1L", "15 3/8")
    read("opener-disc-diameter", "1L", "391")
    read("opener-contact", "2", "46", "44", "47", feeler="paper")
    read("opener-disc-diameter", "2L", state="not-seen", reason="=off the machine")
    for name in ("readings.csv", "readings.xlsx"):
        exported = as_(yard.lead).get(f"/walk-arounds/{yard.walk_around.pk}/{name}").content
        other = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
        answer = put(exported, name, walk_around=other).json()
        assert (answer["taken"], answer["refused"]) == (3, 1), answer
        stands = {row.position_key: row for row in Verdict.objects.filter(walk_around=other).select_related("reading")}
        assert stands["1L"].reading.raw == ["391"]
        assert (stands["2"].reading.raw, stands["2"].reading.feeler) == (["46", "44", "47"], "paper")
        assert (stands["2L"].severity, stands["2L"].reading.reason) == ("not-seen", "=off the machine")


def test_a_workbook_keeps_its_numbers(put):
    book = Workbook()
    for row in (["Check", "Row", "Value"], ["opener-disc-diameter", "1L", 391.0], ["opener-disc-diameter", "1R", 390.5]):
        book.active.append(row)
    out = io.BytesIO()
    book.save(out)
    assert put(out.getvalue(), "gauge.xlsx").json()["taken"] == 2
    assert set(Reading.objects.values_list("raw", flat=True).all()[0]) == {"391"}


@pytest.mark.parametrize(
    ("content", "name", "said"),
    [
        ("", "empty.csv", "is empty"),
        ("a;b\n1;2\n", "other.csv", "has no column"),
        (b"PK\x03\x04 not a workbook", "broken.xlsx", "cannot be read as a table"),
        ("check\tposition\ttyped\x00", "binary.csv", "not a text file"),
    ],
)
def test_what_is_no_table_of_readings_is_refused_as_a_whole(content, name, said, put):
    response = put(content, name)
    assert response.status_code == 422
    assert said in response.json()["error"]["message"]


def test_semicolons_and_decimal_commas(put):
    assert put("check;position;typed\nopener-disc-diameter;1L;39,1 cm\nopener-disc-diameter;1R;390,5\n").json()["taken"] == 2


def test_a_figure_that_cannot_be_right_is_asked_about_not_swallowed(put):
    put("check,position,typed\nopener-disc-diameter,1L,14.3\n")
    assert "Did you mean" in Verdict.objects.get().ask


@pytest.mark.parametrize("role", ["parts", "owner"])
def test_only_who_may_record_may_read_a_file_in(role, put, yard):
    yard.machine.owners.add(yard.owner)
    assert put(FILE, by=getattr(yard, role)).status_code == 403


def test_what_is_written_is_text_and_comes_back_as_it_was():
    rows = [["a", "b"], ["=1+1", "001"], ["-5", "x"]]
    sheet = load_workbook(io.BytesIO(as_xlsx(rows))).active
    assert [[cell.value for cell in row] for row in sheet] == rows
    assert as_csv(rows).decode("utf-8-sig").splitlines()[1] == "'=1+1,001"
