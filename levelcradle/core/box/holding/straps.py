"""Bands over a stack, bolted to the floor at both ends, or welded to the box at the one where there is less room: they
hold it down, and nothing sideways."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, Vec, vec
from levelcradle.core.box.holding.bolted import bolt_asks, bolt_checks, bolt_words, ratio, weld_n_mm
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack
from levelcradle.core.box.piece import Piece, block_piece
from levelcradle.core.design.base import FACE_PAIRS, Face
from levelcradle.core.design.holders import Strap, Straps
from levelcradle.core.part import Bend, FlatPart, Hole, Stand, bend_allowance_mm, bend_deduction_mm
from levelcradle.core.strength import GAMMA_M2, toe_pull

__all__ = ["StrapsHeld"]

NET = 0.9  # EN 1993-1-1, 6.2.3: net section of what is pulled
ALONG = {"aft": 0, "across": 1}


@dataclass(frozen=True)
class StrapsHeld:
    """Straps in place."""

    key: str
    spec: Straps
    placed: Placed

    @staticmethod
    def room(spec: Straps, stack: Stack) -> Mapping[Face, float]:
        """Its thickness over the stack and beside it, and a foot where it is bolted."""
        if spec.strap is None:
            return {}
        foot = _foot_mm(spec.strap, stack)
        sides = dict.fromkeys(FACE_PAIRS[ALONG[spec.strap.along]], foot)
        if spec.strap.welded:
            sides[_welded_at(spec.strap, stack)] = spec.strap.thickness_mm
        return {"top": spec.strap.thickness_mm, **sides}

    @property
    def words(self) -> str:
        return "straps"

    @property
    def missing(self) -> str:
        return "" if self.spec.strap else "nobody has said which straps"

    presses = None

    @property
    def ties(self) -> bool:
        return False

    @property
    def _strap(self) -> Strap:
        assert self.spec.strap is not None
        return self.spec.strap

    def asks(self) -> Iterator[tuple[str, bool]]:
        strap = self.spec.strap
        if strap is None:
            return
        bolt, side = self.placed.stack.tables.bolts[strap.bolts.size], 1 - ALONG[strap.along]
        least = 2.4 * bolt.clearance_hole_mm
        yield f"strap {strap.wide_mm:g} wide, {least:.1f} for its bolt", strap.wide_mm >= least - 1e-9
        has = self.placed.stack.laid.size_mm[side]
        yield f"{strap.count} straps beside each other on {has:.0f}", strap.count * strap.wide_mm <= has
        rows = self.placed.stack.counts(side)
        yield f"{strap.count} straps over {rows} rows of modules", strap.count >= rows
        if strap.welded:
            line = weld_n_mm(self.placed, strap.material, strap.thickness_mm)
            yield "straps welded, steel to steel", line is not None
        yield from bolt_asks(self.placed, strap.bolts, "base")

    def _at(self) -> Iterator[float]:
        """Middle of each strap, evenly over the stack."""
        side, strap = 1 - ALONG[self._strap.along], self._strap
        low, high = self.placed.low[side], self.placed.high[side]
        yield from (low + (n + 0.5) * (high - low) / strap.count for n in range(strap.count))

    def grips(self) -> tuple[Grip, ...]:
        """At both upper edges, where it bends: there it presses on the modules."""
        along = ALONG[self._strap.along]
        found = []
        for middle in self._at():
            for edge in (self.placed.low, self.placed.high):
                at = [middle, middle, self.placed.high[2]]
                at[along] = edge[along]
                found.append(Grip((at[0], at[1], at[2]), (0.0, 0.0, -1.0), "push", "base", self._strap.bolts))
        return tuple(found)

    def checks(self, forces: Forces) -> Iterator[Check]:
        """Each leg is pulled with what presses on its edge, and pulls at bolts that stand beside it."""
        strap, stack = self._strap, self.placed.stack
        pull = np.maximum(forces[..., 2], 0.0)
        steel, bolt = stack.tables.materials[strap.material], stack.tables.bolts[strap.bolts.size]
        net = (strap.wide_mm - bolt.clearance_hole_mm) * strap.thickness_mm
        capacity = NET * net * steel.ultimate_mpa / GAMMA_M2
        rule = "0.9 net section × fu / γM2"
        yield ratio("straps at their holes", pull.max(axis=2), capacity, "N", rule, "EN 1993-1-1, 6.2.3, from memory")
        welded = [n for n, end in enumerate(self._ends) if end == 0.0]
        if welded:
            bears = strap.wide_mm * (weld_n_mm(self.placed, strap.material, strap.thickness_mm) or 1.0)
            rule, source = "a l fu / (√3 βw γM2), a = 0.7 t", "EN 1993-1-8, 4.5.3.3"
            yield ratio("welds of the straps", pull[..., welded].max(axis=2), bears, "N", rule, source)
        each = self._levered(pull[..., [n for n in range(pull.shape[2]) if n not in welded]])
        yield from bolt_checks(self.placed, strap.bolts, "base", each, np.zeros_like(each))

    def _levered(self, pull: Forces) -> Forces:
        """What pulls at the bolts of its feet, whose toes lever as far as so thin a strip can: to its plastic moment,
        by what it breaks at."""
        strap, foot = self._strap, _foot_mm(self._strap, self.placed.stack)
        middle = strap.thickness_mm / 2
        steel = self.placed.stack.tables.materials[strap.material]
        strip = strap.wide_mm * strap.thickness_mm**2 / 4 * steel.ultimate_mpa
        rows = [foot - middle - spot for spot in reversed(self._spots)]
        levered = toe_pull(pull, rows, foot - middle, strip)
        return np.asarray(levered.reshape(*pull.shape[:2], -1))

    @property
    def _feet(self) -> tuple[float, float]:
        """How far its two feet stand out: none where it is welded."""
        foot, faces = _foot_mm(self._strap, self.placed.stack), FACE_PAIRS[ALONG[self._strap.along]]
        welded = _welded_at(self._strap, self.placed.stack) if self._strap.welded else None
        one, other = (0.0 if face == welded else foot for face in faces)
        return one, other

    @property
    def _spots(self) -> list[float]:
        """Of the bolts in one foot, how far each stands from its free end."""
        flat = _foot_mm(self._strap, self.placed.stack) - 2 * self._strap.thickness_mm
        return [flat * (n + 0.5) / self._strap.each for n in range(self._strap.each)]

    @property
    def _ends(self) -> list[float]:
        """Of each grip, how far the foot below it stands out."""
        return [end for _ in range(self._strap.count) for end in self._feet]

    def pieces(self) -> Iterator[Piece]:
        strap, placed, along = self._strap, self.placed, ALONG[self._strap.along]
        density, t, floor = (
            placed.stack.tables.materials[strap.material].density_kg_m3,
            strap.thickness_mm,
            placed.floor_mm,
        )
        low, high, top, (one, other) = placed.low[along], placed.high[along], placed.high[2], self._feet
        spans = [
            ((low - t, high + t), (top, top + t)),
            ((low - t, low), (floor, top)),
            ((high, high + t), (floor, top)),
            *([((low - one, low - t), (floor, floor + t))] if one else []),
            *([((high + t, high + other), (floor, floor + t))] if other else []),
        ]
        for number, middle in enumerate(self._at()):
            for (a, b), (z0, z1) in spans:
                part = f"{self.key}-strap-{number + 1}"
                corners = self._box(middle, (a, b), (z0, z1))
                yield block_piece(f"strap {number + 1}", "holder", *corners, density, part)

    def _box(self, middle: float, reach: tuple[float, float], heights: tuple[float, float]) -> tuple[Vec, Vec]:
        along, half = ALONG[self._strap.along], self._strap.wide_mm / 2
        low, high = [middle - half, middle - half, heights[0]], [middle + half, middle + half, heights[1]]
        low[along], high[along] = reach
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    def bolted(self) -> Iterator[InFace]:
        """In its feet, which stand out beside the stack."""
        along, placed, foot = ALONG[self._strap.along], self.placed, _foot_mm(self._strap, self.placed.stack)
        for middle in self._at():
            for edge, way, stands in zip((placed.low, placed.high), (-1, 1), self._feet, strict=True):
                for spot in self._spots if stands else ():
                    at = [middle, middle, placed.floor_mm]
                    at[along] = edge[along] + way * (foot - spot)
                    yield InFace("base", (at[0], at[1], at[2]), self._strap.bolts)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """Foot, leg, top, leg, foot: the middle two bends the other way; no foot where it is welded."""
        strap, placed, along = self._strap, self.placed, ALONG[self._strap.along]
        steel, bolt = placed.stack.tables.materials[strap.material], placed.stack.tables.bolts[strap.bolts.size]
        t = radius = strap.thickness_mm
        figures = {"angle_deg": 90.0, "radius_mm": radius, "thickness_mm": t, "k": steel.k_factor}
        deduction, allowance = bend_deduction_mm(**figures), bend_allowance_mm(**figures)
        (one, other), tall = self._feet, placed.high[2] + t - placed.floor_mm
        over = placed.high[along] - placed.low[along] + 2 * t
        legs = [(one, True), (tall, False), (over, False), (tall, True), (other, True)]
        legs = [leg for leg in legs if leg[0]]
        at, bends = 0.0, []
        for number, (leg, up) in enumerate(legs[:-1]):
            at += leg - (deduction if number else deduction / 2)
            bends.append(Bend((at, 0.0), (at, strap.wide_mm), 90.0, radius, up, allowance))
        length = sum(leg for leg, _ in legs) - len(bends) * deduction
        middle, foot = strap.wide_mm / 2, max(one, other)
        places = [x for u in self._spots for x in ((u,) if one else ()) + ((length - u,) if other else ())]
        holes = [Hole((x, middle), bolt.clearance_hole_mm, strap.bolts.size) for x in places]
        for number, on in enumerate(self._at()):
            yield FlatPart(
                f"{box_id}-{self.key}-strap-{number + 1}", f"{name} strap {number + 1}", 1,
                strap.material, steel.name, t, steel.density_kg_m3,
                ((0.0, 0.0), (length, 0.0), (length, strap.wide_mm), (0.0, strap.wide_mm)),
                tuple(holes), tuple(bends),
                (f"Foot {foot:g}, leg {tall:.1f}, over {over:.1f}, all outside; inside radius {radius:g}"
                 + ("; welded to the box at the end without a foot" if strap.welded else ""),),
                Stand((length if not one else 0.0, middle), self._frame(on, length)),
            )  # fmt: skip

    def _frame(self, middle: float, length: float) -> Placement:
        """Of a strap's flat: a foot on the floor, from its free end inward; the first, or the last where the first is
        welded."""
        along, placed, (one, other) = ALONG[self._strap.along], self.placed, self._feet
        u, w = np.zeros(3), np.array([0.0, 0.0, 1.0])
        u[along] = 1.0
        v = np.cross(w, u)
        at = np.array([middle, middle, placed.floor_mm])
        at[along] = placed.low[along] - one if one else placed.high[along] + other - length
        at -= v * self._strap.wide_mm / 2
        return Placement(np.array([u, v, w]).T, vec(at))

    def bought(self) -> Iterator[tuple[str, int]]:
        yield f"{bolt_words(self._strap.bolts)}, holding straps", sum(map(bool, self._ends)) * self._strap.each


def _welded_at(strap: Strap, stack: Stack) -> Face:
    """The end where the modules themselves ask for less room; of two alike the first."""
    axis = ALONG[strap.along]
    one, other = stack.laid.turned.face_clearance_mm[2 * axis : 2 * axis + 2]
    return FACE_PAIRS[axis][0 if one <= other else 1]


def _foot_mm(strap: Strap, stack: Stack) -> float:
    """How far a foot stands out: its bolts with their washers beyond the bend."""
    return 2 * strap.thickness_mm + strap.each * 1.5 * stack.tables.bolts[strap.bolts.size].washer_mm
