"""A thing said as another shape: what carries over of its place and size is kept."""

from collections.abc import Iterator
from typing import Any, Literal

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.design import Design
from levelcradle.core.design.files import tree_of
from levelcradle.core.design.patch import Op
from levelcradle.core.design.pointer import find, resolves
from levelcradle.core.errors import UnknownThing

__all__ = ["Shape", "reshaped"]

Shape = Literal["block", "rod", "prism", "path", "below"]
LEAST_MM = 1.0  # no side is thinner: a shape of no size is refused


def reshaped(design: Design, path: str, shape: Shape) -> Iterator[Op]:
    """The solid at a path said as another shape. Between lines (rod, run, below a line) its ends are kept, and how thick it is; else
    the upright block round it. One that is from a file has no figures to keep. Raises UnknownThing."""
    tree = tree_of(design)
    old = find(tree, f"/{path}") if resolves(tree, f"/{path}") else None
    if not isinstance(old, dict) or old.get("type") in (None, "mesh"):
        raise UnknownThing("solid", path)
    if old["type"] != shape:
        yield {"op": "replace", "path": f"/{path}", "value": _as(shape, *_line(old)) if shape in _LINES else _round(shape, *_block(old))}


_LINES = ("rod", "path", "below")


def _line(old: dict[str, Any]) -> tuple[list[Vec], float, float]:
    """(points of its middle, width, height)."""
    if old["type"] == "rod":
        return [old["start_mm"], old["end_mm"]], 2 * old["radius_mm"], 2 * old["radius_mm"]
    if old["type"] in ("path", "below"):
        return old["points_mm"], old["width_mm"], old.get("height_mm", old["width_mm"])
    low, high = _block(old)
    size = [h - g for g, h in zip(low, high, strict=True)]
    along = size.index(max(size))
    middle = [(g + h) / 2 for g, h in zip(low, high, strict=True)]
    ends = [[v if i == along else m for i, (v, m) in enumerate(zip(corner, middle, strict=True))] for corner in (low, high)]
    across, up = (size[1] if along == 0 else size[0]), (size[2] if along != 2 else size[1])
    return [(e[0], e[1], e[2]) for e in ends], across, up


def _as(shape: str, points: list[Vec], width: float, height: float) -> dict[str, Any]:
    if shape == "rod":
        return {"type": "rod", "start_mm": list(points[0]), "end_mm": list(points[-1]), "radius_mm": min(width, height) / 2}
    line = {"type": shape, "points_mm": [list(p) for p in points], "width_mm": width}
    return line | {"height_mm": height} if shape == "path" else line


def _block(old: dict[str, Any]) -> tuple[Vec, Vec]:
    """Corners of the upright block round a shape."""
    if old["type"] == "block":
        return old["low_mm"], old["high_mm"]
    if old["type"] == "prism":
        plan = np.array(old["outline_mm"])
        (x0, y0), (x1, y1) = plan.min(axis=0), plan.max(axis=0)
        return (float(x0), float(y0), old["low_up_mm"]), (float(x1), float(y1), old["high_up_mm"])
    points, width, height = _line(old)
    run = np.array(points)
    low, high = run.min(axis=0), run.max(axis=0)
    along = int((high - low).argmax())
    half = np.array([width / 2, width / 2, height / 2])
    half[along] = 0.0
    low, high = low - half, np.maximum(high + half, low - half + LEAST_MM)
    return (float(low[0]), float(low[1]), float(low[2])), (float(high[0]), float(high[1]), float(high[2]))


def _round(shape: str, low: Vec, high: Vec) -> dict[str, Any]:
    if shape == "block":
        return {"type": "block", "low_mm": list(low), "high_mm": list(high)}
    ring = [[low[0], low[1]], [high[0], low[1]], [high[0], high[1]], [low[0], high[1]]]
    return {"type": "prism", "outline_mm": ring, "low_up_mm": low[2], "high_up_mm": high[2]}
