"""Boxes put in, and taken out with all that names them."""

from collections.abc import Iterable, Iterator
from typing import Any

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.design.box import Box
from levelcradle.core.design.files import tree_of, validate
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op, apply
from levelcradle.core.edits.placing import out_of_box

__all__ = ["adding", "edited", "removing"]


def edited(design: Design, patch: Iterable[Op]) -> Design:
    """The design after a patch. Raises PatchError, DesignError."""
    tree = tree_of(design)
    return validate(apply(tree, list(patch)).tree, (tree, design))


def removing(design: Design, boxes: Iterable[str]) -> list[Op]:
    """Takes boxes out, with their mounts, and with what was agreed or pinned about them; what was fixed to them stands
    alone."""
    gone = set(boxes)
    paths = tuple(f"boxes/{key}" for key in gone)
    ops: list[Op] = [
        {"op": "remove", "path": f"/mounts/{key}"} for key, mount in design.mounts.items() if mount.box in gone
    ]
    for key, item in design.items.items():
        if item.fixed_to in gone:
            ops.append({"op": "replace", "path": f"/items/{key}/fixed_to", "value": None})
        elif item.held_by in gone:
            ops += out_of_box(resolve(design, {}), key)
    for name in ("agreed_gaps", "tapes", "pins"):
        for key, row in getattr(design, name).items():
            if any(_speaks_of(row, path) for path in paths):
                ops.append({"op": "remove", "path": f"/{name}/{key}"})
    ops += [{"op": "remove", "path": f"/chains/{key}"} for key, chain in design.chains.items() if chain.box in gone]
    return [*ops, *(Op(op="remove", path=f"/boxes/{key}") for key in sorted(gone))]


def _speaks_of(row: Any, path: str) -> bool:
    ends = (getattr(row, name, "") for name in ("one", "other", "what"))
    return any(end == path or end.startswith(f"{path}/") for end in ends)


def adding(design: Design, boxes: Iterable[Box]) -> Iterator[Op]:
    """Adds boxes under free ids named after their bays."""
    taken, order = set(design.boxes), max((b.order for b in design.boxes.values()), default=0)
    for n, box in enumerate(boxes, 1):
        wish = box.bay or "box"
        key = free_id(wish, taken)
        taken.add(key)
        name = box.name if key == wish else f"{box.name} {key.rsplit('-', 1)[-1]}"
        made = box.model_copy(update={"order": order + n, "name": name[:120]})
        yield {"op": "add", "path": f"/boxes/{key}", "value": made.model_dump(mode="json", by_alias=True)}
