"""A box built another way, as large as it was."""

from levelcradle.core.box import shell_of
from levelcradle.core.box.kinds import MAKERS
from levelcradle.core.design import Design
from levelcradle.core.design.patch import Op
from levelcradle.core.errors import UnknownThing

__all__ = ["built_as"]


def built_as(design: Design, box_id: str, kind: str) -> list[Op]:
    """The construction of a box exchanged for another, begun from the box as it is. Raises UnknownThing."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    if kind not in MAKERS:
        raise UnknownThing("construction", kind)
    box = design.boxes[box_id]
    shell = shell_of(box, design.module_kinds, design.tables)
    construction, closures = MAKERS[kind].begun(shell.made, shell.shell_kg)
    rows = {key: closure.model_dump(mode="json") for key, closure in closures.items()}
    return [
        {"op": "replace", "path": f"/boxes/{box_id}/construction", "value": construction.model_dump(mode="json")},
        {"op": "replace", "path": f"/boxes/{box_id}/closures", "value": rows},
    ]
