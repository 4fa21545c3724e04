"""What comes next: followed step by step it leads from an empty car to the cut files, and what is taken away it asks
for."""

from copy import deepcopy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import new_design, tree_of, validate
from levelcradle.core.design.pointer import resolves
from levelcradle.core.edits import edited, fitted_in, held_by
from levelcradle.core.fit import Wishes, study
from levelcradle.core.hang import how_it_hangs, with_hanging
from tests.conftest import DEMO
from tests.plain import analysed
from tests.stranger import stranger_tree

Tree = dict[str, Any]


def next_of(tree: Tree) -> Any:
    return analysed(tree).next


def test_from_an_empty_car_each_step_is_another_until_the_cut_files() -> None:
    whole, tree = stranger_tree(), tree_of(new_design("Pell Dunnock 1300", 2410.0))
    tree["vehicle"]["track_mm"] = whole["vehicle"]["track_mm"]
    whole["vehicle"]["ratings"] |= {"gross_kg": 1300.0, "rear_kg": 760.0}
    whole["vehicle"]["cg_height"] = {"basis": "measured", "up_mm": 560.0, "tolerance_mm": 20.0}
    for item in whole["items"].values():
        item["solid"] = item.get("solid") or {
            "type": "block",
            "low_mm": [900.0, -90.0, 200.0],
            "high_mm": [1100.0, 90.0, 300.0],
        }
    went = []
    for _ in range(40):
        step = next_of(tree)
        went.append((step.goes, step.message))
        assert went.count(went[-1]) == 1, f"twice: {step}"
        if step.goes == "/drawings":
            break
        _, collection, *rest = step.goes.split("/")
        if step.goes == "/boxes":
            tree = placed(tree)
        elif step.goes == "/mounts":
            tree = hung(tree, step.message)
        elif "breathe" in step.message:
            design = validate(tree)
            tree = tree_of(edited(design, fitted_in(resolve(design, {}), rest[0], "vent")[1]))
        elif rest and rest[-1] == "openings":
            hole = {
                "name": "hole",
                "face": "aft",
                "from": ["left", "base"],
                "u_mm": 60.0,
                "v_mm": 60.0,
                "diameter_mm": 20.0,
            }
            tree["boxes"][rest[0]]["openings"]["hole"] = hole
        elif collection == "vehicle":
            tree["vehicle"][rest[0]] = whole["vehicle"][rest[0]]
        elif collection == "boxes":
            tree = tree_of(edited(validate(tree), held_by(validate(tree), rest[0], "any", {})))
            tree["boxes"][rest[0]] |= {"sealing": "gasket", "vented_outside": True}
        else:
            tree[collection] = whole[collection]
            if collection == "bays":
                tree["references"] = whole["references"]
    assert went[-1][0] == "/drawings"
    assert analysed(tree).released


def placed(tree: Tree) -> Tree:
    design = validate(tree)
    proposals = study(design, Wishes(bays=("boot", "bonnet"), kinds=("brick",), modules=12), meshes={}).proposals
    *_, told = with_hanging(design, proposals, meshes={})
    hangs = next(p for p in told if all(box.hangs.startswith("hangs on") for box in p.boxes))
    return tree_of(edited(design, hangs.patch))


def hung(tree: Tree, message: str) -> Tree:
    design = validate(tree)
    box = next(key for key, b in design.boxes.items() if b.name in message)
    return tree_of(edited(design, how_it_hangs(design, box, meshes={}).ways[0].patch))


TAKEN_AWAY = {
    "/weighings": lambda t: t["weighings"].clear(),
    "/items/engine/mass_kg": lambda t: t["items"]["engine"].update(mass_kg=None),
    "/items/engine/at_mm": lambda t: t["items"]["engine"].update(at_mm=None, solid=None),
    "/module_kinds": lambda t: [t[name].clear() for name in ("boxes", "mounts", "modules", "module_kinds")],
    "/modules": lambda t: t["modules"].clear(),
    "/bays/tank/sides/left/is": lambda t: t["bays"]["tank"]["sides"]["left"].update({"is": "not measured"}),
}


@pytest.mark.parametrize("goes", TAKEN_AWAY)
def test_what_is_taken_away_is_what_comes_next(goes: str) -> None:
    tree = deepcopy(DEMO)
    TAKEN_AWAY[goes](tree)
    assert next_of(tree).goes == goes


def test_what_was_begun_is_finished_first_and_the_way_leads_to_what_is_there() -> None:
    tree = deepcopy(DEMO)
    assert next_of(tree).finding == "gap:boxes/tank:items/axle"
    assert resolves(tree, next_of(tree).goes)
    tree["readings"]["/items/charger/solid/low_mm/0"] = {"text": "", "basis": "not taken"}
    assert next_of(tree).goes == "/items/charger/solid/low_mm/0"
