"""What comes before the first note: listening, saying the divisions, and the count-in on the true beats."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import division_label
from ripresa.core.place import Cursor, Slot, slot_numbers
from ripresa.core.reading import Reading
from ripresa.core.speech import fits, too_fast
from ripresa.core.tempo import span_seconds

Meanwhile = Literal["feel", "sway", "say", "hear"]

MEANWHILE: dict[Meanwhile, tuple[str, str]] = {
    "feel": ("and feel the 1", "Nobody plays: feel where beat 1 is."),
    "sway": ("and sway", "Nobody plays: sway from side to side on the half note."),
    "say": ("and say the divisions", "Nobody plays: say the divisions in order, the beat stays."),
    "hear": ("and hear it inside", "Nobody plays: hear the first notes before they come."),
}
MOST_LEAD_BARS = 8
MOST_SAY_BARS = 4
MOST_COUNT_BEATS = 32
LONGEST_COUNT_WORDS = 200
_NUMBER_WORDS = ("one", "two", "three", "four", "five", "six", "seven", "eight")


@dataclass(frozen=True, slots=True)
class Before:
    """What the teacher asks for before the first note.

    Args:
        listen_bars: Bars in which nobody plays, 0 to 8.
        say_bars: Bars in which each division is said, in order, 0 to 4.
        count_bars: Bars of count-in, 0 to 8.
        count_beats: Beats of count-in on top of them, 0 to 32: 2 in 4/4 are “three four”.
        count_words: Words for the last beats of the count-in, the numbers before them stay: ``"ready go"``.
        aloud: Whether the count-in and the divisions are spoken, besides being shown.

    Raises:
        OutOfRange: A number of bars or beats out of range, or too many words.
    """

    listen_bars: int = 0
    say_bars: int = 0
    count_bars: int = 1
    count_beats: int = 0
    count_words: str = ""
    aloud: bool = False

    def __post_init__(self) -> None:
        for count, most, field, of in (
            (self.listen_bars, MOST_LEAD_BARS, "listen_bars", "bars"),
            (self.say_bars, MOST_SAY_BARS, "say_bars", "bars a division"),
            (self.count_bars, MOST_LEAD_BARS, "count_bars", "bars"),
            (self.count_beats, MOST_COUNT_BEATS, "count_beats", "beats"),
        ):
            if not 0 <= count <= most:
                raise OutOfRange(f"Take 0 to {most} {of}, not {count}.", field=f"before.{field}")
        if len(self.count_words) > LONGEST_COUNT_WORDS:
            raise OutOfRange(
                f"The words of a count-in have up to {LONGEST_COUNT_WORDS} signs.", field="before.count_words"
            )


COUNT_A_BAR = Before()


@dataclass(frozen=True, slots=True)
class Tick:
    """A click: seconds from the start of its part, and its level or role."""

    at: float
    level: Literal["strong", "plain", "division", "count"]


@dataclass(frozen=True, slots=True)
class CountWord:
    """A word that is shown, of the count-in or of a division that is said, and when."""

    at: float
    word: str


@dataclass(frozen=True, slots=True)
class Said:
    """A word that is spoken: when its vowel sounds, seconds until the next word, and the word."""

    at: float
    seconds: float
    word: str


@dataclass(frozen=True, slots=True)
class Rehearsal:
    """A division that is said before it is played: when, for how long in seconds, and which."""

    at: float
    seconds: float
    division: str


@dataclass(frozen=True, slots=True)
class Lead:
    """What comes before the first note, in seconds from its own start.

    Args:
        listen_seconds: Length of the listen-in.
        rehearsals: The divisions that are said, in order.
        seconds: Where the drill starts: on a bar line.
        until: Where its first note is due; later where the drill begins with a pickup, and counted to there.
        words: What is shown. said: What is spoken.
    """

    listen_seconds: float
    rehearsals: tuple[Rehearsal, ...]
    seconds: float
    until: float
    ticks: tuple[Tick, ...]
    words: tuple[CountWord, ...]
    said: tuple[Said, ...]

    def to_the_bar_line(self) -> "Lead":
        """Return it for a part of the drill that begins elsewhere: no pickup follows."""
        end = self.seconds - 1e-9
        return replace(
            self,
            until=self.seconds,
            ticks=tuple(tick for tick in self.ticks if tick.at < end),
            words=tuple(word for word in self.words if word.at < end),
            said=tuple(word for word in self.said if word.at < end),
        )


def lead_of(reading: Reading, bpm: Fraction, before: Before) -> tuple[Lead, tuple[str, ...]]:
    """Return the lead of a reading at a tempo, and what of it no voice can follow, in sentences."""
    meter = reading.meter
    bar = meter.bar_length
    cycle = reading.click_cycle
    listen = before.listen_bars * bar
    said_bars, sentences = _rehearsed(reading, bpm, before)
    end_of_saying = listen + sum((length for _, length, _, _ in said_bars), Fraction(0))
    counted = _counted(reading, before.count_bars * len(meter.beats) + before.count_beats)
    count = -counted[0][0] if counted else Fraction(0)
    # Whatever was heard before keeps its bars: a count of two beats after it begins on beat 3.
    total = end_of_saying + count + (meter.to_bar_line(count) if end_of_saying else 0)

    def seconds(at: Fraction) -> float:
        return float(span_seconds(at, bpm))

    ticks = [Tick(seconds(at), level) for at, level in cycle.within(listen)]
    words: list[tuple[Fraction, str, str]] = []
    at = listen
    rehearsals = []
    for division, length, shown, spoken in said_bars:
        rehearsals.append(Rehearsal(seconds(at), seconds(length), division))
        ticks += [
            Tick(seconds(at + start + number * bar), "count")
            for number in range(int(length / bar))
            for start in meter.beat_starts()
        ]
        aloud = dict(spoken)
        words += [(at + onset, word, aloud.get(onset, "")) for onset, word in shown]
        at += length
    # The count-in stands on the true beats whatever the click plan does; where a pickup follows, it goes on to it.
    clicked = {at for at, _ in cycle.within(max(counted[-1][0], Fraction(0)) + 1)} if counted else set()
    ticks += [Tick(seconds(total + at), "count") for at, _ in counted if at < 0 or at not in clicked]
    words += _count_words(counted, total, before.count_words.split())
    first = _first_note(reading) if counted else Fraction(0)
    lead = Lead(
        listen_seconds=seconds(listen),
        rehearsals=tuple(rehearsals),
        seconds=seconds(total),
        until=seconds(total + first),
        ticks=tuple(ticks),
        words=tuple(CountWord(seconds(at), shown) for at, shown, _ in words),
        said=tuple(_said(words, total + first, bpm)) if before.aloud else (),
    )
    return lead, sentences if before.aloud else ()


def room(words: Sequence[tuple[Fraction, str]], end: Fraction, bpm: Fraction) -> Iterator[Said]:
    """Yield words with the seconds that each has until the next; the last has until ``end``, in beats."""
    for (at, word), (after, _) in pairwise([*words, (end, "")]):
        yield Said(float(span_seconds(at, bpm)), float(span_seconds(after - at, bpm)), word)


def _said(words: Sequence[tuple[Fraction, str, str]], end: Fraction, bpm: Fraction) -> Iterator[Said]:
    spoken = [(at, word) for at, _, word in words if word]
    yield from room(spoken if fits(spoken, bpm) else [], max(end, spoken[-1][0] if spoken else end), bpm)


def _rehearsed(
    reading: Reading, bpm: Fraction, before: Before
) -> tuple[list[tuple[str, Fraction, list[tuple[Fraction, str]], list[tuple[Fraction, str]]]], tuple[str, ...]]:
    """Return each division with its name, its beats, its words, and those of them that a voice can follow."""
    if not before.say_bars:
        return [], ()
    found = []
    sentences = []
    length = before.say_bars * reading.meter.bar_length
    for division in dict.fromkeys(one for leg in reading.legs for one in leg.divisions):
        cursor = Cursor(reading.meter, reading.drill.swing)
        shown: list[tuple[Fraction, str]] = []
        for of, number in slot_numbers([division]):
            if cursor.at >= length:
                break
            word = reading.drill.counting.word(of, cursor.beat, number)
            shown += [(place.onset, word) for place in cursor.lay(0, Slot(of, number)) if place.on_grid]
        spoken = shown
        if not fits(shown, bpm):
            starts = set(reading.meter.beat_starts())
            spoken = [(at, word) for at, word in shown if at % reading.meter.bar_length in starts]
            sentences.append(too_fast("the beats only", "the whole division", shown, (division,), bpm))
        found.append((division_label(division), length, [one for one in shown if one[0] < length], spoken))
    return found, tuple(sentences)


def _first_note(reading: Reading) -> Fraction:
    return next((event.onset for event in reading.events if event.kind == "note"), Fraction(0))


def _counted(reading: Reading, beats: int) -> list[tuple[Fraction, int]]:
    """Return (beats from the drill's start, number) of each beat counted, up to the first note."""
    if not beats:
        return []
    meter = reading.meter
    found: list[tuple[Fraction, int]] = []
    at = Fraction(0)
    for back in range(1, beats + 1):
        number = -back % len(meter.beats)
        at -= meter.beats[number]
        found.append((at, number + 1))
    found.reverse()
    first = _first_note(reading)
    at, number = Fraction(0), 0
    while at < first:
        found.append((at, number + 1))
        at, number = at + meter.beats[number], (number + 1) % len(meter.beats)
    return found


def _count_words(
    counted: Sequence[tuple[Fraction, int]], total: Fraction, last: Sequence[str]
) -> list[tuple[Fraction, str, str]]:
    """Return (onset, word shown, word spoken) of the count-in, its last words as the teacher wants them."""
    words = [
        (total + at, _NUMBER_WORDS[number - 1] if number <= len(_NUMBER_WORDS) else str(number), str(number))
        for at, number in counted
    ]
    for back, word in enumerate(reversed(last[-len(words) :] if words else ()), start=1):
        words[-back] = (words[-back][0], word, word)
    return words
