"""The map: tempo across, divisions up, each place with its notes a second; the way of a climb through it."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ripresa.core.climbs.plan import ClimbPlan
from ripresa.core.climbs.rungs import Rung, rungs
from ripresa.core.climbs.targets import BandTarget
from ripresa.core.exact import Fraction, division_label, label, short
from ripresa.core.rhythm import FASTEST_BPM, setting, speed_nps, speed_twins

Played = Literal["clean", "shaky", "none"]
#: Tempi that one can take in at a glance, and the divisions that every map has: our choice.
MOST_TEMPI, USUAL_DIVISIONS = 12, tuple(Fraction(one) for one in (2, 3, 4, 5, 6))
_BEYOND = (Fraction(108, 100), Fraction(116, 100))


@dataclass(frozen=True, slots=True)
class Place:
    """One place of the map.

    Args:
        nps: Notes a second. inside: Whether the band, or the target speed, has it.
        rung: The rung that stands there; None where none does.
        played: How the last take there went; none where nothing was played.
    """

    bpm: Fraction
    division: Fraction
    nps: Fraction
    inside: bool
    rung: int | None
    played: Played


@dataclass(frozen=True, slots=True)
class SpeedMap:
    """A map of a climb: rows from the most notes a beat down; the way as (bpm, division) of each rung in turn.

    Args:
        twins: The speed of the present rung at other divisions, in a sentence.
    """

    tempi: tuple[Fraction, ...]
    rows: tuple[tuple[Place, ...], ...]
    way: tuple[Rung, ...]
    twins: str


def speed_map(
    plan: ClimbPlan,
    peak: Fraction,
    here: int,
    played: Mapping[tuple[Fraction, Fraction], Played],
    divisions: Collection[Fraction] = (),
) -> SpeedMap:
    """Return the map of a climb.

    Args:
        peak: Notes per beat of the drill where it is fastest. divisions: Those of its legs.
        here: The present rung, from 1.
        played: How the last take went, by (bpm, division).
    """
    way = rungs(plan, peak)
    tempi = _tempi(plan, way, played)
    standing = {(rung.bpm, rung.division): rung.number for rung in reversed(way)}
    every = sorted({*USUAL_DIVISIONS, *divisions, peak, *(rung.division for rung in way)}, reverse=True)
    rows = tuple(
        tuple(
            Place(
                bpm=bpm,
                division=division,
                nps=speed_nps(bpm, division),
                inside=_inside(plan, speed_nps(bpm, division)),
                rung=standing.get((bpm, division)),
                played=played.get((bpm, division), "none"),
            )
            for bpm in tempi
        )
        for division in every
    )
    return SpeedMap(tempi, rows, way, _twins(way[here - 1], every))


def _tempi(
    plan: ClimbPlan, way: tuple[Rung, ...], played: Collection[tuple[Fraction, Fraction]]
) -> tuple[Fraction, ...]:
    """Return the tempi of the map: those of the climb, and two beyond, so that the target is seen from both sides."""
    own = _thinned(sorted({rung.bpm for rung in way}), MOST_TEMPI - len(_BEYOND))
    beyond = [] if plan.is_without_speed else [min(FASTEST_BPM, setting(own[-1] * one, "whole")) for one in _BEYOND]
    others = [bpm for bpm, _ in played if own[0] <= bpm <= own[-1]]
    return tuple(sorted({*own, *beyond, *_thinned(others, max(0, MOST_TEMPI - len(own) - len(beyond)))}))


def _thinned(tempi: Sequence[Fraction], most: int) -> list[Fraction]:
    """Return so many of some tempi at most, the first and the last among them."""
    if len(tempi) <= most:
        return list(tempi)
    if most < 2:
        return list(tempi[:most])
    return [tempi[number * (len(tempi) - 1) // (most - 1)] for number in range(most)]


def _inside(plan: ClimbPlan, nps: Fraction) -> bool:
    return isinstance(plan.target, BandTarget) and plan.target.place(nps) == "inside"


def _twins(here: Rung, divisions: Collection[Fraction]) -> str:
    others = [one for one in sorted(divisions) if one != here.division and 1 <= here.nps * 60 / one <= 1000]
    told = [f"{label(bpm)} × {division_label(one)}" for one, bpm in speed_twins(here.nps, others)]
    if not told:
        return ""
    first = f"{label(here.bpm)} × {division_label(here.division)}"
    return (
        f"{short(here.nps)} n/s stand in {', '.join([first, *told[:-1]])} and {told[-1]}: the same speed, another beat."
    )
