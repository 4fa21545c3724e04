"""The survey to take out to the car: a sketch of the vehicle, each space's sections, and numbered blanks to fill by
hand."""

from collections.abc import Mapping
from itertools import groupby

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.meshes import Mesh
from levelcradle.core.projections import shapes
from levelcradle.core.survey import BayResult, SurveyBlank, bay_result, survey_blanks
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.sheet import Flow, Frame, Sheet

__all__ = ["survey_sheet_pdf", "survey_sheets"]

COLUMN_MM, ROW_MM, TOP_MM, LOW_MM = 92.0, 6.4, 186.0, 22.0
COLUMNS = 3
SECTIONS_MM = 62.0  # what a space's sections take of its first sheet
TITLES = {
    "weighings": "weights",
    "vehicle": "the vehicle",
    "references": "reference points",
    "hardpoints": "hard points",
    "items": "things",
}
SKETCHED = {"item": 0.18, "gone": 0.13, "keepout": 0.13, "crush": 0.13, "bay": 0.5}


def survey_sheet_pdf(design: Design, revision: int, meshes: Mapping[str, Mesh]) -> bytes:
    """Pages on their long side, black on white, an empty "found" column beside each figure."""
    return sheets_pdf(survey_sheets(design, revision, meshes), f"{design.name}, survey")


def survey_sheets(design: Design, revision: int, meshes: Mapping[str, Mesh]) -> list[Sheet]:
    sheets = [_sketch(design, meshes)]
    # a space has sheets of its own; the rest stands together, on as few as it takes
    for bay_id, rows in groupby(survey_blanks(design), key=lambda b: _bay_of(b.path)):
        blanks = list(rows)
        bay = design.bays.get(bay_id)
        words = (TITLES.get(collection, collection) for collection in (b.path.split("/")[1] for b in blanks))
        title = bay.name if bay else ", ".join(dict.fromkeys(words)).capitalize()
        sheets += _tables(design, title, blanks, bay_result(bay) if bay else None)
    for number, sheet in enumerate(sheets, start=1):
        _frame(sheet, design, f"sheet {number} of {len(sheets)}", revision)
    return sheets


def _bay_of(path: str) -> str:
    """The id of the space that a figure is of; none of the rest."""
    parts = path.split("/")
    return parts[2] if parts[1] == "bays" else ""


def _frame(sheet: Sheet, design: Design, page: str, revision: int) -> None:
    wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
    sheet.words((12, tall - 13), sheet.title, 5.5, bold=True)
    sheet.words((wide - 12, tall - 13), f"{design.name} · rev. {revision} · {page}", 3.2, "end")
    sheet.line((12, tall - 16), (wide - 12, tall - 16), weight_mm=0.35)
    sheet.line((12, 16), (112, 16), weight_mm=0.35)
    for x in (12, 112):
        sheet.line((x, 14.6), (x, 17.4), weight_mm=0.35)
    sheet.words((12, 10), "check line 100 mm", 2.6)
    unit = "mm" if design.units.survey == "mm" else "inches"
    sheet.words(
        (116, 15), f"Lengths in {unit}, masses in {design.units.mass}. Say it where another unit was read.", 2.8
    )
    sheet.words(
        (116, 10), "Measured by ______________________   on ____________   engine in / out   on wheels / hanging", 2.8
    )


def _sketch(design: Design, meshes: Mapping[str, Mesh]) -> Sheet:
    """Plan over side, aligned on the aft axis; numbers name the spaces and reference points."""
    sheet = Sheet("survey-sketch", "Sketch of the vehicle")
    drawn = [s for s in shapes(resolve(design, meshes)) if s.kind in SKETCHED]
    overall, wheelbase = design.vehicle.overall, design.vehicle.wheelbase_mm
    fore, aft = (
        (-overall.overhang_front_mm, wheelbase + overall.overhang_rear_mm) if overall else (-800.0, wheelbase + 900.0)
    )
    half, high = (overall.width_mm / 2, overall.height_mm) if overall else (850.0, 1400.0)
    plan = Frame.fit((fore, -half), (aft, half), (24, 104, 249, 80))
    side = Frame((plan.origin[0], 24), (fore, 0.0), min(plan.scale, 70 / high))
    plan = Frame(plan.origin, plan.low, side.scale)
    for frame, low, top in ((plan, -half, half), (side, 0.0, high)):
        sheet.outline([frame.at(p) for p in ((fore, low), (aft, low), (aft, top), (fore, top))], 0.13, dashed=True)
        for x in (0.0, wheelbase):
            sheet.line(frame.at((x, low)), frame.at((x, top)), weight_mm=0.13, dashed=True)
    radius = overall.tyre_radius_mm if overall else 300.0
    for x in (0.0, wheelbase):
        sheet.ring(side.at((x, radius)), radius * side.scale)
    for shape in drawn:
        for frame, outline in ((plan, shape.plan), (side, shape.side)):
            if len(outline) > 2:
                sheet.outline(
                    [frame.at((p[0], p[1])) for p in outline], SKETCHED[shape.kind], dashed=shape.kind == "gone"
                )
        if shape.kind == "bay":
            sheet.words(plan.at((shape.plan[0][0], shape.plan[0][1])), shape.name[:30], 3.0, bold=True)
    for reference in design.references.values():
        for frame, other in ((plan, reference.at_mm[1]), (side, reference.at_mm[2])):
            spot = frame.at((reference.at_mm[0], other))
            sheet.ring(spot, 1.1)
            sheet.words((spot[0] + 1.8, spot[1] + 0.6), reference.name[:24], 2.6)
    middle = plan.at((fore, 0.0))
    sheet.words((middle[0] - 3, middle[1]), "NOSE", 3.2, "middle", bold=True, turned=True)
    centre = plan.at(((fore + aft) / 2, half))
    sheet.words((centre[0], centre[1] + 1.5), "RIGHT", 3.2, "middle", bold=True)
    foot = plan.at(((fore + aft) / 2, -half))
    sheet.words((foot[0], foot[1] - 4), "LEFT", 3.2, "middle", bold=True)
    return sheet


def _tables(design: Design, title: str, blanks: list[SurveyBlank], figures: BayResult | None) -> list[Sheet]:
    """Blanks in three columns, as many pages as they take; a space's sections stand first."""

    def begun(number: int) -> Sheet:
        sheet = Sheet(f"survey-{blanks[0].number}-{number + 1}", title)
        if figures and number == 0:
            _sections(sheet, figures)
        return sheet

    flow = Flow(
        begun, lambda number: TOP_MM - (SECTIONS_MM if figures and number == 0 else 0), LOW_MM, 12, COLUMN_MM, COLUMNS
    )
    group = ""
    for blank in blanks:
        heading = blank.group != group
        spot = flow.row(ROW_MM, (2 if heading else 1) * ROW_MM)
        if heading or spot.first:
            group = blank.group
            spot.sheet.words(spot.at, group[:44], 3.4, bold=True)
            spot.sheet.words((spot.at[0] + 78, spot.at[1]), "found", 2.4, "middle")
            spot = flow.row(ROW_MM)
        _row(spot.sheet, blank, *spot.at)
    return flow.sheets


def _row(sheet: Sheet, blank: SurveyBlank, x: float, y: float) -> None:
    sheet.words((x + 7, y), str(blank.number), 3.4, "end", bold=True)
    sheet.words((x + 9, y), blank.label[:30], 2.9)
    sheet.words((x + 66, y), blank.text[:12], 2.9, "end")
    sheet.line((x + 68, y - 1.2), (x + 88, y - 1.2), weight_mm=0.25)


def _sections(sheet: Sheet, figures: BayResult) -> None:
    """Each section looking forward, the car's left at the left, beside each other, to one scale."""
    rows = figures.sections[:6]
    across = [p[0] for s in rows for p in s.ring]
    up = [p[1] for s in rows for p in s.ring]
    wide, high = max(max(across) - min(across), 1.0), max(max(up) - min(up), 1.0)
    each = 272 / len(rows)
    scale = min((each - 10) / wide, 44 / high)
    for number, section in enumerate(rows):
        frame = Frame((14 + number * each, 138.0), (min(across), min(up)), scale)
        sheet.outline([frame.at(p) for p in section.ring], 0.35)
        left, right = frame.at((min(across), min(up))), frame.at((max(across), min(up)))
        sheet.words((left[0], 132.5), f"LEFT   station {number + 1}, looking forward", 2.8)
        sheet.words((right[0], 134.8), "RIGHT", 2.8, "end", bold=True)
