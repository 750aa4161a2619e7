"""The running server: on the loopback address only, with threads enough for one studio."""

import gc
import signal
import socket
import sys
from collections.abc import Callable
from pathlib import Path

import waitress

from ripresa.core.errors import Conflict, OutOfRange
from ripresa.store.files import in_use
from ripresa.store.tables import database
from ripresa.web.app import create_app

ADDRESS = "127.0.0.1"
#: Connections at once, and seconds after which one that says nothing is closed: a page holds up to six, and what
#: other programs leave open keeps no one out.
MOST_CONNECTIONS, IDLE_SECONDS = 900, 10


def serve(database_path: Path, port: int, *, fill: Callable[[], None] | None = None) -> None:
    """Serve the studio at a path until interrupted.

    Args:
        fill: Fills a demo studio once the database is open.

    Raises:
        Conflict: The port is taken.
        OutOfRange: It is not a port.
    """
    if not 0 < port < 65536:
        raise OutOfRange(f"{port} is not a port. Use 1024 to 65535.")
    _check_free(port)
    with in_use(database_path):
        _serve(database_path, port, fill)


def _serve(database_path: Path, port: int, fill: Callable[[], None] | None) -> None:
    app = create_app(database_path, is_demo=fill is not None)
    if fill:
        with database.connection_context(), database.atomic():
            fill()
    print(f"Ripresa is at http://localhost:{port}" + (" with a throwaway demo studio." if fill else "."))
    print(f"Data: {database_path}" if not fill else "Nothing that you change here is kept after you stop it.")
    print("Stop it with Ctrl+C.")
    sys.stdout.flush()
    # What is loaded by now stays: nothing of it is looked through again for what could be thrown away.
    gc.collect()
    gc.freeze()
    # A killed demo still takes its throwaway folder with it.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    waitress.serve(
        app,
        host=ADDRESS,
        port=port,
        threads=6,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_SECONDS,
        cleanup_interval=IDLE_SECONDS // 2,
        asyncore_use_poll=True,
        _quiet=True,
    )


def _check_free(port: int) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((ADDRESS, port))
        except OSError as error:
            raise Conflict(
                f"Port {port} is taken, perhaps by another Ripresa. Stop that one, or choose another: "
                f"make run PORT={port + 1}."
            ) from error
