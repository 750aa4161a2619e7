"""Mutants: small changes of the core that a test has to notice.

``make mutants`` makes a copy of the house, changes one operator, number, comparison or branch at a time, and runs the
tests of that subject until one fails. What survives is printed with its line: a test that is missing, or code that says
nothing. A draw of so many, by a seed, because all of them would take a day.
"""

import argparse
import ast
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

HERE = Path(__file__).parent.parent
CORE = Path("ripresa/core")
#: Subject → the tests that have to notice, the likeliest first; doctests of its own files are run too.
TESTS: dict[str, tuple[str, ...]] = {
    "takes": (
        *("tests/core/test_takes.py", "tests/core/test_matching.py", "tests/core/test_take_figures.py"),
        *(
            "tests/core/test_word.py",
            "tests/core/test_remedies.py",
            "tests/cli/test_takes.py",
            "tests/web/test_takes.py",
        ),
    ),
    "playing": (
        *("tests/core/test_lead.py", "tests/core/test_practice.py", "tests/core/test_performance.py"),
        *("tests/core/test_speech.py", "tests/core/test_backing.py", "tests/formats/test_play_along.py"),
        *("tests/core/test_layers.py", "tests/core/test_takes.py", "tests/web/test_shapes.py"),
    ),
    "rhythm": (
        *("tests/core/test_meter.py", "tests/core/test_tempo.py", "tests/core/test_counting.py"),
        *("tests/core/test_counts.py", "tests/core/test_swing.py", "tests/core/test_reading.py"),
        *("tests/core/test_click.py", "tests/web/test_places.py"),
    ),
    "reports": (
        *("tests/core/test_groups.py", "tests/core/test_lead_home.py", "tests/core/test_accents.py"),
        *("tests/core/test_speed.py", "tests/core/test_line.py", "tests/core/test_breath.py"),
        *("tests/core/test_hands.py", "tests/core/test_click.py", "tests/core/test_divisions.py"),
        *(
            "tests/cli/test_sums.py",
            "tests/core/test_reading.py",
            "tests/web/test_places.py",
            "tests/core/test_laws.py",
        ),
    ),
}
_SECONDS = 240
_SWAPS: dict[type[ast.AST], type[ast.AST]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.FloorDiv,
    ast.Div: ast.Mult,
    ast.FloorDiv: ast.Mult,
    ast.Mod: ast.Mult,
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.And: ast.Or,
    ast.Or: ast.And,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One change: the file, the number of its node in the order of a walk, where it stands, and what it is."""

    path: Path
    node: int
    line: int
    what: str


def mutants(path: Path) -> Iterator[Mutant]:
    """Yield every change of a file."""
    for number, node in enumerate(ast.walk(ast.parse((HERE / path).read_text()))):
        what = _what(node)
        if what:
            yield Mutant(path, number, getattr(node, "lineno", 0), what)


def changed(mutant: Mutant, text: str) -> str:
    """Return the text of a file with one change."""
    tree = ast.parse(text)
    for number, node in enumerate(ast.walk(tree)):
        if number == mutant.node:
            _change(node)
    return ast.unparse(tree)


def _what(node: ast.AST) -> str:
    match node:
        case ast.BinOp(op=op) | ast.BoolOp(op=op) if type(op) in _SWAPS:
            return f"{type(op).__name__} to {_SWAPS[type(op)].__name__}"
        case ast.Compare(ops=[op]) if type(op) in _SWAPS:
            return f"{type(op).__name__} to {_SWAPS[type(op)].__name__}"
        case ast.Constant(value=int() | float() as value) if not isinstance(value, bool):
            return f"{value} to {value + 1}"
        case ast.UnaryOp(op=ast.USub() | ast.Not()):
            return f"without {type(node.op).__name__}"
        case ast.IfExp():
            return "the other branch"
    return ""


def _change(node: ast.AST) -> None:
    match node:
        case ast.BinOp() | ast.BoolOp():
            node.op = _SWAPS[type(node.op)]()  # type: ignore[assignment]
        case ast.Compare():
            node.ops = [_SWAPS[type(node.ops[0])]()]  # type: ignore[list-item]
        case ast.Constant(value=int() | float() as value):
            node.value = value + 1
        case ast.UnaryOp():
            node.op = ast.UAdd() if isinstance(node.op, ast.USub) else ast.Not()
            if isinstance(node.op, ast.Not):
                node.operand = ast.UnaryOp(ast.Not(), node.operand)
        case ast.IfExp():
            node.body, node.orelse = node.orelse, node.body


def survives(mutant: Mutant, house: Path) -> bool:
    """Return whether no test of its subject notices a change, in a copy of the house."""
    file, kept = house / mutant.path, (house / mutant.path).read_text()
    file.write_text(changed(mutant, kept))
    subject = mutant.path.relative_to(CORE).parts[0]
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", str(mutant.path), *TESTS[subject]]
    try:
        done = subprocess.run(command, cwd=house, capture_output=True, timeout=_SECONDS, check=False)
        return done.returncode == 0
    except subprocess.TimeoutExpired:
        # A change after which it never ends is noticed.
        return False
    finally:
        file.write_text(kept)


def main() -> int:
    """Draw mutants, run the tests on each, and say what survived."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--most", type=int, default=120, help="how many are drawn of each subject")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("subjects", nargs="*", default=list(TESTS))
    asked = parser.parse_args()
    drawn: list[Mutant] = []
    for subject in asked.subjects:
        paths = sorted((HERE / CORE / subject).rglob("*.py"))
        every = [one for path in paths for one in mutants(path.relative_to(HERE))]
        drawn += random.Random(asked.seed).sample(every, min(asked.most, len(every)))
        print(f"{subject}: {min(asked.most, len(every))} of {len(every)}", flush=True)
    with tempfile.TemporaryDirectory() as folder:
        houses: Queue[Path] = Queue()
        for number in range(2):
            house = Path(folder) / str(number)
            shutil.copytree(HERE, house, ignore=shutil.ignore_patterns(".git", "node_modules", ".venv", ".hypothesis"))
            houses.put(house)

        def tried(mutant: Mutant) -> bool:
            house = houses.get()
            try:
                return survives(mutant, house)
            finally:
                houses.put(house)

        alive = 0
        with ThreadPoolExecutor(2) as pool:
            for mutant, lives in zip(drawn, pool.map(tried, drawn), strict=True):
                alive += lives
                if lives:
                    print(f"survived: {mutant.path}:{mutant.line} {mutant.what}", flush=True)
    print(f"{len(drawn) - alive} of {len(drawn)} noticed ({100 * (len(drawn) - alive) / len(drawn):.0f} %)")
    return 0


if __name__ == "__main__":
    sys.exit(main())
