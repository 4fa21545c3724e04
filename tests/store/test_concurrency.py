"""Two processes and many clients at once: no acknowledged edit is ever lost."""

import os
import signal
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.patch import apply
from levelcradle.demo import demo_design
from levelcradle.store import Store
from levelcradle.store.tables import Revision

EDITOR = Path(__file__).with_name("editor.py")
ROOT = Path(__file__).parents[2]


def start(url: str, car: str, name: str, count: int) -> subprocess.Popen[str]:
    command = [sys.executable, str(EDITOR), url, car, name, str(count)]
    return subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env={**os.environ, "PYTHONPATH": str(ROOT)})


def replayed(store: Store, car: str) -> dict[str, object]:
    """The document as its revisions make it, one after the other, apart from the stored current one."""
    import json

    tree = tree_of(demo_design())
    with store._db.connection_context():
        rows = list(Revision.select().where(Revision.project == car).order_by(Revision.number))
    assert [r.number for r in rows] == list(range(1, len(rows) + 1))
    for row in rows:
        tree = apply(tree, json.loads(row.patch)).tree
    return tree_of(validate(tree))


def test_two_processes_and_many_threads_lose_no_edit(store: Store, database_url: str) -> None:
    car = store.create(demo_design(), "start")
    editors = [start(database_url, car, name, 25) for name in ("left", "right")]
    done: list[str] = []

    def client(number: int) -> None:
        for n in range(6):
            path = f"/references/thread-{number}-{n}"
            store.edit(
                car,
                [{"op": "add", "path": path, "value": {"name": path[:20], "at_mm": [0, n, 0]}}],
                base=1,
                session=f"t{number}",
            )
            done.append(path.rsplit("/", 1)[1])

    threads = [threading.Thread(target=client, args=(n,)) for n in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    for editor in editors:
        out, _ = editor.communicate(timeout=60)
        done += out.split()
    tree = store.open(car).tree
    assert len(done) == 2 * 25 + 6 * 6
    assert set(done) <= set(tree["references"])
    assert store.open(car).revision == 1 + len(done)
    assert replayed(store, car) == tree


@pytest.mark.parametrize("after", [3, 8])
def test_a_process_killed_in_the_middle_loses_nothing_acknowledged(store: Store, database_url: str, after: int) -> None:
    car = store.create(demo_design(), "start")
    editor = start(database_url, car, "doomed", 500)
    assert editor.stdout is not None
    said = [editor.stdout.readline().strip() for _ in range(after)]
    os.kill(editor.pid, signal.SIGKILL)
    said += editor.stdout.read().split()
    editor.wait()
    tree = store.open(car).tree
    assert set(said) <= set(tree["references"])
    assert replayed(store, car) == tree
