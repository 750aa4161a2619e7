"""Remedies: from a fault and its drill to something to practise, at a tempo of its own.

The first one that a fault leads to is offered first. A remedy is a part of the drill, or the drill with another
click, other accents or a rest between its legs; what the voice and the pulse do beside it goes along.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

from ripresa.core.changes import Bars, Part
from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.accents import TypedAccents
from ripresa.core.drill.click import Click, DropOut, NamedClick, OfTheSlots, Thinned
from ripresa.core.drill.hands import ByOrder
from ripresa.core.exact import Exact, Fraction, change_label, division_label, label, parse_amount
from ripresa.core.playing import Pulse, Spoken, seams, slowed
from ripresa.core.reading import Reading
from ripresa.core.rhythm import SLOWEST_BPM, setting
from ripresa.core.takes.fault import Fault, FaultKind

#: A place is looped where there is more beside it.
_LOOP_BEATS = 4
_TWO_THIRDS, _THREE_QUARTERS = Fraction(2, 3), Fraction(3, 4)


@dataclass(frozen=True, slots=True)
class Remedy:
    """Something to practise against a fault.

    Args:
        key: ``"seam_loop"``. name: What the press says, with its tempo. why: In a sentence.
        bpm: Tempo it is first tried at. part: Of the drill.
        drill: The drill, changed where more than a part of it is.
        spoken, say_bars, pulse: What the voice says, bars in which divisions are said first, the inner pulse.
    """

    key: str
    name: str
    why: str
    bpm: Exact
    part: Part
    drill: Drill
    spoken: Spoken = Spoken()
    say_bars: int = 0
    pulse: Pulse | None = None


@dataclass(frozen=True, slots=True)
class _Case:
    reading: Reading
    bpm: Fraction
    fault: Fault
    below: Fraction | None

    @property
    def drill(self) -> Drill:
        return self.reading.drill

    def slow(self, share: Fraction = _TWO_THIRDS) -> Fraction:
        return slowed(self.bpm, share)


def remedies(reading: Reading, bpm: Fraction, fault: Fault, below: Fraction | None = None) -> tuple[Remedy, ...]:
    """Return what a fault of a drill at a tempo leads to, the first offered first; none where nothing fits.

    Args:
        below: The tempo of the rung below, in bpm, where the drill is climbed.
    """
    case = _Case(reading, bpm, fault, below)
    found = (one for make in _REMEDIES[fault.kind] for one in make(case))
    return tuple(one if one.bpm == bpm or one.key == "rung_down" else _with_tempo(one) for one in found)


def _with_tempo(remedy: Remedy) -> Remedy:
    return replace(remedy, name=f"{remedy.name} at {label(remedy.bpm)}")


def _seam_loop(case: _Case) -> Iterator[Remedy]:
    names = [change_label(before.leaves, after.enters) for before, after in pairwise(case.reading.legs)]
    if case.fault.where in names and seams(case.reading):
        bpm = case.slow()
        part = Part(seam=names.index(case.fault.where))
        why = "The change alone, with the beat on either side, round and round."
        yield Remedy("seam_loop", "Loop the change", why, bpm, part, case.drill)


def _place_loop(case: _Case) -> Iterator[Remedy]:
    event = case.fault.event
    if event is None or case.reading.loop_beats < _LOOP_BEATS:
        return
    at = case.reading.every[event].onset
    why = "The place alone, with a beat on either side, round and round."
    yield Remedy("place_loop", "Loop the place", why, case.slow(), Part(beat=int(at)), case.drill)


def _place_bar(case: _Case) -> Iterator[Remedy]:
    event = case.fault.event
    if event is None or case.reading.bar_count < 2:
        return
    bar = case.reading.every[event].bar
    why = "Its bar alone, before all of it again."
    yield Remedy(
        "place_bar", f"Bar {bar} alone", why, case.slow(_THREE_QUARTERS), Part(bars=Bars(bar, bar)), case.drill
    )


def _said_first(case: _Case) -> Iterator[Remedy]:
    why = "Each division is said before it is played."
    yield Remedy("said_first", "The divisions said first", why, case.bpm, Part(), case.drill, say_bars=1)


def _bar_rest(case: _Case) -> Iterator[Remedy]:
    if case.drill.seam != "bar_rest":
        drill = replace(case.drill, seam="bar_rest")
        yield Remedy(
            "bar_rest", "A bar’s rest between", "A bar to hear the next division inside.", case.bpm, Part(), drill
        )


def _division_alone(case: _Case) -> Iterator[Remedy]:
    fault, bpm = case.fault, case.slow()
    division = _division(fault.division)
    several = division is not None and len({one for leg in case.drill.legs for one in leg.divisions}) > 1
    alone = Part(division=division) if several else Part()
    name = f"The {fault.division} alone, spoken" if several else "Slow, spoken on every slot"
    yield Remedy("division_alone", name, "Slow, with a word on every slot.", bpm, alone, case.drill, Spoken("slots"))


def _click_on_slot(case: _Case) -> Iterator[Remedy]:
    fault, division = case.fault, _division(case.fault.division)
    if division is None or division.denominator != 1 or fault.slot is None:
        return
    click: Click = Thinned(Fraction(1), Fraction(fault.slot, int(division))) if fault.slot else NamedClick()
    bpm = case.slow(_THREE_QUARTERS)
    alone = Part(division=division) if len(case.drill.legs) > 1 else Part()
    drill = replace(case.drill, click=click)
    yield Remedy(
        "click_on_slot", f"A click on “{fault.where}”", "The click stands on the slot that moves.", bpm, alone, drill
    )


def _pulse(case: _Case) -> Iterator[Remedy]:
    why = "Two bars heard, two soft, then the student keeps it alone."
    yield Remedy("inner_pulse", "The inner pulse, then silent", why, case.bpm, Part(), case.drill, pulse=Pulse())


def _thinned(case: _Case) -> Iterator[Remedy]:
    drill, bpm = replace(case.drill, click=NamedClick("one_and_three")), case.slow(_THREE_QUARTERS)
    yield Remedy("thin_below", "A thinner click", "Thinned on the way down, not on the way up.", bpm, Part(), drill)


def _group_count(case: _Case) -> Iterator[Remedy]:
    has_groups = any(event.group is not None for event in case.reading.notes)
    words = Spoken("slots", "groups" if has_groups else "count")
    name = "The groups counted aloud" if has_groups else "Counted aloud on every slot"
    yield Remedy(
        "group_count",
        name,
        "The count holds the place.",
        case.slow(_THREE_QUARTERS),
        Part(),
        case.drill,
        words,
    )


def _first_bars(case: _Case) -> Iterator[Remedy]:
    bars = case.reading.bar_count
    if bars > 1:
        why = "One group alone, then two: as many bars as hold."
        yield Remedy("one_group", "Bar 1 alone", why, case.slow(_THREE_QUARTERS), Part(bars=Bars(1, 1)), case.drill)


def _hand_alone(case: _Case) -> Iterator[Remedy]:
    if case.fault.symbol:
        part = Part(reduce=Reduce("hand", case.fault.symbol))
        why = "The other one rests, and its notes keep their places."
        yield Remedy("hand_alone", f"{case.fault.symbol} alone", why, case.slow(_THREE_QUARTERS), part, case.drill)


def _hand_accented(case: _Case) -> Iterator[Remedy]:
    hands = case.drill.hands
    if isinstance(hands, ByOrder) and case.fault.symbol in hands.cycle:
        cycle = tuple("accent" if one == case.fault.symbol else "plain" for one in hands.cycle)
        drill = replace(case.drill, accents=TypedAccents(cycle=cycle, restart=hands.restart))  # type: ignore[arg-type]
        name = f"{case.fault.symbol} on every accent"
        yield Remedy("hand_accented", name, "The weaker one leads.", case.slow(_THREE_QUARTERS), Part(), drill)


def _other_lead(case: _Case) -> Iterator[Remedy]:
    hands = case.drill.hands
    if isinstance(hands, ByOrder) and len(hands.cycle) > 1:
        drill = replace(case.drill, hands=replace(hands, cycle=(*hands.cycle[1:], hands.cycle[0])))
        yield Remedy(
            "other_lead", f"Led by {hands.cycle[1]}", "The other lead.", case.slow(_THREE_QUARTERS), Part(), drill
        )


def _hits_alone(case: _Case) -> Iterator[Remedy]:
    if any(event.accent == "accent" for event in case.reading.notes):
        part = Part(reduce=Reduce("hits"))
        why = "The accents alone, the rest silent in time."
        yield Remedy("hits_alone", "The hits alone", why, case.bpm, part, case.drill)


def _three_levels(case: _Case) -> Iterator[Remedy]:
    drill = replace(case.drill, accents=TypedAccents(cycle=("accent", "plain", "ghost", "plain"), restart="beat"))
    why = "Loud, plain and ghost, exaggerated: three levels that anyone can hear."
    yield Remedy("three_levels", "Three levels, exaggerated", why, case.slow(), Part(), drill)


def _shorter(case: _Case) -> Iterator[Remedy]:
    bpm = case.slow(_THREE_QUARTERS)
    part = Part(articulation=max(Fraction(1, 8), case.drill.articulation / 2))
    yield Remedy("shorter", "Half as long", "Each note half as long, slower.", bpm, part, case.drill)


def _on_and_off(case: _Case) -> Iterator[Remedy]:
    drill = replace(case.drill, click=DropOut(1, 1))
    yield Remedy(
        "on_and_off",
        "A bar with the click, a bar without",
        "To land where the click comes back.",
        case.bpm,
        Part(),
        drill,
    )


def _rung_down(case: _Case) -> Iterator[Remedy]:
    bpm = case.below or max(SLOWEST_BPM, setting(case.bpm * Fraction(9, 10), "whole"))
    yield Remedy("rung_down", f"Down to {bpm}", "One small step back.", bpm, Part(), case.drill)


def _half(case: _Case) -> Iterator[Remedy]:
    part = Part(reduce=Reduce("first_half"))
    yield Remedy("half", "The first half alone", "Then silence as long as the second half.", case.bpm, part, case.drill)


def _slots_heard(case: _Case) -> Iterator[Remedy]:
    drill = replace(case.drill, click=OfTheSlots())
    yield Remedy(
        "slots_heard", "A click on every slot", "The division is heard while it is played.", case.slow(), Part(), drill
    )


def _composite(case: _Case) -> Iterator[Remedy]:
    if case.drill.second.is_there:
        part = Part(reduce=Reduce("composite"))
        why = "The rhythm of the two hands as one, until it is heard; then it is shared out."
        yield Remedy("composite", "Tap what both strike", why, case.slow(_THREE_QUARTERS), part, case.drill)


def _over_the_other(case: _Case) -> Iterator[Remedy]:
    if case.drill.second.is_there:
        symbol = case.fault.symbol or "L"
        drill = replace(case.drill, click=OfTheSlots(which="other_hand"))
        name = (
            "The left hand over the right one’s click" if symbol == "L" else "The right hand over the left one’s click"
        )
        part = Part(reduce=Reduce("hand", symbol))
        yield Remedy("over_the_other", name, "One hand meets the other’s strokes.", case.slow(), part, drill)


_Make = Callable[[_Case], Iterator[Remedy]]
_REMEDIES: dict[FaultKind, tuple[_Make, ...]] = {
    "place": (_place_loop, _place_bar, _half),
    "furthest": (_pulse, _thinned),
    "back": (_place_loop, _first_bars, _half),
    "seam": (_seam_loop, _said_first, _bar_rest),
    "habit": (_division_alone, _click_on_slot),
    "crowding": (_division_alone, _click_on_slot),
    "swing": (_division_alone, _click_on_slot),
    "spread": (_division_alone, _slots_heard),
    "tempo": (_pulse, _thinned),
    "click": (_pulse, _thinned),
    "lost_beat": (_group_count, _first_bars),
    "group": (_group_count, _first_bars),
    "hand": (_hand_alone, _hand_accented, _other_lead),
    "accent": (_hits_alone, _three_levels),
    "misplaced": (_hits_alone, _three_levels),
    "smear": (_shorter,),
    "landing": (_hits_alone, _on_and_off),
    "slips": (_rung_down, _half),
    "together": (_composite, _over_the_other),
}


def heard_fault(reading: Reading, kind: FaultKind) -> Fault:
    """Return a fault that an ear alone has heard: at the first change, in the fastest division, of the second hand."""
    fastest = max(division for leg in reading.legs for division in leg.divisions)
    hands = [stroke for stroke in dict.fromkeys(event.stroke for event in reading.notes) if stroke]
    changed = [
        change_label(before.leaves, after.enters)
        for before, after in pairwise(reading.legs)
        if before.leaves != after.enters
    ]
    last = int(fastest.numerator) - 1
    words = {event.slot: event.count for event in reading.events if event.division == fastest}
    where = {"seam": changed[0] if changed else "", "habit": words.get(last, ""), "crowding": words.get(last, "")}
    return Fault(
        kind,
        where.get(kind, ""),
        0.0,
        0.0,
        0.0,
        division=division_label(fastest),
        slot=last,
        symbol=hands[1] if len(hands) > 1 else hands[0] if hands else "L" if reading.other else "",
    )


def _division(text: str) -> Fraction | None:
    """Return the division of a fault, as it was labelled: ``"4"``, ``"3:2"``."""
    if not text:
        return None
    above, _, below = text.partition(":")
    return parse_amount(above) / (int(below) if below else 1)
