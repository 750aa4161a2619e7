"""What the server lets in and what the browser may do: own host names, own pages of this studio, own scripts only."""

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
#: What a browser says of where a request comes from; one that says nothing is no page.
_OWN_SITES = {"same-origin", "none"}
#: The studio that a page belongs to: in this header, or in the address of what is saved.
STUDIO_HEADER, STUDIO_QUERY = "X-Ripresa-Studio", "studio"


def guard(app: Flask, studio: str) -> None:
    """Check hosts, origins and studio of requests, and set the headers of every answer.

    Args:
        studio: Id of the studio that is served; a page of another one is refused.
    """
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_REQUEST

    @app.before_request
    def check_host() -> Response | None:
        if _name(request.host) not in _HOSTS:
            return problem("Ripresa answers on this computer only: open it as localhost.", 403)
        origin = request.headers.get("Origin")
        if origin is not None and origin.partition("://")[2] != request.host:
            return problem("This request comes from another page.", 403)
        if request.path.startswith("/api"):
            if request.headers.get("Sec-Fetch-Site", "none") not in _OWN_SITES:
                return problem("This request comes from another page.", 403)
            named = request.headers.get(STUDIO_HEADER) or request.args.get(STUDIO_QUERY)
            if named is not None and named != studio:
                return problem(
                    "This page belongs to another studio than the one that answers now. What was not sent yet stays "
                    "on this computer. Load the page again to go on with the studio that is here.",
                    409,
                    STUDIO_QUERY,
                )
        return None

    @app.after_request
    def set_headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = _POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response


def _name(host: str) -> str:
    if host.startswith("["):
        return host.partition("]")[0] + "]"
    return host.partition(":")[0]
