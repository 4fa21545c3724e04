"""Every ± against draws: each result's is twice the standard deviation of a million cars that are off as the figures
say."""

from typing import Any

import numpy as np
import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.design import validate
from levelcradle.core.finding import message_text
from levelcradle.core.level import WheelLoads
from tests.plain import as_found

DRAWS = 1_000_000
WITHIN = 0.05


def ready(tree: dict[str, Any], state: str = "") -> WheelLoads:
    level = analyse(validate(tree), {}).level
    found = next(row.loads for row in level.states if row.id == state) if state else level.ready
    assert found is not None
    return found


def drawn(tree: dict[str, Any]) -> dict[str, Any]:
    """The demo weighed a million times: each reading off by less than half a step, every stated ± as two standard
    deviations, what one cause does in several places together."""
    rng = np.random.default_rng(7)
    base = 2480.0
    weighing, design = tree["weighings"]["as-found"]["read"], validate(tree)

    def normal(tol: float) -> Any:
        return rng.normal(0.0, tol / 2, DRAWS)

    def reading(name: str) -> Any:
        return weighing[name] + rng.uniform(-weighing["step_kg"] / 2, weighing["step_kg"] / 2, DRAWS)

    lf, rf, lr, rr = (reading(f"{corner}_kg") for corner in ("lf", "rf", "lr", "rr"))
    total = lf + rf + lr + rr
    mass, aft, side = total.copy(), (lr + rr) * base, (rf - lf) * 655.0 + (rr - lr) * 645.0
    up = total * (552.0 + normal(40.0))
    change_side = np.zeros(DRAWS)

    def add(m: Any, at: Any) -> None:
        nonlocal mass, aft, side, up, change_side
        mass, aft, side, up = mass + m, aft + m * at[0], side + m * at[1], up + m * at[2]
        change_side = change_side + m * at[1]

    for item in design.items.values():
        if item.state in ("out", "in") and item.at_mm:
            add((1 if item.state == "in" else -1) * ((item.weighs_kg or 0.0) + normal(item.tol_kg)), item.at_mm)
    from levelcradle.core.assembly import middle_of, resolve

    one_module, fittings = normal(0.1), normal(0.25)
    for box in resolve(design, {}).boxes.values():
        count = len(box.shell.modules)
        add(
            count * (24.6 + one_module)
            + box.shell.fittings_kg * (1 + fittings)
            + box.shell.shell_kg * (1 + normal(0.03)),
            box.cg,
        )
        for mount in box.mounts:
            kg = sum(p.mass_kg for p in mount.pieces)
            at = [sum(p.mass_kg * middle_of(p.solid)[i] for p in mount.pieces) / kg for i in range(3)]
            add(kg * (1 + normal(0.03)), at)
    rear = aft / base
    front = mass - rear
    roll = 20 * 1310**2 / (20 * 1310**2 + 23 * 1290**2)
    half_front, half_rear = (front - lf - rf) / 2, (rear - lr - rr) / 2
    tip_front, tip_rear = change_side * roll / 1310, change_side * (1 - roll) / 1290
    return {
        "front_kg": front, "rear_kg": rear, "total_kg": mass, "aft_mm": aft / mass, "across_mm": side / mass,
        "up_mm": up / mass,
        "corners": (lf + half_front - tip_front, rf + half_front + tip_front, lr + half_rear - tip_rear,
        rr + half_rear + tip_rear),
    }  # fmt: skip


def test_every_result_of_the_demo_against_a_million_draws(tree: dict[str, Any]) -> None:
    found, cars = ready(tree), drawn(tree)
    for name in ("front_kg", "rear_kg", "total_kg", "aft_mm", "across_mm", "up_mm"):
        assert getattr(found, name) == pytest.approx(float(cars[name].mean()), rel=1e-3, abs=0.05), name
        assert getattr(found.off, name) == pytest.approx(2 * float(cars[name].std()), rel=WITHIN), name
    assert found.off.corners_kg == pytest.approx([2 * float(c.std()) for c in cars["corners"]], rel=WITHIN)


AXLES = {"type": "axles", "front_kg": 500.0, "rear_kg": 500.0, "step_kg": 0.001}


def stranger(weighing: dict[str, Any] = AXLES, **more: Any) -> dict[str, Any]:
    """A car of which two axle readings are known, and nothing in it."""
    from levelcradle.core.design import new_design, tree_of

    tree = tree_of(new_design("Stranger", 2500.0))
    tree["vehicle"] |= more
    tree["weighings"] = as_found(dict(weighing))
    return tree


def test_a_mass_in_the_middle_is_off_as_a_whole_not_as_two_halves() -> None:
    """100 ± 10 half-way: each axle ± 5, the sum ± 10; with 8 to spare that is tight, never clear."""
    tree = stranger(ratings={"gross_kg": 1108.0})
    tree["items"]["load"] = {
        "name": "load",
        "state": "in",
        "mass_kg": 100.0,
        "tol_kg": 10.0,
        "at_mm": [1250.0, 0.0, 300.0],
    }
    loads = ready(tree)
    assert (loads.off.front_kg, loads.off.rear_kg, loads.off.total_kg) == pytest.approx((5.0, 5.0, 10.0), rel=1e-4)
    finding = next(f for f in analyse(validate(tree), {}).findings if f.code == "level.rating")
    assert (finding.state, message_text(finding)) == ("tight", "Gross mass, ready: 8.0 kg under its rating, ± 10.0 kg")


def test_who_was_weighed_with_the_car_and_rides_again_takes_his_doubt_along() -> None:
    """A driver of 80 ± 5 aboard the scales, riding again in the same seat: only the scale's own ± is left; in another
    it is the lever's."""
    tree = stranger()
    driver = {"name": "Driver", "mass_kg": 80.0, "tol_kg": 5.0, "at_mm": [1200.0, 0.0, 600.0]}
    tree["weighings"]["as-found"]["read"]["aboard"] = {"d": driver}
    tree["items"]["rider"] = {"name": "driver", "state": "payload", "mass_kg": 80.0, "at_mm": [1200.0, 0.0, 600.0]}
    tree["load_states"]["driving"] = {"name": "driving", "aboard": {"rider": True}}
    assert ready(tree).off.total_kg == pytest.approx(5.0, rel=1e-3)
    assert ready(tree, "driving").off.total_kg == pytest.approx(0.0, abs=0.01)
    assert ready(tree, "driving").off.rear_kg == pytest.approx(0.0, abs=0.01)
    tree["items"]["rider"]["at_mm"][0] = 1700.0
    assert ready(tree, "driving").off.rear_kg == pytest.approx(5.0 * 500 / 2500, rel=1e-2)
    tree["items"]["rider"]["name"] = "somebody else"
    assert ready(tree, "driving").off.total_kg == pytest.approx(5.0, rel=1e-3)


def test_modules_of_a_kind_are_off_together(tree: dict[str, Any]) -> None:
    """Nine modules ± 0.1 each by the same sheet: ± 0.9 together, not the root of nine squares."""
    before = ready(tree).off.total_kg
    tree["module_kinds"]["flagstone"]["tol_kg"] = 0.0
    without = ready(tree).off.total_kg
    assert before**2 - without**2 == pytest.approx(0.9**2, rel=1e-6)


def test_an_assumed_split_leaves_the_sum_as_sure_as_the_scale() -> None:
    tree = stranger()
    tree["weighings"]["as-found"]["read"] = {
        "type": "total",
        "total_kg": 1000.0,
        "step_kg": 20.0,
        "front_percent": 50.0,
        "front_tol_percent": 5.0,
    }
    off = ready(tree).off
    assert off.total_kg == pytest.approx(20 / 3**0.5)
    assert off.front_kg == pytest.approx(((20 / 3**0.5 / 2) ** 2 + 50**2) ** 0.5)


def test_a_place_is_off_by_its_reading(tree: dict[str, Any]) -> None:
    tree["readings"]["/items/motor/at_mm/0"] = {"text": "585", "tolerance": 50.0}
    before = ready(tree).off.rear_kg
    del tree["readings"]["/items/motor/at_mm/0"]
    assert before**2 - ready(tree).off.rear_kg ** 2 == pytest.approx((79 * 50 / 2480) ** 2, rel=1e-3)


def test_a_height_from_a_table_is_the_cars_own_whoever_was_aboard(tree: dict[str, Any]) -> None:
    tree["weighings"]["as-found"]["read"]["aboard"] = {
        "d": {"name": "driver", "mass_kg": 90.0, "at_mm": [1180.0, 330.0, 900.0]}
    }
    level = analyse(validate(tree), {}).level
    assert level.found is not None
    assert (level.found.up_mm, level.found.off.up_mm) == pytest.approx((552.0, 40.0))
    tree["vehicle"]["cg_height"]["basis"] = "measured"
    level = analyse(validate(tree), {}).level
    assert level.found is not None
    assert (level.found.up_mm or 0.0) < 552.0 - 20, "as it stood on the scales: without the driver it is lower"


def test_an_assumed_figure_is_not_known_until_somebody_answers_for_it(tree: dict[str, Any]) -> None:
    """Of a height, a mass and a place; what is accepted comes with its ±."""

    def states() -> dict[str, str]:
        return {f.id: f.state for f in analyse(validate(tree), {}).findings}

    height = tree["readings"]["/vehicle/cg_height/up_mm"]
    accepted = height.pop("accepted")
    assert states()["level:height"] == "unknown"
    height["accepted"] = accepted
    assert "level:height" not in states()
    tree["readings"]["/items/motor/mass_kg"] = {"text": "79", "basis": "assumed"}
    assert states()["level:rating:ready:front axle"] == "unknown"
    tree["readings"]["/items/motor/mass_kg"]["accepted"] = {"by": "Jo", "plus_minus": 15.0}
    assert states()["level:rating:ready:front axle"] == "clear"
    assert ready(tree).off.front_kg > 15 * (1 - 585 / 2480)
    pair = "gap:boxes/tank:items/silencer-hanger"
    tree["readings"]["/items/silencer-hanger/solid/low_mm/0"] = {"text": "3089", "basis": "assumed"}
    assert states()[pair] == "unknown"
    tree["readings"]["/items/silencer-hanger/solid/low_mm/0"]["accepted"] = {"by": "Jo", "plus_minus": 30.0}
    assert states()[pair] == "tight", "21 there, 6 needed: clear by 15, but it may be 30 off"


@pytest.mark.parametrize("rates", [None, {"front_n_per_mm": 18.0, "rear_n_per_mm": 30.0}])
def test_a_plus_minus_is_what_a_result_does_when_its_cause_is_off(rates: Any) -> None:
    """One mass, far out to one side: each corner is off by what it moves when the mass is, however the roll is
    split."""
    corners = {"type": "corners", "lf_kg": 260.0, "rf_kg": 240.0, "lr_kg": 230.0, "rr_kg": 250.0, "step_kg": 0.001}
    tree = stranger(weighing=corners, track_mm={"front": 1400.0, "rear": 1300.0}, wheel_rates=rates)
    tree["items"]["load"] = {
        "name": "load",
        "state": "in",
        "mass_kg": 300.0,
        "tol_kg": 3.0,
        "at_mm": [300.0, 600.0, 400.0],
    }
    loads = ready(tree)
    tree["items"]["load"]["mass_kg"] = 303.0
    more = ready(tree)
    assert loads.corners is not None
    assert more.corners is not None
    moved = [
        abs(getattr(more.corners, name) - getattr(loads.corners, name)) for name in ("lf_kg", "rf_kg", "lr_kg", "rr_kg")
    ]
    assert loads.off.corners_kg == pytest.approx(moved, rel=0.02, abs=0.01)
    assert loads.off.front_kg == pytest.approx(abs(more.front_kg - loads.front_kg), rel=0.01)
    assert loads.off.aft_mm == pytest.approx(abs(more.aft_mm - loads.aft_mm), rel=0.02)
