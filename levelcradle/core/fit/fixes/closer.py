"""What is inside set closer, so that the box gets smaller: gaps, liners, sheet, the room before faces; with one move
where it has to."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from levelcradle.core.design.base import Face
from levelcradle.core.design.box import Block, Box
from levelcradle.core.design.layers import WALLS
from levelcradle.core.design.patch import Op
from levelcradle.core.finding import Figure, plain
from levelcradle.core.fit.fixes.fix import Does
from levelcradle.core.fit.fixes.question import MOVES, Move, Question
from levelcradle.core.fit.fixes.single import Fixes
from levelcradle.core.fit.fixes.words import joined, move_part
from levelcradle.core.modules import lay_out

__all__ = ["set_closer"]

SHEETS_MM = (2.5, 2.0, 1.5)  # sheet thicknesses in common stock: common practice, no source
LINERS_MM = (3.0, 2.0, 1.0, 0.0)
STEP_MM = 0.5


@dataclass(frozen=True, slots=True)
class _Source:
    """Something that gives room. ``values_mm``: what it may be instead, the least change first."""

    kind: str
    does: Does
    message: str
    paths: tuple[str, ...]
    had_mm: float
    values_mm: tuple[float, ...]

    def ops(self, mm: float) -> list[Op]:
        return [{"op": "replace", "path": path, "value": mm} for path in self.paths]


@dataclass(frozen=True, slots=True)
class _Layers(_Source):
    """Layers of one thickness: of 0 there are none."""

    def ops(self, mm: float) -> list[Op]:
        if mm:
            return _Source.ops(self, mm)
        return [{"op": "remove", "path": path.rpartition("/")[0]} for path in self.paths]


def set_closer(question: Question) -> Fixes:
    """Of each thing that gives room as little as clears the box where it stands; where no straight move of the whole
    box would clear it, as little as clears it with one."""
    movable = question.shortest(question.pieces) is not None
    for source in _sources(question):
        found = _least(question, source, move=not movable)
        if found is None:
            continue
        mm, far, move = found
        words, figures = joined(
            [(source.message, (Figure(mm, "mm"), Figure(source.had_mm, "mm"))), *move_part(move, far)]
        )
        ops = [*source.ops(mm), *question.moved(move, far)]
        yield question.fix(source.kind, source.does, words, figures, ops, size=source.had_mm - mm + far)


def _far(question: Question, ops: Iterable[Op], *, move: bool) -> tuple[float, Move] | None:
    """The shortest way to where the box then keeps its gaps; without ``move`` only where it stands."""
    shell = question.shell_with(ops)
    if shell is None:
        return None
    pieces = question.pieces_of(shell)
    if move:
        return question.shortest(pieces)
    return (0.0, MOVES[0]) if question.keeps(pieces, (0.0, 0.0, 0.0)) else None


def _least(question: Question, source: _Source, *, move: bool) -> tuple[float, float, Move] | None:
    """The first of the values that does, and the way with it; less room taken away never clears more."""
    low, high = 0, len(source.values_mm) - 1
    found = _far(question, source.ops(source.values_mm[high]), move=move) if high >= 0 else None
    while found and low < high:
        middle = (low + high) // 2
        if tried := _far(question, source.ops(source.values_mm[middle]), move=move):
            high, found = middle, tried
        else:
            low = middle + 1
    return (source.values_mm[high], *found) if found else None


def _sources(question: Question) -> Iterator[_Source]:
    box, at = question.box, f"/boxes/{question.box_id}"
    for faces, words in ((WALLS, "liner on the walls"), (("base",), "runners")):
        yield from _thinned(box, at, faces, words)
    sheet = question.shell.made.sheet_mm
    if sheet is not None:
        message, path = "sheet of {0} instead of {1}", f"{at}/construction/thickness_mm"
        yield _Source("sheet", "box", message, (path,), sheet, _below(SHEETS_MM, sheet))
    for key, block in box.blocks.items():
        yield from _spacings(question, block, f"{at}/blocks/{key}")
    for kind in sorted({block.kind for block in box.blocks.values()}):
        yield from _rooms(question, kind)


def _thinned(box: Box, at: str, faces: Iterable[Face], words: str) -> Iterator[_Source]:
    """The thickest layers on some faces, all of them alike."""
    there = [(face, key, layer.thickness_mm) for face in faces for key, layer in box.lining(face)]
    had = max((mm for _, _, mm in there), default=0.0)
    paths = tuple(f"{at}/layers/{face}/{key}/thickness_mm" for face, key, mm in there if mm == had)
    if paths:
        yield _Layers("liner", "box", f"{words} {{0}} instead of {{1}}", paths, had, _below(LINERS_MM, had))


def _spacings(question: Question, block: Block, path: str) -> Iterator[_Source]:
    """Gaps between neighbours that were given larger than their faces ask for."""
    for row in lay_out(block, question.asked.module_kinds[block.kind]).rows:
        message = f"{{0}} between neighbours {row.direction} instead of {{1}}"
        yield _Source(
            *("spacing", "box", message, (f"{path}/gap_mm/{row.direction}",)),
            row.has_mm,
            _steps(row.has_mm, row.needs_mm),
        )


def _rooms(question: Question, key: str) -> Iterator[_Source]:
    """What the faces of a kind ask for: given up, cables have to leave another way."""
    kind, at = question.asked.module_kinds[key], f"/module_kinds/{key}"
    for face, had in kind.face_gap_mm.items():
        words = "terminals" if face == kind.terminals else plain(face).replace("_", " ")
        message = f"room before the {words} of {plain(kind.name)} {{0}} instead of {{1}}"
        yield _Source("room", "rule", message, (f"{at}/face_gap_mm/{face}",), had, _steps(had, 0.0))
    message = f"room above {plain(kind.name)} {{0}} instead of {{1}}"
    yield _Source("room", "rule", message, (f"{at}/above_mm",), kind.above_mm, _steps(kind.above_mm, 0.0))


def _below(values: Iterable[float], had_mm: float) -> tuple[float, ...]:
    return tuple(mm for mm in values if mm < had_mm)


def _steps(had_mm: float, least_mm: float) -> tuple[float, ...]:
    count = int((had_mm - least_mm) / STEP_MM + 1e-9)
    return tuple(round(had_mm - n * STEP_MM, 3) for n in range(1, count + 1))
