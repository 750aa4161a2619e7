"""Events and legs: what a reading consists of."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.exact import Fraction
from ripresa.core.grid.how import AS_WRITTEN, How
from ripresa.core.grid.place import Slot
from ripresa.core.grid.record import Record
from ripresa.core.grid.touch import Touch
from ripresa.core.pitch import ChordSound, Pitch
from ripresa.core.rhythm import Level, SlotKind, place_name, slot_name

Layer = Literal["notes", "right", "left", "both"]
#: How much a hit weighs, whatever its accent.
Hit = Literal["full", "light"]
#: The hand of each row where two play.
HANDS_OF: dict[Layer, str] = {"right": "R", "left": "L"}


class Event(Record, frozen=True):
    """One slot of a drill, with all that is known about it.

    Args:
        onset, length: In beats of the bpm, from the drill's start.
        leg: Index of the leg, from 0.
        bar, beat: From 1. slot: from 0.
        count: The word that is said there.
        span: Beats of the bpm that the slots of its division share there.
        division: Notes per beat here.
        kind: A note, a rest, an air stroke, or the held part of an earlier note.
        pitch: Written pitch, None without.
        stroke: Hand, pick direction or syllable, None without; on a hold the arm moves without sounding.
        accent: One of three levels.
        slurred: Whether it is not struck, but slurred to the note that sounds before it.
        chord: The chord that is struck, or that a line is played over; None without.
        group: Number of its group in the leg, from 0; None without groups.
        in_group: Which note of its group, or else of its statement, it is, from 1; None without.
        statement: Number of the statement of a line that it belongs to, from 0; None where there is one alone.
        touch: String, fret and finger; None where it is not worked out.
        layer: Which layer it belongs to: ``"notes"``; the right or the left hand, or both in one, where two play.
        how: How the material has it played.
        hit: Whether a note is a hit of the layer of hits, and how much it weighs; None where it lies between.
    """

    onset: Fraction
    length: Fraction
    leg: int
    bar: int
    beat: int
    slot: int
    division: Fraction
    count: str
    kind: SlotKind
    pitch: Pitch | None
    stroke: str | None
    accent: Level
    group: int | None
    slurred: bool = False
    chord: ChordSound | None = None
    statement: int | None = None
    in_group: int | None = None
    touch: Touch | None = None
    layer: Layer = "notes"
    span: Fraction = Fraction(1)
    how: How = AS_WRITTEN
    hit: Hit | None = None

    @property
    def tones(self) -> tuple[Pitch, ...]:
        """The written pitches that sound, from the lowest; none without pitch, or where they are damped."""
        if self.how.dead:
            return ()
        return (self.pitch,) if self.pitch else self.chord.tones if self.chord else ()

    @property
    def hand(self) -> str | None:
        """The symbol of the hand whose row it stands in, R or L; None where one row is all there is."""
        return HANDS_OF.get(self.layer)

    @property
    def place_name(self) -> str:
        """Where it stands, in words: always by number, whatever is said while playing."""
        return place_name(self.bar, self.beat, slot_name(self.division, self.slot, self.span))

    @property
    def slot_beats(self) -> Fraction:
        """How long an even slot of its division lasts where it stands, in beats of the bpm."""
        return self.span / self.division.numerator


#: Where a slot stands in its leg: beats from the start of the leg, division, number of the slot.
SlotPlace = tuple[Fraction, Fraction, int]


@dataclass(frozen=True, slots=True)
class LegReading:
    """One leg, as it was laid out.

    Args:
        divisions: Notes per beat, in the order in which they take turns.
        start, beats: In beats; what the seam adds is in.
        pass_beats: Beats of the pass alone: N / s.
        last, end: Slot of the last note of the pass, and of what follows it: (beats from the start of the
            leg, division, slot). The closing tonic stands at the end, whether it is played or not.
        rhythm: The slots of its pass where the material brings them; none where the divisions go on and on.
        turns: Those of a pass that begins in each of the bars that take turns, where it is not the same in all.
        notes: Notes sounded, the closing tonic in.
        pass_notes: Notes of the pass alone: N of the fit report.
        has_closing: Whether the material has a closing tonic; plays_closing: whether this leg plays it.
        described: The pass in words: ``"2 octaves"``.
        out_of_range: How many notes the instrument does not have.
    """

    index: int
    divisions: tuple[Fraction, ...]
    start: Fraction
    beats: Fraction
    pass_beats: Fraction
    last: SlotPlace
    end: SlotPlace
    notes: int
    pass_notes: int
    has_closing: bool
    plays_closing: bool
    described: str
    out_of_range: int
    rhythm: tuple[Slot, ...] = ()
    turns: tuple[tuple[Slot, ...], ...] = ()

    @property
    def enters(self) -> Fraction:
        """The division with which the leg begins."""
        return self.divisions[0]

    @property
    def leaves(self) -> Fraction:
        """The division of the last note of the pass."""
        return self.last[1]

    @property
    def division(self) -> Fraction:
        """The fastest division: the one that sets the speed."""
        return max(self.divisions)
