"""The joint fit of a take: start, tempo, bend, the habit of each slot and lost beats at once.

``offset = start + drift · t + bend · t² + habit of the slot (+ step)`` by least squares. Neighbouring notes correlate:
what remains is taken as an independent part and an AR(1) part, and the errors of all figures follow from that by the
sandwich estimate ``(XᵀX)⁻¹ XᵀΣX (XᵀX)⁻¹``.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from math import exp, sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.interval import SHOWN, Interval, student
from ripresa.core.takes.memory import correlation, meat, slow_meat

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

#: From so many notes on, and so many seconds, a bend is told beside the tempo.
FEWEST_FOR_BEND, SHORTEST_FOR_BEND = 32, 8.0
FEWEST_FOR_TEMPO = 12
_FEWEST_FOR_HABIT = 3
#: Notes farther out than this many deviations are left out of the fit: they are slips of their own.
_OUTLIER = 6.0
#: A corner is looked for at so many moments, away from the edges by such a part; it has to explain so much of what a
#: bend leaves, and to turn by so many seconds a second: the narrowest limit of a tempo.
_MOMENTS, _EDGE, _CORNERS, _TURNS = 33, 0.12, 0.35, 0.005
#: Groups differ by more than their notes make them from so many times on.
_DIFFER = 2.0


@dataclass(frozen=True, slots=True)
class Rows:
    """What is fitted, note by note.

    Args:
        time, offset: Seconds. place: Number of the slot; -1 has no habit of its own.
        division: Number of the division of each place. steps: Indexes from which an offset moves at once.
        counts: Whether a note is part of the fit; the others are told against it.
        corner: When the tempo turns at once, in seconds; it takes the place of the bend.
    """

    time: Floats
    offset: Floats
    place: Ints
    division: Ints
    steps: tuple[int, ...]
    counts: Bools
    corner: float | None = None


@dataclass(frozen=True)
class Fit:
    """A joint fit.

    Args:
        design: One row a note, one column a term: start, drift, bend, habits, steps.
        solution, bread: Of the terms; (XᵀX)⁻¹.
        counts: Which rows were fitted. rest: What remains of every note, in seconds.
        deviation: Its SD, in seconds. rho, share: AR(1) and its part of the variance.
        centre: The time at which drift and bend are centred; spread_of_time: what was taken off t².
        habits: Number of a place → combination of the terms that gives its habit.
        corner: When the tempo turns, in seconds; from there on the third term adds to the slope.
    """

    design: Floats
    solution: Floats
    bread: Floats
    counts: Bools
    rest: Floats
    deviation: float
    rho: float
    share: float
    freedom: float
    centre: float
    square: float
    has_drift: bool
    has_bend: bool
    habits: dict[int, Floats]
    corner: float | None = None

    @cached_property
    def covariance(self) -> Floats:
        """Of the terms."""
        return self.deviation**2 * self.bread @ meat(self.design[self.counts], self.rho, self.share) @ self.bread

    @cached_property
    def slow_covariance(self) -> Floats | None:
        """Of the terms, where what remains moves the more the slower; None where it does not."""
        found = slow_meat(self.design[self.counts], self.rest[self.counts])
        return None if found is None else self.bread @ found @ self.bread

    def told(self, combination: Floats, count: int, other: float = 0.0) -> Interval:
        """Return a combination of the terms with its half-width.

        Args:
            other: A half-width that comes from elsewhere, of the latency.
        """
        variance = float(combination @ self.covariance @ combination)
        if self.slow_covariance is not None:
            variance = max(variance, float(combination @ self.slow_covariance @ combination))
        half = student(SHOWN, self.freedom) * sqrt(max(0.0, variance))
        return Interval(float(combination @ self.solution), sqrt(half**2 + other**2), count)

    @property
    def count(self) -> int:
        """How many notes were fitted."""
        return int(self.counts.sum())

    def unit(self, term: int) -> Floats:
        """Return the combination that is one term alone."""
        found = np.zeros(len(self.solution))
        found[term] = 1.0
        return found

    @property
    def start(self) -> Floats:
        """The combination that gives the offset at the start of the take."""
        found = self.unit(0)
        if self.has_drift:
            found[1] = -self.centre
        if self.has_bend:
            found[2] = self.centre**2 - self.square
        return found

    def slope_over(self, begin: float, end: float) -> Floats:
        """Return the combination that gives the slope from one moment to another, in seconds."""
        found = self.slope_at((begin + end) / 2)
        if self.corner is not None:
            found[2] = max(0.0, end - max(begin, self.corner)) / max(1e-9, end - begin)
        return found

    def slope_at(self, time: float) -> Floats:
        """Return the combination that gives the slope at a moment: in the middle of a take it is that of all of it."""
        found = self.unit(1)
        if self.has_bend:
            found[2] = 2 * (time - self.centre)
        return found

    def spread(self, rows: Bools | None = None) -> Interval | None:
        """Return the SD of what remains, of some of the fitted notes or of all; None under eight."""
        chosen = self.counts if rows is None else rows & self.counts
        count = int(chosen.sum())
        if count < 8:
            return None
        own = self.design[chosen]
        used = float(np.einsum("ij,jk,ik->", own, self.bread, own)) if rows is not None else self.count - self._left
        left = max(2.0, count - used)
        value = sqrt(float(self.rest[chosen] @ self.rest[chosen]) / left)
        alike = 1 + 2 * self.share**2 * self.rho**2 / max(0.02, 1 - self.rho**2)
        effective = max(2.0, left / alike)
        # A deviation errs by a factor, not by an amount: its half-width is the wider side, up.
        half = value * (exp(student(SHOWN, effective) / sqrt(2 * effective)) - 1)
        return Interval(value, half, count)

    @property
    def _left(self) -> float:
        """Degrees of freedom that are left, with what neighbours share taken into account."""
        own = self.design[self.counts]
        return float(max(2.0, self.count - np.trace(self.bread @ meat(own, self.rho, self.share))))

    def habit_of(self, places: Ints) -> Floats:
        """Return the habit of the slot of each of some notes, in seconds; 0 where it has none."""
        own = {place: float(combination @ self.solution) for place, combination in self.habits.items()}
        return np.array([own.get(place, 0.0) for place in places.tolist()], dtype=float)

    def mean(self, groups: list[Ints], values: Floats | None = None) -> Interval | None:
        """Return the mean of what remains over groups of neighbouring notes, each group on its own.

        The error is that of the notes by their correlation, and of the fit; where groups differ by more than that
        would make them, it is the one that the groups show themselves.

        Args:
            values: What the mean is of, in seconds, note by note; without them, what remains.
        """
        rest = self.rest if values is None else values
        groups = [group for group in groups if len(group)]
        count = sum(len(group) for group in groups)
        if not count:
            return None
        every = np.concatenate(groups)
        value = float(rest[every].mean())
        # Single notes lie too far apart to be alike.
        together = [group for group in groups if len(group) > 1]
        singles = len(groups) - len(together)
        own = self.deviation**2 * (singles + sum(self.sum_variance(group) for group in together)) / count**2
        mean_row = self.design[every].mean(axis=0)
        variance = own + float(mean_row @ self.covariance @ mean_row)
        half = student(SHOWN, self.freedom) * sqrt(variance)
        if len(groups) >= 3:
            means = rest[every] if not together else np.array([rest[group].mean() for group in groups])
            between = float(means.std(ddof=1)) / sqrt(len(groups))
            if between > _DIFFER * sqrt(own):
                half = max(half, student(SHOWN, len(groups) - 1) * between)
        return Interval(value, half, count)

    def slope(self, groups: list[Ints], times: Floats) -> Interval | None:
        """Return the slope inside groups of neighbouring notes, over all of them, in seconds a second."""
        moved = [times[group] - times[group].mean() for group in groups]
        square = float(sum(one @ one for one in moved))
        count = sum(len(group) for group in groups)
        if square <= 0 or count < 2 * len(groups) + 2:
            return None
        value = sum(float(one @ self.rest[group]) for one, group in zip(moved, groups, strict=True)) / square
        variance = 0.0
        for one, group in zip(moved, groups, strict=True):
            alike = self.share * self.rho ** np.abs(group[:, None] - group[None, :])
            np.fill_diagonal(alike, 1.0)
            variance += float(one @ alike @ one)
        half = student(SHOWN, self.freedom) * self.deviation * sqrt(variance) / square
        return Interval(value, half, count)

    def sum_variance(self, group: Ints) -> float:
        """Return the variance of a sum of neighbouring notes, in variances of one."""
        lags = np.abs(group[:, None] - group[None, :])
        alike = self.share * self.rho**lags
        alike[lags == 0] = 1.0
        return float(alike.sum())


def joint_fit(rows: Rows) -> Fit | None:
    """Return the joint fit of a take, with a corner where its line has one; None under four notes."""
    smooth = _fit(rows)
    if smooth is None or not smooth.has_bend:
        return smooth
    corner = _corner(rows, smooth)
    turned = _fit(replace(rows, corner=corner)) if corner is not None else None
    return turned if turned and abs(turned.solution[2]) >= _TURNS else smooth


def _corner(rows: Rows, smooth: Fit) -> float | None:
    """Return when the tempo turns at once; None where a bend says as much.

    Of some moments the one is taken at which a line with a corner leaves least, beside what a bend leaves.
    """
    counts = smooth.counts
    rest, times = smooth.rest[counts], rows.time[counts]
    # A corner stands in the place of the bend, which is the third term.
    design = smooth.design[counts]
    basis, _ = np.linalg.qr(np.delete(design, 2, axis=1))
    offset = design @ smooth.solution + rest
    left = offset - basis @ (basis.T @ offset)
    best, least = None, float(rest @ rest) * (1 - _CORNERS)
    for moment in np.quantile(times, np.linspace(_EDGE, 1 - _EDGE, _MOMENTS)).tolist():
        hinge = np.maximum(0.0, times - moment)
        hinge = hinge - basis @ (basis.T @ hinge)
        power = float(hinge @ hinge)
        remains = float(left @ left) - float(hinge @ left) ** 2 / power if power > 1e-12 else float(left @ left)
        if remains < least * (1 - 1e-6):
            best, least = float(moment), remains
    return best


def _fit(rows: Rows) -> Fit | None:
    counts = rows.counts
    for _ in range(2):
        fit = _solve(rows, counts)
        if fit is None:
            return None
        usual = 1.4826 * float(np.median(np.abs(fit.rest[counts])))
        inside = counts & (np.abs(fit.rest) <= max(_OUTLIER * usual, 1e-4))
        if inside.sum() == counts.sum() or inside.sum() < 0.8 * counts.sum():
            return fit
        counts = inside
    return _solve(rows, counts)


def _solve(rows: Rows, counts: Bools) -> Fit | None:
    count = int(counts.sum())
    if count < 4:
        return None
    times = rows.time[counts]
    duration = float(np.ptp(times))
    has_drift = count >= FEWEST_FOR_TEMPO and duration > 0
    has_bend = has_drift and count >= FEWEST_FOR_BEND and duration >= SHORTEST_FOR_BEND
    centre = float(times.mean())
    moved = rows.time - centre
    square = float((moved[counts] ** 2).mean())
    columns = [np.ones(len(rows.time))]
    if has_drift:
        columns.append(moved)
    if rows.corner is not None:
        has_bend = False
        columns.append(np.maximum(0.0, rows.time - rows.corner))
    elif has_bend:
        columns.append(moved**2 - square)
    habits, where = _habit_columns(rows, counts, len(columns))
    columns += habits
    order = np.arange(len(rows.time))
    columns += [(order >= step).astype(float) for step in rows.steps if counts[:step].sum() > 3 < counts[step:].sum()]
    design = np.column_stack(columns)
    own = design[counts]
    bread = np.asarray(np.linalg.pinv(own.T @ own), dtype=np.float64)
    solution = bread @ own.T @ rows.offset[counts]
    rest = rows.offset - design @ solution
    rho, share = correlation(rest[counts])
    left = max(2.0, count - float(np.trace(bread @ meat(own, rho, share))))
    deviation = sqrt(float(rest[counts] @ rest[counts]) / left)
    alike = 1 + 2 * share**2 * rho**2 / max(0.02, 1 - rho**2)
    width = len(solution)
    return Fit(
        design,
        solution,
        bread,
        counts,
        rest,
        deviation,
        rho,
        share,
        max(2.0, left / alike),
        centre,
        square,
        has_drift,
        has_bend,
        {
            place: np.pad(combination, (first, width - first - len(combination)))
            for place, (first, combination) in where.items()
        },
        rows.corner,
    )


def _habit_columns(rows: Rows, counts: Bools, first: int) -> tuple[list[Floats], dict[int, tuple[int, Floats]]]:
    """Return effect columns, that sum to 0 over the slots of a division, and how each habit is made of them."""
    columns: list[Floats] = []
    where: dict[int, tuple[int, Floats]] = {}
    for division in np.unique(rows.division[counts]):
        inside = counts & (rows.division == division)
        places = [
            int(place)
            for place in np.unique(rows.place[inside])
            if place >= 0 and (rows.place[inside] == place).sum() >= _FEWEST_FOR_HABIT
        ]
        if len(places) < 2:
            continue
        last = (rows.place == places[-1]).astype(float)
        for _number, place in enumerate(places[:-1]):
            columns.append((rows.place == place).astype(float) - last)
            where[place] = first + len(columns) - 1, np.ones(1)
        begin = first + len(columns) - (len(places) - 1)
        where[places[-1]] = begin, -np.ones(len(places) - 1)
    return columns, where
