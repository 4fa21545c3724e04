"""Blocks of a box rearranged by hand: split, joined, copied, mirrored, lined up, spread, put beside each other with
their gap."""

from collections.abc import Callable, Iterator, Mapping
from typing import Literal

import numpy as np

from levelcradle.core.axes import Vec, rotation, vec
from levelcradle.core.design.base import Count, DocumentModel, Id, NonNegativeLength, Point
from levelcradle.core.design.box import Axis, Block, Orientation, Pose
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.errors import DesignError, Problem
from levelcradle.core.modules.blocks import WAYS, Laid, lay_out
from levelcradle.core.modules.orientations import orientations_for, turned_about

__all__ = ["Order", "needed_between_mm", "rearranged"]

Blocks = dict[str, Block]
Kinds = Mapping[str, ModuleKind]


class Order(DocumentModel):
    """What is to be done with a block.

    ``way`` is along what; ``at`` how many stay in the first part of a split; ``other`` the block it is joined with,
    lined up with or put beside; ``end`` the side of that one, or which edges are lined up. A move goes ``by_mm`` in
    vehicle axes, and is caught within ``catch_mm`` of where the block touches another one with their gap, or lies in
    line with it."""

    do: Literal["split", "join", "copy", "mirror", "line up", "spread", "put beside", "new", "move"]
    block: Id
    other: Id | None = None
    way: Axis = "across"
    at: Count = 1
    end: Literal["low", "middle", "high"] = "high"
    kind: Id | None = None
    by_mm: Point = (0.0, 0.0, 0.0)
    catch_mm: NonNegativeLength = 0.0


def rearranged(blocks: Mapping[str, Block], kinds: Kinds, order: Order, pose: Pose | None = None) -> Blocks:
    """All blocks of a box after an order; ``pose`` is how the box stands. Raises DesignError where it cannot be done,
    and says why."""
    if order.block not in blocks or (order.other is not None and order.other not in blocks):
        raise DesignError((Problem("/block", f"there is no block “{order.other or order.block}”"),))
    if order.do == "move":
        turn = rotation(pose.yaw_deg, pose.pitch_deg, pose.roll_deg) if pose else np.eye(3)
        return _move(dict(blocks), kinds, order, vec(turn.T @ np.array(order.by_mm)))
    ways: dict[str, Callable[[Blocks, Kinds, Order], Blocks]] = {
        "split": _split,
        "join": _join,
        "copy": _copy,
        "mirror": _mirror,
        "line up": _line_up,
        "spread": _spread,
        "put beside": _put_beside,
        "new": _new,
    }
    return ways[order.do](dict(blocks), kinds, order)


def needed_between_mm(low: Laid, high: Laid, axis: int, kinds: tuple[ModuleKind, ModuleKind]) -> float:
    """The gap between two blocks along an axis, ``low`` first: the larger of what the two faces ask for that look at
    each other."""
    asks = (low.turned.face_clearance_mm[2 * axis + 1], high.turned.face_clearance_mm[2 * axis])
    return max(*asks, kinds[0].neighbour_gap_mm, kinds[1].neighbour_gap_mm)


def _refuse(path: str, message: str) -> DesignError:
    return DesignError((Problem(path, message),))


def _free(blocks: Blocks) -> str:
    return next(k for k in (chr(97 + n) if n < 26 else f"b{n}" for n in range(300)) if k not in blocks)


def _order_after(blocks: Blocks) -> int:
    return max((b.order for b in blocks.values()), default=0) + 1


def _moved(block: Block, axis: int, to: float) -> Block:
    origin = list(block.origin_mm)
    origin[axis] = round(to, 6)
    return block.model_copy(update={"origin_mm": (origin[0], origin[1], origin[2])})


def _split(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    block, axis = blocks[order.block], WAYS.index(order.way)
    count = getattr(block.counts, order.way)
    if order.at >= count:
        raise _refuse("/at", f"the block has {count} {order.way}: keep fewer than that in the first part")
    laid = lay_out(block, kinds[block.kind])
    start = sorted({m.low[axis] for m in laid.modules})[order.at]
    first = block.model_copy(update={"counts": block.counts.model_copy(update={order.way: order.at})})
    rest = block.model_copy(
        update={"counts": block.counts.model_copy(update={order.way: count - order.at}), "order": _order_after(blocks)}
    )
    if block.alternate == order.way and order.at % 2:
        rest = rest.model_copy(update={"turn": turned_about(block.turn)})
    return blocks | {order.block: first, _free(blocks): _moved(rest, axis, block.origin_mm[axis] + start)}


def _join(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """Two blocks alike that lie in one line, as one."""
    if order.other is None:
        raise _refuse("/other", "say which block it is joined with")
    one, two = blocks[order.block], blocks[order.other]
    for axis, way in enumerate(WAYS):
        low, high = (one, two) if one.origin_mm[axis] <= two.origin_mm[axis] else (two, one)
        alike = {
            name: getattr(low, name)
            for name in ("kind", "turn", "gap_mm", "alternate", "dividers", "string", "parallel")
        }
        whole = low.model_copy(
            update={"counts": low.counts.model_copy(update={way: getattr(low.counts, way) + getattr(high.counts, way)})}
        )
        if alike == {name: getattr(high, name) for name in alike} and _same_places(whole, (low, high), kinds):
            return {key: b for key, b in blocks.items() if key not in (order.block, order.other)} | {order.block: whole}
    raise _refuse(
        "/other", "these two do not make one block: kind, turn, gaps and rows must go on from one to the other"
    )


def _same_places(whole: Block, parts: tuple[Block, Block], kinds: Kinds) -> bool:
    def places(block: Block) -> list[tuple[float, ...]]:
        laid = lay_out(block, kinds[block.kind])
        return [tuple(round(o + v, 3) for o, v in zip(block.origin_mm, m.low, strict=True)) for m in laid.modules]

    return sorted(places(whole)) == sorted(p for part in parts for p in places(part))


def _copy(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """A second one beside it, with its gap."""
    key = _free(blocks)
    made = blocks | {key: blocks[order.block].model_copy(update={"order": _order_after(blocks)})}
    return _put_beside(made, kinds, order.model_copy(update={"block": key, "other": order.block}))


def _new(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """One module of a kind, beside the block that is chosen."""
    if order.kind is None or order.kind not in kinds:
        raise _refuse("/kind", "say which kind of module")
    key = _free(blocks)
    made = blocks | {
        key: Block(kind=order.kind, turn=orientations_for(kinds[order.kind])[0], order=_order_after(blocks))
    }
    return _put_beside(made, kinds, order.model_copy(update={"block": key, "other": order.block}))


def _mirror(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """To the other side of the middle of all blocks; what looked one way along it looks the other way."""
    axis = WAYS.index(order.way)
    if axis == 2:
        raise _refuse("/way", "a block is mirrored along or across; upside down is another turn")
    lows = [b.origin_mm[axis] for b in blocks.values()]
    highs = [b.origin_mm[axis] + lay_out(b, kinds[b.kind]).size_mm[axis] for b in blocks.values()]
    block = blocks[order.block]
    size = lay_out(block, kinds[block.kind]).size_mm[axis]
    moved = _moved(block, axis, min(lows) + max(highs) - block.origin_mm[axis] - size)
    return blocks | {
        order.block: moved.model_copy(update={"turn": _turned_to_face(block.turn, kinds[block.kind], axis)})
    }


def _turned_to_face(turn: Orientation, kind: ModuleKind, axis: int) -> Orientation:
    """Turned about where the terminals look along that axis, so that they look the other way."""
    looks = lay_out(Block(kind="x", turn=turn), kind).turned.looks
    return turned_about(turn) if kind.terminals in (looks[2 * axis], looks[2 * axis + 1]) else turn


def _line_up(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    if order.other is None:
        raise _refuse("/other", "say which block it is lined up with")
    axis, share = WAYS.index(order.way), {"low": 0.0, "middle": 0.5, "high": 1.0}[order.end]
    one, two = blocks[order.block], blocks[order.other]
    size, theirs = (lay_out(b, kinds[b.kind]).size_mm[axis] for b in (one, two))
    return blocks | {order.block: _moved(one, axis, two.origin_mm[axis] + share * (theirs - size))}


def _spread(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """Equal gaps between all blocks along a way; the two outermost stay."""
    axis = WAYS.index(order.way)
    keys = sorted(blocks, key=lambda k: blocks[k].origin_mm[axis])
    if len(keys) < 3:
        raise _refuse("/way", "three blocks or more can be spread")
    sizes = [lay_out(blocks[k], kinds[blocks[k].kind]).size_mm[axis] for k in keys]
    start, end = blocks[keys[0]].origin_mm[axis], blocks[keys[-1]].origin_mm[axis] + sizes[-1]
    gap = (end - start - sum(sizes)) / (len(keys) - 1)
    if gap < 0:
        raise _refuse("/way", "they overlap that way: nothing can be spread")
    out, at = dict(blocks), start
    for key, size in zip(keys, sizes, strict=True):
        out[key] = _moved(blocks[key], axis, at)
        at += size + gap
    return out


def _put_beside(blocks: Blocks, kinds: Kinds, order: Order) -> Blocks:
    """Against the other one's low or high end, with the gap their faces ask for; in line with it in the two other
    ways."""
    if order.other is None or order.other == order.block:
        raise _refuse("/other", "say which block it is put beside")
    axis = WAYS.index(order.way)
    one, two = blocks[order.block], blocks[order.other]
    laid, theirs = lay_out(one, kinds[one.kind]), lay_out(two, kinds[two.kind])
    pair = (kinds[one.kind], kinds[two.kind])
    if order.end == "low":
        to = two.origin_mm[axis] - needed_between_mm(laid, theirs, axis, pair) - laid.size_mm[axis]
    else:
        to = two.origin_mm[axis] + theirs.size_mm[axis] + needed_between_mm(theirs, laid, axis, pair)
    moved = one.model_copy(update={"origin_mm": two.origin_mm})
    return blocks | {order.block: _moved(moved, axis, to)}


def _move(blocks: Blocks, kinds: Kinds, order: Order, by: Vec) -> Blocks:
    block = blocks[order.block]
    moved = block
    for axis in range(3):
        if abs(by[axis]) > 1e-6:
            to = block.origin_mm[axis] + by[axis]
            snap_points = [
                c for key, other in blocks.items() if key != order.block for c in _catches(block, other, axis, kinds)
            ]
            nearest = min(snap_points, key=lambda c: abs(c - to), default=to)
            moved = _moved(moved, axis, nearest if abs(nearest - to) <= order.catch_mm else to)
    return blocks | {order.block: moved}


def _catches(block: Block, other: Block, axis: int, kinds: Kinds) -> Iterator[float]:
    """Origins along an axis at which a block touches another with their gap, or their first edges, middles or last
    edges are level."""
    laid, theirs = lay_out(block, kinds[block.kind]), lay_out(other, kinds[other.kind])
    pair, start = (kinds[block.kind], kinds[other.kind]), other.origin_mm[axis]
    yield start - needed_between_mm(laid, theirs, axis, pair) - laid.size_mm[axis]
    yield start + theirs.size_mm[axis] + needed_between_mm(theirs, laid, axis, pair)
    yield from (start + share * (theirs.size_mm[axis] - laid.size_mm[axis]) for share in (0.0, 0.5, 1.0))
