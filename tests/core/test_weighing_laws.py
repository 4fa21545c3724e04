"""Laws of weighing: sums stay sums, what was aboard goes and comes back, less sure readings give less sure loads."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.design.vehicle import Axles, Corners, Total, Track, Vehicle
from levelcradle.core.level import weighed_by
from levelcradle.core.level.balance import MassRow, found_loads, loads_after, read_loads, total_kg_of

KG = st.integers(150, 600).map(float)
STEP = st.sampled_from([0.5, 1.0, 2.0, 5.0, 10.0, 20.0])
PLACE = st.tuples(st.integers(-500, 3500), st.integers(-700, 700), st.integers(200, 1200)).map(
    lambda p: [float(v) for v in p]
)


CAR = Vehicle(wheelbase_mm=2480.0, track_mm=Track(front=1310.0, rear=1290.0))


def corners(lf: float, rf: float, lr: float, rr: float, step: float = 1.0, aboard: Any = None) -> Corners:
    return Corners.model_validate(
        {"type": "corners", "lf_kg": lf, "rf_kg": rf, "lr_kg": lr, "rr_kg": rr, "step_kg": step, "aboard": aboard or {}}
    )


@given(KG, KG, KG, KG)
def test_corners_and_their_axle_sums_say_the_same(lf: float, rf: float, lr: float, rr: float) -> None:
    four = found_loads(CAR, (corners(lf, rf, lr, rr)))
    two = found_loads(CAR, (Axles(type="axles", front_kg=lf + rf, rear_kg=lr + rr, step_kg=1.0)))
    sides = found_loads(CAR, (Axles(type="axles", front_kg=lf + rf, rear_kg=lr + rr, step_kg=1.0, left_kg=lf + lr)))
    assert four
    assert two
    assert sides
    assert (four.front_kg, four.rear_kg, four.aft_mm) == pytest.approx((two.front_kg, two.rear_kg, two.aft_mm))
    assert (two.corners, two.across_mm) == (None, None)
    assert sides.corners
    assert sides.corners.lf_kg + sides.corners.lr_kg == pytest.approx(lf + lr)
    assert sides.corners.lf_kg + sides.corners.rf_kg == pytest.approx(lf + rf)


@given(KG, KG, KG, KG, st.integers(5, 120).map(float), PLACE)
def test_what_was_aboard_put_back_gives_the_readings(
    lf: float, rf: float, lr: float, rr: float, mass: float, at: list[float]
) -> None:
    weighed = corners(lf, rf, lr, rr, aboard={"driver": {"name": "driver", "mass_kg": mass, "at_mm": at}})
    bare, read = found_loads(CAR, weighed), read_loads(CAR, weighed)
    assert bare
    assert read
    assert bare.total_kg == pytest.approx(read.total_kg - mass)
    back = loads_after(bare, [MassRow("aboard", "driver", mass, 0.0, (at[0], at[1], at[2]))], CAR)
    assert (back.front_kg, back.rear_kg) == pytest.approx((read.front_kg, read.rear_kg))
    assert back.across_mm == pytest.approx(read.across_mm)


@given(KG, KG, STEP, STEP)
def test_a_coarser_scale_is_never_surer(front: float, rear: float, one: float, other: float) -> None:
    fine, coarse = sorted((one, other))
    a, b = (found_loads(CAR, (Axles(type="axles", front_kg=front, rear_kg=rear, step_kg=s))) for s in (fine, coarse))
    assert a
    assert b
    assert a.off.front_kg <= b.off.front_kg
    assert a.off.rear_kg <= b.off.rear_kg
    assert a.off.total_kg <= b.off.total_kg


@given(st.integers(600, 2000).map(float), st.integers(30, 70).map(float), st.integers(0, 20).map(float))
def test_an_assumed_split_says_so_and_carries_its_doubt(total: float, front: float, doubt: float) -> None:
    found = found_loads(
        CAR, (Total(type="total", total_kg=total, step_kg=10.0, front_percent=front, front_tol_percent=doubt))
    )
    assert found
    assert found.total_kg == pytest.approx(total)
    assert found.front_percent == pytest.approx(front)
    assert found.assumed
    assert found.off.front_kg >= total * doubt / 100 - 1e-9
    assert found.off.total_kg == pytest.approx(10 / math.sqrt(3)), "the split says nothing of the sum"


@given(KG, KG, KG, KG, st.integers(10, 200).map(float), PLACE)
def test_the_measured_cross_weight_is_kept_by_a_mass_on_the_centreline(
    lf: float, rf: float, lr: float, rr: float, mass: float, at: list[float]
) -> None:
    """Put in on the centreline, a mass goes half to each wheel of an axle: the difference between left and right
    stays."""
    before = found_loads(CAR, corners(lf, rf, lr, rr))
    assert before
    after = loads_after(before, [MassRow("x", "x", mass, 0.0, (at[0], 0.0, at[2]))], CAR).corners
    assert after
    assert after.rf_kg - after.lf_kg == pytest.approx(rf - lf)
    assert after.rr_kg - after.lr_kg == pytest.approx(rr - lr)
    assert math.fsum((after.lf_kg, after.rf_kg, after.lr_kg, after.rr_kg)) == pytest.approx(lf + rf + lr + rr + mass)


@given(KG, KG, KG, KG, STEP)
def test_said_another_way_no_reading_is_made_up(lf: float, rf: float, lr: float, rr: float, step: float) -> None:
    """Axles and sides follow from four wheels, a total from anything; four wheels follow from nothing."""
    four = corners(
        lf, rf, lr, rr, step, aboard={"driver": {"name": "driver", "mass_kg": 80.0, "at_mm": [1200.0, 300.0, 600.0]}}
    )
    axles = weighed_by(four, "axles")
    assert isinstance(axles, Axles)
    assert (axles.front_kg, axles.rear_kg, axles.left_kg, axles.step_kg) == pytest.approx(
        (lf + rf, lr + rr, lf + lr, step)
    )
    total = weighed_by(axles, "total")
    assert total_kg_of(total) == pytest.approx(lf + rf + lr + rr)
    assert total_kg_of(weighed_by(total, "corners")) == total_kg_of(weighed_by(total, "axles")) == 0
    assert {w.aboard["driver"].name for w in (axles, total, weighed_by(axles, "corners"))} == {"driver"}
    assert total_kg_of(weighed_by(None, "axles")) == 0
