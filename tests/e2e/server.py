"""Servers for journeys: one in the process of the tests, there at once; and one in its own, that a test may kill."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Thread
from typing import Protocol

import waitress
from waitress.wasyncore import close_all

from ripresa.web.app import create_app


class Served(Protocol):
    """A studio that a browser can open."""

    @property
    def home(self) -> str:
        """Its address."""


class Local:
    """A studio served from the process of the tests, there at once; its address stays the same over restarts."""

    def __init__(self, path: Path, *, is_demo: bool = False) -> None:
        self._path = path
        self._is_demo = is_demo
        self._port = 0
        self.start()

    @property
    def home(self) -> str:
        """Its address."""
        return f"http://localhost:{self._port}"

    def start(self) -> None:
        """Serve, with nothing remembered but what is kept."""
        app = create_app(self._path, is_demo=self._is_demo)
        self._server = waitress.create_server(app, host="127.0.0.1", port=self._port, threads=6)
        self._port = int(self._server.effective_port)
        self._thread = Thread(target=self._server.run, daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """End it, and every connection with it; once is enough."""
        if not self._thread.is_alive():
            return
        # First who answers, then every door, by the thread that watches them.
        self._server.task_dispatcher.shutdown()
        self._server.trigger.pull_trigger(self._close)
        self._thread.join(timeout=10)

    def _close(self) -> None:
        # A channel that is closed without more ado leaves open what it was sending.
        for channel in list(self._server.active_channels.values()):
            channel.handle_close()
        close_all(self._server._map, ignore_all=True)

    @contextmanager
    def instead(self, path: Path) -> Iterator[None]:
        """Serve another studio at this address while the block runs; this one was ended before, and goes on after."""
        mine, self._path = self._path, path
        self.start()
        yield
        self.stop()
        self._path = mine
        self.start()


class Server:
    """One studio served by a process of its own; its address stays the same over restarts."""

    #: Where what it says of errors goes: to where the test’s own goes, unless set.
    errors: int | None = None

    def __init__(self, folder: Path | None = None) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port: int = probe.getsockname()[1]
        self.home = f"http://localhost:{self.port}"
        self._source = ["--demo"] if folder is None else ["--data", str(folder)]
        self._process: subprocess.Popen[bytes] | None = None
        self.start()

    def start(self, largest_file: int | None = None) -> None:
        """Serve; with a limit, no file may become larger than so many bytes: as on a disk that is full then."""
        command = [sys.executable, "-m", "ripresa.cli", "serve", "--port", str(self.port), *self._source]
        # What is run in the background ignores Ctrl+C, and what it starts would too.
        signal.signal(signal.SIGINT, signal.default_int_handler)
        limited = ["prlimit", f"--fsize={largest_file}", *command] if largest_file else command
        self._process = subprocess.Popen(limited, stdout=subprocess.DEVNULL, stderr=self.errors)
        ends = time.monotonic() + 60
        while time.monotonic() < ends:
            try:
                urllib.request.urlopen(f"{self.home}/api/choices", timeout=2).close()
            except OSError:
                time.sleep(0.05)
            else:
                return
        raise TimeoutError("the server did not start within a minute")

    @property
    def process(self) -> subprocess.Popen[bytes]:
        """The process that serves."""
        assert self._process is not None
        return self._process

    def kill(self) -> None:
        """End it at once, as a crash or a pulled plug would."""
        os.kill(self.process.pid, signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        """End it in order."""
        if self.process.poll() is None:
            self.process.terminate()
            self.process.wait(timeout=20)
