"""What there is to choose from, as the pages get it: each with a name and why one would."""

from ripresa.core.climbs import ClimbPlan, Moving, RungRule, Target
from ripresa.core.drill import (
    Drill,
    Step,
)
from ripresa.core.drill.accents import Accents
from ripresa.core.drill.click import Click
from ripresa.core.drill.hands import Hands
from ripresa.core.drill.material import (
    Material,
)
from ripresa.core.drill.second import Plays
from ripresa.core.studio import StudentDetails, StudioSettings
from ripresa.core.takes import Evenness, StandIn
from ripresa.formats.play_along_file import SoundFormat
from ripresa.formats.recipes import Recipes
from ripresa.formats.wire import Shape, WireExact


class Choice(Shape):
    """One thing to choose: its value, its name, and why one would."""

    value: str
    label: str
    why: str


class SoundChoice(Choice):
    """A format of sound that a drill can be made into."""

    value: SoundFormat


class ScaleChoice(Choice):
    """A scale, and how many degrees it has; 0 where they are written out."""

    degrees: int


class InstrumentChoice(Choice):
    """An instrument: which hand cycles are usual on it, and what there is of it.

    ``breathes``: a breath limits a pass. ``strings``: how many, 0 without. ``has_keys``: two hands can play it.
    ``has_first_year``: it has a range for beginners. ``has_break``: a break between registers is known.
    ``breath``: seconds of one comfortable breath, 0 where none is needed.
    """

    cycles: list[str]
    breathes: bool
    strings: int
    has_keys: bool
    has_first_year: bool
    has_break: bool
    breath: int


class SchoolChoice(Choice):
    """A ready way in."""

    steps: list[Step]


class MovementChoice(Choice):
    """A movement of the body, and the rate with which it begins."""

    every: WireExact


class LadderChoice(Choice):
    """A ready click ladder."""

    plans: list[Click]


class FigureChoice(Choice):
    """A figure that has a limit: in each school of evenness, in words."""

    schools: dict[str, str]


class StandInChoice(Shape):
    """A ready stand-in player."""

    value: str
    label: str
    player: StandIn


class WordPlace(Shape):
    """Where a word lies in the file of all words, in seconds."""

    start: float
    seconds: float


class VoiceChoice(Shape):
    """The spoken words that ship: where each lies in their file, and how many seconds into it its vowel is."""

    words: dict[str, WordPlace]
    anchor: float


class KindChoice(Choice):
    """A kind of a part: all that can be set of it, and what is told of each number while it is typed."""

    fields: list[str]
    hints: dict[str, str]


class MaterialKind(KindChoice):
    """A kind of material; ``hands`` are those that come with it, if others than before."""

    fresh: Material
    hands: Hands | None


class HandsKind(KindChoice):
    """A hand law."""

    fresh: Hands


class AccentsKind(KindChoice):
    """A way of setting accents."""

    fresh: Accents


class ClickKind(KindChoice):
    """A click."""

    fresh: Click


class PlaysKind(KindChoice):
    """Something that the other hand plays."""

    fresh: Plays


class ArticulationChoice(Choice):
    """An articulation pattern, or a circuit of them: its cycle in signs; empty for a circuit."""

    cycle: str


class TargetKind(KindChoice):
    """A kind of target of a climb."""

    fresh: Target


class RuleKind(KindChoice):
    """A rule for the rungs of a climb."""

    fresh: RungRule


class PresetChoice(Choice):
    """A ready plan of a climb by level: the words that it sets."""

    rule: RungRule
    moving: Moving
    clean_to_rise: int
    shaky_to_fall: int
    evenness: Evenness


class Choices(Shape):
    """Everything that a brief offers."""

    materials: list[MaterialKind]
    hands: list[HandsKind]
    accents: list[AccentsKind]
    targets: list[TargetKind]
    rules: list[RuleKind]
    movings: list[Choice]
    presets: list[PresetChoice]
    plan: ClimbPlan
    student: StudentDetails
    settings_of_studio: StudioSettings
    papers: list[Choice]
    languages: list[Choice]
    sound_firsts: list[Choice]

    is_demo: bool
    version: str
    tonics: list[Choice]
    scales: list[ScaleChoice]
    chords: list[ScaleChoice]
    tone_sets: list[ScaleChoice]
    figures: list[Choice]
    ways: list[Choice]
    patterns: list[Choice]
    swings: list[Choice]
    mixes: list[Choice]
    says: list[Choice]
    rhythms: list[Choice]
    afters: list[Choice]
    fits: list[Choice]
    shapes: list[Choice]
    octaves: list[Choice]
    tops: list[Choice]
    closings: list[Choice]
    meters: list[Choice]
    divisions: list[Choice]
    seams: list[Choice]
    staves: list[Choice]
    sheet_shows: list[Choice]
    exports: list[Choice]
    sounds: list[SoundChoice]
    fingerings: list[Choice]
    articulations: list[Choice]
    backings: list[Choice]
    pulses: list[Choice]
    timbres: list[Choice]
    movements: list[MovementChoice]
    voices: list[Choice]
    feet: list[Choice]
    entering: list[Choice]
    fills_from: list[Choice]
    voicings: list[Choice]
    cue_wheres: list[Choice]
    count_runs: list[Choice]
    string_sets: list[Choice]
    parts: list[Choice]
    steps: list[Choice]
    schools: list[SchoolChoice]
    countings: list[Choice]
    cycles: list[Choice]
    restarts: list[Choice]
    leads: list[Choice]
    hand_leads: list[Choice]
    odd_schools: list[Choice]
    plays: list[PlaysKind]
    intervals: list[Choice]
    contrary_starts: list[Choice]
    holds: list[Choice]
    broken: list[Choice]
    balances: list[Choice]
    picks: list[Choice]
    basses: list[Choice]
    agains: list[Choice]
    finger_orders: list[Choice]
    string_paths: list[Choice]
    legatos: list[Choice]
    tonguings: list[ArticulationChoice]
    levels: list[Choice]
    two_hand_steps: list[Step]
    clicks: list[ClickKind]
    click_ladders: list[LadderChoice]
    click_orders: list[Choice]
    instruments: list[InstrumentChoice]
    settings: list[Choice]
    evenness: list[Choice]
    limits: list[FigureChoice]
    faults: list[Choice]
    turned: list[Choice]
    weekdays: list[Choice]
    stand_ins: list[StandInChoice]
    sounds_as: list[Choice]
    calibration: Drill
    spoken: list[Choice]
    spoken_words: list[Choice]
    meanwhile: list[Choice]
    slows: list[Choice]
    recipes: Recipes
    voice: VoiceChoice
