"""The stand-in player: a simulated student, seeded, in place of a person in the app and in tests."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ripresa.core.errors import OutOfRange


@dataclass(frozen=True, slots=True)
class StandIn:
    """How a simulated student plays. Invented behaviour, not a model of anyone.

    Args:
        spread_ms: Standard deviation of each onset, 0 to 200 ms.
        bias_ms: Constant offset, early below 0; −300 to 300 ms.
        drift_percent: Faster than asked by this share, −10 to 10 %.
        miss_percent, extra_percent: Share of notes left out or struck twice, 0 to 50 %.
        stumble_ms: Delay at each gear change, fading over two beats; 0 to 500 ms.
        seed: The same seed plays the same take.

    Raises:
        OutOfRange: A number outside its range.
    """

    spread_ms: float = 8.0
    bias_ms: float = 0.0
    drift_percent: float = 0.0
    miss_percent: float = 0.0
    extra_percent: float = 0.0
    stumble_ms: float = 0.0
    seed: int = 1

    def __post_init__(self) -> None:
        for name, low, high, unit in (
            ("spread_ms", 0, 200, "ms"),
            ("bias_ms", -300, 300, "ms"),
            ("drift_percent", -10, 10, "%"),
            ("miss_percent", 0, 50, "%"),
            ("extra_percent", 0, 50, "%"),
            ("stumble_ms", 0, 500, "ms"),
            ("seed", 0, 2**31, ""),
        ):
            if not low <= getattr(self, name) <= high:
                raise OutOfRange(f"Take {low} to {high} {unit}".rstrip() + ".", field=f"player.{name}")


#: How long a stumble takes to fade, in seconds after the change.
_FADE_SECONDS = 1.2


def play(player: StandIn, due: Sequence[float], changes: Sequence[float] = ()) -> list[float]:
    """Return the onsets that the player makes, in seconds, rising.

    Args:
        due: When notes are due, in seconds, rising.
        changes: When gear changes happen, in seconds, rising.
    """
    random = np.random.default_rng(player.seed)
    wanted = np.asarray(due, dtype=float)
    if not len(wanted):
        return []
    onsets = wanted - (wanted - wanted[0]) * player.drift_percent / 100
    onsets = onsets + player.bias_ms / 1000 + random.normal(0, player.spread_ms / 1000, len(wanted))
    for change in changes:
        since = wanted - change
        fading = np.clip(1 - since / _FADE_SECONDS, 0, 1) * (since >= -1e-9)
        onsets = onsets + fading * player.stumble_ms / 1000
    kept = onsets[random.random(len(wanted)) >= player.miss_percent / 100]
    struck_twice = kept[random.random(len(kept)) < player.extra_percent / 100]
    doubles = struck_twice + random.uniform(0.03, 0.06, len(struck_twice))
    return [float(onset) for onset in np.sort(np.concatenate([kept, doubles]))]


#: Ready players: key → name, and how they play.
STAND_INS: dict[str, tuple[str, StandIn]] = {
    "steady": ("a steady player", StandIn(spread_ms=6)),
    "learner": ("a learner", StandIn(spread_ms=14, miss_percent=1, stumble_ms=20)),
    "hurrying": ("one who hurries", StandIn(spread_ms=9, bias_ms=-12, drift_percent=0.6)),
    "stumbling": ("one who stumbles at changes", StandIn(spread_ms=9, miss_percent=2, stumble_ms=90)),
    "lost": ("one who is lost", StandIn(spread_ms=45, miss_percent=15, extra_percent=8)),
}
