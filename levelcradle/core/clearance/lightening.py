"""Lightening holes: with sheet enough between and beside them, and under no bracket. That what has them stands dry is
asked with the flags of its space."""

from collections.abc import Iterator

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.box import Lightened
from levelcradle.core.box.lightening import MOST_HOLES
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.finding import Figure, Finding, State, plain
from levelcradle.core.solids import nearest, point

__all__ = ["lightening_findings"]

LEFT_SHARE = 0.5  # of a hole between it and the next: common practice, no source
EDGE_THICKNESSES = 2.0  # of sheet from a hole to an edge or bend: common practice, no source
NEAR_MM = 0.5  # what lies on a wall is as near to it


def lightening_findings(box: PlacedBox) -> Iterator[Finding]:
    for holes in box.shell.lightened:
        spec, sheet = holes.spec, box.shell.made.wall_at("front").thickness_mm
        left, needs = spec.apart_mm - spec.diameter_mm, LEFT_SHARE * spec.diameter_mm
        if left < needs:
            yield _of(box, holes, "apart", "foul", "leave {0} between them, needs {1}", (left, needs))
        if spec.edge_mm < EDGE_THICKNESSES * sheet:
            words = "are {0} from what is beside them, needs {1}"
            yield _of(box, holes, "edge", "foul", words, (spec.edge_mm, EDGE_THICKNESSES * sheet))
        if not holes.at:
            words = f"are none: there is no room for one, or there would be over {MOST_HOLES}"
            yield _of(box, holes, "none", "foul", words)
        else:
            yield _of(box, holes, "count", "note", f"are {len(holes.at)} of ⌀ {spec.diameter_mm:g}")
        yield from _under_brackets(box, holes)


def _under_brackets(box: PlacedBox, holes: Lightened) -> Iterator[Finding]:
    """What is welded to the wall is welded to sheet."""
    back, reach = box.placement.inverse, holes.spec.diameter_mm / 2
    axis = FACE_AT[holes.spec.face][0]
    for mount in box.mounts:
        for piece in mount.pieces:
            solid = piece.solid.moved(back)
            flat = [at for at in holes.at if solid.low[axis] - NEAR_MM <= at[axis] <= solid.high[axis] + NEAR_MM]
            if piece.on_wall and any(nearest(point(at), solid).gap_mm < reach for at in flat):
                words = f"lie under {plain(mount.mount.name)}, which is welded there"
                yield _of(box, holes, f"bracket {mount.id}", "foul", words)
                break


def _of(
    box: PlacedBox,
    holes: Lightened,
    key: str,
    state: State,
    words: str,
    mm: tuple[float, float] | None = None,
) -> Finding:
    has, needs = mm or (None, None)
    return Finding(
        id=f"lightening:{box.path}:{holes.id}:{key}",
        code="box.lightening",
        station="box",
        state=state,
        subjects=(box.path, f"{box.path}/lightening/{holes.id}"),
        message=f"{plain(box.box.name)}: the lightening holes of its {holes.spec.face} {words}",
        figures=(Figure(mm[0], "mm", "down"), Figure(mm[1], "mm", "up")) if mm else (),
        value=has,
        limit=needs,
        margin=mm[0] - mm[1] if mm else None,
        unit="mm" if mm else "",
        label="lightening holes",
        rationale="half a hole of sheet between them, two thicknesses beside them (common practice, no source)",
    )
