"""The frame of a box that has one: its tubes in their places, each with its mark."""

from collections.abc import Iterator, Mapping, Sequence

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.solids import corner_points
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.linework import CORNER, Body
from levelcradle.drawings.sheet import Point, Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloons, fitted, put

__all__ = ["frame_sheets"]

LOW_MM, TOP_MM = FOOT_MM + 8.0, 24.0


def frame_sheets(subject: Subject, letter: str, box: PlacedBox) -> Iterator[Sheet]:
    bars = list(box.shell.made.bars(box.id, box.box.name))
    tubes = [piece for piece in box.shell.pieces if piece.role == "frame"]
    if not bars:
        return
    job = subject.job
    sheet = Sheet(f"{letter}-frame", f"Box {letter}, its frame: {box.name}", job.paper, about=(box.path,))
    bodies = [Body(tube.solids, 0.35) for tube in tubes]
    wide, tall = job.paper.wide_mm, job.paper.tall_mm
    places = put(sheet, bodies, CORNER, fitted(bodies, CORNER, (34.0, LOW_MM, wide - 68, tall - TOP_MM - LOW_MM)))
    tips = list(_tips(subject, box, [tube.name for tube in tubes], places))
    balloons(sheet, tips, (22.0, wide - 22.0), LOW_MM + 2, tall - TOP_MM - 4)
    length, width, height = (job.length(v) for v in _over(box))
    sections = ", ".join(dict.fromkeys(str(bar.section) for bar in bars))
    facts = (f"{bars[0].material_name}, {sections}", f"over all {length} × {width} × {height}")
    notes = (
        "Not to scale; lengths in the saw list. Tack both rings flat and square, diagonals alike, then the posts",
        "Weld in short runs apart from each other; grind what sheet lies on",
    )
    border(sheet, job, f"{letter}, frame: {box.name}", facts, notes)
    yield sheet


def _tips(
    subject: Subject, box: PlacedBox, names: Sequence[str], places: Mapping[int, Point]
) -> Iterator[tuple[str, Point]]:
    """The mark of each tube at its place; of a ring that is one tube, once."""
    told = set()
    for n, name in enumerate(names):
        bar = f"{box.id}-{name.replace(' ', '-')}"
        if bar not in subject.marks:
            bar = f"{box.id}-{name.split()[0]}-ring"
        if n in places and bar not in told:
            told.add(bar)
            yield subject.marks[bar], places[n]


def _over(box: PlacedBox) -> tuple[float, float, float]:
    """The frame over all: without its cladding."""
    points = corner_points([s for piece in box.shell.pieces if piece.role == "frame" for s in piece.solids])
    size = points.max(axis=0) - points.min(axis=0)
    return float(size[0]), float(size[1]), float(size[2])
