"""Two hands: they share beats, not notes; where they meet, how close they come, where their thumbs pass."""

from dataclasses import replace
from itertools import pairwise
from math import gcd

import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill, Leg, Reduce
from ripresa.core.drill.click import OfTheSlots
from ripresa.core.drill.material import Arpeggio, Line, Material, OneNote, ScaleRun, Sequence
from ripresa.core.drill.second import ChordsBelow, Contrary, OneKey, OwnLine, Parallel, SecondHand
from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Event
from ripresa.core.playing import at_step, perform
from ripresa.core.reading import Reading, read, unreduced
from ripresa.core.reports import Against, against, paragraphs, sums, thumbs
from tests.strategies import legs, two_handed

TAPS = OneKey("", "repeated")


def polyrhythm(right: int | str, left: int | str, meter: str = "4/4", beats: int = 8, bpm: int = 60) -> Drill:
    second = SecondHand(TAPS, legs(left))
    return Drill(material=OneNote(beats=beats), legs=legs(right), second=second, meter=meter, bpm=F(bpm))


def told(drill: Drill) -> Against:
    return against(read(drill))[0]


@pytest.mark.parametrize(
    ("right", "left", "strokes", "gap_ms"),
    [
        pytest.param(3, 2, ["0", "1/3", "1/2", "2/3"], F(500, 3), id="3 against 2"),
        pytest.param(4, 3, ["0", "1/4", "1/3", "1/2", "2/3", "3/4"], F(250, 3), id="4 against 3"),
        pytest.param(5, 4, ["0", "1/5", "1/4", "2/5", "1/2", "3/5", "3/4", "4/5"], F(50), id="5 against 4"),
    ],
)
def test_the_worked_cycles_at_60(right: int, left: int, strokes: list[str], gap_ms: F) -> None:
    found = told(polyrhythm(right, left))
    assert [str(onset) for onset in found.strokes] == strokes
    assert found.together == (0,)
    assert found.gap_seconds(F(60)) * 1000 == gap_ms
    assert (found.nps(found.right_notes, F(60)), found.nps(found.left_notes, F(60))) == (right, left)
    assert found.nps(len(found.strokes), F(60)) == right + left - 1


@pytest.mark.parametrize("right", range(1, 9))
@pytest.mark.parametrize("left", range(1, 9))
def test_a_cycle_has_n_plus_m_less_gcd_strokes(right: int, left: int) -> None:
    found = told(polyrhythm(right, left))
    assert len(found.strokes) == right + left - gcd(right, left)
    assert len(found.together) == gcd(right, left)
    if found.gap is not None and right % left and left % right:
        assert found.gap == F(gcd(right, left), right * left)


def test_three_in_two_beats_against_four_comes_home_after_two() -> None:
    found = told(polyrhythm(4, "3/2"))
    # 8 against 3 in the time of two beats.
    assert (found.beats, len(found.strokes), found.gap) == (2, 8 + 3 - 1, F(1, 12))


def test_in_an_uneven_bar_they_meet_on_the_bar_line_when_both_begin_anew_there() -> None:
    # Three in two beats over bars of three beats: beats 1, 3, 2 of the bars, and 1 again after two bars.
    assert told(polyrhythm(1, "3/2", meter="7/8 (2+2+3)", beats=12)).bars == 2
    assert told(polyrhythm(3, 2, meter="5/4", beats=10)).bars == 1


def test_the_composite_is_a_count_and_a_phrase_of_ones_own() -> None:
    drill = replace(polyrhythm(3, 2), reduce=Reduce("composite"))
    assert [event.count for event in read(drill).notes[:4]] == ["1", "trip", "&", "let"]
    said = replace(drill, second=replace(drill.second, phrase="pull to-ge-ther"))
    assert [event.count for event in read(said).notes[:5]] == ["pull", "to", "ge", "ther", "pull"]
    spoken = [line for one in paragraphs(read(said), sums(read(said), F(60)), F(60)) for line in one.sentences]
    assert "Said: pull to-ge-ther." in spoken
    short = replace(said, second=replace(drill.second, phrase="too short"))
    spoken = [line for one in paragraphs(read(short), sums(read(short), F(60)), F(60)) for line in one.sentences]
    assert "“too short” has 2 syllables, and a cycle has 4 strokes: write one for each." in spoken


def names(events: tuple[Event, ...]) -> list[str]:
    return [event.pitch.name for event in events if event.kind == "note" and event.pitch]


SCALE = Drill(material=ScaleRun(octaves=1, shape="up"), legs=legs(2), instrument="piano", fingering="usual")


@pytest.mark.parametrize(
    ("plays", "left"),
    [
        (Parallel(), "C3 D3 E3 F3 G3 A3 B3 C4"),
        (Parallel("two_octaves"), "C2 D2 E2 F2 G2 A2 B2 C3"),
        (Parallel("third"), "A3 B3 C4 D4 E4 F4 G4 A4"),
        (Parallel("sixth"), "E3 F3 G3 A3 B3 C4 D4 E4"),
        (Parallel("tenth"), "A2 B2 C3 D3 E3 F3 G3 A3"),
        (Contrary(), "C4 B3 A3 G3 F3 E3 D3 C3"),
        (Contrary("octave"), "C3 B2 A2 G2 F2 E2 D2 C2"),
        (Contrary("third"), "A3 G3 F3 E3 D3 C3 B2 A2"),
    ],
)
def test_what_the_left_hand_plays_beside_a_scale(plays: Parallel | Contrary, left: str) -> None:
    reading = read(replace(SCALE, second=SecondHand(plays)))
    assert names(reading.events) == ["C4", "D4", "E4", "F4", "G4", "A4", "B4", "C5"]
    assert names(reading.other) == left.split()
    assert [event.onset for event in reading.notes] == [one.onset for one in reading.other if one.kind == "note"]


@pytest.mark.parametrize("material", [ScaleRun("A", "minor_pentatonic"), ScaleRun("C", "chromatic"), Arpeggio()])
def test_a_third_under_what_has_no_seven_notes_is_refused_in_both_motions(material: Material) -> None:
    for plays, field in ((Contrary("third"), "start"), (Parallel("third"), "interval")):
        with pytest.raises(OutOfRange, match="counts in a scale of seven notes") as refused:
            read(replace(SCALE, material=material, second=SecondHand(plays)))
        assert refused.value.field == f"second.plays.{field}"
    # On the same note each goes its way through the same tones.
    mirrored = read(replace(SCALE, material=Arpeggio(octaves=1, shape="up"), second=SecondHand(Contrary())))
    assert names(mirrored.other)[:4] == ["C4", "G3", "E3", "C3"]


def test_a_melodic_minor_is_mirrored_the_way_that_each_hand_goes() -> None:
    drill = replace(SCALE, material=ScaleRun(tonic="A", scale="melodic_minor", octaves=1, shape="up"))
    reading = read(replace(drill, second=SecondHand(Contrary())))
    assert names(reading.events) == ["A3", "B3", "C4", "D4", "E4", "F#4", "G#4", "A4"]
    assert names(reading.other) == ["A3", "G3", "F3", "E3", "D3", "C3", "B2", "A2"]


def test_a_held_note_is_struck_on_each_bar_line_and_a_broken_bass_goes_through_its_chords() -> None:
    melody = replace(SCALE, material=Line("E4 G4 C5 G4 F4 A4 D5 B4"), legs=legs(1))
    held = read(replace(melody, second=SecondHand(OneKey("G2"), legs(2)))).other
    assert [(event.onset, event.kind) for event in held if event.kind == "note"] == [(0, "note"), (4, "note")]
    broken = read(replace(melody, second=SecondHand(ChordsBelow("C | G7/B"), legs(1)))).other
    # Low, high, middle, high, each chord in close position over its bass.
    assert names(broken) == ["C3", "G3", "E3", "G3", "B2", "F3", "D3", "F3"]
    # 5 1 3 1 on a triad, 5 2 3 2 of 5 3 2 1 on four tones.
    fingers = [event.touch.finger for event in broken if event.touch]
    assert fingers == [5, 1, 3, 1, 5, 2, 3, 2]
    assert [event.chord.symbol for event in broken if event.chord][::4] == ["C", "G7/B"]


def test_a_line_of_its_own_begins_again_by_itself() -> None:
    drill = replace(SCALE, second=SecondHand(OwnLine("1 5 r", "C"), legs(2)))
    other = read(drill).other
    assert [event.pitch.name if event.pitch else event.kind for event in other[:6]] == [
        *("C3", "G3", "rest"),
        *("C3", "G3", "rest"),
    ]


def test_thumbs_pass_at_other_notes_in_parallel_and_at_the_same_in_contrary_motion() -> None:
    two = replace(SCALE, material=ScaleRun(octaves=2, shape="up"))
    side_by_side, mirrored = (thumbs(read(replace(two, second=SecondHand(one)))) for one in (Parallel(), Contrary()))
    assert side_by_side
    assert mirrored
    # Right: 1 2 3 1 2 3 4 1 …; left from 5: 5 4 3 2 1 3 2 1 4 ….
    assert (side_by_side.right, side_by_side.left) == ((4, 8, 11), (6, 9, 13))
    assert side_by_side.together == ()
    assert mirrored.right == mirrored.left == mirrored.together == (4, 8, 11)
    assert mirrored.mirrored == mirrored.met == 15


def test_five_fingers_step_up_the_scale_with_a_finger_for_each() -> None:
    drill = replace(SCALE, material=Sequence(figure=(0, 1, 2, 3, 4, 3, 2, 1), way="up"), second=SecondHand(Parallel()))
    rows = [[event.touch.finger for event in row if event.touch][:16] for row in read(drill).hands]
    assert rows == [[1, 2, 3, 4, 5, 4, 3, 2] * 2, [5, 4, 3, 2, 1, 2, 3, 4] * 2]


def test_each_hand_has_its_accents_its_length_and_its_loudness() -> None:
    second = SecondHand(Parallel(), articulation=F(1, 2), balance="softer")
    tones = perform(read(replace(SCALE, second=second)), F(60)).tones
    right, left = (
        [tone for tone in tones if (tone.midi or 0) >= 60][:7],
        [one for one in tones if (one.midi or 0) < 60],
    )
    assert {tone.loud for tone in right} == {1.0}
    assert {tone.loud for tone in left} == {0.5}
    assert {tone.seconds for tone in right} == {0.5}
    assert {tone.seconds for tone in left[:7]} == {0.25}


def test_hands_alone_in_turn_and_together_are_steps_of_the_way_in() -> None:
    drill = replace(polyrhythm(3, 2), material=ScaleRun(octaves=1), second=SecondHand(Contrary(), legs(2)))
    right, left, turn, composite, over = (
        read(at_step(drill, step)) for step in ("right", "left", "in_turn", "composite", "over_click")
    )
    whole = read(drill)
    assert right.events == whole.events
    assert left.events == whole.other
    assert [one.other for one in (right, left, composite)] == [(), (), ()]
    assert left.legs[0].divisions == (2,)
    assert {event.bar for event in turn.notes} == {1}
    assert {event.bar for event in turn.other if event.kind == "note"} == {2}
    assert [event.onset for event in composite.notes] == sorted(
        {event.onset for row in whole.hands for event in row if event.kind == "note"}
    )
    # The faster hand plays; what clicks is the other one.
    assert over.events == whole.events
    assert over.drill.click == OfTheSlots(which="other_hand")
    clicks = [onset for onset, _ in over.click_cycle.clicks]
    assert clicks == [event.onset for event in whole.other if event.kind == "note"]


@pytest.mark.parametrize(
    ("part", "field"),
    [
        pytest.param({"instrument": "flute", "second": SecondHand(Parallel())}, "second.plays.kind", id="no keys"),
        pytest.param(
            {"second": SecondHand(Parallel("third")), "material": OneNote()}, "second.plays.interval", id="third"
        ),
        pytest.param({"second": SecondHand(Contrary()), "material": OneNote()}, "second.plays.kind", id="no scale"),
        pytest.param({"second": SecondHand(ChordsBelow("H"))}, "second.plays.chords", id="no chord"),
        pytest.param({"way_in": ("left",)}, "way_in", id="no left hand"),
        pytest.param({"click": OfTheSlots(which="other_hand")}, "click.which", id="no other hand"),
    ],
)
def test_what_two_hands_cannot_do_is_refused_with_the_word_to_blame(part: dict[str, object], field: str) -> None:
    with pytest.raises(RipresaError) as refused:
        read(Drill(**part))  # type: ignore[arg-type]
    assert refused.value.field == field


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: OneKey("H2"), "second.plays.note"),
        (lambda: OwnLine("1 q"), "second.plays.text"),
        (lambda: SecondHand(articulation=F(2)), "second.articulation"),
        (lambda: SecondHand(phrase="x" * 121), "second.phrase"),
        (lambda: SecondHand(legs=(Leg(F(1)),) * 401), "second.legs"),
        (lambda: ChordsBelow("C " * 600), "second.plays.chords"),
    ],
)
def test_a_part_of_the_left_hand_that_cannot_be_is_refused(make: object, field: str) -> None:
    with pytest.raises((OutOfRange, Unreadable)) as refused:
        make()  # type: ignore[operator]
    assert refused.value.field == field


def tiles(events: tuple[Event, ...], beats: F) -> None:
    assert events[0].onset == 0
    assert all(before.onset + before.length == after.onset for before, after in pairwise(events))
    assert events[-1].onset + events[-1].length == beats


@settings(max_examples=80)
@given(two_handed)
def test_both_hands_tile_the_same_time(drill: Drill) -> None:
    reading = read(drill)
    for events in reading.hands:
        tiles(events, reading.beats)
    assert {event.layer for event in reading.events} == {"right"}
    assert {event.layer for event in reading.other} == {"left"}
    assert reading.every == reading.events + reading.other


@settings(max_examples=60)
@given(two_handed)
def test_the_composite_strikes_where_either_hand_does(drill: Drill) -> None:
    whole, one = read(drill), read(replace(drill, reduce=Reduce("composite")))
    tiles(one.events, whole.beats)
    struck = {event.onset for row in whole.hands for event in row if event.kind == "note"}
    assert [event.onset for event in one.notes] == sorted(struck)


@settings(max_examples=60)
@given(two_handed)
def test_a_hand_alone_is_its_row_of_both(drill: Drill) -> None:
    whole = read(drill)
    for symbol, row in zip("RL", whole.hands, strict=True):
        if any(event.kind == "note" for event in row):
            alone = read(replace(drill, reduce=Reduce("hand", symbol)))
            assert alone.events == row
            assert whole.of_hand(symbol).events == row


@settings(max_examples=60)
@given(two_handed)
def test_what_is_told_of_two_hands_is_counted_in_their_events(drill: Drill) -> None:
    reading = read(drill)
    whole = unreduced(reading)
    for found in against(reading):
        begin, end = found.leg.start, found.leg.start + found.beats
        right, left = (onsets(row, begin, end) for row in whole.hands)
        assert set(found.strokes) == right | left
        assert set(found.together) == right & left
        assert (found.right_notes, found.left_notes) == (len(right), len(left))


def onsets(row: tuple[Event, ...], begin: F, end: F) -> set[F]:
    return {event.onset - begin for event in row if event.kind == "note" and begin <= event.onset < end}


def test_a_reading_of_one_hand_is_as_it_was() -> None:
    reading: Reading = read(Drill())
    assert reading.other == ()
    assert {event.layer for event in reading.events} == {"notes"}
    assert reading.of_hand("L") is reading
