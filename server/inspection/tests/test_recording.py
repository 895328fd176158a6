"""Readings: appended, never lost, never doubled, and judged again when what they rest on changes."""

import threading
import uuid

import pytest
from django.db import connection

from inspection.actions import closing, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import Reading, Verdict
from inspection.queries import preparing
from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere


def standing(check, position):
    return Verdict.objects.get(check_key=check, position_key=position)


def test_what_was_typed_stays_as_typed_beside_what_it_means(yard, read):
    read("opener-disc-diameter", "3L", "15 3/8")
    reading = Reading.objects.get()
    assert (reading.raw, reading.value) == (["15 3/8"], {"numbers": [390.525]})
    assert standing("opener-disc-diameter", "3L").reason.startswith("390.5 mm, limit 386 mm")


def test_the_same_uuid_twice_is_one_reading(yard, read):
    same = uuid.uuid4()
    first = read("opener-disc-diameter", "3L", "390", uuid=same)
    again = read("opener-disc-diameter", "3L", "390", uuid=same)
    assert Reading.objects.count() == Verdict.objects.count() == 1
    assert again.pairs == first.pairs


def test_over_http_the_second_answer_is_the_first(yard, as_):
    browser, body = (
        as_(yard.technician),
        {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "3L", "raw": ["385"]},
    )
    path = f"/api/walk-arounds/{yard.walk_around.pk}/readings"
    first, again = browser.send(path, **body).json(), browser.send(path, **body).json()
    assert first == again
    assert Reading.objects.count() == 1


def test_a_correction_replaces_and_both_stay(yard, read):
    read("opener-disc-diameter", "3L", "385")
    read("opener-disc-diameter", "3L", "395")
    older, newer = Reading.objects.order_by("id")
    assert newer.replaces == older
    assert standing("opener-disc-diameter", "3L").severity == "sound"


def test_a_uuid_of_another_walk_around_is_refused(yard, neighbour, read):
    same = uuid.uuid4()
    read("opener-disc-diameter", "3L", "390", uuid=same)
    other = starting.start(neighbour.technician, neighbour.machine, uuid.uuid4(), preparing.Wanted("winter"))
    with pytest.raises(BadInput) as problem:
        recording.record_reading(
            neighbour.technician,
            other.pk,
            NewReading(uuid=same, check="opener-disc-diameter", position="3L", raw=["1"]),
        )
    assert problem.value.field == "uuid"


@pytest.mark.parametrize(
    ("check", "position", "raw", "more", "field"),
    [
        ("opener-disc-diameter", "3L", ["14 8/5"], {}, "raw.0"),
        ("opener-disc-diameter", "7L", ["390"], {}, "position"),
        ("opener-disc-diameter", "3", ["390"], {}, "position"),
        ("coulter-depth", "3", ["3"], {}, "check"),
        ("nothing", "3", ["3"], {}, "check"),
        ("opener-contact", "3", ["30", "31", "29"], {}, "feeler"),
        ("opener-disc-diameter", "3L", [], {"state": "not-seen"}, "reason"),
    ],
)
def test_bad_input_is_named_and_leaves_nothing_behind(check, position, raw, more, field, yard, read):
    with pytest.raises(BadInput) as problem:
        read(check, position, *raw, **more)
    assert problem.value.field == field
    assert not Reading.objects.exists() and not Verdict.objects.exists()


def test_not_seen_keeps_its_reason_and_counts_as_neither_sound_nor_open(yard, read, as_):
    read("seed-tube-guard", "2", state="not-seen", reason="meter still on")
    assert standing("seed-tube-guard", "2").reason == "Not seen: meter still on"
    tube = next(s for s in as_(yard.lead).get("/api/machines").json()["machines"][0]["stations"] if s["key"] == "tube")
    assert (tube["not_seen"], tube["sound"], tube["open"]) == (1, 0, tube["total"] - 1)


def test_withdrawing_opens_the_position_again_and_keeps_the_log(yard, read):
    read("opener-disc-diameter", "3L", "385")
    read("opener-disc-diameter", "3L", state="withdrawn")
    assert Reading.objects.count() == 2
    assert not Verdict.objects.exists()


def test_a_question_waits_until_it_is_answered(yard, read):
    read("opener-disc-diameter", "3L", "14.3")
    asked = standing("opener-disc-diameter", "3L")
    assert asked.ask and asked.instead == "14.3 in"
    with pytest.raises(Conflict, match="1 reading waits"):
        closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    read("opener-disc-diameter", "3L", "14.3 in")
    assert standing("opener-disc-diameter", "3L").ask == ""


def test_what_the_technician_confirms_is_kept_and_marked(yard, read):
    read("opener-disc-diameter", "3L", "405", confirmed=True)
    assert standing("opener-disc-diameter", "3L").ask == ""
    assert Reading.objects.get().confirmed


def test_rows_that_should_be_alike_are_judged_again_together(yard, read):
    read("depth-handle", "1", "7")
    read("depth-handle", "2", "7")
    changed = read("depth-handle", "3", "5")
    assert ("depth-handle", "3") in changed.pairs
    assert [standing("depth-handle", n).severity for n in "123"] == ["sound", "sound", "due"]
    read("depth-handle", "3", "7")
    assert standing("depth-handle", "3").severity == "sound"


def test_only_what_was_judged_weighs_and_the_gravest_weighs_most(yard, read, as_):
    read("opener-disc-diameter", "1L", "395")
    read("opener-disc-diameter", "1R", "380")
    read("opener-disc-diameter", "2L", "14.3")
    read("opener-disc-diameter", "2R", state="not-seen", reason="no light")
    places = as_(yard.technician).get(f"/api/walk-arounds/{yard.walk_around.pk}").json()["places"]
    weights = {place["position"]: place["weight"] for place in places}
    assert weights["1L"] == 0 < weights["1R"]
    assert weights["2L"] is weights["2R"] is None


def test_contact_follows_the_disc_it_was_measured_on(yard, read):
    read("opener-contact", "3", "46", "44", "47", feeler="card")
    before = standing("opener-contact", "3").facts
    changed = read("opener-disc-diameter", "3L", "387")
    assert ("opener-contact", "3") in changed.pairs
    after = standing("opener-contact", "3").facts
    assert (before["diameter"], after["diameter"]) == (400, 387)


def test_a_batch_is_all_or_nothing(yard):
    rows = [
        NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position=f"{n}L", raw=[text])
        for n, text in enumerate(["390", "391", "x"], 1)
    ]
    with pytest.raises(BadInput):
        recording.record_readings(yard.technician, yard.walk_around.pk, rows)
    assert not Reading.objects.exists()
    recording.record_readings(yard.technician, yard.walk_around.pk, rows[:2])
    assert Verdict.objects.count() == 2


def test_a_finished_walk_around_takes_no_more_but_answers_for_what_it_has(yard, read):
    same = uuid.uuid4()
    read("opener-disc-diameter", "3L", "390", uuid=same)
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())
    assert read("opener-disc-diameter", "3L", "390", uuid=same).pairs == [("opener-disc-diameter", "3L")]
    with pytest.raises(Conflict, match="finished"):
        read("opener-disc-diameter", "4L", "390")


def test_starting_twice_starts_once(yard):
    again = starting.start(yard.lead, yard.machine, yard.walk_around.pk, preparing.Wanted("winter"))
    assert again.pk == yard.walk_around.pk


def test_a_uuid_of_another_shops_walk_around_starts_nothing(yard, neighbour):
    with pytest.raises(NotFoundHere):
        starting.start(neighbour.lead, neighbour.machine, yard.walk_around.pk, preparing.Wanted("winter"))


def test_the_limits_of_the_start_hold_to_the_end(yard, read):
    yard.model.overrides.filter(figure="limit").update(value=380)
    read("opener-disc-diameter", "3L", "385")
    assert standing("opener-disc-diameter", "3L").severity == "due"
    later = starting.start(yard.lead, yard.machine, uuid.uuid4(), preparing.Wanted("pre-season"))
    assert later.rule_book_id != yard.walk_around.rule_book_id


def test_inches_are_read_and_answered_for_who_reads_inches(yard, read):
    yard.technician.units = "in"
    yard.technician.save()
    read("opener-disc-diameter", "3L", "15 1/8", by=yard.technician)
    read("seed-tube-guard", "3", ".75", by=yard.technician)
    assert standing("opener-disc-diameter", "3L").reason == "15 1/8 in, limit 15 3/16 in, past it by 1/16 in."
    assert Reading.objects.get(check_key="seed-tube-guard").value["numbers"] == [19.05]


def test_a_bare_number_means_what_it_meant_where_it_was_typed(yard, read):
    """Typed in inches, sent when its member reads millimetres again."""
    read("opener-disc-diameter", "3L", "15.5", units="in")
    reading = Reading.objects.get()
    assert (reading.units, reading.value["numbers"]) == ("in", [393.7])
    assert standing("opener-disc-diameter", "3L").reason.startswith("15 1/2 in")


def test_words_at_a_check_that_is_kept_in_words_may_be_many(yard, as_):
    said = ("Row 3 skipped in wet headlands; " * 15).strip()
    technician, walk_around = as_(yard.technician), str(uuid.uuid4())
    technician.send(f"/api/machines/{yard.machine.pk}/walk-arounds", id=walk_around, phase="after-season")
    body = {"uuid": str(uuid.uuid4()), "check": "planter-season-notes", "position": "all", "raw": [said]}
    answer = technician.send(f"/api/walk-arounds/{walk_around}/readings", **body)
    assert answer.status_code == 200, answer.content
    assert Reading.objects.get().raw == [said]
    body |= {"uuid": str(uuid.uuid4()), "raw": [said * 2]}
    assert technician.send(f"/api/walk-arounds/{walk_around}/readings", **body).status_code == 422


@pytest.mark.django_db(transaction=True)
def test_two_technicians_and_retries_at_once_lose_and_double_nothing(yard):
    """Each of two sends six readings, every one of them twice and at the same time."""
    jobs = [
        (member, f"{row}{side}", uuid.uuid4())
        for member, side in ((yard.technician, "L"), (yard.lead, "R"))
        for row in range(1, 7)
    ]
    failures = []

    def send(member, position, reading_uuid):
        try:
            new = NewReading(uuid=reading_uuid, check="opener-disc-diameter", position=position, raw=["390"])
            recording.record_reading(member, yard.walk_around.pk, new)
        except Exception as problem:
            failures.append(problem)
        finally:
            connection.close()

    threads = [threading.Thread(target=send, args=job) for job in jobs for _ in range(2)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failures == []
    assert Reading.objects.count() == Verdict.objects.count() == 12
