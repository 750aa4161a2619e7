"""Readings and performances of a drill that need not be kept yet."""

from flask import Response
from pydantic import Field

from ripresa.core.changes import (
    Overrides,
    Part,
    Turned,
    layers_of,
    overridden,
    practised,
    present_layers,
    variant_set,
    window_of,
)
from ripresa.core.drill import ENTERING, Drill
from ripresa.core.drill.click import Click
from ripresa.core.exact import Fraction, decimal, label, parse_amount
from ripresa.core.listening import As
from ripresa.core.pitch import Voice
from ripresa.core.playing import Accompaniment, Before, Pulse, Spoken, guess_of
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm, tapped_bpm
from ripresa.core.takes import unheard_words, usual_sound
from ripresa.formats.wire import Shape, WireExact
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.middle import near_the_middle
from ripresa.web.numbers import Count, Seconds
from ripresa.web.query import Query
from ripresa.web.shapes.described import described
from ripresa.web.shapes.performance import ScoreShape, score_shape
from ripresa.web.shapes.reading import ReadingShape, reading_shape
from ripresa.web.shapes.sent import Sent
from ripresa.work.practise import Practice, practise

api = blueprint("readings")


class ReadingBody(Shape):
    """A drill, and a tempo if not its own."""

    drill: Drill
    bpm: WireExact | None = None


class PerformanceBody(Shape):
    """A drill at a tempo, with what comes before it and another click if wanted.

    For practice: a part of it by itself, in turn with the teacher, or at a slow share of the tempo.
    """

    drill: Drill
    bpm: WireExact | None = None
    click: Click | None = None
    before: Before = Field(default_factory=Before)
    spoken: Spoken = Field(default_factory=Spoken)
    pulse: Pulse | None = None
    backing: list[Accompaniment] = Field(default_factory=list)
    part: Part = Field(default_factory=Part)
    turns: Count | None = None
    slow: WireExact | None = None
    over: Overrides | None = None


class LayerShape(Sent, frozen=True):
    """A layer of a drill, and the bar in which it enters; whether it is there now."""

    name: str
    bar: int
    is_there: bool


class PerformanceShape(Sent, frozen=True):
    """A reading in seconds and the reading beside it.

    With it the seams that can go round, the hands that can play alone, and the tempi one press away; what a microphone
    will not hear of it, empty where it hears all, and how its notes begin. ``layers`` are those that the drill has, in
    the order in which they enter; none where the hands are all there is. ``cues`` hold before it is played.
    """

    performance: ScoreShape
    reading: ReadingShape
    voice: Voice
    bars: int
    seams: list[str]
    hands: list[str]
    is_practice: bool
    is_measured: bool
    part_name: str
    slower: WireExact
    faster: WireExact
    half: WireExact | None
    double: WireExact | None
    unheard: str
    sounds_as: As
    layers: list[LayerShape]
    cues: list[str]


class GuessBody(Shape):
    """A drill as it goes round, and when in its turn beat 1 was taken to be, in seconds from its beginning."""

    drill: Drill
    bpm: WireExact | None = None
    part: Part = Field(default_factory=Part)
    at: Seconds


class GuessShape(Shape):
    """Whether it was beat 1, and how far off it was, in a sentence."""

    is_right: bool
    told: str


class CircuitBody(Shape):
    """A drill, the list it is turned through, and a tempo for its time."""

    drill: Drill
    turned: Turned
    bpm: WireExact | None = None


class StationShape(Shape):
    """One of a circuit: what it is called, and what is laid over the drill."""

    name: str
    over: Overrides


class CircuitShape(Shape):
    """A drill turned through a list, in order; what the list has too and this drill cannot be; its time, said."""

    stations: list[StationShape]
    left_out: list[str]
    seconds: str


class AmountQuery(Query):
    """A number as it was typed."""

    text: str
    what: str = "bpm"


class Amount(Shape):
    """The number, exact, and how it is shown."""

    exact: WireExact
    label: str


@api.post("/reading", responses={200: described(ReadingShape)})
def show_reading(body: ReadingBody) -> Response:
    """The rail and the sums of a drill."""
    return answer(reading_shape(read(body.drill), check_bpm(body.bpm or body.drill.bpm)))


@api.post("/performance", responses={200: described(PerformanceShape)})
def show_performance(body: PerformanceBody) -> Response:
    """A drill in seconds, for the player."""
    found = practise(
        Practice(
            drill=overridden(body.drill, body.over) if body.over else body.drill,
            bpm=body.bpm,
            click=body.click,
            part=body.part,
            turns=body.turns,
            slow=body.slow,
            before=body.before,
            spoken=body.spoken,
            pulse=near_the_middle(body.pulse),
            back=tuple(body.backing),
        )
    )
    return answer(
        PerformanceShape(
            performance=score_shape(found.performance),
            reading=reading_shape(found.reading, found.bpm),
            voice=found.reading.instrument.voice,
            bars=found.reading.bar_count,
            seams=list(found.seams),
            hands=list(found.hands),
            is_practice=found.is_practice,
            is_measured=found.is_measured,
            part_name=found.part_name,
            slower=found.slower,
            faster=found.faster,
            half=found.half,
            double=found.double,
            unheard=unheard_words(found.reading),
            sounds_as=usual_sound(found.reading),
            layers=_layers(found.reading, body.part),
            cues=list(dict.fromkeys(cue.told for cue in found.reading.drill.cues)),
        )
    )


def _layers(reading: Reading, part: Part) -> list[LayerShape]:
    """Return the layers that a drill has besides its hands, and these, in the order in which they enter."""
    found = present_layers(reading.drill)
    there = layers_of(reading.drill, part)
    if len(found) == 1:
        return []
    return [LayerShape(name=ENTERING[name][0], bar=bar, is_there=there is None or name in there) for name, bar in found]


@api.post("/guess", responses={200: GuessShape})
def take_guess(body: GuessBody) -> Response:
    """How far a press was from beat 1."""
    reading = read(practised(body.drill, body.part))
    window = window_of(reading, body.part)
    start = window.start if window else Fraction(0)
    found = guess_of(reading, check_bpm(body.bpm or body.drill.bpm), Fraction(body.at).limit_denominator(10**6), start)
    return answer(GuessShape(is_right=found.is_right, told=found.told))


@api.post("/circuit", responses={200: CircuitShape})
def make_circuit(body: CircuitBody) -> Response:
    """A drill turned through a list, to be played one after the other."""
    found = variant_set(body.drill, body.turned, check_bpm(body.bpm or body.drill.bpm))
    return answer(
        CircuitShape(
            stations=[StationShape(name=one.name, over=one.overrides) for one in found.variants],
            left_out=list(found.left_out),
            seconds=decimal(found.seconds, 0),
        )
    )


class TapsBody(Shape):
    """Moments in seconds at which a beat was tapped."""

    taps: list[Seconds] = Field(max_length=500)


@api.post("/tempo/tapped", responses={200: Amount})
def tap_tempo(body: TapsBody) -> Response:
    """The tempo of beats that were tapped."""
    bpm = tapped_bpm(body.taps)
    return answer(Amount(exact=bpm, label=label(bpm)))


@api.get("/amount", responses={200: Amount})
def read_amount(query: AmountQuery) -> Response:
    """A typed number, read exactly: ``84``, ``84.5``, ``84½``."""
    value = parse_amount(query.text)
    if query.what == "bpm":
        check_bpm(value)
    return answer(Amount(exact=value, label=label(value)))
