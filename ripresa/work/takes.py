"""Takes: received, matched, measured, judged and kept; heard by a person; judged again."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import lru_cache

from ripresa.core.changes import Part, overridden, part_named, practised, window_of
from ripresa.core.climbs import laid_rungs, rung_of
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.playing import Window, most_due
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.studio import Climb, Ear, Take, check_lasting, check_moment
from ripresa.core.takes import (
    MOST_MEASURED,
    Figures,
    HeardNote,
    Limits,
    Source,
    StandIn,
    Verdict,
    by_ear,
    due_notes,
    is_by_ear,
    judge,
    play,
    too_long,
)
from ripresa.store import climbs, drills, remedies, students, takes
from ripresa.store.standing import standings

MOST_NOTES = 50_000
LONGEST_TAKE = 7200.0
#: What a take is held to where no climb says it.
USUAL_LIMITS = Limits()
#: Takes of a rung, besides the last one, over which changes are pooled where one is too near to say.
MOST_POOLED = 5


@dataclass(frozen=True, slots=True)
class Played:
    """A take as it was played; times in seconds from the start of the first turn of the loop.

    Args:
        rung: That it was meant for; where it was played is told by its tempo and click.
        part: What was practised of the drill, if not all of it; remedy_id: the remedy that it was a try of.
        latency: Delay of the source in seconds; is_calibrated: whether it was measured; latency_half: ±.
        ear: What a person says of it; a take by ear needs that.
        hidden: Moments of clicks under which a microphone heard nothing, in seconds.

    Raises:
        OutOfRange: It was played in no year that is kept, or lasted longer than a day.
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
    notes: tuple[HeardNote, ...] = ()
    latency: float = 0.0
    is_calibrated: bool = False
    latency_half: float = 0.0
    part: Part | None = None
    remedy_id: int | None = None
    ear: Ear | None = None
    note: str = ""
    hidden: tuple[float, ...] = ()

    def __post_init__(self) -> None:
        check_moment(self.played_at)
        check_lasting(self.start, "start")
        check_lasting(self.end, "end")

    @property
    def known_latency(self) -> tuple[float, float] | None:
        """The delay of its source and the half-width of that, in seconds; None where it was not measured."""
        return (self.latency, self.latency_half) if self.is_calibrated else None


@dataclass(frozen=True, slots=True)
class Kept:
    """A take as it is kept, whether it is new, what it is held to, what it was of, and the climb it belongs to."""

    take: Take
    is_new: bool
    limits: Limits
    reading: Reading
    climb: Climb | None


@dataclass(frozen=True, slots=True)
class Again:
    """A kept take, and what today's rule says of the same notes; None where there is nothing to measure."""

    take: Take
    limits: Limits
    reading: Reading
    figures: Figures | None
    verdict: Verdict | None


def judge_take(played: Played) -> Kept:
    """Measure a take, judge it and keep it; the same id again is the same take, as it was kept.

    Raises:
        NotFound: There is no such student, climb, drill or remedy.
        OutOfRange: It is another student's climb, or times, notes or a mark are out of range.
    """
    climb = _climb_of(played)
    if climb and climb.student.id != played.student_id:
        raise OutOfRange("This climb is another student’s.", field="climb_id")
    students.find_student(played.student_id)
    limits = climb.plan.limits if climb else USUAL_LIMITS
    if played.remedy_id is not None and remedies.find_remedy(played.remedy_id).student_id != played.student_id:
        raise OutOfRange("This remedy is another student’s.", field="remedy_id")
    drill, part, name = source_of(played.drill_id, played.version, played.part, played.remedy_id, climb)
    # The ladder may have changed on its way here, so that its number alone says nothing.
    at_home = climb is not None and played.remedy_id is None
    rung = rung_of(laid_rungs(climb.plan), played.bpm, played.click, played.rung, part) if climb and at_home else None
    played = replace(played, rung=rung, part=part)
    reading, window = asked(drill, part)
    figures, judged = _measured(played, limits, reading, window, _earlier(climb, rung, played.click))
    count = figures.matched if figures else _notes_due(played, reading, window)
    take, is_new = takes.add_take(replace(_kept(played, figures, judged, name), played_notes=count))
    if played.remedy_id is not None and take.mark == "clean":
        remedies.remedy_is_clean(played.remedy_id, played.played_at)
    return Kept(take, is_new, limits, reading, climb)


def _notes_due(played: Played, reading: Reading, window: Window | None) -> int:
    """Return how many notes were played of a take that was not measured: those heard, by ear those due in its time."""
    if played.source != "by_ear":
        return len(played.notes)
    turn = window.beats if window else reading.loop_beats
    seconds = float(span_seconds(turn, played.bpm))
    turns, left = divmod(played.end - played.start, seconds)
    whole = len(due_notes(reading, played.bpm, 0.0, seconds, window))
    return int(turns) * whole + len(due_notes(reading, played.bpm, 0.0, left, window))


def hear_take(take_id: str, ear: Ear) -> Kept:
    """Keep what a person says of a take: it counts, and what the machine said stays beside it.

    Raises:
        NotFound: There is no such take.
    """
    found = takes.find_take(take_id)
    said = (by_ear(ear.mark, ear.by), *(reason for reason in found.reasons if not is_by_ear(reason)))
    kept = takes.hear(take_id, ear, said)
    if kept.remedy_id is not None and ear.mark == "clean":
        remedies.remedy_is_clean(kept.remedy_id, kept.played_at)
    return shown_take(take_id)


def shown_take(take_id: str) -> Kept:
    """Return a kept take with what it was of and what it is held to.

    Raises:
        NotFound: There is none of this id.
    """
    take = takes.find_take(take_id)
    climb = _climb_of(take)
    drill, part, _ = source_of(take.drill_id, take.version, take.part, take.remedy_id, climb)
    reading, _ = asked(drill, part)
    return Kept(take, False, climb.plan.limits if climb else USUAL_LIMITS, reading, climb)


def judge_again(take_id: str) -> Again:
    """Return a kept take beside what today's rule says of its notes; what was said then stays in the log.

    Raises:
        NotFound: There is none of this id.
    """
    shown = shown_take(take_id)
    take = shown.take
    if not take.notes:
        return Again(take, shown.limits, shown.reading, None, None)
    played = _as_played(take)
    climb = _climb_of(take)
    drill, part, _ = source_of(take.drill_id, take.version, take.part, take.remedy_id, climb)
    reading, window = asked(drill, part)
    figures, judged = _measured(played, shown.limits, reading, window, ())
    return Again(take, shown.limits, reading, figures, judged)


def stand_in_plays(
    drill: Drill,
    bpm: Fraction,
    start: float,
    end: float | None,
    player: StandIn,
    part: Part | None = None,
) -> tuple[Sequence[HeardNote], float]:
    """Return what the stand-in player plays between two moments, in seconds, and the second of them.

    Args:
        end: None is the end of the first turn. part: Of the drill, if not all of it.

    Raises:
        OutOfRange: A tempo or times out of range, or more notes than are measured at once.
    """
    reading, window = asked(drill, part)
    bpm = check_bpm(bpm)
    until = float(span_seconds(window.beats if window else reading.loop_beats, bpm)) if end is None else end
    _check_times(start, until)
    if most_due(reading, bpm, until - start, window) > MOST_MEASURED:
        raise OutOfRange(f"The stand-in plays up to {MOST_MEASURED:,} notes. Take fewer passes.", field="end")
    return play(player, due_notes(reading, bpm, start, until, window)).notes, until


def turn_seconds(reading: Reading, bpm: Fraction) -> float:
    """Return how long one turn of a reading lasts."""
    return float(span_seconds(reading.loop_beats, bpm))


def _climb_of(take: Played | Take) -> Climb | None:
    return None if take.climb_id is None else climbs.find_climb(take.climb_id)


def source_of(
    drill_id: int, version: int, part: Part | None, remedy_id: int | None, climb: Climb | None
) -> tuple[Drill, Part | None, str]:
    """Return the drill that a take is of, the part of it, and what that is called: empty for all of the drill.

    A remedy brings its own drill and part; on a climb what the student plays otherwise is laid over the drill.
    """
    if remedy_id is not None:
        kept = remedies.find_remedy(remedy_id).remedy
        own = None if kept.part.is_all else kept.part
        return kept.drill, own, part_named(_read(kept.drill), kept.part) or kept.name
    drill = drills.find_drill(drill_id, version).drill
    if climb is not None and climb.drill.id == drill_id:
        drill = overridden(drill, climb.overrides)
    if part is None or part.is_all:
        return drill, None, ""
    return drill, part, part_named(_read(drill), part)


def asked(drill: Drill, part: Part | None) -> tuple[Reading, Window | None]:
    """Return the reading of a drill, or of a part of it, and what goes round of that."""
    if part is None:
        return _read(drill), None
    reading = _read(practised(drill, part))
    return reading, window_of(reading, part)


@lru_cache(maxsize=32)
def _read(drill: Drill) -> Reading:
    """Return the reading of a drill; takes of the same drill come one after the other."""
    return read(drill)


def _earlier(climb: Climb | None, rung: int | None, click: Click) -> Sequence[Figures]:
    """Return the figures of earlier takes of a rung, since it was reached."""
    if climb is None or rung is None or rung != climb.rung:
        return ()
    reached = standings([climb])[climb.id].reached_at
    return takes.earlier_figures(climb.id, rung, click, reached, MOST_POOLED)


def _measured(
    played: Played, limits: Limits, reading: Reading, window: Window | None, earlier: Sequence[Figures]
) -> tuple[Figures | None, Verdict]:
    bpm = check_bpm(played.bpm)
    _check_times(played.start, played.end)
    if len(played.notes) > MOST_NOTES:
        raise OutOfRange(f"A take holds up to {MOST_NOTES} notes.", field="notes")
    if played.source == "by_ear":
        if played.ear is None:
            raise OutOfRange("A take by ear needs a mark: clean or shaky.", field="ear")
        return None, Verdict(played.ear.mark, (by_ear(played.ear.mark, played.ear.by),))
    most = max(most_due(reading, bpm, played.end - played.start, window), len(played.notes))
    if most > MOST_MEASURED:
        return None, too_long(most)
    due = due_notes(reading, bpm, played.start, played.end, window)
    found = judge(due, played.notes, limits, played.source, played.known_latency, earlier, played.hidden)
    return found.figures, found.verdict


def _as_played(take: Take) -> Played:
    return Played(
        id=take.id,
        student_id=take.student_id,
        climb_id=take.climb_id,
        rung=take.rung,
        drill_id=take.drill_id,
        version=take.version,
        bpm=take.bpm,
        click=take.click_plan or drills.find_drill(take.drill_id, take.version).drill.click,
        source="taps" if take.source == "by_ear" else take.source,
        played_at=take.played_at,
        start=take.start,
        end=take.end,
        notes=take.notes,
        latency=take.latency,
        is_calibrated=take.is_calibrated,
        latency_half=take.latency_half,
        part=take.part,
        hidden=take.hidden,
    )


def _kept(played: Played, figures: Figures | None, judged: Verdict, part_name: str) -> Take:
    is_ear = played.source == "by_ear"
    spoken = () if is_ear or played.ear is None else (by_ear(played.ear.mark, played.ear.by),)
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
        latency_half=played.latency_half,
        notes=played.notes,
        figures=figures,
        mark=played.ear.mark if played.ear else judged.mark,
        reasons=(*spoken, *judged.reasons),
        note=played.note.strip(),
        part=played.part,
        part_name=part_name,
        faults=judged.faults,
        offers=judged.offers,
        refused=judged.refused,
        machine=None if is_ear else judged.mark,
        ear=played.ear,
        remedy_id=played.remedy_id,
        hidden=played.hidden,
    )


def _check_times(start: float, end: float) -> None:
    if not 0 <= start < end <= LONGEST_TAKE:
        raise OutOfRange("A take ends after it starts, and lasts two hours at most.", field="end")
