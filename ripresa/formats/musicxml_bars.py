"""The bars of a MusicXML part in the order in which they are played, each as long as its meter says.

Time is counted from the notes: files begin with a short bar, break off in the middle of one for a repeat sign, or leave
rests out. What is short gets its silence, what is long the bars that it fills, and what is changed is told.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import chain
from math import ceil

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction, plural
from ripresa.core.pitch import Pitch
from ripresa.core.rhythm import Level
from ripresa.formats.bounds import MOST_SCORE_BARS
from ripresa.formats.parts import Sounded

#: How often a repeat sign may ask for a stretch.
_MOST_TIMES = 16
#: The number of the last note that is tied on, and its voice, by staff and pitch.
_Lasting = dict[tuple[str, int | None], tuple[int, str]]


@dataclass(frozen=True, slots=True)
class Struck:
    """A note inside its bar: where and how long in quarters, on which staff, and whether a tie ends or begins there."""

    staff: str
    at: Fraction
    length: Fraction
    pitch: Pitch | None
    accent: Level
    tied_from: bool
    tied_on: bool
    stroke: str = ""
    voice: str = ""


@dataclass(slots=True)
class RawBar:
    """A bar as it stands in the file.

    Args:
        name: Its number there. filled: Quarters up to the end of its last note or rest.
        signature: The meter in force. is_pickup: Whether the file says that it is none by itself.
        opens, closes: Whether a repeat begins and ends with it; times: how often the repeat is played.
        endings: The passes in which it is played; empty for all.
    """

    name: str
    signature: tuple[int, int]
    notes: list[Struck] = field(default_factory=list)
    filled: Fraction = Fraction(0)
    is_pickup: bool = False
    opens: bool = False
    closes: bool = False
    times: int = 2
    endings: tuple[int, ...] = ()

    @property
    def whole(self) -> Fraction:
        """Quarters of a full bar."""
        above, below = self.signature
        return Fraction(4 * above, below)


@dataclass(frozen=True, slots=True)
class Played:
    """What the bars come to: notes, (onset, beats, beat type) of each meter, and what was changed, in sentences."""

    notes: tuple[Sounded, ...]
    meters: tuple[tuple[Fraction, int, int], ...]
    told: tuple[str, ...]


def played(bars: Sequence[RawBar]) -> Played:
    """Return bars as they are played, one after the other.

    Raises:
        Unreadable: Repeats make more bars of them than can be read.
    """
    order = list(chain.from_iterable(_order(bars)))
    told = []
    if len(order) > len(bars):
        told.append(f"Repeats are played out: {plural(len(bars), 'bar')} became {len(order)}.")
    notes: list[Sounded] = []
    meters: list[tuple[Fraction, int, int]] = []
    lasting: _Lasting = {}
    short: list[str] = []
    long: list[str] = []
    at = ended = left = Fraction(0)
    for place, bar in enumerate(order):
        inside = left
        after = order[place + 1].filled if place + 1 < len(order) else Fraction(0)
        if not inside:
            if not meters or meters[-1][1:] != bar.signature:
                meters.append((at, *bar.signature))
            inside = _silence_before(order, place)
        _sound(bar, at + inside, ended, notes, lasting)
        end = inside + bar.filled
        ended = at + end
        is_last = place + 1 == len(order)
        if bar.filled and end < bar.whole and end + after == bar.whole and not left:
            # A repeat sign in the middle of a bar: the next one is the rest of it.
            left = end
            continue
        left = Fraction(0)
        if end > bar.whole:
            long.append(bar.name)
        elif bar.filled and end < bar.whole and not is_last:
            short.append(bar.name)
        at += max(1, ceil(end / bar.whole)) * bar.whole
    told += _told("shorter", "silence fills it", short) + _told("longer", "it became several", long)
    return Played(tuple(sorted(notes, key=_onset)), tuple(meters) or ((Fraction(0), 4, 4),), tuple(told))


def _onset(note: Sounded) -> Fraction:
    return note.onset


def _told(than: str, what: str, names: Sequence[str]) -> list[str]:
    if not names:
        return []
    listed = ", ".join(names[:5]) + (" …" if len(names) > 5 else "")
    which = f"Bar {listed} is {than}" if len(names) == 1 else f"Bars {listed} are {than}"
    return [f"{which} than the meter says: {what}."]


def _silence_before(order: Sequence[RawBar], place: int) -> Fraction:
    """Return what stands before the notes of a bar: a short first one is a pickup, and ends on the bar line."""
    bar = order[place]
    follows = len(order) > 1
    if place or not bar.filled or bar.filled >= bar.whole or not (bar.is_pickup or follows):
        return Fraction(0)
    return bar.whole - bar.filled


def _sound(bar: RawBar, start: Fraction, ended: Fraction, notes: list[Sounded], lasting: _Lasting) -> None:
    """Append the notes of a bar; what is tied to a note that ends where it begins makes that one longer.

    A tie without its neighbour is none: the note is struck. Some programs write its beginning alone: then it goes on in
    its own voice. Where silence fills the bar before, ``ended`` is where its own notes did: a tie sounds through it.
    """
    for struck in bar.notes:
        key = struck.staff, struck.pitch.midi if struck.pitch else None
        onset = start + struck.at
        number, voice = lasting.get(key, (-1, ""))
        is_next = number >= 0 and notes[number].end in {onset, ended if onset == start else onset}
        goes_on = is_next and (struck.tied_from or struck.voice == voice)
        if goes_on:
            before = notes[number]
            notes[number] = Sounded(
                before.onset, onset + struck.length - before.onset, before.pitch, before.accent, before.stroke
            )
        else:
            notes.append(Sounded(onset, struck.length, struck.pitch, struck.accent, struck.stroke))
            number = len(notes) - 1
        if struck.tied_on:
            lasting[key] = number, struck.voice
        elif goes_on or not struck.voice or struck.voice == voice:
            lasting.pop(key, None)


def _order(bars: Sequence[RawBar]) -> Iterator[list[RawBar]]:
    """Yield stretches of bars as they are played: repeats as often as they say, endings in their pass."""
    start = place = count = 0
    while place < len(bars):
        bar = bars[place]
        if bar.opens:
            yield [*bars[start:place]]
            start = place
        if bar.closes:
            last = _last_ending(bars, place)
            for turn in range(1, bar.times + 1):
                inside = [one for one in bars[start : last + 1] if not one.endings or turn in one.endings]
                count += len(inside)
                if count > MOST_SCORE_BARS:
                    raise Unreadable(
                        f"The repeats of this score make more than {MOST_SCORE_BARS:,} bars. Save a part of it.",
                        field="file",
                    )
                yield inside
            start = place = last + 1
            continue
        place += 1
    yield [*bars[start:]]


def _last_ending(bars: Sequence[RawBar], place: int) -> int:
    """Return the last bar that belongs to a repeat: the one that closes it, or the ending that follows."""
    if not bars[place].endings:
        return place
    while place + 1 < len(bars) and bars[place + 1].endings and not bars[place + 1].opens:
        place += 1
    return place


def times_of(text: str | None) -> int:
    """Return how often a repeat is played, within bounds; twice where nobody says."""
    return min(max(int(text), 1), _MOST_TIMES) if text and text.isascii() and text.isdigit() and len(text) < 4 else 2
