"""The folder of one run for what is on its way: sound that comes in, files that are being made, copies that are sent.

It lies beside the data and goes with the server; what a killed one left behind goes at the next start.
"""

import shutil
import tempfile
from pathlib import Path
from weakref import finalize

from ripresa.store.private import TEMP, private_file, private_folder
from ripresa.store.trouble import trouble

_HELD = "held"


class Scratch:
    """A folder that nobody else uses while this run lasts.

    Args:
        data: The folder of the data.

    Raises:
        Unkept: It cannot be made; the sentence says why.
    """

    def __init__(self, data: Path) -> None:
        # Here and not above: whoever only reads a file need not load it.
        import portalocker

        alone = portalocker.LockFlags.EXCLUSIVE
        try:
            temp = private_folder(data / TEMP)
            # One at a time: what has just been made is not yet held.
            with private_file(temp / _HELD).open("ab") as door:
                portalocker.lock(door, alone)
                for left in temp.glob("run-*"):
                    _delete_left(left)
                self.folder = Path(tempfile.mkdtemp(prefix="run-", dir=temp))
                held = private_file(self.folder / _HELD).open("ab")
                portalocker.lock(held, alone)
        except OSError as error:
            raise trouble(error, data) from error

        def end() -> None:
            held.close()
            shutil.rmtree(folder, ignore_errors=True)

        folder = self.folder
        #: Ends it before the run does; once is enough.
        self.end = finalize(self, end)

    def inner(self, name: str) -> Path:
        """Return a folder inside of it."""
        return private_folder(self.folder / name)


def _delete_left(folder: Path) -> None:
    """Delete a folder whose server is gone; its lock is the system's, so that a kill lets it go."""
    import portalocker

    try:
        with (folder / _HELD).open("ab") as held:
            portalocker.lock(held, portalocker.LockFlags.EXCLUSIVE | portalocker.LockFlags.NON_BLOCKING)
    except portalocker.AlreadyLocked:
        return
    except OSError:
        # It has no lock any more: its deletion was cut off.
        pass
    shutil.rmtree(folder, ignore_errors=True)
