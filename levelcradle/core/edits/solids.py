"""A thing said as another shape: what carries over of its place and size is kept."""

from collections.abc import Iterator
from typing import Any, Literal

from pydantic import TypeAdapter

from levelcradle.core.axes import Vec
from levelcradle.core.design import Design
from levelcradle.core.design.accepted import under
from levelcradle.core.design.files import tree_of
from levelcradle.core.design.patch import Op
from levelcradle.core.design.pointer import find, resolves
from levelcradle.core.design.solid import BelowSolid, BlockSolid, MeshSolid, PathSolid, RodSolid, SolidSpec
from levelcradle.core.design.taken import begun, not_taken
from levelcradle.core.errors import UnknownThing
from levelcradle.core.sweeps import pieces_of

__all__ = ["Shape", "reshaped"]

Shape = Literal["block", "rod", "prism", "path", "below"]
_LINES = ("rod", "path", "below")
_SPEC: TypeAdapter[SolidSpec] = TypeAdapter(SolidSpec)


def reshaped(design: Design, path: str, shape: Shape) -> Iterator[Op]:
    """The solid at a path said as another shape. Between lines (rod, run, below a line) its ends are kept, and how
    thick it is; else the upright block round it. One that is from a file has no figures to keep. Raises
    UnknownThing."""
    tree = tree_of(design)
    tells = find(tree, f"/{path}") if resolves(tree, f"/{path}") else None
    if not isinstance(tells, dict) or "type" not in tells:
        raise UnknownThing("solid", path)
    old = _SPEC.validate_python(tells, strict=False)
    if isinstance(old, MeshSolid):
        raise UnknownThing("solid", path)
    if old.type != shape:
        value = _along(shape, *_line(old)) if shape in _LINES else _upright(shape, *_block(old))
        yield {"op": "replace", "path": f"/{path}", "value": value}
        if any(under(untaken, f"/{path}") for untaken in not_taken(design)):
            yield from begun(design, f"/{path}", value, shape)


def _line(old: SolidSpec) -> tuple[list[Vec], float, float]:
    """(points of its middle, width, height); of an upright shape along its longest side."""
    if isinstance(old, RodSolid):
        return [old.start_mm, old.end_mm], 2 * old.radius_mm, 2 * old.radius_mm
    if isinstance(old, PathSolid):
        return list(old.points_mm), old.width_mm, old.height_mm
    if isinstance(old, BelowSolid):
        return list(old.points_mm), old.width_mm, old.width_mm
    low, high = _block(old)
    size = [h - g for g, h in zip(low, high, strict=True)]
    along = size.index(max(size))
    ends = [tuple(corner[i] if i == along else (low[i] + high[i]) / 2 for i in range(3)) for corner in (low, high)]
    across, up = (size[1] if along == 0 else size[0]), (size[2] if along != 2 else size[1])
    return [(e[0], e[1], e[2]) for e in ends], across, up


def _along(shape: str, points: list[Vec], width_mm: float, height_mm: float) -> dict[str, Any]:
    if shape == "rod":
        return {
            "type": "rod",
            "start_mm": list(points[0]),
            "end_mm": list(points[-1]),
            "radius_mm": min(width_mm, height_mm) / 2,
        }
    line = {"type": shape, "points_mm": [list(p) for p in points], "width_mm": width_mm}
    return line | {"height_mm": height_mm} if shape == "path" else line


def _block(old: SolidSpec) -> tuple[Vec, Vec]:
    """Corners of the upright block round a shape."""
    if isinstance(old, BlockSolid):
        return old.low_mm, old.high_mm
    pieces = pieces_of(old)
    low, high = [min(p.low[i] for p in pieces) for i in range(3)], [max(p.high[i] for p in pieces) for i in range(3)]
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _upright(shape: str, low: Vec, high: Vec) -> dict[str, Any]:
    if shape == "block":
        return {"type": "block", "low_mm": list(low), "high_mm": list(high)}
    ring = [[low[0], low[1]], [high[0], low[1]], [high[0], high[1]], [low[0], high[1]]]
    return {"type": "prism", "outline_mm": ring, "low_up_mm": low[2], "high_up_mm": high[2]}
