"""The front end as built: its files, and its one page for every other address."""

from pathlib import Path

from flask import Blueprint, Flask, Response, send_from_directory

from ripresa.web.problems import problem


def add_site(app: Flask, static: Path) -> None:
    """Serve the built front end from a folder."""
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
        response = send_from_directory(static, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    app.register_blueprint(site)
