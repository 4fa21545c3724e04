"""How the drawings of a design are laid out."""

from typing import Literal

from levelcradle.core.design.base import DocumentModel

__all__ = ["DxfVersion", "Lengths", "PaperName", "Projection", "SheetChoice"]

PaperName = Literal["A4", "A3", "Letter", "Tabloid"]
Projection = Literal["first angle", "third angle"]
DxfVersion = Literal["R2010", "R12"]
Lengths = Literal["mm", "in", "both"]


class SheetChoice(DocumentModel):
    """The paper, and where a view stands beside another (ISO 5456-2): in first angle what is seen from the right stands
    at the left, in third angle at the right."""

    paper: PaperName = "A4"
    projection: Projection = "third angle"
    dxf: DxfVersion = "R2010"  # R12 for cutters that read nothing newer
    lengths: Lengths = "mm"  # what sheets are dimensioned in; cut files are always millimetres
