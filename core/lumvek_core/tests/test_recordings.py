"""Recordings: files in, held against the drive line, two of them beside each other."""

import io
import math
import wave

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lumvek_core.catalogue import load
from lumvek_core.errors import BadInput
from lumvek_core.faults.recorded import analysed, compared, turning
from lumvek_core.simulators.recorder import Tone, recorded
from lumvek_core.solvers.recording import ENOUGH_HZ, read

LINE = load.shipped().shafts.families["rotary-combine"]
HIGH = {"rotor": "high", "chopper": "high", "feeder": "high"}


def sine(hz, rate, seconds, amplitude=0.5):
    return [amplitude * math.sin(2 * math.pi * hz * i / rate) for i in range(int(rate * seconds))]


def wav(samples, rate, width=2, channels=1):
    made = io.BytesIO()
    with wave.open(made, "wb") as file:
        file.setnchannels(channels)
        file.setsampwidth(width)
        file.setframerate(rate)
        whole = [int(max(-1, min(1, value)) * (2 ** (8 * width - 1) - 1)) + (128 if width == 1 else 0) for value in samples]
        raw = b"".join(value.to_bytes(width, "little", signed=width > 1) * channels for value in whole)
        file.writeframes(raw)
    return made.getvalue()


@pytest.mark.parametrize("width", [1, 2, 3, 4])
@pytest.mark.parametrize("channels", [1, 2])
def test_a_wav_of_any_width_is_read(width, channels):
    found = read("shield.wav", wav(sine(47, 400, 4), 400, width, channels))
    assert found.sample_hz == 400 and len(found.samples) == 1600
    assert max(found.samples) == pytest.approx(0.5, abs=0.01)
    top = analysed(found.samples, found.sample_hz, []).match.peaks[0]
    assert top.hz == pytest.approx(47, abs=0.1)


def test_sound_is_thinned_without_losing_what_shakes():
    found = read("phone.wav", wav(sine(47, 44100, 4), 44100))
    assert found.sample_hz <= ENOUGH_HZ
    assert analysed(found.samples, found.sample_hz, []).match.peaks[0].hz == pytest.approx(47, abs=0.1)


@pytest.mark.parametrize(("titles", "factor", "sign"), [("time_s,x,y,z", 1, "."), ("time_ms;x;y;z", 1000, ","), ("", 1, ".")])
def test_a_csv_of_three_directions_is_read_in_the_one_that_shakes_most(titles, factor, sign):
    separator = ";" if sign == "," else ","
    lines = [titles] if titles else []
    for i, value in enumerate(sine(12.5, 100, 5, 2)):
        cells = [f"{i / 100 * factor:.4f}", "0.01", f"{value + 9.81:.4f}", "0"]
        lines.append(separator.join(cell.replace(".", sign) for cell in cells))
    found = read("phone.csv", "\n".join(lines).encode())
    assert found.sample_hz == pytest.approx(100) and len(found.samples) == 500
    assert sum(found.samples) == pytest.approx(0, abs=0.1), "gravity is taken off"
    assert analysed(found.samples, found.sample_hz, []).match.peaks[0].hz == pytest.approx(12.5, abs=0.1)


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("a.wav", b"RIFF0000WAVE", "no WAV file"),
        ("a.wav", b"MThd", "no WAV file"),
        ("a.bin", b"\xff\xfe\x00", "neither a WAV"),
        ("a.csv", b"time,x\n0,1\n0.01,2\n0.02,what\n", "line 4 holds no figures"),
        ("a.csv", b"time,x\n0,1\n0.01,2\n0.005,3\n", "goes on"),
        ("a.csv", b"time,x\n0,1\n0.01,2\n0.02,3\n", "too short"),
        ("a.csv", b"time\n0\n1\n2\n", "column of time"),
        ("a.csv", b"time,x\n0,1\n1,nan\n2,3\n3,4\n", "figures that are none"),
    ],
)
def test_a_bad_file_says_what_is_wrong(name, content, words):
    with pytest.raises(BadInput) as refused:
        read(name, content)
    assert refused.value.field == "file" and words in refused.value.message


def test_the_drive_line_turns_with_the_engine_and_by_its_ranges():
    shafts = {one.key: one for one in turning(LINE, 1000, {"rotor": "low"}, {"fan": 700})}
    assert shafts["chopper"].rpm == 1430 and shafts["chopper"].ranged == "high"
    assert shafts["rotor"].rpm == 210 and shafts["rotor"].ranged == "low"
    assert shafts["fan"].rpm == 700, "read off the display"


def test_the_tones_of_a_known_bearing_are_orders_of_its_shaft():
    chopper = next(one for one in turning(LINE, 2000, HIGH) if one.key == "chopper")
    tones = {what: float(order) for order, what in chopper.orders.items()}
    f = 1450 / 60  # as worked by hand: 86.484 Hz and 131.016 Hz at 1450 rpm
    assert tones["outer ring of chopper bearing"] == pytest.approx(86.484 / f, abs=1e-3)
    assert tones["inner ring of chopper bearing"] == pytest.approx(131.016 / f, abs=1e-3)
    assert tones["a ball of chopper bearing"] == pytest.approx(2 * 56.544 / f, abs=1e-3)
    found = analysed(record([(2860 / 60 * 86.484 / f, 2.0)]), 400, turning(LINE, 2000, HIGH))
    assert found.match.words == "Chopper"
    assert found.match.peaks[0].matches[0].order == pytest.approx(86.484 / f, abs=1e-3)


def record(tones, seed=3, seconds=24):
    return recorded([Tone(hz, height) for hz, height in tones], seconds, seed)


def test_the_recording_names_the_chopper_and_a_sound_machine_matches_nothing():
    chopper = 2860 / 60
    found = analysed(record([(chopper, 2.4), (2 * chopper, 0.6)]), 400, turning(LINE, 2000, HIGH))
    assert found.match.words == "Chopper" and len(found.hz) == len(found.amplitude) <= 1400
    sound = analysed(record([]), 400, turning(LINE, 2000, HIGH))
    assert sound.match.words == "no match" and sound.level < found.level


def test_two_speeds_of_the_engine_tell_what_follows_it():
    chopper = 2860 / 60
    fast = analysed(record([(chopper, 2.0), (13.3, 1.0), (71.0, 1.0)]), 400, turning(LINE, 2000, HIGH)).match
    slow = analysed(record([(chopper * 0.8, 1.5), (13.3, 1.0)], 4), 400, turning(LINE, 1600, HIGH)).match
    found = {round(one.hz): one for one in compared(fast, 2000, slow, 1600)}
    assert (found[48].follows, found[13].follows, found[71].follows) == ("engine", "not", "only")
    assert found[48].order == pytest.approx(1.43, abs=0.01) and found[48].times == pytest.approx(0.75, abs=0.12)


def test_before_and_after_at_one_speed_tells_what_went():
    before = analysed(record([(47.7, 2.0), (15.0, 0.8)]), 400, turning(LINE, 2000, HIGH)).match
    after = analysed(record([(47.7, 0.4), (15.0, 0.8)], 5), 400, turning(LINE, 2000, HIGH)).match
    found = {round(one.hz): one for one in compared(before, 2000, after, 2000)}
    assert (found[48].follows, found[15].follows) == ("same", "same")
    assert found[48].times == pytest.approx(0.2, abs=0.05) and found[15].times == pytest.approx(1, abs=0.1)


@settings(max_examples=25, deadline=None)
@given(st.floats(3, 190), st.floats(200, 900), st.integers(0, 999))
def test_a_tone_is_found_where_it_is_whatever_the_rate(hz, rate, seed):
    if hz > 0.45 * rate:
        return
    drawn = np.random.default_rng(seed)
    at = np.arange(int(12 * rate)) / rate
    samples = (2 * np.sin(2 * np.pi * hz * at) + drawn.normal(0, 0.3, len(at))).tolist()
    top = analysed(samples, rate, []).match.peaks[0]
    assert top.hz == pytest.approx(hz, abs=0.06) and top.amplitude == pytest.approx(2, rel=0.2)
