"""The projections of everything in plan and from the side, for the views to draw."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox, bay_faces
from levelcradle.core.axes import Vec
from levelcradle.core.bays import sections
from levelcradle.core.clearance import room_of
from levelcradle.core.design import Bay
from levelcradle.core.memo import Memo
from levelcradle.core.modules import terminal_plates
from levelcradle.core.solids import Polygon, Solid, block_projections, projections
from levelcradle.core.sweeps import pieces_of

__all__ = ["Shape", "shapes"]


@dataclass(frozen=True, slots=True)
class Shape:
    """One thing's shadow: in plan (aft, right) and from the side (aft, up).

    ``kind`` says how it is drawn; ``gap_class`` picks its hatching; ``up_mm`` its highest point, so that what is on
    top in plan is pressed first.
    """

    path: str
    kind: str
    name: str
    plan: Polygon
    side: Polygon
    up_mm: float
    label: str = ""
    gap_class: str = ""
    owner: str = ""


def shapes(assembly: Assembly) -> tuple[Shape, ...]:
    """Every shape, things first, boxes last."""
    return (*_bays(assembly), *_things(assembly), *_all_boxes(assembly))


def _shape(
    path: str, kind: str, name: str, solid: Solid, label: str = "", gap_class: str = "", owner: str = ""
) -> Shape:
    return Shape(path, kind, name, *projections(solid), round(solid.high[2], 2), label, gap_class, owner)


@lru_cache(maxsize=4096)
def _still(solid: Solid) -> tuple[Polygon, Polygon]:
    """Shadows of a thing that is not dragged; its solid is cached, so it is known by identity."""
    return projections(solid)


def _bays(assembly: Assembly) -> Iterator[Shape]:
    """The outline of each bay, then each face of its sides as seen: most are seen edge-on in one of the views."""
    for key, bay in assembly.bays.items():
        yield _bay(f"bays/{key}", bay)
        for name, corners in bay_faces(bay):
            side = getattr(bay.sides, name)
            plan, rise = (tuple((round(c[0], 3), round(c[i], 3)) for c in corners) for i in (1, 2))
            path = f"bays/{key}/sides/{name}"
            yield Shape(path, "bay side", bay.name, plan, rise, 0.0, side.is_, side.gap_class, f"bays/{key}")


def _bay(path: str, bay: Bay) -> Shape:
    found = sections(bay)
    rows = [(s.aft_mm, [p[0] for p in s.ring], [p[1] for p in s.ring]) for s in found]
    plan = [(aft, min(across)) for aft, across, _ in rows] + [(aft, max(across)) for aft, across, _ in reversed(rows)]
    rise = [(aft, min(up)) for aft, _, up in rows] + [(aft, max(up)) for aft, _, up in reversed(rows)]
    return Shape(path, "bay", bay.name, _rounded(plan), _rounded(rise), max(up for _, up in rise))


def _rounded(outline: list[tuple[float, float]]) -> Polygon:
    return tuple((round(a, 3), round(b, 3)) for a, b in outline)


def _things(assembly: Assembly) -> Iterator[Shape]:
    for obstacle in assembly.obstacles:
        kind = "crush" if obstacle.crush else "keepout" if obstacle.kind in ("space", "room") else "item"
        name, solid = obstacle.name, obstacle.solid
        yield Shape(obstacle.path, kind, name, *_still(solid), round(solid.high[2], 2), gap_class=obstacle.gap_class)
    for key, item in assembly.design.items.items():
        if item.solid is not None and item.state in ("out", "payload"):
            for solid in pieces_of(item.solid, item.sweep):
                kind = "gone" if item.state == "out" else "payload"
                yield Shape(
                    f"items/{key}", kind, item.name, *_still(solid), round(solid.high[2], 2), gap_class=item.gap_class
                )


_boxes: Memo[tuple[Shape, ...]] = Memo(512)


def _all_boxes(assembly: Assembly) -> Iterator[Shape]:
    """Boxes in their order, modules numbered through all of them."""
    before = 0
    for box in assembly.in_order():
        yield from _boxes.get((box, before), lambda box=box, before=before: tuple(_box(box, before)))  # type: ignore[misc]
        before += len(box.shell.modules)


def _box(box: PlacedBox, before: int) -> Iterator[Shape]:
    name, names = box.box.name, {m.id: m.mount.name for m in box.mounts}
    for piece in box.pieces:
        drawn = {"body": "tray", "closure": "lid", "bracket": "bracket"}.get(piece.role, "head")
        path = f"mounts/{piece.mount}" if piece.mount else box.path
        words = names[piece.mount] if piece.mount else f"{name} {piece.name}"
        yield _shape(path, drawn, words, piece.solid, piece.name, owner=box.path)
    for key, room in box.box.keep_clear.items():
        solid = room_of(box, room, room.depth_mm)
        yield _shape(f"{box.path}/keep_clear/{key}", "keepout", room.reason or "room kept", solid, owner=box.path)
    rows = list(_inside(box, before))
    lows, highs = (np.array([row[i] for row in rows]).reshape(-1, 3) for i in (0, 1))
    for (_, _, path, drawn, words, label), seen in zip(
        rows, block_projections(lows, highs, box.placement), strict=True
    ):
        yield Shape(path, drawn, words, *seen, label, owner=box.path)


def _inside(box: PlacedBox, before: int) -> Iterator[tuple[Vec, Vec, str, str, str, str]]:
    """(low, high, path, kind, name, label) of each module and its terminals, in the box's frame."""
    for module in box.shell.modules:
        path, number = f"{box.path}/blocks/{module.block}", before + module.number
        yield module.low, module.high, path, "module", f"module {number}", str(number)
        for sign, low, high in terminal_plates(module.low, module.high, module.looks, module.spec):
            yield low, high, path, "terminal", "", sign
