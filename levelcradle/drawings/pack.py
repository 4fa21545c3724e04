"""The fabrication pack of a design: every file by its name."""

from collections.abc import Callable, Iterator, Mapping

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.meshes import Mesh
from levelcradle.drawings.dxf import LAYERS_TXT, part_dxf
from levelcradle.drawings.flat_svg import part_svg
from levelcradle.drawings.names import file_stem
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.register import sheets_of, tables_of
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.table import table_csv, workbook

__all__ = ["Told", "pack_files", "sheet_files"]

Told = Callable[[float, str], None]


def pack_files(
    design: Design,
    meshes: Mapping[str, Mesh],
    *,
    revision: int = 0,
    on: str = "",
    told: Told = lambda share, what: None,
) -> dict[str, bytes]:
    """The sheets as one PDF; DXF and SVG of each part; the tables. A design without a box gives nothing to cut: an
    empty pack.

    ``revision`` and ``on``: its number and day, where it is kept; nothing in the files comes from the clock. ``told``
    hears how far it has come, and what is being made.
    """
    assembly = resolve(design, meshes)
    if not assembly.boxes:
        return {}
    told(0.0, "working it out")
    subject = subject_of(assembly, revision=revision, on=on)
    told(0.1, "cut files")
    files = dict(_cut_files(subject))
    told(0.2, "tables")
    files |= _table_files(subject, on)
    told(0.3, "sheets")
    files |= sheet_files(subject)
    told(1.0, "done")
    return files


def sheet_files(subject: Subject) -> dict[str, bytes]:
    """All sheets as one PDF."""
    return {"drawings.pdf": sheets_pdf(sheets_of(subject), subject.assembly.design.name)}


def _cut_files(subject: Subject) -> Iterator[tuple[str, bytes]]:
    released, version = subject.job.released, subject.assembly.design.sheets.dxf
    for part in subject.parts:
        yield f"{file_stem(part)}.dxf", part_dxf(part, released=released, version=version)
        yield f"{file_stem(part)}.svg", part_svg(part, released=released)
    yield "layers.txt", LAYERS_TXT.encode()


def _table_files(subject: Subject, on: str) -> dict[str, bytes]:
    tables, released = tables_of(subject), subject.job.released
    files = {f"{table.name}.csv": table_csv(table, released=released) for table in tables}
    return files | {"tables.xlsx": workbook(tables, released=released, on=on)}
