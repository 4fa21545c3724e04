"""What stands on every sheet: what it is and of which revision, how large, its cautions, and whether it may be cut
from."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from levelcradle.core.design.sheets import Lengths, Projection
from levelcradle.core.quantity import INCH_MM, write_length
from levelcradle.drawings.letters import BOLD, wrapped
from levelcradle.drawings.sheet import PAPERS, Paper, Sheet

__all__ = ["FOOT_MM", "SMALLEST_MM", "Job", "border", "numbered"]

CAUTIONS = (
    "Never weld on a box with cells in it; keep swarf off modules. Weld in short runs apart from each other. "
    "Lift with rated gear; nobody under a load on a jack. Crash loads are many times the weight: have the mounting "
    "checked and the vehicle inspected as local rules require. Engineering estimates; local codes prevail."
)
BARS = (1000, 500, 200, 100, 50, 20, 10)
EDGE_MM, FOOT_MM = 8.0, 50.0  # the frame's distance from the paper's edge, and how high the foot reaches
BLOCK_MM, NAMES_MM = 58.0, 78.0  # width of the title block at the right and of the names at the left of the foot
NOTE_MM, NOTE_ROW_MM, CAUTION_ROW_MM = 2.6, 3.3, 3.1
SMALLEST_MM = 2.5  # ISO 3098: the smallest letters of a drawing


@dataclass(frozen=True, slots=True)
class Job:
    """What all sheets of a pack have in common. ``revision`` is 0 and ``on`` empty where a file on its own is drawn."""

    design: str
    released: bool
    revision: int = 0
    on: str = ""
    paper: Paper = field(default_factory=lambda: PAPERS["A4"])
    projection: Projection = "third angle"
    lengths: Lengths = "mm"

    def length(self, value_mm: float) -> str:
        """A length as the sheets write it: to a tenth of a millimetre, to a 32nd of an inch, or both.

        >>> Job("a car", True, lengths="both").length(394.0)
        '394.0 [15\\xa01/2"]'
        """
        inches = write_length(value_mm, "in")
        both = f"{value_mm:.1f} [{inches.replace(' ', NO_BREAK)}]"
        return {"mm": f"{value_mm:.1f}", "in": inches, "both": both}[self.lengths]

    @property
    def in_one_unit(self) -> "Job":
        """The same, for a place that has no room for two; the other unit stands elsewhere on the sheet or the next."""
        return replace(self, lengths="mm") if self.lengths == "both" else self

    def fine(self, value_mm: float) -> str:
        """A thickness or a ±, for which a 32nd of an inch is too coarse: in thousandths.

        >>> Job("a car", True, lengths="both").fine(3.0)
        '3.0 [0.118]'
        """
        inches = f"{value_mm / INCH_MM:.3f}"
        return {"mm": f"{value_mm:.1f}", "in": inches, "both": f"{value_mm:.1f} [{inches}]"}[self.lengths]

    def size(self, value_mm: float) -> str:
        """What is drilled or bent by a metric tool, and stays so: with its unit where lengths are inches."""
        return f"{value_mm:g} mm" if self.lengths == "in" else f"{value_mm:g}"


NO_BREAK = "\u00a0"
LENGTHS = {"mm": "lengths in mm", "in": "lengths in inches", "both": "lengths in mm [inches]"}


def border(
    sheet: Sheet, job: Job, title: str, facts: Sequence[str], notes: Sequence[str] = (), *, scale: float | None = None
) -> None:
    """Frame, names, notes, cautions, title block, a 100 mm check line, and where all of it is drawn to one scale, a
    length bar."""
    wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
    left, right, top = EDGE_MM, wide - EDGE_MM, FOOT_MM
    sheet.outline([(left, EDGE_MM), (right, EDGE_MM), (right, tall - EDGE_MM), (left, tall - EDGE_MM)], 0.5)
    sheet.line((left, top), (right, top), weight_mm=0.35)
    _names(sheet, job, title, facts)
    _notes(sheet, notes, right - BLOCK_MM - 4)
    _block(sheet, job, right - BLOCK_MM)
    if scale is not None:
        _bar(sheet, scale)
    if not job.released:
        sheet.words((right - 4, tall - 17), "NOT RELEASED", 7, "end", bold=True)


def numbered(sheets: Sequence[Sheet]) -> None:
    """Says on each sheet which of how many it is."""
    for number, sheet in enumerate(sheets, 1):
        sheet.words((sheet.paper.wide_mm - EDGE_MM - 2, _line(4)), f"sheet {number} of {len(sheets)}", 3.0, "end")


def _line(number: int) -> float:
    """The height of a line of the title block, from the top."""
    return FOOT_MM - 6 - 5.6 * number


def _names(sheet: Sheet, job: Job, title: str, facts: Sequence[str]) -> None:
    y = FOOT_MM - 7
    for size, text, lines in ((5.0, title, 2), (3.4, job.design, 1), *((3.2, fact, 1) for fact in facts)):
        for row in wrapped(text, (NAMES_MM - 8) / (BOLD if size == 5.0 else 1.0), size, lines):
            sheet.words((EDGE_MM + 4, y), row, size, bold=size == 5.0)
            y -= size * 1.4


def _notes(sheet: Sheet, notes: Sequence[str], right: float) -> None:
    """Notes from the top, cautions from the bottom over the check line: what has no room is a note, never a caution."""
    left = EDGE_MM + NAMES_MM + 4
    sheet.line((left, 10.5), (left + 100, 10.5), weight_mm=0.35)
    for x in (left, left + 100):
        sheet.line((x, 9.1), (x, 11.9), weight_mm=0.35)
    sheet.words((left + 2, 11.4), "check line 100 mm", SMALLEST_MM)
    cautions = wrapped(CAUTIONS, right - left, SMALLEST_MM, 9)
    low = 15.5 + CAUTION_ROW_MM * len(cautions)
    for number, row in enumerate(reversed(cautions)):
        sheet.words((left, 15.5 + CAUTION_ROW_MM * number), row, SMALLEST_MM)
    room = int((FOOT_MM - 1.5 - low) / NOTE_ROW_MM)
    rows = [row for note in notes for row in wrapped(note, right - left, NOTE_MM, 3)]
    for number, row in enumerate(rows[:room]):
        sheet.words((left, FOOT_MM - 4.5 - NOTE_ROW_MM * number), row, NOTE_MM)


def _block(sheet: Sheet, job: Job, left: float) -> None:
    """The title block's figures (ISO 7200) and the symbol of the projection."""
    sheet.line((left, EDGE_MM), (left, FOOT_MM), weight_mm=0.35)
    revision = f"revision {job.revision}" if job.revision else "no revision: of a file"
    rows = (revision, job.on, f"{sheet.paper.name}, {LENGTHS[job.lengths]}", job.projection)
    for number, text in enumerate(rows):
        sheet.words((left + 3, _line(number)), text, 3.0)
    _symbol(sheet, left + BLOCK_MM - 20, _line(3) + 1.2, job.projection)
    sheet.line((left, 16), (left + BLOCK_MM, 16), weight_mm=0.25)
    sheet.words((left + 3, 10.8), "CHECK BEFORE CUTTING", 3.4, bold=True)


def _symbol(sheet: Sheet, x: float, y: float, projection: Projection) -> None:
    """A cone cut short, from the side and from its small end: the rings stand at the side that is looked at in third
    angle, at the other in first (ISO 5456-2)."""
    cone, rings = (x, x + 11.0) if projection == "first angle" else (x + 6.0, x - 1.0)
    sheet.outline([(cone, y - 1.2), (cone + 6, y - 2.4), (cone + 6, y + 2.4), (cone, y + 1.2)], 0.35)
    for radius in (1.2, 2.4):
        sheet.ring((rings + 2.4, y), radius)


def _bar(sheet: Sheet, scale: float) -> None:
    """The drawing's own length bar: never a printed ratio."""
    length = next((b for b in BARS if b * scale <= 60), 10)
    x, y = EDGE_MM + 4, 10.5
    sheet.line((x, y), (x + length * scale, y), weight_mm=0.5)
    for end in (x, x + length * scale):
        sheet.line((end, y - 1.2), (end, y + 1.2), weight_mm=0.35)
    sheet.words((x + 1, y + 1.4), f"{length} mm in this drawing", SMALLEST_MM)
