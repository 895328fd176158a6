"""Rows that many tests begin from, laid once and rolled back to after each test.

A layer is a function that makes rows and returns a namespace of them; it may stand on another layer, whose namespace it is
given::

@layer() def yard(): ...

@layer(on="yard") def planter(yard): ...

Each becomes a fixture of its name. Layers are nested savepoints in one transaction that stays open while tests that want them
follow each other; a test's own changes are rolled back by pytest-django, and its namespace is a copy of its own. One that takes
seconds to make is kept in a database of its own (`kept=True`), to which tests that want it are led. A test that commits for
real (`django_db(transaction=True)`) finds no layer laid, and has its own made.
"""

import copy
import pickle
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

import pytest
from django.db import connection, transaction

Build = Callable[..., Any]
LAYERS: dict[str, tuple[str, Build]] = {}
"""name → (the layer it stands on, what makes it)."""
KEPT: set[str] = set()
"""Layers with a database of their own."""


def layer(on: str = "", *, kept: bool = False) -> Callable[[Build], Any]:
    """Register a layer and make it a fixture. The namespace of a layer and those it stands on is the same in one test."""

    def register(build: Build) -> Any:
        name = build.__name__
        assert name not in LAYERS, f"there are two layers called {name}"
        assert not (kept and on), "what stands on another lies in its database"
        LAYERS[name] = on, build
        if kept:
            KEPT.add(name)

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
        self.kept: dict[str, Any] = {}
        """Layers that have their database, with their namespaces."""
        self._in = ""
        self._packed = b""

    def stand(self, wanted: Iterable[str]) -> None:
        """Take away what this test does not want, and lay what it wants besides."""
        names = [name for name in wanted if name in LAYERS]
        below = {name for one in names for name in chain(one)[:-1]}
        self.tops = sorted((name for name in names if name not in below), key=lambda name: (-len(chain(name)), name))
        order = list(dict.fromkeys(name for top in self.tops for name in chain(top)))
        self._go_to(next((name for name in order if name in KEPT), ""))
        order = [name for name in order if name != self._in]
        alike = 0
        while alike < min(len(order), len(self.laid)) and order[alike] == self.laid[alike].name:
            alike += 1
        self.clear(alike)
        for name in order[alike:]:
            self._lay(name)
        self._packed = self._packed or pickle.dumps({one.name: one.namespace for one in self.laid} | self._here())
        self.own = pickle.loads(self._packed) if order or self._in else {}

    def clear(self, down_to: int = 0) -> None:
        """Roll back to so many layers."""
        while len(self.laid) > down_to:
            self._packed = b""
            transaction.set_rollback(True)
            self.laid.pop().atomic.__exit__(None, None, None)

    def _lay(self, name: str) -> None:
        on, build = LAYERS[name]
        below = next((one.namespace for one in self.laid if one.name == on), self._here().get(on))
        self._packed = b""
        atomic = transaction.atomic()
        atomic.__enter__()
        self.laid.append(Laid(name, atomic, None))
        self.laid[-1].namespace = build(*([copy.deepcopy(below)] if on else []))

    def commit_for_real(self, wanted: Iterable[str]) -> None:
        """Lay nothing: what the test asks for is made in the database that is emptied after it."""
        self._go_to("")
        self.clear()
        self.own = {}
        names = [name for name in wanted if name in LAYERS]
        self.tops = [name for name in names if not any(name in chain(other)[:-1] for other in names)]

    def end(self) -> None:
        """Leave the database as it was found, and none beside it."""
        self.clear()
        self._go_to("")
        with connection.cursor() as cursor:
            for name in self.kept:
                cursor.execute(f"DROP DATABASE {_beside(name)}")

    def _here(self) -> dict[str, Any]:
        """What is kept in the database that is connected to."""
        assert not self._in or self._in in self.kept, f"{self._in} could not be made: the first test that wanted it says why"
        return {self._in: self.kept[self._in]} if self._in else {}

    def _go_to(self, name: str) -> None:
        """To the database of a kept layer, which is made where it is wanted for the first time; "" is that of all others."""
        if name == self._in:
            return
        self.clear()
        self._packed = b""
        first = name and name not in self.kept
        if first:
            _copy_tables(_beside(name))
        base = connection.settings_dict["NAME"].removesuffix(f"_{self._in}" if self._in else "")
        connection.close()
        connection.settings_dict["NAME"] = f"{base}_{name}" if name else base
        self._in = name
        if first:
            self.kept[name] = LAYERS[name][1]()

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


def _beside(name: str) -> str:
    return f"{connection.settings_dict['NAME']}_{name}"


def _copy_tables(database: str) -> None:
    """A new database with the tables of the one that is connected to, and what lies in them. Numbers of new rows are others
    than there: what is remembered by a number is never of another database."""
    with connection.cursor() as cursor:
        cursor.execute(f"DROP DATABASE IF EXISTS {database}")
        cursor.execute(f"CREATE DATABASE {database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        for table in connection.introspection.table_names(cursor):
            cursor.execute(f"SHOW CREATE TABLE `{table}`")
            created = re.sub(r" AUTO_INCREMENT=\d+", "", cursor.fetchone()[1])
            cursor.execute(created.replace("CREATE TABLE ", f"CREATE TABLE {database}.", 1) + " AUTO_INCREMENT=1000000")
            cursor.execute(f"INSERT INTO {database}.`{table}` SELECT * FROM `{table}`")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 1")
