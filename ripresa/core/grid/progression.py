"""Progressions: ``G D/F# | Em7 C`` read into chords that stand from beat to beat."""

import re
from dataclasses import dataclass

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction, label, parse_amount, plural
from ripresa.core.pitch import Chord, parse_chord
from ripresa.core.rhythm import Meter

LONGEST_TEXT = 1000
#: A chord among the bar lines and lengths of a progression.
CHORD_WORD = re.compile(r"[^\s|*]+(?=\*|\s|\||$)")
MOST_BARS = 64
#: The field to blame where nobody says another one.
_FIELD = "material.chords"


@dataclass(frozen=True, slots=True)
class ChordSpan:
    """A chord in a progression: from which beat, for how many beats."""

    chord: Chord
    start: Fraction
    beats: Fraction

    @property
    def end(self) -> Fraction:
        """Where the next chord begins."""
        return self.start + self.beats


def parse_progression(text: str, meter: Meter, field: str = _FIELD) -> tuple[ChordSpan, ...]:
    """Return the chords of a progression with their lengths.

    Bars are parted by ``|``. The chords of a bar share its whole beats, the first ones the longer, or say how
    many each has: ``C*3 G*1``. ``-`` goes on with the chord before; an empty bar too; ``N.C.`` is no chord.

    Raises:
        Unreadable: A chord cannot be read, or a bar does not come out even; the sentence says where.

    >>> from ripresa.core.rhythm import METERS
    >>> [(span.chord.symbol, str(span.beats)) for span in parse_progression("G D | Em*3 C*1", METERS["4/4"])]
    [('G', '2'), ('D', '2'), ('Em', '3'), ('C', '1')]
    """
    if len(text) > LONGEST_TEXT:
        raise Unreadable(f"A progression has up to {LONGEST_TEXT} signs, not {len(text)}.", field=field)
    bars = [bar.split() for bar in text.strip().strip("|").split("|")]
    if len(bars) > MOST_BARS:
        raise Unreadable(f"A progression has up to {MOST_BARS} bars, not {len(bars)}.", field=field)
    spans: list[ChordSpan] = []
    at = Fraction(0)
    for number, bar in enumerate(bars, start=1):
        for word, beats in _lengths(bar or ["-"], number, meter.bar(number).length, field):
            if word != "-":
                chord = parse_chord(word, f"Bar {number}: ", field)
            elif spans:
                chord = spans[-1].chord
            else:
                raise Unreadable(f"Bar {number} has no chord, and none stands before it. Write one: C.", field=field)
            spans.append(ChordSpan(chord, at, beats))
            at += beats
    return tuple(spans)


def _lengths(words: list[str], bar: int, beats: Fraction, field: str) -> list[tuple[str, Fraction]]:
    """Return the words of a bar with the beats of each."""
    parted = [word.partition("*") for word in words]
    if not any(star for _, star, _ in parted):
        return list(zip(words, shared(beats, len(words)), strict=True))
    found = []
    for word, star, length in parted:
        if not star:
            raise Unreadable(f"Bar {bar}: “{word}” needs its beats too: {word}*2, as the others have.", field=field)
        try:
            found.append((word, parse_amount(length)))
        except Unreadable as error:
            raise Unreadable(f"Bar {bar}: “{word}*{length}”: {error.message}", field=field) from error
    total = sum((length for _, length in found), Fraction(0))
    if total != beats or any(length <= 0 for _, length in found):
        raise Unreadable(
            f"Bar {bar}: its chords last {plural(total, 'beat')}, and the bar has {label(beats)}.", field=field
        )
    return found


def shared(beats: Fraction, count: int) -> list[Fraction]:
    """Return the beats of a bar as so many chords share them: alike, or whole ones with the first the longer.

    >>> [str(one) for one in shared(Fraction(4), 3)]
    ['2', '1', '1']
    """
    each = beats / count
    if each.denominator <= 2 or beats.denominator > 1 or count > beats:
        return [each] * count
    whole, over = divmod(int(beats), count)
    return [Fraction(whole + (number < over)) for number in range(count)]


def unequal_bars(text: str, meter: Meter) -> list[tuple[int, list[tuple[str, Fraction]]]]:
    """Return the bars whose chords do not say their beats and cannot have as many: number, and each chord's beats."""
    found = []
    for number, bar in enumerate(text.strip().strip("|").split("|"), start=1):
        words = bar.split()
        beats = shared(meter.bar(number).length, len(words)) if words and "*" not in bar else []
        if len(set(beats)) > 1:
            found.append((number, list(zip(words, beats, strict=True))))
    return found


def span_at(spans: tuple[ChordSpan, ...], beat: Fraction) -> ChordSpan:
    """Return the span that a beat lies in; the last goes on."""
    return next((span for span in reversed(spans) if span.start <= beat), spans[0])


def chord_at(spans: tuple[ChordSpan, ...], beat: Fraction) -> Chord:
    """Return the chord that is in force at a beat; the last goes on."""
    return span_at(spans, beat).chord
