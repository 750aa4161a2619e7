"""Settling: an alignment and the model of a player, improved by turns until they agree.

The score of what was settled compares openings: its cost, what a narrow scale is worth, and what steps and ups and
downs of the path cost.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.align import Aligned, Costs, align
from ripresa.core.takes.model import Model, Wanted, constant, fitted, steps_in, without_bend

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: How far from the model a strike may lie, in beats and in gaps: a lost beat has to lie inside.
_REACH_BEATS, _REACH_GAPS, _REACH_SYMBOLIC = 1.6, 2.5, 2.6
_ROUNDS = 4
#: Rounds end when so small a share of the pairs changes.
_SAME = 0.002
#: In the first round the symbol counts for more than the moment.
_RIGHT_FIRST = 2.0
_STEP_COST = 6.0
#: From so many notes to the next so many a path moves by about such a share of a gap.
_WAY, _WAY_SHARE, _MOST_ROUGH = 12, 0.12, 9.0


@dataclass(frozen=True, slots=True)
class Symbols:
    """What tells notes apart: price by kinds, and the kinds of strikes and of due notes."""

    price: Floats
    strikes: Ints
    due: Ints
    most: float

    def head(self, count: int) -> "Symbols":
        """Return them for the first so many due notes."""
        return Symbols(self.price, self.strikes, self.due[:count], self.most)


@dataclass(frozen=True, slots=True)
class Hearing:
    """What was heard, for matching: moments, what each costs as an extra, and symbols where there are some."""

    at: Floats
    extra: Floats
    symbols: Symbols | None
    latency: float | None


@dataclass(frozen=True, slots=True)
class Settled:
    """An alignment that agrees with its own model; score compares openings."""

    aligned: Aligned
    model: Model
    score: float


def shifted_score(wanted: Wanted, heard: Hearing, model: Model, by: float) -> float:
    """Return the score of a player who is the same but for a constant shift, in seconds; habits are left aside.

    They would belong to other slots then.
    """
    moved = Model(model.path + by, np.zeros_like(model.habit), model.scale, model.slope)
    return _scored(wanted, align(wanted.at, heard.at, _costs(wanted, heard, moved)), moved)


def opened(wanted: Wanted, heard: Hearing, offset: float, count: int) -> Settled:
    """Return the alignment of the first so many notes for a player who began at an offset, in seconds."""
    head = wanted.head(count)
    return settle(head, part_of(heard, head, count), constant(head, offset), rounds=2)


def own_score(wanted: Wanted, heard: Hearing, model: Model, count: int) -> float:
    """Return the score of the first so many notes for the player of a model."""
    head = wanted.head(count)
    own = Model(model.path[:count], model.habit[:count], model.scale, model.slope)
    part = part_of(heard, head, count)
    return _scored(head, align(head.at, part.at, _costs(head, part, own)), own)


def part_of(heard: Hearing, head: Wanted, count: int) -> Hearing:
    """Return what was heard, as it is held against the first notes: what lies behind them is no extra."""
    extra = np.where(heard.at > head.at[-1] + 0.5 * head.beat, 0.0, heard.extra)
    return Hearing(heard.at, extra, heard.symbols.head(count) if heard.symbols else None, heard.latency)


def settle(wanted: Wanted, heard: Hearing, model: Model, rounds: int = _ROUNDS) -> Settled:
    """Return the alignment from a model on, the model improved from it round after round."""
    aligned = align(wanted.at, heard.at, _costs(wanted, heard, model, _RIGHT_FIRST))
    for _ in range(rounds):
        if len(aligned.due) < 2:
            break
        right = rightly(heard, aligned)
        if right.sum() < 2:
            break
        due, strike = aligned.due[right], aligned.strike[right]
        model = fitted(wanted, due, heard.at[strike] - wanted.at[due])
        again = align(wanted.at, heard.at, _costs(wanted, heard, model))
        changed = len(
            np.setxor1d(again.due * len(heard.at) + again.strike, aligned.due * len(heard.at) + aligned.strike)
        )
        aligned = again
        if changed <= _SAME * len(wanted.at):
            break
    return Settled(aligned, model, _scored(wanted, aligned, model))


def rightly(heard: Hearing, aligned: Aligned) -> NDArray[np.bool_]:
    """Return which pairs are of the right symbol: others say nothing about where the player is."""
    symbols = heard.symbols
    if symbols is None:
        return np.ones(len(aligned.due), dtype=bool)
    return np.asarray(symbols.price[symbols.strikes[aligned.strike], symbols.due[aligned.due]] == 0.0)


def _scored(wanted: Wanted, aligned: Aligned, model: Model) -> float:
    """Return the cost of an alignment, what a narrow scale is worth in, and what its steps cost."""
    width = np.log(model.scales(wanted)[aligned.due] / wanted.gap[aligned.due]).sum()
    level = without_bend(model.path, wanted.at)
    steps = _STEP_COST * len(steps_in(level, wanted.gap, model.scale))
    return aligned.cost + float(width) + steps + _roughness(wanted, level)


def _roughness(wanted: Wanted, level: Floats) -> float:
    """Return what it costs that a path goes up and down beside its bend: a hand does that slowly, or not at all."""
    moved = np.diff(level[::_WAY]) / (_WAY_SHARE * wanted.gap[::_WAY][1:])
    return float(0.5 * np.minimum(moved * moved, _MOST_ROUGH).sum())


def _costs(wanted: Wanted, heard: Hearing, model: Model, most: float | None = None) -> Costs:
    beats = _REACH_BEATS if heard.symbols is None else _REACH_SYMBOLIC
    reach = np.maximum(beats * wanted.beat, _REACH_GAPS * wanted.gap)
    plain = Costs(model.centre, model.scales(wanted), reach, heard.extra)
    symbols = heard.symbols
    if symbols is None:
        return plain
    limit = symbols.most if most is None else min(most, symbols.most)
    return Costs(plain.centre, plain.scale, reach, plain.extra, symbols.price, symbols.strikes, symbols.due, limit)
