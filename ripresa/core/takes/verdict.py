"""The word: clean, shaky, too near to call, or none; the fault first, with two numbers.

A take is clean where every figure lies inside its limit by its 90 % interval, shaky where one lies outside by its
interval, else too near to call. The rule is stated before the try, and a person's ear overrules it.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil
from typing import Literal

from ripresa.core.exact import plural
from ripresa.core.takes.due import Due
from ripresa.core.takes.fault import HAND_WORDS, Checked, Fault
from ripresa.core.takes.faults import check_all
from ripresa.core.takes.figures import Figures
from ripresa.core.takes.gate import BY_EAR, Offer, Refusal, refusal
from ripresa.core.takes.interval import Interval
from ripresa.core.takes.limits import Limits
from ripresa.core.takes.measure import Measured
from ripresa.core.takes.sources import Source
from ripresa.core.takes.telling import fault_words, well_words
from ripresa.core.takes.two_hands import Hand

Mark = Literal["clean", "shaky", "near", "none"]
#: Sentences on faults that a word begins with, at most.
MOST_TOLD = 3
_BY_EAR = "Marked "
MARKS: tuple[Mark, ...] = ("clean", "shaky", "near", "none")

#: What each mark is called inside a line.
MARK_WORDS: dict[Mark, str] = {"clean": "clean", "shaky": "shaky", "near": "too near to call", "none": "no verdict"}

#: Notes that are measured at once, those due and those heard.
MOST_MEASURED = 20_000
ONE_MORE = Offer("again", "One more pass")
#: More passes than this are not asked for.
MOST_PASSES = 12


@dataclass(frozen=True, slots=True)
class Verdict:
    """What is said of a take.

    Args:
        mark: Clean, shaky, too near to call, or none where it cannot be judged.
        faults: What lies outside of its limit, the worst first; of a near one, what could.
        reasons: Sentences with their numbers: the fault, then what is well.
        offers: What fits in one press.
        refused: The kind of refusal; empty where the take was judged.
    """

    mark: Mark
    reasons: tuple[str, ...]
    faults: tuple[Fault, ...] = ()
    offers: tuple[Offer, ...] = ()
    refused: str = ""


def verdict(
    take: Measured,
    figures: Figures,
    limits: Limits,
    source: Source,
    latency: tuple[float, float] | None,
    earlier: Sequence[Figures] = (),
    errs: float = 0.0,
) -> Verdict:
    """Return what is said of a measured take.

    Args:
        latency: Known delay of the source and its half-width, in seconds.
        earlier: Takes of the same rung and click: changes are pooled over them where this one is too near to say.
        errs: The share of notes that the source itself loses.
    """
    closed = refusal(take, figures, limits, source, latency)
    if closed is not None:
        return _none(closed)
    checked = check_all(figures, limits, earlier, float(take.due.reading.drill.articulation), errs, _rings(take.due))
    return _said(figures, checked, _turns(take.due))


def verdict_of_hands(
    due: Due,
    hands: Sequence[Hand],
    figures: Figures,
    limits: Limits,
    source: Source,
    latency: tuple[float, float] | None,
    earlier: Sequence[Figures] = (),
    errs: float = 0.0,
) -> Verdict:
    """Return what is said of a take of two hands: none where one of them cannot be judged.

    Args:
        figures: Of both. The rest as of one hand.
    """
    for hand in hands:
        closed = refusal(hand.take, hand.figures, limits, source, latency)
        if closed is not None:
            name = HAND_WORDS[hand.symbol].capitalize()
            return _none(replace(closed, sentence=f"{name}: {_uncapped(closed.sentence)}"))
    checked = check_all(figures, limits, earlier, float(due.reading.drill.articulation), errs, _rings(due))
    return _said(figures, checked, _turns(due))


def _rings(due: Due) -> bool:
    """Whether what is struck rings on until the next is struck: strings that are plucked, and what has no pitch."""
    return due.reading.instrument.voice in {"pluck", "struck"}


def _turns(due: Due) -> int:
    return int(due.turn[-1]) + 1 if len(due) else 1


def _said(figures: Figures, checked: Sequence[Checked], turns: int) -> Verdict:
    outside = [one for one in checked if one.state == "outside"]
    near = [one for one in checked if one.state == "near"]
    well = well_words(checked)
    if outside:
        faults = tuple(one.fault for one in sorted(outside, key=lambda one: -one.weight))
        others = [fault_words(fault, figures) for fault in faults[1:MOST_TOLD]]
        return Verdict("shaky", (fault_words(faults[0], figures, well), *others, *well), faults)
    if near:
        faults = tuple(one.fault for one in sorted(near, key=lambda one: -one.weight))
        first = f"Too near to call: {_uncapped(fault_words(faults[0], figures))}"
        passes = passes_to_settle(faults, turns)
        if passes > MOST_PASSES:
            told, again = "It lies too near to the limit for more passes to settle it: the ear decides.", ONE_MORE
        else:
            told = f"A take of {plural(passes, 'pass', 'passes')} would settle it."
            again = Offer("again", f"Play {plural(passes, 'pass', 'passes')}", passes=passes)
        return Verdict("near", (first, told, *well), faults, (again, BY_EAR))
    return Verdict("clean", tuple(well))


def passes_to_settle(faults: Sequence[Fault], turns: int) -> int:
    """Return of how many passes a take would be in which every figure that is too near now could be told.

    A half-width falls with the root of the notes: it has to fit between the figure and its limit. A count of slips is
    settled by as many notes again.
    """
    needed = turns + 1
    for fault in faults:
        half = Interval(fault.value, fault.half_width, 0).half()
        room = abs(fault.limit - abs(fault.value))
        share = (half / room) ** 2 if room > 0 else MOST_PASSES + 1.0
        needed = max(needed, 2 * turns if fault.kind == "slips" else ceil(turns * min(share, MOST_PASSES + 1.0)))
    return needed


def too_long(due: int) -> Verdict:
    """Return that a take is kept and not measured, because it has too many notes."""
    sentence = (
        f"This take goes over {due:,} notes or more, and up to {MOST_MEASURED:,} are measured at once. "
        "It is kept as it was played. Play fewer passes, or mark it by ear."
    )
    return Verdict("none", (sentence,), (), (BY_EAR,), "long")


def by_ear(mark: Literal["clean", "shaky"], who: str) -> str:
    """Return the sentence on a person's verdict; it stands as it is."""
    return f"{_BY_EAR}{mark} by ear, by the {who}."


def is_by_ear(reason: str) -> bool:
    """Whether a sentence is that on a person's verdict."""
    return reason.startswith(_BY_EAR)


def _none(closed: Refusal) -> Verdict:
    return Verdict("none", (closed.sentence,), (), closed.offers, closed.kind)


def _uncapped(sentence: str) -> str:
    return sentence[:1].lower() + sentence[1:]
