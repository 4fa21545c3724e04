"""The fabrication pack of a design: every file by its name."""

from collections.abc import Mapping

from levelcradle.core.analysis import analyse_assembly
from levelcradle.core.assembly import Assembly, resolve
from levelcradle.core.design import Design
from levelcradle.core.fabricate import parts_of
from levelcradle.core.meshes import Mesh
from levelcradle.drawings.border import Job, numbered
from levelcradle.drawings.box_sheet import box_sheet
from levelcradle.drawings.cutlist import cut_list_csv
from levelcradle.drawings.dxf import LAYERS_TXT, part_dxf
from levelcradle.drawings.flat_svg import part_svg
from levelcradle.drawings.part_sheet import part_sheets
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.sheet import PAPERS, Sheet

__all__ = ["job_of", "pack_files", "sheets_of"]


def sheets_of(assembly: Assembly, job: Job) -> list[Sheet]:
    """A page a box, then the pages of each part; each says which of how many it is."""
    materials = assembly.design.tables.materials
    boxes = [box_sheet(box, job, materials[box.box.material].name) for _, box in sorted(assembly.boxes.items())]
    sheets = boxes + [sheet for part in parts_of(assembly) for sheet in part_sheets(part, job)]
    numbered(sheets)
    return sheets


def job_of(design: Design, *, released: bool, revision: int = 0, on: str = "") -> Job:
    """What the sheets of a design have in common."""
    chosen = design.sheets
    return Job(design.name, released, revision, on, PAPERS[chosen.paper], chosen.projection)


def pack_files(design: Design, meshes: Mapping[str, Mesh], *, revision: int = 0, on: str = "") -> dict[str, bytes]:
    """DXF and SVG of each part, the cut list and one PDF. A design without a box gives nothing to cut: an empty pack.

    ``revision`` and ``on``: its number and day, where it is kept; nothing in the files comes from the clock.
    """
    assembly = resolve(design, meshes)
    if not assembly.boxes:
        return {}
    released = analyse_assembly(assembly).released
    parts = parts_of(assembly)
    files = {f"{part.id}.dxf": part_dxf(part, released=released, version=design.sheets.dxf) for part in parts}
    files |= {f"{part.id}.svg": part_svg(part, released=released) for part in parts}
    files["layers.txt"] = LAYERS_TXT.encode()
    files["cut-list.csv"] = cut_list_csv(parts, released=released).encode("utf-8-sig")
    job = job_of(design, released=released, revision=revision, on=on)
    files["drawings.pdf"] = sheets_pdf(sheets_of(assembly, job), design.name)
    return files
