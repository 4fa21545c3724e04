"""One scan read in a process of its own, whose memory is bounded: ``main`` with its key as the argument."""

import json
import os
import resource
import sys
import time

from levelcradle.exchange import FileRefused, mesh_to_bytes, read_scan
from levelcradle.store import Sent, Store, connect

__all__ = ["MOST_BYTES", "main", "read_in"]

MOST_BYTES = 2_000_000_000  # a million triangles take half of it
TOLD_EVERY_S = 0.2


def read_in(store: Store, key: str, sent: Sent) -> None:
    """Reads what was sent, keeps it, and tells how far it has come; a file that is none is refused with its reason."""
    last = [0.0]

    def told(share: float, message: str) -> None:
        if time.monotonic() - last[0] >= TOLD_EVERY_S:
            last[0] = time.monotonic()
            store.scan_imports.told(key, share, message)

    try:
        scan = read_scan(sent.data, sent.unit, sent.tolerance_mm, told)  # type: ignore[arg-type]
    except FileRefused as error:
        store.scan_imports.refused(key, error.message)
        return
    except MemoryError:
        store.scan_imports.refused(key, "The file asks for more memory than there is.")
        return
    file = store.files.keep("scan", sent.name, mesh_to_bytes(scan.mesh))
    found = {
        "triangles": len(scan.mesh.triangles),
        "triangles_before": scan.triangles_before,
        "size_mm": scan.size_mm,
        "notes": scan.notes,
        "closed": scan.mesh.closed,
    }
    store.scan_imports.done(key, file, json.dumps(found))


def main() -> None:
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    most = MOST_BYTES if hard == resource.RLIM_INFINITY else min(MOST_BYTES, hard)
    resource.setrlimit(resource.RLIMIT_DATA, (most, most))
    store = Store(connect(os.environ["LEVELCRADLE_DATABASE"]))
    sent = store.scan_imports.take(sys.argv[1])
    if sent is not None:
        read_in(store, sys.argv[1], sent)
