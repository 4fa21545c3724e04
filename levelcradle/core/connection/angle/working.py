"""How a use of a welded angle came about, step by step."""

from collections.abc import Callable, Mapping

import numpy as np

from levelcradle.core.connection.angle.checks import (
    AngleJoint,
    bearing_capacity_n,
    doubler_weld_line,
    lever_pull,
    patch_capacity,
    toe_stress_mpa,
    weld_line,
    weld_moments,
)
from levelcradle.core.connection.connection import ForceArray, Governing
from levelcradle.core.finding import Step, Working
from levelcradle.core.strength import ROOT_MPA, TOE_MPA, bolt_capacity

__all__ = ["working"]


def _doubler_range_mpa(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> float:
    plate = joint.weld.doubler
    return float(2 * doubler_weld_line(joint, plate, n, d, w) / joint.doubler_throat_mm) if plate else 0.0


_FATIGUE: Mapping[str, tuple[str, Callable[[AngleJoint, ForceArray, ForceArray, ForceArray], float], float, str]] = {
    "fatigue at the weld's toe": (
        "in leg B where its welds begin",
        lambda *load: float(2 * toe_stress_mpa(*load)),
        TOE_MPA,
        "EN 1993-1-9 table 8.5, category 63 / 1.35, from memory",
    ),
    "fatigue in the weld": (
        "in the throat, worst of four ends",
        lambda joint, *load: float(2 * weld_line(joint, *load) / joint.throat_mm),
        ROOT_MPA,
        "EN 1993-1-9 table 8.5, category 36 / 1.35, from memory",
    ),
    "fatigue in the doubler's weld": (
        "in the throat, worst corner",
        _doubler_range_mpa,
        ROOT_MPA,
        "EN 1993-1-9 table 8.5, category 36 / 1.35, from memory",
    ),
}


def working(joint: AngleJoint, row: Governing) -> Working:
    """The governing load and the steps of the weakest check."""
    n, d, w = (np.array(v) for v in row.load)
    solve = f"{row.case}, {row.solve}"
    steps = [
        Step("pull-off N", solve, row.load[0], "N", "rigid box on springs (statics)"),
        Step("away from the wall D", solve, row.load[1], "N", "rigid box on springs (statics)"),
        Step("along the bend W", solve, row.load[2], "N", "rigid box on springs (statics)"),
        Step("c", "wall or doubler to bolt", joint.c_mm, "mm", "from the box's place"),
        Step("bolt's pull T", "max(N, 0)(1 + b1/a1)", float(lever_pull(joint, n)), "N", "toe as a lever (statics)"),
    ]
    if row.check == "bolt":
        ft, fv = bolt_capacity(joint.bolt, joint.grade)
        steps += [
            Step("Ft,Rd", "0.9 fub As / γM2", ft, "N", "EN 1993-1-8 table 3.4"),
            Step("Fv,Rd", "αv fub As / γM2", fv, "N", "EN 1993-1-8 table 3.4"),
        ]
    elif row.check == "bearing":
        steps.append(Step("Fb,Rd", "k1 αb fu d t / γM2", bearing_capacity_n(joint), "N", "EN 1993-1-8 table 3.4"))
    elif row.check == "leg A at the bolt":
        steps.append(
            Step(
                "moment at the bolt",
                "max(N, 0) b1, on the width less the hole",
                max(row.load[0], 0.0) * joint.b1_mm,
                "N·mm",
                "statics",
            )
        )
    elif row.check == "doubler weld" and (plate := joint.mount.to_box.doubler):
        steps += [
            Step("throat a", "min(leg / √2, 0.7 t)", joint.doubler_throat_mm, "mm", "common practice, no source"),
            Step(
                "force per length",
                "line weld all round, worst corner",
                float(doubler_weld_line(joint, plate, n, d, w)),
                "N/mm",
                "statics",
            ),
        ]
    elif stress := _FATIGUE.get(row.check):
        words, range_of, bears, source = stress
        steps += [
            Step("range of stress", f"twice that, {words}", range_of(joint, n, d, w), "MPa", "elastic (statics)"),
            Step("bears", "two million times", bears, "MPa", source),
        ]
    elif row.check == "weld":
        steps += [
            Step("throat a", "min(leg / √2, 0.7 t)", joint.throat_mm, "mm", "common practice, no source"),
            Step(
                "force per length", "line weld, worst of four ends", float(weld_line(joint, n, d, w)), "N/mm", "statics"
            ),
            Step(
                "capacity",
                "a fu / (√3 βw γM2)",
                joint.throat_mm * joint.weld_strength_mpa,
                "N/mm",
                "EN 1993-1-8 4.5.3.3",
            ),
        ]
    else:
        _, m_w, m_n = (float(m) for m in weld_moments(joint, n, d, w))
        steps += [
            Step("moment about n", "c W", m_n, "N·mm", "statics"),
            Step("moment about w", "−hc D − c N", m_w, "N·mm", "statics"),
        ]
        patch = dict(joint.patches()).get(row.check)
        if patch:
            pull, about_n, about_w = patch_capacity(joint, patch)
            steps += [
                Step("N0", "yield lines", pull, "N", "hollow-section face, from memory; rough"),
                Step("Mn0", "yield lines", about_n, "N·mm", "hollow-section face, from memory; rough"),
                Step("Mw0", "yield lines", about_w, "N·mm", "hollow-section face, from memory; rough"),
            ]
    return (*steps, Step(f"use of the {row.check}", "demand / capacity", row.utilisation, ""))
