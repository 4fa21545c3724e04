"""What one bay can take: boxes of every count worth having, each at a place where it truly stands."""

import math
from collections import Counter
from collections.abc import Callable, Hashable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox, bay_panels, resolve
from levelcradle.core.axes import Placement, Vec, minus, plus, rotation, vec
from levelcradle.core.bays import extent
from levelcradle.core.bays.panels import BEHIND_MM
from levelcradle.core.box import Shell, shell_of
from levelcradle.core.clearance import around, need_of_boxes, need_of_thing
from levelcradle.core.design import Design
from levelcradle.core.design.box import FACE_AT, Block, Box, Orientation, Pose
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.fit.edge_cuts import Cuts, EdgeCuts
from levelcradle.core.fit.grids import Grid, Triple, blocks_of, last_row, one_slice
from levelcradle.core.fit.mixed import Footprint, lengths_of, mixed_blocks, widest
from levelcradle.core.fit.pairs import pairs
from levelcradle.core.fit.space import ClearanceConstraint, Space, free_space
from levelcradle.core.fit.stand import pressing, solve_placement
from levelcradle.core.fit.wanted import Wanted
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.memo import Memo
from levelcradle.core.meshes import Mesh
from levelcradle.core.modules import orientations_for, turned
from levelcradle.core.solids import Solid

__all__ = ["PROBE", "BayCavity", "Option", "hindrances", "room_of"]

PROBE = "fit-probe"
SEEDS = 14
SQUEEZED = 6  # where so many ways of settling end up lacking the same, the box is squeezed wherever it stands
MOST_PAIRS = 300  # so many boxes of two grids are tried
ALIKE = 3  # so many boxes of one count are placed
MOST_COUNTS = 12  # so many counts are placed before the smaller ones are thinned out
_spaces: Memo[Space] = Memo(6)  # the next question is mostly about the same bays; one takes up to 40 MB


@dataclass(frozen=True, slots=True)
class Option:
    """One box at its place, and how many modules it holds."""

    box: Box
    modules: int


@dataclass(frozen=True, eq=False)
class BayCavity:
    """A bay with everything in it that a box must keep clear of, in a frame that leans by ``tilt_deg`` (nose raised +);
    ``only`` is the one turn that is looked at."""

    design: Design
    bay: str
    wishes: Wishes
    things: tuple[ClearanceConstraint, ...]
    low: Vec
    high: Vec
    tilt_deg: float = 0.0
    only: Orientation | None = None

    @cached_property
    def left(self) -> Mapping[str, int]:
        """How many of each kind there are to place."""
        return Wanted.of(self.design, self.wishes).left

    @cached_property
    def space(self) -> Space:
        key = (self.low, self.high, *(_content(thing) for thing in self.things))
        return _spaces.get(key, lambda: free_space(self.low, self.high, self.things))

    def options(self, most: int, *, every: bool, tell: Callable[[int], None] = lambda tried: None) -> Iterator[Option]:
        """The fullest boxes first in each turn, then the best smaller ones, then mixed turns; none above ``most``
        modules.

        Args:
            every: also counts that no grid has, as a grid whose last row is not full.
        """
        grids = {grid: list(self._could_stand(grid, min(most, self.left[grid.kind]))) for grid in self._grids()}
        seen: set[tuple[int, Vec]] = set()
        placed: Counter[int] = Counter()
        stood: list[tuple[float, int]] = []  # how high, how many
        for tried, (grid, counts, number) in enumerate(self._worth_trying(grids, most, every, placed)):
            tell(tried)
            key = (number, grid.outer(counts))
            if key in seen:
                continue
            seen.add(key)
            chamfers = self.wishes.chamfers and number > max(placed, default=0)
            if (box := self._standing(grid, counts, number, chamfers=chamfers)) is not None:
                placed[number] += 1
                stood.append((grid.outer(counts)[2], number))
                yield Option(box, number)
        if self.wishes.mixed_turns:
            yield from self._mixed(grids, most, stood)
        if len(self.wishes.kinds) > 1 or self.wishes.mixed_turns:
            yield from self._pairs(grids, most, max(placed, default=0))

    def _grids(self) -> Iterator[Grid]:
        """One grid for each outside size: turns that differ only in where the terminals look share it."""
        seen: set[tuple[str, Vec, Vec]] = set()
        for kind_id in self.wishes.kinds:
            kind = self.design.module_kinds[kind_id]
            for turn in [self.only] if self.only else _turns(kind, self.wishes):
                shape = turned(kind, turn)
                outer = self._shell(self._box({"a": Block(kind=kind_id, turn=turn)})).outer_mm
                x, y, z = (s + g for s, g in zip(shape.size_mm, shape.neighbour_mm, strict=True))
                if (kind_id, outer, (x, y, z)) not in seen:
                    seen.add((kind_id, outer, (x, y, z)))
                    yield Grid(kind_id, turn, outer, (x, y, z))

    def _worth_trying(
        self, grids: Mapping[Grid, Sequence[Triple]], most: int, every: bool, placed: Counter[int]
    ) -> Iterator[tuple[Grid, Triple, int]]:
        """Counts that could stand, fullest first; of one count the lowest and the flattest. Last comes how many it
        holds.

        ``placed`` says what stands meanwhile: so many of a count are enough, and once there are many counts the rest is
        thinned out."""
        tried = list(grids)
        rows = [(-math.prod(c), g.outer(c)[2], n, c) for n, g in enumerate(tried) for c in grids[g]]
        thinned = max(1, len({number for number, *_ in rows}) // MOST_COUNTS)
        for number, _, n, counts in sorted(rows):
            plenty = len(placed) >= MOST_COUNTS and -number not in placed and number % thinned
            if -number <= min(most, self.left[tried[n].kind]) and placed[-number] < ALIKE and not plenty:
                yield tried[n], counts, -number
        if not every:
            return
        # a count that no grid has: the next larger grid with its last row not full
        for number, _, n, counts in sorted(rows, key=lambda row: -row[0]):
            for less in range(min(-number - 1, most, self.left[tried[n].kind]), 0, -1):
                if not placed[less] and last_row(counts, -number - less) is not None:
                    yield tried[n], counts, less

    def _could_stand(self, grid: Grid, most: int) -> Iterator[Triple]:
        """Every count that the grid of cells lets stand: for each tier the border is walked once, since a larger box
        never stands where a smaller one cannot."""
        deep, wide, high = (self._at_most(grid, axis) for axis in range(3))
        for up in range(1, min(high, self.wishes.most_tiers) + 1):
            across = wide
            for aft in range(1, deep + 1):
                while across and not self.space.places(grid.outer((aft, across, up))).any():
                    across -= 1
                beyond = 1 if self.wishes.chamfers and across < wide else 0
                for n in range(1, across + beyond + 1):
                    if aft * n * up <= most + one_slice((aft, n, up)) - 1:
                        yield aft, n, up
            if not across and not self.space.places(grid.outer((1, 1, up))).any():
                return

    def _at_most(self, grid: Grid, axis: int) -> int:
        room = self.high[axis] - self.low[axis] - grid.base[axis]
        return 0 if room < -1e-6 else min(60, int((room + 1e-6) // grid.pitch[axis]) + 1)

    def _standing(self, grid: Grid, counts: Triple, number: int, *, chamfers: bool) -> Box | None:
        box = self._box(blocks_of(grid, counts, math.prod(counts) - number))
        stands = self.stand(box)
        return self._chamfered(box) if stands is None and chamfers else stands

    def _chamfered(self, box: Box) -> Box | None:
        """The box with as little as may be cut off edges that together let it stand."""
        tables, kinds = self.design.tables, self.design.module_kinds
        edges, stood = EdgeCuts(box, kinds, tables, self.wishes.largest_chamfer_mm), dict[Cuts, Box | None]()

        def holds(cuts: Cuts) -> bool:
            if cuts not in stood:
                stood[cuts] = self.stand(edges.box(cuts))
            return stood[cuts] is not None

        found = next((cuts for cuts in edges.most() if holds(cuts)), None)
        return stood[edges.least(found, holds)] if found else None

    def _mixed(self, grids: Iterable[Grid], most: int, stood: Sequence[tuple[float, int]]) -> Iterator[Option]:
        """Tiers in two turns, where these hold more than any plain box that stands and is no higher."""
        seen: set[tuple[str, str]] = set()
        for grid in grids:
            if (grid.kind, grid.turn.down) in seen:
                continue
            seen.add((grid.kind, grid.turn.down))
            foot = Footprint.of(grid.kind, self.design.module_kinds[grid.kind], grid.turn)
            for tiers in range(1, min(self._at_most(grid, 2), self.wishes.most_tiers) + 1):
                height = grid.outer((1, 1, tiers))[2]
                best = max((number for high, number in stood if high < height + 1e-6), default=0)
                for length in lengths_of(foot.length_mm, self.high[0] - self.low[0]):
                    width = widest(self.space, length, height, self.high[1] - self.low[1])
                    walls = 2 * (self.wishes.making.construction.thickness_mm + self.wishes.making.liners.wall_mm)
                    blocks = mixed_blocks(foot, (length - walls, width - walls), tiers, min(most, self.left[grid.kind]))
                    number = sum(b.counts.total for b in (blocks or {}).values())
                    if blocks and number > best and (box := self.stand(self._box(blocks))) is not None:
                        best = number
                        yield Option(box, number)

    def _pairs(self, grids: Mapping[Grid, Sequence[Triple]], most: int, above: int) -> Iterator[Option]:
        """The fullest boxes of two grids that hold more than any of one, the smallest of them first."""
        making, kinds = self.wishes.making, self.design.module_kinds
        wall = 2 * (making.construction.thickness_mm + making.liners.wall_mm)
        more = (wall, wall, making.construction.thickness_mm + making.liners.floor_mm)
        room = minus(minus(self.high, self.low), more)
        alone = {(grid.kind, grid.turn): counts for grid, counts in grids.items()}
        found = [p for p in pairs(alone, kinds, alone, room, self.left, above) if p.modules <= most]
        found.sort(key=lambda p: (-p.modules, math.prod(p.inside_mm)))
        stood, too_large = 0, list[Vec]()
        for pair in found[:MOST_PAIRS]:
            size = plus(pair.inside_mm, more)
            if any(all(a >= b - 1e-6 for a, b in zip(size, other, strict=True)) for other in too_large):
                continue  # a larger box never stands where a smaller one cannot
            if not self.space.places(size).any() or (box := self.stand(self._box(dict(pair.blocks)))) is None:
                too_large.append(size)
                continue
            stood += 1
            yield Option(box, pair.modules)
            if stood == ALIKE:
                return

    def stand(self, box: Box) -> Box | None:
        """The box at a place where it keeps every gap; None where none was found."""
        shell = self._shell(box)
        pieces = [p.solid for p in shell.outside]
        size = shell.outer_mm
        span = tuple(h - s for h, s in zip(self.high, size, strict=True))
        if any(s < lo - 1e-6 for s, lo in zip(span, self.low, strict=True)):
            return None
        last = (max(span[0], self.low[0]), max(span[1], self.low[1]), max(span[2], self.low[2]))
        lacking: Counter[float] = Counter()
        for seed in self._all_seeds(box, size, last):
            came = solve_placement(pieces, self.things, seed, self.low, last, self._preferred(size))
            if came.holds:
                return self._placed(box, pieces, came.at)
            lacking[round(came.lack_mm, 2)] += 1
            if lacking.most_common(1)[0][1] == SQUEEZED:
                return None
        return None

    def _all_seeds(self, box: Box, size: Vec, last: Vec) -> Iterator[Vec]:
        """Seeds for the whole box; where an edge is cut off, for what is left of it on either side of the edge."""
        if not box.chamfers:
            yield from self._seeds(size, last)
        for chamfer in box.chamfers.values():
            for face, mm in zip(chamfer.edge, chamfer.mm, strict=True):
                axis, far = FACE_AT[face]
                less = [s - mm if i == axis else s for i, s in enumerate(size)]
                for seed in self._seeds((less[0], less[1], less[2]), last):
                    back = [v - mm if i == axis and not far else v for i, v in enumerate(seed)]
                    yield max(back[0], self.low[0]), max(back[1], self.low[1]), max(back[2], self.low[2])

    def _seeds(self, size: Vec, last: Vec) -> Iterator[Vec]:
        """Places to begin at: the lowest of those with a cell to spare all round, else spread over all that the cells
        allow."""
        prefer = self._preferred(size)
        for spare in (2, 0, -1):
            found = self.space.places(size, spare=spare)
            if not found.any():
                continue
            cells = np.argwhere(found)
            corners = (
                np.array(self.space.low) + cells * self.space.step_mm + (self.space.step_mm if spare == 2 else 0.0)
            )
            rank = corners[:, 2] + 0.2 * np.abs(corners[:, :2] - np.array(prefer[:2])).sum(axis=1)
            order = np.argsort(rank, kind="stable")
            picks = [order[0], *order[:: max(1, len(order) // SEEDS)][1:SEEDS]]
            for pick in picks[: 3 if spare == 2 else SEEDS]:
                x, y, z = (float(min(max(v, lo), hi)) for v, lo, hi in zip(corners[pick], self.low, last, strict=True))
                yield x, y, z

    def one(self) -> Box:
        """A box of one module, in the first turn there is."""
        grid = next(iter(self._grids()))
        return self._box(blocks_of(grid, (1, 1, 1), 0))

    def _preferred(self, size: Vec) -> Vec:
        """In the middle across; along too, but at the metal where only one end has some, since that is what it hangs
        on."""
        sides = self.design.bays[self.bay].sides
        fore, aft = sides.fore.is_ == "metal", sides.aft.is_ == "metal"
        last = self.high[0] - size[0]
        along = (self.low[0] + last) / 2 if fore == aft else self.low[0] if fore else last
        return along, (self.low[1] + self.high[1] - size[1]) / 2, self.low[2]

    def _placed(self, box: Box, pieces: list[Solid], at: Vec) -> Box | None:
        """The box with its pose in vehicle axes, in tenths where these keep every gap too, else as finely as it
        takes."""
        turn = rotation(0.0, self.tilt_deg, 0.0)
        for place in (tuple(round(v, digits) for v in at) for digits in (1, 2, 3, 9)):
            if all(self._spare(pieces, (place[0], place[1], place[2]))):
                x, y, z = (float(v) for v in turn @ np.array(place))
                digits = 6 if self.tilt_deg else 9
                spot = (round(x, digits), round(y, digits), round(z, digits))
                return box.model_copy(
                    update={"pose": Pose(anchor="front-left-base", at_mm=spot, pitch_deg=self.tilt_deg)}
                )
        return None

    def _spare(self, pieces: list[Solid], at: Vec) -> Iterator[bool]:
        yield from (p.spare_mm >= -1e-9 for p in pressing(pieces, self.things, at, 0.0))

    def _box(self, blocks: dict[str, Block]) -> Box:
        making, bay = self.wishes.making, self.design.bays[self.bay]
        name = f"{bay.name} box"
        return Box(
            name=(name[:1].upper() + name[1:])[:120],
            bay=self.bay,
            material=making.material,
            construction=making.construction,
            weld_class=making.weld_class,
            layers=making.liners.layers(),
            blocks=blocks,
            pose=Pose(anchor="front-left-base", at_mm=(0.0, 0.0, 0.0)),
        )

    def _shell(self, box: Box) -> Shell:
        return shell_of(box, self.design.module_kinds, self.design.tables)


def _content(thing: ClearanceConstraint) -> Hashable:
    solid = thing.solid
    return thing.need_mm, solid if solid.surface else (solid.points.tobytes(), solid.radius_mm)


def _turns(kind: ModuleKind, wishes: Wishes) -> Iterator[Orientation]:
    """Turns the kind may rest in, those whose terminals can be reached from a wished side."""
    ways = {"front": 0, "aft": 1, "left": 2, "right": 3, "up": 5}
    for turn in orientations_for(kind):
        if wishes.rest_on and turn.down not in wishes.rest_on:
            continue
        looks = turned(kind, turn).looks
        if not wishes.towards or any(looks[ways[way]] == kind.terminals for way in wishes.towards):
            yield turn


def room_of(
    design: Design,
    bay_id: str,
    wishes: Wishes,
    *,
    meshes: Mapping[str, Mesh],
    tilt_deg: float = 0.0,
    only: Orientation | None = None,
) -> BayCavity:
    """A bay of a design as a room, everything about it turned into a frame that leans by ``tilt_deg``."""
    assembly = _with_probe(design, bay_id, wishes, meshes)
    probe = assembly.boxes[PROBE]
    back = Placement(rotation(0.0, tilt_deg, 0.0).T, (0.0, 0.0, 0.0))
    things = [replace(t, solid=t.solid.moved(back)) if tilt_deg else t for t in hindrances(assembly, probe)]
    low, high = extent(design.bays[bay_id])
    if wishes.leave_empty == "left":
        low = (low[0], min(max(low[1], 0.0), high[1]), low[2])
    elif wishes.leave_empty == "right":
        high = (high[0], max(min(high[1], 0.0), low[1]), high[2])
    if tilt_deg:
        corners = back.points(np.array(list(product(*zip(low, high, strict=True)))))
        low, high = vec(corners.min(axis=0)), vec(corners.max(axis=0))
    grown = (
        (low[0] - BEHIND_MM, low[1] - BEHIND_MM, low[2] - BEHIND_MM),
        (high[0] + BEHIND_MM, high[1] + BEHIND_MM, high[2] + BEHIND_MM),
    )
    near = tuple(t for t in things if _meets(t, *grown))
    return BayCavity(design, bay_id, wishes, near, low, high, tilt_deg, only)


def _meets(thing: ClearanceConstraint, low: Vec, high: Vec) -> bool:
    return all(
        thing.solid.low[i] - thing.need_mm <= high[i] and thing.solid.high[i] + thing.need_mm >= low[i]
        for i in range(3)
    )


def _with_probe(design: Design, bay_id: str, wishes: Wishes, meshes: Mapping[str, Mesh]) -> Assembly:
    """The design with a box of nothing in the bay, so that the rules say what a box there must keep clear of."""
    probe = Box(
        name=PROBE, bay=bay_id, material=wishes.making.material, pose=Pose(anchor="base", at_mm=(0.0, 0.0, 0.0))
    )
    return resolve(design.model_copy(update={"boxes": {**design.boxes, PROBE: probe}}), meshes)


def hindrances(assembly: Assembly, probe: PlacedBox) -> list[ClearanceConstraint]:
    """Everything a box must keep clear of, with its gap; the open sides of its bay at their outline."""
    return list(_hindrances(assembly, probe))


def _hindrances(assembly: Assembly, probe: PlacedBox) -> Iterator[ClearanceConstraint]:
    for thing in around(assembly, probe):
        yield ClearanceConstraint(thing.solid, need_of_thing(assembly, probe, thing).mm, thing.path, thing.name)
    for key, box in assembly.boxes.items():
        if key != probe.id:
            need = need_of_boxes(assembly, probe, box).mm
            yield from (ClearanceConstraint(piece.solid, need, box.path, box.box.name) for piece in box.pieces)
    bay_id, bay = probe.box.bay, assembly.bay_of(probe)
    for panel in bay_panels(bay) if bay and probe.id == PROBE else ():
        if getattr(bay.sides, panel.side).is_ != "metal":  # type: ignore[union-attr]
            yield ClearanceConstraint(
                panel.solid(BEHIND_MM), 0.0, f"bays/{bay_id}/sides/{panel.side}", f"open side, {panel.side}"
            )
