"""What comes before the first note: listening, saying the divisions, and the count-in on the true beats."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise
from typing import Literal, NamedTuple

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import decimal, division_label, label, told_beside
from ripresa.core.grid import Cursor, Slot, slot_numbers
from ripresa.core.playing.speech import MOST_SYLLABLES, fits, peak_rate, too_fast
from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds

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


class _Saying(NamedTuple):
    """How a division is said: its name, beats, words with their onsets, and the onsets that are spoken too."""

    division: str
    beats: Fraction
    words: list[tuple[Fraction, str]]
    aloud: set[Fraction]


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
    sayings, sentences = _sayings(reading, bpm, before)
    end_of_saying = listen + sum((saying.beats for saying in sayings), Fraction(0))
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
    for saying in sayings:
        rehearsals.append(Rehearsal(seconds(at), seconds(saying.beats), saying.division))
        ticks += [
            Tick(seconds(at + start + number * bar), "count")
            for number in range(before.say_bars)
            for start in meter.beat_starts()
        ]
        words += [(at + onset, word, word if onset in saying.aloud else "") for onset, word in saying.words]
        at += saying.beats
    # The count-in stands on the true beats whatever the click plan does; where a pickup follows, it goes on to it.
    clicked = {at for at, _ in cycle.within(max(counted[-1][0], Fraction(0)) + 1)} if counted else set()
    ticks += [Tick(seconds(total + at), "count") for at, _ in counted if at < 0 or at not in clicked]
    count_in = _count_words(counted, total, before.count_words.split())
    spoken = [(at, word) for at, _, word in count_in]
    if not fits(spoken, bpm):
        # Shown and clicked it still is.
        count_in = [(at, shown, "") for at, shown, _ in count_in]
        sentences = (
            *sentences,
            f"At {label(bpm)} bpm the count-in is not spoken: it would be "
            f"{told_beside(peak_rate(spoken, bpm), MOST_SYLLABLES)} syllables a second, "
            f"and a voice manages about {decimal(MOST_SYLLABLES, 1)}.",
        )
    words += count_in
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
    yield from room(spoken, max(end, spoken[-1][0] if spoken else end), bpm)


def _sayings(reading: Reading, bpm: Fraction, before: Before) -> tuple[list[_Saying], tuple[str, ...]]:
    """Return how each division is said, in order, and where no voice can follow it, in sentences."""
    if not before.say_bars:
        return [], ()
    meter, counting = reading.meter, reading.drill.counting
    found: list[_Saying] = []
    sentences: list[str] = []
    beats = before.say_bars * meter.bar_length
    for division in dict.fromkeys(one for leg in reading.legs for one in leg.divisions):
        cursor = Cursor(meter, reading.drill.swing)
        words: list[tuple[Fraction, str]] = []
        for of, number in slot_numbers([division]):
            if cursor.at >= beats:
                break
            word = counting.word(of, cursor.beat, number)
            words += [(place.onset, word) for place in cursor.lay(0, Slot(of, number)) if place.on_grid]
        words = [one for one in words if one[0] < beats]
        aloud = {at for at, _ in words}
        if not fits(words, bpm):
            aloud = {at for at in aloud if at % meter.bar_length in meter.beat_starts()}
            if not fits([one for one in words if one[0] in aloud], bpm):
                aloud = set()
            sentences.append(too_fast("the beats only", "the whole division", words, (division,), bpm))
        found.append(_Saying(division_label(division), beats, words, aloud))
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
