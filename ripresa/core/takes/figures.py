"""The figures of a take, each with its 95 % interval and the notes it rests on; times in seconds, negative is early."""

from dataclasses import dataclass

from ripresa.core.exact import Exact, Fraction
from ripresa.core.rhythm import leads
from ripresa.core.takes.interval import Interval


@dataclass(frozen=True, slots=True)
class Dot:
    """One note of a slot: its offset around the fit, its event in the reading, and the turn, from 0."""

    offset: float
    event: int
    turn: int


@dataclass(frozen=True, slots=True)
class Point:
    """One note of the line through a take: when it was due, its offset from the start, its event and turn."""

    at: float
    offset: float
    event: int
    turn: int


@dataclass(frozen=True, slots=True)
class SlotFigures:
    """One slot of a division.

    Args:
        slot: From 0. count: Its word.
        habit: Around the mean of the division; None under three notes.
        share: Its part of the beat, 0 to 1; None where not all slots were heard.
        dots: Its notes, up to 60, in order.
    """

    slot: int
    count: str
    habit: Interval | None
    share: float | None
    dots: tuple[Dot, ...]


@dataclass(frozen=True, slots=True)
class SwingFigures:
    """The long of a pair to its short, as it was heard and as it was asked; 1 is straight.

    Args:
        on: The division whose pairs they are: of fours, pairs of slots or the halves of the beat.
    """

    heard: Interval
    asked: Exact
    on: int

    def shares(self, ratio: float, slots: int) -> tuple[float, ...]:
        """Return the share of the beat of each slot where the first of a pair is so many times as long.

        >>> SwingFigures(Interval(1.0, 0.1, 40), Fraction(1), 4).shares(3.0, 4)
        (0.375, 0.125, 0.375, 0.125)
        """
        long = ratio / (1 + ratio)
        return tuple((long if leads(slot, slots, self.on) else 1 - long) * 2 / slots for slot in range(slots))


@dataclass(frozen=True, slots=True)
class LegFigures:
    """All slots of one division.

    Args:
        gap: Its even gap, in seconds: limits are a share of it.
        spread: SD of what remains. crowding: How much longer the last share of the beat is than the others, as a
            part of theirs; None where it cannot be told.
        hand: R or L where two play, else empty.
        swing: How long the first of a pair is beside the second; None where there are no pairs, or it cannot be told.
    """

    division: Exact
    gap: float
    spread: Interval | None
    crowding: Interval | None
    slots: tuple[SlotFigures, ...]
    hand: str = ""
    swing: SwingFigures | None = None


@dataclass(frozen=True, slots=True)
class SeamFigures:
    """What follows a change.

    Args:
        kind: Division, meter, accent or chord. name: From what to what.
        gap: The even gap after it, in seconds.
        first, two: Mean offset in the first beat, and in the first two.
        beats: Mean offset in each of the first four beats, None where nothing was heard.
        each: Mean offset in the first beat of each time that it was heard.
        note: Offset of the very first note; None where it was not heard. notes: Of each time.
    """

    kind: str
    name: str
    gap: float
    first: Interval
    two: Interval
    beats: tuple[float | None, ...]
    each: tuple[float, ...]
    note: Interval | None = None
    notes: tuple[float, ...] = ()

    def back_in(self, limit: float) -> int | None:
        """Return in which beat after the change, from 1, all is within a limit (seconds) again; None if not in four."""
        told = [(number, value) for number, value in enumerate(self.beats, start=1) if value is not None]
        outside = [number for number, value in told if abs(value) > limit]
        after = [number for number, _ in told if number > max(outside, default=0)]
        return min(after, default=None)


@dataclass(frozen=True, slots=True)
class LandingFigures:
    """A kind of landing: hits, arrivals, after a rest, after a fill, after silence of the click; and how it was met."""

    kind: str
    gap: float
    offset: Interval
    times: int


@dataclass(frozen=True, slots=True)
class HandFigures:
    """One hand, pick direction or syllable: its own spread, its habit beside the others, and how loud it is."""

    symbol: str
    spread: Interval | None
    habit: Interval | None
    level: Interval | None


@dataclass(frozen=True, slots=True)
class AccentFigures:
    """How loud accents are, in dB.

    Args:
        over_plain, over_ghost: Accents over plain notes, and plain over ghost notes.
        misplaced: Accents that were soft while the note beside them was loud. due: Accents that were heard.
        hands: Symbol → its accents over its plain notes.
    """

    over_plain: Interval | None
    over_ghost: Interval | None
    misplaced: int
    due: int
    hands: tuple[tuple[str, Interval], ...]


@dataclass(frozen=True, slots=True)
class LostBeat:
    """Where the player and the click parted.

    Args:
        kind: ``"late"``: everything after it is later by so much; ``"early"``; ``"silent"``: so much was left out;
            ``"group"``: a group that stood off by so much, and came back; ``"back"``: so much was played once more.
        seconds, beats: How much; of what was played once more, the seconds of the stop before. event, turn: The first
            note after it. place: Its bar and beat, in words.
    """

    kind: str
    seconds: float
    beats: float
    event: int
    turn: int
    place: str = ""


@dataclass(frozen=True, slots=True)
class Stray:
    """A note that was met far from its place.

    Args:
        offset: Seconds from its place. gap: Its even gap, in seconds. is_change: In the beats after a change.
        event, turn: Which note it is.
    """

    offset: float
    gap: float
    is_change: bool
    event: int
    turn: int


@dataclass(frozen=True, slots=True)
class PlaceFigures:
    """A note of the drill over its repeats, where it is late or early again and again.

    Args:
        event: In the reading. name: Where it stands, in words. gap: Its even gap, in seconds.
        offset: Mean offset beside the fit. each: Of each turn.
        reason: What the hand has to do there, in words: ``"where the thumb goes under"``; empty where nothing is known.
    """

    event: int
    name: str
    gap: float
    offset: Interval
    each: tuple[float, ...]
    reason: str = ""


@dataclass(frozen=True, slots=True)
class HeldFigures:
    """A note of the drill that sounds into the next one again and again.

    Args:
        event: In the reading. name: Where it stands, in words.
        sounding: Part of its length for which it sounds. times: How often it did so, of so many.
    """

    event: int
    name: str
    sounding: Interval
    times: int
    of: int


@dataclass(frozen=True, slots=True)
class Furthest:
    """Where the player was furthest from the click: a beat’s mean.

    Args:
        offset: From the click where the latency is known, else from the start of the take.
        place: Its bar and beat, in words. gap: The even gap there, in seconds.
        silence: Seconds since the last click there, beyond the usual ones; the limit grows by them.
        is_known: Whether the latency is known. event, turn: The note in the middle of that beat.
    """

    offset: Interval
    place: str
    gap: float
    silence: float
    is_known: bool
    event: int
    turn: int


@dataclass(frozen=True, slots=True)
class CornerFigures:
    """Where the tempo turned at once: the first beat of the new one, and the tempo before and after, in per cent."""

    place: str
    event: int
    turn: int
    before: Interval
    after: Interval


@dataclass(frozen=True, slots=True)
class TogetherFigures:
    """Two hands where they meet.

    Args:
        apart: How long after the right the left hand comes, in seconds. spread: SD of that.
        gap: The shortest even gap of either, in seconds: the limit is a share of it.
        louder: By how many dB the right hand is louder there; None where levels were not heard.
    """

    apart: Interval
    spread: Interval
    gap: float
    louder: Interval | None = None


@dataclass(frozen=True, slots=True)
class Figures:
    """What a take measures.

    Args:
        due, matched, missed, extra, wrong: Counts of notes; wrong were met in another pitch.
        gap_seconds: The shortest even gap that was due.
        bias: Offset at the start of the take, latency taken off where it is known.
        with_click: The same where the latency was measured, its half-width added; else None.
        tempo_percent: Faster (above 0) than asked. bend: How the tempo itself changes, in bpm a minute.
        spread: SD of what remains over all divisions.
        fills: Tempo inside the runs between hits against that of the whole, in per cent, faster above 0.
        articulation: Part of its length for which a note sounds, 0 to 1 and above.
        held: Notes that sound into the next one over their repeats, the longest first.
        together: How two hands meet; None where one plays.
        strays: Notes that were met, but far from their place: whatever the fit set aside is here.
        places: Notes of the drill that are off over its repeats, the farthest first.
        furthest: From the click; None where too little was heard.
        corner: Where the tempo turned at once; None where it bends, or keeps.
        outside: Notes that were heard before or after what was due: nobody’s. again: Notes that were played once more.
    """

    due: int
    matched: int
    missed: int
    extra: int
    wrong: int
    gap_seconds: float
    bias: Interval | None
    with_click: Interval | None
    tempo_percent: Interval | None
    bend: Interval | None
    spread: Interval | None
    legs: tuple[LegFigures, ...] = ()
    seams: tuple[SeamFigures, ...] = ()
    landings: tuple[LandingFigures, ...] = ()
    fills: Interval | None = None
    hands: tuple[HandFigures, ...] = ()
    accents: AccentFigures | None = None
    articulation: Interval | None = None
    held: tuple[HeldFigures, ...] = ()
    lost: tuple[LostBeat, ...] = ()
    line: tuple[Point, ...] = ()
    together: TogetherFigures | None = None
    strays: tuple[Stray, ...] = ()
    places: tuple[PlaceFigures, ...] = ()
    furthest: Furthest | None = None
    corner: CornerFigures | None = None
    outside: int = 0
    again: int = 0

    def leg(self, division: Fraction) -> LegFigures | None:
        """Return the figures of a division."""
        return next((leg for leg in self.legs if leg.division == division), None)
