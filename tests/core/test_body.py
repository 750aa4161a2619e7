"""Foot, count, hands, movement, each from its bar; hands by place; ornaments, cues; sounds without pitch; guesses."""

from dataclasses import replace

import pytest

from ripresa.core.changes import Part, Where, changed, differences, layers_of, turned
from ripresa.core.drill import Body, Cue, Drill, Enters, FootLayer, Leg, Ornamented, StageCount
from ripresa.core.drill.accents import NoAccents, Walk
from ripresa.core.drill.hands import ByOrder, ByPlace, Letters
from ripresa.core.drill.material import Count, Line, OneNote, Picked, ScaleRun, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import Before, Pulse, Spoken, at_step, cues_at, guess_of, lead_of, perform
from ripresa.core.reading import read
from ripresa.core.reports import brief, paragraphs, sums
from ripresa.core.rhythm import Counting
from tests.strategies import legs

BARS = Drill(material=OneNote(beats=16), legs=legs(2))


@pytest.mark.parametrize(
    ("foot", "marks"),
    [
        (FootLayer("right", F(2)), ["0 R", "2 R", "4 R", "6 R"]),
        (FootLayer("in_turn", F(2)), ["0 R", "2 L", "4 R", "6 L"]),
        (FootLayer("left", pattern="1 | 2 3"), ["0 L", "5 L", "6 L"]),
        (FootLayer("none"), []),
    ],
)
def test_the_foot_taps_at_its_rate_or_by_its_pattern(foot: FootLayer, marks: list[str]) -> None:
    reading = read(replace(BARS, material=OneNote(beats=8), foot=foot))
    assert [f"{at} {word}" for at, word in reading.foot] == marks


def test_the_foot_is_swapped_in_one_press() -> None:
    left = changed(replace(BARS, foot=FootLayer("right")), "foot", Where())
    assert left.foot.which == "left"
    with pytest.raises(OutOfRange, match="No one foot"):
        changed(BARS, "foot", Where())


def test_layers_are_there_from_their_bars_on() -> None:
    drill = replace(BARS, foot=FootLayer("right"), body=Body("sway", F(2)), enters=Enters(1, 2, 3, 4))
    reading = read(drill)
    assert reading.foot[0][0] == 0
    assert {event.bar for event in reading.notes} == {3, 4}
    assert reading.body[0][0] == 12
    assert [event.onset for event in reading.events] == [event.onset for event in read(BARS).events]
    said = perform(reading, F(60), spoken=Spoken("slots")).said
    assert said[0].at == 4.0
    # The count-in leads to the first bar, in which the foot begins, and not to the hands.
    assert lead_of(reading, F(60), Before())[0].until == 4


def test_hands_that_would_enter_after_the_end_are_refused() -> None:
    with pytest.raises(OutOfRange, match="enter in bar 5, and the drill ends with bar 4") as refused:
        read(replace(BARS, enters=Enters(hands=5)))
    assert refused.value.field == "enters.hands"


def test_layers_come_in_one_by_one_on_the_stand() -> None:
    drill = replace(BARS, foot=FootLayer("right"), voice="divisions", enters=Enters(1, 2, 3, 1))
    assert [layers_of(drill, Part(layers=count)) for count in (1, 2, 3)] == [
        ("foot",),
        ("foot", "count"),
        ("foot", "count", "hands"),
    ]
    reading = read(drill)
    foot = perform(reading, F(60), spoken=Spoken("row"), layers=layers_of(drill, Part(layers=1)))
    assert (foot.tones, foot.said) == ((), ())
    assert {one.drum for one in foot.backing} == {"tap"}
    counted = perform(reading, F(60), spoken=Spoken("row"), layers=layers_of(drill, Part(layers=2)))
    assert counted.said
    assert not counted.tones


@pytest.mark.parametrize(
    ("voice", "words"),
    [
        ("divisions", ["1", "&", "2", "&"]),
        ("sung", ["C", "D", "E", "F"]),
        ("groups", ["1", "2", "1", "2"]),
        ("talk", []),
        ("silent", []),
    ],
)
def test_the_voice_row_says_what_the_drill_asks_of_it(voice: str, words: list[str]) -> None:
    material = Line("1 2 3 4") if voice != "groups" else Line("1 2", after="bar")
    drill = Drill(material=material, legs=legs(2), voice=voice)  # type: ignore[arg-type]
    assert [one.word for one in perform(read(drill), F(60), spoken=Spoken("row")).said][:4] == words


def test_a_voice_row_that_no_tongue_can_follow_says_so() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(4), voice="divisions")
    told = perform(read(drill), F(120), spoken=Spoken("row")).told
    assert told == (
        "At 4 a beat and 120 bpm the voice says the beats only: every slot would be 8.0 syllables a second, and a "
        "voice manages about 6.7.",
    )


@pytest.mark.parametrize(
    ("division", "hands", "strokes"),
    [
        (4, Letters(), "R L R L"),
        (2, Letters(), "R R R R"),
        (4, Letters(lead="L"), "L R L R"),
        (3, Letters(odd="restart"), "R L R R"),
        (3, Letters(odd="through"), "R L R L"),
        (4, Letters(pattern=("R", "L", "L")), "R L L R"),
    ],
)
def test_hands_by_place_go_by_the_slot(division: int, hands: Letters, strokes: str) -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(division), hands=hands))
    assert " ".join(event.stroke or "-" for event in reading.events[:4]) == strokes


def test_taking_a_note_away_changes_no_hand_by_place() -> None:
    full, holes = (
        read(Drill(material=Count(text), legs=legs(1), hands=Letters()))
        for text in ("1 e & a 2 e & a", "1 (e) (&) a (2) e & a")
    )
    assert [event.stroke for event in full.events] == [event.stroke for event in holes.events]


def test_fingers_are_mirrored_with_the_thumb_or_without_and_its_new_place_is_marked() -> None:
    drill = replace(BARS, hands=ByOrder(("p", "i", "m", "a")))
    assert changed(drill, "mirror", Where()).hands == ByOrder(("p", "a", "m", "i"))
    swapped = changed(drill, "mirror_thumb", Where())
    assert swapped.hands == ByOrder(("a", "m", "i", "p′"))
    assert changed(swapped, "mirror_thumb", Where()) == drill
    told = [one for one in paragraphs(read(swapped), sums(read(swapped), F(60)), F(60)) if one.title == "Hands"]
    assert "Mirrored: the thumb, marked p′, plays where the ring finger did: &." in told[0].sentences


def test_a_picked_pattern_is_mirrored_on_its_strings() -> None:
    drill = Drill(material=Picked("Am", "p5 i m >a p+m strum x"), legs=legs(2), instrument="guitar")
    fingers, thumb = changed(drill, "mirror", Where()), changed(drill, "mirror_thumb", Where())
    assert fingers.material == Picked("Am", "p5 a m >i p+m strum x")
    assert thumb.material == Picked("Am", "a5 m i >p a+i strum x")
    assert changed(thumb, "mirror_thumb", Where()) == drill
    assert any("stroke turns round" in sentence for sentence in differences(read(drill), read(thumb), F(60)))


def test_an_ornament_by_hand_takes_no_stroke_and_says_what_it_spares() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(4), hands=ByOrder(("D",)), instrument="guitar")
    marked = replace(drill, ornaments=tuple(Ornamented(1, beat, 1) for beat in (1, 2, 3)))
    reading = read(marked)
    assert [event.stroke for event in reading.notes][:4] == ["D", None, "D", "D"]
    assert reading.notes[1].slurred
    told = next(one for one in paragraphs(reading, sums(reading, F(60)), F(60)) if one.title == "Hands")
    assert any(
        sentence.startswith("3 notes not struck (3 hammered on): the busiest motion stays at 4 a second")
        for sentence in told.sentences
    )
    every_other = replace(drill, ornaments=tuple(Ornamented(1, beat, slot) for beat in (1, 2, 3, 4) for slot in (1, 3)))
    again = read(every_other)
    told = next(one for one in paragraphs(again, sums(again, F(60)), F(60)) if one.title == "Hands")
    assert any("goes from 4 to 2 a second" in sentence for sentence in told.sentences)


def test_an_ornament_is_pressed_on_a_note_that_follows_one() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(2))
    seen = []
    for _ in range(4):
        drill = changed(drill, "ornament", Where(event=1))
        seen.append(read(drill).events[1].how.ornament)
    assert seen == ["hammer", "pull", "slide", None]
    with pytest.raises(OutOfRange, match="comes from the note before it"):
        changed(drill, "ornament", Where(event=0))


def test_cues_hold_for_a_leg_a_station_or_a_step() -> None:
    walk = Drill(
        material=OneNote(beats=32),
        legs=legs(4),
        accents=Walk(bars=2),
        cues=(
            Cue("all along"),
            Cue("low wrist", "station", 2),
            Cue("slow", "step", step="say"),
            Cue("first", "leg", 1),
        ),
    )
    reading = read(walk)
    assert cues_at(reading, F(0)) == ("all along", "first")
    assert cues_at(reading, F(8), "say") == ("all along", "low wrist", "slow", "first")
    bars = perform(reading, F(60)).bars
    assert [bar.cue for bar in bars][1:3] == ["all along; first", "all along; low wrist; first"]
    with pytest.raises(OutOfRange, match="1 to 80 signs"):
        Cue(" ")


@pytest.mark.parametrize(
    ("instrument", "hands", "sounds"),
    [
        ("practice_pad", ByOrder(("R", "L")), ["pad_low", "pad_high", "pad_low", "pad_high"]),
        ("hand_drum", Letters(), ["drum_low", "drum_slap", "drum_open", "drum_slap"]),
        ("clapping", Letters(), ["clap"] * 4),
    ],
)
def test_an_instrument_without_pitch_sounds_by_hand_and_by_place(
    instrument: str, hands: Letters, sounds: list[str]
) -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(4), instrument=instrument, hands=hands)
    made = perform(read(drill), F(60))
    assert [tone.drum for tone in made.tones][:4] == sounds
    assert {event.pitch for event in read(drill).notes} == {None}


@pytest.mark.parametrize(
    ("counting", "words"),
    [
        (Counting(runs="eight"), "1 2 3 4 5 6 7 8 1 2 3 4"),
        (Counting(runs="phrase"), "1 2 3 4 5 6 7 8 9 10 11 12"),
        (Counting(), "1 2 3 4 1 2 3 4 1 2 3 4"),
    ],
)
def test_the_count_goes_on_over_the_bars(counting: Counting, words: str) -> None:
    reading = read(Drill(material=OneNote(beats=12), legs=legs(1), counting=counting))
    assert " ".join(event.count for event in reading.events) == words


def test_the_phrase_is_counted_anew_with_each_leg() -> None:
    reading = read(Drill(material=OneNote(beats=8), legs=legs(1, 1), counting=Counting(runs="phrase")))
    assert [event.count for event in reading.events][7:10] == ["8", "1", "2"]


def test_the_ands_alone_are_said() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(2, 4), counting=Counting("ands")))
    assert [event.count for event in reading.events][:2] == ["", "&"]
    said = perform(reading, F(60), spoken=Spoken("slots")).said
    assert {one.word for one in said} == {"&"}
    assert len(said) == 8


def test_a_step_of_the_way_in_has_a_count_of_its_own() -> None:
    drill = replace(BARS, way_in=("say", "whole"), stage_counts=(StageCount("say", Counting("syllables")),))
    assert read(at_step(drill, "say")).events[0].count == "ta"
    assert read(at_step(drill, "whole")).events[0].count == "1"


def test_a_pulse_that_is_switched_goes_on_and_changes_every_so_many_bars() -> None:
    pulse = Pulse(switched=1)
    assert pulse.order(F(80)) == (F(2), F(1, 2), F(4))
    onsets = [at for at, _ in pulse.beats(F(80), read(BARS).meter)]
    assert onsets[:8] == [F(n, 2) for n in range(8)]
    assert onsets[8:11] == [4, 6, 8]
    assert onsets[11] - onsets[10] == F(1, 4)
    assert Pulse().told(F(80))[0] == "Near a middle rate: 2 for each beat, 160 a minute."


def test_what_was_down_and_is_up_after_twice_as_fast_is_known() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2), hands=ByPlace())
    twice = changed(drill, "double", Where())
    assert [read(twice).events[number].count for number in turned(read(drill), read(twice))] == ["&"] * 4
    assert "The stroke turns round on &: down instead of up." in differences(read(drill), read(twice), F(60))


@pytest.mark.parametrize(
    ("seconds", "right", "told"),
    [
        (F(0), True, "On beat 1: to the moment."),
        (F(41, 10), True, "On beat 1: 100 ms after it."),
        (F(5, 2), False, "That was bar 1, beat 3, &: 1.5 beats before the nearest beat 1, 1500 ms."),
        (F(11, 2), False, "That was bar 2, beat 2, &: 1.5 beats after the nearest beat 1, 1500 ms."),
    ],
)
def test_a_guess_is_held_against_the_nearest_beat_one(seconds: F, right: bool, told: str) -> None:
    found = guess_of(read(BARS), F(60), seconds)
    assert (found.is_right, found.told) == (right, told)


def test_low_for_soft_and_high_for_loud_moves_no_onset() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(2), instrument="piano")
    plain, moved = read(drill), read(replace(drill, voicing="low_soft"))
    assert [event.onset for event in plain.events] == [event.onset for event in moved.events]
    steps = [
        after.pitch.midi - before.pitch.midi
        for before, after in zip(plain.notes, moved.notes, strict=True)
        if before.pitch and after.pitch
    ]
    assert steps[:4] == [12, -12, 12, -12]


def test_a_strum_is_revoiced_by_strings() -> None:
    drill = Drill(
        material=Strum(chords="E", pattern=">1 2"),
        legs=(Leg(F(1)),),
        accents=NoAccents(),
        instrument="guitar",
        voicing="low_soft",
    )
    loud, soft = read(drill).notes[:2]
    assert [pluck.string for pluck in loud.how.plucks] == [3, 2, 1]
    assert [pluck.string for pluck in soft.how.plucks] == [6, 5, 4]


def test_many_wishes_still_read_as_sentences() -> None:
    drill = replace(
        BARS,
        hands=Letters(),
        foot=FootLayer("left", pattern="1 3"),
        voice="talk",
        prompt="the weather",
        enters=Enters(count=2),
    )
    assert brief(read(drill)) == (
        "Play one note for 16 beats, in 4/4, in eighths. Hands by place: R on numbers and &, L between. "
        "The left foot on 1 3, talking of something else: the weather, the count from bar 2. Click every beat at "
        "♩ = 72."
    )
