"""The front end as built: its files, and its one page for every other address."""

from pathlib import Path

from flask import Blueprint, Flask, Response, send_from_directory

from ripresa.web.problems import problem

#: Stands in the page where the id of the studio goes.
_STUDIO = 'data-studio=""'


def add_site(app: Flask, static: Path, studio: str) -> None:
    """Serve the built front end from a folder; its page knows which studio it belongs to."""
    site = Blueprint("site", __name__)

    @site.get("/assets/<path:name>")
    def asset(name: str) -> Response:
        response = send_from_directory(static / "assets", name)
        # Their names hold a hash of their contents.
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response

    @site.get("/")
    @site.get("/<path:path>")
    def page(path: str = "") -> Response:
        if path.startswith("api/"):
            return problem("There is nothing at this address.", 404)
        if path in {"favicon.svg"}:
            return send_from_directory(static, path)
        if not (static / "index.html").is_file():
            return problem("The front end is not built yet. Run “make build” and start again.", 503)
        text = (static / "index.html").read_text(encoding="utf-8")
        response = Response(text.replace(_STUDIO, f'data-studio="{studio}"', 1), mimetype="text/html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    app.register_blueprint(site)
