"""The few fixtures: a clock that stands, a studio in a file, the app and its client."""

import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from hypothesis import settings

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps
from ripresa.core.drill import Drill
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import Climb, KeptDrill, Student, StudentDetails, Take
from ripresa.formats.engraver import Engraver
from ripresa.store import climbs, drills, students
from ripresa.store.files import DATABASE_NAME, open_studio
from ripresa.store.tables import asking, database
from ripresa.web.app import PRACTICE, create_app, keep_on_the_way
from ripresa.web.blueprint import Api
from tests.strategies import IS_SEARCH, legs

# How long an example takes says how busy the machine is; speed is what `make bench` is for. The same examples each
# time: a test that fails was broken by what was changed. `make search` looks for others.
settings.register_profile("ripresa", deadline=None, derandomize=True, database=None)
settings.register_profile("search", deadline=None, print_blob=True)
settings.load_profile("search" if IS_SEARCH else "ripresa")

#: A Wednesday.
NOW = datetime(2026, 5, 6, 15, 0, tzinfo=UTC)


TAKE = Take(
    id="take-0001",
    student_id=1,
    climb_id=None,
    rung=None,
    drill_id=1,
    version=1,
    bpm=F(169, 2),
    click="every beat",
    click_plan=NamedClick(),
    source="by_ear",
    played_at=NOW,
    start=0.0,
    end=12.5,
    latency=0.0,
    is_calibrated=False,
    notes=(),
    figures=None,
    mark="clean",
    reasons=("Marked clean by ear, by the teacher.",),
)


class Clock:
    """A clock that stands until it is moved."""

    def __init__(self) -> None:
        self.moment = NOW

    def __call__(self) -> datetime:
        return self.moment

    def forward(self, **by: int) -> None:
        self.moment += timedelta(**by)


@pytest.fixture
def clock() -> Clock:
    return Clock()


@contextmanager
def opened(path: Path) -> Iterator[None]:
    """Ask the studio at a path while the block runs."""
    with asking(open_studio(path)), database.connection_context():
        yield


@pytest.fixture(scope="session")
def empty(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty studio to copy: its tables are made once."""
    path = tmp_path_factory.mktemp("empty") / DATABASE_NAME
    open_studio(path)
    return path


@pytest.fixture
def store(empty: Path, tmp_path: Path) -> Iterator[Path]:
    """An empty, open studio; its path."""
    path = tmp_path / DATABASE_NAME
    shutil.copyfile(empty, path)
    with asking(open_studio(path)):
        database.connect()
        yield path
        if not database.is_closed():
            database.close()


@pytest.fixture(scope="session")
def shared_app(empty: Path) -> Api:
    """The app that tests share: its addresses are laid once."""
    return create_app(empty, static=empty.parent / "static")


@pytest.fixture
def app(shared_app: Api, empty: Path, tmp_path: Path, clock: Clock) -> Api:
    """The app, with an empty studio of this test alone, and nothing remembered of others."""
    path = tmp_path / DATABASE_NAME
    shutil.copyfile(empty, path)
    shared_app.studio = open_studio(path)
    shared_app.config.update(CLOCK=clock, DATABASE=path, PRACTICE=PRACTICE)
    keep_on_the_way(shared_app)
    return shared_app


@pytest.fixture
def lone_app(empty: Path, tmp_path: Path, clock: Clock) -> Api:
    """An app that no other test sees, its pages in a folder of the test."""
    shutil.copyfile(empty, tmp_path / DATABASE_NAME)
    return create_app(tmp_path / DATABASE_NAME, clock=clock, static=tmp_path / "static")


@pytest.fixture
def client(app: Api) -> FlaskClient:
    return app.test_client()


@pytest.fixture(scope="session")
def engraver() -> Iterator[Engraver]:
    """The engraver that tests share: its workers take a moment to start."""
    found = Engraver()
    yield found
    found.close()


class Studio:
    """A teacher's two students, one drill, one climb."""

    student: Student
    other: Student
    drill: KeptDrill
    climb: Climb

    def __init__(self) -> None:
        self.student = students.add_student(StudentDetails("Mira Sund", "guitar", 2, "15:30"), NOW)
        self.other = students.add_student(StudentDetails("Oskar Vane", "flute"), NOW)
        steps = Drill(title="Slip steps", material=OneNote(beats=8), legs=legs(2, 4), bpm=F(84), hands=ByOrder())
        self.drill = drills.add_drill(steps, NOW)
        plan = ClimbPlan(start=F(84), target=BpmTarget(F(100)), rule=EvenSteps(F(4)))
        self.climb = climbs.add_climb(self.student.id, self.drill.id, None, plan, NOW)


@pytest.fixture
def studio(app: Api) -> Studio:
    with app.at_studio():
        return Studio()
