"""The NOTICE: what ships with Ripresa that others made, under which licence; and what is installed beside it."""

import json
import re
from collections.abc import Iterator
from importlib.metadata import Distribution, distribution
from pathlib import Path
from typing import Any

from tools.dist import locked

ROOT = Path(__file__).parent.parent
MODULES = ROOT / "frontend" / "node_modules"
#: Whose styles are in the style sheet, though no script of theirs ships.
STYLES = ("tailwindcss", "daisyui")
#: Fonts travel under their own names, wherever they lie.
FONTS = ("@fontsource-variable/atkinson-hyperlegible-next", "@fontsource-variable/bricolage-grotesque")

_OPENING = """Ripresa: notices
================

This file lists what ships with Ripresa that others made, and under which licence; then what is installed beside it.

Sounds
------
Tones, clicks and drums are made by Ripresa from its own recipes. The spoken words of the count (words.flac) were
recorded for Ripresa with the speech synthesiser eSpeak NG, of which nothing ships. The drills, tunes, names and the
demo studio are Ripresa's own.
"""


def notice() -> str:
    """Return the text of NOTICE."""
    return "\n".join([_OPENING, *_fonts(), *_scripts(), *_installed()]).rstrip() + "\n"


def _fonts() -> Iterator[str]:
    yield "Fonts\n-----\nOn the screen as they are, and on paper as instances of them in TrueType.\n"
    for name in FONTS:
        yield _entry(name)


def _scripts() -> Iterator[str]:
    yield "In the browser's part\n---------------------\n"
    asked = json.loads((ROOT / "frontend" / "package.json").read_text())["dependencies"]
    for name in sorted(set(_needed([one for one in asked if one not in FONTS])) | set(STYLES)):
        yield _entry(name)


def _needed(names: list[str]) -> Iterator[str]:
    """Yield packages and all that they need, each once."""
    known: set[str] = set()
    waiting = list(names)
    while waiting:
        name = waiting.pop()
        if name in known:
            continue
        known.add(name)
        yield name
        waiting += _package(name).get("dependencies", {})


def _package(name: str) -> dict[str, Any]:
    found: dict[str, Any] = json.loads((MODULES / name / "package.json").read_text())
    return found


def _entry(name: str) -> str:
    package = _package(name)
    texts = sorted(MODULES.joinpath(name).glob("LICEN[SC]E*"))
    text = texts[0].read_text().strip() if texts else ""
    return f"{name} {package['version']}, {package['license']}\n\n{_indented(text)}\n"


def _indented(text: str) -> str:
    return "\n".join(f"    {line}".rstrip() for line in text.splitlines())


def _installed() -> Iterator[str]:
    yield (
        "Installed beside it\n-------------------\n"
        "These Python packages are no part of Ripresa's file; they are installed with it, each under its own licence.\n"
    )
    for one in locked():
        name, version = re.sub(r"\[.*?\]", "", one).split("==")
        yield f"{name} {version}, {_licence(distribution(name))}"


def _licence(found: Distribution) -> str:
    told = found.metadata
    if "License-Expression" in told:
        return told["License-Expression"]
    classed = [one.split(" :: ")[-1] for one in told.get_all("Classifier") or [] if one.startswith("License ::")]
    named = told["License"].strip().splitlines() if "License" in told else []
    texts = "".join(one.read_text() for one in found.files or () if "licen" in one.name.lower())
    mit = ["MIT"] if "Permission is hereby granted, free of charge" in texts else []
    return ", ".join(classed or named[:1] or mit) or "see the package"
