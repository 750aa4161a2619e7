"""The shapes of takes: figures as they are read, and dots for the pictures."""

from typing import Any

from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.exact import division_label, label, plural
from ripresa.core.studio import Take, TakeLine
from ripresa.core.takes import Evenness, Figures, Interval, LegFigures, Mark, Source, spread_limit
from ripresa.formats.wire import WireExact


class FigureShape(BaseModel):
    """A figure in words, its uncertainty, and how many notes it rests on."""

    label: str
    plus_minus: str
    count: int


class SlotShape(BaseModel):
    """One slot of the beat; dots in ms from the player's own middle."""

    slot: int
    count: str
    bias: FigureShape | None
    bias_ms: float | None
    share: str | None
    dots: list[float]


class LegDotsShape(BaseModel):
    """Where each slot of one division fell."""

    division: str
    slots: list[SlotShape]


class SeamShape(BaseModel):
    """A change of division: how it was met."""

    name: str
    sentence: str


class PointShape(BaseModel):
    """A point of the line through a take: seconds, and ms from the player's own middle."""

    at: float
    offset_ms: float


class FiguresShape(BaseModel):
    """What a take measured."""

    due: int
    matched: int
    missed: int
    extra: int
    bias: FigureShape | None
    bias_note: str
    spread: FigureShape | None
    drift: FigureShape | None
    drift_note: str
    legs: list[LegDotsShape]
    seams: list[SeamShape]
    line: list[PointShape]
    limit_ms: float


class TakeLineShape(BaseModel):
    """A take in a list: all but its pictures, which are asked for one take at a time."""

    id: str
    student_id: int
    climb_id: int | None
    rung: int | None
    drill_id: int
    version: int
    bpm: WireExact
    bpm_label: str
    source: Source
    played_at: str
    seconds: str
    mark: Mark
    reasons: list[str]
    note: str
    is_measured: bool


class TakeShape(TakeLineShape):
    """A take with its figures and pictures."""

    figures: FiguresShape | None


def take_line_shape(take: TakeLine) -> TakeLineShape:
    """Return the shape of a take in a list."""
    return TakeLineShape(**_values(take, take.seconds), is_measured=take.due is not None)


def _values(take: Take | TakeLine, seconds: float) -> dict[str, Any]:
    """Return what a take shows wherever it is shown."""
    return {
        "id": take.id,
        "student_id": take.student_id,
        "climb_id": take.climb_id,
        "rung": take.rung,
        "drill_id": take.drill_id,
        "version": take.version,
        "bpm": take.bpm,
        "bpm_label": label(take.bpm),
        "source": take.source,
        "played_at": take.played_at.isoformat(),
        "seconds": f"{seconds:.1f}",
        "mark": take.mark,
        "reasons": list(take.reasons),
        "note": take.note,
    }


def measured_words(take: TakeLine) -> str:
    """Return what a take measured in a sentence or two; empty where nothing was."""
    found = []
    if take.bias is not None and take.bias_half is not None and take.bias_count is not None:
        bias = _ms(Interval(take.bias, take.bias_half, take.bias_count), signed=True)
        found.append(f"Bias {bias.label} {bias.plus_minus} ({plural(bias.count, 'note')})." if bias else "")
    if take.drift_bpm is not None:
        found.append(f"Drift {_drift_words(take.drift_bpm)}.")
    return " ".join(found)


def take_shape(take: Take, evenness: Evenness) -> TakeShape:
    """Return the shape of a take, judged by a school of evenness."""
    figures = _figures(take.figures, evenness, take.is_calibrated) if take.figures else None
    return TakeShape(**_values(take, take.end - take.start), is_measured=figures is not None, figures=figures)


def _figures(figures: Figures, evenness: Evenness, is_calibrated: bool) -> FiguresShape:
    return FiguresShape(
        due=figures.due,
        matched=figures.matched,
        missed=figures.missed,
        extra=figures.extra,
        bias=_ms(figures.bias, signed=True),
        bias_note=(
            "against the click"
            if is_calibrated
            else "latency not measured: a change between takes says something, the number alone does not"
        ),
        spread=_ms(figures.spread),
        drift=_drift(figures.drift_bpm_a_minute),
        drift_note=_drift_note(figures),
        legs=[_leg(leg) for leg in figures.legs],
        seams=[
            SeamShape(
                name=f"{division_label(seam.before)} → {division_label(seam.after)}",
                sentence=_seam(seam.offset, seam.changes),
            )
            for seam in figures.seams
        ],
        line=[PointShape(at=at, offset_ms=offset * 1000) for at, offset in figures.line],
        limit_ms=spread_limit(evenness, figures.gap_seconds) * 1000,
    )


def _leg(leg: LegFigures) -> LegDotsShape:
    return LegDotsShape(
        division=division_label(leg.division),
        slots=[
            SlotShape(
                slot=slot.slot,
                count=slot.count,
                bias=_ms(slot.bias, signed=True),
                bias_ms=slot.bias.value * 1000 if slot.bias else None,
                share=f"{slot.share * 100:.1f} %" if slot.share is not None else None,
                dots=[round(dot * 1000, 2) for dot in slot.dots],
            )
            for slot in leg.slots
        ],
    )


def _seam(offset: Interval, changes: int) -> str:
    times = "once" if changes == 1 else f"{changes} times"
    side = "late" if offset.value >= 0 else "early"
    few = " Too few to judge." if changes < 10 else ""
    return f"{abs(offset.value) * 1000:.0f} ms {side} ± {offset.half_width * 1000:.0f}, heard {times}.{few}"


def _ms(interval: Interval | None, *, signed: bool = False) -> FigureShape | None:
    if interval is None:
        return None
    shown = f"{interval.value * 1000:+.0f}" if signed else f"{interval.value * 1000:.0f}"
    shown = "0" if shown in {"+0", "-0"} else shown.replace("-", "−")
    return FigureShape(label=f"{shown} ms", plus_minus=f"± {interval.half_width * 1000:.0f}", count=interval.count)


def _drift(interval: Interval | None) -> FigureShape | None:
    if interval is None:
        return None
    return FigureShape(
        label=_drift_words(interval.value),
        plus_minus=f"± {interval.half_width:.1f}",
        count=interval.count,
    )


def _drift_words(bpm_a_minute: float) -> str:
    return f"{abs(bpm_a_minute):.1f} bpm {'faster' if bpm_a_minute >= 0 else 'slower'} a minute"


def _drift_note(figures: Figures) -> str:
    percent = figures.drift_percent
    if percent is None:
        return "too short to tell a drift"
    side = "faster" if percent.value >= 0 else "slower"
    return f"{abs(percent.value):.1f} % {side} than asked, ± {percent.half_width:.1f}"
