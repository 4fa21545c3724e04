"""An existing case: its sizes and mass as measured. It is checked like any box, and nothing of it is cut."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.made import Layers, Made, StackRow, Wall
from levelcradle.core.box.making import cannot
from levelcradle.core.box.piece import Outside, Piece, Role, block_piece
from levelcradle.core.box.plates import wall_plate
from levelcradle.core.design.base import FACE_AT, Face, Side
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Closure, Existing
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.part import Flat, FlatPart
from levelcradle.core.solids import block
from levelcradle.core.strength import Plate

__all__ = ["ExistingCase"]

LIFT_MM = 5.0  # a lid of somebody else's making is taken to lie on its rim: common practice, no source


@dataclass(frozen=True, eq=False)
class ExistingCase:
    """A case of given size: base, four walls and a top, whose thicknesses are measured too; its mass is spread over
    them."""

    box: Box
    spec: Existing
    material: Material

    @staticmethod
    def round(box: Box, spec: Existing, wanted_mm: Vec, material: Material) -> "ExistingCase":
        return ExistingCase(box, spec, material)

    @staticmethod
    def begun(was: Made, shell_kg: float) -> tuple[Existing, dict[str, Closure]]:
        """As long and wide at its walls, as high over its lid, as thick and heavy as the box was."""
        size = tuple(round(v, 1) for v in (was.outer_mm[0], was.outer_mm[1], was.over[1][2]))
        wall, base = round(was.wall_mm, 2), round(was.start_mm[2], 2)
        return Existing(
            type="existing",
            size_mm=(size[0], size[1], size[2]),
            wall_mm=wall,
            base_mm=base,
            top_mm=wall,
            mass_kg=round(shell_kg, 2),
        ), {}

    @property
    def outer_mm(self) -> Vec:
        return self.spec.size_mm

    @property
    def inner_mm(self) -> Vec:
        (length, width, height), wall = self.spec.size_mm, 2 * self.spec.wall_mm
        return length - wall, width - wall, height - self.spec.base_mm - self.spec.top_mm

    @property
    def given(self) -> bool:
        return True

    @property
    def over(self) -> tuple[Vec, Vec]:
        return (0.0, 0.0, 0.0), self.spec.size_mm

    @property
    def wall_mm(self) -> float:
        return self.spec.wall_mm

    @property
    def start_mm(self) -> Vec:
        return self.spec.wall_mm, self.spec.wall_mm, self.spec.base_mm

    @property
    def closed_face(self) -> Face:
        return "top"

    @property
    def open_to_air(self) -> bool:
        return False

    @property
    def hinge(self) -> Face | None:
        return None

    @property
    def mouth(self) -> None:
        return None

    @property
    def lift_mm(self) -> float:
        return LIFT_MM

    @property
    def sheet_mm(self) -> float | None:
        return None

    def proud_mm(self, face: str) -> float:
        return 0.0

    def pieces(self) -> Iterator[Piece]:
        """Their common density is what makes them weigh what the case weighs."""
        rows = list(self._plates())
        volume = sum((h[0] - v[0]) * (h[1] - v[1]) * (h[2] - v[2]) for _, _, v, h in rows)
        for name, role, low, high in rows:
            yield block_piece(name, role, low, high, self.spec.mass_kg / volume * 1e9)

    def _plates(self) -> Iterator[tuple[str, Role, Vec, Vec]]:
        length, width, height = self.spec.size_mm
        wall, base, top = self.spec.wall_mm, self.spec.base_mm, height - self.spec.top_mm
        yield "floor", "base", (0.0, 0.0, 0.0), (length, width, base)
        yield "lid top", "closure", (0.0, 0.0, top), (length, width, height)
        yield "left wall", "wall", (0.0, 0.0, base), (length, wall, top)
        yield "right wall", "wall", (0.0, width - wall, base), (length, width, top)
        yield "front wall", "wall", (0.0, wall, base), (wall, width - wall, top)
        yield "aft wall", "wall", (length - wall, wall, base), (length, width - wall, top)

    def outside(self) -> Iterator[Outside]:
        length, width, height = self.spec.size_mm
        rim = height - self.spec.top_mm
        yield Outside("tray", "body", block((0.0, 0.0, 0.0), (length, width, rim)))
        yield Outside("lid", "closure", block((0.0, 0.0, rim), self.spec.size_mm))

    def wall_at(self, face: Side) -> Wall:
        """The whole wall: how its edges are made is not known, and the check of what is fixed to it is rough."""
        length, width, height = self.spec.size_mm
        along = length if face in ("left", "right") else width
        rim = height - self.spec.top_mm
        return Wall(0.0, along, self.spec.base_mm, rim, rim, self.spec.wall_mm, self.material)

    def tube_at(self, edge: Side) -> Wall | None:
        return None

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """How its edges are made is not known: all but as much as its walls are thick."""
        if face == "top":
            return None
        axis = FACE_AT[face][0]
        off = (self.spec.wall_mm, self.spec.wall_mm, self.spec.base_mm)
        tops = (*(mm - self.spec.wall_mm for mm in self.spec.size_mm[:2]), self.spec.size_mm[2] - self.spec.top_mm)
        low, high = ([v[i] for i in range(3) if i != axis] for v in (off, tops))
        return (low[0], low[1]), (high[0], high[1])

    def along_walls(self, axis: int) -> tuple[float, float, float]:
        return self.start_mm[axis], self.start_mm[axis] + self.inner_mm[axis], 0.0

    def on_a_tube(self, face: Face, at: Vec, half_mm: float) -> None:
        return None

    def bearing_at(self, face: Face) -> Plate | None:
        """How its edges are made is not known: they are taken to turn freely."""
        if face == "top":
            return None
        thick = self.spec.base_mm if face == "base" else self.spec.wall_mm
        return wall_plate(self.box, face, self.inner_mm, thick, self.material, ((False, False), (False, False)))

    def stack_rows(self, axis: int, path: str) -> Layers:
        words, tol = ("floor", "lid") if axis == 2 else ("wall", "wall"), self.spec.tol_mm
        thick = (self.spec.base_mm, self.spec.top_mm) if axis == 2 else (self.spec.wall_mm, self.spec.wall_mm)
        first, last = (
            StackRow(what, mm, 0.0, 0.0, "as measured", "metal", path) for what, mm in zip(words, thick, strict=True)
        )
        return Layers((first,), (last,), (StackRow("case as measured", 0.0, tol, 0.0, "as given", "other", path),))

    def floor_mm(self, low: Vec, high: Vec) -> float:
        return self.start_mm[2]

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        return None

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return iter(())

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        return iter(())

    @property
    def lapped_mm(self) -> float:
        return 0.0

    @property
    def weld_mm(self) -> float:
        return 0.0

    @property
    def fastened(self) -> int:
        return 0

    def bought(self) -> Iterator[tuple[str, int]]:
        return iter(())

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        """Nothing is made; walls thicker than the case leave no inside, and an edge of it is not cut here."""
        if min(self.inner_mm) <= 0:
            least = min(self.inner_mm)
            yield Finding(
                id=f"make:{path}:inside",
                code="box.make",
                station="box",
                state="foul",
                subjects=(path,),
                message=f"{plain(name)}: its walls leave {{0}} inside",
                figures=(Figure(least, "mm", "down"),),
                value=least,
                limit=0.0,
                margin=least,
                unit="mm",
                rationale="the sizes of the case, as given",
                label="inside",
            )
        if self.box.chamfers:
            why = "a case that is there keeps its edges"
            yield cannot(path, name, "edges", "edges are cut off an existing case", why)

    def message(self) -> tuple[str, tuple[str, ...]]:
        return f"existing case, walls {self.spec.wall_mm:g} mm", ("not made here, sizes and mass as measured",)
