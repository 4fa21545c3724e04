"""A box cut across its length through one of its modules, and every layer on the cut, from outside to outside."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from shapely.geometry import Polygon as ShapelyPolygon

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.box import ShellModule, StackRow, runner_count
from levelcradle.core.clearance import rows_through
from levelcradle.core.cuts import rings_at
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.design.layers import Layer, Runners
from levelcradle.core.errors import UnknownThing
from levelcradle.core.solids import Polygon

__all__ = ["BoxSection", "CutLayer", "CutPiece", "SameLayers", "box_section"]

THIN_MM = 1e-3


@dataclass(frozen=True, slots=True)
class CutPiece:
    """What the cut meets of one piece, in (right, up) of the box's own frame."""

    role: str
    name: str
    ring: Polygon


@dataclass(frozen=True, slots=True)
class CutLayer:
    """One layer on the way through the box: where it begins, and how thick it is [mm]."""

    name: str
    start_mm: float
    mm: float


@dataclass(frozen=True, slots=True)
class SameLayers:
    """So many layers of one name and thickness."""

    count: int
    name: str
    mm: float


@dataclass(frozen=True, slots=True)
class BoxSection:
    """Looking forward, the box's left at the left.

    Attributes:
        through: number of the module in the box; ``choices``: of one module at each place along it.
        pieces: what is cut, from the outside in.
        across, up: the layers that a line through the middle of the module meets; ``across_sum``, ``up_sum``: those
            that are alike together.
    """

    through: int | None
    choices: tuple[int, ...]
    pieces: tuple[CutPiece, ...]
    across: tuple[CutLayer, ...]
    up: tuple[CutLayer, ...]
    across_sum: tuple[SameLayers, ...]
    up_sum: tuple[SameLayers, ...]


def box_section(assembly: Assembly, box_id: str, through: int | None = None) -> BoxSection:
    """``through``: number of a module in the box, the first where None. Raises UnknownThing."""
    if box_id not in assembly.boxes:
        raise UnknownThing("box", box_id)
    box = assembly.boxes[box_id]
    modules = {module.number: module for module in box.shell.modules}
    if through is not None and through not in modules:
        raise UnknownThing("module of the box", str(through))
    module = modules.get(through or next(iter(modules), 0))
    low, high = (module.low, module.high) if module else ((0.0, 0.0, 0.0), box.shell.outer_mm)
    aft, across, up = ((a + b) / 2 for a, b in zip(low, high, strict=True))
    sideways = list(_met(rows_through(assembly, box, 1, (aft, up))))
    upward = list(_met(rows_through(assembly, box, 2, (aft, across))))
    return BoxSection(
        module.number if module else None,
        tuple({m.low[0]: m.number for m in reversed(box.shell.modules)}.values())[::-1],
        tuple(_pieces(box, aft)),
        tuple(_layers(sideways)),
        tuple(_layers(upward)),
        tuple(_alike(sideways)),
        tuple(_alike(upward)),
    )


def _met(rows: Iterator[StackRow]) -> Iterator[tuple[str, float]]:
    """(name, mm) of the layers that are there."""
    met = [row for row in rows if abs(row.mm) > THIN_MM]
    modules = [n for n, row in enumerate(met) if row.kind == "module"]
    for n, row in enumerate(met):
        between = row.kind == "space" and modules and modules[0] < n < modules[-1]
        yield "module" if row.kind == "module" else "between them" if between else row.what, row.mm


def _layers(met: list[tuple[str, float]]) -> Iterator[CutLayer]:
    at = 0.0
    for name, mm in met:
        yield CutLayer(name, at, mm)
        at += mm


def _alike(met: list[tuple[str, float]]) -> Iterator[SameLayers]:
    counts = Counter((name, round(mm, 6)) for name, mm in met)
    yield from (SameLayers(count, name, mm) for (name, mm), count in counts.items())


def _pieces(box: PlacedBox, aft_mm: float) -> Iterator[CutPiece]:
    for piece in box.shell.pieces:
        for solid in piece.solids:
            yield from (CutPiece(piece.role, piece.name, ring) for ring in rings_at(solid, aft_mm))
    for face in (*FACE_PAIRS[1], *FACE_PAIRS[2]):
        yield from _lining(box, face)
    for gear in box.gear:
        for solid in gear.local:
            yield from (CutPiece("gear", gear.item.name, ring) for ring in rings_at(solid, aft_mm))
    yield from (_module(module) for module in box.shell.modules if module.low[0] <= aft_mm <= module.high[0])


def _module(module: ShellModule) -> CutPiece:
    (_, y0, z0), (_, y1, z1) = module.low, module.high
    return CutPiece("module", str(module.number), _ring((y0, z0), (y1, z1)))


def _ring(low: tuple[float, float], high: tuple[float, float]) -> Polygon:
    return (low, (high[0], low[1]), high, (low[0], high[1]))


def _lining(box: PlacedBox, face: Face) -> Iterator[CutPiece]:
    """The layers of a face: the sides are lined from base to rim, base and top between them."""
    made, spec = box.shell.made, box.box
    low = list(made.start_mm)
    high = [start + size for start, size in zip(made.start_mm, box.shell.inner_mm, strict=True)]
    axis, far = FACE_AT[face]
    if axis == 2:
        low[1], high[1] = low[1] + spec.lined_mm("left"), high[1] - spec.lined_mm("right")
    taken = 0.0
    for _, layer in spec.lining(face):
        near, end = list(low), list(high)
        if far:
            near[axis], end[axis] = high[axis] - taken - layer.thickness_mm, high[axis] - taken
        else:
            near[axis], end[axis] = low[axis] + taken, low[axis] + taken + layer.thickness_mm
        taken += layer.thickness_mm
        for start, stop in _strips(layer, near[3 - axis], end[3 - axis]):
            near[3 - axis], end[3 - axis] = start, stop
            ring = _within(box, _ring((near[1], near[2]), (end[1], end[2])))
            if ring:
                yield CutPiece("liner", face, ring)


def _within(box: PlacedBox, ring: Polygon) -> Polygon:
    """A layer as it is trimmed at the edges along the box that are cut off."""
    left, made = ShapelyPolygon(ring), box.shell.made
    (_, wide, tall), t = made.outer_mm, made.wall_mm
    for chamfer in box.box.chamfers.values():
        side = next((face for face in chamfer.edge if face in ("left", "right")), None)
        if side is None or not {"base", "top"} & set(chamfer.edge):
            continue
        other = next(face for face in chamfer.edge if face != side)
        in_, up = (mm + (t if other == "base" else 0.0) for mm in (chamfer.along_mm[other], chamfer.along_mm[side]))
        corner = [(0.0, 0.0), (in_, 0.0), *([(in_, up)] if chamfer.square else []), (0.0, up)]
        at = [(y if side == "left" else wide - y, z if other == "base" else tall - z) for y, z in corner]
        left = left.difference(ShapelyPolygon(at))
    if left.is_empty or left.geom_type != "Polygon":
        return ()
    return tuple((float(y), float(z)) for y, z in left.exterior.coords[:-1])


def _strips(layer: Layer, low: float, high: float) -> Iterator[tuple[float, float]]:
    """From where to where a layer is met: runners that lie along the box each by itself."""
    if not isinstance(layer, Runners) or layer.along == "second":
        yield low, high
        return
    step = layer.wide_mm + layer.between_mm
    count = runner_count(layer, high - low)
    first = (low + high - count * step + layer.between_mm) / 2
    yield from ((first + n * step, first + n * step + layer.wide_mm) for n in range(count))
