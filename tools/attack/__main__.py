"""Attack the app for as long as asked, and say what was met; any answer that must not be ends it with 1."""

import argparse
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from tests.e2e.server import Server
from tools.attack import company, hostile, loss, recordings
from tools.attack.tally import Attacked, Tally

#: Megabytes that a server may grow by under attack: caches fill, and no more.
MOST_GROWTH = 150


@contextmanager
def studio(name: str, tallies: list[Tally]) -> Iterator[Attacked]:
    """Serve a fresh studio that is attacked, and note its memory before and after."""
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        server = Server(Path(folder))
        attacked = Attacked(server, Tally(name))
        tallies.append(attacked.tally)
        try:
            yield attacked
        finally:
            server.stop()


def under(name: str, tallies: list[Tally], attack: Callable[[Attacked, float], None], seconds: float) -> None:
    """Attack a furnished studio; it still answers afterwards, and has not grown much."""
    with studio(name, tallies) as attacked:
        hostile.furnish(attacked)
        # What it needs when it is warm.
        attack(attacked, seconds / 5)
        before = attacked.megabytes()
        attack(attacked, seconds * 4 / 5)
        after = attacked.megabytes()
        attacked.tally.memory = before, after
        if after - before > MOST_GROWTH:
            attacked.tally.wrong.append(f"memory grew from {before:.0f} to {after:.0f} MB")
        if attacked.server.process.poll() is not None or attacked.ask("GET", "/api/desk")[0] != 200:
            attacked.tally.wrong.append("the server does not answer any more")
        print(attacked.tally.row(), flush=True)


def main() -> int:
    parser = argparse.ArgumentParser(prog="make attack", description=__doc__)
    parser.add_argument("--seconds", type=float, default=500, help="how long in all")
    seconds = parser.parse_args().seconds
    Server.errors = subprocess.DEVNULL
    tallies: list[Tally] = []
    under("Requests by the description of the API", tallies, hostile.by_schema, seconds * 0.28)
    under("Good requests, turned over", tallies, hostile.by_mutation, seconds * 0.22)
    under("Files from elsewhere, spoilt", tallies, hostile.by_files, seconds * 0.12)
    under("Results, logs and calendars, spoilt", tallies, hostile.by_texts, seconds * 0.06)
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        data = Path(folder) / "data"
        attacked = Attacked(Server(data), Tally("Recordings"))
        tallies.append(attacked.tally)
        recordings.by_recordings(attacked, data, seconds * 0.1)
        attacked.server.stop()
        print(attacked.tally.row(), flush=True)
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        data = Path(folder) / "data"
        attacked = Attacked(Server(data), Tally("Devices gone in mid-take"))
        tallies.append(attacked.tally)
        recordings.by_gone_devices(attacked, data)
        attacked.server.stop()
        print(attacked.tally.row(), flush=True)
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        tallies.append(Tally("Backups with recordings, whole and spoilt"))
        recordings.by_restoring(tallies[-1], Path(folder) / "data", seconds * 0.05)
        print(tallies[-1].row(), flush=True)
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        tallies.append(Tally("Two servers, a demo, older data, clocks"))
        company.by_company(tallies[-1], Path(folder))
        print(tallies[-1].row(), flush=True)
    with studio("Kills while things are kept", tallies) as attacked:
        loss.by_kills(attacked, seconds * 0.12)
        print(attacked.tally.row(), flush=True)
    with studio("Six tabs in one moment", tallies) as attacked:
        loss.by_tabs(attacked)
        print(attacked.tally.row(), flush=True)
    with tempfile.TemporaryDirectory(prefix="ripresa-attack-") as folder:
        tallies.append(Tally("A full disk"))
        loss.by_full_disk(tallies[-1], Path(folder) / "studio")
        print(tallies[-1].row(), flush=True)
        tallies.append(Tally("Backups, spoilt"))
        hostile.by_backups(tallies[-1], Path(folder), Path(folder) / "studio" / "ripresa.sqlite3", seconds * 0.05)
        print(tallies[-1].row(), flush=True)
    wrong = [line for tally in tallies for line in tally.wrong]
    for line in wrong[:60]:
        print("WRONG", line[:1200])
    answers = sum(sum(tally.answers.values()) for tally in tallies)
    print(f"{answers} answers, {len(wrong)} of them or of what they led to wrong")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
