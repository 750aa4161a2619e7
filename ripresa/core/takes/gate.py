"""The gate: whether a take can be judged at all, and if not, why, and what it fits better (MEASURING §3).

A verdict on a take that was not the drill is worse than none. Each refusal has a sentence and, where something else
fits, what is offered in its place.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import sqrt
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import label, plural
from ripresa.core.takes.figures import Figures
from ripresa.core.takes.limits import Limits
from ripresa.core.takes.match import opened, own_score, plain_hearing, shifted_score, wanted_of
from ripresa.core.takes.measure import FEWEST_NOTES, Measured
from ripresa.core.takes.model import Model

Floats = NDArray[np.float64]

OfferKind = Literal["tempo", "division", "again", "by_ear", "evenness", "first_note"]

#: A tempo farther off than this is another rung, in per cent.
MOST_TEMPO = 6.0
#: Where fewer notes lie near the pulse of the drill than this, they do not follow it (resultant length, 0 to 1),
#: and how far chance alone gets: a number of roots.
_COHERENT, _CHANCE = 0.25, 1.9
#: Shares of what was due that may be missed, extra or of another pitch in a take that is still the drill.
_MOST_MISSED, _MOST_EXTRA, _MOST_WRONG = 0.33, 0.5, 0.3
#: A third of the bars may be strange: by their misses, their extras, or a pulse of their own.
_MOST_STRANGE, _INCOHERENT, _FEWEST_IN_BAR = 0.34, 0.2, 4
_DEAREST = 3.4
#: Another division fits where its own pulse is kept so well, at so nearly its rate, and the due one is not.
_FITS, _RATE, _FITS_NOT = 0.55, 0.25, 0.45
_FEWEST_IN_DIVISION = 8
_DIVISIONS = range(2, 9)
#: By how much a shift has to be cheaper than being on time, and how near a bias has to lie to a slot.
_CHEAPER, _FAR_CHEAPER, _SLOT_NEAR = 4.0, 16.0, 0.2
#: A shift is looked for where more slips than this were made; by its changes in so many notes.
_ODD, _HEAD = 0.02, 320
#: Who plays at another tempo by so many per cent is not late or early by a slot, but fast or slow.
_OWN_TEMPO = 2.0
#: An opening has settled at a shift where it lies so near to it, in slots.
_SETTLED = 0.35
#: What a fit costs a note at most.
_FITTING = 1.6
#: A source has to resolve a limit by so many of its own deviations.
_RESOLVED = 2.5

#: Sources of a take: name, and one deviation of their own in seconds (our estimates, docs/decisions/0016).
SOURCES: dict[str, tuple[str, float]] = {
    "taps": ("taps", 0.004),
    "midi": ("MIDI", 0.0015),
    "microphone": ("the microphone", 0.003),
    "file": ("a recording", 0.003),
    "stand_in": ("the stand-in player", 0.0),
    "by_ear": ("by ear", 0.0),
}
Source = Literal["taps", "midi", "microphone", "file", "stand_in", "by_ear"]


@dataclass(frozen=True, slots=True)
class Offer:
    """What fits better than the drill as it was asked, in one press.

    Args:
        kind: Another tempo, another division, the same again, by ear, an easier school, the first note on the count.
        label: What the press says. bpm, division: With a tempo; with a division.
    """

    kind: OfferKind
    label: str
    bpm: Fraction | None = None
    division: int | None = None


@dataclass(frozen=True, slots=True)
class Refusal:
    """Why a take is not judged: a key for its kind, a sentence, and what is offered."""

    kind: str
    sentence: str
    offers: tuple[Offer, ...] = ()


BY_EAR = Offer("by_ear", "Mark it by ear")
AGAIN = Offer("again", "Play it again")


def refusal(
    take: Measured, figures: Figures, limits: Limits, source: Source, latency: tuple[float, float] | None
) -> Refusal | None:
    """Return why a take is not judged, or None where it can be.

    Args:
        latency: Known delay of the source and its half-width, in seconds.
    """
    return (
        _too_little(take, figures)
        or _too_fine(figures, limits, source)
        or _other_tempo(take, figures)
        or _other_division(take)
        or _out_by_a_slot(take, figures, latency)
        or _other_notes(figures)
        or _no_fit(take, figures)
    )


def _too_little(take: Measured, figures: Figures) -> Refusal | None:
    if not figures.matched and not take.notes:
        sentence = "Nothing was heard. Tap J or F with each note, or mark the take by ear."
        return Refusal("nothing", sentence, (AGAIN, BY_EAR))
    if figures.due < FEWEST_NOTES or figures.matched < FEWEST_NOTES:
        if figures.due >= 2 * FEWEST_NOTES and len(take.notes) >= FEWEST_NOTES:
            return None
        sentence = (
            f"{plural(figures.matched, 'note')} of {figures.due} matched, too few to judge: {FEWEST_NOTES} are needed. "
            "Play it more often in one take."
        )
        return Refusal("few", sentence, (AGAIN, BY_EAR))
    last = max(pair[0] for pair in take.match.pairs) + 1
    if last < figures.due / 2:
        sentence = f"It stopped after {last} of {figures.due} notes: half of the drill was not reached."
        return Refusal("unreached", sentence, (AGAIN, BY_EAR))
    return None


def _too_fine(figures: Figures, limits: Limits, source: Source) -> Refusal | None:
    name, own = SOURCES[source]
    limit = limits.of("spread").at(figures.gap_seconds)
    if own == 0.0 or limit >= _RESOLVED * own - 1e-9:
        return None
    sentence = (
        f"A limit of {limit * 1000:.0f} ms cannot be judged with {name}, which tell moments apart to about "
        f"{own * 1000:g} ms. An easier evenness can, or a finer source."
    )
    return Refusal("resolution", sentence, (Offer("evenness", "Hold it to an easier evenness"), BY_EAR))


def _other_tempo(take: Measured, figures: Figures) -> Refusal | None:
    tempo = figures.tempo_percent
    if tempo is None or abs(tempo.value) - tempo.half() < MOST_TEMPO or not _follows(take):
        return None
    played = float(take.due.bpm) * (1 + tempo.value / 100)
    sentence = (
        f"This was played at {played:.0f}, not at {label(take.due.bpm)}: {abs(tempo.value):.1f} ± "
        f"{tempo.half_width:.1f} % {'faster' if tempo.value > 0 else 'slower'}."
    )
    return Refusal("tempo", sentence, (Offer("tempo", f"Go to {played:.0f}", bpm=Fraction(round(played))), BY_EAR))


def _other_division(take: Measured) -> Refusal | None:
    """Return that another division fits better where one is due: threes for the fours of the drill."""
    due = take.due
    if due.reading.drill.swing.ratio != 1 or take.match.model is None:
        return None
    moments = _moments(take, take.match.model)
    for division in dict.fromkeys(division for division, _ in due.place):
        if division.denominator != 1 or division < 2:
            continue
        own = [index for index, place in enumerate(due.place) if place[0] == division]
        beats = _beats_of(due.at[own], [due.events[index].slot for index in own], float(due.even_gap[own[0]]))
        if len(own) < _FEWEST_IN_DIVISION or len(beats) < 3:
            continue
        span = float(due.even_gap[own[0]]) * int(division)
        place = np.searchsorted(beats, moments + 0.08 * span / int(division), side="right") - 1
        inside = (place >= 0) & (moments - beats[np.maximum(place, 0)] < span * (1 - 0.08 / int(division)))
        if inside.sum() < _FEWEST_IN_DIVISION:
            continue
        phase = (moments[inside] - beats[place[inside]]) / span
        rate = inside.sum() / len(beats)
        kept = {one: float(abs(np.exp(2j * np.pi * one * phase).mean())) for one in _DIVISIONS}
        here = int(division)
        due_rate = len(own) / len(beats)
        if (
            kept.get(here, 1.0) > _FITS_NOT
            and rate > (1 - 1.6 * _RATE) * due_rate
            and rate < (1 + 1.6 * _RATE) * due_rate
        ):
            continue
        fits = [
            one
            for one in _DIVISIONS
            if one != here and kept[one] >= _FITS and abs(rate / one - 1) <= _RATE and due_rate > 0.75 * here
        ]
        if fits:
            other = max(fits, key=lambda one: kept[one])
            sentence = f"This fits {_WORDS[other]} better than the {_WORDS.get(here, str(here))} of the drill."
            return Refusal("division", sentence, (Offer("division", f"Take {other} a beat", division=other), BY_EAR))
    return None


_WORDS = {2: "twos", 3: "threes", 4: "fours", 5: "fives", 6: "sixes", 7: "sevens", 8: "eights", 9: "nines"}


def _beats_of(at: Floats, slots: Sequence[int], gap: float) -> Floats:
    """Return when each beat begins in which notes of a division are due."""
    return np.unique(np.round(at - np.array(slots) * gap, 6))


def _out_by_a_slot(take: Measured, figures: Figures, latency: tuple[float, float] | None) -> Refusal | None:
    """Return that the whole take is out by a slot or a beat; only where it is known how late the source is."""
    tempo = figures.tempo_percent
    if latency is None or figures.with_click is None or (tempo and abs(tempo.value) > _OWN_TEMPO):
        return None
    due = take.due
    slot = float(due.near_gap[: max(1, due.notes_in(2 * due.beat))].min())
    shifts = {"one slot": slot, "one beat": due.beat}
    bias = figures.with_click
    found = None
    for name, size in shifts.items():
        if abs(abs(bias.value) - size) + bias.half() <= max(_SLOT_NEAR * size, 0.012) and abs(bias.value) > 0.03:
            found = name, bias.value < 0
            break
    if found is None:
        found = _cheaper_shift(take, latency[0], shifts)
    if found is None:
        return None
    name, is_early = found
    sentence = f"Out by {name}, {'early' if is_early else 'late'}: was the first note on the count?"
    return Refusal("shift", sentence, (Offer("first_note", "Again, the first note on the count"), BY_EAR))


def _cheaper_shift(take: Measured, latency: float, shifts: dict[str, float]) -> tuple[str, bool] | None:
    """Return by what, and whether early, a whole take is better explained as shifted; None where it is on time."""
    due, match, model = take.due, take.match, take.match.model
    missed = set(match.missed)
    before = min((note.at for note in take.notes), default=0.0) - latency < due.at[0] - 0.5 * due.near_gap[0]
    at_edge, is_odd = 0 in missed or before, len(missed) + len(match.extra) > _ODD * len(due)
    if model is None or match.is_symbolic or not (at_edge or is_odd):
        return None
    wanted, heard = wanted_of(due), plain_hearing(due, take.notes, latency)
    signed = {(name, sign < 0): sign * size for name, size in shifts.items() for sign in (1, -1)}
    is_short = len(due) <= _HEAD
    if not is_short and at_edge and match.cost <= _FITTING:
        on_time = shifted_score(wanted, heard, model, 0.0)
        scores = {one: shifted_score(wanted, heard, model, by) for one, by in signed.items()}
        nearest = min(scores, key=lambda one: scores[one])
        if scores[nearest] < on_time - _CHEAPER:
            return nearest
    if abs(float(np.median(model.path)) - latency) > min(shifts.values()) / 2:
        return None
    # The first notes alone do not show the end, but in a drill of several divisions its changes.
    openings = [opened(wanted, heard, latency + by, _HEAD) for by in (0.0, *signed.values())]
    slot = min(shifts.values())
    # Wherever it began, an opening is what it settled as.
    begun = {one: float(np.median(opening.model.path)) - latency for one, opening in enumerate(openings)}
    on_time = min(
        own_score(wanted, heard, model, _HEAD),
        *(openings[one].score for one in begun if abs(begun[one]) < _SETTLED * slot),
    )
    moved = {
        named: min(
            (openings[one] for one in begun if abs(begun[one] - by) < _SETTLED * slot),
            key=lambda opening: opening.score,
            default=None,
        )
        for named, by in signed.items()
    }
    cheapest = min(
        ((opening.score, named, opening) for named, opening in moved.items() if opening),
        key=lambda one: one[0],
        default=None,
    )
    if cheapest is None or cheapest[2].aligned.cost > _FITTING * min(len(due), _HEAD):
        return None
    return cheapest[1] if cheapest[0] < on_time - (_CHEAPER if is_short else _FAR_CHEAPER) else None


def _other_notes(figures: Figures) -> Refusal | None:
    if figures.wrong <= _MOST_WRONG * figures.matched:
        return None
    sentence = (
        f"{figures.wrong} of {figures.matched} notes have another pitch than the drill: it may be another drill, "
        "or another key."
    )
    return Refusal("pitches", sentence, (AGAIN, BY_EAR))


def _no_fit(take: Measured, figures: Figures) -> Refusal | None:
    few = figures.missed > _MOST_MISSED * figures.due
    many = figures.extra > _MOST_EXTRA * figures.due
    if few or many:
        sentence = (
            f"Only {figures.matched} of {figures.due} notes fit the drill, with {figures.extra} extra: it may be "
            "another drill, or twice or half as many notes."
        )
        return Refusal("slips", sentence, (AGAIN, BY_EAR))
    strange, bars = _strange_bars(take)
    if not _follows(take) or take.match.cost > _DEAREST or strange > _MOST_STRANGE * bars:
        where = f" In {strange} of {plural(bars, 'bar')} it does not." if strange else ""
        sentence = f"What was heard does not follow the notes of the drill closely enough to be judged.{where}"
        return Refusal("pulse", sentence, (AGAIN, BY_EAR))
    return None


def _strange_bars(take: Measured) -> tuple[int, int]:
    """Return how many bars do not fit, by their misses, extras or pulse, and how many there are."""
    due, model = take.due, take.match.model
    if model is None:
        return 0, 1
    bar = due.turn * (due.reading.bar_count + 1) + np.array([event.bar for event in due.events])
    numbers, place = np.unique(bar, return_inverse=True)
    count = np.bincount(place)
    missed = np.bincount(place[list(take.match.missed)], minlength=len(numbers))
    moments, extras = _moments(take, model), np.array([take.notes[one].at for one in take.match.extra])
    at = np.clip(np.searchsorted(due.at, moments, side="right") - 1, 0, len(due) - 1)
    extra_at = np.clip(np.searchsorted(due.at + model.path, extras, side="right") - 1, 0, len(due) - 1)
    extra = np.bincount(place[extra_at], minlength=len(numbers))
    turned = np.exp(2j * np.pi * _away(take, moments))
    heard = np.bincount(place[at], minlength=len(numbers))
    length = np.abs(
        np.bincount(place[at], turned.real, len(numbers)) + 1j * np.bincount(place[at], turned.imag, len(numbers))
    )
    is_strange = (missed > 0.4 * count) | (extra > 0.5 * count) | ((heard >= 6) & (length < _INCOHERENT * heard))
    told = count >= _FEWEST_IN_BAR
    return int((is_strange & told).sum()), int(told.sum())


def _away(take: Measured, moments: Floats) -> Floats:
    """Return how far each moment lies from the nearest due note, in gaps, from −½ to ½."""
    due = take.due
    after = np.clip(np.searchsorted(due.at, moments), 1, len(due) - 1)
    before = np.where(moments - due.at[after - 1] < due.at[after] - moments, after - 1, after)
    return np.asarray(np.clip((moments - due.at[before]) / due.near_gap[before], -0.5, 0.5), dtype=float)


def _moments(take: Measured, model: Model) -> Floats:
    """Return when each strike would have fallen if the player had been on time throughout, in seconds."""
    due = take.due
    strikes = np.sort([note.at for note in take.notes])
    expected = np.maximum.accumulate(due.at + model.path)
    found: Floats = np.asarray(np.interp(strikes, expected, due.at))
    early, late = strikes < expected[0], strikes > expected[-1]
    found[early] = strikes[early] - model.path[0]
    found[late] = strikes[late] - model.path[-1]
    return found


def _follows(take: Measured) -> bool:
    """Return whether what was heard keeps the pulse of the drill: strikes gather around due notes."""
    model, due = take.match.model, take.due
    if model is None:
        return False
    moments = _moments(take, model)
    moments = moments[(moments > due.at[0] - due.near_gap[0]) & (moments < due.at[-1] + due.near_gap[-1])]
    if len(moments) < 8:
        return False
    away = _away(take, moments)
    length = float(abs(np.exp(2j * np.pi * away).mean()))
    return length >= max(_COHERENT, _CHANCE / sqrt(len(moments)))
