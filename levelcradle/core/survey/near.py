"""What could carry a box near here, and what is behind this hole."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly, member_solid
from levelcradle.core.axes import Vec, minus, plus, scaled, unit
from levelcradle.core.bays import extent
from levelcradle.core.design import Design
from levelcradle.core.solids import block, nearest, ray_hits

__all__ = ["Carrier", "Depth", "carriers_near", "depth_behind"]

NEAR_MM = 250.0  # as far as a bracket reaches from a space: common practice, no source


@dataclass(frozen=True, slots=True)
class Carrier:
    """A hard point or member near a space: how far off, and what is known or not known about it."""

    path: str
    name: str
    distance_mm: float
    message: str


def carriers_near(design: Design, bay: str) -> list[Carrier]:
    """What could carry a box in a bay, nearest first; main structure before bolted-on."""
    return sorted(_carriers(design, bay), key=lambda c: (c.distance_mm, c.name))


def _carriers(design: Design, bay: str) -> Iterator[Carrier]:
    space = block(*extent(design.bays[bay]))
    for key, point in design.hardpoints.items():
        at = point.at_mm
        off = nearest(block(minus(at, (0.5, 0.5, 0.5)), plus(at, (0.5, 0.5, 0.5))), space).gap_mm
        if off > NEAR_MM:
            continue
        wall = f"wall {point.wall_mm:g} mm" if point.wall_mm is not None else "wall not known"
        before = f", carried {point.carried_kg:g} kg before" if point.carried_kg else ""
        cut = "" if point.uncut else ", reuse cuts the vehicle"
        yield Carrier(
            f"hardpoints/{key}",
            point.name,
            max(off, 0.0),
            f"{point.kind}, {point.thread or 'thread not known'}, {wall}{before}{cut}",
        )
    for key, member in design.members.items():
        off = nearest(member_solid(member), space).gap_mm
        if off <= NEAR_MM:
            part = "main structure" if member.main else "bolted on"
            wall = f"wall {member.wall_mm:g} mm" if member.wall_mm is not None else "wall not known"
            yield Carrier(
                f"members/{key}", member.name, max(off, 0.0), f"{member.section}, {part}, {wall}, {member.condition}"
            )


@dataclass(frozen=True, slots=True)
class Depth:
    """How far one may drill or reach from a point, and what is met first."""

    depth_mm: float
    path: str
    name: str
    at: Vec


def depth_behind(assembly: Assembly, at: Vec, way: Vec) -> Depth | None:
    """From a point along a direction to the next thing, line, box or module; None where nothing stands in the way."""
    way = unit(way)
    hits: list[tuple[float, str, str]] = []
    for obstacle in (*assembly.obstacles, *assembly.sides):
        if obstacle.kind in ("room", "space"):
            continue
        if (hit := ray_hits(obstacle.solid, at, way)) is not None:
            hits.append((hit, obstacle.path, obstacle.name))
    for box in assembly.boxes.values():
        hits += [
            (hit, box.path, f"{box.box.name} {p.name}")
            for p in box.pieces
            if (hit := ray_hits(p.solid, at, way)) is not None
        ]
        for module in box.shell.modules:
            solid = block(module.low, module.high).moved(box.placement)
            if (hit := ray_hits(solid, at, way)) is not None:
                hits.append((hit, f"{box.path}/blocks/{module.block}", f"module {module.number} of {box.box.name}"))
    if not hits:
        return None
    depth, path, name = min(hits)
    return Depth(depth, path, name, plus(at, scaled(way, depth)))
