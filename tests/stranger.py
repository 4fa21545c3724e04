"""A newcomer's job, all made up: an estate with two plain spaces and one kind of six-cell bricks. Nothing of it is the
demo's."""

from typing import Any

from levelcradle.core.design import new_design, tree_of

__all__ = ["stranger_tree"]

SIDES = ("fore", "aft", "left", "right", "floor", "top")
BOOT_MM = (2460.0, 505.0)  # its floor's front edge, aft and up
POINTS = {
    "engine-left": (40, -288, 385), "engine-right": (40, 276, 385), "gearbox-left": (180, -288, 385),
    "gearbox-right": (180, 276, 385),
    "boot-front-left": (2572, -282, 505), "boot-front-right": (2572, 282, 505),
    "boot-rear-left": (2760, -282, 505), "boot-rear-right": (2760, 282, 505),
}  # fmt: skip


def stranger_tree() -> dict[str, Any]:
    """The job as surveyed, nothing placed yet."""
    tree = tree_of(new_design("Pell Dunnock 1300", 2410.0))
    tree["vehicle"] |= {
        "track_mm": {"front": 1270.0, "rear": 1250.0}, "ratings": {"front_kg": 580.0, "rear_kg": 660.0,
        "gross_kg": 1200.0},
        "cg_height": {"basis": "assumed", "up_mm": 560.0, "tolerance_mm": 60.0},
    }  # fmt: skip
    tree["weighings"] = {
        "as-found": {"kind": "as found", "read": {"type": "axles", "front_kg": 480.0, "rear_kg": 425.0, "step_kg": 1.0}}
    }
    tree["references"] = {"boot-edge": {"name": "boot floor front edge", "at_mm": [BOOT_MM[0], 0.0, BOOT_MM[1]]}}
    tree["items"] = {
        "engine": _mass("engine and gearbox", "out", 168.0, (150.0, 0.0, 420.0)),
        "exhaust": _mass("exhaust", "out", 14.0, (1500.0, -200.0, 220.0)),
        "fuel-tank": _mass("tank", "out", 9.0, (2600.0, -300.0, 350.0)),
        "motor": _mass("motor with reduction gear", "in", 75.0, (900.0, 0.0, 330.0)) | {"tol_kg": 2.0},
        "column": {"name": "steering column", "state": "stays",
                   "solid": {"type": "rod", "start_mm": [430.0, 250.0, 640.0], "end_mm": [-60.0, 290.0, 410.0],
                   "radius_mm": 20.0}},
        "heater": {"name": "heater box", "state": "stays",
                   "solid": {"type": "block", "low_mm": [265.0, -305.0, 625.0], "high_mm": [415.0, -95.0, 755.0]}},
    }  # fmt: skip
    tree["bays"] = {"boot": _boot(), "bonnet": _bonnet()}
    tree["hardpoints"] = {
        key: {"name": key.replace("-", " "), "at_mm": [float(v) for v in at], "direction": [0.0, 0.0, 1.0],
        "thread": "M12",
              "kind": "hole" if key.startswith("boot") else "captive nut"}
        for key, at in POINTS.items()
    }  # fmt: skip
    tree["module_kinds"] = {
        "brick": {
            "name": "Grey 6S brick", "size_mm": [385.0, 152.0, 108.0], "mass_kg": 12.1, "cells": {"series": 6,
            "parallel": 1},
            "nominal_v": 22.2, "full_v": 25.2, "empty_v": 18.0, "capacity_ah": 56.0, "terminals": "end_a",
            "face_gap_mm": {"end_a": 60.0}, "neighbour_gap_mm": 4.0, "may_rest_on": ["base", "side_a", "side_b"],
        }
    }  # fmt: skip
    tree["modules"] = {f"b{n}": {"kind": "brick", "name": f"brick {n + 1}"} for n in range(12)}
    return tree


def _mass(name: str, state: str, kg: float, at: tuple[float, float, float]) -> dict[str, Any]:
    return {"name": name, "state": state, "mass_kg": kg, "at_mm": list(at)}


def _boot() -> dict[str, Any]:
    aft, up = BOOT_MM
    return {
        "name": "boot", "measured_from": "boot-edge", "flags": {"luggage": True},
        "sides": {side: {"is": "open" if side in ("aft", "top") else "metal"} for side in SIDES},
        "stations": {
            "a": {"type": "sides", "aft_mm": aft + 10, "floor_mm": up, "top_left_mm": up + 420,
            "top_right_mm": up + 420,
                  "left_floor_mm": -450.0, "left_top_mm": -425.0, "right_floor_mm": 450.0, "right_top_mm": 425.0},
            "b": {"type": "widths", "aft_mm": aft + 480, "floor_mm": up, "top_left_mm": up + 380,
            "top_right_mm": up + 380,
                  "width_floor_mm": 820.0, "width_top_mm": 740.0},
        },
    }  # fmt: skip


def _bonnet() -> dict[str, Any]:
    same = ("left", "right")
    return {
        "name": "bonnet", "depth_mm": 560.0,
        "sides": {side: {"is": "open" if side == "floor" else "metal", "gap_class": "same" if side in same else "other",
                         "opens": side == "top"} for side in SIDES},
        "stations": {"a": {"type": "sides", "aft_mm": -130.0, "floor_mm": 390.0, "top_left_mm": 770.0,
        "top_right_mm": 770.0,
                           "left_floor_mm": -325.0, "left_top_mm": -325.0, "right_floor_mm": 310.0,
                           "right_top_mm": 310.0}},
    }  # fmt: skip
