"""A page for one box: side, plan and end, dimensioned, to one scale and aligned."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec, dot, scaled, vec
from levelcradle.core.solids import Solid, convex_ring, corner_points
from levelcradle.drawings.border import FOOT_MM, Job, border
from levelcradle.drawings.sheet import Frame, Point, Sheet, standard_scale

__all__ = ["box_sheet"]

GAP = 25.0  # page millimetres between views, room for dimensions
LEFT, RIGHT, TOP, LOW = 32.0, 28.0, 21.0, FOOT_MM + 15.0  # what views leave free of the paper


@dataclass(frozen=True, slots=True)
class _View:
    """A view of the box by which of its own axes runs right and up on the page, and which points at the reader."""

    right: Vec
    up: Vec
    towards: Vec

    def at(self, point: Vec) -> Point:
        return dot(point, self.right), dot(point, self.up)


PLAN = _View((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
SIDE = _View((1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, -1.0, 0.0))
FROM_AFT = _View((0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 0.0, 0.0))
FROM_FRONT = _View((0.0, -1.0, 0.0), (0.0, 0.0, 1.0), (-1.0, 0.0, 0.0))


def box_sheet(box: PlacedBox, job: Job, material: str) -> Sheet:
    """The box in its own axes: side, plan and end, aligned and to one scale, where the projection puts them; words at
    their edges say where the car's nose, left and right are as the box stands in it."""
    shell = box.shell
    sheet = Sheet(f"{box.id}-box", f"{box.box.name}, box", job.paper)
    views = _laid_out(box, job)
    how, more = shell.made.message()
    for view, frame in views.items():
        _view(sheet, box, frame, view)
        _words_at(sheet, box, view, frame)
    _dimensions(sheet, box, views)
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
    border(sheet, job, box.box.name, facts, notes, scale=views[SIDE].scale)
    return sheet


def _laid_out(box: PlacedBox, job: Job) -> dict[_View, Frame]:
    """Side, plan and end. In third angle the plan stands over the side and the end seen from aft at its right; in first
    angle the plan under it, and at its right the end seen from the front."""
    length, width, height = box.shell.over_mm
    over = (length - box.shell.outer_mm[0]) / 2
    wide, tall = job.paper.wide_mm - LEFT - RIGHT, job.paper.tall_mm - TOP - LOW
    scale = standard_scale(min((wide - GAP) / (length + width), (tall - GAP) / (width + height)))
    high = GAP + (width + height) * scale
    low = LOW + (tall - high) / 2
    top = low + high
    left = LEFT + (wide - GAP - (length + width) * scale) / 2
    third = job.projection == "third angle"
    side_at = (left, low) if third else (left, top - height * scale)
    plan_at = (left, top - width * scale) if third else (left, low)
    end, end_low = (FROM_AFT, -over) if third else (FROM_FRONT, -over - box.shell.outer_mm[1])
    return {
        PLAN: Frame(plan_at, (-over, -over), scale),
        SIDE: Frame(side_at, (-over, 0.0), scale),
        end: Frame((left + length * scale + GAP, side_at[1]), (end_low, 0.0), scale),
    }


def _dimensions(sheet: Sheet, box: PlacedBox, views: Mapping[_View, Frame]) -> None:
    outer, (length, width, height) = box.shell.outer_mm, box.shell.over_mm
    over = (length - outer[0]) / 2
    plan, side = views[PLAN], views[SIDE]
    end_view, end = next((v, f) for v, f in views.items() if v not in (PLAN, SIDE))
    ends = sorted(end_view.at((0.0, y, 0.0))[0] for y in (-over, outer[1] + over))
    sheet.dimension(plan.at((0, -over)), plan.at((outer[0], -over)), f"{outer[0]:.1f}", -7)
    sheet.dimension(plan.at((-over, 0)), plan.at((-over, outer[1])), f"{outer[1]:.1f}", -7)
    sheet.dimension(side.at((-over, 0)), side.at((-over, outer[2])), f"{outer[2]:.1f}", -7)
    sheet.dimension(side.at((-over, 0)), side.at((outer[0] + over, 0)), f"{length:.1f} over lid", -7)
    sheet.dimension(end.at((ends[0], 0)), end.at((ends[1], 0)), f"{width:.1f} over lid", -7)
    sheet.dimension(end.at((ends[1], 0)), end.at((ends[1], height)), f"{height:.1f}", 9)


def _place(box: PlacedBox) -> str:
    x, y, z = box.placement.point((0.0, 0.0, 0.0))
    return f"{abs(x):.1f} {'fore' if x < 0 else 'aft'}, {abs(y):.1f} {'L' if y < 0 else 'R'}, {z:.1f} up"


def _view(sheet: Sheet, box: PlacedBox, frame: Frame, view: _View) -> None:
    for heavy, solid in _drawn(box):
        ring = convex_ring([view.at(vec(p)) for p in corner_points([solid])])
        sheet.outline([frame.at(p) for p in ring], 0.5 if heavy else 0.18)
    for module in box.shell.modules:
        (x0, y0), (x1, y1) = view.at(module.low), view.at(module.high)
        sheet.outline([frame.at(p) for p in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))], 0.18, dashed=True)


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


NAMES = (("TAIL", "NOSE"), ("RIGHT", "LEFT"), ("UP", "DOWN"))
LOOKS = (("aft", "forward"), ("right", "left"), ("up", "down"))
MOSTLY = 0.75  # a way that leans by more than about 40° is no longer called by that name


def _called(box: PlacedBox, way: Vec, names: tuple[tuple[str, str], ...]) -> str:
    """What a way of the box is in the car, where it is mostly one."""
    there = box.placement.direction(way)
    axis = max(range(3), key=lambda i: abs(there[i]))
    return (names[axis][0] if there[axis] > 0 else names[axis][1]) if abs(there[axis]) > MOSTLY else ""


def _words_at(sheet: Sheet, box: PlacedBox, view: _View, frame: Frame) -> None:
    """The car's own words at the edges of a view, and which way one looks in it."""
    over = box.shell.over_mm
    (x0, y0), (wide, tall) = frame.origin, (abs(dot(over, axis)) * frame.scale for axis in (view.right, view.up))
    ends = (
        (scaled(view.right, -1.0), (x0 - 14, y0 + tall / 2), True),
        (view.right, (x0 + wide + (5 if view in (PLAN, SIDE) else 14), y0 + tall / 2), True),
        (view.up, (x0 + wide / 2, y0 + tall + 2.5), False),
        (scaled(view.up, -1.0), (x0 + wide / 2, y0 - 13), False),
    )
    for way, at, turned in ends:
        word = _called(box, way, NAMES)
        if word not in ("", "UP", "DOWN"):
            sheet.words(at, word, 3.2, "middle", bold=True, turned=turned)
    looks = _called(box, scaled(view.towards, -1.0), LOOKS)
    if looks:
        sheet.words((x0 + wide / 2, y0 + tall + 6.5), f"looking {looks}", 2.8, "middle")


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
