"""The fabrication pack of a design: every file by its name."""

from collections.abc import Mapping

from levelcradle.core.analysis import analyse_assembly
from levelcradle.core.assembly import Assembly, resolve
from levelcradle.core.design import Design
from levelcradle.core.fabricate import parts_of
from levelcradle.core.meshes import Mesh
from levelcradle.drawings.box_sheet import box_sheet
from levelcradle.drawings.cutlist import cut_list_csv
from levelcradle.drawings.dxf import part_dxf
from levelcradle.drawings.part_sheet import part_sheets
from levelcradle.drawings.pdf import sheets_pdf
from levelcradle.drawings.sheet import Sheet

__all__ = ["pack_files", "sheets_of"]


def sheets_of(assembly: Assembly, *, released: bool) -> list[Sheet]:
    """A page a box, then the pages of each part."""
    design, materials = assembly.design, assembly.design.tables.materials
    boxes = [
        box_sheet(box, design.name, materials[box.box.material].name, released=released)
        for _, box in sorted(assembly.boxes.items())
    ]
    return boxes + [sheet for part in parts_of(assembly) for sheet in part_sheets(part, design.name, released=released)]


def pack_files(design: Design, meshes: Mapping[str, Mesh]) -> dict[str, bytes]:
    """DXF of each part, the cut list and one PDF. A design without a box gives nothing to cut: an empty pack."""
    assembly = resolve(design, meshes)
    if not assembly.boxes:
        return {}
    released = analyse_assembly(assembly).released
    parts = parts_of(assembly)
    files = {f"{part.id}.dxf": part_dxf(part, released=released) for part in parts}
    files["cut-list.csv"] = cut_list_csv(parts, released=released).encode("utf-8-sig")
    files["drawings.pdf"] = sheets_pdf(sheets_of(assembly, released=released), design.name)
    return files
