"""Sentences for what the validator refuses: where it is, what is wrong, what would be right."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from ripresa.core.climbs import RULES, TARGETS
from ripresa.core.drill.accents import ACCENTS
from ripresa.core.drill.click import CLICKS
from ripresa.core.drill.hands import HANDS
from ripresa.core.drill.material import MATERIALS
from ripresa.core.drill.second import PLAYS
from ripresa.core.exact import EXACT_PATTERN

_RIGHT = {
    "string_type": "a text",
    "int_type": "a whole number",
    "int_parsing": "a whole number",
    "int_from_float": "a whole number",
    "float_parsing": "a number",
    "float_type": "a number",
    "bool_type": "yes or no",
    "bool_parsing": "yes or no",
    "list_type": "a list",
    "tuple_type": "a list",
    "dict_type": "a group of values",
    "dataclass_type": "a group of values",
    "model_type": "a group of values",
    "datetime_from_date_parsing": "a date and time",
}
#: A key that a browser or a practice file makes.
KEY_PATTERN = r"^[A-Za-z0-9-]{8,64}$"
#: What is written by a pattern, by the pattern: nobody reads one.
_WRITTEN = {
    EXACT_PATTERN: "a whole number or a fraction of two: 84, 169/2",
    KEY_PATTERN: "8 to 64 letters, digits and hyphens",
}


def explain(errors: Sequence[Any]) -> tuple[str, str]:
    """Return (sentence, field path) for the first of a validator's errors.

    Where several are reported, the first is told; the others are met in turn.
    """
    first = errors[0]
    # Members of a union leave their name in the path; a person knows only the fields.
    steps = [str(step) for before, step in pairwise(("", *first["loc"])) if not _is_member(before, step)]
    field = ".".join(steps)
    where = f"“{field}”" if field else "The whole"
    match first["type"]:
        case "missing":
            return f"{where} is missing.", field
        case "unexpected_keyword_argument" | "extra_forbidden":
            return f"{where} is not a part of this. Take it out, or check how it is spelled.", field
        case "union_tag_invalid":
            context = first["ctx"]
            offered = context["expected_tags"].replace("'", "")
            return (
                f"{where}: “{context['tag']}” is not a kind that Ripresa knows. Use one of {offered}.",
                f"{field}.kind",
            )
        case "union_tag_not_found":
            return f"{where} does not say its kind.", f"{field}.kind"
        case "literal_error":
            return f"{where} cannot be {first['input']!r}. Use {first['ctx']['expected']}.", field
        case "string_pattern_mismatch":
            right = _WRITTEN.get(first["ctx"]["pattern"], "")
            return f"{where} cannot be {_shown(first['input'])}.{right and f' Write {right}.'}", field
        case "value_error":
            return f"{where}: {first['ctx']['error']!s}", field
        case kind if kind in _RIGHT:
            return f"{where} should be {_RIGHT[kind]}, not {_shown(first['input'])}.", field
        case _:
            return f"{where}: {first['msg'].lower()}.", field


def _is_member(before: object, step: object) -> bool:
    """Whether a step of a path says which member of a union was meant: a type, or a kind behind the part it is of."""
    if not isinstance(step, str):
        return False
    return step[:1].isupper() or step == "int" or "[" in step or (step in _KINDS and _holds_kinds(before))


def _holds_kinds(step: object) -> bool:
    # Kinds stand behind a part, or in a list of clicks behind its number.
    return isinstance(step, int) or step in {"material", "hands", "accents", "click", "plays", "target", "rule", "loop"}


_EVERY = (MATERIALS, HANDS, ACCENTS, CLICKS, PLAYS, TARGETS, RULES)
_KINDS = {kind.fresh.kind for kinds in _EVERY for kind in kinds} | {"bars", "seam"}


def _shown(value: object) -> str:
    text = repr(value)
    return text if len(text) <= 40 else text[:39] + "…"
