"""What the app says, line by line, as it is kept in ``tests/told``, so that no change of it goes unnoticed.

``make told`` writes it anew after a change that was meant to change it; the difference is read like any other.
What is known to be said wrong stands there too, until it is mended.
"""

from collections.abc import Callable, Iterator
from pathlib import Path

from tests.said import of_climbs, of_drills, of_files, of_odd_takes, of_takes

KEPT = Path(__file__).parents[1] / "told"
SAID: dict[str, Callable[[], Iterator[str]]] = {
    "drills": of_drills.drills,
    "corpus": of_drills.corpus,
    "changes": of_drills.changes,
    "numbers": of_drills.numbers,
    "fingers": of_drills.fingers,
    "takes": of_takes.takes,
    "odd": of_odd_takes.odd,
    "judged": of_takes.judged,
    "from_files": of_takes.from_files,
    "refused": of_takes.refused,
    "heard": of_takes.heard,
    "climbs": of_climbs.climbs,
    "plans": of_climbs.plans,
    "tasks": of_climbs.tasks,
    "expected": of_climbs.expected,
    "files": of_files.files,
    "sums_of_files": of_files.sums_of_files,
    "spoilt": of_files.spoilt,
    "sheets": of_files.sheets,
    "logs": of_files.logs,
    "calendars": of_files.calendars,
    "schemas": of_files.schemas,
    "sounds": of_files.sounds,
}
