"""What the server lets in and what the browser may do: own host names only, own scripts only."""

from flask import Flask, Response, request

from ripresa.web.problems import problem

#: Names under which a browser on this computer reaches us; anything else may be a page that rebinds its name.
_HOSTS = {"localhost", "127.0.0.1", "[::1]"}
_POLICY = (
    "default-src 'none'; script-src 'self'; worker-src 'self'; style-src 'self'; img-src 'self' data:; "
    "font-src 'self'; connect-src 'self'; media-src 'self'; base-uri 'none'; form-action 'none'; "
    "frame-ancestors 'none'"
)
LARGEST_REQUEST = 8_000_000


def guard(app: Flask) -> None:
    """Check hosts and origins of requests, and set the headers of every answer."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_REQUEST

    @app.before_request
    def check_host() -> Response | None:
        if _name(request.host) not in _HOSTS:
            return problem("Ripresa answers on this computer only: open it as localhost.", 403)
        origin = request.headers.get("Origin")
        if origin is not None and origin.partition("://")[2] != request.host:
            return problem("This request comes from another page.", 403)
        return None

    @app.after_request
    def set_headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = _POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response


def _name(host: str) -> str:
    if host.startswith("["):
        return host.partition("]")[0] + "]"
    return host.partition(":")[0]
