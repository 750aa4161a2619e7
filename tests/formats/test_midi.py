import io

import mido
import pytest
from hypothesis import assume, given, settings

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import NoAccents, TypedAccents
from ripresa.core.drill.click import Thinned
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Line, OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.rhythm import Swing
from ripresa.formats.midi import TICKS_A_QUARTER, write_midi
from ripresa.formats.recipes import RECIPES
from tests.strategies import drills, legs


def onsets(body: bytes, name: str) -> list[tuple[int, int, int]]:
    """Return (tick, note, velocity) of each note of a track."""
    file = mido.MidiFile(file=io.BytesIO(body))
    (track,) = [track for track in file.tracks if track.name == name]
    at, found = 0, []
    for message in track:
        at += message.time
        if message.type == "note_on":
            found.append((at, message.note, message.velocity))
    return found


def test_a_file_is_of_tracks_that_begin_together() -> None:
    # Standard MIDI Files 1.0: MThd, six bytes, format 1, so many tracks.
    body = write_midi(read(Drill()), F(90))
    assert body[:10] == b"MThd" + bytes([0, 0, 0, 6, 0, 1])
    assert int.from_bytes(body[10:12], "big") == len(mido.MidiFile(file=io.BytesIO(body)).tracks)


@settings(max_examples=50)
@given(drills)
def test_every_onset_is_exact_in_ticks(drill: Drill) -> None:
    reading = read(drill)
    # A rolled chord has its tones one after the other.
    assume(not any(event.how.rolled for event in reading.every))
    heard = [reading.heard(note) for note in reading.notes]
    sounds = [midi for tones in heard for midi in tones] + [
        midi for event in reading.other if event.kind == "note" for midi in reading.heard(event)
    ]
    if any(not 0 <= midi <= 127 for midi in sounds):
        with pytest.raises(OutOfRange, match="outside what MIDI can hold"):
            write_midi(reading, F(90))
        return
    name = {"right": "right hand", "left": "left hand"}.get(reading.events[0].layer, "notes")
    ticks = [tick for tick, _, _ in onsets(write_midi(reading, F(90)), name)]
    per_beat = reading.meter.counted * 4 * TICKS_A_QUARTER
    # Each tone of a chord is a note of its own.
    due = [note.onset for note, tones in zip(reading.notes, heard, strict=True) for _ in tones or (None,)]
    assert [F(tick) / per_beat for tick in ticks] == due


def test_tempo_and_meter_stand_at_the_start() -> None:
    body = write_midi(read(Drill(material=OneNote(beats=2), legs=legs(3), meter="6/8")), F(60))
    conductor = mido.MidiFile(file=io.BytesIO(body)).tracks[0]
    found = {message.type: message for message in conductor}
    # ♩. = 60 is ♩ = 90: 666667 microseconds a quarter.
    assert found["set_tempo"].tempo == 666667
    assert (found["time_signature"].numerator, found["time_signature"].denominator) == (6, 8)


def test_accents_are_louder_and_ghosts_softer_than_plain_notes() -> None:
    accents = TypedAccents(("accent", "plain", "ghost"))
    body = write_midi(read(Drill(material=OneNote(beats=4), legs=legs(2), accents=accents)), F(60))
    accent, plain, ghost, again = [velocity for _, _, velocity in onsets(body, "notes")][:4]
    assert (accent, plain) == (again, 80)
    # Loudness goes with the square of velocity: 6 dB is twice the amplitude.
    assert (accent / plain) ** 2 >= 2
    assert (plain / ghost) ** 2 >= 2
    levels = RECIPES.levels
    assert levels.of("accent") >= 2 * levels.of("plain")
    assert levels.of("plain") >= 2 * levels.of("ghost") > 0


def test_a_transposing_instrument_is_written_as_it_sounds() -> None:
    drill = Drill(material=ScaleRun(tonic="C", octaves=1), legs=legs(2), instrument="trumpet")
    reading = read(drill)
    written = [note.pitch.midi for note in reading.notes if note.pitch]
    assert [note for _, note, _ in onsets(write_midi(reading, F(60)), "notes")] == [midi - 2 for midi in written]


@pytest.mark.parametrize(("division", "exact"), [(11, True), (13, True)])
def test_no_division_is_refused(division: int, exact: bool) -> None:
    drill = Drill(material=Line("x" + " x" * 10, rhythm="legs"), legs=legs(f"{division}/1"), accents=NoAccents())
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(drill), F(60))))
    said = [message.text for message in file.tracks[0] if message.type == "text"]
    assert (not said) == exact
    assert file.ticks_per_beat % division == 0


def test_where_no_ticks_are_exact_onsets_are_drawn_to_the_nearest_and_it_is_said() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 3, 5, 7, 11, 13), swing=Swing(F(37, 23)))
    body = write_midi(read(drill), F(60))
    file = mido.MidiFile(file=io.BytesIO(body))
    assert any("nearest of" in message.text for message in file.tracks[0] if message.type == "text")
    due = [event.onset for event in read(drill).notes]
    ticks = [tick for tick, _, _ in onsets(body, "notes")]
    assert max(abs(F(tick, file.ticks_per_beat) - at) for tick, at in zip(ticks, due, strict=True)) <= F(
        1, 2 * file.ticks_per_beat
    )


@pytest.mark.parametrize(
    ("instrument", "written", "heard"),
    [("alto_saxophone", "A", "C"), ("horn", "C", "F"), ("guitar", "Gb", "Gb"), ("clarinet_e_flat", "C", "Eb")],
)
def test_the_key_in_the_file_is_the_one_that_is_heard(instrument: str, written: str, heard: str) -> None:
    drill = Drill(material=ScaleRun(tonic=written, octaves=1), instrument=instrument)
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(drill), F(60))))
    assert [message.key for message in file.tracks[0] if message.type == "key_signature"] == [heard]


def test_the_key_and_the_instrument_are_in_the_file() -> None:
    drill = Drill(material=ScaleRun(tonic="Eb", octaves=1), instrument="trumpet")
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(drill), F(60))))
    assert [message.key for message in file.tracks[0] if message.type == "key_signature"] == ["Db"]
    assert [message.program for message in file.tracks[1] if message.type == "program_change"] == [56]


def test_hands_without_pitch_strike_drums_of_their_own() -> None:
    drill = Drill(material=OneNote(beats=2), legs=legs(2), hands=ByOrder(("R", "L")))
    assert [note for _, note, _ in onsets(write_midi(read(drill), F(60)), "notes")] == [38, 40, 38, 40]


def test_the_click_can_be_left_out() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(2)))
    assert len(onsets(write_midi(reading, F(60)), "click")) == 4
    names = [
        track.name for track in mido.MidiFile(file=io.BytesIO(write_midi(reading, F(60), with_click=False))).tracks
    ]
    assert "click" not in names


def test_a_title_of_any_script_is_kept() -> None:
    body = write_midi(read(Drill(title="Ferry ♭ лодка", material=OneNote(beats=1), legs=legs(1))), F(60))
    assert mido.MidiFile(file=io.BytesIO(body), charset="utf-8").tracks[0].name == "Ferry ♭ лодка"


def test_a_tempo_that_cannot_be_played_is_refused() -> None:
    with pytest.raises(OutOfRange):
        write_midi(read(Drill()), F(0))


def test_a_short_note_that_ends_between_ticks_is_written_all_the_same() -> None:
    drill = Drill(
        material=OneNote(beats=1), legs=legs(8), meter="6/8", articulation=F(3, 4), click=Thinned(by=F(1, 11))
    )
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(drill), F(60))))
    notes = [message for message in file.tracks[1] if message.type.startswith("note")]
    # Eight in a dotted quarter: 1890 ticks each, three quarters of which are 1417½.
    assert [message.time for message in notes[:4]] == [0, 1418, 472, 1418]
