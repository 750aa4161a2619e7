"""Limits: how far each figure may lie off in a clean take, as a table of data with three schools."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import OutOfRange

Evenness = Literal["easy", "working", "strict"]
#: What a limit is about; each can have another school than the rest.
Figure = Literal["spread", "habit", "tempo", "click", "furthest", "seam", "first", "slips", "accent", "together"]

#: School → for whom it is.
EVENNESS: dict[Evenness, str] = {
    "easy": "For first steps, and for tired days.",
    "working": "What sounds even in a lesson room.",
    "strict": "For a recording or an audition.",
}


@dataclass(frozen=True, slots=True)
class Limit:
    """A limit.

    Args:
        amount: A share of the even gap of the division that is played; a part of the tempo, of the notes; or dB.
        floor: Seconds under which it never falls.
    """

    amount: float
    floor: float = 0.0

    def at(self, gap: float) -> float:
        """Return the limit in seconds for a gap in seconds.

        >>> round(Limit(0.10, 0.010).at(0.15625) * 1000, 1)
        15.6
        """
        return max(self.amount * gap, self.floor)


#: Figure → its name, what it is a share of, and its limit in each school.
LIMITS: dict[Figure, tuple[str, str, dict[Evenness, Limit]]] = {
    "spread": (
        "spread",
        "of the gap",
        {"easy": Limit(0.15, 0.015), "working": Limit(0.10, 0.010), "strict": Limit(0.07, 0.008)},
    ),
    "habit": (
        "habit of a slot",
        "of the gap",
        {"easy": Limit(0.15, 0.015), "working": Limit(0.10, 0.012), "strict": Limit(0.07, 0.008)},
    ),
    "tempo": (
        "tempo",
        "off the tempo",
        {"easy": Limit(0.02), "working": Limit(0.01), "strict": Limit(0.005)},
    ),
    "click": (
        "with the click",
        "of the gap",
        {"easy": Limit(0.25, 0.030), "working": Limit(0.20, 0.025), "strict": Limit(0.12, 0.015)},
    ),
    "furthest": (
        "furthest from the click",
        "of the gap",
        {"easy": Limit(0.50, 0.060), "working": Limit(0.35, 0.045), "strict": Limit(0.25, 0.030)},
    ),
    "seam": (
        "changes, landings and places",
        "of the gap",
        {"easy": Limit(0.30, 0.030), "working": Limit(0.20, 0.020), "strict": Limit(0.14, 0.015)},
    ),
    "first": (
        "first note of a change",
        "of the gap",
        {"easy": Limit(0.40, 0.040), "working": Limit(0.28, 0.028), "strict": Limit(0.20, 0.020)},
    ),
    "slips": (
        "slips",
        "of the notes",
        {"easy": Limit(0.06), "working": Limit(0.03), "strict": Limit(0.01)},
    ),
    "accent": (
        "accents over plain notes",
        "dB",
        {"easy": Limit(3.0), "working": Limit(4.0), "strict": Limit(6.0)},
    ),
    # Our choice, as wide as the habit of a slot, with a floor that a melody which leads by intent stays under.
    "together": (
        "hands together",
        "of the gap",
        {"easy": Limit(0.15, 0.030), "working": Limit(0.10, 0.020), "strict": Limit(0.07, 0.012)},
    ),
}


@dataclass(frozen=True, slots=True)
class But:
    """One figure that is held to another school than the rest."""

    figure: Figure
    evenness: Evenness


@dataclass(frozen=True, slots=True)
class Limits:
    """What a take is held to: a school, and figures that have another one.

    Raises:
        OutOfRange: A figure stands twice, or has the school of the rest.
    """

    evenness: Evenness = "working"
    but: tuple[But, ...] = ()

    def __post_init__(self) -> None:
        named = [one.figure for one in self.but]
        if len(set(named)) < len(named):
            raise OutOfRange("A figure has one school. Take it out where it stands twice.", field="but")

    def of(self, figure: Figure) -> Limit:
        """Return the limit of a figure."""
        schools = {one.figure: one.evenness for one in self.but}
        return LIMITS[figure][2][schools.get(figure, self.evenness)]

    @property
    def words(self) -> str:
        """What is asked, as a phrase: ``evenness working, but changes, landings and places easy``."""
        other = [f"{LIMITS[one.figure][0]} {one.evenness}" for one in self.but if one.evenness != self.evenness]
        return f"evenness {self.evenness}" + (f", but {' and '.join(other)}" if other else "")


@dataclass(frozen=True, slots=True)
class Band:
    """How far a note may lie off at one division, to either side.

    Args:
        division: Its name. seconds: How far. share: The same as a share of the gap, as it is drawn on a beat.
    """

    division: str
    seconds: float
    share: float


@dataclass(frozen=True, slots=True)
class Asked:
    """One limit as it is asked for: its name, the figures in words, and a band for each division where it has one."""

    name: str
    words: str
    bands: tuple[Band, ...] = ()


def asked(limits: Limits, gaps: Mapping[str, float]) -> tuple[Asked, ...]:
    """Return each limit, for the gaps (in seconds) of the divisions by their names.

    >>> asked(Limits(), {"4": 0.15625})[0].words
    '16 ms at 4 a beat'
    """
    told = []
    for figure, (name, unit, _) in LIMITS.items():
        limit = limits.of(figure)
        if unit == "of the gap":
            bands = tuple(Band(name, limit.at(gap), limit.at(gap) / gap) for name, gap in gaps.items())
            words = ", ".join(f"{band.seconds * 1000:.0f} ms at {band.division} a beat" for band in bands)
            told.append(Asked(name, words, bands))
        elif unit == "dB":
            told.append(Asked(name, f"{limit.amount:g} dB or more"))
        else:
            told.append(Asked(name, f"{limit.amount * 100:g} % {unit}"))
    return tuple(told)


def asked_in_short(limits: Limits, gaps: Mapping[str, float]) -> str:
    """Return what is asked before a try, in one sentence, for the closest notes.

    >>> asked_in_short(Limits(), {"2": 0.3125, "4": 0.15625})
    'Even within 16 ms at 4 a beat; changes within 31 ms; up to 3 slips in 100 notes.'
    """
    division = min(gaps, key=lambda name: gaps[name])
    gap = gaps[division]
    slips = limits.of("slips").amount * 100
    changes = f"; changes within {limits.of('seam').at(gap) * 1000:.0f} ms" if len(gaps) > 1 else ""
    return (
        f"Even within {limits.of('spread').at(gap) * 1000:.0f} ms at {division} a beat{changes}; "
        f"up to {slips:g} {'slip' if slips == 1 else 'slips'} in 100 notes."
    )
