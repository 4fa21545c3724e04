"""The whole application as the launcher runs it, its processes killed one after the other under three editors."""

import os
import signal
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx
import pytest

from launcher.cluster import Cluster
from launcher.main import running
from launcher.say import Trouble
from launcher.watch import Part, Process, watch

KILLS = int(os.environ.get("LEVELCRADLE_KILLS", "2"))  # of each process; measured with 20
ANSWERS = (200, 409, 412, 503)


@contextmanager
def kept_running() -> Iterator[tuple[str, Cluster, dict[str, Part]]]:
    cluster = Cluster(Path(tempfile.mkdtemp(prefix="level-cradle-falls-")))
    over = threading.Event()
    try:
        with running(cluster, demo=True) as (address, parts):
            for part in parts:
                part.fell = Forgetful()  # this test kills more often than five times in a minute
            watching = threading.Thread(target=watch, args=(parts,), kwargs={"ends": over.is_set})
            watching.start()
            try:
                yield address, cluster, {part.name: part for part in parts}
            finally:
                over.set()
                watching.join(30)
    finally:
        cluster.remove()


class Forgetful(type(Part("", bool, bool).fell)):  # type: ignore[misc]
    def append(self, when: float) -> None:
        self.clear()
        super().append(when)


def pid_of(name: str, cluster: Cluster, parts: dict[str, Part]) -> int:
    if name == "database":
        return int((cluster.home / "data" / "postmaster.pid").read_text().splitlines()[0])
    process: Process = parts[name].lives.__self__  # type: ignore[attr-defined]
    return process.running.pid


def healthy(address: str) -> bool:
    try:
        found = httpx.get(f"{address}/api/health", timeout=2)
    except httpx.HTTPError:
        return False
    return found.status_code == 200 and found.json()["database"] == "there"


def test_what_falls_comes_back_and_nothing_acknowledged_is_lost() -> None:
    """Database, server and worker, each killed hard while three people edit: all come back, and there is no answer but
    an edit taken, a clash or a moment's patience."""
    with kept_running() as (address, cluster, parts):
        acknowledged: list[str] = []
        odd: list[int] = []
        over = threading.Event()

        def edit(who: str) -> None:
            n = 0
            with httpx.Client(base_url=address, headers={"X-Session": who}, timeout=10) as client:
                while not over.is_set():
                    n += 1
                    key = f"{who}-{n}"
                    patch = [
                        {"op": "add", "path": f"/references/{key}", "value": {"name": key, "at_mm": [n % 5000, 0, 0]}}
                    ]
                    try:
                        answer = client.patch("/api/projects/demo", json={"patch": patch}, headers={"If-Match": "1"})
                    except httpx.HTTPError:
                        time.sleep(0.05)
                        continue
                    if answer.status_code == 200:
                        acknowledged.append(key)
                    elif (
                        answer.status_code not in ANSWERS
                        and "more than" not in answer.text
                        and "at most" not in answer.text
                    ):
                        odd.append(answer.status_code)
                    time.sleep(0.15)

        editors = [threading.Thread(target=edit, args=(who,)) for who in ("ann", "ben", "cas")]
        for editor in editors:
            editor.start()
        slowest: dict[str, float] = {}
        for _ in range(KILLS):
            for name in ("server", "database", "worker"):
                killed = pid_of(name, cluster, parts)
                os.kill(killed, signal.SIGKILL)
                began = time.monotonic()
                while not (parts[name].lives() and pid_of(name, cluster, parts) != killed and healthy(address)):
                    assert time.monotonic() - began < 30, f"{name} never came back"
                    time.sleep(0.05)
                slowest[name] = max(slowest.get(name, 0.0), time.monotonic() - began)
                time.sleep(0.4)
        over.set()
        for editor in editors:
            editor.join(30)
        document = httpx.get(f"{address}/api/projects/demo", headers={"X-Session": "ann"}, timeout=20).json()[
            "document"
        ]
        print("edits", len(acknowledged), "slowest", slowest)
        assert len(acknowledged) > 3 * KILLS
        assert set(acknowledged) <= set(document["references"])
        assert odd == []


def test_what_falls_again_and_again_is_given_up_in_words() -> None:
    begun = []
    part = Part("server", lambda: False, lambda: begun.append(1))
    with pytest.raises(Trouble, match="The server fell 6 times within a minute"):
        watch([part])
    assert len(begun) == 5
