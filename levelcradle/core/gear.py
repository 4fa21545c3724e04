"""Things as solids in vehicle axes: those that stand in the vehicle, and the gear that is fixed in or on boxes."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from levelcradle.core.axes import Placement, Vec, rotation
from levelcradle.core.box import Made, Shell, on_face
from levelcradle.core.design import Item, SolidSpec
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.design.survey import InBox
from levelcradle.core.meshes import Mesh, placed_mesh
from levelcradle.core.solids import Solid
from levelcradle.core.sweeps import pieces_of, scan_swept

__all__ = ["Gear", "gear_of", "own_frame", "thing_solids"]

WITHIN_MM = 1e-6


@dataclass(frozen=True, eq=False, slots=True)
class Gear:
    """A thing fixed in or on a box. ``local`` are its solids in the box's frame, ``solids`` the same in vehicle axes;
    ``mass_kg`` and ``at`` (its CG, vehicle axes) are None where nobody said them. ``inside``: no part of it stands out
    of the tray."""

    id: str
    item: Item
    local: tuple[Solid, ...]
    solids: tuple[Solid, ...]
    at: Vec | None
    inside: bool

    @property
    def path(self) -> str:
        return f"items/{self.id}"

    @property
    def mass_kg(self) -> float | None:
        return self.item.weighs_kg


def thing_solids(spec: SolidSpec | None, item: Item | None, meshes: Mapping[str, Mesh]) -> tuple[Solid, ...]:
    """The solids of a shape through its movement, in its own axes; of a scan that is not at hand none."""
    if spec is None:
        return ()
    sweep = item.sweep if item else None
    if isinstance(spec, MeshSolid):
        mesh = meshes.get(spec.file)
        if mesh is None:
            return ()
        placed = placed_mesh(spec, mesh)
        return scan_swept(placed, sweep, spec.tolerance_mm) if sweep else (placed,)
    return pieces_of(spec, sweep)


def own_frame(place: InBox, shell: Shell) -> Placement:
    """From the axes of a thing in a box, or in a chamber of it, to the box's frame. It begins on what closes its
    face."""
    chamber = next((c for c in shell.chambers if c.id == place.chamber), None)
    own = _on_face(place, chamber.made if chamber else shell.made)
    return chamber.frame.after(own) if chamber else own


def _on_face(place: InBox, made: Made) -> Placement:
    axis, far = FACE_AT[place.face]
    at = list(on_face(place, made.outer_mm))
    inward = -1.0 if far else 1.0
    at[axis] += inward * (place.off_mm - made.proud_mm(place.face))
    angles = [0.0, 0.0, 0.0]  # yaw, pitch, roll: about up, right, aft
    angles[2 - axis] = float(place.turn)
    return Placement(rotation(*angles), (at[0], at[1], at[2]))


def gear_of(
    rows: Iterable[tuple[str, Item]], shell: Shell, placement: Placement, meshes: Mapping[str, Mesh]
) -> tuple[Gear, ...]:
    """What is fixed in or on a box, placed with it."""
    found = []
    for key, item in rows:
        shape, at = thing_solids(item.solid, item, meshes), item.at_mm
        if isinstance(item.place, InBox):
            frame = own_frame(item.place, shell)
            local = tuple(s.moved(frame) for s in shape)
            solids = tuple(s.moved(placement) for s in local)
            at = placement.point(frame.point(at)) if at is not None else None
        else:
            back, solids = placement.inverse, shape
            local = tuple(s.moved(back) for s in shape)
        found.append(Gear(key, item, local, solids, at, _inside_of(item, local, shell)))
    return tuple(found)


def _inside_of(item: Item, local: tuple[Solid, ...], shell: Shell) -> bool:
    """Whether it stands out neither of the box nor of the chamber that it is in."""
    held = item.place.chamber if isinstance(item.place, InBox) else None
    for chamber in shell.chambers:
        if chamber.id == held:
            back, outer = chamber.frame.inverse, chamber.made.outer_mm
            return _inside(tuple(solid.moved(back) for solid in local), outer)
    return _inside(local, shell.outer_mm)


def _inside(local: tuple[Solid, ...], outer: Vec) -> bool:
    return all(s.low[i] >= -WITHIN_MM and s.high[i] <= outer[i] + WITHIN_MM for s in local for i in range(3))
