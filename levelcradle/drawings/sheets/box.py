"""A page for one box: side, plan and end, dimensioned, to one scale and aligned."""

from collections.abc import Iterator, Mapping

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import dot, scaled
from levelcradle.drawings.border import FOOT_MM, Job, border
from levelcradle.drawings.letters import letters_mm
from levelcradle.drawings.linework import AFTER, FORE, PLAN, SIDE, Look
from levelcradle.drawings.sheet import Frame, Point, Sheet, standard_scale
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import LOOKS, box_bodies, called, module_bodies, put, turned_words

__all__ = ["box_sheet", "cg_mark", "place_words"]

GAP = 25.0  # page millimetres between views, room for dimensions
OVERHANG_MM = 12.0  # so much a figure may be longer than what it measures
LEFT, RIGHT, TOP, LOW = 32.0, 28.0, 21.0, FOOT_MM + 15.0  # what views leave free of the paper


def box_sheet(subject: Subject, letter: str, box: PlacedBox) -> Sheet:
    """The box in its own axes: side, plan and end, aligned and to one scale, where the projection puts them; words at
    their edges say where the car's nose, left and right are as the box stands in it."""
    shell, job = box.shell, subject.job
    sheet = Sheet(f"{letter}-box", f"Box {letter}, sizes: {box.name}", job.paper, about=(box.path,))
    views = _laid_out(box, job)
    for look, frame in views.items():
        put(sheet, box_bodies(box), look, frame)
        for body in module_bodies(box):
            (solid,) = body.solids
            (x0, y0), (x1, y1) = frame.at(look.at(solid.low)), frame.at(look.at(solid.high))
            sheet.outline([(x0, y0), (x1, y0), (x1, y1), (x0, y1)], 0.13, dashed=True)
        cg_mark(sheet, frame.at(look.at(shell.cg)))
        _words_at(sheet, box, look, frame)
    _dimensions(sheet, box, views, job)
    how, more = shell.made.message()
    material = subject.assembly.tables.materials[box.box.material].name
    corner = place_words(box.placement.point((0.0, 0.0, 0.0)), job)
    inner, outside, cg = (" × ".join(job.length(v) for v in vec) for vec in (shell.inner_mm, shell.outer_mm, shell.cg))
    in_both = f" {outside}" if job != job.in_one_unit and _comes_small(box, views[PLAN], job) else ""
    facts = (
        f"{material}, {how}",
        f"shell {shell.shell_kg:.1f} kg, full {box.full_kg:.1f} kg",
        f"lifted {box.hung_kg:.1f} kg, with brackets",
    )
    notes = (
        f"Inside {inner}. Outside{in_both} = walls and floor, without lid and heads; sizes aft × across × up",
        *_cut_off(box, job),
        f"Centre of gravity, full, from its front, left, base corner: {cg}. Lift it above that point",
        "; ".join((f"{len(shell.modules)} modules", *more)),
        f"Stands with its front, left, base corner at {corner}{_turn(box)}",
    )
    border(sheet, job, f"{letter}  {box.name}", facts, notes, scale=views[SIDE].scale)
    return sheet


def cg_mark(sheet: Sheet, at: Point) -> None:
    """A ring with a cross: the centre of gravity."""
    sheet.ring(at, 1.8, 0.25)
    for dx, dy in ((2.8, 0.0), (0.0, 2.8)):
        sheet.line((at[0] - dx, at[1] - dy), (at[0] + dx, at[1] + dy), weight_mm=0.18)


def _laid_out(box: PlacedBox, job: Job) -> dict[Look, Frame]:
    """Side, plan and end. In third angle the plan stands over the side and the end seen from aft at its right; in first
    angle the plan under it, and at its right the end seen from the front."""
    (length, width, height), (low_x, low_y, low_z) = box.shell.over_mm, box.shell.made.over[0]
    wide, tall = job.paper.wide_mm - LEFT - RIGHT, job.paper.tall_mm - TOP - LOW
    scale = standard_scale(min((wide - GAP) / (length + width), (tall - GAP) / (width + height)))
    high = GAP + (width + height) * scale
    low = LOW + (tall - high) / 2
    top = low + high
    left = LEFT + (wide - GAP - (length + width) * scale) / 2
    third = job.projection == "third angle"
    side_at = (left, low) if third else (left, top - height * scale)
    plan_at = (left, top - width * scale) if third else (left, low)
    end, end_low = (AFTER, low_y) if third else (FORE, -low_y - width)
    return {
        PLAN: Frame(plan_at, (low_x, low_y), scale),
        SIDE: Frame(side_at, (low_x, low_z), scale),
        end: Frame((left + length * scale + GAP, side_at[1]), (end_low, low_z), scale),
    }


def _dimensions(sheet: Sheet, box: PlacedBox, views: Mapping[Look, Frame], job: Job) -> None:
    outer, (length, width, height), (low, high) = box.shell.outer_mm, box.shell.over_mm, box.shell.made.over
    lid = "over lid" if box.shell.made.closed_face == "top" else "over all"
    plan, side = views[PLAN], views[SIDE]
    end_look, end = next((v, f) for v, f in views.items() if v not in (PLAN, SIDE))
    ends = sorted(end_look.at((0.0, y, 0.0))[0] for y in (low[1], high[1]))
    write = (job.in_one_unit if _comes_small(box, plan, job) else job).length
    sheet.dimension(plan.at((0, low[1])), plan.at((outer[0], low[1])), write(outer[0]), -7)
    sheet.dimension(plan.at((low[0], 0)), plan.at((low[0], outer[1])), write(outer[1]), -7)
    sheet.dimension(side.at((low[0], 0)), side.at((low[0], outer[2])), write(outer[2]), -7)
    sheet.dimension(side.at((low[0], low[2])), side.at((high[0], low[2])), f"{write(length)} {lid}", -7)
    sheet.dimension(end.at((ends[0], low[2])), end.at((ends[1], low[2])), f"{write(width)} {lid}", -7)
    sheet.dimension(end.at((ends[1], low[2])), end.at((ends[1], high[2])), write(height), 9)


def _comes_small(box: PlacedBox, frame: Frame, job: Job) -> bool:
    """Whether a view has no room for a figure in two units; then the notes have both."""
    least = min(box.shell.outer_mm)
    return least * frame.scale + OVERHANG_MM < letters_mm(job.length(least), 3.0)


def place_words(at: tuple[float, float, float], job: Job) -> str:
    """A place in the car as it is said: ``840.0 aft, 120.0 R, 310.0 up``."""
    x, y, z = at
    write = job.length
    return f"{write(abs(x))} {'fore' if x < 0 else 'aft'}, {write(abs(y))} {'L' if y < 0 else 'R'}, {write(z)} up"


def _cut_off(box: PlacedBox, job: Job) -> Iterator[str]:
    rows = [
        f"{'step, ' if c.square else ''}{c.edge[0]} {job.length(c.mm[0])}, {c.edge[1]} {job.length(c.mm[1])}"
        for c in box.box.chamfers.values()
    ]
    if rows:
        yield f"Edges cut off, so far along each face: {'; '.join(rows)}"


def _words_at(sheet: Sheet, box: PlacedBox, look: Look, frame: Frame) -> None:
    """The car's own words at the edges of a view, and which way one looks in it."""
    over = box.shell.over_mm
    (x0, y0), (wide, tall) = frame.origin, (abs(dot(over, axis)) * frame.scale for axis in (look.right, look.up))
    beside = 5.0 if look in (PLAN, SIDE) else 14.0
    turned_words(sheet, box, look, ((x0, y0), (x0 + wide, y0 + tall)), (14.0, beside, 2.5, 13.0))
    looks = called(box, scaled(look.towards, -1.0), LOOKS)
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
