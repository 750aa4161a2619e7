"""What comes before the first note: listening, saying the divisions, and the count-in on the true beats."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Literal, NamedTuple

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, decimal, division_label, label, told_beside
from ripresa.core.grid import Cursor, Slot, slot_numbers
from ripresa.core.playing.score import Lead, Rehearsal, Said, Tick, room
from ripresa.core.playing.speech import MOST_SYLLABLES, fits, peak_rate, too_fast
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Meter

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


class _Saying(NamedTuple):
    """How a division is said: its name, beats, words with their onsets, and the onsets that are spoken too."""

    division: str
    beats: Fraction
    words: list[tuple[Fraction, str]]
    aloud: set[Fraction]


def lead_of(
    reading: Reading, bpm: Fraction, before: Before, start: Fraction = Fraction(0)
) -> tuple[Lead, tuple[str, ...]]:
    """Return the lead of a reading at a tempo, and what of it no voice can follow, in sentences.

    Args:
        start: Where what is played begins, in beats: the last number of the count-in is the beat before it.
    """
    meter = reading.meter
    cycle = reading.click_cycle
    listen = meter.bar_start(before.listen_bars + 1)
    sayings, sentences = _sayings(reading, bpm, before)
    end_of_saying = listen + sum((saying.beats for saying in sayings), Fraction(0))
    counted = _counted(reading, before, start)
    count = start - counted[0][0] if counted else Fraction(0)
    # Whatever was heard before keeps its bars: a count of two beats after it begins on beat 3.
    total = end_of_saying + count + (meter.to_bar_line(count - start) if end_of_saying else 0)

    ticks = [Tick(at, level) for at, level in cycle.within(listen)]
    words: list[tuple[Fraction, str, str]] = []
    lines = [meter.bar_start(bar) for bar in range(1, before.listen_bars + 1)]
    at = listen
    rehearsals = []
    for saying in sayings:
        rehearsals.append(Rehearsal(at, saying.beats, saying.division))
        lines += [at + meter.bar_start(bar) for bar in range(1, before.say_bars + 1)]
        ticks += [Tick(at + beat, "count") for beat in meter.beats_until(saying.beats)]
        words += [(at + onset, word, word if onset in saying.aloud else "") for onset, word in saying.words]
        at += saying.beats
    # The count-in stands on the true beats whatever the click plan does; where a pickup follows, it goes on to it.
    clicked = {at for at, _ in cycle.within(max(counted[-1][0], Fraction(0)) + 1)} if counted else set()
    ticks += [Tick(total + at - start, "count") for at, _ in counted if at < start or at not in clicked]
    count_in = _count_words(counted, total - start, before.count_words.split())
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
    until = total + (_first_note(reading) if counted and not start else Fraction(0))
    lead = Lead(
        listen=listen,
        rehearsals=tuple(rehearsals),
        lines=(*lines, end_of_saying),
        beats=total,
        until=until,
        ticks=tuple(ticks),
        words=tuple((at, shown) for at, shown, _ in words),
        said=tuple(_said(words, until)) if before.aloud else (),
    )
    return lead, sentences if before.aloud else ()


def _said(words: Sequence[tuple[Fraction, str, str]], end: Fraction) -> Iterator[Said]:
    spoken = [(at, word) for at, _, word in words if word]
    yield from room(spoken, max(end, spoken[-1][0] if spoken else end))


def _sayings(reading: Reading, bpm: Fraction, before: Before) -> tuple[list[_Saying], tuple[str, ...]]:
    """Return how each division is said, in order, and where no voice can follow it, in sentences."""
    if not before.say_bars:
        return [], ()
    meter, counting = reading.meter, reading.drill.counting
    found: list[_Saying] = []
    sentences: list[str] = []
    beats = meter.bar_start(before.say_bars + 1)
    for division in dict.fromkeys(one for leg in reading.legs for one in leg.divisions):
        cursor = Cursor(meter, reading.drill.swing)
        words: list[tuple[Fraction, str]] = []
        for of, number in slot_numbers([division]):
            if cursor.at >= beats:
                break
            word = counting.word(of, cursor.beat, number)
            laid = cursor.lay(0, Slot(of, number))
            words += [(place.onset, word) for place in laid if place.on_grid and word]
        words = [one for one in words if one[0] < beats]
        aloud = {at for at, _ in words}
        if not fits(words, bpm):
            aloud = {at for at in aloud if not meter.place(at)[2]}
            if not fits([one for one in words if one[0] in aloud], bpm):
                aloud = set()
            sentences.append(too_fast("the beats only", "the whole division", words, (division,), bpm))
        found.append(_Saying(division_label(division), beats, words, aloud))
    return found, tuple(sentences)


def _first_note(reading: Reading) -> Fraction:
    if reading.drill.enters.hands > 1:
        # The hands join what goes on already: the count leads to that.
        return Fraction(0)
    return next((event.onset for event in reading.events if event.kind == "note"), Fraction(0))


def _counted(reading: Reading, before: Before, start: Fraction) -> list[tuple[Fraction, int]]:
    """Return (beats from the drill's start, number) of each beat counted, up to where is started or the first note."""
    meter = reading.meter
    found: list[tuple[Fraction, int]] = []
    # Where bars take turns, the beginning is counted in by the bar that comes, and the middle by those before it.
    counts = meter if start else Meter(meter.name, (meter.bar(1),), meter.counted)
    beats = counts.beats_before(start)
    bars = 0
    # Whole bars of beats first, however long the bars are, then the beats on top of them.
    while bars < before.count_bars:
        at, number = next(beats)
        found.append((at, number))
        bars += counts.place(at)[1:] == counts.place(start)[1:]
    found += islice(beats, before.count_beats)
    found.reverse()
    if found and not start:
        first = _first_note(reading)
        found += [(at, meter.place(at)[1]) for at in meter.beats_until(first)]
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
