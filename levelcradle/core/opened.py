"""A box opened: its walls laid round its base as they are seen from inside, its lid beside; and what the same contents
weigh in another construction."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Vec, dot, scaled, vec
from levelcradle.core.box import OnFace, on_face, openings_of, outward, shell_of
from levelcradle.core.box.kinds import MAKERS
from levelcradle.core.connection import Connection
from levelcradle.core.design import Design
from levelcradle.core.design.base import Face
from levelcradle.core.design.survey import InBox
from levelcradle.core.errors import UnknownThing
from levelcradle.core.part import Flat
from levelcradle.core.solids import Solid, bounds

__all__ = [
    "MadeAs",
    "Opened",
    "OpenedFace",
    "OpenedHole",
    "OpenedPlace",
    "OpenedRect",
    "OpenedThing",
    "made_as",
    "opened",
    "on_the_face",
]

TOUCHES_MM = 0.5
GAP = 0.12  # between the aft wall and the lid, as a share of the length


@dataclass(frozen=True, slots=True)
class OpenedRect:
    """An upright rectangle of the drawing [mm], right and up; what it is of: a module's number, a mount's name."""

    name: str
    low: Flat
    high: Flat


@dataclass(frozen=True, slots=True)
class OpenedPlace:
    """How far it is from two edges of its face, and which way it goes in the drawing as that grows."""

    edges: tuple[Face, Face]
    mm: Flat
    ways: tuple[Flat, Flat]


@dataclass(frozen=True, slots=True)
class OpenedHole:
    """``path`` and ``place``: of the opening that was placed; none of what is screwed down there."""

    name: str
    path: str | None
    at: Flat
    diameter_mm: float
    place: OpenedPlace | None = None


@dataclass(frozen=True, slots=True)
class OpenedThing:
    """A service panel, a chamber or gear, by its path and where it was placed: its rectangles, the outermost first."""

    name: str
    path: str
    at: Flat
    rects: tuple[OpenedRect, ...]
    place: OpenedPlace


@dataclass(frozen=True, slots=True)
class OpenedFace:
    face: Face
    low: Flat
    high: Flat
    comes_off: bool
    holes: tuple[OpenedHole, ...]
    things: tuple[OpenedThing, ...]
    plates: tuple[OpenedRect, ...]


@dataclass(frozen=True, slots=True)
class Opened:
    """The base stands at the origin, the nose at the left and the right wall above it."""

    faces: tuple[OpenedFace, ...]
    modules: tuple[OpenedRect, ...]
    holders: tuple[OpenedRect, ...]
    low: Flat
    high: Flat


@dataclass(frozen=True, slots=True)
class MadeAs:
    """The same contents in one construction: how it is made, its shell, its outside, how many parts and bars it is made
    of, how much of it is welded, and how many rivets and screws it takes."""

    kind: str
    how: str
    now: bool
    shell_kg: float
    outer_mm: Vec
    pieces: int
    weld_mm: float
    fastened: int


Onto = Callable[[Vec], Flat]


def opened(assembly: Assembly, box_id: str) -> Opened:
    """Raises UnknownThing."""
    if box_id not in assembly.boxes:
        raise UnknownThing("box", box_id)
    box = assembly.boxes[box_id]
    faces = tuple(_faces(box))
    modules = tuple(OpenedRect(str(m.number), (m.low[0], m.low[1]), (m.high[0], m.high[1])) for m in box.shell.modules)
    low = (min(f.low[0] for f in faces), min(f.low[1] for f in faces))
    return Opened(
        faces, modules, tuple(_holders(box)), low, (max(f.high[0] for f in faces), max(f.high[1] for f in faces))
    )


def _holders(box: PlacedBox) -> Iterator[OpenedRect]:
    """What holds the modules, as it stands over the base."""
    for piece in box.shell.held.pieces:
        low, high = bounds(list(piece.solids))
        (x0, y0, _), (x1, y1, _) = vec(low.min(axis=0)), vec(high.max(axis=0))
        yield OpenedRect(piece.name, (x0, y0), (x1, y1))


def _faces(box: PlacedBox) -> Iterator[OpenedFace]:
    length, width, height = box.shell.outer_mm
    beyond = length + height + GAP * length
    low, high = box.shell.made.over if box.shell.made.closed_face == "top" else ((0.0, 0.0, 0.0), box.shell.outer_mm)
    laid: dict[Face, tuple[Onto, Vec, Vec]] = {
        "base": (lambda p: (p[0], p[1]), (0.0, 0.0, 0.0), (length, width, 0.0)),
        "right": (lambda p: (p[0], width + p[2]), (0.0, width, 0.0), (length, width, height)),
        "left": (lambda p: (p[0], -p[2]), (0.0, 0.0, 0.0), (length, 0.0, height)),
        "front": (lambda p: (-p[2], p[1]), (0.0, 0.0, 0.0), (0.0, width, height)),
        "aft": (lambda p: (length + p[2], p[1]), (length, 0.0, 0.0), (length, width, height)),
        "top": (lambda p: (beyond + p[0], p[1]), (low[0], low[1], height), (high[0], high[1], height)),
    }
    if box.shell.made.open_to_air:
        del laid["top"]
    heads = list(_heads(box))
    for face, (onto, start, end) in laid.items():
        holes = (
            *_openings(box, face, onto),
            *_lightening(box, face, onto),
            *(OpenedHole("screw", None, onto(at), d) for f, at, d in heads if f == face),
        )
        comes_off = face == box.shell.made.closed_face
        things, plates = tuple(_things(box, face, onto)), tuple(_plates(box, face, onto))
        yield OpenedFace(face, *_between(onto(start), onto(end)), comes_off, holes, things, plates)


def _between(a: Flat, b: Flat) -> tuple[Flat, Flat]:
    return (min(a[0], b[0]), min(a[1], b[1])), (max(a[0], b[0]), max(a[1], b[1]))


def _openings(box: PlacedBox, face: str, onto: Onto) -> Iterator[OpenedHole]:
    for hole in openings_of(box.box, box.shell.outer_mm):
        if hole.face == face:
            opening = box.box.openings[hole.name]
            place = _place(opening, onto)
            yield OpenedHole(opening.name, f"{box.path}/openings/{hole.name}", onto(hole.at), hole.diameter_mm, place)


def _lightening(box: PlacedBox, face: str, onto: Onto) -> Iterator[OpenedHole]:
    for row in box.shell.lightened:
        if row.spec.face == face:
            yield from (OpenedHole("lightening hole", None, onto(at), row.spec.diameter_mm) for at in row.at)


def _place(thing: OnFace, onto: Onto) -> OpenedPlace:
    zero = onto((0.0, 0.0, 0.0))
    one, other = (onto(scaled(outward(edge), -1.0)) for edge in thing.from_)
    ways = (one[0] - zero[0], one[1] - zero[1]), (other[0] - zero[0], other[1] - zero[1])
    return OpenedPlace(thing.from_, (thing.u_mm, thing.v_mm), ways)


def _heads(box: PlacedBox) -> Iterator[tuple[str, Vec, float]]:
    """What screws the lid down: the face each stands on, where, and how wide."""
    outer = box.shell.outer_mm
    for piece in box.shell.pieces:
        if piece.role == "fastener":
            at, (solid,) = piece.centre, piece.solids
            yield _face_of(at, outer, box.shell.made.closed_face), at, 2 * solid.radius_mm


def _face_of(at: Vec, outer: Vec, closed: Face) -> str:
    """The face that a point outside the walls stands on: what closes the box goes over its edges."""
    beyond = {
        "base": -at[2],
        "front": -at[0],
        "aft": at[0] - outer[0],
        "left": -at[1],
        "right": at[1] - outer[1],
        "top": at[2] - outer[2],
    }
    return closed if beyond[closed] > 0 else max(beyond, key=lambda face: beyond[face])


def _plates(box: PlacedBox, face: str, onto: Onto) -> Iterator[OpenedRect]:
    for mount, _, solid in on_the_face(box, face):
        yield OpenedRect(mount.mount.name, *_between(onto(solid.low), onto(solid.high)))


def _things(box: PlacedBox, face: str, onto: Onto) -> Iterator[OpenedThing]:
    """What was placed on a face beside holes: service panels with their openings, chambers, gear."""

    def thing(name: str, path: str, of: OnFace, corners: Sequence[tuple[Vec, Vec]]) -> OpenedThing:
        at = onto(on_face(of, box.shell.outer_mm))
        rects = tuple(OpenedRect(name, *_between(onto(low), onto(high))) for low, high in corners)
        return OpenedThing(name, path, at, rects, _place(of, onto))

    for panel in box.shell.service_panels:
        if panel.spec.face == face:
            (a, b), at = panel.spec.size_mm, panel.frame.point
            opening = at((-a / 2, -b / 2, 0.0)), at((a / 2, b / 2, 0.0))
            corners = [(panel.cover.low, panel.cover.high), opening]
            yield thing(panel.spec.name, f"{box.path}/service_panels/{panel.id}", panel.spec, corners)
    for chamber in box.shell.chambers:
        if chamber.spec.face == face:
            (length, width, _), at = chamber.made.outer_mm, chamber.frame.point
            whole = at((0.0, 0.0, 0.0)), at((length, width, 0.0))
            yield thing(chamber.spec.name, f"{box.path}/chambers/{chamber.id}", chamber.spec, [whole])
    for gear in box.gear:
        place = gear.item.place
        if isinstance(place, InBox) and place.chamber is None and place.face == face and gear.local:
            low, high = bounds(list(gear.local))
            whole = vec(low.min(axis=0)), vec(high.max(axis=0))
            yield thing(gear.item.name, f"{gear.path}/place", place, [whole])


def on_the_face(box: PlacedBox, face: str) -> Iterator[tuple[Connection, str, Solid]]:
    """Of each mount what lies on a face, or on a plate on it, outward: its part's id, and where it is in the box's
    own frame."""
    normal, back = outward(face), box.placement.inverse
    surface = max(0.0, dot(box.shell.outer_mm, normal))
    for mount in box.mounts:
        taken = surface
        solids = [(piece.part, piece.solid.moved(back)) for piece in mount.pieces if piece.on_wall]
        for part, solid in sorted(solids, key=lambda row: dot(row[1].low, normal) + dot(row[1].high, normal)):
            near, far = sorted((dot(solid.low, normal), dot(solid.high, normal)))
            if abs(near - taken) <= TOUCHES_MM:
                taken = far
                yield mount, part, solid


def made_as(design: Design, box_id: str) -> list[MadeAs]:
    """A box as it is, and begun in every other construction that is made here. Raises UnknownThing."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    box = design.boxes[box_id]
    was = shell_of(box, design.module_kinds, design.tables)
    rows = []
    for kind, maker in MAKERS.items():
        now = kind == box.construction.type
        construction, closures = maker.begun(was.made, was.shell_kg)
        one = box if now else box.model_copy(update={"construction": construction, "closures": dict(closures)})
        shell = shell_of(one, design.module_kinds, design.tables)
        pieces = sum(1 for _ in shell.made.parts(box_id, "")) + sum(1 for _ in shell.made.bars(box_id, ""))
        if now or pieces:
            made = shell.made
            joined = (made.weld_mm, made.fastened)
            rows.append(MadeAs(kind, made.message()[0], now, shell.shell_kg, shell.outer_mm, pieces, *joined))
    return rows
