"""Layers: body, voice, a second count, one part alone, a breath, a way in."""

from fractions import Fraction

from ripresa.core.drill import SCHOOLS, Body, Reduce
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Count, OneNote, ScaleRun
from ripresa.core.rhythm import Counting
from ripresa.core.shelf.entry import Shelved, shelf_drill

LAYERS: tuple[Shelved, ...] = (
    shelf_drill(
        "layers",
        "Foot and hand",
        "The foot keeps 1 and 3 under a rhythm of the hand.",
        Count("1 & (2) & 3 & 4", under="1 3"),
        "1 1",
        body=Body("tap"),
    ),
    shelf_drill(
        "layers",
        "Swaying deck",
        "Sixteenths over a slow sway: large time below, small time above.",
        OneNote(beats=16),
        "4",
        body=Body("sway", Fraction(2)),
        voice="divisions",
    ),
    shelf_drill(
        "layers",
        "Hits alone",
        "Groups of three with only their first notes; the silence between keeps its length.",
        OneNote(beats=12),
        "4",
        accents=EveryNth(size=3),
        reduce=Reduce("hits"),
        hands=ByOrder(cycle=("R", "L")),
    ),
    shelf_drill(
        "layers",
        "Skeleton first",
        "Listen, say, the hits, half by half, then everything.",
        OneNote(beats=8),
        "4",
        accents=EveryNth(size=5),
        way_in=SCHOOLS["skeleton"][2],
        hands=ByOrder(cycle=("D", "U")),
    ),
    shelf_drill(
        "layers",
        "One breath",
        "Two octaves in one breath, or a breath at the turn.",
        ScaleRun(tonic="F"),
        "2",
        bpm=80,
        instrument="flute",
        breath=Fraction(10),
    ),
    shelf_drill(
        "layers",
        "Letters backward",
        "Say the names downward, as fast as the notes come.",
        OneNote(beats=8, say="backward"),
        "1 2 3",
        bpm=60,
    ),
    shelf_drill(
        "layers",
        "Ta ka di mi",
        "Each division in its own syllables.",
        OneNote(beats=4),
        "1 2 3 4",
        counting=Counting("syllables"),
        voice="divisions",
    ),
    shelf_drill(
        "layers",
        "Short and dry",
        "Half of each slot sounds: the release is as even as the stroke.",
        ScaleRun(octaves=1),
        "2 4",
        articulation=Fraction(1, 2),
        instrument="piano",
        fingering="usual",
    ),
    shelf_drill(
        "meters",
        "Two sixteenths short",
        "Three-four without its last two sixteenths: 4, 4 and 2.",
        OneNote(beats=10),
        "4+4+2",
        meter="3/4 -2/16",
    ),
    shelf_drill(
        "evenness",
        "Gusts",
        "Three calm beats and a burst on the fourth.",
        ScaleRun(octaves=1),
        "2+2+2+4",
        instrument="guitar",
        hands=ByOrder(cycle=("D", "U")),
    ),
)
