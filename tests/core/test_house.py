"""The house: who stands outside a subject uses what its ``__init__`` lists, and nothing behind it."""

import ast
import importlib
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from ripresa.core.changes import Overrides
from ripresa.core.climbs import ClimbPlan
from ripresa.core.drill import Drill
from ripresa.core.exact import AsText, ByKind
from ripresa.core.kind import Between

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
    allowed = {"quicktions": "ripresa/core/fraction.py", "fractions": "ripresa/core/exact.py"}
    others = [
        f"{path}: {name}"
        for path in sorted(one for folder in ("ripresa", "tools", "tests") for one in (HERE / folder).rglob("*.py"))
        for name in re.findall(r"^\s*(?:import|from) (fractions|quicktions)\b", path.read_text(), re.M)
        if path.relative_to(HERE).as_posix() != allowed[name]
        if name == "quicktions" or path.is_relative_to(HERE / "ripresa")
    ]
    assert not others


def test_nothing_of_others_is_changed_to_make_values_travel() -> None:
    """Marks of the core know nothing of who reads them, and a value travels without any import made for its effect."""
    for mark in (AsText, ByKind, Between):
        assert not [name for name in vars(mark) if "pydantic" in name]
    for part in (Drill, ClimbPlan, Overrides):
        assert not [name for name in vars(part) if "pydantic" in name]
    patched = [
        f"{path}: {found.group()}"
        for path in sorted((HERE / "ripresa").rglob("*.py"))
        for found in re.finditer(
            r"setattr\([A-Z]\w*,|import ripresa\.\S+ +# noqa|^[A-Z]\w+\.\w+ = ", path.read_text(), re.M
        )
    ]
    assert not patched
