"""The words of a typed count, read; ``ripresa.core.reading.reading.count_text`` writes them.

A number is its beat. ``&`` halves it; ``e & a`` are the quarters; ``trip let``
the thirds. From five up the beat names its division and dots name its slots:
``1/5 .2 .3 .4 .5``. Brackets are rests: ``(3)``. ``>`` before a word is an
accent, ``~`` a ghost, ``x`` a damped stroke: ``x3``; ``-`` a word that is held over: ``1 a -2 &``. ``|`` is a
bar line, and before it an empty bar counts; without one a bar ends where the
numbers begin again with 1. What is not said is held. After ``a`` a ``+`` is the fifth quarter of a beat that is so
long: ``3 e & a +``. Words may be typed close together, ``1&2&``; a bar is also told
as ``& of 1 and 3``, or as ``every &``.
"""

import re
from collections.abc import Callable, Iterable, Iterator, Sized
from dataclasses import dataclass, field
from typing import NamedTuple

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction
from ripresa.core.rhythm.kinds import Level, SlotKind

_WORD = re.compile(r"^(?P<accent>[>~x-]?)(?P<open>\(?)(?P<word>\d{1,2}(?:/\d{1,2})?|\.\d{1,2}|[a-z&+]+)(?P<close>\)?)$")
#: Word → (division it asks for, slot).
_FIFTH = "a +"
_SLOTS = {"&": (2, 1), "+": (2, 1), "and": (2, 1), "e": (4, 1), "a": (4, 3), "trip": (3, 1), "let": (3, 2)}
_SLOTS[_FIFTH] = (5, 4)
#: The way back: division → the word of each slot but the first, which is the number of the beat.
_WORDS = {1: ("",), 2: ("", "&"), 3: ("", "trip", "let"), 4: ("", "e", "&", "a")}
_ACCENTS: dict[str, Level] = {">": "accent", "~": "ghost"}
_DEAD = "x"
_LARGEST_DIVISION = 16
#: Beats that are said for every one; a bar of more is typed out.
_MOST_BEATS = 16
_SAID = r"([>~x]?(?:e|&|and|a|trip|let))s?"
_OF = re.compile(rf"^\s*(?:the\s+)?{_SAID}\s+of\s+(\d{{1,2}}(?:\s*(?:,|and|\s)\s*\d{{1,2}})*)\s*$")
_EVERY = re.compile(rf"^\s*(?:on\s+)?every\s+{_SAID}\s*$")
_CLOSE = re.compile(r"[>~x-]?(?:\(?(?:\d{1,2}(?:/\d{1,2})?|\.\d{1,2}|trip|let|and|[e&a+])\)?)")


class Filled(NamedTuple):
    """What fills a slot: a note or a rest, None where nothing is said; its level; whether it is damped."""

    kind: SlotKind | None = None
    accent: Level | None = None
    dead: bool = False


class CountedBeat(NamedTuple):
    """One beat of a count: bar and beat from 1, and what fills each slot; None where nothing is said.

    ``goes_on``: It was counted in quarters, and on to a fifth. ``of_every``: It is said of every beat that there is.
    """

    bar: int
    beat: int
    division: int
    slots: tuple[Filled, ...]
    goes_on: bool = False
    of_every: bool = False


@dataclass(slots=True)
class _Beat:
    """A beat while it is read: slot words so far, in order."""

    bar: int
    beat: int
    division: int | None
    first: Filled
    words: list[tuple[int, str, Filled]] = field(default_factory=list)


def parse_count(text: str) -> tuple[CountedBeat, ...]:
    """Return the beats that are said, in order.

    Raises:
        Unreadable: A word cannot be read, or does not fit where it stands.

    >>> [(beat.beat, beat.division) for beat in parse_count("1 & a 2 trip let (3)")]
    [(1, 4), (2, 3), (3, 1)]
    """
    beats: list[_Beat] = []
    bar, fresh = 1, True
    every: set[int] = set()
    for place, (word, of_every) in enumerate(_as_words(text), start=1):
        if word == "|":
            bar, fresh = bar + 1, True
            continue
        found = _WORD.match(word)
        if not found or bool(found["open"]) != bool(found["close"]):
            raise _unreadable(
                place, word, "is not a word of a count. Write 1 e & a, trip let, (3) for a rest, > for an accent"
            )
        is_dead = found["accent"] == _DEAD and not found["open"]
        filled = Filled("rest" if found["open"] else "note", _ACCENTS.get(found["accent"]), is_dead)
        if found["accent"] == "-":
            filled = Filled()
        name = found["word"]
        if name[0].isdigit():
            number, _, division = name.partition("/")
            if not fresh and int(number) <= beats[-1].beat:
                if int(number) != 1:
                    raise _unreadable(
                        place,
                        word,
                        f"comes after beat {beats[-1].beat}. Write {beats[-1].beat + 1}, or 1 for the next bar",
                    )
                bar += 1
            beats.append(_new_beat(place, word, bar, int(number), division, filled))
            every |= {bar} if of_every else set()
            fresh = False
            continue
        if not beats or fresh:
            raise _unreadable(place, word, "has no beat before it. Write the number of its beat first, (1) for a rest")
        _add_word(beats[-1], place, word, name, filled)
    if not beats:
        raise Unreadable("A count needs at least one beat: 1 & 2 &.", field="material.text")
    return tuple(_counted(beat)._replace(of_every=beat.bar in every) for beat in beats)


def _as_words(text: str) -> Iterator[tuple[str, bool]]:
    """Yield the words of a count, and whether each is said of every beat.

    Words may be typed close together, ``1&2&``; a bar may be told as ``& of 1 and 3``, or as ``every &``.
    """
    for number, bar in enumerate(text.split("|")):
        yield from [("|", False)] * (number > 0)
        of, every = _OF.match(bar), _EVERY.match(bar)
        if of:
            for beat in sorted({int(beat) for beat in re.findall(r"\d+", of[2])}):
                yield from ((f"({beat})", False), (of[1], False))
        elif every:
            for beat in range(1, _MOST_BEATS + 1):
                yield from ((f"({beat})", True), (every[1], True))
        else:
            for word in bar.split():
                close = _CLOSE.findall(word)
                yield from ((one, False) for one in (close if "".join(close) == word else [word]))


def there(beats: Iterable[CountedBeat], beats_of: Callable[[int], Sized]) -> tuple[CountedBeat, ...]:
    """Return the beats that a meter has, of those that are said of every beat; others stay, to be refused."""
    return tuple(beat for beat in beats if not beat.of_every or beat.beat <= len(beats_of(beat.bar)))


def slot_word(division: Fraction, beat: int, slot: int) -> str:
    """Return how a slot is typed: its number on the beat, then its word; from five up with its division.

    >>> [slot_word(Fraction(4), 2, slot) for slot in range(4)], [slot_word(Fraction(5), 1, slot) for slot in range(2)]
    (['2', 'e', '&', 'a'], ['1/5', '.2'])
    """
    if division.numerator in _WORDS:
        return _WORDS[division.numerator][slot] or str(beat)
    return f".{slot + 1}" if slot else f"{beat}/{division.numerator}"


def coarse(slots: tuple[Filled, ...]) -> tuple[Filled, ...]:
    """Return the slots of a beat without places between them that say nothing."""
    while len(slots) % 2 == 0 and not any(filled.kind for filled in slots[1::2]):
        slots = slots[::2]
    return slots


def write_count(beats: Iterable[CountedBeat], numbered: int | None = None) -> str:
    """Return beats as they are typed; ``parse_count`` reads them again.

    Args:
        numbered: A beat whose slots are told by number, because e & a and trip let would be another length in it.

    >>> write_count(parse_count("1 & >a 2 trip let (3) -4 & | x1/5 .3"))
    '1 & >a 2 trip let (3) -4 & | x1/5 .3'
    """
    bars: dict[int, list[str]] = {}
    for beat in beats:
        said = [slot for slot, filled in enumerate(beat.slots) if filled.kind]
        for slot in said if said[:1] == [0] else [0, *said]:
            word = slot_word(Fraction(beat.division), beat.beat, slot)
            if beat.beat == numbered and beat.division > 1:
                word = f".{slot + 1}" if slot else f"{beat.beat}/{beat.division}"
            elif not slot and parse_count(_joined(beat, said))[0].division != beat.division:
                # Where not every word of its division is said, the others do not tell it.
                word = f"{beat.beat}/{beat.division}"
            bars.setdefault(beat.bar, []).append(_signed(word, beat.slots[slot]))
    return " ".join(word for bar in range(1, max(bars) + 1) for word in (*["|"] * (bar > 1), *bars.get(bar, ())))


def _joined(beat: CountedBeat, said: list[int]) -> str:
    return " ".join(slot_word(Fraction(beat.division), 1, slot) for slot in sorted({0, *said}))


def _signed(word: str, filled: Filled) -> str:
    if filled.kind is None:
        return f"-{word}"
    if filled.kind == "rest":
        return f"({word})"
    signs = {level: sign for sign, level in _ACCENTS.items()}
    return (_DEAD if filled.dead else signs[filled.accent] if filled.accent else "") + word


def parse_named(text: str, name: str, field: str) -> tuple[CountedBeat, ...]:
    """Return the beats of a count that is shown under another name, such as ``the pattern``.

    Raises:
        Unreadable: As ``parse_count``, with that name in the sentence and that field to blame.
    """
    try:
        return parse_count(text)
    except Unreadable as error:
        raise Unreadable(error.message.replace("the count", name), field=field) from error


def _new_beat(place: int, word: str, bar: int, number: int, division: str, filled: Filled) -> _Beat:
    if number < 1:
        raise _unreadable(place, word, "is not a beat. Beats are counted from 1")
    if division and not 1 <= int(division) <= _LARGEST_DIVISION:
        raise _unreadable(place, word, f"asks for more slots than a beat has. Use /1 to /{_LARGEST_DIVISION}")
    return _Beat(bar, number, int(division) if division else None, filled)


def _add_word(beat: _Beat, place: int, word: str, name: str, filled: Filled) -> None:
    if name.startswith("."):
        slot, asked = int(name[1:]) - 1, beat.division
        if asked is None:
            raise _unreadable(place, word, f"needs the division at its beat: {beat.beat}/5 .2 .3")
        if not 1 <= slot < asked:
            raise _unreadable(place, word, f"is not a slot of {asked} a beat. Use .2 to .{asked}")
    elif name in _SLOTS:
        if name == "+" and beat.words and beat.words[-1][1] == "a":
            name = _FIFTH
        asked, _ = _SLOTS[name]
        if beat.division and beat.division % asked:
            raise _unreadable(
                place, word, f"is not a slot of {beat.division} a beat. Write .2 and on, or {beat.beat} alone before it"
            )
    else:
        raise _unreadable(place, word, "is not a word of a count. Use &, e & a, or trip let")
    beat.words.append((asked, name, filled))
    divisions = {one for one, _, _ in beat.words}
    if 3 in divisions and divisions & {2, 4}:
        raise _unreadable(
            place, word, f"does not go with {beat.words[0][1]} in beat {beat.beat}: trip let or e & a, not both"
        )
    slots = [_slot_of(one, max(divisions)) for _, one, _ in beat.words]
    if slots != sorted(set(slots)):
        raise _unreadable(place, word, f"comes too late in beat {beat.beat}: its words stand in order, each once")


def _slot_of(name: str, division: int) -> int:
    if name.startswith("."):
        return int(name[1:]) - 1
    asked, slot = _SLOTS[name]
    return slot * division // asked


def _counted(beat: _Beat) -> CountedBeat:
    division = beat.division or max((asked for asked, _, _ in beat.words), default=1)
    slots: list[Filled] = [Filled()] * division
    slots[0] = beat.first
    for _, name, filled in beat.words:
        slots[_slot_of(name, division)] = filled
    goes_on = any(name == _FIFTH for _, name, _ in beat.words)
    return CountedBeat(beat.bar, beat.beat, division, tuple(slots), goes_on)


def _unreadable(place: int, word: str, why: str) -> Unreadable:
    return Unreadable(f"Word {place} of the count, “{word}”, {why}.", field="material.text")
