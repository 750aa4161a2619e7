"""Other systems than this one: what only one of them has is asked for nowhere, and a lesson goes without it."""

import ast
import os
import subprocess
import sys
from pathlib import Path

HERE = Path(__file__).parents[2]
ONLY_HERE = {"fcntl", "grp", "posix", "pwd", "resource", "termios", "msvcrt", "winreg"}
ONLY_HERE_TOO = {"SIGKILL", "SIGHUP", "fork", "forkpty", "getuid", "geteuid", "chown", "mkfifo", "statvfs", "killpg"}

#: A lesson, where ripresa may not import what other systems have not, and ``os`` has not what theirs has not.
LESSON = """
import builtins, os, sys, tempfile, time
from pathlib import Path

refused, usual = set(sys.argv[1].split()), builtins.__import__

def imported(name, globals=None, *rest, **more):
    if name.partition(".")[0] in refused and (globals or {}).get("__name__", "").startswith("ripresa"):
        raise ModuleNotFoundError(name)
    return usual(name, globals, *rest, **more)

builtins.__import__ = imported
for name in ("fork", "forkpty", "nice", "getuid"):
    delattr(os, name)

def main():
    from ripresa.store.files import backup, in_use, restore
    from ripresa.web.app import create_app

    folder = Path(tempfile.mkdtemp())
    path = folder / "studio.sqlite3"
    with in_use(path):
        client = create_app(path).test_client()
        send = lambda where, **body: client.post(where, json=body).get_json()
        student = send("/api/students", details={"name": "Runa Holt", "instrument": "guitar"})
        kept = send("/api/drills", drill={"title": "Kelp", "legs": [{"division": "4"}]})
        plan = {"start": "60", "target": {"kind": "bpm", "bpm": "80"}}
        climb = send("/api/climbs", student_id=student["id"], drill_id=kept["id"], plan=plan)
        ids = {"student_id": student["id"], "climb_id": climb["id"], "drill_id": kept["id"]}
        take = {"id": "take-0001", "rung": 1, "version": 1, "bpm": "60", "click": "every_beat", "source": "by_ear",
                "played_at": "2026-05-06T15:00:00+00:00", "end": 30.0, "onsets": [], "ear": "clean"}
        print(send("/api/takes", **ids, **take)["take"]["mark"])
        print(send("/api/sheets", climb_id=climb["id"], shows="both")["number"])
        job = send("/api/play-along", drill_id=kept["id"], rungs=[{"bpm": "200"}], sound="flac", passes=1)
        while not (told := client.get(f"/api/play-along/{job['key']}").get_json())["ready"]:
            assert not told["failed"], told
            time.sleep(0.02)
        print(client.get(f"/api/play-along/{job['key']}/file").headers["Content-Disposition"])
        print(client.get("/api/settings/backup.sqlite3").status_code)
        backup(path, folder / "copy.sqlite3")
    restore(folder / "copy.sqlite3", path)
    print("there and back")

if __name__ == "__main__":
    main()
"""


def test_what_only_one_system_has_is_asked_for_nowhere() -> None:
    found = []
    for path in sorted((HERE / "ripresa").rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text())):
            match node:
                case ast.Import(names=names):
                    found += [f"{path}: {one.name}" for one in names if one.name.partition(".")[0] in ONLY_HERE]
                case ast.ImportFrom(module=str() as module) if module.partition(".")[0] in ONLY_HERE:
                    found.append(f"{path}: {module}")
                case ast.Attribute(value=ast.Name(id="os" | "signal"), attr=name) if name in ONLY_HERE_TOO:
                    found.append(f"{path}: {name}")
    assert not found


def test_a_lesson_goes_without_what_other_systems_have_not(tmp_path: Path) -> None:
    script = tmp_path / "lesson.py"
    script.write_text(LESSON)
    command = [sys.executable, str(script), " ".join(sorted(ONLY_HERE))]
    done = subprocess.run(
        command, cwd=HERE, env={**os.environ, "PYTHONPATH": str(HERE)}, capture_output=True, text=True, check=False
    )
    assert done.stdout.split("\n")[:-1] == [
        "clean",
        "1",
        "attachment; filename=kelp-200.flac",
        "200",
        "there and back",
    ], done.stderr
