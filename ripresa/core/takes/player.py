"""The stand-in player: a simulated student, seeded, in place of a person in the app and in tests.

It gets every fault of the table of remedies. Invented behaviour, not a model of anyone.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ripresa.core.errors import OutOfRange
from ripresa.core.grid import HANDS_OF
from ripresa.core.playing import ROLL
from ripresa.core.takes.due import Due, due_notes
from ripresa.core.takes.heard import HeardNote, moved
from ripresa.core.takes.landing import due_landings

Floats = NDArray[np.float64]

#: Number → its bounds and its unit.
_BOUNDS: dict[str, tuple[float, float, str]] = {
    "spread_ms": (0, 200, "ms"),
    "alike": (0, 0.95, ""),
    "bias_ms": (-1500, 1500, "ms"),
    "drift_percent": (-12, 12, "%"),
    "bend_bpm": (-20, 20, "bpm a minute"),
    "miss_percent": (0, 50, "%"),
    "extra_percent": (0, 50, "%"),
    "wrong_percent": (0, 50, "%"),
    "stumble_ms": (-500, 500, "ms"),
    "habit_ms": (-200, 200, "ms"),
    "habit_slot": (-1, 20, ""),
    "crowd_percent": (-50, 100, "%"),
    "lost_beats": (0, 5, "beats"),
    "group_slips": (0, 5, "groups"),
    "weak_ms": (0, 200, "ms"),
    "accent_db": (-12, 20, "dB"),
    "misplaced_percent": (0, 100, "%"),
    "sounding_percent": (1, 200, "%"),
    "landing_ms": (-500, 500, "ms"),
    "silence_ms": (-500, 500, "ms"),
    "apart_ms": (-500, 500, "ms"),
    "seed": (0, 2**31, ""),
}


@dataclass(frozen=True, slots=True)
class StandIn:
    """How a simulated student plays.

    Args:
        spread_ms: Standard deviation of each onset. alike: How much of it neighbours share, as an AR(1) series.
        bias_ms: Constant offset, early below 0.
        drift_percent: Faster than asked by this share. bend_bpm: How the tempo itself changes, in bpm a minute.
        miss_percent, extra_percent, wrong_percent: Notes left out, struck twice, and in another pitch.
        stumble_ms: Delay at each change of division or meter, fading over two beats.
        habit_ms: Offset of one slot of each division; habit_slot: which, counted from 0, the last by −1.
        crowd_percent: How much longer the last share of a beat is than the others.
        lost_beats: How often a beat is lost on the way. group_slips: How often a beat's notes come one slot late.
        weak_ms: What the second hand of the hand row adds to its spread.
        accent_db: How far accents stand over plain notes. misplaced_percent: Accents that fall on the next note.
        sounding_percent: Part of the length that is asked for it for which a note sounds.
        landing_ms: Delay of hits and arrivals. silence_ms: Delay after a rest or a silence of the click.
        apart_ms: How long after the right hand the left one comes, where two play.
        seed: The same seed plays the same take.

    Raises:
        OutOfRange: A number outside its range.
    """

    spread_ms: float = 8.0
    alike: float = 0.2
    bias_ms: float = 0.0
    drift_percent: float = 0.0
    bend_bpm: float = 0.0
    miss_percent: float = 0.0
    extra_percent: float = 0.0
    wrong_percent: float = 0.0
    stumble_ms: float = 0.0
    habit_ms: float = 0.0
    habit_slot: int = -1
    crowd_percent: float = 0.0
    lost_beats: int = 0
    group_slips: int = 0
    weak_ms: float = 0.0
    accent_db: float = 7.0
    misplaced_percent: float = 0.0
    sounding_percent: float = 85.0
    landing_ms: float = 0.0
    silence_ms: float = 0.0
    apart_ms: float = 0.0
    seed: int = 1

    def __post_init__(self) -> None:
        for name, (least, most, unit) in _BOUNDS.items():
            if not least <= getattr(self, name) <= most:
                raise OutOfRange(f"Take {least} to {most} {unit}".rstrip() + ".", field=f"player.{name}")


@dataclass(frozen=True, slots=True)
class Performed:
    """What a player played: heard notes in order, and for each which due note it was meant as; None for an extra."""

    notes: tuple[HeardNote, ...]
    meant: tuple[int | None, ...]


#: A stumble fades over so many beats.
_FADE_BEATS = 2.0
#: Seconds from one tone of a chord to the next.
_APART = 0.004
#: A note is struck twice within these seconds.
_TWICE = (0.03, 0.06)
_VELOCITY, _VELOCITY_SPREAD, _DB_OF_VELOCITY = 80.0, 0.7, 40.0


def play(player: StandIn, due: Due) -> Performed:
    """Return what the player plays of what is due; two hands each by themselves."""
    if due.reading.other:
        return _both_hands(player, due)
    if not len(due):
        return Performed((), ())
    random = np.random.default_rng(player.seed)
    onsets = due.at + _offsets(player, due, random)
    # Nobody strikes the next note before this one.
    onsets = np.maximum.accumulate(onsets + 1e-6 * np.arange(len(due)))
    levels = _levels(player, due, random)
    kept = random.random(len(due)) >= player.miss_percent / 100
    twice = kept & (random.random(len(due)) < player.extra_percent / 100)
    wrong = random.random(len(due)) < player.wrong_percent / 100
    found: list[tuple[HeardNote, int | None]] = []
    asked = due.reading.lasts
    sounding = {id(event): float(asked(event, length)) * due.beat for event, length in due.reading.sounding()}
    for index, event in enumerate(due.events):
        if not kept[index]:
            continue
        at = float(onsets[index])
        until = at + max(0.01, sounding.get(id(event), due.beat) * player.sounding_percent / 100)
        slip = int(random.choice((-2, -1, 1, 2))) if wrong[index] else 0
        tones: tuple[int | None, ...] = due.reading.heard(event) or (None,)
        for number, tone in enumerate(tones):
            pitch = None if tone is None else min(127, max(0, tone + slip))
            apart = number * (float(ROLL) if event.how.rolled else _APART)
            note = HeardNote(at + apart, event.stroke, pitch, float(levels[index]), until + apart)
            found.append((note, index if number == 0 else None))
        if twice[index]:
            again = at + float(random.uniform(*_TWICE))
            pitch = None if tones[0] is None else min(127, max(0, tones[0] + slip))
            found.append((HeardNote(again, event.stroke, pitch, float(levels[index]), again + 0.02), None))
    found.sort(key=lambda one: one[0].at)
    return Performed(tuple(note for note, _ in found), tuple(meant for _, meant in found))


def _both_hands(player: StandIn, due: Due) -> Performed:
    found: list[tuple[HeardNote, int | None]] = []
    for number, symbol in enumerate(HANDS_OF.values()):
        own = due_notes(due.reading.of_hand(symbol), due.bpm, due.start, due.end, due.window)
        mine = np.flatnonzero([event.hand == symbol for event in due.events])
        played = play(replace(player, seed=player.seed + number), own)
        late = player.apart_ms / 1000 if symbol == "L" else 0.0
        # The square of a velocity goes with the loudness.
        softer = float(due.reading.loudness(due.events[mine[0]])) ** 0.5 if len(mine) else 1.0
        for note, meant in zip(delayed(played, late).notes, played.meant, strict=True):
            level = max(1.0, round((note.level or _VELOCITY) * softer))
            found.append((replace(note, key=symbol, level=level), None if meant is None else int(mine[meant])))
    found.sort(key=lambda one: one[0].at)
    return Performed(tuple(note for note, _ in found), tuple(meant for _, meant in found))


def _offsets(player: StandIn, due: Due, random: np.random.Generator) -> Floats:
    count = len(due)
    since = due.at - due.at[0]
    curve = player.bend_bpm / (120 * float(due.bpm))
    faster = 1 / (1 + player.drift_percent / 100) - 1
    found = player.bias_ms / 1000 + since * faster - curve * since**2
    found = found + _scatter(player, due, random)
    fading = np.clip(1 - np.where(np.isfinite(due.since_change), due.since_change, 9.0) / _FADE_BEATS, 0, 1)
    found = found + fading * player.stumble_ms / 1000
    slots = np.array([event.slot for event in due.events])
    last = np.array([event.division.numerator - 1 for event in due.events])
    wanted = last if player.habit_slot < 0 else np.full(count, player.habit_slot)
    found = found + np.where(slots == wanted, player.habit_ms / 1000, 0.0)
    # With c more in the last share all others are shorter: each is 1 / (n + c) of the beat.
    crowd, slot_count = player.crowd_percent / 100, last + 1.0
    found = found - slots * due.even_gap * (crowd / (slot_count + crowd))
    for kind, indexes in due_landings(due).items():
        late = player.silence_ms if "silence" in kind or "rest" in kind else player.landing_ms
        found[indexes] += late / 1000
    for _ in range(player.lost_beats):
        found[int(random.integers(count // 5, max(count // 5 + 1, 4 * count // 5))) :] += due.beat
    for _ in range(player.group_slips):
        first = int(random.integers(0, count))
        group = slice(first, first + max(2, round(due.beat / float(due.even_gap[first]))))
        found[group] += due.even_gap[group]
    return np.asarray(found)


def _scatter(player: StandIn, due: Due, random: np.random.Generator) -> Floats:
    fresh = random.normal(0, 1, len(due))
    found = np.empty(len(due))
    found[0] = fresh[0]
    for index in range(1, len(due)):
        found[index] = player.alike * found[index - 1] + np.sqrt(1 - player.alike**2) * fresh[index]
    found = found * player.spread_ms / 1000
    if player.weak_ms:
        hands = [stroke for stroke in dict.fromkeys(event.stroke for event in due.events) if stroke]
        weak = np.array([len(hands) > 1 and event.stroke == hands[1] for event in due.events])
        found = found + weak * random.normal(0, player.weak_ms / 1000, len(due))
    return found


def _levels(player: StandIn, due: Due, random: np.random.Generator) -> Floats:
    """Return the velocity of each note: accents over plain ones by so many dB, ghosts under them by as many."""
    wanted = [event.accent for event in due.events]
    for index in range(len(wanted) - 1):
        if wanted[index] == "accent" and random.random() < player.misplaced_percent / 100:
            wanted[index], wanted[index + 1] = wanted[index + 1], wanted[index]
    over = {"accent": player.accent_db, "plain": 0.0, "ghost": -abs(player.accent_db)}
    db = np.array([over[accent] for accent in wanted]) + random.normal(0, _VELOCITY_SPREAD, len(due))
    return np.clip(np.round(_VELOCITY * 10 ** (db / _DB_OF_VELOCITY)), 1, 127)


#: Ready players: key → name, and how they play.
STAND_INS: dict[str, tuple[str, StandIn]] = {
    "steady": ("a steady player", StandIn(spread_ms=6)),
    "learner": ("a learner", StandIn(spread_ms=15, miss_percent=5, extra_percent=3)),
    "promising": ("one who is nearly there", StandIn(spread_ms=9, miss_percent=1, stumble_ms=12)),
    "hurrying": ("one who hurries", StandIn(spread_ms=8, bias_ms=-12, drift_percent=2)),
    "crowding": ("one who crowds the beat", StandIn(spread_ms=7, crowd_percent=45)),
    "stumbling": ("one who stumbles at changes", StandIn(spread_ms=7, miss_percent=0.5, stumble_ms=90)),
    "losing": ("one who loses a beat", StandIn(spread_ms=8, lost_beats=1)),
    "one_handed": ("one with a weak hand", StandIn(spread_ms=6, weak_ms=28)),
    "flat": ("one without accents", StandIn(spread_ms=7, accent_db=0.5)),
    "lost": ("one who is lost", StandIn(spread_ms=45, miss_percent=15, extra_percent=8)),
}


#: Numbers of a player by which a fault is asked for.
FAULTS: tuple[str, ...] = tuple(name for name in _BOUNDS if name != "seed")


def parse_faults(text: str) -> dict[str, float]:
    """Return what ``"stumble_ms=60,lost_beats=1"`` asks for; empty for empty text.

    Raises:
        OutOfRange: A name that is none of ``FAULTS``, or what is no number.
    """
    found: dict[str, float] = {}
    for part in filter(None, (one.strip() for one in text.split(","))):
        name, _, number = part.partition("=")
        try:
            found[name.strip()] = float(number)
        except ValueError:
            raise OutOfRange(f"“{part}” should be a name and a number: stumble_ms=60.", field="faults") from None
        if name.strip() not in FAULTS:
            raise OutOfRange(f"A player has no “{name.strip()}”. It has {', '.join(FAULTS)}.", field="faults")
    return found


def changed_player(player: StandIn, seed: int, faults: Mapping[str, float]) -> StandIn:
    """Return a player with another seed and with some of its numbers changed.

    Raises:
        OutOfRange: A number outside its range.
    """
    whole = {name: int(value) for name, value in faults.items() if isinstance(getattr(player, name), int)}
    return replace(player, seed=seed, **{**faults, **whole})  # type: ignore[arg-type]


def delayed(performed: Performed, seconds: float) -> Performed:
    """Return what was played as a device reports it that is late by so much."""
    if not seconds:
        return performed
    return Performed(moved(performed.notes, seconds), performed.meant)
