"""The running server: idle connections keep nobody out, and nothing that is being made holds it up when it stops."""

import json
import os
import signal
import socket
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from tests.e2e.server import Server


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    served = Server(tmp_path)
    yield served
    served.stop()


def post(server: Server, address: str, body: object) -> Any:
    asked = urllib.request.Request(
        f"{server.home}{address}", json.dumps(body).encode(), {"Content-Type": "application/json"}
    )
    with urllib.request.urlopen(asked, timeout=30) as answer:
        return json.load(answer)


def test_connections_that_say_nothing_keep_nobody_out(server: Server) -> None:
    idle = [socket.create_connection(("127.0.0.1", server.port)) for _ in range(150)]
    try:
        assert post(server, "/api/students", {"details": {"name": "Ada Brink"}})["id"] == 1
    finally:
        for one in idle:
            one.close()


def test_it_stops_while_files_are_being_made(server: Server) -> None:
    drill = post(server, "/api/drills", {"drill": {"title": "Long"}})
    asked = {"drill_id": drill["id"], "rungs": [{"bpm": "120"}] * 20, "passes": 1, "sound": "mp3"}
    for _ in range(6):
        post(server, "/api/play-along", asked)
    assert server.process.poll() is None
    os.kill(server.process.pid, signal.SIGINT)
    # Six such files take minutes; a server that waits for them is killed by the limit, and the test fails.
    assert server.process.wait(timeout=30) == 0
