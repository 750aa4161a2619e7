"""Requests made from the API's own description: such as it allows, and such as it does not."""

from collections.abc import Callable
from typing import Any, cast

import schemathesis
from hypothesis import HealthCheck, Phase, Verbosity, given, settings
from hypothesis.errors import Unsatisfiable

MODES = tuple(schemathesis.GenerationMode)


def operations(described: Any) -> list[Any]:
    """Return every operation of a description."""
    return [cast(Any, found).ok() for found in described.get_all_operations()]


def send_cases(
    operation: Any,
    mode: schemathesis.GenerationMode,
    send: Callable[[Any], None],
    *,
    examples: int,
    same_each_time: bool = False,
) -> None:
    """Make some requests of an operation, and let each be sent."""

    @given(case=operation.as_strategy(generation_mode=mode))
    @settings(
        max_examples=examples,
        deadline=None,
        database=None,
        derandomize=same_each_time,
        phases=[Phase.generate],
        verbosity=Verbosity.quiet,
        suppress_health_check=list(HealthCheck),
    )
    def each(case: Any) -> None:
        send(case)

    try:
        each()
    except Unsatisfiable:
        # Nothing breaks the description of an address that takes nothing.
        return
