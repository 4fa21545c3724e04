"""The fit study: what the bays can take together, as proposals that no other beats on all counts.

Each bay is asked for boxes of every count (``options``); a constraint solver combines them, once for each thing that
may matter most; every combination becomes a design and goes through all checks. One that makes anything foul that was
not foul before is dropped: the only thing a proposal lacks is its mounts."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.axes import Vec, minus
from levelcradle.core.bays import extent
from levelcradle.core.design import Design, tree_of
from levelcradle.core.design.box import Box
from levelcradle.core.design.patch import Op
from levelcradle.core.design.pins import pinned
from levelcradle.core.design.taken import untaken_things
from levelcradle.core.design.words import words_of
from levelcradle.core.edits import adding, edited, removing
from levelcradle.core.errors import DesignError, Problem
from levelcradle.core.finding import Finding, State, message_text
from levelcradle.core.fit.cases import LuggageRoom
from levelcradle.core.fit.combine import BayCandidate, combinations, most_unrated
from levelcradle.core.fit.options import Option, room_of
from levelcradle.core.fit.strings import told_off
from levelcradle.core.fit.wanted import Wanted, held_in
from levelcradle.core.fit.wishes import Weights, Wishes
from levelcradle.core.level import LevelResult
from levelcradle.core.meshes import Mesh
from levelcradle.core.modules import StringResult, string_result
from levelcradle.core.projections import Shape
from levelcradle.core.stock import common_window

__all__ = ["Progress", "Proposal", "ProposedBox", "Study", "TightGap", "check_wishes", "study"]

MOST_PROPOSALS = 12
LATER = (
    "mount.support",
    "drawings.release",
    "string.alike",
)  # a proposal has no mounts yet, and kept boxes may be in no string yet


@dataclass(frozen=True, slots=True)
class ProposedBox:
    """A box of a proposal: sizes aft × across × up [mm], mass full, and what stops it."""

    id: str
    name: str
    bay: str
    modules: int
    outer_mm: Vec
    full_kg: float
    message: str
    limits: tuple[str, ...]
    hangs: str = ""  # what it could hang on, once that was asked


@dataclass(frozen=True, slots=True)
class TightGap:
    """A gap of a proposal."""

    name: str
    has_mm: float
    needs_mm: float
    state: State


@dataclass(frozen=True, slots=True)
class Proposal:
    """One arrangement, run through all checks: what it holds, what it weighs, where it is tight, and the patch that
    makes it. ``gaps`` are its tightest, worst first; ``to_make`` counts new mounting points; ``score`` ranks it by the
    weights."""

    modules: int
    boxes: tuple[ProposedBox, ...]
    string: StringResult
    parallel: int
    front_kg: float | None
    rear_kg: float | None
    front_percent: float | None
    cg_mm: tuple[float | None, float | None, float | None]
    cable_mm: float
    luggage_l: float | None
    case: str | None
    gaps: tuple[TightGap, ...]
    score: float
    patch: tuple[Op, ...]
    sketch: tuple[Shape, ...]
    to_make: int = 0  # a default, for studies stored before it was counted


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a study has come, in words that mean something."""

    message: str
    tried: int
    best: int


@dataclass(frozen=True, slots=True)
class Study:
    """Proposals, best first; ``says`` tells why there are none, and what kept others out. ``stopped``: it was cut
    short."""

    proposals: tuple[Proposal, ...]
    message: str
    tried: int
    stopped: bool = False


def study(
    design: Design,
    wishes: Wishes,
    *,
    meshes: Mapping[str, Mesh],
    tell: Callable[[Progress, tuple[Proposal, ...]], None] = lambda progress, found: None,
    stop: Callable[[], bool] = lambda: False,
) -> Study:
    """Runs a study. ``tell`` is called often with what is being tried and, once there are some, the best proposals so
    far; ``stop`` is asked as often, and ends it with what it has. Raises DesignError where the wishes name what is not
    there."""
    check_wishes(design, wishes)
    return _Run(design, _windowed(design, wishes), meshes, tell, stop).study()


def _windowed(design: Design, wishes: Wishes) -> Wishes:
    """With the gear's window, where that is asked for."""
    return wishes.model_copy(update={"window_v": common_window(design)}) if wishes.gears_window else wishes


def check_wishes(design: Design, wishes: Wishes) -> None:
    """Raises DesignError with a path into the wishes where they name what is not there, or contradict what they
    name."""
    problems = tuple(_problems(design, wishes))
    if problems:
        raise DesignError(problems)


class _Run:
    """One study while it is made."""

    def __init__(
        self,
        design: Design,
        wishes: Wishes,
        meshes: Mapping[str, Mesh],
        tell: Callable[[Progress, tuple[Proposal, ...]], None],
        stop: Callable[[], bool],
    ) -> None:
        self.design, self.wishes, self.meshes, self.tell, self.stop = design, wishes, meshes, tell, stop
        self.tried, self.best = 0, 0
        self.found: list[Proposal] = []
        self.left_out: list[str] = []

    def study(self) -> Study:
        self.patch = removing(self.design, _laid_anew(self.design, self.wishes))
        self.bare = edited(self.design, self.patch) if self.patch else self.design
        before = analyse(self.bare, self.meshes)
        self.foul_before = {f.id for f in before.findings if f.state == "foul"}
        self.wanted = Wanted.of(self.bare, self.wishes)
        self.luggage_room = LuggageRoom(self.bare, self.wishes, self.meshes)
        if not self.wanted.totals:
            return Study((), "No whole number of modules in series stays within the voltage window.", 0)
        if len(self.wishes.bays) > 1 and not self.wishes.one_size:
            self._first()
        loads = {bay: self._loads(bay) for bay in self.wishes.bays}
        if not any(loads.values()) and not self.stop():
            return Study((), _why_none(self.bare, self.wishes), self.tried)
        for chosen in combinations(self.bare, loads, self.wanted, self.wishes, self.stop):
            self._try(chosen)
            if self.stop():
                break
        proposals = _ranked(self.found, self.wishes.weights, self.bare)
        why = self._why_no_more(loads) if proposals else _short_of(self.wanted, loads)
        return Study(proposals, " ".join(filter(None, (why, _left_out(self.left_out)))), self.tried, self.stop())

    def _why_no_more(self, loads: Mapping[str, Sequence[BayCandidate]]) -> str:
        most = 0 if self.stop() else most_unrated(self.bare, loads, self.wanted, self.wishes)
        return f"{most} would go in, but weigh more than the car is rated for." if most > self.best else ""

    def _try(self, chosen: Sequence[BayCandidate]) -> None:
        proposal = self._proposal(chosen)
        if proposal:
            self.found.append(proposal)
            self.best = max(self.best, proposal.modules)
        self.tell(
            Progress("checking proposals", self.tried, self.best), _ranked(self.found, self.wishes.weights, self.bare)
        )

    def _first(self) -> None:
        """The fullest box of each bay, together no more than are wanted: something to look at before all boxes of all
        bays are known."""
        chosen: list[BayCandidate] = []
        left = max(self.wanted.totals)
        for bay in self.wishes.bays:
            if not left or self.stop():
                break
            if option := next(self._options(bay, left), None):
                chosen.append(BayCandidate.of(self.bare, bay, (option,)))
                left -= option.modules
        if self.wanted.suits(held_in(option.box for load in chosen for option in load.options)):
            self._try(chosen)
            self.left_out.clear()  # it comes again among all the others

    def _loads(self, bay: str) -> list[BayCandidate]:
        """What a bay can take: one box, or two and three where so many are wished. Asked of one bay alone, each is a
        proposal."""
        most = max(self.wanted.totals)
        singles: list[tuple[Option, ...]] = []
        for tilt in (0.0, *(t for t in self.wishes.tilts_deg if t)):
            if self.stop():
                break
            for option in self._options(bay, most, tilt):
                singles.append((option,))
                if len(self.wishes.bays) == 1 and self.wanted.suits(held_in([option.box])):
                    self._try([BayCandidate.of(self.bare, bay, (option,))])
                if self.stop():
                    break
        found = list(singles)
        for more in range(2, self.wishes.boxes_per_bay + 1):
            found += [pair for first in _fullest(found, more - 1) for pair in self._beside(bay, first, most)]
        return [BayCandidate.of(self.bare, bay, options) for options in found]

    def _options(self, bay: str, most: int, tilt_deg: float = 0.0) -> Iterator[Option]:
        room = room_of(self.bare, bay, self.wishes, meshes=self.meshes, tilt_deg=tilt_deg)
        return room.options(most, every=self._every, tell=lambda _: self._trying(self.bare.bays[bay].name))

    @property
    def _every(self) -> bool:
        """Whether counts in between matter: not where as many as possible are asked for."""
        return self.wishes.modules is not None or self.wishes.window_v is not None

    def _trying(self, name: str) -> None:
        self.tried += 1
        self.tell(Progress(f"trying boxes in {name}", self.tried, self.best), ())

    def _beside(self, bay: str, first: tuple[Option, ...], most: int) -> Iterator[tuple[Option, ...]]:
        """A further box in what the first ones leave."""
        left = most - sum(option.modules for option in first)
        if left <= 0 or self.stop():
            return
        patch = list(adding(self.bare, (option.box for option in first)))
        room = room_of(edited(self.bare, patch), bay, self.wishes, meshes=self.meshes)
        for n, option in enumerate(
            room.options(left, every=self._every, tell=lambda _: self._trying(self.bare.bays[bay].name))
        ):
            if n >= 6 or self.stop():
                return
            yield (*first, option)

    def _proposal(self, chosen: Sequence[BayCandidate]) -> Proposal | None:
        self.tried += 1
        options = [option for load in chosen for option in load.options]
        strings, boxes = told_off(self.bare, [option.box for option in options], self.wishes.parallel)
        patch = [*self.patch, *strings, *adding(self.bare, boxes)]
        design = edited(self.design, patch)
        analysis = analyse(design, self.meshes)
        foul = [
            f for f in analysis.findings if f.state == "foul" and f.code not in LATER and f.id not in self.foul_before
        ]
        if foul:
            self.left_out.append(message_text(foul[0]))
            return None
        return _told(
            design,
            analysis,
            options,
            self.wishes,
            tuple(patch),
            set(self.bare.boxes),
            chosen,
            _luggage(self.bare, chosen),
            self.luggage_room.largest_case(design),
        )


def _laid_anew(design: Design, wishes: Wishes) -> list[str]:
    """Boxes in the asked bays that are neither kept nor pinned."""
    return [
        key
        for key, box in design.boxes.items()
        if box.bay in wishes.bays and key not in wishes.keep and not pinned(design, f"boxes/{key}")
    ]


def _problems(design: Design, wishes: Wishes) -> Iterator[Problem]:
    untaken = untaken_things(design)
    for name, rows, collection, what in (
        ("bays", wishes.bays, design.bays, "bay"),
        ("kinds", wishes.kinds, design.module_kinds, "module kind"),
        ("keep", wishes.keep, design.boxes, "box"),
    ):
        for n, key in enumerate(rows):
            if key not in collection:
                yield Problem(f"/{name}/{n}", f"there is no {what} “{key}” any more")
            elif taken := untaken.get(f"{'module_kinds' if name == 'kinds' else name}/{key}"):
                yield Problem(f"/{name}/{n}", f"not taken yet: {words_of(tree_of(design), taken[0])}")
    if wishes.gears_window and common_window(design) is None:
        yield Problem(
            "/window_v",
            "no gear that goes in states its voltages, or they have nothing in common: say them in Survey, or type a "
            "window",
        )
    if wishes.making.material not in design.tables.materials:
        yield Problem("/making/material", f"there is no material “{wishes.making.material}”")
    for n, key in enumerate(wishes.kinds):
        kind = design.module_kinds.get(key)
        if kind and (wishes.window_v or wishes.gears_window) and kind.empty_v is None:
            yield Problem(
                f"/kinds/{n}",
                f"{kind.name} has no empty voltage yet: say it in Stock, the window goes from empty to full",
            )
        if kind and wishes.rest_on and not set(wishes.rest_on) & set(kind.may_rest_on):
            yield Problem("/rest_on", f"{kind.name} may rest on none of these faces")


def _fullest(found: list[tuple[Option, ...]], boxes: int) -> list[tuple[Option, ...]]:
    """Of the loads with so many boxes those worth a further one: the fullest few of different counts."""
    rows = sorted((row for row in found if len(row) == boxes), key=lambda row: -sum(o.modules for o in row))
    best: dict[int, tuple[Option, ...]] = {}
    for row in rows:
        best.setdefault(sum(o.modules for o in row), row)
    return list(best.values())[:5]


def _why_none(design: Design, wishes: Wishes) -> str:
    """The clearest reason why not one module fits: its smallest side against the largest side of any bay, else the
    gaps."""
    rows = []
    for key in wishes.bays:
        low, high = extent(design.bays[key])
        rows.append((sorted(minus(high, low)), design.bays[key].name))
    for kind_id in wishes.kinds:
        kind = design.module_kinds[kind_id]
        size = sorted(kind.size_mm)
        if any(all(s <= b for s, b in zip(size, bay, strict=True)) for bay, _ in rows):
            return (
                "Not one module fits with its box and its gaps. Ask what it would take, or another turn or "
                "construction."
            )
    name, length = kind.name, size[-1]
    bay, where = max(rows, key=lambda row: row[0][-1])
    return f"{name} is larger than every bay asked: {length:g} mm long, and the longest, {where}, is {bay[-1]:g} mm."


def _short_of(wanted: Wanted, loads: Mapping[str, list[BayCandidate]]) -> str:
    most = sum(max((load.modules for load in rows), default=0) for rows in loads.values())
    if most < min(wanted.totals):
        return f"The bays asked take {most} module{'s' if most != 1 else ''} together; {min(wanted.totals)} are wanted."
    return "No combination of these boxes passes all checks with the count that is wanted."


def _left_out(rows: list[str]) -> str:
    """What kept most of the arrangements out that did not pass."""
    if not rows:
        return ""
    worst = max(set(rows), key=rows.count)
    return f"{len(rows)} arrangement{'s' if len(rows) > 1 else ''} left out, as: {worst}."


def _told(
    design: Design,
    analysis: Analysis,
    options: Sequence[Option],
    wishes: Wishes,
    patch: tuple[Op, ...],
    before: set[str],
    chosen: Sequence[BayCandidate],
    luggage: float | None,
    case: str | None,
) -> Proposal:
    new = [key for key in design.boxes if key not in before]
    gaps = [f for f in analysis.findings if f.code == "gap" and any(f"boxes/{key}" in f.subjects for key in new)]
    gaps.sort(key=lambda f: f.margin if f.margin is not None else 0.0)
    boxes = tuple(_told_box(design, analysis, key, gaps) for key in new)
    held = held_in(option.box for option in options)
    string = string_result(design.module_kinds[k] for k, n in held.items() for _ in range(n // wishes.parallel))
    if string.energy_kwh is not None:
        string = replace(string, energy_kwh=string.energy_kwh * wishes.parallel)
    front, rear, percent, cg = _loads_of(analysis.level)
    owners = {f"boxes/{key}" for key in new}
    sketch = tuple(s for s in analysis.shapes if s.owner in owners or s.path in owners)
    return Proposal(
        sum(o.modules for o in options),
        boxes,
        string,
        wishes.parallel,
        front,
        rear,
        percent,
        cg,
        sum(load.cable_mm for load in chosen),
        luggage,
        case,
        tuple(TightGap(f.label, f.value or 0.0, f.limit or 0.0, f.state) for f in gaps[:6]),
        0.0,
        patch,
        sketch,
    )


def _told_box(design: Design, analysis: Analysis, key: str, gaps: Iterable[Finding]) -> ProposedBox:
    figures, box = analysis.boxes[key], design.boxes[key]
    close = (f.label for f in gaps if f"boxes/{key}" in f.subjects and f.margin is not None and f.margin < 8.0)
    return ProposedBox(
        key,
        figures.name,
        box.bay or "",
        figures.modules,
        figures.outer_mm,
        figures.full_kg,
        _layout(design, box),
        tuple(close),
    )


def _layout(design: Design, box: Box) -> str:
    held = held_in([box])
    if len(held) > 1:
        return " and ".join(f"{number} {design.module_kinds[kind].name}" for kind, number in sorted(held.items()))
    block = next(iter(box.blocks.values()))
    counts = f"{block.counts.aft} along, {block.counts.across} across, {block.counts.up} up"
    if len(box.blocks) > 1:
        alike = all(b.turn == block.turn for b in box.blocks.values())
        counts = f"{counts}, and a last row that is not full" if alike else "in two turns"
    down = " and ".join(dict.fromkeys(b.turn.down.replace("_", " ") for b in box.blocks.values()))
    return f"{counts}, {down} down"


Cg = tuple[float | None, float | None, float | None]


def _loads_of(level: LevelResult) -> tuple[float | None, float | None, float | None, Cg]:
    if level.ready is None:
        return None, None, None, (None, None, None)
    r = level.ready
    return r.front_kg, r.rear_kg, r.front_percent, (r.aft_mm, r.across_mm, r.up_mm)


def _luggage(design: Design, chosen: Sequence[BayCandidate]) -> float | None:
    """Litres of the luggage bays that no box takes, counted by their outside; None where no bay is one."""
    total, any_ = 0.0, False
    for key, bay in design.bays.items():
        if bay.flags.get("luggage"):
            low, high = extent(bay)
            size = minus(high, low)
            total += size[0] * size[1] * size[2] * 1e-6
            any_ = True
            total -= sum(load.litres for load in chosen if load.bay == key)
    return total if any_ else None


def _ranked(found: Iterable[Proposal], weights: Weights, design: Design) -> tuple[Proposal, ...]:
    """Those that no other beats on all counts, best by the weights first."""
    rows = list(found)
    if not rows:
        return ()
    counted = [(_counts_of(p, design), p) for p in rows]
    kept = [(c, p) for n, (c, p) in enumerate(counted) if not _beaten(n, c, counted)]
    low = [min(c[i] for c, _ in kept) for i in range(7)]
    span = [max(c[i] for c, _ in kept) - low[i] or 1.0 for i in range(7)]
    weight = (
        weights.count,
        weights.balance,
        weights.low,
        weights.boxes,
        weights.cable,
        weights.luggage,
        weights.cutting,
    )
    scored = [
        replace(p, score=round(sum(w * (v - lo) / s for w, v, lo, s in zip(weight, c, low, span, strict=True)), 6))
        for c, p in kept
    ]
    return tuple(sorted(scored, key=lambda p: p.score)[:MOST_PROPOSALS])


def _beaten(n: int, mine: tuple[float, ...], rows: list[tuple[tuple[float, ...], Proposal]]) -> bool:
    """Whether another is as good on every count and better on one; of two alike the first stays."""
    for m, (theirs, _) in enumerate(rows):
        if m != n and all(a <= b for a, b in zip(theirs, mine, strict=True)) and (theirs != mine or m < n):
            return True
    return False


def _counts_of(p: Proposal, design: Design) -> tuple[float, ...]:
    """Seven figures, the less the better: modules (negative), percent off the target, CG height, boxes, cable, luggage
    lost, mounting points to make."""
    target = design.vehicle.target.front_percent if design.vehicle.target else 50.0
    off = abs(p.front_percent - target) if p.front_percent is not None else 0.0
    return (
        -float(p.modules),
        round(off, 2),
        round(p.cg_mm[2] or 0.0, 1),
        float(len(p.boxes)),
        round(p.cable_mm, -1),
        -round(p.luggage_l or 0.0, 1),
        float(p.to_make),
    )
