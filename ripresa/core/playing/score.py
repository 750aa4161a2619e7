"""The score: what sounds over one turn of a loop and what comes before it, in exact beats.

Windows, turns and loops are cut and repeated here, where nothing is rounded; ``timed`` turns it all into seconds.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal, TypeVar

from ripresa.core.drill import Step
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import Record, altered
from ripresa.core.playing.backing import BackNote
from ripresa.core.playing.cueing import cues_at
from ripresa.core.playing.struck import Drum
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Level

MOST_TURNS = 8
Word = tuple[Fraction, str]


class Tone(Record, frozen=True):
    """A note: index of its event, onset and beats it sounds, heard MIDI notes from the lowest, its level.

    ``loud`` is the share of its loudness that it has beside another hand; ``apart`` the seconds from one tone of a
    rolled chord to the next; ``drum`` its sound where it is struck without pitch.
    """

    event: int
    at: Fraction
    beats: Fraction
    midis: tuple[int, ...]
    level: Level
    loud: Fraction = Fraction(1)
    apart: Fraction = Fraction(0)
    drum: Drum | None = None


class Tick(Record, frozen=True):
    """A click: where it is, and its level or role."""

    at: Fraction
    level: Literal["strong", "plain", "division", "count"]


class Said(Record, frozen=True):
    """A word that is spoken: where its vowel sounds, beats until the next word, and the word."""

    at: Fraction
    beats: Fraction
    word: str


@dataclass(frozen=True, slots=True)
class Rehearsal:
    """A division that is said before it is played: from where, for how many beats, and which."""

    at: Fraction
    beats: Fraction
    division: str


class BarPart(Record, frozen=True):
    """A bar of a turn, or the part of it that is played.

    Args:
        at: Where it begins, from the start of the turn. number: Its number in the drill, from 1.
        begin, end: The part of it, from its own start.
        cue: The lines of technique that hold in it.
    """

    at: Fraction
    number: int
    begin: Fraction
    end: Fraction
    cue: str = ""


@dataclass(frozen=True, slots=True)
class Lead:
    """What comes before the first note, in beats from its own start.

    Args:
        listen: Length of the listen-in. rehearsals: The divisions that are said, in order.
        lines: The bar lines up to where the counting begins, that one too.
        beats: Where the drill, or the part of it that is played, starts.
        until: Where its first note is due; later where it begins with a pickup, and counted to there.
        words: What is shown. said: What is spoken.
    """

    listen: Fraction
    rehearsals: tuple[Rehearsal, ...]
    lines: tuple[Fraction, ...]
    beats: Fraction
    until: Fraction
    ticks: tuple[Tick, ...]
    words: tuple[Word, ...]
    said: tuple[Said, ...]


@dataclass(frozen=True, slots=True)
class Score:
    """One turn of the loop, and the lead before the first.

    Args:
        beats: From the start of one turn to the start of the next.
        bars, tones, said, backing: Over one turn, in order.
        ticks: One cycle of the click, which goes round by itself every ``click_beats`` and may be longer than a turn.
        pulse: (onset, loudness from 0 to 1) from the start of the first turn on; it is heard once.
        told: What of the speech no voice can follow, in sentences.
        yours_from: Where it is the student's turn; None where nobody takes turns.
    """

    beats: Fraction
    bars: tuple[BarPart, ...]
    tones: tuple[Tone, ...]
    ticks: tuple[Tick, ...]
    click_beats: Fraction
    lead: Lead
    pulse: tuple[tuple[Fraction, float], ...] = ()
    backing: tuple[BackNote, ...] = ()
    said: tuple[Said, ...] = ()
    told: tuple[str, ...] = ()
    yours_from: Fraction | None = None


@dataclass(frozen=True, slots=True)
class Window:
    """A part of a drill that goes round: from a beat, for so many beats, and what it is called."""

    start: Fraction
    beats: Fraction
    name: str

    @property
    def end(self) -> Fraction:
        """Where it is over."""
        return self.start + self.beats


#: What has a length and goes round with the drill; and that, or a bar.
S = TypeVar("S", Tone, Said, BackNote)
R = TypeVar("R", Tone, Said, BackNote, BarPart)


def room(words: Sequence[Word], end: Fraction) -> Iterator[Said]:
    """Yield words with the beats that each has until the next; the last has until ``end``."""
    for (at, word), (after, _) in pairwise([*words, (end, "")]):
        yield Said(at, after - at, word)


def bar_parts(reading: Reading, start: Fraction, end: Fraction, step: Step | None = None) -> Iterator[BarPart]:
    """Yield the bars from one position to another, the first and the last as far as they lie inside."""
    meter, at = reading.meter, start
    while at < end:
        bar = meter.place(at)[0]
        begins = meter.bar_start(bar)
        until = min(meter.bar_start(bar + 1), end)
        cue = "; ".join(cues_at(reading, at, step))
        yield BarPart(at - start, bar, at - begins, until - begins, cue)
        at = until


def within(score: Score, reading: Reading, window: Window, step: Step | None = None) -> Score:
    """Return the part of a score in a window as a loop of its own; the click keeps its phase and goes round with it."""
    rounds = range(int(window.end // score.click_beats) + 1)
    ticks = [altered(tick, at=number * score.click_beats + tick.at) for number in rounds for tick in score.ticks]

    def cut(items: Iterable[S]) -> tuple[S, ...]:
        return tuple(
            altered(one, at=one.at - window.start, beats=min(one.beats, window.end - one.at))
            for one in items
            if window.start <= one.at < window.end
        )

    return replace(
        score,
        beats=window.beats,
        bars=tuple(bar_parts(reading, window.start, window.end, step)),
        tones=cut(score.tones),
        ticks=tuple(altered(tick, at=tick.at - window.start) for tick in ticks if window.start <= tick.at < window.end),
        click_beats=window.beats,
        said=cut(score.said),
        backing=cut(score.backing),
    )


def in_turn(score: Score, turns: int) -> Score:
    """Return so many turns with the notes and as many without, as one loop: the teacher’s, then the student’s.

    Raises:
        OutOfRange: Fewer than 1 or more than 8 turns.
    """
    if not 1 <= turns <= MOST_TURNS:
        raise OutOfRange(f"Take turns of 1 to {MOST_TURNS} passes, not {turns}.", field="turns")

    def repeated(items: Iterable[R], times: int) -> tuple[R, ...]:
        return tuple(altered(one, at=turn * score.beats + one.at) for turn in range(times) for one in items)

    return replace(
        score,
        beats=2 * turns * score.beats,
        bars=repeated(score.bars, 2 * turns),
        tones=repeated(score.tones, turns),
        # Whoever plays, what accompanies and what is said goes on.
        backing=repeated(score.backing, 2 * turns),
        said=repeated(score.said, 2 * turns),
        yours_from=turns * score.beats,
    )
