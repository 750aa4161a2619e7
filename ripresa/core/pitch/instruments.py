"""The instruments: keys, strings, winds and what is struck, each as a teacher of it describes it.

Ranges are those that method books give for the usual instrument: from the lowest note to the highest that a student
is asked for, and what a first year reaches of it. Notes are written ones.
"""

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.instrument import Clef, Instrument
from ripresa.core.pitch.own_instrument import OWN_SIGN, own_instrument
from ripresa.core.pitch.pitch import parse_pitch

PICKED = ("alternate",)
TONGUED = ("single_tongue", "double_tongue", "triple_tongue", "slur_pairs", "slur_two_tongue_two")
#: Frets of a guitar unless it is said.
_FRETS = 22


def _midis(names: str) -> tuple[int, ...]:
    return tuple(parse_pitch(name).midi for name in names.split())


def _plucked(
    name: str, strings: str, sounds: int = -12, frets: int = _FRETS, clef: Clef = "treble", wide: bool = False
) -> Instrument:
    """Return an instrument with strings, the thickest first, as they are written."""
    midis = _midis(strings)
    low = min(midis)
    return Instrument(
        name,
        low,
        max(midis) + frets,
        low,
        sounds,
        "pluck",
        PICKED,
        midis,
        frets,
        clef=clef,
        frets_a_finger=2 if wide else 1,
    )


def _wind(
    name: str,
    written: str,
    first_year: str,
    sounds: int,
    breath: int,
    breaks: str = "",
    *,
    clef: Clef = "treble",
    is_loud: bool = False,
) -> Instrument:
    """Return a wind instrument, whose runs start from its lowest note; breaks are pairs of neighbours."""
    low, high = _midis(written)
    least, most = _midis(first_year)
    crossed = _midis(breaks)
    return Instrument(
        name,
        low,
        high,
        low,
        sounds,
        "wind",
        TONGUED,
        breaks=tuple(zip(crossed[::2], crossed[1::2], strict=True)),
        first_year=(least, most),
        is_loud=is_loud,
        clef=clef,
        breath=breath,
    )


def _struck(name: str) -> Instrument:
    """Return an instrument without pitch: a rhythm and two hands."""
    return Instrument(name, 0, 127, 48, 0, "struck", ("hands",))


#: The usual tuning of a guitar and of a ukulele, as they are written.
STANDARD_STRINGS = (52, 57, 62, 67, 71, 76)
UKULELE_STRINGS = (67, 60, 64, 69)

#: Registers change between these written notes, as fingering charts show them: on the clarinet from the throat B flat
#: to the B with the speaker key; on flute, oboe and saxophones from the open C or C sharp to what has all fingers down;
#: on the bassoon over the open F; on recorders to the note with the thumb hole half open. Brass change partials
#: everywhere: none.
_CLARINET, _OCTAVE, _OBOE, _BASSOON = "Bb4 B4", "C#5 D5", "C5 C#5", "F3 F#3"
_SAX = ("Bb3 F#6", "C4 A5")
_TRUMPET = ("F#3 C6", "C4 C5")

INSTRUMENTS: dict[str, Instrument] = {
    "any": Instrument("any instrument", 21, 108, 48, 0, "keys"),
    "guitar": _plucked("guitar", "E3 A3 D4 G4 B4 E5"),
    "piano": Instrument("piano", 21, 108, 60, 0, "keys", ("hands",), hand="right", first_year=(36, 84)),
    "flute": _wind("flute", "C4 C7", "E4 G5", 0, 8, _OCTAVE),
    "clarinet": _wind("clarinet in B♭", "E3 G6", "E3 G5", -2, 12, _CLARINET),
    "alto_saxophone": _wind("alto saxophone", *_SAX, -9, 11, _OCTAVE, is_loud=True),
    "trumpet": _wind("trumpet in B♭", *_TRUMPET, -2, 10, is_loud=True),
    "guitar_drop_d": _plucked("guitar, low string on D", "D3 A3 D4 G4 B4 E5"),
    "guitar_dadgad": _plucked("guitar tuned D A D G A D", "D3 A3 D4 G4 A4 D5"),
    "guitar_open_g": _plucked("guitar tuned D G D G B D", "D3 G3 D4 G4 B4 D5"),
    "guitar_open_d": _plucked("guitar tuned D A D F♯ A D", "D3 A3 D4 F#4 A4 D5"),
    "guitar_e_flat": _plucked("guitar, all strings a semitone lower", "E3 A3 D4 G4 B4 E5", -13),
    "guitar_seven": _plucked("guitar with seven strings", "B2 E3 A3 D4 G4 B4 E5"),
    "guitar_bass": _plucked("bass guitar", "E2 A2 D3 G3", frets=24, clef="bass"),
    "guitar_bass_five": _plucked("bass guitar with five strings", "B1 E2 A2 D3 G3", frets=24, clef="bass"),
    "ukulele": _plucked("ukulele", "G4 C4 E4 A4", 0, 12),
    "ukulele_low_g": _plucked("ukulele with a low G", "G3 C4 E4 A4", 0, 12),
    "mandolin": _plucked("mandolin", "G3 D4 A4 E5", 0, 20, wide=True),
    "banjo": _plucked("banjo with five strings", "G5 D4 G4 B4 D5"),
    "piano_left": Instrument("piano, left hand", 21, 84, 48, 0, "keys", ("hands",), hand="left", clef="bass"),
    "piano_right": Instrument("piano, right hand", 36, 108, 60, 0, "keys", ("hands",), hand="right", clef="treble"),
    "piccolo": _wind("piccolo", "D4 C7", "E4 G5", 12, 10, _OCTAVE, is_loud=True),
    "oboe": _wind("oboe", "Bb3 F6", "D4 A5", 0, 14, _OBOE),
    "cor_anglais": _wind("cor anglais", "B3 E6", "D4 A5", -7, 12, _OBOE),
    "bassoon": _wind("bassoon", "Bb1 C5", "G2 D4", 0, 10, _BASSOON, clef="bass"),
    "clarinet_e_flat": _wind("clarinet in E♭", "E3 G6", "E3 G5", 3, 12, _CLARINET),
    "clarinet_a": _wind("clarinet in A", "E3 G6", "E3 G5", -3, 12, _CLARINET),
    "clarinet_bass": _wind("bass clarinet", "Eb3 E6", "E3 G5", -14, 10, _CLARINET),
    "soprano_saxophone": _wind("soprano saxophone", *_SAX, -2, 12, _OCTAVE, is_loud=True),
    "tenor_saxophone": _wind("tenor saxophone", *_SAX, -14, 10, _OCTAVE, is_loud=True),
    "baritone_saxophone": _wind("baritone saxophone", "A3 F#6", "C4 A5", -21, 8, _OCTAVE, is_loud=True),
    "trumpet_c": _wind("trumpet in C", *_TRUMPET, 0, 10, is_loud=True),
    "cornet": _wind("cornet", *_TRUMPET, -2, 10, is_loud=True),
    "flugelhorn": _wind("flugelhorn", *_TRUMPET, -2, 10, is_loud=True),
    "horn": _wind("horn in F", "F#2 C6", "G3 C5", -7, 10, is_loud=True),
    "trombone": _wind("trombone", "E2 Bb4", "Bb2 D4", 0, 8, clef="bass", is_loud=True),
    "euphonium": _wind("euphonium", "E2 Bb4", "Bb2 D4", 0, 8, clef="bass", is_loud=True),
    "euphonium_treble": _wind("euphonium, in the treble clef", "F#3 C6", "C4 E5", -14, 8, is_loud=True),
    "tuba": _wind("tuba", "E1 F4", "Bb1 D3", 0, 6, clef="bass", is_loud=True),
    "recorder": _wind("descant recorder", "C4 D6", "C4 E5", 12, 12, "D#5 E5"),
    "recorder_treble": _wind("treble recorder", "F4 G6", "F4 A5", 0, 12, "G#5 A5"),
    "recorder_tenor": _wind("tenor recorder", "C4 D6", "C4 E5", 0, 11, "D#5 E5"),
    "practice_pad": _struck("practice pad"),
    "hand_drum": _struck("hand drum"),
    "clapping": _struck("clapping"),
}


def instrument_named(name: str) -> Instrument:
    """Return an instrument by its key, or by the line that describes one of one's own.

    Raises:
        OutOfRange: No instrument of that name is known.
        Unreadable: The line of one's own cannot be read.
    """
    if OWN_SIGN in name:
        return own_instrument(name)
    try:
        return INSTRUMENTS[name]
    except KeyError:
        raise OutOfRange(
            f"“{name}” is not an instrument that Ripresa knows. Use one of {', '.join(INSTRUMENTS)}, or describe one: "
            "whistle in D: wind, D4 to B5, sounds +12.",
            field="instrument",
        ) from None
