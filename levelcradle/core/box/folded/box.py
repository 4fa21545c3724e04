"""The folded box: what it answers as any construction does."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.chamfers import chamfered, meeting
from levelcradle.core.box.folded.edges import slope_of
from levelcradle.core.box.folded.feasible import least_chamfer, makeable
from levelcradle.core.box.folded.flat_parts import (
    corner_parts,
    crossing,
    deduction_limits,
    lid_part,
    separate_parts,
    tray_part,
)
from levelcradle.core.box.folded.flat_pattern import FACES
from levelcradle.core.box.folded.metal import folded_pieces
from levelcradle.core.box.folded.screws import lid_screws
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken, seams_mm
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.made import Layers, Made, StackRow, Wall
from levelcradle.core.box.making import cannot, too_little
from levelcradle.core.box.piece import Outside, Piece
from levelcradle.core.box.plates import wall_plate
from levelcradle.core.box.welding import welded_by
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT, Box
from levelcradle.core.design.construction import Cap, Folded
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.part import Flat, FlatPart, bend_setback_mm
from levelcradle.core.solids import Solid, block, hull
from levelcradle.core.strength import Plate
from levelcradle.core.tolerances import tolerance_by

__all__ = ["FoldedBox"]

BEND_MM = 0.4  # a folded edge, common practice, no source (0.3 to 0.5)
WELD_PULL_MM = 0.5  # a welded corner pulls in by so much, common practice, no source
SHEET = "sheet; ISO 2768-1 m, from memory"


@dataclass(frozen=True, eq=False)
class FoldedBox:
    """A tray folded from one sheet with a cap over it."""

    sheet: Sheet
    inner_mm: Vec

    @staticmethod
    def round(box: Box, spec: Folded, wanted_mm: Vec, material: Material) -> "FoldedBox":
        """Round what is wanted, or round a given inside."""
        inner = box.inner.size_mm if box.inner.type == "fixed" else wanted_mm
        t, lid = spec.thickness_mm, box.lid
        assert isinstance(lid, Cap)  # the document lets nothing else close it
        walls = (inner[0] + 2 * t, inner[1] + 2 * t)
        base = Sheet(box, spec, lid, (*walls, inner[2] + t), material).base_mm
        return FoldedBox(Sheet(box, spec, lid, (*walls, inner[2] + base), material), inner)

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Folded, dict[str, Cap]]:
        """Of a sheet as thick as the walls were."""
        return Folded(thickness_mm=min(max(was.wall_at("left").thickness_mm, 0.5), 20.0)), {"lid": Cap()}

    @property
    def outer_mm(self) -> Vec:
        return self.sheet.outer_mm

    @property
    def given(self) -> bool:
        return self.sheet.box.inner.type == "fixed"

    @property
    def over(self) -> tuple[Vec, Vec]:
        (length, width, _), (wide, across, tall) = self.outer_mm, self.sheet.over_mm
        x, y = (wide - length) / 2, (across - width) / 2
        return (-x, -y, 0.0), (length + x, width + y, tall)

    @property
    def wall_mm(self) -> float:
        return self.sheet.t

    @property
    def start_mm(self) -> Vec:
        return self.sheet.t, self.sheet.t, self.sheet.base_mm

    @property
    def closed_face(self) -> Face:
        return "top"

    @property
    def sheet_mm(self) -> float | None:
        return self.sheet.t

    @property
    def open_to_air(self) -> bool:
        return False

    @property
    def hinge(self) -> Face | None:
        return None

    @property
    def lift_mm(self) -> float:
        return self.sheet.cap.edge_mm

    def proud_mm(self, face: str) -> float:
        return self.sheet.lid_mm if face == "top" else 0.0

    def pieces(self) -> Iterator[Piece]:
        return folded_pieces(self.sheet)

    def outside(self) -> Iterator[Outside]:
        """Tray, cap, and heads as blocks of their width and height."""
        (low, high), out = self._cap, self.sheet.out_mm
        yield Outside("tray", "body", self._cut((0.0, 0.0, 0.0), self.outer_mm, 0.0))
        yield Outside("lid", "closure", self._cut(low, high, out))
        screws = self.sheet.cap.screws
        half = screws.head_across_mm / 2
        for screw in lid_screws(self.sheet):
            axis, far = FACE_AT[screw.face]
            start, end = [v - half for v in screw.at], [v + half for v in screw.at]
            start[axis], end[axis] = (
                (high[axis], high[axis] + screws.head_high_mm) if far else (low[axis] - screws.head_high_mm, low[axis])
            )
            yield Outside("screw head", "fastener", block((start[0], start[1], start[2]), (end[0], end[1], end[2])))

    @property
    def _cap(self) -> tuple[Vec, Vec]:
        """Corners of the block round the lid."""
        (length, width, _), out, top = self.outer_mm, self.sheet.out_mm, self.sheet.over_mm[2]
        return (-out, -out, top - self.sheet.cap.edge_mm), (length + out, width + out, top)

    def _cut(self, low: Vec, high: Vec, out_mm: float) -> Solid:
        corners = chamfered(low, high, self.sheet.box, self.outer_mm, out_mm)
        return hull(corners) if corners else block(low, high)

    def wall_at(self, face: Literal["front", "aft", "left", "right"]) -> Wall:
        """Without what its edges lose: flat above its bend, below the lid's edge."""
        sheet, back = self.sheet, self.sheet.back_mm
        start, end, foot, flat = 0.0, self.outer_mm[0 if face in ("left", "right") else 1], 0.0, back
        for chamfer in sheet.box.chamfers.values():
            if face not in chamfer.edge:
                continue
            other, cut = next(f for f in chamfer.edge if f != face), chamfer.along_mm[face]
            if other == "base":
                foot, flat = cut, cut + bend_setback_mm(slope_of(chamfer)[1].angles_deg[1], back)
            elif FACE_AT[other][1]:
                end -= cut
            else:
                start += cut
        rim_mm, under_lid = self.outer_mm[2], sheet.over_mm[2] - sheet.cap.edge_mm
        return Wall(start, end, flat, under_lid, rim_mm - foot, sheet.t, sheet.material)

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """Between its bends, and below the lid's edge."""
        back = self.sheet.back_mm
        if face == "top":
            return None
        if face == "base":
            (length, width, _), cut = self.outer_mm, self.sheet.tray.sides
            low = [length / 2 - cut["front"].base_half_mm, width / 2 - cut["left"].base_half_mm]
            high = [length / 2 + cut["aft"].base_half_mm, width / 2 + cut["right"].base_half_mm]
            return (low[0], low[1]), (high[0], high[1])
        wall = self.wall_at(face)
        return (wall.start_mm + back, wall.flat_from_mm), (wall.end_mm - back, wall.flat_to_mm)

    def bearing_at(self, face: Face) -> Plate | None:
        """Its bends and welded corners hold each wall's edges, and the base's; the lid holds a wall's rim from moving,
        not from turning, and a welded edge of aluminium too, which is soft beside its weld (EN 1999-1-1, 6.1.6).
        Edges that are cut off leave less to span: they are not counted."""
        if face == "top":
            return None
        box, of, apart = self.sheet.box, self.sheet.material, self.sheet.tray.separate
        welds = of.weldable_with == "steel"
        if face == "base":
            front, aft, left, right = (welds or side not in apart for side in ("front", "aft", "left", "right"))
            return wall_plate(box, face, self.inner_mm, self.sheet.base_mm, of, ((front, aft), (left, right)))
        held = ((welds, welds), (welds or face not in apart, False))
        return wall_plate(box, face, self.inner_mm, self.sheet.t, of, held)

    def stack_rows(self, axis: int, path: str) -> Layers:
        sheets = (("floor", self.sheet.base_mm), ("lid", self.sheet.lid_mm))
        first, last = (
            StackRow(what, t, tolerance_by("cut", max(t, 0.6))[0], 0.0, SHEET, "metal", path)
            for what, t in (sheets if axis == 2 else (("wall", self.sheet.t),) * 2)
        )
        welded, source = welded_by(self.sheet.box, self.outer_mm[axis])
        whole = (
            StackRow("box as welded", 0.0, welded, 0.0 if axis == 2 else 2 * WELD_PULL_MM, source, "other", path),
            StackRow("two bends", 0.0, 2 * BEND_MM, 0.0, "± 0.4 a bend, common practice, no source", "other", path),
        )
        return Layers((first,), (last,), whole)

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return least_chamfer(self.sheet, edge)

    @cached_property
    def _crossing(self) -> tuple[str, ...]:
        """What of its blanks crosses itself, without the box's name."""
        return tuple(crossing("", self.sheet))

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        if meeting(self.sheet.box) or any(row.has_mm < row.needs_mm for row in makeable(self.sheet)) or self._crossing:
            return
        yield tray_part(box_id, name, self.sheet)
        yield lid_part(box_id, name, self.sheet)
        yield from separate_parts(box_id, name, self.sheet)
        yield from corner_parts(box_id, name, self.sheet)

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        return iter(())

    @property
    def weld_mm(self) -> float:
        return seams_mm(self.sheet.tray) + seams_mm(self.sheet.lid)

    @property
    def fastened(self) -> int:
        return sum(1 for _ in lid_screws(self.sheet))

    def bought(self) -> Iterator[tuple[str, int]]:
        yield f"{self.sheet.cap.screws.size} screw and rivet nut, closing the box", self.fastened

    def message(self) -> tuple[str, tuple[str, ...]]:
        screws = f"lid screws {self.sheet.cap.screws.size} sideways through the edge into rivet nuts"
        return f"{self.sheet.t:g} mm, {'welded' if self.sheet.tray.separate == SEPARATE_WAYS[-1] else 'folded'}", (
            screws,
        )

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        yield from self._blanks(path, name)
        yield from self._deduction(path, name)
        for row in makeable(self.sheet):
            mm = (row.has_mm, row.needs_mm)
            yield from too_little(path, name, row.name, row.message, mm, "common practice, no source")
        yield from self._cut_apart(path, name)
        yield from self._rides(path, name)

    def _cut_apart(self, path: str, name: str) -> Iterator[Finding]:
        """What his limits make panels of their own, and which of them."""
        lid = [self.sheet.seen(side) for side in self.sheet.lid.separate]
        tray, his = self.sheet.tray, self.sheet.spec.folder
        for what, pan, sides in (("walls", tray, tray.separate), ("lid edges", self.sheet.lid, lid)):
            why = [words for _, words, _, _ in not_taken(replace(pan, separate=frozenset()), his)]
            if sides and why:
                words = "all four" if len(sides) == len(FACES) else " and ".join(sorted(sides))
                yield replace(
                    cannot(path, name, f"{what} apart", f"{what} cut apart and welded on: {words}", ", ".join(why)),
                    state="note",
                )

    def _rides(self, path: str, name: str) -> Iterator[Finding]:
        """The round inside a bend of the lid meets the sharp rim of the tray before the lid lies on it."""
        radius, clear = self.sheet.spec.bend_radius_mm, self.sheet.cap.clearance_mm
        if clear < radius:
            up = radius - math.sqrt(radius**2 - (radius - clear) ** 2)
            words = (
                "its lid would ride {0} up on its bends: break the rim's outer edge, or lay a gasket as thick under it"
            )
            why = "its inside radius is larger than its clearance over the tray (plane geometry)"
            told = cannot(path, name, "lid on the rim", "", why)
            message = f"{plain(name)}: {words}"
            yield replace(told, state="note", message=message, figures=(Figure(up, "mm", "up"),), value=up, unit="mm")

    def _blanks(self, path: str, name: str) -> Iterator[Finding]:
        """A blank whose outline crosses itself cannot be cut; where slopes meet in a corner there is none."""
        if meeting(self.sheet.box):
            yield Finding(
                id=f"make:{path}:chamfers",
                code="box.make",
                station="box",
                state="unknown",
                subjects=(path,),
                message=f"{plain(name)}: two of its cut-off edges meet in a corner",
                rationale="a corner where two slopes meet is not unfolded here yet; nothing is cut for this box",
                label="chamfers",
            )
            return
        for blank in self._crossing:
            yield Finding(
                id=f"make:{path}:blank:{name}{blank}",
                code="box.make",
                station="box",
                state="foul",
                subjects=(path,),
                message=f"{plain(name + blank)}: its blank would cross itself, so it is not drawn",
                label="blank",
                rationale="bends, walls and cut-off edges take more sheet than there is between them",
            )

    def _deduction(self, path: str, name: str) -> Iterator[Finding]:
        his = self.sheet.spec.folder.deduction_mm
        least, most = deduction_limits(self.sheet.spec.bend_radius_mm, self.sheet.t)
        if his is not None and not least <= his <= most:
            yield Finding(
                id=f"make:{path}:deduction",
                code="box.make",
                station="box",
                state="foul",
                subjects=(path,),
                message=f"{plain(name)}: a bend deduction of {{0}} cannot be: this sheet and radius give {{1}} to "
                f"{{2}}",
                figures=(Figure(his, "mm"), Figure(least, "mm", "up"), Figure(most, "mm", "down")),
                value=his,
                limit=most if his > most else least,
                margin=min(his - least, most - his),
                unit="mm",
                label="bend deduction",
                rationale="the neutral fibre of a bend lies within the sheet (sheet-metal handbooks)",
            )
