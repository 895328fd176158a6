"""What each calculation's largest input costs: seconds, and megabytes beside those it began with."""

import resource
import signal
import subprocess
import sys
import time

from lumvek_core import apart, registry
from lumvek_core.tests.largest import LARGEST


def main() -> None:
    if len(sys.argv) == 3:
        _one(sys.argv[1], int(sys.argv[2]))
        return
    for name, builds in LARGEST.items():
        for i in range(len(builds)):
            # A process each, so that the most one has wanted is not the most of another.
            subprocess.run([sys.executable, __file__, name, str(i)], check=True)


def _one(name: str, which: int) -> None:
    entry, raw = registry.find(name), LARGEST[name][which]()
    signal.signal(signal.SIGALRM, _ended)
    signal.alarm(int(apart.LIMITS.seconds))
    begun, before = time.monotonic(), resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    try:
        entry.run(raw)
        said = "answered"
    except apart.TooMuch:
        said = "ended at its limit"
    more = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    print(f"{name:20} {time.monotonic() - begun:7.2f} s {more:6.0f} MB  {said}", flush=True)


def _ended(*_: object) -> None:
    raise apart.TooMuch("", "")


if __name__ == "__main__":
    main()
