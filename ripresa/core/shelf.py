"""The shelf: ready drills of our own, one for each pattern, to be taken as a start."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ripresa.core.accents import Accents, EachBeat, EveryNth, NoAccents, TypedAccents, Walk
from ripresa.core.click import NamedClick
from ripresa.core.drill import Drill, Leg, Seam
from ripresa.core.errors import NotFound
from ripresa.core.hands import ByOrder, ByPlace, Hands, NoHands
from ripresa.core.material import Arpeggio, Count, Material, OneNote, ScaleRun, Sequence, Strum
from ripresa.core.swing import Swing

Aim = Literal["evenness", "changes", "displacement", "accents", "strumming", "tonguing", "sequences", "meters", "pulse"]

AIMS: dict[Aim, str] = {
    "evenness": "even notes",
    "changes": "changing divisions",
    "displacement": "groups across the beat",
    "accents": "accents",
    "strumming": "strumming",
    "tonguing": "tonguing",
    "sequences": "sequences and arpeggios",
    "meters": "other meters",
    "pulse": "keeping the beat alone",
}


@dataclass(frozen=True, slots=True)
class Shelved:
    """A ready drill: its key, what it is for, and the drill."""

    key: str
    aim: Aim
    drill: Drill


def _legs(text: str) -> tuple[Leg, ...]:
    """Return the legs of ``"2 3 6+5"``."""
    found = []
    for word in text.split():
        first, *following = (Fraction(one) for one in word.split("+"))
        found.append(Leg(first, tuple(following)))
    return tuple(found)


def _shelved(
    aim: Aim,
    title: str,
    purpose: str,
    material: Material,
    legs: str = "1",
    *,
    bpm: int = 72,
    meter: str = "4/4",
    hands: Hands | None = None,
    accents: Accents | None = None,
    click: str = "every_beat",
    seam: Seam = "hold",
    instrument: str = "any",
    swing: Swing | None = None,
) -> Shelved:
    drill = Drill(
        title=title,
        purpose=purpose,
        material=material,
        legs=_legs(legs),
        bpm=Fraction(bpm),
        meter=meter,
        seam=seam,
        hands=hands or NoHands(),
        accents=accents or EachBeat(),
        click=NamedClick(plan=click),
        instrument=instrument,
        swing=swing or Swing(),
    )
    return Shelved(title.lower().replace(" ", "-").replace(",", ""), aim, drill)


_PICK = ByOrder(cycle=("D", "U"))
_SWING = ByPlace()
_TWO_HANDS = ByOrder(cycle=("R", "L"))
_PAIRS = ByOrder(cycle=("R", "L", "R", "R", "L", "R", "L", "L"))
_DOUBLE = ByOrder(cycle=("T", "K"))
_SLUR_TWO = ByOrder(cycle=("T", "-", "T", "T"), restart="beat")
_TRIPLE = ByOrder(cycle=("T", "T", "K"))

SHELF: tuple[Shelved, ...] = (
    _shelved("evenness", "Gangway", "One octave, slowly, every note the same.", ScaleRun(octaves=1), "2", bpm=60),
    _shelved(
        "evenness", "Two decks", "Two octaves in eighths, then the same in sixteenths.", ScaleRun(), "2 4", bpm=66
    ),
    _shelved(
        "evenness",
        "Mooring line",
        "One string, sixteenths, pick going down and up without a gap.",
        OneNote(beats=16),
        "4",
        hands=_PICK,
        instrument="guitar",
    ),
    _shelved(
        "evenness", "Slow tide", "Half notes to quarters: hold each to its end.", OneNote(beats=16), "1/2 1", bpm=56
    ),
    _shelved(
        "changes",
        "Stairwell",
        "As many octaves as notes per beat: each leg lasts the same beats.",
        ScaleRun(octaves="match"),
        "2 3 4",
        instrument="piano",
    ),
    _shelved(
        "changes",
        "Up and down the ladder",
        "One to six and back; the beat stays.",
        OneNote(beats=4),
        "1 2 3 4 5 6 5 4 3 2 1",
    ),
    _shelved("changes", "Fives and sixes", "Neighbours take turns bar by bar.", OneNote(beats=4), "5 6 5 6", bpm=60),
    _shelved("changes", "Six plus five", "Neighbours take turns beat by beat.", OneNote(beats=8), "6+5", bpm=56),
    _shelved(
        "changes",
        "Straight and round",
        "Eighths against triplets, no time to think.",
        OneNote(beats=4),
        "2 3 2 3",
        seam="straight_on",
    ),
    _shelved(
        "changes", "Three in two", "Three in the time of two beats, after the beat itself.", OneNote(beats=8), "1 3/2"
    ),
    _shelved("changes", "Mixed cargo", "Two, two, four and eight in one bar.", OneNote(beats=16), "2+2+4+8", bpm=60),
    _shelved(
        "displacement",
        "Fives on the pier",
        "Groups of five over sixteenths: home after five bars.",
        OneNote(beats=20),
        "4",
        accents=EveryNth(size=5),
        hands=_PICK,
    ),
    _shelved(
        "displacement",
        "Threes over fours",
        "Groups of three over sixteenths.",
        OneNote(beats=12),
        "4",
        accents=EveryNth(size=3),
    ),
    _shelved(
        "displacement",
        "Sevens",
        "Groups of seven over sixteenths: home after seven bars.",
        OneNote(beats=28),
        "4",
        accents=EveryNth(size=7),
    ),
    _shelved(
        "displacement",
        "Fours in triplets",
        "Groups of four over triplets, home in one bar.",
        OneNote(beats=8),
        "3",
        accents=EveryNth(size=4),
    ),
    _shelved(
        "displacement",
        "Ferry stairs in fives",
        "A scale whose accent wanders off the beat.",
        ScaleRun(tonic="D", scale="melodic_minor"),
        "2 3 4",
        accents=EveryNth(size=5),
        hands=_PICK,
        instrument="guitar",
    ),
    _shelved(
        "displacement",
        "Late boat",
        "A phrase, then the same an eighth later: move it by slots.",
        Count("1 a -2 & 3 & -4 &", shift=2),
        bpm=66,
        accents=NoAccents(),
    ),
    _shelved(
        "accents",
        "Lighthouse",
        "One accent walks through the sixteenths and comes home.",
        OneNote(beats=32),
        "4",
        accents=Walk(width=1, bars=2),
        hands=_TWO_HANDS,
        bpm=84,
    ),
    _shelved(
        "accents",
        "Two lamps",
        "Two neighbours walk; the last pair straddles the beat.",
        OneNote(beats=32),
        "4",
        accents=Walk(width=2, bars=2),
        hands=_TWO_HANDS,
    ),
    _shelved(
        "accents",
        "Lamp in triplets",
        "One accent walks through triplets; the hand changes beat by beat.",
        OneNote(beats=24),
        "3",
        accents=Walk(width=1, bars=2),
        hands=_TWO_HANDS,
    ),
    _shelved(
        "accents",
        "Fog horn",
        "Accents and ghosts: what is soft is soft.",
        OneNote(beats=16),
        "4",
        accents=TypedAccents(cycle=("accent", "ghost", "ghost", "plain"), restart="beat"),
        hands=_TWO_HANDS,
    ),
    _shelved(
        "accents",
        "Paired hands",
        "Right left right right, left right left left, accent on each lead.",
        OneNote(beats=16),
        "4",
        hands=_PAIRS,
    ),
    _shelved(
        "strumming",
        "Slack water",
        "Quarters down, the arm comes back through the air.",
        Count("1 2 3 4"),
        "1 1 1 1",
        hands=_SWING,
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Ripple",
        "Down and up on every half of the beat.",
        Count("1 & 2 & 3 & 4 &"),
        "1 1 1 1",
        hands=_SWING,
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Harbour strum",
        "Down, down up, up down up: the third beat in the air.",
        Count("1 2 & (3) & 4 &"),
        "1 1 1 1",
        hands=_SWING,
        bpm=84,
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Off the quay",
        "Only the off-beats sound; the arm keeps the beat.",
        Count("(1) & (2) & (3) & (4) &"),
        "1 1 1 1",
        hands=_SWING,
        accents=NoAccents(),
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Wake",
        "Sixteenths with holes: where nothing sounds the stroke goes on.",
        Count("1 e & a 2 & a 3 e & (4) & a"),
        "1 1 1 1",
        hands=_SWING,
        bpm=66,
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Four landings",
        "A chord a bar, quarters down: change hands in time before the arm has more to do.",
        Strum("C | Am | F | G", "1 2 3 4"),
        hands=_SWING,
        bpm=66,
        instrument="guitar",
    ),
    _shelved(
        "strumming",
        "Two bells",
        "Two chords in a bar, and the pattern does not wait for them.",
        Strum("G D/F# | Em C", "1 2 & (3) & 4 &"),
        hands=_SWING,
        instrument="guitar",
    ),
    _shelved(
        "evenness",
        "Rolling swell",
        "Eighths at 2:1: the second note is late, and always as late.",
        ScaleRun(octaves=1),
        "2",
        swing=Swing(Fraction(2)),
    ),
    _shelved(
        "tonguing",
        "Rope over rope",
        "Slur two, tongue two: the fingers stay even whatever the tongue does.",
        ScaleRun(octaves=1),
        "4",
        hands=_SLUR_TWO,
        bpm=66,
        instrument="clarinet",
    ),
    _shelved(
        "tonguing",
        "Gulls",
        "Double tonguing on one note, eighths to sixteenths.",
        OneNote(beats=8),
        "2 4",
        hands=_DOUBLE,
        instrument="flute",
    ),
    _shelved(
        "tonguing",
        "Three gulls",
        "Triple tonguing on one note.",
        OneNote(beats=8),
        "3 6",
        hands=_TRIPLE,
        bpm=60,
        instrument="trumpet",
    ),
    _shelved(
        "tonguing",
        "Breath of wind",
        "A scale in one breath, a beat to breathe at the turn.",
        ScaleRun(tonic="F", octaves=1),
        "2 4",
        hands=ByOrder(cycle=("T",)),
        seam="breath",
        instrument="clarinet",
    ),
    _shelved("sequences", "Net in thirds", "Thirds up and back.", Sequence(tonic="G"), "2 4"),
    _shelved(
        "sequences", "Net in fours", "Groups of four, one degree higher each.", Sequence(figure=(0, 1, 2, 3)), "4 3"
    ),
    _shelved(
        "sequences",
        "Broken rigging",
        "A triad, broken in threes.",
        Sequence(scale="major_triad", octaves=2, figure=(0, 2, 1)),
        "3",
    ),
    _shelved(
        "sequences",
        "Masts",
        "A minor seventh chord over two octaves.",
        Arpeggio(tonic="A", chord="minor_seventh"),
        "2 3 4",
    ),
    _shelved(
        "sequences", "Round the buoy", "A scale from its third, as a circle.", ScaleRun(start=3, octaves=1), "2 4"
    ),
    _shelved(
        "meters",
        "Tender in six",
        "Two beats a bar, three and six notes in each.",
        OneNote(beats=8),
        "3 6",
        meter="6/8",
        bpm=60,
    ),
    _shelved(
        "meters", "Seven planks", "Seven-eight as two, two and three.", OneNote(beats=12), "2+2+3", meter="7/8 (2+2+3)"
    ),
    _shelved(
        "meters",
        "Waltz of the pontoons",
        "Groups of three over sixteenths in three-four.",
        OneNote(beats=12),
        "4",
        meter="3/4",
        accents=EveryNth(size=3),
    ),
    _shelved(
        "pulse",
        "Two and four",
        "The click is on 2 and 4; beat 1 is yours.",
        ScaleRun(octaves=1),
        "2 4",
        click="two_and_four",
    ),
    _shelved("pulse", "Between the clicks", "The click is off the beat.", OneNote(beats=16), "2", click="off_beats"),
    _shelved("pulse", "Far buoy", "One click in four bars.", OneNote(beats=32), "2", click="every_4_bars", bpm=90),
)


def shelved(key: str) -> Shelved:
    """Return a ready drill by its key.

    Raises:
        NotFound: There is none.
    """
    for one in SHELF:
        if one.key == key:
            return one
    raise NotFound("There is no such drill on the shelf.")
