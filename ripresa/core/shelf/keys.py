"""Keys: two hands in parallel, against each other, over held notes and broken chords."""

from ripresa.core.drill import SCHOOLS, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.material import Arpeggio, Line, OneNote, ScaleRun, Sequence
from ripresa.core.drill.second import ChordsBelow, Contrary, OneKey, OwnLine, Parallel, SecondHand
from ripresa.core.exact import Fraction
from ripresa.core.shelf.entry import Shelved, shelf_drill

_BY_HANDS = SCHOOLS["hands"][2]
_COMPOSITE = SCHOOLS["composite"][2]


def _divided(*divisions: int) -> tuple[Leg, ...]:
    return tuple(Leg(Fraction(one)) for one in divisions)


KEYS: tuple[Shelved, ...] = (
    shelf_drill(
        "two_hands",
        "Two gulls, one pier",
        "Three against two, each hand its own way along a minor scale.",
        ScaleRun(tonic="A", scale="harmonic_minor", octaves=1),
        "3",
        bpm=60,
        instrument="piano",
        fingering="usual",
        second=SecondHand(Contrary(), _divided(2), balance="softer", phrase="ne-ver hur-ry"),
        way_in=_COMPOSITE,
    ),
    shelf_drill(
        "two_hands",
        "Side by side",
        "Both hands the same, an octave apart: the thumbs pass at different moments.",
        ScaleRun(tonic="D", octaves=2),
        "2 4",
        bpm=66,
        instrument="piano",
        fingering="usual",
        second=SecondHand(Parallel()),
        way_in=_BY_HANDS,
    ),
    shelf_drill(
        "two_hands",
        "Mirror water",
        "Out from one key and home again: the same finger in both hands at once.",
        ScaleRun(tonic="C", octaves=2),
        "2 3 4",
        bpm=60,
        instrument="piano",
        fingering="usual",
        second=SecondHand(Contrary()),
        way_in=_BY_HANDS,
    ),
    shelf_drill(
        "two_hands",
        "Oars in tenths",
        "The left hand a tenth below: full sound, and its own fingers.",
        ScaleRun(tonic="F", octaves=1),
        "2",
        bpm=63,
        instrument="piano",
        fingering="usual",
        second=SecondHand(Parallel("tenth")),
        way_in=_BY_HANDS,
    ),
    shelf_drill(
        "two_hands",
        "Low, high, middle, high",
        "A tune of four notes over broken chords; the left hand stays under it.",
        Line("E4*2 G4 C5 | D5*2 B4 G4 | A4*2 C5 A4 | G4*4", tonic="C"),
        "1",
        bpm=72,
        instrument="piano",
        accents=NoAccents(),
        fingering="usual",
        second=SecondHand(ChordsBelow("C | G7/B | F/A | C/G"), _divided(2), accents=NoAccents(), balance="softer"),
        way_in=_BY_HANDS,
    ),
    shelf_drill(
        "two_hands",
        "Four lamps, three boats",
        "Four against three on two keys: tap what both strike, then share it out.",
        OneNote(beats=8),
        "4",
        bpm=50,
        instrument="piano",
        second=SecondHand(OneKey("C3", "repeated"), _divided(3), phrase="pass the oars a-round now"),
        way_in=_COMPOSITE,
    ),
    shelf_drill(
        "two_hands",
        "Anchor and chain",
        "A held note below, five fingers above that climb a step each time.",
        Sequence(figure=(0, 1, 2, 3, 4, 3, 2, 1), way="up", octaves=2),
        "4",
        bpm=60,
        instrument="piano",
        fingering="usual",
        second=SecondHand(OneKey("C3")),
    ),
    shelf_drill(
        "two_hands",
        "Hand over hand",
        "An arpeggio over a line of its own: two voices, two accents.",
        Arpeggio(tonic="A", chord="minor_triad", octaves=1),
        "2",
        bpm=66,
        instrument="piano",
        fingering="usual",
        second=SecondHand(OwnLine("A2 E3 C3 E3", "A"), _divided(1), articulation=Fraction(1, 2)),
    ),
)
