"""A bar between two places that hold its ends, free to turn there when it is bent, held there when it is twisted: bent
both ways, sheared, twisted and drawn along by what is mounted on it. Several boxes on one count together, case by case,
each by its own worst solve.

Source: statics of a beam on two supports; sections by EN 1993-1-1, 6.2 (from memory): plastic in a crash, elastic on
yield / 1.5 on the road; sums without signs, as of legs (cautious, no source)."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Matrix
from levelcradle.core.bar import Section
from levelcradle.core.connection import ForceArray
from levelcradle.core.crossmember import SectionFigures, section_figures
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import Step, Working
from levelcradle.core.strength import GAMMA_M0, ROAD_FACTOR

__all__ = ["STATICS", "Beam", "BeamState", "CheckOfBar", "Thrown", "beam_checks", "end_forces", "together"]

STATICS = "a beam on two supports, free to turn at its ends (statics)"
WHY_CAUTIOUS = "sums without signs (cautious, no source)"
ALONG = (1.0, 0.0, 0.0)


@dataclass(frozen=True)
class Beam:
    """``yield_mpa``: beside welds, where it has some; ``left``: what holes leave of its moduli."""

    section: Section
    span_mm: float
    yield_mpa: float
    left: float = 1.0

    @cached_property
    def figures(self) -> SectionFigures:
        return section_figures(self.section)


@dataclass(frozen=True, slots=True)
class Thrown:
    """What mounts of one box throw on a bar, in its frame: (s, k, n, 3) forces [N], and (n, 3) where [mm], from the
    middle of its first end's face."""

    forces: Matrix
    at: Matrix


@dataclass(frozen=True, slots=True)
class CheckOfBar:
    """One check of a bar: its worst use, in which case, and how that came about."""

    check: str
    utilisation: float
    case: str
    working: Working


def end_forces(forces: Matrix, at: Matrix, span_mm: float) -> tuple[Matrix, Matrix]:
    """(…, 3) what forces (…, n, 3) at places (n, 3) along a bar press its two ends with [N], in its frame: both balance
    every moment across the bar; what is drawn along it they share."""
    x = np.array(ALONG)
    whole, moment = forces.sum(axis=-2), np.cross(at, forces).sum(axis=-2)
    far = np.cross(moment, x) / span_mm + whole[..., :1] / 2 * x
    return whole - far, far


@dataclass(frozen=True, slots=True)
class BeamState:
    """Of one box's load in a bar, most of its solves, without signs.

    Attributes:
        bent: (k, p, 2) moments about y and z [N·mm] at each place, the greater of just before and just behind it.
        sheared: (k, 2) along z and y [N]; twisted: (k, 2) at either end [N·mm]; drawn: (k,) along [N].
        lifted, slid: (k, 2) what pulls at either end off the metal, and shears it [N].
    """

    bent: Matrix
    sheared: Matrix
    twisted: Matrix
    drawn: Matrix
    lifted: Matrix
    slid: Matrix

    @staticmethod
    def of(beam: Beam, row: Thrown, places: Matrix) -> "BeamState":
        forces, span, x = row.forces, beam.span_mm, np.array(ALONG)
        at = row.at - np.array((0.0, *beam.figures.middle_mm))
        near, far = end_forces(forces, at, span)
        bent, sheared = [], [np.abs(near), np.abs(far)]
        for place in places:
            for before in (at[:, 0] < place - 1e-6, at[:, 0] <= place + 1e-6):
                gone = forces[:, :, before]
                inside = -place * np.cross(x, near)
                inside = inside - np.cross(at[before] - place * x, gone).sum(axis=2)
                bent.append(np.abs(inside[..., 1:]))
                sheared.append(np.abs(near - gone.sum(axis=2)))
        arms = row.at - np.array((0.0, *beam.figures.turns_about_mm))
        turning = np.cross(arms * (0.0, 1.0, 1.0), forces)[..., 0]
        share = at[:, 0] / span
        twisted = np.stack([(turning * (1 - share)).sum(axis=2), (turning * share).sum(axis=2)], axis=-1)
        ends = np.stack([near, far], axis=2)
        lifted, slid = np.maximum(ends[..., 2], 0.0), np.hypot(ends[..., 0], ends[..., 1])
        return BeamState(
            np.stack(bent, axis=2).max(axis=0).reshape(forces.shape[1], len(places), 2, 2).max(axis=2),
            np.stack(sheared).max(axis=0).max(axis=0)[:, [2, 1]],
            np.abs(twisted).max(axis=0),
            np.abs(forces[..., 0]).sum(axis=2).max(axis=0),
            lifted.max(axis=0),
            slid.max(axis=0),
        )


def together(states: Sequence[BeamState], name: str) -> ForceArray:
    return np.asarray(sum(getattr(state, name) for state in states))


def beam_checks(
    beam: Beam, states: Sequence[BeamState], cases: list[LoadCase], words: str = "bar"
) -> Iterator[CheckOfBar]:
    """``words``: what it is called."""
    figures, left, fy = beam.figures, beam.left, beam.yield_mpa
    road = np.array([case.kind == "road" for case in cases])
    stress = np.where(road, fy / ROAD_FACTOR, fy / GAMMA_M0)
    bent, drawn = together(states, "bent"), together(states, "drawn")
    modulus = [np.where(road, e, p) * left for p, e in zip(figures.plastic_mm3, figures.elastic_mm3, strict=True)]
    used = (
        bent[..., 0] / (modulus[0] * stress)[:, None]
        + bent[..., 1] / (modulus[1] * stress)[:, None]
        + (drawn / (figures.area_mm2 * left * stress))[:, None]
    )
    k, p = divmod(int(used.argmax()), used.shape[1])
    yield CheckOfBar(
        f"{words}, bent",
        float(used[k, p]),
        cases[k].name,
        (
            Step("moment, up and down", "the worst place, all boxes on it", float(bent[k, p, 0]), "N·mm", STATICS),
            Step("moment, level", "there", float(bent[k, p, 1]), "N·mm", STATICS),
            Step("drawn along", "as if one end held all of it", float(drawn[k]), "N", STATICS),
            Step("left beside its holes", "of its moduli", left, "", "net section (common practice, no source)"),
            Step("W, up and down", str(beam.section), float(modulus[0][k] / left), "mm³", "of the section"),
            Step("W, level", str(beam.section), float(modulus[1][k] / left), "mm³", "of the section"),
            Step("may be stressed", "fy / 1.1, on the road fy / 1.5", float(stress[k]), "MPa", WHY_CAUTIOUS),
            Step("use", "My / W f + Mz / W f + N / A f", float(used[k, p]), "", "EN 1993-1-1, 6.2.9, from memory"),
        ),
    )
    sheared, twisted = together(states, "sheared"), together(states, "twisted").max(axis=1)
    shear = stress / math.sqrt(3)
    used = (sheared / np.array(figures.sheared_mm2)).sum(axis=1) / shear + twisted / figures.twisted_mm3 / shear
    k = int(used.argmax())
    yield CheckOfBar(
        f"{words}, sheared and twisted",
        float(used[k]),
        cases[k].name,
        (
            Step("shear, up and down", "at its worst place", float(sheared[k, 0]), "N", STATICS),
            Step("shear, level", "at its worst place", float(sheared[k, 1]), "N", STATICS),
            Step("twist", "at its worse end, about its shear centre", float(twisted[k]), "N·mm", STATICS),
            Step("may be sheared", "f / √3", float(shear[k]), "MPa", "EN 1993-1-1, 6.2.6, from memory"),
            Step("use", "V / A f + T / W f", float(used[k]), "", WHY_CAUTIOUS),
        ),
    )
