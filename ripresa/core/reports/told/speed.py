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
    """Return how close the closest notes are, and at which division they stand: ``4 a beat, 119 ms apart``."""
    gaps = reading.gaps()
    if not gaps:
        return ""
    shortest = min(gaps)
    before = reading.notes[gaps.index(shortest)]
    at = f"{division_label(before.division)} a beat, " if before.slot_beats == shortest else ""
    return f"{at}{decimal(span_seconds(shortest, bpm) * 1000, 0)} ms apart"


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


_PARTS = {2: "half", 3: "third", 4: "quarter", 5: "fifth", 6: "sixth", 7: "seventh", 8: "eighth", 9: "ninth"}


def gear_words(change: GearChange) -> str:
    """Return how much faster a change is, as it is said: ``half as fast again (+50 %)``, ``a third faster (+33 %)``."""
    share = change.speed_change
    percent = f"{'+' if share > 0 else '−'}{decimal(abs(share) * 100, 0)} %"
    if share == 0:
        return "the same speed"
    if (1 + share).denominator == 1:
        times = label(1 + share)
        return f"{'twice' if times == '2' else f'{times} times'} as fast ({percent})"
    if (1 / (1 + share)).denominator == 1 and 1 / (1 + share) in _PARTS:
        part = _PARTS[int(1 / (1 + share))]
        return f"{part if part == 'half' else f'a {part}'} as fast ({percent})"
    if abs(share).numerator == 1 and abs(share).denominator in _PARTS:
        part = _PARTS[abs(share).denominator]
        if part == "half" and share > 0:
            return f"half as fast again ({percent})"
        return f"a {part} {'faster' if share > 0 else 'slower'} ({percent})"
    return f"{decimal(abs(share) * 100, 0)} % {'faster' if share > 0 else 'slower'}"
