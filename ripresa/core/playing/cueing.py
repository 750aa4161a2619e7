"""Which cues hold where: a line for a leg, a station or a step, shown beside the word and never over the notes."""

from ripresa.core.drill import Cue, Step
from ripresa.core.drill.accents import Walk
from ripresa.core.exact import Fraction
from ripresa.core.reading import Reading


def cues_at(reading: Reading, position: Fraction, step: Step | None = None) -> tuple[str, ...]:
    """Return the cues that hold at a position in beats, in the order in which they are written.

    Args:
        step: The step of the way in that is practised.
    """
    cues = reading.drill.cues
    if not cues:
        return ()
    leg = next((one for one in reversed(reading.legs) if one.start <= position), reading.legs[0])
    station = None
    walk = reading.drill.accents
    if isinstance(walk, Walk):
        first = reading.meter.place(leg.start)[0]
        station = walk.station(leg.enters, reading.meter.place(position)[0] - first) + 1

    def holds(cue: Cue) -> bool:
        match cue.where:
            case "all":
                return True
            case "leg":
                return cue.number == leg.index + 1
            case "station":
                return cue.number == station
            case "step":
                return cue.step == step

    return tuple(cue.text for cue in cues if holds(cue))
