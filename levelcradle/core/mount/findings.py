"""What the mounts have to say: support in words first, then each mount by its weakest check, then each hard point."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from operator import attrgetter

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.connection import Governing
from levelcradle.core.finding import Figure, Finding, State, Working, plain
from levelcradle.core.mount.crossmember_findings import crossmember_findings
from levelcradle.core.mount.crossmembers import CrossmemberResult, crossmember_result
from levelcradle.core.mount.frame_tubes import frame_tube_findings
from levelcradle.core.mount.frequency import frequency_findings
from levelcradle.core.mount.holes import drilled_findings
from levelcradle.core.mount.result import Demand, MountResult, SupportResult, UtilisationRow
from levelcradle.core.mount.seconds import second_findings
from levelcradle.core.mount.slots import slot_findings

__all__ = ["NOT_CHECKED", "mount_findings"]

NOT_CHECKED = (
    "Rigid box, point mounts, static; fatigue of a bracket's own welds alone. Not checked: the vehicle's own metal, "
    "the box as a whole, modules inside it, body twist, weld quality. Have it checked."
)


def mount_findings(assembly: Assembly, supports: tuple[SupportResult, ...]) -> list[Finding]:
    found, bars = list[Finding](), crossmember_result(assembly)
    for support in supports:
        found += _support(assembly, support)
        found += [_mount(assembly, support, mount) for mount in support.mounts]
    found += _spots(supports, bars)
    found += [row for bar in bars for row in crossmember_findings(assembly, bar)]
    found += [row for bar in bars if not bar.bar.unfit for row in drilled_findings(assembly, bar.bar)]
    found += [row for box in assembly.boxes.values() for row in _on_what_comes_off(box)]
    found += [row for box in assembly.boxes.values() for row in second_findings(assembly, box)]
    found += [row for box in assembly.boxes.values() for row in _soft_and_hard(box)]
    found += [row for box in assembly.boxes.values() for row in slot_findings(assembly, box)]
    found += [row for box in assembly.boxes.values() for row in frequency_findings(assembly, box)]
    found += [row for box in assembly.boxes.values() for row in frame_tube_findings(assembly, box)]
    return found


def _on_what_comes_off(box: PlacedBox) -> Iterator[Finding]:
    face = box.shell.made.closed_face
    for connection in box.mounts:
        name = plain(connection.mount.name)
        if connection.mount.face == face and connection.second is None:
            yield Finding(
                id=f"mount:opened:{connection.id}",
                code="mount.opened",
                station="mount",
                state="foul",
                subjects=(f"mounts/{connection.id}", box.path),
                message=f"{name} holds the {face} panel of {plain(box.box.name)}, which comes off",
                rationale="a box hangs by what stays when it is opened",
                label="what comes off",
            )


def _soft_and_hard(box: PlacedBox) -> Iterator[Finding]:
    """Hard mounts beside soft ones carry nearly all, and by how much nobody can say who does not know how stiff the
    vehicle is."""
    carry = [m for m in box.mounts if m.contacts]
    soft = [m for m in carry if m.spot.isolator]
    if soft and len(soft) < len(carry):
        yield Finding(
            id=f"mount:isolated:{box.id}",
            code="mount.isolated",
            station="mount",
            state="unknown",
            subjects=(box.path, *(f"mounts/{m.id}" for m in soft)),
            message=f"{plain(box.box.name)}: {len(soft)} of its {len(carry)} mounts stand on isolators",
            rationale="the hard ones carry nearly all of it: isolators under all, or under none",
            label="isolators",
        )


def _support(assembly: Assembly, support: SupportResult) -> Iterator[Finding]:
    box = assembly.boxes[support.box]
    name, full = plain(box.box.name), Figure(box.hung_kg, "kg", "up")
    for mount, why in support.unfit:
        yield Finding(
            id=f"mount:unfit:{mount.id}",
            code="mount.unfit",
            station="mount",
            state="foul",
            subjects=(f"mounts/{mount.id}", box.path),
            message=f"{plain(mount.mount.name)} cannot stand where it is: {why}",
        )
    if support.support.support_condition == "holds":
        return
    state: State = "tight" if support.support.holds else "foul"
    message = f"The {name} is {{0}} full and {support.words}"
    if support.support.support_condition == "nothing":
        only = "straps alone, which count for nothing in a crash" if any(m.second for m in box.mounts) else "nothing"
        message = f"The {name} is {{0}} full and nothing carries it: held by {only}"
    yield Finding(
        id=f"mount:support:{support.box}",
        code="mount.support",
        station="mount",
        state=state,
        subjects=(box.path,),
        message=message,
        figures=(full,),
        rationale="a rigid box needs three points that are not in line",
        label="support",
        value=support.support.ratio,
        limit=0.01,
        margin=support.support.ratio - 0.01,
    )


def _mount(assembly: Assembly, support: SupportResult, mount: MountResult) -> Finding:
    """Never better than tight: the wall is a rough check, and much is not checked at all."""
    box, name = assembly.boxes[support.box], plain(mount.connection.mount.name)
    broken = [message for message, fits in mount.geometry if not fits]
    weakest = mount.rows[0] if mount.rows else None
    guess = assembly.guess_of(mount.connection.spot.path) or assembly.guess_in(box)
    unsure = assembly.words_of(guess) if guess else None
    state, why = _verdict(box, mount, broken, weakest, unsure)
    message = f"{name}: strength not checked"
    if weakest:
        message = f"{name}: weakest is its {weakest.check}, use {{0}}, {plain(weakest.case)}"
    if broken:
        message = f"{name}: {plain(broken[0])}"
    utilisation = weakest.utilisation if weakest else None
    return Finding(
        id=f"mount:{mount.id}",
        code="mount.use",
        station="mount",
        state=state,
        subjects=(f"mounts/{mount.id}", box.path),
        message=message,
        figures=(Figure(utilisation, "use", "up"),) if utilisation is not None else (),
        value=utilisation,
        limit=1.0 if utilisation is not None else None,
        margin=1.0 - utilisation if utilisation is not None else None,
        unit="use",
        rationale=why,
        label=weakest.check if weakest else "not checked",
        points_mm=(mount.connection.spot.at,),
        working=(lambda: _working(mount, weakest)) if weakest else None,
    )


def _verdict(
    box: PlacedBox, mount: MountResult, broken: list[str], weakest: UtilisationRow | None, unsure: str | None
) -> tuple[State, str]:
    """The state of a mount, and why it is no better."""
    remarks = f" Outside the standard's range: {'; '.join(mount.remarks)}." if mount.remarks else ""
    if unsure:
        return "unknown", f"not measured: {plain(unsure)}. {NOT_CHECKED}"
    if broken or (weakest and weakest.utilisation > 1):
        return "foul", NOT_CHECKED + remarks
    if weakest is None:
        return "unknown", f"{mount.unchecked}. {NOT_CHECKED}"
    if mount.connection.spot.unapproved:
        spot = plain(mount.connection.spot.name)
        return "unknown", f"{spot} holds a seat or a belt: it needs its own approval, and nobody has given one"
    if box.unweighed:
        return "unknown", f"mass or place of {box.unweighed[0]} is missing, and it hangs on this box"
    return "tight", NOT_CHECKED + remarks


def _working(mount: MountResult, row: UtilisationRow) -> Working:
    return mount.connection.working(Governing(row.check, row.utilisation, row.case, row.solve, (row.n, row.d, row.w)))


@dataclass(frozen=True, slots=True)
class _OnSpot:
    """What lands on a spot of the vehicle, and what it asks of it, case by case."""

    name: str
    at: Vec
    demands: tuple[Demand, ...]
    presses: bool


def _spots(supports: tuple[SupportResult, ...], bars: tuple[CrossmemberResult, ...]) -> Iterator[Finding]:
    """Per hard point, what the spot must carry in its worst crash case; several on one add up."""
    held: dict[str, list[_OnSpot]] = {}
    for mount in (mount for support in supports for mount in support.mounts):
        spot, bears = mount.connection.spot, mount.connection.bears_face
        if not spot.path.startswith("crossmembers/"):  # its own metal is known, and checked
            held.setdefault(spot.path, []).append(_OnSpot(spot.name, spot.at, mount.demands, bears))
    for bar in bars:
        for key, point, demands in zip(bar.bar.spec.hardpoints, bar.bar.ends, bar.demands, strict=True):
            if demands:
                held.setdefault(f"hardpoints/{key}", []).append(_OnSpot(point.name, point.at_mm, demands, False))
    for path, mounts in held.items():
        if all(m.presses for m in mounts):
            yield _borne(path, mounts)
            continue
        pull, shear = _together(mounts, attrgetter("pull_n")), _together(mounts, attrgetter("shear_n"))
        yield Finding(
            id=f"mount:spot:{path.rsplit('/', 1)[-1]}",
            code="mount.spot",
            station="mount",
            state="note",
            subjects=(path,),
            message=f"{plain(mounts[0].name)}: this spot must carry {{0}} pull, {{1}} shear",
            figures=(Figure(pull, "N", "up"), Figure(shear, "N", "up")),
            value=pull,
            unit="N",
            rationale="from different solves, never to be combined; no margin is claimed for the vehicle's own metal",
            points_mm=(mounts[0].at,),
            label="spot",
        )


def _together(mounts: list[_OnSpot], figure: Callable[[Demand], float]) -> float:
    """Of all that lands on a spot, in their worst case."""
    return max(map(sum, zip(*([figure(demand) for demand in m.demands] for m in mounts), strict=True)))


def _borne(path: str, mounts: list[_OnSpot]) -> Finding:
    """What a thing must bear that boxes only lie on: all pads on it, in their worst case together."""
    press, spot = _together(mounts, attrgetter("press_n")), mounts[0]
    return Finding(
        id=f"mount:spot:{path.rsplit('/', 1)[-1]}",
        code="mount.spot",
        station="mount",
        state="note",
        subjects=(path,),
        message=f"{plain(spot.name)} must bear {{0}} pressing on it",
        figures=(Figure(press, "N", "up"),),
        value=press,
        unit="N",
        rationale="pads only press; no margin is claimed for the vehicle's own metal",
        points_mm=(spot.at,),
        label="spot",
    )
