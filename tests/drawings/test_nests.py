"""Parts on sheets of stock: every piece once, none over another or over the edge, none mirrored."""

import io
from itertools import combinations

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from levelcradle.core.part import FlatPart, Hole
from levelcradle.drawings.dxf import nest_dxf
from levelcradle.core.nesting import GAP_MM, Laid, nests

STOCK = (2000.0, 1000.0)


def part(name: str, wide: float, tall: float, quantity: int, thickness: float = 2.0) -> FlatPart:
    """An L, which knows its own hand."""
    outline = ((0.0, 0.0), (wide, 0.0), (wide, tall / 2), (wide / 3, tall / 2), (wide / 3, tall), (0.0, tall))
    hole = Hole((wide / 6, tall / 6), min(wide, tall) / 10, "a")
    return FlatPart(name, name, quantity, "x", "Steel", thickness, 7850.0, outline, (hole,), (), mark=name)


def ring(laid: Laid) -> Polygon:
    return Polygon([laid.point(p) for p in laid.part.outline])


parts = st.lists(st.tuples(st.floats(30, 900), st.floats(30, 900), st.integers(1, 4)), min_size=1, max_size=6).map(
    lambda rows: [part(f"A{n}", *row) for n, row in enumerate(rows, 1)]
)


@settings(max_examples=40)
@given(parts, st.integers(1, 3))
def test_every_piece_lies_on_a_sheet_once_clear_of_the_others_and_of_the_edge(found: list[FlatPart], kits: int) -> None:
    sheets, left = nests(found, STOCK, kits)
    laid = [one for nest in sheets for one in nest.laid]
    for each in found:
        assert sum(one.part is each for one in laid) == (0 if each in left else each.quantity * kits)
    room = box(GAP_MM - 0.1, GAP_MM - 0.1, STOCK[0] - GAP_MM + 0.2, STOCK[1] - GAP_MM + 0.2)
    for nest in sheets:
        rings = [ring(one) for one in nest.laid]
        assert all(room.covers(r) for r in rings)
        assert all(a.distance(b) >= GAP_MM - 0.2 for a, b in combinations(rings, 2))
        assert all(
            r.exterior.is_ccw and r.area == pytest.approx(Polygon(o.part.outline).area)
            for r, o in zip(rings, nest.laid, strict=True)
        )


def test_what_is_larger_than_a_sheet_is_said_and_thicknesses_are_not_mixed() -> None:
    small, thick, large = part("A1", 100, 100, 1), part("A2", 100, 100, 1, 5.0), part("A3", 2500, 100, 1)
    sheets, left = nests([small, thick, large], STOCK)
    assert left == [large]
    assert [(nest.thickness_mm, [one.part.mark for one in nest.laid]) for nest in sheets] == [
        (2.0, ["A1"]),
        (5.0, ["A2"]),
    ]


@pytest.mark.parametrize("version", ["R2010", "R12"])
def test_a_nest_read_back_as_dxf_cuts_the_parts_and_nothing_else(version: str) -> None:
    (nest,), _ = nests([part("A1", 300, 200, 3)], STOCK)
    text = nest_dxf(nest, released=False, version=version).decode("utf-8" if version == "R2010" else "cp1252")  # type: ignore[arg-type]
    doc = ezdxf.read(io.StringIO(text))
    assert not doc.audit().errors
    cut = doc.modelspace().query('*[layer=="CUT"]')
    assert sorted(e.dxftype() for e in cut) == ["CIRCLE"] * 3 + ["LWPOLYLINE" if version == "R2010" else "POLYLINE"] * 3
    assert "NOT RELEASED" in {t.dxf.text for t in doc.modelspace().query("TEXT")}
