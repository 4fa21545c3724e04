"""What is on each face of a box: where brackets and doublers are welded and openings are, seen from outside, measured
from two edges."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.box import SEEN, openings_of
from levelcradle.core.connection import Connection
from levelcradle.core.connection.hold import weld_words
from levelcradle.core.design.mount import Bolted, ToBox, Welded
from levelcradle.core.opened import on_the_face
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.letters import shortened
from levelcradle.drawings.linework import Look, extent
from levelcradle.drawings.running import Measured, running
from levelcradle.drawings.sheet import Flow, Frame, Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloon, box_bodies, called

__all__ = ["wall_sheets"]

LOOKS = {face: Look(right, up) for face, (right, up) in SEEN.items()}  # each face from outside
TABLE_MM, ROW_MM, TOP_MM, LOW_MM = 138.0, 4.6, 28.0, FOOT_MM + 12.0
NARROW_MM = 24.0  # on a wall that comes out narrower the words at its ends stand over each other
COLUMNS = (("mark", 0.0), ("of", 11.0), ("from left", 66.0), ("from base", 85.0), ("wide", 104.0), ("high", 121.0))


@dataclass(frozen=True, slots=True)
class _OnWall:
    """What is welded to a face, or goes through it: its rectangle there, in the face's own right and up."""

    mark: str
    name: str
    mount: Connection | None
    low: tuple[float, float]
    high: tuple[float, float]

    @property
    def from_(self) -> tuple[float, float]:
        """Where it is measured to: its near edges, of an opening its middle."""
        middle = ((self.low[0] + self.high[0]) / 2, (self.low[1] + self.high[1]) / 2)
        return self.low if self.mount else middle


def wall_sheets(subject: Subject, letter: str, box: PlacedBox) -> Iterator[Sheet]:
    """A sheet a face that has something on it."""
    for face, look in LOOKS.items():
        rows = [*_on_wall(subject, box, face, look), *_through(box, face, look)]
        if rows:
            yield _wall(subject, letter, box, face, rows)


def _on_wall(subject: Subject, box: PlacedBox, face: str, look: Look) -> Iterator[_OnWall]:
    for mount, part, solid in on_the_face(box, face):
        (x0, y0), (x1, y1) = look.at(solid.low), look.at(solid.high)
        low, high = (min(x0, x1), min(y0, y1)), (max(x0, x1), max(y0, y1))
        yield _OnWall(subject.marks.get(part, ""), mount.mount.name, mount, low, high)


def _through(box: PlacedBox, face: str, look: Look) -> Iterator[_OnWall]:
    """The openings placed by hand; those for screws are on the sheets of the parts."""
    for hole in openings_of(box.box, box.shell.outer_mm):
        if hole.face == face:
            (x, y), r = look.at(hole.at), hole.diameter_mm / 2
            yield _OnWall(
                f"⌀{hole.diameter_mm:g}", box.box.openings[hole.name].name, None, (x - r, y - r), (x + r, y + r)
            )


def _wall(subject: Subject, letter: str, box: PlacedBox, face: str, rows: list[_OnWall]) -> Sheet:
    job, look = subject.job, LOOKS[face]
    where = {"base": "under its base", "top": "on its top"}.get(face, f"on its {face} wall")
    mounts = tuple(f"mounts/{row.mount.id}" for row in rows if row.mount)
    sheet = Sheet(f"{letter}-on-{face}", f"Box {letter}, {where}: {box.name}", job.paper, about=(box.path, *mounts))
    tray = box_bodies(box, lid=False)[:1]
    (x0, y0), (x1, y1) = extent(tray, look)
    # what is said to be on the wall may be off it, where the box was moved: it is drawn where it is
    across, up = (
        Measured(edges, (*(row.from_[i] for row in rows), *(row.high[i] for row in rows if row.mount)), span=edges)
        for i, edges in ((0, (x0, x1)), (1, (y0, y1)))
    )
    left, below = 14.0 + up.reach_mm(job), FOOT_MM + 6.0 + across.reach_mm(job)
    window = (left, below, job.paper.wide_mm - left - 20 - TABLE_MM, job.paper.tall_mm - TOP_MM - below - 10)
    lows, highs = [(x0, y0), *(row.low for row in rows)], [(x1, y1), *(row.high for row in rows)]
    low, high = (min(x for x, _ in lows), min(y for _, y in lows)), (max(x for x, _ in highs), max(y for _, y in highs))
    frame = Frame.fit(low, high, window)
    sheet.outline([frame.at(p) for p in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))], 0.5)
    running(sheet, frame, across, low[1], job, upright=False, limit_mm=job.paper.wide_mm - TABLE_MM - 16)
    running(sheet, frame, up, low[0], job, upright=True, limit_mm=job.paper.tall_mm - TOP_MM)
    _drawn(sheet, frame, rows)
    _words(sheet, box, look, frame, ((x0, y0), (x1, y1)))
    _table(sheet, subject, rows, (x0, y0))
    notes = (
        "Seen from outside. “From left” and “from base”: to the near edges of each piece, the middle of each opening, "
        "from the wall's left edge as seen here and from its lowest edge",
        *_holds(rows),
    )
    border(
        sheet,
        job,
        f"{letter}, {'base' if face == 'base' else f'{face} wall'}: {box.name}",
        (),
        notes,
        scale=frame.scale,
    )
    return sheet


def _drawn(sheet: Sheet, frame: Frame, rows: list[_OnWall]) -> None:
    """Outlines first, then marks, by turns in the corner and the middle: what lies on a plate has its own."""
    for row in rows:
        (x0, y0), (x1, y1) = frame.at(row.low), frame.at(row.high)
        if row.mount:
            sheet.outline([(x0, y0), (x1, y0), (x1, y1), (x0, y1)], 0.35)
        else:
            sheet.ring(((x0 + x1) / 2, (y0 + y1) / 2), (x1 - x0) / 2)
    for number, row in enumerate(rows):
        (x0, y0), (x1, y1) = frame.at(row.low), frame.at(row.high)
        if row.mount and row.mark and x1 - x0 > 9 and y1 - y0 > 9:
            at = (x1 - 5.5, y1 - 5.5) if number % 2 == 0 else ((x0 + x1) / 2, (y0 + y1) / 2)
            balloon(sheet, at, at, row.mark)


def _words(
    sheet: Sheet, box: PlacedBox, look: Look, frame: Frame, corners: tuple[tuple[float, float], tuple[float, float]]
) -> None:
    (x0, _), (x1, y1) = frame.at(corners[0]), frame.at(corners[1])
    for way, at, anchor in (
        (tuple(-v for v in look.right), (x0, y1 + 2.5), "start"),
        (look.right, (x1, y1 + (2.5 if x1 - x0 > NARROW_MM else 7.0)), "end"),
    ):
        word = called(box, (way[0], way[1], way[2]))
        if word:
            sheet.words(at, word, 3.2, anchor, bold=True)  # type: ignore[arg-type]


def _table(sheet: Sheet, subject: Subject, rows: list[_OnWall], zero: tuple[float, float]) -> None:
    flow = Flow(lambda _: sheet, lambda _: sheet.paper.tall_mm - TOP_MM, LOW_MM - 6, sheet.paper.wide_mm - 8 - TABLE_MM)
    write = subject.job.in_one_unit.length
    spot = flow.row(ROW_MM)
    for head, left in COLUMNS:
        sheet.words((spot.at[0] + left, spot.at[1]), head, 2.6, bold=True)
    room = int((spot.at[1] - LOW_MM + 6) / ROW_MM)
    if len(rows) > room:
        sheet.words(
            (spot.at[0], spot.at[1] + ROW_MM), f"{len(rows) - room} more have no room: take a larger paper", 2.6
        )
    for row in rows[:room]:
        spot = flow.row(ROW_MM)
        size = (row.high[0] - row.low[0], row.high[1] - row.low[1])
        cells = (
            row.mark,
            row.name,
            write(row.from_[0] - zero[0]),
            write(row.from_[1] - zero[1]),
            write(size[0]),
            write(size[1]),
        )
        lefts = [left for _, left in COLUMNS] + [TABLE_MM]
        for text, left, right in zip(cells, lefts, lefts[1:], strict=False):
            sheet.words((spot.at[0] + left, spot.at[1]), shortened(text, right - left - 1, 2.6), 2.6)


def _holds(rows: list[_OnWall]) -> Iterator[str]:
    """How they are held; of those that are alike once."""
    told = dict[str, list[str]]()
    for row in rows:
        if row.mount and (words := _words_of(row.mount.mount.to_box)):
            told.setdefault(words, []).append(row.name)
    for words, names in told.items():
        yield f"{', '.join(dict.fromkeys(names))}: {words}"


def _words_of(hold: ToBox) -> str:
    if isinstance(hold, Welded):
        words = weld_words(hold)
        return f"{words}; doubler welded all round, leg {hold.doubler.weld_leg_mm:g}" if hold.doubler else words
    if isinstance(hold, Bolted):
        return f"{hold.rows * hold.across} {hold.bolt.size}, drilled through the bracket's holes in place"
    return ""
