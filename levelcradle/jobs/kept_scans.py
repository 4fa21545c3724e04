"""The scans of a design as a worker reads them."""

from levelcradle.core.design import Design
from levelcradle.core.errors import UnknownThing
from levelcradle.core.meshes import Mesh, scans_of
from levelcradle.exchange import mesh_from_bytes
from levelcradle.store import Store

__all__ = ["kept_scans"]


def kept_scans(store: Store, design: Design) -> dict[str, Mesh]:
    """By file; one that is not kept is left out, and the checks say so."""
    found = {}
    for file in scans_of(design):
        try:
            kind, data = store.files.get(file)
        except UnknownThing:
            continue
        if kind == "scan":
            found[file] = mesh_from_bytes(data)
    return found
