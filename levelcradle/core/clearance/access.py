"""Getting things in and out: the lid off, each module drawn, the whole box brought to its place, a hand at what is joined there.

Other boxes are taken to be out: in which order they are hung is asked elsewhere. A straight move is free when the hull of
each piece before and after it meets nothing. What stands in the way of the best move
and could be taken off is named; sides of metal cannot be. Whether the box is filled in the car or on the bench is not
decided here: a lid that only comes off on the bench is a note, a box that comes out no way is foul.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Matrix, Placement, Vec, plus, rotation, scaled
from levelcradle.core.box import hole_places, on_face
from levelcradle.core.clearance.gaps import around
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.solids import Solid, block, bounds, hull, nearest

__all__ = ["access_findings"]

OUT_MM = 900.0  # moved so far it is out of its space: common practice, no source
LIFT_MM = 60.0  # a short first leg: over or under an edge
HAND_MM = (60.0, 60.0, 90.0)  # a hand before a joint: across, across, deep; common practice, no source
TILTS_DEG = (8.0, 16.0)
MEETS_MM = -0.5  # what only touches does not hold it
WAYS: dict[str, Vec] = {
    "downward": (0, 0, -1), "upward": (0, 0, 1), "forward": (-1, 0, 0), "aft": (1, 0, 0),
    "to the left": (0, -1, 0), "to the right": (0, 1, 0),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Exit:
    """A way out: in words, and what has to be off first."""

    words: str
    off: tuple[str, ...]
    fixed: bool  # something that cannot be taken off stands in it

    @property
    def free(self) -> bool:
        return not self.off and not self.fixed


def access_findings(assembly: Assembly) -> Iterator[Finding]:
    for box in assembly.boxes.values():
        if not box.shell.modules:
            continue
        things = tuple(o for o in around(assembly, box) if not o.crush and not o.opens and not o.path.startswith("keepouts/"))
        yield _brought_out(box, _best_exit(box, things))
        yield from _lid(box, things)
        yield from _reach(box, things)


# --- the whole box ---


@lru_cache(maxsize=256)
def _best_exit(box: PlacedBox, things: tuple[Obstacle, ...]) -> Exit:
    """Straight where one way at least is not barred by metal; else over a short first leg; else leaned; the one with least to
    take off."""
    solids = [p.solid for p in box.pieces if p.name != "screw head"]
    exits: list[Exit] = []
    for word, way in WAYS.items():
        exits.append(_straight(solids, things, word, way, ""))
        if exits[-1].free:
            return exits[-1]
    if all(e.fixed for e in exits):
        exits += _two_legs(solids, things)
    if all(e.fixed for e in exits):
        exits += _leaned(box, things)
    return min(exits, key=lambda e: (e.fixed, len(e.off)))


def _straight(solids: Sequence[Solid], things: Sequence[Obstacle], word: str, way: Vec, before: str) -> Exit:
    met = _met(solids, things, scaled(way, OUT_MM))
    off = tuple(dict.fromkeys(o.name for o in met if not _is_metal(o)))
    return Exit(f"{before}{word}", off, any(_is_metal(o) for o in met))


def _two_legs(solids: Sequence[Solid], things: Sequence[Obstacle]) -> Iterator[Exit]:
    for first, leg in WAYS.items():
        by = scaled(leg, LIFT_MM)
        if _met(solids, things, by):
            continue
        moved = [_shifted(s, by) for s in solids]
        for word, way in WAYS.items():
            if way != leg and way != scaled(leg, -1.0):
                yield _straight(moved, things, word, way, f"{LIFT_MM:g} {first}, then ")


def _leaned(box: PlacedBox, things: Sequence[Obstacle]) -> Iterator[Exit]:
    """Leaned about its middle, nose up or down, or to a side; half way and at the end it must be free."""
    for tilt in TILTS_DEG:
        for words, angles in ((f"nose raised {tilt:g}°", (tilt, 0.0)), (f"nose lowered {tilt:g}°", (-tilt, 0.0)),
                              (f"right side raised {tilt:g}°", (0.0, tilt)), (f"left side raised {tilt:g}°", (0.0, -tilt))):  # fmt: skip
            half, whole = (_turned(box, angles[0] * share, angles[1] * share) for share in (0.5, 1.0))
            if _met(half, things, (0.0, 0.0, 0.0)) or _met(whole, things, (0.0, 0.0, 0.0)):
                continue
            for word, way in WAYS.items():
                yield _straight(whole, things, word, way, f"{words}, then ")


def _turned(box: PlacedBox, pitch: float, roll: float) -> list[Solid]:
    placed = Placement.about(box.cg, box.cg, rotation(0.0, pitch, roll))
    return [p.solid.moved(placed) for p in box.pieces if p.name != "screw head"]


def _is_metal(thing: Obstacle) -> bool:
    return thing.path.startswith(("bays/", "members/"))


def _met(solids: Sequence[Solid], things: Sequence[Obstacle], by: Vec) -> list[Obstacle]:
    """Things that the pieces meet while they are moved in a straight line."""
    if not things:
        return []
    swept = [_swept(s, by) for s in solids]
    low, high = bounds(swept)
    other_low, other_high = _bounds(tuple(o.solid for o in things))
    near = (np.maximum(other_low[None] - high[:, None], low[:, None] - other_high[None]) < MEETS_MM).all(axis=2)
    found = {}
    for i, j in np.argwhere(near):
        thing = things[j]
        if thing.path not in found and nearest(swept[i], thing.solid).gap_mm < MEETS_MM:
            found[thing.path] = thing
    return list(found.values())


@lru_cache(maxsize=64)
def _bounds(solids: tuple[Solid, ...]) -> tuple[Matrix, Matrix]:
    return bounds(solids)


def _swept(solid: Solid, by: Vec) -> Solid:
    if not any(by):
        return solid
    if solid.upright and sum(v != 0 for v in by) == 1:
        low = tuple(min(v, v + d) for v, d in zip(solid.low, by, strict=True))
        high = tuple(max(v, v + d) for v, d in zip(solid.high, by, strict=True))
        return block(low, high)  # type: ignore[arg-type]
    points = [(float(x), float(y), float(z)) for x, y, z in solid.points]
    return hull([*points, *(plus(p, by) for p in points)])


def _shifted(solid: Solid, by: Vec) -> Solid:
    return solid.moved(Placement(np.eye(3), by))


def _brought_out(box: PlacedBox, way: Exit) -> Finding:
    name = plain(box.box.name)
    says = f"{name} comes out {way.words}"
    state = "clear"
    if way.fixed:
        says, state = f"{name} comes out no way: metal stands in every straight, stepped and leaned move", "foul"
    elif way.off:
        says, state = f"{says}, once off: {plain(', '.join(way.off[:4]))}", "note"
    return Finding(
        id=f"access:{box.path}:box", code="access.box", station="place", state=state, subjects=(box.path,), says=says,  # type: ignore[arg-type]
        because="a box is hung full and comes out again for service; moves tried are straight, over a short first leg, and leaned",
        shows="in and out", working=lambda: (Step("moved", "each piece's hull before and after meets nothing", OUT_MM, "mm",
                                                  "common practice, no source"),),
    )  # fmt: skip


# --- lid and modules ---


def _lid(box: PlacedBox, things: Sequence[Obstacle]) -> Iterator[Finding]:
    """Whether the lid comes off its edge in place, and a module can be drawn straight up."""
    cap = [p.solid for p in box.pieces if p.name == "lid"]
    up = box.placement.direction((0.0, 0.0, 1.0))
    need = box.box.lid.edge_mm + 5.0
    tallest = max(m.high[2] - m.low[2] for m in box.shell.modules)
    free = _free(cap, things, up, need + tallest)
    name = plain(box.box.name)
    if free < need:
        says, state = f"{name}: its lid lifts {{0}} and needs {{1}}: it comes off with the box out", "note"
    elif free < tallest + need:
        says, state = f"{name}: its lid comes off in place; a module needs {{1}} above it and has {{0}}: filled with the box out", "note"
        need = tallest + need
    else:
        says, state = f"{name}: its lid comes off in place, and modules can be drawn", "clear"
    yield Finding(
        id=f"access:{box.path}:lid", code="access.lid", station="place", state=state, subjects=(box.path,), says=says,  # type: ignore[arg-type]
        figures=(Figure(free, "mm", "down"), Figure(need, "mm", "up")), value=free, limit=need, margin=free - need, unit="mm",
        because="the lid's edges go over the walls before it can be turned away", shows="lid",
    )  # fmt: skip


def _free(solids: Sequence[Solid], things: Sequence[Obstacle], way: Vec, most: float) -> float:
    """How far the pieces move one way before they meet something, to a millimetre."""
    if not _met(solids, things, scaled(way, most)):
        return most
    low, high = 0.0, most
    while high - low > 1.0:
        middle = (low + high) / 2
        low, high = (low, middle) if _met(solids, things, scaled(way, middle)) else (middle, high)
    return low


# --- hands ---


JOINED = ("gland", "hose tail")  # what is plugged, clamped or bled in place


def _reach(box: PlacedBox, things: Sequence[Obstacle]) -> Iterator[Finding]:
    """Room for a hand before each opening, gland and hose tail: they are joined in place."""
    size = box.shell.outer_mm
    for key, hole in box.box.openings.items():
        at = next(h.at for h in hole_places(box.box, size) if h.name == key)
        yield _hand(box, things, f"openings/{key}", hole.name, hole.face, at)
    for key, thing in box.box.protrusions.items():
        if thing.kind in JOINED:
            yield _hand(box, things, f"protrusions/{key}", thing.name, thing.face, on_face(thing, size))


def _hand(box: PlacedBox, things: Sequence[Obstacle], path: str, what: str, face: str, at: Vec) -> Finding:
    axis, sign = {"front": (0, -1), "aft": (0, 1), "left": (1, -1), "right": (1, 1), "base": (2, -1), "lid": (2, 1)}[face]
    half = HAND_MM[0] / 2
    low, high = [a - half for a in at], [a + half for a in at]
    low[axis], high[axis] = sorted((at[axis] + sign * 8.0, at[axis] + sign * HAND_MM[2]))
    hand = block((low[0], low[1], low[2]), (high[0], high[1], high[2])).moved(box.placement)
    met = _met([hand], things, (0.0, 0.0, 0.0))
    name, word = plain(box.box.name), plain(what)
    says = f"{name}: no hand reaches {word}, {plain(met[0].name)} is before it" if met else f"{name}: a hand reaches {word}"
    return Finding(
        id=f"access:{box.path}:{path}", code="access.reach", station="place", state="foul" if met else "clear",
        subjects=(box.path, *(o.path for o in met[:1])), says=says, shows=what,
        because="a joint made in place needs room for a hand, 60 × 60 × 90 mm (common practice, no source)",
    )  # fmt: skip
