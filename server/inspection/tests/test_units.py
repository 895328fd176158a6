"""The same walk-around read in millimetres and in inches: sentences, report, logbook, and a link in its own."""

import uuid

from inspection.actions import decisions
from inspection.models import Verdict
from inspection.queries import rule_books, serializers, walk_arounds
from logbook.queries import timeline
from report import actions as links

DISC = "opener-disc-diameter"


def read_by(yard, member, units):
    member.units = units
    member.save()
    return walk_arounds.places(yard.walk_around, rule_books.opened(yard.walk_around.rule_book_id), member)[0]


def test_a_verdict_typed_in_millimetres_is_read_in_inches_and_back(yard, read):
    read(DISC, "3L", "385", units="mm")
    assert read_by(yard, yard.technician, "mm").reason == "385 mm, limit 386 mm, past it by 1 mm."
    assert read_by(yard, yard.lead, "in").reason == "15 5/32 in, limit 15 3/16 in, past it by 1/32 in."


def test_questions_too(yard, read):
    read(DISC, "3L", "402.6", units="mm")
    assert read_by(yard, yard.lead, "in").ask == "15 27/32 in? When new it is 15 3/4 in."
    assert Verdict.objects.get().ask == "402.6 mm? When new it is 400 mm."


def test_report_owner_page_and_logbook_follow_their_reader_and_a_link_carries_its_own(yard, read, as_):
    read(DISC, "3L", "385", units="mm")
    decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), DISC, ["3L"], "do")
    said = {"mm": "385 mm, limit 386 mm", "in": "15 5/32 in, limit 15 3/16 in"}
    paths = [f"/walk-arounds/{yard.walk_around.pk}/{page}" for page in ("report", "owner", "readings.csv")]
    shared = {}
    for units, sentence in said.items():
        yard.lead.units = units
        yard.lead.save()
        for path in paths:
            assert sentence in as_(yard.lead).get(path).content.decode(), (units, path)
        assert any(sentence in entry.text for entry in timeline.entries(yard.lead, yard.machine))
        shared[units] = links.make(yard.lead, yard.walk_around.pk, 3)[1]
    for units, sentence in said.items():
        assert sentence in as_().get(f"/shared/{shared[units]}").content.decode()


def test_the_field_says_what_a_bare_figure_is_in(yard):
    book = rule_books.opened(yard.walk_around.rule_book_id)
    for units, wanted in (("mm", {"mm", "bar", "mbar"}), ("in", {"in", "psi", "inH2O"})):
        yard.technician.units = units
        shown = {check.unit_shown for check in serializers.walk_around(yard.walk_around, book, yard.technician).checks}
        assert wanted & shown >= {"mm" if units == "mm" else "in"}
        assert not shown & ({"psi", "inH2O", "in"} if units == "mm" else {"bar", "mbar", "mm"})
