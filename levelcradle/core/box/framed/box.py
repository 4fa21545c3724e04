"""The framed box: what it answers as any construction does."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.framed.findings import framed_findings
from levelcradle.core.box.framed.frame import Frame, tube_solids
from levelcradle.core.box.framed.panels import (
    Sheeting,
    fastener_words,
    fixed_by,
    fixings,
    lid_words,
    panel_parts,
    part_key,
    sheetings,
)
from levelcradle.core.box.made import Layers, Made, StackRow, Wall
from levelcradle.core.box.piece import Outside, Piece, Role, block_piece, head_piece
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import block
from levelcradle.core.tolerances import tolerance_by

__all__ = ["FramedBox"]

# how proud heads stand, in diameters, at most: blind rivets by ISO 15977, round-headed screws by ISO 7380 (from memory)
HEADS = {"rivet": 0.42, "rivet nut": 0.55, "tapped": 0.55}
LIFT_MM = 5.0  # a flat lid is lifted off its gasket before it is turned away: common practice, no source
SHEET = "sheet; ISO 2768-1 m, from memory"
TUBE_TOL_MM, TUBE_SOURCE = 0.5, "EN 10219-2 table 3, from memory"  # of a side up to 100 mm
GASKET_TOL_MM = 0.5


@dataclass(frozen=True, eq=False)
class FramedBox:
    """A frame with cladding, round one inside."""

    frame: Frame
    inner_mm: Vec

    @staticmethod
    def round(box: Box, spec: Framed, wanted_mm: Vec, material: Material) -> "FramedBox":
        """Round what is wanted, or round a given inside: it stands between the tubes, on the lower ring."""
        inner = box.inner.size_mm if box.inner.type == "fixed" else wanted_mm
        lid, wall = box.lid, spec.cladding_mm + spec.tube_mm
        assert isinstance(lid, Panel)  # the document lets nothing else close it
        outer = (inner[0] + 2 * wall, inner[1] + 2 * wall, inner[2] + wall)
        return FramedBox(Frame(box, spec, lid, outer, material), inner)

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Framed, dict[str, Panel]]:
        """Of common tube and sheet: what it was made of says nothing of a frame."""
        return Framed(type="framed"), {"lid": Panel(type="panel")}

    @property
    def outer_mm(self) -> Vec:
        return self.frame.outer_mm

    @property
    def given(self) -> bool:
        return self.frame.box.inner.type == "fixed"

    @property
    def over_mm(self) -> Vec:
        length, width, height = self.outer_mm
        return length, width, height + self.proud_mm("top")

    @property
    def wall_mm(self) -> float:
        return self.frame.inside_mm

    @property
    def base_mm(self) -> float:
        return self.frame.inside_mm

    @property
    def sheet_mm(self) -> float | None:
        return None

    @property
    def lift_mm(self) -> float:
        return LIFT_MM

    def proud_mm(self, face: str) -> float:
        return self.frame.lid.gasket_mm + self.frame.lid.thickness_mm if face == "top" else 0.0

    @cached_property
    def _panels(self) -> tuple[Sheeting, ...]:
        return tuple(sheetings(self.frame))

    def pieces(self) -> Iterator[Piece]:
        frame = self.frame
        for run in frame.runs:
            x, y, z = ((v + h) / 2 for v, h in zip(run.low, run.high, strict=True))
            yield Piece(run.name, "frame", frame.kg(run), (x, y, z), tube_solids(run, frame.tube))
        roles: dict[str, Role] = {"base": "base", "top": "closure"}
        for panel in self._panels:
            role, name = roles.get(panel.face, "wall"), "lid" if panel.face == "top" else f"{panel.face} panel"
            made = block_piece(name, role, panel.low, panel.high, frame.material.density_kg_m3)
            yield Piece(name, role, made.mass_kg, made.centre, made.build, part_key(panel))
        yield from self._heads()

    def _heads(self) -> Iterator[Piece]:
        """Of the lid's screws, on its top."""
        screws, lid = self.frame.lid.screws, self._panels[-1]
        top = lid.high[2]
        for u, v in fixings(lid, screws.spacing_mm, self.frame.spec.tube_mm):
            x, y, _ = lid.placement.point((u, v, 0.0))
            yield head_piece((x, y, top), (x, y, top + screws.head_high_mm), screws.head_across_mm / 2)

    def outside(self) -> Iterator[Outside]:
        """The body, the lid, and heads as a layer on each face that they stand out of: gaps are asked of the highest
        of what may be anywhere on it."""
        (length, width, height), spec = self.outer_mm, self.frame.spec
        head = HEADS[spec.fastener] * spec.fastener_mm
        yield Outside("box", "body", block((0.0, 0.0, 0.0), self.outer_mm))
        for low, high in (
            ((0.0, 0.0, -head), (length, width, 0.0)),
            ((0.0, -head, 0.0), (length, 0.0, height)),
            ((0.0, width, 0.0), (length, width + head, height)),
            ((-head, 0.0, 0.0), (0.0, width, height)),
            ((length, 0.0, 0.0), (length + head, width, height)),
        ):
            yield Outside("heads on the cladding", "fastener", block(low, high))
        top = self.over_mm[2]
        heads = top + self.frame.lid.screws.head_high_mm
        yield Outside("lid", "closure", block((0.0, 0.0, height), (length, width, top)))
        yield Outside("lid screw heads", "fastener", block((0.0, 0.0, top), (length, width, heads)))

    def wall_at(self, face: Literal["front", "aft", "left", "right"]) -> Wall:
        """The cladding alone, whole: the tubes behind it are not counted for what is fixed to it."""
        along, height = self.outer_mm[0 if face in ("left", "right") else 1], self.outer_mm[2]
        return Wall(0.0, along, 0.0, height, height, self.frame.spec.cladding_mm, self.frame.material)

    def stack_rows(self, axis: int, path: str) -> Layers:
        spec, lid = self.frame.spec, self.frame.lid
        tol = tolerance_by("cut", spec.cladding_mm)[0]

        def row(what: str, mm: float, tol_mm: float, source: str) -> StackRow:
            return StackRow(what, mm, tol_mm, 0.0, source, "metal", path)

        sheet = row("cladding", spec.cladding_mm, tol, SHEET)
        tube = row("tube", spec.tube_mm, TUBE_TOL_MM, TUBE_SOURCE)
        gasket = row("gasket, pressed", lid.gasket_mm, GASKET_TOL_MM, "common practice, no source")
        last = (gasket, row("lid", lid.thickness_mm, tol, SHEET)) if axis == 2 else (tube, sheet)
        welded, source = tolerance_by("welded", self.outer_mm[axis])
        return Layers((sheet, tube), last, (StackRow("frame as welded", 0.0, welded, 0.0, source, "other", path),))

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return None

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return panel_parts(box_id, name, self.frame) if self.frame.makeable else iter(())

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        frame, key = self.frame, self.frame.box.material
        for run in frame.runs if frame.makeable else ():
            yield Bar(
                f"{box_id}-{run.name.replace(' ', '-')}",
                f"{name} {run.name}",
                1,
                key,
                frame.material.name,
                frame.tube,
                run.length_mm,
                ("square", "square"),
                frame.kg(run),
            )

    def bought(self) -> Iterator[tuple[str, int]]:
        spec, screws = self.frame.spec, self.frame.lid.screws
        *cladding, lid = self._panels
        yield fastener_words(spec), sum(len(fixings(panel, spec.pitch_mm, spec.tube_mm)) for panel in cladding)
        nuts = len(fixings(lid, screws.spacing_mm, spec.tube_mm))
        yield f"{screws.size} screw and rivet nut, closing the box", nuts

    def message(self) -> tuple[str, tuple[str, ...]]:
        spec = self.frame.spec
        cladding = f"cladding {spec.cladding_mm:g} mm, {fixed_by(spec)}, at most {spec.pitch_mm:g} apart"
        return f"frame of {self.frame.tube}", (cladding, f"lid: {lid_words(self.frame.lid)}")

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        return framed_findings(self.frame, path, name)
