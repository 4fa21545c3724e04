"""What mounts under a framed box do to the tubes of its lower ring: each a beam between two posts, all mounts on one
together. The cladding is not counted; that posts and corners hold its ends is common practice, no source."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import AXES, Placement, Vec, cross
from levelcradle.core.bar import Tube
from levelcradle.core.connection import Connection, Seat
from levelcradle.core.finding import Figure, Finding, State, plain
from levelcradle.core.mount.beam import Beam, BeamState, CheckOfBar, Thrown, beam_checks
from levelcradle.core.mount.result import loads_of
from levelcradle.core.mount.unsure import rough_verdict, unsure
from levelcradle.core.strength import yield_beside_weld

__all__ = ["TubeResult", "frame_tube_findings", "tube_results"]

NOT_CHECKED = (
    "Free to turn at both posts, static. Not checked: the frame as a whole, its posts and corners, fatigue, weld "
    "quality. Have it checked."
)


@dataclass(frozen=True, slots=True)
class TubeResult:
    """A tube of a box's frame with the mounts that are welded to it, its weakest check, its state and why."""

    tube: str
    mounts: tuple[Connection, ...]
    weakest: CheckOfBar
    state: State
    why: str


def tube_results(assembly: Assembly, box: PlacedBox) -> Iterator[TubeResult]:
    """None where what carries the box does not hold it. Never better than tight: what holds its ends is rough."""
    tubes = _tubes(box)
    loads = loads_of(box, assembly.tables) if tubes else None
    if loads is None or not loads.thrown.size:
        return
    for name, (seat, mounts) in tubes.items():
        numbers = [n for n, mount in enumerate(loads.standing) if mount in mounts]
        beam, frame = _beam(seat)
        at = (np.array([loads.standing[n].contacts[0].at for n in numbers]) - np.array(frame.origin)) @ frame.turn
        at[:, 0] = np.clip(at[:, 0], 0.0, beam.span_mm)  # what lies under a post bends nothing
        row = Thrown(loads.thrown[:, :, numbers] @ frame.turn, at)
        state = BeamState.of(beam, row, np.unique(at[:, 0]))
        cases = list(assembly.tables.load_cases.values())
        weakest = max(beam_checks(beam, (state,), cases, name), key=lambda check: check.utilisation)
        doubt = unsure(assembly, (box,), (mount.spot.path for mount in mounts))
        yield TubeResult(name, mounts, weakest, *rough_verdict(weakest.utilisation, doubt, NOT_CHECKED))


def frame_tube_findings(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    yield from (_finding(box, result) for result in tube_results(assembly, box))


def _tubes(box: PlacedBox) -> dict[str, tuple[Seat, tuple[Connection, ...]]]:
    """By its name each tube, where one of its mounts sits on it, and all that are welded to it."""
    found: dict[str, tuple[Seat, tuple[Connection, ...]]] = {}
    for mount in box.mounts:
        seat = mount.on_tube
        if seat is not None and seat.wall is not None and not mount.unfit:
            _, held = found.get(seat.wall.what, (seat, ()))
            found[seat.wall.what] = (seat, (*held, mount))
    return found


def _beam(seat: Seat) -> tuple[Beam, Placement]:
    """The tube between the middles of its posts, with its frame in vehicle axes: zero in the middle of its underside
    at the first, x along it, z up into it."""
    wall = seat.wall
    assert wall is not None
    s = wall.height_mm
    beam = Beam(
        Tube(s, wall.thickness_mm),
        wall.end_mm - wall.start_mm - s,
        yield_beside_weld(wall.material, wall.thickness_mm),
    )
    start = [0.0, 0.0, wall.sunk_mm]
    start[seat.runs], start[seat.rises] = wall.start_mm + s / 2, (wall.flat_from_mm + wall.flat_to_mm) / 2
    origin: Vec = (start[0], start[1], start[2])
    x, z = AXES[seat.runs], AXES[2]
    return beam, seat.placement.after(Placement(np.array([x, cross(z, x), z]).T, origin))


def _finding(box: PlacedBox, result: TubeResult) -> Finding:
    tube, mounts, weakest = result.tube, result.mounts, result.weakest
    return Finding(
        id=f"tube:{box.path}:{tube.replace(' ', '-')}",
        code="mount.tube",
        station="mount",
        state=result.state,
        subjects=(box.path, *(f"mounts/{mount.id}" for mount in mounts)),
        message=f"{plain(box.box.name)}, of its frame the {weakest.check}, use {{0}}, {plain(weakest.case)}",
        figures=(Figure(weakest.utilisation, "use", "up"),),
        value=weakest.utilisation,
        limit=1.0,
        margin=1.0 - weakest.utilisation,
        unit="use",
        rationale=result.why,
        label=tube,
        working=lambda: weakest.working,
    )
