"""A hole drilled beside another in the vehicle's sheet: metal enough between them, or the first is welded shut."""

from collections.abc import Iterator, Mapping
from itertools import combinations

from levelcradle.core.assembly import Assembly
from levelcradle.core.axes import dot, minus, unit
from levelcradle.core.design import Design, HardPoint
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.mount import APART_HOLES

__all__ = ["hole_findings"]

NO_HOLES = ("stud", "strap point")
FLAT_WITHIN, LEVEL_MM = 0.98, 3.0  # two holes are in one sheet where they face alike, and lie so level: no source
ONE_MM = 1.0  # nearer than that they are one hole


def hole_findings(design: Design, assembly: Assembly) -> Iterator[Finding]:
    """Of each two hard points in one sheet, of which one has to be drilled and one carries something. As the vehicle
    came two may stand as near as they do."""
    if all(point.uncut for point in design.hardpoints.values()):
        return
    bolts = dict(_bolts(assembly))
    holes = {key: p for key, p in design.hardpoints.items() if p.kind not in NO_HOLES}
    for one, other in combinations(holes, 2):
        first, second = holes[one], holes[other]
        if (first.uncut and second.uncut) or not {one, other} & bolts.keys() or not _in_one_sheet(first, second):
            continue
        across = minus(first.at_mm, second.at_mm)
        apart = dot(across, across) ** 0.5
        least = APART_HOLES * max(_wide_mm(assembly, key, holes[key], bolts) for key in (one, other))
        if ONE_MM < apart < least:
            yield _told((one, other), (first, second), apart, least)


def _bolts(assembly: Assembly) -> Iterator[tuple[str, str]]:
    """Of every hard point that carries something, the size of the bolt there; empty where only its thread says."""
    for mount in (mount for box in assembly.in_order() for mount in box.mounts):
        for spot in mount.spot.ends:
            if spot.path.startswith("hardpoints/"):
                bolt = getattr(mount.mount.lands_on, "bolt", None)
                yield spot.path.removeprefix("hardpoints/"), bolt.size if bolt else ""
    for bar in assembly.crossmembers.values():
        for key in bar.spec.hardpoints:
            yield key, bar.spec.bolt.size


def _in_one_sheet(first: HardPoint, second: HardPoint) -> bool:
    """Whichever side of it they face."""
    n = unit(first.direction)
    off = dot(minus(second.at_mm, first.at_mm), n)
    return abs(dot(n, unit(second.direction))) > FLAT_WITHIN and abs(off) < LEVEL_MM


def _wide_mm(assembly: Assembly, key: str, point: HardPoint, bolts: Mapping[str, str]) -> float:
    """0 where nobody said what goes through it: the other's counts."""
    size = assembly.tables.bolts.get(bolts.get(key) or point.thread or "")
    return size.clearance_hole_mm if size else 0.0


def _told(keys: tuple[str, str], points: tuple[HardPoint, HardPoint], apart: float, least: float) -> Finding:
    return Finding(
        id=f"survey:holes:{keys[0]}:{keys[1]}",
        code="survey.holes",
        station="survey",
        state="foul",
        subjects=tuple(f"hardpoints/{key}" for key in keys),
        message=f"{plain(points[0].name)} and {plain(points[1].name)} are {{0}} apart in one sheet, at least {{1}}",
        figures=(Figure(apart, "mm", "down"), Figure(least, "mm", "up")),
        value=apart,
        limit=least,
        margin=apart - least,
        unit="mm",
        rationale="three times the wider hole (common practice, no source): drill further off, or weld the one that "
        "carries nothing shut and take it off the list",
        label="holes",
        points_mm=tuple(p.at_mm for p in points),
    )
