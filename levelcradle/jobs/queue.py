"""The task queue: studies are put on it by the server and taken off it by workers.

A worker that is told to leave gives its study back; one that was killed is missed by its heartbeat, and whoever is
left, or comes next, takes its study up again."""

import asyncio
import logging
import os
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from typing import Any

from procrastinate import App, JobContext, PsycopgConnector, RetryStrategy, SyncPsycopgConnector
from procrastinate.exceptions import AlreadyEnqueued, ConnectorException

from levelcradle.core.design import validate
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.fit import Progress, Proposal, Wishes, study
from levelcradle.core.hang import with_hanging
from levelcradle.jobs.kept_scans import kept_scans
from levelcradle.jobs.told import proposals_json
from levelcradle.store import Store

__all__ = ["Queue", "run_worker"]

STUDY, SCAN, PACK = "study", "scan", "pack"
HEARTBEAT_S, MISSED_S, SWEEP_S = 3.0, 12.0, 5.0
TOLD_EVERY_S = 0.25

log = logging.getLogger(__name__)


class Queue:
    """The server's end: puts studies on the queue."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._app: App | None = None

    def put(self, key: str) -> None:
        """Puts a study on the queue, unless it stands there already."""
        self._put(STUDY, key)

    def put_scan(self, key: str) -> None:
        """Puts the reading of a scan on its own queue: it waits for no study."""
        self._put(SCAN, key)

    def put_pack(self, key: str) -> None:
        """Puts the making of a fabrication pack on its own queue."""
        self._put(PACK, key)

    def _put(self, task: str, key: str) -> None:
        try:
            if self._app is None:
                self._app = App(connector=SyncPsycopgConnector(conninfo=self._store.address, min_size=0, max_size=2))
                self._app.open()
            with suppress(AlreadyEnqueued):
                self._app.configure_task(task, **_where(task, key)).defer(key=key)
        except ConnectorException:  # the worker's sweep puts it there once the database is back
            log.warning("a %s waits to be put on the queue: the database does not answer", task)
            self.close()

    def close(self) -> None:
        if self._app is not None:
            with suppress(ConnectorException):
                self._app.close()
            self._app = None


class Leaving(Exception):
    """The worker is told to go; the study goes back to the queue."""


def run_worker(store: Store, *, wait: bool = True) -> None:
    """Works until it is told to stop; with ``wait`` off, until nothing is left to do."""
    asyncio.run(_work(store, wait=wait))


def _where(task: str, key: str) -> dict[str, Any]:
    """The queue of a task; scans are read, and packs made, one at a time, whoever does it."""
    return {"queueing_lock": key, "queue": task} | ({"lock": task} if task in (SCAN, PACK) else {})


async def _work(store: Store, *, wait: bool) -> None:
    app = App(connector=PsycopgConnector(conninfo=store.address, min_size=1, max_size=6))
    retry = RetryStrategy(max_attempts=20, wait=0, retry_exceptions={Leaving})

    @app.task(name=STUDY, queue=STUDY, pass_context=True, retry=retry)
    def run(context: JobContext, key: str) -> None:
        run_study(store, key, lambda: bool(context.should_abort()))

    @app.task(name=SCAN, queue=SCAN)
    def read(key: str) -> None:
        run_reading(store, key)

    @app.task(name=PACK, queue=PACK)
    def make(key: str) -> None:
        run_pack(store, key)

    async with app.open_async():
        sweep = asyncio.create_task(_sweep(app, store))
        try:
            await _all(
                [
                    asyncio.create_task(_serve(app, queue, wait=wait, first=queue == STUDY))
                    for queue in (STUDY, SCAN, PACK)
                ],
                wait=wait,
            )
        finally:
            sweep.cancel()


async def _serve(app: App, queue: str, *, wait: bool, first: bool) -> None:
    """One job of a queue after the other; the first of them takes the signals."""
    await app.run_worker_async(
        queues=[queue],
        concurrency=1,
        wait=wait,
        fetch_job_polling_interval=1.0,
        update_heartbeat_interval=HEARTBEAT_S,
        stalled_worker_timeout=MISSED_S,
        shutdown_graceful_timeout=0.2,
        install_signal_handlers=first and threading.current_thread() is threading.main_thread(),
    )


async def _all(serving: list[asyncio.Task[None]], *, wait: bool) -> None:
    """Until one is told to go, or fails, and then the others go as well; with ``wait`` off until all have nothing
    left."""
    done, rest = await asyncio.wait(serving, return_when=asyncio.FIRST_COMPLETED if wait else asyncio.ALL_COMPLETED)
    for task in rest:
        task.cancel()
    await asyncio.gather(*rest, return_exceptions=True)
    for task in done:
        task.result()


async def _sweep(app: App, store: Store) -> None:
    """Takes up again what a dead worker held, and what was asked for but never came onto the queue."""
    while True:
        try:
            for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=MISSED_S):
                await app.job_manager.retry_job(job)
            asked_for = {STUDY: store.studies.waiting, SCAN: store.scan_imports.waiting, PACK: store.packs.waiting}
            for task, asked in asked_for.items():
                for key in await asyncio.to_thread(lambda asked=asked: list(asked())):  # type: ignore[misc]
                    with suppress(AlreadyEnqueued):
                        await app.configure_task(task, **_where(task, key)).defer_async(key=key)
        except Exception:  # a database that is away for a moment must not end the sweep
            log.exception("the sweep failed and is tried again")
        await asyncio.sleep(SWEEP_S)


def run_reading(store: Store, key: str) -> None:
    """Reads one scan in a process of its own: what it takes too much of ends that process, and is told."""
    _run_apart(store, "levelcradle.jobs.scan_import", key, "file", "read", store.scan_imports.refused)


def run_pack(store: Store, key: str) -> None:
    """Makes one pack in a process of its own, for the same reason."""
    _run_apart(store, "levelcradle.jobs.pack", key, "pack", "made", store.packs.refused)


def _run_apart(store: Store, module: str, key: str, what: str, done: str, refused: Callable[[str, str], None]) -> None:
    environment = {**os.environ, "LEVELCRADLE_DATABASE": store.url}
    # run by name, what it sets beside itself would import all of it once more
    command = [sys.executable, "-c", f"from {module} import main; main()", key]
    ran = subprocess.run(command, env=environment, capture_output=True, text=True)
    if ran.returncode != 0:
        log.error("%s failed: %s", module, ran.stderr[-2000:])
        if "memory" in ran.stderr.lower() or ran.returncode < 0:
            refused(key, f"The {what} asks for more memory than there is.")
        else:
            refused(key, f"The {what} could not be {done}.")


def run_study(store: Store, key: str, leaving: Callable[[], bool]) -> None:
    """Runs one study to its end, telling how far it has come. Raises Leaving where the worker has to go."""
    try:
        asked = store.studies.get(key)
    except UnknownThing:
        return  # its car was removed meanwhile
    if asked.state in ("done", "refused", "stopped"):
        return
    telling = _Telling(store, key, leaving)
    design = validate(store.at(asked.project, asked.revision))
    wishes = Wishes.model_validate_json(asked.wishes)
    meshes = kept_scans(store, design)
    try:
        found = study(design, wishes, meshes=meshes, tell=telling.tell, stop=telling.stop)
    except DesignError as error:
        message = "; ".join(problem.message for problem in error.problems)
        store.studies.told(key, "refused", message, 0, 0, "")
        return
    if telling.gone:
        store.studies.told(key, "waiting", "waiting for another worker", found.tried, telling.best)
        raise Leaving
    best = max((p.modules for p in found.proposals), default=0)
    proposals = found.proposals
    for proposals in with_hanging(design, found.proposals, meshes=meshes, stop=lambda: found.stopped or telling.stop()):
        telling.tell(Progress("asking what they can hang on", found.tried, best), proposals)
    message = found.message or ("stopped with what it had" if found.stopped else "done")
    store.studies.told(
        key, "stopped" if found.stopped else "done", message, found.tried, best, proposals_json(proposals)
    )


class _Telling:
    """Writes progress a few times a second, and remembers whether to stop."""

    def __init__(self, store: Store, key: str, leaving: Callable[[], bool]) -> None:
        self._store, self._key, self._leaving = store, key, leaving
        self._last, self._stop = 0.0, False
        self.gone, self.best = False, 0

    def tell(self, progress: Progress, found: tuple[Proposal, ...]) -> None:
        self.best = max(self.best, progress.best)
        now = time.monotonic()
        if now - self._last < TOLD_EVERY_S:
            return
        self._last = now
        text = proposals_json(found) if found else None
        self._stop = self._store.studies.told(
            self._key, "running", progress.message, progress.tried, progress.best, text
        )

    def stop(self) -> bool:
        self.gone = self.gone or self._leaving()
        return self._stop or self.gone
