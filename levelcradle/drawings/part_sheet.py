"""A page for one flat part: its blank with dimensions, holes, bends and notes; its table goes on over as many as it
takes."""

from collections.abc import Iterator

from levelcradle.core.part import FlatPart
from levelcradle.drawings.border import FOOT_MM, Job, border
from levelcradle.drawings.sheet import Flow, Frame, Point, Sheet, Spot

__all__ = ["part_sheets"]

TABLE_MM, ROW_MM = 92.0, 4.6  # what a table takes beside the drawing, and a row of it
LOW_MM, TOP_MM = FOOT_MM + 6.0, 22.0  # over the foot, and below the upper edge


def part_sheets(part: FlatPart, job: Job) -> list[Sheet]:
    sheet = Sheet(part.id, f"{part.name}, flat", job.paper, part.id)
    (left, low), (right, high) = _corners(part)
    paper = job.paper
    window = (26.0, LOW_MM + 10, paper.wide_mm - 26 - 14 - TABLE_MM, paper.tall_mm - LOW_MM - 10 - TOP_MM)
    frame = Frame.fit((left, low), (right, high), window)
    sheet.outline([frame.at(p) for p in part.outline])
    for number, hole in enumerate(part.holes, 1):
        centre = frame.at(hole.at)
        sheet.ring(centre, max(hole.diameter_mm / 2 * frame.scale, 0.4))
        sheet.words((centre[0] + 1.6, centre[1] + 1.2), str(number), 2.6)
    for bend in part.bends:
        sheet.line(frame.at(bend.start), frame.at(bend.end), dashed=True)
    sheet.dimension(frame.at((left, low)), frame.at((right, low)), f"{right - left:.1f}", -9)
    sheet.dimension(frame.at((left, low)), frame.at((left, high)), f"{high - low:.1f}", -9)
    sheets = [sheet, *_table(sheet, part, job, (left, low))]
    facts = (f"{part.material_name}, {part.thickness_mm:g} mm", f"{part.quantity} off, {part.mass_kg:.2f} kg each")
    for number, each in enumerate(sheets, 1):
        title = part.name if len(sheets) == 1 else f"{part.name}, sheet {number} of {len(sheets)}"
        border(each, job, title, facts, part.notes, scale=frame.scale)
    return sheets


def _corners(part: FlatPart) -> tuple[Point, Point]:
    xs, ys = [p[0] for p in part.outline], [p[1] for p in part.outline]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _table(sheet: Sheet, part: FlatPart, job: Job, zero: Point) -> list[Sheet]:
    """Holes and bend lines by their distances from the blank's left and lower edges; the sheets on which they go on."""
    wide, top = job.paper.wide_mm, job.paper.tall_mm - TOP_MM
    fits = int((top - LOW_MM) / ROW_MM)
    beside = Flow(lambda _: sheet, lambda _: top, LOW_MM, wide - 8 - TABLE_MM)
    further = Flow(
        lambda n: Sheet(f"{part.id}-{n + 2}", f"{part.name}, flat", job.paper),
        lambda _: top,
        LOW_MM,
        14.0,
        TABLE_MM,
        int((wide - 22) / TABLE_MM),
    )
    for number, cells in enumerate(_rows(part, zero)):
        flow = beside if number < fits - 1 else further
        spot = flow.row(ROW_MM, 2 * ROW_MM)
        if spot.first:
            spot.sheet.words(spot.at, "From the left and lower edge of the blank", 2.8)
            spot = flow.row(ROW_MM)
        _row(spot, cells)
    return further.sheets


def _rows(part: FlatPart, zero: Point) -> Iterator[tuple[str, ...]]:
    for number, hole in enumerate(part.holes, 1):
        yield (
            f"hole {number}",
            _figure(hole.at[0] - zero[0]),
            _figure(hole.at[1] - zero[1]),
            f"⌀ {hole.diameter_mm:g}",
            hole.purpose,
        )
    for bend in part.bends:
        middle = ((bend.start[0] + bend.end[0]) / 2 - zero[0], (bend.start[1] + bend.end[1]) / 2 - zero[1])
        upright = abs(bend.start[0] - bend.end[0]) < 1e-6
        at = (_figure(middle[0]), "") if upright else ("", _figure(middle[1]))
        yield "bend", *at, f"{round(bend.angle_deg, 1):g}° {'up' if bend.up else 'down'}", f"R {bend.radius_mm:g}"


def _row(spot: Spot, cells: tuple[str, ...]) -> None:
    for offset, text in zip((0, 18, 34, 50, 66), cells, strict=True):
        spot.sheet.words((spot.at[0] + offset, spot.at[1]), text[:16], 2.8)


def _figure(value_mm: float) -> str:
    return f"{value_mm:.1f}"
