"""The mirror: the other hand or direction leads, and fingers are turned over, with the thumb or without it."""

import re
from collections.abc import Mapping
from dataclasses import replace
from typing import Literal

from ripresa.core.drill import OTHER_FOOT, Drill
from ripresa.core.drill.hands import ByOrder, ByPlace, Economy, Letters
from ripresa.core.drill.material import Picked
from ripresa.core.errors import OutOfRange

#: What each symbol is in the mirror; others stay.
_MIRROR = {"R": "L", "L": "R", "D": "U", "U": "D"}
#: Fingers mirrored while the thumb stays, and with the thumb; its new place is marked by a prime.
_FINGERS = {"i": "a", "a": "i"}
_WITH_THUMB = {"p": "a", "i": "m", "m": "i", "a": "p′"}
_THUMB_BACK = {"p′": "a", "i": "m", "m": "i", "a": "p"}
#: In a picked pattern a finger says its string itself, and no mark is needed.
_PICKED_WITH_THUMB = {"p": "a", "i": "m", "m": "i", "a": "p"}
#: A finger of a picked pattern, with its string or without; in ``bass`` and ``strum`` there is none.
_FINGER = re.compile(r"(?<![a-z])[pima](?=\d|\+|\s|$)")


def mirrored(drill: Drill) -> Drill:
    """Return a drill with the other lead: right for left, down for up; of p i m a the fingers, the thumb stays.

    Where right hand and left change places, the feet do too.

    Raises:
        OutOfRange: No hand is written that has another side.
    """
    hands = drill.hands
    if isinstance(hands, ByPlace | Economy):
        return replace(drill, hands=replace(hands, lead="up" if hands.lead == "down" else "down"))
    if isinstance(hands, Letters):
        other: Literal["R", "L"] = "L" if hands.lead == "R" else "R"
        pattern = tuple(_MIRROR.get(one, one) for one in hands.pattern)
        return feet_turned(replace(drill, hands=replace(hands, lead=other, pattern=pattern)))
    for mirror in (_MIRROR, _FINGERS):
        if isinstance(hands, ByOrder) and set(hands.cycle) & set(mirror):
            made = _recycled(drill, hands, mirror)
            return feet_turned(made) if {"R", "L"} & set(hands.cycle) else made
    if isinstance(drill.material, Picked):
        return _repicked(drill, drill.material, _FINGERS)
    raise OutOfRange(
        "No hands are written that could be turned over. Choose a cycle with R and L, or D and U.", field="hands.kind"
    )


def mirrored_with_thumb(drill: Drill) -> Drill:
    """Return a drill whose p i m a are all mirrored: p for a, i for m; in a cycle the thumb is marked ``p′`` then.

    Raises:
        OutOfRange: No fingers are written.
    """
    hands = drill.hands
    if isinstance(hands, ByOrder) and set(hands.cycle) & (set(_WITH_THUMB) | {"p′"}):
        mirror = _THUMB_BACK if "p′" in hands.cycle else _WITH_THUMB
        return _recycled(drill, hands, mirror)
    if isinstance(drill.material, Picked):
        return _repicked(drill, drill.material, _PICKED_WITH_THUMB)
    raise OutOfRange("No fingers are written that could be mirrored. Choose a cycle of p i m a.", field="hands.kind")


def feet_turned(drill: Drill) -> Drill:
    """Return a drill with the right foot for the left one, and the other way round; none and both stay."""
    return replace(drill, foot=replace(drill.foot, which=OTHER_FOOT[drill.foot.which]))


def _recycled(drill: Drill, hands: ByOrder, mirror: Mapping[str, str]) -> Drill:
    return replace(drill, hands=replace(hands, cycle=tuple(mirror.get(one, one) for one in hands.cycle)))


def _repicked(drill: Drill, picked: Picked, mirror: Mapping[str, str]) -> Drill:
    """Return a drill whose picked pattern has its fingers mirrored, each on the string that is written.

    >>> made = Drill(material=Picked(pattern="p5 i m a p+a bass"), instrument="guitar")
    >>> _repicked(made, made.material, _PICKED_WITH_THUMB).material.pattern
    'a5 m i p a+p bass'
    """
    pattern = _FINGER.sub(lambda found: mirror.get(found[0], found[0]), picked.pattern)
    return replace(drill, material=replace(picked, pattern=pattern))
