"""What could hold the modules of a box: sized by itself, and run through every check before it is offered."""

import math
from collections.abc import Callable, Iterator, Mapping
from itertools import islice, product

from pydantic import TypeAdapter

from levelcradle.core.analysis import analyse_assembly
from levelcradle.core.assembly import resolve
from levelcradle.core.box import shell_of
from levelcradle.core.box.holding import PLAY_MM, Placed, room_of, settles, tool_mm
from levelcradle.core.design import Design
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, FACES, Face
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Framed
from levelcradle.core.design.holders import Holder
from levelcradle.core.design.layers import WALLS
from levelcradle.core.design.operation import OpName
from levelcradle.core.design.patch import Op
from levelcradle.core.design.tables import BoltSize, Tables
from levelcradle.core.edits.boxes import edited
from levelcradle.core.errors import OutOfRange, UnknownThing
from levelcradle.core.finding import Finding, message_text
from levelcradle.core.held import held_findings
from levelcradle.core.meshes import Mesh

__all__ = ["WAYS_TO_HOLD", "held_by"]

Row = dict[str, object]
WORSE_BY = 0.01
MOST_TRIED = 24  # of one kind: an answer within two seconds
NEEDS = {
    "own_holes": "Bolts down to the floor need modules with holes from base to top, standing on either.",
    "rods": "Rods need modules with holes that lie level.",
    "ledges": "Ledges need modules with holes from base to top, one beside the other on them.",
    "straps": "",
}
SHEETS_MM = (4.0, 3.0, 2.5, 2.0, 1.5)  # in common stock: common practice, no source
STRAPS = ((1.5, 30.0, "M6"), (2.0, 40.0, "M8"), (3.0, 50.0, "M10"))  # thick, wide, their bolts
STOPS_MM = (5.0, 8.0, 12.0, 16.0)
LEAST_STOP_MM = 24.0
WIDE_MM = (60.0, 120.0, 180.0, 240.0)


def held_by(design: Design, box_id: str, kind: str, meshes: Mapping[str, Mesh]) -> list[Op]:
    """The holders of a box exchanged for others of a kind (``any``: the first of all kinds), sized so that no way is
    foul and nothing else becomes so; plates that press a stack stay. Raises UnknownThing, OutOfRange with what stands
    against it."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    if kind != "any" and kind not in WAYS_TO_HOLD:
        raise UnknownThing("way to hold", kind)
    stay = {
        key: holder.model_dump(mode="json")
        for key, holder in design.boxes[box_id].holders.items()
        if holder.type == "pressed"
    }
    bare = edited(design, [{"op": "replace", "path": f"/boxes/{box_id}/holders", "value": stay}])
    assembly = resolve(bare, meshes)
    before = {f.id: f.margin for f in analyse_assembly(assembly).findings if f.state == "foul"}
    stacks, why = assembly.boxes[box_id].shell.held.stacks, ""
    for name in WAYS_TO_HOLD if kind == "any" else (kind,):
        why = NEEDS[name]
        for holders in islice(_plans(name, stacks, bare.boxes[box_id], bare.tables), MOST_TRIED):
            ops = _put(bare.boxes[box_id], box_id, {**stay, **holders}, stacks, bare.tables)
            ops += _rails_under(edited(bare, ops), box_id)
            tried = resolve(edited(bare, ops), meshes)
            against = [f for f in held_findings(tried) if f"boxes/{box_id}" in f.subjects and _stands_against(f)]
            if not against:
                found = analyse_assembly(tried).findings
                against = [f for f in found if f.state == "foul" and f.code != "drawings.release" and _worse(f, before)]
            if not against:
                return ops
            why = message_text(against[0])
    raise OutOfRange(f"That does not hold the modules here. {why}".strip())


def _worse(finding: Finding, before: Mapping[str, float | None]) -> bool:
    """Whether it was not foul before, or less so."""
    if finding.id not in before:
        return True
    was = before[finding.id]
    return was is not None and finding.margin is not None and finding.margin < was - WORSE_BY


def _stands_against(finding: Finding) -> bool:
    """What rests on a figure that nobody has measured yet does not, if it would hold by that one."""
    if finding.code not in ("inside.held", "inside.hold_down"):
        return False
    if finding.state == "unknown" and finding.unit == "use":
        return (finding.value or 0.0) > 1
    return finding.state in ("foul", "unknown")


def _put(box: Box, box_id: str, holders: dict[str, Row], stacks: "Stacks", tables: Tables) -> list[Op]:
    """The holders; where the stack has to fit against a wall, hard layers there, thick enough for what is let into
    them."""
    path = f"/boxes/{box_id}"
    ops: list[Op] = [{"op": "replace", "path": f"{path}/holders", "value": holders}]
    if not any(row["type"] == "fit" for row in holders.values()):
        return ops
    tried = box.model_copy(update={"holders": {key: HOLDER.validate_python(row) for key, row in holders.items()}})
    stopped: set[Face] = {holder.against for holder in tried.holders.values() if holder.type == "stops"}
    stopped |= {face for h in tried.holders.values() if h.type == "pressed" for face in _faces_along(h.along)}
    for face in WALLS:
        let_in = max(room_of(tried, key, placed.stack).get(face, 0.0) for key, placed in stacks.items())
        op: OpName = "replace" if box.lining(face) else "add"
        carries = box.lining(face) and let_in <= 0 and settles(next(iter(stacks.values())), face) == ("", None)
        if face not in stopped and not carries and (box.lining(face) or let_in > 0):
            layers = _hard(box.lined_mm(face), max(let_in, 0.0), tables)
            ops.append({"op": op, "path": f"{path}/layers/{face}", "value": layers})
    return ops


def _rails_under(design: Design, box_id: str) -> Iterator[Op]:
    """The rails of a frame moved under what is bolted down to its base."""
    box = design.boxes[box_id]
    if not isinstance(box.construction, Framed):
        return
    shell = shell_of(box, design.module_kinds, design.tables)
    bolts = [(bolt, placed.stack.tables.bolts[bolt.bolts.size]) for placed, bolt in shell.held.bolts()]
    free = [
        (bolt.at[0], size.clearance_hole_mm / 2)
        for bolt, size in bolts
        if bolt.face == "base" and not shell.made.on_a_tube("base", (*bolt.at[:2], 0.0), size.clearance_hole_mm / 2)
    ]
    rails: list[list[float]] = []
    for at, half in sorted(free):
        if rails and at - rails[-1][0] <= box.construction.tube_mm - 2 * half:
            rails[-1].append(at)
        else:
            rails.append([at])
    if rails:
        front = shell.made.along_walls(0)[0]
        middles = [(row[0] + row[-1]) / 2 - front for row in rails]
        value = [round(at, 3) for at in middles]
        yield {"op": "replace", "path": f"/boxes/{box_id}/construction/rails_at_mm", "value": value}


HOLDER: TypeAdapter[Holder] = TypeAdapter(Holder)


def _hard(thick_mm: float, more_mm: float, tables: Tables) -> dict[str, Row]:
    """The hard layer nearest to a thickness; where there has to be more of it, as many of the thickest as that
    takes."""
    rows = {key: row.thickness_mm for key, row in tables.liners.items() if row.creeps == "no"}
    if not rows:
        raise OutOfRange("The table of liners has no hard one, which does not settle in time.")
    key, count = min(rows, key=lambda k: abs(rows[k] - thick_mm)), 1
    if more_mm > 0:
        key = max(rows, key=lambda k: rows[k])
        count = math.ceil((thick_mm + more_mm) / rows[key] - 1e-9)
    layer: Row = {"type": "sheet", "material": key, "thickness_mm": rows[key]}
    return {f"board-{n}": {**layer, "order": n} for n in range(1, count + 1)}


Stacks = Mapping[str, Placed]


def _plans(kind: str, stacks: Stacks, box: Box, tables: Tables) -> Iterator[dict[str, Row]]:
    """Holders of all blocks, the lightest first."""
    by_block = {key: list(WAYS_TO_HOLD[kind](placed, box, tables)) for key, placed in stacks.items()}
    if not by_block or any(not plans for plans in by_block.values()):
        return
    for n in range(max(len(plans) for plans in by_block.values())):
        yield {
            f"{name}-{key}"[:60]: {**row, "block": key}
            for key, plans in by_block.items()
            for name, row in plans[min(n, len(plans) - 1)].items()
        }


def _bolts(size: str, box: Box, tables: Tables) -> Row:
    """Studs inside a steel box, whose outside stays as it is; nuts outside of any other."""
    if tables.materials[box.material].weldable_with == "steel":
        return {"size": size, "property_class": "4.8", "into": "stud"}
    return {"size": size, "property_class": "8.8", "into": "nut"}


def _largest(tables: Tables, most_mm: float, of: Callable[[BoltSize], float]) -> str | None:
    """The thickest bolt of which something is no larger."""
    rows = [
        (row.d_mm, key) for key, row in tables.bolts.items() if row.thread == "metric" and of(row) <= most_mm + 1e-9
    ]
    return max(rows)[1] if rows else None


def _own_holes(placed: Placed, box: Box, tables: Tables) -> Iterator[dict[str, Row]]:
    holes = placed.stack.kind.mount_holes
    size = _largest(tables, holes.diameter_mm, lambda row: row.d_mm) if holes else None
    if size and placed.stack.holes_axis == 2:  # a stack that stands out from a wall on its bolts is not proposed
        yield {"bolts": {"type": "own_holes", "bolts": {"size": size, "property_class": "8.8", "into": "nut"}}}


def _ledges(placed: Placed, box: Box, tables: Tables) -> Iterator[dict[str, Row]]:
    """Under every tier, along the walls that its modules reach from one to the other; as slides where the box is filled
    that way."""
    stack, holes = placed.stack, placed.stack.kind.mount_holes
    size = _largest(tables, holes.diameter_mm, lambda row: row.d_mm) if holes else None
    if size is None or stack.holes_axis != 2:
        return
    bolt, closed = tables.bolts[size], FACE_AT[placed.made.closed_face][0]
    for along, thick in product(sorted((0, 1), key=lambda axis: axis != closed), reversed(SHEETS_MM)):
        across = 1 - along
        if stack.counts(across) > 1:
            continue
        half = stack.laid.turned.size_mm[across] / 2
        inside = half - max(abs(hole[0 if across == stack.ends_axis else 1]) for hole in placed.holes())
        free = max(2 * thick, *(placed.free_mm(face) for face in FACE_PAIRS[across]))
        ledge = {
            "material": box.material, "thickness_mm": thick, "bend_radius_mm": thick, "lowest": True,
            "leg_mm": math.ceil(free + inside + 1.2 * bolt.clearance_hole_mm + bolt.washer_mm / 2),
            "up_mm": 2 * thick + 20.0, "slide_mm": thick if closed == along else 0.0,
            "bolts": {"size": size, "property_class": "8.8", "into": "nut"},
        }  # fmt: skip
        yield {"ledges": {"type": "ledges", "along": ("aft", "across")[along], "ledge": ledge}}


def _rods(placed: Placed, box: Box, tables: Tables) -> Iterator[dict[str, Row]]:
    """On feet in the gaps where they are thick enough, else before and behind the stack; in few gaps, then in all."""
    stack, holes = placed.stack, placed.stack.kind.mount_holes
    size = _largest(tables, holes.diameter_mm, lambda row: row.d_mm) if holes else None
    if size is None or 2 in (stack.holes_axis, stack.ends_axis):
        return
    ends = FACES[2 * stack.ends_axis : 2 * stack.ends_axis + 2]
    tab = min(40.0, *(placed.free_mm(face) for face in ends))
    bolt = _largest(tables, tab, lambda row: 2 * tool_mm(row)) or min(tables.bolts, key=lambda k: tables.bolts[k].d_mm)
    washer, gaps = tables.bolts[bolt].washer_mm, stack.counts(stack.holes_axis) - 1
    most = stack.laid.turned.size_mm[stack.holes_axis]
    along = ("aft", "across", "up")[stack.holes_axis]
    gap = next((row.has_mm for row in stack.laid.rows if row.direction == along), 0.0)
    sheet = next((mm for mm in SHEETS_MM if mm <= gap), None)
    places = [("gaps", n, sheet) for n in sorted({-(-gaps // 2), gaps}) if n] if sheet else []
    for at, pairs, thick in [*places, ("ends", 2, SHEETS_MM[0])]:
        for wide, each in product(WIDE_MM, (2, 3)):
            leg = 2 * (thick or 0.0) + each * 1.5 * washer
            if wide <= stack.kind.size_mm[0] / 2 and leg <= most:
                feet = {
                    "at": at, "pairs": pairs, "up_to": "all" if stack.counts(2) > 1 else "lowest",
                    "material": box.material, "thickness_mm": thick, "bend_radius_mm": thick, "wide_mm": wide,
                    "tab_mm": max(tab, 2 * tool_mm(tables.bolts[bolt])), "leg_mm": leg,
                    "bolts": _bolts(bolt, box, tables), "each": each,
                }  # fmt: skip
                yield {"rods": {"type": "rods", "size": size, "feet": feet}}


def _straps(placed: Placed, box: Box, tables: Tables) -> Iterator[dict[str, Row]]:
    """Straps over it, stops where there is room before a side, hard boards everywhere else."""
    stack = placed.stack
    gap = next((row.has_mm for row in stack.laid.rows), 0.0)
    hard = ((key, row.thickness_mm) for key, row in tables.liners.items() if row.creeps == "no")
    between = next((key for key, thick in hard if 0 <= gap - thick <= PLAY_MM), None)
    fit: dict[str, Row] = {"fit": {"type": "fit", "between": between}}
    own = (row for row in box.holders.values() if row.type == "pressed")
    pressed = {row.along for row in own if box.blocks[row.block] is placed.stack.block}
    ways = [way for way in ("aft", "across") if way not in pressed]
    weldable = (True, False) if tables.materials[box.material].weldable_with == "steel" else (False,)
    for welded, (strap_mm, wide, bolt), stop_mm in product(weldable, STRAPS, STOPS_MM):
        for along in sorted(ways, key=lambda way: -_room_along(placed, way)):
            between_plates = [face for way in pressed for face in _faces_along(way)]
            sides = [face for face in WALLS if placed.gap_mm(face) > PLAY_MM and face not in between_plates]
            count = max(stack.counts(1 if along == "aft" else 0), 2)
            strap = {
                "count": count, "along": along, "material": box.material, "thickness_mm": strap_mm, "wide_mm": wide,
                "welded": welded, "each": 1, "bolts": _bolts(bolt, box, tables),
            }  # fmt: skip
            straps: dict[str, Row] = {"straps": {"type": "straps", "strap": strap}}
            beside = {f: wide if f in FACE_PAIRS[("aft", "across").index(along)] else 0.0 for f in sides}
            rows = {face: _stop(placed, face, box, tables, (stop_mm, beside[face]), welded=welded) for face in sides}
            stops = {f"stops-{face}": row for face, row in rows.items() if row is not None}
            if len(stops) == len(rows):
                yield fit | straps | stops


def _strongest(box: Box, tables: Tables) -> str:
    """Of the metals of the table that are welded to the box's own, the one that yields last."""
    family = tables.materials[box.material].weldable_with
    return max((m.yield_mpa, key) for key, m in tables.materials.items() if m.weldable_with == family)[1]


def _room_along(placed: Placed, along: str) -> float:
    """The room at that end of a stack where there is more."""
    return max(placed.gap_mm(face) for face in _faces_along(along))


def _faces_along(along: str) -> tuple[Face, Face]:
    one, other = FACE_PAIRS[("aft", "across").index(along)]
    return one, other


def _stop(
    placed: Placed, face: Face, box: Box, tables: Tables, thick_and_strap: tuple[float, float], *, welded: bool
) -> Row | None:
    """Up to the highest tier, and as wide as there is room for between straps that come down before the same face; None
    where that is no width."""
    laid, (thick, strap) = placed.stack.laid, thick_and_strap
    side = 1 if face in ("front", "aft") else 0
    rows = placed.stack.counts(side)
    count = max(rows, 2) - 1
    size = "M8" if thick < 8 else "M10"
    wide = min(laid.size_mm[side] / (count + 1) - strap - 4.0, 300.0)
    if wide < LEAST_STOP_MM:
        return None
    high = placed.free_mm("base") + laid.size_mm[2] - laid.turned.size_mm[2] + 2 * thick + 20.0
    stop = {
        "count": count, "material": _strongest(box, tables), "thickness_mm": thick, "bend_radius_mm": thick,
        "high_mm": high, "wide_mm": wide, "welded": welded,
        "leg_mm": max(min(60.0, placed.gap_mm(face)), 2 * thick + 2 * tool_mm(tables.bolts[size])),
        "bolts": _bolts(size, box, tables), "each": max(min(int(wide / (2 * tool_mm(tables.bolts[size]))), 6), 1),
    }  # fmt: skip
    return {"type": "stops", "against": face, "stop": stop}


WAYS_TO_HOLD = {"own_holes": _own_holes, "rods": _rods, "straps": _straps, "ledges": _ledges}
