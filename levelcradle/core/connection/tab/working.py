"""How a use of a tab came about, step by step."""

import numpy as np

from levelcradle.core.connection.connection import Governing
from levelcradle.core.connection.hold import Load
from levelcradle.core.connection.tab.checks import TabJoint
from levelcradle.core.finding import Step, Working
from levelcradle.core.strength import TOE_MPA, TOE_SOURCE, bolt_capacity, buckles

__all__ = ["working"]


def working(joint: TabJoint, row: Governing, load: Load) -> Working:
    """The governing load and the steps of one check. ``load``: the same on the tab, as its checks take it."""
    solve, spring = f"{row.case}, {row.solve}", "rigid box on springs (statics)"
    n, _, w = load
    steps = [
        Step("pull-off N", solve, row.load[0], "N", spring),
        Step("away from the box D", solve, row.load[1], "N", spring),
        Step("across the tab W", solve, row.load[2], "N", spring),
        Step("b", "bolt to where the tab is held", joint.b_mm, "mm", "as drawn"),
        Step(
            "bolt's pull T", "max(N, 0)(1 + b/a1)", float(joint.lever_pull(load)), "N", "its end as a lever (statics)"
        ),
    ]
    if row.check == "bolt":
        ft, fv = bolt_capacity(joint.bolt, joint.grade)
        steps += [
            Step("Ft,Rd", "0.9 fub As / γM2", ft, "N", "EN 1993-1-8 table 3.4"),
            Step("Fv,Rd", "αv fub As / γM2, in its packing", fv * joint.packed, "N", "EN 1993-1-8 table 3.4, 3.6.1"),
        ]
    elif row.check == "bearing":
        pushed = float(np.hypot(n, w))
        steps += [
            Step("pushed along the metal", "√(D² + W²)", pushed, "N", "statics"),
            Step("Fb,Rd", "k1 αb fu d t / γM2", joint.bearing_n(), "N", "EN 1993-1-8 table 3.4"),
        ]
    elif row.check == "tab":
        plate = joint.plate
        share = buckles(plate.metal, plate.thickness_mm, joint.b_mm, plate.yield_mpa)
        steps.append(Step("left of what it bears pressed along", "χ, curve c, twice b", share, "", "EN 1993-1-1 6.3.1"))
    elif row.check == "fatigue at the weld's toe":
        family, stress = joint.plate.metal.weldable_with, float(2 * joint.toe_stress_mpa(load))
        steps += [
            Step("range of stress", "twice that, where its welds begin", stress, "MPa", "elastic (statics)"),
            Step("bears", "two million times", TOE_MPA[family], "MPa", TOE_SOURCE[family]),
        ]
    else:
        steps += joint.plate.steps(row.check, load)
    return (*steps, Step(f"use of the {row.check}", "demand / capacity", row.utilisation, ""))
