"""Notation: a reading as it is printed, in MusicXML 4.0. Whoever engraves, hands out or saves it asks here."""

from ripresa.formats.notation.heads import key_of_reading, program_of
from ripresa.formats.notation.score import Score, pack, write_musicxml, write_score
from ripresa.formats.notation.strings import FORMS, Form, has_strings, strung

__all__ = [
    "FORMS",
    "Form",
    "Score",
    "has_strings",
    "key_of_reading",
    "pack",
    "program_of",
    "strung",
    "write_musicxml",
    "write_score",
]
