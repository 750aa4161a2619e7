"""Pitches, scales, chords and instruments: what can sound, without time.

A pitch keeps its letter and its accidental, so that what is written is what was meant; which octave an instrument
sounds in is the instrument's.
"""

from ripresa.core.pitch.chords import Chord, ChordSound, parse_chord, voiced
from ripresa.core.pitch.instrument import INSTRUMENTS, Instrument, Voice, instrument_named
from ripresa.core.pitch.pitch import LETTERS, Pitch, above, parse_tonic, show_tonic
from ripresa.core.pitch.scales import CHORDS, SCALES, TONICS, Scale, chord_named, parse_degrees, scale_named

__all__ = [
    "CHORDS",
    "INSTRUMENTS",
    "LETTERS",
    "SCALES",
    "TONICS",
    "Chord",
    "ChordSound",
    "Instrument",
    "Pitch",
    "Scale",
    "Voice",
    "above",
    "chord_named",
    "instrument_named",
    "parse_chord",
    "parse_degrees",
    "parse_tonic",
    "scale_named",
    "show_tonic",
    "voiced",
]
