"""The pages of the house name files that are there."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[3]
PAGES = [*sorted((ROOT / "docs").glob("*.md")), ROOT / "README.md", ROOT / "CONTRIBUTING.md"]
PATH = re.compile(r"`((?:[\w.-]+/)+[\w.-]*)`")
BASES = ("", "server", "core/lumvek_core", "web", "web/src", "docs", "catalogue")
MADE = {"server/fleet/actions/naming.py", "families/row-crop-planter/tube.yaml"}
"""What a page shows how to add."""


def is_there(path):
    return (
        path.startswith(".lumvek/")
        or any((ROOT / base / path).exists() for base in BASES)
        or any((ROOT / "server").glob(f"*/{path}"))
    )


@pytest.mark.parametrize("doc", PAGES, ids=lambda doc: doc.name)
def test_every_path_that_a_page_names_is_there(doc):
    named = {path for path in PATH.findall(doc.read_text()) if not re.fullmatch(r"[a-z]+/[a-z]+", path)}
    assert sorted(path for path in named if not is_there(path) and path not in MADE) == []


@pytest.mark.parametrize("doc", PAGES, ids=lambda doc: doc.name)
def test_every_link_of_a_page_leads_somewhere(doc):
    links = re.findall(r"\]\(([^)#:]+)(?:#[\w-]+)?\)", doc.read_text())
    assert [link for link in links if not (doc.parent / link).exists()] == []
