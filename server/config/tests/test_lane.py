"""What costs much has a lane of its own: two of one member, four of one shop, and whoever waits is told their place."""

import threading
import time
from contextlib import ExitStack

import pytest
from django.db import connection
from django.http import HttpResponse, StreamingHttpResponse

from config import lane
from config.lane import Asking, take


@pytest.fixture(autouse=True)
def room(monkeypatch):
    """A web worker with room for many, so that shares are seen by themselves."""
    monkeypatch.setattr(lane, "_here", threading.BoundedSemaphore(100))


def asking(member, what=0, shop="shop"):
    return Asking(f"{member}", shop, f"{member}{what}")


def test_two_of_a_member_and_the_rest_waits_in_the_order_it_came():
    with ExitStack() as first, ExitStack() as later:
        assert [take(asking("ada", n), first) for n in range(2)] == [0, 0]
        assert [take(asking("ada", n), later) for n in (2, 3, 4)] == [1, 2, 3]
        assert [take(asking("ada", n), later) for n in (4, 3, 2)] == [3, 2, 1], "asked again it is the same place"
        assert take(asking("ines"), later) == 0, "somebody else has seats of their own"
        first.close()
        assert take(asking("ada", 4), later) == 3, "nobody overtakes"
        assert [take(asking("ada", n), later) for n in (2, 3)] == [0, 0]
        assert take(asking("ada", 4), later) == 1


def test_four_of_a_shop_and_another_shop_does_not_wait():
    with ExitStack() as held:
        assert [take(asking(name, n), held) for name in ("ada", "ines") for n in range(2)] == [0] * 4
        assert [take(asking(name), held) for name in ("bram", "tomas")] == [1, 2]
        assert take(asking("wim", shop="other"), held) == 0


def test_who_asks_no_more_has_left_the_line(monkeypatch):
    with ExitStack() as held, ExitStack() as later:
        for n in range(2):
            take(asking("ada", n), held)
        assert [take(asking("ada", n), later) for n in (2, 3, 4)] == [1, 2, 3]
        real = time.time
        monkeypatch.setattr(time, "time", lambda: real() + lane.FORGOTTEN_S + 1)
        assert take(asking("ada", 4), later) == 1


def test_a_web_worker_never_gives_all_its_threads_to_it(monkeypatch):
    monkeypatch.setattr(lane, "_here", threading.BoundedSemaphore(2))
    with ExitStack() as held:
        assert [take(asking(f"member{n}", shop=f"shop{n}"), held) for n in range(3)] == [0, 0, 1]


def test_seats_are_given_back_whatever_comes_of_it():
    for _ in range(5):
        with pytest.raises(ZeroDivisionError), ExitStack() as held:
            assert take(asking("ada"), held) == 0
            raise ZeroDivisionError
    with ExitStack() as held:
        assert take(asking("ada"), held) == 0


@pytest.fixture
def full(yard, monkeypatch):
    """Whatever costs much waits until it is let go: full.go.set()."""
    go, begun = threading.Event(), threading.Semaphore(0)

    def slow(*_, **__):
        begun.release()
        assert go.wait(20)
        return HttpResponse("made")

    monkeypatch.setattr("report.views.sheets.table", slow)
    slow.go, slow.begun = go, begun
    return slow


@pytest.mark.django_db(transaction=True)
def test_six_files_of_one_member_hold_two_threads_and_the_rest_comes_in_turn(yard, as_, full):
    browser, waiting = as_(yard.lead), as_(yard.lead)
    made = []

    def ask():
        made.append(as_(yard.lead).get("/machines.csv").status_code)
        connection.close()

    busy = [threading.Thread(target=ask) for _ in range(2)]
    for one in busy:
        one.start()
    for _ in busy:
        assert full.begun.acquire(timeout=20)
    answer = waiting.get(f"/walk-arounds/{yard.walk_around.pk}/readings.csv")
    assert (answer.status_code, answer["X-Lumvek-Place"], answer["Retry-After"]) == (429, "1", "1")
    assert "number 1 in line. It goes on by itself." in answer.json()["error"]["message"]
    page = waiting.get("/machines.csv", HTTP_ACCEPT="text/html,*/*")
    assert page["Refresh"] == "2" and b"this is number 2 in line" in page.content
    assert browser.get("/api/machines/names").status_code == 200, "what costs little goes on"
    full.go.set()
    for one in busy:
        one.join()
    assert made == [200, 200]
    assert waiting.get(f"/walk-arounds/{yard.walk_around.pk}/readings.csv").status_code == 200


def test_a_seat_is_held_until_the_last_step_is_told(rf, yard):
    def steps():
        yield b"first"
        yield b"last"

    request = rf.post("/api/season/plans")
    request.user = yard.lead.user
    request.user.present, request.session = [yard.lead], {}
    turn = lane.in_turn(lambda _: StreamingHttpResponse(steps()))
    told = [turn(request) for _ in range(2)]
    assert turn(request).status_code == 429
    assert b"".join(told[0].streaming_content) == b"firstlast"
    told[2:] = [turn(request)]
    assert told[2].status_code == 200, "the last line is out"
    assert turn(request).status_code == 429
    for close in told[1]._resource_closers:  # whoever looked on has gone; all of close() would end the test's own connection
        close()
    assert turn(request).status_code == 200
