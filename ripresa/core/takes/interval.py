"""Figures with their uncertainty: an interval, and the quantiles that it is made with."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt
from statistics import NormalDist

import numpy as np

_NORMAL = NormalDist()
#: Figures show 95 %; the word is said by 90 %.
SHOWN, SAID = 0.95, 0.90


@dataclass(frozen=True, slots=True)
class Interval:
    """A figure with its 95 % half-width, both in the same unit, and how many notes it rests on."""

    value: float
    half_width: float
    count: int

    def half(self, share: float = SAID) -> float:
        """Return the half-width for another share, from the normal law."""
        return self.half_width * _NORMAL.inv_cdf(0.5 + share / 2) / _NORMAL.inv_cdf(0.5 + SHOWN / 2)


def student(share: float, freedom: float) -> float:
    """Return the two-sided quantile of Student's t (Abramowitz and Stegun 26.7.5).

    >>> round(student(0.95, 10), 2), round(student(0.95, 1e6), 2)
    (2.23, 1.96)
    """
    z = _NORMAL.inv_cdf(0.5 + share / 2)
    n = max(freedom, 2.0)
    first = (z**3 + z) / 4
    second = (5 * z**5 + 16 * z**3 + 3 * z) / 96
    third = (3 * z**7 + 19 * z**5 + 17 * z**3 - 15 * z) / 384
    fourth = (79 * z**9 + 776 * z**7 + 1482 * z**5 - 1920 * z**3 - 945 * z) / 92160
    return z + first / n + second / n**2 + third / n**3 + fourth / n**4


def times_beyond(each: Sequence[float], limit: float, value: float) -> int:
    """Return how often single values lay beyond a limit, on the side of their mean.

    >>> times_beyond([0.03, 0.01, -0.03], 0.02, 0.004)
    1
    """
    return sum(abs(one) > limit and one * value > 0 for one in each)


def shown_ms(half_width: float) -> str:
    """Return a half-width in ms, as it is shown: nothing is surer than a millisecond.

    >>> shown_ms(0.0123), shown_ms(0.0002)
    ('12', '1')
    """
    return f"{max(1.0, half_width * 1000):.0f}"


def interval_of(values: Sequence[float]) -> Interval | None:
    """Return the mean of some independent values with its 95 % half-width; None under two."""
    if len(values) < 2:
        return None
    array = np.asarray(values)
    count = len(array)
    half = student(SHOWN, count - 1) * float(array.std(ddof=1)) / sqrt(count)
    return Interval(float(array.mean()), half, count)
