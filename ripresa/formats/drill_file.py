"""The drill file: one drill as JSON, documented in docs/drill-format.md.

The version stands in ``format``; what a later version adds is refused with a
sentence, never half read.
"""

import json
from typing import Any

from pydantic import TypeAdapter, ValidationError

from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click, NamedClick
from ripresa.core.errors import Unreadable
from ripresa.formats.sentences import explain
from ripresa.formats.wire import WireSchema, adapter

FORMAT = "ripresa.drill/1"
LARGEST_FILE = 1_000_000

_DRILL: TypeAdapter[Drill] = adapter(Drill)


def write_drill(drill: Drill) -> str:
    """Return a drill file.

    >>> read_drill(write_drill(Drill())) == Drill()
    True
    """
    return json.dumps({"format": FORMAT, **plain(drill)}, ensure_ascii=False, indent=2) + "\n"


def read_drill(text: str | bytes) -> Drill:
    """Return the drill of a file.

    Raises:
        Unreadable: It is too large, not JSON, not a drill file, of a version
            that is not known, or a part of it is malformed.
        OutOfRange: It asks for something that cannot be done.
    """
    if len(text) > LARGEST_FILE:
        raise Unreadable(f"This file is over {LARGEST_FILE // 1_000_000} MB, too large for a drill.", field="file")
    try:
        found = json.loads(text)
    except (ValueError, RecursionError) as error:
        where = f" at line {error.lineno}, column {error.colno}" if isinstance(error, json.JSONDecodeError) else ""
        raise Unreadable(
            f"This file is not JSON{where}. Choose a drill file that Ripresa saved.", field="file"
        ) from error
    if not isinstance(found, dict) or not isinstance(found.get("format"), str):
        raise Unreadable(f"This is not a drill file: it has no “format”. It should say “{FORMAT}”.", field="format")
    version = found.pop("format")
    if version != FORMAT:
        raise Unreadable(
            f"This file is of the format “{version}”, which this Ripresa does not know. It reads “{FORMAT}”.",
            field="format",
        )
    return from_plain(found)


def plain(drill: Drill) -> dict[str, Any]:
    """Return a drill as plain JSON values, fractions as text."""
    values: dict[str, Any] = _DRILL.dump_python(drill, mode="json")
    return values


def from_plain(values: object) -> Drill:
    """Return the drill that such values describe.

    Raises:
        Unreadable: A part is malformed; the sentence names it.
        OutOfRange: A part asks for something that cannot be done.
    """
    try:
        # As JSON text, so that lists become tuples under the same rules as a file.
        return _DRILL.validate_json(json.dumps(values))
    except ValidationError as error:
        message, field = explain(error.errors(include_url=False))
        raise Unreadable(message, field=field) from error


def parse_click(text: str) -> Click:
    """Return a click plan by its name, or the click that is written as JSON, as in a drill file.

    Raises:
        Unreadable: It is malformed; the sentence names the part.
        OutOfRange: There is no such plan, or it asks for something that cannot be done.
    """
    if not text.startswith("{"):
        return NamedClick(plan=text)
    try:
        found = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise Unreadable(
            "This click is not JSON. Write a plan’s name, or a click of a drill file.", field="click"
        ) from error
    return from_plain({"click": found}).click


def schema() -> dict[str, Any]:
    """Return the JSON Schema of a drill file."""
    found = _DRILL.json_schema(schema_generator=WireSchema)
    found["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    found["title"] = "Ripresa drill file"
    found["properties"] = {"format": {"const": FORMAT}, **found["properties"]}
    found["required"] = ["format"]
    return found
