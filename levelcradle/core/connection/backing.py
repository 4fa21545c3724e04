"""A plate with a captive nut behind the vehicle's sheet, and a bolt through a closed section: whatever kind of mount
they hold."""

import math
from collections.abc import Callable, Iterator

import numpy as np

from levelcradle.core.connection.connection import ForceArray, Governing, Road
from levelcradle.core.connection.spot import TESTED, Spot
from levelcradle.core.design.mount import Backing, BoltedOn
from levelcradle.core.design.tables import BoltSize, Tables
from levelcradle.core.finding import Step, Working
from levelcradle.core.part import Bend, FlatPart, Hole, bend_allowance_mm, bend_deduction_mm
from levelcradle.core.strength import EDGE_HOLES, GAMMA_M0, ROAD_FACTOR, bolt_long_mm, class_asks, long_words

__all__ = ["backing_asks", "backing_parts", "backing_utilisation", "bolt_bought", "spot_utilisations", "spot_working"]

STRENGTH = "t² / 4 fy / 1.1 in a crash, t² / 6 fy / 1.5 on the road"
STOP_MM = 15.0  # a bent stop stands so far off its plate: common practice, no source
PLAY_MM = 1.0  # a plate goes through a hole that is so much wider: common practice, no source


def bolt_bought(lands_on: BoltedOn, spot: Spot, leg_mm: float, tables: Tables) -> str:
    """The bolt of a mount as it is bought, with its length where what it goes through was measured."""
    bolt, plate = tables.bolts[lands_on.bolt.size], lands_on.backing
    held = plate is not None or spot.kind != "hole"
    words = f"{lands_on.bolt.size} bolt, class {lands_on.bolt.property_class}"
    end = "washer" if held else "nut and washers"
    if spot.kind == "stud":
        return f"nut {lands_on.bolt.size} and washer, on a stud"
    if spot.wall_mm is None:
        return f"{words}, with {end}; its length by the metal there"
    clamped = leg_mm + spot.wall_mm + (1 if held else 2) * bolt.washer_thick_mm
    clamped += plate.thickness_mm if plate else 0.0
    nut = plate is not None or not held
    long = bolt_long_mm(bolt, clamped, into="nut" if nut else "thread")
    return (
        f"{words}, {long_words(bolt, long)} long, with {end}"
        if long
        else f"{words}, threaded rod for {clamped:.0f}, with {end}"
    )


def backing_asks(lands_on: BoltedOn, spot: Spot, tables: Tables) -> Iterator[tuple[str, bool]]:
    """What a bolt there must keep, each with whether it does."""
    if spot.thread and spot.thread in tables.bolts:
        fits = spot.thread == lands_on.bolt.size
        yield f"bolt {lands_on.bolt.size} in a hard point {spot.thread}", fits
    named = lands_on.bolt.size, lands_on.bolt.property_class
    yield from class_asks(named, tables.bolts[named[0]], tables.bolt_classes[named[1]])
    if spot.kind in TESTED:
        yield f"a {spot.kind} counts for nothing in a crash without a pull test", not spot.untested
    plate, bolt = lands_on.backing, tables.bolts[lands_on.bolt.size]
    if spot.clamps_closed and plate is None:
        yield "bolt through a closed section, in a sleeve that keeps its walls apart", lands_on.sleeve
    if plate is None:
        return
    yield "backing plate with a bent stop, or it falls in and turns", plate.stop
    edge = EDGE_HOLES * bolt.clearance_hole_mm
    yield (
        f"bolt to the edge of its backing plate {min(plate.size_mm) / 2:.1f}, at least {edge:.1f}",
        (min(plate.size_mm) / 2 >= edge),
    )
    if plate.entry_mm is not None:
        least = smallest_outline_mm(plate) + PLAY_MM
        yield (
            f"hole of {plate.entry_mm:.1f} for a backing plate that turned passes {least:.1f}",
            (plate.entry_mm >= least),
        )


def smallest_outline_mm(plate: Backing) -> float:
    """The smallest round hole that it passes by, lengthwise: across the corners of its narrow end (plane geometry).

    >>> smallest_outline_mm(Backing(size_mm=(80.0, 40.0), thickness_mm=9.0))
    41.0
    """
    return math.hypot(min(plate.size_mm), plate.thickness_mm)


def backing_utilisation(
    plate: Backing, bolt: BoltSize, pull_n: ForceArray, tables: Tables, *, road: Road
) -> ForceArray:
    """Of a plate that a bolt draws against sheet, which presses on all of it evenly: bent at the edge of its washer,
    q (a − dw)² / 8 over t² / 4 fy / γM0; on the road t² / 6 fy / 1.5. Source: statics; even pressure, common practice,
    no source."""
    steel = tables.materials[plate.material]
    fy = steel.yield_mpa_at(plate.thickness_mm) or steel.yield_mpa
    moment = np.asarray(pull_n) * _lever(plate, bolt)
    crash, elastic = plate.thickness_mm**2 / 4 * fy / GAMMA_M0, plate.thickness_mm**2 / 6 * fy / ROAD_FACTOR
    return np.asarray(moment / np.where(road, elastic, crash))


def _lever(plate: Backing, bolt: BoltSize) -> float:
    """What a millimetre of its width is bent by at the washer's edge, for each newton that the bolt draws [mm/mm]."""
    return float(max(max(plate.size_mm) - bolt.washer_mm, 0.0) ** 2 / 8 / (plate.size_mm[0] * plate.size_mm[1]))


def spot_utilisations(
    lands_on: BoltedOn,
    spot: Spot,
    pull_and_shear: Callable[[], tuple[ForceArray, ForceArray]],
    tables: Tables,
    *,
    road: Road,
) -> Iterator[tuple[str, ForceArray]]:
    """Of what a bolt lands on: the plate behind the sheet, and what holds for no more than one like it did in a test,
    pull and shear together."""
    tested_n = spot.tested_n if spot.kind in TESTED else None
    if lands_on.backing is None and tested_n is None:
        return
    pull_n, shear_n = pull_and_shear()
    if plate := lands_on.backing:
        bolt = tables.bolts[lands_on.bolt.size]
        yield "backing plate", backing_utilisation(plate, bolt, pull_n, tables, road=road)
    if tested_n is not None:
        yield spot.kind, np.asarray((pull_n + shear_n) / tested_n)


def spot_working(
    lands_on: BoltedOn, spot: Spot, pull_n: float, shear_n: float, row: Governing, tables: Tables
) -> Working | None:
    """The steps of such a check; None where it is no check of what the bolt lands on."""
    if row.check == "backing plate" and lands_on.backing:
        return backing_working(lands_on.backing, tables.bolts[lands_on.bolt.size], pull_n, row)
    if row.check == spot.kind and spot.tested_n is not None:
        return (
            Step("bolt's pull T", f"{row.case}, {row.solve}", pull_n, "N", "end as a lever (statics)"),
            Step("its shear V", "along the metal", shear_n, "N", "statics"),
            Step("one like it held", "pull and shear together", spot.tested_n, "N", "the shop's test"),
            Step(f"use of the {spot.kind}", "demand / capacity", row.utilisation, ""),
        )
    return None


def backing_working(plate: Backing, bolt: BoltSize, pull_n: float, row: Governing) -> Working:
    bent = pull_n * _lever(plate, bolt)
    return (
        Step("bolt's pull T", f"{row.case}, {row.solve}", pull_n, "N", "toe as a lever (statics)"),
        Step("pressed on evenly q", "T / (a b)", pull_n / (plate.size_mm[0] * plate.size_mm[1]), "MPa", "statics"),
        Step("moment at the washer's edge", "q (a − dw)² / 8", bent, "N·mm/mm", "statics"),
        Step("bears", "of its thickness", bent / row.utilisation if row.utilisation else 0.0, "N·mm/mm", STRENGTH),
        Step("use of the backing plate", "demand / capacity", row.utilisation, ""),
    )


def backing_parts(key: str, name: str, lands_on: BoltedOn, tables: Tables) -> Iterator[FlatPart]:
    """The plate, with the stop that is bent up from one end of it."""
    plate, bolt = lands_on.backing, tables.bolts[lands_on.bolt.size]
    if plate is None or min(plate.size_mm) <= bolt.clearance_hole_mm:
        return
    steel, (a, b), t = tables.materials[plate.material], plate.size_mm, plate.thickness_mm
    figures = {"angle_deg": 90.0, "radius_mm": t, "thickness_mm": t, "k": steel.k_factor}
    deduction, allowance = bend_deduction_mm(**figures), bend_allowance_mm(**figures)
    line = a - deduction / 2
    bends = (Bend((line, 0.0), (line, b), 90.0, t, True, allowance),) if plate.stop else ()
    length = a + (STOP_MM + t - deduction if plate.stop else 0.0)
    yield FlatPart(
        f"{key}-backing",
        f"{name} backing plate",
        1,
        plate.material,
        steel.name,
        plate.thickness_mm,
        steel.density_kg_m3,
        ((0.0, 0.0), (length, 0.0), (length, b), (0.0, b)),
        (Hole((a / 2, b / 2), bolt.clearance_hole_mm, lands_on.bolt.size),),
        bends,
        (
            f"{a:g} × {b:g} behind the sheet" + (f", its stop {STOP_MM + t:g} outside" if plate.stop else ""),
            f"Nut {lands_on.bolt.size} welded on behind; stays with the vehicle",
        ),
    )
