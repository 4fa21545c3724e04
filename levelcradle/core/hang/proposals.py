"""What each box of the fit study's proposals could hang on: a box that nothing can carry is no box."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace

from levelcradle.core.design import Design
from levelcradle.core.edits import edited
from levelcradle.core.finding import Figure, write
from levelcradle.core.fit import Proposal
from levelcradle.core.hang.hang import how_it_hangs
from levelcradle.core.meshes import Mesh

__all__ = ["with_hanging"]

MOST = 3  # of the best so many are asked


def with_hanging(
    design: Design,
    proposals: Sequence[Proposal],
    *,
    meshes: Mapping[str, Mesh],
    stop: Callable[[], bool] = lambda: False,
) -> Iterator[tuple[Proposal, ...]]:
    """The proposals again, one more of them told each time. Of a car without hard points nothing is told: there is
    nothing to ask."""
    told = list(proposals)
    for number, proposal in enumerate(proposals[:MOST] if design.hardpoints else ()):
        if stop():
            return
        placed = edited(design, proposal.patch)
        boxes = tuple(replace(box, hangs=_words(placed, box.id, meshes)) for box in proposal.boxes)
        told[number] = replace(proposal, boxes=boxes)
        yield tuple(told)


def _words(design: Design, box: str, meshes: Mapping[str, Mesh]) -> str:
    answer = how_it_hangs(design, box, meshes=meshes)
    if not answer.ways:
        return "no brackets on what is within its reach would hold it"
    way = answer.ways[0]
    return f"hangs on {len(way.on)} brackets, weakest use {write(Figure(way.utilisation, 'use', 'up'))}"
