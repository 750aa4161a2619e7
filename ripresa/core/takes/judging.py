"""Judging a take from its notes to its word, in one go."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ripresa.core.takes.due import Due
from ripresa.core.takes.figures import Figures, LostBeat
from ripresa.core.takes.heard import HeardNote, as_keys
from ripresa.core.takes.jumps import route_of
from ripresa.core.takes.limits import Limits
from ripresa.core.takes.match import Match, match_take
from ripresa.core.takes.measure import fitted_take, measure
from ripresa.core.takes.sources import Source, errs_of
from ripresa.core.takes.two_hands import as_one, both_hands, measured_hands, struck_as_one
from ripresa.core.takes.unheard import heard_part
from ripresa.core.takes.verdict import Verdict, verdict, verdict_of_hands

#: Jumps are looked for where such a share of the notes are slips, and taken where they explain half of them.
_ODD, _BETTER = 0.06, 0.5


@dataclass(frozen=True, slots=True)
class Judged:
    """A take as it was matched, what it measures, and what is said of it."""

    match: Match
    figures: Figures
    verdict: Verdict


def judge(
    due: Due,
    notes: Sequence[HeardNote],
    limits: Limits,
    source: Source,
    latency: tuple[float, float] | None = None,
    earlier: Sequence[Figures] = (),
    hidden: Sequence[float] = (),
) -> Judged:
    """Return a take matched, measured and judged; what its source cannot hear is left out, and said.

    Args:
        latency: Known delay of the source and its half-width, in seconds; None where it was not measured.
        earlier: Figures of takes of the same rung under the same click: changes are pooled over them where this one
            is too near to say.
        hidden: Moments of clicks under which a microphone heard nothing, in seconds.
    """
    if not any(due.tones):
        notes = as_keys(notes)
    due, notes, left = heard_part(due, notes, source, hidden, latency[0] if latency else None)
    found = _judged(due, notes, limits, source, latency, earlier)
    told = replace(found.verdict, reasons=(*found.verdict.reasons, *left.sentences))
    return replace(found, verdict=told)


def _judged(
    due: Due,
    notes: Sequence[HeardNote],
    limits: Limits,
    source: Source,
    latency: tuple[float, float] | None,
    earlier: Sequence[Figures],
) -> Judged:
    errs = errs_of(due.reading, source)
    if due.reading.other:
        hands = measured_hands(due, notes, latency)
        if hands is not None:
            match, figures = both_hands(due, hands)
            return Judged(match, figures, verdict_of_hands(due, hands, figures, limits, source, latency, earlier, errs))
        due = as_one(due)
        notes = struck_as_one(due, notes)
    match = match_take(due, notes, latency[0] if latency else None)
    route = route_of(due, notes) if match.is_symbolic and _slips(match) > _ODD * len(due) else None
    again = match_take(due, route.notes, latency[0] if latency else None) if route else None
    if route and again and _slips(again) <= _BETTER * _slips(match):
        take = fitted_take(due, again, route.notes)
        figures = measure(take, latency)
        lost = _in_order((*route.jumps, *_others(figures.lost, route.jumps)))
        figures = replace(figures, lost=lost, again=route.again)
        match = _as_given(again, route.index)
    else:
        take = fitted_take(due, match, notes)
        figures = measure(take, latency)
    return Judged(match, figures, verdict(take, figures, limits, source, latency, earlier, errs))


def _slips(match: Match) -> int:
    return len(match.missed) + len(match.extra) + len(match.wrong)


def _others(lost: Sequence[LostBeat], jumps: Sequence[LostBeat]) -> list[LostBeat]:
    """Return what was lost besides what jumps left out."""
    out = {(one.event, one.turn) for one in jumps if one.kind == "silent"}
    return [one for one in lost if one.kind != "silent" or (one.event, one.turn) not in out]


def _in_order(lost: Sequence[LostBeat]) -> tuple[LostBeat, ...]:
    return tuple(sorted(lost, key=lambda one: (one.turn, one.event)))


def _as_given(match: Match, index: Sequence[int]) -> Match:
    """Return a match of notes that were chosen, by the numbers of all that were given."""
    pairs = tuple((due, index[note]) for due, note in match.pairs)
    return replace(match, pairs=pairs, extra=tuple(index[note] for note in match.extra))
