"""How a use of a welded angle came about, step by step."""

import numpy as np

from levelcradle.core.connection.angle.checks import AngleJoint, bearing_capacity_n, lever_pull, toe_stress_mpa
from levelcradle.core.connection.angle.rubber import rubber_steps
from levelcradle.core.connection.connection import Governing
from levelcradle.core.finding import Step, Working
from levelcradle.core.strength import TOE_MPA, TOE_SOURCE, bolt_capacity

__all__ = ["working"]


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
    elif row.check == "fatigue at the weld's toe":
        family = joint.metal.weldable_with
        stress = float(2 * toe_stress_mpa(joint, n, d, w))
        where = "twice that, in leg B where its welds begin"
        steps += [
            Step("range of stress", where, stress, "MPa", "elastic (statics)"),
            Step("bears", "two million times", TOE_MPA[family], "MPa", TOE_SOURCE[family]),
        ]
    elif joint.isolator and "isolator" in row.check:
        steps += rubber_steps(row.check, joint.isolator, joint.bolt, joint.grade, row.load)
    elif joint.gussets and "gusset" in row.check:
        steps += joint.gussets.steps(row.check, n, d)
    else:
        steps += joint.plate.steps(row.check, (n, d, w))
    return (*steps, Step(f"use of the {row.check}", "demand / capacity", row.utilisation, ""))
