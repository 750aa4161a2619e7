"""Every refusal that a number or a text of a kind can bring about: each has to name a control that is on the screen."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from ripresa.core.climbs import RULES, TARGETS, ClimbPlan
from ripresa.core.drill import Drill
from ripresa.core.drill.accents import ACCENTS
from ripresa.core.drill.click import CLICKS
from ripresa.core.drill.hands import HANDS
from ripresa.core.drill.material import MATERIALS
from ripresa.core.drill.second import PLAYS, SecondHand
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction
from ripresa.core.kind import Kind, bounds_of
from ripresa.core.reading import read
from ripresa.formats.drill_file import from_plain, plain
from ripresa.formats.wire import adapter

#: What no text of a drill takes.
BAD_TEXT = "§ 99 ;"
#: What nobody types: chosen from a list that is on the screen where it is used, or worked out.
NOT_TYPED = {"first", "division", "which"}
#: What is on the screen only where something else is chosen: (kind, field) → that.
SEEN_WITH = {
    ("cells", "bars"): {"mix": "drawn"},
    ("cells", "seed"): {"mix": "drawn"},
    ("line", "fit"): {"through": "C | F"},
}


def drill_refusals() -> Iterator[dict[str, Any]]:
    """Yield drills that are refused, as they stand when it happens, with the field that is blamed."""
    groups: dict[str, tuple[Kind[Any], ...]] = {
        "material": MATERIALS,
        "hands": HANDS,
        "accents": ACCENTS,
        "click": CLICKS,
    }
    for part, kinds in groups.items():
        for kind in kinds:
            drill = plain(replace(Drill(instrument="guitar"), **{part: kind.fresh}))
            for field, value in _bad(kind):
                asked = {**drill, part: {**drill[part], **SEEN_WITH.get((kind.value, field), {}), field: value}}
                blamed = _blamed(asked)
                if blamed:
                    yield {"part": part, "kind": kind.value, "drill": asked, "field": blamed}


def second_refusals() -> Iterator[dict[str, Any]]:
    """Yield drills whose left hand is refused, with the field that is blamed."""
    for kind in PLAYS:
        drill = plain(Drill(instrument="piano", second=SecondHand(kind.fresh)))
        for field, value in _bad(kind):
            second = {**drill["second"], "plays": {**drill["second"]["plays"], field: value}}
            asked = {**drill, "second": second}
            blamed = _blamed(asked)
            if blamed:
                yield {"part": "second", "kind": kind.value, "drill": asked, "field": blamed}


def plan_refusals() -> Iterator[dict[str, Any]]:
    """Yield plans that are refused, with the field that is blamed."""
    plans = adapter(ClimbPlan)
    plan = plans.dump_python(ClimbPlan(start=Fraction(72)), mode="json")
    groups: dict[str, tuple[Kind[Any], ...]] = {"target": TARGETS, "rule": RULES}
    for part, kinds in groups.items():
        for kind in kinds:
            fresh = adapter(type(kind.fresh)).dump_python(kind.fresh, mode="json")
            for field in (name for name in kind.fields if name not in NOT_TYPED):
                # A list that is typed may be emptied; a number may be anything.
                values: tuple[Any, ...] = ([],) if isinstance(fresh[field], list) else ("0", "100000")
                for value in values:
                    asked = {**plan, part: {**fresh, field: value}}
                    try:
                        plans.validate_python(asked).bare_steps()
                    except RipresaError as error:
                        yield {"part": part, "kind": kind.value, "plan": asked, "field": error.field}


def _bad(kind: Kind[Any]) -> Iterator[tuple[str, Any]]:
    bounds = bounds_of(type(kind.fresh))
    for field in kind.fields:
        value = getattr(kind.fresh, field)
        if field in NOT_TYPED:
            continue
        if field in bounds:
            for bad in (bounds[field].least - 1, bounds[field].most + 1):
                yield field, int(bad) if isinstance(value, int) else str(Fraction(bad))
        elif isinstance(value, str):
            yield field, BAD_TEXT
        elif isinstance(value, tuple):
            yield field, []
        elif isinstance(value, Fraction):
            yield field, "99999"


def _blamed(asked: dict[str, Any]) -> str | None:
    """Return the field that is blamed for a drill; None where it is not refused."""
    try:
        read(from_plain(asked))
    except RipresaError as error:
        return error.field
    return None
