"""For pytest: run the tests that a file names, in its order; and note how long each takes (``tools.mutants``)."""

import json
import os
from pathlib import Path

import pytest

_seconds: dict[str, float] = {}


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Keep what was chosen."""
    chosen = os.environ.get("RIPRESA_CHOSEN")
    if chosen:
        order = {name: place for place, name in enumerate(json.loads(Path(chosen).read_text()))}
        config.hook.pytest_deselected(items=[item for item in items if item.nodeid not in order])
        items[:] = sorted((item for item in items if item.nodeid in order), key=lambda item: order[item.nodeid])


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    """Add up what a test takes, with what is made for it."""
    _seconds[report.nodeid] = _seconds.get(report.nodeid, 0.0) + report.duration


def pytest_sessionfinish(session: pytest.Session) -> None:
    """Write down what all took, once."""
    target = os.environ.get("RIPRESA_SECONDS")
    if target and not hasattr(session.config, "workerinput"):
        Path(target).write_text(json.dumps(_seconds))
