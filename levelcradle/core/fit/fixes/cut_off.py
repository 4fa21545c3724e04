"""Edges cut off together, alone or with one straight move.

Looked for by the gaps alone, with the least there is of everything; only what was found is run through all checks.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.patch import Op
from levelcradle.core.finding import Figure
from levelcradle.core.fit.edge_cuts import EDGES, Cuts, Edge, EdgeCuts
from levelcradle.core.fit.fixes.question import FARTHEST_MM, MOVES, Move, Question
from levelcradle.core.fit.fixes.single import Fixes
from levelcradle.core.fit.fixes.words import SentencePart, joined, move_part
from levelcradle.core.fit.stand import free_along, pressing

__all__ = ["edges_cut"]

MOST_PLACES = 4  # so many places along one way are looked at
LEAST_SHARE = 0.1  # a thing met flatter than this is no thing at an edge


@dataclass(frozen=True, slots=True)
class _Found:
    move: Move
    far: float
    cuts: Cuts

    @property
    def size(self) -> float:
        return self.far + sum(max(legs) for _, legs in self.cuts)


def edges_cut(question: Question) -> Fixes:
    """Edges cut off together, and with one straight move where that is needed or makes the cuts smaller."""
    box, design = question.box, question.asked
    edges = EdgeCuts(box, design.module_kinds, design.tables)
    here: set[Cuts] = set()
    for move in MOVES:
        found = sorted(_along(question, edges, move), key=lambda f: (round(f.size, 1), len(f.cuts)))
        still = [f for f in found if not f.far and f.cuts not in here][:1]
        here |= {f.cuts for f in still}
        for one in [*still, *(f for f in found[:1] if f.far)]:
            words, figures = joined([*move_part(move, one.far), *_parts(one.cuts)])
            ops = [*question.moved(move, one.far), *_chamfers(question, edges, one.cuts)]
            yield question.fix("chamfer", "box", words, figures, ops, size=one.size)


def _chamfers(question: Question, edges: EdgeCuts, cuts: Cuts) -> Iterator[Op]:
    had = question.box.chamfers
    for key, chamfer in edges.box(cuts).chamfers.items():
        if key not in had:
            yield {
                "op": "add",
                "path": f"/boxes/{question.box_id}/chamfers/{key}",
                "value": chamfer.model_dump(mode="json"),
            }


def _along(question: Question, edges: EdgeCuts, move: Move) -> Iterator[_Found]:
    """What clears along one way: at the first place where as much as can be cut off would do, and where the whole box
    gets free of one thing after the other, since less has to be cut off there. None that goes as far as the whole box
    has to."""
    places = free_along(question.pieces, question.things, move.axis, move.sign)
    plain = question.travel(question.pieces, move)
    done: list[tuple[float, set[Edge]]] = []
    for most in _most(question, edges, move, places):
        first = question.travel(question.pieces_of(edges.shell(most)), move)
        if first is None:
            continue
        for far in [first, *(place for place in places if first < place <= FARTHEST_MM)][:MOST_PLACES]:
            if plain is not None and far >= plain:
                break
            if any(place == far and needed <= {edge for edge, _ in most} for place, needed in done):
                continue
            cuts = edges.least(most, partial(_keeps, question, edges, move.by(far)))
            done.append((far, {edge for edge, _ in cuts}))
            least = question.travel(question.pieces_of(edges.shell(cuts)), move)
            found = _Found(move, far if least is None else min(far, least), cuts)
            if plain is None or found.size < plain:
                yield found


def _keeps(question: Question, edges: EdgeCuts, by: Vec, cuts: Cuts) -> bool:
    return question.keeps(question.pieces_of(edges.shell(cuts)), by)


def _most(question: Question, edges: EdgeCuts, move: Move, places: list[float]) -> list[Cuts]:
    """As much as can be cut off evenly, and so that the cuts lie along what is in their way at these places."""
    slopes: dict[Edge, tuple[float, float]] = {}
    for far in places[:MOST_PLACES]:
        slopes |= _slopes(question, move.by(far))
    return list(dict.fromkeys([*edges.most(), *(edges.most(slopes) if slopes else [])]))


def _slopes(question: Question, by: Vec) -> dict[Edge, tuple[float, float]]:
    """Which way the cut face of an edge has to look so that it lies along the thing that stands deepest in it."""
    into = question.assembly.boxes[question.box_id].placement.turn.T
    found: dict[Edge, tuple[float, float]] = {}
    for p in sorted(pressing(question.pieces, question.things, by, 0.0), key=lambda p: -p.spare_mm):
        x, y, z = (-float(v) for v in into @ p.away)
        for edge in EDGES:
            one, other = (_share((x, y, z), face) for face in edge)
            if min(one, other) > LEAST_SHARE:
                found[edge] = (one, other)
    return found


def _share(way: Vec, face: Face) -> float:
    axis, far = FACE_AT[face]
    return way[axis] * (1 if far else -1)


def _parts(cuts: Cuts) -> Iterator[SentencePart]:
    """In words: edges that are cut alike are named together."""
    alike: dict[tuple[int, int, str], list[Edge]] = {}
    for edge, (one, other) in cuts:
        alike.setdefault((one, other, "" if one == other else "base" if "base" in edge else edge[0]), []).append(edge)
    for (one, other, _), rows in alike.items():
        off = f"off the edge{'s' if len(rows) > 1 else ''} {' and '.join(f'{a} {b}' for a, b in rows)}"
        figures = (Figure(float(one), "mm", "up"), Figure(float(other), "mm", "up"))
        if one == other:
            yield f"cut {{0}} {off}", figures[:1]
        else:
            walls = [_wall({edge[n] for edge in rows}) for n in range(2)]
            yield f"cut {{0}} along {walls[0]} and {{1}} along {walls[1]} {off}", figures


def _wall(faces: set[Face]) -> str:
    if len(faces) > 1:
        return "the sides" if faces == {"left", "right"} else "the walls"
    (face,) = faces
    return "the base" if face == "base" else f"the {face} wall"
