"""MIDI files as takes: seconds over changes of tempo, running status, pedals, and there and back."""

import io

import mido
import pytest

from ripresa.core.errors import Unreadable
from ripresa.core.takes import HeardNote
from ripresa.formats.midi_take import midi_take, write_midi_take


def file_of(*messages: mido.Message | mido.MetaMessage, ticks: int = 480) -> bytes:
    target = io.BytesIO()
    mido.MidiFile(type=0, ticks_per_beat=ticks, tracks=[mido.MidiTrack(messages)]).save(file=target)
    return target.getvalue()


def test_seconds_follow_every_change_of_tempo() -> None:
    body = file_of(
        mido.MetaMessage("set_tempo", tempo=500_000),
        mido.Message("note_on", note=60, velocity=80, time=480),
        mido.MetaMessage("set_tempo", tempo=1_000_000, time=480),
        mido.Message("note_on", note=62, velocity=90, time=240),
        mido.Message("note_off", note=60, time=0),
        mido.Message("note_on", note=62, velocity=0, time=480),
    )
    # A quarter of half a second, another; then half of one that lasts a second, and one more.
    assert midi_take(body) == (HeardNote(0.5, None, 60, 80, 1.5), HeardNote(1.5, None, 62, 90, 2.5))


def test_a_pedal_changes_nothing_and_what_is_not_let_go_has_no_end() -> None:
    body = file_of(
        mido.Message("control_change", control=64, value=127),
        mido.Message("note_on", note=60, velocity=80, time=96),
        mido.Message("note_on", note=64, velocity=70, time=10),
        mido.Message("note_off", note=60, time=96),
    )
    assert [(note.pitch, note.until is None) for note in midi_take(body)] == [(60, False), (64, True)]


def test_there_and_back() -> None:
    notes = (
        HeardNote(0.01, "R", 60, 80.0, 0.2),
        HeardNote(0.26, "L", None, 70.0, None),
        HeardNote(0.5, "R", 62, 91.0, 0.7),
    )
    back = midi_take(write_midi_take(notes))
    assert [(one.at, one.pitch, one.level) for one in back] == [
        (pytest.approx(0.01), 60, 80),
        (pytest.approx(0.26), 77, 70),
        (pytest.approx(0.5), 62, 91),
    ]


@pytest.mark.parametrize(
    "body", [b"", b"MThd", b"RIFF" + bytes(50), file_of(mido.Message("program_change", program=3))]
)
def test_what_is_no_take_is_refused(body: bytes) -> None:
    with pytest.raises(Unreadable):
        midi_take(body)
