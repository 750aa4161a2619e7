"""The word of a take in three parts: the fault as a heading, what is said of it, and what was well."""

from collections.abc import Sequence
from dataclasses import dataclass

from ripresa.core.exact import capital
from ripresa.core.takes.evenness import is_straight
from ripresa.core.takes.fault import HAND_WORDS, Fault
from ripresa.core.takes.telling import CONTRAST, division_told
from ripresa.core.takes.verdict import MARK_WORDS, MOST_TOLD, Mark, is_by_ear

#: A word that is too near begins with what is, and with what would settle it.
_NEAR = 2
_LANDINGS = {
    "hits": "The hits come",
    "arrivals": "The arrival comes",
    "after a rest": "What follows a rest comes",
    "after a fill": "The return after a fill comes",
    "after silence of the click": "What follows silence of the click comes",
}


@dataclass(frozen=True, slots=True)
class TakeWord:
    """What is said of a take, as it is shown: ``says`` begins with the fault and its number."""

    heading: str
    says: tuple[str, ...]
    well: tuple[str, ...]


def word_of(mark: Mark, faults: Sequence[Fault], reasons: Sequence[str]) -> TakeWord:
    """Return the word of a take, of its mark, its faults and its sentences in the order in which they were told."""
    spoken = [one for one in reasons if is_by_ear(one)]
    told = [one for one in reasons if one not in spoken]
    count = {"shaky": min(MOST_TOLD, len(faults)), "near": _NEAR, "none": len(told)}.get(mark, 0)
    # An ear may overrule the machine: the sentences are still those of what was measured.
    if spoken and mark != "none":
        count = min(len(told), min(MOST_TOLD, len(faults)))
    says, well = told[:count], told[count:]
    heading = capital(MARK_WORDS[mark])
    if mark == "shaky" and faults:
        heading = fault_heading(faults[0], is_even=any(line.startswith("Even") for line in well))
        # What the heading says already is not said again.
        says = [capital(one.removeprefix(CONTRAST)) for one in says]
    return TakeWord(heading, (*spoken, *says), tuple(well))


def fault_heading(fault: Fault, *, is_even: bool = False) -> str:
    """Return a fault in a few words, as a colleague would say it: ``Even, but late at the change 3 → 4``.

    Args:
        is_even: Whether everything else is even.
    """
    side = fault.side
    match fault.kind:
        case "seam":
            return f"Even, but {side} at the change {fault.where}" if is_even else f"{capital(side)} at {fault.where}"
        case "place":
            return f"{capital(side)} at {fault.where}"
        case "habit":
            return f"“{fault.where}” comes {side}{fault.in_hand}"
        case "crowding":
            return f"Crowded at {fault.division} a beat"
        case "swing":
            asked = "swing" if fault.where else "straight"
            return f"{'Straight' if is_straight(fault.value) else 'Swung'} where {asked} is asked"
        case "tempo":
            return "Runs ahead" if fault.value > 0 else "Falls behind"
        case "click":
            return "Behind the click" if fault.value > 0 else "Ahead of the click"
        case "furthest":
            known = "the click" if fault.where == "click" else "where it began"
            return f"Goes {'behind' if fault.value > 0 else 'ahead of'} {known}"
        case "spread":
            return f"Uneven at {division_told(fault.where)}"
        case "lost_beat":
            return "Something was left out" if fault.where == "silent" else "A beat was lost or won"
        case "group":
            return "A group stood off"
        case "back":
            return "Stopped and went back"
        case "hand":
            hand = capital(HAND_WORDS.get(fault.symbol, fault.symbol))
            return f"{hand} is uneven" if fault.where == "spread" else f"{hand} comes {side}"
        case "accent":
            return "The accents are flat"
        case "misplaced":
            return "Accents on the note beside theirs"
        case "smear":
            return "Notes run into each other"
        case "landing":
            if fault.unit == "%":
                return f"Inside the fills {'faster' if fault.value > 0 else 'slower'}"
            return f"{_LANDINGS[fault.where]} {side}"
        case "slips":
            return "Too many slips"
        case "together":
            return f"The hands are apart, the {'left' if fault.value >= 0 else 'right'} behind"
