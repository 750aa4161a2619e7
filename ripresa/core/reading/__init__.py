"""The reading: a drill worked out, once, into events with exact places, for everyone who needs them.

Whoever tells, plays, prints or measures a drill consumes its reading and works nothing out again.
"""

from ripresa.core.reading.composite import syllables_of
from ripresa.core.reading.count_text import count_text, on_grid
from ripresa.core.reading.fingering import places
from ripresa.core.reading.layout import lay
from ripresa.core.reading.onward import FARTHEST_HOME, Bars, onward, rounds, slots_on, unlike_legs
from ripresa.core.reading.reading import Reading, gaps_around, read, sounding_of, unreduced, with_click, worked_out
from ripresa.core.reading.second_hand import left_divisions

__all__ = [
    "FARTHEST_HOME",
    "Bars",
    "Reading",
    "count_text",
    "gaps_around",
    "lay",
    "left_divisions",
    "on_grid",
    "onward",
    "places",
    "read",
    "rounds",
    "slots_on",
    "sounding_of",
    "syllables_of",
    "unlike_legs",
    "unreduced",
    "with_click",
    "worked_out",
]
