"""An instrument of one's own, described in a line: ``whistle in D: wind, D4 to B5, sounds +12, breath 8``.

Its name stands before the colon; then come its family (wind, strings or keys) and, in any order and parted by commas,
its written range ``D4 to B5``, ``first year D4 to D5``, ``sounds -9`` (semitones against what is written), ``clef
bass``, ``break A4 B4``, ``breath 8`` (seconds), and for strings ``strings E2 A2 D3 G3 B3 E4`` as they sound, from the
thickest, with ``frets 22``: these say family and range themselves.
"""

import re
from collections.abc import Callable
from functools import lru_cache
from typing import Any, get_args

from ripresa.core.errors import RipresaError, Unreadable
from ripresa.core.pitch.instrument import Clef, Instrument
from ripresa.core.pitch.pitch import parse_pitch

#: What parts a name from its description; no key of a known instrument has it.
OWN_SIGN = ":"
LONGEST = 400
_FIELD = "instrument"
_FAMILIES = {"wind": "wind", "strings": "pluck", "keys": "keys"}
_STROKES = {
    "wind": ("single_tongue", "double_tongue", "triple_tongue", "slur_pairs", "slur_two_tongue_two"),
    "pluck": ("alternate",),
    "keys": ("hands",),
}
_FEWEST_STRINGS, _MOST_STRINGS, _MOST_FRETS = 3, 10, 36
#: Usual frets, seconds of a breath, and semitones that strings sound under what is written.
_FRETS, _BREATH, _STRINGS_SOUND = 22, 10, -12
_NOTE = r"[A-G](?:b|#)?[0-8]"


@lru_cache(maxsize=128)
def own_instrument(line: str) -> Instrument:
    """Return the instrument of a line.

    Raises:
        Unreadable: The line says no name or no family, or a part of it cannot be read; the sentence says which.

    >>> whistle = own_instrument("whistle in D: wind, D4 to B5, first year D4 to D5, sounds +12")
    >>> whistle.name, whistle.lowest, whistle.first_year, whistle.sounds, whistle.breath
    ('whistle in D', 62, (62, 74), 12, 10)
    """
    if len(line) > LONGEST:
        raise _unreadable(f"An instrument of one’s own has up to {LONGEST} signs")
    name, _, described = line.partition(OWN_SIGN)
    parts = [part.strip() for part in described.replace("♭", "b").replace("♯", "#").split(",") if part.strip()]
    family = next((one for one in parts if one in _FAMILIES), "")
    # Who names strings need not say that it has them.
    kind = _FAMILIES.get(family, "pluck" if any(one.startswith("strings ") for one in parts) else "")
    if not name.strip() or not kind:
        raise _unreadable(f"“{line}” is no instrument. Write its name, a colon, and wind, strings or keys")
    said: dict[str, Any] = {}
    for part in parts:
        if part != family:
            said |= _read(part, name.strip())
    return _made(name.strip(), kind, said)


def _read(part: str, name: str) -> dict[str, Any]:
    for pattern, read in _PARTS:
        found = re.fullmatch(pattern, part)
        if found:
            try:
                return read(*found.groups())
            except RipresaError as error:
                raise _unreadable(f"{name}: “{part}”: {error.message.rstrip('.')}") from error
    raise _unreadable(
        f"{name}: “{part}” cannot be read. Write D4 to B5, first year D4 to D5, sounds +12, clef bass, break A4 B4, "
        "breath 8, strings E2 A2 D3 G3, or frets 22"
    )


def _midi(note: str) -> int:
    return parse_pitch(note).midi


#: How a part is written → what it says.
_PARTS: tuple[tuple[str, Callable[..., dict[str, Any]]], ...] = (
    (rf"({_NOTE}) to ({_NOTE})", lambda low, high: {"range": (_midi(low), _midi(high))}),
    (rf"first year ({_NOTE}) to ({_NOTE})", lambda low, high: {"first_year": (_midi(low), _midi(high))}),
    (r"sounds ([+-]?\d{1,2})", lambda semitones: {"sounds": int(semitones)}),
    (rf"clef ({'|'.join(get_args(Clef))})", lambda clef: {"clef": clef}),
    (rf"break ({_NOTE}) ({_NOTE})", lambda low, high: {"breaks": (_midi(low), _midi(high))}),
    (r"breath (\d{1,2})", lambda seconds: {"breath": int(seconds)}),
    (rf"strings ({_NOTE}(?: {_NOTE})*)", lambda notes: {"strings": tuple(map(_midi, notes.split()))}),
    (r"frets (\d{1,2})", lambda frets: {"frets": int(frets)}),
)


def _made(name: str, kind: str, said: dict[str, Any]) -> Instrument:
    """Return the instrument of what is said.

    Raises:
        Unreadable: The range, or the strings, are missing or no instrument can have them.
    """
    sounds = said.get("sounds", _STRINGS_SOUND if kind == "pluck" else 0)
    strings = tuple(midi - sounds for midi in said.get("strings", ()))
    frets = said.get("frets", _FRETS if strings else 0)
    if kind == "pluck":
        if not _FEWEST_STRINGS <= len(strings) <= _MOST_STRINGS or not 1 <= frets <= _MOST_FRETS:
            raise _unreadable(
                f"{name}: write {_FEWEST_STRINGS} to {_MOST_STRINGS} strings as they sound, from the thickest, and 1 "
                f"to {_MOST_FRETS} frets: strings G3 D4 A4 E5, frets 20"
            )
        low, high = min(strings), max(strings) + frets
    elif "range" in said:
        low, high = said["range"]
    else:
        raise _unreadable(f"{name}: write its range as it is written: D4 to B5")
    first = said.get("first_year")
    if high - low < _OCTAVE or not -60 <= sounds <= 60 or high > _HIGHEST:
        raise _unreadable(f"{name}: its range has to rise by an octave at least: D4 to B5")
    if first and not low <= first[0] < first[1] <= high:
        raise _unreadable(f"{name}: the range of a first year lies inside its own")
    return Instrument(
        name,
        low,
        high,
        low if kind != "keys" else max(low, min(_KEYS_HOME, high - _OCTAVE)),
        sounds,
        kind,  # type: ignore[arg-type]
        _STROKES[kind],
        strings,
        frets,
        "right" if kind == "keys" else None,
        (said["breaks"],) if "breaks" in said else (),
        first,
        clef=said.get("clef"),
        breath=said.get("breath", _BREATH) if kind == "wind" else 0,
    )


_OCTAVE, _KEYS_HOME, _HIGHEST = 12, 60, 127


def _unreadable(why: str) -> Unreadable:
    return Unreadable(f"{why}.", field=_FIELD)
