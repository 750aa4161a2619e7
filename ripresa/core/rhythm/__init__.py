"""Beats, divisions and tempi: how time is cut and counted, without anything that sounds.

Lengths are fractions of a beat of the bpm; seconds come from ``span_seconds`` and from nowhere else.
"""

from ripresa.core.rhythm.count_words import CountedBeat, Filled, parse_count, parse_named, slot_word, there, write_count
from ripresa.core.rhythm.counting import (
    EIGHT,
    RUNS,
    SYLLABLES,
    SYSTEMS,
    Counting,
    count_word,
    ordinal,
    place_name,
    slot_name,
)
from ripresa.core.rhythm.kinds import Level, SlotKind
from ripresa.core.rhythm.meter import METERS, Bar, Meter
from ripresa.core.rhythm.meter_text import leg_meters, meter_named
from ripresa.core.rhythm.swing import RATIOS, Swing, leads
from ripresa.core.rhythm.tempo import (
    FASTEST_BPM,
    MIDDLE_RATE,
    SETTINGS,
    SLOWEST_BPM,
    GearChange,
    Settings,
    band_place,
    bpm_for_speed,
    check_bpm,
    gap_seconds,
    gear_change,
    inner_pulse,
    neighbours,
    setting,
    span_seconds,
    speed_nps,
    speed_twins,
    tapped_bpm,
)

__all__ = [
    "EIGHT",
    "FASTEST_BPM",
    "METERS",
    "MIDDLE_RATE",
    "RATIOS",
    "RUNS",
    "SETTINGS",
    "SLOWEST_BPM",
    "SYLLABLES",
    "SYSTEMS",
    "Bar",
    "CountedBeat",
    "Counting",
    "Filled",
    "GearChange",
    "Level",
    "Meter",
    "Settings",
    "SlotKind",
    "Swing",
    "band_place",
    "bpm_for_speed",
    "check_bpm",
    "count_word",
    "gap_seconds",
    "gear_change",
    "inner_pulse",
    "leads",
    "leg_meters",
    "meter_named",
    "neighbours",
    "ordinal",
    "parse_count",
    "parse_named",
    "place_name",
    "setting",
    "slot_name",
    "slot_word",
    "span_seconds",
    "speed_nps",
    "speed_twins",
    "tapped_bpm",
    "there",
    "write_count",
]
