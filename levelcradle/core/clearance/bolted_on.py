"""What brackets that are bolted to a box have inside it, against its modules and the room that these ask for."""

from collections.abc import Iterator

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.clearance.fixed import TOUCHES_MM, Partner, module_partners
from levelcradle.core.connection import Connection
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.solids import nearest

__all__ = ["bolted_findings"]


def bolted_findings(box: PlacedBox) -> Iterator[Finding]:
    """One a mount: of what stands in the box, the least it is off a module."""
    through = [mount for mount in box.mounts if any(piece.inside for piece in mount.pieces)]
    if not through:
        return
    partners, back = list(module_partners(box)), box.placement.inverse
    for mount in through:
        solids = [piece.solid.moved(back) for piece in mount.pieces if piece.inside]
        rows = [(min(nearest(s, partner.solid).gap_mm for s in solids), partner) for partner in partners]
        if rows:
            yield _finding(box, mount, *min(rows, key=lambda row: row[0] - row[1].need_mm))


def _finding(box: PlacedBox, mount: Connection, gap_mm: float, partner: Partner) -> Finding:
    overlaps, name, other = gap_mm < TOUCHES_MM, plain(mount.mount.name), plain(partner.name)
    message = f"{name}: its nuts stand {{0}} in {other}" if overlaps else f"{name}: its nuts to {other}: {{0}}"
    return Finding(
        id=f"inside:{box.path}:mount:{mount.id}",
        code="inside.bolted",
        station="mount",
        state="foul" if gap_mm < partner.need_mm + TOUCHES_MM else "clear",
        subjects=(f"mounts/{mount.id}", box.path),
        message=f"{message}, needs {{1}}",
        figures=(Figure(abs(gap_mm), "mm", "up" if overlaps else "down"), Figure(partner.need_mm, "mm", "up")),
        value=gap_mm,
        limit=partner.need_mm,
        margin=gap_mm - partner.need_mm,
        unit="mm",
        rationale=partner.rationale,
        label="nuts behind the wall",
        working=lambda: (
            Step("there is", f"nuts to {partner.name}", gap_mm, "mm", "exact distance between convex solids"),
            Step("needed", partner.rationale, partner.need_mm, "mm", "as drawn"),
        ),
    )
