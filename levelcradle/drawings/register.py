"""What each station brings to the pack. A station that comes later adds its line here and its rooms in ``sheets``."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from levelcradle.drawings.border import numbered
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.sheets.arrangement import arrangement_sheet, places_table
from levelcradle.drawings.sheets.box import box_sheet
from levelcradle.drawings.sheets.carried import carried_table, uses_table
from levelcradle.drawings.sheets.cover import cover_sheets, findings_table
from levelcradle.drawings.sheets.crossmembers import crossmember_table
from levelcradle.drawings.sheets.exploded import exploded_sheet
from levelcradle.drawings.sheets.frame import frame_sheets
from levelcradle.drawings.sheets.inside import module_sheets, section_sheet
from levelcradle.drawings.sheets.labels import label_sheets, plate_sheet, rescue_sheet
from levelcradle.drawings.sheets.lined import liner_list
from levelcradle.drawings.sheets.lists import buying_list, cut_list, member_list
from levelcradle.drawings.sheets.load import load_statement, mass_list
from levelcradle.drawings.sheets.mounts import mount_sheets
from levelcradle.drawings.sheets.nest import nest_sheets
from levelcradle.drawings.sheets.part import part_sheets
from levelcradle.drawings.sheets.sawn import saw_list, saw_plan
from levelcradle.drawings.sheets.stack import stack_table
from levelcradle.drawings.sheets.walls import wall_sheets
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Table, table_sheets

__all__ = ["Drawn", "Group", "drawn"]


@dataclass(frozen=True, slots=True)
class Group:
    """Sheets that belong together, under one heading."""

    title: str
    sheets: tuple[Sheet, ...]


Entry = Sheet | Table
Station = Callable[[Subject], Iterator[tuple[str, Iterable[Entry]]]]


def _whole(subject: Subject) -> Iterator[tuple[str, Iterable[Entry]]]:
    yield "The whole", (arrangement_sheet(subject), places_table(subject), findings_table(subject))


def _boxes(subject: Subject) -> Iterator[tuple[str, Iterable[Entry]]]:
    for letter, box in subject.boxes:
        own = [part for part in subject.parts if part.mark.rstrip("0123456789") == letter]
        yield (
            f"Box {letter}: {box.name}",
            (
                box_sheet(subject, letter, box),
                section_sheet(subject, letter, box),
                *module_sheets(subject, letter, box),
                exploded_sheet(subject, letter, box),
                *frame_sheets(subject, letter, box),
                *wall_sheets(subject, letter, box),
                *mount_sheets(subject, letter, box),
                carried_table(subject, letter, box),
                uses_table(subject, letter, box),
                stack_table(subject, letter, box),
                *(sheet for part in own for sheet in part_sheets(subject, part)),
            ),
        )


def _lists(subject: Subject) -> Iterator[tuple[str, Iterable[Entry]]]:
    yield (
        "Lists",
        (
            cut_list(subject),
            *nest_sheets(subject),
            saw_list(subject),
            saw_plan(subject),
            liner_list(subject),
            buying_list(subject),
            member_list(subject),
            crossmember_table(subject),
        ),
    )


def _weight(subject: Subject) -> Iterator[tuple[str, Iterable[Entry]]]:
    yield "Weight", (load_statement(subject), mass_list(subject))


def _labels(subject: Subject) -> Iterator[tuple[str, Iterable[Entry]]]:
    yield "Labels and rescue", (*label_sheets(subject), plate_sheet(subject), rescue_sheet(subject))


STATIONS: tuple[Station, ...] = (_whole, _boxes, _lists, _weight, _labels)


@dataclass(frozen=True, slots=True)
class Drawn:
    """Everything the stations bring: sheets in their groups, in their order, and the tables among them."""

    groups: tuple[Group, ...]
    tables: tuple[Table, ...]

    @property
    def sheets(self) -> list[Sheet]:
        return [sheet for group in self.groups for sheet in group.sheets]


def drawn(subject: Subject) -> Drawn:
    """Every sheet there is, grouped and numbered; nothing of a design without a box."""
    if not subject.assembly.boxes:
        return Drawn((), ())
    entries = [(title, list(rows)) for station in STATIONS for title, rows in station(subject)]
    tables = tuple(entry for _, rows in entries for entry in rows if isinstance(entry, Table))
    found = [Group(title, tuple(s for entry in rows for s in _as_sheets(entry, subject))) for title, rows in entries]
    covers = cover_sheets(subject, [sheet for group in found for sheet in group.sheets])
    found[0] = Group(found[0].title, (*covers, *found[0].sheets))
    result = Drawn(tuple(found), tables)
    numbered(result.sheets)
    return result


def _as_sheets(entry: Entry, subject: Subject) -> Iterable[Sheet]:
    """A table with nothing in it is no sheet."""
    return table_sheets(entry, subject.job) if isinstance(entry, Table) else (entry,)
