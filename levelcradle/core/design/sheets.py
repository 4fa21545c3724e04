"""How the drawings of a design are laid out."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from levelcradle.core.design.base import DocumentModel, PositiveLength, Text, _as_tuple

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
    stock_mm: Annotated[tuple[PositiveLength, PositiveLength], BeforeValidator(_as_tuple)] = (2500.0, 1250.0)
    bar_mm: PositiveLength = 6000.0  # stock that frames are sawn from
    saw_mm: Annotated[float, Field(ge=0, le=20)] = 2.0  # what a cut takes
    roll_mm: PositiveLength = 1000.0  # how wide the roll is that liners are cut from
    currency: Text = ""  # of the prices in the tables, as the shop writes it
    kits: Annotated[int, Field(ge=1, le=1000)] = 1  # for how many cars lists and nests are made
