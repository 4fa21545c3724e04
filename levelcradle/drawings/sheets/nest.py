"""How the parts lie on the sheets of stock they are cut from."""

from collections.abc import Iterator

from levelcradle.core.nesting import GAP_MM
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.sheet import Frame, Sheet
from levelcradle.drawings.subject import Subject

__all__ = ["nest_sheets"]


def nest_sheets(subject: Subject) -> Iterator[Sheet]:
    job = subject.job
    found, left = subject.nested
    too_large = tuple(f"{part.mark} is larger than a sheet" for part in left)
    for number, nest in enumerate(found, 1):
        title = f"Nest {number}: {nest.material}, {nest.thickness_mm:g} mm"
        sheet = Sheet(f"nest-{number}", title, job.paper)
        window = (26.0, FOOT_MM + 16, job.paper.wide_mm - 44, job.paper.tall_mm - FOOT_MM - 44)
        wide, tall = nest.stock_mm
        frame = Frame.fit((0.0, 0.0), nest.stock_mm, window)
        sheet.outline([frame.at(p) for p in ((0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall))], 0.35)
        for laid in nest.laid:
            sheet.outline([frame.at(laid.point(p)) for p in laid.part.outline], 0.25)
            xs, ys = zip(*(frame.at(laid.point(p)) for p in laid.part.outline), strict=True)
            if max(xs) - min(xs) > 6 and max(ys) - min(ys) > 4:
                sheet.words(((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2 - 1), laid.part.mark, 2.8, "middle")
        sheet.dimension(frame.at((0.0, 0.0)), frame.at((wide, 0.0)), job.length(wide), -8)
        sheet.dimension(frame.at((0.0, 0.0)), frame.at((0.0, tall)), job.length(tall), -8)
        facts = (f"{len(nest.laid)} pieces, {100 * nest.full:.0f} % of the sheet{subject.for_cars}",)
        used = f"Cut off at {job.length(nest.used_mm)}, the rest is whole" if nest.used_mm < wide - 1 else ""
        notes = (f"Parts {job.length(GAP_MM)} apart. {used}", *too_large)
        border(sheet, job, title, facts, notes, scale=frame.scale)
        yield sheet
