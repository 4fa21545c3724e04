"""Holes in a crossmember, and whether metal enough is left between two of them."""

from collections.abc import Iterator
from itertools import pairwise

from levelcradle.core.assembly import Assembly
from levelcradle.core.crossmember import PlacedCrossmember
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.mount.crossmembers import bolted

__all__ = ["APART_HOLES", "drilled", "drilled_findings"]

APART_HOLES = 3.0  # from middle to middle, times the wider: common practice, no source


def drilled(assembly: Assembly, bar: PlacedCrossmember) -> Iterator[tuple[float, float]]:
    """(how far from its end, diameter) of the holes of a crossmember: for its own bolts, and those of mounts on it."""
    bolts, spec = assembly.tables.bolts, bar.spec
    if spec.ends == "bolted":
        for at in (0.0, bar.span_mm):
            yield at + spec.beyond_mm, bolts[spec.bolt.size].clearance_hole_mm
    for mount in (mount for box in assembly.in_order() for mount in box.mounts):
        on = bolted(mount)
        if on is not None and on.path == bar.path:
            yield on.along_mm + spec.beyond_mm, bolts[on.bolt.size].clearance_hole_mm


def drilled_findings(assembly: Assembly, bar: PlacedCrossmember) -> Iterator[Finding]:
    """Two holes that are nearer than they may be."""
    holes = sorted(drilled(assembly, bar))
    for number, ((at, wide), (to, other)) in enumerate(pairwise(holes), 1):
        apart, least = to - at, APART_HOLES * max(wide, other)
        if apart >= least:
            continue
        yield Finding(
            id=f"crossmember:{bar.id}:holes:{number}",
            code="mount.crossmember",
            station="mount",
            state="foul",
            subjects=(bar.path,),
            message=f"{plain(bar.spec.name)}: two of its holes are {{0}} apart, at least {{1}}",
            figures=(Figure(apart, "mm", "down"), Figure(least, "mm", "up")),
            value=apart,
            limit=least,
            margin=apart - least,
            unit="mm",
            rationale="three times the wider hole (common practice, no source): land further off, or on its other end",
            label="holes",
        )
