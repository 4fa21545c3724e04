"""Blocks of a box split, joined, copied, mirrored, lined up, spread or moved."""

from collections.abc import Iterator

from levelcradle.core.design import Design
from levelcradle.core.design.patch import Op
from levelcradle.core.errors import UnknownThing
from levelcradle.core.modules import Order, rearranged

__all__ = ["blocks_changed"]


def blocks_changed(design: Design, box_id: str, order: Order) -> Iterator[Op]:
    """What an order does to the blocks of a box; of a block that only moved, its place. Raises UnknownThing, DesignError."""
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
