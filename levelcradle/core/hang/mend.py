"""What would it take: a mount that is foul made otherwise where it stands, proved against all checks."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice
from typing import Any

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.connection import OFFERS, Connection, Contact, Side
from levelcradle.core.design import Design
from levelcradle.core.design.mount import OnHardPoint
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.hang.hang import LATER
from levelcradle.core.hang.sizing import Sizing, words_of_all
from levelcradle.core.hang.within_reach import Within, place_on
from levelcradle.core.meshes import Mesh
from levelcradle.core.mount import judge_support

__all__ = ["Mend", "what_mends"]

MOST, TRIED = 3, 40
PARTS = ("shape", "to_box", "lands_on")


@dataclass(frozen=True, slots=True)
class Mend:
    """A mount made otherwise: what it is cut from, its largest use then and by which check, and the edit."""

    message: str
    utilisation: float
    governs: str
    patch: tuple[Op, ...]


def what_mends(design: Design, mount_id: str, *, meshes: Mapping[str, Mesh]) -> tuple[Mend, ...]:
    """The lightest mounts of its kind that hold there, while all others stay as they are, and make nothing else foul.
    None: it needs another place, or more mounts. Raises UnknownThing."""
    if mount_id not in design.mounts:
        raise UnknownThing("mount", mount_id)
    assembly = resolve(design, meshes)
    box = assembly.boxes[design.mounts[mount_id].box]
    mount = next((m for m in box.mounts if m.id == mount_id), None)
    if (
        mount is None
        or mount.mount.shape.type not in OFFERS
        or mount.mount.face == "base"
        or not isinstance(mount.mount.lands_on, OnHardPoint)
    ):
        return ()
    if judge_support([Contact(m.spot.at, m.spot.n) for m in box.mounts]).support_condition != "holds":
        return ()  # it needs more of them, not a stronger one
    before = {f.id for f in analyse(design, meshes).findings if f.state == "foul"}
    tried = islice(_holding(Sizing(assembly, box), box, mount, mount.mount.face), TRIED)
    told = ((made, _put(design, mount_id, made)) for made in tried)
    mended = ((made, patch, analyse(edited(design, patch), meshes)) for made, patch in told)
    return tuple(islice((_told(mount_id, *row) for row in mended if _clears(row[2], mount_id, before)), MOST))


def _holding(sizing: Sizing, box: PlacedBox, mount: Connection, face: Side) -> Iterator[dict[str, Any]]:
    forces = sizing.forces([m.spot.at for m in box.mounts], box.hung_kg)
    n = box.mounts.index(mount)
    row = Within(
        mount.mount.shape.type, mount.spot.path, mount.spot.name, face, 0.0, 0.0, "", place_on(box, mount.spot, face)
    )
    yield from sizing.holding(row, forces[:, :, n])


def _put(design: Design, mount_id: str, made: dict[str, Any]) -> list[Op]:
    """What is behind the vehicle's metal stays."""
    now = design.mounts[mount_id].lands_on
    if isinstance(now, OnHardPoint) and now.backing:
        made = {
            **made,
            "lands_on": {**made["lands_on"], "backing": now.backing.model_dump(mode="json"), "sleeve": now.sleeve},
        }
    return [{"op": "replace", "path": f"/mounts/{mount_id}/{part}", "value": made[part]} for part in PARTS]


def _clears(analysis: Analysis, mount_id: str, before: set[str]) -> bool:
    foul = {f.id for f in analysis.findings if f.state == "foul" and f.code not in LATER}
    return f"mount:{mount_id}" not in foul and foul <= before


def _told(mount_id: str, made: dict[str, Any], patch: list[Op], analysis: Analysis) -> Mend:
    figures = next(m for support in analysis.supports for m in support.mounts if m.id == mount_id)
    weakest = figures.rows[0]
    return Mend(words_of_all([made]), weakest.utilisation, f"{weakest.check}, {weakest.case}", tuple(patch))
