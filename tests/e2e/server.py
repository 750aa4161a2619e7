"""A real server in its own process, that a test may kill and start again."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path


class Server:
    """One served studio; its address stays the same over restarts."""

    def __init__(self, folder: Path | None = None) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port: int = probe.getsockname()[1]
        self.home = f"http://localhost:{self.port}"
        self._source = ["--demo"] if folder is None else ["--data", str(folder)]
        self._process: subprocess.Popen[bytes] | None = None
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "ripresa.cli", "serve", "--port", str(self.port), *self._source]
        self._process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        ends = time.monotonic() + 60
        while time.monotonic() < ends:
            try:
                urllib.request.urlopen(f"{self.home}/api/choices", timeout=2).close()
            except OSError:
                time.sleep(0.05)
            else:
                return
        raise TimeoutError("the server did not start within a minute")

    def kill(self) -> None:
        """End it at once, as a crash or a pulled plug would."""
        assert self._process is not None
        os.kill(self._process.pid, signal.SIGKILL)
        self._process.wait()

    def stop(self) -> None:
        """End it in order."""
        assert self._process is not None
        if self._process.poll() is None:
            self._process.terminate()
            self._process.wait(timeout=20)
