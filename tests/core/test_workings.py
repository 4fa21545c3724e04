"""What a working shows is what was worked out: its steps lead to the figure it is opened from."""

import math
from itertools import pairwise
from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.connection import Governing
from levelcradle.core.design import Design, validate
from levelcradle.core.finding import Step
from levelcradle.core.level.findings import loads_working
from tests.plain import analysed

LOAD = (3306.5, -1200.0, 5962.4)  # N, D, W


def values(steps: tuple[Step, ...]) -> dict[str, float]:
    return {step.what: step.value for step in steps}


def test_loads_add_up_from_as_found_to_the_axle(demo: Design) -> None:
    figures = analyse(demo, {}).level
    assert figures.found is not None
    assert figures.ready is not None
    assembly = resolve(demo, {})
    steps = loads_working(assembly, figures, figures.ready)
    end = next(n for n, step in enumerate(steps) if step.what == "rear axle")
    assert steps[0].value == figures.found.rear_kg
    assert "people and load aboard" not in {step.what for step in steps}
    assert math.fsum(step.value for step in steps[:end]) == pytest.approx(figures.ready.rear_kg) == steps[end].value
    assert steps[end + 1].value == pytest.approx(figures.ready.total_kg - figures.ready.rear_kg)
    told = values(steps)
    assert [told[f"± of the {name}"] for name in ("front axle", "rear axle", "gross mass")] == [
        figures.ready.off.front_kg, figures.ready.off.rear_kg, figures.ready.off.total_kg,
    ]  # fmt: skip
    assert (told["CG aft"], told["CG right"], told["CG up"]) == (
        figures.ready.aft_mm,
        figures.ready.across_mm,
        figures.ready.up_mm,
    )
    four_up = next(row.loads for row in figures.states if len(demo.load_states[row.id].aboard) > 1)
    aboard = values(loads_working(assembly, figures, four_up))["people and load aboard"]
    assert aboard == pytest.approx(four_up.rear_kg - figures.ready.rear_kg)


@pytest.mark.parametrize("box", ["bonnet", "tank"])
def test_the_steps_of_a_mount_give_its_use(demo: Design, box: str) -> None:
    """Demand over capacity, taken from the steps themselves."""
    joint = resolve(demo, {}).boxes[box].mounts[0]
    n, d, w = (abs(v) for v in LOAD)
    utilisations = {
        name: float(utilisation)
        for name, utilisation in (*joint.utilisations(tuple(map(float, LOAD)), road=False), *joint.fatigue(LOAD))
    }  # type: ignore[arg-type]
    for check, utilisation in utilisations.items():
        steps = joint.working(Governing(check, utilisation, "front impact", "equal springs", LOAD))
        assert [step.value for step in steps[:3]] == list(LOAD)
        assert steps[-1].value == utilisation
        told = values(steps)
        pull = told["bolt's pull T"]
        if check == "bolt":
            shear = math.hypot(d, w) / told["Fv,Rd"]
            assert utilisation == pytest.approx(max(shear + pull / (1.4 * told["Ft,Rd"]), pull / told["Ft,Rd"]))
        elif check == "bearing":
            assert utilisation == pytest.approx(math.hypot(d, w) / told["Fb,Rd"])
        elif check == "weld":
            assert utilisation == pytest.approx(told["force per length"] / told["capacity"])
            assert told["capacity"] > told["throat a"] * 200  # N/mm²: no structural weld is weaker
        elif check == "doubler weld":
            assert told["force per length"] / told["throat a"] / utilisation == pytest.approx(
                207.8, abs=0.1
            )  # S235: 360 / (√3 × 0.8 × 1.25)
        elif check.startswith("fatigue"):
            assert utilisation == pytest.approx(told["range of stress"] / told["bears"])
        elif check == "leg A at the bolt":
            assert told["moment at the bolt"] == pytest.approx(n * (told["c"] - joint.mount.shape.thickness_mm / 2))  # type: ignore[union-attr]
        elif check in joint.rough:
            shares = (
                d / told["N0"],
                abs(told["moment about n"]) / told["Mn0"],
                abs(told["moment about w"]) / told["Mw0"],
            )
            assert utilisation == pytest.approx(sum(shares))
            assert told["moment about n"] == pytest.approx(told["c"] * LOAD[2])


def test_a_module_out_of_step_is_told_by_how_much(tree: dict[str, Any]) -> None:
    tree["modules"]["f01"]["reading_v"] = 42.0
    row = next(f for f in analysed(tree).findings if f.id == "stock:volts:f01")
    assert row.working is not None
    told = values(row.working())
    assert told["per cell"] == pytest.approx(42.0 / 12)
    assert told["off by"] == pytest.approx(told["per cell"] - told["middle of the shelf"])
    assert told["limit"] == row.limit
    assert abs(told["off by"]) > told["limit"] >= told["the meter can tell"] > 0


def test_every_working_of_the_demo_ends_in_its_finding(demo: Design) -> None:
    """Where the last step is in the finding's own unit, it is its value or its margin's."""
    for finding in analyse(demo, {}).findings:
        if finding.working is None or finding.code != "gap" or finding.value is None or finding.limit is None:
            continue
        steps = finding.working()
        assert any(abs(step.value - finding.value) < 1e-6 for step in steps), finding.id
        assert any(abs(step.value - finding.limit) < 1e-6 for step in steps), finding.id
        assert all(a != b for a, b in pairwise(step.what for step in steps))


def test_the_same_holds_of_a_car_on_two_axle_readings(tree: dict[str, Any]) -> None:
    tree["weighings"]["as-found"]["read"] = {"type": "axles", "front_kg": 600.0, "rear_kg": 450.0, "step_kg": 1.0}
    design = validate(tree)
    figures = analyse(design, {}).level
    assert figures.ready is not None
    told = values(loads_working(resolve(design, {}), figures, figures.ready))
    assert "CG right" not in told
    assert "left front" not in told
    assert told["CG aft"] == pytest.approx(figures.ready.rear_kg / figures.ready.total_kg * design.vehicle.wheelbase_mm)
