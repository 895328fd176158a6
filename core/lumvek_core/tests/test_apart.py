"""Work in a process of its own: what it answers and refuses comes through, and it is ended at its limits of time and memory."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from threading import Thread

import pytest

from lumvek_core import apart, registry
from lumvek_core.errors import BadInput
from lumvek_core.tests.largest import LARGEST

SHORT = apart.Limits(seconds=1)
SMALL = apart.Limits(seconds=60)
AT_LENGTH = [name for name, entry in registry.calculators().items() if entry.at_length]


def doubled(what, told=None):
    for done in range(3 if told else 0):
        told("doubling", done, 3)
    return {"doubled": 2 * what, "process": os.getpid()}


def until_enough(told):
    for step in range(10_000):
        if told("counting", step, 10_000):
            return step
        time.sleep(0.001)
    return None


def refuses():
    raise BadInput("lines.3.qty", "is no number")


def fails():
    raise KeyError("a secret")


def goes_on():
    while True:
        pass


def wants_memory():
    return len(bytearray(3_000_000_000))


def dies():
    os._exit(3)


def is_killed():
    os.kill(os.getpid(), signal.SIGKILL)


def alive(process):
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    return True


def test_it_answers_from_elsewhere_and_is_gone():
    answer = apart.call(doubled, 4)
    assert answer["doubled"] == 8
    assert answer["process"] != os.getpid() and not alive(answer["process"])


def test_it_tells_how_far_it_has_come():
    steps = []
    apart.call(doubled, 4, progress=lambda *step: steps.append(step))
    assert steps == [("doubling", 0, 3), ("doubling", 1, 3), ("doubling", 2, 3)]


def test_whoever_listens_may_say_that_it_is_enough():
    assert 3 <= apart.call(until_enough, progress=lambda _what, done, _of: done >= 3) < 9_999


def test_what_it_refuses_is_refused_at_its_field():
    with pytest.raises(BadInput) as refused:
        apart.call(refuses)
    assert (refused.value.field, refused.value.message) == ("lines.3.qty", "is no number")
    with pytest.raises(RuntimeError, match="KeyError") as failed:
        apart.call(fails)
    assert "secret" not in str(failed.value)


@pytest.mark.parametrize(
    ("work", "limits", "says"),
    [(goes_on, SHORT, "longer than 1 s"), (wants_memory, SMALL, "500 MB"), (is_killed, SMALL, "500 MB")],
)
def test_it_is_ended_at_its_limits(work, limits, says):
    with pytest.raises(apart.TooMuch, match=says):
        apart.call(work, limits=limits)
    assert apart.call(doubled, 1)["doubled"] == 2, "the next one has its turn"


def test_an_end_that_nobody_knows_is_no_limit():
    with pytest.raises(RuntimeError, match=r"without an answer \(3\)"):
        apart.call(dies)


def test_no_more_than_so_many_at_once(monkeypatch):
    monkeypatch.setattr(apart, "TURN_S", 0.05)
    ended = []

    def endless():
        with pytest.raises(apart.TooMuch):
            apart.call(goes_on, limits=apart.Limits(seconds=2))
        ended.append(True)

    others = [Thread(target=endless) for _ in range(apart.AT_ONCE)]
    for one in others:
        one.start()
    time.sleep(0.3)
    with pytest.raises(apart.Busy):
        apart.call(doubled, 1)
    for one in others:
        one.join()
    assert ended == [True] * apart.AT_ONCE
    assert apart.call(doubled, 1)["doubled"] == 2


@pytest.mark.parametrize(("name", "build"), [(name, build) for name, builds in LARGEST.items() for build in builds])
def test_the_largest_input_of_each_is_answered_or_ended_in_words(name, build):
    raw = build()
    try:
        assert registry.find(name).run_within_limits(raw)
    except apart.TooMuch as problem:
        assert name in AT_LENGTH and "ask for less" in problem.message


def test_whoever_takes_lists_has_a_largest_input_here():
    def lists(kind):
        return "AtMost" in str(kind.__annotations__) or any("AtMost" in str(base.__annotations__) for base in kind.__mro__[:-1])

    assert {
        name for name, entry in registry.calculators().items() if isinstance(entry.given, type) and lists(entry.given)
    } <= set(LARGEST)


def test_nobody_can_ask_for_more_time():
    with pytest.raises(BadInput) as refused:
        registry.find("source_parts").run(LARGEST["source_parts"][0]() | {"time_limit_s": 3600})
    assert refused.value.field == "time_limit_s"


def loaded(name):
    return name in sys.modules


FROM_ELSEWHERE = """
import os
from lumvek_core import apart
from lumvek_core.tests.test_apart import loaded
os.chdir("/")
print(apart.call(loaded, "lumvek_core.solvers.recording"))
"""


def test_what_it_is_forked_with_is_loaded_wherever_the_server_stands():
    """A server changes its folder; a path that was relative leads nowhere from then on, and every answer waits for the loading."""
    core = Path(apart.__file__).parents[1]
    environment = {**os.environ, "PYTHONPATH": core.name}
    done = subprocess.run(
        [sys.executable, "-c", FROM_ELSEWHERE], cwd=core.parent, env=environment, capture_output=True, text=True
    )
    assert done.stdout.strip() == "True", done.stderr
