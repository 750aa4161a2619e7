"""Blueprints of the API: each says what its refusals look like, and is described when someone asks how."""

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from typing import Any

from flask import g
from flask_openapi import APIBlueprint, OpenAPI

from ripresa.store.tables import StudioDatabase, asking, database
from ripresa.web.problems import Problem


class Blueprint(APIBlueprint):
    """Addresses under a prefix. To describe them takes longer than all else at a start, and few ever ask."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self._undescribed: list[tuple[str, Any, dict[str, Any]]] = []

    def _collect_openapi_info(self, rule: str, func: Any, **options: Any) -> Any:
        self._undescribed.append((rule, func, options))
        return super()._collect_openapi_info(rule, func, **{**options, "doc_ui": False})

    def describe(self) -> None:
        """Describe every address, once."""
        for rule, func, options in self._undescribed:
            super()._collect_openapi_info(rule, func, **options)
        self._undescribed.clear()


class Api(OpenAPI):
    """An app for one studio, whose description is made when it is first asked for.

    Args:
        studio: The database that it asks, and no other.
    """

    def __init__(self, *args: Any, studio: StudioDatabase, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.studio = studio
        self.before_request(self._ask)
        self.teardown_request(self._answered)

    def _ask(self) -> None:
        """Ask the studio of this app until there is an answer."""
        g.asking = ExitStack()
        g.asking.enter_context(asking(self.studio))

    def _answered(self, _error: BaseException | None) -> None:
        asked: ExitStack | None = g.pop("asking", None)
        if asked is not None:
            with asked:
                # Opened by the first question: most of what the bench asks needs no data.
                if not database.is_closed():
                    database.close()

    @contextmanager
    def at_studio(self) -> Iterator[None]:
        """Keep and find in the studio of this app while the block runs, outside of any request."""
        with asking(self.studio), database.connection_context():
            yield

    @property
    def api_doc(self) -> dict[str, Any]:
        """The description of all addresses (OpenAPI 3.1)."""
        for one in self.blueprints.values():
            if isinstance(one, Blueprint):
                one.describe()
                self.paths.update(**one.paths)
                self.components_schemas.update(**one.components_schemas)
        return super().api_doc


def blueprint(name: str, prefix: str = "/api") -> Blueprint:
    """Return a blueprint for the addresses under a prefix."""
    return Blueprint(name, __name__, url_prefix=prefix, abp_responses={404: Problem, 409: Problem, 422: Problem})
