"""Faults: each figure of a take against its limit, inside, outside or too near to say."""

from collections.abc import Iterator, Sequence
from math import ceil

from ripresa.core.takes.evenness import checked_legs
from ripresa.core.takes.fault import Checked, Fault, FaultKind, State, state_of
from ripresa.core.takes.figures import Figures, Furthest, SeamFigures
from ripresa.core.takes.interval import Interval, times_beyond
from ripresa.core.takes.landing import pooled
from ripresa.core.takes.limits import Limit, Limits
from ripresa.core.takes.slips import misplaced, slip_bounds
from ripresa.core.takes.touch import SMEARED

#: Kinds of change that are judged.
JUDGED_CHANGES = ("division", "meter", "inside")
#: Figures that a word always rests on.
_ALWAYS = ("spread", "slips", "accent")
#: A tempo is known where its half-width is such a part of the limit: of a few notes it never is.
_TEMPO_KNOWN = 0.5
#: What part of its own weight a figure has that follows from others.
_FOLLOWS = 0.1
_ORDER: tuple[State, ...] = ("inside", "near", "outside")
#: Of how many notes each place that is told is one, about: a place has to stand out among them.
_PLACES = 10
#: A hand is the weak one where the others have less than this part of its spread.
_LESS_UNEVEN = 0.75
_FEWEST_LANDINGS = 3
#: Accents on the wrong slot, of those that were heard.
_MISPLACED = 0.15


def check_all(
    figures: Figures,
    limits: Limits,
    earlier: Sequence[Figures] = (),
    articulation: float = 1.0,
    errs: float = 0.0,
    rings: bool = False,
) -> list[Checked]:
    """Return every figure of a take that its drill is about, held against its limit.

    Args:
        articulation: For which share of its length the drill lets a note sound.
        rings: Whether what is struck rings on by itself: then whole notes cannot be too long.
        earlier: Takes of the same rung and click: changes are pooled over them where this one is too near to say.
        errs: The share of notes that the source itself loses: so many more make no take shaky.
    """
    found = (
        *_slips(figures, limits, errs),
        *_lost(figures),
        *checked_legs(figures, limits),
        *_line(figures, limits),
        *_furthest(figures, limits),
        *_seams(figures, limits, earlier),
        *_places(figures, limits),
        *_landings(figures, limits),
        *_hands(figures, limits),
        *_together(figures, limits),
        *_accents(figures, limits),
        *(() if rings and articulation == 1 else _lengths(figures, articulation)),
    )
    return [one for one in found if is_figure(one)]


def is_figure(checked: Checked) -> bool:
    """Return whether a figure is one: what is less sure than its whole limit says nothing, unless it lies beyond it.

    The evenness is what a take is about: while it is that unsure, nothing is said of the take.
    """
    fault = checked.fault
    known = fault.limit * (_TEMPO_KNOWN if fault.kind == "tempo" else 1.0)
    is_beyond = checked.state == "outside" or abs(fault.value) > fault.limit
    return is_beyond or fault.kind in _ALWAYS or fault.half_width <= known


def _slips(figures: Figures, limits: Limits, errs: float) -> Iterator[Checked]:
    """Slips are counted: a take has as many as it has. What its source loses by itself widens what is too near."""
    limit = limits.of("slips").amount
    far = misplaced(figures, limits)
    slips = figures.missed + figures.extra + figures.wrong + far
    allowed = slip_bounds(figures.due, limit)
    lost = ceil(figures.due * errs)
    state: State = "inside" if slips <= allowed else "near" if slips <= allowed + 1 + lost else "outside"
    share = slips / max(1, figures.due)
    # Who is uneven misplaces notes; who leaves them out, or finds others, has slips first of all.
    own = (slips - far) / slips if slips else 1.0
    yield Checked(Fault("slips", "", share, 0.0, limit, "notes", times=slips, of=figures.due), state, own)


def _lost(figures: Figures) -> Iterator[Checked]:
    for lost in figures.lost:
        kind: FaultKind = "group" if lost.kind == "group" else "back" if lost.kind == "back" else "lost_beat"
        fault = Fault(
            kind, lost.kind, lost.beats, 0.0, 0.0, "beats", symbol=lost.place, event=lost.event, turn=lost.turn
        )
        yield Checked(fault, "outside")


def _line(figures: Figures, limits: Limits) -> Iterator[Checked]:
    tempo, click = figures.tempo_percent, figures.with_click
    limit = limits.of("tempo").amount * 100
    corner = figures.corner
    if corner is not None:
        for where, turn, one in (("", 0, corner.before), (corner.place, corner.turn, corner.after)):
            fault = Fault("tempo", where, one.value, one.half_width, limit, "%", turn=turn)
            yield Checked(fault, state_of(one, limit))
    elif tempo is not None:
        yield Checked(Fault("tempo", "", tempo.value, tempo.half_width, limit, "%"), state_of(tempo, limit))
    if click is not None:
        limit = limits.of("click").at(figures.gap_seconds)
        yield Checked(Fault("click", "", click.value, click.half_width, limit), state_of(click, limit))


def furthest_limit(found: Furthest, limits: Limits) -> float:
    """Return how far from the click it may be there, in seconds: while the click is silent, by its tempo farther."""
    return limits.of("furthest").at(found.gap) + limits.of("tempo").amount * found.silence


def _furthest(figures: Figures, limits: Limits) -> Iterator[Checked]:
    """A lost beat takes everything after it away from the click, and is told as one."""
    found = figures.furthest
    if found is None or any(lost.kind in {"late", "early"} for lost in figures.lost):
        return
    limit = furthest_limit(found, limits)
    fault = Fault(
        "furthest",
        "click" if found.is_known else "start",
        found.offset.value,
        found.offset.half_width,
        limit,
        symbol=found.place,
        event=found.event,
        turn=found.turn,
    )
    # Tempo, or the start, say why: how far it led comes after them.
    yield Checked(fault, state_of(found.offset, limit), _FOLLOWS)


def _seams(figures: Figures, limits: Limits, earlier: Sequence[Figures]) -> Iterator[Checked]:
    """Each kind of change by its first note and by its first beat; the one that lies farther out stands for both.

    Takes before are asked only where this one is too near to say.
    """
    own = [seam for seam in figures.seams if seam.kind in JUDGED_CHANGES]
    every = {(seam.kind, seam.name): seam for seam in pooled([*(one.seams for one in earlier), own])}
    for seam in own:
        found = _farther(seam, limits, len(own))
        if found.state == "near" and earlier:
            found = _farther(every[seam.kind, seam.name], limits, len(own))
        yield found


def _farther(seam: SeamFigures, limits: Limits, family: int) -> Checked:
    both = [Checked(*_change(seam, seam.first, seam.each, limits.of("seam"), "", family))]
    if seam.note is not None:
        both.append(Checked(*_change(seam, seam.note, seam.notes, limits.of("first"), "first note", family)))
    return max(both, key=lambda one: (_ORDER.index(one.state), one.weight))


def _change(
    seam: SeamFigures, figure: Interval, each: Sequence[float], limit: Limit, symbol: str, family: int
) -> tuple[Fault, State]:
    wide = limit.at(seam.gap)
    times = times_beyond(each, wide, figure.value)
    fault = Fault("seam", seam.name, figure.value, figure.half_width, wide, symbol=symbol, times=times, of=len(each))
    return fault, state_of(figure, wide, family)


def _places(figures: Figures, limits: Limits) -> Iterator[Checked]:
    """A place that is off again and again; by chance one of many would be, so it has to lie farther out."""
    for place in figures.places:
        limit = limits.of("seam").at(place.gap)
        if state_of(place.offset, limit, max(1, len(figures.places) * _PLACES)) != "outside":
            continue
        times = times_beyond(place.each, limit, place.offset.value)
        fault = Fault(
            "place",
            place.name,
            place.offset.value,
            place.offset.half_width,
            limit,
            symbol=place.reason,
            times=times,
            of=len(place.each),
            event=place.event,
        )
        yield Checked(fault, "outside")


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
    """Notes that run into each other: all of them, or one place again and again."""
    sounding, limit = figures.articulation, SMEARED * articulation
    if sounding is not None and sounding.value - sounding.half() > limit:
        fault = Fault("smear", "", sounding.value * 100, sounding.half_width * 100, limit * 100, "%")
        yield Checked(fault, "outside")
        return
    for one in figures.held:
        value, half = one.sounding.value * 100, one.sounding.half_width * 100
        fault = Fault("smear", one.name, value, half, limit * 100, "%", times=one.times, of=one.of, event=one.event)
        yield Checked(fault, "outside")
