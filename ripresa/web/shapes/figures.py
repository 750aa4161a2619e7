"""The shapes of figures: what a take measured, in words and as dots for the pictures; ms, per cent and dB."""

from collections.abc import Sequence

from ripresa.core.drill.second import BALANCES, Balance
from ripresa.core.exact import division_label, plural
from ripresa.core.reading import Reading
from ripresa.core.takes import (
    HAND_WORDS,
    Figures,
    Furthest,
    Interval,
    LegFigures,
    Limits,
    LostBeat,
    PlaceFigures,
    Point,
    SeamFigures,
    furthest_limit,
    shown_ms,
    times_beyond,
)
from ripresa.formats.wire import Shape


class FigureShape(Shape):
    """A figure in words, its uncertainty, and how many notes it rests on."""

    label: str
    plus_minus: str
    count: int


class DotShape(Shape):
    """A note of a slot: ms from the fit; its event in the reading, −1 where that is not known; in words."""

    ms: float
    event: int
    turn: int


class SlotShape(Shape):
    """One slot of the beat."""

    slot: int
    count: str
    habit: FigureShape | None
    habit_words: str
    habit_ms: float | None
    share: str | None
    dots: list[DotShape]


class LegDotsShape(Shape):
    """Where each slot of one division fell, within which limits."""

    division: str
    limit_ms: float
    spread: FigureShape | None
    slots: list[SlotShape]


class SeamShape(Shape):
    """A change: how it was met."""

    name: str
    sentence: str


class PointShape(Shape):
    """A point of the line through a take: seconds, ms from the player's own middle, and its note."""

    at: float
    offset_ms: float
    event: int
    turn: int


class TakeMarkShape(Shape):
    """Something that is marked on the line through a take: a change, or where a beat was lost."""

    at: float
    kind: str
    label: str
    event: int


class TakePlaceShape(Shape):
    """A note of the drill that is off over its repeats: its event, where it stands, by how much, why there.

    Args:
        beats: How far from its place it comes, early below 0. short: The same in two words, in ms.
    """

    event: int
    name: str
    sentence: str
    short: str
    beats: float
    reason: str
    outside: bool


class HandShape(Shape):
    """What one hand, pick direction or syllable does."""

    symbol: str
    sentence: str


class FiguresShape(Shape):
    """What a take measured."""

    due: int
    matched: int
    missed: int
    extra: int
    wrong: int
    bias: FigureShape | None
    bias_note: str
    spread: FigureShape | None
    drift: FigureShape | None
    drift_note: str
    legs: list[LegDotsShape]
    seams: list[SeamShape]
    hands: list[HandShape]
    accents: str
    together: str
    landings: list[str]
    places: list[TakePlaceShape]
    furthest: str
    line: list[PointShape]
    marks: list[TakeMarkShape]
    limit_ms: float


def figures_shape(figures: Figures, limits: Limits, reading: Reading, marks: Sequence[TakeMarkShape]) -> FiguresShape:
    """Return what a take measured, beside what it was held to.

    Args:
        marks: Of the changes, on the line through the take.
    """
    return FiguresShape(
        due=figures.due,
        matched=figures.matched,
        missed=figures.missed,
        extra=figures.extra,
        wrong=figures.wrong,
        bias=ms_shape(figures.with_click or figures.bias, signed=True),
        bias_note=(
            "against the click"
            if figures.with_click
            else "latency not measured: a change between takes says something, the number alone does not"
        ),
        spread=ms_shape(figures.spread),
        drift=_drift(figures.bend),
        drift_note=_tempo_note(figures.tempo_percent),
        legs=[_leg(leg, limits) for leg in figures.legs],
        seams=[
            SeamShape(name=f"{seam.name} inside" if seam.kind == "inside" else seam.name, sentence=_seam(seam, limits))
            for seam in figures.seams
        ],
        hands=_hands(figures),
        accents=_accents(figures),
        together=_together(figures, limits, reading.drill.second.balance),
        landings=[f"{one.kind}: {_signed(one.offset)} ms, {plural(one.times, 'time')}" for one in figures.landings],
        places=[_place(one, limits, reading) for one in figures.places],
        furthest=_furthest(figures.furthest, limits),
        line=[
            PointShape(at=point.at, offset_ms=round(point.offset * 1000, 2), event=point.event, turn=point.turn)
            for point in figures.line
        ],
        marks=[*marks, *(_lost(lost, figures.line, reading) for lost in figures.lost)],
        limit_ms=limits.of("spread").at(figures.gap_seconds) * 1000,
    )


def ms_shape(interval: Interval | None, *, signed: bool = False) -> FigureShape | None:
    """Return an interval of seconds in ms and in words."""
    if interval is None:
        return None
    shown = f"{interval.value * 1000:+.0f}" if signed else f"{interval.value * 1000:.0f}"
    shown = "0" if shown in {"+0", "-0"} else shown.replace("-", "−")
    return FigureShape(label=f"{shown} ms", plus_minus=f"± {shown_ms(interval.half_width)}", count=interval.count)


def habit_words(habit: Interval | None) -> str:
    """Return where the notes of a place fall, in words: what lies inside its own uncertainty is in place."""
    if habit is None:
        return "too few"
    if abs(habit.value) <= habit.half_width:
        return "in place"
    return f"{abs(habit.value) * 1000:.0f} ms {'late' if habit.value > 0 else 'early'}"


def _leg(leg: LegFigures, limits: Limits) -> LegDotsShape:
    return LegDotsShape(
        division=f"{HAND_WORDS[leg.hand]}, {division_label(leg.division)}"
        if leg.hand
        else division_label(leg.division),
        limit_ms=limits.of("habit").at(leg.gap) * 1000,
        spread=ms_shape(leg.spread),
        slots=[
            SlotShape(
                slot=slot.slot,
                count=slot.count,
                habit=ms_shape(slot.habit, signed=True),
                habit_words=habit_words(slot.habit),
                habit_ms=slot.habit.value * 1000 if slot.habit else None,
                share=f"{slot.share * 100:.1f} %" if slot.share is not None else None,
                dots=[DotShape(ms=round(dot.offset * 1000, 2), event=dot.event, turn=dot.turn) for dot in slot.dots],
            )
            for slot in leg.slots
        ],
    )


def _seam(seam: SeamFigures, limits: Limits) -> str:
    limit = limits.of("seam").at(seam.gap)
    times = {0: "in a take of old", 1: "once"}.get(len(seam.each), f"{len(seam.each)} times")
    side = "late" if seam.first.value >= 0 else "early"
    back = seam.back_in(limit)
    after = f" Back in the band in beat {back} after it." if back and back > 1 else ""
    return (
        f"first beat {abs(seam.first.value) * 1000:.0f} ms {side} ± {shown_ms(seam.first.half_width)} "
        f"(limit {limit * 1000:.0f}), heard {times}.{after}"
    )


def _place(place: PlaceFigures, limits: Limits, reading: Reading) -> TakePlaceShape:
    limit = limits.of("seam").at(place.gap)
    value = place.offset.value
    times = times_beyond(place.each, limit, value)
    side = "late" if value >= 0 else "early"
    return TakePlaceShape(
        event=place.event,
        name=place.name,
        sentence=f"{abs(value) * 1000:.0f} ± {shown_ms(place.offset.half_width)} ms {side}, "
        f"{times} times of {len(place.each)}",
        short=f"{abs(value) * 1000:.0f} {side}",
        beats=round(value / place.gap * float(reading.every[place.event].slot_beats), 4),
        reason=place.reason,
        outside=abs(value) > limit,
    )


def _furthest(found: Furthest | None, limits: Limits) -> str:
    if found is None:
        return ""
    of = "the click" if found.is_known else "where it began"
    return (
        f"{_signed(found.offset)} ms from {of}, at {found.place} of pass {found.turn + 1} "
        f"(limit {furthest_limit(found, limits) * 1000:.0f})"
    )


def _hands(figures: Figures) -> list[HandShape]:
    found = []
    for hand in figures.hands:
        parts = []
        if hand.habit:
            parts.append(f"{_signed(hand.habit)} ms beside the others")
        if hand.spread:
            parts.append(f"spread {hand.spread.value * 1000:.0f} ± {shown_ms(hand.spread.half_width)} ms")
        if hand.level:
            parts.append(f"level {hand.level.value:.1f} dB".replace("-", "−"))
        if parts:
            found.append(HandShape(symbol=hand.symbol, sentence=", ".join(parts)))
    return found


def _together(figures: Figures, limits: Limits, balance: Balance) -> str:
    found = figures.together
    if found is None:
        return ""
    limit = limits.of("together").at(found.gap) * 1000
    told = (
        f"the left hand {_signed(found.apart)} ms after the right where they meet, {plural(found.apart.count, 'time')} "
        f"(limit {limit:.0f}), spread {found.spread.value * 1000:.0f} ± {shown_ms(found.spread.half_width)} ms"
    )
    if found.louder is None:
        return told
    side = "louder" if found.louder.value >= 0 else "softer"
    return (
        f"{told}; the right hand {abs(found.louder.value):.1f} ± {found.louder.half_width:.1f} dB {side}, "
        f"the left one was to be {BALANCES[balance][2]}"
    )


def _accents(figures: Figures) -> str:
    accents = figures.accents
    if accents is None:
        return ""
    parts = []
    if accents.over_plain:
        parts.append(f"accents {_db(accents.over_plain)} over plain notes")
    if accents.over_ghost:
        parts.append(f"plain notes {_db(accents.over_ghost)} over ghosts")
    if accents.misplaced:
        parts.append(f"{accents.misplaced} of {accents.due} accents beside their place")
    return "; ".join(parts)


def _lost(lost: LostBeat, line: Sequence[Point], reading: Reading) -> TakeMarkShape:
    at = next((point.at for point in line if (point.turn, point.event) >= (lost.turn, lost.event)), 0.0)
    event = reading.every[lost.event]
    words = {"late": "lost", "early": "won", "silent": "left out", "group": "a group off", "back": "once more"}[
        lost.kind
    ]
    return TakeMarkShape(
        at=at,
        kind="lost",
        label=f"{lost.beats:.1f} beats {words}, bar {event.bar} beat {event.beat}",
        event=lost.event,
    )


def _signed(interval: Interval) -> str:
    value = f"{interval.value * 1000:+.0f}".replace("-", "−")
    value = "0" if value in {"+0", "−0"} else value
    return f"{value} ± {shown_ms(interval.half_width)}"


def _db(interval: Interval) -> str:
    return f"{interval.value:.1f} ± {interval.half_width:.1f} dB".replace("-", "−")


def _drift(interval: Interval | None) -> FigureShape | None:
    if interval is None:
        return None
    return FigureShape(
        label=drift_words(interval.value), plus_minus=f"± {interval.half_width:.1f}", count=interval.count
    )


def drift_words(bpm_a_minute: float) -> str:
    """Return how the tempo itself changes, in words."""
    return f"{abs(bpm_a_minute):.1f} bpm {'faster' if bpm_a_minute >= 0 else 'slower'} a minute"


def _tempo_note(percent: Interval | None) -> str:
    if percent is None:
        return "too short to tell a drift"
    side = "faster" if percent.value >= 0 else "slower"
    return f"{abs(percent.value):.1f} % {side} than asked, ± {percent.half_width:.1f}"
