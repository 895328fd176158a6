"""Many machines at once from a table, tried before they are taken; and the table that is given out comes in again."""

import io
import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext

from fleet.models import Machine, MachineModel

FILE = """kind,maker,model,name,serial,rows,options,counter,season date,goes with,owners,behind wheels,folded width
Draper header,Lorne,Weir 107,Weir 107,LW-1,,Flexible cutterbar; cam-reel,4120,2027-06-20,Heron 6,,,
rotary-combine,Tavric,Heron 6,Heron 6,TH6,,Accelerator or feed beater,2140,2027-06-20,,owner,,3.4 m
Row-crop planter,Dunmere,8,Dunmere 8,,8,Vacuum plate meters,,,,,4; 5,
Row-crop planter,Dunmere,12,Dunmere 12,,12,,,,,,,
"""


def told(answer):
    return [json.loads(line) for line in b"".join(answer.streaming_content).decode().splitlines()]


@pytest.fixture
def send(yard, as_):
    def post(text, dry=True, by=None):
        file = SimpleUploadedFile("machines.csv", text.encode() if isinstance(text, str) else text)
        return told(as_(by or yard.lead).post("/api/machines/file", {"file": file, "dry": str(dry).lower()}))[-1]["report"]

    return post


def test_a_dry_run_says_what_each_line_would_do_and_does_nothing(send):
    found = send(FILE)
    assert (found["taken"], found["there"], found["refused"]) == (3, 1, 0)
    assert [line["words"] for line in found["lines"]] == [
        "Weir 107: Lorne Weir 107",
        "Heron 6: Tavric Heron 6",
        "Dunmere 8: Dunmere 8",
        "Dunmere 12 is there already",
    ]
    assert (Machine.objects.count(), MachineModel.objects.count()) == (1, 1)


def test_taken_they_stand_as_the_file_says_and_twice_is_once(send, yard):
    send(FILE, dry=False)
    machines = {one.name: one for one in Machine.objects.all()}
    assert set(machines) == {"Weir 107", "Heron 6", "Dunmere 8", "Dunmere 12"}
    weir, heron, eight = machines["Weir 107"], machines["Heron 6"], machines["Dunmere 8"]
    assert (weir.options, weir.area_ha, list(weir.goes_with.all())) == (["flex", "cam-reel"], 4120, [heron])
    assert (heron.hours, list(heron.owners.all()), heron.folded_width_mm) == (2140, [yard.owner], 3400)
    assert (eight.rows, eight.track_rows, eight.options) == (8, [4, 5], ["meter-vacuum"])
    assert send(FILE, dry=False)["there"] == 4
    assert Machine.objects.count() == 4


def test_the_table_that_is_given_out_comes_in_elsewhere(send, yard, neighbour, as_):
    send(FILE, dry=False)
    Machine.objects.in_shop(yard.shop.pk).get(name="Heron 6").owners.clear()
    for form in ("csv", "xlsx"):
        given = as_(yard.lead).get(f"/machines.{form}").content
        file = SimpleUploadedFile(f"m.{form}", given)
        found = told(as_(neighbour.lead).post("/api/machines/file", {"file": file, "dry": "true"}))[-1]["report"]
        assert (found["taken"], found["there"], found["refused"]) == (3, 1, 0), found
    send(given, dry=False, by=neighbour.lead)
    out = [as_(lead).get("/machines.csv").content.decode() for lead in (yard.lead, neighbour.lead)]
    assert sorted(out[0].splitlines()[2:]) == sorted(out[1].splitlines()[2:])


@pytest.mark.parametrize("role", ["technician", "parts", "owner"])
def test_the_table_names_owners_and_is_the_leads(role, yard, as_):
    assert as_(getattr(yard, role)).get("/machines.csv").status_code == 404


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("Sledge,A,B,C,8,,", "kind “Sledge” is none of"),
        ("Row-crop planter,Dunmere,8,,8,,", "name say what it is called here"),
        ("Row-crop planter,,8,Eight,8,,", "maker is wanted"),
        ("Row-crop planter,Dunmere,8,Eight,many,,", "rows must be a number"),
        ("Row-crop planter,Dunmere,8,Eight,0,,", "rows must be 1 to 200"),
        ("Row-crop planter,Dunmere,8,Eight,8,wings,", "options “wings” is not known"),
        ("Row-crop planter,Dunmere,8,Eight,8,,soon", "season date must be a day"),
        ("Rotary combine,Dunmere,12,Eight,,,", "model Dunmere 12 is a row-crop planter here"),
    ],
)
def test_one_bad_line_is_said_and_nothing_is_taken(line, says, send):
    titles = "kind,maker,model,name,rows,options,season date\n"
    found = send(f"{titles}Row-crop planter,Dunmere,6,Dunmere 6,6,,\n{line}\n", dry=False)
    assert (found["taken"], found["refused"]) == (1, 1)
    assert found["lines"][1]["words"].startswith(says)
    assert Machine.objects.count() == 1


def test_a_table_without_its_columns_is_none(yard, as_):
    file = SimpleUploadedFile("m.csv", io.BytesIO(b"a,b\n1,2\n").read())
    answer = as_(yard.lead).post("/api/machines/file", {"file": file})
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "file")
    assert answer.json()["error"]["message"].startswith("has no column kind, maker, model, name")


def test_it_is_told_how_far_it_is_and_asks_no_more_of_each_line_than_of_the_first(yard, as_):
    def post(many):
        lines = "".join(f"Row-crop planter,Dunmere,12,Yard {many} {n},12\n" for n in range(many))
        file = SimpleUploadedFile("machines.csv", f"kind,maker,model,name,rows\n{lines}".encode())
        with CaptureQueriesContext(connection) as asked:
            return told(as_(yard.lead).post("/api/machines/file", {"file": file, "dry": "true"})), len(asked)

    (few, asked_first), (many, asked_last) = post(2), post(22)
    assert [(one["what"], one["steps"], one["of"]) for one in many[:-1]] == [("Reading", done, 22) for done in (0, 10, 20)]
    assert many[-1]["report"]["taken"] == 22 and few[-1]["report"]["taken"] == 2
    assert asked_last - asked_first <= 20 * 12


def test_a_header_goes_with_a_combine_of_a_line_before_however_it_is_written(send):
    file = FILE.replace("Heron 6,,,", "HERON 6,,,").replace("rotary-combine,Tavric,Heron 6", "rotary-combine,TAVRIC,heron 6")
    send(FILE.replace("Weir 107,Weir 107", "Weir 107,Weir 1"), dry=False)
    assert send(file.replace("Heron 6,TH6", "Heron 7,TH7"), dry=False)["refused"] == 0
    assert MachineModel.objects.filter(maker__iexact="tavric").count() == 1
