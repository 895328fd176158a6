"""Understanding and showing pressures as gauges show them. Held in millibar."""

import re
from typing import Literal

from .units import NUMBER, decimal_of, plain, refusal, tidy

PressureUnit = Literal["mbar", "bar", "kPa", "psi", "inHg", "inH2O"]


MBAR_PER: dict[PressureUnit, float] = {
    "mbar": 1.0, "bar": 1000.0, "kPa": 10.0, "psi": 68.947573, "inHg": 33.863886, "inH2O": 2.4908891,
}  # fmt: skip
"""What gauges show, in millibar. Water at 4 °C, mercury at 0 °C."""


_PRESSURE_WORDS: dict[str, PressureUnit] = {unit.lower(): unit for unit in MBAR_PER} | {
    "hpa": "mbar", '"hg': "inHg", '"h2o': "inH2O", "inwc": "inH2O", '"wc': "inH2O", "in": "inH2O", '"': "inH2O",
}  # fmt: skip


_PRESSURE = re.compile(rf"(?P<number>{NUMBER})\s*(?P<unit>[a-z0-9\"\s]*)")


def parse_pressure(text: str, default_unit: PressureUnit) -> float:
    """The pressure in mbar that `text` means: ``2.2 bar``, ``32 psi``, ``26 inH2O``; a bare figure is in `default_unit`.

    Raises BadInput with field ``text``.
    """
    cleaned = tidy(text).replace("₂", "2")
    found = _PRESSURE.fullmatch(cleaned)
    if found is None:
        raise refusal("is not a pressure; write for example 2.2 bar, 65 mbar, 32 psi or 26 inH2O")
    word = found["unit"].replace(" ", "")
    if word and word not in _PRESSURE_WORDS:
        raise refusal(f"“{found['unit'].strip()}” is not a unit of pressure used here; use bar, mbar, kPa, psi, inHg or inH2O")
    unit = _PRESSURE_WORDS[word] if word else default_unit
    return float(decimal_of(found["number"])) * MBAR_PER[unit]


def pressure_unit_in(text: str) -> PressureUnit | None:
    """The unit that stands in a pressure as it was typed; None for a bare figure."""
    found = _PRESSURE.fullmatch(tidy(text).replace("₂", "2"))
    return _PRESSURE_WORDS.get(found["unit"].replace(" ", "")) if found else None


def show_pressure(value_mbar: float, unit: PressureUnit) -> str:
    """With two decimals in bar, one otherwise, closing zeros dropped: ``2.2 bar``, ``31.9 psi``, ``65 mbar``."""
    return f"{plain(value_mbar / MBAR_PER[unit], 2 if unit == 'bar' else 1)} {unit}"
