"""How slowly a box shakes on its mounts where somebody has stated how stiff the vehicle is: some cases count on it."""

import math
from collections.abc import Callable, Iterator, Sequence

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix, Vec, minus
from levelcradle.core.box import Piece
from levelcradle.core.connection import Connection
from levelcradle.core.finding import Finding, State, Step, Working, plain
from levelcradle.core.mount.unsure import unsure

__all__ = ["frequency_findings", "inertia_of", "lowest_hz"]

WHY = "rigid box on mounts as stiff as the vehicle is stated to be; that itself is not checked"


def lowest_hz(mass_kg: float, inertia: Matrix, arms_mm: Matrix, springs: Matrix) -> float:
    """Of a rigid body on springs; 0 where they leave it free some way.

    Args:
        inertia: (3, 3) about its centre of gravity [kg·mm²].
        arms_mm: (n, 3) from there to each spring.
        springs: (n, 3, 3) of each its stiffness [N/mm].
    Source: dynamics of a rigid body, K x = ω² M x.
    """
    count = len(arms_mm)
    x, y, z = arms_mm.T
    none = np.zeros(count)
    turned = np.array([[none, z, -y], [-z, none, x], [y, -x, none]]).transpose(2, 0, 1)  # θ × r
    moves = np.concatenate([np.broadcast_to(np.eye(3), (count, 3, 3)), turned], axis=2)
    stiffness = np.einsum("nai,nab,nbj->ij", moves, springs * 1000.0, moves)  # N/m, with turns in mm
    masses = np.zeros((6, 6))
    masses[:3, :3], masses[3:, 3:] = mass_kg * np.eye(3), inertia
    half = np.linalg.inv(np.linalg.cholesky(masses))
    least = float(np.linalg.eigvalsh(half @ stiffness @ half.T)[0])
    return math.sqrt(max(least, 0.0)) / (2 * math.pi)


def frequency_findings(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """Asked where a load case counts on it; told where the vehicle's stiffness is stated."""
    least, stated = _asked_hz(assembly), assembly.tables.vehicle_stiffness_n_per_mm
    standing = [m for m in box.mounts if m.contacts and not m.unfit]
    if not standing or not (least or stated):
        return
    name, soft = plain(box.box.name), next((m for m in standing if m.spot.path.startswith("crossmembers/")), None)
    if stated is None or soft:
        if least:
            why = (
                f"{plain(soft.mount.name)} stands on a crossmember"
                if soft
                else "nobody has stated how stiff the vehicle is"
            )
            yield _finding(box, "foul", f"{name}: its crash cases count on {least:g} Hz on its mounts, and {why}")
        return
    hz = _lowest_hz(box, standing, stated)
    words = f"{name} shakes at {math.floor(hz * 10) / 10:g} Hz on its mounts"
    if not least:
        yield _finding(box, "note", words, lambda: _working(box, stated, hz))
        return
    doubt = unsure(assembly, [box], (m.spot.path for m in standing))
    state: State = "foul" if hz < least else "unknown" if doubt else "clear"
    yield _finding(
        box, state, f"{words}; its crash cases count on {least:g}", lambda: _working(box, stated, hz), plain(doubt)
    )


def _asked_hz(assembly: Assembly) -> float:
    return max((case.least_hz or 0.0 for case in assembly.tables.load_cases.values()), default=0.0)


def _lowest_hz(box: PlacedBox, standing: Sequence[Connection], stated: float) -> float:
    """What only pushes or pulls counts along its own way alone; rubber is in series with the vehicle."""
    arms, springs = [], []
    for mount in standing:
        rubber = mount.spot.isolator.stiffness_n_per_mm if mount.spot.isolator else math.inf
        stiff = 1 / (1 / stated + 1 / rubber)
        for contact in mount.contacts:
            n = np.array(contact.n)
            arms.append(np.array(contact.at) - np.array(box.hung_cg))
            springs.append(stiff * (np.eye(3) if contact.can == "both" else np.outer(n, n)))
    return lowest_hz(box.hung_kg, inertia_of(box), np.array(arms), np.array(springs))


def inertia_of(box: PlacedBox) -> Matrix:
    """(3, 3) about the centre of gravity, in vehicle axes [kg·mm²]: shell and modules as even blocks, what hangs on it
    as points; together as heavy as what hangs there."""
    shell, turn = box.shell, box.placement.turn
    inside = [row for piece in shell.pieces for row in _blocks(piece)]
    inside += [(m.spec.mass_kg, m.low, m.high) for m in shell.modules]
    kg, low, high = (np.array(column) for column in zip(*inside, strict=True))
    middles = box.placement.points((low + high) / 2)
    hung = [*box.hangers, *((g.mass_kg, g.at) for g in box.gear if g.mass_kg is not None and g.at is not None)]
    if hung:
        kg = np.append(kg, [mass for mass, _ in hung])
        middles = np.concatenate([middles, [at for _, at in hung]])
    squares = (((high - low) ** 2).T @ kg[: len(inside)]) / 12
    own = turn @ np.diag(squares.sum() - squares) @ turn.T
    arms = middles - np.array(box.hung_cg)
    about = (kg * (arms**2).sum(axis=1)).sum() * np.eye(3) - np.einsum("n,ni,nj->ij", kg, arms, arms)
    return np.asarray((own + about) * box.hung_kg / kg.sum())


def _blocks(piece: Piece) -> Iterator[tuple[float, Vec, Vec]]:
    """(mass, low, high) of each of its solids, by the room they take."""
    rooms = [math.prod(minus(solid.high, solid.low)) for solid in piece.solids]
    for solid, room in zip(piece.solids, rooms, strict=True):
        yield piece.mass_kg * room / sum(rooms), solid.low, solid.high


def _working(box: PlacedBox, stated: float, hz: float) -> Working:
    return (
        Step("mass, with all that hangs on it", "", box.hung_kg, "kg"),
        Step("the vehicle at each mount", "as stated in the tables", stated, "N/mm"),
        Step("slowest of six ways to shake", "K x = ω² M x", hz, "Hz", "dynamics of a rigid body"),
    )


def _finding(
    box: PlacedBox, state: State, message: str, working: Callable[[], Working] | None = None, doubt: str = ""
) -> Finding:
    return Finding(
        id=f"mount:shakes:{box.id}",
        code="mount.shakes",
        station="mount",
        state=state,
        subjects=(box.path,),
        message=message,
        rationale=f"{doubt}; {WHY}" if doubt else WHY,
        label="frequency",
        working=working,
    )
