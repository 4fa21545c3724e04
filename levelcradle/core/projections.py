"""The projections of everything in plan and from the side, for the views to draw."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import islice
from operator import itemgetter

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox, bay_faces
from levelcradle.core.axes import Matrix, Placement, Vec
from levelcradle.core.bays import sections
from levelcradle.core.box import Shell
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
    name, names, own = box.box.name, {m.id: m.mount.name for m in box.mounts}, len(box.shell.outside)
    cast = _cast(box.shell, box.placement.turn.tobytes())
    shadows = cast.at(box.placement.origin)
    for piece, shadow in zip(box.pieces, islice(shadows, own), strict=False):
        drawn = {"body": "tray", "closure": "lid"}.get(piece.role, "head")
        yield Shape(box.path, drawn, f"{name} {piece.name}", *shadow, piece.name, owner=box.path)
    for piece in box.pieces[own:]:
        path = f"mounts/{piece.mount}" if piece.mount else box.path
        words = names[piece.mount] if piece.mount else f"{name} {piece.name}"
        drawn = "bracket" if piece.mount else "head"
        yield _shape(path, drawn, words, piece.solid, piece.name, owner=box.path)
    for key, room in box.box.keep_clear.items():
        solid = room_of(box, room, room.depth_mm)
        yield _shape(f"{box.path}/keep_clear/{key}", "keepout", room.reason or "room kept", solid, owner=box.path)
    for (block, number, sign), shadow in zip(cast.inside, shadows, strict=True):
        path, at = f"{box.path}/blocks/{block}", before + number
        drawn, words, label = ("terminal", "", sign) if sign else ("module", f"module {at}", str(at))
        yield Shape(path, drawn, words, *shadow, label, owner=box.path)


def _inside(shell: Shell) -> Iterator[tuple[str, int, str, Vec, Vec]]:
    """(block, number, sign of a terminal, low, high) of each module and then its terminals, in the box's frame."""
    for module in shell.modules:
        yield module.block, module.number, "", module.low, module.high
        for sign, low, high in terminal_plates(module.low, module.high, module.looks, module.spec):
            yield module.block, module.number, sign, low, high


@dataclass(frozen=True, eq=False, slots=True)
class _Cast:
    """Shadows of what stands fixed in a box, while its zero stands at that of the vehicle: the rings of a view one
    after the other, with where each ends, and their highest points. A box that is moved and not turned only shifts
    them. ``inside``: block, number and sign of its modules and terminals, which come last."""

    plan: Matrix
    side: Matrix
    ends: tuple[tuple[int, int], ...]
    tops: Matrix
    inside: tuple[tuple[str, int, str], ...]

    def at(self, origin: Vec) -> Iterator[tuple[Polygon, Polygon, float]]:
        plan, side = self.plan + origin[:2], self.side + origin[::2]
        plans, sides = ([(a, b) for a, b in rings.round(3).tolist()] for rings in (plan, side))
        start, begin = 0, 0
        for (end, stop), top in zip(self.ends, (self.tops + origin[2]).round(3).tolist(), strict=True):
            yield tuple(plans[start:end]), tuple(sides[begin:stop]), top
            start, begin = end, stop


@lru_cache(maxsize=256)
def _cast(shell: Shell, turn: bytes) -> _Cast:
    """Of the pieces of a box's outside, then of its modules and their terminals."""
    stand = Placement(np.frombuffer(turn).reshape(3, 3), (0.0, 0.0, 0.0))
    moved = [piece.solid.moved(stand) for piece in shell.outside]
    inside = list(_inside(shell))
    lows, highs = (np.array([row[i] for row in inside]).reshape(-1, 3) for i in (3, 4))
    rows = [(*projections(solid), solid.high[2]) for solid in moved] + [*block_projections(lows, highs, stand)]
    plan, side = ([corner for row in rows for corner in ring(row)] for ring in (itemgetter(0), itemgetter(1)))
    ends = np.array([(len(row[0]), len(row[1])) for row in rows]).reshape(-1, 2).cumsum(axis=0)
    return _Cast(
        np.array(plan).reshape(-1, 2),
        np.array(side).reshape(-1, 2),
        tuple((a, b) for a, b in ends.tolist()),
        np.array([row[2] for row in rows]),
        tuple(row[:3] for row in inside),
    )
