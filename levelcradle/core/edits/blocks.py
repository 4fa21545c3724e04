"""Blocks of a box split, joined, copied, mirrored, lined up, spread or moved."""

from collections.abc import Iterator
from typing import Any, Literal

import numpy as np

from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.design import Design
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.box import Axis, Block, Counts, Gaps, Orientation, Wrap
from levelcradle.core.design.patch import Op
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.errors import UnknownThing
from levelcradle.core.modules import Order, lay_out, rearranged

__all__ = ["Over", "blocks_changed", "laid_over"]

Over = Literal["side", "end", "round"]


def blocks_changed(design: Design, box_id: str, order: Order) -> Iterator[Op]:
    """What an order does to the blocks of a box; of a block that only moved, its place. Raises UnknownThing,
    DesignError."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    box, path = design.boxes[box_id], f"/boxes/{box_id}/blocks"
    before, after = box.blocks, rearranged(box.blocks, design.module_kinds, order, box.pose)
    for key in before.keys() - after.keys():
        yield {"op": "remove", "path": f"{path}/{key}"}
    for key, block in after.items():
        was = before.get(key)
        if was is None:
            yield {"op": "add", "path": f"{path}/{key}", "value": block.model_dump(mode="json")}
        elif was.model_copy(update={"origin_mm": block.origin_mm}) != block:
            yield {"op": "replace", "path": f"{path}/{key}", "value": block.model_dump(mode="json")}
        elif was.origin_mm != block.origin_mm:
            yield {"op": "replace", "path": f"{path}/{key}/origin_mm", "value": list(block.origin_mm)}


_OVER: dict[Over, tuple[Vec, Vec, Vec]] = {  # rows: what looks aft, right and up afterwards, in the axes of before
    "side": ((1, 0, 0), (0, 0, 1), (0, -1, 0)),
    "end": ((0, 0, 1), (0, 1, 0), (-1, 0, 0)),
    "round": ((0, 1, 0), (-1, 0, 0), (0, 0, 1)),
}
_WAYS: tuple[Axis, ...] = ("aft", "across", "up")


def laid_over(design: Design, box_id: str, over: Over) -> Iterator[Op]:
    """Everything in a box turned together by a quarter: on its side, on its end, or round the upright, to the side on
    which its modules may rest. Nothing where they may rest on neither, where its size is given, or where every second
    module is turned about, which is about the upright. Raises UnknownThing."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    box, kinds = design.boxes[box_id], design.module_kinds
    if not isinstance(box.inner, Wrap) or any(block.alternate for block in box.blocks.values()):
        return
    quarter = np.array(_OVER[over])
    for turn in (quarter, quarter.T):
        laid = {key: _turned(block, kinds[block.kind], turn) for key, block in box.blocks.items()}
        if all(block.turn.down in kinds[block.kind].may_rest_on for block in laid.values()):
            for key, block in laid.items():
                yield {"op": "replace", "path": f"/boxes/{box_id}/blocks/{key}", "value": block.model_dump(mode="json")}
            return


def _turned(block: Block, kind: ModuleKind, turn: Matrix) -> Block:
    """``turn``: (3, 3) whole numbers, from the box's axes before to those after."""
    laid = lay_out(block, kind)
    was = [int(np.abs(row).argmax()) for row in turn]  # which axis of before each of afterwards is
    ends = turn @ np.array([block.origin_mm, np.add(block.origin_mm, laid.size_mm)]).T

    def face(axis: int, sign: int) -> ModuleFace:
        return laid.turned.looks[2 * was[axis] + int(turn[axis, was[axis]] * sign > 0)]

    def swapped(values: Counts | Gaps) -> dict[str, Any]:
        return {way: getattr(values, _WAYS[was[axis]]) for axis, way in enumerate(_WAYS)}

    dividers = block.dividers and block.dividers.model_copy(
        update={"along": _WAYS[was.index(_WAYS.index(block.dividers.along))]}
    )
    return block.model_copy(
        update={
            "turn": Orientation(down=face(2, -1), aft=face(0, 1)),
            "counts": Counts(**swapped(block.counts)),
            "gap_mm": Gaps(**swapped(block.gap_mm)),
            "origin_mm": tuple(float(v) for v in ends.min(axis=1)),
            "dividers": dividers,
        }
    )
