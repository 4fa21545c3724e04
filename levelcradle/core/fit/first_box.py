"""“Put a box in this bay”: one block in the chosen turn, stood square and off every metal side by its gap.

The bay's metal sides are taken as half-spaces, each moved in by its gap; open and unmeasured sides bound the box at
their outline. For a bay that widens and narrows again this asks for more than it must, never for less.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations, product

import numpy as np

from levelcradle.core.assembly import bay_panels
from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.bays import extent
from levelcradle.core.box import Shell, shell_of
from levelcradle.core.design import Bay, Design
from levelcradle.core.design.box import Block, Box, Counts, Pose, Turn
from levelcradle.core.errors import UnknownThing
from levelcradle.core.modules import turned

__all__ = ["FirstBox", "NextStep", "first_box"]

MOST_ALONG = 40
TENTH_MM = 0.1
MOST_ANYWHERE = 2000
WAYS = ("aft", "across", "up")


@dataclass(frozen=True, slots=True)
class NextStep:
    """One more row or tier, and by how much it would be foul (None: it fits)."""

    way: str
    says: str
    short_mm: float


@dataclass(frozen=True, slots=True)
class FirstBox:
    """What fits: the box, how many modules it holds, and what stops the next row each way."""

    box: Box
    modules: int
    says: str
    next_steps: tuple[NextStep, ...]


def first_box(design: Design, bay_id: str, kind_id: str, turn: Turn, *, most: int | None = None) -> FirstBox | None:
    """The box with most modules in a bay, lowest first; None where not even one fits.

    Args:
        most: no more modules than this; None for what stands on the shelf and is not placed yet (any number where
            the shelf holds none of the kind).
    Raises: UnknownThing for a bay or kind that is not there.
    """
    if bay_id not in design.bays:
        raise UnknownThing("bay", bay_id)
    if kind_id not in design.module_kinds:
        raise UnknownThing("module kind", kind_id)
    most = _on_the_shelf(design, kind_id) if most is None else most
    bay = design.bays[bay_id]
    search = _Search(design, bay_id, bay, kind_id, turn, _walls(design, bay), *_one(design, bay_id, bay, kind_id, turn))
    best: tuple[tuple[float, ...], Counts, Vec] | None = None
    for counts in _counts(design, bay, kind_id, turn):
        number = counts.total
        if number > most or (best and number < -best[0][0]):
            continue
        low = _stand(search.walls, *search.envelope(counts), bay)
        if low is None:
            continue
        rank = (-number, counts.up, low[2])
        if best is None or rank < best[0]:
            best = rank, counts, low
    if best is None:
        return None
    _, counts, low = best
    box = _box(design, bay, bay_id, kind_id, turn, counts)
    at = _rounded(low, search.walls, *search.envelope(counts))
    placed = box.model_copy(update={"pose": Pose(anchor="front-left-base", at_mm=at)})
    number = counts.total
    return FirstBox(placed, number, _says(counts, bay), tuple(_next(search, counts)))


@dataclass(frozen=True, slots=True)
class _Search:
    """What is asked, and how large a box of one module is: each further module adds a pitch."""

    design: Design
    bay_id: str
    bay: Bay
    kind_id: str
    turn: Turn
    walls: Matrix
    low: Vec
    high: Vec
    pitch: Vec

    def envelope(self, counts: Counts) -> tuple[Vec, Vec]:
        """Corners of everything of the box (lid, heads) from its own front, left, base corner."""
        more = (counts.aft - 1, counts.across - 1, counts.up - 1)
        x, y, z = (h + n * p for h, n, p in zip(self.high, more, self.pitch, strict=True))
        return self.low, (x, y, z)


def _one(design: Design, bay_id: str, bay: Bay, kind_id: str, turn: Turn) -> tuple[Vec, Vec, Vec]:
    """(low, high, pitch): corners of everything of a box of one module, and what one more adds along each axis."""
    low, high = _envelope(design, _box(design, bay, bay_id, kind_id, turn, Counts()))
    shape = turned(design.module_kinds[kind_id], turn)
    x, y, z = (s + g for s, g in zip(shape.size_mm, shape.neighbour_mm, strict=True))
    return low, high, (x, y, z)


def _on_the_shelf(design: Design, kind_id: str) -> int:
    shelf = sum(m.kind == kind_id and m.verdict != "reject" for m in design.modules.values())
    blocks = (block for box in design.boxes.values() for block in box.blocks.values() if block.kind == kind_id)
    placed = sum(b.counts.total for b in blocks)
    return max(shelf - placed, 1) if shelf else MOST_ANYWHERE


def _rounded(place: Vec, walls: Matrix, low: Vec, high: Vec) -> Vec:
    """The place in tenths of millimetres, the nearest that leaves every gap; as it is where none does."""
    room = _room(walls, low, high)
    for steps in product(*(_near(v, TENTH_MM) for v in place)):
        x, y, z = (round(n * TENTH_MM, 6) for n in steps)
        if (walls[:, :3] @ np.array((x, y, z)) <= room + 1e-9).all():
            return x, y, z
    return place


def _near(value: float, step: float) -> list[int]:
    """Whole steps round a value, the nearest first."""
    return sorted({math.floor(value / step), round(value / step), math.ceil(value / step)}, key=lambda n: abs(n * step - value))


def _room(walls: Matrix, low: Vec, high: Vec) -> Matrix:
    """How far the box's own corner may go against each wall."""
    normal = walls[:, :3]
    return np.asarray(walls[:, 3] - np.where(normal > 0, normal * np.array(high), normal * np.array(low)).sum(axis=1))


def _says(counts: Counts, bay: Bay) -> str:
    number = counts.total
    tiers = "one tier" if counts.up == 1 else f"{counts.up} tiers"
    words = "1 module" if number == 1 else f"{number} modules"
    return f"{words} in {bay.name}: {counts.aft} along, {counts.across} across, {tiers}"


def _counts(design: Design, bay: Bay, kind_id: str, turn: Turn) -> Iterator[Counts]:
    """Every grid that could fit by its bare modules, most modules first."""
    low, high = extent(bay)
    shape = turned(design.module_kinds[kind_id], turn)
    most = []
    for axis in range(3):
        gap = shape.neighbour_mm[axis]
        most.append(min(MOST_ALONG, int((high[axis] - low[axis] + gap) // (shape.size_mm[axis] + gap))))
    grids = [(a, b, c) for a in range(1, most[0] + 1) for b in range(1, most[1] + 1) for c in range(1, most[2] + 1)]
    for a, b, c in sorted(grids, key=lambda g: (-g[0] * g[1] * g[2], g[2])):
        yield Counts(aft=a, across=b, up=c)


def _box(design: Design, bay: Bay, bay_id: str, kind_id: str, turn: Turn, counts: Counts) -> Box:
    material = "s235" if "s235" in design.tables.materials else next(iter(design.tables.materials))
    return Box(
        name=f"{bay.name} box"[:1].upper() + f"{bay.name} box"[1:120], bay=bay_id, material=material,
        pose=Pose(anchor="front-left-base", at_mm=(0.0, 0.0, 0.0)),
        blocks={"a": Block(kind=kind_id, turn=turn, counts=counts)}, order=len(design.boxes) + 1,
    )  # fmt: skip


def _envelope(design: Design, box: Box) -> tuple[Vec, Vec]:
    """Corners of everything of the box (lid, heads) from its own front, left, base corner."""
    shell: Shell = shell_of(box, design.module_kinds, design.tables.materials[box.material].density_kg_m3)
    low = [min(p.low[i] for p in shell.envelope) for i in range(3)]
    high = [max(p.high[i] for p in shell.envelope) for i in range(3)]
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _walls(design: Design, bay: Bay) -> Matrix:
    """(m, 4) half-spaces n·p <= d: metal moved in by its gap, all else at its outline."""
    rows = []
    for panel in bay_panels(bay):
        side = getattr(bay.sides, panel.side)
        need = design.tables.gaps[side.gap_class].need_mm if side.is_ == "metal" else 0.0
        reach = sum(n * c for n, c in zip(panel.outward, panel.corners[0], strict=True)) - need
        rows.append((*panel.outward, reach))
    return np.array(rows)


def _stand(walls: Matrix, low: Vec, high: Vec, bay: Bay) -> Vec | None:
    """Where the box's front, left, base corner goes: lowest; then nearest the bay's middle across; then half-way along,
    or against the gap of a metal side where only one end has one."""
    normal = walls[:, :3]
    room = _room(walls, low, high)
    place: list[float] = []
    order = (2, 1, 0)
    for position, axis in enumerate(order):
        free = list(order[position:])
        rest = room - sum((normal[:, a] * v for a, v in zip(order, place, strict=False)), np.zeros(len(room)))
        span = _span(normal[:, free], rest)
        if span is None:
            return None
        place.append(_wish(axis, span, low, high, bay))
    return place[2], place[1], place[0]


def _wish(axis: int, span: tuple[float, float], low: Vec, high: Vec, bay: Bay) -> float:
    least, most = span
    if axis == 2:
        return least
    if axis == 1:
        ends = extent(bay)
        wish = (ends[0][1] + ends[1][1]) / 2 - (low[1] + high[1]) / 2
        return min(max(wish, least), most)
    fore, aft = bay.sides.fore.is_ == "metal", bay.sides.aft.is_ == "metal"
    return (least + most) / 2 if fore == aft else least if fore else most


def _span(normal: Matrix, room: Matrix) -> tuple[float, float] | None:
    """Least and greatest first coordinate of {p: normal·p <= room}; None where that is empty.

    The corners of the region are found by solving every set of as many walls as there are coordinates.
    """
    size = normal.shape[1]
    picks = np.array(list(combinations(range(len(normal)), size)))
    square, right = normal[picks], room[picks]
    solvable = np.abs(np.linalg.det(square)) > 1e-9
    corners = np.linalg.solve(square[solvable], right[solvable][..., None])[..., 0]
    inside = corners[(corners @ normal.T <= room + 1e-7).all(axis=1)]
    return (float(inside[:, 0].min()), float(inside[:, 0].max())) if len(inside) else None


def _next(search: _Search, counts: Counts) -> Iterator[NextStep]:
    for axis, way in enumerate(WAYS):
        more = counts.model_copy(update={way: getattr(counts, way) + 1})
        short = _short(search.walls, *search.envelope(more), axis, search.bay)
        name = {"aft": "next row along", "across": "next row across", "up": "next tier"}[way]
        yield NextStep(way, f"{name}: foul by {{0}}" if short > 0 else f"{name}: fits", short)


def _short(walls: Matrix, low: Vec, high: Vec, axis: int, bay: Bay) -> float:
    """How much less the box would have to measure along one axis, to a hundredth."""

    def fits(cut: float) -> bool:
        shrunk = tuple(h - cut if i == axis else h for i, h in enumerate(high))
        return _stand(walls, low, (shrunk[0], shrunk[1], shrunk[2]), bay) is not None

    if fits(0.0):
        return 0.0
    least, most = 0.0, high[axis] - low[axis]
    while most - least > 0.005:
        middle = (least + most) / 2
        least, most = (least, middle) if fits(middle) else (middle, most)
    return most
