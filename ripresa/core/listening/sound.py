"""A recording as it is listened to: one channel of samples and their rate, however it is kept."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ripresa.core.errors import OutOfRange

Floats = NDArray[np.float32]

#: Samples a second that are listened to.
RATES = (8_000, 48_000)
#: Half an hour is no take: a recording lasts so many seconds at most.
LONGEST = 20 * 60
FULL_SCALE = 32_768.0


@dataclass(frozen=True)
class Sound:
    """A recording: 16-bit samples of one channel, which may lie in a file, and how many there are a second.

    Raises:
        OutOfRange: A rate, or a length, that is not listened to.
    """

    samples: NDArray[np.int16]
    rate: int

    def __post_init__(self) -> None:
        if not RATES[0] <= self.rate <= RATES[1]:
            raise OutOfRange(
                f"A recording has {RATES[0]:,} to {RATES[1]:,} samples a second, not {self.rate:,}.", field="rate"
            )
        check_seconds(self.seconds)

    @property
    def seconds(self) -> float:
        """How long it lasts."""
        return len(self.samples) / self.rate

    def part(self, first: int, last: int) -> Floats:
        """Return samples from −1 to 1; silence where there are none."""
        begin, end = max(0, first), min(len(self.samples), max(0, last))
        found = np.zeros(max(0, last - first), dtype=np.float32)
        if end > begin:
            found[begin - first : end - first] = self.samples[begin:end]
        found /= FULL_SCALE
        return found


def check_seconds(seconds: float) -> None:
    """Refuse a recording that is too long.

    Raises:
        OutOfRange: It lasts more than twenty minutes.
    """
    if seconds > LONGEST:
        raise OutOfRange(
            f"This recording lasts {seconds / 60:.0f} minutes, and one is listened to for up to {LONGEST // 60}. Cut "
            "out the take.",
            field="file",
        )
