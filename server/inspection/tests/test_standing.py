"""A machine stands place by place as its newest answer says: a second walk-around forgets nothing, and nobody is asked twice."""

import datetime as dt
import uuid

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fleet.models import Fitment, Machine, MachineModel
from inspection.actions import closing, decisions, starting
from inspection.judging import machine_standing
from inspection.models import Reading, Standing, WalkAround
from inspection.queries import preparing
from lumvek_core import positions
from season.queries import work
from supply.queries import net_requirements
from testing.seen import see_everything
from testing.yard import record

DISC = "opener-disc-diameter"


def stands(yard):
    return machine_standing.summed({yard.machine.pk: yard.machine})[yard.machine.pk]


@pytest.fixture
def again(yard):
    """Begin another walk-around, and read in it from now on: again("daily")."""

    def begin(phase="winter"):
        yard.walk_around = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted(phase))
        return yard.walk_around

    return begin


@pytest.fixture
def worn(yard, read):
    """Two worn discs that somebody decided to renew."""
    read(DISC, "1L", "380")
    read(DISC, "3L", "381")
    decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), DISC, ["1L", "3L"], "do")
    return yard


def pieces(yard):
    lines = net_requirements.build(yard.lead, timezone.now()).lines
    return sum(line.needed for line in lines if line.number == "D12-4001")


def jobs(yard):
    return {job.draft.key.partition(":")[2]: job.draft for job in work.open_jobs(yard.lead, timezone.now())}


def test_a_second_walk_around_forgets_nothing_by_being_begun(worn, again):
    before = stands(worn).counts, pieces(worn), jobs(worn)["work:new:opener-disc"].places
    again()
    assert (stands(worn).counts, pieces(worn), jobs(worn)["work:new:opener-disc"].places) == before
    assert before[0]["due"] == 2 and before[1] == 4 and before[2] == ["1L", "3L"]


def test_the_newest_says_what_still_stands_from_before(worn, again, read, as_):
    first = worn.walk_around.pk
    second = again().pk
    path = f"/api/walk-arounds/{second}"
    found = as_(worn.lead).get(f"{path}/findings").json()
    assert found["groups"] == [] and [(one["walk_around"]["id"], one["findings"]) for one in found["before"]] == [
        (str(first), 2)
    ]
    assert as_(worn.lead).get(f"{path}/parts").json()["before"] == found["before"]
    assert as_(worn.lead).get(f"/api/walk-arounds/{first}/findings").json()["before"] == []
    read(DISC, "1L", "398")
    assert as_(worn.lead).get(f"{path}/findings").json()["before"][0]["findings"] == 1


def test_what_is_read_again_stands_as_it_was_read_last_and_the_rest_stays(worn, again, read):
    again()
    read(DISC, "1L", "398")
    assert stands(worn).counts["due"] == 1 and stands(worn).counts["sound"] == 1
    assert jobs(worn)["work:new:opener-disc"].places == ["3L"] and pieces(worn) == 2


def test_a_question_takes_nothing_away_until_it_is_answered(worn, again, read):
    again()
    read(DISC, "1L", "39")
    found = stands(worn)
    assert (found.counts["due"], found.counts.get("asked", 0), found.questions) == (2, 0, 1)
    assert pieces(worn) == 4
    read(DISC, "1L", "398")
    assert (stands(worn).counts["due"], stands(worn).questions) == (1, 0)


def test_passing_a_place_over_takes_nothing_away_of_what_was_found_there(worn, again):
    again()
    record(worn, DISC, "1L", state="not-seen", reason="snow on it")
    record(worn, DISC, "2L", state="not-seen", reason="snow on it")
    assert stands(worn).counts["due"] == 2 and stands(worn).counts["not_seen"] == 1


def test_a_new_part_makes_its_place_sound_and_leaves_nothing_to_do(worn):
    Fitment.objects.create(
        uuid=uuid.uuid4(), machine=worn.machine, slot="opener-disc", position_key="1L", fitted_at=timezone.now(), by=worn.lead.user
    )  # fmt: skip
    assert stands(worn).counts["due"] == 1 and stands(worn).counts["sound"] == 1
    assert [one.what for one in stands(worn).to_do] == ["new:opener-disc"]
    assert jobs(worn)["work:new:opener-disc"].places == ["3L"]


def test_a_place_that_is_opened_again_stands_as_it_stood_before(worn, again, read):
    again()
    read(DISC, "1L", "398")
    record(worn, DISC, "1L", state="withdrawn")
    assert stands(worn).counts["due"] == 2


def test_a_discarded_walk_around_says_nothing(worn, again, read):
    walk = again()
    read(DISC, "1L", "398")
    closing.discard(worn.technician, walk.pk, uuid.uuid4(), "the wrong machine")
    assert stands(worn).counts["due"] == 2


def test_what_was_looked_at_half_a_year_ago_is_open_but_its_findings_stand(worn, read):
    read(DISC, "5L", "398")
    long_ago = timezone.now() - dt.timedelta(days=210)
    Reading.objects.update(taken_at=long_ago)
    WalkAround.objects.update(started_at=long_ago)
    Standing.objects.all().delete()
    assert stands(worn).counts == {"due": 2, "total": 2, "open": 0}
    assert stands(worn).looked_pct is None, "nobody has looked at it this season"


def test_a_round_of_a_few_checks_is_no_look_at_the_machine(yard, again):
    WalkAround.objects.update(discarded_at=timezone.now())
    see_everything(again("first-field"))
    assert stands(yard).looked_pct is None
    see_everything(again())
    assert stands(yard).looked_pct == 100 and stands(yard).unread == 0


def test_each_check_weighs_the_same_however_many_places_it_has(yard):
    see_everything(yard.walk_around, but={DISC})
    checks = len({check for visit in yard.walk_around.plan["visits"] for check in visit["checks"]})
    assert 100 - stands(yard).looked_pct == pytest.approx(100 / checks, rel=0.1)
    assert stands(yard).unread == 12


def test_safety_items_that_nobody_has_seen_are_counted_apart(yard):
    model = MachineModel.objects.create(shop=yard.shop, maker="Heron", name="4", family="rotary-combine")
    yard.machine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 4")
    yard.walk_around = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
    see_everything(yard.walk_around, but={"rims"})
    assert stands(yard).unseen_safety == 4 and stands(yard).looked_pct > 90
    record(yard, "rims", "front-left", state="not-seen", reason="dual wheel in front")
    assert stands(yard).unseen_safety == 4, "passed over is not seen"


def test_a_header_stands_for_itself_whatever_it_was_walked_around_with(yard):
    def made(name, family):
        model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name=name, family=family)
        return Machine.objects.create(shop=yard.shop, model=model, name=name)

    combine, header = made("Heron 4", "rotary-combine"), made("Maddow 8", "row-crop-header")
    yard.walk_around = starting.start(yard.technician, combine, uuid.uuid4(), preparing.Wanted("winter", headers=[header.pk]))
    record(yard, "rowcrop.universal-joints", positions.WHOLE.key, "no")
    found = machine_standing.summed({one.pk: one for one in (combine, header)})
    assert sum(found[header.pk].counts.get(one, 0) for one in ("watch", "due", "stop")) == 1
    assert not any(found[combine.pk].counts.get(one) for one in ("watch", "due", "stop"))
    assert {station["key"].partition(".")[0] for station in found[header.pk].stations} == {"rowcrop"}


def test_it_is_worked_out_again_only_where_something_changed(worn, read):
    stands(worn)
    with CaptureQueriesContext(connection) as asked:
        stands(worn)
    assert len(asked) == 4
    basis = Standing.objects.get().basis
    read(DISC, "6L", "380")
    assert stands(worn).counts["due"] == 3 and Standing.objects.get().basis != basis


ACTS = st.one_of(
    st.tuples(st.just("read"), st.sampled_from(["1L", "2R"]), st.sampled_from(["380", "398", "39", "-", "?"])),
    st.tuples(st.sampled_from(["again", "decide", "fit", "discard", "finish"]), st.sampled_from(["1L", "2R"]), st.just("")),
)


@settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.lists(ACTS, min_size=1, max_size=8))
def test_what_is_kept_is_what_would_be_worked_out_now(yard, again, acts):
    for act, place, typed in acts:
        try:
            _do(yard, again, act, place, typed)
        except Exception as refused:
            assert type(refused).__name__ in ("BadInput", "Conflict")
        kept = stands(yard)
        Standing.objects.all().delete()
        assert stands(yard) == kept


def _do(yard, again, act, place, typed):
    match act:
        case "read" if typed in "-?":
            record(yard, DISC, place, state="withdrawn" if typed == "-" else "not-seen", reason="" if typed == "-" else "mud")
        case "read":
            record(yard, DISC, place, typed)
        case "again":
            again()
        case "decide":
            decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), DISC, [place], "do")
        case "fit":
            Fitment.objects.filter(position_key=place).update(until_at=timezone.now())
            Fitment.objects.create(
                uuid=uuid.uuid4(), machine=yard.machine, slot="opener-disc", position_key=place, fitted_at=timezone.now(),
                by=yard.lead.user,
            )  # fmt: skip
        case "discard":
            closing.discard(yard.technician, yard.walk_around.pk, uuid.uuid4(), "a trial")
        case "finish":
            closing.finish(yard.technician, yard.walk_around.pk, uuid.uuid4())


def test_what_an_edition_before_kept_in_another_form_is_worked_out_anew(worn, monkeypatch):
    monkeypatch.setattr(machine_standing, "EDITION", machine_standing.EDITION - 1)
    as_it_is = stands(worn)
    kept = Standing.objects.get()
    kept.summed["of_before"] = kept.summed.pop("to_do")
    kept.save()
    monkeypatch.undo()
    assert stands(worn) == as_it_is
