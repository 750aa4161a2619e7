"""Play-along files: scores rendered to sound one after the other, each onset exact to the sample."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.playing import Score, Sounding, soundings
from ripresa.core.rhythm import span_seconds
from ripresa.formats.recipes import RECIPES, Timbre, Voice
from ripresa.formats.sounds import RATE, Samples, click, drum, note
from ripresa.formats.speaker import ANCHOR, LANGUAGE
from ripresa.formats.words import word_sound

MOST_PASSES = 32
MOST_RUNGS = 40
LONGEST_SECONDS = 20 * 60
#: Silence between one rung and the next, for a breath; and at the end, for what still rings.
BETWEEN, _RINGS = 3.0, 1.0
#: How a note ends: it fades over 20 ms after 95 % of its length.
_HELD, _FADE = 0.95, 0.02
_PEAK = 0.97
#: Samples that are made at a time: ten seconds.
_BLOCK = 10 * RATE
#: Seconds over which a file starts soft, and from which share of its loudness.
_SOFT_SECONDS, _SOFT_SHARE = 0.8, 0.35


@dataclass(frozen=True, slots=True)
class Heard:
    """What is heard: click and notes, each on or off, and how the click sounds; what else there is, is heard.

    ``language`` is the one in which words of the teacher's own are spoken.
    """

    click: bool = True
    notes: bool = True
    timbre: Timbre = "beep"
    language: str = LANGUAGE


@dataclass(frozen=True, slots=True)
class Rung:
    """A score and its tempo: what sounds until the next rung begins."""

    score: Score
    bpm: Fraction

    def seconds(self, beats: Fraction) -> float:
        """Return how long so many beats last."""
        return float(span_seconds(beats, self.bpm))

    def lasts(self, passes: int) -> float:
        """Return how many seconds its lead and so many passes last."""
        return self.seconds(self.score.lead.beats + passes * self.score.beats)


def check_length(rungs: Sequence[Rung], passes: int) -> None:
    """Refuse what is too much for one file.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, more than 40 rungs, or more than 20 minutes.
    """
    check_count(len(rungs), passes)
    check_seconds([rung.lasts(passes) for rung in rungs])


def check_count(rungs: int, passes: int) -> None:
    """Refuse more rungs or passes than one file may have."""
    if not 1 <= passes <= MOST_PASSES:
        raise OutOfRange(f"A file holds 1 to {MOST_PASSES} passes, not {passes}.", field="passes")
    if not 1 <= rungs <= MOST_RUNGS:
        raise OutOfRange(f"A file holds 1 to {MOST_RUNGS} rungs, not {rungs}.", field="rungs")


def check_seconds(parts: Sequence[float]) -> None:
    """Refuse parts that last too long together, in seconds."""
    seconds = sum(part + BETWEEN for part in parts)
    if seconds > LONGEST_SECONDS:
        raise OutOfRange(
            f"That lasts {seconds / 60:.0f} minutes, and a file holds {LONGEST_SECONDS // 60}. Take fewer "
            + ("passes." if len(parts) == 1 else "rungs or passes."),
            field="passes",
        )


def rendered(
    rungs: Sequence[Rung],
    voice: Voice,
    passes: int,
    heard: Heard = Heard(),
    tell: Callable[[int], None] = lambda _done: None,
) -> Iterator[Samples]:
    """Yield rungs one after the other, each with its count-in, block by block; as loud as they are (``share_of``).

    Args:
        tell: Called with how many rungs are done, after each.

    Raises:
        OutOfRange: As ``check_length``.
    """
    check_length(rungs, passes)
    for done, rung in enumerate(rungs, start=1):
        blocks = rung_blocks(rung, voice, passes, heard, _RINGS if done == len(rungs) else BETWEEN)
        first = next(blocks)
        soft = round(_SOFT_SECONDS * RATE)
        first[:soft] *= np.linspace(_SOFT_SHARE, 1, soft)[: len(first)]
        yield first
        yield from blocks
        tell(done)


def share_of(peak: float) -> float:
    """Return the share of its loudness at which a sound with such a peak fits into a file."""
    return min(1.0, _PEAK / peak) if peak else 1.0


def rung_sound(rung: Rung, voice: Voice, passes: int, heard: Heard, after: float) -> Samples:
    """Return what sounds of one rung, as loud as it is from its first moment on, and some seconds after."""
    return np.concatenate(list(rung_blocks(rung, voice, passes, heard, after)))


def rung_blocks(rung: Rung, voice: Voice, passes: int, heard: Heard, after: float) -> Iterator[Samples]:
    """Yield the same block by block: what is yet to come is never in memory."""
    tape = _Tape(round((rung.lasts(passes) + after) * RATE))
    for one in sorted(soundings(rung.score, passes), key=_at):
        # A word begins before its time: its vowel is what is in time.
        yield from tape.until(round((rung.seconds(one.at) - ANCHOR) * RATE))
        _add_sounding(tape, one, rung, voice, heard)
    yield from tape.until(tape.length)
    yield tape.rest()


def _at(one: Sounding) -> Fraction:
    return one.at


class _Tape:
    """A sound of so many samples, of which only what still changes is held."""

    def __init__(self, length: int) -> None:
        self.length = length
        self._begin = 0
        self._held = np.zeros(_BLOCK)

    def add(self, at: float, made: Samples) -> None:
        """Add a sound at a moment in seconds; what would lie beyond the end is cut off."""
        start = round(at * RATE) - self._begin
        end = min(self.length - self._begin, start + len(made))
        if end > len(self._held):
            self._held = np.concatenate([self._held, np.zeros(end - len(self._held))])
        if end > start:
            self._held[start:end] += made[: end - start]

    def until(self, sample: int) -> Iterator[Samples]:
        """Yield the blocks that are over before a sample."""
        while self._begin + _BLOCK <= min(sample, self.length):
            yield self._held[:_BLOCK]
            rest = self._held[_BLOCK:]
            self._held = np.concatenate([rest, np.zeros(max(0, _BLOCK - len(rest)))])
            self._begin += _BLOCK

    def rest(self) -> Samples:
        """Return what is left to the end."""
        return self._held[: self.length - self._begin]


def _add_sounding(sound: _Tape, one: Sounding, rung: Rung, voice: Voice, heard: Heard) -> None:
    at, levels = rung.seconds(one.at), RECIPES.levels
    if one.click and heard.click:
        softer = {"plain": levels.plain_click, "division": levels.division_click}
        gain = levels.click * one.loud * softer.get(one.click, 1.0)
        sound.add(at, click(one.click, heard.timbre) * gain)
    if one.tone and heard.notes:
        pitches = one.tone.midis or (None,)
        gain = levels.notes * levels.of(one.tone.level) * float(one.tone.loud) * len(pitches) ** -levels.chord
        if one.tone.drum:
            sound.add(at, drum(one.tone.drum) * gain)
            return
        seconds = rung.seconds(one.tone.beats)
        for number, pitch in enumerate(pitches):
            sound.add(at + number * float(one.tone.apart), _struck(voice, pitch, seconds) * gain)
    if one.back and one.back.drum:
        sound.add(at, drum(one.back.drum) * levels.backing)
    if one.back:
        gain = levels.backing * max(1, len(one.back.midis)) ** -levels.chord
        for midi in one.back.midis:
            sound.add(at, _struck("keys", midi, rung.seconds(one.back.beats)) * gain)
    if one.said:
        _add_word(sound, at, one.said.word, rung.seconds(one.said.beats), heard.language)


def _add_word(sound: _Tape, at: float, word: str, seconds: float, language: str) -> None:
    """Add a word so that its vowel is in time; its consonant comes before."""
    made = _held(word_sound(word, language), ANCHOR + seconds) * RECIPES.levels.voice
    start = at - ANCHOR
    # A word at the very beginning loses what would come before the file does.
    sound.add(max(start, 0.0), made[max(0, round(-start * RATE)) :])


@lru_cache(maxsize=64)
def _struck(voice: Voice, pitch: int | None, seconds: float) -> Samples:
    """Return a note that ends with its length; a drill strikes the same few again and again."""
    return _held(note(voice, pitch), seconds)


def _held(made: Samples, seconds: float) -> Samples:
    """Return a sound that ends with its length."""
    held, fade = round(seconds * _HELD * RATE), round(_FADE * RATE)
    cut = made[: held + fade].copy()
    if len(cut) > held:
        cut[held:] *= np.linspace(1, 0, len(cut) - held)
    return cut
