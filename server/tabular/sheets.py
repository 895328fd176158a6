"""Tables as files that spreadsheets open: CSV and XLSX, written and read."""

import csv
import io
import re
import zipfile
from base64 import b64decode, b64encode
from collections.abc import Sequence
from typing import Literal

from django.http import HttpResponse
from ninja import UploadedFile

from lumvek_core import apart
from lumvek_core.errors import BadInput
from lumvek_core.files.tables import MOST_CELLS, MOST_COLUMNS, MOST_ROWS, TableSize

from .door import fit

LARGEST = 5_000_000
"""Bytes of a file that is read, and of what it unpacks to times twenty."""
BOOK = apart.Limits(seconds=45, megabytes=500)
"""What reading a workbook may cost, whatever is in it."""
TAGS = re.compile(rb"<(?:\w+:)?(row|c|si)[\s/>]")
"""What begins a row, a cell, a text that cells share."""
AT_ONCE = 1024 * 1024
RUN = ("=", "+", "-", "@", "\t", "\r", "\n", "＝", "＋", "－", "＠")
"""What a cell begins with that a spreadsheet would run."""


def harmless(cell: str) -> str:
    """A spreadsheet would run a cell that begins like a formula: an apostrophe before it keeps it text."""
    return f"'{cell}" if cell[:1] in RUN else cell


def as_typed(cell: str) -> str:
    """A cell as it was before it was made harmless."""
    return cell[1:] if cell[:1] == "'" and cell[1:2] in RUN else cell


def download(name: str, kind: str, content: bytes) -> HttpResponse:
    """A file to keep."""
    response = HttpResponse(content, content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


def table(name: str, form: Literal["csv", "xlsx"], rows: Sequence[Sequence[str]]) -> HttpResponse:
    """Rows as ``name.csv`` or ``name.xlsx``; the first row are titles."""
    if form == "csv":
        return download(f"{name}.csv", "text/csv; charset=utf-8", as_csv(rows))
    content = b64decode(apart.call(xlsx_in_text, [list(row) for row in rows], limits=BOOK))
    return download(f"{name}.xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", content)


def as_csv(rows: Sequence[Sequence[str]]) -> bytes:
    """CSV that spreadsheets take for UTF-8 and run nothing of."""
    out = io.StringIO()
    csv.writer(out).writerows([[harmless(cell) for cell in row] for row in rows])
    return b"\xef\xbb\xbf" + out.getvalue().encode()


def as_xlsx(rows: Sequence[Sequence[str]]) -> bytes:
    """One sheet, titles standing, every cell as text so that nothing is run or turned into a date."""
    from openpyxl import Workbook
    from openpyxl.cell import WriteOnlyCell
    from openpyxl.styles import Font
    from openpyxl.utils import get_column_letter

    book = Workbook(write_only=True)
    sheet = book.create_sheet()
    sheet.freeze_panes = "A2"
    for j in range(len(rows[0])):
        widest = max(len(row[j]) for row in rows if len(row) > j)
        sheet.column_dimensions[get_column_letter(j + 1)].width = min(60, widest + 2)
    for i, row in enumerate(rows):
        cells = [WriteOnlyCell(sheet) for _ in row]
        for cell, value in zip(cells, row, strict=True):
            cell.value, cell.data_type = value, "s"  # text, whatever it looks like
            if i == 0:
                cell.font = Font(bold=True)
        sheet.append(cells)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def xlsx_in_text(rows: Sequence[Sequence[str]]) -> str:
    """A workbook in base 64."""
    return b64encode(as_xlsx(rows)).decode()


def uploaded(file: UploadedFile) -> str:
    """A file from a form as CSV text. Raises BadInput with field ``file``."""
    return text_of(file.name or "", file.read(LARGEST + 1))


def words_of(file: UploadedFile) -> str:
    """A file of words from a form. Raises BadInput with field ``file``."""
    content = file.read(LARGEST + 1)
    _within(content)
    try:
        return fit(content.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise BadInput("file", "is no text") from None


def text_of(name: str, content: bytes) -> str:
    """A file of rows as CSV text, whichever of the two it is, fit to be kept. Raises BadInput with field ``file``."""
    text = _text_of(name, content)
    if "\0" in text:
        raise BadInput("file", "is not a text file")
    return fit(text)


def _text_of(name: str, content: bytes) -> str:
    _within(content)
    if content[:2] != b"PK":
        try:
            return content.decode("utf-8-sig")
        except UnicodeDecodeError:
            return content.decode("cp1252", errors="replace")  # how older spreadsheets save
    try:
        text: str = apart.call(xlsx_text, name, content, limits=BOOK)
    except apart.TooMuch as problem:
        raise BadInput("file", f"{name or 'it'} {problem.message}") from None
    return text


def _within(content: bytes) -> None:
    if len(content) > LARGEST:
        raise BadInput("file", f"is larger than {LARGEST // 1_000_000} MB")


def xlsx_text(name: str, content: bytes) -> str:
    """The first sheet of a workbook as CSV text. Raises BadInput with field ``file``."""
    try:
        return _first_sheet(content)
    except BadInput as problem:
        raise BadInput("file", problem.message) from None
    except (KeyError, ValueError, TypeError, AttributeError, IndexError, OSError, SyntaxError, zipfile.BadZipFile):
        raise BadInput("file", f"{name or 'it'} cannot be read as a table; save it as CSV or XLSX") from None


def _first_sheet(content: bytes) -> str:
    from openpyxl import load_workbook

    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        if sum(entry.file_size for entry in packed.infolist()) > 20 * LARGEST:
            raise BadInput("file", "unpacks to more than it should")
        for entry in packed.infolist():
            _count(packed, entry)
    book = load_workbook(io.BytesIO(content), read_only=True, data_only=True)
    out = io.StringIO()
    writer = csv.writer(out)
    size = TableSize()
    for row in book.worksheets[0].iter_rows(values_only=True):
        size.add(len(row))
        writer.writerow(["" if value is None else _cell(value) for value in row])
    return out.getvalue()


def _count(packed: zipfile.ZipFile, entry: zipfile.ZipInfo) -> None:
    """Refuse more rows, cells or texts than a table may have before any of them is read as one: that takes a hundred times
    longer, and a row is read whole.
    """
    with packed.open(entry) as content:
        rows, in_row, cells = 0, 0, 0
        while part := content.read(AT_ONCE):
            for tag in TAGS.findall(part):
                if tag == b"row":
                    rows, in_row = rows + 1, 0
                else:
                    cells, in_row = cells + 1, in_row + (tag == b"c")
                if rows > MOST_ROWS or cells > MOST_CELLS or in_row > MOST_COLUMNS:
                    raise BadInput("file", "holds more rows, columns or cells than one table may have")


def _cell(value: object) -> str:
    """A number that a spreadsheet keeps as 391.0 was typed as 391."""
    return str(int(value)) if isinstance(value, float) and value.is_integer() else str(value)
