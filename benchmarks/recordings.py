"""How long a recording takes: 60 s at 400 Hz held against a drive line, and the largest WAV that is taken, read."""

import io
import json
import time
import wave
from collections.abc import Callable
from typing import Any

from lumvek_core.catalogue import load
from lumvek_core.faults.recorded import analysed, turning
from lumvek_core.simulators.recorder import Tone, recorded
from lumvek_core.solvers.recording import read

LARGEST = 6 * 1024 * 1024


def best_ms(work: Callable[[], Any], times: int = 5) -> float:
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        taken.append(time.perf_counter() - began)
    return round(1000 * min(taken), 1)


def wav() -> bytes:
    made = io.BytesIO()
    with wave.open(made, "wb") as file:
        file.setnchannels(2)
        file.setsampwidth(2)
        file.setframerate(44100)
        file.writeframes(bytes(range(256)) * (LARGEST // 256))
    return made.getvalue()


def main() -> None:
    line = load.load().shafts.families["rotary-combine"]
    shafts = turning(line, 2000, {})
    samples = recorded([Tone(47.7, 2)], 60, 1)
    content = wav()
    print(
        json.dumps(
            {
                "analysed_60_s_400_hz_ms": best_ms(lambda: analysed(samples, 400, shafts)),
                "read_wav_6_mb_ms": best_ms(lambda: read("a.wav", content)),
            },
            indent=1,
        )
    )


if __name__ == "__main__":
    main()
