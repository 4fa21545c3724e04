"""Closed outlines from DXF, as sections of a space or plans of a thing."""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import shapely
from shapely.geometry import LineString, Polygon

from levelcradle.exchange.errors import FileRefused
from levelcradle.exchange.scans import UNITS_MM, LengthUnit

__all__ = ["FLAT_MM", "MOST_POINTS", "Outline", "Outlines", "read_outlines"]

FLAT_MM = 0.1  # curves are flattened to this
MEETS_MM = 0.05  # ends this near are one point
MOST_POINTS = 120  # as many as a section may have
MOST_OUTLINES = 200
MOST_ENTITIES = 20_000
LARGEST_BYTES = 20_000_000
_UNITS: dict[int, LengthUnit] = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}  # $INSUNITS, DXF reference, from memory


@dataclass(frozen=True, slots=True)
class Outline:
    """One closed outline [mm]: its layer, its corners in order, the room it encloses, and how far it was simplified."""

    layer: str
    points_mm: tuple[tuple[float, float], ...]
    area_mm2: float
    off_mm: float


@dataclass(frozen=True, slots=True)
class Outlines:
    """What a drawing holds, largest first, and what was left out."""

    unit: LengthUnit
    outlines: tuple[Outline, ...]
    notes: tuple[str, ...]


def read_outlines(data: bytes, unit: LengthUnit | None) -> Outlines:
    """The closed outlines of a DXF file, blocks opened, curves flattened. Raises FileRefused.

    Args:
        unit: for a file that names none; a file's own unit goes before.
    """
    document = _document(data)
    said = _UNITS.get(int(document.header.get("$INSUNITS", 0)))
    if said is None and unit is None:
        raise FileRefused("The drawing does not say its unit. Say whether it is in mm, cm, m, inches or feet.")
    scale = UNITS_MM[said or unit or "mm"]
    left_out: dict[str, int] = {}
    if _pieces(document) > MOST_ENTITIES:
        raise FileRefused(f"The drawing holds more than {MOST_ENTITIES:,} pieces once its blocks are opened.")
    lines = list(_lines(document.modelspace(), scale, left_out))
    found = [Outline(layer, *_small(polygon, off)) for layer, polygon, off in _closed(lines, left_out)]
    found.sort(key=lambda o: -o.area_mm2)
    notes = [f"{count} × {what}" for what, count in left_out.items() if count]
    if not found:
        raise FileRefused("The drawing holds no closed outline." + (f" Left out: {', '.join(notes)}." if notes else ""))
    return Outlines(said or unit or "mm", tuple(found[:MOST_OUTLINES]), tuple(notes))


def _document(data: bytes) -> Any:
    import ezdxf  # loaded only where used
    from ezdxf import recover

    if not data.strip():
        raise FileRefused("The file is empty.")
    if len(data) > LARGEST_BYTES:
        raise FileRefused("The drawing is larger than 20 MB.")
    if data[:2] == b"PK":
        raise FileRefused("The file is packed (zip). Unpack it first.")
    if not data.startswith(b"AutoCAD Binary DXF") and b"SECTION" not in data[:4096].upper():
        raise FileRefused("This is no DXF drawing.")
    try:
        document, _ = recover.read(io.BytesIO(data))
    except (ezdxf.DXFError, OSError, ValueError, KeyError, IndexError, TypeError, AttributeError) as error:
        raise FileRefused("The DXF drawing cannot be read: it breaks off or is damaged.") from error
    return document


def _pieces(document: Any) -> int:
    """How many pieces a drawing has with every block opened, counted by multiplying and not by opening: blocks within
    blocks grow by a factor a level."""
    counts: dict[str, int] = {}

    def of(layout: Any, open_: tuple[str, ...]) -> int:
        total = 0
        for entity in layout:
            if entity.dxftype() != "INSERT":
                total += 1
                continue
            name = entity.dxf.name
            if name in open_:  # a block within itself is opened no further than the depth that is read
                raise FileRefused("A block of the drawing holds itself.")
            if name not in counts:
                block = document.blocks.get(name)
                counts[name] = of(block, (*open_, name)) if block is not None else 0
            total += counts[name] * max(int(entity.mcount), 1)
        return total

    return of(document.modelspace(), ())


Line = tuple[str, LineString, float]  # layer, run, how far it may stand off a curve it was


def _lines(entities: Any, scale: float, left_out: dict[str, int], depth: int = 0) -> Iterator[Line]:
    """Every line, curve flattened; blocks opened; what is not flat counted as left out."""
    from ezdxf import path

    for number, entity in enumerate(entities):
        if number > MOST_ENTITIES:
            raise FileRefused(f"The drawing holds more than {MOST_ENTITIES:,} pieces.")
        kind = entity.dxftype()
        if kind == "INSERT":
            if depth < 8:
                yield from _lines(entity.virtual_entities(), scale, left_out, depth + 1)
            continue
        if kind not in ("LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE"):
            left_out[kind.lower()] = left_out.get(kind.lower(), 0) + 1
            continue
        try:
            run = path.make_path(entity)
            points = list(run.flattening(FLAT_MM / scale))
        except (TypeError, ValueError, ZeroDivisionError):
            points = []
        if len(points) < 2:
            continue
        if max(p.z for p in points) - min(p.z for p in points) > FLAT_MM / scale:
            left_out["line that is not flat"] = left_out.get("line that is not flat", 0) + 1
            continue
        yield (
            str(entity.dxf.layer),
            LineString([(p.x * scale, p.y * scale) for p in points]),
            FLAT_MM if run.has_curves else 0.0,
        )


def _closed(lines: list[Line], left_out: dict[str, int]) -> Iterator[tuple[str, Polygon, float]]:
    """Outlines closed in themselves, then those that pieces of one layer close together; what closes none is
    counted."""
    loose: dict[str, list[LineString]] = {}
    off_of: dict[str, float] = {}
    for layer, line, off in lines:
        coords = list(line.coords)
        if len(coords) > 3 and shapely.Point(coords[0]).distance(shapely.Point(coords[-1])) <= MEETS_MM:
            polygon = Polygon(coords)
            if polygon.is_valid and polygon.area > 1:
                yield layer, polygon, off
            else:
                left_out["outline that crosses itself"] = left_out.get("outline that crosses itself", 0) + 1
        else:
            loose.setdefault(layer, []).append(line)
            off_of[layer] = max(off_of.get(layer, 0.0), off)
    for layer, pieces in loose.items():
        snapped = shapely.set_precision(shapely.unary_union(pieces), MEETS_MM)
        polygons, cuts, dangles, _ = shapely.polygonize_full(list(getattr(snapped, "geoms", [snapped])))
        unused = len(cuts.geoms) + len(dangles.geoms)
        left_out["line that closes no outline"] = left_out.get("line that closes no outline", 0) + unused
        yield from ((layer, p, off_of[layer]) for p in polygons.geoms if p.area > 1)


def _small(polygon: Polygon, off_mm: float) -> tuple[tuple[tuple[float, float], ...], float, float]:
    """At most so many corners; the outline is simplified further and further until it has no more."""
    by, small = 0.0, polygon
    while len(small.exterior.coords) - 1 > MOST_POINTS:
        by = max(by * 1.5, 0.05)
        small = polygon.simplify(by)
    points = tuple((round(float(x), 3), round(float(y), 3)) for x, y in small.exterior.coords[:-1])
    return points, float(small.area), off_mm + by
