"""Breath: how fast a pass has to go to be played in one, where to breathe, and what each breath holds.

A pass of b beats in a breath of t seconds needs bpm ≥ 60 · b / t. One breathes at rests, which cost nothing.
In between it is as seldom as can be, and where it disturbs least: at a seam, where the teacher begins a phrase, at a
bar line after a longer note; then after a longer note, at a turn, at a bar line, on a beat. Never inside a slur, nor
before a leading note or between it and its tonic, nor after the first note of a bar, unless there is no other way.
"""

from collections import deque
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ripresa.core.drill import PhraseStart, parse_phrases
from ripresa.core.drill.material import scale_of
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, LegReading
from ripresa.core.reading import Reading, sounding_of
from ripresa.core.rhythm import span_seconds

#: Places at which a breath is meant to be, whatever stands before it.
_PHRASES = {"phrase", "seam", "phrase_end"}
#: What a breath costs, and what its place adds to that; our choice.
_ONE_MORE, _OFF_BEAT = 4, 24
_PRICES = {"phrase": -6, "seam": 0, "phrase_end": 0, "long": 1, "turn": 2, "bar": 3, "beat": 11}
_FIRST, _LEADING, _SLURRED = 40, 120, 20_000
#: How much longer than the usual note of its stretch one is that ends a phrase.
_LONGER = Fraction(3, 2)


@dataclass(frozen=True, slots=True)
class BreathSums:
    """The breath of one leg.

    Args:
        leg: Which leg. beats: The longest that it goes on without a rest.
        needed_bpm: The slowest tempo at which it is one breath.
        fits: Whether it is one breath at the tempo asked for.
    """

    leg: LegReading
    beats: Fraction
    needed_bpm: Fraction
    fits: bool


@dataclass(frozen=True, slots=True)
class Breath:
    """What is played in one breath.

    Args:
        first: Its first note. notes: How many it holds. seconds: From its first note to the end of its last.
        fits: Whether it is no longer than a breath lasts.
        why: What makes the place a good one: ``"seam"``, ``"rest"``, ``"phrase"`` where the teacher begins one,
            ``"phrase_end"`` and ``"long"`` after a longer note, ``"turn"``, ``"bar"``, ``"beat"``; else empty.
    """

    first: Event
    notes: int
    seconds: Fraction
    fits: bool
    why: str


@dataclass(frozen=True, slots=True)
class _Sung:
    """A note with where it is over, as breath goes: what is held is blown too."""

    event: Event
    end: Fraction


def needed_bpm(beats: Fraction, seconds: Fraction) -> Fraction:
    """Return the slowest tempo at which so many beats last no longer than a breath.

    >>> needed_bpm(Fraction(14), Fraction(10))
    Fraction(84, 1)
    """
    return 60 * beats / seconds


def breath_sums(reading: Reading, bpm: Fraction) -> tuple[BreathSums, ...]:
    """Return the breath of each leg; nothing where breath does not matter."""
    breath = reading.drill.breath
    if not breath:
        return ()
    longest: dict[int, Fraction] = {}
    for _, stretch in _stretches(reading, at_seams=True):
        number = stretch[0].event.leg
        longest[number] = max(longest.get(number, Fraction(0)), stretch[-1].end - stretch[0].event.onset)
    found = []
    for leg in reading.legs:
        # Straight on there is no seam: a leg goes on as long as its pass.
        beats = min(longest.get(leg.index, leg.pass_beats), leg.pass_beats)
        needed = needed_bpm(beats, breath)
        found.append(BreathSums(leg, beats, needed, bpm >= needed))
    return tuple(found)


def breath_plan(reading: Reading, bpm: Fraction) -> tuple[Breath, ...]:
    """Return every breath of a turn, in order; nothing where breath does not matter."""
    breath = reading.drill.breath
    if not breath:
        return ()
    longest = breath * bpm / 60
    found: list[Breath] = []
    for why, stretch in _stretches(reading):
        starts = _starts(reading, stretch, longest)
        for number, (begin, after) in enumerate(pairwise([*starts, len(stretch)])):
            inside = stretch[begin:after]
            # Before a breath the note is left as late as it can be; after it, it is heard from its beginning.
            beats = inside[-1].end - inside[0].event.onset
            found.append(
                Breath(
                    inside[0].event,
                    len(inside),
                    span_seconds(beats, bpm),
                    beats <= longest,
                    why if not number else _place(reading, stretch, begin),
                )
            )
    return tuple(found)


def slowest_of_one_breath(reading: Reading) -> Fraction | None:
    """Return the slowest tempo at which nothing inside a leg is broken by a breath; None where it does not matter."""
    breath = reading.drill.breath
    if not breath or not reading.notes:
        # Where the other hand alone sounds, nobody blows.
        return None
    stretches = _stretches(reading, at_seams=True)
    return max(needed_bpm(stretch[-1].end - stretch[0].event.onset, breath) for _, stretch in stretches)


def _stretches(reading: Reading, *, at_seams: bool = False) -> Iterator[tuple[str, list[_Sung]]]:
    """Yield what makes each stretch begin, and its notes: between rests, and seams if asked, one breathes."""
    straight_on = reading.drill.seam == "straight_on"
    notes = [_Sung(event, event.onset + length) for event, length in sounding_of(reading.events)]
    why, stretch = "start", notes[:1]
    for before, after in pairwise(notes):
        seam = after.event.leg != before.event.leg and not straight_on
        rest = after.event.onset > before.end
        if rest or (seam and at_seams):
            yield why, stretch
            why, stretch = "seam" if seam else "rest", []
        stretch.append(_within_pass(reading, after))
    if stretch:
        stretch[0] = _within_pass(reading, stretch[0])
        yield why, stretch


def _within_pass(reading: Reading, note: _Sung) -> _Sung:
    """Return a note that ends with the pass of its leg: what a seam holds it over may be let go."""
    leg = reading.legs[note.event.leg]
    end = leg.start + leg.pass_beats
    return _Sung(note.event, min(note.end, end)) if note.event.onset < end else _Sung(note.event, note.event.onset)


def _starts(reading: Reading, stretch: Sequence[_Sung], longest: Fraction) -> list[int]:
    """Return the notes at which a breath begins, the first in: as few as can be, at the best places.

    The cheapest way through, note by note, with the window of one breath kept in a queue (so it is linear).
    """
    if not reading.drill.phrases and stretch[-1].end - stretch[0].event.onset <= longest:
        return [0]
    cost, back = [0], [-1]
    window: deque[int] = deque([0])
    for number in range(1, len(stretch) + 1):
        until = stretch[number - 1].end
        while len(window) > 1 and until - stretch[window[0]].event.onset > longest:
            window.popleft()
        # A note that is longer than a breath begins one all the same, and is told.
        from_here = window[0] if until - stretch[window[0]].event.onset <= longest else number - 1
        if number == len(stretch):
            back.append(from_here)
            break
        cost.append(cost[from_here] + _ONE_MORE + _price(reading, stretch, number))
        back.append(from_here)
        while window and cost[window[-1]] >= cost[number]:
            window.pop()
        window.append(number)
    found, at = [], len(stretch)
    while at > 0:
        at = back[at]
        found.append(at)
    return found[::-1]


def _price(reading: Reading, stretch: Sequence[_Sung], number: int) -> int:
    """Return what it costs to breathe before a note."""
    event, before = stretch[number].event, stretch[number - 1]
    place = _place(reading, stretch, number)
    price = _PRICES.get(place, _OFF_BEAT)
    if before.event.beat == 1 and not reading.meter.to_beat(before.event.onset) and place not in _PHRASES:
        price += _FIRST
    if event.slurred:
        price += _SLURRED
    if _is_leading(reading, stretch, number) or _is_leading(reading, stretch, number - 1):
        price += _LEADING
    return price


def _place(reading: Reading, stretch: Sequence[_Sung], number: int) -> str:
    before, event = stretch[number - 1].event, stretch[number].event
    is_bar = event.beat == 1 and not reading.meter.to_beat(event.onset)
    if PhraseStart(event.bar, event.beat, event.slot + 1) in parse_phrases(reading.drill.phrases):
        return "phrase"
    if before.leg != event.leg and reading.drill.seam != "straight_on":
        return "seam"
    if _is_long(stretch, number - 1):
        return "phrase_end" if is_bar else "long"
    if number > 1 and _turns(stretch[number - 2].event, before, event):
        return "turn"
    if reading.meter.to_beat(event.onset):
        return ""
    return "bar" if is_bar else "beat"


def _is_long(stretch: Sequence[_Sung], number: int) -> bool:
    """Return whether a note is longer than the one before it, and half as long again as those around it."""
    lengths = [one.end - one.event.onset for one in stretch[max(0, number - 2) : number + 3]]
    at = min(2, number)
    others = lengths[:at] + lengths[at + 1 :]
    return at > 0 and lengths[at] > lengths[at - 1] and lengths[at] * len(others) >= _LONGER * sum(others)


def _turns(first: Event, top: Event, after: Event) -> bool:
    """Return whether a line turns round at its top: one breathes after it."""
    heights = [event.pitch.midi for event in (first, top, after) if event.pitch]
    return len(heights) == 3 and heights[0] < heights[1] > heights[2]


def _is_leading(reading: Reading, stretch: Sequence[_Sung], number: int) -> bool:
    """Return whether a note is the seventh of its scale and goes on to the tonic, a semitone over it."""
    known = scale_of(reading.drill.material)
    if known is None or number + 1 >= len(stretch):
        return False
    now, after = stretch[number].event.pitch, stretch[number + 1].event.pitch
    return bool(now and after and (now.midi - known[0].midi) % 12 == 11 and after.midi == now.midi + 1)


@dataclass(frozen=True, slots=True)
class RungBreath:
    """A tempo, in how many breaths a turn is played at it, and the most seconds that one of them lasts."""

    bpm: Fraction
    breaths: int
    longest: Fraction
    one_more: bool


def breaths_by_rung(reading: Reading, tempi: Sequence[Fraction]) -> tuple[RungBreath, ...]:
    """Return the breaths of a turn at each tempo; ``one_more`` where it takes more than at the next faster one."""
    found: list[RungBreath] = []
    counts = []
    for bpm in tempi:
        plan = breath_plan(reading, bpm)
        counts.append((bpm, len(plan), max((one.seconds for one in plan), default=Fraction(0))))
    for number, (bpm, breaths, longest) in enumerate(counts):
        faster = counts[number + 1][1] if number + 1 < len(counts) else breaths
        found.append(RungBreath(bpm, breaths, longest, breaths > faster))
    return tuple(found)
