"""Migrations: the shape of the database, step by step; ``PRAGMA user_version`` says how far it has come.

Each step is a list of statements, run in one transaction. Steps that have
shipped are never edited: a change is a new step at the end.
"""

from peewee import SqliteDatabase

from ripresa.core.errors import Conflict
from ripresa.store.old_figures import figures_of_old

#: What lists and the CSV show of a take’s figures: column → where it stands in them.
_SUMMARY = {
    "due INTEGER": "$.due",
    "matched INTEGER": "$.matched",
    "missed INTEGER": "$.missed",
    "extra INTEGER": "$.extra",
    "bias REAL": "$.bias.value",
    "bias_half REAL": "$.bias.half_width",
    "bias_count INTEGER": "$.bias.count",
    "spread REAL": "$.spread.value",
    "drift_percent REAL": "$.drift_percent.value",
    "drift_bpm REAL": "$.drift_bpm_a_minute.value",
}

_STEPS: tuple[tuple[str, ...], ...] = (
    (
        """CREATE TABLE student (
            id INTEGER PRIMARY KEY, name TEXT NOT NULL, instrument TEXT NOT NULL,
            lesson_weekday INTEGER, lesson_time TEXT NOT NULL, created_at TEXT NOT NULL)""",
        "CREATE TABLE drill (id INTEGER PRIMARY KEY, created_at TEXT NOT NULL)",
        """CREATE TABLE drill_version (
            id INTEGER PRIMARY KEY, drill_id INTEGER NOT NULL REFERENCES drill(id),
            number INTEGER NOT NULL, body TEXT NOT NULL, saved_at TEXT NOT NULL,
            UNIQUE (drill_id, number))""",
        """CREATE TABLE climb (
            id INTEGER PRIMARY KEY, student_id INTEGER NOT NULL REFERENCES student(id),
            version_id INTEGER NOT NULL REFERENCES drill_version(id),
            plan TEXT NOT NULL, rung INTEGER NOT NULL, started_at TEXT NOT NULL)""",
        "CREATE INDEX climb_student ON climb(student_id)",
        """CREATE TABLE take (
            id TEXT PRIMARY KEY, student_id INTEGER NOT NULL REFERENCES student(id),
            climb_id INTEGER REFERENCES climb(id), rung INTEGER,
            version_id INTEGER NOT NULL REFERENCES drill_version(id),
            bpm TEXT NOT NULL, click TEXT NOT NULL, source TEXT NOT NULL, played_at TEXT NOT NULL,
            start_seconds REAL NOT NULL, end_seconds REAL NOT NULL,
            latency REAL NOT NULL, is_calibrated INTEGER NOT NULL,
            onsets TEXT NOT NULL, figures TEXT, mark TEXT NOT NULL, reasons TEXT NOT NULL, note TEXT NOT NULL)""",
        "CREATE INDEX take_student ON take(student_id, played_at)",
        "CREATE INDEX take_climb ON take(climb_id, played_at)",
        """CREATE TABLE move (
            id INTEGER PRIMARY KEY, climb_id INTEGER NOT NULL REFERENCES climb(id),
            take_id TEXT REFERENCES take(id), from_rung INTEGER NOT NULL, to_rung INTEGER NOT NULL,
            offered TEXT NOT NULL, decision TEXT NOT NULL, reason TEXT NOT NULL, made_at TEXT NOT NULL)""",
        "CREATE INDEX move_climb ON move(climb_id, made_at)",
    ),
    ("ALTER TABLE drill ADD COLUMN archived_at TEXT",),
    ("ALTER TABLE student ADD COLUMN clicks TEXT NOT NULL DEFAULT '[]'",),
    (
        "CREATE TABLE studio (id TEXT NOT NULL)",
        "INSERT INTO studio VALUES (lower(hex(randomblob(8))))",
        "CREATE TABLE made (key TEXT PRIMARY KEY, kind TEXT NOT NULL, made_id INTEGER NOT NULL)",
        "ALTER TABLE student ADD COLUMN revision INTEGER NOT NULL DEFAULT 1",
        "ALTER TABLE climb ADD COLUMN revision INTEGER NOT NULL DEFAULT 1",
        "ALTER TABLE drill_version ADD COLUMN writer TEXT NOT NULL DEFAULT ''",
        "ALTER TABLE take ADD COLUMN click_plan TEXT",
        *(f"ALTER TABLE take ADD COLUMN {column}" for column in _SUMMARY),
        f"""UPDATE take SET {
            ", ".join(f"{name.split()[0]} = json_extract(figures, '{path}')" for name, path in _SUMMARY.items())
        }
            WHERE figures IS NOT NULL AND json_valid(figures)""",
        "CREATE INDEX take_played ON take(played_at)",
        "CREATE INDEX take_rung ON take(climb_id, rung, played_at, id, mark)",
        "CREATE INDEX move_turns ON move(climb_id, made_at, from_rung, to_rung)",
    ),
    (
        "ALTER TABLE take RENAME COLUMN onsets TO notes",
        """UPDATE take SET notes = (SELECT json_group_array(json_object('at', value)) FROM json_each(notes))
            WHERE json_valid(notes)""",
        "UPDATE take SET figures = figures_of_old(figures, is_calibrated) WHERE figures IS NOT NULL",
        "UPDATE take SET mark = 'none' WHERE mark = 'unclear'",
        "ALTER TABLE take ADD COLUMN latency_half REAL NOT NULL DEFAULT 0",
        "ALTER TABLE take ADD COLUMN part TEXT",
        "ALTER TABLE take ADD COLUMN part_name TEXT NOT NULL DEFAULT ''",
        "ALTER TABLE take ADD COLUMN faults TEXT NOT NULL DEFAULT '[]'",
        "ALTER TABLE take ADD COLUMN offers TEXT NOT NULL DEFAULT '[]'",
        "ALTER TABLE take ADD COLUMN refused TEXT NOT NULL DEFAULT ''",
        "ALTER TABLE take ADD COLUMN machine TEXT",
        "ALTER TABLE take ADD COLUMN ear TEXT",
        "ALTER TABLE take ADD COLUMN ear_by TEXT",
        "ALTER TABLE take ADD COLUMN ease INTEGER",
        "ALTER TABLE take ADD COLUMN remedy INTEGER",
        "UPDATE take SET machine = mark WHERE source <> 'by_ear'",
        """UPDATE take SET ear_by = CASE WHEN reasons LIKE '%by the student%' THEN 'student' ELSE 'teacher' END
            WHERE source = 'by_ear' AND mark IN ('clean', 'shaky')""",
        """UPDATE take SET ear = json_object('mark', mark, 'by', ear_by) WHERE ear_by IS NOT NULL""",
        """CREATE TABLE remedy (
            id INTEGER PRIMARY KEY, climb_id INTEGER REFERENCES climb(id),
            student_id INTEGER NOT NULL REFERENCES student(id),
            version_id INTEGER NOT NULL REFERENCES drill_version(id),
            body TEXT NOT NULL, fault TEXT NOT NULL, made_at TEXT NOT NULL, clean_at TEXT)""",
        "CREATE INDEX remedy_climb ON remedy(climb_id, made_at)",
        "CREATE INDEX take_part ON take(student_id, part_name, mark, played_at)",
    ),
    (
        "ALTER TABLE student ADD COLUMN profile TEXT NOT NULL DEFAULT '{}'",
        "ALTER TABLE student ADD COLUMN plan TEXT",
        "ALTER TABLE student ADD COLUMN put_away_at TEXT",
        """CREATE TABLE student_group (
            id INTEGER PRIMARY KEY, body TEXT NOT NULL,
            revision INTEGER NOT NULL DEFAULT 1, created_at TEXT NOT NULL)""",
        "CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL, revision INTEGER NOT NULL DEFAULT 1)",
        "ALTER TABLE climb ADD COLUMN overrides TEXT NOT NULL DEFAULT '{}'",
        "ALTER TABLE climb ADD COLUMN set_key TEXT NOT NULL DEFAULT ''",
        "ALTER TABLE climb ADD COLUMN set_place INTEGER NOT NULL DEFAULT 0",
        "ALTER TABLE take ADD COLUMN played_notes INTEGER",
        "UPDATE take SET played_notes = due",
        # What the page of a student adds up, without a look at the takes themselves.
        "CREATE INDEX take_load ON take(student_id, played_at, end_seconds, start_seconds, played_notes, mark)",
    ),
    (
        """CREATE TABLE sheet (
            id INTEGER PRIMARY KEY, number INTEGER NOT NULL, drill_id INTEGER NOT NULL REFERENCES drill(id),
            version INTEGER NOT NULL, student_id INTEGER REFERENCES student(id),
            climb_id INTEGER REFERENCES climb(id), issued_at TEXT NOT NULL, mark TEXT NOT NULL, body TEXT NOT NULL)""",
        "CREATE INDEX sheet_of ON sheet(drill_id, student_id, number)",
    ),
    (
        "ALTER TABLE take ADD COLUMN hidden TEXT NOT NULL DEFAULT '[]'",
        """CREATE TABLE setup (
            id INTEGER PRIMARY KEY, source TEXT NOT NULL, device TEXT NOT NULL, output TEXT NOT NULL,
            place TEXT NOT NULL, device_delay TEXT, hand_delay TEXT, pads TEXT NOT NULL DEFAULT '{}',
            UNIQUE (source, device, output, place))""",
        """CREATE TABLE recording (
            take_id TEXT PRIMARY KEY REFERENCES take(id) ON DELETE CASCADE,
            student_id INTEGER NOT NULL REFERENCES student(id) ON DELETE CASCADE,
            zero REAL NOT NULL, seconds REAL NOT NULL, bytes INTEGER NOT NULL,
            made_at TEXT NOT NULL, until TEXT NOT NULL)""",
        "CREATE INDEX recording_until ON recording(until)",
    ),
    (
        # What refers to another row, where it is asked for by it or the other one is deleted.
        "CREATE INDEX climb_version ON climb(version_id)",
        "CREATE INDEX climb_set ON climb(set_key)",
        "CREATE INDEX take_version ON take(version_id)",
        "CREATE INDEX move_take ON move(take_id)",
        "CREATE INDEX remedy_student ON remedy(student_id)",
        "CREATE INDEX recording_student ON recording(student_id)",
        "CREATE INDEX sheet_climb ON sheet(climb_id)",
    ),
    (
        """CREATE TABLE given_day (
            student_id INTEGER NOT NULL REFERENCES student(id) ON DELETE CASCADE, uid TEXT NOT NULL,
            day TEXT NOT NULL, sequence INTEGER NOT NULL, is_cancelled INTEGER NOT NULL, body TEXT NOT NULL,
            PRIMARY KEY (student_id, uid))""",
    ),
    (
        # Notes played are those that were met: those due in every turn that was begun were up to twice as many.
        "UPDATE take SET played_notes = matched WHERE matched IS NOT NULL",
    ),
)

CURRENT = len(_STEPS)


def migrate(database: SqliteDatabase) -> None:
    """Bring a database to the current shape.

    Raises:
        Conflict: It was written by a newer Ripresa.
    """
    version = version_of(database)
    if version > CURRENT:
        raise Conflict(
            f"This data was kept by a newer Ripresa (version {version} of the tables; this one knows {CURRENT}). "
            "Start the newer one, or use another data folder."
        )
    database.register_function(figures_of_old, "figures_of_old", 2, deterministic=True)
    for number, statements in enumerate(_STEPS[version:], start=version + 1):
        with database.atomic():
            for statement in statements:
                database.execute_sql(statement)
            database.execute_sql(f"PRAGMA user_version = {number}")


def version_of(database: SqliteDatabase) -> int:
    """Return how many steps a database has taken."""
    return int(database.execute_sql("PRAGMA user_version").fetchone()[0])
