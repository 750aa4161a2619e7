"""The file that colleagues share: one drill or many, each with the remedies and the variants that belong to it.

Documented in docs/drill-format.md. No student, no climb and no take is ever in it.
"""

import json
from dataclasses import dataclass
from typing import Any

from ripresa.core.drill import Drill
from ripresa.core.errors import RipresaError, Unreadable
from ripresa.formats.drill_file import FORMAT as ONE_DRILL
from ripresa.formats.drill_file import from_plain, plain, read_drill

FORMAT = "ripresa.drills/1"
LARGEST_FILE = 10_000_000
MOST_DRILLS, MOST_BESIDE = 500, 50


@dataclass(frozen=True, slots=True)
class Beside:
    """A drill that belongs to another: a remedy or a variant of it, with its name."""

    name: str
    drill: Drill


@dataclass(frozen=True, slots=True)
class SharedDrill:
    """A drill with what belongs to it."""

    drill: Drill
    remedies: tuple[Beside, ...] = ()
    variants: tuple[Beside, ...] = ()


def write_shared(drills: tuple[SharedDrill, ...]) -> str:
    """Return a file of drills."""
    found = [
        {
            "drill": plain(one.drill),
            "remedies": [{"name": beside.name, "drill": plain(beside.drill)} for beside in one.remedies],
            "variants": [{"name": beside.name, "drill": plain(beside.drill)} for beside in one.variants],
        }
        for one in drills
    ]
    return json.dumps({"format": FORMAT, "drills": found}, ensure_ascii=False, indent=1) + "\n"


def read_shared(text: str) -> tuple[SharedDrill, ...]:
    """Return the drills of a file; one drill by itself is a file of one.

    Raises:
        Unreadable: It is no such file, or a drill in it cannot be read; the sentence says which.
        OutOfRange: A drill asks for what cannot be done.
    """
    if len(text) > LARGEST_FILE:
        raise Unreadable(f"This file is over {LARGEST_FILE // 1_000_000} MB. Share fewer drills.", field="file")
    try:
        values = json.loads(text)
    except (ValueError, RecursionError):
        values = None
    if isinstance(values, dict) and values.get("format") == ONE_DRILL:
        return (SharedDrill(read_drill(text)),)
    if not isinstance(values, dict) or values.get("format") != FORMAT or not isinstance(values.get("drills"), list):
        raise Unreadable(
            f"This is not a file of drills: its “format” should be “{FORMAT}” or “{ONE_DRILL}”.", field="file"
        )
    listed = values["drills"]
    if not 1 <= len(listed) <= MOST_DRILLS:
        raise Unreadable(f"A file holds 1 to {MOST_DRILLS} drills, not {len(listed)}.", field="file")
    return tuple(_one(value, number) for number, value in enumerate(listed, start=1))


def _one(value: Any, number: int) -> SharedDrill:
    if not isinstance(value, dict):
        raise Unreadable(f"Drill {number} of this file is none.", field="file")
    return SharedDrill(
        _drill(value.get("drill"), f"Drill {number}"),
        _beside(value.get("remedies", []), f"Drill {number}, remedy"),
        _beside(value.get("variants", []), f"Drill {number}, variant"),
    )


def _beside(values: Any, where: str) -> tuple[Beside, ...]:
    if not isinstance(values, list) or len(values) > MOST_BESIDE:
        raise Unreadable(f"{where}: up to {MOST_BESIDE} in a list belong to a drill.", field="file")
    found = []
    for number, value in enumerate(values, start=1):
        if not isinstance(value, dict):
            raise Unreadable(f"{where} {number} is none.", field="file")
        found.append(Beside(str(value.get("name", ""))[:200], _drill(value.get("drill"), f"{where} {number}")))
    return tuple(found)


def _drill(value: Any, where: str) -> Drill:
    try:
        return from_plain(value)
    except RipresaError as error:
        raise Unreadable(f"{where}: {error.message}", field="file") from error
