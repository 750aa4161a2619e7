"""Click plans that take a number or a text: thinned, displaced, dropping out, of the drill's slots, typed."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from math import lcm
from typing import Annotated, Literal

from ripresa.core.drill.click.cycle import ClickCycle, ClickLevel, ClickSlot, level_at
from ripresa.core.drill.click.plans import CLICK_PLANS
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label, plural
from ripresa.core.grid import counted
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.rhythm import Level, Meter, parse_named

LONGEST_TEXT = 400
MOST_BEATS = 64
MOST_BARS = 16
MOST_CLICKS = 4096
_ON_OR_OFF = "The click is on or off for {least} to {most} bars, not {value}."
#: What a click of the drill's own slots is called.
SLOT_WORDS = {
    "all": "every slot of the division",
    "left_out": "what the student leaves out",
    "other_hand": "what the other hand plays",
}
#: How a typed click sounds by its sign.
_LEVELS: dict[Level, ClickLevel] = {"accent": "strong", "plain": "plain", "ghost": "plain"}
#: How often a growing silence grows before it begins again.
_ROUNDS = 4


@dataclass(frozen=True, slots=True)
class Thinned:
    """One click in so many beats, moved by a part of them.

    Args:
        every: Beats from click to click, ¼ to 64.
        by: Beats by which it is displaced, later; from 0 to below ``every``.

    Raises:
        OutOfRange: A number outside its range.
    """

    kind: Literal["thinned"] = field(default="thinned", kw_only=True)
    every: Annotated[
        Exact, Between(Fraction(1, 4), MOST_BEATS, "A click comes every {least} to {most} beats, not {value}.")
    ] = Fraction(1)
    by: Exact = Fraction(0)

    def __post_init__(self) -> None:
        check_bounds(self, "click")
        if not 0 <= self.by < self.every:
            raise OutOfRange(
                f"A click every {label(self.every)} is moved by 0 to less than that, not {label(self.by)}.",
                field="click.by",
            )

    @property
    def words(self) -> str:
        """What it is, in words."""
        moved = f", {label(self.by)} later" if self.by else ""
        return ("every beat" if self.every == 1 else f"every {label(self.every)} beats") + moved

    def cycle(self, meter: Meter, _slots: Sequence[ClickSlot], _beats: Fraction) -> ClickCycle:
        """Return its cycle: as many bars as bring it back to the same place."""
        turns = (self.every / meter.cycle_beats).numerator
        bars, length = turns * len(meter.bars), meter.cycle_beats * turns
        count = int(length / self.every)
        if count > MOST_CLICKS:
            raise OutOfRange(
                f"A click every {label(self.every)} beats meets the bar line again after {bars:,} bars: more clicks "
                "than can be laid out. Take a length that shares the beat, such as ¾ or 1½.",
                field="click.every",
            )
        return ClickCycle(
            length, tuple((self.by + number * self.every, "plain" if number else "strong") for number in range(count))
        )


@dataclass(frozen=True, slots=True)
class DropOut:
    """Some bars with the beat, some in silence.

    Args:
        on, off: Bars with the click and without, 1 to 16.
        grows: Bars by which the silence grows each time, 0 to 4; after four times it begins again.

    Raises:
        OutOfRange: A number outside its range.
    """

    kind: Literal["drop_out"] = field(default="drop_out", kw_only=True)
    on: Annotated[int, Between(1, MOST_BARS, _ON_OR_OFF)] = 2
    off: Annotated[int, Between(1, MOST_BARS, _ON_OR_OFF)] = 2
    grows: Annotated[int, Between(0, 4, "A silence grows by {least} to {most} bars, not {value}.")] = 0

    def __post_init__(self) -> None:
        check_bounds(self, "click")

    @property
    def words(self) -> str:
        """What it is, in words."""
        growing = f", {plural(self.grows, 'bar')} longer each time" if self.grows else ""
        return f"{plural(self.on, 'bar')} on, {self.off} off{growing}"

    def cycle(self, meter: Meter, _slots: Sequence[ClickSlot], _beats: Fraction) -> ClickCycle:
        """Return all its rounds."""
        found: list[tuple[Fraction, ClickLevel]] = []
        rounds = _ROUNDS if self.grows else 1
        length = sum(self.on + self.off + number * self.grows for number in range(rounds))
        bar = 1
        # Where meters take turns it begins again where they do.
        for turn in range(lcm(length, len(meter.bars)) // length):
            bar = 1 + turn * length
            for number in range(rounds):
                for on in range(bar, bar + self.on):
                    start = meter.bar_start(on)
                    found += [(start + at, "plain" if at else "strong") for at in meter.bar(on).beat_starts()]
                bar += self.on + self.off + number * self.grows
        return ClickCycle(meter.bar_start(bar), tuple(found))


@dataclass(frozen=True, slots=True)
class OfTheSlots:
    """A click on the slots of the drill itself: all of them, those that it leaves out, or the notes of the other hand.

    Args:
        which: ``"all"`` is the division itself; ``"left_out"`` what the student does not play; ``"other_hand"`` what
            the other hand plays.
    """

    kind: Literal["slots"] = field(default="slots", kw_only=True)
    which: Literal["all", "left_out", "other_hand"] = "all"

    @property
    def words(self) -> str:
        """What it is, in words."""
        return SLOT_WORDS[self.which]

    def cycle(self, meter: Meter, slots: Sequence[ClickSlot], beats: Fraction) -> ClickCycle:
        """Return the clicks over the whole drill."""
        if self.which == "other_hand":
            chosen = [slot for slot in slots if slot.is_beside]
            if not chosen:
                raise OutOfRange(
                    "This click is what the other hand plays, and one hand is all there is. Let another hand play, or "
                    "take another click.",
                    field="click.which",
                )
        else:
            chosen = [slot for slot in slots if not slot.is_beside and (self.which == "all" or not slot.sounds)]
        return ClickCycle(beats, tuple((slot.onset, level_at(slot.onset, meter)) for slot in chosen))


@dataclass(frozen=True, slots=True)
class TypedClick:
    """A plan typed as a count: ``2 & 4``, or ``a of 1, 3`` for ``(1) a (3) a``; ``>`` is a strong click.

    Args:
        text: A count of one bar or more, as ``parse_count`` takes it; it begins again by itself.

    Raises:
        Unreadable: A word cannot be read.
        OutOfRange: It is too long, or has a beat that the meter does not have.
    """

    kind: Literal["typed"] = field(default="typed", kw_only=True)
    text: str = "2 4"

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"A click has up to {LONGEST_TEXT} signs, not {len(self.text)}.", field="click.text")
        parse_named(self.text, "the click", "click.text")

    @property
    def words(self) -> str:
        """What it is, in words."""
        return f"on {self.text}"

    def cycle(self, meter: Meter, _slots: Sequence[ClickSlot], _beats: Fraction) -> ClickCycle:
        """Return its bars."""
        found = counted(self.text, meter, "the click", "click.text")
        clicks = tuple((at, _LEVELS[level]) for at, level in found.marks)
        return ClickCycle(found.length, clicks)


@dataclass(frozen=True, slots=True)
class ByMeter:
    """Where two meters take turns, a click of its own in each: so that a bar is told from its altered one.

    Args:
        first, second: Keys of ``CLICK_PLANS``: in the first meter, and in every other one.

    Raises:
        OutOfRange: No plan of that name is known.
    """

    kind: Literal["by_meter"] = field(default="by_meter", kw_only=True)
    first: str = "every_beat"
    second: str = "every_bar"

    def __post_init__(self) -> None:
        for name, key in (("first", self.first), ("second", self.second)):
            if key not in CLICK_PLANS:
                raise OutOfRange(
                    f"“{key}” is not a click plan that Ripresa knows. Use one of {', '.join(CLICK_PLANS)}.",
                    field=f"click.{name}",
                )

    @property
    def words(self) -> str:
        """What it is, in words."""
        return f"{CLICK_PLANS[self.first].name}, then {CLICK_PLANS[self.second].name}"

    def cycle(self, meter: Meter, _slots: Sequence[ClickSlot], _beats: Fraction) -> ClickCycle:
        """Return the clicks of each plan that fall into bars of its meter, over as long as all take to come round."""
        cycles = [CLICK_PLANS[key].cycle(meter) for key in (self.first, self.second)]
        turns = lcm(*(int(cycle.length / meter.cycle_beats) for cycle in cycles))
        length = meter.cycle_beats * turns
        found = [
            (at, level)
            for which, cycle in enumerate(cycles)
            for at, level in cycle.within(length)
            if bool(meter.bar(meter.place(at)[0]).of) == bool(which)
        ]
        return ClickCycle(length, tuple(sorted(found)))


#: What takes a number or a text, in the order in which it is offered.
KINDS: tuple[Kind[Thinned | DropOut | OfTheSlots | TypedClick | ByMeter], ...] = (
    Kind(
        Thinned(every=Fraction(8)),
        "every so many beats",
        "One click in 8 or 16 beats, or off the beat by a part of it: what lies between is the student’s.",
    ),
    Kind(
        DropOut(),
        "some bars on, some off",
        "The beat is given, then kept alone: is it still there when the click comes back?",
    ),
    Kind(
        OfTheSlots(which="all"), "every slot of the division", "For a new division: hear all of it first.", "slots all"
    ),
    Kind(
        OfTheSlots(which="left_out"),
        "what the student leaves out",
        "Click and student together make the whole.",
        "slots left_out",
    ),
    Kind(
        OfTheSlots(which="other_hand"),
        SLOT_WORDS["other_hand"],
        "One hand alone over the click of the other.",
        "slots other_hand",
    ),
    Kind(
        ByMeter(),
        "by meter",
        "One in the first meter, another in the next: each bar is told by its click.",
    ),
    Kind(TypedClick(), "typed as a count", "2 4, or (1) a 3 &: any places of a bar or more."),
)
