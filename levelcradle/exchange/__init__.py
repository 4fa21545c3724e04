"""Files that come in from elsewhere and go out again: scans, outlines, the shelf as a table."""

from levelcradle.exchange.errors import FileRefused
from levelcradle.exchange.outlines import Outline, Outlines, read_outlines
from levelcradle.exchange.pictures import may_be_kept, picture_kind
from levelcradle.exchange.scans import LARGEST_BYTES, MOST_TRIANGLES, Scan, mesh_from_bytes, mesh_to_bytes, read_scan
from levelcradle.exchange.shelf import ShelfPreview, ShelfRowPreview, read_shelf, write_shelf

__all__ = [
    "LARGEST_BYTES",
    "MOST_TRIANGLES",
    "FileRefused",
    "Outline",
    "Outlines",
    "Scan",
    "ShelfPreview",
    "ShelfRowPreview",
    "mesh_from_bytes",
    "mesh_to_bytes",
    "may_be_kept",
    "picture_kind",
    "read_outlines",
    "read_scan",
    "read_shelf",
    "write_shelf",
]
