"""Files from elsewhere that would bring a reader down are refused, each with its reason."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.formats.bounds import MOST_SCORE_BARS
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.parts import Part, drill_of
from tests.formats.hostile import HOSTILE, NOTE, ODD_METERS, divisions, meta, midi, note, score, time
from tests.strategies import so_many


def parts_of(data: bytes) -> tuple[Part, ...]:
    return read_midi(data) if data.startswith(b"MThd") else read_musicxml(data)


@pytest.mark.parametrize("name", HOSTILE)
def test_it_is_refused_with_its_reason(name: str) -> None:
    data, says = HOSTILE[name]
    with pytest.raises(Unreadable) as refused:
        parts_of(data)
    assert says in refused.value.message
    assert refused.value.field == "file"
    assert len(refused.value.message) < 200


@pytest.mark.parametrize("name", ODD_METERS)
def test_a_meter_that_cannot_be_read_is_told_and_the_one_before_stays(name: str) -> None:
    data, says = ODD_METERS[name]
    (part,) = read_musicxml(data)
    assert part.meters == ((0, 4, 4),)
    assert len(part.notes) == 1
    assert says in part.told[-1]
    assert len(part.told[-1]) < 100


@pytest.mark.parametrize(
    ("tempo", "bpm"), [(b"\xff\xff\xff", 3.5), (b"\x00\x00\x01", 1000), (b"\x00\x00\x00", 120), (b"\x07\xa1\x20", 120)]
)
def test_a_tempo_that_cannot_be_played_is_set_to_the_nearest_that_can(tempo: bytes, bpm: float) -> None:
    taken = drill_of(read_midi(midi(meta(0x51, tempo) + NOTE))[0], 1, 1, "x")
    assert taken.drill.bpm == bpm
    assert any("cannot be played" in said for said in taken.said) == (tempo == b"\x00\x00\x01")


def test_a_key_signature_out_of_range_is_no_reason_to_refuse_a_file() -> None:
    assert len(read_midi(midi(meta(0x59, b"\x63\x07") + NOTE))[0].notes) == 1


def test_a_backup_over_the_bar_line_goes_to_it() -> None:
    back = "<backup><duration>99</duration></backup>"
    (part,) = read_musicxml(score(note("4"), back + note(step="D"), note("4")))
    assert [one.onset for one in part.notes] == [0, 4, 8]


WHOLE = (
    midi(meta(0x58, b"\x03\x02\x18\x08") + NOTE * 4, NOTE),
    score(divisions("2") + time("3", "4") + note("2") + note(more='<tie type="start"/>'), note("3")),
)


@given(st.sampled_from(WHOLE), st.lists(st.tuples(st.integers(0, 400), st.integers(0, 255)), max_size=8))
@so_many(120, 1000)
def test_a_file_that_was_damaged_anywhere_is_read_or_refused(whole: bytes, damage: list[tuple[int, int]]) -> None:
    data = bytearray(whole)
    for at, byte in damage:
        data[at % len(data)] = byte
    # Anything else that is raised fails.
    with suppress(Unreadable, OutOfRange):
        for part in parts_of(bytes(data)):
            assert 1 <= part.bars <= MOST_SCORE_BARS
            drill_of(part, 1, min(part.bars, 4), "x")
