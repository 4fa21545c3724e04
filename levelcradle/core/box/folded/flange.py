"""A flat lid on a flange: strips of the tray's sheet welded round its rim, mitred at the corners, a gasket on them, and
screws down through the lid into rivet nuts in the strips."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from levelcradle.core.axes import Placement, Vec
from levelcradle.core.box.folded.feasible import Makeable
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.made import LIFT_MM, StackRow, gasket_row, sheet_row
from levelcradle.core.box.openings import FaceHole, openings_of
from levelcradle.core.box.piece import Outside, Piece, head_piece
from levelcradle.core.box.plates import WINDOW_KG_M3, plate_part, window_bought
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.construction import Flange
from levelcradle.core.finding import Finding
from levelcradle.core.part import Flat, FlatPart, Hole, bounding_mm
from levelcradle.core.solids import Solid, hull
from levelcradle.core.strength import EDGE_HOLES

__all__ = ["FlangeLid"]

NUT_MM = 12.0  # what a rivet nut M5 stands below the flange once it is set: common practice, no source


@dataclass(frozen=True, eq=False)
class FlangeLid:
    """The flange and flat lid of one tray."""

    sheet: Sheet
    flange: Flange

    @property
    def thick_mm(self) -> float:
        return self.flange.thickness_mm or self.sheet.t

    @property
    def proud_mm(self) -> float:
        return self.flange.gasket_mm + self.thick_mm

    @property
    def lift_mm(self) -> float:
        return LIFT_MM

    @property
    def hinge(self) -> Face | None:
        return self.flange.hinge

    @cached_property
    def rim(self) -> tuple[Flat, ...]:
        """The outside of the walls at their rim, counter-clockwise from above."""
        (length, width, _), ring = self.sheet.outer_mm, []
        for end, long in (("front", "left"), ("aft", "left"), ("aft", "right"), ("front", "right")):
            along, across = self.sheet.tray.corners.get((end, long), (0.0, 0.0))
            x, y = FACE_AT[end][1] * length, FACE_AT[long][1] * width
            on_long, on_end = (abs(x - along), y), (x, abs(y - across))
            first = on_end if (end == "front") == (long == "left") else on_long
            ring += [first, on_long if first is on_end else on_end] if along else [(x, y)]
        return tuple(ring)

    @cached_property
    def rings(self) -> tuple[tuple[Flat, ...], tuple[Flat, ...], tuple[Flat, ...]]:
        """Its inner edge, the line its screws stand on, and its outer edge."""
        wide, near = self.flange.wide_mm, FIT_UP_MM
        inner = -(self.sheet.t + FIT_UP_MM + wide) if self.flange.inward else near
        return moved_out(self.rim, inner), moved_out(self.rim, inner + wide / 2), moved_out(self.rim, inner + wide)

    @property
    def lid_ring(self) -> tuple[Flat, ...]:
        return self.rim if self.flange.inward else self.rings[2]

    @property
    def over(self) -> tuple[Vec, Vec]:
        (x0, y0), (x1, y1) = (tuple(pick(c) for c in zip(*self.lid_ring, strict=True)) for pick in (min, max))
        return (x0, y0, 0.0), (x1, y1, self.sheet.outer_mm[2] + self.proud_mm)

    @property
    def mouth(self) -> tuple[Flat, ...] | None:
        return self.rings[0] if self.flange.inward else None

    @property
    def covers_mm(self) -> float:
        return 0.0 if self.flange.inward else self.sheet.t + NUT_MM

    @property
    def weld_mm(self) -> float:
        """Along the walls, and in each mitre."""
        inner, _, outer = self.rings
        return _round(outer if self.flange.inward else inner) + sum(
            math.dist(a, b) for a, b in zip(inner, outer, strict=True)
        )

    @property
    def fastened(self) -> int:
        return sum(len(row) for row in self.screws)

    @cached_property
    def screws(self) -> tuple[tuple[Flat, ...], ...]:
        """Of each strip, from above: one clear of the mitre at either end, no further apart than said; one in the
        middle of a short strip."""
        rows, most = [], self.flange.screws.spacing_mm
        clear = max(self.flange.wide_mm / 2, math.sqrt(2) * self._beside_mm)
        for a, b in _edges(self.rings[1]):
            long = math.dist(a, b)
            run = long - 2 * clear
            steps = math.ceil(run / most - 1e-9) if run > clear else 0
            at = [clear + run * n / steps for n in range(steps + 1)] if steps else [long / 2]
            rows.append(tuple((a[0] + (b[0] - a[0]) * s / long, a[1] + (b[1] - a[1]) * s / long) for s in at))
        return tuple(rows)

    @property
    def _beside_mm(self) -> float:
        """How much metal there must be from the middle of a nut to an edge of its strip."""
        return EDGE_HOLES * self.flange.screws.rivet_nut_hole_mm

    def in_walls(self) -> Iterator[FaceHole]:
        return iter(())

    @cached_property
    def strips(self) -> tuple[tuple[Flat, ...], ...]:
        """Their corners from above: two on the inner edge, two on the outer."""
        inner, _, outer = self.rings
        return tuple((a, b, d, c) for (a, b), (c, d) in zip(_edges(inner), _edges(outer), strict=True))

    def pieces(self) -> Iterator[Piece]:
        height, t, per_mm3 = self.sheet.outer_mm[2], self.sheet.t, self.sheet.material.density_kg_m3 * 1e-9
        nut = self.flange.screws.rivet_nut_hole_mm
        for n, (ring, holes) in enumerate(zip(self.strips, self.screws, strict=True), 1):
            area, (x, y) = _less(ring, [(at, nut) for at in holes])
            build = _upright(ring, height - t, height)
            yield Piece(f"flange strip {n}", "frame", area * t * per_mm3, (x, y, height - t / 2), build, f"flange-{n}")
        dense, low, high = self._density * 1e-9, height + self.flange.gasket_mm, height + self.proud_mm
        area, (x, y) = _less(self.lid_ring, self._through())
        middle = (x, y, (low + high) / 2)
        part = "" if self.flange.window else "lid"
        yield Piece("lid", "closure", area * self.thick_mm * dense, middle, _upright(self.lid_ring, low, high), part)
        screws = self.flange.screws
        for x, y in (at for row in self.screws for at in row):
            yield head_piece((x, y, high), (x, y, high + screws.head_high_mm), screws.head_across_mm / 2)

    @property
    def _density(self) -> float:
        return WINDOW_KG_M3 if self.flange.window else self.sheet.material.density_kg_m3

    def _through(self) -> list[tuple[Flat, float]]:
        """Middles and diameters of the holes in the lid."""
        openings = openings_of(self.sheet.box, self.sheet.outer_mm)
        own = [((at.at[0], at.at[1]), at.diameter_mm) for at in openings if at.face == "top"]
        return own + [(at, self.flange.screws.hole_mm) for row in self.screws for at in row]

    def outside(self) -> Iterator[Outside]:
        """Strips with the nuts under them, the lid on its gasket, and a layer as high as its heads."""
        height, top = self.sheet.outer_mm[2], self.over[1][2]
        if not self.flange.inward:
            for ring in self.strips:
                (solid,) = _upright(ring, height - self.covers_mm, height)()
                yield Outside("flange", "protrusion", solid)
        heads = top + self.flange.screws.head_high_mm
        yield Outside("lid", "closure", _upright(self.lid_ring, height, top)()[0])
        yield Outside("lid screw heads", "fastener", _upright(self.lid_ring, top, heads)()[0])

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        of, t, height = (self.sheet.box.material, self.sheet.material), self.sheet.t, self.sheet.outer_mm[2]
        where = "inside" if self.flange.inward else "outside"
        notes = (f"Welded round the rim, {where}, flush with it; mitred to the next", "Seen from above, flat")
        nut = self.flange.screws.rivet_nut_hole_mm
        for n, (ring, screws) in enumerate(zip(self.strips, self.screws, strict=True), 1):
            at = _along(ring, height - t)
            strip = plate_part(f"{box_id}-flange-{n}", f"{name} flange strip {n}", of, t, (1.0, 1.0), notes, at)
            yield _shaped(strip, ring, [(xy, nut, "rivet nut") for xy in screws], at)
        if not self.flange.window:
            at = Placement(np.eye(3), (*_middle(self.lid_ring), height + self.flange.gasket_mm))
            words = (f"{box_id}-lid", f"{name} lid")
            lid = plate_part(*words, of, self.thick_mm, (1.0, 1.0), ("Seen from outside, flat", self.words()), at)
            yield _shaped(lid, self.lid_ring, list(self._named()), at)

    def _named(self) -> Iterator[tuple[Flat, float, str]]:
        for hole in openings_of(self.sheet.box, self.sheet.outer_mm):
            if hole.face == "top":
                yield (hole.at[0], hole.at[1]), hole.diameter_mm, hole.name
        for at in (at for row in self.screws for at in row):
            yield at, self.flange.screws.hole_mm, "lid screw"

    def stack_rows(self, path: str) -> Iterator[StackRow]:
        if self.flange.gasket_mm:
            yield gasket_row(self.flange.gasket_mm, path)
        yield sheet_row("lid", self.thick_mm, path)

    def bought(self) -> Iterator[tuple[str, int]]:
        yield f"{self.flange.screws.size} screw and rivet nut, closing the box", self.fastened
        if self.flange.hinge:
            yield "hinge, its leaves on lid and flange", 2
        if self.flange.window:
            yield window_bought(self.thick_mm, bounding_mm(self.lid_ring), "lid")

    def words(self) -> str:
        seal = f"on a gasket {self.flange.gasket_mm:g} thick" if self.flange.gasket_mm else "on the bare flange"
        way = "inward" if self.flange.inward else "outward"
        return f"lid flat {seal}, {self.flange.screws.size} screws into rivet nuts in a flange {way}"

    def makeable(self) -> Iterator[Makeable]:
        for face, (_, down) in self.sheet.tops.items():
            yield Makeable(f"rim at the {face}", f"level rim at the {face} for its flange", -down, 0.0)
        beside = self.flange.wide_mm / 2
        yield Makeable("flange", "flange beside the middle of its rivet nuts", beside, self._beside_mm)
        pairs = zip(_edges(self.rim), _edges(self.rings[0]), strict=True)
        shortest = min(_along_mm(edge, before) for before, edge in pairs)
        yield Makeable("flange strips", "inner edge of its shortest flange strip", shortest, self.flange.wide_mm)

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        return iter(())


def moved_out(ring: Sequence[Flat], mm: float) -> tuple[Flat, ...]:
    """A convex ring, counter-clockwise, each of its sides so far out: its corners mitred, in the same order."""
    count, rows = len(ring), []
    sides = [np.subtract(ring[(n + 1) % count], ring[n]) for n in range(count)]
    normals = [np.array([s[1], -s[0]]) / math.hypot(*s) for s in sides]
    for n, at in enumerate(ring):
        before, after = normals[n - 1], normals[n]
        x, y = np.add(at, mm * (before + after) / (1 + float(before @ after)))
        rows.append((float(x), float(y)))
    return tuple(rows)


def _edges(ring: Sequence[Flat]) -> list[tuple[Flat, Flat]]:
    return list(zip(ring, (*ring[1:], ring[0]), strict=True))


def _along_mm(edge: tuple[Flat, Flat], before: tuple[Flat, Flat]) -> float:
    """How long an edge is that was moved; less than 0 where it turned round."""
    (a, b), (c, d) = edge, before
    return float(np.dot(np.subtract(b, a), np.subtract(d, c))) / math.dist(c, d)


def _round(ring: Sequence[Flat]) -> float:
    return sum(math.dist(a, b) for a, b in _edges(ring))


def _less(ring: Sequence[Flat], holes: Sequence[tuple[Flat, float]]) -> tuple[float, Flat]:
    """(area, centroid) of a ring less its round holes."""
    whole = Polygon(ring)
    rows = [(float(whole.area), (float(whole.centroid.x), float(whole.centroid.y)))]
    rows += [(-math.pi / 4 * across**2, at) for at, across in holes]
    area = sum(a for a, _ in rows)
    x, y = (sum(a * at[i] for a, at in rows) / area if area else rows[0][1][i] for i in (0, 1))
    return area, (x, y)


def _upright(ring: Sequence[Flat], low: float, high: float) -> Callable[[], tuple[Solid, ...]]:
    return lambda: (hull([(x, y, z) for x, y in ring for z in (low, high)]),)


def _middle(ring: Sequence[Flat]) -> Flat:
    at = Polygon(ring).centroid
    return float(at.x), float(at.y)


def _along(ring: Sequence[Flat], up_mm: float) -> Placement:
    """A frame in the middle of a strip, its first way along it."""
    (ax, ay), (bx, by) = ring[0], ring[1]
    way = np.array([bx - ax, by - ay, 0.0]) / math.dist(ring[0], ring[1])
    up = np.array([0.0, 0.0, 1.0])
    return Placement(np.array([way, np.cross(up, way), up]).T, (*_middle(ring), up_mm))


def _shaped(part: FlatPart, ring: Sequence[Flat], holes: Sequence[tuple[Flat, float, str]], at: Placement) -> FlatPart:
    """A plate with an outline and holes that are said in the box's frame."""
    back, up = at.inverse, at.origin[2]

    def flat(xy: Flat) -> Flat:
        x, y, _ = back.point((*xy, up))
        return x, y

    outline = orient(Polygon([flat(xy) for xy in ring]), 1.0).exterior.coords[:-1]
    return replace(
        part,
        outline=tuple((float(x), float(y)) for x, y in outline),
        holes=tuple(Hole(flat(xy), across, purpose) for xy, across, purpose in holes),
    )
