"""What the sheets are drawn from: the assembly, what was found out about it, its parts with their marks."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from levelcradle.core.analysis import Analysis, analyse_assembly
from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.bar import Bar
from levelcradle.core.clearance import Axis, StackUp, stack_up
from levelcradle.core.errors import OutOfRange, UnknownThing
from levelcradle.core.fabricate import bars_of, box_letters, parts_of
from levelcradle.core.fold import FoldedPart, fold
from levelcradle.core.nesting import Nest, StockBar, cut_from_bars, nests
from levelcradle.core.part import FlatPart
from levelcradle.drawings.border import Job
from levelcradle.drawings.sheet import PAPERS

__all__ = ["Subject", "subject_of"]


@dataclass(frozen=True, eq=False)
class Subject:
    """A design that is drawn, at one revision."""

    assembly: Assembly
    analysis: Analysis
    job: Job

    @cached_property
    def parts(self) -> tuple[FlatPart, ...]:
        return parts_of(self.assembly)

    @cached_property
    def bars(self) -> tuple[Bar, ...]:
        return bars_of(self.assembly)

    @property
    def for_cars(self) -> str:
        """What the title of a list says where it is for more than one."""
        kits = self.assembly.design.sheets.kits
        return f", for {kits} cars" if kits > 1 else ""

    @cached_property
    def nested(self) -> tuple[list[Nest], list[FlatPart]]:
        """The sheets of stock that all parts are cut from, and the parts that are larger than one."""
        chosen = self.assembly.design.sheets
        return nests(self.parts, chosen.stock_mm, chosen.kits)

    @cached_property
    def sawn(self) -> tuple[list[StockBar], list[Bar]]:
        """The lengths of stock that all bars are sawn from, and the bars that are longer than one."""
        chosen = self.assembly.design.sheets
        return cut_from_bars(self.bars, chosen.bar_mm, chosen.saw_mm, chosen.kits)

    @cached_property
    def letters(self) -> dict[str, str]:
        return box_letters(self.assembly)

    @property
    def boxes(self) -> Iterator[tuple[str, PlacedBox]]:
        """Each box with its letter."""
        return ((self.letters[box.id], box) for box in self.assembly.in_order())

    @cached_property
    def marks(self) -> dict[str, str]:
        """Mark by the id of every part and bar there is, alike or not."""
        parts = {one.id: part.mark for part in self.parts for one in part.each}
        return parts | {one.id: bar.mark for bar in self.bars for one in bar.each}

    def stack_up(self, box: PlacedBox, way: Axis, module: int | None = None) -> StackUp | None:
        """The chain with least to spare, or the one through a module; None where there is none."""
        key = (box.id, way, module)
        if key not in self._chains:
            try:
                self._chains[key] = stack_up(self.assembly, box.id, way, module=module)
            except UnknownThing:
                self._chains[key] = None
        return self._chains[key]

    @cached_property
    def _chains(self) -> dict[tuple[str, Axis, int | None], StackUp | None]:
        return {}

    def folded(self, part: FlatPart) -> FoldedPart | None:
        """None where its bend lines do not part the blank; such a part is foul and said to be."""
        try:
            return fold(part)
        except OutOfRange:
            return None


def subject_of(assembly: Assembly, *, revision: int = 0, on: str = "") -> Subject:
    """``revision`` and ``on``: number and day, where the design is kept."""
    analysis, chosen = analyse_assembly(assembly), assembly.design.sheets
    job = Job(
        assembly.design.name, analysis.released, revision, on, PAPERS[chosen.paper], chosen.projection, chosen.lengths
    )
    return Subject(assembly, analysis, job)
