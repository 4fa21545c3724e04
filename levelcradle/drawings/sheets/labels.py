"""What each box says outside, small plates, and the sheet for the owner and for rescuers."""

from collections.abc import Iterator

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.modules import strings_in
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.engraved import engraved
from levelcradle.drawings.letters import shortened, wrapped
from levelcradle.drawings.linework import PLAN, SIDE, extent
from levelcradle.drawings.sheet import Frame, Paper, Point, Sheet
from levelcradle.drawings.sheets.arrangement import car_bodies
from levelcradle.drawings.signs import ahead, live, no_hands, weight
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloon, put

__all__ = ["engraving", "label_sheets", "plate_sheet", "rescue_sheet"]

WIDE_MM, TALL_MM = 128.0, 62.0
PLATE_MM = 18.0
PLATES = (("+", 6, PLATE_MM), ("−", 6, PLATE_MM), ("flow", 4, 34.0), ("live", 4, 34.0))
PLATES_MM = len(PLATES) * (PLATE_MM + 8)  # how much they stand over one another
DANGEROUS_V = 60.0  # ISO 6469-3: voltage class B begins above 60 V d.c. (from memory)
LIVE_ROLES = ("motor", "motor control", "charger", "dc-dc", "heater", "junction", "contactors", "inlet")


def label_sheets(subject: Subject) -> Iterator[Sheet]:
    """A label for each box at true size, as many a sheet as stand on it."""
    job = subject.job
    columns, rows = (
        int((job.paper.wide_mm - 20) / (WIDE_MM + 4)),
        int((job.paper.tall_mm - FOOT_MM - 20) / (TALL_MM + 4)),
    )
    boxes = list(subject.boxes)
    for number, first in enumerate(range(0, len(boxes), columns * rows)):
        name = "labels" + (f"-{number + 1}" if number else "")
        sheet = Sheet(name, "Labels of the boxes", job.paper, about=("labels",))
        for n, (letter, box) in enumerate(boxes[first : first + columns * rows]):
            at = (12 + n % columns * (WIDE_MM + 4), job.paper.tall_mm - 20 - TALL_MM - n // columns * (TALL_MM + 4))
            _edge(sheet, at, WIDE_MM, TALL_MM)
            _label(sheet, subject, letter, box, at)
        note = "True size: check the 100 mm line. To be fixed where it is read with the box in place"
        border(sheet, job, sheet.title, (), (note,))
        yield sheet


def _edge(sheet: Sheet, at: Point, wide_mm: float, tall_mm: float) -> None:
    x, y = at
    sheet.outline([(x, y), (x + wide_mm, y), (x + wide_mm, y + tall_mm), (x, y + tall_mm)], 0.5)


def _label(sheet: Sheet, subject: Subject, letter: str, box: PlacedBox, at: Point) -> None:
    x, y = at
    sheet.words((x + 5, y + TALL_MM - 13), letter, 11.0, bold=True)
    sheet.words((x + 20, y + TALL_MM - 8), shortened(box.name, WIDE_MM - 24, 4.5 * 1.18), 4.5, bold=True)
    for number, text in enumerate(_facts(subject, box)):
        sheet.words((x + 20, y + TALL_MM - 15 - 5.2 * number), shortened(text, WIDE_MM - 24, 3.4), 3.4)
    live(sheet, (x + 5, y + 5), 17.0)
    weight(sheet, (x + 25, y + 5), 17.0)
    no_hands(sheet, (x + 45, y + 5), 17.0)
    sheet.words((x + 64, y + 15), "LIVE ALWAYS BELOW", 4.2, bold=True)
    for number, text in enumerate(("Do not open, drill, weld or wash into it.", "Lift with rated gear only.")):
        sheet.words((x + 64, y + 9.5 - 4.2 * number), text, 2.8)


def _facts(subject: Subject, box: PlacedBox) -> Iterator[str]:
    """Modules, voltages and mass; each string of its own where a box holds parts of several."""
    shell, design = box.shell, subject.assembly.design
    yield f"{len(shell.modules)} modules, {box.full_kg:.0f} kg full, {box.hung_kg:.0f} kg as lifted"
    for key, string in strings_in([box.box], design.module_kinds, design.strings).items():
        name = design.strings[key].name if key else ""
        volts = f"{string.nominal_v:.0f} V nominal, {string.full_v:.0f} V full"
        yield f"{name + ': ' if name else ''}{volts}" + (
            ", d.c., dangerous" if string.full_v > DANGEROUS_V else ", d.c."
        )


def engraving(subject: Subject) -> tuple[Sheet, Sheet]:
    """All labels and plates as a machine takes them: their edges, and what is engraved on them, in single lines."""
    boxes = list(subject.boxes)
    low = PLATES_MM + 12.0
    paper = Paper("whole", 250.0, low + len(boxes) * (TALL_MM + 4))
    edges, faces = (Sheet(name, "Labels and plates", paper) for name in ("edges", "faces"))
    for n, (letter, box) in enumerate(boxes):
        at = (6.0, low + n * (TALL_MM + 4))
        _edge(edges, at, WIDE_MM, TALL_MM)
        _label(faces, subject, letter, box, at)
    for what, at, wide in _plates(PLATES_MM + 6.0):
        _edge(edges, at, wide, PLATE_MM)
        _plate(faces, what, at)
    return edges, engraved(faces)


def plate_sheet(subject: Subject) -> Sheet:
    """Plus, minus, flow and warning plates to be cut out or engraved."""
    sheet = Sheet("plates", "Small plates", subject.job.paper, about=("labels",))
    for what, at, wide in _plates(sheet.paper.tall_mm - 26.0):
        _edge(sheet, at, wide, PLATE_MM)
        _plate(sheet, what, at)
    border(sheet, subject.job, sheet.title, (), ("True size: check the 100 mm line",))
    return sheet


def _plates(top: float) -> Iterator[tuple[str, Point, float]]:
    """What stands on each, its lower left corner, its width."""
    for line, (what, count, wide) in enumerate(PLATES):
        for n in range(count):
            yield what, (14 + n * 40.0, top - (line + 1) * (PLATE_MM + 8)), wide


def _plate(sheet: Sheet, what: str, at: Point) -> None:
    x, y = at
    if what == "flow":
        ahead(sheet, (x + 4, y + 6), 26.0)
        sheet.words((x + 17, y + 11), "FLOW", 4.0, "middle", bold=True)
    elif what == "live":
        live(sheet, (x + 3, y + 3), 13.0)
        sheet.words((x + 17, y + 7), "LIVE", 4.5, bold=True)
    else:
        sheet.words((x + PLATE_MM / 2, y + 5), what, 12.0, "middle", bold=True)


def rescue_sheet(subject: Subject) -> Sheet:
    """For the owner and whoever comes to help: where the live parts are, what cuts them off, where not to cut."""
    job = subject.job
    sheet = Sheet("rescue", "Owner's and rescue sheet", job.paper, about=("car",))
    bodies, column = car_bodies(subject), 104.0
    wide, tall = job.paper.wide_mm - column - 34, (job.paper.tall_mm - FOOT_MM - 38) / 2
    scale = min(Frame.fit(*extent(bodies, look), (0, 0, wide, tall)).scale for look in (PLAN, SIDE))
    for look, low in ((PLAN, FOOT_MM + 14 + tall), (SIDE, FOOT_MM + 8)):
        (x0, y0), (x1, y1) = extent(bodies, look)
        frame = Frame((14 + (wide - (x1 - x0) * scale) / 2, low + (tall - (y1 - y0) * scale) / 2), (x0, y0), scale)
        put(sheet, bodies, look, frame)
        for letter, box in subject.boxes:
            place = frame.at(look.at(box.cg))
            balloon(sheet, place, place, letter)
    _told(sheet, subject, sheet.paper.wide_mm - column - 8, column - 4)
    border(sheet, job, sheet.title, (), ("Kept in the car, and given to who repairs it",))
    return sheet


def _told(sheet: Sheet, subject: Subject, left: float, wide: float) -> None:
    y = sheet.paper.tall_mm - 28.0
    for text, bold in _lines(subject):
        for row in wrapped(text, wide, 2.8 * (1.18 if bold else 1.0), 3):
            if y > FOOT_MM + 4:
                sheet.words((left, y), row, 2.8, bold=bold)
            y -= 4.3


def _lines(subject: Subject) -> Iterator[tuple[str, bool]]:
    design, pack = subject.assembly.design, subject.analysis.string
    yield "Live parts", True
    yield (
        f"All strings: {pack.nominal_v:.0f} V nominal, {pack.full_v:.0f} V full, d.c.; live whatever is switched off",
        False,
    )
    for letter, box in subject.boxes:
        yield f"{letter}: {box.name}, {len(box.shell.modules)} modules, {box.hung_kg:.0f} kg", False
    roles = [item for item in design.items.values() if item.role in LIVE_ROLES and item.state in ("in", "stays")]
    for item in sorted(roles, key=lambda row: row.name):
        yield f"{item.name}: {item.role}", False
    yield "What cuts it off", True
    breaks = [item.name for item in roles if item.role in ("contactors", "junction")]
    yield (
        (
            ", ".join(breaks)
            if breaks
            else "Not said yet which thing breaks the circuit: give it the role of contactors"
        ),
        False,
    )
    yield "Lifting, jacking, cutting", True
    yield (
        "Never under a box or through one: keep clear of A, B … in the views. Cells may burn again after days",
        False,
    )
