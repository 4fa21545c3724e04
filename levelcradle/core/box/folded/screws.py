"""The screws of a cap: sideways through its edge into rivet nuts in the tray's wall."""

from collections.abc import Iterator

from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.openings import FaceHole, openings_of
from levelcradle.core.design.construction import LidScrews

__all__ = ["hole_places", "lid_screw_up_mm", "lid_screws", "screw_places"]

CLEAR_MM = 10.0  # of a lid screw to a cut-off edge: common practice, no source


def screw_places(length_mm: float, screws: LidScrews) -> list[float]:
    """Places of the lid's screws along an edge, from its middle: pairs at half a spacing and whole spacings on.

    None comes nearer to a corner than ``corner_mm``; a short edge has one in the middle.
    """
    most = length_mm / 2 - screws.corner_mm
    places = []
    at = screws.spacing_mm / 2
    while at <= most + 1e-9:
        places += [-at, at]
        at += screws.spacing_mm
    return sorted(places) or [0.0]


def lid_screw_up_mm(sheet: Sheet) -> float:
    """Height of the lid's screws above the tray's outside base: mid-way between the edge's rim and the tray's rim."""
    height = sheet.outer_mm[2]
    return (height + sheet.lid_mm - sheet.cap.edge_mm + height) / 2


def hole_places(sheet: Sheet) -> Iterator[FaceHole]:
    """Every hole through the tray and lid, on the outside of its face: the openings, then the lid's screws."""
    yield from openings_of(sheet.box, sheet.outer_mm)
    yield from lid_screws(sheet)


def lid_screws(sheet: Sheet) -> Iterator[FaceHole]:
    """The lid's screws, by their holes in the tray, without those that would sit where an edge is cut off."""
    for screw in _screws(sheet):
        if all(beyond(chamfer, sheet.outer_mm, screw.at) < -CLEAR_MM for chamfer in sheet.box.chamfers.values()):
            yield screw


def _screws(sheet: Sheet) -> Iterator[FaceHole]:
    outer, screws, up = sheet.outer_mm, sheet.cap.screws, lid_screw_up_mm(sheet)
    for at_x in screw_places(outer[0], screws):
        for face, y in (("left", 0.0), ("right", outer[1])):
            yield FaceHole("lid screw", face, (outer[0] / 2 + at_x, y, up), screws.rivet_nut_hole_mm)
    for at_y in screw_places(outer[1], screws):
        for face, x in (("front", 0.0), ("aft", outer[0])):
            yield FaceHole("lid screw", face, (x, outer[1] / 2 + at_y, up), screws.rivet_nut_hole_mm)
