"""Size it: the lightest mounts of its kind that hold where one stands, proved against all checks, or why none does."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice
from typing import Any

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.connection import OFFERS, Connection, Contact
from levelcradle.core.design import Design
from levelcradle.core.design.base import Face
from levelcradle.core.design.mount import Angle
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.hang.hang import LATER
from levelcradle.core.hang.sizing import Sizing, words_of_all
from levelcradle.core.hang.within_reach import Within, place_on
from levelcradle.core.meshes import Mesh
from levelcradle.core.mount import judge_support

__all__ = ["Size", "Sized", "size_one"]

MOST, TRIED = 3, 40
PARTS = ("shape", "to_box", "lands_on")


@dataclass(frozen=True, slots=True)
class Size:
    """A mount made otherwise: what it is cut from, how heavy it is, its largest use then and by which check, and the
    edit."""

    message: str
    mass_kg: float
    utilisation: float
    governs: str
    patch: tuple[Op, ...]


@dataclass(frozen=True, slots=True)
class Sized:
    """What holds there, the lightest first; where nothing does a sentence with slots that says why."""

    now_kg: float
    sizes: tuple[Size, ...]
    why: str = ""
    figures: tuple[Figure, ...] = ()


def size_one(design: Design, mount_id: str, *, meshes: Mapping[str, Mesh]) -> Sized:
    """The lightest that hold, while all other mounts stay as they are, and make nothing else foul. Raises
    UnknownThing."""
    if mount_id not in design.mounts:
        raise UnknownThing("mount", mount_id)
    assembly = resolve(design, meshes)
    box = assembly.boxes[design.mounts[mount_id].box]
    mount = next(m for m in box.mounts if m.id == mount_id)
    now_kg, face = sum(p.mass_kg for p in mount.pieces), mount.mount.face
    if mount.mount.shape.type not in OFFERS:
        return Sized(now_kg, (), "Brackets and tabs on a hard point are sized, others are not")
    if judge_support([Contact(m.spot.at, m.spot.n) for m in box.mounts]).support_condition != "holds":
        return Sized(now_kg, (), "The box needs more mounts, or others: no stronger one would hold it")
    question = _Question(Sizing(assembly, box), box, mount, face)
    before = {f.id for f in analyse(design, meshes).findings if f.state == "foul"}
    told = ((made, _put(design, mount_id, made)) for made in islice(question.holding(), TRIED))
    tried = ((made, patch, analyse(edited(design, patch), meshes)) for made, patch in told)
    in_the_way: list[Finding] = []
    found = islice(_clear(tried, mount_id, before, in_the_way), MOST)
    sizes = tuple(sorted(found, key=lambda row: row.mass_kg))
    return Sized(now_kg, sizes) if sizes else _why(now_kg, question, in_the_way)


@dataclass(frozen=True, slots=True)
class _Question:
    """One mount, what its box throws on it, and where it stands."""

    sizing: Sizing
    box: PlacedBox
    mount: Connection
    face: Face

    def holding(self) -> Iterator[dict[str, Any]]:
        yield from self.sizing.holding(self.row(), self._forces())

    def nearest(self) -> tuple[float, str] | None:
        return self.sizing.nearest(self.row(), self._forces())

    def _forces(self) -> Any:
        forces = self.sizing.forces([m.spot.at for m in self.box.mounts], self.box.hung_kg)
        return forces[:, :, self.box.mounts.index(self.mount)]

    def row(self) -> Within:
        spot, kind = self.mount.spot, self.mount.mount.shape.type
        return Within(kind, spot.path, spot.name, self.face, 0.0, 0.0, "", place_on(self.box, spot, self.face))


def _why(now_kg: float, question: _Question, in_the_way: list[Finding]) -> Sized:
    if in_the_way:
        worst = max(in_the_way, key=lambda f: sum(f.id == other.id for other in in_the_way))
        return Sized(now_kg, (), f"What would hold stands in the way: {worst.message}", worst.figures)
    nearest = question.nearest()
    if nearest is None:
        return Sized(now_kg, (), "None of the list can stand between this point and the wall")
    use, check = nearest
    words = f"None of the list holds there: the nearest is used {{0}} by its {check}"
    return Sized(now_kg, (), f"{words}; another point, or more of them", (Figure(use, "use", "up"),))


def _put(design: Design, mount_id: str, made: dict[str, Any]) -> list[Op]:
    """What it lands on stays, with what is behind the metal there and what packs it off that; its bolt may be of
    another class."""
    now, shape = design.mounts[mount_id].lands_on, design.mounts[mount_id].shape
    landing = {**now.model_dump(mode="json"), "bolt": made["lands_on"]["bolt"]}
    made = {**made, "lands_on": landing}
    if isinstance(shape, Angle):
        made["shape"] = {**made["shape"], "packing_mm": shape.packing_mm}
    return [{"op": "replace", "path": f"/mounts/{mount_id}/{part}", "value": made[part]} for part in PARTS]


def _clear(
    tried: Iterator[tuple[dict[str, Any], list[Op], Analysis]],
    mount_id: str,
    before: set[str],
    in_the_way: list[Finding],
) -> Iterator[Size]:
    """Those that hold with their true mass and make nothing foul; what the others made foul is noted."""
    for made, patch, analysis in tried:
        foul = [f for f in analysis.findings if f.state == "foul" and f.code not in LATER]
        new = [f for f in foul if f.id not in before or f.id == f"mount:{mount_id}"]
        if not new:
            yield _told(mount_id, made, patch, analysis)
        in_the_way += [f for f in new if f.code != "mount.use"]


def _told(mount_id: str, made: dict[str, Any], patch: list[Op], analysis: Analysis) -> Size:
    figures = next(m for support in analysis.supports for m in support.mounts if m.id == mount_id)
    weakest, mass = figures.rows[0], sum(p.mass_kg for p in figures.connection.pieces)
    governs = f"{weakest.check}, {plain(weakest.case)}"
    return Size(words_of_all([made]), mass, weakest.utilisation, governs, tuple(patch))
