"""The first sheets: a picture of the whole, what stands in the way of cutting, and a list of all that follow."""

import math
from collections.abc import Sequence

from levelcradle.core.finding import ORDER, message_text
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.letters import shortened
from levelcradle.drawings.linework import CORNER
from levelcradle.drawings.sheet import Flow, Sheet
from levelcradle.drawings.sheets.arrangement import car_bodies
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Column, Table
from levelcradle.drawings.views import fitted, put

__all__ = ["cover_sheets", "findings_table"]

ROW_MM, COLUMN_MM, TOP_MM = 4.6, 92.0, 26.0


def cover_sheets(subject: Subject, sheets: Sequence[Sheet]) -> list[Sheet]:
    """The picture at the left, the list at its right and on as many sheets as it takes."""
    job, paper = subject.job, subject.job.paper
    left, top, low = paper.wide_mm - 12 - COLUMN_MM, paper.tall_mm - TOP_MM, FOOT_MM + 5
    fits, columns = int((top - low) / ROW_MM), int((paper.wide_mm - 22) / COLUMN_MM)
    before = 1 + math.ceil(max(0, len(sheets) - fits) / (fits * columns))  # what comes before the first that is listed

    def new(number: int) -> Sheet:
        return Sheet(f"cover-{number + 1}" if number else "cover", "Cover and list of sheets", paper, about=("car",))

    first = new(0)
    bodies = car_bodies(subject)
    put(first, bodies, CORNER, fitted(bodies, CORNER, (14, FOOT_MM + 6, left - 22, top - FOOT_MM - 10)))
    beside = Flow(lambda _: first, lambda _: top, low, left)
    further = Flow(lambda n: new(n + 1), lambda _: top, low, 14.0, COLUMN_MM, columns)
    for number, sheet in enumerate(sheets):
        spot = (beside if number < fits else further).row(ROW_MM)
        spot.sheet.words((spot.at[0] + 7, spot.at[1]), str(number + 1 + before), 2.8, "end")
        spot.sheet.words((spot.at[0] + 9, spot.at[1]), shortened(sheet.title, COLUMN_MM - 12, 2.8), 2.8)
    covers = [first, *further.sheets]
    facts = (f"{len(subject.parts)} kinds of part, {sum(p.quantity for p in subject.parts)} pieces",)
    for cover in covers:
        border(cover, job, cover.title, facts, _notes(subject))
    return covers


def _notes(subject: Subject) -> tuple[str, ...]:
    if subject.job.released:
        return ("Nothing is foul, and nothing that these sheets rest on is unknown",)
    return ("Not released: what stands in the way is listed under “Findings”",)


def findings_table(subject: Subject) -> Table:
    """Everything that is not clear, worst first."""
    words = {"unknown": "not known"}
    rows = sorted((f for f in subject.analysis.findings if f.state != "clear"), key=lambda f: ORDER[f.state])
    found = tuple((words.get(f.state, f.state), f.station, message_text(f), f.rationale) for f in rows)
    columns = (Column("state", 0.6), Column("station", 0.6), Column("finding", 3.4), Column("why", 3.0))
    return Table("findings", "Findings", columns, found)
