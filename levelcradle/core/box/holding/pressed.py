"""A stack between two plates, pressed on it along one way: wedges are driven between a plate and the wall, or screws
come through the wall. The walls carry what presses, and in a crash what is thrown on them besides."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Placement, Vec, scaled
from levelcradle.core.box.holding.bolted import STATICS, bolt_words, ratio, sheet_check
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack, nut_mm
from levelcradle.core.box.openings import SEEN, outward
from levelcradle.core.box.piece import Piece, block_piece
from levelcradle.core.box.plates import plate_part
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.design.holders import Plates, Pressed
from levelcradle.core.part import FlatPart
from levelcradle.core.strength import GAMMA_M0, bolt_capacity, class_asks, pull_through_n

__all__ = ["PressedHeld"]

WEDGE_MM = 6.0  # a pair of wedges is no thinner where it is driven: common practice, no source
WEDGE_KG_M3 = 1140.0  # polyamide, from memory
TOUCH_MM = 0.05
ALONG = {"aft": 0, "across": 1}
WHERE = {"strap_mm": "at a strap", "between_mm": "between straps", "edge_mm": "at its edge"}


@dataclass(frozen=True)
class PressedHeld:
    """Plates in place. The one at the far face (aft, right) is pressed on, the other lies on its wall."""

    key: str
    spec: Pressed
    placed: Placed

    @staticmethod
    def room(spec: Pressed, stack: Stack) -> Mapping[Face, float]:
        """A plate at either end; at the far one besides what the stack is wider before it is pressed, and wedges."""
        widest = _widest(spec, stack)
        if spec.plates is None or widest is None:
            return {}
        near, far = FACE_PAIRS[ALONG[spec.along]]
        springs = max(widest[0] - stack.laid.size_mm[ALONG[spec.along]], 0.0)
        t = spec.plates.thickness_mm
        return {near: t, far: t + max(springs, WEDGE_MM if spec.by == "wedges" else 0.0)}

    @property
    def words(self) -> str:
        return f"pressed between plates by {self.spec.by}"

    @property
    def missing(self) -> str:
        if self.spec.plates is None:
            return "nobody has said between which plates it is pressed"
        if self.spec.force_n is None:
            return "nobody has said how much it is pressed"
        if _widest(self.spec, self.placed.stack) is None:
            return "nobody has measured how wide the stack is before it is pressed"
        return ""

    @property
    def ties(self) -> bool:
        return False

    @property
    def presses(self) -> int | None:
        return ALONG[self.spec.along]

    @property
    def _plates(self) -> Plates:
        assert self.spec.plates is not None
        return self.spec.plates

    @property
    def _faces(self) -> tuple[Face, Face]:
        return FACE_PAIRS[ALONG[self.spec.along]]

    def asks(self) -> Iterator[tuple[str, bool]]:
        plates, stack, axis = self.spec.plates, self.placed.stack, ALONG[self.spec.along]
        widest = _widest(self.spec, stack)
        if plates is None or widest is None:
            return
        for row in stack.laid.rows:
            if row.direction == self.spec.along:
                yield f"gaps of {row.has_mm:.1f} between modules that are pressed together", row.has_mm <= TOUCH_MM
        near, far = self._faces
        has = (
            stack.laid.size_mm[axis] + sum(self.placed.free_mm(face) for face in (near, far)) - 2 * plates.thickness_mm
        )
        where = f" {widest[1]}" if widest[1] else ""
        yield f"{has:.1f} between the plates for a stack {widest[0]:.1f} wide{where}", has >= widest[0] - 1e-6
        if self.spec.by == "wedges":
            left = self.placed.free_mm(far) - plates.thickness_mm
            yield f"{left:.1f} behind the {far} plate for wedges, at least {WEDGE_MM:g}", left >= WEDGE_MM - 1e-6
        for face in (near, far):
            carries = self.placed.made.bearing_at(face) is not None
            yield f"pressed on the {face}, which comes off", carries
        if self.spec.by == "screws":
            screws = plates.screws
            yield from class_asks((screws.size, screws.property_class), *stack.bolt(screws))
            yield f"screws through {screws.into}s: a nut welded in the wall takes their thrust", screws.into == "nut"

    @cached_property
    def _grips(self) -> tuple[Grip, ...]:
        """In the corners of both ends of the stack."""
        axis, (low, high) = ALONG[self.spec.along], (self.placed.low, self.placed.high)
        other = 1 - axis
        found = []
        for face in self._faces:
            n = scaled(outward(face), -1.0)
            for a in (low[other], high[other]):
                for up in (low[2], high[2]):
                    at = [0.0, 0.0, up]
                    at[axis], at[other] = (high if FACE_AT[face][1] else low)[axis], a
                    found.append(Grip((at[0], at[1], at[2]), n, "push", face))
        return tuple(found)

    def grips(self) -> tuple[Grip, ...]:
        return self._grips

    def checks(self, forces: Forces) -> Iterator[Check]:
        """What presses is there before anything is thrown, and adds to it."""
        axis, stack = ALONG[self.spec.along], self.placed.stack
        pressed = self.spec.force_n or 0.0
        patch = [stack.laid.size_mm[i] for i in range(3) if i != axis]
        both = [pressed + np.abs(forces[:, :, 4 * n : 4 * n + 4, axis].sum(axis=2)) for n in (0, 1)]
        for face, press in zip(self._faces, both, strict=True):
            bearing = self.placed.made.bearing_at(face)
            if bearing is not None:
                check = sheet_check(face, press, bearing, (patch[0], patch[1]))
                yield replace(check, name=f"{face} under what presses")
        if self.spec.by == "screws":
            yield from self._screws(both[1])

    def _screws(self, press: Forces) -> Iterator[Check]:
        """Each takes its share, pushed; the plate bends between them, as a strip on supports; the wall's rim round the
        nut holds it."""
        plates, stack = self._plates, self.placed.stack
        size, grade = stack.bolt(plates.screws)
        each = press / plates.each
        pull, _ = bolt_capacity(size, grade)
        rule = "0.9 fub As / γM2, as if pulled"
        yield ratio(
            "screws that press", each, pull, "N", rule, "EN 1993-1-8 table 3.4; short, so none buckles (statics)"
        )
        wide, high = stack.laid.size_mm[1 - ALONG[self.spec.along]], stack.laid.size_mm[2]
        steel = stack.tables.materials[plates.material]
        bends = high * plates.thickness_mm**2 / 4 * steel.yield_mpa / GAMMA_M0
        yield ratio("plate between screws", each * wide / plates.each / 8, bends, "N·mm", "h t² / 4 fy / γM0", STATICS)
        bearing = self.placed.made.bearing_at(self._faces[1])
        if bearing is not None:
            holds = pull_through_n(size.across_flats_mm, bearing.material.ultimate_mpa, bearing.thickness_mm)
            yield ratio("wall round the screws", each, holds, "N", "0.6 π dm t fu / γM2", "EN 1993-1-8 table 3.4")

    def _corners(self, face: Face, near_mm: float, far_mm: float) -> tuple[Vec, Vec]:
        """Of a layer over the whole end of the stack, between two distances off it."""
        (axis, end), low, high = FACE_AT[face], list(self.placed.low), list(self.placed.high)
        if end:
            low[axis], high[axis] = high[axis] + near_mm, high[axis] + far_mm
        else:
            low[axis], high[axis] = low[axis] - far_mm, low[axis] - near_mm
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    def pieces(self) -> Iterator[Piece]:
        plates, (_, far) = self._plates, self._faces
        density, t = self.placed.stack.tables.materials[plates.material].density_kg_m3, plates.thickness_mm
        for face in self._faces:
            part = f"{self.key}-plate-{face}"
            yield block_piece(f"plate at the {face}", "holder", *self._corners(face, 0.0, t), density, part)
        if self.spec.by == "wedges":
            corners = self._corners(far, t, max(self.placed.free_mm(far), t + WEDGE_MM))
            yield block_piece("wedges", "holder", *corners, WEDGE_KG_M3)

    @cached_property
    def _screw_places(self) -> tuple[Vec, ...]:
        """On the outside of the far wall, in a row half way up the stack."""
        (axis, far), placed, other = FACE_AT[self._faces[1]], self.placed, 1 - ALONG[self.spec.along]
        found = []
        for n in range(self._plates.each):
            at = [0.0, 0.0, (placed.low[2] + placed.high[2]) / 2]
            at[axis] = placed.made.outer_mm[axis] * far
            at[other] = placed.low[other] + (n + 0.5) / self._plates.each * (placed.high[other] - placed.low[other])
            found.append((at[0], at[1], at[2]))
        return tuple(found)

    def bolted(self) -> Iterator[InFace]:
        """The screws that press: their heads stand outside."""
        for at in self._screw_places if self.spec.by == "screws" else ():
            yield InFace(self._faces[1], at, self._plates.screws)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        plates, tables, axis = self._plates, self.placed.stack.tables, ALONG[self.spec.along]
        of = (plates.material, tables.materials[plates.material])
        size = (self.placed.stack.laid.size_mm[1 - axis], self.placed.stack.laid.size_mm[2])
        for face in self._faces:
            low, high = self._corners(face, 0.0, plates.thickness_mm)
            right, up = SEEN[face]
            out = np.cross(right, up)
            middle = [(a + b) / 2 for a, b in zip(low, high, strict=True)]
            middle[axis] = low[axis] if out[axis] > 0 else high[axis]
            stand = Placement(np.array([right, up, out]).T, (middle[0], middle[1], middle[2]))
            ids = f"{box_id}-{self.key}-plate-{face}", f"{name} plate at the {face}"
            note = f"Presses the stack with {self.spec.force_n:.0f} N in all, by {self.spec.by}"
            yield plate_part(*ids, of, plates.thickness_mm, size, (note,), stand)

    def bought(self) -> Iterator[tuple[str, int]]:
        plates, stack = self._plates, self.placed.stack
        left = self.placed.free_mm(self._faces[1]) - plates.thickness_mm
        if self.spec.by == "wedges":
            yield f"pair of wedges, driven to {left:.0f} mm, as high as the stack", 2
            return
        size = stack.tables.bolts[plates.screws.size]
        bearing = self.placed.made.bearing_at(self._faces[1])
        long = left + (bearing.thickness_mm if bearing else 0.0) + 2 * nut_mm(size)
        words = bolt_words(plates.screws)
        yield f"{words}, {-(-long // 5) * 5:.0f} long, pressing; its nut welded in the wall", plates.each


def _widest(spec: Pressed, stack: Stack) -> tuple[float, str] | None:
    """How wide the stack is where it is widest before it is pressed, and where that is: as measured, else as its
    modules spring back; None where nobody has said either."""
    measured = [(mm, where) for name, where in WHERE.items() if (mm := getattr(spec.widths, name)) is not None]
    if measured:
        return max(measured)
    axis, kind = ALONG[spec.along], stack.kind
    if kind.compression is None or stack.axis_of(kind.compression.axis) != axis:
        return None
    own = ("length", "width", "height").index(kind.compression.axis)
    return stack.laid.size_mm[axis] + stack.counts(axis) * kind.grows_mm(own), ""
