"""A page for one box: plan, side and front, dimensioned, to one scale and aligned."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec, scaled
from levelcradle.core.solids import Solid, convex_ring, corner_points
from levelcradle.drawings.border import border
from levelcradle.drawings.sheet import Frame, Sheet

__all__ = ["box_sheet"]

GAP = 34.0  # page millimetres between views, room for dimensions
LEFT, TOP, WIDE, HIGH = 34.0, 176.0, 232.0, 112.0


def box_sheet(box: PlacedBox, design: str, material: str, *, released: bool) -> Sheet:
    """The box in its own axes: plan, side below it, end beside; words at their edges say where the car's nose, left and
    right are as the box stands in it."""
    shell = box.shell
    sheet = Sheet(f"{box.id}-box", f"{box.box.name}, box")
    length, width, height = shell.over_mm
    scale = min((WIDE - GAP) / (length + width), (HIGH - GAP) / (width + height), 1.0)
    over = (length - shell.outer_mm[0]) / 2
    how, more = shell.made.message()
    plan = Frame((LEFT, TOP - width * scale), (-over, -over), scale)
    side = Frame((LEFT, TOP - width * scale - GAP - height * scale), (-over, 0.0), scale)
    front = Frame((LEFT + length * scale + GAP, side.origin[1]), (-over, 0.0), scale)
    _view(sheet, box, plan, 0, 1)
    _view(sheet, box, side, 0, 2)
    _view(sheet, box, front, 1, 2)
    outer = shell.outer_mm
    sheet.dimension(plan.at((0, -over)), plan.at((outer[0], -over)), f"{outer[0]:.1f}", -7)
    sheet.dimension(plan.at((-over, 0)), plan.at((-over, outer[1])), f"{outer[1]:.1f}", -7)
    sheet.dimension(side.at((-over, 0)), side.at((-over, outer[2])), f"{outer[2]:.1f}", -7)
    sheet.dimension(side.at((-over, 0)), side.at((outer[0] + over, 0)), f"{length:.1f} over lid", -7)
    sheet.dimension(front.at((-over, 0)), front.at((outer[1] + over, 0)), f"{width:.1f} over lid", -7)
    sheet.dimension(front.at((outer[1] + over, 0)), front.at((outer[1] + over, height)), f"{height:.1f}", 9)
    for view, frame, size in (
        (PLAN, plan, (length, width)),
        (SIDE, side, (length, height)),
        (END, front, (width, height)),
    ):
        _words_at(sheet, box, view, frame, size)
    inner = shell.inner_mm
    facts = (
        f"{material}, {how}",
        f"shell {shell.shell_kg:.1f} kg, full {shell.full_kg:.1f} kg",
        f"inside {inner[0]:.1f} × {inner[1]:.1f} × {inner[2]:.1f}",
    )
    notes = (
        "Outside = walls and floor, without lid and heads; sizes aft × across × up",
        "; ".join((f"{len(shell.modules)} modules", *more)),
        f"Stands with its front, left, base corner at {_place(box)}{_turn(box)}",
        *_cut_off(box),
    )
    border(sheet, design, box.box.name, facts, notes, released=released, scale=scale)
    return sheet


def _place(box: PlacedBox) -> str:
    x, y, z = box.placement.point((0.0, 0.0, 0.0))
    return f"{abs(x):.1f} {'fore' if x < 0 else 'aft'}, {abs(y):.1f} {'L' if y < 0 else 'R'}, {z:.1f} up"


def _view(sheet: Sheet, box: PlacedBox, frame: Frame, first: int, second: int) -> None:
    for heavy, solid in _drawn(box):
        corners = convex_ring([(p[first], p[second]) for p in corner_points([solid])])
        sheet.outline([frame.at(p) for p in corners], 0.5 if heavy else 0.18)
    for module in box.shell.modules:
        low, high = module.low, module.high
        corners = [
            (low[first], low[second]),
            (high[first], low[second]),
            (high[first], high[second]),
            (low[first], high[second]),
        ]
        sheet.outline([frame.at(p) for p in corners], 0.18, dashed=True)


def _drawn(box: PlacedBox) -> Iterator[tuple[bool, Solid]]:
    """What is drawn of a box: its outside, heavy where it is body or lid, and the flats of its metal; bends are left to
    their flats."""
    for piece in box.shell.outside:
        yield piece.role in ("body", "closure"), piece.solid
    for metal in box.shell.pieces:
        if metal.role not in ("bend", "fastener"):
            yield from ((False, solid) for solid in metal.solids)


def _cut_off(box: PlacedBox) -> Iterator[str]:
    rows = [f"{c.edge[0]} {c.mm[0]:g}, {c.edge[1]} {c.mm[1]:g}" for c in box.box.chamfers.values()]
    if rows:
        yield f"Edges cut off, so far along each face: {'; '.join(rows)}"


@dataclass(frozen=True, slots=True)
class _View:
    """A view of the box by which of its own axes runs right and up on the page, and which points at the reader."""

    right: Vec
    up: Vec
    towards: Vec


PLAN = _View((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
SIDE = _View((1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, -1.0, 0.0))
END = _View((0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 0.0, 0.0))
NAMES = (("TAIL", "NOSE"), ("RIGHT", "LEFT"), ("UP", "DOWN"))
LOOKS = (("aft", "forward"), ("right", "left"), ("up", "down"))
MOSTLY = 0.75  # a way that leans by more than about 40° is no longer called by that name


def _called(box: PlacedBox, way: Vec, names: tuple[tuple[str, str], ...]) -> str:
    """What a way of the box is in the car, where it is mostly one."""
    there = box.placement.direction(way)
    axis = max(range(3), key=lambda i: abs(there[i]))
    return (names[axis][0] if there[axis] > 0 else names[axis][1]) if abs(there[axis]) > MOSTLY else ""


def _words_at(sheet: Sheet, box: PlacedBox, view: _View, frame: Frame, size: tuple[float, float]) -> None:
    """The car's own words at the edges of a view, and which way one looks in it."""
    (x0, y0), (wide, tall) = frame.origin, (v * frame.scale for v in size)
    ends = (
        (scaled(view.right, -1.0), (x0 - 14, y0 + tall / 2), True),
        (view.right, (x0 + wide + 14, y0 + tall / 2), True),
        (view.up, (x0 + wide / 2, y0 + tall + 2.5), False),
        (scaled(view.up, -1.0), (x0 + wide / 2, y0 - 13), False),
    )
    for way, at, turned in ends:
        word = _called(box, way, NAMES)
        if word not in ("", "UP", "DOWN"):
            sheet.words(at, word, 3.2, "middle", bold=True, turned=turned)
    looks = _called(box, scaled(view.towards, -1.0), LOOKS)
    if looks:
        sheet.words((x0 + wide, y0 + tall + 2.5), f"looking {looks}", 2.8, "end")


def _turn(box: PlacedBox) -> str:
    """How the box is turned in the car, in words."""
    pose = box.box.pose
    rows = (
        (pose.yaw_deg, "to the right", "to the left", "its aft end"),
        (pose.pitch_deg, "up", "down", "its nose"),
        (pose.roll_deg, "up", "down", "its right side"),
    )
    said = [f"{what} {plus if angle > 0 else minus} by {abs(angle):g}°" for angle, plus, minus, what in rows if angle]
    return f"; turned: {', '.join(said)}" if said else ""
