"""Scans in memory: those that designs speak of, and those that are being read in."""

import secrets
import threading
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field

from levelcradle.core.design import Design
from levelcradle.core.errors import UnknownThing
from levelcradle.core.meshes import Mesh, scans_of
from levelcradle.exchange import FileRefused, Scan, mesh_from_bytes, mesh_to_bytes, read_scan
from levelcradle.exchange.scans import LengthUnit
from levelcradle.store import Files

__all__ = ["Reading", "Scans"]

MOST_IN_MEMORY = 12
MOST_JOBS = 50


@dataclass(slots=True)
class Reading:
    """How far the reading of a file has come; at its end the file's name and what was found, or why it was refused."""

    id: str
    share: float = 0.0
    says: str = "waiting"
    file: str | None = None
    scan: Scan | None = None
    refused: str = ""
    done: threading.Event = field(default_factory=threading.Event, repr=False)

    def told(self, share: float, says: str) -> None:
        self.share, self.says = share, says


class Scans:
    """Meshes by the name of their file, and readings by their own."""

    def __init__(self, files: Files) -> None:
        self.files = files
        self._meshes: OrderedDict[str, Mesh] = OrderedDict()
        self._jobs: OrderedDict[str, Reading] = OrderedDict()
        self._lock = threading.Lock()
        self._one_at_a_time = threading.Semaphore(1)  # a large scan takes half a gigabyte while it is read

    def of(self, design: Design) -> Mapping[str, Mesh]:
        """The meshes a design speaks of; one that was never kept here is left out."""
        found = {}
        for file in scans_of(design):
            if (mesh := self._mesh(file)) is not None:
                found[file] = mesh
        return found

    def _mesh(self, file: str) -> Mesh | None:
        with self._lock:
            if file in self._meshes:
                self._meshes.move_to_end(file)
                return self._meshes[file]
        try:
            kind, data = self.files.get(file)
        except UnknownThing:
            return None
        if kind != "scan":
            return None
        return self._put(file, mesh_from_bytes(data))

    def _put(self, file: str, mesh: Mesh) -> Mesh:
        with self._lock:
            mesh = self._meshes.setdefault(file, mesh)  # one object a file: shapes are cached by its identity
            while len(self._meshes) > MOST_IN_MEMORY:
                self._meshes.popitem(last=False)
            return mesh

    def start(self, name: str, data: bytes, unit: LengthUnit | None, tolerance_mm: float) -> Reading:
        """Begins to read a file, and answers at once."""
        job = Reading(secrets.token_hex(8))
        with self._lock:
            self._jobs[job.id] = job
            while len(self._jobs) > MOST_JOBS:
                self._jobs.popitem(last=False)
        threading.Thread(target=self._read, args=(job, name, data, unit, tolerance_mm), daemon=True).start()
        return job

    def _read(self, job: Reading, name: str, data: bytes, unit: LengthUnit | None, tolerance_mm: float) -> None:
        try:
            with self._one_at_a_time:
                scan = read_scan(data, unit, tolerance_mm, job.told)
                file = self.files.keep("scan", name, mesh_to_bytes(scan.mesh))
                self._put(file, scan.mesh)
            job.file, job.scan = file, scan
            job.told(1.0, "done")
        except FileRefused as error:
            job.refused = error.says
        except Exception:  # a thread has nobody above it to tell
            job.refused = "The file could not be read."
            raise
        finally:
            job.done.set()

    def job(self, key: str) -> Reading:
        """Raises UnknownThing."""
        with self._lock:
            if key not in self._jobs:
                raise UnknownThing("reading", key[:20])
            return self._jobs[key]
