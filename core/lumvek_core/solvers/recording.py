"""A file of a recording – WAV, or CSV with time and acceleration – as samples in one direction, at a rate that is enough."""

import io
import math
import struct
import wave
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..errors import BadInput
from ..files.tables import rows_of

ENOUGH_HZ, LONGEST_S, SHORTEST_S = 1000.0, 120.0, 2.0
"""Rate that is kept at most, and how long a recording is kept and must be."""
UNEVEN = 0.25
"""Share by which the steps of time may differ from their median before nobody can say what the rate is."""


@dataclass(frozen=True)
class Recorded:
    sample_hz: float
    samples: list[float]


def read(name: str, content: bytes) -> Recorded:
    """Whatever file it is. Raises BadInput with field ``file``."""
    if content[:4] == b"RIFF" or name.lower().endswith(".wav"):
        return kept(*_wav(content))
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise BadInput("file", "is neither a WAV file nor a CSV table of time and acceleration") from None
    return kept(*_csv(text))


def as_plain(name: str, content: bytes) -> dict[str, Any]:
    """What `read` finds, as it goes from one process to another."""
    found = read(name, content)
    return {"sample_hz": found.sample_hz, "samples": found.samples}


def kept(sample_hz: float, values: NDArray[np.float64]) -> Recorded:
    """The direction that shakes most, its mean taken off, no longer and no finer than is of use. Raises BadInput."""
    if not math.isfinite(sample_hz) or sample_hz <= 0 or not np.isfinite(values).all():
        raise BadInput("file", "holds figures that are none")
    if len(values) < SHORTEST_S * sample_hz:
        raise BadInput("file", f"is too short: at least {SHORTEST_S:g} seconds")
    values = values[: int(LONGEST_S * sample_hz)]
    one = values[:, int(np.argmax(values.std(axis=0)))]
    one = one - one.mean()
    if sample_hz > ENOUGH_HZ:
        down = math.ceil(sample_hz / ENOUGH_HZ)
        from scipy.signal import resample_poly  # slow to load: only where a file is worked on

        one, sample_hz = resample_poly(one, 1, down), sample_hz / down
    return Recorded(float(sample_hz), [float(value) for value in np.round(one, 5)])


def _wav(content: bytes) -> tuple[float, NDArray[np.float64]]:
    try:
        with wave.open(io.BytesIO(content)) as file:
            width, channels, rate = file.getsampwidth(), file.getnchannels(), file.getframerate()
            raw = file.readframes(min(file.getnframes(), int(LONGEST_S * rate)))
    except (wave.Error, EOFError, struct.error):
        raise BadInput("file", "is no WAV file that can be read: plain PCM is needed") from None
    if width not in (1, 2, 3, 4) or not rate:
        raise BadInput("file", "is no WAV file that can be read: plain PCM is needed")
    whole = raw[: len(raw) // (width * channels) * width * channels]
    if width == 1:
        figures = np.frombuffer(whole, np.uint8).astype(np.float64) / 128 - 1
    elif width == 3:
        parts = np.frombuffer(whole, np.uint8).reshape(-1, 3).astype(np.int32)
        together = parts[:, 0] | (parts[:, 1] << 8) | (parts[:, 2] << 16)
        figures = (together - ((together & 0x800000) << 1)).astype(np.float64) / 2**23
    else:
        figures = np.frombuffer(whole, f"<i{width}").astype(np.float64) / 2 ** (8 * width - 1)
    return float(rate), figures.reshape(-1, channels)


def _csv(text: str) -> tuple[float, NDArray[np.float64]]:
    """Columns: time in seconds (milliseconds where it says ms), then one to three directions."""
    lines, titles = rows_of(text)
    figures: list[list[float]] = []
    for number, cells in lines:
        try:
            figures.append([float(cell.replace(",", ".")) for cell in cells[:4]])
        except ValueError:
            raise BadInput("file", f"line {number} holds no figures: {','.join(cells)[:40]}") from None
    if not figures or len(figures[0]) < 2:
        raise BadInput("file", "needs a column of time and one of acceleration")
    if any(len(row) != len(figures[0]) for row in figures):
        raise BadInput("file", "has lines of different lengths")
    values = np.asarray(figures, dtype=np.float64)
    steps = np.diff(values[:, 0])
    if len(steps) < 2 or (steps <= 0).any():
        raise BadInput("file", "needs a time that goes on from line to line")
    step = float(np.median(steps))
    if (np.abs(steps - step) > UNEVEN * step).mean() > UNEVEN:
        raise BadInput("file", "has steps of time too uneven to say how often it was measured")
    if titles and "ms" in titles[0].lower():
        step /= 1000
    return 1 / step, values[:, 1:]
