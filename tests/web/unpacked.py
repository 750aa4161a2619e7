"""Tables as a browser reads them: by the rules of the description alone."""

import json
from pathlib import Path
from typing import Any

DEFAULTS = json.loads((Path(__file__).parents[2] / "frontend" / "src" / "api" / "tables.json").read_text())


def unpacked(table: dict[str, Any], name: str = "EventTable") -> list[dict[str, Any]]:
    """Return the rows of a table that was sent."""
    rows = []
    for number in range(table["rows"]):
        row = dict(DEFAULTS[name])
        for column, values in table.items():
            if column != "rows":
                row[column] = _at(values, number)
        rows.append(row)
    return rows


def _at(values: Any, number: int) -> Any:
    if isinstance(values, dict) and "from" in values:
        return values["from"] + number
    if isinstance(values, dict):
        return values["of"][values["at"][number]]
    return values[0] if len(values) == 1 else values[number]
