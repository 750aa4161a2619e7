"""The spoken count: what a voice says while a drill is played, as far as a tongue can follow."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import groupby, pairwise
from typing import Literal

from ripresa.core.drill import VoiceRow
from ripresa.core.exact import Fraction, decimal, division_label, label, told_beside
from ripresa.core.grid import Event, LegReading
from ripresa.core.reading import Reading

What = Literal["nothing", "slots", "played", "beats", "row"]
Words = Literal["count", "names", "groups"]

WHATS: dict[What, tuple[str, str]] = {
    "nothing": ("counts in only", "The usual way: from the first note on the student counts inside."),
    "slots": ("says every slot", "The whole division aloud, rests too."),
    "played": ("says what is played", "A word for each note: the rhythm as it is spoken."),
    "beats": ("says the beats", "One word a beat, whatever the hands do."),
    "row": ("says its row of the drill", "What the drill asks of the voice: divisions, the phrase, or the groups."),
}
WORDS: dict[Words, tuple[str, str]] = {
    "count": ("in count words", "As the drill is counted; letters where it says letters."),
    "names": (
        "in note names",
        "What each note is called; a double sharp by its letter alone.",
    ),
    "groups": ("in the numbers of the groups", "1 2 3 4 5 of each group, against the count of the bar."),
}
#: Syllables a second that a voice manages: full sixteenth counts end near 100 bpm, triplets near 133.
MOST_SYLLABLES = Fraction(67, 10)

#: From the fullest to the thinnest; what a voice cannot follow is thinned step by step.
_THINNER = ("slots", "played", "beats", "bars")
_THINNED = {
    "slots": "every slot",
    "played": "what is played",
    "beats": "the beats only",
    "bars": "the first beat of each bar only",
}
#: Numbers of one syllable; seven is said short, as one counts.
_ONE_SYLLABLE = {*range(1, 11), 12}
_VOWELS = re.compile(r"[aeiouyäöüáéíóúàèìòùâêîôû]+", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Spoken:
    """What the teacher asks the voice for.

    Args:
        what: Nothing, every slot, what is played, or the beats.
        words: In count words, note names, or the numbers of the groups.
    """

    what: What = "nothing"
    words: Words = "count"


SILENT = Spoken()
#: What the voice row of a drill comes to; of something else one talks freely.
_ROWS: dict[VoiceRow, Spoken] = {
    "silent": SILENT,
    "divisions": Spoken("slots"),
    "sung": Spoken("played", "names"),
    "groups": Spoken("played", "groups"),
    "talk": SILENT,
}


@dataclass(frozen=True, slots=True)
class Speech:
    """What is said over one turn.

    Args:
        words: (onset in beats, word), in order.
        sentences: Where it had to be thinned, and why; one for each division.
    """

    words: tuple[tuple[Fraction, str], ...]
    sentences: tuple[str, ...] = ()


@lru_cache(maxsize=512)
def syllables(word: str) -> int:
    """Return how many syllables a word takes; a sharp or a flat is a second one.

    >>> [syllables(word) for word in ("1", "&", "trip", "ready", "B♭", "7", "13")]
    [1, 1, 1, 2, 2, 1, 2]
    """
    if word.isdigit():
        return 1 if int(word) in _ONE_SYLLABLE else 2 if int(word) <= 20 else 3
    if len(word) == 1:
        return 1
    if word[0].isupper() and word[1] in "♯♭":
        return 2
    return max(1, len(_VOWELS.findall(word)))


def fits(words: Sequence[tuple[Fraction, str]], bpm: Fraction) -> bool:
    """Return whether a voice can say words at their onsets (beats) at a tempo."""
    least = bpm / 60 / MOST_SYLLABLES
    return all(after - at >= syllables(word) * least for (at, word), (after, _) in pairwise(words))


def peak_rate(words: Sequence[tuple[Fraction, str]], bpm: Fraction) -> Fraction:
    """Return the most syllables a second that words at their onsets (beats) ask for: syllables / gap.

    >>> peak_rate([(Fraction(n, 4), "e") for n in range(8)], Fraction(105))
    Fraction(7, 1)
    """
    rates = (syllables(word) / (after - at) for (at, word), (after, _) in pairwise(words) if after > at)
    return max(rates, default=Fraction(0)) * bpm / 60


def speech(reading: Reading, bpm: Fraction, spoken: Spoken) -> Speech:
    """Return what is said over one turn of a reading at a tempo.

    A leg whose words come faster than a voice can say them is thinned: from
    every slot to what is played, to the beats, to the first beat of each bar.
    """
    asked = _ROWS[reading.drill.voice] if spoken.what == "row" else spoken
    if asked.what == "nothing":
        return Speech(())
    found: list[tuple[Fraction, str]] = []
    sentences: dict[str, None] = {}
    for index, events in groupby(reading.events, key=lambda event: event.leg):
        said, sentence = _leg(reading, reading.legs[index], list(events), bpm, asked.what, asked.words)
        found += said
        if sentence:
            sentences[sentence] = None
    # A count that enters later is silent until then.
    from_there = reading.meter.bar_start(reading.drill.enters.count)
    return Speech(tuple(one for one in found if one[0] >= from_there), tuple(sentences))


def voice_row(reading: Reading, bpm: Fraction) -> Speech:
    """Return what the voice row of a drill says over one turn, as far as a voice can follow at a tempo."""
    return speech(reading, bpm, Spoken("row"))


def _leg(
    reading: Reading, leg: LegReading, events: Sequence[Event], bpm: Fraction, what: What, words: Words
) -> tuple[list[tuple[Fraction, str]], str]:
    named = list(_named(events, words))
    asked: list[tuple[Fraction, str]] = []
    for thinner in _THINNER[_THINNER.index(what) :]:
        said = list(_thinned(reading, leg, named, thinner, words))
        asked = asked or said
        if fits(said, bpm):
            break
    if said == asked:
        return said, ""
    return said, too_fast(_THINNED[thinner], _THINNED[what], asked, leg.divisions, bpm)


def too_fast(
    says: str, instead_of: str, asked: Sequence[tuple[Fraction, str]], divisions: Sequence[Fraction], bpm: Fraction
) -> str:
    """Return the sentence for words (onset in beats, word) that no voice can follow at a tempo."""
    return (
        f"At {division_label(*divisions)} a beat and {label(bpm)} bpm the voice says {says}: "
        f"{instead_of} would be {told_beside(peak_rate(asked, bpm), MOST_SYLLABLES)} syllables a second, "
        f"and a voice manages about {decimal(MOST_SYLLABLES, 1)}."
    )


def _thinned(
    reading: Reading, leg: LegReading, named: Sequence[tuple[Event, str]], how: str, words: Words
) -> Iterator[tuple[Fraction, str]]:
    """Yield the words of a leg at a step of the thinning."""
    match how:
        case "slots":
            yield from ((event.onset, word) for event, word in named)
        case "played":
            yield from ((event.onset, word) for event, word in named if event.kind == "note")
        case _:
            meter = reading.meter
            at_slot = {event.onset: word for event, word in named if event.slot == 0}
            counting = reading.drill.counting
            for at in meter.beats_until(leg.start + leg.beats, meter.bar_start(meter.place(leg.start)[0])):
                _, number, _ = meter.place(at)
                if at < leg.start or (how == "bars" and number > 1):
                    continue
                # A division that spans beats has no slot on some; the beat is counted all the same.
                # Numbers that go on over bars are known where a slot says them.
                plain = words == "count" and counting.runs == "bar"
                word = at_slot.get(at) or (counting.word(Fraction(1), number, 0) if plain else "")
                if word:
                    yield at, word


def _named(events: Sequence[Event], words: Words) -> Iterator[tuple[Event, str]]:
    """Yield the events that have a word, with it."""
    for event in events:
        match words:
            case "count":
                if event.count:
                    yield event, event.count
            case "names":
                if event.kind == "note" and event.pitch:
                    yield event, event.pitch.shown.rstrip("0123456789-𝄪𝄫")
            case "groups":
                if event.in_group is not None:
                    yield event, str(event.in_group)
