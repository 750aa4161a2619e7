"""What is told of two hands, of strings and of the breath, as plain values: parts of what ``ripresa sums`` prints."""

from collections.abc import Sequence
from typing import Any

from ripresa.core.drill.hands import Articulated
from ripresa.core.exact import Fraction, division_label
from ripresa.core.reading import Reading
from ripresa.core.reports import (
    Against,
    Breath,
    breaks,
    breath_plan,
    breaths_by_rung,
    crossings,
    picking,
    thumbs,
)
from ripresa.core.rhythm import span_seconds
from ripresa.formats.hands_shape import (
    AgainstFigures,
    BreakFigures,
    BreathOf,
    CircuitLeg,
    ShapeFigures,
    StringFigures,
    ThumbFigures,
)
from ripresa.formats.reading_json import number


def against_figures(all_found: Sequence[Against], bpm: Fraction) -> list[AgainstFigures]:
    """Return how two hands lie against each other on each kind of leg."""
    return [
        AgainstFigures(
            leg=found.leg.index + 1,
            right=division_label(*found.right),
            left=division_label(*found.left),
            cycle_beats=number(found.beats),
            strokes=[str(onset) for onset in found.strokes],
            together=[str(onset) for onset in found.together],
            words=list(found.words),
            gap_ms=number(found.gap_seconds(bpm) * 1000),
            gap_cycle=str((found.gap or found.beats) / found.beats),
            right_nps=number(found.nps(found.right_notes, bpm)),
            left_nps=number(found.nps(found.left_notes, bpm)),
            both_nps=number(found.nps(len(found.strokes), bpm)),
            bars=None if found.bars is None else number(found.bars),
            phrase=list(found.phrase),
        )
        for found in all_found
    ]


def thumb_figures(reading: Reading) -> ThumbFigures | None:
    """Return where the thumbs of two hands pass; None where one plays or no fingers are written."""
    found = thumbs(reading)
    if found is None:
        return None
    return ThumbFigures(list(found.right), list(found.left), list(found.together), found.mirrored, found.met)


def string_figures(reading: Reading) -> StringFigures | None:
    """Return what happens across strings; None where nothing of them is known."""
    crossed, fingers = crossings(reading), picking(reading)
    shapes = [ShapeFigures(shape.symbol, shape.text, list(shape.fingers), shape.stretch) for shape in reading.shapes]
    if crossed is None and fingers is None and not shapes:
        return None
    return StringFigures(
        outside=crossed.outside if crossed else None,
        inside=crossed.inside if crossed else None,
        swept=crossed.swept if crossed else None,
        skipped=crossed.skipped if crossed else None,
        twice=[f"{finger}: {one.place_name} to {other.place_name}" for one, other, finger in fingers.twice]
        if fingers
        else [],
        crossed=fingers.crossed if fingers else None,
        shapes=shapes,
    )


def breath_figures(plan: Sequence[Breath]) -> list[BreathOf]:
    """Return every breath of a turn."""
    return [
        BreathOf(
            bar=one.first.bar,
            beat=one.first.beat,
            count=one.first.count,
            at=str(one.first.onset),
            notes=one.notes,
            seconds=number(one.seconds),
            fits=one.fits,
            why=one.why,
        )
        for one in plan
    ]


def break_figures(reading: Reading) -> list[BreakFigures]:
    """Return the breaks that lie within a drill."""
    return [BreakFigures(one.below.name, one.above.name, one.crossings) for one in breaks(reading)]


def circuit_figures(reading: Reading, bpm: Fraction) -> list[CircuitLeg]:
    """Return the articulation pattern of each leg, and its time; nothing where no pattern is asked for."""
    hands = reading.drill.hands
    if not isinstance(hands, Articulated):
        return []
    return [
        CircuitLeg(
            leg.index + 1,
            hands.of_leg(leg.index),
            list(hands.cycle_of(leg.index)),
            number(span_seconds(leg.beats, bpm)),
        )
        for leg in reading.legs
    ]


def rung_breaths(reading: Reading, tempi: Sequence[Fraction]) -> list[dict[str, Any]]:
    """Return the breaths of a turn at each rung, as plain values: what ``ripresa breath`` prints."""
    return [
        {
            "bpm": number(one.bpm),
            "breaths": one.breaths,
            "longest_seconds": number(one.longest),
            "one_more": one.one_more,
            "plan": [
                {"bar": breath.bar, "beat": breath.beat, "at": breath.at, "notes": breath.notes}
                | {"seconds": breath.seconds, "fits": breath.fits, "why": breath.why}
                for breath in breath_figures(breath_plan(reading, one.bpm))
            ],
        }
        for one in breaths_by_rung(reading, tempi)
    ]
