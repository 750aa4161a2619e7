"""What each family's teacher hands out: scales as they are fingered, places on the neck, cadences, whole ranges."""

from ripresa.core.drill import NeckPlace
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Arpeggio, Line, LongNotes, Picked, ScaleRun, Sequence, Strum
from ripresa.core.drill.second import Parallel, SecondHand
from ripresa.core.exact import Fraction
from ripresa.core.shelf.entry import Aim, Shelved, shelf_drill

_PICK, _TONGUE = ByOrder(cycle=("D", "U")), ByOrder(cycle=("T",))


def _keys(aim: Aim, title: str, purpose: str, material: object, legs: str = "2", **rest: object) -> Shelved:
    parts = {"instrument": "piano", "fingering": "usual", **rest}
    return shelf_drill(aim, title, purpose, material, legs, **parts)  # type: ignore[arg-type]


def _neck(aim: Aim, title: str, purpose: str, material: object, legs: str = "2", **rest: object) -> Shelved:
    parts = {"instrument": "guitar", "fingering": "position", "hands": _PICK, **rest}
    return shelf_drill(aim, title, purpose, material, legs, **parts)  # type: ignore[arg-type]


def _blown(title: str, purpose: str, material: object, instrument: str, legs: str = "2", **rest: object) -> Shelved:
    parts = {"instrument": instrument, "hands": _TONGUE, "breath": Fraction(10), **rest}
    return shelf_drill("breath", title, purpose, material, legs, **parts)  # type: ignore[arg-type]


PRINTED_KEYS: tuple[Shelved, ...] = (
    _keys(
        "evenness",
        "Half steps to the lighthouse",
        "A chromatic scale: the third finger on every black key.",
        ScaleRun(scale="chromatic", octaves=1),
        "3 4",
        bpm=60,
    ),
    _keys(
        "evenness",
        "Black rocks",
        "G sharp minor, its sixth and seventh raised on the way up: the thumbs stay on white keys.",
        ScaleRun(tonic="G#", scale="melodic_minor", octaves=2),
        "2 4",
        bpm=56,
    ),
    _keys("evenness", "Seven doors", "D dorian with the fingers of C major.", ScaleRun(tonic="D", scale="dorian"), "2"),
    _keys(
        "sequences",
        "Root on the sand",
        "C major over two octaves, from its root: 1 2 3 and 1 again.",
        Arpeggio(octaves=2),
        "3",
        bpm=60,
    ),
    _keys(
        "sequences",
        "Turned over once",
        "The same triad from its third to its third: 1 2 4 and 1 again.",
        Arpeggio(octaves=2, start=2),
        "3",
        bpm=60,
    ),
    _keys(
        "sequences",
        "Turned over twice",
        "And from its fifth to its fifth.",
        Arpeggio(octaves=2, start=3),
        "3",
        bpm=60,
    ),
    _keys(
        "sequences",
        "Four tones of G7",
        "A finger for each tone, then the thumb again.",
        Arpeggio(tonic="G", chord="dominant_seventh", octaves=2),
        "4",
        bpm=60,
    ),
    _keys(
        "sequences",
        "Broken on the beach",
        "Triads broken through an octave: 1 3 5, 1 2 5, 1 3 5.",
        Sequence(scale="major_triad", figure=(0, 1, 2), octaves=2, way="up"),
        "3",
        bpm=66,
    ),
    _keys(
        "two_hands",
        "Thirds from the keynote",
        "Both hands up, the right one a third higher: each keeps the fingers of its scale.",
        ScaleRun(octaves=2),
        "2",
        second=SecondHand(Parallel("third_from_left")),
        bpm=60,
    ),
    _keys(
        "two_hands",
        "Cadence in F",
        "Tonic, subdominant, dominant and home in the nearest inversions: F, B flat over F, C7 over E, F.",
        Strum("F | Bb/F | C7/E | F", "1 2 3 4"),
        "1",
        bpm=60,
    ),
)

PRINTED_STRINGS: tuple[Shelved, ...] = (
    *(
        _neck(
            "evenness",
            f"Five places {number}",
            f"A minor pentatonic in its place at fret {fret}: from A to both ends, and back.",
            ScaleRun(tonic="A", scale="minor_pentatonic", octaves="range"),
            place=NeckPlace(fret),
        )
        for number, fret in enumerate((2, 5, 7, 9, 12), start=1)
    ),
    _neck("evenness", "Second position", "G major under four fingers, no stretch.", ScaleRun(tonic="G"), "2 4", bpm=63),
    _neck(
        "sequences",
        "Triad in its place",
        "C major, tone by tone, where one position holds it.",
        Arpeggio(octaves=2),
        "3",
        bpm=60,
    ),
    shelf_drill(
        "picking",
        "Root and fifth by the pier",
        "The thumb on the root and on the fifth of each chord, also where a finger has to go over for it.",
        Picked("C | F | G | Am", "p i m a"),
        "2",
        bpm=72,
        instrument="guitar",
        accents=NoAccents(),
    ),
    shelf_drill(
        "strumming",
        "Fifths with a low hum",
        "Power chords by their forms: two strings and the root again.",
        Strum("E5 | G5 | A5 | C5", "1 & 2 & 3 & 4 &"),
        bpm=84,
        instrument="guitar",
    ),
    shelf_drill(
        "strumming",
        "Capo on the second",
        "G, C and D as they are gripped; they sound a tone higher.",
        Strum("G | C | D | G", "1 2 & 3 4 &"),
        bpm=80,
        instrument="guitar",
        capo=2,
    ),
)

_WHOLE = ScaleRun(scale="chromatic", octaves="range")

PRINTED_WINDS: tuple[Shelved, ...] = (
    *(
        _blown(
            f"Every half step, {called}",
            "A chromatic scale through the whole range: up to the end, down to the end, and back.",
            _WHOLE,
            instrument,
            "3",
            bpm=60,
        )
        for instrument, called in (
            ("flute", "flute"),
            ("oboe", "oboe"),
            ("clarinet", "clarinet"),
            ("bassoon", "bassoon"),
            ("horn", "horn"),
            ("trombone", "trombone"),
        )
    ),
    _blown(
        "From the third, all of it",
        "A scale through the range of an alto saxophone that begins on its third.",
        ScaleRun(tonic="G", octaves="range", start=3),
        "alto_saxophone",
        bpm=66,
    ),
    _blown(
        "Long through the range",
        "Each note six beats and a breath, as far as the first year goes.",
        LongNotes(tonic="Bb", octaves="range", shape="there_and_back", beats=6, rest=2),
        "trumpet",
        level="first_year",
        bpm=60,
    ),
    _blown(
        "Two bars and a breath",
        "A tune of two-bar phrases: one breathes where they end.",
        Line(
            "C4*1 D4 E4 C4 | F4*1 E4 D4*2 | E4*1 F4 G4 E4 | F4*1 D4 C4*2 | G4*1 F4 E4 G4 | A4*1 G4 F4*2 | "
            "E4*1 D4 E4 F4 | D4*1 B4 C5*2",
            rhythm="own",
        ),
        "recorder",
        "1",
        breath=Fraction(9),
        bpm=60,
    ),
    _blown(
        "Over the throat",
        "G major over the break of the clarinet and back, as even there as elsewhere.",
        ScaleRun(tonic="G", octaves=2),
        "clarinet",
        bpm=60,
    ),
)

PRINTED: tuple[Shelved, ...] = PRINTED_KEYS + PRINTED_STRINGS + PRINTED_WINDS
