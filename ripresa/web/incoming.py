"""Sound that comes in piece by piece while it is played, or file by file.

It lies in the folder of this run, which goes with the server. Nothing of it is kept: what a student's recordings are
kept for is copied from here. The oldest go when others come: first those whose take has come, and was seen to.
"""

from collections import OrderedDict
from dataclasses import dataclass
from pathlib import Path
from threading import Lock

import numpy as np

from ripresa.core.errors import Conflict, NotFound, OutOfRange
from ripresa.core.listening import LONGEST, RATES, Sound
from ripresa.formats.sound_in import LARGEST_SOUND
from ripresa.store.trouble import trouble

#: Recordings that lie here at once, and takes that are remembered to have one; and that are played back.
MOST_INCOMING, MOST_TAKES, MOST_BACK = 12, 24, 6
#: Recordings whose take has not come yet; who plays for half an hour and has no server sends no more at once.
MOST_WAITING = 48
LARGEST_PIECE = 4_000_000
_LARGEST_PCM = LONGEST * RATES[1] * 2


@dataclass(slots=True)
class _Coming:
    file: Path
    pieces: int = 0
    bytes: int = 0
    is_done: bool = False


class Incoming:
    """Recordings on their way in, by the key that the browser gave each.

    Args:
        folder: Where they lie; it is there, and nobody else's.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._coming: OrderedDict[str, _Coming] = OrderedDict()
        self._takes: OrderedDict[str, tuple[str, int, float]] = OrderedDict()
        self._lock = Lock()

    def add(self, key: str, number: int, data: bytes) -> int:
        """Add a piece to a recording, and return how many bytes it has; a piece that was there already is no news.

        Raises:
            Conflict: A piece before it is missing. OutOfRange: It is too large, or the recording too long.
            Unkept: There is no room for it.
        """
        if len(data) > LARGEST_PIECE:
            raise OutOfRange(f"A piece has up to {LARGEST_PIECE // 1_000_000} MB.", field="piece")
        with self._lock:
            if key not in self._coming:
                if number:
                    raise Conflict("The beginning of this recording is not here any more. Record it again.")
                self._coming[key] = _Coming(self.folder / key)
                self._make_room()
            coming = self._coming[key]
            if number > coming.pieces:
                raise Conflict(f"Piece {coming.pieces} of this recording has not come yet. Send it first.")
            if number == coming.pieces:
                if coming.bytes + len(data) > max(LARGEST_SOUND, _LARGEST_PCM):
                    raise OutOfRange(f"A recording lasts up to {LONGEST // 60} minutes.", field="piece")
                _append(coming.file, coming.bytes, data)
                coming.pieces += 1
                coming.bytes += len(data)
            return coming.bytes

    def _make_room(self) -> None:
        done = [key for key, coming in self._coming.items() if coming.is_done]
        waiting = [key for key, coming in self._coming.items() if not coming.is_done]
        for key in (
            *done[: max(0, len(self._coming) - MOST_INCOMING)],
            *waiting[: max(0, len(waiting) - MOST_WAITING)],
        ):
            self._coming.pop(key).file.unlink(missing_ok=True)

    def seen_to(self, key: str) -> None:
        """Note that the take of a recording has come, and that what is to be kept of it is kept."""
        with self._lock:
            if coming := self._coming.get(key):
                coming.is_done = True

    def file(self, key: str) -> Path:
        """Return the file of a recording.

        Raises:
            NotFound: It is not here, or no longer.
        """
        with self._lock:
            if key not in self._coming:
                raise NotFound("This recording is not here any more. Record it again.")
            return self._coming[key].file

    def sound(self, key: str, rate: int) -> Sound:
        """Return a recording that came as samples of 16 bits.

        Raises:
            NotFound: It is not here, or no longer. OutOfRange: A rate or a length that is not listened to.
        """
        file = self.file(key)
        count = file.stat().st_size // 2
        if not count:
            return Sound(np.zeros(0, dtype=np.int16), rate)
        return Sound(np.memmap(file, dtype="<i2", mode="r", shape=(count,)), rate)

    def belongs(self, take_id: str, key: str, rate: int, zero: float) -> None:
        """Remember that a recording is of a take, and where the first beat of that lies in it, in seconds."""
        with self._lock:
            self._takes[take_id] = (key, rate, zero)
            while len(self._takes) > MOST_TAKES:
                self._takes.popitem(last=False)

    def put_back(self, target: Path, body: bytes) -> None:
        """Write a take that is played back; the oldest of them go when others come."""
        with self._lock:
            others = sorted(self.folder.glob("back-*"), key=lambda file: file.stat().st_mtime)
            for file in others[: max(0, len(others) - MOST_BACK + 1)]:
                file.unlink(missing_ok=True)
        beside = target.with_suffix(".part")
        try:
            beside.write_bytes(body)
            beside.replace(target)
        except OSError as error:
            beside.unlink(missing_ok=True)
            raise trouble(error) from error

    def forget(self, take_id: str | None = None) -> None:
        """Delete the recording of a take, and what was played back of it; of all takes for None."""
        with self._lock:
            for one in [take_id] if take_id else list(self._takes):
                key = self._takes.pop(one, ("", 0, 0.0))[0]
                if coming := self._coming.pop(key, None):
                    coming.file.unlink(missing_ok=True)
            for file in self.folder.glob(f"back-{take_id}-*" if take_id else "back-*"):
                file.unlink(missing_ok=True)

    def of_take(self, take_id: str) -> tuple[Sound, float] | None:
        """Return the recording of a take and where its first beat lies; None where it is not here."""
        found = self._takes.get(take_id)
        if found is None:
            return None
        try:
            return self.sound(found[0], found[1]), found[2]
        except NotFound:
            return None


def _append(file: Path, size: int, data: bytes) -> None:
    """Append to a file of a size; what of it did not find room is taken back, so that it can be sent again.

    Raises:
        Unkept: The disk is full, or fails.
    """
    try:
        with file.open("ab") as opened:
            opened.truncate(size)
            opened.write(data)
    except OSError as error:
        raise trouble(error) from error
