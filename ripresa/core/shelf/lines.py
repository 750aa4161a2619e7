"""Lines and cells: phrases of our own, where they land, and rhythms of one beat."""

from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import Economy
from ripresa.core.drill.material import Cells, Line
from ripresa.core.exact import Fraction
from ripresa.core.shelf.entry import Shelved, shelf_drill

LINES: tuple[Shelved, ...] = (
    shelf_drill(
        "lines",
        "Nine planks",
        "Nine eighths over four-four: each time it enters an eighth later, until it is home.",
        Line("1 2 3 4 5 4 3 2 1", tonic="A", after="home"),
        "2",
    ),
    shelf_drill(
        "lines",
        "Six, then five",
        "A six-note phrase with its last note cut: what follows comes earlier.",
        Line("1 2 3 5 3 /2", tonic="D", after="home"),
        "4",
        bpm=60,
    ),
    shelf_drill(
        "lines",
        "Twice as fast",
        "Eighths that end on 4; doubled they end on the & of 2.",
        Line("1 3 5 6 5 3", tonic="G"),
        "2 4",
    ),
    shelf_drill(
        "lines",
        "Past four piers",
        "One phrase through four chords, from root to root.",
        Line("1 3 5 6 5 3 2 1", through="C | F | G | C"),
        "2",
        bpm=80,
    ),
    shelf_drill(
        "lines",
        "Docking on one",
        "Fifteen sixteenths that start late, and arrive on 1.",
        Line("1 2 3 4 5 6 7 8 7 6 5 4 3 2 1", tonic="E", shift=Fraction(17)),
        "4",
        bpm=63,
    ),
    shelf_drill(
        "lines",
        "Dotted wake",
        "Long, short: its own rhythm in beats.",
        Line("1*3/4 2*1/4 3*3/4 2*1/4 1*1 5*1", tonic="F", rhythm="own"),
        bpm=69,
    ),
    shelf_drill(
        "lines",
        "Across the strings",
        "Three notes a string; the pick goes on the way it has to go.",
        Line("1 2 3 4 5 6 7 8 9 10 11 12 13 14 15", tonic="G"),
        "3",
        hands=Economy(),
        instrument="guitar",
        fingering="usual",
    ),
    shelf_drill(
        "lines",
        "Two cells",
        "Eighths and sixteenths on each beat, in all sixteen ways.",
        Cells("1 &; 1 e & a"),
        accents=NoAccents(),
        bpm=66,
    ),
    shelf_drill(
        "lines",
        "Weaving nets",
        "Three cells: a bar each, half a bar each, then in turn.",
        Cells("1 &; 1 e & a; 1 trip let", mix="weave"),
        bpm=60,
    ),
    shelf_drill(
        "lines",
        "By lot",
        "Eight bars that nobody knows before: read, and do not stop.",
        Cells("1; 1 &; (1) &; 1 e & a", mix="drawn", bars=8, seed=7),
        bpm=66,
    ),
)
