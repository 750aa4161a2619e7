"""Climbs: planned, started, moved; how each stands and what comes next."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import lru_cache

from ripresa.core.changes import Overrides, Part, overridden, practised
from ripresa.core.climbs import (
    BandTarget,
    ClimbPlan,
    Decision,
    DivideThenRaise,
    Order,
    Played,
    Rung,
    SpeedMap,
    SpeedTarget,
    Word,
    beside,
    decide,
    exact_steps,
    laid_rungs,
    rungs,
    speed_map,
    tempi,
    with_clicks,
)
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction, division_label, label, plural
from ripresa.core.reading import Reading, left_divisions, read
from ripresa.core.reports import RungBreath, breaths_by_rung, peak_of_drill, slowest_of_one_breath
from ripresa.core.rhythm import span_seconds
from ripresa.core.studio import LONGEST_NOTE, Climb, KeptRemedy, Standing
from ripresa.core.takes import Limits
from ripresa.store import climbs as store
from ripresa.store import drills, students
from ripresa.store.remedies import waiting
from ripresa.store.standing import standings
from ripresa.store.takes import last_marks

_STEP = {"up": 1, "stay": 0, "back": -1}


@dataclass(frozen=True, slots=True)
class Stood:
    """A climb as it stands.

    Args:
        rungs: Of its plan, with the speed of its drill.
        word: What the rule says now. is_open: Whether it waits for an answer.
        next_sentence: What comes next, in a few words.
        remedy: What it waits for before its rung is tried again; None where it waits for nothing.
        newest: Number of the newest version of its drill.
    """

    climb: Climb
    standing: Standing
    rungs: tuple[Rung, ...]
    word: Word
    is_open: bool
    next_sentence: str
    remedy: KeptRemedy | None = None
    newest: int = 1

    @property
    def gaps(self) -> dict[str, float]:
        """The even gap of each division at the present rung, in seconds: limits are shares of it."""
        bpm = self.here.bpm
        return {name: float(span_seconds(1 / one, bpm)) for name, one in _divisions_of(self.climb.drill.drill)}

    @property
    def breaths(self) -> dict[Fraction, RungBreath]:
        """The breaths of a turn at each tempo; empty where breath does not matter."""
        drill = self.climb.drill.drill
        return breaths_of(read(drill), self.rungs) if drill.breath else {}

    @property
    def here(self) -> Rung:
        """The rung that it stands on."""
        return self.rungs[self.climb.rung - 1]


@dataclass(frozen=True, slots=True)
class Ladder:
    """The rungs that a plan makes over a drill, before anyone climbs them, and how many in a sentence."""

    plan: ClimbPlan
    rungs: tuple[Rung, ...]
    sentence: str
    breaths: dict[Fraction, RungBreath] = field(default_factory=dict)


@lru_cache(maxsize=1024)
def _divisions_of(drill: Drill) -> tuple[tuple[str, Fraction], ...]:
    """Return every division of a drill once, in its order, with its name; lists show the same drills over and over."""
    reading = read(drill)
    rows = (
        division
        for leg in reading.legs
        for division in (*leg.divisions, *(left_divisions(reading.drill, leg) if reading.other else ()))
    )
    return tuple((division_label(one), one) for one in dict.fromkeys(rows))


def breaths_of(reading: Reading, rungs: Sequence[Rung]) -> dict[Fraction, RungBreath]:
    """Return the breaths of a turn at each tempo, each once."""
    tempi = list(dict.fromkeys(rung.bpm for rung in rungs))
    return {one.bpm: one for one in breaths_by_rung(reading, tempi)}


def map_of(climb_id: int) -> SpeedMap:
    """Return the map of a climb, with how the last take went at each tempo and division.

    Raises:
        NotFound: There is no such climb.
    """
    climb = store.find_climb(climb_id)
    drill = climb.drill.drill
    peak = peak_of_drill(drill)
    divisions = {division for leg in read(drill).legs for division in leg.divisions}
    played: dict[tuple[Fraction, Fraction], Played] = {}
    for bpm, part, mark in last_marks(climb.id):
        only = None if part is None else part.only
        if part is None or part == Part(only=only):
            played[bpm, only or peak] = "clean" if mark == "clean" else "shaky"
    return speed_map(climb.plan, peak, climb.rung, played, divisions)


def as_they_stand(climbs: Sequence[Climb]) -> list[Stood]:
    """Return climbs as they stand, in the same order."""
    found = standings(climbs)
    taken = waiting([climb.id for climb in climbs])
    newest = store.newest_versions({climb.drill.id for climb in climbs})
    return [_stood(climb, found[climb.id], taken.get(climb.id), newest[climb.drill.id]) for climb in climbs]


def as_it_stands(climb_id: int) -> Stood:
    """Return one climb as it stands.

    Raises:
        NotFound: There is none of this number.
    """
    return as_they_stand([store.find_climb(climb_id)])[0]


def ladder(plan: ClimbPlan, drill: Drill) -> Ladder:
    """Return the rungs of a plan over a drill.

    Raises:
        OutOfRange: Too many rungs, or a click that the drill cannot have.
    """
    plan = aimed(plan, drill)
    check_rungs(plan, drill)
    found = rungs(plan, peak_of_drill(drill))
    if plan.is_without_speed:
        return Ladder(plan, found, f"{plural(len(found), 'step')} at {label(found[0].bpm)}; the tempo stays.")
    fell = exact_steps(plan) + 1 - len(tempi(plan))
    together = f" {plural(fell, 'rung')} fell together with a neighbour and went." if fell > 0 else ""
    span = f"from {label(found[0].bpm)} to {label(found[-1].bpm)}"
    sentence = f"{plural(len(found) - 1, 'step')}, {plural(len(found), 'rung')} {span}.{together}"
    if not drill.breath:
        return Ladder(plan, found, sentence)
    reading = read(drill)
    return Ladder(plan, found, sentence + _one_breath(reading, found), breaths_of(reading, found))


def _one_breath(reading: Reading, found: Sequence[Rung]) -> str:
    """Return from which rung on nothing is broken by a breath, in a sentence; empty where breath does not matter."""
    slowest = slowest_of_one_breath(reading)
    if slowest is None:
        return ""
    first = next((rung for rung in found if rung.bpm >= slowest), None)
    if first is None:
        return f" No rung is played in one breath: that begins at {label(slowest)}."
    return f" From rung {first.number}, {label(first.bpm)}, on nothing is broken by a breath."


def start_climb(
    student_id: int,
    drill_id: int,
    version: int | None,
    plan: ClimbPlan,
    now: datetime,
    key: str | None = None,
    overrides: Overrides | None = None,
) -> Climb:
    """Start a climb on its first rung; the same key twice is the same climb.

    Args:
        overrides: What the student plays otherwise than the drill says.

    Raises:
        NotFound: There is no such student, drill or version.
        OutOfRange: As ``ladder``, or above what a guardian allows.
    """
    drill = overridden(drills.find_drill(drill_id, version).drill, overrides or Overrides())
    plan = aimed(plan, drill)
    check_rungs(plan, drill)
    check_guardian(student_id, plan)
    return store.add_climb(student_id, drill_id, version, plan, now, key, overrides)


def check_guardian(student_id: int, plan: ClimbPlan) -> None:
    """Refuse a target above what a guardian allows.

    Raises:
        OutOfRange: With the two tempi in the sentence.
    """
    details = students.find_student(student_id).details
    most = details.guardian.most_bpm
    if most is not None and plan.goal > most:
        raise OutOfRange(
            f"The guardian of {details.name} allows {label(most)} bpm at most, and this leads to {label(plan.goal)}.",
            field="target",
        )


def move_on(
    climb_id: int,
    decision: Decision,
    from_rung: int,
    now: datetime,
    *,
    take_id: str | None = None,
    reason: str = "",
    key: str | None = None,
) -> Climb:
    """Go up, stay or go back; the teacher's word overrules the rule's and is kept with its reason.

    Args:
        from_rung: The rung it was decided on, so that a press that arrives twice moves once.

    Raises:
        NotFound: There is no such climb or take.
        OutOfRange: There is no rung there, or the reason is too long.
        Conflict: The climb has moved on meanwhile.
    """
    climb = store.find_climb(climb_id)
    if key is not None and store.is_kept(key):
        return climb
    if len(reason) > LONGEST_NOTE:
        raise OutOfRange(f"A reason has up to {LONGEST_NOTE} signs.", field="reason")
    word = as_they_stand([climb])[0].word
    step = _STEP[decision]
    # The rule may go by more than one rung; the teacher's own word goes by one.
    to_rung = word.rung if decision == word.decision and word.rung != climb.rung else from_rung + step
    if not 1 <= to_rung <= len(laid_rungs(climb.plan)):
        raise OutOfRange(f"This is the {'last' if step > 0 else 'first'} rung of the climb.", field="decision")
    store.add_move(
        climb.id,
        take_id=take_id,
        from_rung=from_rung,
        to_rung=to_rung,
        offered=word.decision,
        decision=decision,
        reason=reason.strip() or (word.sentence if word.decision == decision else "the teacher’s word"),
        now=now,
        key=key,
    )
    return store.find_climb(climb.id)


def change_clicks(climb_id: int, clicks: Sequence[Click], order: Order, from_rung: int, based_on: int) -> Climb:
    """Give a climb another click ladder; it stays at its tempo, and its takes stay with theirs.

    Raises:
        NotFound: There is no such climb.
        OutOfRange: As ``ladder``.
        Conflict: It was changed or moved meanwhile.
    """
    climb = store.find_climb(climb_id)
    plan, places = with_clicks(climb.plan, tuple(clicks), order)
    check_rungs(plan, climb.drill.drill)
    store.change_plan(climb.id, plan, places, from_rung, based_on)
    return store.find_climb(climb.id)


def change_limits(climb_id: int, limits: Limits, based_on: int) -> Climb:
    """Hold the takes of a climb to other limits from now on; what was said of those before stays.

    Raises:
        NotFound: There is no such climb.
        Conflict: It was changed meanwhile.
    """
    climb = store.find_climb(climb_id)
    plan = replace(climb.plan, evenness=limits.evenness, but=limits.but)
    places = {number: number for number in range(1, len(laid_rungs(plan)) + 1)}
    store.change_plan(climb.id, plan, places, climb.rung, based_on)
    return store.find_climb(climb.id)


def aimed(plan: ClimbPlan, drill: Drill) -> ClimbPlan:
    """Return a plan whose target speed is that of the drill: at its peak, whatever its divisions are called."""
    if not isinstance(plan.target, SpeedTarget | BandTarget):
        return plan
    rule = plan.rule
    division = rule.divisions[-1] if isinstance(rule, DivideThenRaise) else peak_of_drill(drill)
    return replace(plan, target=replace(plan.target, division=division))


def check_rungs(plan: ClimbPlan, drill: Drill) -> None:
    """Refuse a plan with too many rungs, a click that the drill cannot have, or a rung that cannot be made of it.

    Raises:
        OutOfRange: With the number of the click or of the rung in the sentence.
    """
    for number, part in enumerate(dict.fromkeys(step.part for step in laid_rungs(plan)), start=1):
        try:
            read(practised(drill, part or Part()))
        except RipresaError as error:
            raise OutOfRange(f"Step {number} of this rule: {error.message}", field="rule.kind") from error
    for number, click in enumerate(plan.clicks, start=1):
        try:
            read(replace(drill, click=click))
        except RipresaError as error:
            raise OutOfRange(f"Click {number} of the ladder: {error.message}", field="clicks") from error


def _stood(climb: Climb, standing: Standing, taken: KeptRemedy | None, newest: int) -> Stood:
    passed = laid_rungs(climb.plan)
    word = decide(
        climb.plan,
        passed,
        climb.rung,
        standing.counting,
        came_from=standing.came_from,
        seconds=standing.counted_seconds,
    )
    played, answered = standing.last_take_at, standing.answered_at
    was_played = played is not None and (answered is None or played > answered)
    found = rungs(climb.plan, peak_of_drill(climb.drill.drill))
    is_open = was_played and word.decision != "stay"
    # A move since then says that it goes on without it.
    waits = taken if taken and (answered is None or taken.made_at > answered) else None
    next_words = f"waits for: {waits.remedy.name}" if waits else _next(climb, word, found)
    return Stood(climb, standing, found, word, is_open, next_words, waits, newest)


def _next(climb: Climb, word: Word, found: Sequence[Rung]) -> str:
    passed = laid_rungs(climb.plan)
    if word.decision == "up":
        return f"ready for {beside(passed, climb.rung, word.rung)}"
    if word.decision == "back":
        return f"back to {beside(passed, climb.rung, word.rung)}, says the rule"
    if word.clean_to_go:
        # With its tempo, so that it is no other count than that of what stood at another one.
        return f"{plural(word.clean_to_go, 'clean take')} at {label(found[climb.rung - 1].bpm)} to go up"
    return "the target stands" if climb.rung == len(found) else "stay here"
