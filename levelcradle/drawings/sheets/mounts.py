"""Each bracket in its place: seen along its bend line between the box and what it lands on, and from above it."""

import math
from collections.abc import Callable, Iterator

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Matrix, Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.connection import Connection
from levelcradle.core.solids import Solid, clipped, corner_points
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.letters import shortened, wrapped
from levelcradle.drawings.linework import Body, Look
from levelcradle.drawings.sheet import Frame, Point, Sheet
from levelcradle.drawings.sheets.box import place_words
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloons, fitted, put
from levelcradle.drawings.weld_symbol import SYMBOL_MM, draw_weld, symbols_of

__all__ = ["mount_sheets"]

LOW_MM, TOP_MM, WORDS_MM = FOOT_MM + 4.0, 22.0, 31.0
NOTES = (
    "Each is drawn as large as its column allows. The vehicle's metal is below the contact plane (dashed). Welds: "
    "ISO 2553, z is the leg. Bolts dry, thread-locked, marked when tight",
    "Welding in the car: cells out, lines shielded, electronics off, earth clamp near, somebody watching for fire. "
    "Drill steel slow with oil, aluminium fast; paint every cut edge",
)
ROUND_MM = 90.0  # so much of the box and of the car is drawn about a mount


def mount_sheets(subject: Subject, letter: str, box: PlacedBox) -> Iterator[Sheet]:
    """As many mounts a sheet as stand on it."""
    job = subject.job
    columns = 2 if job.paper.wide_mm < 350 else 3
    for number, first in enumerate(range(0, len(box.mounts), columns)):
        shown = box.mounts[first : first + columns]
        name = f"{letter}-mounts" + (f"-{number + 1}" if number else "")
        many = "" if len(box.mounts) <= columns else f" {number + 1} of {math.ceil(len(box.mounts) / columns)}"
        title = f"Box {letter}, its mounts in place{many}: {box.name}"
        sheet = Sheet(name, title, job.paper, about=(box.path, *(f"mounts/{m.id}" for m in shown)))
        wide = (job.paper.wide_mm - 24) / columns
        for n, mount in enumerate(shown):
            _mount(sheet, subject, box, mount, 12 + n * wide, wide)
        border(sheet, job, f"{letter}, mounts: {box.name}", (), NOTES)
        yield sheet


def _mount(sheet: Sheet, subject: Subject, box: PlacedBox, mount: Connection, left: float, wide: float) -> None:
    top = sheet.paper.tall_mm - TOP_MM
    sheet.words((left + 2, top), shortened(mount.mount.name, wide - 6, 3.4 * 1.18), 3.4, bold=True)
    if mount.pieces:
        symbols, low = symbols_of(mount.mount.to_box), LOW_MM + WORDS_MM
        across, down = SYMBOL_MM[0] + 2, SYMBOL_MM[1] + 2
        columns = max(int((wide - 4) / across), 1)
        strip = down * math.ceil(len(symbols) / columns)
        window = (left + 6, low + strip, wide - 14, top - low - 6 - strip)
        at = _in_place(sheet, subject, box, mount, window)
        for number, symbol in enumerate(symbols):
            down_row, column = divmod(number, columns)
            draw_weld(
                sheet,
                symbol,
                (left + 4 + column * across, low + 4.5 + down_row * down),
                at(_welded_at(mount, symbol.drawn)),
            )
    words = _said(subject, mount)
    rows = [row for text in words for row in wrapped(text, wide - 6, 2.6, 2)]
    for n, row in enumerate(rows[: int(WORDS_MM / 3.6)]):
        sheet.words((left + 2, LOW_MM + WORDS_MM - 6 - 3.6 * n), row, 2.6)


def _in_place(
    sheet: Sheet, subject: Subject, box: PlacedBox, mount: Connection, window: tuple[float, float, float, float]
) -> Callable[[Vec], Point]:
    """From a corner above and outside of it; with the metal's plane and the bolt's axis. Answers where on the sheet a
    place in the vehicle is."""
    n = mount.spot.n
    out = _outward(box, mount)
    towards = unit(plus(plus(out, scaled(cross(n, out), 0.8)), scaled(n, 0.75)))
    look = Look.against(towards) if abs(towards[2]) < 0.95 else Look((1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    pieces = [piece.solid for piece in mount.pieces]
    near = _bounds(pieces)
    around = [_cropped(p.solid, near) for p in box.pieces if p.role in ("body", "closure")]
    own = [Body((solid,), 0.5) for solid in pieces]
    bodies = own + [Body((solid,), 0.18) for solid in around if solid is not None]
    frame = fitted(bodies, look, window)
    places = put(sheet, bodies, look, frame)
    _contact(sheet, mount, look, frame)
    tips = dict[str, tuple[float, float]]()
    for number, piece in enumerate(mount.pieces):
        mark = subject.marks.get(piece.part, "")
        if mark and number in places:
            tips.setdefault(mark, places[number])
    right = window[0] + window[2]
    balloons(sheet, list(tips.items()), (window[0] - right + 8, right - 4), window[1] + 6, window[1] + window[3] - 6)
    return lambda place: frame.at(look.at(place))


def _welded_at(mount: Connection, drawn: int | None) -> Vec:
    """The middle of one of its welds, or of an edge of its doubler."""
    if drawn is not None:
        weld = mount.welds[drawn]
        return scaled(plus(weld.low, weld.high), 0.5)
    doubler = next(piece.solid for piece in mount.pieces if piece.name == "doubler")
    return scaled(plus(doubler.low, (doubler.low[0], doubler.high[1], doubler.low[2])), 0.5)


def _outward(box: PlacedBox, mount: Connection) -> Vec:
    """From the box towards the mount, square to its bolt."""
    away = minus(mount.spot.at, box.placement.point(scaled(box.shell.outer_mm, 0.5)))
    n = mount.spot.n
    flat = minus(away, scaled(n, dot(away, n)))
    return unit(flat) if dot(flat, flat) > 1e-6 else (0.0, 1.0, 0.0)


def _bounds(solids: list[Solid]) -> tuple[Matrix, Matrix]:
    points = corner_points(solids)
    return points.min(axis=0) - ROUND_MM, points.max(axis=0) + ROUND_MM


def _cropped(solid: Solid, near: tuple[Matrix, Matrix]) -> Solid | None:
    """What of a convex solid is near."""
    rest: Solid | None = solid
    for axis in range(3):
        for sign, reach in ((1.0, near[1][axis]), (-1.0, -near[0][axis])):
            normal = [0.0, 0.0, 0.0]
            normal[axis] = sign
            rest = clipped(rest, (normal[0], normal[1], normal[2]), float(reach)) if rest is not None else None
    return rest


def _contact(sheet: Sheet, mount: Connection, look: Look, frame: Frame) -> None:
    """The plane of the vehicle's metal as a dashed square, and the bolt's axis."""
    n = mount.spot.n
    aside: Vec = (1.0, 0.0, 0.0) if abs(n[0]) < 0.9 else (0.0, 1.0, 0.0)
    a = unit(cross(n, aside))
    b, at, half = cross(n, a), mount.spot.at, 55.0
    ring = [plus(at, plus(scaled(a, s * half), scaled(b, t * half))) for s, t in ((1, 1), (1, -1), (-1, -1), (-1, 1))]
    sheet.outline([frame.at(look.at(p)) for p in ring], 0.18, dashed=True)
    ends = (plus(at, scaled(n, -35.0)), plus(at, scaled(n, 45.0)))
    sheet.line(*(frame.at(look.at(p)) for p in ends), weight_mm=0.18, dashed=True)


def _said(subject: Subject, mount: Connection) -> Iterator[str]:
    spot = mount.spot
    yield f"On {spot.name}{f', {spot.thread}' if spot.thread else ''}, at {place_words(spot.at, subject.job)}"
    if mount.unfit:
        yield f"It cannot stand there: {mount.unfit}"
        return
    bolt = getattr(mount.mount.lands_on, "bolt", None)
    torque, _ = mount.tightening
    if bolt:
        yield f"Bolt {bolt.size}, class {bolt.property_class}" + (
            f", {torque:.0f} N·m, marked when tight" if torque else ""
        )
    if mount.reach_mm is not None:
        yield f"From the face it is welded to, to the bolt: {subject.job.length(mount.reach_mm)}"
    for support in subject.analysis.supports:
        for row in support.mounts:
            if row.id == mount.id and row.rows:
                weakest = row.rows[0]
                yield f"Weakest: {weakest.check}, use {weakest.utilisation:.2f} in {weakest.case}"
