"""Listening: from a recording to its onsets, with what is wrong with it and what the click hides."""

from collections.abc import Sequence
from dataclasses import dataclass

from ripresa.core.listening.bleed import without_clicks
from ripresa.core.listening.onsets import Onset, onsets_of
from ripresa.core.listening.profiles import PROFILES, As
from ripresa.core.listening.quality import Quality, quality_of
from ripresa.core.listening.sound import Sound


@dataclass(frozen=True, slots=True)
class Listened:
    """What was heard in a recording.

    Args:
        onsets: Of notes, in order. quality: Whether it could be listened to.
        hidden: Moments of clicks that may hide a note, as they were planned, in seconds of the recording.
        click_late, click_db: How late and how loud the click comes in; None where it is not heard.
    """

    onsets: tuple[Onset, ...]
    quality: Quality
    hidden: tuple[float, ...] = ()
    click_late: float | None = None
    click_db: float | None = None


def listen(
    sound: Sound,
    sounds_as: As = "plucked",
    shortest_gap: float | None = None,
    clicks: Sequence[float] = (),
    alone: int = 0,
    latency: float | None = None,
) -> Listened:
    """Return what is heard in a recording.

    Args:
        sounds_as: How its notes begin. shortest_gap: Between notes that are due, in seconds.
        clicks: Known moments of clicks that may leak into it, in seconds of the recording, in order.
        alone: How many of them come before the first note: by these the click is known.
        latency: By how much the microphone is known to be late, in seconds.
    """
    onsets, found = onsets_of(sound, PROFILES[sounds_as], shortest_gap)
    bleed = without_clicks(onsets, clicks, alone, latency)
    return Listened(
        bleed.onsets,
        quality_of(sound, bleed.onsets, found),
        tuple(clicks[number] for number in bleed.hidden),
        bleed.late,
        bleed.level,
    )
