"""The shapes of climbs: treads, the present rung, and the word that waits."""

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Literal

from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import ClimbPlan, Decision, Rung, Word
from ripresa.core.drill.click import Click
from ripresa.core.exact import decimal, label, short
from ripresa.core.reports import RungBreath
from ripresa.core.rhythm import meter_named
from ripresa.core.takes import Mark, limit_words
from ripresa.formats.wire import WireExact
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import KeptRemedyShape, kept_remedy_shape
from ripresa.work.climbs import Ladder, Stood

TreadState = Literal["done", "now", "ahead", "target"]


class TreadShape(BaseModel):
    """One rung: ``height`` from 0 (start) to 1 (target); the marks of its takes in order; the click that is due.

    ``breaths`` says how many a turn takes; empty where breath does not matter.
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


class LadderShape(BaseModel):
    """The rungs that a plan makes, before anyone climbs them."""

    treads: list[TreadShape]
    sentence: str


class WordShape(BaseModel):
    """Up, stay or back, and why."""

    decision: Decision
    rung: int
    heading: str
    sentence: str


class ClimbShape(BaseModel):
    """A climb as it stands; ``waiting`` is a word that has not been answered."""

    id: int
    student: StudentShape
    drill_id: int
    version: int
    title: str
    sign: str
    plan: ClimbPlan
    rung: int
    bpm: WireExact
    bpm_label: str
    nps: str
    target_label: str
    treads: list[TreadShape]
    word: WordShape
    waiting: WordShape | None
    next_sentence: str
    remedy: KeptRemedyShape | None
    held_to: str
    limits: list[str]
    last_take_at: str | None
    revision: int


def ladder_shape(ladder: Ladder) -> LadderShape:
    """Return the rungs of a plan over a drill."""
    return LadderShape(treads=_treads(ladder.rungs, 0, {}, ladder.breaths), sentence=ladder.sentence)


def climb_shape(stood: Stood) -> ClimbShape:
    """Return a climb with its treads and its word."""
    climb, here = stood.climb, stood.here
    word = _word(stood.word)
    played = stood.standing.last_take_at
    return ClimbShape(
        id=climb.id,
        student=student_shape(climb.student),
        drill_id=climb.drill.id,
        version=climb.drill.version,
        title=climb.drill.drill.title,
        sign=meter_named(climb.drill.drill.meter).sign,
        plan=climb.plan,
        rung=climb.rung,
        bpm=here.bpm,
        bpm_label=label(here.bpm),
        nps=short(here.nps),
        target_label=label(stood.rungs[-1].bpm),
        treads=_treads(stood.rungs, climb.rung, stood.standing.marks, stood.breaths),
        word=word,
        waiting=word if stood.is_open else None,
        next_sentence=stood.next_sentence,
        remedy=kept_remedy_shape(stood.remedy) if stood.remedy else None,
        held_to=climb.plan.limits.words,
        limits=list(limit_words(climb.plan.limits, stood.gaps)),
        last_take_at=played.isoformat() if played else None,
        revision=climb.revision,
    )


def _word(word: Word) -> WordShape:
    return WordShape(decision=word.decision, rung=word.rung, heading=word.heading, sentence=word.sentence)


def _treads(
    found: Sequence[Rung], now: int, marks: Mapping[int, Sequence[Mark]], breaths: Mapping[Fraction, RungBreath]
) -> list[TreadShape]:
    low, high = found[0].bpm, found[-1].bpm
    return [
        TreadShape(
            number=rung.number,
            bpm=rung.bpm,
            bpm_label=label(rung.bpm),
            nps=short(rung.nps),
            gap_ms=decimal(rung.gap_seconds * 1000, 1),
            height=float(Fraction(rung.bpm - low) / (high - low)),
            state=_state(rung.number, now, len(found)),
            marks=list(marks.get(rung.number, ())),
            click=rung.click,
            click_words=rung.click.words if rung.click else "",
            breaths=_breaths(breaths[rung.bpm]) if rung.bpm in breaths else "",
        )
        for rung in found
    ]


def _breaths(found: RungBreath) -> str:
    more = ", one more" if found.one_more else ""
    return f"{found.breaths}{more}, up to {decimal(found.longest, 1)} s"


def _state(number: int, now: int, last: int) -> TreadState:
    if number == now:
        return "now"
    if number < now:
        return "done"
    return "target" if number == last else "ahead"
