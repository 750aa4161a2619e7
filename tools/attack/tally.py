"""What an attack met: answers by their kind, the slowest, and whatever must not be."""

import http.client
import json
import time
from collections import Counter
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from tests.e2e.server import Server

#: Seconds after which an answer is too slow.
SLOW = 2.0
#: Words of an answer that says why nothing could be kept: right where the disk was made full.
_NOT_NOW = 503


@dataclass(slots=True)
class Tally:
    """Counts of one attack.

    Args:
        name: What is attacked.
        wrong: What must not be, each in a line.
    """

    name: str
    answers: Counter[int] = field(default_factory=Counter)
    slowest: tuple[float, str] = (0.0, "")
    wrong: list[str] = field(default_factory=list)
    #: Megabytes of the server before and after.
    memory: tuple[float, float] | None = None

    def note(self, status: int, seconds: float, what: str, *, full: bool = False) -> None:
        """Note an answer; a full disk may be the reason for one that could not be given."""
        self.answers[status] += 1
        self.slowest = max(self.slowest, (seconds, what))
        if status >= 500 and not (full and status == _NOT_NOW):
            self.wrong.append(f"{status}: {what}")
        if seconds > SLOW:
            self.wrong.append(f"{seconds:.1f} s: {what}")

    def row(self) -> str:
        """Return the counts in a line."""
        kinds = ", ".join(f"{count} × {status}" for status, count in sorted(self.answers.items()))
        memory = f"; memory {self.memory[0]:.0f} → {self.memory[1]:.0f} MB" if self.memory else ""
        slowest, what = self.slowest
        return (
            f"{self.name}: {sum(self.answers.values())} answers ({kinds}); "
            f"slowest {slowest:.2f} s, {what[:60]}{memory}; {len(self.wrong)} wrong"
        )


class Attacked:
    """A server under attack: each request is timed and noted."""

    def __init__(self, server: Server, tally: Tally) -> None:
        self.server = server
        self.tally = tally

    def ask(self, method: str, address: str, body: object = None, *, full: bool = False) -> tuple[int, Any]:
        """Send a request with a body (JSON, or bytes as they are); return the status, 0 if none, and what came."""
        raw = body if isinstance(body, bytes) else None if body is None else dumps(body)
        what = f"{method} {address} {(raw or b'')[:300]!r}"
        began = time.perf_counter()
        connection = http.client.HTTPConnection("127.0.0.1", self.server.port, timeout=30)
        try:
            connection.request(method, address, raw, {"Content-Type": "application/json"} if raw is not None else {})
            answer = connection.getresponse()
            data = answer.read()
        except (OSError, http.client.HTTPException):
            return 0, None
        finally:
            connection.close()
        self.tally.note(answer.status, time.perf_counter() - began, what, full=full)
        try:
            return answer.status, json.loads(data)
        except ValueError:
            return answer.status, data

    def megabytes(self) -> float:
        """Return how much memory the server has."""
        status = Path(f"/proc/{self.server.process.pid}/status").read_text()
        return int(status.split("VmRSS:")[1].split()[0]) / 1024


def dumps(body: object) -> bytes:
    """Return JSON that holds whatever is asked for: halves of signs and numbers that are none too."""
    return json.dumps(body).encode("utf-8", "surrogatepass")
