"""The shadows of everything in plan and from the side, for the views to draw."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from levelcradle.core.assembly import Assembly, PlacedBox, bay_panels, solid_of
from levelcradle.core.axes import Vec
from levelcradle.core.bays import stations_in_order
from levelcradle.core.memo import Memo
from levelcradle.core.solids import Polygon, Solid, block, shadows

__all__ = ["Shape", "shapes"]

PLATE_MM = 9.0


@dataclass(frozen=True, slots=True)
class Shape:
    """One thing's shadow: in plan (aft, right) and from the side (aft, up), and in section (right, up).

    ``kind`` says how it is drawn; ``gap_class`` picks its hatching; ``up_mm`` its highest point, so that what is on
    top in plan is pressed first.
    """

    path: str
    kind: str
    name: str
    plan: Polygon
    side: Polygon
    section: Polygon
    up_mm: float
    label: str = ""
    gap_class: str = ""
    owner: str = ""


def shapes(assembly: Assembly) -> tuple[Shape, ...]:
    """Every shape, things first, boxes last."""
    return (*_bays(assembly), *_things(assembly), *(s for box in assembly.boxes.values() for s in _of_box(assembly, box)))


def _shape(path: str, kind: str, name: str, solid: Solid, label: str = "", gap_class: str = "", owner: str = "") -> Shape:
    return Shape(path, kind, name, *shadows(solid), round(solid.high[2], 2), label, gap_class, owner)


@lru_cache(maxsize=4096)
def _still(solid: Solid) -> tuple[Polygon, Polygon, Polygon]:
    """Shadows of a thing that is not dragged; its solid is cached, so it is known by identity."""
    return shadows(solid)


def _bays(assembly: Assembly) -> Iterator[Shape]:
    """One shape a side: a panel is seen edge-on in most views, so it is drawn as its own outline."""
    for key, bay in assembly.design.bays.items():
        floor = tuple((s.aft_mm, s.left_floor_mm) for s in stations_in_order(bay))
        floor += tuple((s.aft_mm, s.right_floor_mm) for s in reversed(stations_in_order(bay)))
        rise = tuple((s.aft_mm, s.floor_mm) for s in stations_in_order(bay))
        rise += tuple((s.aft_mm, max(s.top_left_mm, s.top_right_mm)) for s in reversed(stations_in_order(bay)))
        first = stations_in_order(bay)[0]
        section = ((first.left_floor_mm, first.floor_mm), (first.left_top_mm, first.top_left_mm),
                   (first.right_top_mm, first.top_right_mm), (first.right_floor_mm, first.floor_mm))  # fmt: skip
        top = max(s.top_left_mm for s in stations_in_order(bay))
        yield Shape(f"bays/{key}", "bay", bay.name, floor, rise, section, top)
        for panel in bay_panels(bay):
            state = getattr(bay.sides, panel.side)
            views = (tuple((round(c[a], 3), round(c[b], 3)) for c in panel.corners) for a, b in ((0, 1), (0, 2), (1, 2)))
            yield Shape(f"bays/{key}/sides/{panel.side}", "bay side", bay.name, *views, 0.0, state.is_, state.gap_class, f"bays/{key}")


def _things(assembly: Assembly) -> Iterator[Shape]:
    for key, space in assembly.design.keepouts.items():
        kind = "crush" if space.kind == "crush" else "keepout"
        solid = solid_of(space.solid)
        yield Shape(f"keepouts/{key}", kind, space.name, *_still(solid), solid.high[2], gap_class=space.gap_class)
    for key, item in assembly.design.items.items():
        if item.solid is not None:
            kind = {"out": "gone", "payload": "payload"}.get(item.state, "item")
            solid = solid_of(item.solid)
            yield Shape(f"items/{key}", kind, item.name, *_still(solid), solid.high[2], gap_class=item.gap_class)


_boxes: Memo[tuple[Shape, ...]] = Memo(512)


def _of_box(assembly: Assembly, box: PlacedBox) -> tuple[Shape, ...]:
    return _boxes.get(box, lambda: tuple(_box(assembly, box)))


def _box(assembly: Assembly, box: PlacedBox) -> Iterator[Shape]:
    name = box.box.name
    for piece in box.pieces:
        kind = "bracket" if piece.mount else {"tray": "tray", "lid": "lid"}.get(piece.name, "head")
        path = f"mounts/{piece.mount}" if piece.mount else box.path
        yield _shape(path, kind, f"{name} {piece.name}", piece.solid, owner=box.path)
    for module in box.shell.modules:
        path, place = f"{box.path}/blocks/{module.block}", box.placement
        yield _shape(path, "module", f"module {module.number}", block(module.low, module.high).moved(place), str(module.number), owner=box.path)
        kind = assembly.design.module_kinds[module.kind]
        for sign, low, high in _terminals(module.low, module.high, module.looks.index(kind.terminals)):
            yield _shape(path, "terminal", "", block(low, high).moved(place), sign, owner=box.path)


def _terminals(low: Vec, high: Vec, way: int) -> Iterator[tuple[str, Vec, Vec]]:
    """Two plates on the terminal face, a quarter in from either end of its longer edge."""
    axis, outer = way // 2, way % 2
    across = max((i for i in range(3) if i != axis), key=lambda i: high[i] - low[i])
    third = 3 - axis - across
    for sign, share in (("+", 0.25), ("−", 0.75)):
        a, b = list(low), list(high)
        a[axis], b[axis] = (high[axis] - PLATE_MM, high[axis]) if outer else (low[axis], low[axis] + PLATE_MM)
        middle = low[across] + share * (high[across] - low[across])
        a[across], b[across] = middle - 12, middle + 12
        centre = (low[third] + high[third]) / 2
        a[third], b[third] = centre - 12, centre + 12
        yield sign, (a[0], a[1], a[2]), (b[0], b[1], b[2])
