"""Cells: every combination once, woven bars, and draws that are the same again."""

from collections import Counter
from itertools import groupby

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.changes import Where, changed
from ripresa.core.drill import Drill
from ripresa.core.drill.material import Cells, Count
from ripresa.core.drill.material.cells import IN_A_ROW
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.rhythm import METERS
from tests.strategies import legs

FOUR = METERS["4/4"]


def test_two_cells_over_four_beats_are_16_bars_each_once() -> None:
    order = Cells().order(FOUR)
    assert len(order) == len(set(order)) == 16
    reading = read(Drill(material=Cells(), legs=legs(1)))
    assert reading.bars == 16
    # Each cell stands on half of the 64 beats: two notes or four.
    assert len(reading.notes) == 32 * 2 + 32 * 4


def test_a_weave_goes_from_bars_to_beats() -> None:
    named = ["".join("AB"[cell] for cell in bar) for bar in Cells(mix="weave").order(FOUR)]
    assert named == ["AAAA", "BBBB", "AABB", "BBAA", "ABAB", "BABA"]
    assert ["".join("AB"[cell] for cell in bar) for bar in Cells(mix="weave").order(METERS["3/4"])] == [
        "AAA",
        "BBB",
        "ABA",
        "BAB",
    ]


def test_what_a_cell_does_not_say_is_held() -> None:
    reading = read(Drill(material=Cells("1 a; (1) &", "weave"), legs=legs(1)))
    first = [(event.count, event.kind) for event in reading.events[:4]]
    assert first == [("1", "note"), ("e", "hold"), ("&", "hold"), ("a", "note")]


@given(st.integers(2, 5), st.integers(1, 32), st.integers(0, 9999))
def test_a_draw_is_fair_and_the_same_again(count: int, bars: int, seed: int) -> None:
    cells = Cells("; ".join(["1", "1 &", "1 e & a", "1 trip let", "(1)"][:count]), "drawn", bars, seed)
    order = cells.order(FOUR)
    assert order == cells.order(FOUR)
    flat = [cell for bar in order for cell in bar]
    assert len(flat) == 4 * bars
    assert all(len(list(run)) <= IN_A_ROW for _, run in groupby(flat))
    used = Counter(flat)
    assert max(used.values()) - min(used[cell] for cell in range(count)) <= 2


def test_other_numbers_draw_other_bars() -> None:
    assert len({Cells(mix="drawn", seed=seed).order(FOUR) for seed in range(20)}) > 10


@pytest.mark.parametrize(
    ("text", "mix", "sentence"),
    [
        ("1 &", "all", "Mix 2 to 8 cells, not 1"),
        ("1 &; 2 &", "all", "Cell 2, “2 &”, is not one beat"),
        ("1 &; 1 q", "all", "Cell 2: Word 2 of the count, “q”"),
        ("1; 1 &; 1 e; 1 a", "all", "4 cells over 4 beats are 256 bars, more than 128"),
    ],
)
def test_what_cannot_be_mixed_is_refused(text: str, mix: str, sentence: str) -> None:
    with pytest.raises((OutOfRange, Unreadable), match=sentence) as refused:
        read(Drill(material=Cells(text, mix), legs=legs(1)))  # type: ignore[arg-type]
    assert refused.value.field in {"material.text", "material.mix"}


def test_cells_taken_out_of_a_beat_are_taken_out_of_mixed_ones_too() -> None:
    drill = Drill(material=Cells("1 &; 1 e & a", mix="by_hand", chosen=(1, 2, 1, 2)), legs=legs(1), meter="4/4")
    made = changed(drill, "cells", Where(beat=4, count=-2))
    assert made.material == Count("1 & 2 e & a 3 & 4/2 .2")
    # What is left of beat 4 keeps its speed: two sixteenths in half a beat.
    assert [note.onset for note in read(made).notes] == [F(n, 4) for n in (0, 2, 4, 5, 6, 7, 8, 10, 12, 13)]
    assert read(made).bars == 1
