"""Kinds: all that is told of one stands beside it, and another one is a module, an entry, its words and its test."""

import shutil
import subprocess
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any, get_args

import pytest

from ripresa.core.climbs import RULES, TARGETS, RungRule, Target
from ripresa.core.drill import Drill
from ripresa.core.drill.accents import ACCENTS, Accents
from ripresa.core.drill.click import CLICKS, Click
from ripresa.core.drill.hands import HANDS, Hands
from ripresa.core.drill.material import MATERIALS, Material, OneNote
from ripresa.core.drill.second import PLAYS, Plays
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.kind import Kind, bounds_of
from ripresa.formats.drill_file import schema

HERE = Path(__file__).parents[2]
GROUPS: list[tuple[tuple[Kind[Any], ...], Any]] = [
    (MATERIALS, Material),
    (HANDS, Hands),
    (ACCENTS, Accents),
    (CLICKS, Click),
    (PLAYS, Plays),
    (TARGETS, Target),
    (RULES, RungRule),
]
KINDS = [kind for kinds, _ in GROUPS for kind in kinds]


@pytest.mark.parametrize(("kinds", "union"), GROUPS)
def test_every_member_of_a_union_is_offered(kinds: tuple[Kind[Any], ...], union: Any) -> None:
    members = get_args(get_args(union)[0])
    assert {type(kind.fresh) for kind in kinds} == set(members)
    assert len({kind.value for kind in kinds}) == len(kinds)
    assert all(kind.name and kind.why for kind in kinds)


@pytest.mark.parametrize(
    ("kind", "field"), [(kind, field) for kind in KINDS for field in bounds_of(type(kind.fresh))], ids=str
)
def test_a_number_beyond_its_bounds_is_refused_with_them_in_the_sentence(kind: Kind[Any], field: str) -> None:
    bounds = bounds_of(type(kind.fresh))[field]
    for value in (bounds.least, bounds.most):
        # “A click comes every ¼ beat” leaves no room to be late: what hangs on another number is its own refusal.
        assert getattr(replace(kind.fresh, **{field: value}), field) == value
    for value in (bounds.least - F(1, 100), bounds.most + 1):
        with pytest.raises(OutOfRange) as refused:
            replace(kind.fresh, **{field: value})
        assert refused.value.field is not None
        assert refused.value.field.endswith(f".{field}")
        assert str(bounds.most) in refused.value.message.replace(",", "")


def test_the_schema_and_the_hints_say_the_same_bounds() -> None:
    beats = schema()["$defs"]["OneNote"]["properties"]["beats"]
    assert (beats["minimum"], beats["maximum"]) == (1, 256)
    (one_note,) = [kind for kind in MATERIALS if isinstance(kind.fresh, OneNote)]
    assert one_note.hints["beats"] == "1 to 256. How many beats each leg lasts."
    assert one_note.fields == ("beats", "say", "first")


DRONE = '''"""A drone: one note held, for so many bars."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from ripresa.core.exact import Fraction
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.grid import Slot
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument
from ripresa.core.rhythm import Meter


@dataclass(frozen=True, slots=True)
class Drone:
    kind: Literal["drone"] = field(default="drone", kw_only=True)
    bars: Annotated[int, Between(1, 9, "A drone lasts {least} to {most} bars, not {value}.")] = 2

    def __post_init__(self) -> None:
        check_bounds(self, "material")

    @property
    def title(self) -> str:
        return "a drone"

    @property
    def own_division(self) -> Fraction:
        return Fraction(1)

    def pass_for(self, _divisions: Sequence[Fraction], _instrument: Instrument, meter: Meter) -> NotePass:
        beats = self.bars * len(meter.beats_of(1))
        held = [Slot(Fraction(1), 0, "note" if not beat else "hold") for beat in range(beats)]
        return NotePass((None,), described="held", rhythm=tuple(held))


KIND = Kind(Drone(), "a drone", "One note, held.")
'''
ENTRY = {
    "    count,\n": "    count,\n    drone,\n",
    "from ripresa.core.drill.material.line import": (
        "from ripresa.core.drill.material.drone import Drone\nfrom ripresa.core.drill.material.line import"
    ),
    "Material = Annotated[": "Material = Annotated[Drone | ",
    "    one_note.KIND,\n": "    one_note.KIND,\n    drone.KIND,\n",
}
PROVE = """
import sys
sys.path.insert(0, sys.argv[1])
from dataclasses import replace
from ripresa.core.exact import Fraction
import ripresa
from ripresa.core.drill import Drill
from ripresa.core.drill.material import MATERIALS
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.reports import paragraphs, sums
from ripresa.formats.drill_file import read_drill, schema, write_drill
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import write_musicxml
from ripresa.formats.sums_json import sums_values
assert ripresa.__file__.startswith(sys.argv[1])
(kind,) = [kind for kind in MATERIALS if kind.value == "drone"]
drill = read_drill(write_drill(Drill(material=kind.fresh)))
reading = read(drill)
assert [str(length) for _, length in reading.sounding()] == ["8", "8", "8"], reading
assert "bars" in schema()["$defs"]["Drone"]["properties"]
assert sums_values(reading, drill.bpm)["peak_nps"] and perform(reading, drill.bpm).tones
assert list(paragraphs(reading, sums(reading, drill.bpm), drill.bpm))
assert write_midi(reading, drill.bpm) and write_musicxml(reading, drill.bpm)
from ripresa.web.app import create_app
from pathlib import Path
client = create_app(Path(sys.argv[1]) / "studio.sqlite3").test_client()
offered = {one["value"]: one for one in client.get("/api/choices").json["materials"]}
assert offered["drone"]["hints"] == {"bars": "1 to 9."}
asked = {"drill": {"material": {"kind": "drone", "bars": 10}}}
refused = client.post("/api/reading", json=asked)
assert (refused.status_code, refused.json["field"]) == (422, "material.bars"), refused.json
"""


def test_another_kind_of_material_is_one_module_and_one_entry(tmp_path: Path) -> None:
    copy = tmp_path / "ripresa"
    shutil.copytree(HERE / "ripresa", copy, ignore=shutil.ignore_patterns("static", "__pycache__"))
    room = copy / "core" / "drill" / "material"
    (room / "drone.py").write_text(DRONE)
    entries = (room / "__init__.py").read_text()
    for before, after in ENTRY.items():
        assert before in entries
        entries = entries.replace(before, after, 1)
    (room / "__init__.py").write_text(entries)
    command = [sys.executable, "-c", PROVE, str(tmp_path)]
    done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr


def test_a_drill_of_each_kind_can_be_read() -> None:
    for kind in MATERIALS:
        assert Drill(material=kind.fresh).material == kind.fresh
