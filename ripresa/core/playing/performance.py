"""A performance: a reading at a tempo, in seconds, ready for the player and for matching.

Here, and only here, beats become seconds. Each time is worked out from its
own position, never by adding up rounded gaps, so nothing drifts.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ripresa.core.drill.click import ClickCycle
from ripresa.core.exact import Exact
from ripresa.core.grid import Event
from ripresa.core.playing.backing import Drum, Part, backing
from ripresa.core.playing.lead import COUNT_A_BAR, Before, Lead, Said, Tick, lead_of, room
from ripresa.core.playing.pulse import Pulse
from ripresa.core.playing.speech import SILENT, Spoken, speech
from ripresa.core.reading import Reading
from ripresa.core.rhythm import check_bpm, span_seconds

#: How early, in seconds, the first note of a drill may come and still be meant as that note: our choice.
_EARLIEST = 0.25
#: How the second layer sounds: a low F, short.
_SECOND_MIDI, _SECOND_SECONDS = 41, 0.2


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
        said: What is spoken over one turn, in order.
        told: What of the speech no voice can follow, in sentences.
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
    said: tuple[Said, ...] = ()
    told: tuple[str, ...] = ()


def perform(
    reading: Reading,
    bpm: Fraction,
    *,
    before: Before = COUNT_A_BAR,
    pulse: Pulse | None = None,
    back: Iterable[Part] = (),
    spoken: Spoken = SILENT,
) -> Performance:
    """Return one turn of a reading in seconds.

    Args:
        before: What comes before the first note.
        pulse: The inner pulse, if it is to be heard.
        back: Parts of the backing that sound.
        spoken: What a voice says with it.

    Raises:
        OutOfRange: A tempo out of range.
    """
    check_bpm(bpm)
    lead, too_fast = lead_of(reading, bpm, before)
    said = speech(reading, bpm, spoken)
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
        lead=lead,
        backing=tuple(
            BackTone(float(span_seconds(one.onset, bpm)), float(span_seconds(one.length, bpm)), one.midis, one.drum)
            for one in backing(reading, back)
        ),
        pulse=tuple(
            PulseTick(float(span_seconds(at, bpm)), loud)
            for at, loud in (pulse.beats(bpm, reading.meter) if pulse else ())
        ),
        said=tuple(room(said.words, reading.loop_beats, bpm)),
        told=tuple(dict.fromkeys((*too_fast, *said.sentences))),
    )


def most_due(reading: Reading, bpm: Fraction, seconds: float) -> int:
    """Return how many notes at most are due in so many seconds: those of every turn that is begun.

    ``turns = seconds * bpm / 60 / beats of a turn``, rounded up.
    """
    return len(reading.notes) * (int(Fraction(seconds) * bpm / 60 / reading.loop_beats) + 1)


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


def _ticks(cycle: ClickCycle, beats: Fraction, bpm: Fraction) -> tuple[Tick, ...]:
    return tuple(Tick(float(span_seconds(at, bpm)), level) for at, level in cycle.within(beats))
