"""Ready plans by level: an offer to begin with, never a norm."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.climbs.moving import Moving
from ripresa.core.climbs.rules import EvenSteps, PerCent, RungRule
from ripresa.core.exact import Fraction
from ripresa.core.takes import Evenness

Level = Literal["first_year", "some_years", "advanced", "easily_upset"]


@dataclass(frozen=True, slots=True)
class Preset:
    """A rung rule, a moving rule and an evenness that go together; the numbers are our choice."""

    name: str
    why: str
    rule: RungRule
    moving: Moving
    clean_to_rise: int
    shaky_to_fall: int
    evenness: Evenness


PRESETS: dict[Level, Preset] = {
    "first_year": Preset(
        "a first year",
        "Even steps that can be counted, and an easy limit.",
        EvenSteps(),
        "stay_until_clean",
        2,
        2,
        "easy",
    ),
    "some_years": Preset(
        "some years of playing",
        "3 % up after three clean in a row, one back after three shaky: on made-up learners it reached the target "
        "most surely.",
        PerCent(Fraction(3)),
        "stay_until_clean",
        3,
        3,
        "working",
    ),
    "advanced": Preset(
        "an advanced player",
        "Two rungs ahead, one back, by a strict limit: speed is looked at before it is owned.",
        PerCent(Fraction(2)),
        "up_two_back_one",
        2,
        3,
        "strict",
    ),
    "easily_upset": Preset(
        "one whom shaky takes upset",
        "Tiny steps and a large one back: on made-up learners the fewest shaky takes, and slower.",
        PerCent(Fraction(1)),
        "staircase",
        2,
        2,
        "working",
    ),
}
