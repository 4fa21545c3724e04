"""A box laid against something; a thing put in or on a box, or taken out of it, staying where it is, said in the other
axes."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Placement, Vec, minus, plus, scaled
from levelcradle.core.clearance import align_to_face
from levelcradle.core.design.patch import Op
from levelcradle.core.design.survey import InBox, Item
from levelcradle.core.errors import DesignError, Problem, UnknownThing
from levelcradle.core.gear import own_frame

__all__ = ["into_box", "laid_against", "out_of_box"]


def laid_against(assembly: Assembly, box_id: str, other: str, *, turn: bool) -> list[Op]:
    """Lays a box against something with the needed gap. Raises as ``align_to_face``."""
    pose = align_to_face(assembly, box_id, other, turn=turn)
    return [{"op": "replace", "path": f"/boxes/{box_id}/pose", "value": pose.model_dump(mode="json")}]


def into_box(assembly: Assembly, key: str, box_id: str) -> list[Op]:
    """Puts a thing on the base of a box, where it stands now. Raises UnknownThing; DesignError for a shape that cannot
    be turned."""
    item, box = _item(assembly, key), assembly.boxes.get(box_id)
    if box is None:
        raise UnknownThing("box", box_id)
    now = _frame_of(assembly, item)
    to_box = box.placement.inverse.after(now)
    low, high = _extent(assembly, item, to_box)
    origin = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2, low[2])
    own = Placement(np.eye(3), scaled(origin, -1.0)).after(to_box)
    place = {
        "type": "box",
        "box": box_id,
        "face": "base",
        "from": ["front", "left"],
        "u_mm": _tidy(origin[0]),
        "v_mm": _tidy(origin[1]),
        "off_mm": _tidy(origin[2]),
        "turn": 0,
    }
    return list(_restated(key, item, own, place))


def out_of_box(assembly: Assembly, key: str) -> list[Op]:
    """Says a thing that is placed in a box in vehicle axes again, where it stands now."""
    item = _item(assembly, key)
    return list(_restated(key, item, _frame_of(assembly, item), {"type": "vehicle"}))


def _item(assembly: Assembly, key: str) -> Item:
    item = assembly.design.items.get(key)
    if item is None:
        raise UnknownThing("thing", key)
    return item


def _frame_of(assembly: Assembly, item: Item) -> Placement:
    """From the axes a thing is said in to the vehicle's."""
    if not isinstance(item.place, InBox):
        return Placement(np.eye(3), (0.0, 0.0, 0.0))
    box: PlacedBox = assembly.boxes[item.place.box]
    return box.placement.after(own_frame(item.place, box.shell))


def _extent(assembly: Assembly, item: Item, to_box: Placement) -> tuple[Vec, Vec]:
    """The upright block, in the box's axes, round what the thing becomes there; of one without a shape its place."""
    spec = _moved(item.solid.model_dump(mode="json"), to_box) if item.solid else None
    points = list(_corners(spec)) if spec else [to_box.point(item.at_mm)] if item.at_mm else [(0.0, 0.0, 0.0)]
    low, high = ([pick(p[i] for p in points) for i in range(3)] for pick in (min, max))
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _corners(spec: dict[str, Any]) -> Iterator[Vec]:
    if spec["type"] == "block":
        yield from (tuple(spec["low_mm"]), tuple(spec["high_mm"]))
    elif spec["type"] == "rod":
        r = spec["radius_mm"]
        for end in (spec["start_mm"], spec["end_mm"]):
            yield from (minus(end, (r, r, r)), plus(end, (r, r, r)))
    elif spec["type"] == "prism":
        yield from ((x, y, z) for x, y in spec["outline_mm"] for z in (spec["low_up_mm"], spec["high_up_mm"]))
    else:
        yield from (tuple(tie["at_mm"]) for tie in spec["ties"].values())


def _restated(key: str, item: Item, frame: Placement, place: dict[str, Any]) -> Iterator[Op]:
    if item.sweep is not None and item.sweep.type != "guard":
        raise DesignError(
            (Problem(f"/items/{key}/sweep", f"{item.name} moves: say its movement anew once it is placed"),)
        )
    path = f"/items/{key}"
    if item.fixed_to is not None:
        yield {"op": "replace", "path": f"{path}/fixed_to", "value": None}
    yield {"op": "replace", "path": f"{path}/place", "value": place}
    if item.solid is not None:
        yield {
            "op": "replace",
            "path": f"{path}/solid",
            "value": _moved(item.solid.model_dump(mode="json"), frame, key),
        }
    if item.at_mm is not None:
        yield {"op": "replace", "path": f"{path}/at_mm", "value": _tidied(frame.point(item.at_mm))}


def _moved(spec: dict[str, Any], frame: Placement, key: str = "") -> dict[str, Any]:
    """A shape in other axes: exact for rods and scans, for blocks by quarter turns and for outlines about the upright;
    a block turned by anything else keeps its sizes and its middle."""
    kind = spec["type"]
    if kind == "rod":
        return spec | {name: _tidied(frame.point(spec[name])) for name in ("start_mm", "end_mm")}
    if kind == "mesh" and spec["ties"]:
        return spec | {"ties": {k: t | {"at_mm": _tidied(frame.point(t["at_mm"]))} for k, t in spec["ties"].items()}}
    if kind == "prism" and frame.turn[2, 2] > 1 - 1e-9:
        outline = [_tidied(frame.point((x, y, 0.0)))[:2] for x, y in spec["outline_mm"]]
        return spec | {
            "outline_mm": outline,
            "low_up_mm": _tidy(spec["low_up_mm"] + frame.origin[2]),
            "high_up_mm": _tidy(spec["high_up_mm"] + frame.origin[2]),
        }
    if kind == "block":
        low, high = spec["low_mm"], spec["high_mm"]
        middle = frame.point(scaled(plus(low, high), 0.5))
        size = np.array(high) - np.array(low)
        square = np.all((np.abs(frame.turn) < 1e-9) | (np.abs(frame.turn) > 1 - 1e-9))
        half = (np.abs(frame.turn) @ size if square else size) / 2
        return spec | {"low_mm": _tidied(np.array(middle) - half), "high_mm": _tidied(np.array(middle) + half)}
    raise DesignError(
        (
            Problem(
                f"/items/{key}/solid", "give it the shape of a block or a rod first: this one cannot turn with a box"
            ),
        )
    )


def _tidy(value: float) -> float:
    return round(float(value), 3) + 0.0


def _tidied(values: Any) -> list[float]:
    return [_tidy(v) for v in values]
