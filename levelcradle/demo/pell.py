"""The second demo: a car half surveyed, to try the way on. All made up; nothing of it is the first one's."""

from typing import Any

from levelcradle.core.design import Design, new_design, tree_of, validate

__all__ = ["pell_design"]

NAME = "Pell Dunnock 1300"
SIDES = {"fore": "metal", "aft": "open", "left": "metal", "right": "metal", "floor": "metal", "top": "open"}
EDGE_MM = (2460.0, 505.0)  # the boot floor's front edge, aft and up


def pell_design() -> Design:
    """Weighed, its things listed, one space measured; the bonnet, the hard points and the modules are still to come."""
    tree = tree_of(new_design(NAME, 2410.0))
    tree["vehicle"] |= {
        "track_mm": {"front": 1270.0, "rear": 1250.0}, "ratings": {"front_kg": 580.0, "rear_kg": 660.0,
        "gross_kg": 1200.0},
        "cg_height": {"basis": "assumed", "up_mm": 560.0, "tolerance_mm": 60.0},
    }  # fmt: skip
    tree["weighings"] = {
        "as-found": {"kind": "as found", "read": {"type": "axles", "front_kg": 480.0, "rear_kg": 425.0,
        "step_kg": 1.0}},
        "stripped": {
            "kind": "stripped", "order": 1, "done": {f"items/{key}": True for key in ("engine", "exhaust", "tank")},
            "read": {"type": "axles", "front_kg": 321.0, "rear_kg": 394.0, "step_kg": 1.0},
        },
    }  # fmt: skip
    tree["references"] = {"boot-edge": {"name": "boot floor front edge", "at_mm": [EDGE_MM[0], 0.0, EDGE_MM[1]]}}
    tree["items"] = {
        "engine": _mass("engine and gearbox", "out", 168.0, [150.0, 0.0, 420.0], 0) | {"tol_kg": 4.0},
        "exhaust": _mass("exhaust", "out", 14.0, [1500.0, -200.0, 220.0], 1) | {"tol_kg": 1.0},
        "tank": _mass("tank", "out", 9.0, [2600.0, -300.0, 350.0], 2) | {"tol_kg": 1.0},
        "motor": _mass("motor with reduction gear", "in", 75.0, [900.0, 0.0, 330.0], 3) | {"tol_kg": 2.0,
        "role": "motor"},
        "column": {
            "name": "steering column", "state": "stays", "gap_class": "moving", "order": 4,
            "solid": {"type": "rod", "start_mm": [430.0, 250.0, 640.0], "end_mm": [-60.0, 290.0, 410.0],
            "radius_mm": 20.0},
        },
        "heater": {
            "name": "heater box", "state": "stays", "order": 5,
            "solid": {"type": "block", "low_mm": [265.0, -305.0, 625.0], "high_mm": [415.0, -95.0, 755.0]},
        },
    }  # fmt: skip
    tree["bays"] = {"boot": _boot()}
    return validate(tree)


def _mass(name: str, state: str, kg: float, at: list[float], order: int) -> dict[str, Any]:
    return {"name": name, "state": state, "mass_kg": kg, "at_mm": at, "order": order}


def _boot() -> dict[str, Any]:
    aft, up = EDGE_MM
    return {
        "name": "boot", "measured_from": "boot-edge", "flags": {"luggage": True},
        "sides": {side: {"is": what} for side, what in SIDES.items()},
        "stations": {
            "a": {"type": "sides", "aft_mm": aft + 10, "floor_mm": up, "top_left_mm": up + 420,
            "top_right_mm": up + 420,
                  "left_floor_mm": -450.0, "left_top_mm": -425.0, "right_floor_mm": 450.0, "right_top_mm": 425.0},
            "b": {"type": "widths", "aft_mm": aft + 480, "floor_mm": up, "top_left_mm": up + 380,
            "top_right_mm": up + 380,
                  "width_floor_mm": 820.0, "width_top_mm": 740.0},
        },
    }  # fmt: skip
