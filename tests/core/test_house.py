"""The house: who stands outside a subject uses what its ``__init__`` lists, and nothing behind it."""

import ast
import importlib
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

HERE = Path(__file__).parents[2]
CORE = HERE / "ripresa" / "core"
ROOMS = sorted(
    path.parent.relative_to(HERE).as_posix().replace("/", ".") for path in CORE.rglob("*/__init__.py") if path != CORE
)


def imports(path: Path) -> Iterator[tuple[str, str]]:
    """Yield (module, name) of everything that a file takes from the core."""
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.ImportFrom) and node.module and node.module.startswith("ripresa.core."):
            yield from ((node.module, alias.name) for alias in node.names)


@pytest.mark.parametrize("room", ROOMS)
def test_a_subject_opens_with_its_rule_and_lists_what_others_may_use(room: str) -> None:
    module = importlib.import_module(room)
    assert module.__doc__
    assert all(hasattr(module, name) for name in module.__all__)


def test_nobody_reaches_behind_what_a_subject_lists() -> None:
    found = []
    for path in sorted((HERE / "ripresa").rglob("*.py")):
        here = path.relative_to(HERE).with_suffix("").as_posix().replace("/", ".")
        for module, name in imports(path):
            room = max((room for room in ROOMS if f"{module}.".startswith(f"{room}.")), key=len, default=None)
            if room is None or here.startswith(f"{room}."):
                continue
            if module != room or name not in importlib.import_module(room).__all__:
                found.append(f"{here} takes {name} from {module}")
    assert not found


def test_all_fractions_are_of_one_type() -> None:
    others = [
        str(path)
        for path in sorted((HERE / "ripresa").rglob("*.py"))
        if path.name != "exact.py" and re.search(r"^(import|from) (fractions|quicktions)\b", path.read_text(), re.M)
    ]
    assert not others
