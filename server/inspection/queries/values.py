"""Between stored rows and the values of the core."""

from lumvek_core.judgement.parse_reading import Value

from ..models import Reading


def value_of(reading: Reading) -> Value:
    """The value that was understood when the reading was taken."""
    return read_value(reading.value)


def columns_of(value: Value) -> dict[str, object]:
    """A value as it is stored, empty parts left out."""
    data: dict[str, object] = {}
    if value.numbers:
        data["numbers"] = value.numbers
    if value.choice:
        data["choice"] = value.choice
    if value.text:
        data["text"] = value.text
    if value.feeler_mm is not None:
        data["feeler_mm"] = value.feeler_mm
    return data


def read_value(columns: object) -> Value:
    """A value from its stored columns."""
    return Value(**columns) if isinstance(columns, dict) else Value()
