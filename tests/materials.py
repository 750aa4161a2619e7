"""Generators of material of every kind: what the drills of ``tests.strategies`` are about."""

from typing import Any

from hypothesis import strategies as st

from ripresa.core.drill.material import (
    AFTERS,
    AGAINS,
    ALL,
    BASSES,
    FITS,
    LEGATOS,
    ORDERS,
    PATHS,
    SAYS,
    SHAPES,
    Arpeggio,
    Cells,
    Count,
    FingerOrder,
    Line,
    LongNotes,
    OneNote,
    Picked,
    ScaleRun,
    Sequence,
    Strum,
)
from ripresa.core.exact import Fraction as F
from ripresa.core.kind import bounds_of
from ripresa.core.pitch import CHORDS, SCALES, TONICS

scale_runs = st.builds(
    ScaleRun,
    tonic=st.sampled_from(TONICS),
    scale=st.sampled_from(list(SCALES)),
    shape=st.sampled_from(list(SHAPES)),
    octaves=st.one_of(st.integers(1, 3), st.sampled_from(["match", "one_repeated"])),
    top=st.sampled_from(["once", "twice"]),
)
#: Runs through all that the instrument has.
ranged_runs = st.builds(
    ScaleRun,
    tonic=st.sampled_from(TONICS),
    scale=st.sampled_from(list(SCALES)),
    shape=st.sampled_from(list(SHAPES)),
    octaves=st.just("range"),
    start=st.integers(1, 3),
)
arpeggios = st.builds(
    Arpeggio,
    tonic=st.sampled_from(TONICS),
    chord=st.sampled_from(list(CHORDS)),
    shape=st.sampled_from(list(SHAPES)),
    octaves=st.one_of(st.integers(1, 3), st.sampled_from(["match", "one_repeated"])),
    start=st.integers(1, 2),
)
sequences = st.builds(
    Sequence,
    tonic=st.sampled_from(TONICS),
    # A figure may be wider than one octave of two tones.
    scale=st.sampled_from([*SCALES, *(name for name in CHORDS if name != "fifth")]),
    figure=st.lists(st.integers(-1, 2), min_size=2, max_size=4).map(tuple),
    way=st.sampled_from(["up", "down", "there_and_back"]),
    start=st.integers(1, 2),
    top=st.sampled_from(["once", "twice"]),
)
counts = st.builds(
    Count,
    text=st.sampled_from(
        [
            "1 & 2 e & a",
            "(1) trip 2/5 .3",
            "1 | 2 &",
            # Silent slots in groups, and at the end of the bar.
            "1 (e) (&) a (2) (e) & (a)",
            "1 (&) (2)",
            "(1) & a | >1 ~& (2)",
        ]
    ),
    under=st.sampled_from(["", "1 trip let"]),
)
strums = st.builds(
    Strum,
    chords=st.sampled_from(["C | Am7", "G D/F# | - | Bb9", "Dsus4"]),
    pattern=st.sampled_from(["1 2", "1 & (2) e & a", "(1) trip | 1 2/5 .3"]),
)
slot_lines = st.builds(
    Line,
    text=st.sampled_from(["1 b3 5' x r", "E4*2 >F#4 ~G4*1 (A4) /B4 C5*3", "x", "1 2 3 4 5 4 3 2 1"]),
    tonic=st.sampled_from(TONICS),
    after=st.sampled_from(list(AFTERS)),
    shift=st.integers(-9, 9).map(F),
    around=st.booleans(),
    through=st.sampled_from(["", "C | Am7", "G D/F# | - | Bb9"]),
    fit=st.sampled_from(list(FITS)),
)
own_lines = st.builds(
    Line,
    text=st.sampled_from(["E4*1/2 F4 r*1/3 x x", "1*3/4 2*1/4 >3*1", "x*2 (1)*1/2 2"]),
    rhythm=st.just("own"),
    after=st.sampled_from(["open", "bar"]),
    shift=st.sampled_from([F(0), F(1), F(-1, 2)]),
    around=st.booleans(),
)
lines = st.one_of(slot_lines, own_lines)
cells = st.builds(
    Cells,
    text=st.sampled_from(["1 &; 1 e & a", "1; (1) trip let", "1 a; 1/5 .3; (1)"]),
    mix=st.sampled_from(["weave", "drawn"]),
    bars=st.integers(1, 4),
    seed=st.integers(0, 99),
)


def numbers(part: type, field: str, most: int = 10**9) -> st.SearchStrategy[int]:
    """Return the numbers that a kind takes, within its bounds, up to a size that is quick to lay out."""
    bounds = bounds_of(part)[field]
    return st.integers(int(bounds.least), min(int(bounds.most), most))


one_notes = st.builds(OneNote, beats=numbers(OneNote, "beats", 9), say=st.sampled_from(list(SAYS)))
picked = st.builds(
    Picked,
    chords=st.sampled_from(["Am | F | C | G", "C=x32010 G/B | Am7", "Bb9 | F#m7b5", "x32010"]),
    pattern=st.sampled_from(["p i m a", "bass strum r x", ">p+a i - m", "roll - p p", "p a1 m1 i1"]),
    bass=st.sampled_from(list(BASSES)),
    again=st.sampled_from(list(AGAINS)),
    rhythm=st.sampled_from(["", "", "1 & (2) & 3", "1 trip let 2 3/5 .2"]),
)
finger_orders = st.builds(
    FingerOrder,
    order=st.sampled_from([*ORDERS[:3], ALL]),
    path=st.sampled_from(list(PATHS)),
    string=numbers(FingerOrder, "string", 4),
    position=numbers(FingerOrder, "position", 7),
    shift=st.integers(-1, 1),
    passes=numbers(FingerOrder, "passes", 3),
    legato=st.sampled_from(list(LEGATOS)),
    slurred=st.sampled_from([(), (2,), (2, 4), (1, 2, 3, 4)]),
)
long_notes = st.builds(
    LongNotes,
    tonic=st.sampled_from(TONICS),
    scale=st.sampled_from(list(SCALES)),
    shape=st.sampled_from(list(SHAPES)),
    beats=numbers(LongNotes, "beats", 6),
    rest=numbers(LongNotes, "rest", 3),
)
MATERIALS: dict[str, st.SearchStrategy[Any]] = {
    "cells": cells,
    "scale runs": st.one_of(scale_runs, scale_runs, ranged_runs),
    "arpeggios": arpeggios,
    "sequences": sequences,
    "counts": counts,
    "strums": strums,
    "lines": lines,
    "one note": one_notes,
    "picked": picked,
    "finger orders": finger_orders,
    "long notes": long_notes,
}
