"""Runs: even notes, changing divisions, sequences and arpeggios."""

from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Arpeggio, OneNote, ScaleRun, Sequence
from ripresa.core.exact import Fraction
from ripresa.core.rhythm import Swing
from ripresa.core.shelf.entry import Shelved, shelf_drill

_PICK = ByOrder(cycle=("D", "U"))

RUNS: tuple[Shelved, ...] = (
    shelf_drill("evenness", "Gangway", "One octave, slowly, every note the same.", ScaleRun(octaves=1), "2", bpm=60),
    shelf_drill(
        "evenness", "Two decks", "Two octaves in eighths, then the same in sixteenths.", ScaleRun(), "2 4", bpm=66
    ),
    shelf_drill(
        "evenness",
        "Mooring line",
        "One string, sixteenths, pick going down and up without a gap.",
        OneNote(beats=16),
        "4",
        hands=_PICK,
        instrument="guitar",
    ),
    shelf_drill(
        "evenness", "Slow tide", "Half notes to quarters: hold each to its end.", OneNote(beats=16), "1/2 1", bpm=56
    ),
    shelf_drill(
        "changes",
        "Stairwell",
        "As many octaves as notes per beat: each leg lasts the same beats.",
        ScaleRun(octaves="match"),
        "2 3 4",
        instrument="piano",
    ),
    shelf_drill(
        "changes",
        "Up and down the ladder",
        "One to six and back; the beat stays.",
        OneNote(beats=4),
        "1 2 3 4 5 6 5 4 3 2 1",
    ),
    shelf_drill("changes", "Fives and sixes", "Neighbours take turns bar by bar.", OneNote(beats=4), "5 6 5 6", bpm=60),
    shelf_drill("changes", "Six plus five", "Neighbours take turns beat by beat.", OneNote(beats=8), "6+5", bpm=56),
    shelf_drill(
        "changes",
        "Straight and round",
        "Eighths against triplets, no time to think.",
        OneNote(beats=4),
        "2 3 2 3",
        seam="straight_on",
    ),
    shelf_drill(
        "changes", "Three in two", "Three in the time of two beats, after the beat itself.", OneNote(beats=8), "1 3/2"
    ),
    shelf_drill("changes", "Mixed cargo", "Two, two, four and eight in one bar.", OneNote(beats=16), "2+2+4+8", bpm=60),
    shelf_drill(
        "evenness",
        "Rolling swell",
        "Eighths at 2:1: the second note is late, and always as late.",
        ScaleRun(octaves=1),
        "2",
        swing=Swing(Fraction(2)),
    ),
    shelf_drill("sequences", "Net in thirds", "Thirds up and back.", Sequence(tonic="G"), "2 4"),
    shelf_drill(
        "sequences", "Net in fours", "Groups of four, one degree higher each.", Sequence(figure=(0, 1, 2, 3)), "4 3"
    ),
    shelf_drill(
        "sequences",
        "Broken rigging",
        "A triad, broken in threes.",
        Sequence(scale="major_triad", octaves=2, figure=(0, 2, 1)),
        "3",
    ),
    shelf_drill(
        "sequences",
        "Masts",
        "A minor seventh chord over two octaves.",
        Arpeggio(tonic="A", chord="minor_seventh"),
        "2 3 4",
    ),
    shelf_drill(
        "sequences", "Round the buoy", "A scale from its third, as a circle.", ScaleRun(start=3, octaves=1), "2 4"
    ),
)
