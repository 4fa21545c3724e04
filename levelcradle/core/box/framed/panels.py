"""The cladding: a panel on each face of the frame and a lid, flat, each fixed along the tubes under its edges."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross
from levelcradle.core.box.framed.frame import Frame
from levelcradle.core.box.openings import SEEN, openings_of
from levelcradle.core.box.plates import plate_part
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.part import Flat, FlatPart, Hole

__all__ = [
    "SCREW_HOLES_MM",
    "Sheeting",
    "fastener_words",
    "fixed_by",
    "fixings",
    "lid_words",
    "panel_parts",
    "part_key",
    "sheetings",
]

RIVET_HOLE_MM = 0.1  # more than the rivet: ISO 15977, from memory
# what screws go through: ISO 273, medium (from memory); there are no others
SCREW_HOLES_MM = {2.0: 2.4, 2.5: 2.9, 3.0: 3.4, 4.0: 4.5, 5.0: 5.5, 6.0: 6.6, 8.0: 9.0, 10.0: 11.0}
PILOT_MM = 3.0  # common practice, no source


@dataclass(frozen=True, slots=True)
class Sheeting:
    """One panel: its face, its corners in the box, how far in from its edges the middles of the tubes under it stand,
    along and up; and along which way its fixings stand half a pitch on, so that those of two panels on one tube do not
    meet in it."""

    face: str
    low: Vec
    high: Vec
    inset: Flat
    between: tuple[bool, bool]

    @property
    def placement(self) -> Placement:
        """A frame in the middle of its inner side, right, up and out as it is seen."""
        right, up = SEEN[self.face]
        out = cross(right, up)
        middle = [(v + h) / 2 for v, h in zip(self.low, self.high, strict=True)]
        axis = max(range(3), key=lambda i: abs(out[i]))
        middle[axis] = self.low[axis] if out[axis] > 0 else self.high[axis]
        return Placement(np.array([right, up, out]).T, (middle[0], middle[1], middle[2]))

    @property
    def size_mm(self) -> Flat:
        right, up = SEEN[self.face]
        sizes = [h - v for v, h in zip(self.low, self.high, strict=True)]
        return (
            sum(abs(r) * v for r, v in zip(right, sizes, strict=True)),
            sum(abs(u) * v for u, v in zip(up, sizes, strict=True)),
        )


def sheetings(frame: Frame) -> Iterator[Sheeting]:
    """The base under the whole, left and right over the edges of front and aft, all up to the rim; the lid over the
    rim on its gasket."""
    (length, width, height), c, lid = frame.outer_mm, frame.spec.cladding_mm, frame.lid
    s = frame.spec.tube_mm / 2
    yield Sheeting("base", (0.0, 0.0, 0.0), (length, width, c), (c + s, c + s), (True, True))
    for face, y in (("left", 0.0), ("right", width - c)):
        yield Sheeting(face, (0.0, y, c), (length, y + c, height), (c + s, s), (False, False))
    for face, x in (("front", 0.0), ("aft", length - c)):
        yield Sheeting(face, (x, c, c), (x + c, width - c, height), (s, s), (False, True))
    foot = height + lid.gasket_mm
    yield Sheeting("top", (0.0, 0.0, foot), (length, width, foot + lid.thickness_mm), (c + s, c + s), (True, True))


def fixings(panel: Sheeting, pitch_mm: float, tube_mm: float) -> list[Flat]:
    """Places of rivets or screws on a panel, from its middle: along the tubes under its edges, none over a joint of the
    frame, no further apart than the pitch."""
    (wide, tall), (in_x, in_y) = panel.size_mm, panel.inset
    x, y = wide / 2 - in_x, tall / 2 - in_y
    along, up = (
        _along(2 * run, pitch_mm, tube_mm, between=between) for run, between in zip((x, y), panel.between, strict=True)
    )
    return [*((at, side) for at in along for side in (-y, y)), *((side, at) for at in up for side in (-x, x))]


def _along(run_mm: float, pitch_mm: float, tube_mm: float, *, between: bool) -> list[float]:
    """Places along a tube between two joints, from its middle; one in the middle where it is short."""
    free = run_mm - 2 * tube_mm
    if free <= 0:
        return [0.0]
    steps = max(math.ceil(free / pitch_mm), 1)
    step = free / steps
    if between:
        return [-free / 2 + step * (n + 0.5) for n in range(steps)]
    return [-free / 2 + step * n for n in range(steps + 1)]


def panel_parts(box_id: str, name: str, frame: Frame) -> Iterator[FlatPart]:
    """Each panel as it is cut, seen from outside: its fixings as pilot holes or for screws, and what was placed on
    it."""
    of = (frame.box.material, frame.material)
    for panel in sheetings(frame):
        is_lid = panel.face == "top"
        part = plate_part(
            f"{box_id}-{part_key(panel)}",
            f"{name} {'lid' if is_lid else f'{panel.face} panel'}",
            of,
            frame.lid.thickness_mm if is_lid else frame.spec.cladding_mm,
            panel.size_mm,
            ("Seen from outside, flat", f"Lies {lid_words(frame.lid)}" if is_lid else _laid_on(frame.spec)),
            panel.placement,
        )
        yield replace(part, holes=(*_fixed(panel, frame), *_placed(panel, frame)))


def lid_words(lid: Panel) -> str:
    nuts = f"rivet nuts in the frame, ⌀ {lid.screws.rivet_nut_hole_mm:g} through its holes"
    return f"on a gasket {lid.gasket_mm:g} thick, {lid.screws.size} screws into {nuts}"


def _laid_on(spec: Framed) -> str:
    return f"Laid on the frame, pinned at its corners; pilot holes drilled through both, then {fixed_by(spec)}"


def part_key(panel: Sheeting) -> str:
    """What follows the box's id in the id of its part."""
    return "lid" if panel.face == "top" else f"{panel.face}-panel"


def fixed_by(spec: Framed) -> str:
    """How the cladding is fixed, in words."""
    d = spec.fastener_mm
    how = {"rivet": f"blind rivets {d:g}", "rivet nut": f"rivet nuts M{d:g} in the frame", "tapped": f"M{d:g} tapped"}
    hole = d + RIVET_HOLE_MM if spec.fastener == "rivet" else SCREW_HOLES_MM.get(d, d)
    return f"⌀ {hole:g} in the panel for {how[spec.fastener]}"


def fastener_words(spec: Framed) -> str:
    """What is bought to fix the cladding, one of it."""
    d = spec.fastener_mm
    one = {"rivet": f"blind rivet {d:g}", "rivet nut": f"M{d:g} screw and rivet nut", "tapped": f"M{d:g} screw"}
    return f"{one[spec.fastener]}, for the cladding"


def _fixed(panel: Sheeting, frame: Frame) -> Iterator[Hole]:
    spec, screws = frame.spec, frame.lid.screws
    if panel.face == "top":
        for at in fixings(panel, screws.spacing_mm, spec.tube_mm):
            yield Hole(at, screws.hole_mm, "lid screw")
        return
    for at in fixings(panel, spec.pitch_mm, spec.tube_mm):
        yield Hole(at, PILOT_MM, "pilot")


def _placed(panel: Sheeting, frame: Frame) -> Iterator[Hole]:
    """The openings put on its face by hand."""
    back = panel.placement.inverse
    for hole in openings_of(frame.box, frame.outer_mm):
        if hole.face == panel.face:
            x, y, _ = back.point(hole.at)
            yield Hole((x, y), hole.diameter_mm, frame.box.openings[hole.name].name)
