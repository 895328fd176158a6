"""Work in a process of its own, which is ended when it takes longer or wants more memory than it may.

For what cannot say beforehand what it will cost: solvers, and files from elsewhere. Nobody who asks can raise either limit.
"""

import json
import multiprocessing
import os
import resource
import signal
import time
from collections.abc import Callable
from dataclasses import dataclass
from multiprocessing import forkserver
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path
from threading import BoundedSemaphore
from typing import Any

from .errors import BadInput

Progress = Callable[[str, int, int], bool | None]
"""(what is at hand, how much is done, of how much); answers whether what there is so far will do."""


class TooMuch(BadInput):
    """It took longer, or wanted more memory, than it may."""


class Busy(Exception):
    """As much as may be is worked on apart at this moment; nothing was begun."""


@dataclass(frozen=True)
class Limits:
    """seconds: until it is ended, whatever it is at. megabytes: that it may take beside what it begins with."""

    seconds: float = 10.0
    megabytes: int = 500


LIMITS = Limits()
AT_ONCE = 2
"""Processes beside one that answers requests."""
TURN_S = 3.0
NO_ROOM = 77
"""What a process ends with that found no more memory."""
_turns = BoundedSemaphore(AT_ONCE)
_CORE = str(Path(__file__).resolve().parents[1])
if _CORE not in os.environ.get("PYTHONPATH", "").split(os.pathsep):
    # That process begins with the environment alone: a relative path leads nowhere once the server has changed its folder.
    os.environ["PYTHONPATH"] = os.pathsep.join(filter(None, [_CORE, os.environ.get("PYTHONPATH", "")]))
# Forked from a process that has only this loaded: no thread, no connection to the database, no half-held lock.
_processes = multiprocessing.get_context("forkserver")
_LOADED = [
    "lumvek_core.planning.route",
    "lumvek_core.planning.season_schedule",
    "lumvek_core.planning.sourcing",
    "lumvek_core.solvers.facility",
    "lumvek_core.solvers.recording",
    "lumvek_core.solvers.season_ladder",
    "scipy.signal",
]
_processes.set_forkserver_preload(_LOADED)


def make_ready(*also: str) -> None:
    """Begin to load what is forked from, so that the first who asks does not wait for it. also: modules that others want."""
    _processes.set_forkserver_preload([*_LOADED, *also])
    forkserver.ensure_running()


def call(function: Callable[..., Any], *arguments: Any, limits: Limits = LIMITS, progress: Progress | None = None) -> Any:
    """What a function of a module answers, as JSON has it. With `progress` it is given one more argument, to tell it by.

    Raises BadInput as the function does, TooMuch at a limit, Busy.
    """
    if not _turns.acquire(timeout=TURN_S):
        raise Busy("Others are working things out just now.")
    try:
        here, there = _processes.Pipe()
        begun = _processes.Process(target=_work, args=(there, limits, function, arguments, progress is not None), daemon=True)
        begun.start()
        there.close()
        try:
            return _listen(begun, here, limits, progress)
        finally:
            begun.kill()
            begun.join()
            here.close()
    finally:
        _turns.release()


def _listen(begun: BaseProcess, here: Connection, limits: Limits, progress: Progress | None) -> Any:
    ends = time.monotonic() + limits.seconds
    while here.poll(max(ends - time.monotonic(), 0)):
        try:
            said = json.loads(here.recv_bytes())
        except EOFError:
            raise _ended(begun, limits) from None
        match said:
            case ["told", [what, done, of]] if progress:
                if progress(what, done, of):
                    here.send_bytes(b"enough")
            case ["refused", [field, message]]:
                raise BadInput(field, message)
            case ["failed", kind]:
                raise RuntimeError(f"failed apart: {kind}")
            case ["answered", answer]:
                return answer
    raise TooMuch("", f"takes longer than {limits.seconds:g} s to work out: ask for less")


def _ended(begun: BaseProcess, limits: Limits) -> Exception:
    """Why a process said nothing more."""
    begun.join(1)
    if begun.exitcode in (NO_ROOM, -signal.SIGKILL, -signal.SIGSEGV):
        return TooMuch("", f"wants more than the {limits.megabytes} MB there are for it: ask for less")
    if begun.exitcode == -signal.SIGXCPU:
        return TooMuch("", f"takes longer than {limits.seconds:g} s to work out: ask for less")
    return RuntimeError(f"ended apart without an answer ({begun.exitcode})")


def _work(there: Connection, limits: Limits, function: Callable[..., Any], arguments: tuple[Any, ...], tells: bool) -> None:
    """In the process of its own."""
    os.nice(15)  # whoever types goes first
    room = _address_space() + limits.megabytes * 1024 * 1024
    resource.setrlimit(resource.RLIMIT_AS, (room, room))
    # Ends by itself where nobody is left to end it.
    seconds = int(limits.seconds) * (os.cpu_count() or 1) + 5
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds))

    def say(kind: str, what: Any) -> None:
        there.send_bytes(json.dumps([kind, what]).encode())

    def tell(*step: Any) -> bool:
        say("told", step)
        return there.poll()  # whoever listens says one word only: that it is enough

    try:
        more = (tell,) if tells else ()
        say("answered", function(*arguments, *more))
    except BadInput as problem:
        say("refused", (problem.field, problem.message))
    except MemoryError:
        os._exit(NO_ROOM)  # there may be no room left to say so
    except Exception as problem:
        say("failed", type(problem).__name__)
        raise


def _address_space() -> int:
    with open("/proc/self/statm") as pages:
        return int(pages.read().split()[0]) * resource.getpagesize()
