"""The sums: the numbers that a reading implies at a tempo."""

from collections.abc import Iterator
from collections.abc import Sequence as Several
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal, NamedTuple

from ripresa.core.drill import DIVISIONS, Drill
from ripresa.core.drill.material import Arpeggio, LongNotes, ScaleRun, Sequence, own_rhythm
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction, capital, division_label, plural
from ripresa.core.grid import Event, LegReading
from ripresa.core.pitch import SPAN
from ripresa.core.reading import Reading, read, unreduced
from ripresa.core.reports.breath import Breath, BreathSums, breath_plan, breath_sums
from ripresa.core.reports.dial import Dial, dial
from ripresa.core.reports.fit import Fit, fit
from ripresa.core.reports.groups import Groups, groups
from ripresa.core.reports.lead import LeadHome, lead_homes
from ripresa.core.reports.motion import Load, Motions, loads, motions
from ripresa.core.reports.speed import Speeds, leg_speeds, pace_changes, peak_of, speeds
from ripresa.core.reports.strings import bad_slurs
from ripresa.core.reports.two_hands import Against, against
from ripresa.core.reports.walk import WalkHome, walk_homes
from ripresa.core.rhythm import GearChange, gear_change, span_seconds, speed_twins

#: Divisions at which the same speed is told.
TWIN_DIVISIONS = tuple(one for one in DIVISIONS if 2 <= one <= 6)


@dataclass(frozen=True, slots=True)
class LegSums:
    """The numbers of one leg; beats and seconds with what the seam adds.

    ``gap_seconds`` is that of its closest notes as written; ``gaps`` are those as played, the longest first: more than
    one where they swing.
    """

    leg: LegReading
    nps: Fraction
    gap_seconds: Fraction
    gaps: tuple[Fraction, ...]
    beats: Fraction
    bars: Fraction
    seconds: Fraction
    fit: Fit


@dataclass(frozen=True, slots=True)
class Sums:
    """All numbers of a drill at a tempo; lengths in beats and bars, times in seconds."""

    bpm: Fraction
    notes: int
    beats: Fraction
    bars: Fraction
    seconds: Fraction
    speeds: Speeds
    legs: tuple[LegSums, ...]
    gears: tuple[GearChange, ...]
    twins: tuple[tuple[Fraction, Fraction], ...]
    loads: tuple[Load, ...]
    motions: Motions | None
    groups: tuple[Groups, ...]
    leads: tuple[LeadHome, ...]
    walks: tuple[WalkHome, ...]
    against: tuple[Against, ...]
    breath: tuple[BreathSums, ...]
    breaths: tuple[Breath, ...]
    dial: Dial

    @property
    def breath_marks(self) -> tuple[Event, ...]:
        """The notes before which to breathe; the first of all follows the count-in, and has no mark."""
        return tuple(one.first for one in self.breaths[1:])

    @property
    def limiting(self) -> Load | None:
        """The busiest motion; None where no hands are written, or none of them plays twice."""
        return self.loads[0] if self.loads and self.loads[0].peak_nps else None


def sums(reading: Reading, bpm: Fraction) -> Sums:
    """Return the numbers of a drill at a tempo."""
    meter = reading.meter
    rows = tuple(
        LegSums(
            leg=leg,
            nps=1 / span_seconds(speed.gap, bpm),
            gap_seconds=span_seconds(speed.gap, bpm),
            gaps=tuple(span_seconds(gap, bpm) for gap in speed.gaps),
            beats=leg.beats,
            bars=meter.bars_passed(leg.start + leg.beats) - meter.bars_passed(leg.start),
            seconds=span_seconds(leg.beats, bpm),
            fit=fit(leg, meter),
        )
        for leg, speed in zip(reading.legs, leg_speeds(reading), strict=True)
    )
    whole = unreduced(reading)
    peak = peak_of(reading)
    return Sums(
        bpm=bpm,
        notes=len(reading.notes),
        beats=reading.beats,
        bars=reading.bars,
        seconds=span_seconds(reading.beats, bpm),
        speeds=speeds(reading, bpm),
        legs=rows,
        gears=tuple(gear_change(before, after, bpm, slots) for before, after, slots in _changes(reading)),
        twins=speed_twins(peak * bpm / 60, TWIN_DIVISIONS) if peak else (),
        loads=loads(reading, bpm),
        motions=motions(reading, bpm),
        groups=() if reading.is_left else groups(whole),
        leads=() if reading.is_left else lead_homes(whole),
        walks=() if reading.is_left else walk_homes(whole),
        against=against(whole),
        breath=breath_sums(reading, bpm),
        breaths=breath_plan(reading, bpm),
        dial=dial(reading.click_cycle, meter, bpm),
    )


def _changes(reading: Reading) -> Iterator[tuple[Fraction, Fraction, tuple[Fraction, Fraction]]]:
    """Yield every step from one division to another that is quicker or slower, once each, in order.

    Each is (division before, after, beats that a slot of each lasts). A leg of
    mixed divisions goes round from its last to its first. A rhythm of its own
    has no division that it is played at: what counts is the time between its notes.
    """
    if own_rhythm(reading.drill.material):
        paces = dict.fromkeys((one.before, one.after) for one in pace_changes(reading))
        yield from ((1 / before, 1 / after, (before, after)) for before, after in paces)
        return
    known: set[tuple[Fraction, Fraction]] = set()
    for before, after in _neighbours(reading):
        if before.division is after.division or before.division == after.division:
            continue
        pair = (before.division, after.division)
        slots = (before.slot_beats, after.slot_beats)
        if slots[0] != slots[1] and pair not in known:
            known.add(pair)
            yield (*pair, slots)


def _neighbours(reading: Reading) -> Iterator[tuple[Event, Event]]:
    """Yield each note with the one that follows, and the last of a mixed leg with its first."""
    notes = reading.notes
    firsts: dict[int, Event] = {}
    for event in notes:
        firsts.setdefault(event.leg, event)
    for before, after in pairwise([*notes, None]):
        if before is None:
            return
        if after is not None:
            yield before, after
        mixed = len(reading.legs[before.leg].divisions) > 1
        if mixed and (after is None or after.leg != before.leg):
            yield before, firsts[before.leg]


_MOST_NAMED = 3
#: Why a slur cannot be made → what is wrong with it, and what would be right.
_BAD_SLURS = {
    "string": "no slur goes from one string to another. Strike it, or finger both notes on one string.",
    "down": "a hammer cannot fall to a lower note, or to the same. Pull it off, slide, or strike it.",
    "up": "a pull cannot rise to a higher note, or to the same. Hammer it, slide, or strike it.",
}


#: What a warning is about: what an instrument has, what a hand spans, what no finger slurs.
WarnedOf = Literal["range", "stretch", "slur"]


class Warned(NamedTuple):
    """What the teacher has to know, and the line of the drill that it stands beside."""

    line: Literal["notes", "left hand"]
    of: WarnedOf
    sentence: str


def warnings(reading: Reading) -> tuple[str, ...]:
    """Return what the teacher has to know about a reading, one sentence each."""
    return tuple(one.sentence for one in warned(reading))


def warned(reading: Reading) -> Iterator[Warned]:
    """Yield each warning with the line of the drill that it stands beside."""
    other = [event for event in reading.other if any(not reading.instrument.holds(tone.midi) for tone in event.tones)]
    if other:
        yield Warned(
            "left hand",
            "range",
            f"Out of range for {reading.instrument.name}: {plural(len(other), 'note')} of the left hand, the first at "
            f"{other[0].place_name}. Let it begin nearer, or take fewer octaves.",
        )
    for shape in reading.shapes:
        if shape.stretch > SPAN:
            yield Warned(
                "notes",
                "stretch",
                f"{shape.symbol} ({shape.text}) spans {shape.stretch} frets, and a hand lies over {SPAN}: it is a "
                "stretch. Warm up first, and do not force it.",
            )
    slurs = list(bad_slurs(reading))
    for why in dict.fromkeys(slur.why for slur in slurs):
        places = [slur.event.place_name for slur in slurs if slur.why == why]
        more = f" and {len(places) - _MOST_NAMED} more" if len(places) > _MOST_NAMED else ""
        yield Warned("notes", "slur", f"{capital('; '.join(places[:_MOST_NAMED]))}{more}: {_BAD_SLURS[why]}")
    outside = [leg for leg in reading.legs if leg.out_of_range]
    if outside:
        yield Warned("notes", "range", _out_of_range(reading, outside))


def _out_of_range(reading: Reading, outside: Several[LegReading]) -> str:
    named = ", ".join(dict.fromkeys(f"{division_label(*leg.divisions)} a beat ({leg.described})" for leg in outside))
    told = [f"Out of range for {reading.instrument.name}: {named}."]
    instead, fewer = _one_octave(reading), _fewer_fit(reading.drill)
    if instead:
        told.append(f"One octave {instead} lasts the same beats" + ("; fewer octaves fit too." if fewer else "."))
    elif fewer:
        told.append("Fewer octaves fit.")
    return " ".join(told)


def _fewer_fit(drill: Drill) -> bool:
    """Whether one octave of the same lies in the range."""
    material = drill.material
    if not isinstance(material, ScaleRun | Arpeggio | Sequence | LongNotes) or material.octaves in {1, "range"}:
        return False
    return not any(leg.out_of_range for leg in read(replace(drill, material=replace(material, octaves=1))).legs)


def _one_octave(reading: Reading) -> str:
    """Return how often one octave lasts the same beats as what is out of range; empty where it does not."""
    drill = reading.drill
    if not isinstance(drill.material, ScaleRun) or drill.material.octaves == "one_repeated":
        return ""
    try:
        again = read(replace(drill, material=replace(drill.material, octaves="one_repeated")))
    except RipresaError:
        return ""
    same = all(
        one.pass_beats == other.pass_beats and not other.out_of_range
        for one, other in zip(reading.legs, again.legs, strict=True)
        if one.out_of_range
    )
    return "repeated" if same else ""
