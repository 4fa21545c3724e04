"""Holes that let a box settle: at least two round ones hold its place, and no slot lies as a crash throws it."""

from collections.abc import Iterator

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.connection import Connection
from levelcradle.core.finding import Finding, State, plain
from levelcradle.core.mount.result import loads_of

__all__ = ["slot_findings"]

ROUND = 2  # holes a box: common practice, no source


def slot_findings(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    bolted = [m for m in box.mounts if m.contacts and not m.unfit and m.tightening[0] > 0]
    loose = [m for m in bolted if m.slides is not None]
    if not loose:
        return
    if len(bolted) - len(loose) < ROUND:
        name = plain(box.box.name)
        words = f"{name}: {len(bolted) - len(loose)} of its bolts are in round holes, at least {ROUND} hold its place"
        yield _finding(f"mount:round:{box.id}", (box.path,), words, "all else lets it shift in a crash", "foul")
    yield from _along(assembly, box, [m for m in loose if m.slides])


def _along(assembly: Assembly, box: PlacedBox, slotted: list[Connection]) -> Iterator[Finding]:
    """By the crash case that throws a mount most in its metal."""
    loads, cases = loads_of(box, assembly.tables), list(assembly.tables.load_cases.values())
    crash = [k for k, case in enumerate(cases) if case.kind == "crash"]
    if not loads.thrown.size or not crash:
        return
    for mount in slotted:
        _, away, along = mount.parts_of(loads.thrown[:, :, loads.standing.index(mount)])
        ways = {1: np.abs(away)[:, crash], 2: np.abs(along)[:, crash]}
        both = np.hypot(ways[1], ways[2])
        solve, k = divmod(int(both.argmax()), len(crash))
        own, other = (float(ways[way][solve, k]) for way in (mount.slides or 1, 3 - (mount.slides or 1)))
        if own > other:
            name, case = plain(mount.mount.name), plain(cases[crash[k]].name)
            words = f"{name}: its slot lies the way that {case} throws it most"
            yield _finding(f"mount:slot:{mount.id}", (f"mounts/{mount.id}", box.path), words, WHY, "foul")


WHY = "there the bolt runs to the end of it before it holds"


def _finding(id_: str, subjects: tuple[str, ...], words: str, why: str, state: State) -> Finding:
    return Finding(
        id=id_,
        code="mount.slot",
        station="mount",
        state=state,
        subjects=subjects,
        message=words,
        rationale=why,
        label="slots",
    )
