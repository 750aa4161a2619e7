"""The corpus that the tests share (``make corpus``): drills made by their generators, and what is said of others.

The first line says of which seed; each other is a drill, what it says otherwise than a new one does.
"""

import json
import sys
from collections.abc import Iterator

from hypothesis import HealthCheck, Phase, given, seed, settings

from ripresa.core.drill import Drill
from ripresa.formats.drill_file import from_plain, plain
from tests.said import KEPT, SAID
from tests.strategies import CORPUS, MAKERS

SEED = 28
#: Drills of each kind.
EACH = 40


def made(kind: str) -> list[Drill]:
    """Return drills of a kind, each once; the seed begins the draw, and other code may draw others of it."""
    found: dict[Drill, None] = {}
    # The first examples are the simplest, and alike; so more are made than are kept.
    run = settings(
        max_examples=3 * EACH,
        database=None,
        phases=[Phase.generate],
        deadline=None,
        suppress_health_check=list(HealthCheck),
    )

    def collect(drill: Drill) -> None:
        found[drill] = None

    run(seed(SEED)(given(MAKERS[kind])(collect)))()
    every = list(found)
    return every[:: max(1, len(every) // EACH)][:EACH]


def lines() -> Iterator[str]:
    """Yield the lines of the corpus."""
    fresh = plain(Drill())
    yield json.dumps({"seed": SEED, "each": EACH})
    for kind in MAKERS:
        for drill in made(kind):
            otherwise = {name: value for name, value in plain(drill).items() if value != fresh[name]}
            assert from_plain(otherwise) == drill
            yield json.dumps({"kind": kind, "drill": otherwise}, ensure_ascii=False)


if __name__ == "__main__":
    if "--drills" in sys.argv:
        CORPUS.write_text("\n".join(lines()) + "\n", "utf-8")
    print(f"{CORPUS.name}: {sum(1 for _ in CORPUS.open()) - 1} drills")
    for about, said in SAID.items():
        (KEPT / f"{about}.txt").write_text("".join(f"{line}\n" for line in said()), "utf-8")
    sys.exit(0)
