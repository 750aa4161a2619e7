"""Picked patterns: which finger takes which string, where the thumb goes, and what the fingers are told."""

from dataclasses import replace

import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill
from ripresa.core.drill.material import PICKS, Picked
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Event
from ripresa.core.playing import ROLL, perform
from ripresa.core.reading import read
from ripresa.core.reports import loads, paragraphs, picking, sums
from tests.strategies import drills_of, legs


def drill(chords: str, pattern: str, division: int = 2, **rest: object) -> Drill:
    material = Picked(chords, pattern, **rest)  # type: ignore[arg-type]
    return Drill(material=material, legs=legs(division), instrument="guitar", bpm=F(76))


def tab(events: tuple[Event, ...]) -> list[str]:
    """Return each note as ``p5:0``: finger, string, fret."""
    return [
        " ".join(f"{pluck.finger}{pluck.string}:{pluck.fret}" for pluck in event.how.plucks)
        for event in events
        if event.kind == "note"
    ]


def test_fingers_alone_take_the_strings_of_the_shape() -> None:
    notes = tab(read(drill("Am | C", "p i m a")).events)
    # The bass of A minor is string 5, its fifth string 4; the finger on the root of C goes over to string 6.
    assert notes[:8] == ["p5:0", "i3:2", "m2:1", "a1:0", "p4:2", "i3:2", "m2:1", "a1:0"]
    assert notes[8:16] == ["p5:3", "i3:0", "m2:1", "a1:0", "p6:3", "i3:0", "m2:1", "a1:0"]
    bass = tab(read(drill("Am", "p i m a", bass="root")).events)
    assert bass[::4] == ["p5:0", "p5:0"]


@pytest.mark.parametrize(
    ("chord", "thumb"),
    [
        ("C", "p5:3 p6:3"),
        ("F", "p4:3 p5:3"),
        ("G", "p6:3 p4:0"),
        ("D", "p4:0 p5:0"),
        ("Dm", "p4:0 p5:0"),
        ("A", "p5:0 p4:2"),
        ("E", "p6:0 p5:2"),
        ("B7", "p5:2 p6:2"),
        ("Bb", "p5:1 p4:3"),
        ("F#m", "p6:2 p5:4"),
        ("C/E", "p6:0 p6:0"),
    ],
)
def test_root_and_fifth_in_turn_are_the_root_and_the_fifth_of_each_chord(chord: str, thumb: str) -> None:
    assert " ".join(tab(read(drill(chord, "p i m a")).events)[::4][:2]) == thumb


def test_the_fingers_lie_on_a_string_each_of_a_ukulele() -> None:
    notes = tab(read(replace(drill("C | Am", "p i m a"), instrument="ukulele")).events)
    assert notes[:4] == ["p4:0", "i3:0", "m2:0", "a1:3"]
    assert notes[8:12] == ["p4:2", "i3:0", "m2:0", "a1:0"]


def test_a_string_may_be_written_and_fingers_may_strike_together() -> None:
    notes = tab(read(drill("Am", "p5 i3 m2 a1 m2 i3", again="never")).events)
    assert notes[:6] == ["p5:0", "i3:2", "m2:1", "a1:0", "m2:1", "i3:2"]
    both = read(drill("Am", "p+a i")).events[0]
    assert [pluck.finger for pluck in both.how.plucks] == ["p", "a"]
    assert [tone.name for tone in both.tones] == ["A3", "E5"]


def test_bass_and_strum_a_damped_stroke_and_a_roll() -> None:
    events = read(drill("G", "bass strum x roll", 1)).notes
    assert [event.stroke for event in events] == ["p", "D", "x", "p+i+m+a"]
    assert [len(event.tones) for event in events] == [
        0 if one == "x" else n for one, n in zip("bsxr", (1, 6, 0, 6), strict=True)
    ]
    tones = perform(read(drill("G", "bass strum x roll", 1)), F(60)).tones
    assert [tone.apart for tone in tones] == [0, 0, 0, float(ROLL)]


def test_when_a_pattern_begins_again() -> None:
    def of_bars(again: str) -> list[str]:
        return [event.stroke or "" for event in read(drill("C | C F", "p i m", 2, again=again)).notes]

    assert "".join(of_bars("never")) == "pim" * 5 + "p"
    assert "".join(of_bars("bar")) == "pimpimpi" * 2
    assert "".join(of_bars("chord")) == "pimpimpi" + "pimp" * 2


def test_any_rhythm_tuplets_too() -> None:
    typed = read(drill("Am", "p i m", 1, rhythm="1 trip let 2/5 .3 (3) 4"))
    assert [(str(event.onset), event.stroke) for event in typed.notes] == [
        ("0", "p"),
        ("1/3", "i"),
        ("2/3", "m"),
        ("1", "p"),
        ("7/5", "i"),
        ("3", "m"),
    ]
    assert [event.kind for event in typed.events if event.beat == 3] == ["rest"]


def test_each_finger_has_its_load_and_twice_in_a_row_is_flagged() -> None:
    found = {load.symbol: load for load in loads(read(drill("Am", "p+a i m i")), F(76))}
    assert {symbol: load.strikes for symbol, load in found.items()} == {"p": 2, "a": 2, "i": 4, "m": 2}
    # i comes every second slot: 76 × 2 / 2 a minute.
    assert found["i"].peak_nps == F(76, 60)
    flagged = picking(read(drill("Am", "p i i m")))
    assert flagged
    assert [(one.count, other.count, finger) for one, other, finger in flagged.twice] == [
        ("&", "2", "i"),
        ("&", "4", "i"),
    ]
    assert "i twice in a row, & to 2: that is slow for a finger." in told_of(drill("Am", "p i i m"))


def told_of(one: Drill) -> list[str]:
    reading = read(one)
    return [line for part in paragraphs(reading, sums(reading, one.bpm), one.bpm) for line in part.sentences]


def test_strings_that_are_passed_are_counted() -> None:
    # 5 → 3 → 2 → 1, and back to 5 → …: (2 + 1 + 1) + 4 + (2 + 1 + 1) over eight notes.
    found = picking(read(drill("Am", "p i m a", bass="root")))
    assert found
    assert found.crossed == 4 + 4 + 4


@pytest.mark.parametrize("pattern", PICKS)
def test_every_ready_pattern_can_be_played_on_every_string_instrument(pattern: str) -> None:
    for instrument in ("guitar", "ukulele", "guitar_dadgad", "any"):
        assert read(replace(drill("C | Am | F | G", pattern), instrument=instrument)).notes


@pytest.mark.parametrize(
    ("one", "says", "field"),
    [
        (lambda: drill("Am", "p q"), "Word 2 of the pattern, “q”, is not a finger.", "material.pattern"),
        (lambda: drill("Am", "p+p"), "asks one finger or one string for two notes at once", "material.pattern"),
        (lambda: drill("Am", "p3+i3"), "asks one finger or one string for two notes at once", "material.pattern"),
        (lambda: drill("Am", ""), "A pattern has 1 to 64 words, not 0.", "material.pattern"),
        (lambda: drill("Am", "r -"), "strikes nothing", "material.pattern"),
        (lambda: drill("Am", "p6 i"), "asks for string 6, which does not sound in Am (x02210)", "material.pattern"),
        (lambda: drill("Am", "- p"), "begins with what is held", "material.pattern"),
        (lambda: drill("Am", "p0"), "has no such string", "material.pattern"),
        (lambda: drill("Am", "p", rhythm="1 q"), "Word 2 of the rhythm, “q”", "material.rhythm"),
        (lambda: drill("Q", "p"), "“Q” is not a chord", "material.chords"),
        (lambda: replace(drill("Am", "p"), instrument="flute"), "flute has none", "instrument"),
    ],
)
def test_what_cannot_be_picked_is_refused_at_its_place(one: object, says: str, field: str) -> None:
    with pytest.raises(RipresaError) as refused:
        read(one())  # type: ignore[operator]
    assert says in refused.value.message
    assert refused.value.field == field


@settings(max_examples=60)
@given(drills_of("picked"))
def test_what_is_plucked_is_what_is_heard(one: Drill) -> None:
    reading = read(one)
    strings = (reading.instrument.strings or (52, 57, 62, 67, 71, 76))[::-1]
    for event in reading.notes:
        if one.register or one.folded or event.how.dead:
            continue
        plucked = {strings[pluck.string - 1] + pluck.fret for pluck in event.how.plucks}
        assert {tone.midi for tone in event.tones} == plucked
