"""The accent walk: its stations, when it is home, and the gaps at its seams, read off the notes it accents."""

from dataclasses import dataclass
from itertools import islice, takewhile

from ripresa.core.drill.accents import Walk
from ripresa.core.exact import Fraction
from ripresa.core.grid import LegReading
from ripresa.core.reading import FARTHEST_HOME, Reading, onward, rounds, unlike_legs
from ripresa.core.rhythm import count_word


@dataclass(frozen=True, slots=True)
class WalkHome:
    """An accent walk on one leg.

    Args:
        stations: Count words on which groups start at each station, with the hands that play them, in order.
        bars, notes, beats: Until the walk is home; beats of the bpm.
        walked_bars: Bars that the leg lasts.
        gap, home_gap: Slots from one station's last group to the next one's first, and on the return home; None
            where no two accents lie on either side.
    """

    leg: LegReading
    stations: tuple[tuple[str, tuple[str, ...]], ...]
    bars: int
    notes: int
    beats: Fraction
    walked_bars: Fraction
    gap: int | None
    home_gap: int | None


def walk_homes(reading: Reading) -> tuple[WalkHome, ...]:
    """Return the walk on each leg that is laid in another way; nothing without a walk."""
    walk = reading.drill.accents
    if not isinstance(walk, Walk):
        return ()
    found = (_home(reading, leg, walk) for leg in unlike_legs(reading))
    return tuple(one for one in found if one)


def _home(reading: Reading, leg: LegReading, walk: Walk) -> WalkHome | None:
    begin = reading.meter.place(leg.start)[0]
    bars = _home_bars(leg, walk, next(rounds(reading, leg))[-1].bar - begin + 1)
    # One station more than the walk has: the first again, so that the return home is seen.
    looked_at = islice(onward(reading, leg), FARTHEST_HOME + 1)
    places = list(takewhile(lambda place: place.bar < begin + bars + walk.bars, looked_at))
    if len(places) > FARTHEST_HOME:
        return None
    strokes = reading.drill.hands.strokes(places)
    named: dict[int, dict[str, dict[str, None]]] = {}
    firsts: list[tuple[int, int]] = []  # (station, slot from the start of the leg) of each group
    slots = 0
    for place, stroke in zip(places, strokes, strict=True):
        station = (place.bar - begin) // walk.bars
        if place.kind == "note" and place.slot == walk.station(place.division, place.bar - begin):
            firsts.append((station, slots))
            if station < bars // walk.bars:
                word = count_word(place.division, 1, place.slot, place.span)
                hands = named.setdefault(station, {}).setdefault(word, {})
                if stroke:
                    hands[stroke] = None
        slots += place.on_grid  # What a seam adds or a bar line cuts off is no slot.
    inside = [place for place in places if place.bar < begin + bars]
    return WalkHome(
        leg=leg,
        stations=tuple(
            ("/".join(words), tuple(dict.fromkeys(hand for hands in words.values() for hand in hands)))
            for _, words in sorted(named.items())
        ),
        bars=bars,
        notes=sum(place.kind == "note" for place in inside),
        beats=inside[-1].onset + inside[-1].length - leg.start,
        walked_bars=reading.meter.bars_passed(leg.start + leg.pass_beats) - reading.meter.bars_passed(leg.start),
        gap=_seam(firsts, 0),
        home_gap=_seam(firsts, bars // walk.bars - 1),
    )


def _home_bars(leg: LegReading, walk: Walk, round_bars: int) -> int:
    """Return after how many bars every division of a leg is back on its first station, and its slots lie as at first.

    Args:
        round_bars: Bars after which the slots lie in the bar as before: more than one where they go over its line.
    """
    bar = walk.bars
    while bar % round_bars or any(walk.station(division, bar) for division in leg.divisions):
        bar += walk.bars
    return bar


def _seam(firsts: list[tuple[int, int]], station: int) -> int | None:
    """Return the slots from the last group of a station to the first one of the next."""
    last = [index for at, index in firsts if at == station]
    after = [index for at, index in firsts if at == station + 1]
    return after[0] - last[-1] if last and after else None
