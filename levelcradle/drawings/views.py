"""Views of solids on a sheet, and what is said beside them."""

import math
from collections.abc import Sequence

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec, scaled
from levelcradle.core.solids import block
from levelcradle.drawings.linework import Body, Look, extent, seen_lines
from levelcradle.drawings.sheet import Frame, Point, Sheet

__all__ = [
    "balloon",
    "balloons",
    "box_bodies",
    "called",
    "fitted",
    "holder_bodies",
    "module_bodies",
    "put",
    "turned_words",
]

Window = tuple[float, float, float, float]
STEP_MM = 10.5  # between two marks


def box_bodies(box: PlacedBox, *, lid: bool = True) -> list[Body]:
    """Tray, dividers, and with ``lid`` what closes it, in the box's own frame; each without the seams of its pieces."""
    tray = [s for p in box.shell.pieces if p.role in ("base", "wall", "slope", "bend", "top") for s in p.solids]
    bodies = [Body(tuple(tray), 0.35)] if tray else []
    bodies += [
        Body(p.solids, 0.25) for p in box.shell.pieces if p.role in ("divider", "board", "frame", "chamber", "panel")
    ]
    if lid:
        closing = [s for p in box.shell.pieces if p.role == "closure" for s in p.solids]
        bodies += [Body(tuple(closing), 0.35)] if closing else []
        bodies += [Body(p.solids, 0.18) for p in box.shell.pieces if p.role == "fastener"]
        bodies += [Body((piece.solid,), 0.25) for piece in box.shell.outside if piece.role == "protrusion"]
    return bodies


def holder_bodies(box: PlacedBox) -> list[tuple[str, Body]]:
    """What holds the modules, piece by piece, each with the part that it is of."""
    return [(p.part, Body(p.solids, 0.25)) for p in box.shell.pieces if p.role == "holder"]


def module_bodies(box: PlacedBox) -> list[Body]:
    return [Body((block(m.low, m.high),), 0.25) for m in box.shell.modules]


def fitted(bodies: Sequence[Body], look: Look, window: Window) -> Frame:
    """The frame that shows all of them in a window (left, bottom, width, height)."""
    return Frame.fit(*extent(bodies, look), window)


def put(sheet: Sheet, bodies: Sequence[Body], look: Look, frame: Frame) -> dict[int, Point]:
    """Draws bodies; answers for each that is seen a place on the page that is its own: on its longest line."""
    longest: dict[int, tuple[float, Point]] = {}
    for line in seen_lines(bodies, look):
        start, end = frame.at(line.start), frame.at(line.end)
        sheet.line(start, end, weight_mm=line.weight_mm)
        long = math.dist(start, end)
        if long > longest.get(line.of, (0.0, start))[0]:
            longest[line.of] = (long, ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2))
    return {number: place for number, (_, place) in longest.items()}


def balloons(sheet: Sheet, tips: Sequence[tuple[str, Point]], xs: tuple[float, float], low: float, high: float) -> None:
    """Marks under one another at both sides of a picture, each with a line to its place; no two of them meet."""
    middle = sum(xs) / 2
    for side, x in enumerate(xs):
        mine = sorted((t for t in tips if (t[1][0] >= middle) == bool(side)), key=lambda t: -t[1][1])
        room = min(STEP_MM, (high - low) / max(len(mine) - 1, 1))
        y = high + room
        for number, (mark, tip) in enumerate(mine):
            below = (len(mine) - 1 - number) * room  # what the rest needs
            y = max(min(tip[1], y - room), low + below)
            balloon(sheet, (x, y), tip, mark)


def balloon(sheet: Sheet, at: Point, tip: Point, mark: str) -> None:
    """A mark in a ring, with a line to what it names."""
    radius = 3.6 if len(mark) < 3 else 4.6
    away = ((tip[0] - at[0]) ** 2 + (tip[1] - at[1]) ** 2) ** 0.5
    if away > radius:
        start = (at[0] + (tip[0] - at[0]) * radius / away, at[1] + (tip[1] - at[1]) * radius / away)
        sheet.line(start, tip, weight_mm=0.18)
        sheet.ring(tip, 0.4, 0.35)
    sheet.ring(at, radius, 0.25, fill="#fff")
    sheet.words((at[0], at[1] - 1.05), mark, 3.0, "middle", bold=True)


NAMES = (("TAIL", "NOSE"), ("RIGHT", "LEFT"), ("UP", "DOWN"))
LOOKS = (("aft", "forward"), ("right", "left"), ("up", "down"))
MOSTLY = 0.75  # a way that leans by more than about 40° is no longer called by that name


def called(box: PlacedBox, way: Vec, names: tuple[tuple[str, str], ...] = NAMES) -> str:
    """What a way of the box is in the car, where it is mostly one."""
    there = box.placement.direction(way)
    axis = max(range(3), key=lambda i: abs(there[i]))
    return (names[axis][0] if there[axis] > 0 else names[axis][1]) if abs(there[axis]) > MOSTLY else ""


def turned_words(
    sheet: Sheet, box: PlacedBox, look: Look, page: tuple[Point, Point], away: tuple[float, float, float, float]
) -> None:
    """The car's own words at the edges of a view, so far (left, right, above, below) off its corners on the page."""
    (x0, y0), (x1, y1) = page
    ends = (
        (scaled(look.right, -1.0), (x0 - away[0], (y0 + y1) / 2), True),
        (look.right, (x1 + away[1], (y0 + y1) / 2), True),
        (look.up, ((x0 + x1) / 2, y1 + away[2]), False),
        (scaled(look.up, -1.0), ((x0 + x1) / 2, y0 - away[3]), False),
    )
    for way, at, turned in ends:
        word = called(box, way)
        if word not in ("", "UP", "DOWN"):
            sheet.words(at, word, 3.2, "middle", bold=True, turned=turned)
