"""What a change is likely to break, looked at in the time there is.

``python -m testing.quick_look BASE`` prints the tests that are nearest to what differs from the commit BASE, the nearest first:
by the rare words they share with the changed lines and with the names of the changed files (Okapi BM25, Robertson and Zaragoza
2009, with its usual constants). Words do for Python, the catalogue's YAML and templates alike, and nothing has to be recorded
beforehand. As a plugin (``-p testing.quick_look``) it begins no test later than ``--within`` seconds.
"""

import ast
import re
import subprocess
import sys
import time
from collections import Counter
from collections.abc import Iterator
from math import log
from pathlib import Path

import pytest

NEAREST = 60
"""So many tests are printed. Of 38 changes of this project the test that was changed with them was 32 times among the first ten
and 37 times among the first forty."""
DEMO_S = 20.0
"""That it takes to load the demo, where a test stands on it."""
NOTICED = re.compile(r"^(core|server|catalogue|docs)/")
TESTS = re.compile(r"^(core|server)/.*/test_\w+\.py$")
CHECK_OF_A_LINE = "diff.station.xfuncname=^ *- key: (.*)$"
"""Git says over changed lines of a station which check they are of (.gitattributes)."""
SATURATION, LENGTH = 1.2, 0.75


def words(text: str) -> Counter[str]:
    """Names and their parts in small letters: ``StripDown`` is ``stripdown``, ``strip`` and ``down``, as ``strip_down`` is."""
    found = Counter[str]()
    for name in re.findall(r"[A-Za-z][A-Za-z0-9_-]{2,}", text):
        parts = re.findall(r"[A-Z]?[a-z0-9]{2,}|[A-Z]{2,}", name)
        found.update({part.lower() for part in parts} | {re.sub(r"[_-]", "", name).lower()})
    return found


def nearest(changed: Counter[str], documents: dict[str, Counter[str]]) -> list[str]:
    """Names of the documents that share words with what was changed, the nearest first."""
    usual = sum(each.total() for each in documents.values()) / max(1, len(documents))
    spread = Counter(word for each in documents.values() for word in each)
    rarity = {word: log(1 + (len(documents) - many + 0.5) / (many + 0.5)) for word, many in spread.items()}

    def near(document: Counter[str]) -> float:
        damped = SATURATION * (1 - LENGTH + LENGTH * document.total() / usual)
        common = changed.keys() & document.keys()
        return sum(rarity[word] * document[word] * (SATURATION + 1) / (document[word] + damped) for word in common)

    scores = {name: near(document) for name, document in documents.items()}
    return sorted((name for name, score in scores.items() if score > 0), key=lambda name: -scores[name])


def tests_of(path: str) -> Iterator[tuple[str, str]]:
    """The tests of a file, each with its text."""
    source = Path(path).read_text()
    for node in ast.parse(source).body:
        if isinstance(node, ast.FunctionDef) and node.name.startswith("test_"):
            begins = min(one.lineno for one in (node, *node.decorator_list))
            yield f"{path}::{node.name}", "\n".join(source.splitlines()[begins - 1 : node.end_lineno])


def changed_since(base: str) -> dict[str, str]:
    """Files that differ and that tests of core and server may notice, each with what differs in it."""
    told = _git("-c", CHECK_OF_A_LINE, "diff", "--unified=0", "--no-renames", base)
    parts = re.split(r"^diff --git a/(.+) b/.+$", told, flags=re.MULTILINE)
    files = dict(zip(parts[1::2], parts[2::2], strict=True))
    for name in _git("ls-files", "--others", "--exclude-standard").splitlines():
        files[name] = Path(name).read_text(errors="replace")
    return {name: text for name, text in files.items() if NOTICED.match(name)}


def likely(base: str) -> list[str]:
    """Tests to look at: those of files that were changed themselves, and the nearest."""
    changed = changed_since(base)
    documents = {
        name: words(f"{name} {text}")
        for path in {*_git("ls-files", "core", "server").splitlines(), *changed}
        if TESTS.match(path) and Path(path).exists()
        for name, text in tests_of(path)
    }
    near = nearest(words(" ".join(f"{name} {text}" for name, text in changed.items())), documents)
    return sorted(near[:NEAREST], key=lambda name: name.split("::")[0] not in changed)


def _git(*command: str) -> str:
    return subprocess.run(["git", *command], check=True, capture_output=True, text=True).stdout


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--within", type=float, help="begin no test later than so many seconds from now")


def pytest_configure(config: pytest.Config) -> None:
    seconds = config.getoption("--within")
    if seconds is not None:
        config.pluginmanager.register(Within(seconds))


class Within:
    """Tests that would begin too late, or stand on a demo that would be there too late, are skipped and counted so."""

    def __init__(self, seconds: float) -> None:
        self.ends = time.monotonic() + seconds
        self.demo_laid = False

    @pytest.hookimpl(tryfirst=True)
    def pytest_runtest_setup(self, item: pytest.Function) -> None:
        on_demo = "demo" in item.fixturenames
        begins = time.monotonic() + (DEMO_S if on_demo and not self.demo_laid else 0)
        if begins > self.ends:
            pytest.skip("no time left in a quick look")
        self.demo_laid |= on_demo


if __name__ == "__main__":
    print("\n".join(likely(sys.argv[1])))
