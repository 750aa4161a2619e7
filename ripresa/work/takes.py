"""Takes: received, matched, measured, judged and kept."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from fractions import Fraction
from itertools import pairwise
from typing import Literal

from ripresa.core.climbs import laid_rungs, rung_of
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import expected_onsets, most_due, onsets_within
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.studio import Climb, Take
from ripresa.core.takes import (
    MOST_MEASURED,
    Evenness,
    Figures,
    Source,
    StandIn,
    Verdict,
    by_ear,
    match_onsets,
    measure,
    play,
    too_long,
    verdict,
)
from ripresa.store import climbs, drills, students, takes

MOST_ONSETS = 50_000
LONGEST_TAKE = 7200.0
#: The school of evenness where no climb says one.
USUAL_EVENNESS: Evenness = "working"


@dataclass(frozen=True, slots=True)
class Played:
    """A take as it was played; times in seconds from the start of the first turn of the loop.

    Args:
        rung: That it was meant for; where it was played is told by its tempo and click.
        latency: Delay of the source in seconds; is_calibrated: whether it was measured.
        ear, by: With the source ``by_ear``: how it was, and who says so.
    """

    id: str
    student_id: int
    climb_id: int | None
    rung: int | None
    drill_id: int
    version: int
    bpm: Fraction
    click: Click
    source: Source
    played_at: datetime
    start: float
    end: float
    onsets: tuple[float, ...] = ()
    latency: float = 0.0
    is_calibrated: bool = False
    ear: Literal["clean", "shaky"] | None = None
    by: Literal["teacher", "student"] = "teacher"
    note: str = ""


@dataclass(frozen=True, slots=True)
class Judged:
    """A take as it is kept, whether it is new, the school it was judged by, and the climb it belongs to."""

    take: Take
    is_new: bool
    evenness: Evenness
    climb: Climb | None


def judge_take(played: Played) -> Judged:
    """Measure a take, judge it and keep it; the same id again is the same take, as it was kept.

    Raises:
        NotFound: There is no such student, climb or drill.
        OutOfRange: It is another student's climb, or times, onsets or a mark are out of range.
    """
    climb = climbs.find_climb(played.climb_id) if played.climb_id is not None else None
    if climb and climb.student.id != played.student_id:
        raise OutOfRange("This climb is another student’s.", field="climb_id")
    students.find_student(played.student_id)
    evenness = climb.plan.evenness if climb else USUAL_EVENNESS
    # The ladder may have changed on its way here, so that its number alone says nothing.
    rung = rung_of(laid_rungs(climb.plan), played.bpm, played.click, played.rung) if climb else None
    figures, judged = _measured(played, evenness)
    take, is_new = takes.add_take(_kept(replace(played, rung=rung), figures, judged))
    return Judged(take, is_new, evenness, climb)


def stand_in_plays(
    drill: Drill, bpm: Fraction, start: float, end: float | None, player: StandIn
) -> tuple[Sequence[float], float]:
    """Return the onsets that the stand-in player plays between two moments, in seconds, and the second of them.

    Args:
        end: None is the end of the first turn.

    Raises:
        OutOfRange: A tempo or times out of range, or more notes than are measured at once.
    """
    reading, bpm = read(drill), check_bpm(bpm)
    until = turn_seconds(reading, bpm) if end is None else end
    _check_times(start, until)
    if most_due(reading, bpm, until - start) > MOST_MEASURED:
        raise OutOfRange(f"The stand-in plays up to {MOST_MEASURED:,} notes. Take fewer passes.", field="end")
    due = [at for at, _ in expected_onsets(reading, bpm, start, until)]
    changes = [at for at in gear_changes(reading, bpm, until) if start <= at]
    return play(player, due, changes), until


def turn_seconds(reading: Reading, bpm: Fraction) -> float:
    """Return how long one turn of a reading lasts."""
    return float(span_seconds(reading.loop_beats, bpm))


def gear_changes(reading: Reading, bpm: Fraction, end: float) -> list[float]:
    """Return when the division changes, in seconds, over all turns up to the end."""
    starts = [after.start for before, after in pairwise(reading.legs) if before.leaves != after.enters]
    turns = int(end / turn_seconds(reading, bpm)) + 1
    return [
        float(span_seconds(number * reading.loop_beats + start, bpm)) for number in range(turns) for start in starts
    ]


def _measured(played: Played, evenness: Evenness) -> tuple[Figures | None, Verdict]:
    bpm = check_bpm(played.bpm)
    _check_times(played.start, played.end)
    if len(played.onsets) > MOST_ONSETS:
        raise OutOfRange(f"A take holds up to {MOST_ONSETS} onsets.", field="onsets")
    if played.source == "by_ear":
        if played.ear is None:
            raise OutOfRange("A take by ear needs a mark: clean or shaky.", field="ear")
        return None, by_ear(played.ear, played.by)
    reading = read(drills.find_drill(played.drill_id, played.version).drill)
    most = max(most_due(reading, bpm, played.end - played.start), len(played.onsets))
    if most > MOST_MEASURED:
        return None, too_long(most)
    due = expected_onsets(reading, bpm, played.start, played.end)
    heard = onsets_within(sorted(played.onsets), due, played.end, played.latency)
    match = match_onsets([at for at, _ in due], heard, played.latency)
    figures = measure(reading, bpm, due, heard, match, played.latency)
    return figures, verdict(figures, evenness, played.source)


def _kept(played: Played, figures: Figures | None, judged: Verdict) -> Take:
    return Take(
        id=played.id,
        student_id=played.student_id,
        climb_id=played.climb_id,
        rung=played.rung,
        drill_id=played.drill_id,
        version=played.version,
        bpm=played.bpm,
        click=played.click.words,
        click_plan=played.click,
        source=played.source,
        played_at=played.played_at,
        start=played.start,
        end=played.end,
        latency=played.latency,
        is_calibrated=played.is_calibrated,
        onsets=played.onsets,
        figures=figures,
        mark=judged.mark,
        reasons=judged.reasons,
        note=played.note.strip(),
    )


def _check_times(start: float, end: float) -> None:
    if not 0 <= start < end <= LONGEST_TAKE:
        raise OutOfRange("A take ends after it starts, and lasts two hours at most.", field="end")
