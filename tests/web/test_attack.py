"""A small sample of `make attack`: whatever is asked for, the answer is no bare failure."""

from collections.abc import Callable
from pathlib import Path
from random import Random
from typing import Any

import pytest
import schemathesis
from flask.testing import FlaskClient

from ripresa.core.shelf import SHELF
from ripresa.formats.drill_file import plain
from ripresa.web.blueprint import Api
from tests.conftest import Studio
from tests.e2e.server import Server
from tools.attack.described import MODES, operations, send_cases
from tools.attack.loss import by_tabs
from tools.attack.mutate import mutated, requests
from tools.attack.recordings import by_gone_devices, by_recordings
from tools.attack.tally import Attacked, Tally, dumps


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


@pytest.mark.parametrize(
    "attack",
    [
        lambda attacked, _: by_tabs(attacked, rounds=1),
        lambda attacked, data: by_gone_devices(attacked, data),
        lambda attacked, data: by_recordings(attacked, data, seconds=1),
    ],
    ids=["browsers on one record", "devices gone in mid-take", "sounds under kills"],
)
def test_a_server_of_its_own_loses_nothing(attack: Callable[[Attacked, Path], None], tmp_path: Path) -> None:
    attacked = Attacked(Server(tmp_path / "data"), Tally("sample"))
    try:
        attack(attacked, tmp_path / "data")
    finally:
        attacked.server.stop()
    assert attacked.tally.wrong == []
    assert attacked.tally.answers[201] > 5
