"""The framed box: what it answers as any construction does."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.framed.findings import framed_findings
from levelcradle.core.box.framed.frame import Frame, tube_solids
from levelcradle.core.box.framed.panels import (
    Sheeting,
    fastener_words,
    fixed_by,
    fixings,
    layer_on,
    lid_words,
    panel_parts,
    panel_words,
    part_key,
    sheetings,
)
from levelcradle.core.box.made import LIFT_MM, Layers, Made, StackRow, Wall, gasket_row, sheet_row
from levelcradle.core.box.piece import Outside, Piece, Role, block_piece, head_piece
from levelcradle.core.box.plates import WINDOW_KG_M3, window_bought
from levelcradle.core.box.welding import welded_by
from levelcradle.core.design.base import FACE_AT, Face, Side
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding
from levelcradle.core.part import Flat, FlatPart
from levelcradle.core.solids import block
from levelcradle.core.strength import Beams, tube_plastic_mm3

__all__ = ["FramedBox"]

# how proud heads stand, in diameters, at most: blind rivets by ISO 15977, round-headed screws by ISO 7380 (from memory)
HEADS = {"rivet": 0.42, "rivet nut": 0.55, "tapped": 0.55}
TWO_HINGES_MM = 600.0  # longer edges get a third: common practice, no source
MITRED = "mitred at 45°, long side out"
WITHIN_MM = 1e-3
TUBE_TOL_MM, TUBE_SOURCE = 0.5, "EN 10219-2 table 3, from memory"  # of a side up to 100 mm


@dataclass(frozen=True, eq=False)
class FramedBox:
    """A frame with cladding, round one inside."""

    frame: Frame

    @staticmethod
    def round(box: Box, spec: Framed, wanted_mm: Vec, material: Material) -> "FramedBox":
        """Round what is wanted, or round a given inside: it stands between the tubes, on the lower ring, and reaches to
        the rim where it is filled."""
        inner = box.inner.size_mm if box.inner.type == "fixed" else wanted_mm
        assert isinstance(box.lid, Panel)  # the document lets nothing else close it
        return FramedBox(Frame(box, spec, box.lid, inner, material))

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Framed, dict[str, Panel]]:
        """Of common tube and sheet: what it was made of says nothing of a frame."""
        return Framed(type="framed"), {"lid": Panel(type="panel")}

    @property
    def outer_mm(self) -> Vec:
        return self.frame.outer_mm

    @property
    def inner_mm(self) -> Vec:
        return self.frame.inner_mm

    @property
    def given(self) -> bool:
        return self.frame.box.inner.type == "fixed"

    @property
    def over(self) -> tuple[Vec, Vec]:
        (axis, end), off = FACE_AT[self.closed_face], self.proud_mm(self.closed_face)
        low, high = [0.0, 0.0, 0.0], list(self.outer_mm)
        (high if end else low)[axis] += off if end else -off
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    @property
    def wall_mm(self) -> float:
        return self.frame.spec.cladding_mm + self.frame.spec.tube_mm

    @property
    def start_mm(self) -> Vec:
        return self.frame.start_mm

    @property
    def closed_face(self) -> Face:
        return self.frame.lid.face

    @property
    def sheet_mm(self) -> float | None:
        return None

    @property
    def open_to_air(self) -> bool:
        return False

    @property
    def hinge(self) -> Face | None:
        return self.frame.lid.hinge

    @property
    def mouth(self) -> None:
        return None

    @property
    def lift_mm(self) -> float:
        return LIFT_MM

    def proud_mm(self, face: str) -> float:
        return self.frame.lid.gasket_mm + self.frame.lid.thickness_mm if face == self.closed_face else 0.0

    @cached_property
    def _panels(self) -> tuple[Sheeting, ...]:
        return tuple(sheetings(self.frame))

    def pieces(self) -> Iterator[Piece]:
        frame = self.frame
        for run in frame.runs:
            x, y, z = ((v + h) / 2 for v, h in zip(run.low, run.high, strict=True))
            yield Piece(run.name, "frame", frame.kg(run), (x, y, z), tube_solids(run, frame.tube))
        roles: dict[str, Role] = {"base": "base", "top": "top", self.closed_face: "closure"}
        for panel in self._panels:
            role, name = roles.get(panel.face, "wall"), panel_words(panel, frame.lid)
            clear = role == "closure" and frame.lid.window
            dense = WINDOW_KG_M3 if clear else frame.material.density_kg_m3
            made = block_piece(name, role, panel.low, panel.high, dense)
            yield replace(made, part="" if clear else part_key(panel, frame.lid))
        yield from self._heads()

    def _heads(self) -> Iterator[Piece]:
        """Of the screws of what closes it, on its outside."""
        screws, lid = self.frame.lid.screws, self._panels[-1]
        out, place = self.frame.lid.thickness_mm, lid.placement
        for u, v in fixings(lid, self.frame):
            foot, top = place.point((u, v, out)), place.point((u, v, out + screws.head_high_mm))
            yield head_piece(foot, top, screws.head_across_mm / 2)

    def outside(self) -> Iterator[Outside]:
        """The body, what closes it, and heads as a layer on each face that they stand out of: gaps are asked of the
        highest of what may be anywhere on it."""
        spec, closed = self.frame.spec, self.closed_face
        head = HEADS[spec.fastener] * spec.fastener_mm
        yield Outside("box", "body", block((0.0, 0.0, 0.0), self.outer_mm))
        for face in FACE_AT:
            if face != closed:
                yield Outside("heads on the cladding", "fastener", block(*layer_on(self.frame, face, 0.0, head)))
        off = self.proud_mm(closed)
        heads = off + self.frame.lid.screws.head_high_mm
        yield Outside("lid", "closure", block(*layer_on(self.frame, closed, 0.0, off)))
        yield Outside("lid screw heads", "fastener", block(*layer_on(self.frame, closed, off, heads)))

    def wall_at(self, face: Side) -> Wall:
        """The cladding alone, whole: the tubes behind it are not counted for what is fixed to it."""
        along, height = self.outer_mm[0 if face in ("left", "right") else 1], self.outer_mm[2]
        return Wall(0.0, along, 0.0, height, height, self.frame.spec.cladding_mm, self.frame.material)

    def tube_at(self, edge: Side) -> Wall | None:
        """Flat between the rounds of its corners, twice as wide as its metal is thick (EN 10219-2, from memory)."""
        if self.closed_face == "base" or not self.frame.makeable:
            return None
        spec, (low, high) = self.frame.spec, self.frame.edges
        (axis, far), s, round_ = FACE_AT[edge], spec.tube_mm, 2 * spec.tube_wall_mm
        near, along = (high[axis] - s if far else low[axis]), 1 - axis
        return Wall(
            low[along],
            high[along],
            near + round_,
            near + s - round_,
            s,
            spec.tube_wall_mm,
            self.frame.material,
            f"lower {edge} tube",
            spec.cladding_mm,
        )

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """Between the tubes; rails run across a base."""
        spec, (low, high) = self.frame.spec, self.frame.edges
        if face == self.closed_face or (face == "base" and (spec.rails or spec.rails_at_mm)):
            return None
        one, other = (i for i in range(3) if i != FACE_AT[face][0])
        s = spec.tube_mm
        return (low[one] + s, low[other] + s), (high[one] - s, high[other] - s)

    def along_walls(self, axis: int) -> tuple[float, float, float]:
        """From outside to outside of its posts, which stand beside its inside."""
        low, high = self.frame.edges
        return low[axis], high[axis], self.frame.spec.tube_mm

    def on_a_tube(self, face: Face, at: Vec, half_mm: float) -> bool:
        axis, end = FACE_AT[face]
        low, high = self.frame.edges
        outer = high[axis] if end else low[axis]
        for run in self.frame.runs:
            if abs((run.high if end else run.low)[axis] - outer) < WITHIN_MM:
                beside = [0.0 if i == run.axis else half_mm for i in range(3)]
                within = (run.low[i] + beside[i] <= at[i] + WITHIN_MM and at[i] - WITHIN_MM <= run.high[i] - beside[i]
                          for i in range(3) if i != axis)  # fmt: skip
                if all(within):
                    return True
        return False

    def bearing_at(self, face: Face) -> Beams | None:
        """Its tubes, free at their ends, the cladding not counted: rails and end tubes across in base and top, the two
        rings along the walls."""
        if face == self.closed_face:
            return None
        spec, (low, high) = self.frame.spec, self.frame.edges
        level = face in ("base", "top")
        run = 1 if level or face in ("front", "aft") else 0
        count = 2 + (len(spec.rails_at_mm) or spec.rails if face == "base" else 0)
        span, plastic = high[run] - low[run] - 2 * spec.tube_mm, tube_plastic_mm3(self.frame.tube)
        return Beams(count, max(span, 1.0), 1 if level else 0, plastic, spec.tube_wall_mm, self.frame.material)

    def stack_rows(self, axis: int, path: str) -> Layers:
        spec, lid = self.frame.spec, self.frame.lid

        def outward(face: str) -> tuple[StackRow, StackRow]:
            if face == lid.face:
                return gasket_row(lid.gasket_mm, path), sheet_row("lid", lid.thickness_mm, path)
            tube = StackRow("tube", spec.tube_mm, TUBE_TOL_MM, 0.0, TUBE_SOURCE, "metal", path)
            return tube, sheet_row("cladding", spec.cladding_mm, path)

        first, last = (outward(face) for face, at in FACE_AT.items() if at[0] == axis)
        welded, source = welded_by(self.frame.box, self.outer_mm[axis])
        return Layers(first[::-1], last, (StackRow("frame as welded", 0.0, welded, 0.0, source, "other", path),))

    def floor_mm(self, low: Vec, high: Vec) -> float:
        return self.start_mm[2]

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return None

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return panel_parts(box_id, name, self.frame) if self.frame.makeable else iter(())

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        frame, key = self.frame, self.frame.box.material
        notched = frame.spec.corners == "notch"
        for run in frame.runs if frame.makeable else ():
            if run.mitred and notched:
                continue
            yield Bar(
                f"{box_id}-{run.name.replace(' ', '-')}",
                f"{name} {run.name}",
                1,
                key,
                frame.material.name,
                frame.tube,
                run.length_mm,
                (MITRED if run.mitred else "square",) * 2,
                frame.kg(run),
            )
        if notched and frame.makeable:
            yield from self._folded_rings(box_id, name)

    def _folded_rings(self, box_id: str, name: str) -> Iterator[Bar]:
        """Each ring of one tube: notched at 90° to its outer wall in three corners and folded, mitred where it
        closes."""
        frame = self.frame
        for ring in ("lower", "upper"):
            sides = [run for run in frame.runs if run.mitred and run.name.startswith(ring)]
            long, wide = (next(run.length_mm for run in sides if run.axis == axis) for axis in (0, 1))
            at = ", ".join(f"{mm:.1f}" for mm in (long, long + wide, 2 * long + wide))
            ends = (f"mitred at 45°, notched at {at}", "mitred at 45°")
            kg = sum(frame.kg(run) for run in sides)
            key = frame.box.material
            yield Bar(f"{box_id}-{ring}-ring", f"{name} {ring} ring", 1, key, frame.material.name, frame.tube,
                      2 * (long + wide), ends, kg)  # fmt: skip

    @property
    def lapped_mm(self) -> float:
        """Its cladding round each panel."""
        return sum(2 * sum(panel.size_mm) for panel in self._panels[:-1])

    @property
    def weld_mm(self) -> float:
        """All round each end that is butted, where the long tubes go through; all round each mitre, once."""
        size = self.frame.spec.tube_mm
        mitre, butt = (2 + 2 * math.sqrt(2)) * size, 4 * size
        ends = (mitre if run.mitred else 2 * butt for run in self.frame.runs if run.axis or run.mitred)
        return sum(ends)

    @property
    def fastened(self) -> int:
        return sum(len(fixings(panel, self.frame)) for panel in self._panels)

    def bought(self) -> Iterator[tuple[str, int]]:
        spec, screws = self.frame.spec, self.frame.lid.screws
        *cladding, lid = self._panels
        yield fastener_words(spec), sum(len(fixings(panel, self.frame)) for panel in cladding)
        nuts = len(fixings(lid, self.frame))
        yield f"{screws.size} screw and rivet nut, closing the box", nuts
        if self.frame.lid.window:
            yield window_bought(self.frame.lid.thickness_mm, lid.size_mm, panel_words(lid, self.frame.lid))
        if self.hinge:
            long = max(self.outer_mm[i] for i in range(3) if i not in (FACE_AT[self.hinge][0], FACE_AT[lid.face][0]))
            yield "hinge, its leaves on panel and frame", 2 if long <= TWO_HINGES_MM else 3

    def message(self) -> tuple[str, tuple[str, ...]]:
        spec = self.frame.spec
        cladding = f"cladding {spec.cladding_mm:g} mm, {fixed_by(spec)}, at most {spec.pitch_mm:g} apart"
        name = panel_words(self._panels[-1], self.frame.lid)
        return f"frame of {self.frame.tube}", (cladding, f"{name}: {lid_words(self.frame.lid)}")

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        return framed_findings(self.frame, path, name)
