"""A cap over a folded tray: a lid of sheet, its edges turned down over the walls, screwed sideways through them."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Placement, Vec
from levelcradle.core.box.chamfers import along_edge, beyond, chamfered
from levelcradle.core.box.folded.edges import ends_of, lengthened, over_the_lid
from levelcradle.core.box.folded.feasible import Makeable, least_radius, shortest_mm
from levelcradle.core.box.folded.flat_parts import corner_part, pan_part, side_part
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM, FlatPattern, Slope
from levelcradle.core.box.folded.folding import folded_up
from levelcradle.core.box.folded.metal import corner_plate, strip_piece
from levelcradle.core.box.folded.separate import not_taken, seams_mm
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.made import StackRow, sheet_row
from levelcradle.core.box.making import cannot
from levelcradle.core.box.openings import FaceHole, openings_of
from levelcradle.core.box.piece import Outside, Piece, head_piece
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.construction import Cap, LidScrews
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.part import Flat, FlatPart, Hole, Stand
from levelcradle.core.solids import Solid, block, hull

__all__ = ["CapLid", "screw_places"]

CLEAR_MM = 10.0  # of a lid screw to a cut-off edge: common practice, no source
_SEEN_FROM_INSIDE = {"left": "right", "right": "left"}


def screw_places(length_mm: float, screws: LidScrews) -> list[float]:
    """Places of the lid's screws along an edge, from its middle: pairs at half a spacing and whole spacings on.

    None comes nearer to a corner than ``corner_mm``; a short edge has one in the middle.
    """
    most = length_mm / 2 - screws.corner_mm
    places = []
    at = screws.spacing_mm / 2
    while at <= most + 1e-9:
        places += [-at, at]
        at += screws.spacing_mm
    return sorted(places) or [0.0]


@dataclass(frozen=True, eq=False)
class CapLid:
    """The cap of one tray. Its blank is seen from inside, so that it folds up like the tray: its left is the box's
    right."""

    sheet: Sheet
    cap: Cap

    @property
    def thick_mm(self) -> float:
        return self.cap.thickness_mm or self.sheet.t

    @property
    def out_mm(self) -> float:
        """From the tray's outside to the outside of its edge."""
        return self.cap.clearance_mm + self.thick_mm

    @property
    def over_mm(self) -> Vec:
        length, width, height = self.sheet.outer_mm
        return length + 2 * self.out_mm, width + 2 * self.out_mm, height + self.thick_mm

    @property
    def over(self) -> tuple[Vec, Vec]:
        (length, width, _), out, top = self.sheet.outer_mm, self.out_mm, self.over_mm[2]
        return (-out, -out, 0.0), (length + out, width + out, top)

    @property
    def proud_mm(self) -> float:
        return self.thick_mm

    @property
    def lift_mm(self) -> float:
        return self.cap.edge_mm

    @property
    def hinge(self) -> None:
        return None

    @property
    def mouth(self) -> None:
        return None

    @property
    def covers_mm(self) -> float:
        return self.cap.edge_mm - self.thick_mm

    @property
    def weld_mm(self) -> float:
        return seams_mm(self.pan)

    @property
    def fastened(self) -> int:
        return sum(1 for _ in self.screws())

    @cached_property
    def pan(self) -> FlatPattern:
        corners = {(end, seen(long)): self.longer(cut) for (end, long), cut in self.sheet.tray.corners.items()}
        bend, (length, width, _) = self.sheet.bend_of(self.thick_mm), self.over_mm
        slopes = {seen(face): over_the_lid(top, self.thick_mm, self.out_mm) for face, top in self.sheet.tops.items()}
        heights = {seen(face): down + self.cap.edge_mm for face, (_, down) in self.sheet.tops.items()}
        pan = FlatPattern(length, width, self.cap.edge_mm, bend, slopes, corners, heights=heights)
        return self.sheet.as_taken(pan)

    def longer(self, cut: Flat) -> Flat:
        """What goes along its two edges, whose slope stands off the tray's like they do."""
        return lengthened(cut, self.out_mm)

    def screw_up_mm(self, face: str) -> float:
        """Height of its screws above the tray's outside base: mid-way between the edge's rim and the wall's rim."""
        height = self.sheet.rim_mm(face)
        return (height + self.thick_mm - self.cap.edge_mm + height) / 2

    def screws(self) -> Iterator[FaceHole]:
        """By their holes in the tray, without those that would sit where an edge is cut off."""
        outer, chamfers = self.sheet.outer_mm, self.sheet.box.chamfers.values()
        for screw in self._screws():
            # on the wall under a cut-off edge of the rim they stand as far below its rim as on any
            beside = (c for c in chamfers if not {"top", screw.face} <= set(c.edge))
            if all(beyond(chamfer, outer, screw.at) < -CLEAR_MM for chamfer in beside):
                yield screw

    def _screws(self) -> Iterator[FaceHole]:
        outer, screws = self.sheet.outer_mm, self.cap.screws
        for at_x in screw_places(outer[0], screws):
            for face, y in (("left", 0.0), ("right", outer[1])):
                at = (outer[0] / 2 + at_x, y, self.screw_up_mm(face))
                yield FaceHole("lid screw", face, at, screws.rivet_nut_hole_mm)
        for at_y in screw_places(outer[1], screws):
            for face, x in (("front", 0.0), ("aft", outer[0])):
                at = (x, outer[1] / 2 + at_y, self.screw_up_mm(face))
                yield FaceHole("lid screw", face, at, screws.rivet_nut_hole_mm)

    def in_walls(self) -> Iterator[FaceHole]:
        return self.screws()

    def _through(self) -> list[FaceHole]:
        """Holes through it: the openings in its top, and its screws through its edges."""
        own = [replace(screw, diameter_mm=self.cap.screws.hole_mm) for screw in self.screws()]
        return [hole for hole in openings_of(self.sheet.box, self.sheet.outer_mm) if hole.face == "top"] + own

    def pieces(self) -> Iterator[Piece]:
        length, width, height = self.sheet.outer_mm
        holes = self._through()

        def put(p: Vec) -> Vec:
            """Turned over: its blank is seen from inside."""
            return length / 2 + p[0], width / 2 - p[1], height + self.thick_mm - p[2]

        for strip in folded_up(self.pan):
            face = seen(strip.face)
            through = [h for h in holes if h.face == ("top" if strip.kind == "base" else face)]
            part = f"lid-{face}-edge" if strip.face in self.pan.separate else "lid"
            name = "lid top" if strip.kind == "base" else f"lid {face} {'edge' if strip.kind == 'wall' else strip.kind}"
            through = through if strip.kind in ("base", "wall") else []
            yield replace(strip_piece(strip, name, "closure", put, through, self.sheet.material), part=part)
        yield from self._corners()
        yield from self._heads()

    def _corners(self) -> Iterator[Piece]:
        """The plates in upright edges that are cut off, under its top."""
        t, top = self.thick_mm, self.over_mm[2]
        for chamfer in self.sheet.upright:
            (end, long), cut = ends_of(chamfer)
            up, words = (top - self.cap.edge_mm, top - t - FIT_UP_MM), f"lid corner {end} {long}"
            yield corner_plate(self.sheet, chamfer, words, "closure", self.longer(cut), (self.out_mm, t), up)

    def _heads(self) -> Iterator[Piece]:
        """Round steel heads on its edges."""
        high, across = self.cap.screws.head_high_mm, self.cap.screws.head_across_mm
        for screw in self.screws():
            axis, far = FACE_AT[screw.face]
            out = 1 if far else -1
            foot, top = list(screw.at), list(screw.at)
            foot[axis] += out * self.out_mm
            top[axis] += out * (self.out_mm + high)
            yield head_piece((foot[0], foot[1], foot[2]), (top[0], top[1], top[2]), across / 2)

    def outside(self) -> Iterator[Outside]:
        """Itself, its slopes over what is cut off, and heads as blocks of their width and height."""
        (low_x, low_y, _), high = self.over
        low = (low_x, low_y, high[2] - self.cap.edge_mm)
        yield Outside("lid", "closure", self._cut(low, high))
        yield from (Outside("lid", "closure", self._slope(face)) for face in self.sheet.tops)
        screws = self.cap.screws
        half = screws.head_across_mm / 2
        for screw in self.screws():
            axis, far = FACE_AT[screw.face]
            start, end = [v - half for v in screw.at], [v + half for v in screw.at]
            start[axis], end[axis] = (
                (high[axis], high[axis] + screws.head_high_mm) if far else (low[axis] - screws.head_high_mm, low[axis])
            )
            yield Outside("screw head", "fastener", block((start[0], start[1], start[2]), (end[0], end[1], end[2])))

    def _slope(self, face: str) -> Solid:
        """Its slope over a cut-off edge of the rim with the edge below that, filled toward the tray."""
        outer, top, along = self.sheet.outer_mm, self.over_mm[2], 1 - FACE_AT[face][0]
        slope, (in_, _) = self.pan.slopes[seen(face)], self.sheet.tops[face]
        foot = self.sheet.rim_mm(face) - self.covers_mm
        section = [
            *((in_, outer[2]), (0.0, foot), (-self.out_mm, foot)),
            *((-self.out_mm, top - slope.wall_mm), (slope.base_mm - self.out_mm, top)),
        ]
        return along_edge(face, section, outer, (self.over[0][along], self.over[1][along]))

    def _cut(self, low: Vec, high: Vec) -> Solid:
        corners = chamfered(low, high, self.sheet.box, self.sheet.outer_mm, self.out_mm, self.thick_mm)
        return hull(corners) if corners else block(low, high)

    @property
    def _placed(self) -> Placement:
        """From the axes of its pan, turned over, to the box's."""
        length, width, _ = self.sheet.outer_mm
        return Placement(np.diag([1.0, -1.0, -1.0]), (length / 2, width / 2, self.over_mm[2]))

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        yield self._blank(box_id, name)
        screws = [replace(screw, diameter_mm=self.cap.screws.hole_mm) for screw in self.screws()]
        for side in sorted(self.pan.separate):
            face = seen(side)
            words = (f"{box_id}-lid-{face}-edge", f"{name} lid edge, {face}")
            own = [screw for screw in screws if screw.face == face]
            yield side_part(words, self.sheet, self.pan, side, self._placed, own)
        for chamfer in self.sheet.upright:
            size = (self.longer(ends_of(chamfer)[1]), self.cap.edge_mm - self.thick_mm, self.thick_mm)
            yield corner_part(box_id, name, self.sheet, chamfer, "lid corner", size)

    def _blank(self, box_id: str, name: str) -> FlatPart:
        """Its flat pattern, edges turned down."""
        (length, width, _), top, holes = self.sheet.outer_mm, self.over_mm[2], []
        for hole in self._through():
            x, y = hole.at[0] - length / 2, -(hole.at[1] - width / 2)
            if hole.face == "top":
                holes.append(Hole((x, y), hole.diameter_mm, hole.name))
            elif seen(hole.face) not in self.pan.separate:
                along = y if hole.face in ("front", "aft") else x
                at = self.pan.on_side(seen(hole.face), along, top - hole.at[2])
                holes.append(Hole(at, hole.diameter_mm, hole.name))
        stand = Stand((0.0, 0.0), self._placed)
        return pan_part(f"{box_id}-lid", f"{name} lid", self.sheet, self.pan, tuple(holes), stand)

    def stack_rows(self, path: str) -> Iterator[StackRow]:
        yield sheet_row("lid", self.thick_mm, path)

    def bought(self) -> Iterator[tuple[str, int]]:
        yield f"{self.cap.screws.size} screw and rivet nut, closing the box", self.fastened

    def words(self) -> str:
        return f"lid screws {self.cap.screws.size} sideways through the edge into rivet nuts"

    def makeable(self) -> Iterator[Makeable]:
        yield from (Makeable(*row) for row in not_taken(self.pan, self.sheet.spec.folder))
        if self.thick_mm > self.sheet.t:
            yield from least_radius("lid bend radius", "inside radius of the lid's bends", self.sheet, self.thick_mm)
        needs = max(shortest_mm(self.sheet, self.thick_mm), shortest_mm(self.sheet, self.sheet.t))
        yield Makeable("lid edge", "lid edge for the press brake", self.cap.edge_mm, needs)
        for side, slope in self.pan.slopes.items():
            words = f"lid's slope at the {seen(side)}, flat between its two bends"
            yield Makeable(f"lid slope {seen(side)}", words, _flat_mm(self.pan, slope), 3 * self.thick_mm)
            edge = self.pan.high_mm(side) - slope.wall_mm
            words = f"lid edge below its slope at the {seen(side)}"
            yield Makeable(f"lid edge {seen(side)}", words, edge, shortest_mm(self.sheet, self.thick_mm))

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        """The round inside a bend of the lid meets the sharp rim of the tray before the lid lies on it; its slopes have
        no edge turned down at their ends."""
        for face in sorted(self.sheet.tops):
            words = f"the lid's slope at the {face} lies bare on the walls at both its ends"
            why = "nothing is turned down there: sealant under it, or a strip welded on"
            yield replace(cannot(path, name, f"lid's slope {face}", words, why), state="note")
        radius, clear = self.sheet.spec.bend_radius_mm, self.cap.clearance_mm
        if clear < radius:
            up = radius - math.sqrt(radius**2 - (radius - clear) ** 2)
            words = (
                "its lid would ride {0} up on its bends: break the rim's outer edge, or lay a gasket as thick under it"
            )
            why = "its inside radius is larger than its clearance over the tray (plane geometry)"
            told = cannot(path, name, "lid on the rim", "", why)
            message = f"{plain(name)}: {words}"
            yield replace(told, state="note", message=message, figures=(Figure(up, "mm", "up"),), value=up, unit="mm")


def _flat_mm(pan: FlatPattern, slope: Slope) -> float:
    return slope.long_mm - sum(pan.bend.setback_mm_at(angle) for angle in slope.angles_deg)


def seen(face: str) -> str:
    """What a face of the box is in the cap's blank, and the other way about."""
    return _SEEN_FROM_INSIDE.get(face, face)
