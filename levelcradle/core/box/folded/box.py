"""The folded box: what it answers as any construction does."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.chamfers import along_edge, beside_steps, chamfered, meeting
from levelcradle.core.box.folded.cap import CapLid, seen
from levelcradle.core.box.folded.edges import slope_of
from levelcradle.core.box.folded.feasible import Makeable, least_chamfer, makeable
from levelcradle.core.box.folded.flange import FlangeLid
from levelcradle.core.box.folded.flat_parts import (
    corner_parts,
    crossing,
    deduction_limits,
    separate_parts,
    tray_part,
)
from levelcradle.core.box.folded.flat_pattern import FACES
from levelcradle.core.box.folded.lid import Lid
from levelcradle.core.box.folded.metal import folded_pieces
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken, seams_mm
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.made import Layers, Made, StackRow, Wall, sheet_row
from levelcradle.core.box.making import cannot, too_little
from levelcradle.core.box.openings import FaceHole, openings_of
from levelcradle.core.box.piece import Outside, Piece
from levelcradle.core.box.plates import wall_plate
from levelcradle.core.box.welding import welded_by
from levelcradle.core.design.base import FACE_PAIRS, Face, Side
from levelcradle.core.design.box import FACE_AT, Box
from levelcradle.core.design.construction import Cap, Closure, Flange, Folded
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.part import Flat, FlatPart, bend_setback_mm
from levelcradle.core.solids import Solid, block, hull
from levelcradle.core.strength import Plate

__all__ = ["FoldedBox"]

BEND_MM = 0.4  # a folded edge, common practice, no source (0.3 to 0.5)
WELD_PULL_MM = 0.5  # a welded corner pulls in by so much, common practice, no source


@dataclass(frozen=True, eq=False)
class FoldedBox:
    """A tray folded from one sheet, and its lid."""

    sheet: Sheet
    lid: Lid
    inner_mm: Vec

    @staticmethod
    def round(box: Box, spec: Folded, wanted_mm: Vec, material: Material) -> "FoldedBox":
        """Round what is wanted, or round a given inside."""
        inner = box.inner.size_mm if box.inner.type == "fixed" else wanted_mm
        t = spec.thickness_mm
        walls = (inner[0] + 2 * t, inner[1] + 2 * t)
        base = Sheet(box, spec, (*walls, inner[2] + t), material).base_mm
        sheet = Sheet(box, spec, (*walls, inner[2] + base), material)
        return FoldedBox(sheet, _lid_of(sheet, box.lid), inner)

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Folded, dict[str, Cap]]:
        """Of a sheet as thick as the walls were, bent as tight as it takes."""
        wall = was.wall_at("left")
        t = min(max(wall.thickness_mm, 0.5), 20.0)
        radius = max(Folded().bend_radius_mm, t * (wall.material.bend_radii or 0.0))
        return Folded(thickness_mm=t, bend_radius_mm=min(radius, 50.0)), {"lid": Cap()}

    @property
    def outer_mm(self) -> Vec:
        return self.sheet.outer_mm

    @property
    def given(self) -> bool:
        return self.sheet.box.inner.type == "fixed"

    @property
    def over(self) -> tuple[Vec, Vec]:
        return self.lid.over

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
        return self.lid.hinge

    @property
    def mouth(self) -> tuple[Flat, ...] | None:
        return self.lid.mouth

    @property
    def lift_mm(self) -> float:
        return self.lid.lift_mm

    def proud_mm(self, face: str) -> float:
        return self.lid.proud_mm if face == "top" else 0.0

    @cached_property
    def holes(self) -> tuple[FaceHole, ...]:
        """Through the tray and the top of the lid, each on the outside of its face."""
        return (*openings_of(self.sheet.box, self.outer_mm), *self.lid.in_walls())

    def pieces(self) -> Iterator[Piece]:
        yield from folded_pieces(self.sheet, self.holes)
        yield from self.lid.pieces()

    def outside(self) -> Iterator[Outside]:
        """The tray, filled, and its lid."""
        for low, high in beside_steps((0.0, 0.0, 0.0), self.outer_mm, self.sheet.box, self.outer_mm):
            corners = chamfered(low, high, self.sheet.box, self.outer_mm, 0.0)
            yield Outside("tray", "body", hull(corners) if corners else block(low, high))
        yield from (Outside("tray", "body", self._round_in(face)) for face in self.sheet.tray.steps)
        yield from self.lid.outside()

    def _round_in(self, face: str) -> Solid:
        """What the bend back of a step leaves of its corner."""
        (in_, up), radius = self.sheet.tray.steps[face], self.sheet.spec.bend_radius_mm
        section = ((in_, up), (in_ - radius, up), (in_, up - radius))
        return along_edge(face, section, self.outer_mm, (0.0, self.outer_mm[1 - FACE_AT[face][0]]))

    def wall_at(self, face: Side) -> Wall:
        """Without what its edges lose: flat above its bend, below what its lid takes."""
        sheet, back = self.sheet, self.sheet.back_mm
        start, end, foot, flat = 0.0, self.outer_mm[0 if face in ("left", "right") else 1], 0.0, back
        for chamfer in sheet.box.chamfers.values():
            if face not in chamfer.edge or "top" in chamfer.edge:
                continue
            other, cut = next(f for f in chamfer.edge if f != face), chamfer.along_mm[face]
            if other == "base":
                turned = 90.0 if chamfer.square else slope_of(chamfer)[1].angles_deg[1]
                foot, flat = cut, cut + bend_setback_mm(turned, back)
            elif FACE_AT[other][1]:
                end -= cut
            else:
                start += cut
        shelves = (up + sheet.t for f, (_, up) in sheet.tray.steps.items() if FACE_AT[f][0] != FACE_AT[face][0])
        flat = max(flat, *shelves, 0.0)
        rim_mm = sheet.rim_mm(face)
        beside = min((sheet.rim_mm(f) for f in sheet.tops if FACE_AT[f][0] != FACE_AT[face][0]), default=rim_mm)
        under_lid = min(rim_mm - self.lid.covers_mm, beside)
        return Wall(start, end, flat, under_lid, rim_mm - foot, sheet.t, sheet.material)

    def tube_at(self, edge: Side) -> Wall | None:
        return None

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """Between its bends, and below what its lid takes."""
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

    def along_walls(self, axis: int) -> tuple[float, float, float]:
        return self.start_mm[axis], self.start_mm[axis] + self.inner_mm[axis], 0.0

    def on_a_tube(self, face: Face, at: Vec, half_mm: float) -> None:
        return None

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
        upright = axis == 2
        first = sheet_row("floor", self.sheet.base_mm, path) if upright else sheet_row("wall", self.sheet.t, path)
        last = tuple(self.lid.stack_rows(path)) if upright else (first,)
        welded, source = welded_by(self.sheet.box, self.outer_mm[axis])
        whole = (
            StackRow("box as welded", 0.0, welded, 0.0 if axis == 2 else 2 * WELD_PULL_MM, source, "other", path),
            StackRow("two bends", 0.0, 2 * BEND_MM, 0.0, "± 0.4 a bend, common practice, no source", "other", path),
        )
        return Layers((first,), last, whole)

    def floor_mm(self, low: Vec, high: Vec) -> float:
        """On the shelf of a step that it stands over, else on the base."""
        outer, t = self.outer_mm, self.sheet.t
        for face, (in_, up) in self.sheet.tray.steps.items():
            axis, far = FACE_AT[face]
            reach = outer[axis] - low[axis] if far else high[axis]
            if reach <= in_:
                return up + t
        return self.start_mm[2]

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return least_chamfer(self.sheet, edge)

    @cached_property
    def _crossing(self) -> tuple[str, ...]:
        """What of its blanks crosses itself, without the box's name."""
        return tuple(crossing("", self._blanks("x", "")))

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        if meeting(self.sheet.box) or any(row.has_mm < row.needs_mm for row in self.asked) or self._crossing:
            return
        yield from self._blanks(box_id, name)

    def _blanks(self, box_id: str, name: str) -> Iterator[FlatPart]:
        yield tray_part(box_id, name, self.sheet, self.holes)
        yield from self.lid.parts(box_id, name)
        yield from separate_parts(box_id, name, self.sheet, self.holes)
        yield from corner_parts(box_id, name, self.sheet)

    @cached_property
    def asked(self) -> tuple[Makeable, ...]:
        """What the folder and driller ask of tray and lid."""
        return *makeable(self.sheet, self.lid.covers_mm), *self.lid.makeable()

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        return iter(())

    @property
    def lapped_mm(self) -> float:
        return 0.0

    @property
    def weld_mm(self) -> float:
        return seams_mm(self.sheet.tray) + self.lid.weld_mm

    @property
    def fastened(self) -> int:
        return self.lid.fastened

    def bought(self) -> Iterator[tuple[str, int]]:
        return self.lid.bought()

    def message(self) -> tuple[str, tuple[str, ...]]:
        how = "welded" if self.sheet.tray.separate == SEPARATE_WAYS[-1] else "folded"
        return f"{self.sheet.t:g} mm, {how}", (self.lid.words(),)

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        yield from self._uncut(path, name)
        yield from self._deduction(path, name)
        for row in self.asked:
            mm = (row.has_mm, row.needs_mm)
            yield from too_little(path, name, row.name, row.message, mm, row.why)
        yield from self._bent(path, name)
        yield from self._cut_apart(path, name)
        yield from self.lid.findings(path, name)

    def _bent(self, path: str, name: str) -> Iterator[Finding]:
        """Of a sheet of which nobody has said how tight it is bent; of one that cracks along its rolling direction and
        is bent both ways."""
        of = self.sheet.material
        if of.bend_radii is None:
            words = f"nobody has said how tight {of.name} is bent"
            yield replace(cannot(path, name, "bend radius", words, "too tight, and it cracks"), state="unknown")
        apart = self.sheet.tray.separate
        if of.grain == "yes" and not any(set(pair) <= apart for pair in FACE_PAIRS[:2]):
            words = f"{of.name} is bent both ways, and cracks along its rolling direction"
            why = "one pair of bends lies along it: a larger radius there, or a try first (common practice, no source)"
            yield replace(cannot(path, name, "rolling direction", words, why), state="note")

    def _cut_apart(self, path: str, name: str) -> Iterator[Finding]:
        """What his limits make panels of their own, and which of them."""
        tray, his = self.sheet.tray, self.sheet.spec.folder
        rows = [("walls", tray, tray.separate)]
        if isinstance(self.lid, CapLid):
            rows.append(("lid edges", self.lid.pan, frozenset(seen(side) for side in self.lid.pan.separate)))
        for what, pan, sides in rows:
            if not sides:
                continue
            why = [words for _, words, _, _ in not_taken(replace(pan, separate=frozenset()), his)]
            if why:
                words = "all four" if len(sides) == len(FACES) else " and ".join(sorted(sides))
                yield replace(
                    cannot(path, name, f"{what} apart", f"{what} cut apart and welded on: {words}", ", ".join(why)),
                    state="note",
                )

    def _uncut(self, path: str, name: str) -> Iterator[Finding]:
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


def _lid_of(sheet: Sheet, lid: Closure) -> Lid:
    if isinstance(lid, Flange):
        return FlangeLid(sheet, lid)
    assert isinstance(lid, Cap)  # the document lets nothing else close it
    return CapLid(sheet, lid)
