"""Round trips on loopback: PATCH and preview of the demo. Aim: at most 40 ms median.

Needs a database: LEVELCRADLE_TEST_DATABASE, as ./cradle test benchmarks gives.
"""

import threading
from itertools import count

import httpx
import pytest
from pytest_benchmark.fixture import BenchmarkFixture


@pytest.mark.parametrize(("name", "box"), [("demo", "tank"), ("large", "b3")])
def test_preview(benchmark: BenchmarkFixture, address: str, name: str, box: str) -> None:
    steps = count()
    with httpx.Client(headers={"X-Session": "bench"}) as client:

        def preview() -> None:
            patch = [{"op": "replace", "path": f"/boxes/{box}/pose/at_mm/0", "value": 2600 + next(steps) / 10}]
            assert (
                client.post(address.format("api/projects", name) + "/preview", json={"patch": patch}).status_code == 200
            )

        benchmark.pedantic(preview, rounds=40, warmup_rounds=3)


def test_patch(benchmark: BenchmarkFixture, address: str) -> None:
    steps = count(1)
    with httpx.Client(headers={"X-Session": "bench"}) as client:

        def edit() -> None:
            n = next(steps)
            patch = [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2600 + n / 10}]
            answer = client.patch(
                address.format("api/projects", "demo"), json={"patch": patch}, headers={"If-Match": str(n)}
            )
            assert answer.status_code == 200

        benchmark.pedantic(edit, rounds=40, warmup_rounds=3)


def test_two_drag_at_once(benchmark: BenchmarkFixture, address: str) -> None:
    """Two people drag a box each of the large design in one process: one preview of both, aim 150 ms."""
    url, steps = address.format("api/projects", "large") + "/preview", count()
    clients = [httpx.Client(), httpx.Client()]

    def ask(client: httpx.Client, box: str, at: float) -> None:
        patch = [{"op": "replace", "path": f"/boxes/{box}/pose/at_mm/0", "value": at}]
        assert client.post(url, json={"patch": patch}).status_code == 200

    def both() -> None:
        at = 400 + next(steps) / 10
        threads = [threading.Thread(target=ask, args=(c, b, at)) for c, b in zip(clients, ("b3", "b7"), strict=True)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()

    benchmark.pedantic(both, rounds=30, warmup_rounds=3)
