"""Backing: chords, a bass line and a plain groove under a drill, from its own progression or its tonic."""

from collections.abc import Iterable, Iterator
from typing import Literal

from ripresa.core.drill.material import Arpeggio, Line, Material, Picked, Strum, scale_of
from ripresa.core.exact import Fraction
from ripresa.core.grid import ChordSpan, Record, parse_progression
from ripresa.core.pitch import CHORDS, Chord, Scale, close_position
from ripresa.core.playing.struck import Drum, layer_sounds
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Meter

Accompaniment = Literal["chords", "bass", "groove", "hits", "foot", "arm"]

ACCOMPANIMENTS: dict[Accompaniment, tuple[str, str]] = {
    "chords": ("chords", "Held softly; of the progression, or of the tonic."),
    "bass": ("a bass", "The root on every other beat."),
    "groove": ("a groove", "Drums, as plain as can be: the beat, its halves, and a backbeat."),
    "hits": ("the band’s hits", "The layer of hits as a band strikes it, full and light, with a sound of its own."),
    "foot": ("the foot", "Each tap of the foot, low and soft."),
    "arm": ("the arm in the air", "A soft brush where the arm swings and nothing sounds."),
}
#: The lowest root of the bass, and the lowest tone of the chords, as MIDI notes.
_BASS, _CHORDS = 36, 48
_SHORT = Fraction(1, 8)
#: Layers of the drill itself that can be heard.
_LAYERS: tuple[Literal["hits", "foot", "arm"], ...] = ("hits", "foot", "arm")


class BackNote(Record, frozen=True):
    """A note of the backing: where and how long in beats, heard MIDI notes or a drum."""

    at: Fraction
    beats: Fraction
    midis: tuple[int, ...]
    drum: Drum | None = None


def backing(reading: Reading, parts: Iterable[Accompaniment]) -> tuple[BackNote, ...]:
    """Return the backing of one turn, in order; without chords or a tonic there is nothing but the groove."""
    asked = set(parts)
    found: list[BackNote] = []
    # What is written for an instrument that transposes sounds elsewhere, and so do the chords under it.
    concert = (reading.instrument.sounds + 6) % 12 - 6
    if asked & {"chords", "bass"}:
        for start, end, chord in _spans(reading):
            if "chords" in asked:
                found += _held(start, end, chord, reading.meter, concert)
            if "bass" in asked:
                found += _bass(start, end, chord, concert)
    if "groove" in asked:
        found += _groove(reading)
    for layer in _LAYERS:
        if layer in asked:
            found += (BackNote(at, _SHORT, (), sound) for at, sound in layer_sounds(reading, layer))
    return tuple(sorted(found, key=lambda note: note.at))


def _spans(reading: Reading) -> Iterator[tuple[Fraction, Fraction, Chord]]:
    """Yield start, end and chord over one turn: the progression once in each leg, the last chord to its end."""
    spans = _progression(reading.drill.material, reading.meter)
    if not spans:
        return
    for leg in reading.legs:
        end = leg.start + leg.beats
        for number, span in enumerate(spans):
            start = leg.start + span.start
            until = end if number == len(spans) - 1 else min(end, leg.start + span.end)
            if start < until and not span.chord.is_none:
                yield start, until, span.chord


def _progression(material: Material, meter: Meter) -> tuple[ChordSpan, ...]:
    if isinstance(material, Strum | Picked):
        return parse_progression(material.chords, meter)
    if isinstance(material, Line) and material.through:
        return parse_progression(material.through, meter)
    home = scale_of(material)
    if home is None:
        return ()
    chord = Chord("", home[0], _own_chord(material, home[1]))
    return (ChordSpan(chord, Fraction(0), meter.bar(1).length),)


def _own_chord(material: Material, tones: Scale) -> Scale:
    """Return the chord that lies under a material: an arpeggio's own, else the triad of its scale."""
    if tones in CHORDS.values() or isinstance(material, Arpeggio):
        return tones
    over = {semitones: steps for steps, semitones in tones.up}
    third = next((one for one in (4, 3) if one in over), None)
    fifth = next((one for one in ((7, 8, 6) if third == 4 else (7, 6, 8)) if one in over), None)
    found = ((0, 0), *((over[one], one) for one in (third, fifth) if one is not None))
    return Scale("own", found, found)


def _held(start: Fraction, end: Fraction, chord: Chord, meter: Meter, concert: int) -> Iterator[BackNote]:
    """Yield the chord, struck anew on each bar line."""
    midis = tuple(pitch.midi + concert for pitch in close_position(chord, _CHORDS))
    at = start
    while at < end:
        until = min(end, at + (meter.to_bar_line(at) or meter.bar(meter.place(at)[0]).length))
        yield BackNote(at, until - at, midis)
        at = until


def _bass(start: Fraction, end: Fraction, chord: Chord, concert: int) -> Iterator[BackNote]:
    root = (chord.bass or chord.root).midi + concert
    midi = _BASS + (root - _BASS) % 12
    at = start
    while at < end:
        yield BackNote(at, min(Fraction(2), end - at), (midi,))
        at += 2


def _groove(reading: Reading) -> Iterator[BackNote]:
    meter = reading.meter
    for at in meter.beats_until(reading.loop_beats):
        number = meter.place(at)[1]
        yield BackNote(at, _SHORT, (), "kick" if number % 2 else "snare")
        yield BackNote(at, _SHORT, (), "hat")
        yield BackNote(at + meter.beat_at(at) / 2, _SHORT, (), "hat")
