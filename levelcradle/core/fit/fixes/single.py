"""Changes of one kind: the box moved, emptied of a row; the vehicle cut back, a thing put elsewhere; a gap agreed
away."""

import math
from collections.abc import Iterator

from levelcradle.core.axes import Vec
from levelcradle.core.design.carried import shifted
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.survey import Item, Keepout
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.fit.fixes.fix import Fix
from levelcradle.core.fit.fixes.question import FARTHEST_MM, MOVES, Question, gaps_of
from levelcradle.core.fit.space import ClearanceConstraint
from levelcradle.core.fit.stand import STEP_MM, least_travel_mm, pressing

__all__ = ["Fixes", "fewer", "gaps_agreed", "moves", "things_moved", "walls", "wedge_travel_mm"]

Fixes = Iterator[Fix | None]


def wedge_travel_mm(angle_deg: float) -> float:
    """How far a box travels along a wall for each millimetre taken off its side, the wall standing at ``angle_deg`` to
    that side's direction. Source: trigonometry (tan), rule of thumb of the trade."""
    return math.tan(math.radians(angle_deg))


def moves(question: Question) -> Fixes:
    """Straight moves along one axis, as far as the gaps ask and no further."""
    for move in MOVES:
        far = question.travel(question.pieces, move)
        if far:
            words = f"move the box {{0}} {move.word}"
            yield question.fix("move", "box", words, (Figure(far, "mm", "up"),), question.moved(move, far), size=far)


def fewer(question: Question) -> Fixes:
    """One row less, where nothing more was asked for."""
    if question.base:
        return
    for name, block in question.box.blocks.items():
        for way in ("aft", "across", "up"):
            count = getattr(block.counts, way)
            if count > 1:
                lost = block.counts.total // count
                words = (
                    f"leave out {lost} module{'s' if lost > 1 else ''}: {count - 1} {'tiers' if way == 'up' else way}"
                )
                ops = [question.replace(f"blocks/{name}/counts/{way}", count - 1)]
                yield question.fix("fewer", "box", words, (), ops, size=float(lost))


def walls(question: Question) -> Fixes:
    """A side of the bay cut back over its whole face; of one that leans, also what shaving the box wins along it."""
    for finding in gaps_of(question.foul):
        wall = question.assembly.thing_at(finding.subjects[1])
        if wall is None or wall.kind != "side" or wall.bay is None or wall.side is None:
            continue
        short = math.ceil(round(-(finding.margin or 0.0) / STEP_MM, 6)) * STEP_MM
        words, ops = f"{plain(finding.label)} {{0}} further back", _hollow(wall.bay, wall.side, short)
        figures = (Figure(short, "mm", "up"),)
        yield question.fix("wall", "vehicle", words, figures, ops, size=short, button=False, at=_at(finding))
        yield from _wedge(question, finding, short)


def _hollow(bay: str, side: str, mm: float) -> list[Op]:
    far = 20_000.0
    spans = {
        "left": ("fore_mm", "aft_mm", "low_mm", "high_mm"),
        "right": ("fore_mm", "aft_mm", "low_mm", "high_mm"),
        "floor": ("fore_mm", "aft_mm", "left_mm", "right_mm"),
        "top": ("fore_mm", "aft_mm", "left_mm", "right_mm"),
    }.get(side, ("left_mm", "right_mm", "low_mm", "high_mm"))
    value: dict[str, object] = {"name": "cut back", "side": side, "hollow": True, "proud_mm": mm}
    value |= {name: far if n % 2 else -far for n, name in enumerate(spans)}
    return [{"op": "add", "path": f"/bays/{bay}/lumps/cut-back-{side}", "value": value}]


def _wedge(question: Question, finding: Finding, short_mm: float) -> Fixes:
    """Along a wall that leans in plan: so much off the width wins so much travel."""
    way = [
        p
        for p in pressing(question.pieces, question.things, (0.0, 0.0, 0.0), 0.0)
        if p.thing.what == finding.subjects[1]
    ]
    if not way:
        return
    x, y = (abs(v) for v in max(way, key=lambda p: -p.spare_mm).away[:2])
    if min(x, y) < 0.03:
        return
    narrow, along = ("width", "aft or fore") if y > x else ("length", "sideways")
    lean = math.degrees(math.atan2(max(x, y), min(x, y)))
    off = short_mm / max(x, y)
    words = f"{{0}} off its {narrow} clears it: along this wall that is worth {{1}} of travel {along}"
    figures = (Figure(off, "mm", "up"), Figure(off * wedge_travel_mm(lean), "mm", "down"))
    yield Fix(
        "wedge",
        "box",
        words,
        figures,
        off,
        False,
        (),
        ("has to be made smaller by another change",),
        None,
        _at(finding),
    )


def things_moved(question: Question) -> Fixes:
    """The thing in the way moved off, the least way, where it is one that can be put elsewhere."""
    movable: dict[str, Item | Keepout] = {f"items/{key}": item for key, item in question.asked.items.items()}
    movable |= {f"keepouts/{key}": space for key, space in question.asked.keepouts.items()}
    for finding in gaps_of(question.foul):
        path = finding.subjects[1]
        row = movable.get(path)
        held = [t for t in question.things if t.what == path]
        if row is None or not held or not _can_move(row):
            continue
        own = [ClearanceConstraint(solid, held[0].need_mm, "", "") for solid in question.pieces]
        ways = [
            (far, n)
            for n, move in enumerate(MOVES)
            if (far := least_travel_mm([t.solid for t in held], own, move.axis, move.sign, FARTHEST_MM))
        ]
        if not ways:
            continue
        far, n = min(ways)
        tree = row.model_dump(mode="json", by_alias=True)
        ops = list(shifted(f"/{path}", tree, MOVES[n].by(far)))
        words = f"{plain(row.name)} {{0}} {MOVES[n].word}"
        yield question.fix(
            "thing", "vehicle", words, (Figure(far, "mm", "up"),), ops, size=far, button=False, at=_at(finding)
        )


def _can_move(row: Item | Keepout) -> bool:
    """What goes in can be put elsewhere, and room that is only kept; what stays stays, above all axles and what moves
    with them."""
    if isinstance(row, Keepout):
        return row.kind in ("hand", "tool", "airflow", "corridor", "other")
    return (
        row.state == "in"
        and row.structure != "axle"
        and row.gap_class not in ("axle", "moving")
        and row.held_by is None
    )


def gaps_agreed(question: Question) -> Fixes:
    """A smaller gap, where there is any gap at all: it says what the rule's is for."""
    for finding in gaps_of(question.foul):
        if finding.value is None or finding.value < 1.0 or finding.code == "gap.crush":
            continue
        value = math.floor(finding.value * 2) / 2
        one, other = finding.subjects
        row = {
            "one": one,
            "other": other,
            "need_mm": value,
            "reason": f"accepted: {finding.limit:g} by rule, {finding.rationale}"[:120],
        }
        key = free_id("gap", question.asked.agreed_gaps)
        words = f"the gap to {plain(finding.label)} cut from {{0}} to {{1}}: {plain(finding.rationale)}"
        figures = (Figure(finding.limit or 0.0, "mm", "up"), Figure(value, "mm", "down"))
        ops: list[Op] = [{"op": "add", "path": f"/agreed_gaps/{key}", "value": row}]
        yield question.fix("gap", "rule", words, figures, ops, size=(finding.limit or 0.0) - value, at=_at(finding))


def _at(finding: Finding) -> Vec | None:
    return finding.points_mm[1] if len(finding.points_mm) == 2 else None
