"""Meshes in memory: those that designs speak of, the newest of them."""

import threading
from collections import OrderedDict
from collections.abc import Mapping

from levelcradle.core.design import Design
from levelcradle.core.errors import UnknownThing
from levelcradle.core.meshes import Mesh, scans_of
from levelcradle.exchange import mesh_from_bytes
from levelcradle.store import Files

__all__ = ["Scans"]

MOST_IN_MEMORY = 12


class Scans:
    """Meshes by the name of their file."""

    def __init__(self, files: Files) -> None:
        self.files = files
        self._meshes: OrderedDict[str, Mesh] = OrderedDict()
        self._lock = threading.Lock()

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
        mesh = mesh_from_bytes(data)
        with self._lock:
            mesh = self._meshes.setdefault(file, mesh)  # one object a file: shapes are cached by its identity
            while len(self._meshes) > MOST_IN_MEMORY:
                self._meshes.popitem(last=False)
            return mesh
