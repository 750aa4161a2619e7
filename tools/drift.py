"""The files that are made from the code: written anew with --write, else checked for drift."""

import json
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

from ripresa.cli.plans import plan_schemas
from ripresa.formats.drill_file import schema
from ripresa.formats.judged_json import judged_schema
from ripresa.formats.listened_json import listened_schema
from ripresa.formats.sums_json import sums_schema
from ripresa.formats.take_file import take_schema
from ripresa.web.app import create_app
from ripresa.web.shapes.described import DEFAULTS
from tools.fingerings import fingerings
from tools.help import glossary, guide
from tools.notice import notice
from tools.refusals import drill_refusals, plan_refusals, second_refusals
from tools.soundings import examples

ROOT = Path(__file__).parent.parent
FRONTEND = ROOT / "frontend"
SCHEMA = ROOT / "docs" / "drill-format.schema.json"
SUMS = ROOT / "docs" / "sums.schema.json"
TAKE = ROOT / "docs" / "take.schema.json"
PLAN = ROOT / "docs" / "plan.schema.json"
API = FRONTEND / "openapi.json"
SOUNDINGS = FRONTEND / "soundings.json"
KINDS = FRONTEND / "kinds.json"
FINGERINGS = ROOT / "docs" / "fingerings.md"
NOTICE = ROOT / "NOTICE"
TABLES = FRONTEND / "src" / "api" / "tables.json"
HELP = FRONTEND / "src" / "features" / "help" / "help.json"
TYPES = FRONTEND / "src" / "api" / "schema.d.ts"


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        made = Path(folder)
        fresh = {
            SCHEMA: _text(schema()),
            SUMS: _text(sums_schema()),
            TAKE: _text({"take": take_schema(), "judged": judged_schema(), "listened": listened_schema()}),
            PLAN: _text(plan_schemas()),
            SOUNDINGS: _text(list(examples())),
            KINDS: _text(kinds(made)),
            NOTICE: notice(),
            FINGERINGS: fingerings(),
            HELP: _text({"glossary": glossary(), "guide": guide()}),
            API: _text(create_app(made / "studio.sqlite3").api_doc),
        }
        # Known once the API is described.
        fresh[TABLES] = _text(dict(sorted(DEFAULTS.items())))
        (made / "openapi.json").write_text(fresh[API])
        subprocess.run(
            ["npx", "openapi-typescript", str(made / "openapi.json"), "-o", str(made / "schema.d.ts")],
            cwd=FRONTEND,
            check=True,
            capture_output=True,
        )
        fresh[TYPES] = (made / "schema.d.ts").read_text()
    if "--write" in sys.argv:
        for path, text in fresh.items():
            path.write_text(text)
        return 0
    stale = [path for path, text in fresh.items() if not path.exists() or path.read_text() != text]
    for path in stale:
        print(f"{path.relative_to(ROOT)} does not fit the code any more. Run “make types”.", file=sys.stderr)
    return 1 if stale else 0


def kinds(folder: Path) -> dict[str, Any]:
    """Return what the screens offer, and every refusal that a kind can bring about: what their tests are held to."""
    with create_app(folder / "kinds.sqlite3").test_client() as client:
        # Which languages there are depends on the computer, and none of the tests on them.
        choices = {**(client.get("/api/choices").json or {}), "languages": []}
    drills = [*drill_refusals(), *second_refusals()]
    return {"choices": choices, "drills": drills, "plans": list(plan_refusals())}


def _text(values: Any) -> str:
    return json.dumps(values, ensure_ascii=False, indent=2) + "\n"


if __name__ == "__main__":
    sys.exit(main())
