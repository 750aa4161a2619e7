"""Work that takes its time: done beside the server’s answers, asked for until it is ready."""

import logging
import uuid
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass

from ripresa.core.errors import NotFound

#: Files that are kept for whoever asked; the oldest goes when another is begun.
MOST_KEPT = 6


@dataclass(slots=True)
class Job:
    """A file that is being made.

    Args:
        steps: Steps it takes. done: Those that are done.
        name, mimetype: Of the file.
        body: The file; None until it is ready. failed: Whether it never will be.
    """

    steps: int
    name: str
    mimetype: str
    done: int = 0
    body: bytes | None = None
    failed: bool = False

    def tell(self, done: int) -> None:
        """Note how many steps are done."""
        self.done = done


class Jobs:
    """Makes files one at a time, and keeps the last few.

    Args:
        executor: What runs the work; a thread of its own by default.
    """

    def __init__(self, executor: Executor | None = None) -> None:
        self._executor = executor or ThreadPoolExecutor(1, thread_name_prefix="file")
        self._jobs: OrderedDict[str, Job] = OrderedDict()

    def begin(self, job: Job, make: Callable[[Callable[[int], None]], bytes]) -> str:
        """Begin to make a file, and return the name under which to ask for it.

        Args:
            make: Returns the file; is given what it tells its steps to.
        """
        key = uuid.uuid4().hex
        self._jobs[key] = job
        while len(self._jobs) > MOST_KEPT:
            self._jobs.popitem(last=False)

        def work() -> None:
            try:
                job.body = make(job.tell)
            except Exception:
                job.failed = True
                logging.getLogger("ripresa").exception("A file could not be made.")

        self._executor.submit(work)
        return key

    def find(self, key: str) -> Job:
        """Return a job.

        Raises:
            NotFound: It was never begun, or the server was started again since, or it is long ago.
        """
        if key not in self._jobs:
            raise NotFound("This file is no longer kept. Ask for it again.")
        return self._jobs[key]
