"""A performance: a reading at a tempo, in seconds, ready for the player and for matching.

Here, and only here, beats become seconds. Each time is worked out from its
own position, never by adding up rounded gaps, so nothing drifts.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ripresa.core.backing import Drum, Part, backing
from ripresa.core.click import ClickCycle
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact
from ripresa.core.pulse import Pulse
from ripresa.core.reading import Event, Reading
from ripresa.core.tempo import check_bpm, span_seconds

MOST_LEAD_BARS = 8
LONGEST_COUNT_WORDS = 200
#: How early, in seconds, the first note of a drill may come and still be meant as that note: our choice.
_EARLIEST = 0.25
#: How the second layer sounds: a low F, short.
_SECOND_MIDI, _SECOND_SECONDS = 41, 0.2
_NUMBER_WORDS = ("one", "two", "three", "four", "five", "six", "seven", "eight")


@dataclass(frozen=True, slots=True)
class Tick:
    """A click: seconds from the start of its part, and its level or role."""

    at: float
    level: Literal["strong", "plain", "count"]


@dataclass(frozen=True, slots=True)
class Tone:
    """A note to sound: index of its event, seconds from the start, seconds long, heard MIDI note or None.

    ``also`` are the heard notes that sound with it: the other tones of a chord.
    """

    event: int
    at: float
    seconds: float
    midi: int | None
    accented: bool
    also: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class CountWord:
    """A word of the count-in, with when it is shown."""

    at: float
    word: str


@dataclass(frozen=True, slots=True)
class Lead:
    """What comes before the first note: listen-in bars, then the count-in on the true beats.

    Args:
        listen_seconds: Length of the listen-in.
        seconds: Length of all of it; the drill starts there.
    """

    listen_seconds: float
    seconds: float
    ticks: tuple[Tick, ...]
    words: tuple[CountWord, ...]


@dataclass(frozen=True, slots=True)
class BarSpan:
    """A bar of a turn, or the part of it that is played.

    Args:
        at: When it begins, in seconds from the start of the turn.
        number: Its number in the drill, from 1.
        begin, end: The part of it, in beats from its start.
    """

    at: float
    number: int
    begin: float
    end: float


@dataclass(frozen=True, slots=True)
class PulseTick:
    """A beat of the inner pulse: seconds from the start of the first turn, and how loud, from 0 to 1."""

    at: float
    loud: float


@dataclass(frozen=True, slots=True)
class BackTone:
    """A note of the backing: seconds from the start of a turn, seconds long, heard MIDI notes or a drum."""

    at: float
    seconds: float
    midis: tuple[int, ...]
    drum: Drum | None


@dataclass(frozen=True, slots=True)
class Performance:
    """One turn of the loop in seconds, and the lead before the first.

    Args:
        bpm: Tempo.
        loop_seconds: From the start of one turn to the start of the next.
        bars: The bars of a turn in order, the first at 0.
        tones: In order. ticks: One cycle of the click, in order.
        click_seconds: Length of that cycle: it goes round by itself, and may be longer than a turn.
        backing: What accompanies, over one turn, in order.
        pulse: The inner pulse, from the start of the first turn on; it is heard once.
        yours_from: Where it is the student's turn, in seconds from the start; None where nobody takes turns.
    """

    bpm: Exact
    loop_seconds: float
    bars: tuple[BarSpan, ...]
    tones: tuple[Tone, ...]
    ticks: tuple[Tick, ...]
    click_seconds: float
    lead: Lead
    yours_from: float | None = None
    pulse: tuple[PulseTick, ...] = ()
    backing: tuple[BackTone, ...] = ()


def perform(
    reading: Reading,
    bpm: Fraction,
    *,
    listen_bars: int = 0,
    count_bars: int = 1,
    count_words: str = "",
    pulse: Pulse | None = None,
    back: Iterable[Part] = (),
) -> Performance:
    """Return one turn of a reading in seconds.

    Args:
        back: Parts of the backing that sound.
        pulse: The inner pulse, if it is to be heard.
        count_words: Words for the last beats of the count-in, the numbers before them stay: ``"ready go"``.
        listen_bars: Bars in which nobody plays, 0 to 8.
        count_bars: Bars of count-in, 0 to 8.

    Raises:
        OutOfRange: A tempo or a number of bars out of range.
    """
    check_bpm(bpm)
    for bars, field in ((listen_bars, "listen_bars"), (count_bars, "count_bars")):
        if not 0 <= bars <= MOST_LEAD_BARS:
            raise OutOfRange(f"Take 0 to {MOST_LEAD_BARS} bars, not {bars}.", field=field)
    if len(count_words) > LONGEST_COUNT_WORDS:
        raise OutOfRange(f"The words of a count-in have up to {LONGEST_COUNT_WORDS} signs.", field="count_words")
    cycle = reading.click_cycle
    bar_length = reading.meter.bar_length
    turn_bars = int(reading.loop_beats / bar_length)
    indexes = {id(event): index for index, event in enumerate(reading.events)}
    return Performance(
        bpm=bpm,
        loop_seconds=float(span_seconds(reading.loop_beats, bpm)),
        bars=tuple(
            BarSpan(float(span_seconds(bar * bar_length, bpm)), bar + 1, 0.0, float(bar_length))
            for bar in range(turn_bars)
        ),
        tones=tuple(
            sorted(
                [
                    *(_tone(reading, indexes[id(event)], event, length, bpm) for event, length in reading.sounding()),
                    *_second(reading, bpm),
                ],
                key=lambda tone: tone.at,
            )
        ),
        ticks=_ticks(cycle, cycle.length, bpm),
        click_seconds=float(span_seconds(cycle.length, bpm)),
        lead=_lead(reading, cycle, bpm, listen_bars, count_bars, count_words.split()),
        backing=tuple(
            BackTone(float(span_seconds(one.onset, bpm)), float(span_seconds(one.length, bpm)), one.midis, one.drum)
            for one in backing(reading, back)
        ),
        pulse=tuple(
            PulseTick(float(span_seconds(at, bpm)), loud)
            for at, loud in (pulse.beats(bpm, reading.meter) if pulse else ())
        ),
    )


def expected_onsets(reading: Reading, bpm: Fraction, start: float, end: float) -> list[tuple[float, int]]:
    """Return (seconds, index of the event) of each note due from ``start`` to before ``end``, turns repeated.

    Args:
        start, end: Seconds from the start of the first turn.
    """
    turn = reading.loop_beats
    due = [(index, event.onset) for index, event in enumerate(reading.events) if event.kind == "note"]
    found: list[tuple[float, int]] = []
    first = int(Fraction(start) * bpm / 60 / turn)
    last = int(Fraction(end) * bpm / 60 / turn)
    for number in range(max(0, first), last + 1):
        for index, onset in due:
            at = float(span_seconds(number * turn + onset, bpm))
            # A hair of slack, so that a note on the very edge is not lost to rounding.
            if start - 1e-9 <= at < end - 1e-9:
                found.append((at, index))
    return found


def onsets_within(played: Sequence[float], due: Sequence[tuple[float, int]], end: float, latency: float) -> list[float]:
    """Return the played onsets that may belong to a stretch, in order.

    A stretch is cut at a bar line. What was played within half a gap before
    its first note, or after its last, belongs to the bar beside it.

    Args:
        played: Seconds, rising. due: As ``expected_onsets`` gives them.
        end: Where the stretch ends, in seconds. latency: Known delay of the source, in seconds.
    """
    if not due:
        return list(played)
    times = [at for at, _ in due]
    # The gap at each edge; a lone note has the whole stretch. The very first note of a drill has no bar before it.
    first = times[1] - times[0] if len(times) > 1 else end - times[0]
    begin = times[0] - first / 2 if times[0] > 0 else times[0] - max(first / 2, _EARLIEST)
    finish = end - (end - times[-1]) / 2
    return [at for at in played if begin + latency <= at < finish + latency]


def _second(reading: Reading, bpm: Fraction) -> Iterator[Tone]:
    """Yield the second layer as low notes; each lights the event that goes on there."""
    index = 0
    for onset in reading.second:
        while index + 1 < len(reading.events) and reading.events[index + 1].onset <= onset:
            index += 1
        yield Tone(index, float(span_seconds(onset, bpm)), _SECOND_SECONDS, _SECOND_MIDI, accented=False)


def _tone(reading: Reading, index: int, event: Event, length: Fraction, bpm: Fraction) -> Tone:
    heard = reading.heard(event)
    return Tone(
        event=index,
        at=float(span_seconds(event.onset, bpm)),
        seconds=float(span_seconds(reading.lasts(length), bpm)),
        midi=heard[0] if heard else None,
        accented=event.accent == "accent",
        also=heard[1:],
    )


def _ticks(cycle: ClickCycle, beats: Fraction, bpm: Fraction, start: Fraction = Fraction(0)) -> tuple[Tick, ...]:
    return tuple(Tick(float(span_seconds(start + at, bpm)), level) for at, level in cycle.within(beats))


def _lead(
    reading: Reading, cycle: ClickCycle, bpm: Fraction, listen_bars: int, count_bars: int, last_words: Sequence[str]
) -> Lead:
    meter = reading.meter
    listen = listen_bars * meter.bar_length
    ticks = list(_ticks(cycle, listen, bpm))
    words: list[CountWord] = []
    for bar in range(count_bars):
        for number, start in enumerate(meter.beat_starts()):
            at = float(span_seconds(listen + bar * meter.bar_length + start, bpm))
            # The count-in stands on the true beats whatever the click plan does.
            ticks.append(Tick(at, "count"))
            words.append(CountWord(at, _NUMBER_WORDS[number] if number < len(_NUMBER_WORDS) else str(number + 1)))
    for at_end, word in enumerate(reversed(last_words[-len(words) :] if words else ()), start=1):
        words[-at_end] = CountWord(words[-at_end].at, word)
    total = listen + count_bars * meter.bar_length
    return Lead(float(span_seconds(listen, bpm)), float(span_seconds(total, bpm)), tuple(ticks), tuple(words))
