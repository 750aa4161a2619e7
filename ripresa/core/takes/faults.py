"""Faults: each figure of a take against its limit, inside, outside or too near to say."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import sqrt
from typing import Literal

from ripresa.core.exact import division_label
from ripresa.core.takes.figures import Figures, LegFigures
from ripresa.core.takes.interval import SHOWN, Interval, chances, student
from ripresa.core.takes.landing import pooled
from ripresa.core.takes.limits import Limits

FaultKind = Literal[
    "seam",
    "habit",
    "crowding",
    "tempo",
    "click",
    "spread",
    "lost_beat",
    "group",
    "hand",
    "accent",
    "misplaced",
    "smear",
    "landing",
    "slips",
    "together",
]
#: What each hand is called in a sentence.
HAND_WORDS = {"R": "right hand", "L": "left hand"}
State = Literal["inside", "near", "outside"]

#: Crowding: the last share of a beat longer than the mean of the others by this part.
CROWDED = 0.25
#: A share of slips is held against limits that are so much wider and narrower: what the law promises at any number
#: of notes is that 1.2 of a limit is not called clean, and 0.8 not shaky, more than 5 times in 100.
_SLIPS_WIDE, _SLIPS_NARROW, _RARELY = 1.2, 0.8, 0.05
_FEWEST_IN_LEG = 8
#: A hand is the weak one where the others have less than this part of its spread.
_LESS_UNEVEN = 0.75
_FEWEST_LANDINGS = 3
#: Notes sound so much longer than they are asked to: our choice.
_SMEARED = 1.3
#: Accents on the wrong slot, of those that were heard.
_MISPLACED = 0.15


@dataclass(frozen=True, slots=True)
class Fault:
    """A figure beside its limit.

    Args:
        kind: What it is. where: In words or numbers: ``"5 → 6"``, ``"slot 3 of 4"``, ``"hand R"``.
        value, half_width, limit: In seconds, per cent, dB, or a share of the notes; see ``unit``.
        unit: ``"s"``, ``"%"``, ``"dB"`` or ``"notes"``.
        division, slot, symbol: What a remedy needs to know.
        times, of: How often it was outside, of how many times that it was heard.
        event, turn: Where it begins, for what happens once.
    """

    kind: FaultKind
    where: str
    value: float
    half_width: float
    limit: float
    unit: str = "s"
    division: str = ""
    slot: int | None = None
    symbol: str = ""
    times: int = 0
    of: int = 0
    event: int | None = None
    turn: int = 0


@dataclass(frozen=True, slots=True)
class Checked:
    """A figure held against its limit; weight sorts the worst first: value / limit."""

    fault: Fault
    state: State

    @property
    def weight(self) -> float:
        """How far it goes, in limits; what is lost altogether comes first."""
        fault = self.fault
        if fault.kind in {"lost_beat", "group"}:
            return 1e3 + fault.value
        if fault.kind == "accent":
            return 1.0 + max(0.0, fault.limit - fault.value) / max(fault.limit, 1e-9)
        return abs(fault.value) / max(fault.limit, 1e-9)


def check_all(
    figures: Figures,
    limits: Limits,
    earlier: Sequence[Figures] = (),
    articulation: float = 1.0,
    errs: float = 0.0,
) -> list[Checked]:
    """Return every figure of a take that its drill is about, held against its limit.

    Args:
        articulation: For which share of its length the drill lets a note sound; below 1 it is about that too.
        errs: The share of notes that the source itself loses: so many more make no take shaky.
    """
    return [
        *_slips(figures, limits, earlier, errs),
        *_lost(figures),
        *_legs(figures, limits),
        *_line(figures, limits),
        *_seams(figures, limits, earlier),
        *_landings(figures, limits),
        *_hands(figures, limits),
        *_together(figures, limits),
        *_accents(figures, limits),
        *_lengths(figures, articulation),
    ]


def state_of(interval: Interval, limit: float, family: int = 1) -> State:
    """Return where a figure lies beside its limit, whichever side of 0.

    Inside and outside by the 90 % interval; of a family of figures the outermost one has to lie farther out, so
    that many slots do not make a fault by chance (Bonferroni).
    """
    size = abs(interval.value)
    if size + interval.half() < limit:
        return "inside"
    return "outside" if size - interval.half(1 - 0.10 / family) > limit else "near"


def slip_bounds(due: int, allowed: float) -> tuple[int, int]:
    """Return (most slips of a clean take, fewest of a shaky one) of so many notes, for a share that is allowed.

    −1 where too few notes are due to promise anything.

    >>> slip_bounds(60, 0.03), slip_bounds(400, 0.03)
    ((-1, 5), (8, 16))
    """
    clean = next(slips for slips, seen in enumerate(chances(due, _SLIPS_WIDE * allowed)) if seen >= _RARELY) - 1
    narrow = enumerate(chances(due, _SLIPS_NARROW * allowed), start=1)
    return clean, next(slips for slips, seen in narrow if slips > clean and 1 - seen < _RARELY)


def _slips(figures: Figures, limits: Limits, earlier: Sequence[Figures], errs: float) -> Iterator[Checked]:
    due = figures.due + sum(one.due for one in earlier)
    slips = figures.slips + sum(one.slips for one in earlier)
    limit = limits.of("slips").amount
    own_clean, own_shaky = slip_bounds(figures.due, limit)[0], slip_bounds(figures.due, limit + errs)[1]
    clean, shaky = slip_bounds(due, limit)[0], slip_bounds(due, limit + errs)[1]
    share = figures.slips / max(1, figures.due)
    half = student(SHOWN, 1e6) * sqrt(max(share * (1 - share), 1 / max(1, figures.due)) / max(1, figures.due))
    state: State = "near"
    if figures.slips >= own_shaky or (slips >= shaky and share > limit + errs):
        state = "outside"
    elif figures.slips <= own_clean or (slips <= clean and share <= limit):
        state = "inside"
    fault = Fault("slips", "", share, half, limit, "notes", times=figures.slips, of=figures.due)
    yield Checked(fault, state)


def _lost(figures: Figures) -> Iterator[Checked]:
    for lost in figures.lost:
        kind: FaultKind = "group" if lost.kind == "group" else "lost_beat"
        fault = Fault(kind, lost.kind, lost.beats, 0.0, 0.0, "beats", event=lost.event, turn=lost.turn)
        yield Checked(fault, "outside")


def _legs(figures: Figures, limits: Limits) -> Iterator[Checked]:
    legs = [leg for leg in figures.legs if leg.spread is not None and leg.spread.count >= _FEWEST_IN_LEG]
    slots = sum(slot.habit is not None for leg in legs for slot in leg.slots)
    for leg in legs:
        name = division_label(leg.division)
        if leg.spread is not None:
            limit = limits.of("spread").at(leg.gap)
            where = f"{name}, {HAND_WORDS[leg.hand]}" if leg.hand else name
            fault = Fault("spread", where, leg.spread.value, leg.spread.half_width, limit, division=name)
            yield Checked(fault, state_of(leg.spread, limit, len(legs)))
        yield from _slots(leg, name, limits, max(1, slots))


def _slots(leg: LegFigures, name: str, limits: Limits, family: int) -> Iterator[Checked]:
    limit = limits.of("habit").at(leg.gap)
    for slot in leg.slots:
        if slot.habit is None:
            continue
        fault = Fault(
            "habit",
            slot.count,
            slot.habit.value,
            slot.habit.half_width,
            limit,
            division=name,
            slot=slot.slot,
            symbol=leg.hand,
        )
        yield Checked(fault, state_of(slot.habit, limit, family))
    if leg.crowding is not None and leg.crowding.value - leg.crowding.half() > CROWDED:
        last = leg.slots[-1]
        value, half = leg.crowding.value * 100, leg.crowding.half_width * 100
        fault = Fault("crowding", last.count, value, half, CROWDED * 100, "%", division=name, slot=last.slot)
        yield Checked(fault, "outside")


def _line(figures: Figures, limits: Limits) -> Iterator[Checked]:
    tempo, click = figures.tempo_percent, figures.with_click
    if tempo is not None:
        limit = limits.of("tempo").amount * 100
        yield Checked(Fault("tempo", "", tempo.value, tempo.half_width, limit, "%"), state_of(tempo, limit))
    if click is not None:
        limit = limits.of("click").at(figures.gap_seconds)
        yield Checked(Fault("click", "", click.value, click.half_width, limit), state_of(click, limit))


def _seams(figures: Figures, limits: Limits, earlier: Sequence[Figures]) -> Iterator[Checked]:
    own = {(seam.kind, seam.name) for seam in figures.seams}
    found = [
        seam
        for seam in pooled([*(one.seams for one in earlier), figures.seams])
        if (seam.kind, seam.name) in own and seam.kind in {"division", "meter"}
    ]
    for seam in found:
        limit = limits.of("seam").at(seam.gap)
        times = sum(abs(value) > limit and value * seam.first.value > 0 for value in seam.each)
        fault = Fault("seam", seam.name, seam.first.value, seam.first.half_width, limit, times=times, of=len(seam.each))
        yield Checked(fault, state_of(seam.first, limit, len(found)))


def _landings(figures: Figures, limits: Limits) -> Iterator[Checked]:
    told = [one for one in figures.landings if one.times >= _FEWEST_LANDINGS]
    for landing in told:
        limit = limits.of("seam").at(landing.gap)
        fault = Fault("landing", landing.kind, landing.offset.value, landing.offset.half_width, limit, of=landing.times)
        yield Checked(fault, state_of(landing.offset, limit, len(told)))
    fills = figures.fills
    if fills is not None:
        limit = 100 * limits.of("tempo").amount * 3
        if abs(fills.value) - fills.half() > limit:
            yield Checked(Fault("landing", "inside fills", fills.value, fills.half_width, limit, "%"), "outside")


def _hands(figures: Figures, limits: Limits) -> Iterator[Checked]:
    """A hand is weak where it alone is outside: the spread of all is the spread’s own fault."""
    told = [hand for hand in figures.hands if hand.spread is not None]
    limit = limits.of("spread").at(figures.gap_seconds)
    habit = limits.of("habit").at(figures.gap_seconds)
    for hand in told:
        others = [one.spread for one in told if one is not hand and one.spread is not None]
        own = hand.spread
        alone = own is not None and others and all(one.value < _LESS_UNEVEN * own.value for one in others)
        if own is not None and alone:
            fault = Fault("hand", "spread", own.value, own.half_width, limit, symbol=hand.symbol)
            yield Checked(fault, state_of(own, limit, len(told)))
        if hand.habit is not None and state_of(hand.habit, habit, len(told)) == "outside":
            fault = Fault("hand", "habit", hand.habit.value, hand.habit.half_width, habit, symbol=hand.symbol)
            yield Checked(fault, "outside")


def _together(figures: Figures, limits: Limits) -> Iterator[Checked]:
    found = figures.together
    if found is None:
        return
    limit = limits.of("together").at(found.gap)
    symbol = "L" if found.apart.value >= 0 else "R"
    fault = Fault("together", "", found.apart.value, found.apart.half_width, limit, symbol=symbol, of=found.apart.count)
    yield Checked(fault, state_of(found.apart, limit))


def _accents(figures: Figures, limits: Limits) -> Iterator[Checked]:
    accents = figures.accents
    if accents is None or accents.over_plain is None:
        return
    over, limit = accents.over_plain, limits.of("accent").amount
    state: State = "near"
    if over.value - over.half() > limit:
        state = "inside"
    elif over.value + over.half() < limit:
        state = "outside"
    yield Checked(Fault("accent", "", over.value, over.half_width, limit, "dB"), state)
    if accents.due and accents.misplaced > max(1, _MISPLACED * accents.due):
        share = accents.misplaced / accents.due
        fault = Fault("misplaced", "", share, 0.0, _MISPLACED, "notes", times=accents.misplaced, of=accents.due)
        yield Checked(fault, "outside")


def _lengths(figures: Figures, articulation: float) -> Iterator[Checked]:
    """Notes that run into each other where the drill asks for short ones."""
    sounding, limit = figures.articulation, _SMEARED * articulation
    if articulation < 1 and sounding is not None and sounding.value - sounding.half() > limit:
        fault = Fault("smear", "", sounding.value * 100, sounding.half_width * 100, limit * 100, "%")
        yield Checked(fault, "outside")
