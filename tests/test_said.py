"""What is said of drills, changes, takes, climbs, plans and recordings is what was said before, line by line."""

from itertools import zip_longest

import pytest

from tests.said import KEPT, SAID


@pytest.mark.parametrize("about", SAID)
def test_every_line_is_as_it_was_kept(about: str) -> None:
    kept = (KEPT / f"{about}.txt").read_text("utf-8").split("\n")[:-1]
    for number, (now, before) in enumerate(zip_longest(SAID[about](), kept), start=1):
        assert now == before, f"line {number} of tests/told/{about}.txt; make told where it was meant"
