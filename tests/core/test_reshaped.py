"""A thing said as another shape keeps its place and size where they carry over."""

from itertools import permutations
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.design import validate
from levelcradle.core.edits import edited, reshaped
from levelcradle.core.errors import UnknownThing
from levelcradle.core.sweeps import pieces_of
from tests.plain import plain_car

SHAPES = ("block", "rod", "prism", "path", "below")
PATH = "items/thing/solid"


def thing(solid: dict[str, Any]) -> Any:
    return validate(plain_car(items={"thing": {"name": "thing", "state": "stays", "solid": solid}}))


def spans(design: Any) -> list[tuple[float, float]]:
    pieces = pieces_of(design.items["thing"].solid)
    return [(min(p.low[i] for p in pieces), max(p.high[i] for p in pieces)) for i in range(3)]


side = st.integers(20, 600).map(float)


@given(st.tuples(st.integers(-500, 3000), st.integers(-700, 700), st.integers(100, 900)), st.tuples(side, side, side))
def test_a_block_said_as_any_other_shape_stays_where_it_is_and_as_long(low: Any, size: Any) -> None:
    high = [float(a + b) for a, b in zip(low, size, strict=True)]
    block = thing({"type": "block", "low_mm": [float(v) for v in low], "high_mm": high})
    long = max(range(3), key=lambda i: size[i])
    for shape in SHAPES[1:4]:
        after = spans(edited(block, reshaped(block, PATH, shape)))  # type: ignore[arg-type]
        for i, (was, now) in enumerate(zip(spans(block), after, strict=True)):
            assert sum(now) / 2 == pytest.approx(sum(was) / 2, abs=1.0)
            if shape == "prism" or (i == long and shape == "rod"):
                assert now == pytest.approx(was, abs=1e-6)


@pytest.mark.parametrize(("one", "other"), list(permutations(("rod", "path", "below"), 2)))
def test_what_runs_along_a_line_keeps_its_ends_and_its_width(one: Any, other: Any) -> None:
    rod = thing({"type": "rod", "start_mm": [100, -200, 300], "end_mm": [900, 50, 420], "radius_mm": 25})
    first = edited(rod, reshaped(rod, PATH, one))
    second = edited(first, reshaped(first, PATH, other))
    back = edited(second, reshaped(second, PATH, "rod"))
    assert back.items["thing"].solid == rod.items["thing"].solid


def test_the_same_shape_again_changes_nothing_and_what_is_no_solid_is_refused() -> None:
    rod = thing({"type": "rod", "start_mm": [0, 0, 300], "end_mm": [900, 0, 300], "radius_mm": 25})
    assert list(reshaped(rod, PATH, "rod")) == []
    for path in ("items/nobody/solid", "items/thing/name", "vehicle"):
        with pytest.raises(UnknownThing):
            list(reshaped(rod, path, "block"))
