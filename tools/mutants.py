"""Mutants: small changes of meaning that a test has to notice.

``make mutants`` runs the tests once and notes which of them pass through which line. Then it draws changes — an
operator, a bound, a number, a branch, min for max — by a seed, makes one at a time in a copy of the house, and runs
the tests that pass through its line until one fails. What survives is printed: a test that is missing, or code that
says nothing. Looks, timbre, types and memory (decorators, annotations, sizes of caches) are no meaning, and are left
alone.
"""

import argparse
import ast
import json
import os
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

import coverage

HERE = Path(__file__).parent.parent
SUBJECTS = {
    name: Path("ripresa") / ("formats" if name == "formats" else f"core/{name}")
    for name in ("takes", "climbs", "plans", "reports", "reading", "changes", "listening", "formats")
}
#: How things sound is taste: another pitch of a drum is no other meaning.
TASTE = {"ripresa/formats/recipes.py", "ripresa/formats/speaker.py"}
KEPT = HERE / ".stamps" / "mutants"
#: The tests of one change run for so long at most, by what they took on their own; the quickest first.
_SECONDS = 150
#: What stands for what: the bound moved, or the side turned.
_SWAPS: dict[type[ast.AST], tuple[type[ast.AST], ...]] = {
    ast.Add: (ast.Sub,),
    ast.Sub: (ast.Add,),
    ast.Mult: (ast.FloorDiv,),
    ast.Div: (ast.Mult,),
    ast.FloorDiv: (ast.Mult,),
    ast.Mod: (ast.Mult,),
    ast.Lt: (ast.LtE, ast.GtE),
    ast.LtE: (ast.Lt, ast.Gt),
    ast.Gt: (ast.GtE, ast.LtE),
    ast.GtE: (ast.Gt, ast.Lt),
    ast.Eq: (ast.NotEq,),
    ast.NotEq: (ast.Eq,),
    ast.And: (ast.Or,),
    ast.Or: (ast.And,),
    ast.In: (ast.NotIn,),
    ast.NotIn: (ast.In,),
    ast.Is: (ast.IsNot,),
    ast.IsNot: (ast.Is,),
}
_NAMES = {"min": "max", "max": "min", "any": "all", "all": "any", "median": "mean", "mean": "median"}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One change: the file, the number of its node in the order of a walk and the way, where it stands, what it is."""

    path: Path
    node: int
    way: int
    first: int
    last: int
    what: str


def mutants(path: Path) -> Iterator[Mutant]:
    """Yield every change of a file."""
    tree = ast.parse((HERE / path).read_text())
    silent = {id(inner) for node in ast.walk(tree) for part in _silent(node) for inner in ast.walk(part)}
    for number, node in enumerate(ast.walk(tree)):
        for way, what in enumerate(() if id(node) in silent else _ways(node)):
            first, last = node.lineno, node.end_lineno or node.lineno  # type: ignore[attr-defined]
            yield Mutant(path, number, way, first, last, what)


def _silent(node: ast.AST) -> Iterator[ast.AST]:
    """Yield the parts of a node that are no meaning: decorators, annotations, and how much is worked on at once."""
    match node:
        case ast.Assign(targets=[ast.Name(id="_BLOCK" | "THREADS")]):
            yield node.value
        case ast.FunctionDef():
            yield from (*node.decorator_list, *([node.returns] if node.returns else ()))
        case ast.ClassDef():
            yield from node.decorator_list
        case ast.arg(annotation=ast.AST() as annotation) | ast.AnnAssign(annotation=annotation):
            yield annotation


def changed(mutant: Mutant, text: str) -> str:
    """Return the text of a file with one change."""
    tree = ast.parse(text)
    for number, node in enumerate(ast.walk(tree)):
        if number == mutant.node:
            _change(node, mutant.way)
    return ast.unparse(tree)


def _ways(node: ast.AST) -> Iterator[str]:
    """Yield what a node can be changed to."""
    match node:
        case ast.BinOp(op=op) | ast.BoolOp(op=op) | ast.Compare(ops=[op]):
            yield from (f"{type(op).__name__} to {other.__name__}" for other in _SWAPS.get(type(op), ()))
        case ast.Constant(value=int() | float() as value) if not isinstance(value, bool):
            yield f"{value} to {_other(value)}"
        case ast.UnaryOp(op=ast.USub() | ast.Not()):
            yield f"without {type(node.op).__name__}"
        case ast.Call(func=ast.Name(id=name) | ast.Attribute(attr=name)) if name in _NAMES:
            yield f"{name} to {_NAMES[name]}"
        case ast.IfExp():
            yield "the other branch"


def _other(value: float) -> float:
    """Return one more of what is counted, and half as much again of what is measured or large."""
    is_count = isinstance(value, int) and abs(value) <= 12
    return value + 1 if is_count or not value else value * 3 / 2


def _change(node: ast.AST, way: int) -> None:
    match node:
        case ast.BinOp() | ast.BoolOp():
            node.op = _SWAPS[type(node.op)][way]()  # type: ignore[assignment]
        case ast.Compare():
            node.ops = [_SWAPS[type(node.ops[0])][way]()]  # type: ignore[list-item]
        case ast.Constant(value=int() | float() as value):
            node.value = _other(value)
        case ast.UnaryOp():
            node.op = ast.UAdd() if isinstance(node.op, ast.USub) else ast.Not()
            if isinstance(node.op, ast.Not):
                node.operand = ast.UnaryOp(ast.Not(), node.operand)
        case ast.Call(func=ast.Name() as name):
            name.id = _NAMES[name.id]
        case ast.Call(func=ast.Attribute() as name):
            name.attr = _NAMES[name.attr]
        case ast.IfExp():
            node.body, node.orelse = node.orelse, node.body


class Passing:
    """Which tests pass through which lines, and how long each takes, as it was noted."""

    def __init__(self) -> None:
        self._data = coverage.CoverageData(str(KEPT / "lines"))
        self._data.read()
        self._seconds: dict[str, float] = json.loads((KEPT / "seconds.json").read_text())
        self._of_files: dict[Path, dict[int, list[str]]] = {}

    @staticmethod
    def note() -> None:
        """Run all tests but those of the browser, and note it."""
        shutil.rmtree(KEPT, ignore_errors=True)
        KEPT.mkdir(parents=True)
        command = [
            *(sys.executable, "-m", "pytest", "-n", "2", "--dist", "worksteal", "-p", "tools.chosen"),
            *(
                "--cov=ripresa",
                "--cov-context=test",
                "--cov-report=",
                "--ignore",
                "tests/e2e",
                "--ignore",
                "tests/install",
            ),
        ]
        asked = {"COVERAGE_FILE": str(KEPT / "lines"), "RIPRESA_SECONDS": str(KEPT / "seconds.json")}
        subprocess.run(command, cwd=HERE, env={**os.environ, **asked}, check=True)

    def through(self, mutant: Mutant) -> list[str]:
        """Return the tests that pass through the lines of a change, the quickest first, as far as there is time."""
        if mutant.path not in self._of_files:
            self._of_files[mutant.path] = self._data.contexts_by_lineno(str(HERE / mutant.path))
        lines = self._of_files[mutant.path]
        known = self._seconds.keys()
        passing = {
            one.partition("|")[0] for line in range(mutant.first, mutant.last + 1) for one in lines.get(line, ())
        }
        if not passing & known:
            # It runs only while it is imported: any test of what stands in its file may notice.
            passing = {one.partition("|")[0] for tests in lines.values() for one in tests}
        # What is said line by line notices most; of the others the quickest are tried first.
        tests = sorted(passing & known, key=lambda one: (not one.startswith("tests/test_said"), self._seconds[one]))
        spent, found = 0.0, list[str]()
        for test in tests:
            spent += self._seconds[test]
            if found and spent > _SECONDS:
                break
            found.append(test)
        return found


def survives(mutant: Mutant, house: Path, tests: list[str]) -> bool:
    """Return whether no test notices a change, in a copy of the house."""
    file, kept = house / mutant.path, (house / mutant.path).read_text()
    file.write_text(changed(mutant, kept))
    chosen = house / "chosen.json"
    chosen.write_text(json.dumps(tests))
    files = sorted({one.partition("::")[0] for one in tests})
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "tools.chosen", *files]
    asked = {"RIPRESA_CHOSEN": str(chosen), "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        done = subprocess.run(
            command, cwd=house, env={**os.environ, **asked}, capture_output=True, timeout=4 * _SECONDS, check=False
        )
        # 0: all passed; 5: there was none to run.
        return done.returncode in {0, 5}
    except subprocess.TimeoutExpired:
        # A change after which it never ends is noticed.
        return False
    finally:
        file.write_text(kept)


def drawn(subjects: list[str], most: int, seed: int) -> list[Mutant]:
    """Return changes of some subjects, each as likely as any other."""
    paths = [path for one in subjects for path in sorted((HERE / SUBJECTS[one]).rglob("*.py"))]
    paths = [path for path in paths if path.relative_to(HERE).as_posix() not in TASTE]
    every = [one for path in paths for one in mutants(path.relative_to(HERE))]
    print(f"{min(most, len(every))} of {len(every)} changes in {', '.join(subjects)}; seed {seed}", flush=True)
    return random.Random(seed).sample(every, min(most, len(every)))


def main() -> int:
    """Draw mutants, run the tests on each, and say what survived."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--most", type=int, default=100, help="how many are drawn")
    parser.add_argument("--seed", type=int, default=random.SystemRandom().randrange(10_000), help="another each time")
    parser.add_argument("--noted", action="store_true", help="trust what was noted of the tests before")
    parser.add_argument("subjects", nargs="*", default=list(SUBJECTS))
    asked = parser.parse_args()
    if not asked.noted:
        Passing.note()
    passing = Passing()
    draw = drawn(asked.subjects, asked.most, asked.seed)
    with tempfile.TemporaryDirectory() as folder:
        houses: Queue[Path] = Queue()
        left_out = shutil.ignore_patterns(".git", "node_modules", ".venv", ".hypothesis", ".stamps")
        for number in range(2):
            house = Path(folder) / str(number)
            shutil.copytree(HERE, house, ignore=left_out)
            houses.put(house)

        def tried(mutant: Mutant) -> bool:
            house = houses.get()
            try:
                return survives(mutant, house, passing.through(mutant))
            finally:
                houses.put(house)

        alive = 0
        with ThreadPoolExecutor(2) as pool:
            for mutant, lives in zip(draw, pool.map(tried, draw), strict=True):
                alive += lives
                if lives:
                    print(f"survived: {mutant.path}:{mutant.first} {mutant.what}", flush=True)
    noticed = len(draw) - alive
    print(f"{noticed} of {len(draw)} noticed ({100 * noticed / len(draw):.0f} %), seed {asked.seed}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
