"""How deep, how high, how wide: typed in millimetres or inches, read in either."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.errors import BadInput
from lumvek_core.field_lengths import kept, shown, typed


@pytest.mark.parametrize(
    ("text", "system", "mm"),
    [
        ("45", "mm", "45"),
        ("1 3/4", "in", "44.45"),
        ("1.75", "in", "44.45"),
        ("45 mm", "in", "45"),
        ('2"', "mm", "50.8"),
        ("40–45", "mm", "40 to 45"),
        ("40 to 45", "mm", "40 to 45"),
        ("40-45", "mm", "40 to 45"),
        ("1 1/2 to 2", "in", "38.1 to 50.8"),
        ("1 1/2 to 2 in", "mm", "38.1 to 50.8"),
        (" shallow ", "in", "shallow"),
        ("by the stalk", "mm", "by the stalk"),
        ("3 clicks", "in", "3 clicks"),
        ("Hole 4", "mm", "Hole 4"),
        ("notches 2", "mm", "notches 2"),
    ],
)
def test_what_is_typed_is_kept_in_millimetres(text, system, mm):
    assert kept(text, system) == mm


@pytest.mark.parametrize(
    ("mm", "system", "text"),
    [
        ("45", "mm", "45 mm"),
        ("44.45", "in", "1 3/4 in"),
        ("40 to 45", "mm", "40 to 45 mm"),
        ("38.1 to 50.8", "in", "1 1/2 to 2 in"),
        ("0.5", "in", "20 thou"),
        ("shallow", "in", "shallow"),
    ],
)
def test_it_is_read_in_either(mm, system, text):
    assert shown(mm, system) == text


@pytest.mark.parametrize("text", ["45 and a bit", "12 rows", "40 to 45 to 50", "3 kg", "hole 3 and 4"])
def test_figures_that_are_no_length_are_refused(text):
    with pytest.raises(BadInput):
        kept(text, "mm")


@given(st.floats(1, 900), st.sampled_from(["mm", "in"]))
def test_taken_again_it_is_what_it_was_as_near_as_it_can_be_read(value, system):
    once = kept(f"{value:.1f} mm", system)
    again = kept(typed(once, system), system)
    assert float(again) == pytest.approx(float(once), abs=0.06 if system == "mm" else 25.4 / 64 + 0.01)
