"""The plan of a climb: from where to where, how its rungs are spaced, and when it moves."""

from dataclasses import dataclass

from ripresa.core.climbs.bare import Bare
from ripresa.core.climbs.ladders import MOST_PLANS, Order
from ripresa.core.climbs.moving import Moving, moving_sentence
from ripresa.core.climbs.rules import DivideThenRaise, PerCent, RungRule
from ripresa.core.climbs.targets import BpmTarget, HeartTarget, HitList, SteadyTarget, Target, is_without_speed
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label
from ripresa.core.rhythm import Settings, check_bpm
from ripresa.core.takes import But, Evenness, Limits

LONGEST_BOX = 60
FEWEST_TO_STEADY = 2


@dataclass(frozen=True, slots=True)
class ClimbPlan:
    """From a start tempo to a target, by a rung rule and a moving rule.

    Args:
        start: bpm: the fastest tempo without a mistake.
        target: A tempo, a speed, a band of speeds, or what no speed tells: then the tempo stays.
        rule: How rungs are spaced.
        settings: Which tempi can be set.
        clean_to_rise: Clean takes in a row that lead up, 1 to 9.
        shaky_to_fall: Shaky takes in a row that lead back, 2 to 9.
        evenness: The school by which a take counts as clean; but: figures that have another one.
        clicks: A click ladder: plans that the rungs pass in order, up to 12; none is the drill's own click.
        click_order: How the rungs pass them: with the tempo, all at each tempo, or at the target.
        moving: When it moves; box_minutes: how long a rung lasts where the clock ends it, 1 to 60.

    Raises:
        OutOfRange: The target is not above the start, or a number is out of its range.
    """

    start: Exact
    target: Target = BpmTarget()
    rule: RungRule = PerCent()
    settings: Settings = "whole"
    clean_to_rise: int = 2
    shaky_to_fall: int = 3
    evenness: Evenness = "working"
    but: tuple[But, ...] = ()
    clicks: tuple[Click, ...] = ()
    click_order: Order = "with_tempo"
    moving: Moving = "stay_until_clean"
    box_minutes: int = 5

    def __post_init__(self) -> None:
        check_bpm(self.start, "start")
        goal = check_bpm(self.goal, "target")
        # Through more notes a beat one may climb to a target at the same beat.
        may_stay = self.is_without_speed or isinstance(self.rule, DivideThenRaise)
        if goal < self.start or (goal == self.start and not may_stay):
            raise OutOfRange(
                f"The target, {label(goal)} bpm, has to be above the start, {label(self.start)} bpm.", field="target"
            )
        if isinstance(self.target, SteadyTarget) and len(self.clicks) < FEWEST_TO_STEADY:
            raise OutOfRange("Steadiness is climbed by the click alone: choose a click ladder.", field="clicks")
        if len(self.clicks) > MOST_PLANS:
            raise OutOfRange(f"A click ladder has up to {MOST_PLANS} plans, not {len(self.clicks)}.", field="clicks")
        if len(set(self.clicks)) < len(self.clicks):
            twice = next(one for index, one in enumerate(self.clicks) if one in self.clicks[:index])
            raise OutOfRange(f"“{twice.words}” stands twice in the click ladder. Keep one of them.", field="clicks")
        if not 1 <= self.clean_to_rise <= 9:
            raise OutOfRange("Rise after 1 to 9 clean takes.", field="clean_to_rise")
        if not 2 <= self.shaky_to_fall <= 9:
            raise OutOfRange("Step back after 2 to 9 shaky takes.", field="shaky_to_fall")
        if not 1 <= self.box_minutes <= LONGEST_BOX:
            raise OutOfRange(f"A rung lasts 1 to {LONGEST_BOX} minutes by the clock.", field="box_minutes")
        self.limits  # noqa: B018 - a figure that stands twice is refused here

    @property
    def limits(self) -> Limits:
        """What a take is held to."""
        return Limits(self.evenness, self.but)

    @property
    def goal(self) -> Fraction:
        """The tempo it leads to, in bpm; the start where the tempo stays."""
        return self.target.tempo() or self.start

    @property
    def is_without_speed(self) -> bool:
        """Whether the tempo stays and something else is climbed."""
        return is_without_speed(self.target)

    @property
    def moving_words(self) -> str:
        """When it moves, in a sentence."""
        return moving_sentence(self.moving, self.clean_to_rise, self.shaky_to_fall, self.box_minutes)

    def bare_steps(self) -> tuple[Bare, ...]:
        """Return its steps without their clicks.

        Raises:
            OutOfRange: There would be more than 200.
        """
        if isinstance(self.target, HeartTarget | HitList):
            return tuple(Bare(self.start, words=step) for step in self.target.steps)
        if self.is_without_speed:
            return (Bare(self.start),)
        return self.rule.steps(self.start, self.goal, self.settings)
