"""Latency: how late a source reports, measured by tapping along with a plain click."""

from collections.abc import Sequence
from statistics import median

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.takes.interval import Interval, interval_of
from ripresa.core.takes.match import match_times

#: The first taps find the beat; they are left out.
_SETTLING = 2
_FEWEST_TAPS = 6
_LARGEST = 0.4
#: What is tapped along to: a plain click at a calm tempo.
CALIBRATION = Drill(
    title="Latency",
    material=OneNote(beats=16),
    legs=(Leg(Fraction(1)),),
    bpm=Fraction(90),
    accents=NoAccents(),
)


def measure_latency(due: Sequence[float], played: Sequence[float]) -> Interval:
    """Return the delay of a source in seconds, with its 95 % half-width.

    It holds what the device adds and what the person adds; the two cannot be
    told apart by tapping.

    Args:
        due: When clicks sounded. played: When taps arrived, on the same clock.

    Raises:
        OutOfRange: Too few taps, or taps that do not follow the click.
    """
    pairs = match_times(due, played).pairs[_SETTLING:]
    offsets = [played[found] - due[wanted] for wanted, found in pairs]
    if len(offsets) < _FEWEST_TAPS:
        raise OutOfRange(
            f"{len(offsets)} taps could be used, {_FEWEST_TAPS} are needed. Tap once with each click.", field="played"
        )
    spread = interval_of(offsets)
    if spread is None or abs(median(offsets)) > _LARGEST or spread.half_width > 0.03:
        raise OutOfRange("These taps do not follow the click closely enough to measure a latency. Try again.")
    return Interval(median(offsets), spread.half_width, len(offsets))
