"""One tier of identical pieces: laws of packing, and the cuts it is found by."""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.fit.staircase import FRAMES, ROOMS, cuts, joined
from levelcradle.core.fit.tier import Tile, pack_tier

side = st.integers(4, 34)
piece = st.integers(2, 9)


def cells(tile: Tile, a: int, b: int) -> set[tuple[int, int]]:
    along, wide = (b, a) if tile.across else (a, b)
    return set(
        itertools.product(range(round(tile.x), round(tile.x) + along), range(round(tile.y), round(tile.y) + wide))
    )


@settings(max_examples=60)
@given(side, side, piece, piece)
def test_every_piece_lies_in_the_room_and_on_no_other(length: int, width: int, a: int, b: int) -> None:
    tiles = pack_tier(length, width, a, b, steps=40)
    covered = [cells(t, a, b) for t in tiles]
    whole = set(itertools.product(range(length), range(width)))
    assert all(c <= whole for c in covered)
    assert sum(map(len, covered)) == len(set().union(*covered)) if covered else True
    assert len(tiles) <= length * width // (a * b)


@settings(max_examples=40)
@given(side, side, piece, piece)
def test_the_room_turned_holds_as_many(length: int, width: int, a: int, b: int) -> None:
    assert len(pack_tier(length, width, a, b, steps=0)) == len(pack_tier(width, length, b, a, steps=0))
    assert len(pack_tier(length, width, a, b, steps=0)) == len(pack_tier(length, width, b, a, steps=0))


@settings(max_examples=40)
@given(side, side, piece, piece, st.integers(0, 5), st.integers(0, 5))
def test_a_larger_room_never_holds_fewer(length: int, width: int, a: int, b: int, more: int, wider: int) -> None:
    assert len(pack_tier(length + more, width + wider, a, b, steps=0)) >= len(pack_tier(length, width, a, b, steps=0))


@settings(max_examples=40)
@given(side, side, piece, piece)
def test_never_fewer_than_a_plain_grid_either_way(length: int, width: int, a: int, b: int) -> None:
    grid = max((length // a) * (width // b), (length // b) * (width // a))
    assert len(pack_tier(length, width, a, b, steps=0)) >= grid


def exhaustive(length: int, width: int, a: int, b: int) -> int:
    """The true optimum of a small room: the first free cell is covered by a piece either way, or left empty."""
    best = 0
    free0 = (1 << (length * width)) - 1
    shapes = {(a, b), (b, a)}
    masks = {
        (w, h, x, y): sum(1 << ((y + j) * length + x + i) for i in range(w) for j in range(h))
        for w, h in shapes for x in range(length - w + 1) for y in range(width - h + 1)
    }  # fmt: skip

    def go(free: int, count: int) -> None:
        nonlocal best
        best = max(best, count)
        if count + free.bit_count() // (a * b) <= best:
            return
        cell = (free & -free).bit_length() - 1
        x, y = cell % length, cell // length
        for w, h in shapes:
            mask = masks.get((w, h, x, y))
            if mask is not None and mask & free == mask:
                go(free & ~mask, count + 1)
        go(free & ~(1 << cell), count)

    go(free0, 0)
    return best


SMALL = [
    (5, 5, 3, 2),
    (7, 5, 3, 2),
    (8, 6, 4, 3),
    (9, 7, 4, 3),
    (8, 7, 5, 2),
    (10, 6, 5, 2),
    (7, 7, 4, 2),
    (11, 5, 4, 3),
    (6, 6, 5, 1),
]


@pytest.mark.parametrize(("length", "width", "a", "b"), SMALL)
def test_small_rooms_at_their_true_optimum(length: int, width: int, a: int, b: int) -> None:
    assert len(pack_tier(length, width, a, b)) == exhaustive(length, width, a, b)


def test_sizes_are_taken_to_a_tenth_and_never_in_ones_own_favour() -> None:
    assert len(pack_tier(300.0, 100.0, 100.0, 100.0)) == 3
    assert len(pack_tier(299.95, 100.0, 100.0, 100.0)) == 2
    assert len(pack_tier(300.0, 100.0, 100.01, 100.0)) == 2
    assert pack_tier(90.0, 90.0, 100.0, 20.0) == ()


# --- the cuts: two parts that fill the room, and where they go ---


def filled(room: tuple[int, int, int, int]) -> np.ndarray:
    x, y, a, b = room
    grid = np.zeros((x, y), bool)
    grid[:, :b] = True
    grid[:a, :] = True
    return grid


def put_back(frame: np.ndarray, part: tuple[int, int, int, int], size: tuple[int, int]) -> np.ndarray:
    """The cells of a part in the room, each moved as a piece of one cell would be."""
    grid = np.zeros(size, int)
    for x, y in np.argwhere(filled(part)):
        i, j, _ = joined(tuple(int(v) for v in frame), int(x), int(y), False, 1, 1, (0, 0))
        grid[i, j] += 1
    return grid


rooms = st.tuples(st.integers(4, 14), st.integers(4, 14), st.integers(1, 13), st.integers(1, 13))


@settings(max_examples=50)
@given(rooms, st.booleans())
def test_every_cut_gives_two_parts_that_fill_the_room(drawn: tuple[int, int, int, int], whole: bool) -> None:
    """Of an L, and by a staircase of a rectangle."""
    x, y, a, b = drawn
    room = (x, y, x, y) if whole else (x, y, min(a, x - 1), min(b, y - 1))
    points = np.arange(0, 15)
    parts, frames = cuts(points, room, ROOMS), cuts(points, room, FRAMES)
    for k in range(0, parts.shape[1], max(1, parts.shape[1] // 60)):
        one, other = (tuple(int(v) for v in half) for half in (parts[:4, k], parts[4:, k]))
        both = put_back(frames[:6, k], one, (x, y)) + put_back(frames[6:, k], other, (x, y))  # type: ignore[arg-type]
        assert (both == filled(room)).all(), (room, parts[:, k].tolist())
