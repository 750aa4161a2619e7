"""The small sums: what a teacher works out between two lessons, without a drill."""

from dataclasses import astuple, dataclass

from ripresa.core.drill import DIVISIONS, Drill, Leg
from ripresa.core.drill.accents import LARGEST_GROUP, EveryNth
from ripresa.core.drill.click import Click
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, decimal, label, plural, short
from ripresa.core.reading import read
from ripresa.core.reports.click import click_figures
from ripresa.core.reports.dial import dial
from ripresa.core.reports.groups import groups
from ripresa.core.reports.told import beats_hit_told, starts_told, working
from ripresa.core.rhythm import (
    MIDDLE_RATE,
    bpm_for_speed,
    check_bpm,
    gap_seconds,
    inner_pulse,
    setting,
    span_seconds,
    speed_nps,
)

LONGEST_PASS = 10_000
_PULSES = {"1/2": "every second beat", "1": "the beat", "2": "2 a beat", "3": "3 a beat", "4": "4 a beat"}
#: Under this tempo slow is hard to hold.
_HARD_TO_HOLD = 60


@dataclass(frozen=True, slots=True)
class Asked:
    """What is asked: tempo and division, a speed or a band to ``nps_to``, a group, a length, a click; a middle rate.

    Raises:
        OutOfRange: A number out of its range.
    """

    bpm: Fraction
    division: Fraction
    nps: Fraction
    size: int
    meter: str
    beats: Fraction
    click: Click
    nps_to: Fraction | None = None
    middle: Fraction = MIDDLE_RATE

    def __post_init__(self) -> None:
        check_bpm(self.bpm)
        Leg(self.division)
        if self.nps_to is not None and self.nps_to <= self.nps:
            raise OutOfRange(
                f"A band goes from a lower speed to a higher one, not from {label(self.nps)} to {label(self.nps_to)}.",
                field="nps",
            )
        if not 2 <= self.size <= LARGEST_GROUP:
            raise OutOfRange(f"A group has 2 to {LARGEST_GROUP} notes, not {self.size}.", field="size")
        if not 0 < self.beats <= LONGEST_PASS:
            raise OutOfRange(f"A pass lasts more than 0 and up to {LONGEST_PASS} beats.", field="beats")


@dataclass(frozen=True, slots=True)
class TempoFor:
    """A division: the exact tempo for a speed, and the whole bpm with the speed that it gives."""

    division: str
    exact: str
    setting: str
    gives: str


@dataclass(frozen=True, slots=True)
class SmallSums:
    """The answers, in sentences and rows."""

    speed: str
    speed_working: str
    gap_ms: str
    towards: str
    tempi: tuple[TempoFor, ...]
    pulse: str
    pulse_note: str
    dial: str
    drift: str
    groups: str
    group_starts: str
    beat_notes: str
    span: str


def small_sums(asked: Asked) -> SmallSums:
    """Return the answers to what is asked.

    Raises:
        OutOfRange: A group, a meter or a click that does not exist.
    """
    bpm, division = asked.bpm, asked.division
    pulse = inner_pulse(bpm, asked.middle)
    reading = read(
        Drill(
            material=OneNote(beats=1),
            legs=(Leg(division),),
            meter=asked.meter,
            accents=EveryNth(size=asked.size, restart="never"),
            click=asked.click,
        )
    )
    (group,) = groups(reading)
    click = click_figures(reading.click_cycle, reading.meter, bpm)
    beat, bar = group.beat_home, group.bar_home
    return SmallSums(
        speed=f"{short(speed_nps(bpm, division))} notes a second",
        speed_working=f"{working(bpm, division)}.",
        gap_ms=f"{decimal(gap_seconds(bpm, division) * 1000, 1)} ms between notes",
        towards=f"{label(asked.nps)}{f' to {label(asked.nps_to)}' if asked.nps_to else ''} notes a second",
        tempi=tuple(_tempi_for(asked, one) for one in DIVISIONS if one >= 2),
        pulse=f"Count {_PULSES[str(pulse)]} inside: {label(pulse * bpm)} a minute.",
        pulse_note="Under 60 bpm is hard to hold and tends to run away." if bpm < _HARD_TO_HOLD else "",
        dial=dial(reading.click_cycle, reading.meter, bpm).sentence,
        drift=(
            f"A click every {decimal(click.gap_seconds, 2)} s: 1 % off is heard as "
            f"{decimal(click.drift_seconds * 1000, 0)} ms."
            if click.is_even and click.gap_seconds is not None and click.drift_seconds is not None
            else ""
        ),
        groups=(
            f"Home on a beat after {plural(beat.notes, 'note')} ({plural(beat.beats, 'beat')}), "
            f"on a bar line after {plural(bar.notes, 'note')} ({plural(bar.bars, 'bar')}, "
            f"{plural(bar.groups, 'group')})."
            if beat and bar
            else "They do not come home on a bar line within 20,000 notes."
        ),
        group_starts=starts_told(group.starts),
        beat_notes=beats_hit_told(group),
        span=f"{plural(asked.beats, 'beat')} at {label(bpm)} bpm last {decimal(span_seconds(asked.beats, bpm), 2)} s.",
    )


def _tempi_for(asked: Asked, division: Fraction) -> TempoFor:
    """Return the tempo for a speed, or from where to where for a band."""
    low = _tempo_for(asked.nps, division)
    if asked.nps_to is None:
        return low
    high = _tempo_for(asked.nps_to, division)
    both = (f"{one} to {other}" for one, other in zip(astuple(low)[1:], astuple(high)[1:], strict=True))
    return TempoFor(low.division, *both)


def _tempo_for(nps: Fraction, division: Fraction) -> TempoFor:
    exact = bpm_for_speed(nps, division)
    whole = setting(exact, "whole")
    return TempoFor(label(division), decimal(exact, 2), label(whole), decimal(speed_nps(whole, division), 2))
