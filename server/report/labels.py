"""Labels with a code to scan: for bins, for parts that came off, for machines."""

import io
from dataclasses import dataclass

import segno


@dataclass(frozen=True)
class Label:
    """title and lines of a label; code: its content as a picture of squares."""

    title: str
    lines: list[str]
    code: str


def code_of(text: str) -> str:
    """A text as squares to scan, an SVG without a size of its own."""
    out = io.BytesIO()
    segno.make(text, error="m", micro=False).save(out, kind="svg", xmldecl=False, svgns=True, border=1, omitsize=True)
    return out.getvalue().decode()
