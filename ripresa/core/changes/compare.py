"""Comparing two drills: what differs, in words read off their events; and what a drill can be heard against."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from ripresa.core.changes.cells import with_cells
from ripresa.core.changes.mirror import mirrored
from ripresa.core.drill import ENTERING, FEET, Drill
from ripresa.core.drill.accents import EveryNth, NoAccents, TypedAccents
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction, capital, decimal, label, listed, plural, short
from ripresa.core.grid import Event
from ripresa.core.playing import before_it_was_moved
from ripresa.core.reading import Reading, read
from ripresa.core.reports import peak_of
from ripresa.core.rhythm import slot_name, span_seconds

#: Places that are named one by one; more are told by their number.
_MOST_NAMED = 6
#: Strokes that are each other in the mirror.
_SIDES = ({"D", "U"}, {"R", "L"}, {"i", "a"}, {"p", "a"}, {"i", "m"}, {"p′", "a"})
_WAYS = {"D": "down", "U": "up"}


@dataclass(frozen=True, slots=True)
class Compared:
    """Another drill to hear a drill against: what it is called, and its reading."""

    name: str
    reading: Reading


def others(drill: Drill) -> tuple[Compared, ...]:
    """Return what a drill can be heard against in one press; only what can be read and sounds otherwise."""
    found = []
    for name, change in _OTHERS:
        try:
            other = change(drill)
            if other != drill:
                found.append(Compared(name, read(other)))
        except RipresaError:
            # Not every drill has hands to turn over or a bar to lengthen.
            continue
    return tuple(found)


def differences(before: Reading, after: Reading, bpm: Fraction) -> tuple[str, ...]:
    """Return what differs between two drills at one tempo, in sentences; the same sounds are said to be the same.

    Args:
        before: What is heard first. after: What it is held against.
    """
    found = [sentence for told in _TOLD for sentence in told(before, after, bpm)]
    return tuple(found) or ("Both sound the same.",)


def turned(before: Reading, after: Reading) -> tuple[int, ...]:
    """Return the numbers of the notes of ``after`` whose stroke goes the other way than it did at the same place."""
    return tuple(event.number for event in _turned(before, after))


def turned_told(before: Reading, after: Reading) -> tuple[str, ...]:
    """Return which strokes go the other way than they did at the same place, in a sentence; nothing where none does."""
    return tuple(_hands(before, after, Fraction(60)))


@dataclass(frozen=True, slots=True)
class _Turned:
    number: int
    before: Event
    after: Event


def _turned(one: Reading, other: Reading) -> list[_Turned]:
    strokes = {event.onset: event for event in one.events if event.stroke}
    found = []
    for number, event in enumerate(other.events):
        was = strokes.get(event.onset)
        if was and event.kind == "note" and {was.stroke, event.stroke} in _SIDES:
            found.append(_Turned(number, was, event))
    return found


def _bar(one: Reading, other: Reading, bpm: Fraction) -> Iterator[str]:
    before, after = one.meter.bar(1).length, other.meter.bar(1).length
    if before != after:
        was, now = (decimal(span_seconds(beats, bpm), 3) for beats in (before, after))
        yield f"A bar lasts {label(after)} beats instead of {label(before)}: {now} s instead of {was}. The beat stays."


def _length(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    if one.bars != other.bars:
        yield f"It lasts {plural(other.bars, 'bar')} instead of {label(one.bars)}."


def _enters(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    if one.drill.enters != other.drill.enters:
        told = listed([f"{ENTERING[name][0]} in bar {bar}" for name, bar in other.drill.enters.order if bar > 1])
        yield f"{capital(told)}, silent until then." if told else "All layers begin in bar 1."


def _onsets(one: Reading, other: Reading, bpm: Fraction) -> Iterator[str]:
    before, after = _sounding(one), _sounding(other)
    if before == after:
        return
    was, now = (sum(event.kind == "note" for event in reading.every) for reading in (one, other))
    if was != now:
        yield f"{plural(now, 'note')} instead of {was}."
    speeds = [peak_of(reading) * bpm / 60 for reading in (one, other)]
    if speeds[0] != speeds[1]:
        yield f"{short(speeds[1])} notes a second at its fastest instead of {short(speeds[0])}."
    elif len(before) == len(after):
        moved = {late - early for (_, early), (_, late) in zip(sorted(before), sorted(after), strict=True)}
        if len(moved) == 1:
            by = moved.pop()
            yield f"All of it comes {plural(abs(by), 'beat')} {'later' if by > 0 else 'earlier'}."
        else:
            yield f"{plural(len(after - before), 'note begins', 'notes begin')} somewhere else."


def _accents(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    before, after = _places(one, "accent"), _places(other, "accent")
    if before != after:
        yield f"Accents on {_named(after)} instead of {_named(before)}."


def _groups(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    before, after = (getattr(reading.drill.accents, "size", 0) for reading in (one, other))
    if before != after and after:
        yield f"Groups of {after}" + (f" instead of {before}." if before else ".")


def _pitches(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    if _sounding(one) != _sounding(other):
        return
    tones = {(event.onset, event.hand): event.tones for event in one.every if event.kind == "note"}
    struck = (event for event in other.every if event.kind == "note")
    moved = sum(tones.get((event.onset, event.hand)) != event.tones for event in struck)
    if moved:
        yield f"{plural(moved, 'note lies', 'notes lie')} elsewhere; all begin where they did."


def _hands(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    found = _turned(one, other)
    if not found:
        return
    names = dict.fromkeys(_place(turned.after) for turned in found)
    was, now = (_WAYS.get(event.stroke or "", event.stroke or "") for event in (found[0].before, found[0].after))
    more = ", and the other way round" if len({turned.after.stroke for turned in found}) > 1 else ""
    yield f"The stroke turns round on {_named(list(names))}: {now} instead of {was}{more}."


def _feet(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    before, after = one.drill.foot.which, other.drill.foot.which
    if before != after:
        yield f"{capital(FEET[after][0])} instead of {FEET[before][0]}."


def _hits(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    before, after = ({at for at, _ in reading.hits} for reading in (one, other))
    if before != after:
        yield f"{plural(len(after), 'hit')} of the layer instead of {len(before)}."


def _lengths(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    was, now = one.drill.articulation, other.drill.articulation
    if was != now:
        yield f"Notes sound for {label(now)} of their length instead of {label(was)}."


def _click(one: Reading, other: Reading, _bpm: Fraction) -> Iterator[str]:
    if one.drill.click != other.drill.click:
        yield f"The click is {other.drill.click.words} instead of {one.drill.click.words}."


_TOLD: tuple[Callable[[Reading, Reading, Fraction], Iterator[str]], ...] = (
    _bar,
    _length,
    _enters,
    _onsets,
    _accents,
    _groups,
    _pitches,
    _hands,
    _feet,
    _hits,
    _lengths,
    _click,
)


def _sounding(reading: Reading) -> frozenset[tuple[str, Fraction]]:
    """Return hand and onset of each note: of two hands each has its own."""
    return frozenset((event.hand or "", event.onset) for event in reading.every if event.kind == "note")


def _places(reading: Reading, level: str) -> list[str]:
    return list(dict.fromkeys(_place(event) for event in reading.notes if event.accent == level))


def _place(event: Event) -> str:
    """Return the slot of a note in a beat, whatever beat it is: ``the beat``, ``&``."""
    return slot_name(event.division, event.slot, event.span) or "the beat"


def _named(places: Sequence[str]) -> str:
    if not places:
        return "nothing"
    return listed(places) if len(places) <= _MOST_NAMED else plural(len(places), "place")


def _elsewhere(drill: Drill) -> Drill:
    """Return a drill whose accent stands on the second slot of each beat."""
    return replace(drill, accents=TypedAccents(("plain", "accent", *("plain",) * 14), "beat"))


def _other_groups(drill: Drill) -> Drill:
    size = getattr(drill.accents, "size", None)
    return replace(drill, accents=EveryNth(size=5 if size is None else size + 1))


_OTHERS: tuple[tuple[str, Callable[[Drill], Drill]], ...] = (
    ("as it was before it was moved", before_it_was_moved),
    ("without accents", lambda drill: replace(drill, accents=NoAccents())),
    ("with the accent on the second slot", _elsewhere),
    ("in other groups", _other_groups),
    ("with the other lead", mirrored),
    ("in a bar shorter by a sixteenth", lambda drill: with_cells(drill, -1, 16, 1)),
    ("in a bar longer by a sixteenth", lambda drill: with_cells(drill, 1, 16, 1)),
    ("low for soft, high for loud", lambda drill: replace(drill, voicing="low_soft")),
    ("an octave higher", lambda drill: replace(drill, register=min(4, drill.register + 1))),
    ("straight", lambda drill: replace(drill, swing=replace(drill.swing, ratio=Fraction(1)))),
)
