"""The stack-up: every allowance along a line through a box, from one surface of the vehicle to the other.

    surface ┤ gap │ head │ wall │ liner │ space │ module │ … │ liner │ wall │ lid │ gap ├ surface

What is asked is the sum of the rows; what is there is the distance between the surfaces. Worst case adds all tolerances and
biases and decides; the root of the squares is told beside it.
"""

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Vec, minus, plus, scaled
from levelcradle.core.box import Piece, ShellModule
from levelcradle.core.clearance.gaps import around
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing
from levelcradle.core.clearance.tolerances import tape_tolerance, tolerance_by
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import State
from levelcradle.core.solids import ray_hits

__all__ = ["StackRow", "StackUp", "Surface", "stack_up"]

Way = Literal["aft", "across", "up"]
WAYS: tuple[Way, ...] = ("aft", "across", "up")
BEND_MM = 0.4  # a folded edge, common practice, no source (0.3 to 0.5)
TAPE_BIAS_MM = 1.0  # a tape reached into a space reads long, common practice, no source
WELD_PULL_MM = 0.5  # a welded corner pulls in by so much, common practice, no source
LINER_TOL_MM = 0.5  # sheet of rubber or foam, common practice, no source
FACES = {"terminals": "terminals, links, covers", "taps": "tap plug", "coolant": "coolant ports"}


@dataclass(frozen=True, slots=True)
class StackRow:
    """One allowance: how much, how far it may be off, which way it is known to be off, and what sets it."""

    what: str
    mm: float
    tol_mm: float
    bias_mm: float
    source: str
    kind: Literal["gap", "metal", "liner", "space", "module", "growth", "other"]
    path: str


@dataclass(frozen=True, slots=True)
class Surface:
    """An end of the chain: what stands there, and where the line meets it (None: open)."""

    name: str
    path: str
    at_mm: Vec | None


@dataclass(frozen=True, slots=True)
class StackUp:
    """A whole chain. ``there_mm`` and what follows from it are None where an end is open."""

    way: Way
    rows: tuple[StackRow, ...]
    ends: tuple[Surface, Surface]
    asked_mm: float
    there_mm: float | None
    spare_mm: float | None
    worst_mm: float
    root_mm: float
    state: State


def stack_up(assembly: Assembly, box_id: str, way: Way, at_mm: tuple[float, float] | None = None, module: int | None = None) -> StackUp:
    """The chain along one way of a box.

    Args:
        at_mm: where the line crosses the box, in its own frame, along the two other ways in the order aft, across, up; None for the
            line that has least to spare.
        module: through the middle of this module, by its number through all boxes.
    Raises: UnknownThing.
    """
    box = assembly.boxes.get(box_id)
    if box is None:
        raise UnknownThing("box", box_id)
    axis, things = WAYS.index(way), _things(assembly, box)
    if module is not None:
        at_mm = _rest(_middle(_numbered(assembly, box, module)), axis)
    spots = [at_mm] if at_mm is not None else _spots(box, axis, things)
    chains = [_chain(assembly, box, axis, spot, things) for spot in spots]
    return min(chains, key=lambda c: math.inf if c.spare_mm is None else c.spare_mm)


def _numbered(assembly: Assembly, box: PlacedBox, number: int) -> ShellModule:
    before = _modules_before(assembly, box)
    for module in box.shell.modules:
        if before + module.number == number:
            return module
    raise UnknownThing("module in this box", str(number))


@dataclass(frozen=True, slots=True)
class _Thing:
    obstacle: Obstacle
    need_mm: float
    because: str


def _things(assembly: Assembly, box: PlacedBox) -> list[_Thing]:
    design, out = assembly.design, []
    for thing in around(assembly, box):
        if not thing.crush:
            need = need_of_thing(design, box, thing)
            out.append(_Thing(thing, need.mm, need.because))
    for other in assembly.boxes.values():
        if other.id != box.id:
            need = need_of_boxes(design, box, other)
            out += [_Thing(Obstacle(other.path, other.box.name, p.solid, "same"), need.mm, need.because) for p in other.pieces]
    return out


def _spots(box: PlacedBox, axis: int, things: list[_Thing]) -> list[tuple[float, float]]:
    """The middle of each module row, and the middle of what each thing near the line shares with the modules."""
    shell = box.shell
    if not shell.modules:
        return [_rest(scaled(shell.outer_mm, 0.5), axis)]
    spots = {_rest(_middle(m), axis) for m in shell.modules[:60]}
    low = tuple(min(m.low[i] for m in shell.modules) for i in range(3))
    high = tuple(max(m.high[i] for m in shell.modules) for i in range(3))
    for thing in things:
        back, solid = box.placement.turn.T, thing.obstacle.solid
        corners = [back @ np.array(minus(p, box.placement.origin)) for p in (solid.low, solid.high)]
        near = [min(a, b) for a, b in zip(*corners, strict=True)]
        far = [max(a, b) for a, b in zip(*corners, strict=True)]
        middle = [(max(near[i], low[i]) + min(far[i], high[i])) / 2 for i in range(3)]
        if all(max(near[i], low[i]) < min(far[i], high[i]) for i in range(3) if i != axis):
            spots.add(_onto_a_module(box, axis, _rest((float(middle[0]), float(middle[1]), float(middle[2])), axis)))
    return sorted(spots)


def _onto_a_module(box: PlacedBox, axis: int, spot: tuple[float, float]) -> tuple[float, float]:
    """The spot, or where it runs between modules the nearest one on a module."""
    one, other = (i for i in range(3) if i != axis)

    def nearest_on(m: ShellModule) -> tuple[float, float]:
        return min(max(spot[0], m.low[one]), m.high[one]), min(max(spot[1], m.low[other]), m.high[other])

    return min((nearest_on(m) for m in box.shell.modules), key=lambda p: math.dist(p, spot))


def _middle(m: ShellModule) -> Vec:
    return (m.low[0] + m.high[0]) / 2, (m.low[1] + m.high[1]) / 2, (m.low[2] + m.high[2]) / 2


def _rest(point: Vec, axis: int) -> tuple[float, float]:
    one, other = (round(v, 2) for i, v in enumerate(point) if i != axis)
    return one, other


def _chain(assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float], things: list[_Thing]) -> StackUp:
    inside = list(_inside(assembly, box, axis, spot))
    length = sum(row.mm for row in inside)
    start = [0.0, 0.0, 0.0]
    one, other = (i for i in range(3) if i != axis)
    start[one], start[other] = spot
    start[axis] = _first(box, axis, spot)
    low = _meet(box, axis, start, -1.0, things)
    start[axis] += length
    high = _meet(box, axis, start, 1.0, things)
    rows = [*_gap(assembly, low), *inside, *_gap(assembly, high)]
    ends = (_surface(low), _surface(high))
    return _summed(WAYS[axis], rows, ends, None if low is None or high is None else length + low[1] + high[1])


_Hit = tuple[_Thing, float, Vec] | None


def _meet(box: PlacedBox, axis: int, start: list[float], sign: float, things: list[_Thing]) -> _Hit:
    """What a line from the box's outside meets first, how far off, and where."""
    local = [0.0, 0.0, 0.0]
    local[axis] = sign
    way = box.placement.direction((local[0], local[1], local[2]))
    # from inside the box, so that what overlaps it is met too
    back = (start[0] - local[0] * 40, start[1] - local[1] * 40, start[2] - local[2] * 40)
    origin = box.placement.point(back)
    best: _Hit = None
    for thing in things:
        hit = ray_hits(thing.obstacle.solid, origin, way)
        if hit is not None and (best is None or hit - 40 < best[1]):
            best = thing, hit - 40, plus(origin, scaled(way, hit))
    return best


def _surface(hit: _Hit) -> Surface:
    return Surface("open", "", None) if hit is None else Surface(hit[0].obstacle.name, hit[0].obstacle.path, hit[2])


def _gap(assembly: Assembly, hit: _Hit) -> Iterator[StackRow]:
    if hit is not None:
        thing = hit[0].obstacle
        tape = tape_tolerance(assembly.design, thing.path)
        yield StackRow(f"gap to {thing.name}", hit[0].need_mm, tape, TAPE_BIAS_MM, f"{hit[0].because}; tape ± {tape:g}", "gap", thing.path)


def _first(box: PlacedBox, axis: int, spot: tuple[float, float]) -> float:
    """Where the outermost piece on the line begins: the tray's face, or a lid edge or screw head that stands before it."""
    return min((p.low[axis] for p in _crossed(box, axis, spot)), default=0.0)


def _crossed(box: PlacedBox, axis: int, spot: tuple[float, float]) -> list[Piece]:
    one, other = (i for i in range(3) if i != axis)
    return [p for p in box.shell.envelope if p.low[one] <= spot[0] <= p.high[one] and p.low[other] <= spot[1] <= p.high[other]]


def _inside(assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float]) -> Iterator[StackRow]:
    """Everything of the box on the line, from its first outside to its last."""
    shell, spec, path = box.shell, box.box, box.path
    crossed = _crossed(box, axis, spot)
    low, high = min(p.low[axis] for p in crossed), max(p.high[axis] for p in crossed)
    wall = spec.thickness_mm
    sheet, _ = tolerance_by("cut", max(wall, 0.6))
    yield from _before_the_tray(box, -low, axis, path)
    yield StackRow("floor" if axis == 2 else "wall", wall, sheet, 0.0, "sheet; ISO 2768-1 m, from memory", "metal", path)
    yield from _contents(assembly, box, axis, spot)
    if axis == 2:
        yield StackRow("lid", wall, sheet, 0.0, "sheet; ISO 2768-1 m, from memory", "metal", path)
        rest = high - shell.outer_mm[2] - wall
        if rest > 1e-6:
            yield StackRow("screw head", rest, 0.2, 0.0, "as drawn", "metal", path)
    else:
        yield StackRow("wall", wall, sheet, 0.0, "sheet; ISO 2768-1 m, from memory", "metal", path)
        yield from _before_the_tray(box, high - shell.outer_mm[axis], axis, path)
    welded, source = tolerance_by("welded", shell.outer_mm[axis])
    yield StackRow("box as welded", 0.0, welded, 0.0 if axis == 2 else 2 * WELD_PULL_MM, source, "other", path)
    yield StackRow("two bends", 0.0, 2 * BEND_MM, 0.0, "± 0.4 a bend, common practice, no source", "other", path)
    yield from _finish(box, axis, path)


def _before_the_tray(box: PlacedBox, mm: float, axis: int, path: str) -> Iterator[StackRow]:
    """The lid's edge and a screw head on it, where the line meets them."""
    if mm <= 1e-6 or axis == 2:
        return
    edge = box.box.lid.clearance_mm + box.box.thickness_mm
    yield StackRow("lid edge", min(mm, edge), 0.3, 0.0, "sheet and its clearance, as drawn", "metal", path)
    if mm - edge > 1e-6:
        yield StackRow("screw head", mm - edge, 0.2, 0.0, "as drawn", "metal", path)


def _finish(box: PlacedBox, axis: int, path: str) -> Iterator[StackRow]:
    finish = box.box.finish
    if finish.coats:
        both = 2 * finish.coats * finish.coat_mm
        yield StackRow(f"coating, {finish.coats} coats on two faces", both, both / 2, 0.0, "per face and coat, as given", "other", path)
    if not finish.beads_ground and axis != 2:
        yield StackRow("weld beads, not ground", 2 * finish.bead_mm, 1.0, 0.0, "as given; common practice, no source", "other", path)


def _contents(assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float]) -> Iterator[StackRow]:
    """Liners, the spaces that faces ask for, modules with their growth; what is left over at the end is a row too."""
    shell, spec, path = box.shell, box.box, box.path
    one, other = (i for i in range(3) if i != axis)
    modules = sorted(
        (m for m in shell.modules if m.low[one] <= spot[0] <= m.high[one] and m.low[other] <= spot[1] <= m.high[other]),
        key=lambda m: m.low[axis],
    )
    wall = spec.thickness_mm
    liner = spec.liners.floor_mm if axis == 2 else spec.liners.wall_mm
    last_liner = 0.0 if axis == 2 else liner
    begin, end = wall, wall + shell.inner_mm[axis]
    if liner:
        word = "runner" if axis == 2 else "liner"
        yield StackRow(word, liner, LINER_TOL_MM, 0.0, "common practice, no source", "liner", f"{path}/liners")
    at, before = begin + liner, _modules_before(assembly, box)
    for module in modules:
        yield from _space(assembly, box, module, module.low[axis] - at, 2 * axis, path)
        yield from _module(assembly, module, axis, path, before + module.number)
        at = module.high[axis]
    if modules:
        yield from _space(assembly, box, modules[-1], end - last_liner - at, 2 * axis + 1, path)
    else:
        yield StackRow("free", end - last_liner - at, 0.0, 0.0, "", "space", path)
    if last_liner:
        yield StackRow("liner", last_liner, LINER_TOL_MM, 0.0, "common practice, no source", "liner", f"{path}/liners")


def _space(assembly: Assembly, box: PlacedBox, module: ShellModule, mm: float, way: int, path: str) -> Iterator[StackRow]:
    if mm <= 1e-6:
        return
    kind = assembly.design.module_kinds[module.kind]
    face = module.looks[way]
    words = [FACES[name] for name in FACES if getattr(kind, name) == face]
    what = " and ".join(words) or ("tap leads" if way == 5 and kind.above_mm else f"space before {face.replace('_', ' ')}")
    yield StackRow(what, mm, 0.0, 0.0, "what the module's faces ask for, as entered in Stock", "space", f"{path}/blocks/{module.block}")


def _modules_before(assembly: Assembly, box: PlacedBox) -> int:
    """Modules are numbered through all boxes."""
    return sum(len(b.shell.modules) for b in itertools.takewhile(lambda b: b.id != box.id, assembly.in_order()))


def _module(assembly: Assembly, module: ShellModule, axis: int, path: str, number: int) -> Iterator[StackRow]:
    kind = assembly.design.module_kinds[module.kind]
    size = module.high[axis] - module.low[axis]
    along = module.looks[2 * axis].split("_")[0]  # which of the module's own sides lies along the line
    grows = kind.grows_mm({"end": 0, "side": 1}.get(along, 2))
    tol, source = tolerance_by("cut", size)
    yield StackRow(f"module {number}", size - grows, tol, 0.0, source, "module", f"{path}#{number}")
    if grows:
        yield StackRow("growth to the widest state", grows, 0.0, 0.0, "as entered in Stock", "growth", f"{path}#{number}")


def _summed(way: Way, rows: list[StackRow], ends: tuple[Surface, Surface], there: float | None) -> StackUp:
    asked = sum(row.mm for row in rows)
    worst = sum(row.tol_mm + row.bias_mm for row in rows)
    root = math.sqrt(sum(row.tol_mm**2 for row in rows))
    spare = None if there is None else there - asked
    state: State = "note" if spare is None else "foul" if spare < -1e-9 else "tight" if spare < worst else "clear"
    return StackUp(way, tuple(rows), ends, asked, there, spare, worst, root, state)
