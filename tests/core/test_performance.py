from itertools import pairwise

import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import Pulse, expected_onsets, most_due, perform
from ripresa.core.reading import read
from tests.strategies import bpms, drills, legs

SIXTEENTHS = Drill(material=OneNote(beats=4), legs=legs(4))


@settings(max_examples=50)
@given(drills, bpms)
def test_every_second_is_its_own_beats_and_nothing_drifts(drill: Drill, bpm: F) -> None:
    reading = read(drill)
    found = perform(reading, bpm)
    notes = [tone for tone in found.tones if tone.midi != 41 or not reading.second]
    assert sorted(tone.event for tone in notes) == [
        number for number, event in enumerate(reading.every) if event.kind == "note"
    ]
    for tone in notes:
        assert tone.at == float(reading.every[tone.event].onset * 60 / bpm)
    assert found.loop_seconds == float(reading.loop_beats * 60 / bpm)


@settings(max_examples=50)
@given(drills, bpms)
def test_onsets_and_clicks_rise_and_end_inside_the_turn(drill: Drill, bpm: F) -> None:
    reading = read(drill)
    found = perform(reading, bpm)
    # A second layer may sound together with the notes, and so may the left hand.
    notes = [tone for tone in found.tones if tone.midi != 41 or not reading.second]
    hands = [[tone.at for tone in notes if reading.every[tone.event].hand == hand] for hand in ("L", "R", None)]
    for times, turn in (
        *((one, found.loop_seconds) for one in hands),
        ([tick.at for tick in found.ticks], found.click_seconds),
    ):
        assert all(before < after for before, after in pairwise(times))
        assert all(0 <= at < turn for at in times)


def test_each_turn_of_the_loop_starts_on_a_bar_line() -> None:
    reading = read(Drill(material=ScaleRun(octaves="match"), legs=legs(2, 3), seam="straight_on"))
    assert (reading.beats, reading.loop_beats) == (28, 28)
    assert read(Drill(material=ScaleRun(octaves="match"), legs=legs(2), seam="straight_on")).loop_beats == 16


def test_the_heard_pitch_is_the_sounding_one() -> None:
    drill = Drill(material=ScaleRun(tonic="C", octaves=1), legs=legs(1), instrument="clarinet")
    written = read(drill).notes[0].pitch
    assert written is not None
    assert perform(read(drill), F(60)).tones[0].midi == written.midi - 2


def test_due_onsets_go_round_with_the_loop() -> None:
    due = expected_onsets(read(Drill(material=OneNote(beats=4), legs=legs(1))), F(60), 2.0, 7.0)
    assert due == [(2.0, 2), (3.0, 3), (4.0, 0), (5.0, 1), (6.0, 2)]


def test_every_turn_that_is_begun_can_have_all_its_notes() -> None:
    turn = read(Drill(material=OneNote(beats=4), legs=legs(1)))
    assert [most_due(turn, F(120), seconds) for seconds in (1.9, 2.1, 3.9)] == [4, 8, 8]


@pytest.mark.parametrize(
    ("pulse", "bpm", "expected"),
    [
        pytest.param(
            Pulse(heard=1, soft=1), 88, [(F(n, 2), 1.0 if n < 8 else 0.3) for n in range(16)], id="twice the beat"
        ),
        pytest.param(Pulse("large", 1, 0), 240, [(F(0), 1.0), (F(2), 1.0)], id="the half note"),
        pytest.param(Pulse("smallest", 0, 1), 60, [(F(n, 4), 0.3) for n in range(16)], id="sixteenths, soft at once"),
        pytest.param(Pulse(heard=0, soft=0), 60, [], id="silent"),
    ],
)
def test_the_inner_pulse_is_heard_then_soft_then_silent(
    pulse: Pulse, bpm: int, expected: list[tuple[F, float]]
) -> None:
    found = perform(read(SIXTEENTHS), F(bpm), pulse=pulse).pulse
    assert [(tick.at, tick.loud) for tick in found] == [(float(at * 60 / bpm), loud) for at, loud in expected]
    with pytest.raises(OutOfRange):
        Pulse(heard=17)
