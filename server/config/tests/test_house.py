"""How the server is built, held: writes are actions, rows are written by their own app, and queries start from the member."""

import ast
import re
from pathlib import Path

import grimp
import pytest
from django.apps import apps
from django.conf import settings
from django.db import models

from shops.scoping import OfShop

SERVER = Path(__file__).resolve().parents[2]
NOT_SERVED = {"demo", "testing", "tests", "migrations", "management"}
OWN_APPS = ("shops", "fleet", "inspection", "parts", "supply", "logbook", "report", "workbench")
WRITING = {"create", "update", "delete", "save", "bulk_create", "bulk_update", "get_or_create", "update_or_create"}
READING = {"filter", "exclude", "get", "Q"}

MADE_WHEN_FIRST_READ = {
    "inspection/queries/rule_books.py": "a rule book is stored once under its digest",
    "supply/queries/needs.py": "a shop's terms begin with their starting values",
}
DERIVED = "inspection/judging/"
"""Verdicts and forecasts follow from readings; whoever reads them may find that they must be made anew."""


def modules():
    for path in sorted(SERVER.rglob("*.py")):
        if not NOT_SERVED & set(path.relative_to(SERVER).parts):
            yield path.relative_to(SERVER).as_posix(), ast.parse(path.read_text())


def calls(tree):
    return [node for node in ast.walk(tree) if isinstance(node, ast.Call)]


def names_of_models(tree):
    """Names in a module that are models, with the app that owns them."""
    owners = {model.__name__: model._meta.app_label for model in apps.get_models() if model._meta.app_label in OWN_APPS}
    return {
        (alias.asname or alias.name): owners[alias.name]
        for node in ast.walk(tree)
        if isinstance(node, ast.ImportFrom) and (node.module or "").split(".")[-1] == "models"
        for alias in node.names
        if alias.name in owners
    }


def root_of(node):
    """The name at which a chain of calls and attributes begins: Machine of ``Machine.objects.of(member).update``."""
    while isinstance(node, ast.Attribute | ast.Call | ast.Subscript):
        node = node.func if isinstance(node, ast.Call) else node.value
    return node.id if isinstance(node, ast.Name) else ""


def test_rows_are_written_by_the_actions_of_their_own_app():
    strangers, elsewhere = [], []
    for module, tree in modules():
        app, owners = module.split("/")[0], names_of_models(tree)
        for call in calls(tree):
            if isinstance(call.func, ast.Attribute) and call.func.attr in WRITING and (root := root_of(call.func)) in owners:
                place = f"{module}:{call.lineno} {root}.{call.func.attr}"
                if owners[root] != app:
                    strangers.append(place)
                acts = "/actions" in module or module.startswith(DERIVED) or module in MADE_WHEN_FIRST_READ
                if not acts:
                    elsewhere.append(place)
    assert strangers == []
    assert elsewhere == []


def test_nobody_scopes_by_hand_what_the_manager_scopes():
    by_hand = [
        f"{module}:{call.lineno}"
        for module, tree in modules()
        for call in calls(tree)
        if module != "shops/scoping.py" and getattr(call.func, "attr", getattr(call.func, "id", "")) in READING
        for keyword in call.keywords
        if keyword.arg and (keyword.arg == "shop" or keyword.arg.endswith("__shop") or keyword.arg.endswith("shop_id"))
    ]
    assert by_hand == []


@pytest.mark.parametrize(
    "model", [model for model in apps.get_models() if model._meta.app_label in OWN_APPS], ids=lambda model: model.__name__
)
def test_what_says_whose_it_is_is_scoped_by_it(model):
    """Every model with a shop of its own has the scoping manager; and where a path is named, it leads to a shop."""
    has_shop = any(isinstance(field, models.ForeignKey) and field.name == "shop" for field in model._meta.get_fields())
    scoped = issubclass(model._default_manager._queryset_class, OfShop)
    assert scoped or not has_shop or model.__name__ == "RuleBook", "give it `objects = OfShop.as_manager()`"
    if scoped:
        reached = model
        for step in getattr(model, "shop_path", "shop").split("__"):
            reached = reached._meta.get_field(step).related_model
        assert reached.__name__ == "Shop"


def test_no_module_imports_itself_by_way_of_others():
    graph = grimp.build_graph("lumvek_core", "config", *OWN_APPS, "tabular", "demo", exclude_type_checking_imports=True)
    waiting = {module: graph.find_modules_directly_imported_by(module) for module in graph.modules}
    # What imports nothing that is left is no part of a circle; whatever stays is.
    while free := {module for module, imported in waiting.items() if not imported & waiting.keys() - {module}}:
        waiting = {module: imported for module, imported in waiting.items() if module not in free}
    assert sorted(waiting) == []


def test_files_are_short_enough_to_read_at_a_sitting():
    """At most 320 lines that are not blank, tables of data aside."""
    long = {}
    for module, _ in modules():
        lines = [line for line in (SERVER / module).read_text().splitlines() if line.strip()]
        if len(lines) > 320:
            long[module] = len(lines)
    assert long == {}


def test_every_shape_of_the_api_has_a_name_of_its_own():
    """Two of one name would be described as one of them."""
    named = [
        node.name
        for module, tree in modules()
        if "/schemas" in module
        for node in tree.body
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_")
    ]
    assert sorted({name for name in named if named.count(name) > 1}) == []


@pytest.mark.parametrize("page", ["docs/security.md", "docs/deploy.md", "docs/architecture.md", "SECURITY.md"])
def test_every_file_that_a_page_names_is_there(page):
    text = (settings.ROOT / page).read_text()
    tracked = {
        str(one.relative_to(settings.ROOT))
        for top in ("core", "server", "e2e", "docs", "scripts", "requirements", "benchmarks")
        for one in (settings.ROOT / top).rglob("*.*")
    }
    named = set(re.findall(r"`(?:\./)?([\w/-]+\.(?:py|md|conf|sh|env|service|timer|txt))`", text))
    assert {name for name in named if not any(file == name or file.endswith(f"/{name}") for file in tracked)} <= {
        "README.md",
        "CONTRIBUTING.md",
    }
