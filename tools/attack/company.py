"""What shares a computer with a studio: another server of it, the demo, data of older versions, days that run out."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

from ripresa.store.files import DATABASE_NAME
from ripresa.store.migrations import _STEPS, CURRENT
from ripresa.store.private import RECORDINGS
from tests.e2e.server import Server
from tools.attack.hostile import furnish
from tools.attack.loss import take
from tools.attack.recordings import keeps_recordings, send_sound
from tools.attack.tally import Attacked, Tally

_TAKES = 24
_MOMENTS = ("2026-10-25T00:30:00Z", "2026-10-25T01:30:00Z", "2026-03-29T01:30:00Z", "1970-01-01T00:00:00Z")
#: How many versions of the tables back a studio is opened.
_OLDER = 3


def by_company(tally: Tally, folder: Path) -> None:
    """Serve one studio twice beside a demo, let recordings run out and clocks go back, and open older data."""
    _two_servers(tally, folder / "shared")
    _runs_out(tally, folder / "running out")
    _goes_back(tally, folder / "going back")
    for back in range(1, _OLDER + 1):
        _older(tally, folder / f"older by {back}", CURRENT - back)


def _two_servers(tally: Tally, data: Path) -> None:
    servers = [Server(data), Server(data)]
    demo = Server(None)
    one, other = (Attacked(server, tally) for server in servers)
    furnish(one)
    keeps_recordings(one)
    for number in range(_TAKES):
        if send_sound((one, other)[number % 2], number) not in {200, 201}:
            tally.wrong.append(f"take {number} was not kept by one of two servers")
    servers[1].kill()
    _, listed = one.ask("GET", "/api/recordings")
    if len(listed["recordings"]) != _TAKES or len(list((data / RECORDINGS).iterdir())) != _TAKES:
        tally.wrong.append(f"two servers kept {len(listed['recordings'])} of {_TAKES} recordings")
    status, _ = Attacked(demo, tally).ask("GET", "/api/takes/loss-000001")
    if status != 404:
        tally.wrong.append("the demo knows a take of one's own data")
    for server in (servers[0], demo):
        server.stop()


def _runs_out(tally: Tally, data: Path) -> None:
    server = Server(data)
    attacked = Attacked(server, tally)
    furnish(attacked)
    keeps_recordings(attacked)
    for number in range(4):
        send_sound(attacked, number)
    server.kill()
    with closing(sqlite3.connect(data / DATABASE_NAME)) as opened, opened:
        past = (datetime.now(UTC) - timedelta(days=1)).isoformat(timespec="milliseconds")
        opened.execute("UPDATE recording SET until = ? WHERE take_id < 'loss-000002'", (past,))
    server.start()
    left = sorted(file.name for file in (data / RECORDINGS).iterdir())
    if left != ["loss-000002.flac", "loss-000003.flac"]:
        tally.wrong.append(f"after two of four had run out there are {left}")
    server.stop()


def _goes_back(tally: Tally, data: Path) -> None:
    server = Server(data)
    attacked = Attacked(server, tally)
    furnish(attacked)
    # Over both changes of the clock, an hour back at a time, and into the year that nobody meant.
    for number, at in enumerate(_MOMENTS):
        if attacked.ask("POST", "/api/takes", take(number, played_at=at))[0] != 201:
            tally.wrong.append(f"a take of {at} was not kept")
    for address in ("/api/log?student_id=1", "/api/students/1", "/api/desk", "/api/log.csv"):
        if attacked.ask("GET", address)[0] != 200:
            tally.wrong.append(f"{address} after the clock went back")
    server.stop()


def _older(tally: Tally, data: Path, version: int) -> None:
    data.mkdir(parents=True)
    with closing(sqlite3.connect(data / DATABASE_NAME, isolation_level=None)) as opened:
        opened.create_function("figures_of_old", 2, lambda *_: None)
        for statements in _STEPS[:version]:
            for statement in statements:
                opened.execute(statement)
        opened.execute(f"PRAGMA user_version = {version}")
    server = Server(data)
    attacked = Attacked(server, tally)
    furnish(attacked)
    if attacked.ask("GET", "/api/takes/attack-0001")[0] != 200:
        tally.wrong.append(f"data of version {version} of the tables keeps no take")
    server.stop()
