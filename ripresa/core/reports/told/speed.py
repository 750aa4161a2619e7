"""Speeds and changes of division, in words."""

from ripresa.core.exact import Fraction, decimal, division_label, label, short
from ripresa.core.reading import Reading
from ripresa.core.rhythm import GearChange, span_seconds


def working(bpm: Fraction, per_beat: Fraction) -> str:
    """Return how a speed is worked out: ``108 bpm = 1.8 beats a second; × 4 = 7.2 notes a second``."""
    beats = bpm / 60
    speed = short(beats * per_beat)
    return f"{label(bpm)} bpm = {short(beats)} beats a second; × {label(per_beat)} = {speed} notes a second"


def closest_told(reading: Reading, bpm: Fraction) -> str:
    """Return how close the closest notes are, and at which division they stand: ``at 4 a beat, 119.0 ms …``."""
    gaps = reading.gaps()
    if not gaps:
        return ""
    shortest = min(gaps)
    before = reading.notes[gaps.index(shortest)]
    at = f"at {division_label(before.division)} a beat, " if before.slot_beats == shortest else ""
    return f"{at}{decimal(span_seconds(shortest, bpm) * 1000, 1)} ms between notes"


def gear_told(change: GearChange) -> tuple[str, str]:
    """Return a change of division: its name, ``5 → 6``, and its sentence."""
    before, after = (decimal(gap * 1000, 1) for gap in (change.gap_before, change.gap_after))
    percent = change.speed_change * 100
    sign = "+" if percent > 0 else ""
    return (
        f"{division_label(change.before)} → {division_label(change.after)}",
        f"{before} → {after} ms, gap × {decimal(change.gap_ratio, 3)}, speed {sign}{decimal(percent, 0)} %. "
        "The beat does not move.",
    )
