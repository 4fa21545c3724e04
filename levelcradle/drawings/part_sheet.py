"""A page for one flat part: its blank with dimensions, holes, bends and notes."""

from levelcradle.core.part import FlatPart
from levelcradle.drawings.border import border
from levelcradle.drawings.sheet import Frame, Point, Sheet

__all__ = ["part_sheet"]

WINDOW = (26.0, 62.0, 160.0, 118.0)
TABLE = (200.0, 182.0)
MOST_ROWS = 24


def part_sheet(part: FlatPart, design: str, *, released: bool) -> Sheet:
    sheet = Sheet(part.id, f"{part.name}, flat")
    (left, low), (right, high) = _corners(part)
    frame = Frame.fit((left, low), (right, high), WINDOW)
    sheet.outline([frame.at(p) for p in part.outline])
    for number, hole in enumerate(part.holes, 1):
        centre = frame.at(hole.at)
        sheet.ring(centre, max(hole.diameter_mm / 2 * frame.scale, 0.4))
        sheet.words((centre[0] + 1.6, centre[1] + 1.2), str(number), 2.6)
    for bend in part.bends:
        sheet.line(frame.at(bend.start), frame.at(bend.end), dashed=True)
    sheet.dimension(frame.at((left, low)), frame.at((right, low)), f"{right - left:.1f}", -9)
    sheet.dimension(frame.at((left, low)), frame.at((left, high)), f"{high - low:.1f}", -9)
    _tables(sheet, part, (left, low))
    facts = (f"{part.material_name}, {part.thickness_mm:g} mm", f"{part.quantity} off, {part.mass_kg:.2f} kg each")
    border(sheet, design, part.name, facts, part.notes, released=released, scale=frame.scale)
    return sheet


def _corners(part: FlatPart) -> tuple[Point, Point]:
    xs, ys = [p[0] for p in part.outline], [p[1] for p in part.outline]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _tables(sheet: Sheet, part: FlatPart, zero: Point) -> None:
    """Holes and bend lines by their distances from the blank's left and lower edges."""
    x, y = TABLE
    sheet.words((x, y + 6), "From the left and lower edge of the blank", 2.8)
    rows = [(f"hole {n}", h.at[0] - zero[0], h.at[1] - zero[1], f"⌀ {h.diameter_mm:g}", h.purpose) for n, h in enumerate(part.holes, 1)]
    for bend in part.bends:
        middle = ((bend.start[0] + bend.end[0]) / 2 - zero[0], (bend.start[1] + bend.end[1]) / 2 - zero[1])
        upright = abs(bend.start[0] - bend.end[0]) < 1e-6
        at = (middle[0], None) if upright else (None, middle[1])
        rows.append(("bend", at[0], at[1], f"{round(bend.angle_deg, 1):g}° {'up' if bend.up else 'down'}", f"R {bend.radius_mm:g}"))  # type: ignore[arg-type]
    for number, (name, along, up, size, note) in enumerate(rows[:MOST_ROWS]):
        line = y - number * 4.6
        for offset, text in ((0, name), (18, _figure(along)), (34, _figure(up)), (50, size), (66, note[:16])):
            sheet.words((x + offset, line), text, 2.8)
    if len(rows) > MOST_ROWS:
        sheet.words((x, y - MOST_ROWS * 4.6), f"and {len(rows) - MOST_ROWS} more, all in the DXF", 2.8)


def _figure(value: float | None) -> str:
    return "" if value is None else f"{value:.1f}"
