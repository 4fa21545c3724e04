"""A box in its own frame: origin at its outside front, left, base corner; aft, right, up in millimetres.

Outside means the tray's walls and floor. The lid is a cap over it, the screw heads stand out of the lid's edges.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelcradle.core.axes import Vec, plus
from levelcradle.core.box.chamfers import chamfer_metal, chamfered, inside_chamfer
from levelcradle.core.box.openings import lid_screws, protruding
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.box import FACE_AT, Block, Box
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.memo import Memo
from levelcradle.core.modules import Laid, lay_out, needed_between

__all__ = ["InnerGap", "Piece", "Shell", "ShellModule", "shell_of"]

STEEL_KG_MM3 = 7850e-9
_Blocks = Mapping[str, tuple[Block, Laid]]


@dataclass(frozen=True, slots=True)
class ShellModule:
    """A module in the box: which block and kind, its number in the box, and its corners."""

    block: str
    kind: str
    number: int
    low: Vec
    high: Vec
    looks: tuple[ModuleFace, ...]


@dataclass(frozen=True, slots=True)
class InnerGap:
    """A gap inside the box: between neighbours of a block, two blocks, or a block and the liner of a fixed case."""

    name: str
    says: str
    subject: str
    has_mm: float
    needs_mm: float
    because: str


@dataclass(frozen=True, slots=True)
class Shell:
    """Everything about a box that does not depend on where it stands.

    Attributes:
        inner_mm, outer_mm: sizes between the walls and over them (tray, without lid and heads).
        over_lid_mm: size with the lid's edges and top, without screw heads.
        envelope: pieces that make its outside: tray, lid cap, screw heads.
        shell_kg: sheet metal; full_kg: with modules and fittings.
        cg: centre of gravity, full, in the box's frame.
    """

    inner_mm: Vec
    outer_mm: Vec
    over_lid_mm: Vec
    metal: tuple[Piece, ...]
    envelope: tuple[Piece, ...]
    modules: tuple[ShellModule, ...]
    gaps: tuple[InnerGap, ...]
    shell_kg: float
    fittings_kg: float
    full_kg: float
    cg: Vec


_shells: Memo[Shell] = Memo(512)


def shell_of(box: Box, kinds: Mapping[str, ModuleKind], density_kg_m3: float) -> Shell:
    """The box in its own frame. Cached by the content it depends on: not its name, pose, bay or mounts."""
    used = sorted({block.kind for block in box.blocks.values()})
    content = (
        box.model_dump_json(exclude={"name", "bay", "pose", "openings", "hold_down", "sealing", "vented_outside", "order"}),
        *((key, kinds[key].model_dump_json()) for key in used),
        density_kg_m3,
    )
    return _shells.get(content, lambda: _shell(box, kinds, density_kg_m3))


def _shell(box: Box, kinds: Mapping[str, ModuleKind], density_kg_m3: float) -> Shell:
    blocks = {
        key: (block, lay_out(block, kinds[block.kind])) for key, block in sorted(box.blocks.items(), key=lambda row: (row[1].order, row[0]))
    }
    low, high = _wanted(blocks)
    inner = box.inner.size_mm if box.inner.type == "fixed" else _inner(box, low, high)
    wall = box.construction.thickness_mm
    outer = (inner[0] + 2 * wall, inner[1] + 2 * wall, inner[2] + wall)
    start = (wall + box.liners.wall_mm, wall + box.liners.wall_mm, wall + box.liners.floor_mm)
    shift = (start[0] - low[0], start[1] - low[1], start[2] - low[2])
    modules = tuple(_modules(blocks, shift))
    metal, lid = tuple(_tray(box, outer, density_kg_m3)), tuple(_lid(box, outer, density_kg_m3))
    metal += (*_plates(box, blocks, inner, shift, density_kg_m3), *chamfer_metal(box, outer, density_kg_m3))
    heads = tuple(_heads(box, outer))
    envelope = tuple(_outside(box, outer, heads))
    modules_kg = sum(kinds[m.kind].mass_kg for m in modules)
    fittings_kg = box.fittings.box_kg + box.fittings.per_module_kg * len(modules)
    shell_kg = sum(piece.mass_kg for piece in metal + lid + heads)
    over = 2 * (box.cap.clearance_mm + wall)
    return Shell(
        inner_mm=inner,
        outer_mm=outer,
        over_lid_mm=(outer[0] + over, outer[1] + over, outer[2] + wall),
        metal=metal + lid,
        envelope=envelope,
        modules=modules,
        gaps=(*_gaps(box, blocks, kinds, inner, low, high), *_beside_chamfers(box, outer, modules)),
        shell_kg=shell_kg,
        fittings_kg=fittings_kg,
        full_kg=shell_kg + modules_kg + fittings_kg,
        cg=_centre(metal + lid + heads, modules, kinds, fittings_kg),
    )


def _wanted(blocks: _Blocks) -> tuple[Vec, Vec]:
    """Corners of the free space that all blocks together ask for, in their own frame."""
    if not blocks:
        return (0.0, 0.0, 0.0), (100.0, 100.0, 100.0)
    lows, highs = [], []
    for block, laid in blocks.values():
        origin, asks = block.origin_mm, laid.turned.asks_mm
        lows.append([origin[i] - asks[2 * i] for i in range(3)])
        highs.append([origin[i] + laid.size_mm[i] + asks[2 * i + 1] for i in range(3)])
    low, high = [min(c) for c in zip(*lows, strict=True)], [max(c) for c in zip(*highs, strict=True)]
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _inner(box: Box, low: Vec, high: Vec) -> Vec:
    liner = 2 * box.liners.wall_mm
    return high[0] - low[0] + liner, high[1] - low[1] + liner, high[2] - low[2] + box.liners.floor_mm


def _modules(blocks: _Blocks, shift: Vec) -> Iterator[ShellModule]:
    number = 0
    for key, (block, laid) in blocks.items():
        origin = plus(block.origin_mm, shift)
        for module in laid.modules:
            number += 1
            low, high = plus(origin, module.low), plus(origin, module.high)
            yield ShellModule(key, block.kind, number, low, high, module.looks)


def _plates(box: Box, blocks: _Blocks, inner: Vec, shift: Vec, density: float) -> Iterator[Piece]:
    """Dividers: plates across the whole inside."""
    wall = box.construction.thickness_mm
    for block, laid in blocks.values():
        for start in laid.plates:
            assert block.dividers is not None
            axis = ("aft", "across", "up").index(block.dividers.along)
            low, high = [wall, wall, wall], [wall + inner[0], wall + inner[1], wall + inner[2]]
            low[axis] = block.origin_mm[axis] + shift[axis] + start
            high[axis] = low[axis] + block.dividers.thickness_mm
            yield _piece("divider", (low[0], low[1], low[2]), (high[0], high[1], high[2]), density)


def _outside(box: Box, outer: Vec, heads: tuple[Piece, ...]) -> Iterator[Piece]:
    cap = _cap(box, outer)
    over = box.cap.clearance_mm + box.construction.thickness_mm
    yield Piece("tray", (0.0, 0.0, 0.0), outer, 0.0, chamfered((0.0, 0.0, 0.0), outer, box, outer, 0.0))
    yield Piece(cap.name, cap.low, cap.high, 0.0, chamfered(cap.low, cap.high, box, outer, over))
    yield from heads
    yield from protruding(box, outer)


def _beside_chamfers(box: Box, outer: Vec, modules: tuple[ShellModule, ...]) -> Iterator[InnerGap]:
    for key, chamfer in box.chamfers.items():
        if modules:
            has = min(inside_chamfer(chamfer, box.construction.thickness_mm, outer, m.low, m.high) for m in modules)
            says = f"modules to the chamfer {chamfer.edge[0]} {chamfer.edge[1]}"
            yield InnerGap(f"chamfer-{key}", says, f"chamfers/{key}", has, box.liners.wall_mm, "the liner on the sloped wall")


def _piece(name: str, low: Vec, high: Vec, density_kg_m3: float) -> Piece:
    volume = (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2])
    return Piece(name, low, high, volume * density_kg_m3 * 1e-9)


def _tray(box: Box, outer: Vec, density: float) -> Iterator[Piece]:
    """Floor, two long walls over the whole length, two end walls between them (square corners)."""
    length, width, height = outer
    t = box.construction.thickness_mm
    yield _piece("floor", (0, 0, 0), (length, width, t), density)
    yield _piece("left wall", (0, 0, t), (length, t, height), density)
    yield _piece("right wall", (0, width - t, t), (length, width, height), density)
    yield _piece("front wall", (0, t, t), (t, width - t, height), density)
    yield _piece("aft wall", (length - t, t, t), (length, width - t, height), density)


def _lid(box: Box, outer: Vec, density: float) -> Iterator[Piece]:
    cap, t = _cap(box, outer), box.construction.thickness_mm
    (x0, y0, z0), (x1, y1, z1) = cap.low, cap.high
    under = z1 - t
    yield _piece("lid top", (x0, y0, under), (x1, y1, z1), density)
    yield _piece("lid left edge", (x0, y0, z0), (x1, y0 + t, under), density)
    yield _piece("lid right edge", (x0, y1 - t, z0), (x1, y1, under), density)
    yield _piece("lid front edge", (x0, y0 + t, z0), (x0 + t, y1 - t, under), density)
    yield _piece("lid aft edge", (x1 - t, y0 + t, z0), (x1, y1 - t, under), density)


def _cap(box: Box, outer: Vec) -> Piece:
    out, top = box.cap.clearance_mm + box.construction.thickness_mm, outer[2] + box.construction.thickness_mm
    return Piece("lid", (-out, -out, top - box.cap.edge_mm), (outer[0] + out, outer[1] + out, top), 0.0)


def _heads(box: Box, outer: Vec) -> Iterator[Piece]:
    """Screw heads on the lid's edges, as blocks of their width and height; their mass is that of round steel heads."""
    mass = math.pi / 4 * box.cap.screws.head_across_mm**2 * box.cap.screws.head_high_mm * STEEL_KG_MM3
    cap, half = _cap(box, outer), box.cap.screws.head_across_mm / 2
    high = box.cap.screws.head_high_mm
    for screw in lid_screws(box, outer):
        axis, far = FACE_AT[screw.face]
        start, end = [v - half for v in screw.at], [v + half for v in screw.at]
        start[axis], end[axis] = (cap.high[axis], cap.high[axis] + high) if far else (cap.low[axis] - high, cap.low[axis])
        yield Piece("screw head", (start[0], start[1], start[2]), (end[0], end[1], end[2]), mass)


def _gaps(box: Box, blocks: _Blocks, kinds: Mapping[str, ModuleKind], inner: Vec, low: Vec, high: Vec) -> Iterator[InnerGap]:
    for key, (_, laid) in blocks.items():
        for row in laid.rows:
            why = f"what the faces of neighbours {row.direction} ask for"
            says = f"between neighbours {row.direction}"
            yield InnerGap(f"{key}-{row.direction}", says, f"blocks/{key}", row.has_mm, row.needs_mm, why)
    yield from _between_blocks(list(blocks.items()), kinds)
    if box.inner.type == "fixed":
        wanted = _inner(box, low, high)
        for axis, name in enumerate(("aft", "across", "up")):
            why = "the given case against what the blocks ask for"
            yield InnerGap(f"case-{name}", f"room left {name}", "inner", inner[axis] - wanted[axis], 0.0, why)


def _between_blocks(blocks: list[tuple[str, tuple[Block, Laid]]], kinds: Mapping[str, ModuleKind]) -> Iterator[InnerGap]:
    for i, (key, (one, laid)) in enumerate(blocks):
        for other_key, (two, other) in blocks[i + 1 :]:
            apart, axis, first = _apart(one.origin_mm, laid.size_mm, two.origin_mm, other.size_mm)
            ask, back = (laid, other) if first else (other, laid)
            need = needed_between(ask, back, axis, (kinds[one.kind], kinds[two.kind]))
            faces = (ask.turned.looks[2 * axis + 1].replace("_", " "), back.turned.looks[2 * axis].replace("_", " "))
            why = f"{faces[0]} of one looks at {faces[1]} of the other: the larger of the two demands counts, not their sum"
            yield InnerGap(f"{key}-{other_key}", f"block {key} to block {other_key}", f"blocks/{key}", apart, need, why)


def _apart(a: Vec, a_size: Vec, b: Vec, b_size: Vec) -> tuple[float, int, bool]:
    """(largest axis gap, that axis, whether a comes first along it); negative when the blocks overlap."""
    gaps = [max(b[i] - a[i] - a_size[i], a[i] - b[i] - b_size[i]) for i in range(3)]
    axis = gaps.index(max(gaps))
    return gaps[axis], axis, b[axis] >= a[axis]


def _centre(metal: tuple[Piece, ...], modules: tuple[ShellModule, ...], kinds: Mapping[str, ModuleKind], fittings_kg: float) -> Vec:
    masses = [(p.mass_kg, p.low, p.high) for p in metal] + [(kinds[m.kind].mass_kg, m.low, m.high) for m in modules]
    if modules:
        low = tuple(min(m.low[i] for m in modules) for i in range(3))
        high = tuple(max(m.high[i] for m in modules) for i in range(3))
        masses.append((fittings_kg, low, high))  # type: ignore[arg-type]
    total = sum(m for m, _, _ in masses)
    at = [sum(m * (a[i] + b[i]) / 2 for m, a, b in masses) / total for i in range(3)]
    return at[0], at[1], at[2]
