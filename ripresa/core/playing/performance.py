"""A performance: a score in seconds, as browser and files consume it.

Here, and only here, beats become seconds. Each time is worked out from its
own position, never by adding up rounded gaps, so nothing drifts.
"""

from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import Literal

from ripresa.core.drill import Entering, Step
from ripresa.core.exact import Exact, Fraction
from ripresa.core.grid import Record
from ripresa.core.playing.backing import Accompaniment, backing
from ripresa.core.playing.lead import COUNT_A_BAR, Before, lead_of
from ripresa.core.playing.pulse import Pulse
from ripresa.core.playing.score import Score, Tick, Tone, Window, bar_parts, in_turn, room, within
from ripresa.core.playing.speech import SILENT, Spoken, speech
from ripresa.core.playing.struck import Drum, drum_of
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Level, check_bpm, span_seconds

#: Seconds from one tone of a rolled chord to the next: our choice.
ROLL = Fraction(1, 40)
#: How the second layer sounds: a low F, short.
_SECOND_MIDI, _SECOND_SECONDS = 41, Fraction(1, 5)


class TimedTone(Record, frozen=True):
    """A note to sound: index of its event, seconds from the start, seconds long, heard MIDI note or None.

    ``also`` are the heard notes that sound with it: the other tones of a chord; ``apart`` the seconds from one of them
    to the next. ``loud`` is the share of its loudness that it has beside another hand; ``drum`` its sound where it is
    struck without pitch.
    """

    event: int
    at: float
    seconds: float
    midi: int | None
    level: Level
    also: tuple[int, ...] = ()
    loud: float = 1.0
    apart: float = 0.0
    drum: Drum | None = None


class TimedTick(Record, frozen=True):
    """A click: seconds from the start of its part, and its level or role."""

    at: float
    level: Literal["strong", "plain", "division", "count"]


class TimedSaid(Record, frozen=True):
    """A word that is spoken: when its vowel sounds, seconds until the next word, and the word."""

    at: float
    seconds: float
    word: str


class TimedWord(Record, frozen=True):
    """A word that is shown, of the count-in or of a division that is said, and when."""

    at: float
    word: str


class TimedRehearsal(Record, frozen=True):
    """A division that is said before it is played: when, for how long in seconds, and which."""

    at: float
    seconds: float
    division: str


class BarSpan(Record, frozen=True):
    """A bar of a turn, or the part of it that is played.

    Args:
        at: When it begins, in seconds from the start of the turn. number: Its number in the drill, from 1.
        begin, end: The part of it, in beats from its start.
        cue: The lines of technique that hold in it; empty without.
    """

    at: float
    number: int
    begin: float
    end: float
    cue: str = ""


class PulseTick(Record, frozen=True):
    """A beat of the inner pulse: seconds from the start of the first turn, and how loud, from 0 to 1."""

    at: float
    loud: float


class BackTone(Record, frozen=True):
    """A note of the backing: seconds from the start of a turn, seconds long, heard MIDI notes or a drum."""

    at: float
    seconds: float
    midis: tuple[int, ...]
    drum: Drum | None


class TimedLead(Record, frozen=True):
    """What comes before the first note, in seconds from its own start.

    Args:
        listen_seconds: Length of the listen-in. rehearsals: The divisions that are said, in order.
        lines: The bar lines up to where the counting begins, that one too: on each of them a tempo may change.
        seconds: When the drill, or the part of it that is played, starts.
        until: When its first note is due; later where it begins with a pickup, and counted to there.
        words: What is shown. said: What is spoken.
    """

    listen_seconds: float
    rehearsals: tuple[TimedRehearsal, ...]
    lines: tuple[float, ...]
    seconds: float
    until: float
    ticks: tuple[TimedTick, ...]
    words: tuple[TimedWord, ...]
    said: tuple[TimedSaid, ...]


@dataclass(frozen=True, slots=True)
class Performance:
    """One turn of the loop in seconds, and the lead before the first; its parts are those of ``Score``."""

    bpm: Exact
    loop_seconds: float
    bars: tuple[BarSpan, ...]
    tones: tuple[TimedTone, ...]
    ticks: tuple[TimedTick, ...]
    click_seconds: float
    lead: TimedLead
    yours_from: float | None = None
    pulse: tuple[PulseTick, ...] = ()
    backing: tuple[BackTone, ...] = ()
    said: tuple[TimedSaid, ...] = ()
    told: tuple[str, ...] = ()


def perform(
    reading: Reading,
    bpm: Fraction,
    *,
    before: Before = COUNT_A_BAR,
    pulse: Pulse | None = None,
    back: Iterable[Accompaniment] = (),
    spoken: Spoken = SILENT,
    window: Window | None = None,
    turns: int | None = None,
    step: Step | None = None,
    layers: Collection[Entering] | None = None,
) -> Performance:
    """Return one turn of a reading in seconds.

    Args:
        before: What comes before the first note. pulse: The inner pulse, if it is to be heard.
        back: Parts of the backing that sound. spoken: What a voice says with it.
        window: The part that goes round, if not all of it. turns: Passes each in turn with the teacher, if any.
        step: The step of the way in, for its cues. layers: Those that are there; all of them unless said.

    Raises:
        OutOfRange: A tempo or turns out of range.
    """
    made = score(
        reading,
        bpm,
        before=before,
        pulse=pulse,
        back=back,
        spoken=spoken,
        window=window,
        step=step,
        layers=layers,
    )
    return timed(in_turn(made, turns) if turns is not None else made, bpm)


def score(
    reading: Reading,
    bpm: Fraction,
    *,
    before: Before = COUNT_A_BAR,
    pulse: Pulse | None = None,
    back: Iterable[Accompaniment] = (),
    spoken: Spoken = SILENT,
    window: Window | None = None,
    step: Step | None = None,
    layers: Collection[Entering] | None = None,
) -> Score:
    """Return one turn of a reading in beats; the tempo says what a voice can follow, and how fast a pulse goes.

    Args and raises: As ``perform``.
    """
    check_bpm(bpm)
    start = window.start if window else Fraction(0)
    lead, too_fast = lead_of(reading, bpm, before, start)
    said = speech(reading, bpm, spoken)
    tones = sorted([*_tones(reading), *_second(reading, bpm)], key=lambda tone: tone.at)
    if layers is not None:
        # Whoever is not there yet keeps the time in silence; a foot that is there is heard.
        tones = tones if "hands" in layers else []
        said = said if "count" in layers else replace(said, words=())
        back = [one for one in back if one != "foot"] + (["foot"] if "foot" in layers else [])
    cycle = reading.click_cycle
    whole = Score(
        beats=reading.loop_beats,
        bars=tuple(bar_parts(reading, Fraction(0), reading.loop_beats, step)),
        tones=tuple(tones),
        ticks=tuple(Tick(at, level) for at, level in cycle.within(cycle.length)),
        click_beats=cycle.length,
        lead=lead,
        backing=tuple(backing(reading, back)),
        pulse=tuple(pulse.beats(bpm, reading.meter)) if pulse else (),
        said=tuple(room(said.words, reading.loop_beats)),
        told=tuple(dict.fromkeys((*too_fast, *said.sentences))),
    )
    return within(whole, reading, window, step) if window else whole


def timed(made: Score, bpm: Fraction) -> Performance:
    """Return a score in seconds at a tempo."""

    beat = span_seconds(Fraction(1), bpm)
    above, below = beat.numerator, beat.denominator

    def seconds(beats: Fraction) -> float:
        # One division of whole numbers is rounded once, as the fraction itself would be.
        return beats.numerator * above / (beats.denominator * below)

    lead = made.lead
    return Performance(
        bpm=bpm,
        loop_seconds=seconds(made.beats),
        bars=tuple(
            BarSpan(seconds(bar.at), bar.number, float(bar.begin), float(bar.end), bar.cue) for bar in made.bars
        ),
        tones=tuple(
            TimedTone(
                tone.event,
                seconds(tone.at),
                seconds(tone.beats),
                tone.midis[0] if tone.midis else None,
                tone.level,
                tone.midis[1:],
                float(tone.loud),
                float(tone.apart),
                tone.drum,
            )
            for tone in made.tones
        ),
        ticks=tuple(TimedTick(seconds(tick.at), tick.level) for tick in made.ticks),
        click_seconds=seconds(made.click_beats),
        lead=TimedLead(
            listen_seconds=seconds(lead.listen),
            rehearsals=tuple(
                TimedRehearsal(seconds(one.at), seconds(one.beats), one.division) for one in lead.rehearsals
            ),
            lines=tuple(seconds(at) for at in lead.lines),
            seconds=seconds(lead.beats),
            until=seconds(lead.until),
            ticks=tuple(TimedTick(seconds(tick.at), tick.level) for tick in lead.ticks),
            words=tuple(TimedWord(seconds(at), word) for at, word in lead.words),
            said=tuple(TimedSaid(seconds(one.at), seconds(one.beats), one.word) for one in lead.said),
        ),
        yours_from=None if made.yours_from is None else seconds(made.yours_from),
        pulse=tuple(PulseTick(seconds(at), loud) for at, loud in made.pulse),
        backing=tuple(BackTone(seconds(one.at), seconds(one.beats), one.midis, one.drum) for one in made.backing),
        said=tuple(TimedSaid(seconds(one.at), seconds(one.beats), one.word) for one in made.said),
        told=made.told,
    )


def _tones(reading: Reading) -> Iterable[Tone]:
    indexes = {id(event): index for index, event in enumerate(reading.every)}
    for event, length in reading.sounding():
        yield Tone(
            indexes[id(event)],
            event.onset,
            reading.lasts(event, length),
            reading.heard(event),
            event.accent,
            reading.loudness(event),
            ROLL if event.how.rolled else Fraction(0),
            drum_of(reading, event),
        )


def _second(reading: Reading, bpm: Fraction) -> Iterable[Tone]:
    """Yield the second layer as low notes; each lights the event that goes on there."""
    index = 0
    for onset in reading.second:
        while index + 1 < len(reading.events) and reading.events[index + 1].onset <= onset:
            index += 1
        yield Tone(index, onset, _SECOND_SECONDS * bpm / 60, (_SECOND_MIDI,), "plain")
