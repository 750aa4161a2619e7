"""How sounds begin: what is listened for where a string is plucked, a key struck, a note tongued, or hands clap."""

from dataclasses import dataclass
from math import inf
from typing import Literal

from ripresa.core.errors import OutOfRange

As = Literal["plucked", "struck", "tongued", "clapped"]


@dataclass(frozen=True, slots=True)
class Profile:
    """What is listened for; all of it tuned on a synthesiser of instruments that is not ours (docs/decisions/0020).

    Args:
        name: In words.
        frame: Seconds of sound that are looked at together: long ones tell low notes apart.
        rise: Seconds over which a beginning rises: how far a frame is held against an earlier one.
        least: What the bands have to rise by on average, in dB, above what they do anyway.
        above: How much more than they do anyway, as a factor.
        floor: Below the loudest nearby by so many dB nothing is listened for.
        falls: How far the sound may fall while a note begins, in dB.
        before, after: Seconds beside a place, which lies some milliseconds late, in which its attack is looked for.
        depth: Below the loudest of its attack by so many dB the attack itself is followed.
        share: Of the steepest rise of the attack, where the note is said to begin.
        late: What the beginning is found too late by, in seconds; early below 0. It is taken off.
        deviation: What is left of its own error, in seconds.
        errs: The share of notes that are not heard, or heard for nothing.
        clear: What rises by so much more than bands do anyway, in dB, begins a note also where it is softer than what
            was before: another pitch after a loud one.
    """

    name: str
    frame: float
    rise: float
    least: float
    above: float
    floor: float
    falls: float
    before: float
    after: float
    depth: float
    share: float
    late: float
    deviation: float
    errs: float
    clear: float = inf


PROFILES: dict[As, Profile] = {
    "plucked": Profile(
        "plucked strings", 0.0464, 0.025, 1.7, 1.3, -45, -6, 0.022, 0.015, -55, 0.2, -0.0025, 0.002, 0.01
    ),
    "struck": Profile(
        "keys and other struck sounds", 0.0464, 0.025, 1.7, 1.3, -45, -6, 0.022, 0.015, -45, 0.15, -0.003, 0.002, 0.01
    ),
    "tongued": Profile("tongued wind", 0.0464, 0.05, 1.2, 1.0, -55, 1.6, 0.03, 0.03, -35, 0.3, 0.001, 0.005, 0.05, 2.5),
    "clapped": Profile(
        "clapping and the voice", 0.0232, 0.025, 1.7, 1.3, -45, -2, 0.022, 0.015, -45, 0.15, -0.003, 0.003, 0.01
    ),
}


def profile_named(name: str) -> Profile:
    """Return a profile by its key.

    Raises:
        OutOfRange: There is none of this name.
    """
    for key, profile in PROFILES.items():
        if key == name:
            return profile
    raise OutOfRange(f"Sounds are {', '.join(PROFILES)}, not “{name}”.", field="as")
