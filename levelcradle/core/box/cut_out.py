"""What is cut out of a wall of a box, where no bolt can be: of which flat part it goes, and out of which piece, which
is so much lighter."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from shapely.geometry import Point, Polygon, box
from shapely.geometry.polygon import orient
from shapely.ops import unary_union

from levelcradle.core.axes import Placement, Vec, dot, plus, scaled, vec
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import Face
from levelcradle.core.fold import FoldedFlat, fold
from levelcradle.core.part import FlatPart, Hole
from levelcradle.core.solids import Solid, rod, touches

__all__ = ["Taken", "drilled", "flat_under", "is_under", "lighter", "notched"]

WITHIN_MM, PROBE_MM = 1e-3, 0.1


@dataclass(frozen=True, slots=True)
class Taken:
    """What of a face is cut out or covered: a solid, and so much round it."""

    face: Face
    name: str
    solid: Solid
    round_mm: float = 0.0


def flat_under(part: FlatPart, flats: Sequence[FoldedFlat], at: Vec, out: Vec) -> Placement | None:
    """From the box's frame to the flat of a folded part that a point of its surface lies on, where that looks ``out``
    or the other way; None where none does."""
    for flat in flats:
        back = flat.placement.inverse
        x, y, up = back.point(at)
        square = abs(abs(back.direction(out)[2]) - 1) <= WITHIN_MM
        if square and -WITHIN_MM <= up <= part.thickness_mm + WITHIN_MM and flat.ring.contains(Point(x, y)):
            return back
    return None


def drilled(part: FlatPart, holes: Sequence[tuple[Vec, Vec, Hole]]) -> FlatPart:
    """A flat part with those holes that lie on it, each by its place on a surface and the way out there; of the hole
    itself only its diameter and purpose count. Raises OutOfRange where the part cannot be folded."""
    flats = fold(part).flats if holes and part.stand else ()
    found = []
    for at, out, hole in holes if flats else ():
        back = flat_under(part, flats, at, out)
        if back is not None:
            x, y, _ = back.point(at)
            found.append(replace(hole, at=(round(x, 6), round(y, 6))))
    return replace(part, holes=(*part.holes, *found)) if found else part


def notched(part: FlatPart, solids: Sequence[Solid], room_mm: float) -> FlatPart:
    """A flat sheet without what solids take of it from its edge, and so much round them; holes there fall away. Solids
    and sheet in one frame."""
    flats = fold(part).flats if solids and part.stand else ()
    if len(flats) != 1:
        return part
    back, sheet = flats[0].placement.inverse, Polygon(part.outline)
    inside = [solid for solid in (solid.moved(back) for solid in solids) if _in_sheet(solid, part.thickness_mm)]
    taken = [box(*solid.low[:2], *solid.high[:2]).buffer(room_mm, join_style="mitre") for solid in inside]
    rest = sheet.difference(unary_union(taken)) if taken else sheet
    left = max(getattr(rest, "geoms", [rest]), key=lambda piece: piece.area)  # what is cut off altogether is waste
    if not taken or left.is_empty:
        return part
    outline = tuple((round(x, 6), round(y, 6)) for x, y in orient(left.normalize(), 1.0).exterior.coords[:-1])
    holes = tuple(hole for hole in part.holes if left.contains(Point(hole.at).buffer(hole.diameter_mm / 2)))
    notes = (*part.notes, f"Notched {room_mm:g} wider than the tabs that lie in it")
    return replace(part, outline=outline, holes=holes, notes=notes)


def _in_sheet(solid: Solid, thickness_mm: float) -> bool:
    return solid.low[2] < thickness_mm - WITHIN_MM and solid.high[2] > WITHIN_MM


def is_under(piece: Piece, at: Vec, out: Vec) -> bool:
    """Whether a piece of a wall lies right under a point of its surface."""
    if piece.role not in ("wall", "base", "top"):
        return False
    probe = rod(at, plus(at, scaled(out, -PROBE_MM)), PROBE_MM)
    return any(touches(solid, probe, 0.0) for solid in piece.solids)


def lighter(piece: Piece, area_mm2: float, middle: Vec, out: Vec, density_kg_m3: float) -> Piece:
    """A flat of even thickness less so much of it about a point of its surface: what is cut out weighs as much as it
    did there."""
    reach = [dot(vec(p), out) for solid in piece.solids for p in solid.points]
    t = max(reach) - min(reach)
    kg = area_mm2 * t * density_kg_m3 * 1e-9
    gone, left = plus(middle, scaled(out, -t / 2)), piece.mass_kg - kg
    x, y, z = ((piece.mass_kg * c - kg * m) / left for c, m in zip(piece.centre, gone, strict=True))
    return replace(piece, mass_kg=left, centre=(x, y, z))
