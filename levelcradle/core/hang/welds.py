"""The welds of a bracket compared: its edges alone, with one across its end, with plugs; which can be left out."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.design.mount import Mount, Plugs, Welded
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import State, plain
from levelcradle.core.meshes import Mesh
from levelcradle.core.mount import MountResult, support_result, unsure

__all__ = ["WeldChoice", "welds_compared"]

WELDS = ("weld", "plugs", "doubler weld", "fatigue in the weld", "fatigue in the doubler's weld")
MOST_PLUGS = 3


@dataclass(frozen=True, slots=True)
class WeldChoice:
    """One way to weld a bracket. ``why``: what it does not keep, or why no use is given; ``now``: it is so welded;
    ``enough``: it holds, and nothing that is welded less does."""

    words: str
    fillet_mm: float
    plugs: int
    state: State
    utilisation: float | None
    governs: str
    why: str
    now: bool
    enough: bool
    patch: tuple[Op, ...]


def welds_compared(design: Design, mount_id: str, *, meshes: Mapping[str, Mesh]) -> tuple[WeldChoice, ...]:
    """From the least welded to the most, while all else stays as it is; none of a mount that is not welded. Raises
    UnknownThing."""
    mount = design.mounts.get(mount_id)
    if mount is None:
        raise UnknownThing("mount", mount_id)
    if not isinstance(mount.to_box, Welded):
        return ()
    found: list[WeldChoice] = []
    for words, hold in _ways(mount, mount.to_box):
        enough = any(row.enough for row in found)
        found.append(_tried(design, mount_id, words, hold, meshes, enough=enough))
    return tuple(found)


def _ways(mount: Mount, now: Welded) -> Iterator[tuple[str, Welded]]:
    plugs = now.plugs or _plugs(getattr(mount.shape, "thickness_mm", 0.0), now.length_mm)
    for words, across, filled in (
        ("edges alone", False, None),
        ("edges and end", True, None),
        ("edges and plugs", False, plugs),
        ("edges, end and plugs", True, plugs),
    ):
        yield words, now.model_copy(update={"across_end": across, "plugs": filled})


def _plugs(thickness_mm: float, long_mm: float) -> Plugs:
    """As many as stand along a weld, of the least hole: see what a welded plate asks of them."""
    hole = math.ceil(thickness_mm + 8)
    return Plugs(hole_mm=hole, count=max(1, min(MOST_PLUGS, int(long_mm / (hole + 2 * thickness_mm)))))


def _tried(
    design: Design, mount_id: str, words: str, hold: Welded, meshes: Mapping[str, Mesh], *, enough: bool
) -> WeldChoice:
    mount, path = design.mounts[mount_id], f"/mounts/{mount_id}/to_box"
    patch: list[Op] = [{"op": "replace", "path": path, "value": hold.model_dump(mode="json")}]
    assembly = resolve(edited(design, patch), meshes)
    result = next((row for s in support_result(assembly) for row in s.mounts if row.id == mount_id), None)
    state, why = _verdict(result)
    rows = [row for row in result.rows if row.check in WELDS] if result and not why else []
    worst = max(rows, key=lambda row: row.utilisation, default=None)
    if worst:
        doubt = unsure(assembly, [assembly.boxes[mount.box]], [result.connection.spot.path] if result else [])
        state, why = ("unknown", plain(doubt)) if doubt and worst.state != "foul" else (worst.state, "")
    return WeldChoice(
        words=words,
        fillet_mm=2 * hold.length_mm + getattr(mount.shape, "width_mm", 0.0) * (hold.across_end + hold.across_start),
        plugs=hold.plugs.count if hold.plugs else 0,
        state=state,
        utilisation=worst.utilisation if worst else None,
        governs=f"{worst.check}, {plain(worst.case)}" if worst else "",
        why=why,
        now=hold == mount.to_box,
        enough=not enough and worst is not None and state in ("clear", "tight"),
        patch=tuple(patch),
    )


def _verdict(result: MountResult | None) -> tuple[State, str]:
    """What speaks against it before any use is looked at."""
    if result is None:
        return "unknown", "the box is not held"
    if broken := next((words for words, fits in result.geometry if not fits), ""):
        return "foul", plain(broken)
    return ("clear", "") if result.rows else ("unknown", result.unchecked)
