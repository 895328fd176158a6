"""What is set when the work begins: the file ``field-settings.yaml``."""

from collections.abc import Collection
from dataclasses import dataclass


@dataclass(frozen=True)
class FieldSetting:
    """families: machines and headers that have it. start: where one begins; how: which way to go from there.
    calculator: that works it out."""

    key: str
    name: str
    families: list[str]
    start: str
    how: str
    unit: str = ""
    calculator: str = ""

    @property
    def is_length(self) -> bool:
        """Whether it is read in the reader's own units."""
        return self.unit == "mm"


@dataclass(frozen=True)
class FieldSettings:
    """conditions: words for how field and crop are. settings: in the order they are set."""

    conditions: list[str]
    settings: list[FieldSetting]

    def of(self, families: Collection[str]) -> list[FieldSetting]:
        """Those of a machine and what is coupled to it, in order."""
        return [one for one in self.settings if set(one.families) & set(families)]
