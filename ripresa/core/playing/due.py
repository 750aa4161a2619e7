"""What is due: the notes of a stretch of a performance, and which of those that were played belong to it."""

from collections.abc import Sequence
from fractions import Fraction

from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds

#: How early, in seconds, the first note of a drill may come and still be meant as that note: our choice.
_EARLIEST = 0.25
#: A stretch is given in floating seconds: what lies this near to its edge lies on it.
_HAIR = 1e-9


def most_due(reading: Reading, bpm: Fraction, seconds: float) -> int:
    """Return how many notes at most are due in so many seconds: those of every turn that is begun.

    ``turns = seconds * bpm / 60 / beats of a turn``, rounded up.
    """
    return len(reading.notes) * (int(Fraction(seconds) * bpm / 60 / reading.loop_beats) + 1)


def expected_onsets(reading: Reading, bpm: Fraction, start: float, end: float) -> list[tuple[float, int]]:
    """Return (seconds, index of the event) of each note due from ``start`` to before ``end``, turns repeated.

    Args:
        start, end: Seconds from the start of the first turn.
    """
    turn = reading.loop_beats
    due = [(index, event.onset) for index, event in enumerate(reading.events) if event.kind == "note"]
    found: list[tuple[float, int]] = []
    first = int(Fraction(start) * bpm / 60 / turn)
    last = int(Fraction(end) * bpm / 60 / turn)
    for number in range(max(0, first), last + 1):
        for index, onset in due:
            at = float(span_seconds(number * turn + onset, bpm))
            if start - _HAIR <= at < end - _HAIR:
                found.append((at, index))
    return found


def onsets_within(played: Sequence[float], due: Sequence[tuple[float, int]], end: float, latency: float) -> list[float]:
    """Return the played onsets that may belong to a stretch, in order.

    A stretch is cut at a bar line. What was played within half a gap before
    its first note, or after its last, belongs to the bar beside it.

    Args:
        played: Seconds, rising. due: As ``expected_onsets`` gives them.
        end: Where the stretch ends, in seconds. latency: Known delay of the source, in seconds.
    """
    if not due:
        return list(played)
    times = [at for at, _ in due]
    # The gap at each edge; a lone note has the whole stretch. The very first note of a drill has no bar before it.
    first = times[1] - times[0] if len(times) > 1 else end - times[0]
    begin = times[0] - first / 2 if times[0] > 0 else times[0] - max(first / 2, _EARLIEST)
    finish = end - (end - times[-1]) / 2
    return [at for at in played if begin + latency <= at < finish + latency]
