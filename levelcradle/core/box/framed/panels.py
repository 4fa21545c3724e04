"""The cladding: a panel on each face of the frame and a lid, flat, each fixed along the tubes under its edges."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross, minus, plus
from levelcradle.core.box.framed.frame import Frame
from levelcradle.core.box.openings import SEEN, openings_of
from levelcradle.core.box.plates import plate_part
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.part import Flat, FlatPart, Hole

__all__ = [
    "SCREW_HOLES_MM",
    "Sheeting",
    "fastener_words",
    "fixed_by",
    "fixings",
    "layer_on",
    "lid_words",
    "panel_parts",
    "panel_words",
    "part_key",
    "sheetings",
]

RIVET_HOLE_MM = 0.1  # more than the rivet: ISO 15977, from memory
# what screws go through: ISO 273, medium (from memory); there are no others
SCREW_HOLES_MM = {2.0: 2.4, 2.5: 2.9, 3.0: 3.4, 4.0: 4.5, 5.0: 5.5, 6.0: 6.6, 8.0: 9.0, 10.0: 11.0}
PILOT_MM = 3.0  # common practice, no source


@dataclass(frozen=True, slots=True)
class Sheeting:
    """One panel: its face, its corners in the box, and between which middles of the tubes under its edges it is fixed
    (of both corners, in the box)."""

    face: str
    low: Vec
    high: Vec
    tubes: tuple[Vec, Vec]

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
    """Cladding up to the rim: base and top over the edges of the others, left and right over those of front and aft; at
    last what closes the box, over the rim on its gasket."""
    half = frame.spec.tube_mm / 2
    (low, high), outer = frame.edges, frame.outer_mm
    tubes = plus(low, (half, half, half)), minus(high, (half, half, half))
    for face, (axis, end) in FACE_AT.items():
        if face != frame.lid.face:
            c = frame.clad_mm(face)
            foot = [0.0 if i < axis else v for i, v in enumerate(low)]
            top = [outer[i] if i < axis else v for i, v in enumerate(high)]
            foot[axis], top[axis] = (outer[axis] - c, outer[axis]) if end else (0.0, c)
            yield Sheeting(face, (foot[0], foot[1], foot[2]), (top[0], top[1], top[2]), tubes)
    off = frame.lid.gasket_mm
    yield Sheeting(frame.lid.face, *layer_on(frame, frame.lid.face, off, off + frame.lid.thickness_mm), tubes)


def layer_on(frame: Frame, face: str, near_mm: float, far_mm: float) -> tuple[Vec, Vec]:
    """Corners of a layer over the whole of a face, between two distances off it."""
    axis, end = FACE_AT[face]
    low, high = [0.0, 0.0, 0.0], list(frame.outer_mm)
    outer = frame.outer_mm[axis]
    low[axis], high[axis] = (outer + near_mm, outer + far_mm) if end else (-far_mm, -near_mm)
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def fixings(panel: Sheeting, frame: Frame) -> list[Flat]:
    """Places of rivets or screws on a panel, from its middle: along the tubes under its edges, none over a joint of the
    frame, no further apart than is asked."""
    axis, back = FACE_AT[panel.face][0], panel.placement.inverse
    one, other = (i for i in range(3) if i != axis)
    places = []
    for along, across in ((one, other), (other, one)):
        run = panel.tubes[0][along] + frame.spec.tube_mm, panel.tubes[1][along] - frame.spec.tube_mm
        most = frame.lid.screws.spacing_mm if panel.face == frame.lid.face else frame.spec.pitch_mm
        for at in _along(run, frame.spec.pitch_mm, most, half_on=_half_on(axis, along)):
            for end in panel.tubes:
                point = list(panel.low)
                point[along], point[across] = at, end[across]
                x, y, _ = back.point((point[0], point[1], point[2]))
                places.append((round(x, 6), round(y, 6)))
    return sorted(places)


def _half_on(axis: int, along: int) -> bool:
    """Whether fixings stand half a pitch on, so that those of two panels on one tube do not meet in it: on base and top
    those of both ways, on left and right neither, on front and aft those that run up."""
    return axis == 2 or (axis == 0 and along == 2)


def _along(run_mm: Flat, pitch_mm: float, most_mm: float, *, half_on: bool) -> list[float]:
    """Places along a tube between two joints, in steps of its cladding's; one in the middle where it is short.

    What may stand further apart leaves places out, what must stand nearer divides the steps by an odd number: it never
    meets what stands half a step beside."""
    start, end = run_mm
    if end <= start:
        return [(start + end) / 2]
    steps = math.ceil((end - start) / pitch_mm)
    step = (end - start) / steps
    parts = math.ceil(step / most_mm)
    parts += 1 - parts % 2
    steps, step = steps * parts, step / parts
    numbers = np.arange(steps) + 0.5 if half_on else np.arange(steps + 1.0)
    kept = math.ceil((len(numbers) - 1) / math.floor(most_mm / step + 1e-9)) + 1
    return [start + step * float(numbers[n]) for n in np.linspace(0, len(numbers) - 1, kept).astype(int)]


def panel_parts(box_id: str, name: str, frame: Frame) -> Iterator[FlatPart]:
    """Each panel as it is cut, seen from outside: its fixings as pilot holes or for screws, what was placed on it. A
    window is bought."""
    of = (frame.box.material, frame.material)
    for panel in sheetings(frame):
        is_lid = panel.face == frame.lid.face
        if is_lid and frame.lid.window:
            continue
        part = plate_part(
            f"{box_id}-{part_key(panel, frame.lid)}",
            f"{name} {panel_words(panel, frame.lid)}",
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


def part_key(panel: Sheeting, lid: Panel) -> str:
    """What follows the box's id in the id of its part."""
    return "lid" if panel.face == lid.face else f"{panel.face}-panel"


def panel_words(panel: Sheeting, lid: Panel) -> str:
    """What a panel is called."""
    if panel.face != lid.face:
        return f"{panel.face} panel"
    return "lid" if lid.face == "top" else f"{lid.face} panel, that comes off"


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
    is_lid = panel.face == frame.lid.face
    for at in fixings(panel, frame):
        yield Hole(at, frame.lid.screws.hole_mm, "lid screw") if is_lid else Hole(at, PILOT_MM, "pilot")


def _placed(panel: Sheeting, frame: Frame) -> Iterator[Hole]:
    """The openings put on its face by hand."""
    back = panel.placement.inverse
    for hole in openings_of(frame.box, frame.outer_mm):
        if hole.face == panel.face:
            x, y, _ = back.point(hole.at)
            yield Hole((x, y), hole.diameter_mm, frame.box.openings[hole.name].name)
