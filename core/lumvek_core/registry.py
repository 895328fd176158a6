"""The calculators by name: the one list behind the command line, the HTTP API and its types.

To add one, write a function in a module of `calculators/` that takes one frozen dataclass and returns another, and mark it
``@calculator``, or ``@calculator_at_length()`` where it searches. Its name, docstring and dataclasses are its name, help and
schema everywhere.
"""

import importlib
import inspect
import pkgutil
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any, TypeVar, get_type_hints

from . import apart, structure
from .errors import BadInput

F = TypeVar("F", bound=Callable[..., Any])


@dataclass(frozen=True)
class Calculator:
    """One calculation: its name, the function, and what goes in and comes out.

    limits: of time and memory, where it searches: what that costs is not known from the size of its input.
    """

    name: str
    function: Callable[..., Any]
    given: Any
    result: Any
    limits: apart.Limits | None = None

    @property
    def at_length(self) -> bool:
        """Whether it searches."""
        return self.limits is not None

    @property
    def summary(self) -> str:
        """First sentence or two of the docstring: its first paragraph, in one line."""
        return " ".join((inspect.getdoc(self.function) or "").partition("\n\n")[0].split())

    @property
    def description(self) -> str:
        return inspect.getdoc(self.function) or ""

    def run(self, raw: Any, *told: apart.Progress) -> dict[str, Any]:
        """JSON data in, JSON data out. told: how far it has come, of one that tells it. Raises BadInput."""
        try:
            result: dict[str, Any] = structure.write(self.function(structure.read(self.given, raw), *told))
        except (OverflowError, ZeroDivisionError):
            # Sizes no machine has (1e300 mm) run out of float range inside a formula.
            raise BadInput("", "the figures are too large or too small to work with") from None
        except RecursionError:
            raise BadInput("", "is nested too deeply") from None
        return result

    def run_within_limits(self, raw: Any, progress: apart.Progress | None = None) -> dict[str, Any]:
        """As `run`, for whoever asks from outside: what works at length does so in a process of its own, ended at its limits.

        Raises BadInput, apart.TooMuch, apart.Busy.
        """
        if self.limits is None:
            return self.run(raw)
        structure.read(self.given, raw)  # sizes first: what is too much begins no process
        answer: dict[str, Any] = apart.call(run_named, self.name, raw, limits=self.limits, progress=progress)
        return answer


_calculators: dict[str, Calculator] = {}


def calculator(function: F) -> F:
    """Enter a function into the registry under its own name."""
    return _entered(function, None)


def calculator_at_length(limits: apart.Limits = apart.LIMITS) -> Callable[[F], F]:
    """Enter one that searches: asked from outside it works in a process of its own, ended at these limits."""
    return lambda function: _entered(function, limits)


def _entered(function: F, limits: apart.Limits | None) -> F:
    hints = get_type_hints(function, include_extras=True)
    given = next(kind for name, kind in hints.items() if name != "return")
    _calculators[function.__name__] = Calculator(function.__name__, function, given, hints["return"], limits)
    return function


@cache
def calculators() -> dict[str, Calculator]:
    """All calculators by name, alphabetically. Read once."""
    from . import calculators, faults, planning

    for package in (calculators, faults, planning):
        for module in pkgutil.iter_modules(package.__path__):
            importlib.import_module(f"{package.__name__}.{module.name}")
    return dict(sorted(_calculators.items()))


def find(name: str) -> Calculator:
    """The calculator called `name`. Raises BadInput if there is none."""
    try:
        return calculators()[name]
    except KeyError:
        raise BadInput("", f"there is no calculation called {name}; ./lumvek calc --list shows them") from None


def run_named(name: str, raw: Any, *told: apart.Progress) -> dict[str, Any]:
    """The answer of the calculator called `name`. Raises BadInput."""
    return find(name).run(raw, *told)
