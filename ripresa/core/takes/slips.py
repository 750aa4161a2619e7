"""Slips: how many a clean take may have, and which notes were met too far from their place to be no slip."""

from ripresa.core.takes.figures import Figures
from ripresa.core.takes.limits import Limits

#: A note is misplaced from so many limits on.
_FAR = 2.5


def misplaced(figures: Figures, limits: Limits) -> int:
    """Return how many notes were met, but farther from their place than 2½ of the limit that holds there."""
    spread, change = limits.of("spread"), limits.of("seam")
    return sum(abs(one.offset) > _FAR * (change if one.is_change else spread).at(one.gap) for one in figures.strays)


def slip_bounds(due: int, allowed: float) -> int:
    """Return how many slips a clean take of so many notes may have, for a share that is allowed: rounded down.

    >>> slip_bounds(29, 0.03), slip_bounds(116, 0.03), slip_bounds(400, 0.03)
    (0, 3, 12)
    """
    return int(due * allowed + 1e-9)
