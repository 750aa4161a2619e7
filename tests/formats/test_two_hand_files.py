"""Two hands in files: read back by other readers than ours, each hand a part of its own."""

import io
from fractions import Fraction as F
from itertools import accumulate

import mido
import pytest
from lxml import etree

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line, OneNote
from ripresa.core.drill.second import OneKey, OwnLine, SecondHand
from ripresa.core.reading import read
from ripresa.formats.midi import TICKS_A_QUARTER, write_midi
from ripresa.formats.musicxml import write_musicxml
from tests.strategies import legs

THREE_TWO = Drill(
    title="Ferry bell",
    material=Line("C5 D5 E5 F5 G5 A5", rhythm="legs"),
    legs=legs(3),
    second=SecondHand(OwnLine("C3 G3 E3 G3"), legs(2), balance="softer"),
    instrument="piano",
)
#: One cycle is a beat: the right hand at 0, ⅓, ⅔, the left one at 0, ½ (DOMAIN §14).
RIGHT = [F(0), F(1, 3), F(2, 3), F(1), F(4, 3), F(5, 3)]
LEFT = [F(0), F(1, 2), F(1), F(3, 2)]


def struck(track: mido.MidiTrack) -> list[tuple[F, int, int, int]]:
    """Return (quarter, key, velocity, channel) of each note of a track."""
    ticks = accumulate(message.time for message in track)
    return [
        (F(at, TICKS_A_QUARTER), message.note, message.velocity, message.channel)
        for at, message in zip(ticks, track, strict=True)
        if message.type == "note_on" and message.velocity
    ]


def test_midi_has_a_track_and_a_channel_for_each_hand() -> None:
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(THREE_TWO), F(60), with_click=False)))
    right, left = [notes for track in file.tracks if (notes := struck(track))]
    assert [at for at, *_ in right] == RIGHT
    assert [at for at, *_ in left] == LEFT
    assert [key for _, key, *_ in right] == [72, 74, 76, 77, 79, 81]
    assert [key for _, key, *_ in left] == [48, 55, 52, 55]
    assert {channel for *_, channel in right}.isdisjoint({channel for *_, channel in left})
    # Half as loud is 1/√2 of the velocity.
    assert left[0][2] / right[0][2] == pytest.approx(0.5**0.5, abs=0.02)


def test_musicxml_has_a_part_for_each_hand_of_the_same_bars() -> None:
    root = etree.fromstring(write_musicxml(read(THREE_TWO), F(60)))
    parts = root.findall("part")
    assert [part.get("id") for part in parts] == [part.get("id") for part in root.findall("part-list/score-part")]
    for part, onsets in zip(parts, (RIGHT, LEFT), strict=True):
        found, at = [], F(0)
        divisions = int(part.findtext(".//divisions") or 0)
        for note in part.iterfind("measure/note"):
            if note.find("pitch") is not None and not note.xpath("tie[@type='stop']"):
                found.append(at)
            at += F(int(note.findtext("duration") or 0), divisions)
        assert found == onsets
        assert at == 4 * len(part.findall("measure"))
    clefs = [part.findtext(".//clef/sign") for part in parts]
    assert clefs == ["G", "F"]


def test_a_hand_without_pitch_is_written_all_the_same() -> None:
    taps = Drill(material=OneNote(beats=2), legs=legs(4), second=SecondHand(OneKey("", "repeated"), legs(3)))
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(taps), F(60), with_click=False)))
    right, left = [notes for track in file.tracks if (notes := struck(track))]
    assert ([len(right), len(left)]) == [8, 6]
    root = etree.fromstring(write_musicxml(read(taps), F(60)))
    assert len(root.findall("part")) == 2
