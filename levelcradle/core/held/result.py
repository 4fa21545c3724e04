"""Each block of modules as one rigid body on what holds it: its holders, the base under it, and the walls it fits
between. First whether it is held in all six ways, then what a crash does to each of these.

Source: statics of a rigid body on springs, of which some only push; each holder at half and at double stiffness (common
practice, no source)."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.box import outward
from levelcradle.core.box.holding import KINDS, PLAY_MM, Check, FaceHeld, FitHeld, Forces, Holding, Placed, sheet_check
from levelcradle.core.connection import Contact
from levelcradle.core.design import Tables
from levelcradle.core.design.base import FACE_AT, FACES, Face
from levelcradle.core.design.holders import Holder
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import ORDER, State, Step, utilisation_state
from levelcradle.core.memo import Memo, written
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
ROUGH_CLEAR = 0.5  # of a rough capacity: common practice, no source


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
        missing: (holder, what is missing of it).
        unpressed: whether its modules must be held under compression, and nothing presses them that way.
        broken: (holder, number of what it asks, what that is and is not so).
        gaps: axes along which neighbours have a gap that nothing fills, and how wide.
        loose: ways in which it is not held; ``lifts``: cases that tear it off though each way is held.
        ways: of a block that is held.
    """

    box: str
    block: str
    holders: int
    missing: tuple[tuple[str, str], ...] = ()
    unpressed: bool = False
    broken: tuple[tuple[str, int, str], ...] = ()
    gaps: tuple[tuple[int, float], ...] = ()
    loose: tuple[Loose, ...] = ()
    turns: bool = False
    lifts: tuple[str, ...] = ()
    ways: tuple[WayHeld, ...] = ()


_held: Memo[tuple[BlockHeld, ...]] = Memo(512)


def held_result(assembly: Assembly) -> tuple[BlockHeld, ...]:
    """Every block of every box that has holders. Worked out in the box's own frame: where it stands is no matter, only
    how."""
    boxes = [box for box in assembly.boxes.values() if box.box.holders]
    if not boxes:
        return ()
    rules = written(assembly.tables)
    tables = assembly.tables
    return tuple(
        row
        for box in boxes
        for row in _held.get(
            (box.id, box.shell, box.placement.turn.tobytes(), rules),
            lambda box=box: tuple(_of_box(box, tables)),  # type: ignore[misc]
        )
    )


@dataclass(frozen=True, slots=True)
class _Solved:
    """A block that is held, with the forces (s, k, n, 3) of its modules on each of what holds it [N]."""

    row: BlockHeld
    placed: Placed
    holding: tuple[Holding, ...]
    forces: tuple[Forces, ...]


def _of_box(box: PlacedBox, tables: Tables) -> Iterator[BlockHeld]:
    cases = [case for case in tables.load_cases.values() if case.kind == "crash"]
    thrown = tables.load_factor * np.array([(c.aft_g, c.right_g, c.up_g) for c in cases]).reshape(-1, 3)
    throws = thrown @ box.placement.turn  # into the box's frame
    blocks = [_of_block(box, key, placed, cases, throws) for key, placed in box.shell.held.stacks.items()]
    whole = list(_faces_as_wholes([block for block in blocks if isinstance(block, _Solved)]))
    for block in blocks:
        yield replace(block.row, ways=_ways(block, whole, cases, throws)) if isinstance(block, _Solved) else block


def _of_block(
    box: PlacedBox, key: str, placed: Placed, cases: Sequence[LoadCase], throws: Matrix
) -> BlockHeld | _Solved:
    rows = box.box.holders
    own = {name: holding for name, holding in box.shell.held.by_holder.items() if rows[name].block == key}
    missing = tuple((name, holding.missing) for name, holding in own.items() if holding.missing)
    whole = {name: holding for name, holding in own.items() if not holding.missing}
    asks = {name: (*h.asks(), *_has_room(h.words, rows[name], placed)) for name, h in whole.items()}
    broken = tuple((name, n, words) for name, rules in asks.items() for n, (words, so) in enumerate(rules, 1) if not so)
    holders = list(own.values())
    # where a bolt comes is no matter for what the others carry: the ways are told beside it
    astray = tuple((name, 0, words) for name, h in whole.items() for words in _astray(h, placed))
    unpressed = bool(own) and _unpressed(placed, own.values())
    begun = BlockHeld(box.id, key, len(own), missing, unpressed, (*broken, *astray))
    if missing or broken or not own:
        return begun
    begun = replace(begun, gaps=tuple(_unfilled(placed, holders)))
    holding = (*holders, *_faces(placed, holders))
    contacts = [Contact(g.at, g.n, g.can) for h in holding for g in h.grips()]
    loose = tuple(_loose(placed, contacts, holders))
    if loose or not held_all_ways(contacts):
        return replace(begun, loose=loose, turns=not loose)
    owner = [n for n, h in enumerate(holding) for _ in h.grips()]
    # links and clamps of its modules are thrown with them
    kg = placed.mass_kg + placed.stack.block.counts.total * box.box.fittings.per_module_kg
    found = one_sided_envelope(contacts, owner, _cg(placed), kg, throws)
    if found.lifts:
        return replace(begun, lifts=tuple(cases[n].name for n in found.lifts))
    forces = tuple(found.forces[:, :, [g == n for g in owner]] for n in range(len(holding)))
    return _Solved(begun, placed, holding, forces)


def _unpressed(placed: Placed, holders: Iterable[Holding]) -> bool:
    kind = placed.stack.kind
    ways = {holder.presses for holder in holders if not holder.missing} - {None}
    if not kind.clamp:
        return False
    return (placed.stack.axis_of(kind.compression.axis) not in ways) if kind.compression else not ways


def _has_room(words: str, holder: Holder, placed: Placed) -> Iterator[tuple[str, bool]]:
    """Whether there is the room a holder takes before each face of its block: a box made about its modules gives it, a
    given inside need not."""
    for face, needs in KINDS[holder.type].room(holder, placed.stack).items():
        free = placed.free_mm(face)
        if needs:
            yield f"{words} take {needs:.1f} before the {face}, {free:.1f} there", needs <= free + ROUND_MM


def _astray(holder: Holding, placed: Placed) -> Iterator[str]:
    """The first of its bolts that comes on no sheet or bar, or where something is cut out of that or lies over it."""
    for bolt in holder.bolted():
        (axis, far), at = FACE_AT[bolt.face], list(bolt.at)
        at[axis] = placed.made.outer_mm[axis] * far
        half = placed.stack.tables.bolts[bolt.bolts.size].clearance_hole_mm / 2
        if why := placed.why_no_bolt(bolt.face, (at[0], at[1], at[2]), half):
            yield f"a bolt of its {holder.words} comes on {why}"
            return


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
    """The base under it carries what stands on it, whatever lies between; other faces where it fits hard between
    them."""
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
            free = max(placed.gap_mm(face), 0.0)
            why = fit.why_not(face) if fit else "" if free > PLAY_MM else "it is not said to fit there"
            yield Loose(face, free, why)


def _cg(placed: Placed) -> Matrix:
    return np.array([(a + b) / 2 for a, b in zip(placed.low, placed.high, strict=True)])


def _faces_as_wholes(blocks: Sequence[_Solved]) -> Iterator[Check]:
    """Base and walls under all that presses on them or hangs in them, of all blocks together."""
    for face in FACES:
        bearing = blocks[0].placed.made.bearing_at(face) if blocks else None
        on_it = [block for block in blocks if any(g.face == face for h in block.holding for g in h.grips())]
        if bearing is None or not on_it:
            continue
        press = sum(_press_on(block, face) for block in on_it)
        lows, highs = zip(*((b.placed.low, b.placed.high) for b in on_it), strict=True)
        first, second = (i for i in range(3) if i != FACE_AT[face][0])
        patch = [max(v[i] for v in highs) - min(v[i] for v in lows) for i in (first, second)]
        yield sheet_check(face, np.asarray(press)[None], bearing, (patch[0], patch[1]))


def _press_on(block: _Solved, face: Face) -> Matrix:
    """(k,) how much of a block presses on a face, or pulls at it: the most of its solves [N]."""
    way = np.array(outward(face))
    total = sum(
        force[:, :, n] @ way
        for holding, force in zip(block.holding, block.forces, strict=True)
        for n, grip in enumerate(holding.grips())
        if grip.face == face
    )
    return np.asarray(np.abs(total).max(axis=0))


def _ways(block: _Solved, whole: Sequence[Check], cases: Sequence[LoadCase], throws: Matrix) -> tuple[WayHeld, ...]:
    checks = [
        check for holding, force in zip(block.holding, block.forces, strict=True) for check in holding.checks(force)
    ] + list(whole)
    most = np.abs(throws).argmax(axis=1)
    within = {face: [k for k, throw in enumerate(throws) if _thrown_to(face, throw, most[k])] for face in FACES}
    return tuple(_way(face, block, checks, within[face], cases) for face in FACES)


def _thrown_to(face: Face, throw: Matrix, most: int) -> bool:
    axis, far = FACE_AT[face]
    return axis == most and bool(throw[axis] > 0) == bool(far)


def _way(face: Face, block: _Solved, checks: Sequence[Check], within: list[int], cases: Sequence[LoadCase]) -> WayHeld:
    names = [holding.words for holding in block.holding]
    if not within:
        return WayHeld(face, tuple(names))
    way = np.array(outward(face))
    taken = [np.maximum((force[0][within] @ way).sum(axis=1), 0.0).max() for force in block.forces]
    order = sorted(range(len(names)), key=lambda n: -taken[n])
    by = tuple(names[n] for n in order if taken[n] > SHARE * sum(taken))
    rows = []
    for check in checks:
        part = check.utilisation[:, within]
        s, k = divmod(int(part.argmax()), len(within))
        used = float(part[s, k])
        rows.append((ORDER[_state(used, rough=check.rough)], -used, check, s, within[k]))
    if not rows:
        return WayHeld(face, by)
    _, less, check, s, k = min(rows, key=lambda row: row[:2])
    state = _state(-less, rough=check.rough)
    return WayHeld(face, by, check.name, -less, state, cases[k].name, check.steps(s, k))


def _state(used: float, *, rough: bool) -> State:
    """A rough check is clear only to half."""
    state = utilisation_state(used)
    return "tight" if rough and state == "clear" and used > ROUGH_CLEAR else state
