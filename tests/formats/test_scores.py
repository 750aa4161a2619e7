"""Scores in and out: MIDI and MusicXML keep every onset, and what cannot be kept is told."""

import io
import zipfile
from collections import defaultdict
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from math import lcm

import mido
import pytest
from hypothesis import assume, given, settings
from lxml import etree

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import Swing
from ripresa.formats.midi import write_midi
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.notation import write_musicxml
from ripresa.formats.parts import MOST_BARS, Part, Sounded, drill_of
from tests.strategies import drills, legs

NOTE = "<note>{pitch}<duration>{length}</duration>{more}</note>"


def score(*measures: str, time: tuple[int, int] = (4, 4)) -> bytes:
    first = (
        f"<attributes><divisions>12</divisions><time><beats>{time[0]}</beats><beat-type>{time[1]}</beat-type></time>"
    )
    bars = "".join(
        f'<measure number="{number}">{first + "</attributes>" if number == 1 else ""}{one}</measure>'
        for number, one in enumerate(measures, start=1)
    )
    listed = '<part-list><score-part id="P1"><part-name>Tenor</part-name></score-part></part-list>'
    return f'<score-partwise>{listed}<part id="P1">{bars}</part></score-partwise>'.encode()


def note(step: str, length: int, more: str = "", octave: int = 4) -> str:
    pitch = f"<pitch><step>{step}</step><octave>{octave}</octave></pitch>"
    return NOTE.format(pitch=pitch, length=length, more=more)


def _onset(sounded: Sounded) -> F:
    return sounded.onset


def text_of(part: Part, first: int = 1, last: int | None = None) -> str:
    material = drill_of(part, first, last or part.bars, "x").drill.material
    assert isinstance(material, Line)
    return material.text


def round_trip(drill: Drill, write: Callable[..., bytes], back: Callable[[bytes], tuple[Part, ...]]) -> None:
    reading = read(drill)
    # A silent drill is a file without notes, which is refused; a second layer is a part of its own.
    assume(reading.notes and not reading.second)
    parts = back(write(reading, drill.bpm))
    # Notes without pitch are a part of their own in MIDI, and so is the click.
    part = replace(parts[0], notes=tuple(sorted((note for one in parts for note in one.notes), key=_onset)))
    quarter = reading.meter.counted * 4
    wanted = sorted({event.onset for event in reading.every if event.kind == "note"})
    assert list(dict.fromkeys(note.onset / quarter for note in part.notes)) == wanted
    last = min(part.bars, MOST_BARS)
    taken = drill_of(part, 1, last, "x")
    again = read(taken.drill)
    # A signature does not say how unequal beats lie; the beats of another grouping cannot hold every tuplet.
    assume(again.meter == reading.meter)
    # What needs more than 16 places in a beat is moved, and said to be.
    if drill.swing.ratio == 1 and finest_grid(reading) <= 16:
        assert not any("moved" in sentence for sentence in taken.said)
        kept = reading.meter.bar_start(last + 1)
        assert [event.onset for event in again.notes] == [onset for onset in wanted if onset < kept]


def finest_grid(reading: Reading) -> int:
    """Return into how many places a beat has to fall for all of its notes to begin on one."""
    shares: dict[tuple[int, int], list[F]] = defaultdict(list)
    for note in reading.every:
        if note.kind != "note":
            continue
        bar, beat, inside = reading.meter.place(note.onset)
        shares[bar, beat].append(inside / reading.meter.beats_of(bar)[beat - 1])
    return max(lcm(*(share.denominator for share in found)) for found in shares.values())


@given(drills)
@settings(max_examples=20)
def test_midi_keeps_every_onset(drill: Drill) -> None:
    try:
        round_trip(drill, partial(write_midi, with_click=False), read_midi)
    except OutOfRange:
        assume(False)


@given(drills)
@settings(max_examples=20)
def test_musicxml_keeps_every_onset_but_swing(drill: Drill) -> None:
    try:
        round_trip(replace(drill, swing=Swing()), write_musicxml, read_musicxml)
    except OutOfRange:
        assume(False)


def test_musicxml_writes_pitches_accents_and_tuplets() -> None:
    drill = Drill(material=Line(">Bb3 F#4 ~G4"), legs=legs(3), instrument="clarinet")
    root = etree.fromstring(write_musicxml(read(drill), drill.bpm))
    first, second, third = root.findall(".//note")[:3]
    assert [first.findtext(f"pitch/{tag}") for tag in ("step", "alter", "octave")] == ["B", "-1", "3"]
    assert first.find("notations/articulations/accent") is not None
    assert third.xpath("notehead/@parentheses") == ["yes"]
    assert [second.findtext(f"time-modification/{tag}") for tag in ("actual-notes", "normal-notes")] == ["3", "2"]
    ends = [one.get("type") for one in root.findall(".//tuplet")]
    assert ends == ["start", "stop"]
    assert root.findtext(".//transpose/chromatic") == "-2"


def test_ties_rests_chords_and_voices_become_one_line() -> None:
    tie, stop = '<tie type="start"/>', '<tie type="stop"/>'
    chord = note("E", 12).replace("<note>", "<note><chord/>")
    bar = note("C", 12) + chord + "<note><rest/><duration>6</duration></note>" + note("G", 6) + note("A", 24, tie)
    part = read_musicxml(score(bar, note("A", 12, stop) + note("B", 36)))[0]
    assert part.name == "Tenor"
    taken = drill_of(part, 1, 2, "x")
    assert isinstance(taken.drill.material, Line)
    assert taken.drill.material.text == "E4 r*1/2 G4 A4*3 B4"
    assert taken.said == ("1 note under another left out: a line has one voice.",)


def test_a_pickup_gets_silence_before_it() -> None:
    data = score(note("C", 12), note("D", 48)).replace(b'number="1"', b'number="1" implicit="yes"')
    assert text_of(read_musicxml(data)[0]) == "r*3 C4*1 | D4*4"


@pytest.mark.parametrize("mark", ['implicit="yes"', ""])
def test_a_pickup_need_not_say_that_it_is_one(mark: str) -> None:
    data = score(note("C", 12), note("D", 48)).replace(b'number="1"', f'number="0" {mark}'.encode())
    assert text_of(read_musicxml(data)[0]) == "r*3 C4*1 | D4*4"


def test_a_short_first_bar_is_a_pickup_by_itself() -> None:
    assert text_of(read_musicxml(score(note("C", 12), note("D", 48)))[0]) == "r*3 C4*1 | D4*4"


REPEAT = '<barline location="right"><repeat direction="backward"{}/></barline>'
FORWARD = '<barline location="left"><repeat direction="forward"/></barline>'


def ending(number: str, *, closes: bool = False) -> tuple[str, str]:
    """Return the bar lines around an ending."""
    repeat = '<repeat direction="backward"/>' if closes else ""
    return (
        f'<barline location="left"><ending number="{number}" type="start"/></barline>',
        f'<barline location="right"><ending number="{number}" type="stop"/>{repeat}</barline>',
    )


def test_a_repeat_in_the_middle_of_a_bar_leaves_the_others_where_they_are() -> None:
    part = read_musicxml(score(note("C", 48), note("D", 36) + REPEAT.format(""), note("E", 12), note("F", 48)))[0]
    # C, D–E as one bar twice would need the pickup: what is three quarters long is followed by the fourth.
    assert [(one.onset, one.pitch.name) for one in part.notes if one.pitch] == [
        (0, "C4"),
        (4, "D4"),
        (8, "C4"),
        (12, "D4"),
        (15, "E4"),
        (16, "F4"),
    ]
    assert part.told == (
        "Repeats are played out: 4 bars became 6.",
        "Bar 2 is shorter than the meter says: silence fills it.",
    )


def test_repeats_are_played_as_often_as_they_say_and_endings_in_their_turn() -> None:
    one, two = ending("1", closes=True), ending("2")
    bars = (note("C", 48), FORWARD + note("D", 48), one[0] + note("E", 48) + one[1], two[0] + note("F", 48) + two[1])
    assert text_of(read_musicxml(score(*bars))[0]) == "C4*4 | D4 | E4 | D4 | F4"
    thrice = read_musicxml(score(note("C", 48) + REPEAT.format(' times="3"')))[0]
    assert text_of(thrice) == "C4*4 | C4 | C4"
    assert read_musicxml(score(note("C", 48) + REPEAT.format(' times="999999999"')))[0].bars == 2


def test_a_chord_after_a_tied_tone_belongs_to_what_is_struck_with_it() -> None:
    tie, stop = '<tie type="start"/>', '<tie type="stop"/>'
    held = note("C", 24, tie) + note("C", 24, stop)
    above = note("E", 24).replace("<note>", "<note><chord/>")
    part = read_musicxml(score(held + above))[0]
    assert [(one.onset, one.length, one.pitch.name) for one in part.notes if one.pitch] == [(0, 4, "C4"), (2, 2, "E4")]


def test_what_a_drill_cannot_take_is_told() -> None:
    grace = "<note><grace/><pitch><step>B</step><octave>3</octave></pitch></note>"
    cue = note("A", 12).replace("<note>", "<note><cue/>")
    quarter_tone = note("C", 12).replace("<octave>", "<alter>0.5</alter><octave>")
    part = read_musicxml(score(grace + cue + quarter_tone + note("D", 24) + '<sound dacapo="yes"/>'))[0]
    assert [one.pitch.name for one in part.notes if one.pitch] == ["C#4", "D4"]
    assert part.told == (
        "1 grace note left out: they have no time of their own.",
        "1 cue note left out: others play them.",
        "1 note between two keys moved to the nearest semitone.",
        "Jumps (da capo, dal segno, coda) are not played out.",
    )
    assert drill_of(part, 1, 1, "x").said[:4] == part.told


@pytest.mark.parametrize(
    ("words", "jumps"), [("Menuetto da\n capo", True), ("D. S. al Coda", True), ("a cappella", False)]
)
def test_words_that_send_back_are_told(words: str, jumps: bool) -> None:
    direction = f"<direction><direction-type><words>{words}</words></direction-type></direction>"
    part = read_musicxml(score(note("C", 48) + direction, note("D", 48)))[0]
    assert part.told == (("Jumps (da capo, dal segno, coda) are not played out.",) if jumps else ())


def test_a_metronome_mark_without_sound_is_the_tempo() -> None:
    mark = (
        "<direction><direction-type><metronome><beat-unit>quarter</beat-unit><beat-unit-dot/>"
        "<per-minute>60</per-minute></metronome></direction-type></direction>"
    )
    part = read_musicxml(score(mark + note("C", 36), time=(6, 8)))[0]
    assert part.quarters_a_minute == 90
    assert drill_of(part, 1, 1, "x").drill.bpm == 60


@pytest.mark.parametrize("time", [(3, 8), (3, 2), (4, 2), (1, 4)])
def test_meters_that_are_rare_are_read(time: tuple[int, int]) -> None:
    whole = 48 * time[0] // time[1]
    taken = drill_of(read_musicxml(score(note("C", whole), note("D", whole), time=time))[0], 1, 2, "x")
    assert read(taken.drill).bars == 2


def test_a_sum_of_beats_is_a_meter() -> None:
    data = score(note("C", 42)).replace(b"<beats>4</beats><beat-type>4<", b"<beats>2+2+3</beats><beat-type>8<")
    assert read_musicxml(data)[0].meters == ((0, 7, 8),)


def test_one_bar_of_another_length_does_not_stop_the_others() -> None:
    part = read_musicxml(score(note("C", 48), note("D", 60), note("E", 24), note("F", 48), note("G", 48)))[0]
    assert part.told == (
        "Bar 3 is shorter than the meter says: silence fills it.",
        "Bar 2 is longer than the meter says: it became several.",
    )
    assert text_of(part, 4, 5) == "E4*2 r | F4*4"


def test_a_tie_sounds_through_the_silence_that_fills_a_bar() -> None:
    tie, stop = '<tie type="start"/>', '<tie type="stop"/>'
    bars = (note("C", 48), note("D", 12) + note("E", 12, tie), note("E", 24, stop) + note("E", 24), note("F", 48))
    part = read_musicxml(score(*bars))[0]
    assert part.told == ("Bar 2 is shorter than the meter says: silence fills it.",)
    struck = [(one.onset, one.length, one.pitch.name) for one in part.notes if one.pitch]
    assert struck == [(0, 4, "C4"), (4, 1, "D4"), (5, 5, "E4"), (10, 2, "E4"), (12, 4, "F4")]
    # Not where something else stands at the beginning of the bar, nor without the tie.
    loose = read_musicxml(score(bars[0], bars[1].replace(tie, ""), note("E", 48)))[0]
    assert [one.onset for one in loose.notes] == [0, 4, 5, 8]


def test_a_packed_score_is_opened() -> None:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w") as archive:
        archive.writestr("META-INF/container.xml", "<container/>")
        archive.writestr("score.xml", score(note("C", 48)))
    assert text_of(read_musicxml(packed.getvalue())[0]) == "C4*4"


def test_bars_are_chosen_and_a_change_of_meter_is_named() -> None:
    change = "<attributes><time><beats>3</beats><beat-type>4</beat-type></time></attributes>"
    part = read_musicxml(score(note("C", 48), change + note("D", 36), note("E", 36)))[0]
    assert part.bars == 3
    assert drill_of(part, 2, 3, "x").drill.meter == "3/4"
    with pytest.raises(OutOfRange, match="The meter changes at bar 2"):
        drill_of(part, 1, 2, "x")
    with pytest.raises(OutOfRange, match="Choose bars from 1 to 3"):
        drill_of(part, 1, 4, "x")


def test_a_meter_that_is_not_known_is_refused() -> None:
    part = read_musicxml(score(note("C", 12), time=(11, 32)))[0]
    with pytest.raises(OutOfRange, match="in 11/32, and that cannot be laid out"):
        drill_of(part, 1, 1, "x")


def test_played_notes_are_drawn_to_what_can_be_counted_and_it_is_told() -> None:
    played = tuple(Sounded(F(at, 960), F(300, 960), None) for at in (7, 311, 655, 951, 1440 + 11, 1920 + 3))
    taken = drill_of(Part("Taps", played, ((F(0), 4, 4),), F(120)), 1, 1, "x")
    onsets = [event.onset for event in read(taken.drill).notes]
    assert onsets == [0, F(1, 3), F(2, 3), 1, F(3, 2), 2]
    assert taken.said == ("6 notes moved to the nearest place that can be counted.",)


@pytest.mark.parametrize(
    ("read_file", "data", "sentence"),
    [
        (read_midi, b"MThd\0\0", "not a MIDI file"),
        (read_musicxml, b"<score", "not MusicXML"),
        (read_musicxml, b"<html/>", "holds “html”"),
        (read_musicxml, b"PK\3\4broken", "cannot be opened"),
        (read_musicxml, score(""), "has no notes"),
        (read_musicxml, score(note("C", 1)).replace(b"<duration>1<", b"<duration>one<"), "“one” in this score"),
        (read_musicxml, score(note("C", 1)).replace(b"<divisions>12<", b"<divisions>0<"), "no divisions"),
        (
            read_musicxml,
            b'<!DOCTYPE a [<!ENTITY b "c">]><score-partwise>&b;</score-partwise>',
            "not MusicXML",
        ),
    ],
)
def test_what_cannot_be_opened_is_refused(
    read_file: Callable[[bytes], tuple[Part, ...]], data: bytes, sentence: str
) -> None:
    with pytest.raises(Unreadable, match=sentence) as refused:
        read_file(data)
    assert refused.value.field == "file"


def test_midi_parts_are_named_by_track_and_drums_have_no_pitch() -> None:
    file = mido.MidiFile(ticks_per_beat=480)
    for name, channel in (("Melody", 0), ("Drums", 9)):
        track = mido.MidiTrack([mido.MetaMessage("track_name", name=name)])
        track.append(mido.Message("note_on", note=61, velocity=90, channel=channel, time=0))
        track.append(mido.Message("note_off", note=61, channel=channel, time=480))
        file.tracks.append(track)
    target = io.BytesIO()
    file.save(file=target)
    melody, drums = read_midi(target.getvalue())
    assert (melody.name, drums.name) == ("Melody", "Drums (percussion)")
    assert (text_of(melody), text_of(drums)) == ("C#4 r*3", "x r*3")
