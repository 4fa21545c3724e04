"""The cut list as CSV that a spreadsheet opens without running anything."""

import csv
import io
from collections.abc import Iterable

from levelcradle.core.part import FlatPart

__all__ = ["cut_list_csv"]

HEAD = ("part", "name", "off", "material", "thickness mm", "blank mm", "bends", "holes", "mass kg", "file")


def cut_list_csv(parts: Iterable[FlatPart], *, released: bool) -> str:
    """One row a part. A cell that a spreadsheet would take for a formula begins with an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEAD)
    for part in parts:
        wide, tall = part.size_mm
        row = (
            part.id,
            part.name,
            part.quantity,
            part.material_name,
            f"{part.thickness_mm:g}",
            f"{wide:.1f} x {tall:.1f}",
            len(part.bends),
            len(part.holes),
            f"{part.mass_kg:.3f}",
            f"{part.id}.dxf",
        )
        writer.writerow([_safe(cell) for cell in row])
    if not released:
        writer.writerow(["NOT RELEASED"])
    return out.getvalue()


def _safe(cell: object) -> object:
    return f"'{cell}" if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell
