"""An open rack: angles welded into a cage, with a snug tray of thin sheet in it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from shapely.geometry import Polygon

from levelcradle.core.axes import Placement, Vec
from levelcradle.core.bar import Angle, Bar, Flatbar
from levelcradle.core.box.folded.flat_pattern import FlatPattern, SheetBend, pan_bends, pan_outline
from levelcradle.core.box.folded.folding import folded_up
from levelcradle.core.box.folded.separate import seams_mm
from levelcradle.core.box.made import Layers, Made, StackRow, Wall, sheet_row
from levelcradle.core.box.making import cannot, too_little
from levelcradle.core.box.openings import openings_of
from levelcradle.core.box.piece import Outside, Piece, Role
from levelcradle.core.box.plates import wall_plate
from levelcradle.core.box.welding import welded_by
from levelcradle.core.design.base import FACE_AT, FACES, Face, Side
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Closure, Racked
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding
from levelcradle.core.part import Flat, FlatPart, Hole, Stand, bend_deduction_mm
from levelcradle.core.solids import Solid, block, corner_points, hull
from levelcradle.core.strength import Plate

__all__ = ["RackedBox"]

BEND_MM = 0.4  # a folded edge, common practice, no source (0.3 to 0.5)
ANGLE_TOL_MM = 0.5  # of a leg's thickness: EN 10056-2, from memory
STITCHED = 1 / 3  # of the ring, the insert to the cage: common practice, no source
ROLES: dict[str, Role] = {"base": "base", "wall": "wall", "slope": "slope", "bend": "bend"}


@dataclass(frozen=True, slots=True)
class Member:
    """A bar of the cage as it is drawn, in its own name: its blocks, and how long it is over all."""

    name: str
    section: Angle | Flatbar
    axis: int
    blocks: tuple[tuple[Vec, Vec], ...]

    @property
    def length_mm(self) -> float:
        return max(h[self.axis] for _, h in self.blocks) - min(v[self.axis] for v, _ in self.blocks)

    @property
    def coped(self) -> bool:
        """Whether one leg is cut back at its ends."""
        lengths = [h[self.axis] - v[self.axis] for v, h in self.blocks]
        return max(lengths) - min(lengths) > 1e-6


@dataclass(frozen=True, eq=False)
class RackedBox:
    """Bottom ring and posts of angles, their legs outside and below the insert; flats round its rim."""

    box: Box
    spec: Racked
    inner_mm: Vec
    material: Material

    @staticmethod
    def round(box: Box, spec: Racked, wanted_mm: Vec, material: Material) -> "RackedBox":
        return RackedBox(box, spec, box.inner.size_mm if box.inner.type == "fixed" else wanted_mm, material)

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Racked, dict[str, Closure]]:
        """Of common angles and thin sheet: what it was made of says nothing of a rack."""
        return Racked(type="racked"), {}

    @property
    def wall_mm(self) -> float:
        return self.spec.angle_wall_mm + self.spec.insert_mm

    @property
    def outer_mm(self) -> Vec:
        (length, width, height), wall = self.inner_mm, self.wall_mm
        return length + 2 * wall, width + 2 * wall, height + wall

    @property
    def given(self) -> bool:
        return self.box.inner.type == "fixed"

    @property
    def over(self) -> tuple[Vec, Vec]:
        return (0.0, 0.0, 0.0), self.outer_mm

    @property
    def start_mm(self) -> Vec:
        return self.wall_mm, self.wall_mm, self.wall_mm

    @property
    def closed_face(self) -> Face:
        return "top"

    @property
    def open_to_air(self) -> bool:
        return True

    @property
    def hinge(self) -> Face | None:
        return None

    @property
    def mouth(self) -> None:
        return None

    @property
    def lift_mm(self) -> float:
        return 0.0

    @property
    def sheet_mm(self) -> float | None:
        return None

    def proud_mm(self, face: str) -> float:
        """Things stand on the insert, between the angles."""
        return 0.0 if face == "top" else -self.spec.angle_wall_mm

    @cached_property
    def insert(self) -> FlatPattern:
        (length, width, height), t = self.inner_mm, self.spec.insert_mm
        k, radius = self.material.k_factor, self.spec.bend_radius_mm
        deduction = bend_deduction_mm(angle_deg=90, radius_mm=radius, thickness_mm=t, k=k)
        bend = SheetBend(radius, t, deduction, f"K {k:g} ({self.material.k_source})")
        return FlatPattern(length + 2 * t, width + 2 * t, height + t, bend)

    @property
    def _in_box(self) -> Placement:
        """From the axes of the insert's pan to the box's."""
        length, width, _ = self.outer_mm
        return Placement(np.eye(3), (length / 2, width / 2, self.spec.angle_wall_mm))

    @cached_property
    def members(self) -> tuple[Member, ...]:
        return tuple(_members(self.outer_mm, self.spec))

    @property
    def makeable(self) -> bool:
        return not self.box.chamfers and min(member.length_mm for member in self.members) > 0

    def pieces(self) -> Iterator[Piece]:
        dense, place = self.material.density_kg_m3 * 1e-9, self._in_box
        for member in self.members:
            volumes = [_volume(low, high) for low, high in member.blocks]
            total = sum(volumes)
            x, y, z = (
                sum(n * (v[i] + h[i]) / 2 for n, (v, h) in zip(volumes, member.blocks, strict=True)) / total
                if total
                else member.blocks[0][0][i]
                for i in range(3)
            )
            yield Piece(member.name, "frame", total * dense, (x, y, z), lambda m=member: _solids(m))  # type: ignore[misc]
        for strip in folded_up(self.insert):
            name = "insert, floor" if strip.kind == "base" else f"insert, {strip.face} {strip.kind}"

            yield Piece(
                name,
                ROLES[strip.kind],
                strip.area_mm2 * strip.thickness_mm * dense,
                place.point(strip.centre),
                lambda s=strip: tuple(_put(solid, place) for solid in s.solids()),  # type: ignore[misc]
                "insert",
            )

    def outside(self) -> Iterator[Outside]:
        yield Outside("rack", "body", block((0.0, 0.0, 0.0), self.outer_mm))

    def wall_at(self, face: Side) -> Wall:
        """The insert alone: the angles before it are not counted for what is fixed to it."""
        along, height = self.outer_mm[0 if face in ("left", "right") else 1], self.outer_mm[2]
        return Wall(0.0, along, 0.0, height, height, self.spec.insert_mm, self.material)

    def tube_at(self, edge: Side) -> Wall | None:
        return None

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """Between the angles."""
        if face == "top":
            return None
        one, other = (i for i in range(3) if i != FACE_AT[face][0])
        leg = self.spec.angle_mm
        return (leg, leg), (self.outer_mm[one] - leg, self.outer_mm[other] - leg)

    def along_walls(self, axis: int) -> tuple[float, float, float]:
        return self.start_mm[axis], self.start_mm[axis] + self.inner_mm[axis], 0.0

    def on_a_tube(self, face: Face, at: Vec, half_mm: float) -> bool:
        """On what is flat of its insert; under its edges lie the angles, and a bolt goes through both."""
        off, start, inner = self.spec.bend_radius_mm + half_mm, self.start_mm, self.inner_mm
        along = [i for i in range(3) if i != FACE_AT[face][0]]
        return all(start[i] + off <= at[i] <= start[i] + inner[i] - off for i in along)

    def bearing_at(self, face: Face) -> Plate | None:
        """The insert's sheet over the whole of a face, the angles not counted; its rim stands behind the flats, which
        hold it from moving, not from turning."""
        if face == "top":
            return None
        corner = face == "base" or self.material.weldable_with == "steel"
        held = ((corner, corner), (True, face == "base"))
        return wall_plate(self.box, face, self.inner_mm, self.spec.insert_mm, self.material, held)

    def stack_rows(self, axis: int, path: str) -> Layers:
        spec = self.spec
        angle = StackRow("angle", spec.angle_wall_mm, ANGLE_TOL_MM, 0.0, "EN 10056-2, from memory", "metal", path)
        sheet = sheet_row("insert", spec.insert_mm, path)
        welded, source = welded_by(self.box, self.outer_mm[axis])
        whole = (
            StackRow("rack as welded", 0.0, welded, 0.0, source, "other", path),
            StackRow("two bends", 0.0, 2 * BEND_MM, 0.0, "± 0.4 a bend, common practice, no source", "other", path),
        )
        return Layers((angle, sheet), () if axis == 2 else (sheet, angle), whole)

    def floor_mm(self, low: Vec, high: Vec) -> float:
        return self.start_mm[2]

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return None

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        if not self.makeable or not Polygon(pan_outline(self.insert)).is_valid:
            return
        pan, t = self.insert, self.spec.insert_mm
        whole = f"{pan.length_mm:.1f} × {pan.width_mm:.1f} × {pan.height_mm:.1f}"
        notes = (
            f"Outside {whole} when folded",
            f"Inside radius {pan.bend.radius_mm:g}, bend deduction {pan.bend.deduction_mm:.2f}: {pan.bend.source}",
            "Corners welded; the sheet is seen from inside, all bends towards you; stitched to the angles",
        )
        part = FlatPart(
            f"{box_id}-insert",
            f"{name} insert",
            1,
            self.box.material,
            self.material.name,
            t,
            self.material.density_kg_m3,
            pan_outline(pan),
            (),
            tuple(pan_bends(pan)),
            notes,
            Stand((0.0, 0.0), self._in_box),
        )
        yield replace(part, holes=tuple(self._holes()))

    def _holes(self) -> Iterator[Hole]:
        back, pan = self._in_box.inverse, self.insert
        for hole in openings_of(self.box, self.outer_mm):
            x, y, up = back.point(hole.at)
            if hole.face == "top":
                continue
            at = (
                (x, y) if hole.face == "base" else pan.on_side(hole.face, y if hole.face in ("front", "aft") else x, up)
            )
            yield Hole(at, hole.diameter_mm, self.box.openings[hole.name].name)

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        dense = self.material.density_kg_m3 * 1e-9
        for member in self.members if self.makeable else ():
            end = "one leg cut back" if member.coped else "square"
            yield Bar(
                f"{box_id}-{member.name.replace(' ', '-')}",
                f"{name} {member.name}",
                1,
                self.box.material,
                self.material.name,
                member.section,
                member.length_mm,
                (end, end),
                sum(_volume(low, high) for low, high in member.blocks) * dense,
            )

    @property
    def lapped_mm(self) -> float:
        return 0.0

    @property
    def weld_mm(self) -> float:
        """Each butted end along its section, the corners of the insert, and its stitches to the bottom ring."""
        legs = ((2 if isinstance(one.section, Angle) else 1) for one in self.members if one.axis)
        ends = sum(2 * count * self.spec.angle_mm for count in legs)
        return ends + seams_mm(self.insert) + STITCHED * 2 * (self.inner_mm[0] + self.inner_mm[1])

    @property
    def fastened(self) -> int:
        return 0

    def bought(self) -> Iterator[tuple[str, int]]:
        return iter(())

    def message(self) -> tuple[str, tuple[str, ...]]:
        insert = f"insert {self.spec.insert_mm:g} mm, folded, stitched to the angles"
        return f"open rack of {Angle(self.spec.angle_mm, self.spec.angle_wall_mm)}", (insert,)

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        if self.box.chamfers:
            why = "its angles run along every edge; nothing is cut for this box"
            yield cannot(path, name, "edges", "edges are cut off a rack", why)
        radii = self.material.bend_radii
        if radii is not None:
            mm, why = (self.spec.bend_radius_mm, radii * self.spec.insert_mm), self.material.bend_source or "as entered"
            yield from too_little(path, name, "bend radius", "inside radius of its insert's bends", mm, why)
        short, needs = min(member.length_mm for member in self.members), 2 * self.spec.angle_mm
        why = "room to weld it: common practice, no source"
        yield from too_little(path, name, "angles", "the shortest bar of the rack comes out", (short, needs), why)
        for hole in openings_of(self.box, self.outer_mm):
            flat = self.flat_at(_face(hole.face))
            if flat is None:
                yield cannot(path, name, f"opening {hole.name}", "an opening is cut in what is open", "it has no lid")
                continue
            along = [i for i in range(3) if i != FACE_AT[hole.face][0]]
            has = min(min(hole.at[i] - low, high - hole.at[i]) for i, low, high in zip(along, *flat, strict=True))
            words = f"from the opening {self.box.openings[hole.name].name} to an angle there is"
            why = "an opening goes through the insert between the angles"
            yield from too_little(path, name, f"opening {hole.name}", words, (has - hole.seat_mm / 2, 0.0), why)


def _put(solid: Solid, place: Placement) -> Solid:
    return hull([place.point((p[0], p[1], p[2])) for p in corner_points([solid]).tolist()])


def _face(name: str) -> Face:
    return next(face for face in FACES if face == name)


def _members(outer: Vec, spec: Racked) -> Iterator[Member]:
    """A bottom ring, its long angles whole and those across between them, a leg of each cut back; posts on it; flats
    round the rim on the posts."""
    (length, width, height), leg, w = outer, spec.angle_mm, spec.angle_wall_mm
    angle, flat = Angle(leg, w), Flatbar(leg, w)
    for side, y0, y1, in0, in1 in (("left", 0.0, w, 0.0, leg), ("right", width - w, width, width - leg, width)):
        upright = ((0.0, y0, w), (length, y1, leg))
        lying = ((0.0, in0, 0.0), (length, in1, w))
        yield Member(f"lower {side} angle", angle, 0, (upright, lying))
    for end, x0, x1, in0, in1 in (("front", 0.0, w, 0.0, leg), ("aft", length - w, length, length - leg, length)):
        upright = ((x0, w, w), (x1, width - w, leg))
        lying = ((in0, leg, 0.0), (in1, width - leg, w))
        yield Member(f"lower {end} angle", angle, 1, (upright, lying))
    for side, y0, y1, b0, b1 in (("left", 0.0, w, w, leg), ("right", width - w, width, width - leg, width - w)):
        for end, x0, x1, a0, a1 in (("front", 0.0, w, 0.0, leg), ("aft", length - w, length, length - leg, length)):
            one = ((a0, y0, leg), (a1, y1, height - leg))
            other = ((x0, b0, leg), (x1, b1, height - leg))
            yield Member(f"{end} {side} post", angle, 2, (one, other))
    up = (height - leg, height)
    for side, y0, y1 in (("left", 0.0, w), ("right", width - w, width)):
        yield Member(f"upper {side} flat", flat, 0, (((0.0, y0, up[0]), (length, y1, up[1])),))
    for end, x0, x1 in (("front", 0.0, w), ("aft", length - w, length)):
        yield Member(f"upper {end} flat", flat, 1, (((x0, w, up[0]), (x1, width - w, up[1])),))


def _volume(low: Vec, high: Vec) -> float:
    x, y, z = (h - v for v, h in zip(low, high, strict=True))
    return x * y * z


def _solids(member: Member) -> tuple[Solid, ...]:
    return tuple(block(low, high) for low, high in member.blocks)
