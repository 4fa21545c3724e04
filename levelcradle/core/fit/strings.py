"""The modules of a proposal told off into strings that stand side by side, alike in kind and number."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelcradle.core.design import Design
from levelcradle.core.design.box import Block, Box
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.stock import ModuleKind, PackString
from levelcradle.core.fit.wanted import held_in
from levelcradle.core.modules import lay_out

__all__ = ["told_off"]

WAYS = ("up", "across", "aft")  # the way that is cut first: tiers part cleanest


def told_off(design: Design, boxes: Sequence[Box], parallel: int) -> tuple[list[Op], list[Box]]:
    """What adds the strings, and the boxes with every block in one of them; a block that two strings share is parted
    where its modules stand. One string needs no name."""
    if parallel == 1:
        return [], list(boxes)
    names = _free(design, parallel)
    each = {kind: number // parallel for kind, number in held_in(boxes).items()}
    fills = {kind: _Fill(names, number) for kind, number in each.items()}
    adds: list[Op] = [
        {
            "op": "add",
            "path": f"/strings/{key}",
            "value": PackString(name=f"string {key[1:]}", order=int(key[1:])).model_dump(mode="json"),
        }
        for key in names
    ]
    return adds, [_in_strings(box, design.module_kinds, fills) for box in boxes]


def _free(design: Design, count: int) -> list[str]:
    taken = max((int(key[1:]) for key in design.strings if key[:1] == "s" and key[1:].isdigit()), default=0)
    return [f"s{taken + n}" for n in range(1, count + 1)]


@dataclass
class _Fill:
    """Strings that are filled one after another with so many modules of a kind each."""

    names: list[str]
    each: int
    done: int = 0

    def parts(self, number: int) -> Iterator[tuple[str, int]]:
        """In which strings the next modules go, and how many in each."""
        while number:
            at, into = divmod(self.done, self.each)
            part = min(number, self.each - into)
            self.done += part
            number -= part
            yield self.names[at], part


def _in_strings(box: Box, kinds: Mapping[str, ModuleKind], fills: Mapping[str, _Fill]) -> Box:
    blocks: dict[str, Block] = {}
    for key, block in box.blocks.items():
        rest = [block]
        for name, number in fills[block.kind].parts(block.counts.total):
            taken, rest = _taken(rest, kinds[block.kind], number)
            for piece in taken:
                free = free_id(key, blocks)
                blocks[free] = piece.model_copy(update={"string": name, "order": len(blocks)})
    return box.model_copy(update={"blocks": blocks})


def _taken(blocks: Sequence[Block], kind: ModuleKind, number: int) -> tuple[list[Block], list[Block]]:
    """So many modules of some blocks, and what is left of them."""
    taken: list[Block] = []
    for n, block in enumerate(blocks):
        if block.counts.total > number:
            some, left = _parted(block, kind, number)
            return [*taken, *some], [*left, *blocks[n + 1 :]]
        taken.append(block)
        number -= block.counts.total
    return taken, []


def _parted(block: Block, kind: ModuleKind, number: int) -> tuple[list[Block], list[Block]]:
    """A block parted in two lots, slab by slab along one way and the slab between again, every module where it
    stood."""
    if number == 0:
        return [], [block]
    way = next(w for w in WAYS if getattr(block.counts, w) > 1)
    slab = block.counts.total // getattr(block.counts, way)
    whole, more = divmod(number, slab)
    some = [_slabs(block, kind, way, 0, whole)] if whole else []
    if not more:
        return some, [_slabs(block, kind, way, whole, getattr(block.counts, way))]
    inner, outer = _parted(_slabs(block, kind, way, whole, whole + 1), kind, more)
    beyond = (
        [_slabs(block, kind, way, whole + 1, getattr(block.counts, way))]
        if whole + 1 < getattr(block.counts, way)
        else []
    )
    return [*some, *inner], [*outer, *beyond]


def _slabs(block: Block, kind: ModuleKind, way: str, first: int, last: int) -> Block:
    axis = ("aft", "across", "up").index(way)
    at = next(m.low[axis] for m in lay_out(block, kind).modules if m.at[axis] == first)
    origin = tuple(v + (at if i == axis else 0.0) for i, v in enumerate(block.origin_mm))
    counts = block.counts.model_copy(update={way: last - first})
    return block.model_copy(update={"origin_mm": origin, "counts": counts})
