"""Tools for wind: every articulation pattern in turn, and the crossing of a break by itself."""

from dataclasses import replace

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.hands import Articulated
from ripresa.core.drill.material import Line, own_rhythm, scale_of
from ripresa.core.errors import OutOfRange
from ripresa.core.pitch import Pitch, degree_of, on_degree
from ripresa.core.reading import read
from ripresa.core.reports import breaks

#: Notes on either side of a break that its drill has.
_BESIDE = 2


def in_all_patterns(drill: Drill) -> Drill:
    """Return a drill with a leg for each articulation pattern: those for threes where its first leg goes in threes.

    Raises:
        OutOfRange: Its instrument is not blown.
    """
    instrument = drill.plays_on
    if not instrument.breathes and drill.instrument != "any":
        raise OutOfRange(
            f"Articulation patterns are tongued, and {instrument.name} is not. Choose a wind instrument.",
            field="instrument",
        )
    first = drill.legs[0]
    in_threes = first.division.numerator % 3 == 0 and not own_rhythm(drill.material)
    hands = Articulated("threes" if in_threes else "fours")
    legs: tuple[Leg, ...] = (first,) * len(hands.circuit)
    return replace(drill, hands=hands, legs=legs)


def over_the_break(drill: Drill) -> Drill:
    """Return a drill of the notes on either side of the break of its instrument, in its own scale, there and back.

    Raises:
        OutOfRange: Its instrument has no break, or its material has no scale.
    """
    instrument = drill.plays_on
    known = scale_of(drill.material)
    if not instrument.breaks:
        raise OutOfRange(
            f"{instrument.name} has no break between registers that is known here. Choose a clarinet, a saxophone, "
            "a flute or a recorder.",
            field="instrument",
        )
    if known is None:
        raise OutOfRange("The crossing is made of a scale, and this material has none. Take a scale.", field="material")
    crossed = breaks(read(drill))
    low, high = (crossed[0].below.midi, crossed[0].above.midi) if crossed else instrument.breaks[0]
    tonic, tones = known
    number = degree_of(Pitch(0, 0, low // 12 - 1), tonic, tones)[0]
    around = [on_degree(one, 0, tonic, tones) for one in range(number, number + 3 * tones.degrees)]
    below = [pitch for pitch in around if pitch.midi <= low][-_BESIDE:]
    above = [pitch for pitch in around if pitch.midi >= high][:_BESIDE]
    line = [*below, *above, *above[-2::-1], below[-1], *(above[:1] + below[-1:]) * 2]
    text = " ".join(pitch.name for pitch in line)
    written = tonic.bare
    return replace(drill, title=f"{drill.title[:180]}, the crossing", material=Line(text=text, tonic=written))
