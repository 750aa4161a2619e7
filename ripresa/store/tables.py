"""The tables, as peewee sees them. Their shape is made and changed in ``migrations`` alone."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import UTC, datetime
from typing import Any, TypeVar

from peewee import (
    AutoField,
    CompositeKey,
    DatabaseProxy,
    FloatField,
    ForeignKeyField,
    IntegerField,
    Model,
    SqliteDatabase,
    TextField,
)

T = TypeVar("T")


class StudioDatabase(SqliteDatabase):
    """The database of one studio; ``unread`` names the rows that could not be read since it was opened."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.unread: dict[str, None] = {}


_NONE_ASKED = "No studio is asked here. Do this within asking(open_studio(path))."
_asked: ContextVar[StudioDatabase | None] = ContextVar("asked", default=None)


class _Asked(DatabaseProxy):
    """The database that is asked here and now: two apps in one process each answer from their own."""

    @property
    def obj(self) -> StudioDatabase | None:
        """The studio that ``asking`` names; none outside of it."""
        return _asked.get()

    @obj.setter
    def obj(self, value: None) -> None:
        """Hold nothing: there is no database for the whole process."""

    @property
    def studio(self) -> StudioDatabase:
        """The studio that is asked.

        Raises:
            RuntimeError: None is.
        """
        found = self.obj
        if found is None:
            raise RuntimeError(_NONE_ASKED)
        return found

    def __getattr__(self, name: str) -> Any:
        if self.obj is None:
            # Of this kind, so that whoever looks at all that stands in a module may ask what this has.
            raise AttributeError(_NONE_ASKED)
        return getattr(self.obj, name)


database = _Asked()


@contextmanager
def asking(studio: StudioDatabase) -> Iterator[None]:
    """Ask a studio, and no other, while the block runs, in this thread."""
    token = _asked.set(studio)
    try:
        yield
    finally:
        _asked.reset(token)


def asked_row_by_row(rows: Iterator[T]) -> Iterator[T]:
    """Yield rows from the studio that is asked now, also when they are taken after whoever asked is done."""
    studio = database.studio

    def each() -> Iterator[T]:
        try:
            while True:
                with asking(studio):
                    try:
                        row = next(rows)
                    except StopIteration:
                        return
                yield row
        finally:
            if not studio.is_closed():
                studio.close()

    return each()


class MomentField(TextField):
    """A moment, kept as ISO text in UTC, so that it sorts."""

    def db_value(self, value: datetime | None) -> str | None:
        """Return the text of an aware moment."""
        return value.astimezone(UTC).isoformat(timespec="milliseconds") if value else None

    def python_value(self, value: str | None) -> datetime | str | None:
        """Return the moment of a text; a text that is none stays as it is, for ``moment`` to refuse."""
        try:
            return moment(value) if value else None
        except ValueError:
            return value


def moment(value: object) -> datetime:
    """Return a kept moment.

    Raises:
        ValueError: It is none.
    """
    if isinstance(value, datetime):
        return value
    found = datetime.fromisoformat(str(value))
    if found.tzinfo is None:
        raise ValueError(f"{value!r} does not say its time zone")
    return found


class Table(Model):
    """A table of the studio's database."""

    class Meta:
        """Bound to the studio that is asked."""

        database = database
        legacy_table_names = False


class MadeRow(Table):
    """What a key of the browser has made already, so that asking twice makes it once."""

    key = TextField(primary_key=True)
    kind = TextField()
    made_id = IntegerField()

    class Meta:
        """Name in the database."""

        table_name = "made"


class StudentRow(Table):
    """A student; more details, the own click ladder and the plan of practice as JSON; the revision counts changes."""

    id = AutoField()
    name = TextField()
    instrument = TextField()
    lesson_weekday = IntegerField(null=True)
    lesson_time = TextField()
    profile = TextField(default="{}")
    clicks = TextField(default="[]")
    plan = TextField(null=True)
    revision = IntegerField(default=1)
    created_at = MomentField()
    put_away_at = MomentField(null=True)

    class Meta:
        """Name in the database."""

        table_name = "student"


class GroupRow(Table):
    """A group of students; what it is as JSON; the revision counts changes."""

    id = AutoField()
    body = TextField()
    revision = IntegerField(default=1)
    created_at = MomentField()

    class Meta:
        """Name in the database."""

        table_name = "student_group"


class SettingRow(Table):
    """What is set for the whole studio, as JSON."""

    key = TextField(primary_key=True)
    value = TextField()
    revision = IntegerField(default=1)

    class Meta:
        """Name in the database."""

        table_name = "setting"


class DrillRow(Table):
    """A drill; what it says is in its versions."""

    id = AutoField()
    created_at = MomentField()
    archived_at = MomentField(null=True)

    class Meta:
        """Name in the database."""

        table_name = "drill"


class VersionRow(Table):
    """One version of a drill, as drill-file JSON; the writer is the open page that it came from."""

    id = AutoField()
    drill = ForeignKeyField(DrillRow, backref="versions")
    number = IntegerField()
    body = TextField()
    writer = TextField(default="")
    saved_at = MomentField()

    class Meta:
        """Name in the database."""

        table_name = "drill_version"


class ClimbRow(Table):
    """A climb; its plan and overrides as JSON; the set of variants it is of; the revision counts changes."""

    id = AutoField()
    student = ForeignKeyField(StudentRow, backref="climbs")
    version = ForeignKeyField(VersionRow)
    plan = TextField()
    rung = IntegerField()
    overrides = TextField(default="{}")
    set_key = TextField(default="")
    set_place = IntegerField(default=0)
    revision = IntegerField(default=1)
    started_at = MomentField()

    class Meta:
        """Name in the database."""

        table_name = "climb"


class TakeRow(Table):
    """A take; notes, figures, part and click plan as JSON, and what lists show of the figures."""

    id = TextField(primary_key=True)
    student = ForeignKeyField(StudentRow, backref="takes")
    climb = ForeignKeyField(ClimbRow, null=True, backref="takes")
    rung = IntegerField(null=True)
    version = ForeignKeyField(VersionRow)
    bpm = TextField()
    click = TextField()
    click_plan = TextField(null=True)
    source = TextField()
    played_at = MomentField()
    start_seconds = FloatField()
    end_seconds = FloatField()
    latency = FloatField()
    is_calibrated = IntegerField()
    latency_half = FloatField(default=0.0)
    notes = TextField()
    figures = TextField(null=True)
    mark = TextField()
    reasons = TextField()
    note = TextField()
    due = IntegerField(null=True)
    matched = IntegerField(null=True)
    missed = IntegerField(null=True)
    extra = IntegerField(null=True)
    bias = FloatField(null=True)
    bias_half = FloatField(null=True)
    bias_count = IntegerField(null=True)
    spread = FloatField(null=True)
    drift_percent = FloatField(null=True)
    drift_bpm = FloatField(null=True)
    part = TextField(null=True)
    part_name = TextField(default="")
    faults = TextField(default="[]")
    offers = TextField(default="[]")
    refused = TextField(default="")
    machine = TextField(null=True)
    ear = TextField(null=True)
    ear_by = TextField(null=True)
    ease = IntegerField(null=True)
    remedy = IntegerField(null=True)
    played_notes = IntegerField(null=True)
    hidden = TextField(default="[]")

    class Meta:
        """Name in the database."""

        table_name = "take"


class RemedyRow(Table):
    """A remedy that was taken; what it is as JSON."""

    id = AutoField()
    climb = ForeignKeyField(ClimbRow, null=True)
    student = ForeignKeyField(StudentRow)
    version = ForeignKeyField(VersionRow)
    body = TextField()
    fault = TextField()
    made_at = MomentField()
    clean_at = MomentField(null=True)

    class Meta:
        """Name in the database."""

        table_name = "remedy"


class SetupRow(Table):
    """A set-up: what is heard by which device through which sound, and how late; delays and pads as JSON."""

    id = AutoField()
    source = TextField()
    device = TextField()
    output = TextField()
    place = TextField()
    device_delay = TextField(null=True)
    hand_delay = TextField(null=True)
    pads = TextField(default="{}")

    class Meta:
        """Name in the database."""

        table_name = "setup"


class RecordingRow(Table):
    """A recording that is kept of a take, and until when; the sound itself lies in a file beside the database."""

    take = ForeignKeyField(TakeRow, primary_key=True)
    student = ForeignKeyField(StudentRow)
    zero = FloatField()
    seconds = FloatField()
    bytes = IntegerField()
    made_at = MomentField()
    until = MomentField()

    class Meta:
        """Name in the database."""

        table_name = "recording"


class GivenDayRow(Table):
    """A day of a calendar that was given out: how often it was changed since, whether it is off, what it said."""

    student = ForeignKeyField(StudentRow)
    uid = TextField()
    day = TextField()
    sequence = IntegerField()
    is_cancelled = IntegerField()
    body = TextField()

    class Meta:
        """Name in the database."""

        table_name = "given_day"
        primary_key = CompositeKey("student", "uid")


class MoveRow(Table):
    """A change of rung."""

    id = AutoField()
    climb = ForeignKeyField(ClimbRow, backref="moves")
    take = ForeignKeyField(TakeRow, null=True)
    from_rung = IntegerField()
    to_rung = IntegerField()
    offered = TextField()
    decision = TextField()
    reason = TextField()
    made_at = MomentField()

    class Meta:
        """Name in the database."""

        table_name = "move"


Row = Any


class SheetRow(Table):
    """A hand-out as it was issued, as JSON; the mark says of what it was made."""

    id = AutoField()
    number = IntegerField()
    drill = ForeignKeyField(DrillRow)
    version = IntegerField()
    student = ForeignKeyField(StudentRow, null=True)
    climb = ForeignKeyField(ClimbRow, null=True)
    issued_at = MomentField()
    mark = TextField()
    body = TextField()

    class Meta:
        """Name in the database."""

        table_name = "sheet"
