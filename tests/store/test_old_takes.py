"""Takes that were kept before notes, figures and marks became what they are: they stay readable."""

import json
import sqlite3
from pathlib import Path

from ripresa.store import migrations, takes
from tests.conftest import opened

OLD_FIGURES = {
    "due": 40,
    "matched": 39,
    "missed": 1,
    "extra": 0,
    "gap_seconds": 0.18,
    "bias": {"value": 0.012, "half_width": 0.004, "count": 39},
    "spread": {"value": 0.009, "half_width": 0.002, "count": 39},
    "drift_percent": None,
    "drift_bpm_a_minute": {"value": -0.4, "half_width": 0.2, "count": 39},
    "legs": [
        {
            "division": "4",
            "slots": [
                {
                    "slot": 0,
                    "count": "1",
                    "bias": {"value": 0.002, "half_width": 0.003, "count": 10},
                    "share": 0.25,
                    "dots": [0.001, -0.002],
                }
            ],
        }
    ],
    "seams": [{"before": "3", "after": "4", "offset": {"value": 0.02, "half_width": 0.01, "count": 8}, "changes": 2}],
    "line": [[0.0, 0.001], [0.2, -0.002]],
}


def old_studio(path: Path, onsets: str) -> None:
    """Make a studio as the version before wrote it, with a take of each mark."""
    with sqlite3.connect(path) as old:
        for statements in migrations._STEPS[:4]:
            for statement in statements:
                old.execute(statement)
        old.execute("PRAGMA user_version = 4")
        old.execute("INSERT INTO student VALUES (1, 'Runa', 'guitar', NULL, '', '2026-01-01', '[]', 1)")
        old.execute("INSERT INTO drill VALUES (1, '2026-01-01', NULL)")
        body = json.dumps({"title": "Kelp"})
        old.execute(f"INSERT INTO drill_version VALUES (1, 1, 1, '{body}', '2026-01-01T00:00:00+00:00', '')")
        for number, (mark, source, figures) in enumerate(
            [
                ("clean", "taps", json.dumps(OLD_FIGURES)),
                ("unclear", "taps", json.dumps(OLD_FIGURES)),
                ("shaky", "by_ear", None),
            ]
        ):
            old.execute(
                "INSERT INTO take (id, student_id, version_id, bpm, click, source, played_at, start_seconds,"
                " end_seconds, latency, is_calibrated, onsets, figures, mark, reasons, note)"
                " VALUES (?, 1, 1, '84', 'every beat', ?, ?, 0, 8, 0.03, 1, ?, ?, ?, ?, '')",
                (
                    f"old-take-{number}",
                    source,
                    f"2026-02-0{number + 1}T10:00:00+00:00",
                    onsets,
                    figures,
                    mark,
                    json.dumps(["Marked shaky by ear, by the student."] if source == "by_ear" else ["Spread 9 ms."]),
                ),
            )


def test_takes_of_old_are_read_with_their_notes_figures_and_marks(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite3"
    old_studio(path, "[0.01, 0.2]")
    with opened(path):
        clean, none, ear = (takes.find_take(f"old-take-{number}") for number in range(3))
        assert [note.at for note in clean.notes] == [0.01, 0.2]
        assert (clean.mark, clean.machine, none.mark, ear.mark, ear.machine) == (
            "clean",
            "clean",
            "none",
            "shaky",
            None,
        )
        assert ear.ear is not None
        assert ear.ear.by == "student"
        figures = clean.figures
        assert figures is not None
        assert figures.bias == figures.with_click
        assert figures.bias is not None
        assert figures.bias.value == 0.012
        assert figures.bend is not None
        assert figures.bend.value == -0.4
        assert figures.legs[0].slots[0].dots[1].offset == -0.002
        assert figures.seams[0].name == "3 → 4"
        assert [line.mark for line in takes.every_take()] == ["clean", "none", "shaky"]


def test_a_take_of_old_that_is_damaged_stops_nothing(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite3"
    old_studio(path, "[0.01, ")
    with opened(path):
        assert len(list(takes.every_take())) == 3
