"""Parts on sheets of stock: every piece once, none over another or over the edge, none mirrored; bars from lengths."""

import io
from itertools import combinations
from typing import Any, Literal

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from levelcradle.core.bar import Bar, Tube
from levelcradle.core.box import in_one_strip, liner_pieces
from levelcradle.core.design.box import Box
from levelcradle.core.nesting import GAP_MM, Laid, cut_from_bars, nests, off_a_roll
from levelcradle.core.nesting.rectangles import by_rectangles
from levelcradle.core.part import FlatPart, Hole
from levelcradle.drawings.dxf import nest_dxf
from tests.plain import box_at, found, lined, plain_car

STOCK = (2000.0, 1000.0)


def part(name: str, wide: float, tall: float, quantity: int, thickness: float = 2.0) -> FlatPart:
    """An L, which knows its own hand."""
    outline = ((0.0, 0.0), (wide, 0.0), (wide, tall / 2), (wide / 3, tall / 2), (wide / 3, tall), (0.0, tall))
    hole = Hole((wide / 6, tall / 6), min(wide, tall) / 10, "a")
    rolled: tuple[Literal["", "across", "up"], ...] = ("", "across", "up")
    way = rolled[int(wide + tall) % 3] if wide < STOCK[1] / 2 and tall < STOCK[1] / 2 else ""
    return FlatPart(name, name, quantity, "x", "Steel", thickness, 7850.0, outline, (hole,), (), mark=name, rolled=way)


def ring(laid: Laid) -> Polygon:
    return Polygon([laid.point(p) for p in laid.part.outline])


parts = st.lists(st.tuples(st.floats(30, 900), st.floats(30, 900), st.integers(1, 4)), min_size=1, max_size=6).map(
    lambda rows: [part(f"A{n}", *row) for n, row in enumerate(rows, 1)]
)


@settings(max_examples=12)
@given(parts, st.integers(1, 2))
def test_every_piece_lies_on_a_sheet_once_clear_of_the_others_and_of_the_edge(found: list[FlatPart], kits: int) -> None:
    sheets, left = nests(found, STOCK, kits)
    laid = [one for nest in sheets for one in nest.laid]
    for each in found:
        assert sum(one.part is each for one in laid) == (0 if each in left else each.quantity * kits)
    for one in laid:
        assert one.part.rolled != ("up" if one.quarters % 2 == 0 else "across"), "a sheet is rolled along its length"
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


def a_rectangle(name: str, wide: float, tall: float) -> FlatPart:
    outline = ((0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall))
    return FlatPart(name, name, 1, "x", "Steel", 2.0, 7850.0, outline, (), (), mark=name)


def test_a_part_lies_in_the_hollow_of_another() -> None:
    """An angle as long as the sheet is wide and a square that goes in its corner, where the rectangle round the angle
    leaves no room for it."""
    outline = ((0.0, 0.0), (1900.0, 0.0), (1900.0, 100.0), (100.0, 100.0), (100.0, 900.0), (0.0, 900.0))
    angle = FlatPart("A1", "A1", 1, "x", "Steel", 2.0, 7850.0, outline, (), (), mark="A1")
    (sheet,), _ = nests([angle, a_rectangle("A2", 600, 600)], STOCK)
    assert [one.part.mark for one in sheet.laid] == ["A1", "A2"]
    assert ring(sheet.laid[0]).distance(ring(sheet.laid[1])) >= GAP_MM


def test_what_is_used_of_the_last_sheet_ends_behind_the_last_part() -> None:
    (sheet,), _ = nests([a_rectangle("A1", 300, 900)], STOCK)
    ((one,), used) = (sheet.laid, sheet.used_mm)
    assert used == pytest.approx(max(x for x, _ in ring(one).exterior.coords) + GAP_MM)
    assert used < 330


@settings(max_examples=6)
@given(parts)
def test_it_never_takes_more_than_the_rectangles_round_the_parts_do(found: list[FlatPart]) -> None:
    pieces = [one for one in found if max(one.size_mm) < 980 for _ in range(one.quantity)]
    kept = list({one.id: one for one in pieces}.values())
    sheets, _ = nests(kept, STOCK)
    assert len(sheets) <= len(by_rectangles(pieces, STOCK, GAP_MM))


# --- bars ---

TUBE = Tube(25.0, 2.0)


def bar(name: str, length: float, quantity: int = 1, tube: Tube = TUBE) -> Bar:
    return Bar(name, name, quantity, "s235", "Steel", tube, length, ("square", "square"), 1.0, mark=name)


bars = st.lists(st.tuples(st.floats(60, 2600), st.integers(1, 5)), min_size=1, max_size=8).map(
    lambda rows: [bar(f"A{n}", *row) for n, row in enumerate(rows, 1)]
)


@settings(max_examples=60)
@given(bars, st.floats(2700, 6500), st.floats(0, 5), st.integers(1, 2))
def test_every_bar_is_sawn_once_and_what_is_sawn_goes_into_the_stock(
    found: list[Bar], stock: float, kerf: float, kits: int
) -> None:
    lengths, left = cut_from_bars(found, stock, kerf, kits)
    assert left == []
    for each in found:
        assert sum(one is each for length in lengths for one in length.cuts) == each.quantity * kits
    for length in lengths:
        sawn = sum(one.length_mm for one in length.cuts)
        cuts = kerf * (len(length.cuts) - 1)
        assert sawn + cuts <= stock + 1e-6
        assert length.left_mm == pytest.approx(max(stock - sawn - cuts - kerf, 0.0))
    wanted = sum(one.length_mm * one.quantity * kits for one in found)
    assert len(lengths) >= wanted / stock


@settings(max_examples=40)
@given(st.lists(st.integers(4, 20), min_size=1, max_size=7))
def test_no_fewer_lengths_would_do(sizes: list[int]) -> None:
    """Against every way of putting so few bars into lengths of 20, one after another."""

    def least(left: tuple[int, ...], free: tuple[int, ...]) -> int:
        if not left:
            return len(free)
        now, rest = left[0], left[1:]
        tries = [least(rest, (*free[:n], v - now, *free[n + 1 :])) for n, v in enumerate(free) if v >= now]
        return min([*tries, least(rest, (*free, 20 - now))])

    found = [bar(f"A{n}", 100.0 * size) for n, size in enumerate(sizes)]
    assert len(cut_from_bars(found, 2000.0, 0.0)[0]) == least(tuple(sorted(sizes, reverse=True)), ())


def test_the_cut_between_two_bars_counts_and_none_after_the_last() -> None:
    """Two of 999 and a cut of 2 fill a stock of 2000; with one of 2.1 they do not."""
    two = [bar("A1", 999.0, 2)]
    assert len(cut_from_bars(two, 2000.0, 2.0)[0]) == 1
    assert len(cut_from_bars(two, 2000.0, 2.1)[0]) == 2
    assert len(cut_from_bars([bar("A1", 2000.0)], 2000.0, 5.0)[0]) == 1


def test_a_bar_as_long_as_the_stock_is_one_however_odd_its_length() -> None:
    """And what stands beside it in the list is cut as ever: three of more than half a stock, one each."""
    lengths, left = cut_from_bars([bar("A1", 2000.3), bar("A2", 1100.0, 3)], 2000.3, 0.0)
    assert left == []
    assert [[one.mark for one in row.cuts] for row in lengths] == [["A1"], ["A2"], ["A2"], ["A2"]]


def test_sections_are_not_mixed_and_what_is_longer_is_said() -> None:
    other = bar("A2", 500.0, tube=Tube(30.0, 2.0))
    lengths, left = cut_from_bars([bar("A1", 500.0), other, bar("A3", 2001.0)], 2000.0, 2.0)
    assert [row.mark for row in left] == ["A3"]
    assert [(row.section, [one.mark for one in row.cuts]) for row in lengths] == [
        (TUBE, ["A1"]),
        (other.section, ["A2"]),
    ]


# --- off a roll ---


@settings(max_examples=40)
@given(st.lists(st.tuples(st.floats(20, 900), st.floats(20, 1500)), min_size=1, max_size=12))
def test_what_comes_off_a_roll_is_at_least_its_area_and_at_most_end_to_end(sizes: list[tuple[float, float]]) -> None:
    long, left = off_a_roll(sizes, 1000.0)
    assert left == []
    assert long >= sum(a * b for a, b in sizes) / 1000.0 - 0.2
    assert long >= max(min(size) for size in sizes) - 0.2
    assert long <= sum(max(size) for size in sizes) + 0.2 * len(sizes)


def test_two_lie_side_by_side_on_the_roll_and_what_is_wider_is_said() -> None:
    assert off_a_roll([(400.0, 700.0), (600.0, 700.0)], 1000.0) == (pytest.approx(700.0, abs=0.2), [])
    assert off_a_roll([(1001.0, 1200.0)], 1000.0) == (0.0, [(1001.0, 1200.0)])
    assert off_a_roll([(1200.0, 1000.0)], 1000.0)[0] == pytest.approx(1200.0, abs=0.2)


@given(
    st.floats(0, 20),
    st.floats(0, 20),
    st.tuples(*[st.floats(100, 900)] * 3),
    st.sampled_from([None, "aft", "across"]),
)
def test_liners_cover_the_walls_and_the_floor_once(
    wall: float, floor: float, inner: tuple[float, float, float], strip: Any
) -> None:
    """Their volume is that of the inside less what they leave free, in one strip or in pieces."""
    floor = wall if strip else floor
    spec = box_at((0.0, 0.0, 0.0), layers=lined(wall, floor), one_strip=strip)
    box = Box.model_validate(spec, strict=False)
    assert (strip is None or wall == 0) == (in_one_strip(box) is None)
    pieces = list(liner_pieces(box, inner))
    volume = sum(p.quantity * p.size_mm[0] * p.size_mm[1] * p.thickness_mm for p in pieces)
    length, width, height = inner
    free = (length - 2 * wall) * (width - 2 * wall)
    assert volume + free * height == pytest.approx(length * width * height + free * floor)


def test_a_strip_is_of_one_liner_and_leaves_no_piece_of_its_own_there() -> None:
    spec = box_at((0.0, 0.0, 0.0), layers=lined(4.0, 4.0), one_strip="across")
    where = [p.where for p in liner_pieces(Box.model_validate(spec, strict=False), (400.0, 300.0, 200.0))]
    assert where == ["left, floor and right", "front and aft"]
    for wrong in (lined(4.0, 8.0), {**lined(4.0, 4.0), "base": {}}):
        tree = plain_car(boxes={"x": {**spec, "layers": wrong}})
        assert [f.label for f in found(tree, "box.make") if f.state == "foul"] == ["one strip"]
