"""The bench: every subject answers its examples, errors stand at their field, and nothing typed makes a fault."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import registry, structure
from lumvek_core.errors import BadInput
from lumvek_core.workbench.model import Field, Table
from lumvek_core.workbench.notation import carried, carrying, in_units
from lumvek_core.workbench.read import work
from lumvek_core.workbench.subjects import SUBJECTS

EXAMPLES = [(subject, example) for subject in SUBJECTS.values() for example in subject.examples]


@pytest.mark.parametrize(("subject", "example"), EXAMPLES, ids=[f"{s.key}-{e.name}" for s, e in EXAMPLES])
@pytest.mark.parametrize("system", ["mm", "in"])
def test_every_example_is_answered_with_its_why(subject, example, system):
    sheet = work(subject, example.texts if system == "mm" else carried(subject, example.texts), system)
    assert sheet.answer and sheet.why and set(sheet.runs) <= set(subject.calculators)
    for name, run in sheet.runs.items():
        assert registry.find(name).run(run.given) == run.result, "what is shown can be run again on the command line"


@pytest.mark.parametrize("subject", SUBJECTS.values(), ids=SUBJECTS)
def test_examples_go_from_good_to_bad(subject):
    marks = {work(subject, example.texts).mark for example in subject.examples}
    assert len(subject.examples) >= 3
    assert len(marks) > 1 or marks == {""}, "a drawing that is always right teaches nothing"


def test_every_calculation_for_people_has_a_place_at_the_bench():
    used = {name for subject in SUBJECTS.values() for name in subject.calculators}
    # The route comes with the walk-around, sourcing with the parts list, the season with its work, rows with their log, a changeover
    # and what is due after it with the machine: nobody types them.
    of_something = {
        "posture_route",
        "season_roughly",
        "season_schedule",
        "source_parts",
        "wear_forecast_rows",
        "changeover",
        "calibrations_due",
        "readiness",
        "next_check",
        "swap_test",
        "vibration_match",
        "bearing_tones",
    }
    assert set(registry.calculators()) - used == of_something


@pytest.mark.parametrize("subject", SUBJECTS.values(), ids=SUBJECTS)
def test_fields_name_fields_of_the_calculation(subject):
    known = set()
    for name in subject.calculators:
        kind = structure.schema(registry.find(name).given)
        for form in kind.get("anyOf", [kind]):
            known |= set(form["properties"])
    own = {"way", "new_mass_g", "target_figure"}
    for field in subject.fields:
        assert field.key.split(".")[0] in known | own, field.key


@pytest.mark.parametrize(
    ("subject", "texts", "field", "because"),
    [
        ("opener", {"readings": [["30", "card"], ["", ""], ["abc", "card"]]}, "readings.2.span_mm", "not a length"),
        ("opener", {"readings": [["30", "card"], ["", ""], ["400", "card"]]}, "readings.2.span_mm", "diameter"),
        ("opener", {"readings": [["30", "plate"]]}, "readings.0.feeler_mm", "length"),
        ("opener", {"readings": [["30", "card"]], "band.low_mm": "70"}, "band.high_mm", "low_mm"),
        ("opener", {}, "readings", "missing"),
        ("chain", {"way": "pushed", "pulled_mm": "1200"}, "pulled_mm", "pushed_mm"),
        ("chain", {"way": "pitches", "measured_mm": ""}, "measured_mm", "missing"),
        ("depth", {"rows": [["1", "48 51"], ["1", "50"]]}, "rows.1.name", "already"),
        ("depth", {"rows": [["1", "48 x"]]}, "rows.0.value", "not a length"),
        ("depth", {"rows": [["1", "48"]], "track_rows": "2"}, "track_rows.0", "no depths"),
        ("hold-downs", {"results": [["1", "yes", ""]]}, "results.0.measured_mm", "both feelers"),
        ("hold-downs", {"results": [["1", "no", "yes"]]}, "results.0.no_go", "cannot pass"),
        ("moisture", {"pairs": [["14", ""]]}, "pairs.0.reference_pct", "missing"),
        ("even", {"readings": [["L", "212"]]}, "readings", "two"),
        ("services", {"date_now": "tomorrow"}, "date_now", "day"),
        ("sieves", {"sieves": [["Chaffer", "6", "-1", "5"]]}, "sieves.0.gap_mm.left", "negative"),
    ],
)
def test_an_error_stands_where_it_was_typed(subject, texts, field, because):
    with pytest.raises(BadInput) as problem:
        work(SUBJECTS[subject], texts)
    assert problem.value.field == field
    assert because in problem.value.message


@pytest.mark.parametrize(
    ("text", "system", "shown"), [("14 5/8", "mm", "371.5 mm"), ("+0371.48", "mm", "371.5 mm"), ("14.625", "in", "14 5/8 in"), ("37,1 cm", "mm", "371 mm")]
)  # fmt: skip
def test_a_length_is_typed_in_any_notation_or_by_a_gauge(text, system, shown):
    texts = {"reading": text, "new": "381 mm", "limit": "368 mm"}
    assert work(SUBJECTS["wear"], texts, system).why[1].split(" − ")[1].startswith(shown)


def test_past_is_the_other_side_of_the_guard():
    assert (
        work(SUBJECTS["register"], {"short_left_mm": "3", "short_right_mm": "1 past"})
        .runs["knife_register"]
        .result["centring_mm"]
        == 2
    )
    assert (
        work(SUBJECTS["register"], {"short_left_mm": "3", "short_right_mm": "-1"}).runs["knife_register"].result["centring_mm"]
        == 2
    )


def test_the_shops_own_card_goes_before_the_usual_one():
    texts = {"readings": [["30", "card"]], "disc_diameter_mm": "376"}
    usual = work(SUBJECTS["opener"], texts).runs["opener_contact"].given
    own = work(SUBJECTS["opener"], texts, feelers={"card": 0.35}).runs["opener_contact"].given
    assert (usual["readings"][0]["feeler_mm"], own["readings"][0]["feeler_mm"]) == (0.3, 0.35)


def typed(field):
    if isinstance(field, Table):
        return st.lists(st.lists(st.one_of([cell(column) for column in field.columns]), max_size=7), max_size=4)
    return cell(field)


def cell(field):
    right = [choice.key for choice in field.choices] or ["1", "30", "14 5/8", "0", "card", "2026-03-05", field.start]
    return st.sampled_from(right) | st.text("0123456789 ./-,½inmpasty", max_size=9)


@pytest.mark.parametrize("subject", SUBJECTS.values(), ids=SUBJECTS)
@given(data=st.data())
def test_whatever_is_typed_there_is_an_answer_or_a_reason(subject, data):
    texts = data.draw(st.fixed_dictionaries({}, optional={field.key: typed(field) for field in subject.fields}))
    try:
        sheet = work(subject, texts)
    except BadInput as problem:
        known = {field.key for field in subject.fields}
        assert problem.message
        assert problem.field == "" or any(
            problem.field == key or problem.field.startswith(key + ".") or key.startswith(problem.field) for key in known
        )
    else:
        structure.write(sheet)


def test_every_field_with_a_better_source_names_a_check_that_has_it():
    from lumvek_core.catalogue.load import shipped
    from lumvek_core.rules.base import limits

    checks = {check.key.rpartition(".")[2]: check for family in shipped().families.values() for check in family.checks.values()}
    for subject in SUBJECTS.values():
        for field in subject.fields:
            if isinstance(field, Field) and field.from_check:
                key, figure = field.from_check
                assert figure in limits(type(checks[key].rule)), (subject.key, field.key)


@pytest.mark.parametrize(
    ("subject", "n"), [(subject, n) for subject in SUBJECTS.values() for n in range(-1, len(subject.examples))]
)
def test_a_reader_of_inches_gets_the_same_verdict_on_what_a_subject_starts_with(subject, n):
    """Starting values and every example: the same calculation, whatever a bare figure means to its reader."""

    def answer(system):
        mine = in_units(subject, system)
        first = dict(mine.examples[0].texts)
        texts = first if n < 0 else {**{key: [] for key in first if not isinstance(first[key], str)}, **mine.examples[n].texts}
        return work(mine, texts, system)

    metric, inches = answer("mm"), answer("in")
    assert inches.mark == metric.mark
    for name, run in metric.runs.items():
        assert (
            inches.runs[name].result == pytest.approx(run.result)
            if isinstance(run.result, float)
            else same(inches.runs[name].result, run.result)
        )


def same(left, right):
    """Alike but for the words, which are in the reader's units."""
    if isinstance(left, dict):
        return left.keys() == right.keys() and all(same(left[key], right[key]) for key in left)
    if isinstance(left, list):
        return len(left) == len(right) and all(map(same, left, right))
    return left == pytest.approx(right) if isinstance(left, float) else left == right


@pytest.mark.parametrize(
    ("kind", "text", "carried"),
    [
        ("length", "371.5", "371.5mm"),
        ("length", "14 5/8", "14 5/8"),
        ("length", "25 thou", "25 thou"),
        ("signed", "2 past", "2mm past"),
        ("length", "1' 2 1/2\"", "1' 2 1/2\""),
        ("signed", "-1,5", "-1,5mm"),
        ("lengths", "165 162 15 in", "165mm 162mm 15 in"),
        ("feeler", "card", "card"),
        ("number", "30", "30"),
    ],
)
def test_a_bare_figure_is_given_its_unit_and_nothing_else_is(kind, text, carried):
    assert carrying(Field("x", "X", kind), text) == carried


@pytest.mark.parametrize(
    ("subject", "texts"),
    [(subject, dict(example.texts)) for subject in SUBJECTS.values() for example in subject.examples],
    ids=lambda one: one.key if hasattr(one, "key") else "",
)
def test_every_answer_is_drawn_as_its_subject_says(subject, texts):
    start = {} if texts is subject.examples[0].texts else dict(subject.examples[0].texts)
    drawing = work(subject, start | texts).drawing
    assert type(drawing) is subject.draws
    assert structure.read(type(drawing), structure.write(drawing)) == drawing
