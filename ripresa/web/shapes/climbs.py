"""The shapes of climbs: treads, the present rung, and the word that waits."""

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Literal

from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import ClimbPlan, Decision, Rung, Word, beside, decide, exact_steps, rungs, steps, tempi
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.exact import decimal, label, plural, short
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import meter_named
from ripresa.core.studio import Climb, Standing
from ripresa.core.takes import Mark
from ripresa.formats.wire import WireExact
from ripresa.web.shapes.students import StudentShape, student_shape

TreadState = Literal["done", "now", "ahead", "target"]


class TreadShape(BaseModel):
    """One rung: ``height`` from 0 (start) to 1 (target); the marks of its takes in order; the click that is due."""

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
    last_take_at: str | None
    revision: int


def ladder_shape(plan: ClimbPlan, drill: Drill) -> LadderShape:
    """Return the rungs of a plan over a drill."""
    found = rungs(plan, peak_of_drill(drill))
    exact = exact_steps(plan)
    fell = exact + 1 - len(tempi(plan))
    together = f" {plural(fell, 'rung')} fell together with a neighbour and went." if fell > 0 else ""
    span = f"from {label(found[0].bpm)} to {label(found[-1].bpm)}"
    return LadderShape(
        treads=_treads(found, 0, {}),
        sentence=f"{plural(len(found) - 1, 'step')}, {plural(len(found), 'rung')} {span}.{together}",
    )


def climb_shape(climb: Climb, standing: Standing) -> ClimbShape:
    """Return a climb with its treads and its word."""
    drill = climb.drill.drill
    found = rungs(climb.plan, peak_of_drill(drill))
    here = found[climb.rung - 1]
    word = word_of(climb, standing)
    played, answered = standing.last_take_at, standing.answered_at
    is_open = played is not None and (answered is None or played > answered)
    return ClimbShape(
        id=climb.id,
        student=student_shape(climb.student),
        drill_id=climb.drill.id,
        version=climb.drill.version,
        title=drill.title,
        sign=meter_named(drill.meter).sign,
        plan=climb.plan,
        rung=climb.rung,
        bpm=here.bpm,
        bpm_label=label(here.bpm),
        nps=short(here.nps),
        target_label=label(found[-1].bpm),
        treads=_treads(found, climb.rung, standing.marks),
        word=word_shape(word),
        waiting=word_shape(word) if is_open and word.decision != "stay" else None,
        next_sentence=_next(climb, word, found),
        last_take_at=played.isoformat() if played else None,
        revision=climb.revision,
    )


def word_of(climb: Climb, standing: Standing) -> Word:
    """Return what the rule says now: from the takes on the present rung since it was reached."""
    return decide(climb.plan, steps(climb.plan), climb.rung, standing.counting)


def word_shape(word: Word) -> WordShape:
    """Return the shape of a word."""
    return WordShape(decision=word.decision, rung=word.rung, heading=word.heading, sentence=word.sentence)


def _next(climb: Climb, word: Word, found: Sequence[Rung]) -> str:
    passed = [(rung.bpm, rung.click) for rung in found]
    if word.decision == "up":
        return f"ready for {beside(passed, climb.rung, climb.rung + 1)}"
    if word.decision == "back":
        return f"back to {beside(passed, climb.rung, climb.rung - 1)}, says the rule"
    if word.clean_to_go:
        return f"{plural(word.clean_to_go, 'clean take')} to go up"
    return "the target stands" if climb.rung == len(found) else "stay here"


def _treads(found: Sequence[Rung], now: int, marks: Mapping[int, Sequence[Mark]]) -> list[TreadShape]:
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
        )
        for rung in found
    ]


def _state(number: int, now: int, last: int) -> TreadState:
    if number == now:
        return "now"
    if number < now:
        return "done"
    return "target" if number == last else "ahead"
