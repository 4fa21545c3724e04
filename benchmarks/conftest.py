"""Designs to measure: the demo, and a made-up one of 200 modules in 12 boxes with 100 things in the way."""

import copy
from typing import Any

import pytest

from levelcradle.core.design import tree_of
from levelcradle.demo import demo_design


def large_tree() -> dict[str, Any]:
    tree = tree_of(demo_design())
    box, item = tree["boxes"]["tank"], tree["items"]["charger"]
    tree["boxes"], tree["mounts"] = {}, {}
    for n in range(12):
        made = copy.deepcopy(box)
        made["name"], made["bay"] = f"Box {n}", None
        made["pose"]["at_mm"] = [300 * n - 200, 900 * (n % 2) - 700, 300 + 250 * (n % 3)]
        made["blocks"]["a"]["counts"] = {"aft": 1, "across": 1, "up": 17 if n < 8 else 16}
        made["blocks"]["a"]["turn"] = {"down": "base", "aft": "side_b"}
        made["pose"]["roll_deg"] = 3.0 if n % 4 == 0 else 0.0
        tree["boxes"][f"b{n}"] = made
        for m, (dx, face) in enumerate(((60, "left"), (200, "left"), (60, "right"), (200, "right"))):
            at = made["pose"]["at_mm"]
            side = -50 if face == "left" else 750
            tree["hardpoints"][f"h{n}-{m}"] = {"name": "h", "at_mm": [at[0] + dx, at[1] + side, at[2] + 150], "direction": [0, 0, -1]}
            tree["mounts"][f"m{n}-{m}"] = {"name": f"m{n}-{m}", "box": f"b{n}", "face": face, "hardpoint": f"h{n}-{m}"}
    for n in range(100 - len(tree["items"])):
        thing = copy.deepcopy(item)
        low = [40 * n - 500, 25 * (n % 60) - 700, 200 + 10 * (n % 50)]
        thing["solid"] = {"type": "block", "low_mm": low, "high_mm": [c + 60 for c in low]}
        tree["items"][f"t{n}"] = thing
    return tree


@pytest.fixture(scope="session")
def trees() -> dict[str, dict[str, Any]]:
    return {"demo": tree_of(demo_design()), "large": large_tree()}
