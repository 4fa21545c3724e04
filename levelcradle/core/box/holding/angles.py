"""Angles that stand on the floor of a box: one leg upright, the other on the floor, bolted to it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, Vec, vec
from levelcradle.core.box.holding.stack import Forces
from levelcradle.core.box.piece import Piece, block_piece
from levelcradle.core.design.tables import Material
from levelcradle.core.part import Bend, FlatPart, Hole, Stand, bend_allowance_mm, bend_deduction_mm
from levelcradle.core.strength import GAMMA_M0, toe_pull

__all__ = ["StandingAngle"]


@dataclass(frozen=True, slots=True)
class StandingAngle:
    """One angle in the box's frame.

    Attributes:
        axis: along which its leg lies on the floor (0 or 1), ``way`` from the upright leg (+1 or −1).
        back_mm: where the outside of its upright leg is along that axis, the side away from the leg on the floor.
        along_mm: from where to where it reaches along the other axis.
        floor_mm: height of the floor; ``tall_mm``, ``leg_mm``: outside lengths of its legs.
    """

    axis: int
    way: int
    back_mm: float
    along_mm: tuple[float, float]
    floor_mm: float
    tall_mm: float
    leg_mm: float
    thickness_mm: float
    radius_mm: float

    @property
    def wide_mm(self) -> float:
        return self.along_mm[1] - self.along_mm[0]

    def off_wall(self, mm: float) -> float:
        """Where what is so far off the outside of its upright leg is along its axis."""
        return self.back_mm + self.way * mm

    def _block(self, out: tuple[float, float], heights: tuple[float, float]) -> tuple[Vec, Vec]:
        """Corners of a leg, from how far to how far off its back."""
        ends = sorted(self.off_wall(mm) for mm in out)
        low, high = [0.0, 0.0, heights[0]], [0.0, 0.0, heights[1]]
        low[self.axis], high[self.axis] = ends
        low[1 - self.axis], high[1 - self.axis] = self.along_mm
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    def pieces(self, name: str, density_kg_m3: float, part: str) -> tuple[Piece, Piece]:
        t, foot = self.thickness_mm, self.floor_mm
        upright = self._block((0.0, t), (foot + t, foot + self.tall_mm))
        lying = self._block((0.0, self.leg_mm), (foot, foot + t))
        first, second = (block_piece(name, "holder", *at, density_kg_m3, part) for at in (upright, lying))
        return first, second

    def rows_mm(self, count: int) -> tuple[float, ...]:
        """So many rows of bolts evenly over what is flat of the leg on the floor: how far each stands off the middle
        of the upright leg."""
        bend = self.thickness_mm + self.radius_mm
        each = (self.leg_mm - bend) / count
        return tuple(bend + (n + 0.5) * each - self.thickness_mm / 2 for n in range(count))

    def toe_pull(self, lift_n: Forces, rows: int) -> Forces:
        """What pulls at each row of its bolts where its upright leg is lifted [N], one axis more than that."""
        return toe_pull(lift_n, self.rows_mm(rows), self.leg_mm - self.thickness_mm / 2)

    def off_back_mm(self, row_mm: float) -> float:
        """Where such a row is along its axis."""
        return self.off_wall(self.thickness_mm / 2 + row_mm)

    def bend_n_mm(self, yield_mpa: float) -> float:
        """What it bears at its bend, plastic [N·mm]: w t² / 4 fy / γM0."""
        return self.wide_mm * self.thickness_mm**2 / 4 * yield_mpa / GAMMA_M0

    def part(
        self,
        ids: tuple[str, str],
        of: tuple[str, Material],
        holes: Sequence[tuple[Vec, float, str]],
        more: tuple[str, ...] = (),
    ) -> FlatPart:
        """Its flat: the free edge of the leg on the floor at zero. ``ids``: its id and its name; ``of``: id of its
        material, and the material; ``holes``: where in the box, how wide, what for; ``more``: notes of its own."""
        key, steel = of
        t, radius, k = self.thickness_mm, self.radius_mm, steel.k_factor
        figures = {"angle_deg": 90.0, "radius_mm": radius, "thickness_mm": t, "k": k}
        deduction, allowance = bend_deduction_mm(**figures), bend_allowance_mm(**figures)
        length, wide, bend_at = self.leg_mm + self.tall_mm - deduction, self.wide_mm, self.leg_mm - deduction / 2
        frame = self._frame()
        found = []
        for at, diameter, purpose in holes:
            u, v, up = frame.inverse.point(at)
            lies = up <= self.thickness_mm + 1e-6
            at_flat = (u if lies else length - (self.tall_mm - up), v)
            found.append(Hole((round(at_flat[0], 6), round(at_flat[1], 6)), diameter, purpose))
        notes = (
            *more,
            f"Leg {self.leg_mm:g} outside lying, {self.tall_mm:.1f} outside upright",
            f"Inside radius {radius:g}, bend deduction {deduction:.2f}: K {k:g} ({steel.k_source})",
        )
        bend = Bend((bend_at, 0.0), (bend_at, wide), 90.0, self.radius_mm, True, allowance)
        outline = ((0.0, 0.0), (length, 0.0), (length, wide), (0.0, wide))
        stand = Stand((0.0, 0.0), frame)
        (id_, name), density = ids, steel.density_kg_m3
        return FlatPart(
            id_,
            name,
            1,
            key,
            steel.name,
            t,
            density,
            outline,
            tuple(sorted(found, key=lambda hole: hole.at)),
            (bend,),
            notes,
            stand,
        )

    def _frame(self) -> Placement:
        u, w = np.zeros(3), np.array([0.0, 0.0, 1.0])
        u[self.axis] = -float(self.way)
        v = np.cross(w, u)
        at = np.array([0.0, 0.0, self.floor_mm])
        at[self.axis] = self.back_mm + self.way * self.leg_mm
        at[1 - self.axis] = self.along_mm[0] if v[1 - self.axis] > 0 else self.along_mm[1]
        return Placement(np.array([u, v, w]).T, vec(at))
