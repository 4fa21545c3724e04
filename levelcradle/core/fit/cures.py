"""What would it take: the smallest single changes after which a box is no longer foul.

Each change is tried as a patch and run through all checks. It is whole where the box is foul no more and nothing else has
become so; one that leaves something foul says what, and is partial: it needs a second change. What it costs elsewhere is
read off the same two analyses.
"""

import math
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import Assembly, resolve
from levelcradle.core.axes import Vec
from levelcradle.core.box import largest_chamfer
from levelcradle.core.design import Design
from levelcradle.core.design.base import Face
from levelcradle.core.design.carried import shifted
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.survey import Item, Keepout
from levelcradle.core.edits import edited
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.finding import Figure, Finding, plain, says
from levelcradle.core.fit.options import EDGES, hindrances, room_of
from levelcradle.core.fit.space import Hindrance
from levelcradle.core.fit.stand import STEP_MM, Pressing, least_travel, pressing, settle
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.meshes import Mesh
from levelcradle.core.modules import turns_for
from levelcradle.core.solids import Solid

__all__ = ["Answer", "Cost", "Cure", "Way", "least_foul", "wedge_travel", "what_it_takes"]

Way = Literal["aft", "across", "up"]
FARTHEST_MM = 200.0
AXES = (("aft", "fore"), ("right", "left"), ("up", "down"))
SHEETS_MM = (2.5, 2.0, 1.5)  # sheet thicknesses in common stock: common practice, no source
LINERS_MM = (3.0, 2.0, 1.0, 0.0)


@dataclass(frozen=True, slots=True)
class Cost:
    """What a change does elsewhere: a sentence with slots, and its state where it is a verdict."""

    says: str
    figures: tuple[Figure, ...]
    state: str = "note"


@dataclass(frozen=True, slots=True)
class Cure:
    """One change. ``whole``: it has been run through all checks and leaves nothing foul that was not foul before.

    Attributes:
        does: what is changed: the box, the vehicle, or the rule.
        size: by how much, for sorting within one kind.
        patch: what makes it; None for what has to be done to the vehicle first and then measured again.
        left: sentences of what stays or becomes foul.
    """

    kind: str
    does: Literal["box", "vehicle", "rule"]
    says: str
    figures: tuple[Figure, ...]
    size: float
    whole: bool
    costs: tuple[Cost, ...]
    left: tuple[str, ...]
    patch: tuple[Op, ...] | None
    at_mm: Vec | None


@dataclass(frozen=True, slots=True)
class Answer:
    """What is asked about, whether it fits as it is, the cures, whole ones first, and what is foul without them."""

    asks: str
    fits: bool
    patch: tuple[Op, ...]
    cures: tuple[Cure, ...]
    foul: tuple[str, ...] = ()


def wedge_travel(angle_deg: float) -> float:
    """How far a box travels along a wall for each millimetre taken off its side, the wall standing at ``angle_deg`` to that
    side's direction. Source: trigonometry (tan), rule of thumb of the trade."""
    return math.tan(math.radians(angle_deg))


def what_it_takes(design: Design, box_id: str, more: Way | None = None, *, meshes: Mapping[str, Mesh]) -> Answer:
    """The cures of a box that is foul; with ``more``, of the box with one more row aft, row across or tier.

    Raises: UnknownThing.
    """
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    asker = _Asker(design, box_id, meshes)
    return asker.one_more(more) if more else asker.answer(f"{plain(design.boxes[box_id].name)}: what would clear it", [])


def least_foul(assembly: Assembly, box_id: str) -> Vec:
    """Where the anchor of a box is best put, near where it stands, so that its gaps lack least; in tenths."""
    box = assembly.boxes[box_id]
    pieces = [piece.solid for piece in box.pieces if piece.mount is None]
    low, high = (-FARTHEST_MM, -FARTHEST_MM, -FARTHEST_MM), (FARTHEST_MM, FARTHEST_MM, FARTHEST_MM)
    by = settle(pieces, hindrances(assembly, box), (0.0, 0.0, 0.0), low, high, (0.0, 0.0, 0.0)).at
    x, y, z = (round(a + b, 1) for a, b in zip(box.box.pose.at_mm, by, strict=True))
    return x, y, z


class _Asker:
    """One question: the design as it is, and the change that is taken for granted while cures are tried."""

    def __init__(self, design: Design, box_id: str, meshes: Mapping[str, Mesh]) -> None:
        self.design, self.box_id, self.meshes = design, box_id, meshes
        self.before = analyse(design, meshes)
        self.foul_before = {f.id for f in self.before.findings if f.state == "foul"}
        self.base: list[Op] = []
        self.asked = design

    def one_more(self, way: Way) -> Answer:
        box = self.design.boxes[self.box_id]
        name, block = max(box.blocks.items(), key=lambda row: row[1].counts.total)
        value = getattr(block.counts, way) + 1
        words = {"aft": "the next row along", "across": "the next row across", "up": "the next tier"}[way]
        ops: list[Op] = [{"op": "replace", "path": f"/boxes/{self.box_id}/blocks/{name}/counts/{way}", "value": value}]
        return self.answer(f"{plain(box.name)}: {words}", self._best_place(ops))

    def _best_place(self, ops: list[Op]) -> list[Op]:
        """The larger box where it stands, or where it would stand clear in its bay."""
        design = edited(self.design, ops)
        box = design.boxes[self.box_id]
        if box.bay is None or box.pose.yaw_deg or box.pose.pitch_deg or box.pose.roll_deg:
            return ops
        alone = design.model_copy(update={"boxes": {k: b for k, b in design.boxes.items() if k != self.box_id}, "mounts": {
            k: m for k, m in design.mounts.items() if m.box != self.box_id}})  # fmt: skip
        kinds = tuple({block.kind for block in box.blocks.values()})
        stands = room_of(alone, box.bay, Wishes(kinds=kinds, bays=(box.bay,)), meshes=self.meshes).stand(box)
        if stands is None:
            return [*ops, self._replace("pose/at_mm", list(least_foul(resolve(design, self.meshes), self.box_id)))]
        pose = {"op": "replace", "path": f"/boxes/{self.box_id}/pose", "value": stands.pose.model_dump(mode="json")}
        return [*ops, pose]

    def answer(self, asks: str, base: list[Op]) -> Answer:
        self.base = base
        self.asked = edited(self.design, base) if base else self.design
        now = analyse(self.asked, self.meshes)
        foul = self._foul(now)
        if out := self._out(now):
            asks = f"{asks}: {'; '.join(_said(f) for f in out)}"
        if not foul:
            return Answer(asks, not out, tuple(base), (), tuple(_said(f) for f in out))
        self.assembly = resolve(self.asked, self.meshes)
        self.box = self.assembly.boxes[self.box_id]
        self.things = hindrances(self.assembly, self.box)
        cures = [cure for make in self._ways() for cure in make(foul) if cure is not None]
        rows = sorted(cures, key=_order)
        whole = [cure for cure in rows if cure.whole]
        best = (*whole[:10], *[cure for cure in rows if not cure.whole][: 4 if whole else 7])
        return Answer(asks, False, tuple(base), best, tuple(_said(f) for f in foul[:4]))

    def _ways(self) -> tuple[Callable[[list[Finding]], Iterator[Cure | None]], ...]:
        return (self._moves, self._turns, self._chamfers, self._liners, self._sheets, self._fewer, self._walls, self._things_moved,
                self._gaps)  # fmt: skip

    def _foul(self, analysis: Analysis) -> list[Finding]:
        """What is foul about the box, and what is foul elsewhere that was not before."""
        own = f"boxes/{self.box_id}"
        return [f for f in analysis.findings if f.state == "foul" and f.code != "drawings.release"
                and ((own in f.subjects and f.station in ("place", "box")) or f.id not in self.foul_before)]  # fmt: skip

    def _out(self, analysis: Analysis) -> list[Finding]:
        """How far the box stands out of its space, where something more was asked for: the study would not call that a fit."""
        own = f"boxes/{self.box_id}"
        return [f for f in analysis.findings if f.code == "place.out" and own in f.subjects] if self.base else []

    # --- a patch tried ---

    def _tried(self, ops: list[Op]) -> tuple[Analysis, list[Finding]] | None:
        try:
            analysis = analyse(edited(self.asked, ops), self.meshes)
        except DesignError:
            return None
        return analysis, self._foul(analysis)

    def _cure(
        self, kind: str, does: Literal["box", "vehicle", "rule"], words: str, figures: tuple[Figure, ...], ops: list[Op],
        foul: list[Finding], *, size: float, button: bool = True, at: Vec | None = None,
    ) -> Cure | None:  # fmt: skip
        """A change that was tried; None where it clears nothing, or makes foul what was not."""
        tried = self._tried(ops)
        if tried is None:
            return None
        analysis, left = tried
        if not {f.id for f in left} < {f.id for f in foul}:
            return None
        patch = (*self.base, *ops) if button else None
        return Cure(kind, does, words, figures, size, not left, tuple(_costs(self.before, analysis, self.box_id)),
                    tuple(_said(f) for f in left[:3]), patch, at)  # fmt: skip

    def _clears(self, ops: list[Op]) -> bool:
        tried = self._tried(ops)
        return tried is not None and not tried[1]

    def _stands(self, ops: list[Op]) -> bool:
        """Whether the box keeps its gaps with a change, whatever it does to its mounts: of two cuts the larger may leave a bracket
        no wall, so that only what it stands in says whether more is too little."""
        tried = self._tried(ops)
        return tried is not None and not any(f.station in ("place", "box") for f in tried[1])

    def _replace(self, path: str, value: object) -> Op:
        return {"op": "replace", "path": f"/boxes/{self.box_id}/{path}", "value": value}

    # --- the ways ---

    def _moves(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """Straight moves along one axis, as far as the gaps ask and no further."""
        at, pieces = self.asked.boxes[self.box_id].pose.at_mm, self._pieces()
        for axis, ends in enumerate(AXES):
            for sign, word in ((1.0, ends[0]), (-1.0, ends[1])):
                far = least_travel(pieces, self.things, axis, sign, FARTHEST_MM)
                if not far:
                    continue
                spot = [round(v + (sign * far if i == axis else 0.0), 4) for i, v in enumerate(at)]
                words = f"move the box {{0}} {word}"
                yield self._cure("move", "box", words, (Figure(far, "mm", "up"),), [self._replace("pose/at_mm", spot)], foul, size=far)

    def _pieces(self) -> list[Solid]:
        return [piece.solid for piece in self.box.pieces if piece.mount is None]

    def _pressing(self, by: Vec) -> list[Pressing]:
        return pressing(self._pieces(), self.things, by, 0.0)

    def _turns(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """A block stood another way, the box staying at its anchor."""
        box = self.asked.boxes[self.box_id]
        for name, block in box.blocks.items():
            kind = self.asked.module_kinds[block.kind]
            seen = {self.box.shell.outer_mm}
            for turn in turns_for(kind, self.box.placement.turn):
                ops = [self._replace(f"blocks/{name}/turn", turn.model_dump())]
                outer = resolve(edited(self.asked, ops), self.meshes).boxes[self.box_id].shell.outer_mm
                if outer in seen:
                    continue
                seen.add(outer)
                words = f"turn block {name}: {_face(turn.down)} down, {_face(turn.aft)} aft"
                yield self._cure("turn", "box", words, (), ops, foul, size=0.0)

    def _chamfers(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """The smallest chamfer of an edge that clears it."""
        box, shell = self.asked.boxes[self.box_id], self.box.shell
        modules = [(m.low, m.high) for m in shell.modules]
        taken = {frozenset(c.edge) for c in box.chamfers.values()}
        for edge in EDGES:
            most = math.floor(largest_chamfer(edge, shell.made.wall_mm, box.liners.wall_mm, shell.outer_mm, modules))
            folds = shell.made.least_cut_mm(edge)
            if folds is None or frozenset(edge) in taken or most < folds or not self._stands(self._chamfer(edge, most)):
                continue
            least = _smallest(lambda mm, edge=edge: self._stands(self._chamfer(edge, mm)), folds, most)  # type: ignore[misc]
            words = f"cut {{0}} off the edge {edge[0]}, {edge[1]}"
            yield self._cure("chamfer", "box", words, (Figure(least, "mm", "up"),), self._chamfer(edge, least), foul, size=float(least))

    def _chamfer(self, edge: tuple[Face, Face], mm: int) -> list[Op]:
        value = {"edge": list(edge), "mm": [float(mm), float(mm)]}
        key = free_id(f"{edge[0]}-{edge[1]}", self.asked.boxes[self.box_id].chamfers)
        return [{"op": "add", "path": f"/boxes/{self.box_id}/chamfers/{key}", "value": value}]

    def _liners(self, foul: list[Finding]) -> Iterator[Cure | None]:
        had = self.asked.boxes[self.box_id].liners.wall_mm
        yield from self._thinner("liner", "liners/wall_mm", had, LINERS_MM, "liner on the walls {0} instead of {1}", foul)

    def _sheets(self, foul: list[Finding]) -> Iterator[Cure | None]:
        had = self.box.shell.made.sheet_mm
        if had is not None:
            yield from self._thinner("sheet", "construction/thickness_mm", had, SHEETS_MM, "sheet of {0} instead of {1}", foul)

    def _thinner(
        self, kind: str, path: str, had: float, thinner_mm: Iterable[float], words: str, foul: list[Finding]
    ) -> Iterator[Cure | None]:
        """The first that is thin enough."""
        for mm in thinner_mm:
            ops = [self._replace(path, mm)]
            if mm < had and self._clears(ops):
                yield self._cure(kind, "box", words, (Figure(mm, "mm"), Figure(had, "mm")), ops, foul, size=had - mm)
                return

    def _fewer(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """One row less, where nothing more was asked for."""
        if self.base:
            return
        for name, block in self.asked.boxes[self.box_id].blocks.items():
            for way in ("aft", "across", "up"):
                count = getattr(block.counts, way)
                if count > 1:
                    lost = block.counts.total // count
                    words = f"leave out {lost} module{'s' if lost > 1 else ''}: {count - 1} {'tiers' if way == 'up' else way}"
                    yield self._cure(
                        "fewer", "box", words, (), [self._replace(f"blocks/{name}/counts/{way}", count - 1)], foul, size=float(lost)
                    )

    def _walls(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """A side of the bay cut back over its whole face; of one that leans, also what shaving the box wins along it."""
        for finding in _gaps_of(foul):
            wall = self.assembly.thing_at(finding.subjects[1])
            if wall is None or wall.kind != "side" or wall.bay is None or wall.side is None:
                continue
            short = _short(finding)
            words = f"{plain(finding.shows)} {{0}} further back"
            ops = self._hollow(wall.bay, wall.side, short)
            yield self._cure("wall", "vehicle", words, (Figure(short, "mm", "up"),), ops, foul, size=short, button=False, at=_at(finding))
            yield from self._wedge(finding, short)

    def _hollow(self, bay: str, side: str, mm: float) -> list[Op]:
        far = 20_000.0
        spans = {"left": ("fore_mm", "aft_mm", "low_mm", "high_mm"), "right": ("fore_mm", "aft_mm", "low_mm", "high_mm"),
                 "floor": ("fore_mm", "aft_mm", "left_mm", "right_mm"), "top": ("fore_mm", "aft_mm", "left_mm", "right_mm")}.get(
            side, ("left_mm", "right_mm", "low_mm", "high_mm"))  # fmt: skip
        value: dict[str, object] = {"name": "cut back", "side": side, "hollow": True, "proud_mm": mm}
        value |= {name: far if n % 2 else -far for n, name in enumerate(spans)}
        return [{"op": "add", "path": f"/bays/{bay}/lumps/cut-back-{side}", "value": value}]

    def _wedge(self, finding: Finding, short: float) -> Iterator[Cure | None]:
        """Along a wall that leans in plan: so much off the width wins so much travel."""
        way = [p for p in self._pressing((0.0, 0.0, 0.0)) if p.thing.what == finding.subjects[1]]
        if not way:
            return
        x, y = (abs(v) for v in max(way, key=lambda p: -p.spare_mm).away[:2])
        if min(x, y) < 0.03:
            return
        narrow, along = ("width", "aft or fore") if y > x else ("length", "sideways")
        lean = math.degrees(math.atan2(max(x, y), min(x, y)))
        off = short / max(x, y)
        words = f"{{0}} off its {narrow} clears it: along this wall that is worth {{1}} of travel {along}"
        figures = (Figure(off, "mm", "up"), Figure(off * wedge_travel(lean), "mm", "down"))
        yield Cure("wedge", "box", words, figures, off, False, (), ("has to be made smaller by another change",), None, _at(finding))

    def _things_moved(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """The thing in the way moved off, the least way, where it is one that can be put elsewhere."""
        movable: dict[str, Item | Keepout] = {f"items/{key}": item for key, item in self.asked.items.items()}
        movable |= {f"keepouts/{key}": space for key, space in self.asked.keepouts.items()}
        for finding in _gaps_of(foul):
            path = finding.subjects[1]
            row = movable.get(path)
            held = [t for t in self.things if t.what == path]
            if row is None or not held or not _can_move(row):
                continue
            own = [Hindrance(solid, held[0].need_mm, "", "") for solid in self._pieces()]
            ways = [(far, axis, sign) for axis in range(3) for sign in (1.0, -1.0)
                    if (far := least_travel([t.solid for t in held], own, axis, sign, FARTHEST_MM))]  # fmt: skip
            if not ways:
                continue
            far, axis, sign = min(ways)
            by = [0.0, 0.0, 0.0]
            by[axis] = sign * far
            tree = row.model_dump(mode="json", by_alias=True)
            ops = list(shifted(f"/{path}", tree, (by[0], by[1], by[2])))
            words = f"{plain(row.name)} {{0}} {AXES[axis][0 if sign > 0 else 1]}"
            yield self._cure("thing", "vehicle", words, (Figure(far, "mm", "up"),), ops, foul, size=far, button=False, at=_at(finding))

    def _gaps(self, foul: list[Finding]) -> Iterator[Cure | None]:
        """A smaller gap, where there is any gap at all: it says what the rule's is for."""
        for finding in _gaps_of(foul):
            if finding.value is None or finding.value < 1.0 or finding.code == "gap.crush":
                continue
            value = math.floor(finding.value * 2) / 2
            one, other = finding.subjects
            row = {"one": one, "other": other, "need_mm": value, "reason": f"accepted: {finding.limit:g} by rule, {finding.because}"[:120]}
            key = free_id("gap", self.asked.agreed_gaps)
            words = f"the gap to {plain(finding.shows)} cut from {{0}} to {{1}}: {plain(finding.because)}"
            figures = (Figure(finding.limit or 0.0, "mm", "up"), Figure(value, "mm", "down"))
            ops: list[Op] = [{"op": "add", "path": f"/agreed_gaps/{key}", "value": row}]
            yield self._cure("gap", "rule", words, figures, ops, foul, size=(finding.limit or 0.0) - value, at=_at(finding))


def _can_move(row: Item | Keepout) -> bool:
    """What goes in can be put elsewhere, and room that is only kept; what stays stays, above all axles and what moves with them."""
    if isinstance(row, Keepout):
        return row.kind in ("hand", "tool", "airflow", "corridor", "other")
    return row.state == "in" and row.structure != "axle" and row.gap_class not in ("axle", "moving") and row.held_by is None


_KINDS = ("move", "chamfer", "turn", "liner", "sheet", "wedge", "thing", "wall", "fewer", "gap")


def _order(cure: Cure) -> tuple[bool, int, float]:
    """Whole ones first, what is nearest to hand before what is cut, what is agreed away last."""
    return not cure.whole, _KINDS.index(cure.kind), cure.size


def _smallest(holds: Callable[[int], bool], low: int, high: int) -> int:
    """The least whole number that holds, given that ``high`` does."""
    while low < high:
        middle = (low + high) // 2
        low, high = (low, middle) if holds(middle) else (middle + 1, high)
    return high


def _face(name: str) -> str:
    return name.replace("_", " ")


def _gaps_of(foul: list[Finding]) -> list[Finding]:
    return [f for f in foul if f.code == "gap" and len(f.subjects) == 2]


def _short(finding: Finding) -> float:
    return math.ceil(round(-(finding.margin or 0.0) / STEP_MM, 6)) * STEP_MM


def _at(finding: Finding) -> Vec | None:
    return finding.points_mm[1] if len(finding.points_mm) == 2 else None


def _said(finding: Finding) -> str:
    return says(finding)


def _costs(before: Analysis, after: Analysis, box: str) -> Iterator[Cost]:
    """Gaps of the box that became tighter than tight or clear, axle loads, mounts."""
    own, old = f"boxes/{box}", {f.id: f for f in before.findings}
    gaps = [f for f in after.findings if f.code == "gap" and own in f.subjects and f.state == "tight"]
    for f in sorted(gaps, key=lambda f: f.margin or 0.0)[:3]:
        was = old.get(f.id)
        if was is None or was.value is None or f.value is None or abs(was.value - f.value) >= 0.05:
            yield Cost(
                f"{plain(f.shows)} {{0}}, needs {{1}}", (Figure(f.value or 0.0, "mm", "down"), Figure(f.limit or 0.0, "mm", "up")), f.state
            )
    then, now = before.level.ready, after.level.ready
    if then and now:
        for word, a, b in (("front", then.front_kg, now.front_kg), ("rear", then.rear_kg, now.rear_kg)):
            if abs(b - a) >= 0.05:
                yield Cost(f"{word} axle {'+' if b > a else '−'}{{0}}", (Figure(abs(b - a), "kg"),))
    worst = [max((f.value or 0.0 for f in a.findings if f.code == "mount.use" and own in f.subjects), default=0.0) for a in (before, after)]
    if abs(worst[1] - worst[0]) >= 0.01:
        yield Cost("worst use of its mounts {0} → {1}", (Figure(worst[0], "use"), Figure(worst[1], "use")))
