"""Time: groups across the beat, accents, other meters, keeping the beat alone."""

from ripresa.core.drill.accents import EveryNth, NoAccents, TypedAccents, Walk
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Count, OneNote, ScaleRun
from ripresa.core.shelf.entry import Shelved, shelf_drill

_PICK = ByOrder(cycle=("D", "U"))
_TWO_HANDS = ByOrder(cycle=("R", "L"))
_PAIRS = ByOrder(cycle=("R", "L", "R", "R", "L", "R", "L", "L"))

TIME: tuple[Shelved, ...] = (
    shelf_drill(
        "displacement",
        "Fives on the pier",
        "Groups of five over sixteenths: home after five bars.",
        OneNote(beats=20),
        "4",
        accents=EveryNth(size=5),
        hands=_PICK,
    ),
    shelf_drill(
        "displacement",
        "Threes over fours",
        "Groups of three over sixteenths.",
        OneNote(beats=12),
        "4",
        accents=EveryNth(size=3),
    ),
    shelf_drill(
        "displacement",
        "Sevens",
        "Groups of seven over sixteenths: home after seven bars.",
        OneNote(beats=28),
        "4",
        accents=EveryNth(size=7),
    ),
    shelf_drill(
        "displacement",
        "Fours in triplets",
        "Groups of four over triplets, home in one bar.",
        OneNote(beats=8),
        "3",
        accents=EveryNth(size=4),
    ),
    shelf_drill(
        "displacement",
        "Ferry stairs in fives",
        "A scale whose accent wanders off the beat.",
        ScaleRun(tonic="D", scale="melodic_minor"),
        "2 3 4",
        accents=EveryNth(size=5),
        hands=_PICK,
        instrument="guitar",
    ),
    shelf_drill(
        "displacement",
        "Late boat",
        "A phrase, then the same an eighth later: move it by slots.",
        Count("1 a -2 & 3 & -4 &", shift=2),
        bpm=66,
        accents=NoAccents(),
    ),
    shelf_drill(
        "accents",
        "Lighthouse",
        "One accent walks through the sixteenths and comes home.",
        OneNote(beats=32),
        "4",
        accents=Walk(width=1, bars=2),
        hands=_TWO_HANDS,
        bpm=84,
    ),
    shelf_drill(
        "accents",
        "Two lamps",
        "Two neighbours walk; the last pair straddles the beat.",
        OneNote(beats=32),
        "4",
        accents=Walk(width=2, bars=2),
        hands=_TWO_HANDS,
    ),
    shelf_drill(
        "accents",
        "Lamp in triplets",
        "One accent walks through triplets; the hand changes beat by beat.",
        OneNote(beats=24),
        "3",
        accents=Walk(width=1, bars=2),
        hands=_TWO_HANDS,
    ),
    shelf_drill(
        "accents",
        "Fog horn",
        "Accents and ghosts: what is soft is soft.",
        OneNote(beats=16),
        "4",
        accents=TypedAccents(cycle=("accent", "ghost", "ghost", "plain"), restart="beat"),
        hands=_TWO_HANDS,
    ),
    shelf_drill(
        "accents",
        "Paired hands",
        "Right left right right, left right left left, accent on each lead.",
        OneNote(beats=16),
        "4",
        hands=_PAIRS,
    ),
    shelf_drill(
        "meters",
        "Tender in six",
        "Two beats a bar, three and six notes in each.",
        OneNote(beats=8),
        "3 6",
        meter="6/8",
        bpm=60,
    ),
    shelf_drill(
        "meters", "Seven planks", "Seven-eight as two, two and three.", OneNote(beats=12), "2+2+3", meter="7/8 (2+2+3)"
    ),
    shelf_drill(
        "meters",
        "Waltz of the pontoons",
        "Groups of three over sixteenths in three-four.",
        OneNote(beats=12),
        "4",
        meter="3/4",
        accents=EveryNth(size=3),
    ),
    shelf_drill(
        "pulse",
        "Two and four",
        "The click is on 2 and 4; beat 1 is yours.",
        ScaleRun(octaves=1),
        "2 4",
        click="two_and_four",
    ),
    shelf_drill("pulse", "Between the clicks", "The click is off the beat.", OneNote(beats=16), "2", click="off_beats"),
    shelf_drill("pulse", "Far buoy", "One click in four bars.", OneNote(beats=32), "2", click="every_4_bars", bpm=90),
)
