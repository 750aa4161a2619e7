"""Figures of takes that were kept before one joint fit told them, in the shape of today; no number is changed."""

import json
from typing import Any


def figures_of_old(text: str, is_calibrated: int) -> str:
    """Return old figures as JSON in the shape of today; what cannot be read stays as it is.

    Dots and points of old do not know their event, which is -1 then.
    """
    try:
        old: dict[str, Any] = json.loads(text)
        return json.dumps(_changed(old, bool(is_calibrated)))
    except (ValueError, KeyError, TypeError, AttributeError):
        return text


def _changed(old: dict[str, Any], is_calibrated: bool) -> dict[str, Any]:
    gap = old["gap_seconds"]
    return {
        **{name: old[name] for name in ("due", "matched", "missed", "extra", "bias", "spread")},
        "wrong": 0,
        "gap_seconds": gap,
        "with_click": old["bias"] if is_calibrated else None,
        "tempo_percent": old["drift_percent"],
        "bend": old["drift_bpm_a_minute"],
        "legs": [_leg(leg, gap) for leg in old["legs"]],
        "seams": [_seam(seam, gap) for seam in old["seams"]],
        "line": [{"at": at, "offset": offset, "event": -1, "turn": 0} for at, offset in old["line"]],
    }


def _leg(leg: dict[str, Any], gap: float) -> dict[str, Any]:
    return {
        "division": leg["division"],
        "gap": gap,
        "spread": None,
        "crowding": None,
        "slots": [
            {
                "slot": slot["slot"],
                "count": slot["count"],
                "habit": slot["bias"],
                "share": slot["share"],
                "dots": [{"offset": dot, "event": -1, "turn": 0} for dot in slot["dots"]],
            }
            for slot in leg["slots"]
        ],
    }


def _seam(seam: dict[str, Any], gap: float) -> dict[str, Any]:
    return {
        "kind": "division",
        "name": f"{seam['before']} → {seam['after']}",
        "gap": gap,
        "first": seam["offset"],
        "two": seam["offset"],
        "beats": [],
        "each": [],
    }
