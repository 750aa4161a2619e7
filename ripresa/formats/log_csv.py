"""The log as CSV: a line for each take, UTF-8 and marked as that, decimals with a point, times in ISO 8601."""

import csv
from collections.abc import Callable, Iterable, Iterator

from ripresa.core.drill import Drill
from ripresa.core.drill.click import click_words
from ripresa.core.exact import decimal
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import speed_nps
from ripresa.core.studio import TakeLine

COLUMNS = (
    *("played_at", "student", "drill", "version", "bpm", "notes_a_second", "click", "source", "seconds"),
    *("rung", "mark", "due", "matched", "missed", "extra", "bias_ms", "spread_ms"),
    *("drift_percent", "drift_bpm_a_minute", "reasons", "note"),
)


class _Line:
    """What the writer writes to: it holds the line that was written last."""

    text = ""

    def write(self, text: str) -> None:
        self.text = text


def write_log(
    takes: Iterable[TakeLine], student: Callable[[int], str], drill_of: Callable[[int, int], Drill | None]
) -> Iterator[str]:
    """Yield the lines of the log of some takes.

    Args:
        student: Gives the name of a student. drill_of: Gives a version of a drill; None where it cannot be read.
    """
    line = _Line()
    writer = csv.writer(line)
    writer.writerow(COLUMNS)
    # Without the mark a spreadsheet takes UTF-8 for the writing of its own country.
    yield "\ufeff" + line.text
    for take in takes:
        drill = drill_of(take.drill_id, take.version)
        writer.writerow(
            (
                take.played_at.isoformat(),
                _safe(student(take.student_id)),
                _safe(drill.title) if drill else "",
                take.version,
                decimal(take.bpm, 2),
                decimal(speed_nps(take.bpm, peak_of_drill(drill)), 2) if drill else "",
                click_words(take.click),
                take.source,
                f"{take.seconds:.2f}",
                take.rung or "",
                take.mark,
                *("" if count is None else count for count in (take.due, take.matched, take.missed, take.extra)),
                _ms(take.bias),
                _ms(take.spread),
                _plain(take.drift_percent),
                _plain(take.drift_bpm),
                _safe(" ".join(take.reasons)),
                _safe(take.note),
            )
        )
        yield line.text


def _safe(text: str) -> str:
    # A spreadsheet would run a cell that begins like a formula.
    return "'" + text if text[:1] in {"=", "+", "-", "@", "\t", "\r"} else text


def _ms(seconds: float | None) -> str:
    return "" if seconds is None else f"{seconds * 1000:.2f}"


def _plain(value: float | None) -> str:
    return "" if value is None else f"{value:.3f}"
