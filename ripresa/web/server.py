"""The running server: on the loopback address only, with threads enough for one studio."""

import signal
import socket
import sys
from collections.abc import Callable
from pathlib import Path

import waitress

from ripresa.core.errors import Conflict, OutOfRange
from ripresa.store.tables import database
from ripresa.web.app import create_app

ADDRESS = "127.0.0.1"


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
    app = create_app(database_path, is_demo=fill is not None)
    if fill:
        with database.connection_context(), database.atomic():
            fill()
    print(f"Ripresa is at http://localhost:{port}" + (" with a throwaway demo studio." if fill else "."))
    print(f"Data: {database_path}" if not fill else "Nothing that you change here is kept after you stop it.")
    print("Stop it with Ctrl+C.")
    sys.stdout.flush()
    # A killed demo still takes its throwaway folder with it.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    waitress.serve(app, host=ADDRESS, port=port, threads=6, _quiet=True)


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
