"""The layout: the legs of a drill laid one after the other, before hands and accents are given to what is laid."""

from collections.abc import Sequence
from dataclasses import dataclass

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Line, NotePass
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import Cursor, LegReading, Place
from ripresa.core.pitch import Instrument, instrument_named
from ripresa.core.reading.laying import fingered, lay_leg
from ripresa.core.reading.rows import MOST_NOTES
from ripresa.core.reading.second_hand import Laid, with_right_home
from ripresa.core.rhythm import Meter, Swing, leg_meters


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
    instrument = instrument_named(drill.instrument).at_level(drill.level)
    if drill.second.is_there:
        instrument = with_right_home(instrument)
    passes = _passes(drill, instrument, meters)
    touched = {id(one): fingered(drill, instrument, one) for one in passes}
    cursor = Cursor(meters[0], drill.swing)
    places: list[Place] = []
    laid: list[Laid] = []
    for index, notes in enumerate(passes):
        if len(meters) > 1:
            # What was laid stays; from here on the bars are those of this leg.
            cursor.change(meters[index % len(meters)].after(cursor.meter.laid(cursor.bar - 1)))
        begin = len(places)
        leg = lay_leg(drill, instrument, cursor, places, index, notes, touched[id(notes)])
        laid.append(Laid(leg, places[begin:], notes))
    meter = cursor.meter if len(meters) == 1 else _as_laid(drill.meter, cursor)
    return Layout(instrument, meter, drill.swing, laid, places, cursor.at)


def _as_laid(name: str, cursor: Cursor) -> Meter:
    """Return the meter of bars that were laid leg by leg; after the last they begin again."""
    bars = cursor.meter.laid(cursor.bar - 1)
    return Meter(name, bars, cursor.meter.counted)


def _passes(drill: Drill, instrument: Instrument, meters: Sequence[Meter]) -> list[NotePass]:
    # Legs of one division play the same pass; a drill may have hundreds of them.
    known: dict[tuple[Leg, int, Fraction], NotePass] = {}
    total = 0
    found: list[NotePass] = []
    for index, leg in enumerate(drill.legs):
        material = drill.material
        if isinstance(material, Line) and material.stage_shifts:
            material = material.of_leg(index)
        key = leg, index % len(meters), Fraction(getattr(material, "shift", 0))
        if key not in known:
            made = material.pass_for(leg.divisions, instrument, meters[key[1]]).moved(drill.register, instrument)
            made = made.unpitched() if instrument.is_struck else made
            known[key] = made.folded(instrument) if drill.folded else made
        found.append(known[key])
        # What is silent or held takes its slots too.
        total += max(len(found[-1].notes), len(found[-1].rhythm))
        if total > MOST_NOTES:
            silent = len(found[-1].rhythm) > len(found[-1].notes)
            raise OutOfRange(
                f"This drill has more than {plural(MOST_NOTES, 'slot' if silent else 'note')}. "
                f"Take fewer legs or {'a shorter line' if silent else 'fewer octaves'}.",
                field="legs",
            )
    return found
