"""What ``ripresa sums`` prints, key by key: docs/commands.md says what each number is."""

from dataclasses import dataclass

from ripresa.formats.hands_shape import (
    AgainstFigures,
    BreakFigures,
    BreathOf,
    CircuitLeg,
    Number,
    StringFigures,
    ThumbFigures,
)


@dataclass(frozen=True, slots=True)
class Where:
    """A place: bar and beat from 1, its count word, its name (empty on the beat), beats from the start of the drill."""

    bar: int
    beat: int
    count: str
    name: str
    at: str


@dataclass(frozen=True, slots=True)
class LegFigures:
    """A leg: beats of the bpm with what its seam adds; speed and gap of the closest notes, straight; gaps as played."""

    leg: int
    division: str
    divisions: list[str]
    start: str
    notes: int
    beats: Number
    bars: Number
    seconds: Number
    nps: Number
    gap_ms: Number
    gaps_ms: list[Number]


@dataclass(frozen=True, slots=True)
class LoadFigures:
    """What one hand, direction, finger or syllable does: notes, motions with air strokes, most a second."""

    symbol: str
    strikes: int
    motions: int
    nps: Number


@dataclass(frozen=True, slots=True)
class GearFigures:
    """A change of division: milliseconds from note to note, their ratio, per cent of speed, whether it is under 1.3."""

    before: str
    after: str
    gap_ms_before: Number
    gap_ms_after: Number
    gap_ratio: Number
    speed_change_percent: Number
    is_narrow: bool


@dataclass(frozen=True, slots=True)
class FitFigures:
    """How the pass of a leg fits the bar; the closing tonic is None without one."""

    leg: int
    notes: int
    beats: Number
    bars: Number
    last_note: str
    closing: str | None
    plays_closing: bool
    missing_beats: Number


@dataclass(frozen=True, slots=True)
class BeatHome:
    """Notes and beats of the meter until a group starts on a beat again."""

    notes: int
    beats: Number


@dataclass(frozen=True, slots=True)
class BarHome:
    """Notes, bars and groups until a group starts on a bar line again."""

    notes: int
    bars: Number
    groups: int


@dataclass(frozen=True, slots=True)
class GroupFigures:
    """The groups of a leg; homes are None where none comes. ``end`` is where what follows a line stands."""

    leg: int
    division: str
    size: int
    restart: str
    beat_home: BeatHome | None
    bar_home: BarHome | None
    starts: list[Where]
    beats_hit: list[int]
    cut: list[int]
    end: Where | None


@dataclass(frozen=True, slots=True)
class LeadFigures:
    """When the lead of a leg is home: 1 beat where every beat starts alike; what starts the beats until then."""

    leg: int
    division: str
    home_beats: int | None
    home_bars: int | None
    starts: list[str | None]


@dataclass(frozen=True, slots=True)
class Leads:
    """The lead of each leg, and what each hand does over the drill, the busiest first."""

    home_beats: int | None
    home_bars: int | None
    load: list[LoadFigures]
    legs: list[LeadFigures]


@dataclass(frozen=True, slots=True)
class Station:
    """A station of an accent walk: its count word, and the hands that play it."""

    count: str
    hands: list[str]


@dataclass(frozen=True, slots=True)
class WalkFigures:
    """An accent walk on a leg."""

    leg: int
    division: str
    stations: list[Station]
    home_bars: int
    home_notes: int
    seconds: Number
    walked_bars: Number
    gap: int | None
    home_gap: int | None


@dataclass(frozen=True, slots=True)
class LandingFigures:
    """Where a leg's pass is over: the place of what follows, what is missing to the next 1.

    For a line also where it enters, where its second statement would, after how many bars and statements it is
    home, and where it would end at twice the division; None for the rest.
    """

    leg: int
    division: str
    end: Where
    missing_slots: int
    missing_beats: Number
    enters: Where | None
    second: Where | None
    home_bars: Number | None
    home_statements: int | None
    doubled_end: Where | None
    doubled_missing_slots: int | None


@dataclass(frozen=True, slots=True)
class ClickSums:
    """The click: clicks a minute; seconds from one to the next, the longest where uneven; ms that 1 % comes to then."""

    per_minute: Number
    gap: Number | None
    is_even: bool
    drift_1_percent: Number | None
    dial: str
    off_beat: list[str]


@dataclass(frozen=True, slots=True)
class BreathFigures:
    """The breath of a leg: beats of its pass, seconds of a breath, the slowest tempo that fits, whether this does."""

    leg: int
    beats: Number
    breath_seconds: Number
    needed_bpm: Number
    fits: bool


@dataclass(frozen=True, slots=True)
class Twin:
    """The same speed at another division."""

    division: str
    bpm: Number


@dataclass(frozen=True, slots=True)
class Told:
    """A paragraph, as the app shows it."""

    title: str
    sentences: list[str]
    starts: str


@dataclass(frozen=True, slots=True)
class SumsFile:
    """All that is told of a drill at a tempo."""

    title: str
    bpm: Number
    meter: str
    notes: int
    beats: Number
    bars: Number
    seconds: Number
    legs: list[LegFigures]
    peak_nps: Number
    average_nps: Number
    limiting: LoadFigures | None
    motions_nps: Number | None
    strikes_nps: Number | None
    gears: list[GearFigures]
    fit: list[FitFigures]
    groups: list[GroupFigures]
    lead: Leads | None
    walk: list[WalkFigures]
    landing: list[LandingFigures]
    click: ClickSums
    breath: list[BreathFigures]
    against: list[AgainstFigures]
    thumbs: ThumbFigures | None
    strings: StringFigures | None
    breath_plan: list[BreathOf]
    one_breath_bpm: Number | None
    breaks: list[BreakFigures]
    sounding_key: str | None
    circuit: list[CircuitLeg]
    steps: list[list[str]]
    twins: list[Twin]
    told: list[Told]
    warnings: list[str]
