"""A page for one flat part: its blank with dimensions, holes, bends and notes, and how it looks folded; its table goes
on over as many as it takes."""

from collections.abc import Iterator
from typing import Literal

from levelcradle.core.part import FlatPart
from levelcradle.drawings.border import FOOT_MM, SMALLEST_MM, Job, border
from levelcradle.drawings.letters import shortened
from levelcradle.drawings.linework import INTO, Body
from levelcradle.drawings.names import file_stem
from levelcradle.drawings.running import Measured, running
from levelcradle.drawings.sheet import Flow, Frame, Point, Sheet, Spot
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import fitted, put

__all__ = ["part_sheets"]

TABLE_MM, ROW_MM = 92.0, 4.6  # what a table takes beside the drawing, and a row of it
LOW_MM, TOP_MM = FOOT_MM + 6.0, 22.0  # over the foot, and below the upper edge
FOLDED_MM = 44.0  # how high the folded view stands under the table
CELLS_MM = (0.0, 16.0, 34.0, 52.0, 71.0, TABLE_MM - 2)


def part_sheets(subject: Subject, part: FlatPart) -> list[Sheet]:
    job, paper = subject.job, subject.job.paper
    about = tuple(dict.fromkeys(path for one in part.each for path in one.of))
    ids = tuple(one.id for one in part.each)
    sheet = Sheet(part.mark, f"{part.mark} {part.name}", paper, file_stem(part), about, ids)
    (left, low), (right, high) = _corners(part)
    across, up = _measured(part, 0), _measured(part, 1)
    beside, below = 12.0 + up.reach_mm(job), LOW_MM + across.reach_mm(job)
    window = (beside, below, paper.wide_mm - beside - 14 - TABLE_MM, paper.tall_mm - below - TOP_MM)
    frame = Frame.fit((left, low), (right, high), window)
    _flat(sheet, part, frame)
    running(sheet, frame, across, low, job, upright=False, limit_mm=paper.wide_mm - TABLE_MM - 12)
    running(sheet, frame, up, left, job, upright=True, limit_mm=paper.tall_mm - TOP_MM)
    _folded(sheet, subject, part)
    sheets = [sheet, *_table(sheet, part, job, (left, low))]
    goes = [one.name for one in part.each] if part.quantity > 1 else []
    notes = (*part.notes, *((f"All alike, they go to: {', '.join(goes)}",) if goes else ()))
    facts = (f"{part.material_name}, {part.thickness_mm:g} mm", f"{part.quantity} off, {part.mass_kg:.2f} kg each")
    for number, each in enumerate(sheets, 1):
        each.title = sheet.title if number == 1 else f"{part.mark} {part.name}, sheet {number} of {len(sheets)}"
        border(each, job, each.title, facts, notes, scale=frame.scale)
    return sheets


def _flat(sheet: Sheet, part: FlatPart, frame: Frame) -> None:
    (left, low), (right, high) = _corners(part)
    sheet.outline([frame.at(p) for p in part.outline])
    for number, cutout in enumerate(part.cutouts, 1):
        sheet.outline([frame.at(p) for p in cutout.outline])
        x, y = frame.at(cutout.middle)
        sheet.words((x, y - 0.9), f"cut-out {number}", SMALLEST_MM, "middle")
    for number, hole in enumerate(part.holes, 1):
        (x, y), radius = frame.at(hole.at), max(hole.diameter_mm / 2 * frame.scale, 0.4)
        sheet.ring((x, y), radius)
        # its number stands along the nearest edge, where no line is
        beside = min(hole.at[0] - left, right - hole.at[0]) > min(hole.at[1] - low, high - hole.at[1])
        at = (x + radius + 0.8, y - 0.9) if beside else (x, y + radius + 0.8)
        sheet.words(at, str(number), SMALLEST_MM, "start" if beside else "middle")
    for number, bend in enumerate(part.bends_in_order, 1):
        start, end = frame.at(bend.start), frame.at(bend.end)
        sheet.line(start, end, dashed=True)
        if len(part.bends) > 1:
            (x, y), upright = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2), abs(start[0] - end[0]) < 1e-6
            sheet.words((x + 0.8, y) if upright else (x, y + 0.8), f"b{number}", SMALLEST_MM)


def _measured(part: FlatPart, axis: Literal[0, 1]) -> Measured:
    """Corners, bend lines that run across the edge, and holes."""
    corners = [point[axis] for ring in (part.outline, *(cut.outline for cut in part.cutouts)) for point in ring]
    bends = [b.start[axis] for b in part.bends if abs(b.start[axis] - b.end[axis]) < 1e-6]
    return Measured((*corners, *bends), tuple(hole.at[axis] for hole in part.holes))


def _folded(sheet: Sheet, subject: Subject, part: FlatPart) -> None:
    """How it looks when it is bent, from a corner; not to the scale of the flat."""
    folded = subject.folded(part) if part.bends else None
    if folded is None:
        return
    own = folded.in_own_frame()
    bodies = [Body(tuple(own.solids()), mesh=own.mesh())]
    left = sheet.paper.wide_mm - 8 - TABLE_MM
    put(sheet, bodies, INTO, fitted(bodies, INTO, (left + 4, LOW_MM, TABLE_MM - 12, FOLDED_MM - 8)))
    sheet.words((left, LOW_MM + FOLDED_MM - 5), "folded, not to scale", 2.6)


def _corners(part: FlatPart) -> tuple[Point, Point]:
    xs, ys = [p[0] for p in part.outline], [p[1] for p in part.outline]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _table(sheet: Sheet, part: FlatPart, job: Job, zero: Point) -> list[Sheet]:
    """Holes and bend lines by their distances from the blank's left and lower edges; the sheets on which they go on."""
    wide, top = job.paper.wide_mm, job.paper.tall_mm - TOP_MM
    low = LOW_MM + (FOLDED_MM if part.bends else 0.0)
    fits = int((top - low) / ROW_MM)
    beside = Flow(lambda _: sheet, lambda _: top, low, wide - 8 - TABLE_MM)
    further = Flow(
        lambda n: Sheet(f"{part.mark}-{n + 2}", sheet.title, job.paper, about=sheet.about),
        lambda _: top,
        LOW_MM,
        14.0,
        TABLE_MM,
        int((wide - 22) / TABLE_MM),
    )
    # in two units there is no room: the figures along the edges say both
    unit = ", mm" if job.lengths == "both" else ""
    for number, cells in enumerate(_rows(part, zero, job.in_one_unit)):
        flow = beside if number < fits - 1 else further
        spot = flow.row(ROW_MM)
        if spot.first:
            spot.sheet.words(spot.at, f"From the left and lower edge of the blank{unit}", 2.8)
            spot = flow.row(ROW_MM)
        _row(spot, cells)
    return further.sheets


def _rows(part: FlatPart, zero: Point, job: Job) -> Iterator[tuple[str, ...]]:
    for number, hole in enumerate(part.holes, 1):
        yield (
            f"hole {number}",
            job.length(hole.at[0] - zero[0]),
            job.length(hole.at[1] - zero[1]),
            f"⌀ {job.size(hole.diameter_mm)}",
            hole.purpose,
        )
    for number, cutout in enumerate(part.cutouts, 1):
        (x, y), (wide, tall) = cutout.middle, cutout.size_mm
        yield (
            f"cut-out {number}",
            job.length(x - zero[0]),
            job.length(y - zero[1]),
            f"{job.size(wide)} × {job.size(tall)}",
            cutout.purpose,
        )
    for number, bend in enumerate(part.bends_in_order, 1):
        middle = ((bend.start[0] + bend.end[0]) / 2 - zero[0], (bend.start[1] + bend.end[1]) / 2 - zero[1])
        upright = abs(bend.start[0] - bend.end[0]) < 1e-6
        at = (job.length(middle[0]), "") if upright else ("", job.length(middle[1]))
        yield (
            f"bend b{number}" if len(part.bends) > 1 else "bend",
            *at,
            f"{round(bend.angle_deg, 1):g}° {'up' if bend.up else 'down'}",
            f"R {job.size(bend.radius_mm)}",
        )


def _row(spot: Spot, cells: tuple[str, ...]) -> None:
    for left, right, text in zip(CELLS_MM, CELLS_MM[1:], cells, strict=False):
        spot.sheet.words((spot.at[0] + left, spot.at[1]), shortened(text, right - left - 1, 2.8), 2.8)
