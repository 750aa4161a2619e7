"""A small sample of `make attack`: whatever is asked for, the answer is no bare failure."""

from random import Random
from typing import Any

import pytest
import schemathesis
from flask.testing import FlaskClient

from ripresa.core.shelf import SHELF
from ripresa.formats.drill_file import plain
from ripresa.web.blueprint import Api
from tests.conftest import Studio
from tools.attack.described import MODES, operations, send_cases
from tools.attack.mutate import mutated, requests
from tools.attack.tally import dumps


@pytest.mark.parametrize("seed", range(8))
def test_good_requests_that_were_turned_over(client: FlaskClient, studio: Studio, seed: int) -> None:
    random = Random(seed)
    drills = [plain(one.drill) for one in random.sample(SHELF, 3)]
    for method, good, body in requests(drills, studio.drill.version):
        address, body = mutated(good, body, random)
        data = None if body is None else dumps(body)
        answer = client.open(address, method=method, data=data, content_type="application/json")
        assert answer.status_code < 500, f"{method} {address} {data!r}"


@pytest.mark.parametrize("mode", MODES)
def test_requests_by_the_description_of_the_api(app: Api, studio: Studio, mode: schemathesis.GenerationMode) -> None:
    assert studio

    def send(case: Any) -> None:
        assert case.call().status_code < 500, f"{case.method} {case.formatted_path} {case.query} {case.body}"

    every = list(operations(schemathesis.openapi.from_wsgi("/api/openapi.json", app)))
    # Good requests of one third, bad ones of another; `make attack` sends both to all.
    for operation in every[MODES.index(mode) :: 3]:
        send_cases(operation, mode, send, examples=2, same_each_time=True)
