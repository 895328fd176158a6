"""What a shop decides for itself: limits with their source, schools, feelers; logged, and never for what has begun."""

import shutil
import uuid

import pytest

from inspection.actions import shop_rules, starting
from inspection.judging import rejudging
from inspection.models import Verdict
from inspection.queries import rule_books, rules_in_force
from lumvek_core.catalogue import load
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Change


def figure(yard, check="seed-tube-guard", name="limit"):
    found = rules_in_force.model_rules(yard.lead, yard.model)
    return next(one for row in found.checks if row.check == check for one in row.figures if one.figure == name)


def set_limit(yard, text, check="seed-tube-guard", name="limit", source="shop"):
    shop_rules.set_limit(yard.lead, yard.model, check, name, text, source, "measured")


def test_a_limit_shows_its_source_and_what_was_shipped(yard):
    assert (figure(yard).shown, figure(yard).source, figure(yard).own) == ("19.05 mm (3/4 in)", "starting value", False)
    set_limit(yard, "0.72 in")
    changed = figure(yard)
    assert (changed.shown, changed.source, changed.shipped, changed.own) == (
        "18.29 mm (0.72 in)",
        "this shop",
        "19.05 mm (3/4 in)",
        True,
    )
    assert changed.typed == "0.72 in"
    set_limit(yard, "")
    assert (figure(yard).shown, figure(yard).own) == ("19.05 mm (3/4 in)", False)
    assert [(c.before, c.after) for c in Change.objects.order_by("id")] == [
        ("19.05 mm (3/4 in) (starting value)", "18.29 mm (0.72 in) (this shop)"),
        ("18.29 mm (0.72 in) (this shop)", "19.05 mm (3/4 in) (starting value)"),
    ]


@pytest.mark.parametrize(
    ("text", "name"), [("soon", "limit"), ("7/8", "limit"), ("1 mil", "limit"), ("700", "watch_from"), ("x", "colour")]
)
def test_a_limit_that_cannot_be_is_refused_and_nothing_changes(yard, text, name):
    with pytest.raises(BadInput):
        set_limit(yard, text, name=name)
    assert figure(yard).shown == "19.05 mm (3/4 in)"
    assert not Change.objects.exists()


def test_a_walk_around_keeps_the_values_it_was_judged_by(yard, read):
    read("seed-tube-guard", "1", "18.8")
    set_limit(yard, "18.5")
    shop_rules.set_school(yard.lead, "opener-contact", "paper")
    read("seed-tube-guard", "2", "18.8")
    rejudging.recompute(yard.walk_around)
    assert set(Verdict.objects.values_list("severity", flat=True)) == {"due"}
    later = starting.start(yard.lead, yard.machine, uuid.uuid4())
    book = rule_books.opened(later.rule_book_id)
    assert book.family.checks["seed-tube-guard"].rule.limit == 18.5
    assert book.family.checks["opener-contact"].rule.feeler == 0.1


def test_schools_say_both_sides(yard):
    shown = {school.subject: school for school in rules_in_force.rules(yard.technician).schools}
    assert len(shown) >= 18
    assert all(
        len(school.choices) > 1 and school.why_default and all(c.why for c in school.choices) for school in shown.values()
    )
    with pytest.raises(BadInput):
        shop_rules.set_school(yard.lead, "opener-contact", "guess")


def test_the_order_of_a_walk_around_follows_its_school(yard):
    shop_rules.set_school(yard.lead, "order", "meter-first")
    yard.lead.refresh_from_db()
    later = starting.start(yard.lead, yard.machine, uuid.uuid4())
    assert rule_books.opened(later.rule_book_id).schools["order"] == "meter-first"


def test_the_shops_own_feeler_counts_with_its_thickness(yard, read):
    shop_rules.set_feeler(yard.lead, "Card", "0.28 mm")
    read("opener-contact", "1", "46", "44", "47", feeler="card")
    assert Verdict.objects.get().facts["feeler"] == 0.28
    for thickness in ("thick", "6 mm", "0"):
        with pytest.raises(BadInput):
            shop_rules.set_feeler(yard.lead, "card", thickness)
    shop_rules.set_feeler(yard.lead, "card", "")
    assert rules_in_force.rules(yard.lead).feelers == []


def test_how_many_of_a_thing_a_model_has(yard):
    combine = type(yard.model).objects.create(shop=yard.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    shop_rules.set_count(yard.lead, combine, "knife", 36)
    assert next(one for one in rules_in_force.model_rules(yard.lead, combine).counts if one.thing == "knife").count == 36
    for thing in ("wheel", "wing"):
        with pytest.raises(BadInput):
            shop_rules.set_count(yard.lead, combine, thing, 3)


def test_another_shops_model_is_not_there(yard, neighbour):
    with pytest.raises(NotFoundHere):
        rules_in_force.model_of(neighbour.lead, yard.model.pk)


@pytest.mark.parametrize(("role", "status"), [("lead", 200), ("technician", 403), ("parts", 403), ("owner", 403)])
def test_only_the_lead_decides(role, status, yard, as_):
    browser = as_(getattr(yard, role))
    bodies = {
        f"models/{yard.model.pk}/limits": {"check": "seed-tube-guard", "figure": "limit", "text": "18"},
        "schools": {"subject": "order", "choice": "round"},
        "feelers": {"name": "card", "thickness": "0.3"},
    }
    for path, body in bodies.items():
        assert browser.send(f"/api/rules/{path}", **body).status_code == status
    assert browser.get("/api/rules").status_code == (403 if role == "owner" else 200)


def test_a_running_demo_takes_up_a_changed_file_and_keeps_the_old_one_where_the_new_is_wrong(
    tmp_path, settings, monkeypatch, caplog
):
    folder = shutil.copytree(load.SHIPPED, tmp_path / "catalogue")
    monkeypatch.setattr(load, "SHIPPED", folder)
    monkeypatch.setattr(rule_books, "LOOK_AFTER_S", 0)
    monkeypatch.setattr(rule_books, "_shipped", rule_books._Shipped())
    settings.CATALOGUE_RELOADS = True
    hitch = folder / "families/row-crop-planter/hitch.yaml"
    assert "paint" not in rule_books.shipped().families["row-crop-planter"].checks
    paint = "  - {key: paint, name: Paint, per: row, kind: yes-no, how: Is any left?, rule: {kind: yes-no}}\n"
    hitch.write_text(hitch.read_text() + paint)
    assert "paint" in rule_books.shipped().families["row-crop-planter"].checks
    hitch.write_text(hitch.read_text().replace("key: paint, name", "key: paint, nmae"))
    assert "paint" in rule_books.shipped().families["row-crop-planter"].checks
    assert "nmae: is not a field here; did you mean name?" in caplog.text
