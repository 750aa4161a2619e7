"""The few fixtures of journeys: a browser, a demo studio that a file shares, and studios of one's own."""

import fcntl
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ripresa.demo import fill_demo_studio
from ripresa.store.files import DATABASE_NAME
from ripresa.store.tables import database
from ripresa.work.days import local_now
from tests.conftest import opened
from tests.e2e.server import Local, Server
from tools.shots import ARGUMENTS, CHROMIUM


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": CHROMIUM, "args": ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}}


@pytest.fixture(scope="session")
def filled(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A filled demo studio to copy: filled once, by the first who asks of all that run at the same time."""
    path = tmp_path_factory.getbasetemp().parent / "filled.sqlite3"
    with path.with_suffix(".lock").open("w") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        if not path.exists():
            fresh = path.with_suffix(".fresh")
            with opened(fresh):
                with database.atomic():
                    fill_demo_studio(local_now())
                database.execute_sql("PRAGMA wal_checkpoint(truncate)")
            fresh.rename(path)
    return path


@pytest.fixture(scope="module")
def demo(filled: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Local]:
    """A demo studio that the journeys of one file share: they add to it and take nothing away.

    One for each file, so that none depends on which files ran before it, and where.
    """
    path = tmp_path_factory.mktemp("demo") / DATABASE_NAME
    shutil.copyfile(filled, path)
    served = Local(path, is_demo=True)
    yield served
    served.stop()


@pytest.fixture
def own(tmp_path: Path) -> Iterator[Local]:
    """An empty studio of one's own."""
    served = Local(tmp_path / DATABASE_NAME)
    yield served
    served.stop()


@pytest.fixture
def apart(tmp_path: Path) -> Iterator[Server]:
    """An empty studio of one's own, served by a process that can be killed."""
    server = Server(tmp_path)
    yield server
    server.stop()


expect.set_options(timeout=20_000)


@pytest.fixture(autouse=True)
def patience(page: Page) -> None:
    page.set_default_timeout(20_000)
