"""Hostile requests and files against a running server."""

import base64
import io
import time
import zipfile
from collections.abc import Iterator
from pathlib import Path
from random import Random
from typing import Any

import schemathesis

from ripresa.core.drill import Drill
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.shelf import SHELF
from ripresa.formats.drill_file import plain, write_drill
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import write_musicxml
from ripresa.store.files import backup, restore
from tests.formats.hostile import HOSTILE as FILES
from tools.attack.described import MODES, operations, send_cases
from tools.attack.mutate import PLAN, TAKE, mutated, requests
from tools.attack.tally import Attacked, Tally, dumps

EXAMPLES = 12
_REPEATED = (
    "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Ada\r\nDTSTART;TZID=Europe/Berlin:20260107T153000\r\n"
    "RRULE:FREQ=WEEKLY;BYDAY=WE,FR;COUNT=40\r\nEXDATE;TZID=Europe/Berlin:20260114T153000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
)


def furnish(attacked: Attacked) -> None:
    """Give a fresh studio a student, a drill, a climb and a take."""
    attacked.ask("POST", "/api/students", {"details": {"name": "Ada Brink"}})
    attacked.ask("POST", "/api/drills", {"drill": {"title": "Stairs"}})
    attacked.ask("POST", "/api/climbs", {"student_id": 1, "drill_id": 1, "plan": PLAN})
    attacked.ask("POST", "/api/takes", TAKE)


def by_schema(attacked: Attacked, seconds: float) -> None:
    """Ask for what the API's own description allows, and for what it does not, address by address."""
    found = operations(schemathesis.openapi.from_url(f"{attacked.server.home}/api/openapi.json"))

    def send(case: Any) -> None:
        began = time.perf_counter()
        answer = case.call(base_url=attacked.server.home)
        what = f"{case.method} {case.formatted_path} {case.query} {str(case.body)[:300]}"
        attacked.tally.note(answer.status_code, time.perf_counter() - began, what)

    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        for operation in found:
            for mode in MODES:
                if time.monotonic() < ends:
                    send_cases(operation, mode, send, examples=EXAMPLES)


def by_mutation(attacked: Attacked, seconds: float, seed: int = 1) -> None:
    """Ask for good things in which something was turned over."""
    random = Random(seed)
    shelf = [plain(one.drill) for one in SHELF]
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        _, kept = attacked.ask("GET", "/api/drills/1")
        for method, address, body in requests(random.sample(shelf, 2), kept["version"]):
            attacked.ask(method, *mutated(address, body, random))


def good_files() -> list[bytes]:
    """Return scores and drill files that are whole."""
    drills = [one.drill for one in SHELF[::6]]
    found: list[bytes] = [write_drill(drill).encode() for drill in drills]
    for drill in drills:
        try:
            found += [write_midi(read(drill), drill.bpm), write_musicxml(read(drill), drill.bpm)]
        except RipresaError:
            continue
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr("score.musicxml", write_musicxml(read(Drill()), F(90)))
    return [*found, packed.getvalue()]


def spoilt(data: bytes, random: Random) -> bytes:
    """Return a file with some bytes turned over, cut out, doubled, or put in."""
    found = bytearray(data)
    for _ in range(random.choice((1, 2, 5, 30))):
        at, length = random.randrange(len(found) or 1), random.choice((1, 2, 8, 100))
        match random.randrange(5):
            case 0:
                found[at : at + length] = random.randbytes(length)
            case 1:
                del found[at : at + length]
            case 2:
                found[at:at] = found[at : at + length] * random.choice((2, 50))
            case 3:
                found[at : at + 1] = random.choice((b"\xff", b"\0", b"\x80", b"9" * 12, b"-", b"e9", b"<", b"&"))
            case _:
                found[at : at + 4] = random.choice((b"\xff\xff\xff\x7f", b"\0\0\0\0", b"\x7f\xff\xff\xff"))
    return bytes(found)


def by_files(attacked: Attacked, seconds: float, seed: int = 1) -> None:
    """Open files that were met, or that one would send to bring a reader down, and good ones that were spoilt."""
    random = Random(seed)
    for data, _ in FILES.values():
        attacked.ask("POST", "/api/scores/parts", {"base64": base64.b64encode(data).decode()})
    good = good_files()
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        data = spoilt(random.choice(good), random)
        score = {"base64": base64.b64encode(data).decode()}
        attacked.ask("POST", "/api/scores/parts", score)
        bars = {"part": random.choice((0, 0, 1, -1)), "first_bar": 1, "last_bar": random.choice((1, 4, 10**6))}
        attacked.ask("POST", "/api/scores/drill", {**score, **bars, "title": "Sea lane"})
        attacked.ask("POST", "/api/drills/file", {"text": data.decode("utf-8", "replace")})


def good_texts(attacked: Attacked) -> list[tuple[str, str, bytes]]:
    """Return (address, field, text) of what comes back or in as text and is whole: results, logs, calendars, drills."""
    _, log = attacked.ask("GET", "/api/log.csv")
    _, lessons = attacked.ask("GET", "/api/students/1/calendar.ics")
    played = {**TAKE, "takes": [], "format": "ripresa.results/1", "studio": "x", "student_id": 1, "question": "Why?"}
    repeated = _REPEATED.encode()
    return [
        ("/api/results", "text", dumps(played)),
        ("/api/log.csv", "text", log),
        ("/api/students/lessons", "base64", lessons),
        ("/api/students/lessons", "base64", repeated),
        ("/api/drills/file", "text", write_drill(SHELF[0].drill).encode()),
    ]


def by_texts(attacked: Attacked, seconds: float, seed: int = 1) -> None:
    """Send results, logs, calendars and drill files that were spoilt."""
    random = Random(seed)
    good = good_texts(attacked)
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        address, field, text = random.choice(good)
        data = spoilt(text, random)
        sent = base64.b64encode(data).decode() if field == "base64" else data.decode("utf-8", "replace")
        attacked.ask("POST", address, {field: sent, "student_id": 1} if field == "text" else {field: sent})


def by_backups(tally: Tally, folder: Path, source: Path, seconds: float, seed: int = 1) -> None:
    """Restore backups that were spoilt: each is refused, or whole; what was there is never lost."""
    random = Random(seed)
    whole = folder / "whole"
    backup(source, whole)
    ends = time.monotonic() + seconds
    for number in _until(ends):
        bad, target = folder / "bad", folder / f"studio-{number % 4}.sqlite3"
        bad.write_bytes(spoilt(whole.read_bytes(), random))
        began = time.perf_counter()
        try:
            restore(bad, target)
            status = 200
        except RipresaError:
            status = 422
        except Exception as error:
            status = 500
            tally.wrong.append(f"restoring a spoilt backup: {error!r}")
        tally.note(status, time.perf_counter() - began, "restore")
        for kept in folder.glob("studio-*before-restore*"):
            kept.unlink()


def _until(ends: float) -> Iterator[int]:
    number = 0
    while time.monotonic() < ends:
        yield number
        number += 1
