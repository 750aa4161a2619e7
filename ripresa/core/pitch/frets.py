"""Grips as they are typed: a fret for each string, the thickest first: ``x32010``, ``x-10-12-12-11-10``."""

import re

from ripresa.core.errors import Unreadable

#: A fret for each string, 0 open, None where it does not sound.
Frets = tuple[int | None, ...]

#: Frets that a hand spans without stretching, and that it reaches at all.
SPAN, REACH = 4, 6
_HIGHEST_FRET = 24
_PLAIN = re.compile(r"^[x\d]{4,8}$")
_PARTED = re.compile(r"^(?:x|\d{1,2})(?:-(?:x|\d{1,2})){3,7}$")


def is_typed(text: str) -> bool:
    """Return whether a text is a typed grip: ``x32010``, ``x-10-12-12-11-10``."""
    return bool(_PLAIN.match(text) or _PARTED.match(text))


def parse_frets(text: str, where: str, field: str) -> Frets:
    """Return the frets of a typed grip, the thickest string first.

    Raises:
        Unreadable: No string sounds, a fret is too high, or no hand reaches from one to another.
    """
    signs = text.split("-") if "-" in text else list(text)
    frets = tuple(None if sign == "x" else int(sign) for sign in signs)
    held = [fret for fret in frets if fret]
    if all(fret is None for fret in frets):
        raise Unreadable(f"{where}“{text}”: no string sounds. Write a fret, or 0 for an open string.", field=field)
    if held and max(held) > _HIGHEST_FRET:
        raise Unreadable(f"{where}“{text}” asks for fret {max(held)}; necks end at {_HIGHEST_FRET}.", field=field)
    if held and max(held) - min(held) >= REACH:
        raise Unreadable(
            f"{where}“{text}” spans {max(held) - min(held) + 1} frets, from {min(held)} to {max(held)}, and a hand "
            f"reaches {SPAN}, {REACH} at the most. Move a note nearer.",
            field=field,
        )
    return frets
