"""A real server in its own process, that a test may kill and start again."""

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


class Server:
    """One served studio; its address stays the same over restarts."""

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

    @contextmanager
    def instead(self, folder: Path) -> Iterator[None]:
        """Serve another studio at this address while the block runs; this one was ended before, and goes on after."""
        mine, self._source = self._source, ["--data", str(folder)]
        self.start()
        yield
        self.stop()
        self._source = mine
        self.start()

    def stop(self) -> None:
        """End it in order."""
        if self.process.poll() is None:
            self.process.terminate()
            self.process.wait(timeout=20)
