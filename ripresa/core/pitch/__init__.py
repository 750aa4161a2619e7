"""Pitches, scales, chords and instruments: what can sound, without time.

A pitch keeps its letter and its accidental, so that what is written is what was meant; which octave an instrument
sounds in is the instrument's.
"""

from ripresa.core.pitch.chord_symbol import NO_CHORD, Chord, parse_chord
from ripresa.core.pitch.chords import ALL_STRINGS, SPREAD, SPREAD_NAME, ChordSound, close_position, on_string, voiced
from ripresa.core.pitch.degrees import degree_of, directions, on_degree
from ripresa.core.pitch.frets import SPAN
from ripresa.core.pitch.instrument import LEVELS, UNDER_HAND, Clef, Instrument, Level, Voice
from ripresa.core.pitch.instruments import INSTRUMENTS, STANDARD_STRINGS, instrument_named
from ripresa.core.pitch.keys import Key, key_of, major_fifths
from ripresa.core.pitch.own_instrument import OWN_SIGN, own_instrument
from ripresa.core.pitch.pitch import LETTERS, Pitch, above, parse_pitch, parse_tonic, show_tonic, usually_spelt
from ripresa.core.pitch.scales import CHORDS, SCALES, TONICS, Scale, chord_named, parse_degrees, scale_named
from ripresa.core.pitch.shapes import Shape, shape_of, shapes_of
from ripresa.core.pitch.string_sets import STRING_SETS, shape_on

__all__ = [
    "ALL_STRINGS",
    "CHORDS",
    "INSTRUMENTS",
    "LETTERS",
    "LEVELS",
    "NO_CHORD",
    "OWN_SIGN",
    "SCALES",
    "SPAN",
    "SPREAD",
    "SPREAD_NAME",
    "STANDARD_STRINGS",
    "STRING_SETS",
    "TONICS",
    "UNDER_HAND",
    "Chord",
    "ChordSound",
    "Clef",
    "Instrument",
    "Key",
    "Level",
    "Pitch",
    "Scale",
    "Shape",
    "Voice",
    "above",
    "chord_named",
    "close_position",
    "degree_of",
    "directions",
    "instrument_named",
    "key_of",
    "major_fifths",
    "on_degree",
    "on_string",
    "own_instrument",
    "parse_chord",
    "parse_degrees",
    "parse_pitch",
    "parse_tonic",
    "scale_named",
    "shape_of",
    "shape_on",
    "shapes_of",
    "show_tonic",
    "usually_spelt",
    "voiced",
]
