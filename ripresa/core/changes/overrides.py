"""An assignment: a drill as one student plays it; what differs from the drill is said in words.

Overrides never change the drill: they are laid over a version of it, over the next one too.
"""

from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

from ripresa.core.changes.mirror import mirrored
from ripresa.core.changes.transposed import in_key
from ripresa.core.drill import Drill, NeckPlace
from ripresa.core.drill.accents import TypedAccents
from ripresa.core.drill.click import Click
from ripresa.core.drill.hands import ARTICULATION_PATTERNS, Articulated, ByOrder
from ripresa.core.drill.material import Arpeggio, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.grid import roman
from ripresa.core.kind import Between, check_bounds
from ripresa.core.pitch import LETTERS, parse_tonic, show_tonic
from ripresa.core.rhythm import Counting, count_word

Foot = Literal["", "left", "right"]
MOST_STATIONS = 16


@dataclass(frozen=True, slots=True)
class Overrides:
    """What a student plays otherwise than the drill says; nothing where a field is left as it is.

    Args:
        octaves: 1 to 8. key: Another tonic, ``"Eb"``. place: The fret of the first finger in a place on the neck.
        other_lead: The other hand or direction first.
        click: Another click. counting: Other count words.
        station: The slot of each beat, from 0, that has the accent.
        letter: By how many symbols the hands begin later in their cycle.
        says, said_first: Which way the letters of the notes are said on one note, and the first of them, A to G.
        articulation: A pattern of tongue and slur.
        foot: Which foot keeps the beat, whether the drill has one or not.

    Raises:
        OutOfRange, Unreadable: A value that no drill could have.
    """

    octaves: int | None = None
    key: str = ""
    place: Annotated[int, Between(0, 24, "The first finger stands at fret {least} to {most}, not {value}.")] = 0
    other_lead: bool = False
    click: Click | None = None
    counting: Counting | None = None
    station: int | None = None
    letter: int = 0
    says: Literal["", "forward", "backward"] = ""
    said_first: str = ""
    articulation: str = ""
    foot: Foot = ""

    def __post_init__(self) -> None:
        check_bounds(self, "overrides")
        if self.key:
            parse_tonic(self.key)
        if self.station is not None and not 0 <= self.station < MOST_STATIONS:
            raise OutOfRange(f"An accent stands on slot 1 to {MOST_STATIONS} of a beat.", field="overrides.station")
        if self.said_first and self.said_first not in LETTERS:
            raise OutOfRange(
                f"“{self.said_first}” is not a letter of a note. Begin with A to G.", field="overrides.said_first"
            )
        if self.articulation and self.articulation not in ARTICULATION_PATTERNS:
            raise OutOfRange(f"“{self.articulation}” is no pattern of tongue and slur.", field="overrides.articulation")

    @property
    def is_nothing(self) -> bool:
        """Whether it leaves everything as it is."""
        return self == Overrides()


def overridden(drill: Drill, by: Overrides) -> Drill:
    """Return a drill as a student plays it.

    Raises:
        OutOfRange: What is asked for is not there: octaves of a line, a cycle where no hands are written.
    """
    if by.is_nothing:
        return drill
    if by.octaves is not None:
        drill = _with_material(drill, "octaves", by.octaves, "No octaves are counted in this material.")
    if by.key:
        drill = in_key(drill, by.key)
    if by.place:
        drill = in_place(drill, by.place)
    if by.other_lead:
        drill = mirrored(drill)
    if by.click is not None:
        drill = replace(drill, click=by.click)
    if by.counting is not None:
        drill = replace(drill, counting=by.counting)
    if by.station is not None:
        drill = replace(drill, accents=TypedAccents(cycle=_station(by.station), restart="beat"))
    if by.letter:
        drill = _begun_later(drill, by.letter)
    if by.says:
        drill = _with_material(drill, "say", by.says, "Letters of notes are said on one note. Choose it as material.")
    if by.said_first:
        drill = _with_material(drill, "first", by.said_first, "Letters of notes are said on one note.")
    if by.articulation:
        drill = replace(drill, hands=Articulated(pattern=by.articulation))
    if by.foot:
        drill = replace(drill, foot=replace(drill.foot, which=by.foot))
    return drill


def in_place(drill: Drill, fret: int) -> Drill:
    """Return a drill through all that lies in one place of the neck, from its tonic to both ends and back.

    Raises:
        OutOfRange: Its material is no run through a scale or a chord.
    """
    if not isinstance(drill.material, ScaleRun | Arpeggio):
        raise OutOfRange("Places on the neck are of a scale or an arpeggio. Choose one.", field="overrides.place")
    material = replace(drill.material, octaves="range")
    return replace(drill, material=material, fingering="position", place=NeckPlace(fret))


def told_overrides(drill: Drill, by: Overrides) -> tuple[str, ...]:
    """Return what differs from a drill, in a few words each, in the order of the brief."""
    found = []
    if by.octaves is not None and by.octaves != getattr(drill.material, "octaves", None):
        found.append(plural(by.octaves, "octave"))
    if by.key and by.key != getattr(drill.material, "tonic", ""):
        found.append(f"in {show_tonic(by.key)}")
    if by.place:
        found.append(f"in position {roman(by.place)}")
    if by.other_lead:
        found.append(f"{_first_of(overridden(drill, Overrides(other_lead=True)))} first")
    if by.letter:
        found.append(f"beginning with {_first_of(overridden(drill, replace(by, other_lead=False)))}")
    if by.says or by.said_first:
        first, way = by.said_first or "the letters", f" {by.says}s" if by.says else ""
        found.append(f"{first}{way}")
    if by.articulation:
        found.append(ARTICULATION_PATTERNS[by.articulation][1])  # type: ignore[index]
    if by.station is not None:
        found.append(f"the accent on {station_word(drill, by.station)}")
    if by.counting is not None and by.counting != drill.counting:
        found.append(f"counted {by.counting.words}")
    if by.click is not None and by.click != drill.click:
        found.append(f"the click {by.click.words}")
    if by.foot:
        found.append(f"{by.foot} foot")
    return tuple(found)


def station_word(drill: Drill, station: int) -> str:
    """Return the count word of a slot in the division of a drill that has most of them."""
    division = max((leg.fastest for leg in drill.legs if leg.fastest.denominator == 1), default=None)
    if division is None or station >= division:
        return f"slot {station + 1}"
    return count_word(division, 1, station)


def _with_material(drill: Drill, name: str, value: object, missing: str) -> Drill:
    if not hasattr(drill.material, name):
        raise OutOfRange(missing, field="overrides")
    material: Any = drill.material
    return replace(drill, material=replace(material, **{name: value}))


def _station(station: int) -> tuple[Literal["accent", "plain"], ...]:
    # The cycle begins anew with each beat, so that what lies beyond its slots is plain.
    return tuple("accent" if slot == station else "plain" for slot in range(MOST_STATIONS))


def _begun_later(drill: Drill, by: int) -> Drill:
    hands = drill.hands
    if not isinstance(hands, ByOrder):
        raise OutOfRange(
            "No letters are written that could begin elsewhere. Choose a cycle of hands.", field="overrides"
        )
    turn = by % len(hands.cycle)
    return replace(drill, hands=replace(hands, cycle=(*hands.cycle[turn:], *hands.cycle[:turn])))


def _first_of(drill: Drill) -> str:
    hands = drill.hands
    if isinstance(hands, ByOrder):
        return hands.cycle[0]
    return str(getattr(hands, "lead", "the other hand"))
