"""What stands left of one car stands right of its mirror image, and everything is said of it in the same figures."""

from collections import Counter
from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.plain import a_block, analysed, box_at, plain_car

Corner = tuple[float, float, float]


def block_of(low: Corner, size: Corner, mirror: bool) -> dict[str, Any]:
    high = tuple(a + b for a, b in zip(low, size, strict=True))
    if mirror:
        return a_block((low[0], -high[1], low[2]), (high[0], -low[1], high[2]))
    return a_block(low, high)  # type: ignore[arg-type]


def car(
    things: list[tuple[Corner, Corner]], poses: list[tuple[Corner, float, float, float]], *, mirror: bool
) -> dict[str, Any]:
    boxes = {}
    for n, (at, yaw, pitch, roll) in enumerate(poses):
        side, sign = ("right", -1.0) if mirror else ("left", 1.0)
        pose = {
            "anchor": f"front-{side}-base",
            "at_mm": [at[0], sign * at[1], at[2]],
            "yaw_deg": sign * yaw,
            "pitch_deg": pitch,
            "roll_deg": sign * roll,
        }
        boxes[f"x{n}"] = box_at((0, 0, 0), (2, 1, 1), name=f"X{n}", pose=pose)
    return plain_car(
        boxes=boxes, items={f"t{n}": {**block_of(*thing, mirror), "name": f"t{n}"} for n, thing in enumerate(things)}
    )


def told(tree: dict[str, Any]) -> Counter[tuple[Any, ...]]:
    return Counter(
        (f.code, f.state, f.subjects, None if f.value is None else round(f.value, 2)) for f in analysed(tree).findings
    )


corners = st.tuples(st.integers(900, 1700), st.integers(-400, 400), st.integers(250, 600))
sizes = st.tuples(st.integers(10, 200), st.integers(10, 200), st.integers(10, 200))
angles = st.sampled_from([-12.0, 0.0, 0.0, 7.0])


@settings(max_examples=15)
@example(
    [((900, 0, 250), (10, 10, 10))], [((900, 0, 250), -12.0, -12.0, -12.0), ((900, 0, 250), -12.0, -12.0, 7.0)]
)  # as low but for rounding
@given(
    st.lists(st.tuples(corners, sizes), max_size=4),
    st.lists(st.tuples(corners, angles, angles, angles), min_size=1, max_size=2),
)
def test_a_mirrored_design_mirrors_every_finding(things: list[Any], poses: list[Any]) -> None:
    assert told(car(things, poses, mirror=False)) == told(car(things, poses, mirror=True))
