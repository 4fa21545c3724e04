"""Workers as processes of their own: one that is killed is missed, and the next takes its study up again."""

import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable

from levelcradle.core.fit import Wishes
from levelcradle.demo import demo_design
from levelcradle.jobs import Queue
from levelcradle.store import Store


def worker(url: str) -> subprocess.Popen[bytes]:
    return subprocess.Popen(
        [sys.executable, "-m", "levelcradle.jobs"], env={**os.environ, "LEVELCRADLE_DATABASE": url, "PYTHONPATH": "."}
    )


def until(holds: Callable[[], bool], seconds: float) -> bool:
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if holds():
            return True
        time.sleep(0.1)
    return False


def test_a_killed_workers_study_is_taken_up_and_one_told_to_leave_gives_it_back(
    store: Store, database_url: str
) -> None:
    store.create(demo_design(), "start", id_="ouzel")
    wishes = Wishes(kinds=("ingot",), bays=("bonnet", "tank", "well"), more_than_the_shelf=True, boxes_per_bay=3)
    asked, _ = store.studies.ask("ouzel", 1, wishes.model_dump_json())
    queue = Queue(store)
    queue.put(asked.id)
    queue.put(asked.id)  # stands there already
    first = worker(database_url)
    try:
        assert until(lambda: store.studies.get(asked.id).state == "running", 30)
        first.send_signal(signal.SIGKILL)
        first.wait(10)
        store.studies.told(asked.id, "running", "nobody works at it", 0, 0)
        second = worker(database_url)
        assert until(lambda: store.studies.get(asked.id).tried > 0, 60)
        store.studies.stop(asked.id)
        assert until(lambda: store.studies.get(asked.id).state == "stopped", 60)
        second.terminate()
        assert second.wait(15) is not None
    finally:
        for process in (first, second):
            process.kill()
        queue.close()


def test_two_workers_share_what_is_asked(store: Store, database_url: str) -> None:
    store.create(demo_design(), "start", id_="ouzel")
    keys = []
    queue = Queue(store)
    for count in (3, 4, 5):
        wishes = Wishes(kinds=("flagstone",), bays=("bonnet",), modules=count)
        asked, _ = store.studies.ask("ouzel", 1, wishes.model_dump_json())
        queue.put(asked.id)
        keys.append(asked.id)
    both = [worker(database_url), worker(database_url)]
    try:
        assert until(lambda: all(store.studies.get(k).state == "done" for k in keys), 60)
    finally:
        for process in both:
            process.terminate()
        for process in both:
            process.wait(15)
        queue.close()
