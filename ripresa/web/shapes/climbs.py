"""The shapes of climbs: treads, the present rung, and the word that waits."""

from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Literal, NamedTuple

from ripresa.core.changes import Part
from ripresa.core.climbs import (
    TARGETS,
    BandTarget,
    ClimbPlan,
    Decision,
    HeartTarget,
    HitList,
    Rung,
    SpeedTarget,
    SteadyTarget,
    Target,
    Word,
    rule_sentence,
)
from ripresa.core.drill.click import Click
from ripresa.core.exact import Fraction, decimal, label, short
from ripresa.core.reports import RungBreath
from ripresa.core.rhythm import meter_named
from ripresa.core.takes import Mark, asked, asked_in_short
from ripresa.formats.wire import Shape, WireExact
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import KeptRemedyShape, kept_remedy_shape
from ripresa.work.climbs import Ladder, Stood

TreadState = Literal["done", "now", "ahead", "target"]


class TreadShape(Shape):
    """One rung: ``height`` from 0 (start) to 1 (target); the marks of its takes in order; the click that is due.

    ``breaths`` says how many a turn takes; empty where breath does not matter. ``part`` is what is practised of the
    drill on it, ``words`` that, or what is got right; empty for all of it.
    """

    number: int
    bpm: WireExact
    bpm_label: str
    nps: str
    gap_ms: str
    height: float
    state: TreadState
    marks: list[Mark]
    click: Click | None
    click_words: str
    breaths: str
    part: Part | None
    words: str


class LadderShape(Shape):
    """The rungs that a plan makes, before anyone climbs them, and its two rules in words."""

    treads: list[TreadShape]
    sentence: str
    target_words: str
    rule_words: str
    moving_words: str


class BandShape(Shape):
    """How far a note may lie off at one division: in seconds, and as a share of the gap, to be drawn on a beat."""

    division: str
    seconds: float
    share: float


class LimitShape(Shape):
    """One limit: its name, its figures in words, and its band at each division where it has one."""

    name: str
    words: str
    bands: list[BandShape]


class WordShape(Shape):
    """Up, stay or back, and why."""

    decision: Decision
    rung: int
    heading: str
    sentence: str


class ClimbShape(Shape):
    """A climb as it stands; ``waiting`` is a word that has not been answered."""

    id: int
    student: StudentShape
    drill_id: int
    version: int
    newer_version: int | None
    title: str
    drill_title: str
    differs: list[str]
    set_key: str
    set_place: int
    sign: str
    plan: ClimbPlan
    rung: int
    bpm: WireExact
    bpm_label: str
    nps: str
    target_label: str
    target_words: str
    band_place: str
    rule_words: str
    moving_words: str
    treads: list[TreadShape]
    word: WordShape
    waiting: WordShape | None
    next_sentence: str
    remedy: KeptRemedyShape | None
    held_to: str
    asked: str
    limits: list[LimitShape]
    last_take_at: str | None
    cautions: list[str]
    revision: int


def ladder_shape(ladder: Ladder) -> LadderShape:
    """Return the rungs of a plan over a drill."""
    plan = ladder.plan
    return LadderShape(
        treads=_treads(ladder.rungs, 0, {}, ladder.breaths),
        sentence=ladder.sentence,
        target_words=target_words(plan.target, ladder.rungs[-1]),
        rule_words="" if plan.is_without_speed else rule_sentence(plan.rule),
        moving_words=plan.moving_words,
    )


def climb_shape(stood: Stood, cautions: Sequence[str] = ()) -> ClimbShape:
    """Return a climb with its treads and its word.

    Args:
        cautions: Where it goes beyond what is written down about its student; lists leave them out.
    """
    climb, here = stood.climb, stood.here
    word = _word(stood.word)
    played = stood.standing.last_take_at
    return ClimbShape(
        id=climb.id,
        student=student_shape(climb.student),
        drill_id=climb.drill.id,
        version=climb.drill.version,
        newer_version=stood.newest if stood.newest > climb.drill.version else None,
        title=climb.title,
        drill_title=climb.drill.drill.title,
        differs=list(climb.differs),
        set_key=climb.set_key,
        set_place=climb.set_place,
        sign=meter_named(climb.drill.drill.meter).sign,
        plan=climb.plan,
        rung=climb.rung,
        bpm=here.bpm,
        bpm_label=label(here.bpm),
        nps=short(here.nps),
        target_label=label(stood.rungs[-1].bpm),
        target_words=target_words(climb.plan.target, stood.rungs[-1]),
        band_place=_place(climb.plan.target, here.nps),
        rule_words="" if climb.plan.is_without_speed else rule_sentence(climb.plan.rule),
        moving_words=climb.plan.moving_words,
        treads=_treads(stood.rungs, climb.rung, stood.standing.marks, stood.breaths),
        word=word,
        waiting=word if stood.is_open else None,
        next_sentence=stood.next_sentence,
        remedy=kept_remedy_shape(stood.remedy) if stood.remedy else None,
        held_to=climb.plan.limits.words,
        asked=asked_in_short(climb.plan.limits, stood.gaps),
        limits=[
            LimitShape(
                name=one.name,
                words=one.words,
                bands=[BandShape.model_validate(band, from_attributes=True) for band in one.bands],
            )
            for one in asked(climb.plan.limits, stood.gaps)
        ],
        last_take_at=played.isoformat() if played else None,
        cautions=list(cautions),
        revision=climb.revision,
    )


def target_words(target: Target, last: Rung) -> str:
    """Return where a climb leads, as it stands in its sentence."""
    match target:
        case BandTarget():
            return f"{label(target.low)} to {label(target.high)} notes a second"
        case SpeedTarget():
            return f"{label(target.nps)} notes a second"
        case HeartTarget() | HitList() | SteadyTarget():
            return f"{next(one.name for one in TARGETS if one.value == target.kind)}, at {label(last.bpm)}"
        case _:
            return label(last.bpm)


def _place(target: Target, nps: Fraction) -> str:
    if not isinstance(target, BandTarget):
        return ""
    return f"{target.place(nps)} {label(target.low)} to {label(target.high)} notes a second"


def _word(word: Word) -> WordShape:
    return WordShape(decision=word.decision, rung=word.rung, heading=word.heading, sentence=word.sentence)


def _treads(
    found: tuple[Rung, ...], now: int, marks: Mapping[int, Sequence[Mark]], breaths: Mapping[Fraction, RungBreath]
) -> list[TreadShape]:
    return [
        TreadShape(
            number=rung.number,
            bpm=rung.bpm,
            bpm_label=text.bpm,
            nps=text.nps,
            gap_ms=text.gap_ms,
            height=text.height,
            state=tread_state(rung.number, now, len(found)),
            marks=list(marks.get(rung.number, ())),
            click=rung.click,
            click_words=rung.click.words if rung.click else "",
            breaths=_breaths(breaths[rung.bpm]) if rung.bpm in breaths else "",
            part=rung.part,
            words=rung.words,
        )
        for rung, text in zip(found, _texts(found), strict=True)
    ]


class _Text(NamedTuple):
    """What of a tread stays the same whoever climbs it: its numbers in words, and how high it lies."""

    bpm: str
    nps: str
    gap_ms: str
    height: float


@lru_cache(maxsize=1024)
def _texts(found: tuple[Rung, ...]) -> tuple[_Text, ...]:
    return tuple(
        _Text(label(rung.bpm), short(rung.nps), decimal(rung.gap_seconds * 1000, 1), height)
        for rung, height in zip(found, _heights(found), strict=True)
    )


def _heights(found: Sequence[Rung]) -> list[float]:
    """Return how high each rung lies, by its speed; where that stays the same, by its number."""
    speeds = [rung.nps for rung in found]
    low, high = min(speeds), max(speeds)
    if low == high:
        return [(rung.number - 1) / max(1, len(found) - 1) for rung in found]
    return [float((nps - low) / (high - low)) for nps in speeds]


def _breaths(found: RungBreath) -> str:
    more = ", one more" if found.one_more else ""
    return f"{found.breaths}{more}, up to {decimal(found.longest, 1)} s"


def tread_state(number: int, now: int, last: int) -> TreadState:
    """Return how a rung stands to the present one; ``last`` is the number of the target's."""
    if number == now:
        return "now"
    if number < now:
        return "done"
    return "target" if number == last else "ahead"
