"""What stands against making a framed box."""

import math
from collections.abc import Iterator

from levelcradle.core.box.framed.frame import Frame, Run
from levelcradle.core.box.framed.panels import SCREW_HOLES_MM
from levelcradle.core.box.making import cannot, too_little
from levelcradle.core.box.openings import FaceHole, openings_of
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.finding import Finding

__all__ = ["framed_findings"]

# how much thread holds a screw to its strength, in diameters: common practice, no source
THREADS = {"steel": 1.0, "aluminium": 2.0}
EDGE_DIAMETERS = 1.5  # from a fixing's middle to the edge of what it holds: EN 1993-1-3, from memory


def framed_findings(frame: Frame, path: str, name: str) -> Iterator[Finding]:
    if frame.box.chamfers:
        why = "its tubes run along every edge; nothing is cut for this box"
        yield cannot(path, name, "edges", "edges are cut off a frame", why)
    if frame.lid.face == "base" and (frame.spec.rails or frame.spec.rails_at_mm):
        why = "what it holds goes in and out there: no rails, or another face"
        yield cannot(path, name, "rails in the way", "its rails cross the opening that it is filled through", why)
    spec = frame.spec
    if spec.fastener != "rivet" and spec.fastener_mm not in SCREW_HOLES_MM:
        sizes = ", ".join(f"M{size:g}" for size in SCREW_HOLES_MM)
        yield cannot(path, name, "screws", f"there is no screw M{spec.fastener_mm:g}", f"ISO 262, from memory: {sizes}")
    for label, words, has, needs, why in (*_tubes(frame), *_fasteners(frame), *_openings(frame)):
        yield from too_little(path, name, label, words, (has, needs), why)


Asked = tuple[str, str, float, float, str]  # label, words, has, needs, why


def _tubes(frame: Frame) -> Iterator[Asked]:
    short = min(frame.runs, key=lambda run: run.length_mm)
    least = 2 * frame.spec.tube_mm
    yield "tubes", f"the {short.name} comes out", short.length_mm, least, "room to weld it: common practice, no source"
    rails = [run for run in frame.runs if run.name.startswith("rail")]
    s, (low, high) = frame.spec.tube_mm, frame.edges
    ends = [low[0] + s, *(edge for run in rails for edge in (run.low[0], run.high[0])), high[0] - s]
    if rails:
        free = min(ends[n + 1] - ends[n] for n in range(0, len(ends), 2))
        yield "rails", "between its rails there is", free, 0.0, "they do not go in beside each other"


def _fasteners(frame: Frame) -> Iterator[Asked]:
    spec = frame.spec
    if spec.fastener == "tapped":
        needs = THREADS[frame.material.weldable_with] * spec.fastener_mm
        why = "thin sheet holds no thread; one diameter in steel, two in aluminium: common practice, no source"
        yield "thread", "the wall of the tube gives a thread", spec.tube_wall_mm, needs, why
    needs = EDGE_DIAMETERS * spec.fastener_mm
    why = "1.5 diameters: EN 1993-1-3, from memory"
    yield "edge distance", "from its fixings to an edge there is", spec.tube_mm / 2, needs, why


def _openings(frame: Frame) -> Iterator[Asked]:
    """An opening goes through the cladding, not through a tube behind it."""
    why = "an opening goes through the cladding between the tubes"
    for hole in openings_of(frame.box, frame.outer_mm):
        axis, far = FACE_AT[hole.face]
        clear = min(_beside(hole, run, axis) for run in frame.runs if _behind(frame, run, axis, far=far > 0))
        words = f"from the opening {frame.box.openings[hole.name].name} to a tube of the frame there is"
        yield f"opening {hole.name}", words, clear - hole.seat_mm / 2, 0.0, why


def _behind(frame: Frame, run: Run, axis: int, *, far: bool) -> bool:
    """Whether a tube lies right behind what covers a face."""
    if far:
        return run.high[axis] > frame.edges[1][axis] - 1e-6
    return run.low[axis] < frame.edges[0][axis] + 1e-6


def _beside(hole: FaceHole, run: Run, axis: int) -> float:
    """How far the middle of a hole is from a tube, as one looks at the face; 0 over it."""
    off = [max(run.low[i] - hole.at[i], hole.at[i] - run.high[i], 0.0) for i in range(3) if i != axis]
    return math.hypot(*off)
