"""Reading scans in: on the queue, one at a time, with progress, refusals kept; the newest meshes in memory."""

import json
import subprocess

import pytest
import trimesh

from levelcradle.core.design import validate
from levelcradle.core.errors import UnknownThing
from levelcradle.jobs import Queue, scan_import
from levelcradle.jobs.queue import run_reading
from levelcradle.jobs.scan_import import read_in
from levelcradle.server import scans as scans_module
from levelcradle.server.scans import Scans
from levelcradle.store import ScanImport, Sent, Store
from tests.conftest import DEMO


def ball(radius: float = 0.1) -> bytes:
    data = trimesh.creation.icosphere(subdivisions=3, radius=radius).export(file_type="stl")
    assert isinstance(data, bytes)
    return data


def design_with(file: str) -> object:
    solid = {"type": "mesh", "file": file, "tolerance_mm": 1.0}
    items = DEMO["items"] | {"scan": {"name": "scan", "state": "stays", "solid": solid}}
    return validate({**DEMO, "items": items})


def read(store: Store, data: bytes, name: str = "ball.stl") -> ScanImport:
    """Sent, and read as a worker's own process does."""
    key = store.scan_imports.ask(Sent(name, data, "m", 1.0))
    sent = store.scan_imports.take(key)
    assert sent is not None
    read_in(store, key, sent)
    return store.scan_imports.get(key)


def test_a_scan_is_read_kept_and_found_again_by_another_process(store: Store) -> None:
    job = read(store, ball())
    assert (job.state, job.share, job.message) == ("done", 1.0, "done")
    assert job.file
    mesh = Scans(store.files).of(design_with(job.file))[job.file]  # type: ignore[arg-type]
    assert len(mesh.triangles) == json.loads(job.found)["triangles"]
    assert mesh.closed
    assert store.scan_imports.take(job.id) is None, "what was sent is kept no longer than until it is read"


def test_progress_rises_and_says_what_is_done(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    told: list[tuple[float, str]] = []
    monkeypatch.setattr(scan_import, "TOLD_EVERY_S", 0.0)
    monkeypatch.setattr(store.scan_imports, "told", lambda key, share, message: told.append((share, message)))
    read(store, ball())
    shares = [share for share, _ in told]
    assert shares == sorted(shares)
    assert {"reading the triangles", "joining the corners of 1,280 triangles", "simplifying to 1 mm"} <= {
        message for _, message in told
    }


def test_a_refusal_is_kept_for_whoever_asks(store: Store) -> None:
    job = read(store, b"nothing of the kind", "x.stl")
    assert (job.state, job.message, job.file) == ("refused", "This is no STL, OBJ, PLY or GLB mesh.", None)
    with pytest.raises(UnknownThing):
        store.scan_imports.get("0123")


def test_a_worker_reads_what_is_sent_and_one_that_takes_too_much_memory_is_told(
    store: Store, monkeypatch: pytest.MonkeyPatch
) -> None:
    """In a process of its own, so that only that one ends; while a study runs it waits for none."""
    monkeypatch.setenv("PYTHONPATH", ".")
    key = store.scan_imports.ask(Sent("ball.stl", ball(), "m", 1.0))
    run_reading(store, key)
    assert store.scan_imports.get(key).state == "done"
    greedy = store.scan_imports.ask(Sent("ball.stl", ball(), "m", 1.0))
    real = subprocess.run
    # a little more than its imports take: those are not to fail
    limit = (
        "import re, resource, trimesh, levelcradle.jobs.scan_import; "
        "now = int(re.search(r'VmData:\\s+(\\d+)', open('/proc/self/status').read())[1]) * 1024; "
        "resource.setrlimit(resource.RLIMIT_DATA, (now + 1_000_000,) * 2); "
    )
    monkeypatch.setattr(
        subprocess, "run", lambda command, **more: real([*command[:2], limit + command[2], *command[3:]], **more)
    )
    run_reading(store, greedy)
    found = store.scan_imports.get(greedy)
    assert (found.state, found.message) == ("refused", "The file asks for more memory than there is.")


def test_a_scan_that_was_never_kept_here_is_left_out_and_told(store: Store) -> None:
    from levelcradle.core.analysis import analyse

    design = design_with("a" * 64)
    meshes = Scans(store.files).of(design)  # type: ignore[arg-type]
    assert meshes == {}
    missing = [f for f in analyse(design, meshes).findings if "items/scan" in f.subjects and f.state == "unknown"]  # type: ignore[arg-type]
    assert missing


def test_a_picture_is_no_mesh(store: Store) -> None:
    file = store.files.keep("image/png", "rust.png", b"\x89PNG")
    assert Scans(store.files).of(design_with(file)) == {}  # type: ignore[arg-type]


def test_only_the_newest_meshes_stay_in_memory(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(scans_module, "MOST_IN_MEMORY", 2)
    scans = Scans(store.files)
    files = [str(read(store, ball(0.1 + n / 100)).file) for n in range(3)]
    for file in files:
        assert scans.of(design_with(file))  # type: ignore[arg-type]
    assert len(scans._meshes) == 2
    assert files[0] not in scans._meshes
    assert scans.of(design_with(files[0]))  # type: ignore[arg-type]


def test_scans_stand_on_a_queue_of_their_own_one_at_a_time(store: Store) -> None:
    """Whoever reads them: the queue's lock lets no second one begin."""
    queue = Queue(store)
    for n in range(2):
        queue.put_scan(store.scan_imports.ask(Sent(f"{n}.stl", ball(), "m", 1.0)))
    with store._db.connection_context():
        rows = store._db.execute_sql("SELECT queue_name, lock FROM procrastinate_jobs").fetchall()
    assert rows == [("scan", "scan")] * 2
    queue.close()
