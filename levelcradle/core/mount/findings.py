"""What the mounts have to say: support in words first, then each mount by its weakest check, then each hard point."""

from collections.abc import Iterator

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.finding import Figure, Finding, State, Step, Working, plain
from levelcradle.core.mount.angle_checks import (
    AngleJoint,
    bearing_capacity,
    bolt_capacity,
    doubler_weld_line,
    lever_pull,
    patch_capacity,
    weld_line,
    weld_moments,
)  # fmt: skip
from levelcradle.core.mount.figures import MountFigures, SupportFigures, UseRow

__all__ = ["NOT_CHECKED", "mount_findings"]

NOT_CHECKED = (
    "Rigid box, point mounts, static. Not checked: the vehicle's own metal, the box as a whole, modules inside it, "
    "fatigue, body twist, weld quality. Have it checked."
)


def mount_findings(assembly: Assembly, supports: tuple[SupportFigures, ...]) -> list[Finding]:
    found: list[Finding] = []
    for support in supports:
        found += _support(assembly, support)
        found += [_mount(assembly, support, mount) for mount in support.mounts]
    found += _hard_points(assembly, supports)
    return found


def _support(assembly: Assembly, support: SupportFigures) -> Iterator[Finding]:
    box = assembly.boxes[support.box]
    name, full = plain(box.box.name), Figure(box.hung_kg, "kg", "up")
    for mount, why in support.unfit:
        says = f"{plain(assembly.design.mounts[mount].name)} cannot stand where it is: {why}"
        yield Finding(
            id=f"mount:unfit:{mount}", code="mount.unfit", station="mount", state="foul",
            subjects=(f"mounts/{mount}", box.path), says=says,
        )  # fmt: skip
    if support.support.verdict == "holds":
        return
    state: State = "tight" if support.support.holds else "foul"
    says = f"The {name} is {{0}} full and {support.words}"
    if support.support.verdict == "nothing":
        says = f"The {name} is {{0}} full and nothing carries it: held by nothing"
    yield Finding(
        id=f"mount:support:{support.box}", code="mount.support", station="mount", state=state, subjects=(box.path,),
        says=says, figures=(full,), because="a rigid box needs three points that are not in line", shows="support",
        value=support.support.ratio, limit=0.01, margin=support.support.ratio - 0.01,
    )  # fmt: skip


def _mount(assembly: Assembly, support: SupportFigures, mount: MountFigures) -> Finding:
    """Never better than tight: the wall is a rough check, and much is not checked at all."""
    box, name = assembly.boxes[support.box], plain(assembly.design.mounts[mount.id].name)
    broken = [says for says, fits in mount.geometry if not fits]
    weakest = mount.rows[0] if mount.rows else None
    state, why = _verdict(box, mount, broken, weakest)
    says = f"{name}: strength not checked"
    if weakest:
        says = f"{name}: weakest is its {weakest.check}, use {{0}}, {plain(weakest.case)}"
    if broken:
        says = f"{name}: {plain(broken[0])}"
    use = weakest.use if weakest else None
    return Finding(
        id=f"mount:{mount.id}", code="mount.use", station="mount", state=state, subjects=(f"mounts/{mount.id}", box.path),
        says=says, figures=(Figure(use, "use", "up"),) if use is not None else (), value=use, limit=1.0 if use is not None else None,
        margin=1.0 - use if use is not None else None, unit="use", because=why, shows=weakest.check if weakest else "not checked",
        points_mm=(mount_point(assembly, mount),), working=(lambda: _working(mount.joint, weakest)) if weakest else None,
    )  # fmt: skip


def _verdict(box: PlacedBox, mount: MountFigures, broken: list[str], weakest: UseRow | None) -> tuple[State, str]:
    """The state of a mount, and why it is no better."""
    remarks = f" Outside the standard's range: {'; '.join(mount.remarks)}." if mount.remarks else ""
    if broken or (weakest and weakest.use > 1):
        return "foul", NOT_CHECKED + remarks
    if weakest is None:
        return "unknown", f"{mount.unchecked}. {NOT_CHECKED}"
    if box.unweighed:
        return "unknown", f"mass or place of {box.unweighed[0]} is missing, and it hangs on this box"
    return "tight", NOT_CHECKED + remarks


def mount_point(assembly: Assembly, mount: MountFigures) -> tuple[float, float, float]:
    return assembly.design.hardpoints[assembly.design.mounts[mount.id].lands_on.hardpoint].at_mm


def _working(joint: AngleJoint, row: UseRow) -> Working:
    """The governing load and the steps of the weakest check."""
    n, d, w = (np.array(v) for v in (row.n, row.d, row.w))
    steps = [
        Step("pull-off N", f"{row.case}, {row.solve}", row.n, "N", "rigid box on springs (statics)"),
        Step("away from the wall D", f"{row.case}, {row.solve}", row.d, "N", "rigid box on springs (statics)"),
        Step("along the bend W", f"{row.case}, {row.solve}", row.w, "N", "rigid box on springs (statics)"),
        Step("c", "wall or doubler to bolt", joint.c_mm, "mm", "from the box's place"),
        Step("bolt's pull T", "max(N, 0)(1 + b1/a1)", float(lever_pull(joint, n)), "N", "toe as a lever (statics)"),
    ]
    if row.check == "bolt":
        ft, fv = bolt_capacity(joint)
        steps += [
            Step("Ft,Rd", "0.9 fub As / γM2", ft, "N", "EN 1993-1-8 table 3.4"),
            Step("Fv,Rd", "αv fub As / γM2", fv, "N", "EN 1993-1-8 table 3.4"),
        ]
    elif row.check == "bearing":
        steps.append(Step("Fb,Rd", "k1 αb fu d t / γM2", bearing_capacity(joint), "N", "EN 1993-1-8 table 3.4"))
    elif row.check == "leg A at the bolt":
        steps.append(
            Step("moment at the bolt", "max(N, 0) b1, on the width less the hole", max(row.n, 0.0) * joint.b1_mm, "N·mm", "statics")
        )
    elif row.check == "doubler weld" and (plate := joint.mount.to_box.doubler):
        steps += [
            Step("throat a", "min(leg / √2, 0.7 t)", joint.doubler_throat_mm, "mm", "common practice, no source"),
            Step(
                "force per length", "line weld all round, worst corner", float(doubler_weld_line(joint, plate, n, d, w)), "N/mm", "statics"
            ),
        ]
    elif row.check == "weld":
        steps += [
            Step("throat a", "min(leg / √2, 0.7 t)", joint.throat_mm, "mm", "common practice, no source"),
            Step("force per length", "line weld, worst of four ends", float(weld_line(joint, n, d, w)), "N/mm", "statics"),
            Step("capacity", "a fu / (√3 βw γM2)", joint.throat_mm * joint.weld_strength_mpa, "N/mm", "EN 1993-1-8 4.5.3.3"),
        ]
    else:
        _, m_w, m_n = (float(m) for m in weld_moments(joint, n, d, w))
        steps += [
            Step("moment about n", "c W", m_n, "N·mm", "statics"),
            Step("moment about w", "−hc D − c N", m_w, "N·mm", "statics"),
        ]
        patch = dict(joint.patches()).get(row.check)
        if patch:
            pull, about_n, about_w = patch_capacity(joint, patch)
            steps += [
                Step("N0", "yield lines", pull, "N", "hollow-section face, from memory; rough"),
                Step("Mn0", "yield lines", about_n, "N·mm", "hollow-section face, from memory; rough"),
                Step("Mw0", "yield lines", about_w, "N·mm", "hollow-section face, from memory; rough"),
            ]
    return (*steps, Step(f"use of the {row.check}", "demand / capacity", row.use, ""))


def _hard_points(assembly: Assembly, supports: tuple[SupportFigures, ...]) -> Iterator[Finding]:
    """Per hard point, what the spot must carry in its worst crash case; several mounts on one add up."""
    held: dict[str, list[MountFigures]] = {}
    for support in supports:
        for mount in support.mounts:
            held.setdefault(assembly.design.mounts[mount.id].lands_on.hardpoint, []).append(mount)
    for key, mounts in held.items():
        pull = max(sum(m.demands[i].pull_n for m in mounts) for i in range(len(mounts[0].demands)))
        shear = max(sum(m.demands[i].shear_n for m in mounts) for i in range(len(mounts[0].demands)))
        point = assembly.design.hardpoints[key]
        yield Finding(
            id=f"mount:spot:{key}", code="mount.spot", station="mount", state="note", subjects=(f"hardpoints/{key}",),
            says=f"{plain(point.name)}: this spot must carry {{0}} pull, {{1}} shear",
            figures=(Figure(pull, "N", "up"), Figure(shear, "N", "up")), value=pull, unit="N",
            because="from different solves, never to be combined; no margin is claimed for the vehicle's own metal",
            points_mm=(point.at_mm,), shows="spot",
        )  # fmt: skip
