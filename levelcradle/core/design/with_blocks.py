"""What holds a block goes with it."""

from collections.abc import Iterator
from typing import Any

from levelcradle.core.design.operation import Op
from levelcradle.core.design.pointer import join

__all__ = ["holders_go"]


def holders_go(before: dict[str, Any], after: dict[str, Any]) -> Iterator[Op]:
    """Operations that take away what held blocks that an edit took away."""
    boxes = after.get("boxes")
    for key, box in boxes.items() if isinstance(boxes, dict) else ():
        old = (before.get("boxes") or {}).get(key)
        if not isinstance(box, dict) or not isinstance(old, dict) or box.get("blocks") == old.get("blocks"):
            continue
        holders, blocks = box.get("holders"), box.get("blocks")
        gone = set(old.get("blocks") or {}) - set(blocks if isinstance(blocks, dict) else {})
        for name, holder in holders.items() if isinstance(holders, dict) else ():
            if isinstance(holder, dict) and holder.get("block") in gone:
                yield {"op": "remove", "path": join("boxes", key, "holders", name)}
