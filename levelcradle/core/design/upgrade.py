"""Documents of earlier formats brought to this one, step by step, before they are checked. A tree may be wrong
anywhere: what is not as it should be is left for the check to refuse."""

import re
from collections.abc import Callable
from typing import Any

from levelcradle.core.tables import rows

__all__ = ["FORMAT", "upgraded"]

Tree = dict[str, Any]
FORMAT = 12


def upgraded(tree: Tree) -> Tree:
    """A tree of this format from one of any earlier; the tree given is left alone, one of this format is given back
    itself."""
    while (step := _STEPS.get(_format_of(tree))) is not None:
        tree = step(tree)
    return tree


def _format_of(tree: Tree) -> int | None:
    found = tree.get("format")
    return found if isinstance(found, int) and not isinstance(found, bool) else None


def _rows(tree: Any, name: str) -> Tree:
    """A collection's rows, those that are objects."""
    rows = tree.get(name) if isinstance(tree, dict) else None
    return {key: row for key, row in rows.items() if isinstance(row, dict)} if isinstance(rows, dict) else {}


# --- 1 to 2: faces say top, boxes their construction and closures, mounts what they carry and land on, weighings stand
# together ---


def _to_2(tree: Tree) -> Tree:
    new = {**tree, "format": 2}
    _put(new, "boxes", {key: _box(box) for key, box in _rows(tree, "boxes").items()})
    _put(new, "mounts", {key: _mount(mount) for key, mount in _rows(tree, "mounts").items()})
    _put(new, "items", {key: _item(item) for key, item in _rows(tree, "items").items()})
    if isinstance(tree.get("vehicle"), dict):
        new["vehicle"], new["weighings"] = _weighings(tree["vehicle"])
    if isinstance(tree.get("readings"), dict):
        new["readings"] = {_path_in_2(path): row for path, row in tree["readings"].items()}
    return new


def _put(tree: Tree, name: str, rows: Tree) -> None:
    if rows:
        tree[name] = {**tree[name], **rows}


_FOLDED = ("thickness_mm", "bend_radius_mm", "folder")


def _box(box: Tree) -> Tree:
    new = {key: value for key, value in box.items() if key not in (*_FOLDED, "construction", "lid")}
    new["construction"] = {
        "type": box.get("construction", "folded"),
        **{key: box[key] for key in _FOLDED if key in box},
    }
    if "lid" in box:
        new["closures"] = {"lid": {"type": "cap", **box["lid"]} if isinstance(box["lid"], dict) else box["lid"]}
    pose = box.get("pose")
    if isinstance(pose, dict) and isinstance(pose.get("anchor"), str):
        new["pose"] = {**pose, "anchor": re.sub(r"\blid$", "top", pose["anchor"])}
    for name in ("openings", "protrusions"):
        _put(new, name, {key: _on_face(row) for key, row in _rows(box, name).items()})
    return new


def _on_face(row: Tree) -> Tree:
    new = dict(row)
    if "face" in row:
        new["face"] = _top(row["face"])
    if isinstance(row.get("from"), list):
        new["from"] = [_top(face) for face in row["from"]]
    return new


def _top(face: Any) -> Any:
    return "top" if face == "lid" else face


_WELD = {"weld_from_mm": "from_mm", "weld_length_mm": "length_mm", "weld_leg_mm": "leg_mm"}


def _mount(mount: Tree) -> Tree:
    moved = ("box", "kind", "bracket", "doubler", "hardpoint", "bolt")
    new = {key: value for key, value in mount.items() if key not in moved}
    if "box" in mount:
        new["carries"] = {f"boxes/{mount['box']}": True}
    bracket = mount.get("bracket", {})
    if isinstance(bracket, dict):
        new["shape"] = {
            "type": mount.get("kind", "angle"),
            **{key: value for key, value in bracket.items() if key not in _WELD},
        }
        new["to_box"] = {"type": "welded", **{_WELD[key]: value for key, value in bracket.items() if key in _WELD}}
        if "doubler" in mount:
            new["to_box"]["doubler"] = mount["doubler"]
    else:
        new["shape"] = bracket
    new["lands_on"] = {"type": "hardpoint", **{key: mount[key] for key in ("hardpoint", "bolt") if key in mount}}
    return new


def _item(item: Tree) -> Tree:
    new = dict(item)
    if isinstance(item.get("place"), dict):
        new["place"] = _on_face(item["place"])
    _put(new, "keep_clear", {key: _on_face(row) for key, row in _rows(item, "keep_clear").items()})
    return new


_WEIGHED = (("weighing", "as-found", "as found"), ("weighed_again", "finished", "finished"))


def _weighings(vehicle: Tree) -> tuple[Tree, Tree]:
    """(the vehicle without its weighings, the weighings)."""
    rows = {
        key: {"kind": kind, "order": order, "read": vehicle[old]}
        for order, (old, key, kind) in enumerate(_WEIGHED)
        if vehicle.get(old) is not None
    }
    return {key: value for key, value in vehicle.items() if key not in ("weighing", "weighed_again")}, rows


_MOVED: tuple[tuple[str, str], ...] = (
    (r"^(/boxes/[^/]+)/(thickness_mm|bend_radius_mm|folder)(?=/|$)", r"\1/construction/\2"),
    (r"^(/boxes/[^/]+)/lid(?=/|$)", r"\1/closures/lid"),
    (r"^(/mounts/[^/]+)/bracket/weld_(from_mm|length_mm|leg_mm)$", r"\1/to_box/\2"),
    (r"^(/mounts/[^/]+)/bracket(?=/|$)", r"\1/shape"),
    (r"^(/mounts/[^/]+)/doubler(?=/|$)", r"\1/to_box/doubler"),
    (r"^(/mounts/[^/]+)/(bolt|hardpoint)(?=/|$)", r"\1/lands_on/\2"),
    (r"^/vehicle/weighing(?=/|$)", "/weighings/as-found/read"),
    (r"^/vehicle/weighed_again(?=/|$)", "/weighings/finished/read"),
)


def _path_in_2(path: str) -> str:
    """Where a figure of format 1 stands in format 2."""
    for old, new in _MOVED:
        path, found = re.subn(old, new, path, count=1)
        if found:
            break
    return path


# --- 2 to 3: rows may have a mirror twin, faces of a box may keep room; nothing stands otherwise ---


def _to_3(tree: Tree) -> Tree:
    return {**tree, "format": 3}


# --- 3 to 4: something may sit in an opening of a box, what closes a box may be on any face, bars have their stock;
# nothing stands otherwise ---


def _to_4(tree: Tree) -> Tree:
    return {**tree, "format": 4}


# --- 4 to 5: liners stand face by face, in layers; what holds the modules stands block by block ---


def _to_5(tree: Tree) -> Tree:
    new = {**tree, "format": 5}
    _put(new, "boxes", {key: _lined_and_held(box) for key, box in _rows(tree, "boxes").items()})
    if isinstance(tree.get("readings"), dict):
        new["readings"] = {_path_in_5(path): row for path, row in tree["readings"].items() if not _unlined(tree, path)}
    return new


_LINED = {"wall_mm": (("front", "aft", "left", "right"), "liner", 4.0), "floor_mm": (("base",), "runner", 8.0)}


def _lined_and_held(box: Tree) -> Tree:
    new = {key: value for key, value in box.items() if key not in ("liners", "hold_down")}
    if "liners" in box:
        new["layers"] = _layers(box["liners"])
    if box.get("hold_down") is not None:
        new["holders"] = {f"hold-{key}"[:60]: {"type": box["hold_down"], "block": key} for key in _rows(box, "blocks")}
    return new


def _layers(liners: Any) -> Any:
    """A liner of 0 is none."""
    if not isinstance(liners, dict):
        return liners
    thick = {key: liners.get(key, begun) for key, (_, _, begun) in _LINED.items()}
    return {
        face: {name: {"type": "sheet", "thickness_mm": thick[key]}}
        for key, (faces, name, _) in _LINED.items()
        for face in faces
        if thick[key] != 0
    }


def _unlined(tree: Tree, path: str) -> bool:
    """Whether a path is that of a liner of 0, which is none any more."""
    found = re.fullmatch(r"/boxes/([^/]+)/liners/(wall_mm|floor_mm)", path)
    if not found:
        return False
    liners = _rows(tree, "boxes").get(found[1], {}).get("liners", {})
    return isinstance(liners, dict) and liners.get(found[2]) == 0


def _path_in_5(path: str) -> str:
    """Where a figure of format 4 stands in format 5; the thickness on the walls is that on the left one."""
    path = re.sub(r"^(/boxes/[^/]+)/liners/wall_mm$", r"\1/layers/left/liner/thickness_mm", path)
    return re.sub(r"^(/boxes/[^/]+)/liners/floor_mm$", r"\1/layers/base/runner/thickness_mm", path)


# --- 5 to 6: a box may say how true its welds are kept; nothing stands otherwise ---


def _to_6(tree: Tree) -> Tree:
    return {**tree, "format": 6}


# --- 6 to 7: service panels, boards between modules, fillers; the rows of tables that came with the application say
# what these ask of them, where their names are still those that they came with ---


def _to_7(tree: Tree) -> Tree:
    return {**_asked(_asked(tree, "liners", "density_kg_m3", float), "materials", "series", str), "format": 7}


def _asked(tree: Tree, name: str, figure: str, kind: Callable[[str], Any]) -> Tree:
    """With what the standard rows of a table say of one figure more."""
    tables = tree.get("tables")
    if not isinstance(tables, dict) or not isinstance(tables.get(name), dict):
        return tree
    said = {**tables[name], **_said_of(tables, name, figure, kind)}
    return {**tree, "tables": {**tables, name: said}}


def _said_of(tables: Tree, name: str, figure: str, kind: Callable[[str], Any]) -> Tree:
    """Rows of a table with what a standard row of their name says."""
    standard = {row["id"]: row for row in rows(name) if row[figure]}
    return {
        key: {**row, figure: kind(standard[key][figure])}
        for key, row in _rows(tables, name).items()
        if key in standard and row.get("name") == standard[key]["name"] and figure not in row
    }


# --- 7 to 8: metals say how tight they are bent and whether along their grain, prices, flanges, lightening holes ---


def _to_8(tree: Tree) -> Tree:
    for figure, kind in (("bend_radii", float), ("grain", str), ("bend_source", str)):
        tree = _asked(tree, "materials", figure, kind)
    return {**tree, "format": 8}


# --- 8 to 9: seat and belt points with who approved them, backing plates and sleeves under bolts ---


def _to_9(tree: Tree) -> Tree:
    return {**tree, "format": 9}


# --- 9 to 10: what is left of aluminium beside a weld; tabs and straps among the mounts ---


def _to_10(tree: Tree) -> Tree:
    figures = ("welded_yield_mpa", "welded_ultimate_mpa", "weld_metal_mpa")
    for figure in figures:
        tree = _asked(tree, "materials", figure, float)
    return {**_asked(tree, "materials", "welded_source", str), "format": 10}


# --- 10 to 11: crossmembers of the shop's own, tiers on ledges, stacks that are pressed: there were none ---


def _to_11(tree: Tree) -> Tree:
    return {**tree, "format": 11}


# --- 11 to 12: tabs under the base of a frame, welded across its tube: there were none ---


def _to_12(tree: Tree) -> Tree:
    return {**tree, "format": 12}


_STEPS: dict[int | None, Callable[[Tree], Tree]] = {
    1: _to_2,
    2: _to_3,
    3: _to_4,
    4: _to_5,
    5: _to_6,
    6: _to_7,
    7: _to_8,
    8: _to_9,
    9: _to_10,
    10: _to_11,
    11: _to_12,
}
