"""Recordings: what is heard in one, one that becomes a take, and a take played back beside the click and the ideal."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime
from functools import partial
from math import ceil

import numpy as np

from ripresa.core.changes import Part
from ripresa.core.drill import Drill
from ripresa.core.errors import NotFound, OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.listening import As, Listened, Sound, listen
from ripresa.core.playing import Before, score
from ripresa.core.reading import Reading
from ripresa.core.rhythm import check_bpm
from ripresa.core.studio import Take
from ripresa.core.takes import BY_SOUND, HeardNote, judge_file, shortest_gap, usual_sound
from ripresa.formats.play_along import Heard, Rung, rung_sound
from ripresa.formats.recording import LONGEST_SECONDS, played, write_flac
from ripresa.formats.sound_in import read_sound
from ripresa.formats.sounds import RATE, Samples
from ripresa.store import climbs, recordings, students
from ripresa.store import takes as store
from ripresa.work.takes import USUAL_LIMITS, Kept, Played, asked, judge_take, source_of

#: A take of a file that was refused for one of these may still be it, and is kept without a verdict.
_STILL_ONE = ("", "resolution", "shift")
#: What is played, beside what was due, as loud as it: peaks.
_TAKE_PEAK, _BESIDE = 0.5, 0.6


def heard_recording(
    sound: Sound,
    drill: Drill,
    bpm: Fraction,
    part: Part | None,
    clicks: Sequence[float] = (),
    alone: int = 0,
    latency: float | None = None,
    sounds_as: As | None = None,
) -> Listened:
    """Return what is heard in a recording of a drill.

    Args:
        clicks: That may leak into it, in seconds of the recording. alone: How many of them come before the first note.
        sounds_as: How its notes begin; None as is usual for the instrument.
    """
    reading, window = asked(drill, part)
    gap = shortest_gap(reading, check_bpm(bpm), window)
    return listen(sound, sounds_as or usual_sound(reading), gap, clicks, alone, latency)


def take_of_file(file: Played, notes: Sequence[HeardNote]) -> tuple[Kept, float]:
    """Judge and keep the take that is found in a file, and return it with where it begins there, in seconds.

    Args:
        file: What it is to be a take of; how far it goes, and under which click, is found.
        notes: Of the file, in seconds from its start.

    Raises:
        NotFound: There is no such student, climb or drill.
        OutOfRange: It is no take of this drill, or of another tempo; the sentence says why. Nothing is kept then.
    """
    climb = climbs.find_climb(file.climb_id) if file.climb_id is not None else None
    drill, part, _ = source_of(file.drill_id, file.version, file.part, None, climb)
    reading, window = asked(drill, part)
    limits = climb.plan.limits if climb else USUAL_LIMITS
    found = judge_file(reading, check_bpm(file.bpm), notes, limits, file.source, window)
    verdict = found.judged.verdict
    if verdict.refused not in _STILL_ONE:
        raise OutOfRange(verdict.reasons[0], field="file")
    begun = found.begun
    kept = judge_take(replace(file, click=drill.click, start=0.0, end=begun.end, notes=begun.notes, part=part))
    return kept, begun.at


def keep_sound(take: Take, read: Callable[[], Sound], zero: float, now: datetime) -> bool:
    """Keep a recording of a take where the student's recordings are kept, and return whether one is kept.

    Asked again for the same take it is kept only if it is not yet: after a full disk the next try keeps it.

    Args:
        read: Gives the recording; it is asked for only where it is kept.

    Raises:
        Unkept: There is no room for it. The take itself is kept already.
    """
    days = students.find_student(take.student_id).details.kept_days
    if not days or recordings.is_kept(take.id):
        return days > 0
    sound = read()
    try:
        recordings.keep_recording(take.id, take.student_id, zero, sound.seconds, now, days, partial(write_flac, sound))
    except NotFound:
        # The take was deleted while its sound was written.
        return False
    return True


def kept_sound(take_id: str) -> tuple[Sound, float] | None:
    """Return the kept recording of a take and where its first beat lies in it; None where there is none."""
    try:
        kept = recordings.find_recording(take_id)
        return read_sound(kept.file), kept.zero
    except NotFound:
        return None


def played_back(take_id: str, sound: tuple[Sound, float] | None, heard: Heard, *, own: bool) -> Samples:
    """Return a take as it was played beside the click and the ideal, as samples from −1 to 1, 44,100 a second.

    What was late by the devices is moved back, so that what one hears is what was played.

    Args:
        sound: Its recording and where its first beat lies in it; None to play its notes in our own sounds.
        heard: Whether the click and the ideal are heard. own: Whether the take itself is.

    Raises:
        NotFound: There is no such take. OutOfRange: It is too long to be played back, or nothing of it was heard.
    """
    take = store.find_take(take_id)
    if not take.notes and sound is None:
        raise OutOfRange("Nothing of this take was recorded, so that nothing can be played back.")
    length = take.end - take.start
    if length > LONGEST_SECONDS:
        raise OutOfRange(f"Up to {LONGEST_SECONDS // 60} minutes can be played back.")
    climb = climbs.find_climb(take.climb_id) if take.climb_id is not None else None
    drill, part, _ = source_of(take.drill_id, take.version, take.part, take.remedy_id, climb)
    reading, window = asked(replace(drill, click=take.click_plan) if take.click_plan else drill, part)
    made = score(reading, take.bpm, before=Before(listen_bars=0, count_bars=0), window=window)
    rung = Rung(made, take.bpm)
    passes = ceil(take.end / rung.seconds(made.beats) - 1e-6)
    whole = rung_sound(rung, reading.instrument.voice, max(1, passes), heard, 0.5)
    first = round(take.start * RATE)
    found = _BESIDE * whole[first : first + round((length + 0.5) * RATE)]
    if own:
        theirs = _own(take, reading, sound, len(found))
        peak = float(np.abs(theirs).max(initial=0.0))
        found = found + (theirs * (_TAKE_PEAK / peak) if peak > 0 else theirs)
    loudest = float(np.abs(found).max(initial=0.0))
    return found if loudest <= 1 else found / loudest


def _own(take: Take, reading: Reading, sound: tuple[Sound, float] | None, count: int) -> Samples:
    bias = take.figures.bias if take.figures else None
    begin = take.start + (take.latency if take.is_calibrated else bias.value if bias else 0.0)
    if sound is None or take.source not in BY_SOUND:
        return played(take.notes, reading.instrument.voice, count / RATE, begin)
    recorded, zero = sound
    first = round((zero + begin) * recorded.rate)
    samples = recorded.part(first, first + ceil(count / RATE * recorded.rate) + 1)
    moments = np.arange(count) / RATE * recorded.rate
    return np.interp(moments, np.arange(len(samples)), samples)
