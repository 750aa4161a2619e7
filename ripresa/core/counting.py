"""Count words: what is said on each slot of a beat."""

from fractions import Fraction

_NUMBERS: dict[int, tuple[str, ...]] = {
    1: ("{beat}",),
    2: ("{beat}", "&"),
    3: ("{beat}", "trip", "let"),
    4: ("{beat}", "e", "&", "a"),
}


def count_word(division: Fraction, beat: int, slot: int) -> str:
    """Return the word for a slot, in numbers: ``1``, ``&``, ``trip``; from five up ``1 2 3 4 5``.

    Args:
        division: Notes per beat; n/m is n notes in the time of m beats, and is counted as n.
        beat: The beat in its bar, from 1.
        slot: The slot in its beat, from 0.

    >>> [count_word(Fraction(4), 2, slot) for slot in range(4)]
    ['2', 'e', '&', 'a']
    """
    if slot == 0:
        return str(beat)
    words = _NUMBERS.get(division.numerator)
    return words[slot] if words else str(slot + 1)


def place_name(bar: int, beat: int, word: str) -> str:
    """Return a position as it is said: ``bar 2, beat 3, &``; on the beat the word is left out.

    >>> place_name(2, 3, "&"), place_name(4, 3, "3")
    ('bar 2, beat 3, &', 'bar 4, beat 3')
    """
    name = f"bar {bar}, beat {beat}"
    return name if word == str(beat) else f"{name}, {word}"
