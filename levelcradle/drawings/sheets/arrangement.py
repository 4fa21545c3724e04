"""General arrangement: plan, side and end of the whole car with its boxes, from the front axle line, the centreline and
the ground."""

from collections.abc import Sequence

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.solids import Solid, block, corner_points, rod
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.linework import AFTER, FORE, PLAN, SIDE, Body, Look, extent
from levelcradle.drawings.sheet import Frame, Point, Sheet, standard_scale
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Column, Table
from levelcradle.drawings.views import balloon, put

__all__ = ["arrangement_sheet", "car_bodies", "places_table"]

LEFT, RIGHT, TOP, LOW, GAP = 18.0, 26.0, 20.0, FOOT_MM + 10.0, 14.0
CHAIN_MM, MOST_CHAINS = 6.0, 4  # so far apart the dimensions of the boxes stand, and so many of them
WHEEL_MM = 170.0  # how wide a wheel is drawn: common practice, no source


def car_bodies(subject: Subject, *, weight_mm: float = 0.13) -> list[Body]:
    """Everything in the car that has a shape, boxes and brackets heavier."""
    things = {"thing", "member", "lump"}
    rest = [o for o in subject.assembly.obstacles if o.kind in things and o.solid.surface is None]
    bodies = [Body((o.solid,), weight_mm) for o in rest]
    for _, box in subject.boxes:
        bodies += [Body((p.solid,), 0.5 if p.role == "body" else 0.25) for p in box.pieces]
    return bodies


def arrangement_sheet(subject: Subject) -> Sheet:
    """Three views to one scale, aligned as the projection puts them; each box dimensioned from the front axle line."""
    sheet = Sheet("arrangement", "General arrangement", subject.job.paper, about=("car",))
    bodies = [*car_bodies(subject), *_wheels(subject)]
    boxes = list(subject.boxes)[:MOST_CHAINS]
    views = _laid_out(subject, bodies, len(boxes))
    for look, frame in views.items():
        put(sheet, bodies, look, frame)
        _datums(sheet, subject, look, frame)
    for number, (letter, box) in enumerate(boxes):
        _mark_box(sheet, views, letter, box)
        _chains(sheet, subject, views, number, letter, box)
    scale = views[PLAN].scale
    border(
        sheet,
        subject.job,
        sheet.title,
        (),
        _NOTES,
        scale=scale,
    )
    return sheet


_NOTES = (
    "Nose at the left. Wheels and things are drawn as they were measured, the body is not drawn",
    "Under the plan: from the front axle line; at the end view: from the centreline, and up from the ground",
    "Where each box and its brackets stand is in the table “Where the boxes stand”",
)


def _wheels(subject: Subject) -> list[Body]:
    vehicle = subject.assembly.design.vehicle
    if not vehicle.overall or not vehicle.track_mm:
        return []
    radius, rows = vehicle.overall.tyre_radius_mm, list[Solid]()
    for aft, track in ((0.0, vehicle.track_mm.front), (vehicle.wheelbase_mm, vehicle.track_mm.rear)):
        for side in (-1, 1):
            middle = side * track / 2
            rows.append(rod((aft, middle - WHEEL_MM / 2, radius), (aft, middle + WHEEL_MM / 2, radius), radius))
    return [Body((wheel,), 0.18) for wheel in rows]


def _corners(subject: Subject) -> tuple[Vec, Vec]:
    """Of the whole car: its overall size, and where nobody said it something about its axles to draw them in."""
    vehicle = subject.assembly.design.vehicle
    if (overall := vehicle.overall) is None:
        return (-300.0, -700.0, 0.0), (vehicle.wheelbase_mm + 300.0, 700.0, 900.0)
    half = overall.width_mm / 2
    aft = vehicle.wheelbase_mm + overall.overhang_rear_mm
    return (-overall.overhang_front_mm, -half, 0.0), (aft, half, overall.height_mm)


def _laid_out(subject: Subject, bodies: Sequence[Body], chains: int) -> dict[Look, Frame]:
    """Third angle: plan over the side, the view from aft at its right; first angle: the plan under it, and the view
    from before at its right."""
    paper, third = subject.job.paper, subject.job.projection == "third angle"
    end = AFTER if third else FORE
    room = [*bodies, Body((block(*_corners(subject)),))]
    (plan_low, plan_high), (side_low, side_high), (end_low, end_high) = (extent(room, v) for v in (PLAN, SIDE, end))
    long, high = plan_high[0] - plan_low[0], side_high[1] - side_low[1]
    across = plan_high[1] - plan_low[1]
    below = CHAIN_MM * (chains + 1)
    wide, tall = paper.wide_mm - LEFT - RIGHT - GAP - below, paper.tall_mm - TOP - LOW - GAP - below
    scale = standard_scale(min(wide / (long + end_high[0] - end_low[0]), tall / (across + high)))
    low = LOW + (tall - (across + high) * scale) / 2
    top = low + (across + high) * scale + GAP + below
    side_y = low if third else top - high * scale
    plan_y = top - across * scale if third else low + below
    left = LEFT + (wide - (long + end_high[0] - end_low[0]) * scale) / 2
    return {
        PLAN: Frame((left, plan_y), plan_low, scale),
        SIDE: Frame((left, side_y), side_low, scale),
        end: Frame((left + long * scale + GAP, side_y), end_low, scale),
    }


def _datums(sheet: Sheet, subject: Subject, look: Look, frame: Frame) -> None:
    """Axle lines, centreline and ground, with their names at the end."""
    wheelbase, ((fore, _, _), (aft, half, high)) = subject.assembly.design.vehicle.wheelbase_mm, _corners(subject)
    runs: list[tuple[Vec, Vec]] = []
    if look == PLAN:
        runs = [((x, -half, 0.0), (x, half, 0.0)) for x in (0.0, wheelbase)] + [((fore, 0.0, 0.0), (aft, 0.0, 0.0))]
    elif look == SIDE:
        runs = [((x, 0.0, 0.0), (x, 0.0, high)) for x in (0.0, wheelbase)] + [((fore, 0.0, 0.0), (aft, 0.0, 0.0))]
    else:
        runs = [((0.0, 0.0, 0.0), (0.0, 0.0, high)), ((0.0, -half, 0.0), (0.0, half, 0.0))]
    for start, end in runs:
        sheet.line(frame.at(look.at(start)), frame.at(look.at(end)), weight_mm=0.13, dashed=True)
    if look == PLAN:
        x, y = frame.at((0.0, half))
        sheet.words((x, y + 1.5), "front axle line", 2.5, "middle")
        sheet.words((frame.at((wheelbase / 2, half))[0], y - 3), "RIGHT", 2.6, "middle", bold=True)


def _mark_box(sheet: Sheet, views: dict[Look, Frame], letter: str, box: PlacedBox) -> None:
    for look, frame in views.items():
        if look in (PLAN, SIDE):
            body = [p.solid for p in box.pieces if p.role == "body"]
            low, high = _page_corners(body, look, frame)
            middle = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)
            balloon(sheet, middle, middle, letter)


def _page_corners(solids: Sequence[Solid], look: Look, frame: Frame) -> tuple[Point, Point]:
    points = [frame.at(look.at((float(p[0]), float(p[1]), float(p[2])))) for p in corner_points(solids)]
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _chains(sheet: Sheet, subject: Subject, views: dict[Look, Frame], number: int, letter: str, box: PlacedBox) -> None:
    """Of a box from the front axle line under the plan, from the centreline over the end view and from the ground at
    its right: each box on a line of its own."""
    _, (_, half_mm, high_mm) = _corners(subject)
    points = corner_points([p.solid for p in box.pieces if p.role == "body"])
    low, high = points.min(axis=0), points.max(axis=0)
    off, write = CHAIN_MM * (number + 1), subject.job.length
    plan, (end_look, end) = views[PLAN], next((v, f) for v, f in views.items() if v not in (PLAN, SIDE))
    y = plan.origin[1] - off
    xs = [plan.at((float(v), 0.0))[0] for v in (0.0, low[0], high[0])]
    _ticked(sheet, [(x, y) for x in xs])
    near, far = (f"{write(abs(float(v)))} {'fore' if v < 0 else 'aft'}" for v in (low[0], high[0]))
    sheet.words((max(xs) + 3, y - 1.0), f"{letter}  {near} to {far}", 2.6)
    third = subject.job.projection == "third angle"  # above the end view there is room, in first angle below it
    y = end.at((0.0, high_mm))[1] + off if third else end.at((0.0, 0.0))[1] - off
    xs = [end.at(end_look.at((0.0, float(v), 0.0)))[0] for v in (0.0, low[1], high[1])]
    _ticked(sheet, [(x, y) for x in xs])
    left, right = (f"{write(abs(float(v)))} {'L' if v < 0 else 'R'}" for v in (low[1], high[1]))
    sheet.words((min(xs) - 3, y - 1.0), f"{letter}  {left} to {right}", 2.6, "end")
    x = end.at((half_mm, 0.0))[0] + off
    ys = [end.at((0.0, float(v)))[1] for v in (0.0, low[2], high[2])]
    _ticked(sheet, [(x, y) for y in ys])
    # upright there is no room for two units: the table of places has both
    one = subject.job.in_one_unit.length
    sheet.words((x - 1.2, min(ys) + 1), f"{letter}  {one(float(low[2]))} to {one(float(high[2]))} up", 2.6, turned=True)


def _ticked(sheet: Sheet, points: Sequence[Point]) -> None:
    ordered = sorted(points)
    sheet.line(ordered[0], ordered[-1], weight_mm=0.18)
    for x, y in ordered:
        sheet.line((x - 0.9, y - 0.9), (x + 0.9, y + 0.9), weight_mm=0.35)


def places_table(subject: Subject) -> Table:
    """Where each box, its outside without lid and heads, and each of its mounts' bolts stand."""
    columns = (
        Column("what", 2.6),
        *(
            Column(t, 1.0, 1, "taped")
            for t in ("fore end aft", "aft end aft", "left side R", "right side R", "low up", "high up")
        ),
    )
    rows: list[tuple[str | float | None, ...]] = []
    for letter, box in subject.boxes:
        points = corner_points([p.solid for p in box.pieces if p.role == "body"])
        low, high = points.min(axis=0), points.max(axis=0)
        rows.append((f"box {letter}, {box.name}", *(float(v) for i in range(3) for v in (low[i], high[i]))))
        for mount in box.mounts:
            x, y, z = mount.spot.at
            rows.append((f"   bolt: {mount.mount.name}, at {mount.spot.name}", x, None, y, None, z, None))
    note = "Aft of the front axle line, right of the centreline (left is -), up from the ground in the surveyed stance"
    return Table("where-the-boxes-stand", "Where the boxes stand", columns, tuple(rows), note)
