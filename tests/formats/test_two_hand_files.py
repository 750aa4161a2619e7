"""Two hands in files: read back by other readers than ours, each hand a part of its own."""

import io
from itertools import accumulate

import mido
import pytest
from lxml import etree

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line, OneNote
from ripresa.core.drill.second import OneKey, OwnLine, SecondHand
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.formats.midi import TICKS_A_QUARTER, write_midi
from ripresa.formats.notation import write_musicxml
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


def test_musicxml_has_a_staff_for_each_hand_of_the_same_bars() -> None:
    root = etree.fromstring(write_musicxml(read(THREE_TWO), F(60)))
    (part,) = root.findall("part")
    divisions = int(part.findtext(".//divisions") or 0)
    assert part.findtext(".//staves") == "2"
    found: dict[str, list[F]] = {"1": [], "2": []}
    at = F(0)
    for one in part.iterfind("measure/*"):
        length = F(int(one.findtext("duration") or 0), divisions)
        if one.tag == "note":
            if one.find("pitch") is not None and not one.xpath("tie[@type='stop']"):
                found[one.findtext("staff") or ""].append(at)
            at += length
        elif one.tag == "backup":
            at -= length
    assert found == {"1": RIGHT, "2": LEFT}
    assert [clef.text for clef in part.iterfind(".//clef/sign")] == ["G", "F"]


def test_a_hand_without_pitch_is_written_all_the_same() -> None:
    taps = Drill(material=OneNote(beats=2), legs=legs(4), second=SecondHand(OneKey("", "repeated"), legs(3)))
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(taps), F(60), with_click=False)))
    right, left = [notes for track in file.tracks if (notes := struck(track))]
    assert ([len(right), len(left)]) == [8, 6]
    root = etree.fromstring(write_musicxml(read(taps), F(60)))
    assert [clef.text for clef in root.iterfind(".//clef/sign")] == ["percussion", "percussion"]
    # A drum for each hand: where both strike at once they can be told apart.
    drums = {note.find("instrument").get("id") for note in root.iter("note") if note.find("instrument") is not None}  # type: ignore[union-attr]
    assert len(drums) == 2
