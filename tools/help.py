"""The glossary and the guide, from the pages in docs, as the app shows them."""

import re
from pathlib import Path
from typing import Any

DOCS = Path(__file__).parent.parent / "docs"
_ROW = re.compile(r"^\| \*\*(.+?)\*\* \| (.+) \|$")
_GO = re.compile(r"^Go to: \[(.+)\]\((.+)\)$")
_PICTURE = re.compile(r"^!\[(.+)\]\(screenshots/(.+)\.png\)$")


def glossary() -> list[dict[str, str]]:
    """Return the words of docs/glossary.md with what they mean, in its order."""
    rows = (_ROW.match(line) for line in (DOCS / "glossary.md").read_text().splitlines())
    return [{"word": _plain(row[1]), "meaning": _plain(row[2])} for row in rows if row]


def guide() -> list[dict[str, Any]]:
    """Return the steps of docs/guide.md: heading, where to go, paragraphs, and a picture with its words."""
    found = []
    for part in re.split(r"^## ", (DOCS / "guide.md").read_text(), flags=re.MULTILINE)[1:]:
        heading, _, body = part.partition("\n")
        step: dict[str, Any] = {"heading": heading.strip(), "to": None, "toName": None, "text": [], "picture": None}
        for block in (" ".join(one.split()) for one in body.strip().split("\n\n")):
            if go := _GO.match(block):
                step |= {"toName": go[1], "to": go[2]}
            elif picture := _PICTURE.match(block):
                step["picture"] = {"name": picture[2], "words": picture[1]}
            elif block:
                step["text"].append(_plain(block))
        found.append(step)
    return found


def _plain(text: str) -> str:
    return text.replace("**", "").replace("`", "").replace("'", "’")
