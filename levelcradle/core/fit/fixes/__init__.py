"""What would it take: the smallest changes, alone or a few together, after which a box is no longer foul.

Each change is tried as a patch and run through all checks. It is whole where the box is foul no more and nothing else
has become so; one that leaves something foul says what, and is partial: it needs a second change. What it costs
elsewhere is read off the same two analyses."""

from collections.abc import Callable, Mapping

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import Assembly, resolve
from levelcradle.core.axes import Vec
from levelcradle.core.design import Design
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import message_text, plain
from levelcradle.core.fit.fixes.closer import set_closer
from levelcradle.core.fit.fixes.cut_off import edges_cut
from levelcradle.core.fit.fixes.fix import Answer, Axis, Cost, Fix, in_order
from levelcradle.core.fit.fixes.laid import stood_another_way
from levelcradle.core.fit.fixes.question import FARTHEST_MM, Question
from levelcradle.core.fit.fixes.single import Fixes, fewer, gaps_agreed, moves, things_moved, walls, wedge_travel_mm
from levelcradle.core.fit.options import hindrances, room_of
from levelcradle.core.fit.stand import solve_placement
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.meshes import Mesh

__all__ = ["Answer", "Axis", "Cost", "Fix", "least_foul", "wedge_travel_mm", "what_it_takes"]

SINGLE: tuple[Callable[[Question], Fixes], ...] = (moves, fewer, walls, things_moved, gaps_agreed)
TOGETHER: tuple[Callable[[Question], Fixes], ...] = (edges_cut, set_closer, stood_another_way)


def what_it_takes(
    design: Design, box_id: str, more: Axis | None = None, *, meshes: Mapping[str, Mesh], together: bool = True
) -> Answer:
    """The fixes of a box that is foul; with ``more``, of the box with one more row aft, row across or tier.

    Args:
        together: also changes that clear only together, which take longer to find.
    Raises: UnknownThing.
    """
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    before, name = analyse(design, meshes), plain(design.boxes[box_id].name)
    if more is None:
        return _answer(f"{name}: what would clear it", Question(design, box_id, (), before, meshes), together)
    words = {"aft": "the next row along", "across": "the next row across", "up": "the next tier"}[more]
    ops = _best_place(design, box_id, _one_more(design, box_id, more), meshes)
    return _answer(f"{name}: {words}", Question(design, box_id, ops, before, meshes), together)


def _answer(asks: str, question: Question, together: bool) -> Answer:
    out = question.out()
    if out:
        asks = f"{asks}: {'; '.join(message_text(f) for f in out)}"
    if not question.foul:
        return Answer(asks, not out, question.base, (), tuple(message_text(f) for f in out))
    makers = (*SINGLE, *TOGETHER) if together else SINGLE
    rows = sorted((fix for make in makers for fix in make(question) if fix is not None), key=in_order)
    whole = [fix for fix in rows if fix.whole]
    best = (*whole[:10], *[fix for fix in rows if not fix.whole][: 4 if whole else 7])
    return Answer(asks, False, question.base, best, tuple(message_text(f) for f in question.foul[:4]))


def _one_more(design: Design, box_id: str, way: Axis) -> list[Op]:
    """A row or tier more of its largest block."""
    name, block = max(design.boxes[box_id].blocks.items(), key=lambda row: row[1].counts.total)
    return [
        {
            "op": "replace",
            "path": f"/boxes/{box_id}/blocks/{name}/counts/{way}",
            "value": getattr(block.counts, way) + 1,
        }
    ]


def _best_place(before: Design, box_id: str, ops: list[Op], meshes: Mapping[str, Mesh]) -> list[Op]:
    """The larger box where it stands, or where it would stand clear in its bay."""
    design = edited(before, ops)
    box = design.boxes[box_id]
    if box.bay is None or box.pose.yaw_deg or box.pose.pitch_deg or box.pose.roll_deg:
        return ops
    alone = design.model_copy(
        update={
            "boxes": {k: b for k, b in design.boxes.items() if k != box_id},
            "mounts": {k: m for k, m in design.mounts.items() if m.box != box_id},
        }
    )
    kinds = tuple({block.kind for block in box.blocks.values()})
    stands = room_of(alone, box.bay, Wishes(kinds=kinds, bays=(box.bay,)), meshes=meshes).stand(box)
    path = f"/boxes/{box_id}/pose"
    if stands is None:
        return [
            *ops,
            {"op": "replace", "path": f"{path}/at_mm", "value": list(least_foul(resolve(design, meshes), box_id))},
        ]
    return [*ops, {"op": "replace", "path": path, "value": stands.pose.model_dump(mode="json")}]


def least_foul(assembly: Assembly, box_id: str) -> Vec:
    """Where the anchor of a box is best put, near where it stands, so that its gaps lack least; in tenths."""
    box = assembly.boxes[box_id]
    pieces = [piece.solid for piece in box.pieces if piece.mount is None]
    low, high = (-FARTHEST_MM, -FARTHEST_MM, -FARTHEST_MM), (FARTHEST_MM, FARTHEST_MM, FARTHEST_MM)
    by = solve_placement(pieces, hindrances(assembly, box), (0.0, 0.0, 0.0), low, high, (0.0, 0.0, 0.0)).at
    x, y, z = (round(a + b, 1) for a, b in zip(box.box.pose.at_mm, by, strict=True))
    return x, y, z
