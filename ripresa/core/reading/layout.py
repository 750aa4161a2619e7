"""The layout: the legs of a drill laid one after the other, before hands and accents are given to what is laid."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Line, Material, NotePass, own_rhythm, scale_of
from ripresa.core.drill.second import SEVEN, Parallel
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import Cursor, LegReading, Place, Slot, Touch, roman
from ripresa.core.pitch import Instrument
from ripresa.core.reading.fingering import in_place
from ripresa.core.reading.laying import fingered, lay_leg
from ripresa.core.reading.rows import MOST_NOTES
from ripresa.core.reading.second_hand import Laid, with_right_home
from ripresa.core.rhythm import Bar, Meter, Swing, leg_meters


@dataclass(frozen=True, slots=True)
class Layout:
    """Where everything of a drill lies.

    Args:
        meter: The bars as they were laid. laid: Each leg with its places and its pass. places: Those of all legs.
        beats: Length of it all.
    """

    instrument: Instrument
    meter: Meter
    swing: Swing
    laid: Sequence[Laid]
    places: Sequence[Place]
    beats: Fraction

    @property
    def legs(self) -> tuple[LegReading, ...]:
        """What each leg came to."""
        return tuple(one.leg for one in self.laid)


def lay(drill: Drill) -> Layout:
    """Return the layout of a drill.

    Raises:
        OutOfRange: It would have more than 20,000 notes.
    """
    meters = leg_meters(drill.meter)
    instrument = drill.plays_on.at_level(drill.level)
    if drill.second.is_there:
        instrument = with_right_home(instrument)
    passes = _Passes(drill, instrument)
    cursor = Cursor(meters[0], drill.swing)
    places: list[Place] = []
    laid: list[Laid] = []
    for index in range(len(drill.legs)):
        meter = meters[index % len(meters)]
        if len(meters) > 1:
            # What was laid stays; from here on the bars are those of this leg.
            cursor.change(meter.after(cursor.meter.laid(cursor.bar - 1)))
        elif own_rhythm(drill.material) and cursor.beat == 1 and not cursor.inside:
            # Where bars take turns, one that is counted out begins in the bar that has its turn.
            meter = _from_bar(meter, cursor.bar)
        begin = len(places)
        notes, touched = passes.of(index, meter)
        leg = lay_leg(drill, instrument, cursor, places, index, notes, touched)
        if own_rhythm(drill.material) and len(meters) == 1 < len(meter.bars) and leg.rhythm:
            leg = replace(leg, turns=passes.turns(index, meters[0]))
        laid.append(Laid(leg, places[begin:], notes))
    meter = cursor.meter if len(meters) == 1 else _as_laid(drill.meter, cursor)
    return Layout(instrument, meter, drill.swing, laid, places, cursor.at)


def _from_bar(meter: Meter, bar: int) -> Meter:
    """Return a meter whose bars take turns from one of them on."""
    turn = (bar - 1) % len(meter.bars)
    return replace(meter, bars=meter.bars[turn:] + meter.bars[:turn]) if turn else meter


def _as_laid(name: str, cursor: Cursor) -> Meter:
    """Return the meter of bars that were laid leg by leg; after the last they begin again."""
    bars = cursor.meter.laid(cursor.bar - 1)
    return Meter(name, bars, cursor.meter.counted)


class _Passes:
    """The pass of each leg, and how it is fingered; made once for legs that are alike: a drill may have hundreds."""

    def __init__(self, drill: Drill, instrument: Instrument) -> None:
        self.drill, self.instrument = drill, instrument
        self._known: dict[tuple[Leg, tuple[Bar, ...], Fraction], tuple[NotePass, tuple[Touch | None, ...]]] = {}
        self._total = 0

    def of(self, index: int, meter: Meter) -> tuple[NotePass, tuple[Touch | None, ...]]:
        """Return the pass of a leg in a meter.

        Raises:
            OutOfRange: The drill would have more than 20,000 notes.
        """
        notes, _ = found = self.made(index, meter)
        # What is silent or held takes its slots too.
        self._total += max(len(notes.notes), len(notes.rhythm))
        if self._total > MOST_NOTES:
            silent = len(notes.rhythm) > len(notes.notes)
            raise OutOfRange(
                f"This drill has more than {plural(MOST_NOTES, 'slot' if silent else 'note')}. "
                f"Take fewer legs or {'a shorter line' if silent else 'fewer octaves'}.",
                field="legs",
            )
        return found

    def turns(self, index: int, meter: Meter) -> tuple[tuple[Slot, ...], ...]:
        """Return the rhythm of a leg that begins in each of the bars that take turns; empty where one has no room."""
        try:
            return tuple(self.made(index, _from_bar(meter, bar + 1))[0].rhythm for bar in range(len(meter.bars)))
        except OutOfRange:
            return ()

    def made(self, index: int, meter: Meter) -> tuple[NotePass, tuple[Touch | None, ...]]:
        """Return the pass of a leg in a meter, whether it is laid or not."""
        drill, leg, material = self.drill, self.drill.legs[index], self.drill.material
        if isinstance(material, Line) and material.stage_shifts:
            material = material.of_leg(index)
        key = leg, meter.bars, Fraction(getattr(material, "shift", 0))
        if key not in self._known:
            made = material.pass_for(leg.divisions, self._reach(material), meter).moved(drill.register, self.instrument)
            made = self._raised(made)
            made = made.unpitched() if self.instrument.is_struck else made
            made = made.folded(self.instrument) if drill.folded else made
            self._known[key] = made, fingered(drill, self.instrument, made)
        return self._known[key]

    def _reach(self, material: Material) -> Instrument:
        """Return the instrument as far as a run through its range goes: all of it, or what lies in one position."""
        drill, scale = self.drill, scale_of(material)
        if drill.fingering != "position" or not drill.place.fret or getattr(material, "octaves", 1) != "range":
            return self.instrument
        held = in_place(self.instrument, *scale, drill.place.fret) if scale else ()
        if not held:
            raise OutOfRange(
                f"{material.title} has a gap in position {roman(drill.place.fret)}. Take another fret, or let the "
                "position be found.",
                field="place.fret",
            )
        return replace(self.instrument, lowest=held[0], highest=held[-1], home=held[0])

    def _raised(self, notes: NotePass) -> NotePass:
        """Return the pass in its scale where the keynote is the other hand's."""
        plays, scale = self.drill.second.plays, scale_of(self.drill.material)
        if not isinstance(plays, Parallel) or not plays.raises_first or scale is None or scale[1].degrees != SEVEN:
            return notes
        return notes.stepped(plays.raises_first, *scale)
