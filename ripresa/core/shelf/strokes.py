"""Strokes: strumming and tonguing."""

from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import ByOrder, ByPlace
from ripresa.core.drill.material import Count, OneNote, ScaleRun, Strum
from ripresa.core.shelf.entry import Shelved, shelf_drill

_SWING = ByPlace()
_DOUBLE = ByOrder(cycle=("T", "K"))
_SLUR_TWO = ByOrder(cycle=("T", "-", "T", "T"), restart="beat")
_TRIPLE = ByOrder(cycle=("T", "T", "K"))

STROKES: tuple[Shelved, ...] = (
    shelf_drill(
        "strumming",
        "Slack water",
        "Quarters down, the arm comes back through the air.",
        Count("1 2 3 4"),
        "1 1 1 1",
        hands=_SWING,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Ripple",
        "Down and up on every half of the beat.",
        Count("1 & 2 & 3 & 4 &"),
        "1 1 1 1",
        hands=_SWING,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Harbour strum",
        "Down, down up, up down up: the third beat in the air.",
        Count("1 2 & (3) & 4 &"),
        "1 1 1 1",
        hands=_SWING,
        bpm=84,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Off the quay",
        "Only the off-beats sound; the arm keeps the beat.",
        Count("(1) & (2) & (3) & (4) &"),
        "1 1 1 1",
        hands=_SWING,
        accents=NoAccents(),
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Wake",
        "Sixteenths with holes: where nothing sounds the stroke goes on.",
        Count("1 e & a 2 & a 3 e & (4) & a"),
        "1 1 1 1",
        hands=_SWING,
        bpm=66,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Four landings",
        "A chord a bar, quarters down: change hands in time before the arm has more to do.",
        Strum("C | Am | F | G", "1 2 3 4"),
        hands=_SWING,
        bpm=66,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Two bells",
        "Two chords in a bar, and the pattern does not wait for them.",
        Strum("G D/F# | Em C", "1 2 & (3) & 4 &"),
        hands=_SWING,
        instrument="guitar",
    ),
    shelf_drill(
        "tonguing",
        "Rope over rope",
        "Slur two, tongue two: the fingers stay even whatever the tongue does.",
        ScaleRun(octaves=1),
        "4",
        hands=_SLUR_TWO,
        bpm=66,
        instrument="clarinet",
    ),
    shelf_drill(
        "tonguing",
        "Gulls",
        "Double tonguing on one note, eighths to sixteenths.",
        OneNote(beats=8),
        "2 4",
        hands=_DOUBLE,
        instrument="flute",
    ),
    shelf_drill(
        "tonguing",
        "Three gulls",
        "Triple tonguing on one note.",
        OneNote(beats=8),
        "3 6",
        hands=_TRIPLE,
        bpm=60,
        instrument="trumpet",
    ),
    shelf_drill(
        "tonguing",
        "Breath of wind",
        "A scale in one breath, a beat to breathe at the turn.",
        ScaleRun(tonic="F", octaves=1),
        "2 4",
        hands=ByOrder(cycle=("T",)),
        seam="breath",
        instrument="clarinet",
    ),
)
