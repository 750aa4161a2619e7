"""Nothing that was answered for is lost: kills during writes, two tabs in one moment, a full disk."""

import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from random import Random
from typing import Any

from tests.e2e.server import Server
from tools.attack.hostile import furnish
from tools.attack.mutate import PRACTICE, TAKE
from tools.attack.tally import Attacked, Tally

TABS = 6


def take(number: int, **more: Any) -> dict[str, Any]:
    """Return a take of its own."""
    return {**TAKE, "id": f"loss-{number:06}", "source": "by_ear", "ear": "clean", "onsets": [], **more}


def by_kills(attacked: Attacked, seconds: float, seed: int = 1) -> None:
    """Kill the server while takes and drills are being kept, again and again; what was answered for is there."""
    random = Random(seed)
    server, tally = attacked.server, attacked.tally
    furnish(attacked)
    taken: set[str] = set()
    titles: set[str] = set()
    number = 0
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        with ThreadPoolExecutor(TABS) as tabs:
            numbers = range(number, number + 60)
            number += 60
            takes, drills = [], []
            for one in numbers:
                takes.append(tabs.submit(attacked.ask, "POST", "/api/takes", take(one)))
                drills.append(tabs.submit(attacked.ask, "POST", "/api/drills", {"drill": {"title": f"T{one}"}}))
            time.sleep(random.uniform(0.02, 0.6))
            server.kill()
            taken |= {answer.result()[1]["take"]["id"] for answer in takes if answer.result()[0] in {200, 201}}
            titles |= {answer.result()[1]["drill"]["title"] for answer in drills if answer.result()[0] == 201}
        server.start()
    _check(attacked, taken, titles)
    tally.name += f" ({number // 60} kills, {len(taken)} takes and {len(titles)} drills answered for)"


def _check(attacked: Attacked, taken: set[str], titles: set[str]) -> None:
    _, log = attacked.ask("GET", "/api/log.csv")
    _, drills = attacked.ask("GET", "/api/drills")
    kept = {one["title"] for one in drills["drills"]}
    count = log.count(b"by_ear") if isinstance(log, bytes) else 0
    if count < len(taken):
        attacked.tally.wrong.append(f"lost: {len(taken)} takes answered for, {count} in the log")
    for identity in sorted(taken)[:: max(1, len(taken) // 200)]:
        if attacked.ask("GET", f"/api/takes/{identity}")[0] != 200:
            attacked.tally.wrong.append(f"lost: take {identity}")
    if not titles <= kept:
        attacked.tally.wrong.append(f"lost: drills {sorted(titles - kept)[:5]}")


def by_tabs(attacked: Attacked, rounds: int = 20) -> None:
    """Do the same from several tabs in one moment: once is once, and a conflict is told to all but one."""
    furnish(attacked)
    tally = attacked.tally

    def at_once(method: str, address: str, *bodies: object) -> list[tuple[int, Any]]:
        with ThreadPoolExecutor(len(bodies)) as tabs:
            return list(tabs.map(lambda body: attacked.ask(method, address, body), bodies))

    for number in range(rounds):
        answers = at_once("POST", "/api/takes", *[take(number)] * TABS)
        if sorted(status for status, _ in answers) != [200] * (TABS - 1) + [201]:
            tally.wrong.append(f"the same take in {TABS} tabs: {[status for status, _ in answers]}")
        key = f"press-{number:06}"
        made = at_once("POST", "/api/drills", *[{"drill": {"title": "Once"}, "key": key}] * TABS)
        if len({answer["id"] for _, answer in made}) != 1:
            tally.wrong.append("the same press made several drills")
        drill = made[0][1]["id"]
        saved = at_once(
            "PUT",
            f"/api/drills/{drill}",
            *({"drill": {"title": f"Tab {tab}"}, "based_on": 1, "writer": f"page-{tab:06}"} for tab in range(TABS)),
        )
        if sorted(status for status, _ in saved) != [200] + [409] * (TABS - 1):
            tally.wrong.append(f"one drill saved in {TABS} tabs: {[status for status, _ in saved]}")
        for address, revision, bodies in _records(attacked, number):
            saved = at_once("PUT", address, *({**body, "based_on": revision} for body in bodies))
            if sorted(status for status, _ in saved) != [200] + [409] * (TABS - 1):
                tally.wrong.append(f"{address} from {TABS} browsers: {[status for status, _ in saved]}")


def _records(attacked: Attacked, number: int) -> Iterator[tuple[str, int, list[dict[str, Any]]]]:
    """Return (address, revision, what each browser writes) of each record that several may have open.

    Nobody writes what stands there since the round before: that would be no change.
    """
    fresh = range(number % 2 * TABS, number % 2 * TABS + TABS)

    def student() -> int:
        return int(attacked.ask("GET", "/api/students/1")[1]["student"]["revision"])

    yield "/api/students/1", student(), [{"details": {"name": f"Ada {number}.{tab}"}} for tab in range(TABS)]
    yield "/api/students/1/plan", student(), [{"plan": {**PRACTICE, "minutes": 10 + tab}} for tab in fresh]
    ladders = [[{"kind": "thinned", "every": str(2 + tab)}] for tab in fresh]
    yield "/api/students/1/clicks", student(), [{"clicks": clicks} for clicks in ladders]
    group = attacked.ask("POST", "/api/groups", {"details": {"name": f"Duo {number}"}})[1]
    trios = [{"details": {"name": f"Trio {number}.{tab}"}} for tab in range(TABS)]
    yield f"/api/groups/{group['id']}", group["revision"], trios
    climb = attacked.ask("GET", "/api/climbs?student_id=1")[1]["climbs"][0]
    figures = ("spread", "habit", "tempo", "click", "seam", "slips")
    limits = [{"limits": {"but": [{"figure": one, "evenness": ("easy", "strict")[number % 2]}]}} for one in figures]
    yield "/api/climbs/1/limits", climb["revision"], limits


def by_full_disk(tally: Tally, folder: Path) -> None:
    """Let the disk become full while takes are kept: it is said why, and what was answered for stays."""
    server = Server(folder)
    attacked = Attacked(server, tally)
    furnish(attacked)
    size = sum(one.stat().st_size for one in folder.iterdir())
    server.kill()
    # No file of the server may become larger than this: to it, the disk is full then.
    server.start(largest_file=size + 200_000)
    taken: set[str] = set()
    refusals: set[str] = set()
    for number in range(400):
        status, answer = attacked.ask("POST", "/api/takes", take(number, note="x" * 1500), full=True)
        if status in {200, 201}:
            taken.add(answer["take"]["id"])
        elif answer:
            refusals.add(answer["message"])
    if not refusals or not all("disk" in one for one in refusals):
        tally.wrong.append(f"a full disk is not called one: {refusals}")
    server.kill()
    server.start()
    _check(attacked, taken, set())
    server.stop()
    tally.name += f" ({len(taken)} takes answered for, then “{min(refusals, default='')[:40]}…”)"
