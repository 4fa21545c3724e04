"""What is fixed in or on a box against everything of that box: its metal, modules and the room they ask for, its
brackets, and other gear. A gap here is drawn, not found: what touches is clear."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.box import ShellModule, inside_chamfer
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.gear import Gear
from levelcradle.core.solids import Solid, block, nearest

__all__ = ["TOUCHES_MM", "Partner", "gear_findings", "module_partners"]

TOUCHES_MM = -1e-3  # rounding of the kernel
WAYS = ("front", "aft", "left", "right", "base", "top")  # in the order of a module's faces


@dataclass(frozen=True, slots=True)
class Partner:
    """Something of a box that gear may not stand in: its name, its solid (in the axes of the box or of the vehicle),
    the gap it asks for, and why."""

    name: str
    solid: Solid
    need_mm: float
    rationale: str
    in_vehicle: bool = False


def gear_findings(box: PlacedBox) -> Iterator[Finding]:
    """One finding for each thing of a box: what it stands in, or the least it is off anything."""
    if not box.gear:
        return
    partners = [*_metal(box), *module_partners(box), *_brackets(box)]
    for number, gear in enumerate(box.gear):
        others = [
            Partner(g.item.name, s, 0.0, "one thing stands in one place") for g in box.gear[:number] for s in g.local
        ]
        rows = [_measured(gear, partner) for partner in (*partners, *others)] if gear.local else []
        rows += list(_slopes(box, gear))
        foul = [row for row in rows if row[0] < row[1].need_mm + TOUCHES_MM]
        for gap, partner in foul or sorted(rows, key=lambda row: row[0] - row[1].need_mm)[:1]:
            yield _finding(box, gear, gap, partner, foul=bool(foul))


def _measured(gear: Gear, partner: Partner) -> tuple[float, Partner]:
    return min(nearest(s, partner.solid).gap_mm for s in (gear.solids if partner.in_vehicle else gear.local)), partner


def _metal(box: PlacedBox) -> Iterator[Partner]:
    """Everything the box is made of, and what stands out of its faces; slopes of cut-off edges are asked for
    themselves."""
    for piece in box.shell.pieces:
        for solid in piece.solids if piece.role != "slope" else ():
            yield Partner(piece.name, solid, 0.0, "metal is solid")
    for proud in box.shell.outside:
        if proud.role == "protrusion":
            yield Partner(proud.name, proud.solid, 0.0, "metal is solid")


def _slopes(box: PlacedBox, gear: Gear) -> Iterator[tuple[float, Partner]]:
    """Inside the box a thing keeps off the slope of a cut-off edge."""
    made = box.shell.made
    for key, chamfer in box.box.chamfers.items():
        for solid in gear.local if gear.inside else ():
            gap = inside_chamfer(chamfer, made.wall_mm, made.outer_mm, solid.low, solid.high)
            yield gap, Partner(f"cut-off edge {key}", solid, 0.0, "metal is solid")


def module_partners(box: PlacedBox) -> Iterator[Partner]:
    for module in box.shell.modules:
        kind = module.spec
        name = f"module {module.number} of the box"
        yield Partner(
            name, block(module.low, module.high), kind.neighbour_gap_mm, "what a module keeps to its neighbours"
        )
        for way, room in enumerate(_rooms(module, kind)):
            if room is not None:
                yield Partner(
                    f"{name}, room before its {module.looks[way].replace('_', ' ')}",
                    block(*room),
                    0.0,
                    "what its face asks for, as entered in Stock",
                )


def _rooms(module: ShellModule, kind: ModuleKind) -> Iterator[tuple[Vec, Vec] | None]:
    """The room that each of a module's faces asks for before it, in the six ways of the box."""
    for way, face in enumerate(module.looks):
        ask = max(kind.face_gap_mm.get(face, 0.0), kind.above_mm if WAYS[way] == "top" else 0.0)
        axis, far = FACE_AT[WAYS[way]]
        low, high = list(module.low), list(module.high)
        low[axis], high[axis] = (high[axis], high[axis] + ask) if far else (low[axis] - ask, low[axis])
        yield ((low[0], low[1], low[2]), (high[0], high[1], high[2])) if ask > 0 else None


def _brackets(box: PlacedBox) -> Iterator[Partner]:
    for mount in box.mounts:
        for piece in mount.pieces:
            yield Partner(f"{mount.mount.name}, {piece.name}", piece.solid, 0.0, "a bracket is solid", in_vehicle=True)


def _finding(box: PlacedBox, gear: Gear, gap_mm: float, partner: Partner, *, foul: bool) -> Finding:
    overlaps = gap_mm < TOUCHES_MM
    thing, name = plain(gear.item.name), plain(partner.name)
    message = (
        f"{plain(box.box.name)}: {thing} stands {{0}} in {name}"
        if overlaps
        else f"{plain(box.box.name)}: {thing} to {name}: {{0}}"
    )
    figures = (Figure(abs(gap_mm), "mm", "up" if overlaps else "down"), Figure(partner.need_mm, "mm", "up"))
    return Finding(
        id=f"inside:{box.path}:{gear.path}:{partner.name if foul else ''}",
        code="inside.gear",
        station="box",
        state="foul" if foul else "clear",
        subjects=(box.path, gear.path),
        message=f"{message}, needs {{1}}",
        figures=figures,
        value=gap_mm,
        limit=partner.need_mm,
        margin=gap_mm - partner.need_mm,
        unit="mm",
        rationale=partner.rationale,
        label=gear.item.name,
        working=lambda: (
            Step(
                "there is", f"{gear.item.name} to {partner.name}", gap_mm, "mm", "exact distance between convex solids"
            ),
            Step("needed", partner.rationale, partner.need_mm, "mm", "as drawn"),
        ),
    )
