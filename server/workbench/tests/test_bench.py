"""The bench over HTTP: answers, errors at their field, machines' own limits, the log, files in and out."""

import io
import json
import uuid

import pytest
from openpyxl import load_workbook

from fleet.models import LimitOverride
from lumvek_core.files import measured
from lumvek_core.simulators import gauge, meter_stand
from lumvek_core.workbench.subjects import SUBJECTS
from shops.models import Feeler
from workbench.models import BenchResult

CHAIN = {"way": "pitches", "pitch_mm": "41.4", "pitches": "20", "measured_mm": "846"}


def test_the_answer_comes_with_its_reasons_and_its_calculation(yard, as_):
    sheet = as_(yard.technician).send("/api/bench/chain", texts=CHAIN).json()
    assert sheet["answer"] == "2.17 % ± 0.12 %"
    assert sheet["runs"]["chain_stretch"]["result"]["stretch_pct"] == pytest.approx(2.1739, abs=5e-5)
    assert sheet["why"] and sheet["mark"] == "sound"


def test_everybody_in_the_shop_may_work_at_the_bench(yard, as_):
    for role in ("lead", "technician", "parts", "owner"):
        assert as_(getattr(yard, role)).send("/api/bench/chain", texts=CHAIN).status_code == 200


@pytest.mark.parametrize(
    ("texts", "field"), [({"measured_mm": "abc"}, "measured_mm"), ({"pitch_mm": "0"}, "pitch_mm"), ({"way": "guess"}, "way")]
)
def test_an_error_names_the_field_on_screen(texts, field, yard, as_):
    response = as_(yard.technician).send("/api/bench/chain", texts=CHAIN | texts)
    assert (response.status_code, response.json()["error"]["field"]) == (422, field)


def test_subjects_come_with_everything_a_screen_needs(yard, as_):
    listed = as_(yard.owner).get("/api/bench").json()
    assert [one["key"] for one in listed] == list(SUBJECTS)
    for one in listed:
        assert set(one["order"]) == {field["key"] for field in one["fields"] + one["tables"]}


def test_a_machine_brings_its_own_limits_and_where_they_come_from(yard, as_):
    found = as_(yard.technician).get(f"/api/bench/opener/machines/{yard.machine.pk}").json()
    assert found["texts"]["disc_limit_mm"] == "386 mm"
    assert found["sources"]["disc_limit_mm"] == "Dunmere 12: operator's manual"
    assert found["texts"]["band.low_mm"] == "1 1/2 in"
    LimitOverride.objects.create(model=yard.model, check_key="opener-contact", figure="low", value=40, source="shop")
    assert as_(yard.lead).get(f"/api/bench/opener/machines/{yard.machine.pk}").json()["texts"]["band.low_mm"] == "40 mm"


def test_the_shops_own_card_is_the_card(yard, as_):
    Feeler.objects.create(shop=yard.shop, name="Card", thickness_mm=0.35)
    sheet = as_(yard.technician).send("/api/bench/opener", texts={"readings": [["30", "card"]]}).json()
    assert sheet["runs"]["opener_contact"]["given"]["readings"][0]["feeler_mm"] == 0.35


def save(browser, yard, **more):
    body = {"uuid": str(uuid.uuid4()), "texts": CHAIN, "note": "left strand"} | more
    return browser.send(f"/api/bench/chain/machines/{yard.machine.pk}", **body)


def test_an_answer_kept_with_a_machine_is_kept_once(yard, as_):
    browser, body = as_(yard.technician), {"uuid": str(uuid.uuid4())}
    assert save(browser, yard, **body).status_code == save(browser, yard, **body).status_code == 200
    (kept,) = browser.get(f"/api/bench/log/{yard.machine.pk}").json()
    assert (kept["answer"], kept["note"], kept["by"], kept["texts"]) == ("2.17 % ± 0.12 %", "left strand", "Technician", CHAIN)


def test_what_cannot_be_worked_out_is_not_kept(yard, as_):
    assert save(as_(yard.technician), yard, texts={"measured_mm": "x"}).status_code == 422
    assert not BenchResult.objects.exists()


def test_taking_it_back_leaves_it_in_the_database(yard, as_):
    browser = as_(yard.technician)
    kept = save(browser, yard).json()
    assert browser.send(f"/api/bench/log/{yard.machine.pk}/{kept['uuid']}/withdraw").json() == []
    assert BenchResult.objects.get().withdrawn_at


@pytest.mark.parametrize(("role", "status"), [("lead", 200), ("technician", 200), ("parts", 403), ("owner", 403)])
def test_who_may_write_in_a_machines_log(role, status, yard, as_):
    yard.machine.owners.add(yard.owner)
    assert save(as_(getattr(yard, role)), yard).status_code == status


def test_one_result_belongs_to_one_machine_of_one_shop(yard, neighbour, as_):
    kept = save(as_(yard.technician), yard).json()
    assert save(as_(neighbour.technician), yard).status_code == 404
    other = save(as_(neighbour.technician), neighbour, uuid=kept["uuid"])
    assert other.status_code == 409, "and says nothing about whose it is"
    assert "Dunmere" not in other.content.decode()


def test_an_answer_as_a_file(yard, as_):
    browser = as_(yard.technician)
    as_json = json.loads(browser.send("/api/bench/chain/export/json", texts=CHAIN).content)
    assert as_json["runs"]["chain_stretch"]["given"]["measured_mm"] == 846
    text = browser.send("/api/bench/chain/export/csv", texts=CHAIN).content.decode("utf-8-sig")
    assert "typed,Length under tension,846" in text
    sheet = load_workbook(io.BytesIO(browser.send("/api/bench/chain/export/xlsx", texts=CHAIN).content)).active
    assert [cell.value for cell in sheet[1]] == ["part", "name", "value"]
    assert browser.send("/api/bench/chain/export/pdf", texts=CHAIN).status_code == 422


def test_a_file_cannot_smuggle_a_formula(yard, as_):
    texts = {"rows": [["=1+1", "48 50"]], "target_mm": "50", "tolerance_mm": "5"}
    browser = as_(yard.technician)
    assert ",'=1+1" in browser.send("/api/bench/depth/export/csv", texts=texts).content.decode()
    sheet = load_workbook(io.BytesIO(browser.send("/api/bench/depth/export/xlsx", texts=texts).content)).active
    assert {cell.data_type for row in sheet for cell in row if cell.value} == {"s"}


def test_a_run_of_the_test_stand_is_dropped_in_and_judged(yard, as_):
    browser, feed = as_(yard.technician), {}
    for meter in ("good", "gummed", "worn"):
        run = browser.get(f"/api/stand-ins/meter-run?meter={meter}&cells=600&seed=7").content.decode()
        taken = browser.send("/api/bench/spacing/file", text=run).json()
        assert taken["taken"] == run.count("\n") - 1 and taken["refused"] == []
        texts = taken["texts"] | {"nominal_mm": "165"}
        found = browser.send("/api/bench/spacing", texts=texts).json()["runs"]["seed_spacing"]["result"]
        feed[meter] = found
    assert feed["good"]["feed"] > 0.97 > feed["gummed"]["feed"] > feed["worn"]["feed"] - 0.02
    assert feed["gummed"]["misses"] > feed["gummed"]["multiples"], "gummed cells skip"
    assert feed["worn"]["multiples"] > feed["worn"]["misses"], "worn ones drop two"
    assert feed["worn"]["precision"] > feed["gummed"]["precision"] > feed["good"]["precision"]


def test_lines_that_cannot_be_used_are_named_and_the_rest_is_taken(yard, as_):
    browser = as_(yard.technician)
    found = browser.send("/api/bench/spacing/file", text="seed;spacing_mm\n1;162,5\n2;abc\n3;-4\n4;171").json()
    assert found["texts"]["spacings_mm"] == "162.5 171"
    assert [(one["line"], one["text"]) for one in found["refused"]] == [(3, "2,abc"), (4, "3,-4")]
    dug = browser.send("/api/bench/depth/file", text="row,d1,d2\n1,48,51\n2,50,\n,49,50\n2,49,x").json()
    assert dug["texts"]["rows"] == [["1", "48 51"], ["2", "50"]]
    assert [one["line"] for one in dug["refused"]] == [4, 5]
    assert browser.send("/api/bench/chain/file", text="1").status_code == 422


def test_depths_one_a_line_belong_to_their_row():
    found = measured.depths("Row\tDepth mm\n1\t48\n1\t50\n2\t51\n")
    assert found.rows == {"1": [48, 50], "2": [51]}


def test_a_file_without_titles_is_read_too():
    assert measured.spacings("162\n171\n").spacings_mm == [162, 171]


def test_the_simulated_gauge_types_what_that_place_could_read(yard, as_):
    browser, seen = as_(yard.technician), set()
    for seed in range(12):
        body = {"gauge": "caliper", "seed": seed, "walk_around": str(yard.walk_around.pk), "check": "opener-disc-diameter"}
        typed = browser.send("/api/stand-ins/gauge", **body).json()["types"]
        assert 380 < float(typed) <= 400, "between a little past the limit and new, of this machine's own model"
        seen.add(typed)
    assert len(seen) == 12
    near = float(browser.send("/api/stand-ins/gauge", gauge="tape", near="41.4 mm").json()["types"])
    assert 40 <= near <= 43


def test_the_same_seed_reads_the_same():
    assert gauge.figure(10, 20, "caliper", 3) == gauge.figure(10, 20, "caliper", 3)
    assert meter_stand.run("worn", 165, 100, 3) == meter_stand.run("worn", 165, 100, 3)
