"""Recordings under kills, deletions and sweeps: what was answered for is there, and nothing else lies around."""

import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from random import Random

import numpy as np

from ripresa.core.errors import RipresaError
from ripresa.store.files import DATABASE_NAME, backup, restore
from ripresa.store.private import RECORDINGS, TEMP
from tests.e2e.server import Server
from tools.attack.hostile import furnish, spoilt
from tools.attack.loss import take
from tools.attack.tally import Attacked, Tally

#: Samples of a second or so of something that is heard.
_SOUND = (3000 * np.sin(np.arange(24_000) / 20)).astype("<i2").tobytes()
_TABS = 4


def by_recordings(attacked: Attacked, folder: Path, seconds: float, seed: int = 1) -> None:
    """Keep takes with their sound while others delete, list and sweep, and the server is killed now and then.

    Args:
        folder: Of the data.
    """
    random = Random(seed)
    furnish(attacked)
    keeps_recordings(attacked)
    kept: set[str] = set()
    maybe: set[str] = set()
    number = kills = 0
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        with ThreadPoolExecutor(_TABS + 2) as tabs:
            numbers = range(number, number + 16)
            number += 16
            sent = {one: tabs.submit(send_sound, attacked, one) for one in numbers}
            gone = random.sample(sorted(kept), min(len(kept), 3))
            others = [tabs.submit(attacked.ask, "DELETE", f"/api/takes/{one}") for one in gone]
            others += [tabs.submit(attacked.ask, "GET", "/api/recordings") for _ in range(3)]
            is_killed = random.random() < 0.5
            if is_killed:
                time.sleep(random.uniform(0.02, 0.4))
                attacked.server.kill()
                kills += 1
            for one, answer in sent.items():
                (kept if answer.result() in {200, 201} else maybe).add(f"loss-{one:06}")
            for other in others:
                other.result()
            kept -= set(gone)
            maybe |= set(gone)
        if is_killed:
            attacked.server.start()
    attacked.server.kill()
    attacked.server.start()
    _check(attacked, folder, kept, maybe)
    attacked.tally.name += f" ({kills} kills, {len(kept)} sounds answered for)"


def by_gone_devices(attacked: Attacked, folder: Path, seed: int = 1) -> None:
    """Keep takes whose microphone went away: pieces that are missing, doubled, out of order, odd, or none at all.

    Args:
        folder: Of the data.
    """
    random = Random(seed)
    furnish(attacked)
    keeps_recordings(attacked)
    half = len(_SOUND) // 2
    broken: tuple[tuple[tuple[int, bytes], ...], ...] = (
        (),
        ((0, b""),),
        ((1, _SOUND),),
        ((0, _SOUND), (2, _SOUND)),
        ((0, _SOUND[:half]), (0, _SOUND[:half]), (1, _SOUND[half:])),
        ((1, _SOUND[half:]), (0, _SOUND[:half])),
        ((0, _SOUND[: half + 1]),),
    )
    for number in range(len(broken) * 3):
        key = f"sound-{number:06}"
        for piece, samples in broken[number % len(broken)]:
            attacked.ask("POST", f"/api/recordings/{key}/pieces/{piece}", samples)
        recorded = {
            "key": key,
            "rate": random.choice((8_000, 24_000, 48_000)),
            "zero": random.choice((0.0, -3.0, 900.0)),
        }
        body = take(number, recording=recorded)
        status = attacked.ask("POST", "/api/takes", body)[0]
        if status not in {200, 201}:
            # What cannot be kept of the sound is said, and the take itself is kept without it.
            status = attacked.ask("POST", "/api/takes", {**body, "recording": None})[0]
        if status not in {200, 201}:
            attacked.tally.wrong.append(f"a take whose device went away was not kept: {number}")
    _, listed = attacked.ask("GET", "/api/recordings")
    lying = {file.name for file in (folder / RECORDINGS).iterdir()} if (folder / RECORDINGS).exists() else set()
    if lying != {f"{one['take_id']}.flac" for one in listed["recordings"]}:
        attacked.tally.wrong.append("sounds of devices that went away lie around")


def by_restoring(tally: Tally, data: Path, seconds: float, seed: int = 1) -> None:
    """Restore backups of a studio with recordings, whole and spoilt: what a copy still names is never swept."""
    random = Random(seed)
    server = Server(data)
    attacked = Attacked(server, tally)
    furnish(attacked)
    keeps_recordings(attacked)
    older = [number for number in range(4) if send_sound(attacked, number) in {200, 201}]
    target, whole, bad = data / DATABASE_NAME, data.parent / "whole", data.parent / "bad"
    backup(target, whole)
    newer = [number for number in range(4, 8) if send_sound(attacked, number) in {200, 201}]
    files = {f"loss-{number:06}.flac" for number in (*older, *newer)}
    ends = time.monotonic() + seconds
    aside: Path | None = None
    while time.monotonic() < ends and not tally.wrong:
        server.kill()
        is_whole = random.random() < 0.5
        bad.write_bytes(whole.read_bytes() if is_whole else spoilt(whole.read_bytes(), random))
        try:
            aside = restore(bad, target) if aside is None else restore(aside, target)
        except RipresaError:
            if is_whole:
                tally.wrong.append("a whole backup was refused")
        server.start()
        attacked.ask("GET", "/api/recordings")
        lost = files - {file.name for file in (data / RECORDINGS).iterdir()}
        if lost:
            tally.wrong.append(f"restoring lost {sorted(lost)}")
    server.kill()
    if aside is not None and aside.exists():
        restore(aside, target)
    server.start()
    server.stop()


def keeps_recordings(attacked: Attacked) -> None:
    """Let the recordings of the student be kept."""
    _, shown = attacked.ask("GET", "/api/students/1")
    details = shown["student"]["details"] | {"keep_days": 30, "guardian": {"recordings": True}}
    attacked.ask("PUT", "/api/students/1", {"details": details, "based_on": shown["student"]["revision"]})


def send_sound(attacked: Attacked, number: int) -> int:
    """Keep a take with its sound; return the answer's status."""
    key = f"sound-{number:06}"
    attacked.ask("POST", f"/api/recordings/{key}/pieces/0", _SOUND)
    recorded = {"key": key, "rate": 24_000, "zero": 0.0}
    return attacked.ask("POST", "/api/takes", take(number, recording=recorded))[0]


def _check(attacked: Attacked, folder: Path, kept: set[str], maybe: set[str]) -> None:
    wrong = attacked.tally.wrong
    _, listed = attacked.ask("GET", "/api/recordings")
    named = {one["take_id"] for one in listed["recordings"]}
    lying = {file.name for file in (folder / RECORDINGS).iterdir()}
    if not kept <= named:
        wrong.append(f"lost: {len(kept - named)} of {len(kept)} recordings, {sorted(kept - named)[:3]}")
    if not named <= kept | maybe:
        wrong.append(f"left behind: {sorted(named - kept - maybe)[:3]}")
    if lying != {f"{one}.flac" for one in named}:
        wrong.append(f"files and rows differ: {sorted(lying ^ {f'{one}.flac' for one in named})[:3]}")
    if len(list((folder / TEMP).glob("run-*"))) != 1:
        wrong.append("what killed servers left in their folder is still there")
    for file in (*folder.rglob("*"), folder):
        if file.stat().st_mode & 0o077:
            wrong.append(f"open to others: {file.relative_to(folder.parent)}")
