"""What must hold for every input, not only for the worked examples."""

import json
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumvek_core import registry, units
from lumvek_core.errors import BadInput

sizes = st.floats(1, 2000)
json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)


def likely(schema):
    """Inputs that look right to a calculator, so that the fuzz gets past the first check."""
    if "anyOf" in schema:
        return st.one_of([likely(option) for option in schema["anyOf"]])
    if "enum" in schema:
        return st.sampled_from(schema["enum"]) | st.text(max_size=5)
    match schema["type"]:
        case "number":
            return st.floats(0, 500) | st.floats() | st.sampled_from([0, -1, 1e99, 1e300, -1e300, 1e-300])
        case "integer":
            return st.integers(-2, 50) | st.floats(0, 3)
        case "string":
            return st.text("0123456789 ./-,'\"½incmtoufh", max_size=14) | st.text(max_size=8)
        case "array":
            return st.lists(likely(schema["items"]), max_size=4)
        case "object" if "properties" in schema:
            required = {name: likely(schema["properties"][name]) for name in schema["required"]}
            optional = {name: likely(s) for name, s in schema["properties"].items() if name not in required}
            return st.fixed_dictionaries(required, optional=optional)
        case "object":
            return st.dictionaries(st.sampled_from("LRab"), likely(schema["additionalProperties"]), max_size=4)
        case _:
            return st.none()


@pytest.mark.parametrize("name", sorted(registry.calculators()))
@given(data=st.data())
def test_no_input_makes_a_traceback_or_a_number_that_is_none(name, data):
    from lumvek_core.structure import schema

    entry = registry.find(name)
    raw = data.draw(st.one_of(json_values, likely(schema(entry.given))))
    try:
        result = entry.run(raw)
    except BadInput as problem:
        assert problem.message and isinstance(problem.field, str)
    else:
        json.dumps(result, allow_nan=False)


@given(new=sizes, limit=sizes, a=sizes, b=sizes)
def test_more_wear_never_uses_less(new, limit, a, b):
    assume(abs(new - limit) > 1e-3)
    entry = registry.find("wear_used")
    first, second = (entry.run({"new": new, "limit": limit, "reading": reading}) for reading in (a, b))
    nearer = (a - b) * math.copysign(1, new - limit)
    if nearer > 0:
        assert first["used"] <= second["used"]
        order = ["sound", "watch", "due"]
        assert order.index(first["state"]) <= order.index(second["state"])


@given(st.floats(0, 3000))
def test_what_is_shown_in_inches_is_understood_again(value_mm):
    again = units.parse_length(units.show_inches(value_mm))
    allowed = 25.4 / 64 if value_mm >= 2.54 else 0.0254 / 2
    assert abs(again - value_mm) <= allowed * (1 + 1e-9)


@given(st.floats(0, 3000))
def test_what_is_shown_in_mm_is_understood_again(value_mm):
    assert abs(units.parse_length(units.show_mm(value_mm)) - value_mm) <= 0.05 + 1e-9


@given(st.text(max_size=30))
def test_any_text_is_a_length_or_refused(text):
    try:
        value = units.parse_length(text)
    except BadInput as problem:
        assert problem.field == "text"
    else:
        assert 0 <= value <= units.LONGEST_MM


discs = st.floats(300, 450)
angles = st.floats(8, 20)
feelers = st.floats(0.05, 0.6)


def contact(span, feeler, diameter, angle, band_feeler=0.3):
    band = {"low_mm": 38, "high_mm": 64, "feeler_mm": band_feeler}
    given = {
        "readings": [{"span_mm": span, "feeler_mm": feeler}],
        "disc_diameter_mm": diameter,
        "included_angle_deg": angle,
        "band": band,
    }
    return registry.find("opener_contact").run(given)


@given(span=st.floats(5, 120), feeler=feelers, diameter=discs, angle=angles)
def test_the_bands_own_feeler_shows_what_it_measured(span, feeler, diameter, angle):
    assert contact(span, feeler, diameter, angle, band_feeler=feeler)["equivalent_span_mm"] == pytest.approx(span, rel=1e-6)


@given(span=st.floats(20, 120), thin=feelers, thick=feelers, diameter=discs, angle=angles)
def test_changing_feelers_and_back_changes_nothing(span, thin, thick, diameter, angle):
    seen = contact(span, thin, diameter, angle, band_feeler=thick)["equivalent_span_mm"]
    assume(seen > 0)
    assert contact(seen, thick, diameter, angle, band_feeler=thin)["equivalent_span_mm"] == pytest.approx(span, rel=1e-6)


@given(span=st.floats(5, 120), diameter=discs, angle=angles)
def test_a_thicker_feeler_always_stops_further_out(span, diameter, angle):
    lows = [band["low_mm"] for band in contact(span, 0.2, diameter, angle)["band_equivalents"]]
    assert lows == sorted(lows)


@given(span=st.floats(10, 120), feeler=feelers, diameter=discs, angle=angles)
def test_contact_agrees_with_the_gap_found_by_stepping_along_the_rims(span, feeler, diameter, angle):
    """A different derivation: two circles in planes that lean by half the angle; at half the span their gap is the feeler's
    thickness."""
    overlap = contact(span, feeler, diameter, angle)["overlap_mm"]
    radius, half_angle = diameter / 2, math.radians(angle) / 2
    turn = math.asin(span / 2 / radius)
    reach = radius * math.cos(turn)  # how far forward the rim stands at that height
    meeting = radius - overlap  # where the planes would cross, measured the same way
    gap = 2 * (meeting - reach) * math.sin(half_angle)
    assert gap == pytest.approx(feeler, rel=1e-6, abs=1e-9)


@given(
    st.dictionaries(
        st.text("ab12", min_size=1, max_size=3), st.integers(-4000, 4000).map(lambda n: n / 8), min_size=2, max_size=8
    ),
    st.integers(0, 160).map(lambda n: n / 8),
)
def test_corrections_make_everything_even(readings, tolerance):
    entry = registry.find("even")
    found = entry.run({"readings": readings, "tolerance": tolerance})
    put_right = {name: value + found["corrections"][name] for name, value in readings.items()}
    assert entry.run({"readings": put_right, "tolerance": tolerance})["state"] == "even"
