"""A box in its own frame: what is in it, and round that what its construction makes.

Origin at its outside front, left, base corner; aft, right, up in millimetres. Outside is the body without closures and
heads."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from levelcradle.core.axes import Vec, minus, plus, scaled
from levelcradle.core.box.chambers import ChamberMade, chambers_of
from levelcradle.core.box.chamfers import inside_chamfer, lined_beside
from levelcradle.core.box.cut_out import Taken, drilled
from levelcradle.core.box.holding import Held, Stack, room_of
from levelcradle.core.box.kinds import made_of
from levelcradle.core.box.lightening import Lightened, lightened_of
from levelcradle.core.box.made import Made
from levelcradle.core.box.openings import openings_of, outward, protruding
from levelcradle.core.box.piece import Outside, Piece, block_piece
from levelcradle.core.box.sealing import sealing_bought
from levelcradle.core.box.service_panels import ServicePanelMade, cut_through, opened_by, panels_of
from levelcradle.core.box.welding import pull_mm
from levelcradle.core.design.base import FACE_PAIRS, FACES, ModuleFace
from levelcradle.core.design.box import Block, Box
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.design.tables import Material, Tables
from levelcradle.core.memo import Memo, written
from levelcradle.core.modules import Laid, lay_out, needed_between_mm
from levelcradle.core.part import FlatPart, Hole
from levelcradle.core.solids import point

__all__ = ["InnerGap", "Shell", "ShellModule", "shell_of"]

_Blocks = Mapping[str, tuple[Block, Laid]]


@dataclass(frozen=True, slots=True)
class ShellModule:
    """A module in the box: which block and kind, what that kind is, its number in the box, and its corners."""

    block: str
    kind: str
    spec: ModuleKind
    number: int
    low: Vec
    high: Vec
    looks: tuple[ModuleFace, ...]


@dataclass(frozen=True, slots=True)
class InnerGap:
    """A gap inside the box: between neighbours of a block, two blocks, or a block and the liner of a fixed case."""

    name: str
    message: str
    subject: str
    has_mm: float
    needs_mm: float
    rationale: str


@dataclass(frozen=True, eq=False)
class Shell:
    """Everything about a box that does not depend on where it stands.

    Attributes:
        inner_mm: size between the walls.
        pull_mm: how much of it is left for the pull of its welds, half of it at either end.
        made: what its construction answers: outside size, walls, parts.
        outside: pieces that make its outside: body, closures, heads, and what stands out of it.
        allowed_kg: what links, liners and what holds the modules are said to weigh.
        held: the stacks of modules, and what holds them.
        chambers: for gear, on its faces.
        service_panels: in its walls.
        lightened: the holes in its walls that only take weight off.
        plates: its dividers, each with its block and its corners.
        cg: centre of gravity, full, in the box's frame.
    """

    inner_mm: Vec
    pull_mm: Vec
    made: Made
    outside: tuple[Outside, ...]
    modules: tuple[ShellModule, ...]
    gaps: tuple[InnerGap, ...]
    allowed_kg: float
    held: Held
    chambers: tuple[ChamberMade, ...]
    service_panels: tuple[ServicePanelMade, ...]
    lightened: tuple[Lightened, ...]
    plates: tuple[tuple[str, Vec, Vec], ...]
    _dividers: tuple[Piece, ...]

    @property
    def outer_mm(self) -> Vec:
        return self.made.outer_mm

    @property
    def over_mm(self) -> Vec:
        """Size with closures, without heads."""
        low, high = self.made.over
        return minus(high, low)

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """Everything it is made of, as real solids."""
        chambers = (piece for chamber in self.chambers for piece in chamber.pieces())
        own = tuple(self.made.pieces())
        for panel in self.service_panels:
            own = tuple(opened_by(own, panel))
        for holes in self.lightened:
            own = tuple(holes.lighter(own))
        covers = (piece for panel in self.service_panels for piece in panel.pieces())
        return (*own, *self._dividers, *self.held.pieces, *chambers, *covers)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """The flat parts of its walls, with the openings of its service panels, its lightening holes and those of what
        holds its modules; and covers."""
        bolts = [
            (hole.at, outward(hole.face), Hole((0.0, 0.0), hole.diameter_mm, hole.name)) for hole in self.held.holes()
        ]
        for part in self.made.parts(box_id, name):
            cut = cut_through(part, self.service_panels)
            for holes in self.lightened:
                cut = holes.through(cut)
            yield drilled(cut, bolts)
        for panel in self.service_panels:
            yield from panel.parts(box_id, name)

    def bought(self) -> Iterator[tuple[str, int]]:
        """What is bought for it and its chambers, and how many of it; what sits in openings is not among it."""
        yield from self.made.bought()
        yield from self.held.bought()
        yield from sealing_bought(self.held.box, self.made, self.air_l)
        for panel in self.service_panels:
            yield from panel.bought()
        if self.modules:
            yield "bonding strap, from a box to the body", 1
        for chamber in self.chambers:
            yield from ((f"{what}: {chamber.spec.name}", count) for what, count in chamber.made.bought())

    @property
    def air_l(self) -> float:
        """What is left of the inside beside its modules."""
        modules = sum(_volume(minus(m.high, m.low)) for m in self.modules)
        return max(_volume(self.inner_mm) - modules, 0.0) * 1e-6

    @cached_property
    def shell_kg(self) -> float:
        """Without what holds the modules, which is one of the fittings."""
        return sum(piece.mass_kg for piece in self.pieces if piece.role != "holder")

    @property
    def held_kg(self) -> float:
        return sum(piece.mass_kg for piece in self.held.pieces)

    @property
    def fittings_kg(self) -> float:
        """As said, or what is drawn of it where that is more."""
        return max(self.allowed_kg, self.held_kg)

    @property
    def full_kg(self) -> float:
        """With modules and fittings."""
        return self.shell_kg + sum(m.spec.mass_kg for m in self.modules) + self.fittings_kg

    @cached_property
    def cg(self) -> Vec:
        rows = [(p.mass_kg, p.centre) for p in self.pieces]
        rows += [(m.spec.mass_kg, _middle(m.low, m.high)) for m in self.modules]
        if self.modules:
            lows, highs = zip(*((m.low, m.high) for m in self.modules), strict=True)
            low, high = [min(c) for c in zip(*lows, strict=True)], [max(c) for c in zip(*highs, strict=True)]
            rows.append(
                (self.fittings_kg - self.held_kg, _middle((low[0], low[1], low[2]), (high[0], high[1], high[2])))
            )
        x, y, z = (sum(kg * at[i] for kg, at in rows) / self.full_kg for i in range(3))
        return x, y, z


def _volume(size: Vec) -> float:
    return size[0] * size[1] * size[2]


def _middle(low: Vec, high: Vec) -> Vec:
    return (low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2


_shells: Memo[Shell] = Memo(512)


def shell_of(box: Box, kinds: Mapping[str, ModuleKind], tables: Tables) -> Shell:
    """The box in its own frame. Cached by the content it depends on: not its name, pose, bay or mounts."""
    used = sorted({block.kind for block in box.blocks.values()})
    held_by = written(tables) if box.holders else ""
    boards = {block.dividers.material for block in box.blocks.values() if block.dividers} - {None}
    content = (
        box.model_dump_json(exclude={"name", "bay", "pose", "vented_outside", "bond_ohm", "filler", "order"}),
        *((key, written(kinds[key])) for key in used),
        tables.materials[box.material],
        held_by,
        *((key, tables.liners[key]) for key in sorted(filter(None, boards))),
    )
    return _shells.get(content, lambda: _shell(box, kinds, tables))


def _shell(box: Box, kinds: Mapping[str, ModuleKind], tables: Tables) -> Shell:
    blocks = {
        key: (block, lay_out(block, kinds[block.kind]))
        for key, block in sorted(box.blocks.items(), key=lambda row: (row[1].order, row[0]))
    }
    stacks = {key: Stack(block, kinds[block.kind], laid, tables) for key, (block, laid) in blocks.items()}
    low, high = _wanted(box, stacks)
    wanted, material = _inner(box, low, high), tables.materials[box.material]
    pull = pull_mm(box, wanted)
    made = made_of(box, plus(wanted, pull), material)
    lined = (box.lined_mm("front"), box.lined_mm("left"), box.lined_mm("base"))
    start = plus(plus(made.start_mm, lined), scaled(pull, 0.5))
    shift = (start[0] - low[0], start[1] - low[1], start[2] - low[2])
    modules = tuple(_modules(blocks, kinds, shift))
    given = _in_the_case(made.inner_mm, plus(wanted, pull)) if made.given else ()
    chambers, plates = chambers_of(box, made, material), tuple(_plates(made, blocks, shift))
    panels = panels_of(box, made, material)
    lightened = lightened_of(box, made, material, chambers, panels)
    placed = {key: (stack, plus(stack.block.origin_mm, shift)) for key, stack in stacks.items()}
    held = Held.of(box, placed, made, pull, tuple(_taken(box, made, panels, lightened)))
    covers = (piece for panel in panels for piece in panel.outside())
    own = (replace(piece, role="chamber") for chamber in chambers for piece in chamber.outside)
    return Shell(
        inner_mm=made.inner_mm,
        pull_mm=pull,
        made=made,
        outside=(*made.outside(), *protruding(box, made), *held.outside, *own, *covers),
        modules=modules,
        gaps=(
            *_gaps(blocks, kinds),
            *given,
            *_beside_chamfers(box, made, modules),
        ),
        allowed_kg=box.fittings.box_kg + box.fittings.per_module_kg * len(modules),
        held=held,
        chambers=chambers,
        service_panels=panels,
        lightened=lightened,
        plates=plates,
        _dividers=tuple(_divider(blocks[key][0], low, high, material, tables) for key, low, high in plates),
    )


def _taken(box: Box, made: Made, panels: Sequence[ServicePanelMade], lightened: Sequence[Lightened]) -> Iterator[Taken]:
    """What of the faces no bolt can go through any more."""
    for hole in openings_of(box, made.outer_mm):
        yield Taken(box.openings[hole.name].face, box.openings[hole.name].name, point(hole.at), hole.seat_mm / 2)
    yield from (Taken(panel.spec.face, panel.spec.name, panel.cover) for panel in panels)
    for holes in lightened:
        radius = holes.spec.diameter_mm / 2
        yield from (Taken(holes.spec.face, "a lightening hole", point(at), radius) for at in holes.at)


def _wanted(box: Box, stacks: Mapping[str, Stack]) -> tuple[Vec, Vec]:
    """Corners of the free space that all blocks ask for together with what holds them, in their own frame."""
    if not stacks:
        return (0.0, 0.0, 0.0), (100.0, 100.0, 100.0)
    lows, highs = [], []
    for key, stack in stacks.items():
        origin, laid, held = stack.block.origin_mm, stack.laid, room_of(box, key, stack)
        asks = [max(ask, held.get(face, 0.0)) for ask, face in zip(laid.turned.face_clearance_mm, FACES, strict=True)]
        lows.append([origin[i] - asks[2 * i] for i in range(3)])
        highs.append([origin[i] + laid.size_mm[i] + asks[2 * i + 1] for i in range(3)])
    low, high = [min(c) for c in zip(*lows, strict=True)], [max(c) for c in zip(*highs, strict=True)]
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _inner(box: Box, low: Vec, high: Vec) -> Vec:
    """Between the walls: what the blocks ask for, and the layers before and behind."""
    x, y, z = (
        high[axis] - low[axis] + box.lined_mm(one) + box.lined_mm(other) for axis, (one, other) in enumerate(FACE_PAIRS)
    )
    return x, y, z


def _modules(blocks: _Blocks, kinds: Mapping[str, ModuleKind], shift: Vec) -> Iterator[ShellModule]:
    number = 0
    for key, (block, laid) in blocks.items():
        origin = plus(block.origin_mm, shift)
        for module in laid.modules:
            number += 1
            low, high = plus(origin, module.low), plus(origin, module.high)
            yield ShellModule(key, block.kind, kinds[block.kind], number, low, high, module.looks)


def _plates(made: Made, blocks: _Blocks, shift: Vec) -> Iterator[tuple[str, Vec, Vec]]:
    """Dividers between modules, across the whole inside: of which block, and their corners."""
    end = plus(made.start_mm, made.inner_mm)
    for key, (block, laid) in blocks.items():
        if block.dividers is None:
            continue
        axis = ("aft", "across", "up").index(block.dividers.along)
        for start in laid.plates:
            low, high = list(made.start_mm), list(end)
            low[axis] = block.origin_mm[axis] + shift[axis] + start
            high[axis] = low[axis] + block.dividers.thickness_mm
            yield key, (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _divider(block: Block, low: Vec, high: Vec, material: Material, tables: Tables) -> Piece:
    """Of the box's own sheet, or a board of the table; one of which nobody has said how dense it is weighs nothing
    here, and that is told."""
    board = block.dividers and block.dividers.material
    if board:
        return block_piece("board", "board", low, high, tables.liners[board].density_kg_m3 or 0.0)
    return block_piece("divider", "divider", low, high, material.density_kg_m3)


def _beside_chamfers(box: Box, made: Made, modules: tuple[ShellModule, ...]) -> Iterator[InnerGap]:
    for key, chamfer in box.chamfers.items():
        if modules:
            has = min(inside_chamfer(chamfer, made.wall_mm, made.outer_mm, m.low, m.high) for m in modules)
            lined = lined_beside(box, chamfer.edge)
            message = f"modules to the {chamfer.words}"
            yield InnerGap(f"chamfer-{key}", message, f"chamfers/{key}", has, lined, "the liner on the sloped wall")


def _gaps(blocks: _Blocks, kinds: Mapping[str, ModuleKind]) -> Iterator[InnerGap]:
    for key, (_, laid) in blocks.items():
        for row in laid.rows:
            why = f"what the faces of neighbours {row.direction} ask for"
            message = f"between neighbours {row.direction}"
            yield InnerGap(f"{key}-{row.direction}", message, f"blocks/{key}", row.has_mm, row.needs_mm, why)
    yield from _between_blocks(list(blocks.items()), kinds)


def _in_the_case(inner: Vec, wanted: Vec) -> Iterator[InnerGap]:
    """What a given inside leaves."""
    for axis, name in enumerate(("aft", "across", "up")):
        why = "the given case against what the blocks ask for"
        yield InnerGap(f"case-{name}", f"room left {name}", "inner", inner[axis] - wanted[axis], 0.0, why)


def _between_blocks(
    blocks: list[tuple[str, tuple[Block, Laid]]], kinds: Mapping[str, ModuleKind]
) -> Iterator[InnerGap]:
    for i, (key, (one, laid)) in enumerate(blocks):
        for other_key, (two, other) in blocks[i + 1 :]:
            apart, axis, first = _apart(one.origin_mm, laid.size_mm, two.origin_mm, other.size_mm)
            ask, back = (laid, other) if first else (other, laid)
            need = needed_between_mm(ask, back, axis, (kinds[one.kind], kinds[two.kind]))
            faces = (ask.turned.looks[2 * axis + 1].replace("_", " "), back.turned.looks[2 * axis].replace("_", " "))
            why = (
                f"{faces[0]} of one looks at {faces[1]} of the other: the larger of the two demands counts, not "
                f"their sum"
            )
            yield InnerGap(f"{key}-{other_key}", f"block {key} to block {other_key}", f"blocks/{key}", apart, need, why)


def _apart(a: Vec, a_size: Vec, b: Vec, b_size: Vec) -> tuple[float, int, bool]:
    """(largest axis gap, that axis, whether a comes first along it); negative when the blocks overlap."""
    gaps = [max(b[i] - a[i] - a_size[i], a[i] - b[i] - b_size[i]) for i in range(3)]
    axis = gaps.index(max(gaps))
    return gaps[axis], axis, b[axis] >= a[axis]
