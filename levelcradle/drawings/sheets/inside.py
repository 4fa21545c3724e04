"""What is in a box: sections through all its layers, and how the modules lie, with terminals and order."""

import math
from collections.abc import Iterator, Sequence

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.box import ShellModule
from levelcradle.core.clearance import Axis
from levelcradle.core.modules import terminal_plates
from levelcradle.core.solids import Solid, convex_ring, surface_of
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.letters import shortened
from levelcradle.drawings.linework import AFTER, PLAN, SIDE, Body, Look, extent
from levelcradle.drawings.sheet import Flow, Frame, Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import box_bodies, put, turned_words

__all__ = ["module_sheets", "section_sheet"]

LAYERS_MM, ROW_MM, TOP_MM, LOW_MM = 78.0, 4.2, 24.0, FOOT_MM + 8.0
TERMINAL_MM = 2.1
METAL, INSIDE = "#444", "#e4e4e4"  # readable in grey


def section_sheet(subject: Subject, letter: str, box: PlacedBox) -> Sheet:
    """Along and across, through the middle of the module nearest the middle, and what stands on each of the lines."""
    job = subject.job
    sheet = Sheet(f"{letter}-sections", f"Box {letter}, sections: {box.name}", job.paper, about=(box.path,))
    number, at = _through(box)
    wide, tall = job.paper.wide_mm - 24 - LAYERS_MM - 16, job.paper.tall_mm - TOP_MM - LOW_MM
    windows = (
        (SIDE, 1, (18.0, LOW_MM + tall / 2 + 4, wide, tall / 2 - 10)),
        (AFTER, 0, (18.0, LOW_MM + 4, wide, tall / 2 - 10)),
    )
    room = [Body(tuple(p.solid for p in box.shell.outside), 0.25)]
    scale = min(Frame.fit(*extent(room, look), window).scale for look, _, window in windows)
    for look, axis, window in windows:
        low, high = extent(room, look)
        left = window[0] + (window[2] - (high[0] - low[0]) * scale) / 2
        frame = Frame((left, window[1] + (window[3] - (high[1] - low[1]) * scale) / 2), low, scale)
        _section(sheet, box, look, axis, at[axis], frame)
        x, y = frame.at((low[0], high[1]))
        where = f"{job.length(at[axis])} from its {'left' if axis == 1 else 'front'} side"
        sheet.words((x, y + 2.5), f"section {'along' if axis == 1 else 'across'}, {where}", 2.8, bold=True)
    _layers(sheet, subject, box, number, (job.paper.wide_mm - 8 - LAYERS_MM, job.paper.tall_mm - TOP_MM))
    notes = ("Cut metal dark, modules light with their number. The table: what stands on the line through the module",)
    border(sheet, job, f"{letter}, sections: {box.name}", (), notes, scale=scale)
    return sheet


def _through(box: PlacedBox) -> tuple[int, Vec]:
    """Number and middle of the module nearest the middle of the box; of an empty one 0 and the middle."""
    x, y, z = (v / 2 for v in box.shell.outer_mm)
    places = [(m.number, _middle(m.low, m.high)) for m in box.shell.modules] or [(0, (x, y, z))]
    return min(places, key=lambda p: math.dist(p[1], (x, y, z)))


def _section(sheet: Sheet, box: PlacedBox, look: Look, axis: int, at_mm: float, frame: Frame) -> None:
    for piece in box.shell.pieces:
        for solid in piece.solids:
            ring = _cut(solid, axis, at_mm, look)
            if len(ring) > 2:
                sheet.outline([frame.at(p) for p in ring], 0.18, fill=METAL)
    for module in box.shell.modules:
        if module.low[axis] < at_mm < module.high[axis]:
            (x0, y0), (x1, y1) = frame.at(look.at(module.low)), frame.at(look.at(module.high))
            sheet.outline([(x0, y0), (x1, y0), (x1, y1), (x0, y1)], 0.25, fill=INSIDE)
            sheet.words(((x0 + x1) / 2, (y0 + y1) / 2 - 1.2), str(module.number), 3.2, "middle", bold=True)


def _cut(solid: Solid, axis: int, at_mm: float, look: Look) -> list[tuple[float, float]]:
    """A convex solid cut by a plane square to an axis."""
    if not solid.low[axis] < at_mm < solid.high[axis]:
        return []
    return convex_ring([look.at(p) for p in _crossings(solid, axis, at_mm)])


def _crossings(solid: Solid, axis: int, at_mm: float) -> Iterator[Vec]:
    """Where lines between any two corners of a convex solid cross the plane: their hull is the section."""
    points, _ = surface_of(solid)
    below, above = points[points[:, axis] <= at_mm], points[points[:, axis] > at_mm]
    for a in below:
        for b in above:
            share = (at_mm - a[axis]) / (b[axis] - a[axis])
            p = a + (b - a) * share
            yield float(p[0]), float(p[1]), float(p[2])


WAYS: tuple[tuple[Axis, str], ...] = (("aft", "front to aft"), ("across", "left to right"), ("up", "from below up"))


def _layers(sheet: Sheet, subject: Subject, box: PlacedBox, module: int, corner: tuple[float, float]) -> None:
    """Every allowance along a line through the module each way, as far as the next thing."""
    flow = Flow(lambda _: sheet, lambda _: corner[1], LOW_MM, corner[0])
    fits = max(2, (int((corner[1] - LOW_MM) / ROW_MM) - 2 * len(WAYS)) // len(WAYS))
    for way, words in WAYS:
        rows = _rows(subject, box, way, module)
        sheet.words(flow.row(ROW_MM).at, words, 2.8, bold=True)
        shown = rows if len(rows) <= fits else rows[: fits - 1]
        for what, mm in shown:
            spot = flow.row(ROW_MM)
            sheet.words(spot.at, shortened(what, LAYERS_MM - 24, 2.6), 2.6)
            sheet.words((spot.at[0] + LAYERS_MM - 4, spot.at[1]), subject.job.length(mm), 2.6, "end")
        if len(shown) < len(rows):
            sheet.words(flow.row(ROW_MM).at, f"and {len(rows) - len(shown)} more: see “Stack-up”", 2.6)
        flow.row(ROW_MM / 2)


def _rows(subject: Subject, box: PlacedBox, way: Axis, module: int) -> list[tuple[str, float]]:
    chain = subject.stack_up(box, way, _before(subject, box) + module if module else None)
    return [(row.what, row.mm) for row in chain.rows if row.mm] if chain else []


def module_sheets(subject: Subject, letter: str, box: PlacedBox) -> Iterator[Sheet]:
    """How the modules lie, seen from above in the box: a view of each layer with numbers through all boxes, terminals
    and what each faces up."""
    job, before = subject.job, _before(subject, box)
    floors = sorted({round(m.low[2], 1) for m in box.shell.modules})
    for number, floor in enumerate(floors):
        name = f"{letter}-modules" + (f"-{number + 1}" if number else "")
        layer = f", layer {number + 1} of {len(floors)}" if len(floors) > 1 else ""
        title = f"Box {letter}, modules{layer}: {box.name}"
        sheet = Sheet(name, title, job.paper, about=(box.path,))
        window = (26.0, LOW_MM + 8, job.paper.wide_mm - 52, job.paper.tall_mm - TOP_MM - LOW_MM - 16)
        bodies = box_bodies(box, lid=False)
        frame = Frame.fit(*extent(bodies, PLAN), window)
        put(sheet, bodies, PLAN, frame)
        held = [m for m in box.shell.modules if round(m.low[2], 1) == floor]
        for module in held:
            (x0, y0), (x1, y1) = frame.at(PLAN.at(module.low)), frame.at(PLAN.at(module.high))
            sheet.outline([(x0, y0), (x1, y0), (x1, y1), (x0, y1)], 0.35, fill="#fff")
            room = min(x1 - x0, y1 - y0)
            size = min(7.0, max(2.6, room / 3))
            sheet.words(
                ((x0 + x1) / 2, (y0 + y1) / 2 - size * 0.36), str(before + module.number), size, "middle", bold=True
            )
            _terminals(sheet, frame, module)
        low, high = extent(bodies, PLAN)
        turned_words(sheet, box, PLAN, (frame.at(low), frame.at(high)), (6.0, 9.0, 2.5, 7.0))
        kinds = sorted({m.spec.name for m in held})
        facts = (
            f"{len(held)} modules, {', '.join(kinds)}",
            f"numbers {before + held[0].number} to {before + held[-1].number}",
        )
        border(sheet, job, title, facts, tuple(_order(box, held)), scale=frame.scale)
        yield sheet


def _terminals(sheet: Sheet, frame: Frame, module: ShellModule) -> None:
    """Those that stand over each other are drawn beside each other, the upper one first."""
    plates = terminal_plates(module.low, module.high, module.looks, module.spec)
    rows = sorted(((sign, _middle(low, high)) for sign, low, high in plates), key=lambda row: -row[1][2])
    places = [frame.at(PLAN.at(at)) for _, at in rows]
    if math.dist(*places) < 2 * TERMINAL_MM:
        (x, y), _ = places
        places = [(x - TERMINAL_MM, y), (x + TERMINAL_MM, y)]
    for (sign, _), (x, y) in zip(rows, places, strict=True):
        sheet.ring((x, y), TERMINAL_MM - 0.2, 0.25, fill="#fff")
        sheet.words((x, y - 1.0), sign, 2.8, "middle", bold=True)


def _middle(low: Vec, high: Vec) -> Vec:
    return (low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2


def _before(subject: Subject, box: PlacedBox) -> int:
    rows = list(subject.assembly.in_order())
    return sum(len(other.shell.modules) for other in rows[: rows.index(box)])


FACES = {
    "end_a": "one end",
    "end_b": "the other end",
    "side_a": "one side",
    "side_b": "the other side",
    "base": "its base",
    "top": "its top",
}


def _order(box: PlacedBox, held: Sequence[ShellModule]) -> Iterator[str]:
    """The order they go in, and how each block stands."""
    yield "Put in by their numbers. Live from the first module on: insulate each terminal until it is linked"
    for key, block in box.box.blocks.items():
        mine = [m for m in held if m.block == key]
        if mine:
            yield f"Block {key}: {len(mine)} here, {FACES[block.turn.down]} down, {FACES[block.turn.aft]} aft"
