"""Hits and fills: a layer of its own over the notes, whatever is accented; what is left keeps its time."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ripresa.core.changes import Where, changed
from ripresa.core.drill import Drill, Hits, Reduce, grown
from ripresa.core.drill.accents import Accents, EveryNth, NoAccents, TypedAccents, Walk
from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import Count, OneNote
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.reports import paragraphs, sums
from ripresa.core.rhythm import Swing
from tests.strategies import drills, legs

#: Four bars of sixteenths: 64 notes.
BARS = Drill(material=OneNote(beats=16), legs=legs(4), hits=Hits("1 a | 3 ~&"))


def test_a_hit_is_a_slot_of_its_own_layer_full_or_light() -> None:
    found = [(str(event.onset), event.hit) for event in read(BARS).notes if event.hit]
    assert found == [
        ("0", "full"),
        ("3/4", "full"),
        ("6", "full"),
        ("13/2", "light"),
        ("8", "full"),
        ("35/4", "full"),
        ("14", "full"),
        ("29/2", "light"),
    ]


@pytest.mark.parametrize(
    ("swing", "division", "text", "onsets"),
    [
        (Swing(), 2, "1 (2) & 4", ["0", "3/2", "3"]),
        (Swing(F(2)), 2, "1 (2) & 4", ["0", "5/3", "3"]),
        (Swing(F(3)), 2, "1 (2) & 4", ["0", "7/4", "3"]),
        # The halves of a swung beat are cut evenly; sixteenths that swing by themselves go in pairs.
        (Swing(F(2)), 4, "1 e & a", ["0", "1/3", "2/3", "5/6"]),
        (Swing(F(2), 4), 4, "1 e & a", ["0", "1/3", "1/2", "5/6"]),
        (Swing(F(2), 4), 4, "1 (2) ~&", ["0", "3/2"]),
    ],
)
def test_hits_swing_with_the_notes(swing: Swing, division: int, text: str, onsets: list[str]) -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(division), hits=Hits(text), swing=swing))
    assert [str(event.onset) for event in reading.notes if event.hit] == onsets
    assert [str(at) for at, _ in reading.hits] == onsets
    # Pressed away and pressed back, it is what it was.
    last = next(number for number, event in enumerate(reading.events) if str(event.onset) == onsets[-1])
    turned = reading.drill
    for _ in range(3):
        turned = changed(turned, "hit", Where(event=last))
        assert len(read(turned).hits) >= len(onsets) - 1
    assert [(event.onset, event.hit) for event in read(turned).notes] == [
        (event.onset, event.hit) for event in reading.notes
    ]


def test_hits_alone_keep_their_soft_and_loud() -> None:
    accents = TypedAccents(("accent", "plain", "ghost", "ghost"), "beat")
    reading = read(replace(BARS, accents=accents, reduce=Reduce("hits")))
    assert [event.accent for event in reading.notes] == ["accent", "ghost", "accent", "ghost"] * 2
    between = read(replace(BARS, accents=accents, reduce=Reduce("between")))
    assert len(reading.notes) + len(between.notes) == 64


def test_without_a_layer_the_accented_notes_are_the_hits() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(4), reduce=Reduce("hits"))
    assert [event.onset for event in read(drill).notes] == [0, 1, 2, 3]


@pytest.mark.parametrize(
    ("total", "sections", "parts"),
    [
        pytest.param(30, 4, (5, 6, 8, 11), id="thirty in four bars"),
        pytest.param(30, 1, (30,), id="one section has all"),
        pytest.param(1, 3, (0, 0, 1), id="one note comes last"),
        pytest.param(0, 2, (0, 0), id="none"),
    ],
)
def test_fills_that_grow(total: int, sections: int, parts: tuple[int, ...]) -> None:
    assert grown(total, sections) == parts


@given(st.integers(0, 400), st.integers(1, 64))
def test_growing_fills_lose_no_note_and_never_shrink(total: int, sections: int) -> None:
    found = grown(total, sections)
    assert sum(found) == total
    # Rounding by the largest remainder may set one note apart, never two.
    assert all(after - before >= -1 for before, after in pairwise(found))


def test_each_section_plays_so_many_of_what_lies_between_and_leads_into_the_next() -> None:
    reading = read(replace(BARS, hits=replace(BARS.hits, fills=(5, 6, 8, 11))))
    by_bar = [[event for event in reading.notes if event.bar == bar and not event.hit] for bar in (1, 2, 3, 4)]
    assert [len(bar) for bar in by_bar] == [5, 6, 8, 11]
    assert [str(event.onset) for event in by_bar[0]] == ["11/4", "3", "13/4", "7/2", "15/4"]
    from_start = read(replace(BARS, hits=replace(BARS.hits, fills=(2,), filled="start")))
    assert [str(event.onset) for event in from_start.notes if event.bar == 1] == ["0", "1/4", "1/2", "3/4"]


@given(drills)
def test_fills_leave_every_onset_and_every_hit_where_it_was(drill: Drill) -> None:
    bare = replace(drill, reduce=Reduce(), hits=Hits("1 | 2 &"), enters=type(drill.enters)())
    if drill.second.is_there:
        return
    whole = read(bare)
    # Where no note is a hit, fills of none leave nothing, which is refused.
    assume(any(event.hit for event in whole.notes))
    some = read(replace(bare, hits=Hits("1 | 2 &", (0, 1000 % 400))))
    assert [event.onset for event in whole.events] == [event.onset for event in some.events]
    assert [event.onset for event in whole.notes if event.hit] == [event.onset for event in some.notes if event.hit]


def test_an_arm_that_goes_by_place_swings_on_through_what_is_left_out() -> None:
    drill = replace(BARS, hands=ByPlace(), hits=replace(BARS.hits, fills=(0,)))
    silent = [event for event in read(drill).events if event.kind != "note"]
    assert {event.kind for event in silent} == {"air"}
    assert [event.stroke for event in read(drill).events][:4] == ["D", "U", "D", "U"]


def test_nothing_left_to_play_is_refused() -> None:
    with pytest.raises(OutOfRange, match="fills leave out all") as refused:
        read(Drill(material=OneNote(beats=4), legs=legs(1), accents=NoAccents(), hits=Hits(fills=(0,))))
    assert refused.value.field == "hits.fills"


def test_hits_that_cannot_be_read_say_which_word() -> None:
    with pytest.raises(Unreadable, match="the hits") as refused:
        Hits("1 what")
    assert refused.value.field == "hits.text"
    with pytest.raises(OutOfRange, match="has a beat 5, and the meter has 4") as beyond:
        read(replace(BARS, hits=Hits("5")))
    assert beyond.value.field == "hits.text"


def test_a_press_makes_a_note_a_full_hit_a_light_one_and_none() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2), hits=Hits("1"))
    once = changed(drill, "hit", Where(event=3))
    twice = changed(once, "hit", Where(event=3))
    thrice = changed(twice, "hit", Where(event=3))
    assert [read(one).events[3].hit for one in (once, twice, thrice)] == ["full", "light", None]
    assert read(thrice).hits == read(drill).hits


@pytest.mark.parametrize(
    ("event", "text", "onset"),
    [
        (2, "(1) &", "1/2"),
        (16, "| 1", "4"),
        (63, "| | | (4) a", "63/4"),
        (23, "| (2) a", "23/4"),
    ],
)
@pytest.mark.parametrize("accents", [NoAccents(), EveryNth(5), Walk(bars=1)])
def test_a_press_is_one_hit_and_pressed_back_none(accents: Accents, event: int, text: str, onset: str) -> None:
    bare = replace(BARS, hits=Hits(), accents=accents)
    pressed = changed(bare, "hit", Where(event=event))
    assert (pressed.hits.text, pressed.hits.again) == (text, 0 if event == 63 else 4)
    assert [(str(at), light) for at, light in read(pressed).hits] == [(onset, False)]
    light = changed(pressed, "hit", Where(event=event))
    assert [(str(at), light) for at, light in read(light).hits] == [(onset, True)]
    assert changed(light, "hit", Where(event=event)) == bare


def test_a_second_press_leaves_the_first_where_it_is() -> None:
    drill = replace(BARS, hits=Hits())
    for event in (0, 21, 63):
        drill = changed(drill, "hit", Where(event=event))
    assert drill.hits == Hits("1 | (2) e | | (4) a")
    for event in (63, 63):
        drill = changed(drill, "hit", Where(event=event))
    assert drill.hits == Hits("1 | (2) e", again=4)
    assert [str(at) for at, _ in read(drill).hits] == ["0", "21/4"]
    with pytest.raises(OutOfRange, match="begin again after up to 128 bars, not 129") as refused:
        Hits("1", again=129)
    assert refused.value.field == "hits.again"


def test_a_layer_of_more_bars_than_come_round_is_refused() -> None:
    with pytest.raises(OutOfRange, match="goes over 129 bars, and up to 128") as refused:
        read(replace(BARS, hits=Hits("|".join(["1"] * 129))))
    assert refused.value.field == "hits.text"


def test_what_is_left_is_filled_in_one_press() -> None:
    filled = changed(Drill(material=Count("1 e & a 2 & (3) 4"), legs=legs(1)), "fill", Where())
    assert filled.material == Count("1 e & a 2 e & a 3 e & a 4 e & a")
    # What was there is the layer of hits from then on.
    assert [str(at) for at, _ in read(filled).hits] == ["0", "1/4", "1/2", "3/4", "1", "3/2", "3"]
    grows = changed(BARS, "grow", Where(count=30, bar=4))
    assert grows.hits.fills == (5, 6, 8, 11)
    assert changed(grows, "fill", Where()).hits.fills == ()
    with pytest.raises(OutOfRange, match="Nothing is left to fill"):
        changed(BARS, "fill", Where())


def test_the_band_hits_with_a_sound_of_its_own_full_and_light() -> None:
    made = perform(read(BARS), F(60), back=["hits"])
    assert [(one.at, one.drum) for one in made.backing][:4] == [
        (0.0, "hit"),
        (0.75, "hit"),
        (6.0, "hit"),
        (6.5, "light_hit"),
    ]


def test_hits_and_fills_are_told_with_their_numbers() -> None:
    reading = read(replace(BARS, hits=replace(BARS.hits, fills=(5, 6, 8, 11))))
    told = {one.title: one.sentences for one in paragraphs(reading, sums(reading, F(60)), F(60))}
    assert told["Hits and fills"] == (
        "6 full hits and 2 light hits in 64 notes.",
        "Between them, section by section: 5 of 14, 6 of 14, 8 of 14, 11 of 14; 30 of 56 in all.",
    )
