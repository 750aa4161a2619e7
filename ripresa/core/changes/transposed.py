"""Transposing: a drill in another key, its notes and chords moved; a part written for another instrument."""

import re
from dataclasses import replace
from typing import Any

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line, LineNote, parse_line, scale_of, write_line
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import plain_signs
from ripresa.core.grid import CHORD_WORD
from ripresa.core.pitch import Pitch, above, instrument_named, major_fifths, parse_chord, parse_tonic, usually_spelt

_OCTAVE = 12
#: Semitones → letters of the interval that is usually meant: a minor third for three, a fourth for five.
_LETTERS = (0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6)
#: Signs of a key beyond which it is written the other way: D flat for C sharp.
_MOST_SIGNS = 6
_NOT_THERE = "This material has no key of its own."


def in_key(drill: Drill, key: str) -> Drill:
    """Return a drill on another tonic, the nearer way; a line is moved note by note, with its chords.

    Raises:
        OutOfRange: Its material has no tonic.

    >>> in_key(Drill(material=Line("A4 C5 E5 5", tonic="A", through="Am | E7")), "B").material.text
    'B4 D5 F#5 5'
    """
    tonic = getattr(drill.material, "tonic", None)
    if tonic is None:
        raise OutOfRange(_NOT_THERE, field="overrides.tonic")
    before, after = parse_tonic(tonic), parse_tonic(key)
    semitones = (after.midi - before.midi + _OCTAVE // 2 - 1) % _OCTAVE - _OCTAVE // 2 + 1
    steps = after.letter - before.letter
    steps = min((steps - 7, steps, steps + 7), key=lambda one: abs(12 * one - 7 * semitones))
    return _moved(drill, key, steps, semitones)


def for_part(drill: Drill, source: str = "") -> Drill:
    """Return a drill whose notes are written as its own instrument reads them.

    Args:
        source: Key of the instrument that they were written for; empty where they are as they sound.

    Raises:
        OutOfRange: Its material has no tonic, or nothing has to be moved.
    """
    tonic = getattr(drill.material, "tonic", None)
    if tonic is None:
        raise OutOfRange(_NOT_THERE, field="material")
    mine, other = drill.plays_on, instrument_named(source) if source else None
    semitones = (other.sounds if other else 0) - mine.sounds
    if not semitones:
        raise OutOfRange(
            f"{mine.name} reads it as it stands: nothing has to be moved. Choose the instrument of the student first.",
            field="instrument",
        )
    octaves, over = divmod(semitones, _OCTAVE)
    steps = 7 * octaves + _LETTERS[over]
    moved = above(parse_tonic(tonic), steps, semitones)
    scale = scale_of(drill.material)
    lowered = 3 if scale and not isinstance(drill.material, Line) and scale[1].is_minor else 0
    signs = major_fifths(moved) - lowered
    if abs(signs) > _MOST_SIGNS:
        steps += 1 if signs > 0 else -1
        moved = above(parse_tonic(tonic), steps, semitones)
    return _moved(drill, moved.bare, steps, semitones)


def _moved(drill: Drill, key: str, steps: int, semitones: int) -> Drill:
    material = drill.material
    if not isinstance(material, Line):
        keyed: Any = material
        return replace(drill, material=replace(keyed, tonic=key))
    notes = [_moved_note(note, steps, semitones) for note in parse_line(material.text)]
    through = moved_chords(material.through, steps, semitones)
    return replace(drill, material=replace(material, text=write_line(notes), tonic=key, through=through))


def _moved_note(note: LineNote, steps: int, semitones: int) -> LineNote:
    """Return a note so much higher; a degree goes with its tonic."""
    return replace(note, tone=above(note.tone, steps, semitones)) if isinstance(note.tone, Pitch) else note


def moved_chords(text: str, steps: int, semitones: int) -> str:
    """Return a progression so much higher, its bar lines and lengths as they were; a typed grip stays behind.

    >>> moved_chords("Am*3 E7/G#*1 | N.C.", 1, 2)
    'Bm*3 F#7/A#*1 | N.C.'
    """

    def moved(found: re.Match[str]) -> str:
        try:
            chord = parse_chord(found[0])
        except RipresaError:
            return found[0]
        if chord.is_none or chord.is_grip:
            return found[0]
        root, bass = above(chord.root, steps, semitones), chord.bass and above(chord.bass, steps, semitones)
        return _plain(root) + chord.quality + (f"/{_plain(bass)}" if bass else "")

    return CHORD_WORD.sub(moved, plain_signs(text))


def _plain(pitch: Pitch) -> str:
    """Return the name of a root, without double signs."""
    spelt = pitch if abs(pitch.alter) < 2 else usually_spelt(pitch.midi)
    return spelt.bare
