"""The box stood another way: each module turned where it is, or everything in it laid over together; with one move
where it has to."""

from collections.abc import Iterator

from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import Over, laid_over
from levelcradle.core.fit.fixes.question import Question
from levelcradle.core.fit.fixes.single import Fixes
from levelcradle.core.fit.fixes.words import SentencePart, joined, move_part
from levelcradle.core.modules import orientations_for

__all__ = ["stood_another_way"]

OVER: dict[Over, str] = {
    "side": "lay the box on its side",
    "end": "lay the box on its end",
    "round": "turn what is in the box a quarter round",
}


def stood_another_way(question: Question) -> Fixes:
    """At its anchor, or the shortest straight way from there."""
    seen = {question.shell.outer_mm}
    for kind, part, ops in _ways(question):
        shell = question.shell_with(ops)
        if shell is None or shell.outer_mm in seen:
            continue
        seen.add(shell.outer_mm)
        found = question.shortest(question.pieces_of(shell))
        far, move = found or (0.0, None)
        words, figures = joined([part, *(move_part(move, far) if move else [])])
        yield question.fix(kind, "box", words, figures, [*ops, *(question.moved(move, far) if move else [])], size=far)


def _ways(question: Question) -> Iterator[tuple[str, SentencePart, list[Op]]]:
    upright = question.assembly.boxes[question.box_id].placement.turn
    for name, block in question.box.blocks.items():
        for turn in orientations_for(question.asked.module_kinds[block.kind], upright):
            words = f"turn block {name}: {_face(turn.down)} down, {_face(turn.aft)} aft"
            yield "turn", (words, ()), [question.replace(f"blocks/{name}/turn", turn.model_dump())]
    for over, words in OVER.items():
        yield "laid", (words, ()), list(laid_over(question.asked, question.box_id, over))


def _face(name: ModuleFace) -> str:
    return name.replace("_", " ")
