"""Washers from advice to re-measurement, and what the machine learns from it."""

from inspection.judging.typed_readings import NewReading
from inspection.models import Verdict
from inspection.queries import preparing

SPANS = ("29", "29", "29")


def contact():
    return Verdict.objects.get(check_key="opener-contact", position_key="3")


def count_washers(read, left=("1", "2"), right=("1", "2")):
    read("washers", "3L", *left)
    read("washers", "3R", *right)


def test_moving_a_washer_as_advised_asks_for_the_contact_again(read):
    count_washers(read)
    read("opener-contact", "3", *SPANS, feeler="card")
    advice = contact().advice
    assert advice["done"].endswith("measure again")
    for step in advice["then"]:
        read(step["check"], step["position"], *step["raw"])
    assert contact().ask == "Washers were moved here since: measure again."
    read("opener-contact", "3", "47", "46", "47", feeler="card")
    assert (contact().ask, contact().severity) == ("", "sound")


def test_counting_washers_after_measuring_is_not_moving_them(read):
    read("opener-contact", "3", *SPANS, feeler="card")
    assert contact().advice is None
    count_washers(read)
    assert contact().ask == ""
    assert contact().advice["then"], "but now it is known which washer to move"


def test_standing_by_the_old_reading_is_possible(read):
    count_washers(read)
    read("opener-contact", "3", *SPANS, feeler="card")
    read("washers", "3L", "0", "3")
    read("opener-contact", "3", *SPANS, feeler="card", confirmed=True)
    assert contact().ask == ""


def test_the_machine_learns_what_a_washer_brings(read):
    count_washers(read)
    read("opener-disc-diameter", "3L", "390")
    read("opener-contact", "3", "20", "20", "20", feeler="card")
    assert "(0 trials here)" in contact().advice["rows"][-1]["shown"]
    read("washers", "3L", "0", "3")
    read("opener-contact", "3", "30", "30", "30", feeler="card")
    learnt = contact().advice["rows"][-1]["shown"]
    assert "(1 trial here)" in learnt and learnt.startswith("10.6 mm"), "pulled from the usual 14 towards the 10 that were seen"


def test_trials_of_another_washer_thickness_are_not_pooled(read, yard):
    import uuid

    from fleet.models import LimitOverride
    from inspection.actions import recording, starting

    count_washers(read)
    read("opener-disc-diameter", "3L", "390")
    read("opener-contact", "3", "20", "20", "20", feeler="card")
    read("washers", "3L", "0", "3")
    read("opener-contact", "3", "30", "30", "30", feeler="card")
    LimitOverride.objects.create(model=yard.model, check_key="opener-contact", figure="washer", value=1.5, source="shop")
    later = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))

    def again(check, position, *raw, **more):
        new = NewReading(uuid=uuid.uuid4(), check=check, position=position, raw=list(raw), **more)
        recording.record_reading(yard.technician, later.pk, new)

    again("washers", "3L", "1", "2")
    again("washers", "3R", "1", "2")
    again("opener-contact", "3", *SPANS, feeler="card")
    advice = Verdict.objects.get(walk_around=later, check_key="opener-contact").advice
    assert "(0 trials here)" in advice["rows"][-1]["shown"]
