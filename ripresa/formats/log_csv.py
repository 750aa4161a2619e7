"""The log as CSV: one line for each take, UTF-8, decimals with a point, times in ISO 8601."""

import csv
import io
from collections.abc import Mapping, Sequence

from ripresa.core.click import click_words
from ripresa.core.drill import Drill
from ripresa.core.exact import decimal
from ripresa.core.studio import Take
from ripresa.core.takes import Interval
from ripresa.core.tempo import speed_nps

COLUMNS = (
    *("played_at", "student", "drill", "version", "bpm", "notes_a_second", "click", "source", "seconds"),
    *("rung", "mark", "due", "matched", "missed", "extra", "bias_ms", "spread_ms"),
    *("drift_percent", "drift_bpm_a_minute", "reasons", "note"),
)


def write_log(takes: Sequence[Take], students: Mapping[int, str], drills: Mapping[tuple[int, int], Drill]) -> str:
    """Return the log of some takes.

    Args:
        students: Names by id. drills: By (id, version).
    """
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow(COLUMNS)
    for take in takes:
        drill = drills[take.drill_id, take.version]
        figures = take.figures
        counts = (figures.due, figures.matched, figures.missed, figures.extra) if figures else ("", "", "", "")
        writer.writerow(
            (
                take.played_at.isoformat(),
                _safe(students[take.student_id]),
                _safe(drill.title),
                take.version,
                decimal(take.bpm, 2),
                decimal(speed_nps(take.bpm, drill.fastest_division), 2),
                click_words(take.click),
                take.source,
                f"{take.end - take.start:.2f}",
                take.rung or "",
                take.mark,
                *counts,
                _ms(figures.bias if figures else None),
                _ms(figures.spread if figures else None),
                _plain(figures.drift_percent if figures else None),
                _plain(figures.drift_bpm_a_minute if figures else None),
                _safe(" ".join(take.reasons)),
                _safe(take.note),
            )
        )
    return target.getvalue()


def _safe(text: str) -> str:
    # A spreadsheet would run a cell that begins like a formula.
    return "'" + text if text[:1] in {"=", "+", "-", "@", "\t", "\r"} else text


def _ms(interval: Interval | None) -> str:
    return f"{interval.value * 1000:.2f}" if interval else ""


def _plain(interval: Interval | None) -> str:
    return f"{interval.value:.3f}" if interval else ""
