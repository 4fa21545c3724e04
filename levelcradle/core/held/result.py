"""Each block of modules as one rigid body on what holds it: its holders, the base under it, and the walls it fits
between. First whether it is held in all six ways, then what a crash does to each of these.

Source: statics of a rigid body on springs, of which some only push; each holder at half and at double stiffness (common
practice, no source)."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.box import outward
from levelcradle.core.box.holding import PLAY_MM, Check, FaceHeld, FitHeld, Forces, Holding, Placed
from levelcradle.core.connection import Contact
from levelcradle.core.design import Tables
from levelcradle.core.design.base import FACE_AT, FACES, Face
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import State, Step, utilisation_state
from levelcradle.core.memo import Memo
from levelcradle.core.mount import can_hold, held_all_ways, one_sided_envelope

__all__ = ["WAYS", "BlockHeld", "Loose", "WayHeld", "held_result"]

WAYS: dict[Face, str] = {
    "front": "to its front",
    "aft": "to its aft end",
    "left": "to its left",
    "right": "to its right",
    "base": "down",
    "top": "up",
}
SHARE = 0.05  # what takes less of a throw is not named as what holds
ROUND_MM = 0.05


@dataclass(frozen=True, slots=True)
class WayHeld:
    """One way in which a block may be thrown, in the box's frame: what holds it there, and its worst use in the crash
    cases that throw it that way most."""

    face: Face
    by: tuple[str, ...]
    check: str = ""
    utilisation: float | None = None
    state: State = "clear"
    case: str = ""
    steps: tuple[Step, ...] = ()


@dataclass(frozen=True, slots=True)
class Loose:
    """A way in which nothing holds a block, and how far it may go there, or why what is there does not hold."""

    face: Face
    free_mm: float
    why: str = ""


@dataclass(frozen=True, slots=True)
class BlockHeld:
    """What holds one block.

    Attributes:
        missing: (holder, what nobody has said of it).
        broken: (holder, what it asks and is not so).
        gaps: axes along which neighbours have a gap that nothing fills, and how wide.
        loose: ways in which it is not held; ``lifts``: cases that tear it off though each way is held.
        ways: of a block that is held.
    """

    box: str
    block: str
    holders: int
    missing: tuple[tuple[str, str], ...] = ()
    broken: tuple[tuple[str, str], ...] = ()
    gaps: tuple[tuple[int, float], ...] = ()
    loose: tuple[Loose, ...] = ()
    turns: bool = False
    lifts: tuple[str, ...] = ()
    ways: tuple[WayHeld, ...] = ()


_held: Memo[tuple[BlockHeld, ...]] = Memo(512)


def held_result(assembly: Assembly) -> tuple[BlockHeld, ...]:
    """Every block of every box that has holders."""
    boxes = [box for box in assembly.boxes.values() if box.box.holders]
    if not boxes:
        return ()
    rules = assembly.tables.model_dump_json(include={"load_cases", "bolt_classes", "liners"})
    return tuple(
        row
        for box in boxes
        for row in _held.get((box, rules), lambda box=box: tuple(_of_box(box, assembly.tables)))  # type: ignore[misc]
    )


def _of_box(box: PlacedBox, tables: Tables) -> Iterator[BlockHeld]:
    for key, placed in box.shell.held.stacks.items():
        holders = {
            name: holding for name, holding in box.shell.held.by_holder.items() if box.box.holders[name].block == key
        }
        yield _of_block(
            box, key, placed, holders, [case for case in tables.load_cases.values() if case.kind == "crash"]
        )


def _of_block(
    box: PlacedBox, key: str, placed: Placed, holders: dict[str, Holding], cases: Sequence[LoadCase]
) -> BlockHeld:
    missing = tuple((name, holding.missing) for name, holding in holders.items() if holding.missing)
    broken = tuple((name, words) for name, h in holders.items() if not h.missing for words, so in h.asks() if not so)
    gaps = tuple(_unfilled(placed, list(holders.values())))
    begun = BlockHeld(box.id, key, len(holders), missing, broken, gaps)
    if missing or broken or not holders:
        return begun
    holding = [*holders.values(), *_faces(placed, list(holders.values()))]
    contacts = [Contact(g.at, g.n, g.can) for h in holding for g in h.grips()]
    loose = tuple(_loose(placed, contacts, list(holders.values())))
    if loose or not held_all_ways(contacts):
        return BlockHeld(box.id, key, len(holders), gaps=gaps, loose=loose, turns=not loose)
    return _thrown(box, key, placed, begun, holding, contacts, cases)


def _unfilled(placed: Placed, holders: Sequence[Holding]) -> Iterator[tuple[int, float]]:
    """Gaps between neighbours of a stack that nothing ties or fills."""
    if any(holding.ties and not holding.missing for holding in holders):
        return
    rows = placed.stack.tables.liners
    fills = [rows.get(h.spec.between or "") for h in holders if isinstance(h, FitHeld)]
    if any(row and row.creeps == "no" for row in fills):
        return
    for axis, direction in enumerate(("aft", "across", "up")):
        row = next((row for row in placed.stack.laid.rows if row.direction == direction), None)
        if row and row.has_mm > ROUND_MM:
            yield axis, row.has_mm


def _faces(placed: Placed, holders: Sequence[Holding]) -> Iterator[FaceHeld]:
    """The base under it carries what stands on it, whatever lies between; other faces where it fits hard between them."""
    fits = {row.face: row for h in holders if isinstance(h, FitHeld) for row in h.faces()}
    if "base" not in fits and placed.gap_mm("base") <= PLAY_MM and placed.made.bearing_at("base") is not None:
        yield FaceHeld(placed, "base", "what it stands on")
    yield from fits.values()


def _loose(placed: Placed, contacts: Sequence[Contact], holders: Sequence[Holding]) -> Iterator[Loose]:
    if held_all_ways([c for c in contacts if c.can == "both"]):
        return
    middle = _cg(placed)
    fit = next((h for h in holders if isinstance(h, FitHeld)), None)
    for face in FACES:
        if not contacts or not can_hold(contacts, middle, np.array(outward(face))):
            yield Loose(face, max(placed.gap_mm(face), 0.0), fit.why_not(face) if fit else "")


def _cg(placed: Placed) -> Matrix:
    return np.array([(a + b) / 2 for a, b in zip(placed.low, placed.high, strict=True)])


def _thrown(
    box: PlacedBox,
    key: str,
    placed: Placed,
    begun: BlockHeld,
    holding: Sequence[Holding],
    contacts: Sequence[Contact],
    cases: Sequence[LoadCase],
) -> BlockHeld:
    """What the crash cases do to each of what holds it. Links and clamps of its modules are thrown with it."""
    throws = np.array([(c.aft_g, c.right_g, c.up_g) for c in cases]) @ box.placement.turn  # into the box's frame
    kg = placed.mass_kg + placed.stack.block.counts.total * box.box.fittings.per_module_kg
    owner = [n for n, h in enumerate(holding) for _ in h.grips()]
    found = one_sided_envelope(contacts, owner, _cg(placed), kg, throws)
    if found.lifts:
        names = tuple(cases[n].name for n in found.lifts)
        return BlockHeld(begun.box, key, begun.holders, gaps=begun.gaps, lifts=names)
    own = [found.forces[:, :, [g == n for g in owner]] for n in range(len(holding))]
    checks = [(h, check) for n, h in enumerate(holding) for check in h.checks(own[n])]
    most = np.abs(throws).argmax(axis=1)
    ways = tuple(
        _way(
            face, holding, own, checks, [k for k, throw in enumerate(throws) if _thrown_to(face, throw, most[k])], cases
        )
        for face in FACES
    )
    return BlockHeld(begun.box, key, begun.holders, gaps=begun.gaps, ways=ways)


def _thrown_to(face: Face, throw: Matrix, most: int) -> bool:
    axis, far = FACE_AT[face]
    return axis == most and bool(throw[axis] > 0) == bool(far)


def _way(
    face: Face,
    holding: Sequence[Holding],
    own: Sequence[Forces],
    checks: Sequence[tuple[Holding, Check]],
    within: list[int],
    cases: Sequence[LoadCase],
) -> WayHeld:
    if not within:
        return WayHeld(face, tuple(h.words for h in holding))
    way = np.array(outward(face))
    taken = [np.maximum((f[0][within] @ way).sum(axis=1), 0.0).max() for f in own]
    whole = sum(taken) or 1.0
    order = sorted(range(len(holding)), key=lambda n: -taken[n])
    by = tuple(holding[n].words for n in order if taken[n] > SHARE * whole)
    worst: tuple[float, Check, int, int] | None = None
    for _, check in checks:
        part = check.utilisation[:, within]
        s, k = divmod(int(part.argmax()), len(within))
        used = float(part[s, k])
        if worst is None or used > worst[0]:
            worst = used, check, s, within[k]
    if worst is None:
        return WayHeld(face, by)
    used, check, s, k = worst
    return WayHeld(face, by, check.name, used, utilisation_state(used), cases[k].name, check.steps(s, k))
