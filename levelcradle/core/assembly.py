"""resolve(design) → Assembly: solids and masses in vehicle axes, computed once; every check reads it."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise
from typing import Literal

from levelcradle.core.axes import Placement, Vec, cross, plus, rotation, scaled, vec
from levelcradle.core.bays import Metal, Panel, faces, metal, panels, pierced, sections
from levelcradle.core.box import Shell, shell_of
from levelcradle.core.connection import Connection, Seat, connect, crossmember_in, frame_of, spot_of
from levelcradle.core.crossmember import PlacedCrossmember
from levelcradle.core.design import ANCHORS, Bay, Box, Design, Item, Mount, Pose, Tables, Vehicle, tree_of
from levelcradle.core.design.accepted import accepted_plus_minus, guesses, under
from levelcradle.core.design.agreed import AgreedGap, Chain
from levelcradle.core.design.base import Face, Side
from levelcradle.core.design.bay import BaySide
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.readings import kind_of
from levelcradle.core.design.survey import InBox, KeepClear, LoadState, Member, VehicleOpening
from levelcradle.core.design.taken import as_taken, untaken_things
from levelcradle.core.design.vehicle import Weighed, Weighing
from levelcradle.core.design.weighed import WeighedAlone, weighed_alone
from levelcradle.core.design.words import words_of
from levelcradle.core.gear import Gear, gear_of, thing_solids
from levelcradle.core.memo import Memo, written
from levelcradle.core.meshes import Mesh, scans_of
from levelcradle.core.quantity import QuantityKind
from levelcradle.core.solids import Solid, block, bounds, hull

__all__ = [
    "Assembly",
    "Obstacle",
    "PlacedBox",
    "PlacedPiece",
    "Weight",
    "anchor_of",
    "bay_faces",
    "bay_panels",
    "face_of",
    "member_solid",
    "middle_of",
    "outside_of",
    "resolve",
    "seat_of",
    "side_word",
    "stands",
]


@dataclass(frozen=True, slots=True)
class PlacedPiece:
    """A piece of a box's outside: its own (``role`` says what), of one of its mounts (then ``mount`` names it), or of a
    thing fixed on it (``gear``)."""

    name: str
    solid: Solid
    role: Literal["body", "closure", "fastener", "protrusion", "chamber", "panel", "bracket", "gear"]
    mount: str | None = None
    gear: str | None = None


@dataclass(frozen=True, eq=False, slots=True)
class PlacedBox:
    """A box in the vehicle: shell, outside pieces, mounts and gear.

    Attributes:
        full_kg, cg: of the full box alone; ``hung_kg``, ``hung_cg``: with its brackets and doublers and everything
            fixed to it, at their places: what its mounts carry and what is lifted.
        weighed: what it weighed alone, where it was weighed: that counts, not what was computed.
        structure: what it is fixed to: its hard points', else its bay's.
        unweighed: names of what is fixed to it and lacks its mass or its place; then hung_kg is too little.
        hangers: of each mount what its pieces weigh [kg], and their CG.

    Made once for the same content, so that what follows from it alone is cached by its identity.
    """

    id: str
    box: Box
    shell: Shell
    placement: Placement
    pieces: tuple[PlacedPiece, ...]
    mounts: tuple[Connection, ...]
    gear: tuple[Gear, ...]
    cg: Vec
    hung_kg: float
    hung_cg: Vec
    structure: str
    hangers: tuple[tuple[float, Vec], ...]
    weighed: WeighedAlone | None = None

    @property
    def path(self) -> str:
        return f"boxes/{self.id}"

    @property
    def name(self) -> str:
        return self.box.name

    @property
    def full_kg(self) -> float:
        """As weighed, else as computed."""
        return self.weighed.kg if self.weighed else self.shell.full_kg

    @property
    def travel_mm(self) -> float:
        """How far it may move on its isolators, any way."""
        return max((m.spot.isolator.travel_mm for m in self.mounts if m.spot.isolator), default=0.0)

    @property
    def unweighed(self) -> tuple[str, ...]:
        return tuple(g.item.name for g in self.gear if g.mass_kg is None or g.at is None)


@dataclass(frozen=True, eq=False, slots=True)
class Obstacle:
    """Something a box must keep clear of, or one convex piece of it: pieces share a path. ``kind``: a thing, room kept
    before one, a space that is no thing, a member of the vehicle, a side of a bay, a lump on one, or a bay that is a
    crush zone. One is made once for the same content and known by identity: what follows from it is cached by it."""

    path: str
    name: str
    solid: Solid
    gap_class: str
    kind: Literal["thing", "room", "space", "member", "side", "lump", "bay"] = "thing"
    crush: bool = False
    lowest: bool = False  # a line below which nothing may hang
    bay: str | None = None  # of a bay's side: the bay it belongs to
    fixed_to: str | None = None
    side: str | None = None
    structure: str = "body"
    shielded: bool = False
    opens: bool = False


_obstacle = lru_cache(maxsize=16_384)(Obstacle)


@dataclass(frozen=True, slots=True)
class Weight:
    """What a thing weighs [kg] that comes out, goes in or rides along, and where its CG is in vehicle axes [mm], also
    of one that is placed in a box; None where nobody said. ``tol_kg``, ``place_tol_mm``: ± as stated, or as somebody
    answers for a guess; ``guessed``: nobody weighed it, and nobody answers for it."""

    path: str
    name: str
    state: Literal["out", "in", "payload"]
    kg: float | None
    tol_kg: float
    at: Vec | None
    place_tol_mm: Vec
    guessed: bool


@dataclass(frozen=True, slots=True)
class Assembly:
    """Everything in vehicle axes: checks ask it what stands where, what it weighs, how sure that is and what gap it
    needs. A check of what the document says takes the design itself; none reads it off here."""

    design: Design
    boxes: Mapping[str, PlacedBox]
    obstacles: tuple[Obstacle, ...]  # without bay sides
    crossmembers: Mapping[str, PlacedCrossmember]
    weights: Mapping[str, Weight]  # by the thing's id: what comes out first, then by their order
    sides: tuple[Obstacle, ...]  # as seen by boxes of other bays
    own_sides: Mapping[str, tuple[Obstacle, ...]]  # bay → its sides as seen by its own boxes
    missing_scans: tuple[str, ...]  # files the design speaks of that were not at hand
    guesses: tuple[str, ...]  # paths of figures that nobody took, or answers for
    untaken: Mapping[str, list[str]]  # of those the ones that nobody took, by the thing they are of

    def in_order(self) -> list[PlacedBox]:
        """Boxes by their order, then name: the order in which modules are numbered."""
        return sorted(self.boxes.values(), key=lambda box: (box.box.order, box.box.name, box.id))

    @property
    def bays(self) -> Mapping[str, Bay]:
        return self.design.bays

    @property
    def vehicle(self) -> Vehicle:
        return self.design.vehicle

    @property
    def tables(self) -> Tables:
        return self.design.tables

    @property
    def weighings(self) -> Mapping[str, Weighed]:
        return self.design.weighings

    @property
    def weighing(self) -> Weighing | None:
        """What the car weighed as found."""
        return self.design.weighing

    @property
    def load_states(self) -> Mapping[str, LoadState]:
        return self.design.load_states

    @property
    def chains(self) -> Mapping[str, Chain]:
        """Rows of stack-ups that were entered by hand."""
        return self.design.chains

    def bay_of(self, box: PlacedBox) -> Bay | None:
        """The space a box is meant for."""
        return self.bays.get(box.box.bay or "")

    def box_at(self, path: str) -> PlacedBox | None:
        return next((box for box in self.boxes.values() if box.path == path), None)

    def thing_at(self, path: str) -> Obstacle | None:
        """What stands there, by its path; of what is made of several pieces the first."""
        own = (side for sides in self.own_sides.values() for side in sides)
        return next((thing for thing in (*self.obstacles, *self.sides, *own) if thing.path == path), None)

    @property
    def widest_gap_mm(self) -> float:
        """No pair needs a wider gap."""
        agreed = (row.need_mm for row in self.design.agreed_gaps.values())
        return max([*(row.need_mm for row in self.tables.gaps.values()), *agreed])

    def agreed(self, one: str, other: str) -> AgreedGap | None:
        """The gap between two things that was agreed by hand, by their paths."""
        return next((row for row in self.design.agreed_gaps.values() if {row.one, row.other} == {one, other}), None)

    def assumed(self, thing: "Obstacle | PlacedBox") -> str | None:
        """A figure of a thing that is not taken, or assumed and nobody answers for; of a side that of its space, of a
        box that of the modules in it."""
        if isinstance(thing, Obstacle):
            return self.guess_of(f"bays/{thing.bay}" if thing.bay else thing.path)
        return self.guess_of(thing.path) or self.guess_in(thing, ("length",))

    def guess_of(self, path: str) -> str | None:
        """A figure of what stands at a path that is not taken, or assumed and nobody answers for."""
        return next((found for found in self.guesses if under(found, f"/{path}")), None)

    def words_of(self, path: str) -> str:
        """What a figure of the document is called."""
        return words_of(tree_of(self.design), path)

    def guess_in(self, box: PlacedBox, sorts: tuple[QuantityKind, ...] = ("length", "mass")) -> str | None:
        """Such a figure of the modules in a box: of their sizes and the room they ask for, or their mass."""
        if not self.guesses:
            return None
        kinds = {f"/module_kinds/{module.kind}" for module in box.shell.modules}
        return next((g for g in self.guesses if kind_of(g) in sorts and any(under(g, kind) for kind in kinds)), None)

    def stated_mm(self, thing: "Obstacle | PlacedBox") -> float | None:
        """How far the place of a thing may be off: what was said of its whole space, or the widest its readings state;
        None where nothing was said."""
        if isinstance(thing, Obstacle) and thing.bay and (tape := self.bays[thing.bay].tolerance_mm) is not None:
            return tape
        rows = [reading for path, reading in self.design.readings.items() if path.startswith(f"/{thing.path}/")]
        stated = [row.tolerance for row in rows if row.tolerance is not None]
        return max([*stated, *(row.accepted.plus_minus for row in rows if row.accepted)], default=None)


def resolve(design: Design, meshes: Mapping[str, Mesh]) -> Assembly:
    """Solids and masses of a design in vehicle axes.

    Args:
        meshes: the scans the design speaks of, by file; one that is missing is left out (and told by a finding).
    """
    told, design = design, as_taken(design)
    missing = tuple(sorted(file for file in scans_of(design) if file not in meshes))
    source = _Source.of(design, meshes)
    boxes = {key: _placed(key, box, source) for key, box in design.boxes.items()}
    things = tuple(_things(design, boxes, meshes))
    holes = tuple(design.openings.values())
    own = {key: tuple(_sides(key, bay, holes, own_bay=True)) for key, bay in design.bays.items()}
    sides = tuple(side for key, bay in design.bays.items() for side in _sides(key, bay, holes, own_bay=False))
    unsure = guesses(told)
    weights = _weights(design, boxes, unsure)
    bars = {key: crossmember_in(design, key) for key in design.crossmembers}
    return Assembly(design, boxes, things, bars, weights, sides, own, missing, unsure, untaken_things(told))


def _weights(design: Design, boxes: Mapping[str, PlacedBox], unsure: Sequence[str]) -> dict[str, Weight]:
    rows = sorted(design.items.items(), key=lambda row: (row[1].state != "out", row[1].order, row[1].name))
    placed = {gear.id: gear.at for box in boxes.values() for gear in box.gear}
    guessed = {path for path in unsure if path.startswith("/items/")}
    read = {path.split("/")[2] for path in design.readings if path.startswith("/items/")}
    found = {}
    for key, item in rows:
        if item.state == "stays":
            continue
        path = f"items/{key}"
        mass = f"/{path}/mass_kg"
        found[key] = Weight(
            path,
            item.name,
            item.state,
            item.weighs_kg,
            max(item.tol_kg, accepted_plus_minus(design, mass) or 0.0),
            placed.get(key) if isinstance(item.place, InBox) else item.at_mm,
            _place_tol(design, f"/{path}/at_mm") if key in read else (0.0, 0.0, 0.0),
            any(under(guess, mass) for guess in guessed),
        )
    return found


def _place_tol(design: Design, path: str) -> Vec:
    """± of a thing's place along each axis, where its readings state one."""
    whole = design.readings.get(path)
    rows = [design.readings.get(f"{path}/{axis}") or whole for axis in range(3)]
    return vec([row.tolerance or 0.0 if row else 0.0 for row in rows])


def _things(design: Design, boxes: Mapping[str, PlacedBox], meshes: Mapping[str, Mesh]) -> Iterator[Obstacle]:
    gear = {g.id: g.solids for box in boxes.values() for g in box.gear}
    for key, item in design.items.items():
        if item.state not in ("stays", "in") or item.solid is None:
            continue
        for solid in gear[key] if key in gear else thing_solids(item.solid, item, meshes):
            yield _obstacle(
                f"items/{key}",
                item.name,
                solid,
                item.gap_class,
                fixed_to=item.held_by,
                structure=item.structure,
                shielded=item.shielded,
            )
            for name, room in item.keep_clear.items():
                path = f"items/{key}/keep_clear/{name}"
                yield _obstacle(
                    path,
                    f"{item.name}, {room.reason or 'room kept'}",
                    _kept(solid, room),
                    "same",
                    "room",
                    fixed_to=item.held_by,
                )
    for key, space in design.keepouts.items():
        for solid in thing_solids(space.solid, None, meshes):
            crush, lowest = space.kind == "crush", space.kind == "lowest"
            yield _obstacle(f"keepouts/{key}", space.name, solid, space.gap_class, "space", crush=crush, lowest=lowest)
    for key, member in design.members.items():
        yield _obstacle(
            f"members/{key}", member.name, member_solid(member), "same", "member", structure=member.structure
        )
    for key in design.crossmembers:
        bar = crossmember_in(design, key)
        for solid in bar.solids:
            yield _obstacle(bar.path, bar.spec.name, solid, "same", "member", structure=bar.ends[0].structure)


@lru_cache(maxsize=4096)
def _kept(solid: Solid, room: KeepClear) -> Solid:
    """The room before a face of the upright block round a thing."""
    return block(*room.before(solid.low, solid.high, room.depth_mm))


@lru_cache(maxsize=1024)
def member_solid(member: Member) -> Solid:
    """A member's outside: its section square to its line, width level."""
    return hull(_member_corners(member))


def _member_corners(member: Member) -> list[Vec]:
    along, up = frame_of(member)
    side = cross(up, along)
    ways = [(s * member.width_mm / 2, t * member.height_mm / 2) for s in (-1, 1) for t in (-1, 1)]
    return [plus(p, plus(scaled(side, a), scaled(up, b))) for p in (member.start_mm, member.end_mm) for a, b in ways]


def bay_panels(bay: Bay) -> tuple[Panel, ...]:
    """The panels of a bay. Cached by content."""
    return _panels(written(bay))


@lru_cache(maxsize=256)
def _panels(bay_json: str) -> tuple[Panel, ...]:
    return tuple(panels(Bay.model_validate_json(bay_json)))


def bay_faces(bay: Bay) -> tuple[tuple[str, tuple[Vec, ...]], ...]:
    """(side, corners) of every face of a bay. Cached by content."""
    return _faces(written(bay))


@lru_cache(maxsize=256)
def _faces(bay_json: str) -> tuple[tuple[str, tuple[Vec, ...]], ...]:
    return tuple(faces(Bay.model_validate_json(bay_json)))


@lru_cache(maxsize=256)
def _metal(bay_json: str, own_bay: bool, holes: tuple[VehicleOpening, ...]) -> tuple[tuple[Metal, bool], ...]:
    """The metal of a bay without what is to be cut out of it; of each piece whether it opens."""
    found = metal(Bay.model_validate_json(bay_json), own_bay=own_bay)
    return tuple(
        (replace(piece, solid=solid), opens) for piece in found for solid, opens in pierced(piece.solid, holes)
    )


@lru_cache(maxsize=256)
def _room(bay_json: str) -> tuple[Solid, ...]:
    """The room of a bay between each two sections, as if they bulged nowhere inward: never less than it."""
    return tuple(
        hull([*near.points, *far.points]) for near, far in pairwise(sections(Bay.model_validate_json(bay_json)))
    )


def _sides(key: str, bay: Bay, holes: tuple[VehicleOpening, ...], *, own_bay: bool) -> Iterator[Obstacle]:
    """What walls a bay, its room itself where that is a crush zone; a hot one has hot sides."""
    shape = written(bay)
    for piece, opens in _metal(shape, own_bay, holes):
        lump = bay.lumps[piece.lump].name if piece.lump else ""
        path = f"bays/{key}/lumps/{piece.lump}" if piece.lump else f"bays/{key}/sides/{piece.side}"
        side = getattr(bay.sides, piece.side)
        kind: Literal["side", "lump"] = "lump" if piece.lump else "side"
        yield _obstacle(
            path,
            f"{bay.name} {lump or side_word(piece.side)}",
            piece.solid,
            "hot" if "hot" in bay.flags else side.gap_class,
            kind,
            bay=key,
            side=piece.side,
            structure=bay.structure,
            opens=side.opens or opens,
        )
    if "crush" in bay.flags:
        for solid in _room(shape):
            yield _obstacle(f"bays/{key}", f"{bay.name}, a crush zone", solid, "same", "bay", crush=True, bay=key)


def side_word(side: BaySide) -> str:
    return {"fore": "front", "aft": "rear", "left": "left side", "right": "right side", "floor": "floor", "top": "top"}[
        side
    ]


_placed_boxes: Memo[PlacedBox] = Memo(512)


@dataclass(frozen=True, slots=True)
class _Source:
    """What boxes are placed from: the design and its scans, with what they all look up, written out once."""

    weighed: Mapping[str, WeighedAlone]
    design: Design
    meshes: Mapping[str, Mesh]
    tables: str
    kinds: Mapping[str, str]
    held: Mapping[str, list[tuple[str, Item]]]  # box → what is fixed in or on it
    mounts: Mapping[str, list[tuple[str, Mount]]]  # box → its mounts, in their order

    @staticmethod
    def of(design: Design, meshes: Mapping[str, Mesh]) -> "_Source":
        used = {block.kind for box in design.boxes.values() for block in box.blocks.values()}
        held: dict[str, list[tuple[str, Item]]] = {}
        for key, item in sorted(design.items.items()):
            if item.held_by is not None and item.state in ("in", "stays"):
                held.setdefault(item.held_by, []).append((key, item))
        mounts: dict[str, list[tuple[str, Mount]]] = {}
        for key, mount in sorted(design.mounts.items(), key=lambda row: (row[1].order, row[0])):
            mounts.setdefault(mount.box, []).append((key, mount))
        return _Source(
            weighed_alone(design),
            design,
            meshes,
            written(design.tables),
            {kind: written(design.module_kinds[kind]) for kind in used},
            held,
            mounts,
        )


def _placed(key: str, box: Box, source: _Source) -> PlacedBox:
    design, gear, mounts = source.design, source.held.get(key, []), source.mounts.get(key, [])
    content = (
        key,
        _structure_of(box, design),
        written(box),
        *(source.kinds[kind] for kind in sorted({block.kind for block in box.blocks.values()})),
        *((name, written(mount), spot_of(mount.lands_on, design)) for name, mount in mounts),
        *((name, written(item), source.meshes.get(getattr(item.solid, "file", ""))) for name, item in gear),
        source.tables,
        source.weighed.get(key),
    )
    return _placed_boxes.get(content, lambda: _place(key, box, source))


def _place(key: str, box: Box, source: _Source) -> PlacedBox:
    design = source.design
    shell = shell_of(box, design.module_kinds, design.tables)
    placement = stands(box.pose, shell.outer_mm)
    gear = gear_of(source.held.get(key, []), shell, placement, source.meshes)
    standing = tuple(
        _connection(name, mount, box, shell, placement, design) for name, mount in source.mounts.get(key, [])
    )
    own = tuple(PlacedPiece(piece.name, piece.solid.moved(placement), piece.role) for piece in shell.outside)
    brackets = tuple(PlacedPiece(p.name, p.solid, "bracket", m.id) for m in standing for p in m.pieces if not p.inside)
    on_it = tuple(
        PlacedPiece(g.item.name, solid, "gear", gear=g.id) for g in gear if not g.inside for solid in g.solids
    )
    cg = placement.point(shell.cg)
    weighed = source.weighed.get(key)
    hangers = tuple(together((p.mass_kg, middle_of(p.solid)) for p in mount.pieces) for mount in standing)
    fixed = ((g.mass_kg, g.at) for g in gear if g.mass_kg is not None and g.at is not None)
    kg, hung_cg = together([(weighed.kg if weighed else shell.full_kg, cg), *hangers, *fixed])
    structure = standing[0].spot.structure if standing else _structure_of(box, design)
    return PlacedBox(
        key, box, shell, placement, own + brackets + on_it, standing, gear, cg, kg, hung_cg, structure, hangers, weighed
    )


def together(masses: Iterable[tuple[float, Vec]]) -> tuple[float, Vec]:
    """What several things weigh together [kg], and their CG; that of nothing is the zero of the axes."""
    rows = list(masses)
    kg = sum(mass for mass, _ in rows)
    x, y, z = (sum(mass * at[i] for mass, at in rows) / (kg or 1.0) for i in range(3))
    return kg, (x, y, z)


def _structure_of(box: Box, design: Design) -> str:
    """What a box without mounts would be fixed to."""
    bay = design.bays.get(box.bay or "")
    return bay.structure if bay else "body"


@lru_cache(maxsize=512)
def outside_of(box: PlacedBox) -> tuple[Vec, Vec]:
    """The upright block round a box and everything on it, by its corners."""
    low, high = bounds([p.solid for p in box.pieces])
    return vec(low.min(axis=0)), vec(high.max(axis=0))


def middle_of(solid: Solid) -> Vec:
    """The middle of the upright block round a solid."""
    (x0, y0, z0), (x1, y1, z1) = solid.low, solid.high
    return (x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2


def anchor_of(pose: Pose, outer_mm: Vec) -> Vec:
    """Where the anchor of a pose is in the frame of a box of that size."""
    share = ANCHORS[pose.anchor]
    return share[0] * outer_mm[0], share[1] * outer_mm[1], share[2] * outer_mm[2]


def stands(pose: Pose, outer_mm: Vec) -> Placement:
    """How a box of that size stands in a pose."""
    return Placement.about(anchor_of(pose, outer_mm), pose.at_mm, rotation(pose.yaw_deg, pose.pitch_deg, pose.roll_deg))


def face_of(box: PlacedBox | tuple[Shell, Placement], face: str) -> tuple[Vec, Vec]:
    """(a point of the wall's outside, its outward normal) in vehicle axes."""
    shell, placement = (box.shell, box.placement) if isinstance(box, PlacedBox) else box
    axis, far = FACE_AT[face]
    middle, normal = [v / 2 for v in shell.outer_mm], [0.0, 0.0, 0.0]
    middle[axis], normal[axis] = far * shell.outer_mm[axis], 2 * far - 1
    return placement.point((middle[0], middle[1], middle[2])), placement.direction((normal[0], normal[1], normal[2]))


def seat_of(box: Box, shell: Shell, placement: Placement, face: Face, at: Vec) -> Seat:
    """The face of a box that a mount would hold, which lands at a place."""
    (point, normal), made = face_of((shell, placement), face), shell.made
    runs, rises, wall = 1 - FACE_AT[face][0], 2, None
    if face == "base" or face == "top":
        edge = _edge_before(made.over, placement.inverse.point(at))
        rises = FACE_AT[edge][0]
        runs, wall = 1 - rises, made.tube_at(edge) if face == "base" else None
    else:
        wall = made.wall_at(face)
    if wall is not None:
        point = plus(point, scaled(normal, -wall.sunk_mm))
    return Seat(point, normal, placement, wall, box.name, box.material, made.over, made.closed_face, runs, rises)


def _edge_before(over: tuple[Vec, Vec], at: Vec) -> Side:
    """The edge of a box that a place is furthest beyond, seen from below."""
    low, high = over
    beyond: dict[Side, float] = {
        "front": low[0] - at[0], "aft": at[0] - high[0], "left": low[1] - at[1], "right": at[1] - high[1],
    }  # fmt: skip
    return max(beyond, key=lambda edge: beyond[edge])


def _connection(key: str, mount: Mount, box: Box, shell: Shell, placement: Placement, design: Design) -> Connection:
    spot = spot_of(mount.lands_on, design)
    return connect(key, mount, spot, seat_of(box, shell, placement, mount.face, spot.at), design.tables)
