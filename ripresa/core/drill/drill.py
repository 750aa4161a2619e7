"""The drill: what the teacher wrote, composed of material, legs, hands, accents and click."""

from dataclasses import dataclass, replace
from typing import Annotated, Literal

from ripresa.core.drill.accents import Accents, EachBeat
from ripresa.core.drill.body import LONGEST_PROMPT, Body, FootLayer, VoiceRow
from ripresa.core.drill.by_hand import LONGEST_FINGERS, LONGEST_PHRASES, parse_fingers, parse_phrases
from ripresa.core.drill.click import Click, NamedClick
from ripresa.core.drill.cues import MOST as MOST_CUES
from ripresa.core.drill.cues import Cue
from ripresa.core.drill.enters import Enters
from ripresa.core.drill.hands import ByPlace, Economy, Hands, NoHands
from ripresa.core.drill.hits import Hits
from ripresa.core.drill.leg import Leg
from ripresa.core.drill.material import Line, LongNotes, Material, ScaleRun, scale_of
from ripresa.core.drill.ornament import MOST as MOST_ORNAMENTS
from ripresa.core.drill.ornament import Ornamented
from ripresa.core.drill.reduce import Reduce
from ripresa.core.drill.second import SecondHand
from ripresa.core.drill.voicing import Voicing
from ripresa.core.drill.way_in import FOR_TWO_HANDS, STEPS, StageCount, Step
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label
from ripresa.core.kind import Between, check_bounds
from ripresa.core.pitch import Instrument, Level, instrument_named
from ripresa.core.rhythm import Counting, Swing, check_bpm, leg_meters

#: Notes of a scale that lies three to a string.
SEVEN_NOTES = 7
#: The rhythm scale: notes per beat, in the order in which neighbours are hardest to change between.
DIVISIONS = (Fraction(1, 2), *(Fraction(n) for n in range(1, 9)))
MOST_LEGS = 400
LONGEST_TEXT = 200
LONGEST_BREATH = 60
MOST_TAGS, LONGEST_TAG, MOST_STEPS, MOST_REGISTER = 12, 30, 16, 4

Seam = Literal["hold", "straight_on", "bar_rest", "breath"]
Closing = Literal["by_seam", "own", "shared"]
Fingering = Literal["none", "usual", "position", "two_a_string", "three_a_string", "four_a_string"]

SEAMS: dict[Seam, tuple[str, str]] = {
    "hold": ("hold to the bar line", "Each leg starts on 1, and there is time to think."),
    "straight_on": ("straight on", "No time to think: the change itself is the drill."),
    "bar_rest": ("a bar’s rest between", "A whole bar to hear the next division inside."),
    "breath": ("a beat to breathe", "For wind, or to let go of the hand."),
}
ARTICULATIONS: tuple[tuple[Fraction, str, str], ...] = (
    (Fraction(1), "full length", "Each note goes on to the next."),
    (Fraction(3, 4), "a little apart", "Three quarters of the slot sound."),
    (Fraction(1, 2), "short", "Half of the slot sounds."),
    (Fraction(1, 4), "as short as can be", "A quarter of the slot sounds."),
)
FINGERINGS: dict[Fingering, tuple[str, str]] = {
    "none": ("without fingering", "The student finds it."),
    "usual": ("with the usual fingering", "String and fret by least movement; on keys what method books agree on."),
    "position": ("in one position", "On strings: the hand stays where five frets hold all of it, if they do."),
    "two_a_string": ("two notes a string", "On strings: each string takes two notes; the hand shifts where it has to."),
    "three_a_string": ("three notes a string", "On strings: the same on each string, for the right hand too."),
    "four_a_string": ("four notes a string", "On strings: long shifts, for the whole neck."),
}


@dataclass(frozen=True, slots=True)
class NeckPlace:
    """Where on the neck a position lies; the usual one where neither is said.

    Args:
        fret: Of the first finger; 0 where it is looked for. string: The string of the lowest tonic; 0 for any.

    Raises:
        OutOfRange: No neck has it.
    """

    fret: Annotated[int, Between(0, 24, "The first finger stands at fret {least} to {most}, not {value}.")] = 0
    string: Annotated[int, Between(0, 10, "A string has a number up to {most}, not {value}.")] = 0

    def __post_init__(self) -> None:
        check_bounds(self, "place")

    @property
    def words(self) -> str:
        """Where it lies, in words; empty where it is looked for."""
        told = [f"at fret {self.fret}"] if self.fret else []
        return ", ".join(told + ([f"the lowest note on string {self.string}"] if self.string else []))


#: Way of fingering → notes that it takes on each string.
NOTES_A_STRING: dict[Fingering, int] = {"two_a_string": 2, "three_a_string": 3, "four_a_string": 4}
CLOSINGS: dict[Closing, tuple[str, str]] = {
    "by_seam": ("as the seam needs", "Its own where something is missing to the bar line, else shared."),
    "own": ("a note of its own", "The run always ends at rest."),
    "shared": ("shared with what follows", "The tonic that ends one leg begins the next."),
}


#: Kind of material → the hands that come with it: who strums swings the arm, whatever was picked before.
COMES_WITH: dict[str, Hands] = {"strum": ByPlace()}


@dataclass(frozen=True, slots=True)
class Drill:
    """What is practised.

    Args:
        title: What the teacher calls it, up to 200 signs.
        material: What is played.
        legs: Stretches of one division each, in order; 1 to 400.
        bpm: Tempo, 1 to 1000, of the note that the meter names.
        meter: As ``ripresa.core.rhythm.leg_meters`` takes it: a key of ``METERS``, or one that is typed.
        seam: What happens between legs.
        closing: Whether a closing tonic is played for itself.
        hands, accents, click: The layers on top.
        instrument: Key of ``ripresa.core.pitch.INSTRUMENTS``, or the line of one's own. capo: The fret that it lies at.
        swing: How the ideal places of pairs are moved; straight unless said.
        counting: The words that are said on each slot.
        articulation: Share of its length that a note sounds, above 0 to 1.
        breath: Seconds that a breath lasts; 0 where it does not matter.
        body, voice: What moves and what is said while the hands play.
        reduce: Which of its notes are played; the others keep their time in silence.
        way_in: The steps by which it is learnt, in order; none is as the teacher says.
        tags: Words to find it by, up to 12 of up to 30 signs.
        fingering: Whether the usual fingering of the instrument is worked out. place: Where a position lies.
        fingers: The teacher's own fingers for the notes of a pass, as ``parse_fingers`` takes them.
        phrases: Where phrases begin, as ``parse_phrases`` takes them.
        register: Octaves by which all is moved, −4 to 4; onsets stay.
        folded: Whether notes out of the instrument's range are moved into it by octaves.
        purpose: What it is for, in the teacher's words.
        second: What the other hand plays, on keys.
        level: Which range of the instrument is meant.
        hits: The layer of hits, and how much of what lies between them is played.
        ornaments: Notes that are not struck but hammered, pulled off or slid to, by their places; up to 256.
        foot: The foot under all. enters: From which bar each layer is there.
        prompt: What is talked of where the voice talks, up to 120 signs.
        cues: Lines of technique for a leg, a station or a step; up to 32.
        voicing: In which register each slot lies by its loudness.
        stage_counts: Steps of the way in that are counted otherwise.

    Raises:
        OutOfRange: A part is unknown or beyond its limits.
    """

    title: str = "New drill"
    material: Material = ScaleRun()
    legs: tuple[Leg, ...] = (Leg(Fraction(2)), Leg(Fraction(3)), Leg(Fraction(4)))
    bpm: Exact = Fraction(72)
    meter: str = "4/4"
    seam: Seam = "hold"
    closing: Closing = "by_seam"
    hands: Hands = NoHands()
    accents: Accents = EachBeat()
    click: Click = NamedClick()
    instrument: str = "any"
    capo: Annotated[int, Between(0, 12, "A capo lies at fret {least} to {most}, not {value}.")] = 0
    swing: Swing = Swing()
    counting: Counting = Counting()
    articulation: Exact = Fraction(1)
    breath: Exact = Fraction(0)
    body: Body = Body()
    voice: VoiceRow = "silent"
    reduce: Reduce = Reduce()
    way_in: tuple[Step, ...] = ()
    tags: tuple[str, ...] = ()
    fingering: Fingering = "none"
    place: NeckPlace = NeckPlace()
    fingers: str = ""
    phrases: str = ""
    register: int = 0
    folded: bool = False
    purpose: str = ""
    second: SecondHand = SecondHand()
    level: Level = "full"
    hits: Hits = Hits()
    ornaments: tuple[Ornamented, ...] = ()
    foot: FootLayer = FootLayer()
    enters: Enters = Enters()
    prompt: str = ""
    cues: tuple[Cue, ...] = ()
    voicing: Voicing = "as_written"
    stage_counts: tuple[StageCount, ...] = ()

    def __post_init__(self) -> None:
        if len(leg_meters(self.meter)) > 1 and self.seam in {"straight_on", "breath"}:
            raise OutOfRange(
                "Legs with meters of their own begin on a bar line. Hold to it, or take a bar’s rest between.",
                field="seam",
            )
        instrument = self.plays_on
        check_bounds(self, "")
        if self.capo and not instrument.strings:
            raise OutOfRange(
                f"A capo lies on strings, and {instrument.name} has none. Take it off, or an instrument with strings.",
                field="capo",
            )
        if isinstance(self.hands, Economy) and not instrument.strings:
            raise OutOfRange(
                f"Economy picking follows the strings, and {instrument.name} has none to follow. "
                "Choose the guitar, the bass guitar or the ukulele, or another way of picking.",
                field="hands.kind",
            )
        if self.second.is_there and instrument.voice != "keys":
            raise OutOfRange(
                f"A second hand needs keys, and {instrument.name} has none. Choose the piano, or any instrument.",
                field="second.plays.kind",
            )
        if self.fingering not in {"none", "usual"} and not instrument.strings:
            raise OutOfRange(
                f"“{FINGERINGS[self.fingering][0]}” is for strings, and {instrument.name} has none. Take the usual "
                "fingering, or an instrument with strings.",
                field="fingering",
            )
        self._check_by_hand()
        degrees = self._degrees
        if self.fingering == "three_a_string" and degrees is not None and degrees < SEVEN_NOTES:
            raise OutOfRange(
                f"Three notes a string are for scales of seven notes, and this has {degrees}: a finger would have to "
                "reach six frets. Take two notes a string, or one position.",
                field="fingering",
            )
        check_bpm(self.bpm)
        if not self.title.strip() or len(self.title) > LONGEST_TEXT:
            raise OutOfRange(f"A drill needs a title of 1 to {LONGEST_TEXT} signs.", field="title")
        if len(self.purpose) > LONGEST_TEXT:
            raise OutOfRange(f"A purpose has up to {LONGEST_TEXT} signs.", field="purpose")
        if len(self.tags) > MOST_TAGS or any(not 1 <= len(tag.strip()) <= LONGEST_TAG for tag in self.tags):
            raise OutOfRange(
                f"A drill has up to {MOST_TAGS} tags of 1 to {LONGEST_TAG} signs, parted by commas.", field="tags"
            )
        alone = next((step for step in self.way_in if step in FOR_TWO_HANDS), None)
        if alone and not self.second.is_there:
            raise OutOfRange(
                f"The step “{STEPS[alone][0]}” needs two hands. Let the other hand play, or take the step out.",
                field="way_in",
            )
        if len(self.cues) > MOST_CUES:
            raise OutOfRange(f"A drill has up to {MOST_CUES} cues, not {len(self.cues)}.", field="cues")
        if len(self.ornaments) > MOST_ORNAMENTS:
            raise OutOfRange(
                f"A drill has up to {MOST_ORNAMENTS} ornaments by hand, not {len(self.ornaments)}.", field="ornaments"
            )
        if len(self.stage_counts) > MOST_STEPS:
            raise OutOfRange(f"Up to {MOST_STEPS} steps have a count of their own.", field="stage_counts")
        if len(self.prompt) > LONGEST_PROMPT:
            raise OutOfRange(f"A prompt has up to {LONGEST_PROMPT} signs, not {len(self.prompt)}.", field="prompt")
        if len(self.way_in) > MOST_STEPS:
            raise OutOfRange(f"A way in has up to {MOST_STEPS} steps, not {len(self.way_in)}.", field="way_in")
        if abs(self.register) > MOST_REGISTER:
            raise OutOfRange(
                f"A drill is moved by up to {MOST_REGISTER} octaves, not {self.register}.", field="register"
            )
        if not 0 < self.articulation <= 1:
            raise OutOfRange(
                f"A note sounds for a share of its length above 0 and up to 1, not {label(self.articulation)}.",
                field="articulation",
            )
        if not 0 <= self.breath <= LONGEST_BREATH:
            raise OutOfRange(
                f"A breath lasts up to {LONGEST_BREATH} seconds, not {label(self.breath)}. Write 0 where it does not "
                "matter.",
                field="breath",
            )
        if not 1 <= len(self.legs) <= MOST_LEGS:
            raise OutOfRange(
                f"A drill has 1 to {MOST_LEGS} legs, not {len(self.legs)}. Choose at least one division.", field="legs"
            )

    @property
    def plays_on(self) -> Instrument:
        """The instrument that it is written for, with its capo."""
        return instrument_named(self.instrument).with_capo(self.capo)

    @property
    def faster_hand(self) -> str:
        """The hand with more notes a beat, R or L; the right one where they are alike."""
        fastest = max(leg.fastest for leg in self.legs)
        own = max((leg.fastest for leg in self.second.legs), default=Fraction(0))
        return "L" if self.second.is_there and own > fastest else "R"

    def _check_by_hand(self) -> None:
        if len(self.fingers) > LONGEST_FINGERS or len(self.second.fingers) > LONGEST_FINGERS:
            raise OutOfRange(f"Fingers have up to {LONGEST_FINGERS} signs.", field="fingers")
        if len(self.phrases) > LONGEST_PHRASES:
            raise OutOfRange(f"Phrases have up to {LONGEST_PHRASES} signs.", field="phrases")
        parse_fingers(self.fingers)
        parse_fingers(self.second.fingers, "second.fingers")
        parse_phrases(self.phrases)

    @property
    def _degrees(self) -> int | None:
        """Notes in an octave of its scale or chord; None where its material has none."""
        scale = scale_of(self.material) if not isinstance(self.material, Line) else None
        return scale[1].degrees if scale else None

    @property
    def has_arm(self) -> bool:
        """Whether an arm swings or picks through its slots: none does on a wind instrument, and none in long notes."""
        return not self.plays_on.breathes and not isinstance(self.material, LongNotes)

    @property
    def as_played(self) -> "Drill":
        """The drill without a law of the arm where no arm is; written on, it is there again when one comes back."""
        if isinstance(self.hands, ByPlace | Economy) and not self.has_arm:
            # One way of an arm that is not there cannot be all that is played.
            reduce = Reduce() if self.reduce.part == "hand" else self.reduce
            return replace(self, hands=NoHands(), reduce=reduce)
        return self

    @property
    def knows_fingering(self) -> bool:
        """Whether its notes are fingered: because that is wanted, or because the hands follow the strings."""
        return self.fingering != "none" or isinstance(self.hands, Economy)
