"""The fabrication pack of a design: every file by its name, and the sheets as they stand in it."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from multiprocessing import get_context

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.meshes import Mesh
from levelcradle.drawings.border import Job
from levelcradle.drawings.dxf import LAYERS_TXT, engraving_dxf, nest_dxf, part_dxf
from levelcradle.drawings.flat_svg import engraving_svg, part_svg
from levelcradle.drawings.names import file_stem, plain_name
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.register import Drawn, Group, drawn
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.sheets.labels import engraving
from levelcradle.drawings.solids import Named, glb_bytes, named_bodies, step_files, stl_bytes
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.table import for_files, table_csv, workbook
from levelcradle.drawings.templates import dummy_sheets, template_sheets

__all__ = ["Pack", "Told", "cut_file", "make_pack"]

Told = Callable[[float, str], None]


@dataclass(frozen=True, slots=True)
class Pack:
    """``files`` by their names in the folder; ``groups``: the sheets of the PDF in their order."""

    files: dict[str, bytes]
    groups: tuple[Group, ...]
    released: bool


def make_pack(
    design: Design,
    meshes: Mapping[str, Mesh],
    *,
    revision: int = 0,
    on: str = "",
    told: Told = lambda share, what: None,
) -> Pack:
    """Sheets, templates and dummies as PDF; DXF and SVG of each part; tables; solids. A design without a box gives
    nothing to cut: an empty pack.

    ``revision`` and ``on``: its number and day, where it is kept; nothing in the files comes from the clock, but the
    hour in the head of a STEP file. ``told`` hears how far it has come, and what is being made.
    """
    assembly = resolve(design, meshes)
    if not assembly.boxes:
        return Pack({}, (), released=False)
    told(0.0, "working it out")
    # sheets and solids side by side; in a fresh process, for the caller's may have threads, and the kernel of solids
    # keeps what memory it once took
    with ProcessPoolExecutor(1, get_context("spawn")) as beside:
        solids = beside.submit(_solid_files, design, meshes)
        subject = subject_of(assembly, revision=revision, on=on)
        told(0.05, "drawing the sheets")
        found = drawn(subject)
        told(0.6, "printing the sheets, cut files and tables")
        files = dict(_cut_files(subject)) | _paper_files(subject, found)
        told(0.8, "making the solids")
        files |= solids.result()
    return Pack(files, found.groups, subject.job.released)


def cut_file(subject: Subject, name: str) -> bytes | None:
    """One cut file by its name in the pack, made by itself; None where there is none of that name."""
    return next((make() for found, make in _cut_files_by_name(subject) if found == name), None)


def _cut_files(subject: Subject) -> Iterator[tuple[str, bytes]]:
    yield from ((name, make()) for name, make in _cut_files_by_name(subject))
    chosen = subject.assembly.design.sheets
    for number, nest in enumerate(subject.nested[0], 1):
        stem = f"cut/nest-{number}-{plain_name(nest.material)}-{plain_name(f'{nest.thickness_mm:g} mm')}"
        yield f"{stem}.dxf", nest_dxf(nest, released=subject.job.released, version=chosen.dxf)
    yield "cut/layers.txt", LAYERS_TXT.encode()


def _cut_files_by_name(subject: Subject) -> Iterator[tuple[str, Callable[[], bytes]]]:
    released, version = subject.job.released, subject.assembly.design.sheets.dxf
    for part in subject.parts:
        stem = f"cut/{file_stem(part)}"
        yield f"{stem}.dxf", lambda part=part: part_dxf(part, released=released, version=version)  # type: ignore[misc]
        yield f"{stem}.svg", lambda part=part: part_svg(part, released=released)  # type: ignore[misc]


def _paper_files(subject: Subject, found: Drawn) -> dict[str, bytes]:
    """What is printed and read."""
    wanted: dict[str, Sequence[Sheet]] = {
        "drawings.pdf": found.sheets,
        "templates.pdf": list(template_sheets(subject)),
        "dummies.pdf": list(dummy_sheets(subject)),
    }
    job = subject.job
    printed = {name: sheets_pdf(sheets, job.design, job.on) for name, sheets in wanted.items() if sheets}
    return printed | _label_files(subject) | _table_files(found, job)


def _label_files(subject: Subject) -> dict[str, bytes]:
    """For an engraver."""
    edges, faces = engraving(subject)
    version = subject.assembly.design.sheets.dxf
    return {"labels/labels.dxf": engraving_dxf(edges, faces, version), "labels/labels.svg": engraving_svg(edges, faces)}


def _table_files(found: Drawn, job: Job) -> dict[str, bytes]:
    tables = [for_files(table, job.lengths) for table in found.tables]
    files = {f"tables/{table.name}.csv": table_csv(table, released=job.released) for table in tables}
    return files | {"tables/tables.xlsx": workbook(tables, released=job.released, on=job.on)}


def _solid_files(design: Design, meshes: Mapping[str, Mesh]) -> dict[str, bytes]:
    """The whole, each box with its brackets, each kind of cut part and of module; the whole to be looked at, each box
    to be printed."""
    subject = subject_of(resolve(design, meshes))
    bodies = list(named_bodies(subject))
    wanted: dict[str, tuple[list[Named], str]] = {"solids/whole.step": (bodies, subject.job.design)}
    files = {"solids/whole.glb": glb_bytes(bodies)}
    for letter, box in subject.boxes:
        mine = [body for body in bodies if body.group == f"{letter} {box.name}"]
        name = f"solids/{letter}-{plain_name(box.name)}".rstrip("-")
        wanted[f"{name}.step"] = (mine, f"{letter} {box.name}")
        files[f"{name}.stl"] = stl_bytes(mine)
    for body in bodies:
        if body.like:
            wanted.setdefault(f"solids/{body.like}.step", ([body.at_home()], body.name))
    return files | step_files(wanted)
