"""What is taught to a machine's controls: the file ``calibrations.yaml``."""

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import Over
from ..calculators.calibrations_due import CALIBRATED, GoesAfter

SET, FITTED, TOLD = "set:", "fitted:", "told:"
"""Before the check that is set otherwise, the slot whose part is renewed, the key of what somebody says has happened."""
PLAIN = ("header", "crop", "season")
"""Another header coupled, another crop, the first time in a season."""
AFTER = (SET, FITTED, TOLD, CALIBRATED)


@dataclass(frozen=True)
class CalibrationStep:
    """do: one thing. watch: what one sees while it works. hold_s: seconds that a switch is held, about."""

    do: str
    watch: str = ""
    hold_s: Annotated[float, Over(0)] | None = None


@dataclass(frozen=True)
class CalibrationValue:
    """A figure that is kept. unit: ``mm`` and ``m`` are typed and read in each technician's own units, others as they are.
    low, high: outside which nobody can mean it."""

    key: str
    name: str
    unit: str
    low: float
    high: float


@dataclass(frozen=True)
class Calibration:
    """families: kinds of machine that have it, with `option`, and with a header of `headers` coupled that has `header_option`;
    empty: any. due_after: what makes it due. before: what must hold. after: calibrations that go before. works: how one sees
    that it worked. save: how it is kept by the machine; empty where there is nothing to save. calculator: that works its figure
    out.
    """

    key: str
    name: str
    families: list[str]
    due_after: list[str]
    posture: str
    steps: list[CalibrationStep]
    works: str
    save: str = ""
    option: str = ""
    headers: list[str] = field(default_factory=list)
    header_option: str = ""
    before: list[str] = field(default_factory=list)
    after: list[GoesAfter] = field(default_factory=list)
    hazards: list[str] = field(default_factory=list)
    values: list[CalibrationValue] = field(default_factory=list)
    calculator: str = ""
    note: str = ""

    def made_with(self, options: Collection[str], headers: Iterable[tuple[str, Collection[str]]]) -> bool:
        """Whether a machine with these options has it. headers: coupled to it, each its family and options; short keys."""
        if self.option and self.option not in options:
            return False
        return not self.headers or any(
            family in self.headers and (not self.header_option or self.header_option in its) for family, its in headers
        )


@dataclass(frozen=True)
class Calibrations:
    """happened: what somebody may say was done, by key, in words."""

    happened: dict[str, str]
    calibrations: list[Calibration]

    def of(self, family: str, options: Collection[str], headers: Sequence[tuple[str, Collection[str]]]) -> list[Calibration]:
        """Those of a machine with what is coupled to it, in working order."""
        return [one for one in self.calibrations if family in one.families and one.made_with(options, headers)]

    @property
    def by_key(self) -> dict[str, Calibration]:
        return {one.key: one for one in self.calibrations}
