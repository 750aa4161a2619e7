from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.server import Server
from tools.shots import ARGUMENTS, CHROMIUM


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": CHROMIUM, "args": ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}}


@pytest.fixture(scope="module")
def demo() -> Iterator[Server]:
    """A demo studio that the journeys of one file share: they add to it and take nothing away.

    One for each file, so that none depends on which files ran before it, and where.
    """
    server = Server()
    yield server
    server.stop()


@pytest.fixture
def own(tmp_path: Path) -> Iterator[Server]:
    """An empty studio of one's own."""
    server = Server(tmp_path)
    yield server
    server.stop()


expect.set_options(timeout=20_000)


@pytest.fixture(autouse=True)
def patience(page: Page) -> None:
    page.set_default_timeout(20_000)
