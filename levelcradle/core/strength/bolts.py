"""Bolts, and the sheet they hold in. Partial factors γM0 1.1 and γM2 1.25 (the first above Eurocode's recommended 1.0:
cautious, no source; the second as EN 1993-1-8)."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.design.tables import BoltClass, BoltSize

__all__ = [
    "BEYOND_PITCHES",
    "NUT_OF_D",
    "EDGE_HOLES",
    "GAMMA_M0",
    "GAMMA_M2",
    "bearing_n",
    "bolt_capacity",
    "bolt_group",
    "bolt_long_mm",
    "bolt_utilisation",
    "class_asks",
    "class_like",
    "long_words",
    "MOST_PACKING_D",
    "packed_share",
    "preload",
    "pull_and_shear",
    "pull_through_n",
    "tightening",
    "toe_pull",
]

SLIP_FRICTION = 0.15
ROAD_MARGIN = 1.25
PRELOAD_SHARE = 0.75  # of the proof load
SCATTER = 0.7  # what is left of the preload after scatter and embedding: common practice, no source
NUT_FACTOR = 0.2
GAMMA_M0 = 1.1
GAMMA_M2 = 1.25
EDGE_HOLES = 1.2  # from the middle of a hole to an edge, in holes, at least: EN 1993-1-8 table 3.3, from memory
TOE_REACH = 1.25  # a toe bears no further out than so much of the lever: EN 1993-1-8 table 6.2 (n ≤ 1.25 m)


# ISO 888, from memory
LENGTHS_MM = (16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 110, 120, 130, 140, 150)
INCH_MM = 25.4
# ASME B18.2.1, usual lengths, from memory
LENGTHS_IN = (0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.25, 2.5, 2.75, 3, 3.5, 4, 4.5, 5, 6)
NUT_OF_D = 0.95  # a nut is at most so high, in diameters: ISO 4032, from memory
BEYOND_PITCHES = 2.0  # threads that stand out of a nut: common practice, no source
IN_THREAD_OF_D = 1.0  # a bolt goes so far into a captive nut or a thread, in diameters: common practice, no source


def bolt_long_mm(bolt: BoltSize, clamped_mm: float, *, into: Literal["nut", "thread"] = "nut") -> float | None:
    """The shortest bolt that is made for what it clamps, washers counted in, and what holds it [mm]; None where none is
    long enough.

    >>> from levelcradle.core.design import standard_tables
    >>> bolts = standard_tables().bolts
    >>> bolt_long_mm(bolts["M10"], 12.0), bolt_long_mm(bolts["3/8-16"], 12.0), bolt_long_mm(bolts["M10"], 500.0)
    (25, 25.4, None)
    """
    held = NUT_OF_D * bolt.d_mm + BEYOND_PITCHES * bolt.pitch_mm if into == "nut" else IN_THREAD_OF_D * bolt.d_mm
    made = LENGTHS_MM if bolt.thread == "metric" else [inches * INCH_MM for inches in LENGTHS_IN]
    return next((mm for mm in made if mm >= clamped_mm + held - 1e-9), None)


def long_words(bolt: BoltSize, long_mm: float) -> str:
    """How long a bolt is, as it is bought.

    >>> from levelcradle.core.design import standard_tables
    >>> long_words(standard_tables().bolts["1/2-13"], 44.45), long_words(standard_tables().bolts["M12"], 45)
    ('1 3/4 in', '45')
    """
    if bolt.thread == "metric":
        return f"{long_mm:g}"
    whole, quarters = divmod(round(long_mm / INCH_MM * 4), 4)
    part = {0: "", 1: "1/4", 2: "1/2", 3: "3/4"}[quarters]
    return " ".join(word for word in (str(whole) if whole else "", part, "in") if word)


def class_asks(named: tuple[str, str], size: BoltSize, grade: BoltClass) -> Iterator[tuple[str, bool]]:
    """Whether bolts of a size are made of a class: metric ones of classes, inch ones of grades. Said where not."""
    if size.thread != grade.thread:
        yield f"{named[0]} of class {named[1]}: that is a class of {grade.thread} bolts", False


def class_like(size: BoltSize, like: str, classes: Mapping[str, BoltClass]) -> str:
    """The class that a bolt of a size is made of and that is as strong as one, or nearest to it.

    >>> from levelcradle.core.design import standard_tables
    >>> tables = standard_tables()
    >>> [class_like(tables.bolts[size], "10.9", tables.bolt_classes) for size in ("M10", "3/8-16")]
    ['10.9', 'grade 8']
    """
    wanted = classes.get(like)
    made = {key: row for key, row in classes.items() if row.thread == size.thread}
    if wanted is None or like in made or not made:
        return like
    return min(made, key=lambda key: (abs(made[key].ultimate_mpa - wanted.ultimate_mpa), key))


def bolt_capacity(bolt: BoltSize, grade: BoltClass) -> tuple[float, float]:
    """(Ft, Fv) tension and shear, threads in the shear plane [N]. Source: EN 1993-1-8 table 3.4."""
    area, fub = bolt.stress_area_mm2, grade.ultimate_mpa
    return 0.9 * fub * area / GAMMA_M2, grade.alpha_v * fub * area / GAMMA_M2


def pull_and_shear(
    pull_n: NDArray[np.float64], shear_n: NDArray[np.float64], ft_n: float, fv_n: float
) -> NDArray[np.float64]:
    """Use of a bolt that is pulled and sheared: max(V/Fv + T/(1.4 Ft), T/Ft). Source: EN 1993-1-8 table 3.4.

    >>> float(pull_and_shear(np.array(50.0), np.array(0.0), 100.0, 60.0))
    0.5
    """
    return np.maximum(shear_n / fv_n + pull_n / (1.4 * ft_n), pull_n / ft_n)


MOST_PACKING_D = 4 / 3  # packing is no thicker than so many diameters: EN 1993-1-8 3.6.1 (12), from memory


def packed_share(bolt: BoltSize, packing_mm: float) -> float:
    """What is left of a bolt's shear where it stands in packing thicker than a third of it: 9 d / (8 d + 3 tp).
    Source: EN 1993-1-8 3.6.1 (12)."""
    d = bolt.d_mm
    return min(9 * d / (8 * d + 3 * packing_mm), 1.0) if packing_mm > d / 3 else 1.0


def preload(bolt: BoltSize, grade: BoltClass, pressed_mpa: float = math.inf) -> float:
    """0.75 of the proof load [N], and no more than what is pressed by the washer yields at. Source: ISO 898-1; common
    practice."""
    ring = math.pi / 4 * (bolt.washer_mm**2 - bolt.clearance_hole_mm**2)
    return min(PRELOAD_SHARE * grade.proof_mpa * bolt.stress_area_mm2, pressed_mpa * ring)


def tightening(bolt: BoltSize, preload_n: float) -> tuple[float, float]:
    """(torque [N·m], least preload [N]): T = 0.2 d F. Source: common practice."""
    return NUT_FACTOR * bolt.d_mm * preload_n / 1000, SCATTER * preload_n


def bolt_utilisation(
    pull_n: NDArray[np.float64],
    shear_n: NDArray[np.float64],
    bolt: BoltSize,
    grade: BoltClass,
    preload_n: float,
    *,
    road: bool | NDArray[np.bool_],
    slip: float = 1.0,
) -> NDArray[np.float64]:
    """Crash: the joint has slipped, shear and pull together (EN 1993-1-8 table 3.4). Road: no slip, no gapping;
    ``slip``: what the hole leaves of friction."""
    crash = pull_and_shear(pull_n, shear_n, *bolt_capacity(bolt, grade))
    _, least = tightening(bolt, preload_n)
    clamp = np.maximum(least - pull_n, 1e-6 * least)
    on_road = np.maximum(shear_n * ROAD_MARGIN / (slip * SLIP_FRICTION * clamp), pull_n * ROAD_MARGIN / least)
    return np.where(road, on_road, crash)


def toe_pull(
    lift_n: NDArray[np.float64], rows_mm: Sequence[float], edge_mm: float, leg_n_mm: float = math.inf
) -> NDArray[np.float64]:
    """What pulls at each row of bolts of a leg that is lifted beside them: it turns about its toe, which presses [N].

    One row: T = max(N, 0)(1 + b1 / a1), a1 = min(e, 1.25 b1).

    Args:
        lift_n: of any shape; the answer has one more axis, of the rows.
        rows_mm: from the line of the lift to each row of bolts, the nearest first; edge_mm: to the free edge.
        leg_n_mm: what the leg bears at a row of bolts, with which it can lever; a stiff one as much as it has to.
    Source: statics (a rigid leg, rows alike); reach of the toe: EN 1993-1-8 table 6.2.

    >>> toe_pull(np.array(100.0), (10.0,), 20.0).tolist(), toe_pull(np.array(100.0), (10.0,), 90.0).tolist()
    ([200.0], [180.0])
    """
    rows, lift = np.asarray(rows_mm), np.maximum(lift_n, 0.0)[..., None]
    toe = min(edge_mm, (1 + TOE_REACH) * rows[-1])
    arms = toe - rows
    if not arms.any():
        return np.asarray(lift + np.zeros_like(arms))  # bolts in the line of the lift: nothing levers
    return np.asarray(np.minimum(lift * toe * arms / (arms @ arms), lift + leg_n_mm / arms))


def bearing_n(
    bolt: BoltSize,
    bolt_mpa: float,
    sheet_mpa: float,
    thickness_mm: float,
    edges_mm: tuple[float, float] = (math.inf, math.inf),
    *,
    pitch_mm: float = math.inf,
) -> float:
    """A bolt on the rim of its hole in a sheet: k1 αb fu d t / γM2 [N]. ``edges_mm``: from the middle of the hole to
    the edge that it bears towards, and to the nearer one beside; ``pitch_mm``: to the next hole, whichever way. Source:
    EN 1993-1-8 table 3.4."""
    ahead, beside = (mm / bolt.clearance_hole_mm for mm in edges_mm)
    apart = pitch_mm / bolt.clearance_hole_mm
    # what is so near is foul by its shape; the use stays finite
    alpha = max(min(ahead / 3, apart / 3 - 0.25, bolt_mpa / sheet_mpa, 1.0), 0.01)
    k1 = min(max(min(2.8 * beside, 1.4 * apart) - 1.7, 0.01), 2.5)
    return k1 * alpha * sheet_mpa * bolt.d_mm * thickness_mm / GAMMA_M2


def bolt_group(
    places_mm: Sequence[tuple[float, float]],
    forces_n: tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]],
    moments: tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]],
) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]]:
    """What each of a group of bolts in one plane takes of a force and a moment at its middle [N]: square to the plane,
    and along its first and second way. Every bolt takes as much as it is far from the middle; nothing is counted for
    what presses on the metal between them, which is cautious.

    Args:
        places_mm: of each bolt from their middle, along the first way and the second.
        forces_n: square to the plane, along the first way and the second; moments: about the same.
    Returns: three arrays with one more axis before theirs, of the bolts.
    Source: elastic bolt group (statics), as for a line of weld.
    """
    u, v = (np.array(row).reshape(-1, *([1] * np.ndim(forces_n[0]))) for row in zip(*places_mm, strict=True))
    count, uu, vv = len(places_mm), (u * u).sum(axis=0), (v * v).sum(axis=0)
    off, along_u, along_v = forces_n
    about, about_u, about_v = moments
    polar = np.maximum(uu + vv, 1e-9)
    square = off / count + about_u * v / np.maximum(vv, 1e-9) - about_v * u / np.maximum(uu, 1e-9)
    return square, along_u / count - about * v / polar, along_v / count + about * u / polar


def pull_through_n(across_mm: float, sheet_mpa: float, thickness_mm: float) -> float:
    """A head, nut or stud of so much across pulled through a sheet: 0.6 π dm t fu / γM2 [N]. Source: EN 1993-1-8 table
    3.4 (punching shear)."""
    return 0.6 * math.pi * across_mm * thickness_mm * sheet_mpa / GAMMA_M2
