"""Angles along two walls under each tier: it stands on them, or slides in on them like a drawer, and is bolted down to
them where nothing else holds it up."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.box.holding.angles import StandingAngle
from levelcradle.core.box.holding.bolted import STATICS, along_normal, ratio, rim_check, weld_n_mm
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack, nut_mm, tool_mm
from levelcradle.core.box.piece import Piece, block_piece
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.design.holders import Ledge, Ledges
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart
from levelcradle.core.strength import GAMMA_M0, bolt_capacity, class_asks, pull_and_shear

__all__ = ["LedgesHeld"]

LIES_MM = 15.0  # so much of a tier lies on each ledge at least: common practice, no source
WELDED_SHARE = 0.5  # of its length, in short runs along both edges of the leg on the wall: common practice, no source
SLIDE_KG_M3 = 950.0  # polyethylene, from memory
ALONG = {"aft": 0, "across": 1}


@dataclass(frozen=True, slots=True)
class _Rest:
    """One ledge: its tier, counted from the base, at which of the two walls it lies, and its angle."""

    tier: int
    face: Face
    angle: StandingAngle


@dataclass(frozen=True)
class LedgesHeld:
    """Ledges in place."""

    key: str
    spec: Ledges
    placed: Placed

    @staticmethod
    def room(spec: Ledges, stack: Stack) -> Mapping[Face, float]:
        """The leg on the wall and its bend, beside the tier that lies on the other leg; under a lowest tier that stands
        on ledges too, those and their nuts."""
        ledge = spec.ledge
        if ledge is None:
            return {}
        sides = dict.fromkeys(_walls(spec), ledge.thickness_mm + ledge.bend_radius_mm)
        nuts = nut_mm(stack.tables.bolts[ledge.bolts.size]) if ledge.bolts else 0.0
        return sides | ({"base": ledge.thickness_mm + ledge.slide_mm + nuts} if ledge.lowest else {})

    @property
    def words(self) -> str:
        return "slides" if self.spec.ledge and self.spec.ledge.slide_mm else "ledges"

    @property
    def missing(self) -> str:
        return "" if self.spec.ledge else "nobody has said which ledges"

    presses = None

    @property
    def ties(self) -> bool:
        """Where each tier is bolted to ledges of its own."""
        return self.spec.ledge is not None and self.spec.ledge.lowest and self.spec.ledge.bolts is not None

    @property
    def _ledge(self) -> Ledge:
        assert self.spec.ledge is not None
        return self.spec.ledge

    @property
    def _axes(self) -> tuple[int, int]:
        """Along which they run, and across that."""
        along = ALONG[self.spec.along]
        return along, 1 - along

    def asks(self) -> Iterator[tuple[str, bool]]:
        ledge, stack, (along, across) = self.spec.ledge, self.placed.stack, self._axes
        if ledge is None:
            return
        beside, tiers = stack.counts(across), stack.counts(2)
        yield f"ledges under both ends of {beside} modules side by side: a block for each", beside == 1
        yield f"ledges under {tiers} tier: nothing stands on them", tiers > 1 or ledge.lowest
        if tiers > 1:
            needs, has = ledge.thickness_mm + ledge.slide_mm, self._gap_mm
            yield f"ledges {needs:g} thick in gaps of {has:.1f} between tiers", needs <= has + 1e-9
        divided = stack.block.dividers is not None and stack.block.dividers.along == "up"
        yield "ledges where boards lie between tiers", not divided
        bend = ledge.thickness_mm + ledge.bend_radius_mm
        yield f"leg of {ledge.up_mm:g} up the wall, {bend + 10:.1f} to be welded", ledge.up_mm >= bend + 10 - 1e-9
        for face in _walls(self.spec):
            lies = max(ledge.leg_mm - self.placed.free_mm(face), 0.0)
            yield f"tiers lie on the {face} ledges by {lies:.1f}, at least {LIES_MM:g}", lies >= LIES_MM - 1e-9
        if ledge.slide_mm:
            closed = FACE_AT[self.placed.made.closed_face][0]
            yield f"slides along {self.spec.along}, a box that is filled another way", closed == along
        bears = weld_n_mm(self.placed, ledge.material, ledge.thickness_mm)
        yield "ledges welded, steel to steel", bears is not None
        if ledge.bolts is not None:
            yield from self._bolt_asks(ledge)

    def _bolt_asks(self, ledge: Ledge) -> Iterator[tuple[str, bool]]:
        assert ledge.bolts is not None
        stack, holes = self.placed.stack, self.placed.stack.kind.mount_holes
        size, grade = stack.bolt(ledge.bolts)
        yield from class_asks((ledge.bolts.size, ledge.bolts.property_class), size, grade)
        yield f"bolts of ledges into {ledge.bolts.into}: with nuts below", ledge.bolts.into == "nut"
        upright = holes is not None and stack.holes_axis == 2
        yield "ledges bolted to modules without upright holes", upright
        if holes is None or not upright:
            return
        yield f"bolts {size.d_mm:g} thick in holes of {holes.diameter_mm:g}", size.d_mm <= holes.diameter_mm
        each = len(self._bolt_places) / max(len(self._rests), 1)
        yield f"{each:g} holes over each ledge where a bolt goes, at least 2", each >= 2
        if stack.counts(2) > 1:
            below = self._gap_mm - ledge.thickness_mm - ledge.slide_mm
            needs = 2 * nut_mm(size) - stack.sunk_mm
            yield f"{below:.1f} between ledges and tier for nuts and heads of {needs:.1f}", below >= needs - 1e-9

    @property
    def _gap_mm(self) -> float:
        """Between tiers."""
        return next((row.has_mm for row in self.placed.stack.laid.rows if row.direction == "up"), 0.0)

    @cached_property
    def _rests(self) -> tuple[_Rest, ...]:
        ledge, placed, (along, across) = self._ledge, self.placed, self._axes
        start, end, _ = placed.made.along_walls(along)
        found = []
        for tier, low in enumerate(sorted({module.low[2] for module in placed.stack.laid.modules}), 1):
            if tier == 1 and not ledge.lowest:
                continue
            foot = placed.origin[2] + low - ledge.slide_mm - ledge.thickness_mm
            for face in _walls(self.spec):
                far = FACE_AT[face][1]
                free, way = placed.free_mm(face), -1 if far else 1
                back = placed.high[across] + free if far else placed.low[across] - free
                sheet = (ledge.up_mm, ledge.leg_mm, ledge.thickness_mm, ledge.bend_radius_mm)
                found.append(_Rest(tier, face, StandingAngle(across, way, back, (start, end), foot, *sheet)))
        return tuple(found)

    def _lies_at(self, face: Face) -> float:
        """Across, the middle of what lies on a ledge."""
        across, half = self._axes[1], (self._ledge.leg_mm - self.placed.free_mm(face)) / 2
        return self.placed.high[across] - half if FACE_AT[face][1] else self.placed.low[across] + half

    @cached_property
    def _grips(self) -> tuple[Grip, ...]:
        """Under both ends of the stack on each ledge; or at each bolt."""
        along, across = self._axes
        up, places = (0.0, 0.0, 1.0), self._bolt_places
        if self._ledge.bolts is not None:
            return tuple(Grip(at, up, "both", self._rests[n].face) for n, at in places)
        found = []
        for rest in self._rests:
            for end in (self.placed.low[along], self.placed.high[along]):
                at = [0.0, 0.0, rest.angle.floor_mm + self._ledge.thickness_mm]
                at[along], at[across] = end, self._lies_at(rest.face)
                found.append(Grip((at[0], at[1], at[2]), up, "push", rest.face))
        return tuple(found)

    def grips(self) -> tuple[Grip, ...]:
        return self._grips

    @cached_property
    def _bolt_places(self) -> tuple[tuple[int, Vec], ...]:
        """Of each bolt its ledge, and its middle on that: through the holes of the tier that lie over what is flat."""
        ledge, placed, (_, across) = self._ledge, self.placed, self._axes
        if ledge.bolts is None or placed.stack.holes_axis != 2:
            return ()
        size, long = placed.stack.bolt(ledge.bolts)[0], placed.stack.ends_axis
        near = ledge.thickness_mm + ledge.bend_radius_mm + size.washer_mm / 2
        far = ledge.leg_mm - 1.2 * size.clearance_hole_mm
        found = []
        for n, rest in enumerate(self._rests):
            for module in placed.stack.laid.modules:
                if module.at[2] != rest.tier - 1:
                    continue
                for u, v in placed.holes():
                    at = [placed.origin[i] + (module.low[i] + module.high[i]) / 2 for i in range(3)]
                    at[long], at[1 - long] = at[long] + u, at[1 - long] + v
                    at[2] = rest.angle.floor_mm + ledge.thickness_mm
                    if near <= rest.angle.way * (at[across] - rest.angle.back_mm) <= far:
                        found.append((n, (at[0], at[1], at[2])))
        return tuple(found)

    def _owners(self) -> list[int]:
        """Of each grip, its ledge."""
        return [n for n, _ in self._bolt_places] or [n for n in range(len(self._rests)) for _ in range(2)]

    def checks(self, forces: Forces) -> Iterator[Check]:
        """What a tier throws on a ledge bends the leg under it, hangs on its welds, and bends it between the posts of a
        frame."""
        ledge, owners = self._ledge, np.array(self._owners())
        on = np.stack([forces[:, :, owners == n].sum(axis=2) for n in range(len(self._rests))], axis=2)
        upright = np.abs(on[..., 2]).max(axis=2)
        level = np.linalg.norm(on[..., :2], axis=-1).max(axis=2)
        steel = self.placed.stack.tables.materials[ledge.material]
        long = self._under_mm
        arm = max(self._arm_mm - ledge.thickness_mm, 0.0)
        capacity = long * ledge.thickness_mm**2 / 4 * steel.yield_mpa / GAMMA_M0
        rule = "l t² / 4 fy / γM0, plastic, over the length that a tier lies on"
        yield ratio(f"{self.words} at their bend", upright * arm, capacity, "N·mm", rule, "statics")
        yield self._weld(upright, level)
        if self._on_posts_mm:
            yield self._between_posts(upright)
        if ledge.bolts is not None:
            yield from self._bolt_checks(forces)

    @property
    def _arm_mm(self) -> float:
        """From the wall to the middle of what lies on the leg, where less of it lies."""
        return max((self._ledge.leg_mm + self.placed.free_mm(face)) / 2 for face in _walls(self.spec))

    @property
    def _under_mm(self) -> float:
        """How long of a ledge a tier lies on."""
        along, _ = self._axes
        return self.placed.high[along] - self.placed.low[along]

    @property
    def _on_posts_mm(self) -> float:
        """How much of each end lies on a post; 0 where it lies on a wall."""
        return self.placed.made.along_walls(self._axes[0])[2]

    def _weld(self, upright: Forces, level: Forces) -> Check:
        """Two lines along the edges of the leg on the wall, in short runs, or where it lies on posts: sheared, and the
        upper one pulled as the tier turns the ledge over."""
        start, end, post = self.placed.made.along_walls(self._axes[0])
        line = 2 * post if post else WELDED_SHARE * (end - start)
        shear = np.hypot(upright, level) / (2 * line)
        used = np.hypot(shear, upright * self._arm_mm / (self._ledge.up_mm * line))
        bears = weld_n_mm(self.placed, self._ledge.material, self._ledge.thickness_mm) or 1.0
        rule, source = "a fu / (√3 βw γM2), a = 0.7 t", "EN 1993-1-8, 4.5.3.3"
        return ratio(f"welds of the {self.words}", used, bears, "N/mm", rule, source)

    def _between_posts(self, upright: Forces) -> Check:
        """A bar between two posts, free at its ends, the load even over the tier: by the leg up the wall alone."""
        ledge, (start, end, post) = self._ledge, self.placed.made.along_walls(self._axes[0])
        span = end - start - post
        moment = upright * (2 * span - min(self._under_mm, span)) / 8
        steel = self.placed.stack.tables.materials[ledge.material]
        capacity = ledge.thickness_mm * ledge.up_mm**2 / 4 * steel.yield_mpa / GAMMA_M0
        return ratio(f"{self.words} between posts", moment, capacity, "N·mm", "t h² / 4 fy / γM0, plastic", "statics")

    def _bolt_checks(self, forces: Forces) -> Iterator[Check]:
        ledge, stack = self._ledge, self.placed.stack
        assert ledge.bolts is not None
        size, grade = stack.bolt(ledge.bolts)
        pull, shear = along_normal(forces, "base")
        pull = np.maximum(pull, 0.0)
        ft, fv = bolt_capacity(size, grade)
        used = pull_and_shear(pull, shear, ft, fv)

        def steps(s: int, k: int) -> tuple[Step, ...]:
            n = int(used[s, k].argmax())
            return (
                Step("pull T", "along the bolt", float(pull[s, k, n]), "N", STATICS),
                Step("shear V", "across it", float(shear[s, k, n]), "N", STATICS),
                Step("use", "max(V / Fv + T / (1.4 Ft), T / Ft)", float(used[s, k, n]), "", "EN 1993-1-8 table 3.4"),
            )

        yield Check(f"bolts through the {self.words}", used.max(axis=2), steps)
        steel = stack.tables.materials[ledge.material]
        edge = min(ledge.leg_mm - ledge.thickness_mm - ledge.bend_radius_mm, 2 * tool_mm(size)) / 2
        yield rim_check(f"the {self.words}", stack, ledge.bolts, (steel, ledge.thickness_mm, edge), shear)

    def pieces(self) -> Iterator[Piece]:
        ledge, along, across = self._ledge, *self._axes
        density = self.placed.stack.tables.materials[ledge.material].density_kg_m3
        for n, rest in enumerate(self._rests, 1):
            yield from rest.angle.pieces(f"ledge {n}", density, f"{self.key}-ledge-{n}")
            if ledge.slide_mm:
                low, high = [0.0, 0.0, rest.angle.floor_mm + ledge.thickness_mm], [0.0, 0.0, 0.0]
                high[2] = low[2] + ledge.slide_mm
                low[along], high[along] = rest.angle.along_mm
                ends = (rest.angle.off_wall(ledge.thickness_mm), rest.angle.off_wall(ledge.leg_mm))
                low[across], high[across] = sorted(ends)
                corners = (low[0], low[1], low[2]), (high[0], high[1], high[2])
                yield block_piece(f"slide {n}", "holder", *corners, SLIDE_KG_M3)

    def bolted(self) -> Iterator[InFace]:
        """None: they are welded on."""
        return iter(())

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        ledge, tables = self._ledge, self.placed.stack.tables
        of = (ledge.material, tables.materials[ledge.material])
        for n, rest in enumerate(self._rests):
            places = [at for owner, at in self._bolt_places if owner == n]
            holes = [(at, tables.bolts[ledge.bolts.size].clearance_hole_mm, ledge.bolts.size) for at in places
                     if ledge.bolts]  # fmt: skip
            on = "its posts" if self._on_posts_mm else f"the {rest.face} wall in short runs, half of its length"
            ids = f"{box_id}-{self.key}-ledge-{n + 1}", f"{name} ledge {n + 1}"
            foot = rest.angle.floor_mm - self.placed.floor_mm
            note = f"Leg of {ledge.up_mm:g} welded to {on}; underside {foot:.1f} over the floor, for tier {rest.tier}"
            yield rest.angle.part(ids, of, holes, (note,))

    def bought(self) -> Iterator[tuple[str, int]]:
        ledge = self._ledge
        if ledge.slide_mm:
            start, end, _ = self.placed.made.along_walls(self._axes[0])
            yield f"slide strip of polyethylene, {ledge.slide_mm:g} thick, {end - start:.0f} long", len(self._rests)
        if ledge.bolts is not None:
            stack = self.placed.stack
            long = stack.laid.turned.size_mm[2] + ledge.thickness_mm + ledge.slide_mm
            long += 2 * nut_mm(stack.tables.bolts[ledge.bolts.size]) - stack.sunk_mm
            words = f"{ledge.bolts.size} bolt, {ledge.bolts.property_class}, {-(-long // 5) * 5:.0f} long, with nut"
            yield f"{words} and washers, through ledges", len(self._bolt_places)


def _walls(spec: Ledges) -> tuple[Face, Face]:
    """The two that they lie on."""
    one, other = FACE_PAIRS[1 - ALONG[spec.along]]
    return one, other
