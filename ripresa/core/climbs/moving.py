"""Moving rules: when a climb goes up, stays or goes back. Each is stated before the try, and each has its step back."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.exact import plural

Moving = Literal["stay_until_clean", "up_two_back_one", "time_box", "staircase"]

MOVINGS: dict[Moving, tuple[str, str]] = {
    "stay_until_clean": ("stay until clean", "A rung is left when it stands: the usual way."),
    "up_two_back_one": ("two up, one back", "Look ahead by two, then make the one between firm: fewer shaky takes."),
    "time_box": ("a time for each rung", "The clock ends a rung, not patience: for short days and long lists."),
    "staircase": ("one up, two back", "Small steps up, a larger one back: fewest shaky takes, and slower."),
}


@dataclass(frozen=True, slots=True)
class Paces:
    """By how many rungs a moving rule goes: up, up where the last move was a step up by two, and back."""

    up: int
    after_two: int
    back: int


#: Where the one between is made firm, up is one back: the sign says so.
PACES: dict[Moving, Paces] = {
    "stay_until_clean": Paces(1, 1, 1),
    "up_two_back_one": Paces(2, -1, 1),
    "time_box": Paces(1, 1, 1),
    "staircase": Paces(1, 1, 2),
}


def moving_sentence(moving: Moving, clean: int, shaky: int, minutes: int) -> str:
    """Return a moving rule as it is stated before the try.

    >>> moving_sentence("stay_until_clean", 2, 3, 5)
    'Up after 2 clean takes in a row, back one rung after 3 shaky ones in a row.'
    """
    rows = f"{plural(clean, 'clean take')}{' in a row' if clean > 1 else ''}"
    falls = f"after {shaky} shaky ones in a row"
    match moving:
        case "stay_until_clean":
            return f"Up after {rows}, back one rung {falls}."
        case "up_two_back_one":
            return f"Up two rungs after {rows}, then back one to make it firm; back one rung {falls}."
        case "time_box":
            return (
                f"{plural(minutes, 'minute')} of playing on each rung: then up if more takes were clean than shaky, "
                "back one rung if more were shaky."
            )
        case "staircase":
            return f"Up one rung after {rows}, back two rungs {falls}."
