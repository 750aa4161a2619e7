"""Engraving: a score of ours drawn as SVG, in worker processes beside whoever asks.

The library that draws is not ours, and input that it does not like can end its process: then the pool is made anew, and
what was asked for is tried once more. It gets no score but those that ``ripresa.formats.notation`` wrote.
"""

import multiprocessing
import os
import re
import signal
from collections import OrderedDict
from concurrent.futures import Executor, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from hashlib import sha256
from threading import Lock, Thread
from typing import Any

from ripresa.core.errors import OutOfRange

#: Pictures that are kept, and characters that they may have together.
_MOST_KEPT, _MOST_SIGNS = 128, 30_000_000
#: Seconds after which a picture is given up.
_LONGEST = 60
#: Pixels of a picture for each of the library's units at this scale (in per cent).
_SCALE = 40
_TALLEST = 60_000
#: What would be read out before the picture's own words.
#: The fret of a stroke that is damped, by the name that the score gives it.
_DAMPED = re.compile(r'(<g id="e[\d-]+x" class="note">\s*<text[^>]*>\s*<tspan[^>]*>)\d+(?=</tspan>)')
_DESCRIBED = re.compile(r"<desc>.*?</desc>", re.DOTALL)


class Engraver:
    """Draws scores, and keeps the last pictures.

    Args:
        workers: How many processes draw at once.
    """

    def __init__(self, workers: int = 1) -> None:
        self._workers = workers
        self._pool: Executor | None = None
        self._lock = Lock()
        self._kept: OrderedDict[bytes, str] = OrderedDict()

    def draw(self, score: bytes, width: int) -> str:
        """Return a picture (SVG) of a score, as tall as it needs.

        Args:
            width: In pixels, to which its lines are broken.

        Raises:
            OutOfRange: It could not be drawn.
        """
        key = sha256(width.to_bytes(4) + score).digest()
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        picture = self._drawn(score, width)
        with self._lock:
            self._kept[key] = picture
            while len(self._kept) > _MOST_KEPT or (
                len(self._kept) > 1 and sum(map(len, self._kept.values())) > _MOST_SIGNS
            ):
                self._kept.popitem(last=False)
        return picture

    def close(self) -> None:
        """End the workers."""
        with self._lock:
            pool, self._pool = self._pool, None
        if pool:
            pool.shutdown(wait=False, cancel_futures=True)

    def _drawn(self, score: bytes, width: int) -> str:
        for _ in range(2):
            pool = self._ready()
            try:
                return pool.submit(_draw, score.decode(), width).result(_LONGEST)
            except BrokenProcessPool:
                self._forget(pool)
            except TimeoutError:
                self._forget(pool)
                break
        raise OutOfRange("This drill could not be engraved. The rail and the files say the same.", field="form")

    def _ready(self) -> Executor:
        with self._lock:
            if self._pool is None:
                fresh = multiprocessing.get_context("spawn")
                self._pool = ProcessPoolExecutor(self._workers, fresh, _begin)
            return self._pool

    def _forget(self, pool: Executor) -> None:
        with self._lock:
            if self._pool is pool:
                self._pool = None
        for process in (getattr(pool, "_processes", None) or {}).values():
            process.kill()
        pool.shutdown(wait=False, cancel_futures=True)


def _begin() -> None:
    # Ctrl+C is for whoever asked, who ends these.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    Thread(target=_end_with_parent, daemon=True).start()


def _end_with_parent() -> None:
    """End this worker when whoever started it is gone, also where that was killed and could not say so."""
    parent = multiprocessing.parent_process()
    if parent is not None:
        parent.join()
        os._exit(0)


_toolkit: Any = None


def _draw(score: str, width: int) -> str:
    """Return the picture of a score; runs in a worker, which keeps its toolkit."""
    global _toolkit
    if _toolkit is None:
        # Here and not above: who asks need not load it.
        import verovio

        # What it has to say of a score is for nobody who asked for a picture.
        verovio.enableLog(verovio.LOG_OFF)
        _toolkit = verovio.toolkit()
    _toolkit.setOptions(
        {
            "adjustPageHeight": True,
            "breaks": "auto",
            "footer": "none",
            "header": "none",
            "pageHeight": _TALLEST,
            "pageMarginBottom": 20,
            "pageMarginLeft": 20,
            "pageMarginRight": 20,
            "pageMarginTop": 20,
            "pageWidth": width * 100 // _SCALE,
            "scale": _SCALE,
            "smuflTextFont": "none",
            "spacingStaff": 8,
            "svgHtml5": False,
            "svgViewBox": True,
            "xmlIdSeed": 1,
        }
    )
    if not _toolkit.loadData(score):
        raise ValueError("a score of ours cannot be read by the engraver")
    picture: str = _toolkit.renderToSVG(1)
    return _DESCRIBED.sub("", _DAMPED.sub(r"\1×", picture))
