"""What a ready drill is, in a line that a teacher can choose by; for whom, and how far on."""

from collections.abc import Iterator
from itertools import groupby

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth, Walk
from ripresa.core.drill.material import Arpeggio, ScaleRun
from ripresa.core.exact import Fraction, capital
from ripresa.core.reading import Reading
from ripresa.core.rhythm import division_name

#: Who plays: the family of the instrument.
FAMILIES = {
    "any": "any instrument",
    "keys": "keys",
    "strings": "strings",
    "wind": "wind",
    "drums": "drums",
}
#: Up to so many notes a second at the tempo in which it stands on the shelf, and what that is called. Our choice: a
#: first year plays eighths in time, and sixteenths at a walking pace are what most work at.
LEVELS: tuple[tuple[Fraction, str], ...] = (
    (Fraction(5, 2), "first year"),
    (Fraction(4), "on the way"),
    (Fraction(1000), "further on"),
)
_MOST_NAMED = 4
_OCTAVES: dict[int | str, str] = {
    2: "two octaves",
    3: "three octaves",
    "range": "the whole range",
    "match": "as many octaves as beats",
}


def what_it_is(reading: Reading) -> str:
    """Return what a drill is: ``C major, eighths then sixteenths``; ``One note, sixteenths, accents every 5``."""
    drill = reading.drill
    names = [division_name(leg.divisions, reading.meter.counted) for leg in reading.legs]
    names = [name for name, _ in groupby(names)]
    more = " …" if len(names) > _MOST_NAMED else ""
    parts = [capital(drill.material.title), *_span(drill), " then ".join(names[:_MOST_NAMED]) + more]
    match drill.accents:
        case EveryNth(size=size):
            parts.append(f"accents every {size}")
        case Walk():
            parts.append("the accent walks")
        case _:
            pass
    if drill.second.plays.kind != "none":
        parts.append("two hands")
    if drill.meter != "4/4":
        parts.append(f"in {drill.meter}")
    return ", ".join(parts)


def _span(drill: Drill) -> Iterator[str]:
    """Yield how far a run goes, from where, and where on the neck it lies, as far as it is not the usual."""
    run = drill.material
    if isinstance(run, ScaleRun | Arpeggio):
        if run.octaves in _OCTAVES:
            yield _OCTAVES[run.octaves]
        if run.start > 1:
            yield f"from {'degree' if isinstance(run, ScaleRun) else 'tone'} {run.start}"
    if drill.place.words:
        yield drill.place.words


def family_of(drill: Drill) -> str:
    """Return the family of a drill’s instrument, by its key in ``FAMILIES``."""
    instrument = drill.plays_on
    if drill.instrument == "any":
        return "any"
    if instrument.strings:
        return "strings"
    if instrument.breathes:
        return "wind"
    return "drums" if instrument.voice == "struck" else "keys"


def level_of(peak: Fraction) -> str:
    """Return how far on one is who plays so many notes a second.

    >>> level_of(Fraction(2)), level_of(Fraction(4)), level_of(Fraction(5))
    ('first year', 'on the way', 'further on')
    """
    return next(name for most, name in LEVELS if peak <= most)
