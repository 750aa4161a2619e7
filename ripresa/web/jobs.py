"""Work that takes its time: done in a process of its own beside the server’s answers, asked for until it is ready.

A process of its own, because what makes the files is a library that is not ours: if it ends, the file is lost and
the server is not.
"""

import logging
import multiprocessing
import os
import signal
import uuid
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from multiprocessing.connection import Connection
from pathlib import Path
from queue import SimpleQueue
from threading import Lock, Thread

from ripresa.core.errors import NotFound, OutOfRange, RipresaError

#: Files that are kept for whoever asked; the oldest goes when another is begun.
MOST_KEPT = 6

Tell = Callable[[int], None]
#: Writes a file to a path, and tells how many steps are done; can be sent to another process.
Work = Callable[[Path, Tell], None]
#: Does such work somewhere.
Run = Callable[[Work, Path, Tell], None]


@dataclass(slots=True)
class Job:
    """A file that is being made.

    Args:
        steps: Steps it takes. done: Those that are done.
        name, mimetype: Of the file.
        file: Where it lies; None until it is ready. failed: Whether it never will be, and why; empty while it may.
    """

    steps: int
    name: str
    mimetype: str
    done: int = 0
    file: Path | None = None
    failed: str = ""

    def tell(self, done: int) -> None:
        """Note how many steps are done."""
        self.done = done


class Jobs:
    """Makes files one at a time, and keeps the last few.

    Nothing waits for it: where the server stops, so do the files that are being made.

    Args:
        folder: Where they lie; it is there, and nobody else's.
        run: What does the work; a process of its own by default.
    """

    def __init__(self, folder: Path, run: Run | None = None) -> None:
        self._run = run or apart
        self._folder = folder
        self._jobs: OrderedDict[str, Job] = OrderedDict()
        self._waiting: SimpleQueue[tuple[str, Job, Work]] = SimpleQueue()
        self._lock = Lock()
        self._worker: Thread | None = None

    def begin(self, job: Job, work: Work) -> str:
        """Begin to make a file, and return the name under which to ask for it."""
        key = uuid.uuid4().hex
        with self._lock:
            self._jobs[key] = job
            while len(self._jobs) > MOST_KEPT:
                _, oldest = self._jobs.popitem(last=False)
                if oldest.file:
                    oldest.file.unlink(missing_ok=True)
            if self._worker is None:
                self._worker = Thread(target=self._work, name="files", daemon=True)
                self._worker.start()
        self._waiting.put((key, job, work))
        return key

    def find(self, key: str) -> Job:
        """Return a job.

        Raises:
            NotFound: It was never begun, or the server was started again since, or it is long ago.
        """
        with self._lock:
            if key not in self._jobs:
                raise NotFound("This file is no longer kept. Ask for it again.")
            return self._jobs[key]

    def _work(self) -> None:
        while True:
            key, job, work = self._waiting.get()
            target = self._folder / key
            try:
                if key in self._jobs:
                    self._run(work, target, job.tell)
                    job.file = target
            except RipresaError as error:
                job.failed = error.message
            except Exception:
                job.failed = (
                    "It could not be made. Try fewer rungs or passes; if it stays so, look into the server’s messages."
                )
                logging.getLogger("ripresa").exception("A file could not be made.")


def apart(work: Work, target: Path, tell: Tell) -> None:
    """Do work in a process of its own, and wait for it.

    Raises:
        OutOfRange: The work refused what it was asked for.
        RuntimeError: The process ended before the work was done.
    """
    fresh = multiprocessing.get_context("spawn")
    here, there = fresh.Pipe(duplex=False)
    process = fresh.Process(target=_child, args=(there, work, target), daemon=True)
    process.start()
    there.close()
    try:
        while True:
            what, value = here.recv()
            if what == "step":
                tell(value)
            elif what == "refused":
                raise OutOfRange(value)
            else:
                return
    except EOFError as error:
        process.join()
        raise RuntimeError(f"the process that made a file ended with {process.exitcode}") from error
    finally:
        process.kill()
        process.join()
        here.close()


def _child(there: Connection, work: Work, target: Path) -> None:
    # Ctrl+C is for the server, which ends this process itself; and what is played now goes first.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    if hasattr(os, "nice"):
        os.nice(10)
    try:
        work(target, lambda done: there.send(("step", done)))
    except RipresaError as error:
        there.send(("refused", error.message))
    else:
        there.send(("done", 0))
