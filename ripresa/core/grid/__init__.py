"""Places in time and what fills them: slots before they are laid, places as they are laid, events as they are read.

Positions are added up in one place, the ``Cursor``, and nothing it hands out crosses a bar line.
"""

from ripresa.core.grid.counted import MOST_BARS_COUNTED, Counted, counted
from ripresa.core.grid.event import HANDS_OF, Event, Hit, Layer, LegReading, SlotPlace
from ripresa.core.grid.how import AS_WRITTEN, ORNAMENTS, How, Ornament, Pluck
from ripresa.core.grid.place import Cursor, Place, Restart, Slot, Spot, in_turn, slot_numbers, stretch_of
from ripresa.core.grid.progression import CHORD_WORD, ChordSpan, chord_at, parse_progression, span_at, unequal_bars
from ripresa.core.grid.record import Record, altered
from ripresa.core.grid.touch import Touch, roman

__all__ = [
    "AS_WRITTEN",
    "CHORD_WORD",
    "HANDS_OF",
    "MOST_BARS_COUNTED",
    "ORNAMENTS",
    "ChordSpan",
    "Counted",
    "Cursor",
    "Event",
    "Hit",
    "How",
    "Layer",
    "LegReading",
    "Ornament",
    "Place",
    "Pluck",
    "Record",
    "Restart",
    "Slot",
    "SlotPlace",
    "Spot",
    "Touch",
    "altered",
    "chord_at",
    "counted",
    "in_turn",
    "parse_progression",
    "roman",
    "slot_numbers",
    "span_at",
    "stretch_of",
    "unequal_bars",
]
