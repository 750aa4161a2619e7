"""The words by which a drill is found: whatever one may call what it has."""

from collections.abc import Iterator

from ripresa.core.drill import Drill
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder
from ripresa.core.exact import Fraction
from ripresa.core.rhythm import meter_named
from ripresa.core.say.vocabulary import (
    CLICK_WORDS,
    HAND_WORDS,
    INSTRUMENT_WORDS,
    MATERIAL_WORDS,
    NOTE_WORDS,
    SCALE_WORDS,
    TUPLET_WORDS,
)


def words_for(drill: Drill) -> str:
    """Return all that what a drill has is called: its divisions, hands, scale, instrument, click.

    >>> "triplets" in words_for(Drill())
    True
    """
    return " ".join(dict.fromkeys(_words(drill)))


def _words(drill: Drill) -> Iterator[str]:
    counted = meter_named(drill.meter).counted
    divisions = {one for leg in drill.legs for one in leg.divisions} | {drill.material.own_division}
    yield from (text for text, value in NOTE_WORDS.items() if counted / Fraction(*value) in divisions)
    yield from (text for text, number in TUPLET_WORDS.items() if Fraction(number) in divisions)
    if isinstance(drill.hands, ByOrder):
        yield from (text for text, cycle in HAND_WORDS.items() if tuple(cycle.split()) == drill.hands.cycle)
    yield from (text for text, key in SCALE_WORDS.items() if key == getattr(drill.material, "scale", None))
    yield from (text for text, key in INSTRUMENT_WORDS.items() if key == drill.instrument)
    yield from (text for text, kind in MATERIAL_WORDS.items() if kind == drill.material.kind)
    if isinstance(drill.click, NamedClick):
        yield from (text for text, plan in CLICK_WORDS.items() if plan == drill.click.plan != "every_beat")
    if drill.swing.ratio != 1:
        yield from ("swing", "swung", "shuffle")
    if drill.second.is_there:
        yield from ("both hands", "two hands", "hands together")
