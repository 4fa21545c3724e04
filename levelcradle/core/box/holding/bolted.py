"""Bolts of holders: in what they hold, and what that carries in a crash."""

import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from levelcradle.core.axes import Vec, plus, scaled
from levelcradle.core.box.holding.stack import Check, Forces, InFace, Placed, Stack, nut_mm
from levelcradle.core.box.openings import outward
from levelcradle.core.box.piece import STEEL_KG_MM3, Outside, Piece
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.holders import Bolts
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Step
from levelcradle.core.solids import block, rod
from levelcradle.core.strength import (
    BEYOND_PITCHES,
    GAMMA_M2,
    Bearing,
    bearing_n,
    bolt_capacity,
    class_asks,
    pull_and_shear,
    pull_through_n,
)

__all__ = [
    "STATICS",
    "bolt_asks",
    "bolt_checks",
    "bolt_words",
    "PILOT_MM",
    "hole_of",
    "nut_outside",
    "ratio",
    "rim_check",
    "sheet_check",
    "steel_rod",
    "weld_n_mm",
]

STATICS = "rigid stack on equal springs, each holder at half and at double (statics)"
EC3 = "EN 1993-1-8 table 3.4"
INTO = {
    "nut": "nuts",
    "stud": "studs",
    "rivet nut": "rivet nuts",
    "thread": "cut threads",
    "insert": "threaded inserts",
}
TESTED = ("rivet nut", "thread", "insert")
INSERT_LONG = 1.0  # a threaded insert is as long as its bolt is thick, at least: common practice, no source
THROAT = 0.7  # of the thinner part: EN 1993-1-8 4.5.2
STUD_SHEET = 0.25  # a stud is welded to a sheet of at least so much of its diameter: ISO 14555, from memory


def bolt_words(bolts: Bolts) -> str:
    """How bolts are called on a list."""
    if bolts.into == "stud":
        return f"{bolts.size} stud to weld on, {bolts.property_class}, with nut and washer"
    return f"{bolts.size} bolt, {bolts.property_class}, with {'nut' if bolts.into == 'nut' else bolts.into} and washer"


def bolt_asks(placed: Placed, bolts: Bolts, face: Face) -> Iterator[tuple[str, bool]]:
    """What bolts into a face must keep."""
    bearing = placed.made.bearing_at(face)
    if bearing is None:
        yield f"bolted to the {face}, which comes off", False
        return
    yield from class_asks((bolts.size, bolts.property_class), *placed.stack.bolt(bolts))
    soft = bearing.material.weldable_with == "aluminium"
    if bolts.into == "thread" and soft:
        yield "cut threads in soft metal are worn out: an insert there", False
    if bolts.into == "insert":
        least, has = INSERT_LONG * placed.stack.tables.bolts[bolts.size].d_mm, bearing.thickness_mm
        yield f"sheet of {has:.1f} for an insert {bolts.size}, at least {least:.1f}", has >= least - 1e-9
    if bolts.into in TESTED:
        yield f"{INTO[bolts.into]} count for nothing in a crash without a pull test", bolts.tested_n is not None
    if bolts.into == "stud":
        least = STUD_SHEET * placed.stack.tables.bolts[bolts.size].d_mm
        has = bearing.thickness_mm
        yield f"sheet of {has:.1f} under a stud {bolts.size}, at least {least:.1f}", has >= least - 1e-9
        yield "studs of steel on steel", bearing.material.weldable_with == "steel"


def bolt_checks(placed: Placed, bolts: Bolts, face: Face, pull: Forces, shear: Forces) -> Iterator[Check]:
    """Of bolts into a face: (s, k, n) what each is pulled out of it and sheared along it with [N]. Sources: EN 1993-1-8
    table 3.4; what a shop's own pull test held."""
    bearing = placed.made.bearing_at(face)
    if bearing is None:
        return
    pull = np.maximum(pull, 0.0)
    if bolts.tested_n is not None and bolts.into in TESTED:
        both = (pull + shear).max(axis=2)
        yield ratio(f"{INTO[bolts.into]} in the {face}", both, bolts.tested_n, "N", "pull and shear", "the shop's test")
        return
    size, grade = placed.stack.bolt(bolts)
    ft, fv = bolt_capacity(size, grade)
    yield _bolt(f"bolts to the {face}", pull, shear, ft, fv)
    yield rim_check(f"the {face}", placed.stack, bolts, (bearing.material, bearing.thickness_mm, math.inf), shear)
    across = size.d_mm if bolts.into == "stud" else size.washer_mm
    through = pull_through_n(across, bearing.material.ultimate_mpa, bearing.thickness_mm)
    yield ratio(f"{face} round the bolts", pull.max(axis=2), through, "N", "0.6 π dm t fu / γM2", EC3)


def rim_check(where: str, stack: Stack, bolts: Bolts, sheet: tuple[Material, float, float], shear: Forces) -> Check:
    """Of the rims of its holes. ``sheet``: its material, its thickness, and how near its edges are."""
    (size, grade), (metal, thickness, edge) = stack.bolt(bolts), sheet
    bears = bearing_n(size, grade.ultimate_mpa, metal.ultimate_mpa, thickness, (edge, edge))
    return ratio(f"rim of the holes in {where}", shear.max(axis=2), bears, "N", "k1 αb fu d t / γM2", EC3)


def _bolt(name: str, pull: Forces, shear: Forces, ft: float, fv: float) -> Check:
    each = pull_and_shear(pull, shear, ft, fv)

    def steps(s: int, k: int) -> tuple[Step, ...]:
        n = int(each[s, k].argmax())
        return (
            Step("pull T", "along the bolt", float(pull[s, k, n]), "N", STATICS),
            Step("shear V", "across it", float(shear[s, k, n]), "N", STATICS),
            Step("Ft", "0.9 fub As / γM2", ft, "N", EC3),
            Step("Fv", "αv fub As / γM2, threads in the shear plane", fv, "N", EC3),
            Step("use", "max(V / Fv + T / (1.4 Ft), T / Ft)", float(each[s, k, n]), "", EC3),
        )

    return Check(name, each.max(axis=2), steps)


def ratio(name: str, demand: Forces, capacity: float, unit: str, rule: str, source: str) -> Check:
    """A check that is a demand over a capacity: (s, k)."""

    def steps(s: int, k: int) -> tuple[Step, ...]:
        return (
            Step(name, "worst of the solves", float(demand[s, k]), unit, STATICS),
            Step("capacity", rule, capacity, unit, source),
            Step("use", "demand / capacity", float(demand[s, k]) / capacity, ""),
        )

    return Check(name, demand / capacity, steps)


def weld_n_mm(placed: Placed, material: str, thickness_mm: float) -> float | None:
    """What a fillet to the floor bears a millimetre long: a fu / (√3 βw γM2), a = 0.7 of the thinner, of the weaker of
    the two [N/mm]; None where they are not both steel. Source: EN 1993-1-8, 4.5.2 and 4.5.3.3."""
    floor, own = placed.made.bearing_at("base"), placed.stack.tables.materials[material]
    if floor is None or not (own.weldable_with == floor.material.weldable_with == "steel"):
        return None
    weaker = min((own, floor.material), key=lambda metal: metal.ultimate_mpa)
    throat = THROAT * min(thickness_mm, floor.thickness_mm)
    return throat * weaker.ultimate_mpa / (math.sqrt(3) * (weaker.beta_w or 1.0) * GAMMA_M2)


def sheet_check(face: Face, press: Forces, bearing: Bearing, patch_mm: tuple[float, float]) -> Check:
    """What presses on a face, or pulls at it, over a patch: (s, k) [N]."""
    carries = bearing.carries_n(patch_mm)
    return replace(ratio(f"{face} as a whole", press, carries, "N", bearing.rule, "fy / 1.1"), rough=bearing.rough)


PILOT_MM = 3.0  # drilled out when it is fitted: common practice, no source


def hole_of(placed: Placed, bolts: Bolts) -> tuple[float, str] | None:
    """(diameter, what for) of the hole of a bolt in a face as it is cut: to its size for a nut, d − P to be tapped
    (ISO 2306, from memory), a pilot hole for what is set in; None for a stud, which is welded on."""
    bolt = placed.stack.tables.bolts[bolts.size]
    if bolts.into == "stud":
        return None
    if bolts.into == "thread":
        return round(bolt.d_mm - bolt.pitch_mm, 2), f"tap {bolts.size}"
    return (bolt.clearance_hole_mm, bolts.size) if bolts.into == "nut" else (PILOT_MM, f"{bolts.into} {bolts.size}")


def nut_outside(placed: Placed, bolt_in: InFace) -> Iterator[Outside]:
    """A nut on the outside of a face, with the end of its bolt."""
    if bolt_in.bolts.into != "nut":
        return
    bolt, (axis, far) = placed.stack.tables.bolts[bolt_in.bolts.size], FACE_AT[bolt_in.face]
    out = nut_mm(bolt) + BEYOND_PITCHES * bolt.pitch_mm
    low, high = [v - bolt.washer_mm / 2 for v in bolt_in.at], [v + bolt.washer_mm / 2 for v in bolt_in.at]
    wall = placed.made.outer_mm[axis] if far else 0.0
    low[axis], high[axis] = (wall, wall + out) if far else (wall - out, wall)
    yield Outside("nut", "fastener", block((low[0], low[1], low[2]), (high[0], high[1], high[2])))


def steel_rod(name: str, foot: Vec, top: Vec, diameter_mm: float) -> Piece:
    """A round bar of steel."""
    mass = math.pi / 4 * diameter_mm**2 * math.dist(foot, top) * STEEL_KG_MM3
    middle = scaled(plus(foot, top), 0.5)
    return Piece(name, "holder", mass, middle, lambda: (rod(foot, top, diameter_mm / 2),))


def along_normal(forces: Forces, face: Face) -> tuple[Forces, Forces]:
    """(pull into the box off a face, shear along it) of forces (…, 3) of the modules on bolts in it [N]."""
    n = np.array(outward(face))
    pull = -(forces @ n)
    return pull, np.linalg.norm(forces + pull[..., None] * n, axis=-1)
