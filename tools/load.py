"""Studios of many takes: how long each place takes to answer, and how much memory it needs, against their number."""

import resource
import sqlite3
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing
from datetime import UTC, datetime, timedelta
from multiprocessing import get_context
from multiprocessing.connection import Connection
from pathlib import Path

from ripresa.demo import fill_demo_studio
from ripresa.store.tables import database
from ripresa.web.app import create_app

NOW = datetime(2026, 5, 6, 18, 0, tzinfo=UTC)
STUDENTS, CLIMBS_EACH = 200, 10
#: What is asked for, and how it is called in the table.
PLACES = {
    "desk": "/api/desk",
    "students": "/api/students",
    "a student": "/api/students/1",
    "climbs": "/api/climbs",
    "a map": "/api/climbs/1/map",
    "log page": "/api/log?student_id=1",
    "takes of a climb": "/api/takes?climb_id=1&most=20",
    "CSV of all": "/api/log.csv",
}


def fill(path: Path, takes: int) -> None:
    """Make a studio of 200 students with ten climbs each, and so many takes over three years."""
    with create_app(path).at_studio(), database.atomic():
        fill_demo_studio(NOW)
    with closing(sqlite3.connect(path)) as opened, opened:
        opened.execute("PRAGMA synchronous = off")
        tables = ("student", "climb", "move")
        students, climbs, moves = (opened.execute(f"SELECT * FROM {table}").fetchall() for table in tables)
        # The demo studio's students and climbs, over and over.
        for number in range(STUDENTS - len(students)):
            _insert(opened, "student", (None, *students[number % len(students)][1:]))
        # Lessons lie on every day of the week, as those of a teacher do.
        opened.execute("UPDATE student SET lesson_weekday = id % 7")
        for number in range(CLIMBS_EACH * STUDENTS - len(climbs)):
            _insert(opened, "climb", (None, number % STUDENTS + 1, *climbs[number % len(climbs)][2:]))
        columns = [row[1] for row in opened.execute("PRAGMA table_info(take)")]
        patterns = [dict(zip(columns, row, strict=True)) for row in opened.execute("SELECT * FROM take")]
        owner = dict(opened.execute("SELECT id, student_id FROM climb").fetchall())
        apart = timedelta(days=3 * 365) / takes
        marks = ",".join("?" * len(columns))

        def rows() -> Iterator[tuple[object, ...]]:
            for number in range(takes):
                played = NOW - apart * (takes - number)
                climb = number % (CLIMBS_EACH * STUDENTS) + 1
                yield tuple(
                    {
                        **patterns[number % len(patterns)],
                        "id": f"load-{number:08}",
                        "climb_id": climb,
                        "student_id": owner[climb],
                        "played_at": played.isoformat(timespec="milliseconds"),
                    }.values()
                )

        opened.executemany(f"INSERT INTO take VALUES ({marks})", rows())
        for number in range(takes // 3):
            made = (NOW - apart * (takes - 3 * number)).isoformat(timespec="milliseconds")
            _insert(opened, "move", (None, number % (CLIMBS_EACH * STUDENTS) + 1, None, 1, 1, *moves[0][5:8], made))


def _insert(opened: sqlite3.Connection, table: str, row: tuple[object, ...]) -> None:
    opened.execute(f"INSERT INTO {table} VALUES ({','.join('?' * len(row))})", row)


def measure(path: Path, told: Connection) -> None:
    """Ask for each place, twice to be warm, and tell the shortest of three answers and the memory at the end."""
    client = create_app(path, clock=lambda: NOW).test_client()
    found = {}
    for name, address in PLACES.items():
        times = []
        for _ in range(2 if name.startswith("CSV") else 5):
            began = time.perf_counter()
            size = sum(len(piece) for piece in client.get(address).response)
            times.append(time.perf_counter() - began)
        found[name] = (min(times), size)
    found["memory"] = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, 0)
    told.send(found)


def main(sizes: list[int]) -> None:
    print("\nPlaces of a studio against its takes: milliseconds an answer (size in kB), and peak memory")
    print(f"{'takes':>10}" + "".join(f"{name:>18}" for name in (*PLACES, "memory, MB")))
    for size in sizes:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "ripresa.sqlite3"
            fill(path, size)
            here, there = get_context("spawn").Pipe(duplex=False)
            process = get_context("spawn").Process(target=measure, args=(path, there))
            process.start()
            found = here.recv()
            process.join()
        memory, _ = found.pop("memory")
        cells = [f"{took * 1000:.0f} ({size / 1000:.0f})" for took, size in found.values()]
        print(f"{size:>10}" + "".join(f"{cell:>18}" for cell in (*cells, f"{memory:.0f}")))


if __name__ == "__main__":
    main([int(size) for size in sys.argv[1:]] or [1_000, 10_000, 100_000])
