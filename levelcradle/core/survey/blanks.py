"""Every figure of a survey as a numbered blank: the printed sheet and the screen at the car follow one numbering."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from levelcradle.core.design import Design
from levelcradle.core.design.bay import Bay
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.pointer import find, resolves
from levelcradle.core.design.readings import NOT_TAKEN, axis_of, kind_of, way_of
from levelcradle.core.quantity import write_along, write_length

__all__ = ["SurveyBlank", "survey_blanks"]

_WORDS = {
    "lf_kg": "left front wheel",
    "rf_kg": "right front wheel",
    "lr_kg": "left rear wheel",
    "rr_kg": "right rear wheel",
    "front_kg": "front axle",
    "rear_kg": "rear axle",
    "left_kg": "both left wheels",
    "total_kg": "whole car",
    "step_kg": "scale's step",
    "aft_mm": "aft",
    "floor_mm": "floor, up",
    "top_left_mm": "top left, up",
    "top_right_mm": "top right, up",
    "left_floor_mm": "left at floor",
    "left_top_mm": "left at top",
    "right_floor_mm": "right at floor",
    "right_top_mm": "right at top",
    "width_floor_mm": "width at floor",
    "width_top_mm": "width at top",
    "offset_mm": "middle, right of centreline",
    "left_lean_deg": "left wall leans out",
    "right_lean_deg": "right wall leans out",
    "up_mm": "straight-edge, up",
    "level_kg": "lower axle, level",
    "raised_kg": "lower axle, other raised",
    "rise_mm": "rise of the wheel centres",
    "radius_front_mm": "front wheel radius",
    "radius_rear_mm": "rear wheel radius",
    "length_mm": "diagonal",
    "depth_mm": "depth",
}
_AXES = ("aft", "across", "up")


@dataclass(frozen=True, slots=True)
class SurveyBlank:
    """One figure to take: its number, where it stands in the document, under which heading, what it is called, what
    stands there now as text, and from where it counts (a reference point's id, "" for the axle line, centreline and
    ground)."""

    number: int
    path: str
    group: str
    label: str
    kind: str
    value: float | None
    text: str
    hooked: str


def survey_blanks(design: Design) -> list[SurveyBlank]:
    """Every blank in the order in which a survey is taken: weights, vehicle, reference points, spaces, hard points,
    things."""
    tree = design.model_dump(mode="json", by_alias=True)
    rows = [*_vehicle(tree), *_references(tree), *_bays(design, tree), *_hard_points(tree), *_items(tree)]
    return [_blank(number, design, tree, *row) for number, row in enumerate(rows, start=1)]


BlankRow = tuple[str, str, str, str]  # path, group, label, hooked


def _vehicle(tree: dict[str, Any]) -> Iterator[BlankRow]:
    weighing = find(tree, f"/{AS_FOUND}/read") if resolves(tree, f"/{AS_FOUND}/read") else {}
    for name in ("lf_kg", "rf_kg", "lr_kg", "rr_kg", "front_kg", "rear_kg", "left_kg", "total_kg"):
        if name in weighing:
            yield f"/{AS_FOUND}/read/{name}", "Weights", _WORDS[name], ""
    height = tree["vehicle"]["cg_height"] or {}
    for name in ("level_kg", "raised_kg", "rise_mm", "radius_front_mm", "radius_rear_mm"):
        if name in height:
            yield f"/vehicle/cg_height/{name}", "Axle lift", _WORDS[name], ""
    yield "/vehicle/wheelbase_mm", "Vehicle", "wheelbase", ""
    if tree["vehicle"]["track_mm"]:
        yield "/vehicle/track_mm/front", "Vehicle", "track, front", ""
        yield "/vehicle/track_mm/rear", "Vehicle", "track, rear", ""
    for when, words in (("stance", "arch"), ("stance_after", "arch after")):
        for wheel, name in (("lf", "left front"), ("rf", "right front"), ("lr", "left rear"), ("rr", "right rear")):
            if tree["vehicle"][when]:
                yield f"/vehicle/{when}/arches/{wheel}_mm", "Vehicle", f"{words}, {name}", ""


def _references(tree: dict[str, Any]) -> Iterator[BlankRow]:
    for key, row in tree["references"].items():
        if row["tapes"]:
            for tape, swung in row["tapes"].items():
                hook = tree["references"][swung["hooked"]]["name"]
                yield f"/references/{key}/tapes/{tape}/length_mm", row["name"], f"tape from {hook}", ""
        else:
            yield from ((f"/references/{key}/at_mm/{i}", row["name"], _AXES[i], "") for i in range(3))


def _bays(design: Design, tree: dict[str, Any]) -> Iterator[BlankRow]:
    for key, bay in sorted(design.bays.items(), key=lambda row: row[1].name):
        hooked = bay.measured_from or ""
        for name, label in _stations(bay, tree["bays"][key]):
            yield f"/bays/{key}/{name}", bay.name, label, hooked
        if bay.depth_mm is not None:
            yield f"/bays/{key}/depth_mm", bay.name, "depth", ""
        for name in bay.diagonals:
            yield f"/bays/{key}/diagonals/{name}/length_mm", bay.name, "check diagonal", ""


def _stations(bay: Bay, tree: dict[str, Any]) -> Iterator[tuple[str, str]]:
    order = sorted(bay.stations, key=lambda k: bay.stations[k].aft_mm)
    for number, key in enumerate(order, start=1):
        fields = tree["stations"][key]
        for name in fields:
            if name in _WORDS:
                yield f"stations/{key}/{name}", f"station {number}, {_WORDS[name]}"
        for n, point in enumerate(
            sorted(fields.get("points", {}), key=lambda p: fields["points"][p]["order"]), start=1
        ):
            for name, words in (("across_mm", "across"), ("up_mm", "up")):
                yield f"stations/{key}/points/{point}/{name}", f"station {number}, point {n}, {words}"
        for n, depth in enumerate(
            sorted(fields.get("depths", {}), key=lambda d: fields["depths"][d]["across_mm"]), start=1
        ):
            for name, words in (("across_mm", "across"), ("depth_mm", "depth")):
                yield f"stations/{key}/depths/{depth}/{name}", f"station {number}, {n}, {words}"


def _hard_points(tree: dict[str, Any]) -> Iterator[BlankRow]:
    for key, row in tree["hardpoints"].items():
        yield from ((f"/hardpoints/{key}/at_mm/{i}", row["name"], _AXES[i], "") for i in range(3))
        yield f"/hardpoints/{key}/wall_mm", row["name"], "wall, by caliper", ""


def _items(tree: dict[str, Any]) -> Iterator[BlankRow]:
    for state in ("out", "in", "stays"):
        rows = [(k, i) for k, i in tree["items"].items() if i["state"] == state]
        for key, row in sorted(rows, key=lambda r: (r[1]["order"], r[1]["name"])):
            if state != "stays":
                yield f"/items/{key}/mass_kg", row["name"], "mass", ""
            if row["solid"] and row["solid"]["type"] == "block":
                for end, ways in (("low_mm", ("fore", "left", "lower")), ("high_mm", ("aft", "right", "upper"))):
                    yield from ((f"/items/{key}/solid/{end}/{i}", row["name"], f"{ways[i]} face", "") for i in range(3))
            elif row["at_mm"]:
                yield from ((f"/items/{key}/at_mm/{i}", row["name"], _AXES[i], "") for i in range(3))


def _blank(
    number: int, design: Design, tree: dict[str, Any], path: str, group: str, label: str, hooked: str
) -> SurveyBlank:
    value = find(tree, path) if resolves(tree, path) else None
    kind = "length" if "/track_mm/" in path else kind_of(path)
    axis = axis_of(path)
    taken_from = hooked if axis is not None and kind == "length" else ""
    reading = design.readings.get(path)
    if reading and reading.basis == NOT_TAKEN:
        return SurveyBlank(number, path, group, label, kind, None, "", taken_from)
    base = design.references[taken_from].at_mm[axis or 0] if taken_from else 0.0
    text = reading.text if reading else _shown(value, path, kind, design, base)
    return SurveyBlank(number, path, group, label, kind, value, text, (reading.from_ or "") if reading else taken_from)


def _shown(value: float | None, path: str, kind: str, design: Design, base: float) -> str:
    if value is None:
        return ""
    if way := way_of(path):
        return write_along(value - base, way, design.units.survey)
    return write_length(value, design.units.survey) if kind == "length" else f"{value:g}"
