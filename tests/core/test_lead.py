"""What comes before the first note: listening, saying the divisions, counting in."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.changes import arriving
from ripresa.core.drill import Drill
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.material import Line, OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import Before, Score, Window, bars_window, lead_of, perform, score, seams
from ripresa.core.playing.score import Lead
from ripresa.core.reading import read
from tests.strategies import bpms, drills, legs

SIXTEENTHS = Drill(material=OneNote(beats=4), legs=legs(4))


def lead(drill: Drill = SIXTEENTHS, bpm: F = F(60), **asked: object) -> Lead:
    return lead_of(read(drill), bpm, Before(**asked))[0]  # type: ignore[arg-type]


def test_the_count_in_stands_on_the_true_beats_under_a_thinned_click() -> None:
    found = lead(replace(SIXTEENTHS, click=NamedClick(plan="every_4_bars")), listen_bars=1)
    assert [(tick.at, tick.level) for tick in found.ticks] == [
        (0.0, "strong"),
        (4.0, "count"),
        (5.0, "count"),
        (6.0, "count"),
        (7.0, "count"),
    ]
    assert [word for _, word in found.words] == ["one", "two", "three", "four"]
    assert (found.listen, found.beats, found.until) == (4.0, 8.0, 8.0)


@pytest.mark.parametrize(
    ("bars", "beats", "words"),
    [
        pytest.param(0, 2, "three four", id="two beats lead to the 1"),
        pytest.param(1, 1, "four one two three four", id="a beat more than a bar"),
        pytest.param(0, 8, "one two three four one two three four", id="eight beats are two bars"),
        pytest.param(0, 0, "", id="none"),
    ],
)
def test_a_count_in_has_any_length(bars: int, beats: int, words: str) -> None:
    found = lead(count_bars=bars, count_beats=beats)
    assert " ".join(word for _, word in found.words) == words
    assert found.beats == 4 * bars + beats


def test_a_count_of_two_beats_after_listening_leaves_the_bars_whole() -> None:
    found = lead(listen_bars=1, count_bars=0, count_beats=2)
    assert list(found.words) == [(6.0, "three"), (7.0, "four")]
    assert found.beats == 8


@pytest.mark.parametrize(
    ("words", "expected"),
    [
        ("", "one two three four"),
        ("ready go", "one two ready go"),
        ("a b c d e f", "c d e f"),
    ],
)
def test_the_count_in_ends_with_words_of_readiness(words: str, expected: str) -> None:
    found = lead(count_words=words)
    assert " ".join(word for _, word in found.words) == expected
    assert [at for at, _ in found.words] == [0, 1, 2, 3]


def test_without_a_count_in_there_are_no_words_to_change() -> None:
    assert lead(count_bars=0, count_words="ready go").words == ()
    with pytest.raises(OutOfRange, match="count-in"):
        Before(count_words="x" * 201)


#: 35 sixteenths that arrive on bar 4 beat 1: they begin on beat 4 “e” of bar 1.
PICKUP = arriving(Drill(material=Line(text=" ".join(["x"] * 35)), legs=legs(4)), bar=4, beat=1)


def test_the_count_goes_on_to_a_pickup() -> None:
    found = lead(PICKUP, count_words="ready go")
    assert " ".join(word for _, word in found.words) == "one two three four one two ready go"
    assert (found.beats, found.until) == (4.0, 7.25)
    assert [at for at, _ in found.words] == list(range(8))


def test_under_a_thinned_click_the_beats_before_a_pickup_are_counted_and_none_twice() -> None:
    found = lead(replace(PICKUP, click=NamedClick(plan="two_and_four")))
    assert [tick.at for tick in found.ticks] == [0, 1, 2, 3, 4, 6]


def part(drill: Drill, window: Window) -> Score:
    return score(read(drill), F(60), window=window)


def test_a_part_that_begins_later_has_no_pickup() -> None:
    found = part(PICKUP, bars_window(read(PICKUP), 2, 3)).lead
    assert (found.until, len(found.words)) == (4, 4)


@pytest.mark.parametrize(
    ("meter", "words", "onsets"),
    [
        # The seam begins on the last beat of a bar: what is counted before it ends with the beat before that.
        ("4/4", "four one two three", [0, 1, 2, 3]),
        ("7/8 (2+2+3)", "three one two", [0, F(3, 2), F(5, 2)]),
    ],
)
def test_a_seam_is_counted_in_up_to_the_beat_before_it(meter: str, words: str, onsets: list[F]) -> None:
    drill = Drill(material=OneNote(beats=4 if meter == "4/4" else 3), legs=legs(2, 3), meter=meter)
    found = part(drill, seams(read(drill))[0])
    assert " ".join(word for _, word in found.lead.words) == words
    assert [at for at, _ in found.lead.words] == onsets
    assert [tick.at for tick in found.lead.ticks] == onsets
    assert (found.lead.beats, found.lead.until) == (read(drill).meter.cycle_beats, found.lead.beats)


def test_the_bar_lines_up_to_the_counting_are_told() -> None:
    drill = Drill(material=OneNote(beats=8), legs=legs(2, 3), meter="4/4 | 3/4")
    # Two bars to listen, then each division said for a bar, then the bar that is counted.
    found = score(read(drill), F(60), before=Before(listen_bars=2, say_bars=1)).lead
    assert (found.lines, found.beats) == ((0, 4, 7, 11, 15), 19)
    assert score(read(drill), F(60), before=Before(count_bars=2)).lead.lines == (0,)
    timed = perform(read(drill), F(120), before=Before(listen_bars=2, count_bars=0)).lead
    assert (timed.lines, timed.seconds) == ((0, 2, 3.5), 3.5)


def test_after_listening_the_seam_keeps_its_place_in_the_bar() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 3))
    found = score(read(drill), F(60), before=Before(listen_bars=1), window=seams(read(drill))[0]).lead
    # A bar of listening, three beats to where the seam stands in its bar, and it is counted through all of them.
    assert (found.listen, found.beats) == (4, 11)
    assert [word for _, word in found.words] == ["four", "one", "two", "three"]


def test_each_division_is_said_in_order_before_it_is_played() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 3, 2))
    found = lead(drill, say_bars=1)
    assert [(one.at, one.beats, one.division) for one in found.rehearsals] == [(0.0, 4.0, "2"), (4.0, 4.0, "3")]
    assert (
        " ".join(word for _, word in found.words[:20]) == "1 & 2 & 3 & 4 & 1 trip let 2 trip let 3 trip let 4 trip let"
    )
    assert found.beats == 12
    assert [tick.at for tick in found.ticks] == list(range(12))


def test_what_is_said_aloud_is_the_words_where_a_voice_can_follow_and_else_the_beats() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 6))
    found, told = lead_of(read(drill), F(100), Before(say_bars=1, count_words="ready go", aloud=True))
    assert " ".join(word.word for word in found.said) == "1 & 2 & 3 & 4 & 1 2 3 4 1 2 ready go"
    assert told == (
        "At 6 a beat and 100 bpm the voice says the beats only: the whole division would be 10.0 syllables a second, "
        "and a voice manages about 6.7.",
    )
    assert lead(drill, say_bars=1).said == ()


@pytest.mark.parametrize(
    ("field", "count", "most"),
    [("listen_bars", 9, 8), ("count_bars", -1, 8), ("say_bars", 5, 4), ("count_beats", 33, 32)],
)
def test_what_comes_before_has_limits(field: str, count: int, most: int) -> None:
    with pytest.raises(OutOfRange, match=f"Take 0 to {most} ") as refused:
        Before(**{field: count})  # type: ignore[arg-type]
    assert refused.value.field == f"before.{field}"


@settings(max_examples=60)
@given(drills, bpms, st.integers(0, 2), st.integers(0, 2), st.integers(0, 9))
def test_the_count_is_on_beats_and_leads_to_the_bar_line(
    drill: Drill, bpm: F, listen: int, say: int, beats: int
) -> None:
    reading = read(drill)
    before = Before(listen_bars=listen, say_bars=say, count_bars=0, count_beats=beats, aloud=True)
    found, _ = lead_of(reading, bpm, before)
    assert all(0 <= tick.at < found.until for tick in found.ticks)
    assert all(word.beats > 0 for word in found.said)
    assert found.beats <= found.until
    # Where bars differ, what is heard before ends on a bar line of its own.
    if (listen or say) and reading.meter.is_plain:
        assert not reading.meter.to_bar_line(found.beats)


def test_a_count_in_that_is_too_fast_to_be_spoken_is_told_and_leaves_the_rest_spoken() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(1))
    found, told = lead_of(read(drill), F(240), Before(say_bars=1, count_words="ready go", aloud=True))
    assert " ".join(word.word for word in found.said) == "1 2 3 4"
    assert " ".join(word for _, word in found.words) == "1 2 3 4 one two ready go"
    assert told == (
        "At 240 bpm the count-in is not spoken: it would be 8.0 syllables a second, and a voice manages about 6.7.",
    )
