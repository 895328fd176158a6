"""What comes in from outside is fit to be kept, or refused with what is wrong."""

import csv
import io
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import load_workbook

from lumvek_core.errors import BadInput
from tabular import sheets
from tabular.door import LONGEST, MOST_THINGS, Unfit, fit, read_json


@given(st.text(st.characters(codec=None)))
def test_what_is_fit_can_be_written_anywhere_and_stays_as_it_is(text):
    kept = fit(text)
    kept.encode()
    assert fit(kept) == kept
    assert not set(kept) & {chr(n) for n in range(32)} - {"\t", "\n", "\r"}


def test_what_people_type_is_untouched():
    for text in ("15 3/8", "row 3 left\nand right\t!", "ølje – 2 µm", "𝟛🌾", ""):
        assert fit(text) == text


def test_texts_are_made_fit_wherever_they_stand():
    assert read_json(b'{"a\\u0000": ["x\\ud800y", {"b": "\\u0007"}], "n": 1.5, "t": true, "z": null}') == {
        "a": ["xy", {"b": ""}],
        "n": 1.5,
        "t": True,
        "z": None,
    }


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "is not JSON"),
        (b"{", "is not JSON"),
        (b"\xff\xfe", "is not JSON"),
        (b"[NaN]", "is not JSON"),
        (b"[Infinity]", "is not JSON"),
        (b"[1e999]", "too large"),
        (b"[123456789012345678901234567890]", "too large"),
        (b"[" * 60 + b"]" * 60, "nested too deep"),
        (b"[" * 100_000, "is not JSON"),
        (json.dumps([0] * MOST_THINGS).encode(), "more than anybody sends"),
        (json.dumps("x" * (LONGEST + 1)).encode(), "too long"),
    ],
)
def test_what_cannot_be_read_is_said(content, words):
    with pytest.raises(Unfit, match=words):
        read_json(content)


RUNS = ["=1+1", "+1", "-1", "@a", "\t=1", "\r=1", "\n=1", "＝1", "＋1", "－1", "＠a"]


@pytest.mark.parametrize("cell", RUNS)
def test_no_cell_is_run_by_a_spreadsheet_and_comes_back_as_it_was(cell):
    rows = [["title"], [cell]]
    written = list(csv.reader(io.StringIO(sheets.as_csv(rows).decode("utf-8-sig"), newline="")))
    assert written[1][0] == f"'{cell}" and sheets.as_typed(written[1][0]) == cell
    assert load_workbook(io.BytesIO(sheets.as_xlsx(rows))).active["A2"].data_type == "s"


def packed(**files):
    import zipfile

    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files.items():
            archive.writestr(name.replace("_", "/"), content)
    return out.getvalue()


GOOD = sheets.as_xlsx([["a", "b"], ["1", "2"]])
BROKEN = {
    "cut off in the middle": GOOD[: len(GOOD) // 2],
    "nothing but its first letters": b"PK",
    "an archive of something else": packed(readme="hello"),
    "a workbook without sheets": packed(**{"xl_workbook.xml": "<workbook/>"}),
    "XML that is none": packed(**{"[Content_Types].xml": "<x", "xl_workbook.xml": "<y"}),
    "an archive in an archive": packed(inner=GOOD),
    "a byte turned in its middle": GOOD[:200] + bytes([GOOD[200] ^ 255]) + GOOD[201:],
    "a picture with the name of one": b"PK\x03\x04" + b"\x89PNG" * 200,
    "an end that promises more": GOOD[:-10] + b"\xff" * 10,
    "a thousand times larger unpacked": packed(big=b"0" * 120_000_000),
}


@pytest.mark.parametrize("name", BROKEN)
def test_a_broken_workbook_is_refused_in_words(name):
    try:
        sheets.text_of("counters.xlsx", BROKEN[name])
    except BadInput as problem:
        assert problem.field == "file" and problem.message
    else:
        assert name == "a byte turned in its middle", "one byte may be one that nobody reads"


@pytest.mark.parametrize("tag", ["<c><v>1</v></c>", "<row/>", "<x:c/>"])
def test_how_large_a_workbook_is_is_known_before_any_of_it_is_read_as_one(tag, monkeypatch):
    """A row is read whole: one of two million cells took half a minute before anybody counted them."""
    monkeypatch.setattr("openpyxl.load_workbook", lambda *_, **__: pytest.fail("it was read"))
    row = f"<worksheet><sheetData><row>{tag * 1_100_000}</row></sheetData></worksheet>"
    with pytest.raises(BadInput, match="more rows, columns or cells"):
        sheets.xlsx_text("counters.xlsx", packed(**{"xl_worksheets_sheet1.xml": row}))


def test_control_characters_in_a_file_are_dropped():
    assert sheets.text_of("a.csv", b"number,name\r\nD1,di\x01sc\x07\r\n") == "number,name\r\nD1,disc\r\n"
