"""Places: notes that are off again and again over the repeats, notes far from theirs, and how far off the click."""

from collections.abc import Iterator
from dataclasses import replace
from math import hypot, sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.errors import RipresaError
from ripresa.core.grid import Event
from ripresa.core.reading import Reading, read
from ripresa.core.takes.due import SEAM_BEATS, Due
from ripresa.core.takes.figures import Furthest, PlaceFigures, Stray
from ripresa.core.takes.fit import Fit
from ripresa.core.takes.interval import SHOWN, Interval, student
from ripresa.core.takes.landing import click_silences

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: A place is one from so many repeats on, and so many are told at most.
_FEWEST_REPEATS, _MOST_PLACES = 3, 24
#: Strays are kept from here on, as shares of the gap and in seconds: 2½ times the narrowest limit of spread.
_STRAY, _STRAY_SECONDS = 2.5 * 0.07, 2.5 * 0.008
#: The share of notes that lie beside changes, from which on those after a change are left aside.
_SETTLED = 0.4
#: Semitones from which a step is a leap.
_LEAP = 6
#: A second of silence counts so much where the farthest place is looked for: the working limit of tempo.
_IN_SILENCE = 0.01


def strays(due: Due, row: Ints, rest: Floats, fit: Fit | None) -> tuple[Stray, ...]:
    """Return the notes that were met far from their place, in order.

    Args:
        row: Indexes of the met notes. rest: What remains of each beside the fit, in seconds.
    """
    if fit is None:
        return ()
    gap = due.even_gap[row]
    far = np.flatnonzero(np.abs(rest) > np.maximum(_STRAY * gap, _STRAY_SECONDS))
    return tuple(
        Stray(
            float(rest[one]),
            float(gap[one]),
            bool(due.since_change[row[one]] < SEAM_BEATS),
            int(due.index[row[one]]),
            int(due.turn[row[one]]),
        )
        for one in far.tolist()
    )


def places(due: Due, row: Ints, rest: Floats, fit: Fit | None) -> tuple[PlaceFigures, ...]:
    """Return the notes of the drill that are off over their repeats, the farthest first: those that are not by chance.

    Each stands with what the hand has to do there. A place is off where its 95 % interval leaves 0 out, among so many.
    """
    if fit is None:
        return ()
    events = due.index[row]
    # What comes after a change is the change’s, also inside a leg.
    changed = {due.event_from(seam.at) for seam in due.seams if seam.kind == "inside"}
    order = np.argsort(events, kind="stable")
    order = order[_beside_changes(due, row)[order] & ~np.isin(events[order], list(changed))]
    if not len(order):
        return ()
    groups = np.split(order, np.flatnonzero(np.diff(events[order])) + 1)
    repeated = [group for group in groups if len(group) >= _FEWEST_REPEATS]
    told = ((group, fit.mean([np.array([one]) for one in group])) for group in repeated)
    surely = 1 - (1 - SHOWN) / max(1, len(repeated))
    found = [
        PlaceFigures(
            int(events[group[0]]),
            due.reading.every[int(events[group[0]])].place_name,
            float(due.even_gap[row[group[0]]]),
            mean,
            tuple(rest[group].tolist()),
        )
        for group, mean in told
        if mean is not None and abs(mean.value) > mean.half(surely)
    ]
    found.sort(key=lambda one: (-round(abs(one.offset.value) / one.gap, 6), one.event))
    reasons = _reasons(due) if found else {}
    return tuple(replace(one, reason=reasons.get(one.event, "")) for one in found[:_MOST_PLACES])


def _beside_changes(due: Due, row: Ints) -> NDArray[np.bool_]:
    """Return which notes lie beside changes, whose notes are figures of their own; all where too few do."""
    beside = due.since_change[row] >= SEAM_BEATS
    return np.asarray(beside if beside.sum() >= _SETTLED * len(row) else np.ones(len(row), dtype=bool))


def _fingered(reading: Reading) -> Reading:
    """Return a reading with the usual fingering, where the student is to find one and there is a usual one."""
    drill = reading.drill
    if drill.knows_fingering or reading.other or not reading.heard(reading.notes[0]):
        return reading
    try:
        usual = read(replace(drill, fingering="usual"))
    except RipresaError:
        return reading
    same = [one.pitch for one in usual.every] == [one.pitch for one in reading.every]
    return usual if same else reading


def _reasons(due: Due) -> dict[int, str]:
    """Return event → what the hand has to do at it, in words, where that is more than the next note."""
    events = _fingered(due.reading).every
    order = list(dict.fromkeys(due.index.tolist()))
    found = {}
    for number, index in enumerate(order):
        before, event = events[order[number - 1]], events[index]
        found[index] = next(_done_at(due, before, event), "") if len(order) > 1 else ""
    return found


def _done_at(due: Due, before: Event, event: Event) -> Iterator[str]:
    if before.chord and event.chord and before.chord.symbol != event.chord.symbol:
        yield "where the chord changes"
    one, other = before.touch, event.touch
    if one and other:
        if one.position is not None and other.position is not None and one.position != other.position:
            yield "at the shift"
        if one.string != other.string:
            yield "where the string changes"
    if before.pitch is None or event.pitch is None:
        return
    step = event.pitch.midi - before.pitch.midi
    if one and other and one.string is None and step:
        # The right hand goes up from its thumb, the left one down.
        outwards = (step > 0) == ((event.hand or "R") == "R")
        if other.finger == 1 and one.finger > 1 and outwards:
            yield "where the thumb goes under"
        if one.finger == 1 and other.finger > 1 and not outwards:
            yield "where the hand goes over the thumb"
    low, high = sorted((before.pitch.midi, event.pitch.midi))
    if any(low <= under and over <= high for under, over in due.reading.instrument.breaks):
        yield "over the break"
    if abs(step) >= _LEAP:
        yield "at the leap"


def furthest(
    due: Due, row: Ints, offset: Floats, fit: Fit | None, latency: tuple[float, float] | None
) -> Furthest | None:
    """Return where the running mean of a beat is furthest from the click; None where too little was heard.

    Args:
        offset: Of each met note, in seconds, as it came. latency: Known delay and its half-width, in seconds.
    """
    if fit is None:
        return None
    at = due.at[row]
    plain = offset - fit.habit_of(due.place_number[row])
    begin = np.searchsorted(at, at - due.beat / 2 - 1e-6)
    end = np.searchsorted(at, at + due.beat / 2 - 1e-6)
    sums = np.concatenate([[0.0], np.cumsum(plain)])
    count = end - begin
    mean = (sums[end] - sums[begin]) / count
    late, unsure = latency or (0.0, 0.0)
    if latency is None:
        first = int(np.searchsorted(at, at[0] + SEAM_BEATS * due.beat - 1e-6))
        late = float(plain[:first].mean())
        unsure = student(SHOWN, fit.freedom) * fit.deviation / sqrt(first)
    silence = np.zeros(len(row))
    for start, stop in click_silences(due):
        inside = (at > start + 1e-6) & (at < stop - 1e-6)
        silence[inside] = at[inside] - start
    away = np.abs(mean - late) - _IN_SILENCE * silence
    away[~_beside_changes(due, row)] = 0.0
    # Of places that are equally far the first, whatever the last digit of a float says.
    here = int(np.round(away / due.even_gap[row], 6).argmax())
    half = student(SHOWN, fit.freedom) * fit.deviation * sqrt(fit.sum_variance(np.arange(begin[here], end[here])))
    return Furthest(
        Interval(float(mean[here] - late), hypot(half / int(count[here]), unsure), int(count[here])),
        due.beat_name(int(due.index[row[here]])),
        float(due.even_gap[row[here]]),
        float(silence[here]),
        latency is not None,
        int(due.index[row[here]]),
        int(due.turn[row[here]]),
    )
