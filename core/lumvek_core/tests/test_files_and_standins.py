"""Tables from outside, whatever spreadsheet wrote them, and the devices that are made up."""

import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.catalogue.load import shipped
from lumvek_core.errors import BadInput
from lumvek_core.files import measured
from lumvek_core.files.tables import rows_of
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.simulators import gauge, meter_stand
from lumvek_core.units import parse_length


@pytest.mark.parametrize(
    ("text", "titles", "rows"),
    [
        ("Row,Depth\n1,48\n", ["row", "depth"], [(2, ["1", "48"])]),
        ("\ufeffRow;Depth\r\n1;48,5\r\n\r\n2;50\r\n", ["row", "depth"], [(2, ["1", "48,5"]), (4, ["2", "50"])]),
        ("row\tdepth\n 1 \t 48 \n", ["row", "depth"], [(2, ["1", "48"])]),
        ('check,typed\n"Disc, left","15 3/8"\n', ["check", "typed"], [(2, ["Disc, left", "15 3/8"])]),
        ("1,48\n2,50\n", [], [(1, ["1", "48"]), (2, ["2", "50"])]),
    ],
)
def test_tables_of_any_spreadsheet(text, titles, rows):
    assert rows_of(text) == (rows, titles)


@pytest.mark.parametrize(
    ("text", "because"),
    [
        ("", "empty"),
        ("  \n\n", "empty"),
        ("a\x00b", "not a text file"),
        ("x" * 8_000_001, "too large"),
        ("x" * 200_000, "not a table"),
        ("1,2\n" * 100_002, "more than 100000 lines"),
        ("1,2\n" + ",".join("1" * 101), "more than 100 columns in line 2"),
        (",".join("1" * 100) + "\n" + ("," * 99 + "\n") * 10_001, "more than 1000000 cells"),
    ],
)
def test_what_is_no_table(text, because):
    with pytest.raises(BadInput) as problem:
        rows_of(text)
    assert because in problem.value.message


@given(st.text(max_size=200))
def test_no_file_makes_a_fault_and_no_line_is_lost(text):
    try:
        rows, _ = rows_of(text)
    except BadInput:
        return
    spacings, depths = measured.spacings(text), measured.depths(text)
    assert len(spacings.spacings_mm) + len(spacings.refused) == len(rows)
    lines = {number for number, _ in rows}
    assert {one.line for one in [*spacings.refused, *depths.refused]} <= lines
    assert all(one.why for one in [*spacings.refused, *depths.refused])


def test_what_is_shown_in_one_field_is_read_from_it_again():
    lengths = [162.5, 171, 0, 330.25]
    assert [parse_length(part) for part in measured.shown(lengths).split()] == lengths


MEASURED = [
    check
    for family in shipped().families.values()
    for check in family.checks.values()
    if check.kind == "measure" and check.unit == "mm" and not check.values
]


@pytest.mark.parametrize("check", MEASURED, ids=[check.key for check in MEASURED])
def test_a_gauge_types_what_its_check_understands(check):
    for name in gauge.GAUGES:
        value = parse_reading(check, [gauge.read(check, name, seed=4)], "card").numbers[0]
        assert value >= 0


def test_gauges_read_to_their_own_step():
    assert len(gauge.figure(380, 400, "caliper", 1).partition(".")[2]) == 2
    assert "." not in gauge.figure(380, 400, "tape", 1)
    assert gauge.figure(380, 400, "caliper", 1).startswith("+"), "as those with a sign do"


@given(st.integers(0, 10**6), st.sampled_from(list(meter_stand.BEHAVIOUR)))
def test_a_run_is_as_long_as_its_cells(seed, meter):
    """Skips and doubles move seeds, they do not stretch the row."""
    spacings = meter_stand.run(meter, 165, 400, seed)
    assert all(spacing >= 0 for spacing in spacings)
    assert sum(spacings) == pytest.approx(165 * 400, rel=0.03)


def test_meters_differ_as_their_names_say():
    def found(meter):
        runs = [meter_stand.run(meter, 165, 1000, seed) for seed in range(5)]
        shares = [registry.find("seed_spacing").run({"spacings_mm": run, "nominal_mm": 165}) for run in runs]
        return {name: statistics.fmean(one[name] for one in shares) for name in ("misses", "multiples", "precision")}

    good, gummed, worn = (found(meter) for meter in ("good", "gummed", "worn"))
    assert good["misses"] < 0.02 and good["multiples"] < 0.02
    assert gummed["misses"] > 3 * good["misses"] and gummed["multiples"] < gummed["misses"]
    assert worn["multiples"] > worn["misses"] > good["misses"]
    assert good["precision"] < gummed["precision"] < worn["precision"]


def test_the_stands_file_is_read_back_whole():
    run = meter_stand.run("worn", 165, 200, 3)
    assert measured.spacings(meter_stand.as_csv(run)).spacings_mm == run
