"""The running server: on the loopback address only, with threads enough for one studio."""

import gc
import logging
import os
import signal
import socket
import sys
import webbrowser
from collections.abc import Callable
from pathlib import Path
from threading import Thread
from time import sleep

import waitress

from ripresa.core.errors import Conflict, OutOfRange
from ripresa.store.files import in_use
from ripresa.store.recordings import sweep
from ripresa.store.tables import database
from ripresa.web.app import create_app
from ripresa.web.blueprint import Api

ADDRESS = "127.0.0.1"
#: So many more things that could refer to one another are made before they are looked through.
_NEW_OBJECTS = 50_000
#: Seconds from one look at what has run out to the next.
_SWEEP_SECONDS = 60
#: Connections at once, and seconds after which one that says nothing is closed: a page holds up to six, and what
#: other programs leave open keeps no one out.
MOST_CONNECTIONS, IDLE_SECONDS = 900, 10


def serve(
    database_path: Path,
    port: int,
    *,
    fill: Callable[[], None] | None = None,
    filled: Callable[[], None] | None = None,
    is_demo: bool = False,
    opens: bool = False,
) -> None:
    """Serve the studio at a path until interrupted.

    Args:
        fill: Fills the studio once the database is open; filled: called when that is kept.
        is_demo: Whether the data is a throwaway copy. opens: Whether the browser is opened once it can be answered.

    Raises:
        Conflict: The port is taken.
        OutOfRange: It is not a port.
    """
    if not 0 < port < 65536:
        raise OutOfRange(f"{port} is not a port. Use 1024 to 65535.")
    _check_free(port)
    with in_use(database_path):
        app = create_app(database_path, is_demo=is_demo)
        if fill:
            with app.at_studio(), database.atomic():
                fill()
            if filled:
                filled()
        _serve(app, database_path, port, is_demo=is_demo, opens=opens)


def _serve(app: Api, database_path: Path, port: int, *, is_demo: bool, opens: bool) -> None:
    home = f"http://localhost:{port}"
    print(f"Ripresa is at {home}" + (" with a throwaway demo studio." if is_demo else "."))
    print("Nothing that you change here is kept after you stop it." if is_demo else f"Data: {database_path}")
    print("Stop it with Ctrl+C.")
    sys.stdout.flush()
    spare_the_collector()
    # A killed demo still takes its throwaway folder with it.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    server = waitress.create_server(
        app,
        host=ADDRESS,
        port=port,
        threads=6,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_SECONDS,
        cleanup_interval=IDLE_SECONDS // 2,
        asyncore_use_poll=True,
    )
    Thread(target=_sweep_now_and_then, args=(app,), daemon=True).start()
    if opens:
        # It is listening by now; a browser that takes its time holds nothing up.
        Thread(target=webbrowser.open, args=(home,), daemon=True).start()
    server.run()


def _sweep_now_and_then(app: Api) -> None:
    """Delete what has run out while the server runs."""
    while True:
        sleep(_SWEEP_SECONDS)
        try:
            with app.at_studio():
                sweep(app.config["CLOCK"]())
        except Exception:
            # The next one tries again: what it could not do is no reason to end anything.
            logging.getLogger("ripresa").exception("Recordings that have run out could not be deleted.")


def spare_the_collector() -> None:
    """Let what is loaded by now stay: nothing of it is looked through again for what could be thrown away.

    A long drill is many thousands of numbers that refer to nothing: they are not looked through at each few hundred.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(_NEW_OBJECTS, 20, 20)


def _check_free(port: int) -> None:
    with socket.socket() as probe:
        if os.name == "posix":
            # What was just closed is free. Elsewhere this would share a port with who has it.
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((ADDRESS, port))
        except OSError as error:
            raise Conflict(
                f"Port {port} is taken, perhaps by another Ripresa. Stop that one, or choose another: "
                f"ripresa --port {port + 1}, or make run PORT={port + 1}."
            ) from error
