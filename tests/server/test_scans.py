"""Reading scans in: one at a time, with progress, refusals kept, the newest meshes in memory."""

import threading

import numpy as np
import pytest
import trimesh

from levelcradle.core.design import validate
from levelcradle.core.errors import UnknownThing
from levelcradle.server import scans as scans_module
from levelcradle.server.scans import Reading, Scans
from levelcradle.store import Store
from tests.conftest import DEMO


def ball(radius: float = 0.1) -> bytes:
    data = trimesh.creation.icosphere(subdivisions=3, radius=radius).export(file_type="stl")
    assert isinstance(data, bytes)
    return data


def design_with(file: str) -> object:
    solid = {"type": "mesh", "file": file, "tolerance_mm": 1.0}
    items = DEMO["items"] | {"scan": {"name": "scan", "state": "stays", "solid": solid}}
    return validate({**DEMO, "items": items})


def test_a_scan_is_read_kept_and_found_again_by_another_process(store: Store) -> None:
    here = Scans(store.files)
    job = here.start("ball.stl", ball(), "m", 1.0)
    assert job.done.wait(30)
    assert (job.refused, job.share, job.says) == ("", 1.0, "done")
    assert job.file
    assert job.scan
    assert here.job(job.id) is job
    mesh = Scans(store.files).of(design_with(job.file))[job.file]  # type: ignore[arg-type]
    assert np.array_equal(mesh.vertices, job.scan.mesh.vertices)
    assert mesh.closed


def test_progress_rises_and_says_what_is_done(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    told: list[tuple[float, str]] = []
    monkeypatch.setattr(Reading, "told", lambda self, share, says: told.append((share, says)))
    job = Scans(store.files).start("ball.stl", ball(), "m", 1.0)
    assert job.done.wait(30)
    shares = [share for share, _ in told]
    assert shares == sorted(shares)
    assert {"reading the triangles", "joining the corners of 1,280 triangles", "simplifying to 1 mm"} <= {says for _, says in told}


def test_a_refusal_is_kept_for_whoever_asks(store: Store) -> None:
    scans = Scans(store.files)
    job = scans.start("x.stl", b"nothing of the kind", "m", 1.0)
    assert job.done.wait(30)
    assert scans.job(job.id).refused == "This is no STL, OBJ, PLY or GLB mesh."
    assert job.file is None
    with pytest.raises(UnknownThing):
        scans.job("0123")


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
    files = []
    for n in range(3):
        job = scans.start(f"{n}.stl", ball(0.1 + n / 100), "m", 1.0)
        assert job.done.wait(30)
        files.append(job.file)
    assert len(scans._meshes) == 2
    assert files[0] not in scans._meshes
    assert scans.of(design_with(files[0] or ""))  # type: ignore[arg-type]


def test_two_scans_are_read_one_after_the_other(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    inside, most = [0], [0]
    lock, real = threading.Lock(), scans_module.read_scan

    def counted(*args: object) -> object:
        with lock:
            inside[0] += 1
            most[0] = max(most[0], inside[0])
        try:
            return real(*args)  # type: ignore[arg-type]
        finally:
            with lock:
                inside[0] -= 1

    monkeypatch.setattr(scans_module, "read_scan", counted)
    scans = Scans(store.files)
    jobs = [scans.start(f"{n}.stl", ball(), "m", 1.0) for n in range(4)]
    assert all(job.done.wait(30) for job in jobs)
    assert most == [1]
