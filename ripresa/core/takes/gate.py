"""The gate: whether a take can be judged at all, and if not, why, and what it fits better.

A verdict on a take that was not the drill is worse than none. Each refusal has a sentence and, where something else
fits, what is offered in its place.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import Exact, Fraction, label, plural
from ripresa.core.takes.figures import Figures
from ripresa.core.takes.heard import HeardNote, strikes_of
from ripresa.core.takes.limits import Limits
from ripresa.core.takes.match import match_take
from ripresa.core.takes.measure import FEWEST_NOTES, Measured
from ripresa.core.takes.pulse import follows, moments_of, strange_bars
from ripresa.core.takes.shift import cheaper_shift
from ripresa.core.takes.sources import SOURCES, Source, deviation_of

Floats = NDArray[np.float64]

OfferKind = Literal["tempo", "division", "again", "by_ear", "evenness", "first_note"]
#: A tempo farther off than this is another rung, in per cent.
MOST_TEMPO = 6.0
#: Shares of what was due that may be missed, extra or of another pitch in a take that is still the drill.
_MOST_MISSED, _MOST_EXTRA, _MOST_WRONG = 0.33, 0.5, 0.3
#: Share of the bars that may be strange: by their misses, their extras, or a pulse of their own.
_MOST_STRANGE = 0.34
#: A player has stopped from so many notes and so many beats of silence at the end on.
_STOPPED_NOTES, _STOPPED_BEATS = 4, 2.0
#: So large a share of the notes lies as many semitones off, or comes in the order of the drill.
_SAME_STEP = 0.8
#: Rates that are twice as fast; per cent around half as fast.
_TWICE, _HALF = (1.8, 2.2), 4.0
#: What a fit costs a note at most.
_DEAREST = 3.4
#: Another division fits where its own pulse is kept so well, at so nearly its rate, and the due one is not.
_FITS, _RATE, _FITS_NOT = 0.55, 0.25, 0.45
_FEWEST_IN_DIVISION = 8
_DIVISIONS = range(2, 9)
#: How near a bias has to lie to a slot, in slots.
_SLOT_NEAR = 0.2
#: Who plays at another tempo by so many per cent is not late or early by a slot, but fast or slow.
_OWN_TEMPO = 2.0
#: A source has to resolve a limit by so many of its own deviations.
_RESOLVED = 2.5

_WORDS = {2: "twos", 3: "threes", 4: "fours", 5: "fives", 6: "sixes", 7: "sevens", 8: "eights", 9: "nines"}


@dataclass(frozen=True, slots=True)
class Offer:
    """What fits better than the drill as it was asked, in one press.

    Args:
        kind: Another tempo, another division, the same again, by ear, an easier school, the first note on the count.
        label: What the press says. bpm: With a tempo. division, instead: With a division, and in place of which.
        passes: How many passes the next take has; None leaves them as they are.
    """

    kind: OfferKind
    label: str
    bpm: Exact | None = None
    division: int | None = None
    instead: int | None = None
    passes: int | None = None


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
        or _too_fine(take, figures, limits, source)
        or _other_key(take, figures)
        or _twice_as_fast(take, figures)
        or _other_tempo(take, figures)
        or _stopped(take)
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
    return None


def _stopped(take: Measured) -> Refusal | None:
    """Return that the player stopped before the end: what was played until then is measured, without a mark."""
    due, last = take.due, max((pair[0] for pair in take.match.pairs), default=-1)
    if last < 0 or len(due) - 1 - last < _STOPPED_NOTES or due.at[-1] - due.at[last] < _STOPPED_BEATS * due.beat:
        return None
    # Whatever was struck behind that is no silence.
    after = float(due.at[last] + take.offset[-1]) if len(take.row) else float(due.at[last])
    if sum(at > after + 1e-6 for at in take.struck.tolist()) > _STOPPED_NOTES:
        return None
    turns = int(due.turn[-1]) + 1
    of = f" of pass {int(due.turn[last]) + 1} of {turns}" if turns > 1 else f" of {due.reading.bar_count}"
    where = due.beat_name(int(due.index[last])) if turns > 1 else f"bar {due.reading.every[int(due.index[last])].bar}"
    sentence = f"Stopped after {where}{of}. The figures are those of what was played, without a mark."
    return Refusal("stopped", sentence, (AGAIN, BY_EAR))


def _other_key(take: Measured, figures: Figures) -> Refusal | None:
    """Return that all of it was played higher or lower."""
    slips = figures.wrong + figures.missed
    if not take.match.is_symbolic or slips <= _MOST_WRONG * figures.due:
        return None
    due, notes = take.due, take.notes
    bare = [HeardNote(note.at) for note in notes]
    pairs = match_take(due, bare, None).pairs
    tones = [min(due.tones[one], default=None) for one, _ in pairs]
    steps = Counter(
        pitch - tone
        for (_, other), tone in zip(pairs, tones, strict=True)
        if tone is not None and (pitch := notes[other].pitch) is not None
    )
    if not steps:
        return None
    step, count = steps.most_common(1)[0]
    if not step or count < _SAME_STEP * len(due):
        return None
    octaves, semitones = divmod(abs(step), 12)
    how = plural(abs(step), "semitone") if semitones else "an octave" if octaves == 1 else f"{octaves} octaves"
    way = "higher" if step > 0 else "lower"
    why = ": another key, or an instrument that transposes" if semitones else ""
    return Refusal("pitches", f"This was played {how} {way} than the drill{why}.", (AGAIN, BY_EAR))


def _twice_as_fast(take: Measured, figures: Figures) -> Refusal | None:
    """Return that the notes of the drill came twice as fast, as far as pitches tell; round and round, perhaps."""
    due, struck = take.due, take.struck
    if len(struck) < FEWEST_NOTES or figures.extra + figures.wrong + figures.missed <= _MOST_MISSED * figures.due:
        return None
    rate = float(np.median(np.diff(due.at)) / max(1e-3, np.median(np.diff(struck))))
    if not take.match.is_symbolic or not _TWICE[0] < rate < _TWICE[1]:
        return None
    turn = [tones for tones, number in zip(due.tones, due.turn.tolist(), strict=True) if number == due.turn[0]]
    strikes = strikes_of(take.notes, due.chords)
    right = sum(bool(strike.pitches & turn[number % len(turn)]) for number, strike in enumerate(strikes))
    if right < _SAME_STEP * len(strikes):
        return None
    played = float(due.bpm) * rate
    sentence = f"This was played twice as fast: at about {played:.0f}, not at {label(due.bpm)}."
    return Refusal("tempo", sentence, (Offer("tempo", f"Go to {2 * due.bpm:.0f}", bpm=2 * due.bpm), BY_EAR))


def _too_fine(take: Measured, figures: Figures, limits: Limits, source: Source) -> Refusal | None:
    name, own = SOURCES[source][0], deviation_of(take.due.reading, source)
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
    if tempo is None or abs(tempo.value) - tempo.half() < MOST_TEMPO or not follows(take, figures):
        return None
    played = float(take.due.bpm) * (1 + tempo.value / 100)
    how = f"{abs(tempo.value):.1f} ± {max(0.1, tempo.half_width):.1f} % {'faster' if tempo.value > 0 else 'slower'}"
    half = "half as fast" if abs(tempo.value + 50) < _HALF else how
    sentence = f"This was played at {played:.0f}, not at {label(take.due.bpm)}: {half}."
    return Refusal("tempo", sentence, (Offer("tempo", f"Go to {played:.0f}", bpm=Fraction(round(played))), BY_EAR))


def _other_division(take: Measured) -> Refusal | None:
    """Return that another division fits better where one is due: threes for the fours of the drill."""
    due = take.due
    # Two hands in one line have the strokes of two divisions, and no pulse of one.
    in_one = bool(due.reading.other) or due.reading.events[0].layer == "both"
    if due.reading.drill.swing.ratio != 1 or take.match.model is None or in_one:
        return None
    # What another division does to the path is no tempo: of that the line alone is taken off.
    path = take.match.model.path
    line = np.polyval(np.polyfit(due.at, path, 1), due.at) if len(due) > 1 else path
    moments = moments_of(take, replace(take.match.model, path=np.asarray(line)))
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
            if one != here
            and kept[one] >= _FITS
            and abs(rate / one - 1) <= _RATE
            and due_rate > 0.75 * here
            # Who plays as many notes as are due crowds them; another division has another number of them.
            and abs(rate / one - 1) < abs(rate / due_rate - 1)
        ]
        if fits:
            other = max(fits, key=lambda one: kept[one] - abs(rate / one - 1))
            sentence = f"This fits {_WORDS[other]} better than the {_WORDS.get(here, str(here))} of the drill."
            return Refusal(
                "division", sentence, (Offer("division", f"Take {other} a beat", division=other, instead=here), BY_EAR)
            )
    return None


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
        found = cheaper_shift(take, latency[0], shifts)
    if found is None:
        return None
    name, is_early = found
    sentence = f"Out by {name}, {'early' if is_early else 'late'}: was the first note on the count?"
    return Refusal("shift", sentence, (Offer("first_note", "Again, the first note on the count"), BY_EAR))


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
        fit = f"{'Only ' if few else ''}{figures.matched} of {figures.due} notes fit the drill"
        what = "twice as many notes" if many and not few else "another drill, or half as many notes"
        sentence = f"{fit}, with {figures.extra} more: it may be {what}."
        return Refusal("slips", sentence, (AGAIN, BY_EAR))
    strange, bars = strange_bars(take, figures)
    if not follows(take, figures) or take.match.cost > _DEAREST or strange > _MOST_STRANGE * bars:
        where = f" In {strange} of {plural(bars, 'bar')} it does not." if strange else ""
        sentence = f"What was heard does not follow the notes of the drill closely enough to be judged.{where}"
        return Refusal("pulse", sentence, (AGAIN, BY_EAR))
    return None
