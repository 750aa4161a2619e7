"""The examples in docstrings are right: those of each module are one test."""

import doctest
import importlib
from pathlib import Path

import pytest

HERE = Path(__file__).parents[1]
MODULES = [
    path.relative_to(HERE).with_suffix("").as_posix().replace("/", ".").removesuffix(".__init__")
    for path in sorted((HERE / "ripresa").rglob("*.py"))
    if ">>>" in path.read_text()
]


@pytest.mark.parametrize("name", MODULES)
def test_the_examples_of_a_module_are_right(name: str) -> None:
    wrong: list[str] = []
    runner = doctest.DocTestRunner(verbose=False)
    for example in doctest.DocTestFinder().find(importlib.import_module(name)):
        runner.run(example, out=wrong.append)
    assert not wrong, "".join(wrong)
    assert runner.tries > 0
