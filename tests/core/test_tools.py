"""Tools on all material: what is no line is written out as one; what differs from before is said in words."""

from dataclasses import replace

import pytest
from hypothesis import HealthCheck, given, settings

from ripresa.core.changes import Overrides, Tool, Where, as_line, changed, differences, others, overridden, variant_set
from ripresa.core.drill import Drill, Enters, Hits
from ripresa.core.drill.accents import EveryNth, NoAccents, TypedAccents
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Arpeggio, Cells, Count, Line, OneNote, ScaleRun, Sequence, Strum
from ripresa.core.drill.second import OneKey, SecondHand
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import plural
from ripresa.core.pitch import CHORDS, INSTRUMENTS, SCALES, STRING_SETS, parse_chord, parse_tonic, shape_on
from ripresa.core.reading import read
from ripresa.core.reports import brief
from ripresa.core.reports.told.rhythm import bar_told
from tests.strategies import drills, legs, two_handed

RUN = Drill(material=ScaleRun(octaves=2), legs=legs(6))


def names(drill: Drill) -> list[str]:
    return [event.pitch.name for event in read(drill).notes if event.pitch]


@pytest.mark.parametrize(
    "material",
    [
        ScaleRun(octaves=1),
        Arpeggio(octaves=1),
        Sequence(),
        OneNote(beats=4),
        Count("1 e & (a) 2 & 3 4"),
        Cells(mix="weave"),
        Line("1 2 3"),
    ],
    ids=lambda one: one.kind,
)
def test_whatever_is_written_out_sounds_as_it_did(material: Line) -> None:
    drill = Drill(material=material, legs=legs(2), accents=NoAccents())
    before, after = read(drill), read(as_line(drill))
    assert [event.onset for event in before.notes] == [event.onset for event in after.notes]
    assert [event.pitch for event in before.notes] == [event.pitch for event in after.notes]


def test_what_is_silent_or_enters_later_is_written_out_too() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(2), hits=Hits("1", (0,)), enters=Enters(hands=2))
    assert as_line(drill).material == as_line(replace(drill, hits=Hits(), enters=Enters())).material
    assert read(as_line(drill)).notes == read(drill).notes


@settings(max_examples=80)
@given(drills)
def test_a_tool_gives_a_drill_that_can_be_read_or_a_sentence(drill: Drill) -> None:
    refused: list[RipresaError] = []
    for tool in ("backwards", "trim", "lengthen", "trim_beats", "grow_beats", "shift", "double", "halve", "write_out"):
        try:
            read(changed(drill, tool, Where(count=1)))
        except RipresaError as error:
            refused.append(error)
    assert all(error.message and error.field for error in refused)


def test_six_becomes_five_with_the_cut_note_in_sight_and_the_division_follows() -> None:
    drill = Drill(material=Line("1 2 3 4 5 6 7 8 9 10 11 12"), legs=legs(6))
    five = changed(drill, "trim_beats", Where())
    assert five.material == Line("1 2 3 4 5 /6 7 8 9 10 11 /12")
    assert five.legs == legs(5)
    assert changed(five, "grow_beats", Where()) == drill
    # A note a beat: of two that were cut one comes back, whatever was cut before.
    four = changed(five, "trim_beats", Where())
    assert four.material == Line("1 2 3 4 /5 /6 7 8 9 10 /11 /12")
    assert (
        changed(four, "grow_beats", Where()),
        changed(changed(four, "grow_beats", Where()), "grow_beats", Where()),
    ) == (
        five,
        drill,
    )
    run = changed(RUN, "trim_beats", Where())
    assert isinstance(run.material, Line)
    assert run.material.text.startswith("C3 D3 E3 F3 G3 /A3 B3")
    assert read(run).notes[5].onset == 1
    with pytest.raises(OutOfRange, match="all legs have one whole division"):
        changed(replace(RUN, legs=legs(2, 3)), "trim_beats", Where())


@pytest.mark.parametrize(
    ("tool", "count", "first"),
    [
        ("backwards", 1, ["C3", "D3", "E3"]),
        ("trim", 1, ["C3", "D3", "E3"]),
        ("shift", 2, ["C3", "D3", "E3"]),
    ],
)
def test_tools_of_lines_work_on_runs(tool: str, count: int, first: list[str]) -> None:
    found = changed(RUN, tool, Where(count=count))  # type: ignore[arg-type]
    assert isinstance(found.material, Line)
    assert names(found)[:3] == first
    if tool == "shift":
        assert read(found).notes[0].onset == F(1, 3)


def test_a_count_is_moved_on_its_own_grid_and_doubled_as_a_line() -> None:
    drill = Drill(material=Count("1 & 2 & 3 4"), legs=legs(1))
    assert changed(drill, "shift", Where(count=3)).material == Count("1 & 2 & 3 4", shift=3)
    slow, fast = read(drill), read(changed(drill, "double", Where()))
    assert [event.onset / 2 for event in slow.notes] == [event.onset for event in fast.notes]
    assert [event.accent for event in slow.notes][:4] == ["accent", "plain", "accent", "plain"]


def test_the_closing_tonic_of_a_run_arrives_on_a_beat_in_each_stage() -> None:
    scale = Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4), closing="shared")
    found = changed(scale, "arrive", Where(bar=3, beat=1))
    assert isinstance(found.material, Line)
    # 14 notes before the closing one: of 16, 24 and 32 slots.
    assert found.material.shifts == (2, 10, 18)
    assert found.closing == "shared"
    reading = read(found)
    lasts = [[note for note in reading.notes if note.leg == leg.index][-1] for leg in reading.legs]
    assert [(last.place_name, last.onset - leg.start) for last, leg in zip(lasts, reading.legs, strict=True)] == [
        ("bar 3, beat 1", 8),
        ("bar 6, beat 1", 8),
        ("bar 9, beat 1", 8),
    ]
    assert [str(last.pitch) for last in lasts] == [str(read(scale).notes[0].pitch)] * 3
    assert "moved 2, 10 and 18 slots over the bar line" in brief(read(found))
    later = changed(found, "shift", Where(count=1)).material
    assert isinstance(later, Line)
    assert later.shifts == (3, 11, 19)


def test_what_arrives_in_no_stage_is_refused_with_the_stage() -> None:
    with pytest.raises(OutOfRange, match="lasts 14 slots, and before bar 2, beat 1 of stage 1 there are 8"):
        changed(Drill(material=ScaleRun(octaves=1), legs=legs(2, 4)), "arrive", Where(bar=2, beat=1))


@pytest.mark.parametrize(
    ("tool", "count", "pattern", "becomes"),
    [
        ("shift", 1, "1 2 & (3) & 4 &", "1 & -2 & 3 (&) 4 &"),
        ("shift", -1, "1 2 & (3) & 4 &", "-1 & 2 (&) 3 & 4 &"),
        ("double", 0, "1 2 & (3) & 4 &", "1 & a (2) e & a 3 & a (4) e & a"),
        ("double", 0, "1 & 2 3 >4 | 1 2 & x3 4", "1 e & 2 >& 3 & a x4 &"),
        ("double", 0, "1 trip let 2 3 trip let 4", "1/6 .2 .3 .4 2/6 .2 .3 .4 3/6 .2 .3 .4 4/6 .2 .3 .4"),
        ("halve", 0, "1 & 2 >& 3 4", "1 2 3 >4 | 1 -2 3 -4"),
        ("halve", 0, "1 trip let 2 & 3 4", "1 let -2 trip 3 4 | 1 -2 3 -4"),
    ],
)
def test_a_pattern_of_strums_is_moved_and_scaled(tool: Tool, count: int, pattern: str, becomes: str) -> None:
    found = changed(Drill(material=Strum(chords="C | Am", pattern=pattern)), tool, Where(count=count)).material
    assert isinstance(found, Strum)
    assert found.pattern == becomes


@pytest.mark.parametrize(
    ("pattern", "meter", "sentence"),
    [
        ("1 trip let 2 &", "4/4", "Beats of twos and threes make no one beat"),
        ("1 & 2 & 3 trip let", "7/8 (2+2+3)", "over unequal beats has no double"),
    ],
)
def test_a_pattern_that_cannot_be_twice_as_fast_is_refused(pattern: str, meter: str, sentence: str) -> None:
    with pytest.raises(OutOfRange, match=sentence):
        changed(Drill(material=Strum(chords="C", pattern=pattern), meter=meter), "double", Where())


def test_eighths_in_unequal_beats_are_moved_on_their_grid() -> None:
    drill = Drill(material=Count("1 & 2 & 3 trip (let)"), meter="7/8 (2+2+3)", legs=legs(1))
    onsets = [[note.onset for note in read(changed(drill, "shift", Where(count=by))).notes] for by in (1, -2)]
    assert onsets == [[F(n, 2) for n in (1, 2, 3, 4, 5, 6)], [F(n, 2) for n in (0, 1, 2, 3, 5, 6)]]
    with pytest.raises(OutOfRange, match="with 2 and 3 a beat has no one grid"):
        read(changed(replace(drill, meter="3/4"), "shift", Where(count=1)))


@pytest.mark.parametrize(("beats", "stages", "bars"), [(8, 2, 4), (4, 3, 3), (12, 1, 3), (16, 1, 4)])
def test_layers_enter_one_by_one_within_a_drill_that_is_long_enough(beats: int, stages: int, bars: int) -> None:
    drill = Drill(material=OneNote(beats=beats), legs=legs(2))
    found = changed(drill, "one_by_one", Where())
    assert (found.enters, len(found.legs)) == (Enters(count=2, hands=3), stages)
    reading = read(found)
    assert (reading.bars, reading.notes[0].bar) == (bars, 3)
    told = differences(read(drill), reading, F(60))
    lengthened = (f"It lasts {bars} bars instead of {beats // 4}.",) if stages > 1 else ()
    assert told[: len(lengthened) + 1] == (*lengthened, "The count in bar 2 and the hands in bar 3, silent until then.")


def test_chords_are_not_one_line() -> None:
    with pytest.raises(OutOfRange, match="notes one after the other"):
        changed(Drill(material=Strum(), legs=legs(1)), "backwards", Where())


@pytest.mark.parametrize(
    ("fit", "expected"),
    [
        ("root", ["C3", "D3", "E3", "D3", "E3", "F#3"]),
        ("as_it_is", ["C3", "D3", "E3", "C3", "D3", "E3"]),
        ("scale", ["C3", "D3", "E3", "D3", "E3", "F3"]),
        ("tone", ["C3", "C3", "E3", "D3", "D3", "F3"]),
    ],
)
def test_a_line_goes_through_chords_in_four_ways(fit: str, expected: list[str]) -> None:
    line = Line("1 2 3", through="C | Dm", fit=fit)  # type: ignore[arg-type]
    assert names(Drill(material=line, legs=legs(1))) == expected


@pytest.mark.parametrize(("division", "beats"), [(2, 6), (3, 6), (4, 6), (5, 6)])
def test_octaves_of_an_arpeggio_that_match_the_division_last_the_same_beats(division: int, beats: int) -> None:
    # Three tones an octave, n octaves at n a beat, there and back: always 2 × 3 beats.
    reading = read(Drill(material=Arpeggio(octaves="match"), legs=legs(division)))
    assert reading.legs[0].pass_beats == beats


def test_a_sequence_starts_higher_and_turns_round_once_or_twice() -> None:
    up = Sequence(figure=(0, 1, 2), start=3, way="up")
    assert names(Drill(material=up, legs=legs(3)))[:6] == ["E3", "F3", "G3", "F3", "G3", "A3"]
    twice, once = (read(Drill(material=Sequence(top=top), legs=legs(2))) for top in ("twice", "once"))
    assert twice.legs[0].pass_notes - once.legs[0].pass_notes == 2
    assert read(Drill(material=Sequence(octaves="match"), legs=legs(3))).legs[0].pass_notes == 2 * 20 * 2


@pytest.mark.parametrize("key", STRING_SETS)
def test_a_chord_on_a_set_of_strings_sounds_there_and_nowhere_else(key: str) -> None:
    first, last, _, _ = STRING_SETS[key]
    guitar = INSTRUMENTS["guitar"]
    for symbol in ("C", "Am", "G7", "Bm7", "Fmaj7", "Ddim"):
        chord = parse_chord(symbol)
        shape = shape_on(chord, guitar, key)
        assert {string for string, _ in shape.sounding} == set(range(first, last + 1))
        heard = {guitar.fretted(string, fret) % 12 for string, fret in shape.sounding}
        assert heard <= {(chord.root.midi + over) % 12 for _, over in chord.tones.up}
        assert shape.stretch <= 4


def test_a_ukulele_has_no_fifth_string() -> None:
    with pytest.raises(OutOfRange, match="has 4 strings") as refused:
        read(Drill(material=Strum(strings="3-5"), legs=legs(1), instrument="ukulele"))
    assert refused.value.field == "material.strings"


def test_a_press_flips_the_cell_of_its_beat() -> None:
    drill = Drill(material=Cells("1; 1 &", mix="by_hand", chosen=(1, 1, 1, 1)), legs=legs(1))
    flipped = changed(drill, "press", Where(event=2))
    assert isinstance(flipped.material, Cells)
    assert flipped.material.chosen == (1, 1, 2, 1)
    # Its beats have two places now: the third one begins with the place of number 4.
    back = changed(flipped, "press", Where(event=4))
    assert back == drill
    every = changed(Drill(material=Cells("1; 1 &"), legs=legs(1)), "press", Where(event=0))
    assert isinstance(every.material, Cells)
    assert (every.material.mix, len(every.material.chosen), every.material.chosen[0]) == ("by_hand", 64, 2)


@pytest.mark.parametrize(
    ("after", "told"),
    [
        (
            replace(RUN, meter="5/8 (3+2)"),
            "A bar lasts",
        ),
        (replace(RUN, accents=EveryNth(size=5)), "Groups of 5."),
        (replace(RUN, register=1), "lie elsewhere; all begin where they did."),
        (
            replace(RUN, accents=TypedAccents(("plain", "accent", *("plain",) * 14), "beat")),
            "Accents on 2nd of six instead of the beat.",
        ),
        (changed(RUN, "halve", Where()), "3.6 notes a second at its fastest instead of 7.2."),
        (changed(RUN, "shift", Where(count=1)), "All of it comes ⅙ beats later."),
        (RUN, "Both sound the same."),
    ],
    ids=["meter", "grouping", "register", "accents", "speed", "moved", "nothing"],
)
def test_what_differs_is_said_in_words(after: Drill, told: str) -> None:
    assert any(told in sentence for sentence in differences(read(RUN), read(after), F(72)))


def test_two_hands_are_compared_with_both_of_their_rows() -> None:
    piano = Drill(material=ScaleRun(octaves=1), legs=legs(2), instrument="piano", second=SecondHand(OneKey("C2")))
    # 15 notes over two bars, over a key held in each of them; then over eight of them.
    fewer = replace(piano, second=SecondHand(OneKey("C2", "repeated"), legs(1)))
    assert differences(read(piano), read(fewer), F(60))[0] == "23 notes instead of 17."
    lower = replace(piano, second=SecondHand(OneKey("C1")))
    assert differences(read(piano), read(lower), F(60)) == ("2 notes lie elsewhere; all begin where they did.",)


@settings(max_examples=60, suppress_health_check=[HealthCheck.filter_too_much])
@given(two_handed, two_handed)
def test_any_two_drills_are_compared_in_sentences(one: Drill, other: Drill) -> None:
    for sentence in differences(read(one), read(other), F(60)):
        assert sentence.endswith(".")


def test_a_meter_by_cells_says_how_long_its_bar_is_now() -> None:
    drill = Drill(material=OneNote(beats=3), legs=legs(4), meter="3/4")
    other = changed(drill, "cells", Where(count=-2, value=16, beat=1))
    assert differences(read(drill), read(other), F(92))[0].startswith(
        "A bar lasts 2½ beats instead of 3: 1.630 s instead of 1.957. The beat stays."
    )


@settings(max_examples=60)
@given(drills)
def test_whatever_a_drill_is_held_against_can_be_read_and_differs(drill: Drill) -> None:
    for one in others(drill):
        assert one.reading.drill != drill
        assert differences(read(drill), one.reading, F(60))


@pytest.mark.parametrize(
    ("turned", "names"),
    [
        (
            "hand_letters_feet",
            ["left foot", "right foot", "beginning with L, left foot", "beginning with L, right foot"],
        ),
        (
            "stations_leads",
            ["the accent on 1", "L first, the accent on 1", "the accent on &", "L first, the accent on &"],
        ),
        ("fourths", ["as it is written", "in F", "in B♭", "in E♭"]),
        ("semitones", ["as it is written", "in D♭", "in D", "in E♭"]),
    ],
)
def test_circuits_go_through_every_one_in_order(turned: str, names: list[str]) -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(2), hands=ByOrder(("R", "L")))
    found = variant_set(drill, turned, F(60))  # type: ignore[arg-type]
    assert [one.name for one in found.variants][:4] == names
    assert len({one.name for one in found.variants}) == len(found.variants)
    assert found.seconds == len(found.variants) * read(drill).loop_beats


def test_a_foot_is_laid_over_the_drill() -> None:
    assert overridden(RUN, Overrides(foot="left")).foot.which == "left"


@pytest.mark.parametrize("text", ["F♯", "B♭", "F#", "Bb"])
def test_sharps_and_flats_are_read_either_way(text: str) -> None:
    assert parse_tonic(text).name[:2] == text.replace("♯", "#").replace("♭", "b")


def test_music_signs_are_read_in_chords_lines_and_steps() -> None:
    assert parse_chord("F♯m7/C♯").root.name == "F#4"
    assert Line("E♭4 ♭3 F♯4").played == Line("Eb4 b3 F#4").played
    assert ScaleRun(scale="own", own="1 ♭3 4 5 ♭7").tones.up == SCALES["minor_pentatonic"].up


def test_every_chord_has_a_scale_that_holds_it() -> None:
    for symbol in ("C", "Cm", "C7", "Cmaj7", "Cm7", "Cm7b5", "Cdim", "C9", "Csus4", "C6", "Cm6"):
        chord = parse_chord(symbol)
        over = {semitones for _, semitones in chord.scale.up}
        assert {semitones for _, semitones in chord.tones.up} <= over, symbol
    assert len(CHORDS) > 10


@pytest.mark.parametrize(
    ("beats", "stages", "meter", "bars", "becomes"),
    [
        # 16 beats of 4/4 | 7/8 are five bars: twice that is ten, and the bars are home.
        (16, 1, "4/4 | 7/8 (2+2+3)", 5, 10),
        (4, 1, "4/4 | 3/4 | 2/4", 1, 3),
        (2, 2, "4/4 | 3/4 | 2/4", 2, 6),
    ],
)
def test_a_pass_runs_until_the_bars_are_home(beats: int, stages: int, meter: str, bars: int, becomes: int) -> None:
    drill = Drill(material=OneNote(beats=beats), legs=legs(2) * stages, meter=meter)
    before, after = read(drill), read(changed(drill, "home", Where()))
    assert (before.bar_count, after.bar_count) == (bars, becomes)
    (told,) = (one.sentences for one in bar_told(before, F(60)))
    turns = meter.count("|") + 1
    over = bars % turns
    assert (
        f"A pass of {plural(bars, 'bar')} ends after {over} of the {turns} that take turns, and the next begins with "
        "the first of them again." in told
    )
    assert not any("take turns" in sentence for one in bar_told(after, F(60)) for sentence in one.sentences)


@pytest.mark.parametrize(
    ("meter", "beats", "message"),
    [
        ("4/4", 4, "No bars take turns"),
        ("4/4 | 3/4", 7, "home already"),
        # A bar of four first; then four beats from the bar of three on, which are two bars, for ever.
        ("4/4 | 3/4", 4, "never ends with the last"),
    ],
)
def test_what_is_home_goes_on_no_longer(meter: str, beats: int, message: str) -> None:
    with pytest.raises(OutOfRange, match=message):
        changed(Drill(material=OneNote(beats=beats), legs=legs(2), meter=meter), "home", Where())
