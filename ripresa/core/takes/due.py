"""What is due: the notes of a take in columns, so that matching and figures work on all of them at once."""

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.drill.material import own_rhythm
from ripresa.core.exact import Fraction, change_label
from ripresa.core.grid import Event
from ripresa.core.playing import Window, expected_onsets
from ripresa.core.reading import Reading
from ripresa.core.reports import pace_changes
from ripresa.core.rhythm import leg_meters, place_name, span_seconds
from ripresa.core.takes.heard import Chords

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Beats after a change that count as the seam (DOMAIN: the first two).
SEAM_BEATS = 2.0
#: Kinds of change after which the hand needs a moment: what is played then is left out of the joint fit.
GEARS = ("division", "meter")
#: A lone note has no gap beside it, in seconds.
_LONE_GAP = 0.5


@dataclass(frozen=True, slots=True)
class Seam:
    """A change of the drill as it is played.

    Args:
        at: Seconds. kind: What changes; ``"inside"`` a leg it is the division, from beat to beat.
        name: From what to what, in words: ``"5 → 6"``.
        leg: Index of the leg that begins there.
    """

    at: float
    kind: str
    name: str
    leg: int


def near_gaps(at: Floats) -> Floats:
    """Return the smaller of the two gaps beside each of some rising moments, in seconds."""
    if len(at) < 2:
        return np.full(len(at), _LONE_GAP)
    between = np.maximum(np.diff(at), 1e-4)
    return np.asarray(np.minimum(np.append(between, between[-1]), np.insert(between, 0, between[0])))


def nearest(among: Floats, wanted: Floats) -> Ints:
    """Return the index of the nearest of some rising moments, at least one, to each of others."""
    after = np.clip(np.searchsorted(among, wanted), 1, max(1, len(among) - 1))
    before, last = after - 1, np.minimum(after, len(among) - 1)
    return np.asarray(np.where(np.abs(among[before] - wanted) <= np.abs(among[last] - wanted), before, last))


@dataclass(frozen=True)
class Due:
    """The notes that are due in a stretch of a performance.

    Args:
        reading, bpm: What is played, and how fast.
        start, end: Seconds from the start of the first turn.
        at: When each is due, in seconds. index: Its event in the reading.
        window: The part of the drill that goes round, if not all of it.
    """

    reading: Reading
    bpm: Fraction
    start: float
    end: float
    at: Floats
    index: Ints
    window: Window | None = None

    def __len__(self) -> int:
        return len(self.at)

    @cached_property
    def events(self) -> tuple[Event, ...]:
        """The event of each."""
        return tuple(self.reading.every[index] for index in self.index.tolist())

    @cached_property
    def chords(self) -> Chords:
        """How the tones of its chords come: it has none, they come together, or some are rolled."""
        if not any(len(event.tones) > 1 for event in self.events):
            return "none"
        return "rolled" if any(event.how.rolled for event in self.events) else "together"

    @cached_property
    def beat(self) -> float:
        """Seconds of a beat of the bpm."""
        return float(span_seconds(Fraction(1), self.bpm))

    @cached_property
    def turn_seconds(self) -> float:
        """Seconds of a turn of the loop."""
        return float(span_seconds(self.window.beats if self.window else self.reading.loop_beats, self.bpm))

    @cached_property
    def turn(self) -> Ints:
        """In which turn each is due, from 0."""
        return np.floor(self.at / self.turn_seconds + 1e-6).astype(np.int64)

    @cached_property
    def even_gap(self) -> Floats:
        """The even gap of the division in which each is played, in seconds: limits are a share of it."""
        own = {index: float(self.reading.every[index].slot_beats) * self.beat for index in set(self.index.tolist())}
        return np.array([own[index] for index in self.index.tolist()], dtype=float)

    @cached_property
    def near_gap(self) -> Floats:
        """The smaller of the two gaps beside each, in seconds."""
        return near_gaps(self.at)

    @cached_property
    def sounding(self) -> dict[int, float]:
        """How long each event is written to sound, in seconds, the held parts in, by its identity."""
        return {id(event): float(length) * self.beat for event, length in self.reading.sounding()}

    @cached_property
    def place(self) -> tuple[tuple[Fraction, int], ...]:
        """Division and slot of each."""
        own = {index: (event.division, event.slot) for index, event in enumerate(self.reading.every)}
        return tuple(own[index] for index in self.index.tolist())

    @cached_property
    def place_number(self) -> Ints:
        """The number of the division and slot of each, in order of first appearance."""
        return self._numbered(dict(zip(self.index.tolist(), self.place, strict=True)))

    @cached_property
    def division_number(self) -> Ints:
        """The number of the division of each, in order of first appearance."""
        return self._numbered({index: place[0] for index, place in zip(self.index.tolist(), self.place, strict=True)})

    def _numbered(self, kinds: Mapping[int, object]) -> Ints:
        numbers = {kind: number for number, kind in enumerate(dict.fromkeys(kinds.values()))}
        own = {index: numbers[kind] for index, kind in kinds.items()}
        return np.array([own[index] for index in self.index.tolist()], dtype=np.int64)

    @cached_property
    def tones(self) -> tuple[frozenset[int], ...]:
        """The sounding pitches of each."""
        events = self.reading.every
        own = {index: frozenset(self.reading.heard(events[index])) for index in dict.fromkeys(self.index.tolist())}
        return tuple(own[index] for index in self.index.tolist())

    @cached_property
    def since_change(self) -> Floats:
        """Beats since the last change of division or meter, infinite before the first one."""
        found = np.full(len(self.at), np.inf)
        for seam in self.seams:
            if seam.kind in GEARS:
                since = (self.at - seam.at) / self.beat
                found = np.where(since >= -1e-6, np.minimum(found, np.maximum(since, 0.0)), found)
        return found

    @cached_property
    def seams(self) -> tuple[Seam, ...]:
        """Every change in the stretch, in order."""
        return tuple(_seams(self))

    def number_of(self, event: int, turn: int) -> int:
        """Return the number of a note among all that are due, from 0, by its event and turn."""
        return int(np.flatnonzero((self.index == event) & (self.turn == turn))[0])

    def beat_name(self, event: int) -> str:
        """Return the bar and beat of an event, in words: ``bar 2, beat 3``."""
        found = self.reading.every[event]
        return place_name(found.bar, found.beat, "")

    def event_from(self, at: float) -> int:
        """Return the event of the first note from a moment on, in seconds; of the last one behind all of them."""
        return int(self.index[min(len(self.at) - 1, int(np.searchsorted(self.at, at - 1e-9)))])

    def notes_in(self, seconds: float) -> int:
        """Return how many are due in the first so many seconds."""
        return int(np.searchsorted(self.at, self.start + seconds))


def due_notes(reading: Reading, bpm: Fraction, start: float, end: float, window: Window | None = None) -> Due:
    """Return what is due from ``start`` to before ``end``, in seconds from the start of the first turn.

    Args:
        window: The part of the drill that goes round, if not all of it.
    """
    found = expected_onsets(reading, bpm, start, end, window)
    return Due(
        reading,
        bpm,
        start,
        end,
        np.array([at for at, _ in found], dtype=float),
        np.array([index for _, index in found], dtype=np.int64),
        window,
    )


def changes(reading: Reading) -> tuple[Seam, ...]:
    """Return the changes of one turn, each ``at`` in beats; the one from the last note to the first is in.

    Divisions that take turns inside a leg are the drill’s own motion: they are no change of the leg, and each kind of
    them is one of its own, from what to what.
    """
    found: list[Seam] = []
    legs = reading.legs
    meters = leg_meters(reading.drill.meter)
    for number, leg in enumerate(legs):
        before = legs[number - 1]
        start = float(leg.start)
        if before.leaves != leg.enters:
            name = change_label(before.leaves, leg.enters)
            found.append(Seam(start, "division", name, leg.index))
        if len(meters) > 1 and meters[(before.index) % len(meters)] != meters[leg.index % len(meters)]:
            signs = meters[before.index % len(meters)].sign, meters[leg.index % len(meters)].sign
            found.append(Seam(start, "meter", " → ".join(signs), leg.index))
    notes, own = reading.notes, own_rhythm(reading.drill.material)
    for before_note, note in zip((notes[-1:] + notes[:-1]), notes, strict=True):
        one, other = before_note.chord, note.chord
        if one and other and one.symbol != other.symbol:
            found.append(Seam(float(note.onset), "chord", f"{one.symbol} → {other.symbol}", note.leg))
        if own:
            continue
        same_leg = before_note.leg == note.leg or legs[note.leg - 1].leaves == legs[note.leg].enters
        if same_leg and before_note.division != note.division:
            found.append(Seam(float(note.onset), "inside", change_label(before_note.division, note.division), note.leg))
    if own:
        found += (
            Seam(float(one.note.onset), "inside", change_label(1 / one.before, 1 / one.after), one.note.leg)
            for one in pace_changes(reading)
            if one.at_once
        )
    found += _stations(reading)
    return tuple(sorted(found, key=lambda seam: seam.at))


def _stations(reading: Reading) -> Iterator[Seam]:
    """Yield the bar lines at which an accent that has one place in the beat moves to another, as in an accent walk."""
    bars: dict[int, list[Event]] = defaultdict(list)
    for event in reading.notes:
        bars[event.bar].append(event)
    stations: list[tuple[Event, Fraction, str] | None] = []
    for events in bars.values():
        accented = [event for event in events if event.accent == "accent"]
        places = {Fraction(event.slot, event.division.numerator): event for event in accented}
        # One accent in a bar by chance is no station: it comes with nearly every beat.
        is_station = len(places) == 1 and len(accented) >= max(2, len({event.beat for event in events}) - 1)
        one = next(iter(places.items())) if is_station else None
        stations.append((events[0], one[0], "1" if one[1].slot == 0 else one[1].count) if one else None)
    for before, after in pairwise(stations):
        if before and after and before[1] != after[1]:
            yield Seam(float(after[0].onset), "accent", f"accent on {before[2]} → {after[2]}", after[0].leg)


def _seams(due: Due) -> Sequence[Seam]:
    if not len(due.at):
        return []
    beats = due.window.beats if due.window else due.reading.loop_beats
    begins = float(due.window.start) if due.window else 0.0
    own = [replace(seam, at=seam.at - begins) for seam in changes(due.reading)]
    if due.window:
        # Going round is a change of its own where the part ends in another division than it begins in; the first
        # note after it is heard as such, and not as the drill's own.
        own = [seam for seam in own if 0 < seam.at < float(beats)]
    found = []
    for turn in range(int(due.turn[0]), int(due.turn[-1]) + 1):
        for seam in own:
            at = float(span_seconds(turn * beats, due.bpm)) + seam.at * due.beat
            # The first note of all has nothing before it.
            if at > 1e-9 and due.start - 1e-9 <= at < due.end - 1e-9:
                found.append(replace(seam, at=at))
    return found
