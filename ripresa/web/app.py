"""The app: one API and the built front end, for one studio."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from flask_openapi import Info

import ripresa
from ripresa.formats.engraver import Engraver
from ripresa.store.files import open_studio
from ripresa.store.identity import studio_id
from ripresa.store.recordings import sweep
from ripresa.store.scratch import Scratch
from ripresa.web.blueprint import Api
from ripresa.web.guard import guard
from ripresa.web.incoming import Incoming
from ripresa.web.jobs import Jobs, Run
from ripresa.web.json_in import JsonIn
from ripresa.web.problems import Problem, handle_problems, refuse_malformed
from ripresa.web.routes import ALL
from ripresa.web.site import add_site
from ripresa.work.days import local_now

STATIC = Path(__file__).parent / "static"
PRACTICE = Path(__file__).parent / "practice"


def create_app(
    database_path: Path,
    *,
    clock: Callable[[], datetime] = local_now,
    static: Path = STATIC,
    practice: Path = PRACTICE,
    is_demo: bool = False,
    run: Run | None = None,
) -> Api:
    """Return the app for the studio kept at a path.

    Args:
        clock: Gives the present moment; tests pass their own.
        static: Folder of the built front end. practice: Folder of the page that practice files are made of.
        run: Makes files that take their time; tests pass one that does not wait.
        is_demo: Whether the data is a throwaway copy, which the screen says.
    """
    app = Api(
        "ripresa.web",
        info=Info(title="Ripresa", version=ripresa.__version__),
        validation_error_model=Problem,
        validation_error_callback=refuse_malformed,
        doc_prefix="/api",
        static_folder=None,
        studio=open_studio(database_path),
    )
    app.openapi_version = "3.1.0"
    app.json = JsonIn(app)
    app.config.update(CLOCK=clock, DEMO=is_demo, DATABASE=database_path, PRACTICE=practice)
    keep_on_the_way(app, run)
    with app.at_studio():
        studio = studio_id()
        sweep(clock())
    guard(app, studio)
    handle_problems(app)

    for blueprint in ALL:
        app.register_api(blueprint)
    add_site(app, static, studio)
    return app


def keep_on_the_way(app: Api, run: Run | None = None) -> None:
    """Give an app whose database is named a place for what is on its way, and what works there."""
    scratch = Scratch(app.config["DATABASE"].parent)
    app.config.update(SCRATCH=scratch, ENGRAVER=Engraver())
    app.config.update(JOBS=Jobs(scratch.inner("files"), run), INCOMING=Incoming(scratch.inner("sound")))
