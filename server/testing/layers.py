"""Rows that many tests begin from, laid once and rolled back to after each test.

A layer is a function that makes rows and returns a namespace of them; it may stand on another layer, whose namespace it is
given::

@layer() def yard(): ...

@layer(on="yard") def planter(yard): ...

Each becomes a fixture of its name. Layers are nested savepoints in one transaction that stays open while tests that want them
follow each other; a test's own changes are rolled back by pytest-django, and its namespace is a copy of its own. A test that
commits for real (`django_db(transaction=True)`) finds no layer laid, and has its own made.
"""

import copy
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

import pytest
from django.db import transaction

Build = Callable[..., Any]
LAYERS: dict[str, tuple[str, Build]] = {}
"""name → (the layer it stands on, what makes it)."""


def layer(on: str = "") -> Callable[[Build], Any]:
    """Register a layer and make it a fixture. The namespace of a layer and those it stands on is the same in one test."""

    def register(build: Build) -> Any:
        name = build.__name__
        assert name not in LAYERS, f"there are two layers called {name}"
        LAYERS[name] = on, build

        @pytest.fixture(name=name)
        def laid(db: None, ground: "Ground") -> Any:
            return ground.of(name)

        return laid

    return register


def chain(name: str) -> list[str]:
    """A layer with all that it stands on, the lowest first."""
    on = LAYERS[name][0]
    return [*chain(on), name] if on else [name]


@dataclass
class Laid:
    """One layer as it lies. namespace is never handed out itself."""

    name: str
    atomic: Any
    namespace: Any


class Ground:
    """The layers that lie at the moment, the lowest first."""

    def __init__(self) -> None:
        self.laid: list[Laid] = []
        self.own: dict[str, Any] = {}
        self.tops: list[str] = []

    def stand(self, wanted: Iterable[str]) -> None:
        """Take away what this test does not want, and lay what it wants besides."""
        names = [name for name in wanted if name in LAYERS]
        below = {name for one in names for name in chain(one)[:-1]}
        self.tops = sorted((name for name in names if name not in below), key=lambda name: (-len(chain(name)), name))
        order = list(dict.fromkeys(name for top in self.tops for name in chain(top)))
        alike = 0
        while alike < min(len(order), len(self.laid)) and order[alike] == self.laid[alike].name:
            alike += 1
        self.clear(alike)
        for name in order[alike:]:
            self._lay(name)
        self.own = copy.deepcopy({one.name: one.namespace for one in self.laid})

    def clear(self, down_to: int = 0) -> None:
        """Roll back to so many layers."""
        while len(self.laid) > down_to:
            transaction.set_rollback(True)
            self.laid.pop().atomic.__exit__(None, None, None)

    def _lay(self, name: str) -> None:
        on, build = LAYERS[name]
        below = next((one.namespace for one in self.laid if one.name == on), None)
        atomic = transaction.atomic()
        atomic.__enter__()
        self.laid.append(Laid(name, atomic, None))
        self.laid[-1].namespace = build(*([copy.deepcopy(below)] if on else []))

    def commit_for_real(self, wanted: Iterable[str]) -> None:
        """Lay nothing: what the test asks for is made in its own, committing, database."""
        self.clear()
        self.own = {}
        names = [name for name in wanted if name in LAYERS]
        self.tops = [name for name in names if not any(name in chain(other)[:-1] for other in names)]

    def of(self, name: str) -> Any:
        """The namespace of a layer, which is that of the highest layer upon it in this test."""
        top = next((top for top in self.tops if name in chain(top)), "")
        assert top, f"{name} was not asked for when the test began: name it among the test's arguments"
        if top not in self.own:
            made: Any = None
            for one in chain(top):
                made = LAYERS[one][1](*([made] if made is not None else []))
            self.own[top] = made
        return self.own[top]
