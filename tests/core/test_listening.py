"""Listening, held to a synthesiser that is not ours: guitar, keys and wind, in clean and noisy rooms."""

import numpy as np
import pytest
from numpy.typing import NDArray

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.listening import PROFILES, Listened, Sound, listen
from ripresa.core.reading import read
from ripresa.core.takes import StandIn, due_notes, play
from ripresa.formats.recording import played
from ripresa.formats.sound_in import sound_of
from ripresa.formats.sounds import click
from tests.strategies import legs
from tools.band import (
    INSTRUMENTS,
    OTHERS,
    RATE,
    SMALL_FONT,
    has_band,
    part,
    recorded,
    struck_at,
    strums,
    with_clicks,
)
from tools.hearing import GAPS, RINGING, accents, heard, met, quiet

Floats = NDArray[np.float64]
needs_band = pytest.mark.skipif(not has_band(), reason="no synthesiser: tools/need.sh band")

#: F1 at least, and how far onsets may scatter at most, in ms, on average (MEASURING §7).
REACHED = {"plucked": (0.98, 2.0), "struck": (0.98, 2.0), "tongued": (0.95, 5.0)}
#: The flute of the small font begins over 40 ms; its scatter is told, not promised.
FLUTE_MS = 9.0


def heard_of(sound: Sound, kind: str, gap: float | None = None) -> tuple[Listened, Floats]:
    found = listen(sound, kind, gap)  # type: ignore[arg-type]
    return found, np.array([onset.at for onset in found.onsets])


@needs_band
# Each instrument once, and each kind of beginning in a room too; `make truth` hears all of them in both.
@pytest.mark.parametrize(
    ("name", "room"),
    [
        *((name, "clean") for name in ("nylon guitar", "piano", "clarinet")),
        *((name, "noisy") for name in ("steel guitar", "alto sax", "flute")),
    ],
)
def test_notes_of_other_makers_are_heard_where_they_begin(name: str, room: str) -> None:
    kind = INSTRUMENTS[name][3]
    found = [
        heard(INSTRUMENTS[name], seed, gap, SMALL_FONT, room=room == "noisy")
        for seed, gap in enumerate(GAPS[kind], start=60)
    ]
    least, most = REACHED[kind]
    f1, scatter = np.mean([one[0] for one in found]), np.mean([one[2] for one in found])
    room_for = 0.02 if room == "noisy" else 0.0
    assert f1 >= least - room_for, found
    assert scatter <= (FLUTE_MS if name == "flute" else most * (1 if room == "clean" else 1.5)), found


@needs_band
@pytest.mark.parametrize(("name", "least"), [("clarinet", 0.95), ("alto sax", 0.96), ("trumpet", 0.93)])
def test_a_note_that_is_softer_than_the_one_before_begins_all_the_same(name: str, least: float) -> None:
    program, lowest, highest, kind = {**INSTRUMENTS, **OTHERS}[name]
    found = []
    for seed in range(3):
        notes = part(80 + seed, lowest, highest, gap=0.2, wavers=22)
        due = struck_at(notes, program)
        found.append(met(due, heard_of(quiet(recorded(notes, program)), kind, float(np.diff(due).min()))[1])[0])
    assert np.mean(found) >= least, found


@needs_band
def test_a_strum_is_one_note_at_its_first_string() -> None:
    notes = strums(5)
    due = struck_at(notes, 25, within=0.06)
    f1, late, scatter = met(due, heard_of(quiet(recorded(notes, 25)), "plucked", 0.28)[1])
    assert f1 >= 0.97
    assert abs(late) < 8
    assert scatter < 6


@pytest.mark.parametrize("apart", [0.03, 0.05])
def test_of_two_strings_that_are_struck_as_one_the_first_begins_the_note(apart: float) -> None:
    first, second = _plucks(8, gap=0.5), _plucks(8, gap=0.5, start=1.0 + apart)
    both = np.zeros(max(len(first), len(second)))
    both[: len(first)] += first
    both[: len(second)] += second
    found = [one.at for one in listen(quiet(both.astype(np.float32)), "plucked", 0.5).onsets]
    assert len(found) == 8
    assert found == pytest.approx([1.0 + 0.5 * number for number in range(8)], abs=0.012)


@needs_band
@pytest.mark.parametrize(
    ("name", "gap", "held"),
    [
        *((name, *RINGING[place]) for name in ("nylon guitar", "piano", "clarinet", "jazz guitar") for place in (0, 2)),
        *((name, *RINGING[1]) for name in ("piano", "steel guitar", "harpsichord")),
    ],
)
def test_an_accent_is_as_loud_as_alone_whatever_rings_on_under_it(name: str, gap: float, held: float) -> None:
    alone, found = accents({**INSTRUMENTS, **OTHERS}[name], gap, held, 28)
    assert alone > 3.5
    assert found == pytest.approx(alone, abs=1.0)


@needs_band
def test_a_click_in_the_microphone_is_known_by_its_count_in_and_hides_what_lies_under_it() -> None:
    late = 0.043
    notes = part(12, 52, 76, gap=0.25, count=40)
    lead = [0.0, 0.25, 0.5, 0.75]
    shift = 1.2
    samples = np.concatenate([np.zeros(round(shift * RATE), dtype=np.float32), recorded(notes, 25)])
    due = struck_at(notes, 25) + shift
    clicks = [0.2 + one for one in lead] + [float(at) - 0.043 for at in due[::4]] + [float(due[5]) + 0.08]
    clicks.sort()
    sound = quiet(with_clicks(samples, click("strong"), [one + late for one in clicks], 0.5))
    found = listen(sound, "plucked", 0.18, clicks, len(lead), None)
    assert found.click_late == pytest.approx(late, abs=0.004)
    # None of the count-in is taken for a note, and none of the notes away from clicks is lost.
    assert all(onset.at > shift + 0.3 for onset in found.onsets)
    away = [at for number, at in enumerate(due) if number % 4]
    assert met(np.array(away), np.array([one.at for one in found.onsets if _away(one.at, clicks, late)]))[0] > 0.95
    assert len(found.hidden) >= 1


def _away(at: float, clicks: list[float], late: float) -> bool:
    return all(abs(at - one - late) > 0.03 for one in clicks)


def test_without_a_click_in_it_nothing_is_hidden() -> None:
    sound = quiet(_plucks(20).astype(np.float32))
    plain = listen(sound, "plucked")
    asked = listen(sound, "plucked", None, [0.1, 0.2, 0.3, 0.9], 3)
    assert asked.onsets == plain.onsets
    assert (asked.hidden, asked.click_late) == ((), None)


def _plucks(count: int, gap: float = 0.25, start: float = 1.0) -> Floats:
    random = np.random.default_rng(3)
    sound = np.zeros(round((start + count * gap + 1) * RATE))
    for number in range(count):
        time = np.arange(round(0.2 * RATE)) / RATE
        tone = np.sin(2 * np.pi * 220 * time) * np.exp(-12 * time) + 0.2 * random.normal(0, 1, len(time)) * np.exp(
            -200 * time
        )
        tone *= np.minimum(1, (0.2 - time) / 0.05)
        first = round((start + number * gap) * RATE)
        sound[first : first + len(tone)] += tone
    return 0.3 * sound


def hummed(samples: Floats, level: float) -> Floats:
    time = np.arange(len(samples)) / RATE
    return samples + level * (np.sin(2 * np.pi * 50 * time) + 0.5 * np.sin(2 * np.pi * 150 * time))


@pytest.mark.parametrize(
    ("samples", "trouble"),
    [
        (np.zeros(2 * RATE), "silent"),
        (_plucks(20) * 0.004, "soft"),
        (np.clip(_plucks(20) * 6, -1, 1), "clipping"),
        (hummed(_plucks(20) * 0.3, 0.08), "hum"),
        (_plucks(20) * 0.1 + np.random.default_rng(1).normal(0, 0.02, len(_plucks(20))), "noise"),
        (_plucks(20), None),
    ],
    ids=["silence", "soft", "clipping", "hum", "noise", "good"],
)
def test_a_recording_that_cannot_be_listened_to_says_why(samples: Floats, trouble: str | None) -> None:
    quality = listen(sound_of(samples, RATE), "plucked").quality
    if trouble is None:
        assert (quality.is_good, quality.sentences) == (True, ())
    else:
        assert quality.troubles[0] == trouble, quality
        assert all(sentence.endswith(".") for sentence in quality.sentences)


@pytest.mark.parametrize("rate", [8_000, 16_000, 22_050, 44_100, 48_000])
def test_every_usual_rate_is_listened_to(rate: int) -> None:
    moments = np.arange(round(6.5 * rate)) / rate
    samples = np.interp(moments, np.arange(len(_plucks(20))) / RATE, _plucks(20))
    found = [onset.at for onset in listen(Sound((samples * 30_000).astype(np.int16), rate), "plucked").onsets]
    assert met(np.array([1.0 + 0.25 * one for one in range(20)]), np.array(found)) == (
        1.0,
        pytest.approx(0, abs=6),
        pytest.approx(0, abs=2),
    )


@pytest.mark.parametrize(("seconds", "rate"), [(1201, 8_000), (1, 4_000), (1, 96_000)])
def test_what_is_too_long_or_of_no_usual_rate_is_refused(seconds: int, rate: int) -> None:
    with pytest.raises(OutOfRange):
        Sound(np.zeros(seconds * rate, dtype=np.int16), rate)


@pytest.mark.parametrize("kind", PROFILES)
def test_nothing_is_heard_in_next_to_nothing(kind: str) -> None:
    for count in (0, 1, 10, 5000):
        assert heard_of(Sound(np.zeros(count, dtype=np.int16), RATE), kind)[0].onsets == ()


def test_who_plays_through_the_count_in_is_not_taken_for_the_click() -> None:
    sound = sound_of(_plucks(24, gap=0.25, start=0.5), RATE)
    clicks = [0.5 + 0.5 * number for number in range(12)]
    found = listen(sound, "plucked", 0.25, clicks, 4)
    assert (found.hidden, found.click_late) == ((), None)
    assert len(found.onsets) == 24


def test_a_note_that_is_let_go_just_before_the_next_does_not_begin_it() -> None:
    # Our own plucks stop over 20 ms, shortly before the next: what one hears of that is no note.
    reading = read(Drill(material=ScaleRun(octaves=2), legs=legs(2, 3, 4), hands=ByOrder(), accents=EveryNth(size=5)))
    due = due_notes(reading, F(96), 0.0, 2 * float(reading.loop_beats * 60 / 96))
    notes = play(StandIn(spread_ms=6, accent_db=7), due).notes
    samples = played(notes, "pluck", 0.5 + notes[-1].at + 1, -0.5)
    at = np.array([one.at for one in listen(sound_of(0.5 * samples, RATE), "plucked", 0.15).onsets])
    f1, _, scatter = met(np.array([note.at + 0.5 for note in notes]), at)
    assert f1 > 0.98
    assert scatter < 3
