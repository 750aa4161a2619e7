"""One file to install: a wheel with the front end, fonts and sounds in it, and the versions that were tested.

``python -m tools.dist FOLDER`` builds it there, of what the front end's build left in the package.
"""

import re
import shutil
import subprocess
import sys
from pathlib import Path
from tempfile import TemporaryDirectory

ROOT = Path(__file__).parent.parent
LOCK = ROOT / "requirements" / "run.txt"
#: Without these the wheel would start and show nothing.
BUILT = ("ripresa/web/static/index.html", "ripresa/web/practice/practice.html")
LARGEST = 6_000_000


def locked() -> list[str]:
    """Return every package that is installed with it, at its version."""
    return re.findall(r"^([a-z0-9][\w.\-\[\]]*==[^\s\\;]+)", LOCK.read_text(), re.M)


def build(target: Path) -> Path:
    """Build the wheel in a folder, and return it."""
    for name in BUILT:
        if not (ROOT / name).is_file():
            sys.exit(f"{name} is not built yet. Run “make dist”.")
    with TemporaryDirectory() as folder:
        work = Path(folder)
        for name in ("NOTICE", "pyproject.toml"):
            shutil.copy(ROOT / name, work)
        shutil.copytree(ROOT / "ripresa", work / "ripresa", ignore=shutil.ignore_patterns("__pycache__"))
        project = work / "pyproject.toml"
        project.write_text(_pinned(project.read_text()))
        command = [sys.executable, "-m", "pip", "--quiet", "--disable-pip-version-check", "wheel", "--no-deps"]
        subprocess.run([*command, "--no-build-isolation", "-w", str(work / "dist"), str(work)], check=True)
        (made,) = (work / "dist").glob("*.whl")
        target.mkdir(parents=True, exist_ok=True)
        found = Path(shutil.copy(made, target))
    if found.stat().st_size > LARGEST:
        sys.exit(f"{found.name} has {found.stat().st_size / 1e6:.1f} MB, and may have {LARGEST / 1e6:.0f}.")
    return found


def _pinned(project: str) -> str:
    """Return the project's description with the versions of the lock in place of its bounds, for who only runs it."""
    # What only another system needs is not in the lock of this one: its bounds stay.
    elsewhere = re.findall(r'^  "([^"]+; [^"]+)",$', project, re.M)
    listed = "".join(f'  "{one}",\n' for one in (*locked(), *elsewhere))
    asked = f"dependencies = [\n{listed}]\n"
    without = re.sub(r"^\[project\.optional-dependencies\]\n.*?^\]\n", "", project, count=1, flags=re.M | re.S)
    return re.sub(r"^dependencies = \[\n.*?^\]\n", asked, without, count=1, flags=re.M | re.S)


if __name__ == "__main__":
    made = build(Path(sys.argv[1] if len(sys.argv) > 1 else "dist"))
    print(f"{made}: {made.stat().st_size / 1e6:.1f} MB. Install it with: pip install {made}")
