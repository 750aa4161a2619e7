"""What stands at the head of a part and of its bars: instruments, key, meter, clefs, tunings, tempo, chords, legs."""

from collections.abc import Iterator
from dataclasses import dataclass

from ripresa.core.drill.material import scale_of
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction, division_label, label
from ripresa.core.grid import Event, LegReading
from ripresa.core.pitch import LETTERS, NO_CHORD, Chord, Clef, Instrument, Key, Pitch, above, key_of, parse_chord
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Bar
from ripresa.formats.drums import SECOND, Drum, drum_of
from ripresa.formats.notation.marks import printable
from ripresa.formats.notation.values import value_of

#: Below which key (MIDI) a part, or a left hand, has the low clef.
_BASS_BELOW, _LEFT_BELOW = 53, 60
#: The channel of percussion in General MIDI, counted from 1.
_PERCUSSION = 10
#: General MIDI 1 programs, counted from 1, by the key of the instrument; else by how it sounds.
PROGRAMS = {
    "guitar_bass": 34,
    "ukulele": 25,
    "flute": 74,
    "clarinet": 72,
    "clarinet_a": 72,
    "alto_saxophone": 66,
    "tenor_saxophone": 67,
    "trumpet": 57,
    "recorder": 75,
}
_BY_VOICE = {"pluck": 25, "keys": 1, "wind": 74, "struck": 116}
#: What follows the root of a chord → MusicXML's name of it.
_KINDS = {
    "": "major",
    "m": "minor",
    "dim": "diminished",
    "aug": "augmented",
    "5": "power",
    "sus2": "suspended-second",
    "sus4": "suspended-fourth",
    "6": "major-sixth",
    "m6": "minor-sixth",
    "7": "dominant",
    "maj7": "major-seventh",
    "m7": "minor-seventh",
    "m7b5": "half-diminished",
    "dim7": "diminished-seventh",
    "add9": "major",
    "9": "dominant-ninth",
    "maj9": "major-ninth",
    "m9": "minor-ninth",
    "13": "dominant-13th",
    "7sus4": "suspended-fourth",
    "7#9": "dominant",
    "7b9": "dominant",
}


def _degree(value: int, alter: int = 0) -> str:
    return (
        f"<degree><degree-value>{value}</degree-value><degree-alter>{alter}</degree-alter>"
        "<degree-type>add</degree-type></degree>"
    )


_ADDED = {"add9": _degree(9), "7sus4": _degree(7, -1), "7#9": _degree(9, 1), "7b9": _degree(9, -1)}


@dataclass(frozen=True, slots=True)
class Staff:
    """A staff: its number, and the events of the row that stands on it.

    Args:
        is_tab: Whether it has a line a string.
    """

    number: int
    events: tuple[Event, ...]
    is_tab: bool = False

    @property
    def is_pitched(self) -> bool:
        """Whether any of its notes has a pitch."""
        return any(event.tones for event in self.events if event.kind == "note")


def program_of(reading: Reading) -> int:
    """Return the General MIDI program of a reading's instrument, counted from 1."""
    return PROGRAMS.get(reading.drill.instrument, _BY_VOICE[reading.instrument.voice])


def key_of_reading(reading: Reading) -> Key:
    """Return the key signature of a drill: of its scale, else of the notes that it has."""
    material = reading.drill.material
    known = scale_of(material)
    if known and material.kind != "line":
        tonic, scale = known
        ways = ((index, down) for index in range(scale.degrees) for down in (False, True))
        tones = (above(tonic, *scale.degree(index, going_down=down)) for index, down in ways)
        return key_of(tones, tonic, getattr(material, "scale", ""))
    first = next((event.chord for event in reading.every if event.chord), None)
    chord = chord_of(first.symbol) if first else None
    home = chord.root if chord else known[0] if known else None
    return key_of((tone for event in reading.every for tone in event.tones), home)


def listed_part(reading: Reading, drums: list[Drum], *, is_named: bool = True) -> str:
    """Return the entry of the part in the list of parts: its instrument, and the drums that stand for strokes."""
    name = printable(reading.instrument.name)
    pitched = any(event.tones for event in reading.every)
    named, played = [], []
    if pitched or not drums:
        named.append(_named("P1-I1", name))
        played.append(
            _played("P1-I1", f"<midi-channel>1</midi-channel><midi-program>{program_of(reading)}</midi-program>")
        )
    for drum in drums:
        # MusicXML counts the keys of percussion from 1.
        key = f"<midi-channel>{_PERCUSSION}</midi-channel><midi-unpitched>{drum.key + 1}</midi-unpitched>"
        named.append(_named(instrument_id(drum), drum.name))
        played.append(_played(instrument_id(drum), key))
    shown = name if is_named else ""
    return f'<score-part id="P1"><part-name>{shown}</part-name>{"".join(named)}{"".join(played)}</score-part>'


def instrument_id(drum: Drum | None) -> str:
    """Return the id of a drum, or of the instrument itself, in the list of parts."""
    return f"P1-D{drum.key}" if drum else "P1-I1"


def drums_in(reading: Reading) -> list[Drum]:
    """Return the drums that stand for what has no pitch, each once."""
    struck = [drum_of(event) for event in reading.every if event.kind == "note" and not event.tones]
    return list(dict.fromkeys([*struck, *([SECOND] if reading.second else [])]))


def _named(number: str, name: str) -> str:
    return f'<score-instrument id="{number}"><instrument-name>{name}</instrument-name></score-instrument>'


def _played(number: str, inside: str) -> str:
    return f'<midi-instrument id="{number}">{inside}</midi-instrument>'


def attributes(reading: Reading, staves: list[Staff], key: Key, divisions: int, slashed: bool) -> str:
    """Return the attributes of the first bar."""
    signature = f"<key><fifths>{key.fifths}</fifths><mode>{key.mode.replace('_', '-')}</mode></key>"
    count = f"<staves>{len(staves)}</staves>" if len(staves) > 1 else ""
    if staves[-1].is_tab and count:
        # One player's notes and strings, not two hands on keys: no brace.
        count += "<part-symbol>bracket</part-symbol>"
    clefs = "".join(_clef(staff, len(staves), reading.instrument) for staff in staves)
    details = "".join(_strings(reading, staff) for staff in staves if staff.is_tab)
    slash = '<measure-style><slash type="start" use-stems="yes"/></measure-style>' if slashed else ""
    return (
        f"<attributes><divisions>{divisions}</divisions>{signature}{time(reading.meter.bar(1), reading.meter.counted)}"
        f"{count}{clefs}{details}{_transposed(reading)}{slash}</attributes>"
    )


def time(bar: Bar, counted: Fraction) -> str:
    """Return the meter of a bar: its groups where they are not all alike, or where it says which are felt together."""
    above, below = bar.signature
    sizes = [beat * counted * below for beat in bar.beats]
    if bar.groups:
        shown = "+".join(str(size) for size in bar.groups)
    elif len(set(sizes)) > 1 and all(size.denominator == 1 for size in sizes):
        shown = "+".join(str(size) for size in sizes)
    else:
        shown = str(above)
    return f"<time><beats>{shown}</beats><beat-type>{below}</beat-type></time>"


#: Sign and line of a clef.
_CLEFS: dict[Clef, tuple[str, int]] = {"treble": ("G", 2), "bass": ("F", 4), "alto": ("C", 3), "tenor": ("C", 4)}


def _clef(staff: Staff, staves: int, instrument: Instrument) -> str:
    """Return the clef of a staff: that of the instrument, of the hand on keys, or as high as its notes lie."""
    number = f' number="{staff.number}"' if staves > 1 else ""
    if staff.is_tab:
        return f"<clef{number}><sign>TAB</sign><line>5</line></clef>"
    if not staff.is_pitched:
        return f"<clef{number}><sign>percussion</sign></clef>"
    keys = sorted(event.tones[0].midi for event in staff.events if event.kind == "note" and event.tones)
    below = _LEFT_BELOW if staff.events[0].hand == "L" else _BASS_BELOW
    by_height: Clef = "bass" if keys[len(keys) // 2] < below else "treble"
    sign, line = _CLEFS[instrument.clef or by_height]
    return f"<clef{number}><sign>{sign}</sign><line>{line}</line></clef>"


def _strings(reading: Reading, staff: Staff) -> str:
    """Return the lines of tablature and what each string is tuned to, the thickest first."""
    strings = reading.instrument.strings
    tuned = "".join(
        f'<staff-tuning line="{line}"><tuning-step>{_SHARPS[midi % 12][0]}</tuning-step>'
        + (f"<tuning-alter>{len(_SHARPS[midi % 12]) - 1}</tuning-alter>" if len(_SHARPS[midi % 12]) > 1 else "")
        + f"<tuning-octave>{midi // 12 - 1}</tuning-octave></staff-tuning>"
        for line, midi in enumerate((midi + reading.instrument.sounds for midi in strings), start=1)
    )
    return f'<staff-details number="{staff.number}"><staff-lines>{len(strings)}</staff-lines>{tuned}</staff-details>'


_SHARPS = ("C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B")


def _transposed(reading: Reading) -> str:
    """Return how an instrument transposes: the steps of the staff, the semitones, whole octaves apart."""
    sounds = reading.instrument.sounds
    if not sounds:
        return ""
    octaves = int(sounds / 12)
    rest = sounds - 12 * octaves
    steps = round(rest * 7 / 12)
    octave = f"<octave-change>{octaves}</octave-change>" if octaves else ""
    return f"<transpose><diatonic>{steps}</diatonic><chromatic>{rest}</chromatic>{octave}</transpose>"


def metronome(reading: Reading, bpm: Fraction) -> str:
    """Return the tempo with the note that it counts, and the quarters a minute for those who play the file."""
    value = value_of(int(reading.meter.counted * 256), 64)
    assert value, "the note that bpm counts is a note value"
    dot = "<beat-unit-dot/>" if value[1] else ""
    quarters = float(bpm * reading.meter.counted * 4)
    mark = f"<metronome><beat-unit>{value[0]}</beat-unit>{dot}<per-minute>{label(bpm)}</per-minute></metronome>"
    sound = f'<sound tempo="{quarters:.6f}"/>'
    return f'<direction placement="above"><direction-type>{mark}</direction-type>{sound}</direction>'


def swung(reading: Reading) -> str:
    """Return the mark of a swing, in words and for those who play the file; empty where it is straight."""
    swing = reading.drill.swing
    if swing.ratio == 1:
        return ""
    pair = "eighth" if swing.on == 2 else "16th"
    long, short = swing.ratio.numerator, swing.ratio.denominator
    return (
        f'<direction placement="above"><direction-type><words>swing {long}:{short}</words></direction-type>'
        f"<sound><swing><first>{long}</first><second>{short}</second><swing-type>{pair}</swing-type></swing></sound>"
        "</direction>"
    )


def rehearsal(leg: LegReading) -> str:
    """Return the mark at the beginning of a leg: its divisions."""
    return (
        '<direction placement="above"><direction-type>'
        f"<rehearsal>{printable(division_label(*leg.divisions))}</rehearsal></direction-type></direction>"
    )


def chord_of(shown: str) -> Chord | None:
    """Return the chord of a symbol as it is shown; None for a grip without a name."""
    try:
        chord = parse_chord(shown.replace("♭", "b").replace("♯", "#"))
    except RipresaError:
        return None
    return None if chord.frets else chord


def harmony(shown: str) -> str:
    """Return a chord symbol; a grip without a name stands as words."""
    chord = chord_of(shown)
    if chord is None:
        words = f"<words>{printable(shown)}</words>"
        return f'<direction placement="above"><direction-type>{words}</direction-type></direction>'
    if chord.is_none:
        return f'<harmony><root><root-step text="">C</root-step></root><kind text="{NO_CHORD}">none</kind></harmony>'
    bass = f"<bass>{''.join(_spelt('bass', chord.bass))}</bass>" if chord.bass else ""
    return (
        f"<harmony><root>{''.join(_spelt('root', chord.root))}</root>"
        f'<kind text="{printable(chord.quality)}">{_KINDS[chord.quality]}</kind>'
        f"{bass}{_ADDED.get(chord.quality, '')}</harmony>"
    )


def _spelt(name: str, pitch: Pitch) -> Iterator[str]:
    yield f"<{name}-step>{LETTERS[pitch.letter]}</{name}-step>"
    if pitch.alter:
        yield f"<{name}-alter>{pitch.alter}</{name}-alter>"
