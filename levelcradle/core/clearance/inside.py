"""Gaps inside the boxes, whether the modules in them are held, and whether the shell can be made."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.box import crossing, deduction_limits, makeable, meeting
from levelcradle.core.clearance.fixed import gear_findings
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.memo import Memo
from levelcradle.core.modules import RAKE_DEG, rests

__all__ = ["inside_findings"]

UNPROVED = ("straps", "fit")  # what they hold follows from figures that nobody is asked for yet
HOLD = {"own_holes": "their own bolt holes", "rods": "rods and plates", "straps": "straps", "fit": "pure fit against hard liners"}


def inside_findings(assembly: Assembly) -> list[Finding]:
    """One finding a direction of each block, one a pair of blocks, one a thing fixed to it, and one a box for its hold-down."""
    return [
        finding for box in assembly.boxes.values()
        for finding in (*_gaps(box), *_resting(assembly, box), *_hold_down(box), *_making(assembly, box), *gear_findings(assembly, box))
    ]  # fmt: skip


def _gaps(box: PlacedBox) -> Iterator[Finding]:
    """A gap inside is drawn, not found: at its need it is clear."""
    for gap in box.shell.gaps:
        margin = round(gap.has_mm - gap.needs_mm, 9)
        yield Finding(
            id=f"inside:{box.path}:{gap.name}", code="inside", station="box", state="foul" if margin < 0 else "clear",
            subjects=(box.path, f"{box.path}/{gap.subject}"),
            says=f"{plain(box.box.name)}, {gap.says}: {{0}}, needs {{1}}",
            figures=(Figure(gap.has_mm, "mm", "down"), Figure(gap.needs_mm, "mm", "up")),
            value=gap.has_mm, limit=gap.needs_mm, margin=margin, unit="mm", because=gap.because, shows=gap.says,
            working=lambda gap=gap: (  # type: ignore[misc]
                Step("there is", "from the layout of the block", gap.has_mm, "mm"),
                Step("needed", gap.because, gap.needs_mm, "mm", "module sheet, as entered in Stock"),
            ),
        )  # fmt: skip


def _resting(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """Modules that stand, as the box stands in the vehicle, on a face they may not rest on."""
    seen: set[tuple[str, tuple[str, ...]]] = set()
    for module in box.shell.modules:
        if (module.block, module.looks) in seen:
            continue
        seen.add((module.block, module.looks))
        kind = assembly.design.module_kinds[module.kind]
        on = rests(module.looks, kind, box.placement.turn)
        if on.allowed:
            continue
        face, name = on.face.replace("_", " "), plain(box.box.name)
        leans = f", leaning {on.off_deg:.0f}°" if on.off_deg > RAKE_DEG else ""
        yield Finding(
            id=f"rest:{box.path}:{module.block}:{on.face}", code="inside.rest", station="box", state="foul",
            subjects=(box.path, f"{box.path}/blocks/{module.block}"), shows="resting face", value=on.off_deg, limit=RAKE_DEG,
            says=f"{name}, block {module.block}: modules rest on their {face}{leans}",
            because=f"{plain(kind.name)} may rest on {', '.join(f.replace('_', ' ') for f in kind.may_rest_on)}, "
                    f"within {RAKE_DEG:g}° of level (common practice, no source)",
        )  # fmt: skip


def _hold_down(box: PlacedBox) -> Iterator[Finding]:
    if not box.shell.modules:
        return
    how, name = box.box.hold_down, plain(box.box.name)
    says = f"{name}: nobody has said what holds the modules down"
    if how:
        says = f"{name}: {HOLD[how]} chosen, not proved" if how in UNPROVED else f"{name}: modules held by {HOLD[how]}"
    yield Finding(
        id=f"hold:{box.path}", code="inside.hold_down", station="box", state="clear" if how and how not in UNPROVED else "unknown",
        subjects=(box.path,), shows="hold-down", says=says,
        because="modules are held in every direction; a box stops as hard as the car does",
    )  # fmt: skip


def _making(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    yield from _blanks(assembly, box)
    if meeting(box.box):
        yield Finding(
            id=f"make:{box.path}:chamfers", code="box.make", station="box", state="unknown", subjects=(box.path,),
            says=f"{plain(box.box.name)}: two of its cut-off edges meet in a corner",
            because="a corner where two slopes meet is not unfolded here yet; nothing is cut for this box", shows="chamfers",
        )  # fmt: skip
    least, most = deduction_limits(box.box)
    his = box.box.construction.folder.deduction_mm
    if his is not None and not least <= his <= most:
        yield Finding(
            id=f"make:{box.path}:deduction", code="box.make", station="box", state="foul", subjects=(box.path,),
            says=f"{plain(box.box.name)}: a bend deduction of {{0}} cannot be: this sheet and radius give {{1}} to {{2}}",
            figures=(Figure(his, "mm"), Figure(least, "mm", "up"), Figure(most, "mm", "down")), value=his,
            limit=most if his > most else least, margin=min(his - least, most - his), unit="mm", shows="bend deduction",
            because="the neutral fibre of a bend lies within the sheet (sheet-metal handbooks)",
        )  # fmt: skip
    for row in makeable(box.box, box.shell.outer_mm):
        margin = round(row.has_mm - row.needs_mm, 9)
        if margin < 0:
            yield Finding(
                id=f"make:{box.path}:{row.name}", code="box.make", station="box", state="foul", subjects=(box.path,),
                says=f"{plain(box.box.name)}: {plain(row.says)} {{0}}, needs {{1}}",
                figures=(Figure(row.has_mm, "mm", "down"), Figure(row.needs_mm, "mm", "up")), value=row.has_mm,
                limit=row.needs_mm, margin=margin, unit="mm", because="common practice, no source", shows=row.name,
            )  # fmt: skip


def _blanks(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """A blank whose outline crosses itself cannot be cut."""
    if meeting(box.box):
        return
    for name in _crossing(box, assembly.design.tables.materials[box.box.material]):
        yield Finding(
            id=f"make:{box.path}:blank:{name}", code="box.make", station="box", state="foul", subjects=(box.path,),
            says=f"{plain(name)}: its blank would cross itself, so it is not drawn", shows="blank",
            because="bends, walls and cut-off edges take more sheet than there is between them",
        )  # fmt: skip


_crossings: Memo[tuple[str, ...]] = Memo(512)
_SHEET = {"name", "material", "construction", "closures", "chamfers"}


def _crossing(box: PlacedBox, material: Material) -> tuple[str, ...]:
    """Kept by what the blanks follow from, so that a box that is moved is not unfolded again."""
    key = (box.box.model_dump_json(include=_SHEET), box.shell.outer_mm, material.k_factor)
    return _crossings.get(key, lambda: tuple(crossing(box.box, box.shell.outer_mm, box.shell.over_lid_mm, material)))
