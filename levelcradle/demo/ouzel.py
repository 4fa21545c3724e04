"""The Calder Ouzel 1500 estate, 1969: all made up. Places are (aft, right, up) in mm, masses in kg."""

from typing import Any

from levelcradle.core.design import Design, standard_tables, validate

__all__ = ["demo_design", "demo_tree"]


def demo_design() -> Design:
    return validate(demo_tree())


def demo_tree() -> dict[str, Any]:
    """The demo as a document tree."""
    return {
        "format": 7,
        "name": "Calder Ouzel 1500",
        "vehicle": _vehicle(),
        "references": {
            "seat-seam": {"name": "seat seam", "at_mm": [1610, 0, 540]},
            "sill-underside": {"name": "sill underside", "at_mm": [1500, 700, 312]},
            "rear-panel-lip": {"name": "rear panel lip", "at_mm": [3455, 0, 610]},
        },
        "items": _items(),
        "keepouts": {
            "crush-front": _crush("front crush zone", -690, -270),
            "crush-rear": _crush("rear crush zone", 3220, 3520),
        },
        "weighings": {
            "as-found": {
                "kind": "as found",
                "read": {"type": "corners", "lf_kg": 268, "rf_kg": 264, "lr_kg": 228, "rr_kg": 225, "step_kg": 2},
            },
        },
        "load_states": {
            "driver": {"name": "with a driver", "aboard": {"driver": True}, "order": 1},
            "four-up": {
                "name": "four up",
                "aboard": {"driver": True, "front-passenger": True, "rear-passengers": True, "luggage": True},
                "order": 2,
            },
        },
        "bays": _bays(),
        "hardpoints": _hardpoints(),
        "module_kinds": _kinds(),
        "modules": _modules(),
        "boxes": _boxes(),
        "mounts": _mounts(),
        "readings": {
            "/vehicle/cg_height/up_mm": {
                "text": "552",
                "unit": "mm",
                "tolerance": 40,
                "basis": "assumed",
                "accepted": {"by": "the workshop", "plus_minus": 40},
            },
        },
        "tables": standard_tables().model_dump(mode="json"),
    }


def _vehicle() -> dict[str, Any]:
    return {
        "wheelbase_mm": 2480,
        "track_mm": {"front": 1310, "rear": 1290},
        "overall": {
            "overhang_front_mm": 690, "overhang_rear_mm": 1040, "width_mm": 1600, "height_mm": 1245,
            "tyre_radius_mm": 290,
        },
        "cg_height": {"up_mm": 552, "tolerance_mm": 40, "basis": "assumed"},
        "ratings": {"front_kg": 720, "rear_kg": 858, "gross_kg": 1560},
        "wheel_rates": {"front_n_per_mm": 20, "rear_n_per_mm": 23},
        "target": {"front_percent": 52.0, "across_mm": 0},
    }  # fmt: skip


def _block(low: list[float], high: list[float]) -> dict[str, Any]:
    return {"type": "block", "low_mm": low, "high_mm": high}


def _crush(name: str, fore: float, aft: float) -> dict[str, Any]:
    solid = _block([fore, -500, 150], [aft, 500, 640])
    return {"name": name, "kind": "crush", "solid": solid, "gap_class": "same", "reason": "common practice, no source"}


def _items() -> dict[str, Any]:
    rows: dict[str, Any] = {}
    for order, (key, name, mass, at) in enumerate(_OUT):
        rows[key] = {"name": name, "state": "out", "mass_kg": mass, "tol_kg": 1, "at_mm": at, "order": order}
    rows["fuel"]["fuel"] = rows["tank"]["fuel"] = True
    for order, (key, name, mass, at, solid, gap_class) in enumerate(_IN):
        rows[key] = {"name": name, "state": "in", "mass_kg": mass, "tol_kg": 0.5, "at_mm": at, "order": order}
        if key in _ROLES:
            rows[key]["role"] = _ROLES[key]
        if solid:
            rows[key] |= {"solid": _block(*solid), "gap_class": gap_class}
    for order, (key, name, solid_spec, gap_class) in enumerate(_STAYS):
        structure = "axle" if gap_class == "axle" else "body"
        rows[key] = {
            "name": name,
            "state": "stays",
            "solid": solid_spec,
            "gap_class": gap_class,
            "structure": structure,
            "order": order,
        }
    for order, (key, name, mass, at) in enumerate(_ABOARD):
        rows[key] = {"name": name, "state": "payload", "mass_kg": mass, "at_mm": at, "order": order}
    return rows


_OUT: tuple[tuple[str, str, float, list[float]], ...] = (
    ("engine", "engine", 134, [70, 5, 570]),
    ("gearbox", "gearbox", 31, [600, 0, 420]),
    ("radiator", "radiator", 13, [-430, 0, 560]),
    ("exhaust", "exhaust", 16, [1700, 180, 270]),
    ("tank", "tank", 9, [2880, 0, 470]),
    ("fuel", "fuel, 18 L", 13.4, [2880, 0, 440]),
    ("starter-battery", "starter battery", 14, [430, -380, 640]),
    ("clutch-hydraulics", "clutch hydraulics", 3, [640, 330, 560]),
    ("spare-wheel", "spare wheel", 15, [3330, 0, 420]),
)
_Solid = tuple[list[float], list[float]] | None
_IN: tuple[tuple[str, str, float, list[float], _Solid, str], ...] = (
    ("motor", "motor", 79, [585, 0, 345], ([330, -150, 215], [840, 150, 470]), "moving"),
    (
        "motor-frame",
        "motor frame",
        9,
        [500, 0, 380],
        (
            [420, -280, 195],
            [580, 280, 212],
        ),
        "other",
    ),
    ("inverter", "inverter", 12, [190, 90, 410], ([60, 0, 355], [320, 180, 462]), "other"),
    ("junction-box", "junction box", 8, [190, -130, 415], ([80, -230, 360], [300, -30, 465]), "other"),
    ("charger", "charger", 11, [3265, -20, 398], ([3150, -110, 315], [3380, 70, 480]), "other"),
    ("small-battery", "small battery", 5, [3300, 110, 400], ([3240, 75, 330], [3360, 145, 470]), "other"),
    ("pumps", "pumps, coolant", 10, [-380, 0, 500], ([-440, -110, 440], [-320, 110, 560]), "other"),
    ("cables", "cables", 12, [1600, 120, 290], ([850, 100, 275], [2280, 140, 305]), "other"),
    ("cabin-heater", "cabin heater", 3, [640, 100, 620], ([610, 20, 560], [690, 180, 680]), "other"),
)
_ROLES = {"motor": "motor", "inverter": "motor control", "junction-box": "junction", "charger": "charger",
"small-battery": "small battery",
          "cabin-heater": "heater"}  # fmt: skip
_STAYS: tuple[tuple[str, str, dict[str, Any], str], ...] = (
    ("axle", "axle at full bump", _block([2300, -600, 180], [2660, 600, 485]), "axle"),
    ("anti-roll-bar", "anti-roll bar through its travel", _block([2720, -480, 296], [2800, 480, 330]), "moving"),
    ("prop-shaft", "prop shaft through its travel", _block([840, -55, 225], [2300, 55, 420]), "moving"),
    ("silencer-hanger", "silencer hanger", _block([3089, 250, 560], [3123, 300, 640]), "same"),
    ("steering-column", "steering column",
     {"type": "rod", "start_mm": [-80, 372, 480], "end_mm": [640, 382, 770], "radius_mm": 28}, "moving"),
    ("brake-pipes", "brake pipes", _block([-60, -390, 480], [600, -367, 520]), "other"),
    ("front-rail-left", "front rail, left", _block([-500, -330, 400], [900, -280, 470]), "same"),
    ("front-rail-right", "front rail, right", _block([-500, 280, 400], [900, 330, 470]), "same"),
    ("rear-rail-left", "rear rail, left", _block([2100, -425, 540], [3400, -375, 610]), "same"),
    ("rear-rail-right", "rear rail, right", _block([2100, 375, 540], [3400, 425, 610]), "same"),
)  # fmt: skip
_ABOARD: tuple[tuple[str, str, float, list[float]], ...] = (
    ("driver", "driver", 75, [1180, 330, 610]),
    ("front-passenger", "front passenger", 75, [1180, -330, 610]),
    ("rear-passengers", "rear passengers", 150, [1950, 0, 640]),
    ("luggage", "luggage", 50, [2950, 0, 760]),
)


def _station(aft: float, floor: float, top: float, left: list[float], right: list[float]) -> dict[str, float]:
    """left and right as (at the floor, at the top)."""
    return {
        "aft_mm": aft, "floor_mm": floor, "top_left_mm": top, "top_right_mm": top,
        "left_floor_mm": left[0], "left_top_mm": left[1], "right_floor_mm": right[0], "right_top_mm": right[1],
    }  # fmt: skip


def _sides(metal: dict[str, str], opens: str = "") -> dict[str, Any]:
    """Metal sides with their gap class, one of them a panel that opens; all others open."""
    names = ("fore", "aft", "left", "right", "floor", "top")
    return {
        n: {"is": "metal", "gap_class": metal[n], "opens": n == opens}
        if n in metal
        else {"is": "open", "gap_class": "other"}
        for n in names
    }


def _bays() -> dict[str, Any]:
    return {
        "bonnet": {
            "name": "bonnet",
            "stations": {
                "a": _station(-270, 330, 785, [-420, -420], [420, 420]),
                "b": _station(600, 330, 890, [-420, -420], [420, 420]),
            },
            "sides": _sides({"left": "same", "right": "same", "aft": "same", "top": "other"}, opens="top"),
        },
        "tank": {
            "name": "tank space",
            "measured_from": "seat-seam",
            "stations": {
                "a": _station(2600, 325, 625, [-372, -372], [372, 372]),
                "b": _station(3130, 325, 625, [-372, -372], [372, 372]),
            },
            "sides": _sides({"top": "other", "aft": "other"}),
        },
        "well": {
            "name": "spare-wheel well",
            "stations": {
                "a": _station(3135, 310, 560, [-180, -262], [210, 210]),
                "b": _station(3440, 310, 560, [-120, -202], [160, 160]),
            },
            "sides": _sides({"aft": "same", "left": "same", "right": "same", "floor": "same"}),
        },
    }


def _hardpoints() -> dict[str, Any]:
    def point(name: str, at: list[float], up: float, thread: str) -> dict[str, Any]:
        return {"name": name, "at_mm": at, "direction": [0, 0, up], "thread": thread}

    return {
        "rail-lf": point("left front rail, fore", [10, -300, 470], 1, "M12"),
        "rail-rf": point("right front rail, fore", [10, 300, 470], 1, "M12"),
        "rail-lr": point("left front rail, aft", [440, -300, 470], 1, "M12"),
        "rail-rr": point("right front rail, aft", [440, 300, 470], 1, "M12"),
        "tail-lf": point("left rear rail, fore", [2770, -400, 540], -1, "M10"),
        "tail-rf": point("right rear rail, fore", [2770, 400, 540], -1, "M10"),
        "tail-lr": point("left rear rail, aft", [2975, -400, 540], -1, "M10"),
        "tail-rr": point("right rear rail, aft", [2975, 400, 540], -1, "M10"),
    }


def _kinds() -> dict[str, Any]:
    return {
        "flagstone": {
            "name": "Flagstone 12s3p", "size_mm": [612, 226, 92], "mass_kg": 24.6, "tol_kg": 0.1,
            "cells": {"series": 12, "parallel": 3}, "nominal_v": 44.4, "full_v": 50.4, "capacity_ah": 96,
            "may_rest_on": ["base", "side_a", "side_b"], "face_gap_mm": {"end_a": 60, "end_b": 14}, "above_mm": 8,
            "neighbour_gap_mm": 4, "terminals": "end_a", "taps": "end_b", "coolant": "end_a",
            "mount_holes": {"count": 4, "diameter_mm": 9, "from_ends_mm": 15, "from_sides_mm": 15, "sunk_mm": 10},
        },
        "ingot": {
            "name": "Ingot single cell", "size_mm": [158, 52, 176], "mass_kg": 2.9, "cells": {"series": 1,
            "parallel": 1},
            "nominal_v": 3.2, "full_v": 3.65, "capacity_ah": 142, "may_rest_on": ["base"], "terminals": "top",
            "above_mm": 25, "clamp": True,
        },
    }  # fmt: skip


def _modules() -> dict[str, Any]:
    shelf: dict[str, Any] = {}
    for number in range(1, 12):
        shelf[f"f{number:02}"] = {
            "name": f"Flagstone {number}", "kind": "flagstone", "reading_v": 43.1 if number == 11 else 44.6,
            "verdict": "spare" if number > 9 else "good", "order": number,
        }  # fmt: skip
    return shelf


def _cable_hole(face: str, edges: list[str], u_mm: float, v_mm: float) -> dict[str, Any]:
    return {"name": "cable", "face": face, "from": edges, "u_mm": u_mm, "v_mm": v_mm, "diameter_mm": 32}


def _rods(pairs: int) -> dict[str, Any]:
    """Through the modules' four holes, on angles in every gap; their tabs before both ends are bolted to studs."""
    feet = {"pairs": pairs, "up_to": "lowest", "material": "s355", "thickness_mm": 4, "bend_radius_mm": 4,
            "wide_mm": 140, "tab_mm": 17, "leg_mm": 62,
            "bolts": {"size": "M6", "property_class": "4.8", "into": "stud"}, "each": 3}  # fmt: skip
    return {"type": "rods", "block": "a", "size": "M8", "feet": feet}


def _boxes() -> dict[str, Any]:
    return {
        "bonnet": {
            "name": "Bonnet box", "bay": "bonnet", "order": 1, "holders": {"rods": _rods(4)},
            "openings": {"cable": _cable_hole("front", ["left", "base"], 120, 190)},
            "pose": {"anchor": "front-left-base", "at_mm": [-173, -245, 490]},
            "blocks": {"a": {"kind": "flagstone", "turn": {"down": "side_a", "aft": "end_b"}, "counts": {"across": 5}}},
        },
        "tank": {
            "name": "Tank box", "bay": "tank", "order": 2, "holders": {"rods": _rods(3)},
            "openings": {"cable": _cable_hole("left", ["front", "base"], 202, 60)},
            "pose": {"anchor": "front-left-base", "at_mm": [2670.5, -350, 352]},
            "blocks": {"a": {"kind": "flagstone", "turn": {"down": "side_a", "aft": "top"}, "counts": {"aft": 4}}},
        },
    }  # fmt: skip


def _mounts() -> dict[str, Any]:
    mounts: dict[str, Any] = {}
    corners = (
        ("lf", "left", "left fore"),
        ("rf", "right", "right fore"),
        ("lr", "left", "left aft"),
        ("rr", "right", "right aft"),
    )
    for order, (key, face, words) in enumerate(corners):
        mounts[f"bonnet-{key}"] = {
            "name": f"Bonnet box mount, {words}", "carries": {"boxes/bonnet": True}, "face": face, "order": order,
            "shape": {"type": "angle", "material": "s355", "thickness_mm": 10, "bend_radius_mm": 12, "width_mm": 90,
            "toe_mm": 25,
                      "leg_b_mm": 132},
            "to_box": {"type": "welded", "from_mm": 36, "length_mm": 90, "leg_mm": 4,
                       "doubler": {"thickness_mm": 4, "along_w_mm": 150, "along_n_mm": 160, "from_contact_mm": 26}},
            "lands_on": {"type": "hardpoint", "hardpoint": f"rail-{key}", "bolt": {"size": "M12",
            "property_class": "8.8"}},
        }  # fmt: skip
        mounts[f"tank-{key}"] = {
            "name": f"Tank box mount, {words}", "carries": {"boxes/tank": True}, "face": face, "order": order,
            "shape": {"type": "angle", "material": "s355", "thickness_mm": 8, "bend_radius_mm": 12, "width_mm": 90,
            "toe_mm": 25,
                      "leg_b_mm": 120},
            "to_box": {"type": "welded", "from_mm": 22, "length_mm": 90, "leg_mm": 4,
                       "doubler": {"thickness_mm": 4, "along_w_mm": 150, "along_n_mm": 170, "from_contact_mm": -18}},
            "lands_on": {"type": "hardpoint", "hardpoint": f"tail-{key}", "bolt": {"size": "M10",
            "property_class": "8.8"}},
        }  # fmt: skip
    return mounts
