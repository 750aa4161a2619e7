"""What is asked for in an address: described once, not at each request."""

from functools import cache
from typing import Any

from ripresa.formats.wire import Shape


class Query(Shape):
    """The parameters of an address. Each request asks how they are described, and that never changes."""

    @classmethod
    def model_json_schema(cls, *args: Any, **kwargs: Any) -> dict[str, Any]:
        """Return the description; the plain one is worked out once."""
        return super().model_json_schema(*args, **kwargs) if args or kwargs else _described(cls)


@cache
def _described(query: type[Query]) -> dict[str, Any]:
    return super(Query, query).model_json_schema()
