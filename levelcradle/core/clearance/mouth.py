"""Whether modules go straight in through a flange that is turned inward."""

from collections.abc import Iterator

from shapely.geometry import Point, Polygon
from shapely.geometry import box as rectangle

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.box.making import too_little
from levelcradle.core.finding import Finding
from levelcradle.core.solids import bounds

__all__ = ["mouth_findings"]

WHY = "modules go straight down past the flange, and what holds them does not stand in it"


def mouth_findings(box: PlacedBox) -> Iterator[Finding]:
    """One for what reaches furthest under the flange; nothing of a box that is as wide open as its inside."""
    shell = box.shell
    if shell.made.mouth is None:
        return
    mouth, foot = Polygon(shell.made.mouth), shell.outer_mm[2] - box.shell.made.wall_mm
    rows = [(f"module {m.number}", m.low, m.high) for m in shell.modules]
    for piece in shell.held.pieces:
        lows, highs = bounds(list(piece.solids))
        low, high = lows.min(axis=0).tolist(), highs.max(axis=0).tolist()
        if high[2] > foot:
            rows.append((piece.name, (low[0], low[1], low[2]), (high[0], high[1], high[2])))
    if rows:
        has, name = min((_clear_mm(mouth, low, high), name) for name, low, high in rows)
        words = f"from {name} to the inner edge of its flange there is"
        yield from too_little(box.path, box.box.name, "mouth", words, (has, 0.0), WHY)


def _clear_mm(mouth: Polygon, low: Vec, high: Vec) -> float:
    """How far what is seen from above is inside the mouth; less than 0 where it reaches under its edge."""
    corners = [Point(x, y) for x, y in rectangle(low[0], low[1], high[0], high[1]).exterior.coords]
    return min(float(mouth.exterior.distance(at)) * (1 if mouth.covers(at) else -1) for at in corners)
