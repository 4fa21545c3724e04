"""What a box asks along a line through it: every allowance from its first outside to its last, as rows of a
stack-up."""

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly, PlacedBox, PlacedPiece
from levelcradle.core.box import ShellModule, StackRow
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.tolerances import tolerance_by

__all__ = ["Span", "modules_before", "rows_on_line", "rows_through"]

LINER_TOL_MM = 0.5  # sheet of rubber or foam, common practice, no source
FACES = {"terminals": "terminals, links, covers", "taps": "tap plug", "coolant": "coolant ports"}


@dataclass(frozen=True, slots=True)
class Span:
    """A piece of a box on the line: from where to where along it, in the box's own frame."""

    piece: PlacedPiece
    start: float
    end: float


def rows_through(assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float]) -> Iterator[StackRow]:
    """The box's own rows on a line through it, whatever stands out of it: from outside to outside."""
    layers = box.shell.made.stack_rows(axis, box.path)
    yield from layers.first
    yield from _contents(assembly, box, axis, spot)
    yield from layers.last


def rows_on_line(
    assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float], spans: Sequence[Span]
) -> Iterator[StackRow]:
    """Everything of a box on the line. ``spot``: where it crosses the box, along the two other ways in the order aft,
    across, up."""
    path, made = box.path, box.shell.made
    layers = made.stack_rows(axis, path)
    body = next((s for s in spans if s.piece.role == "body"), None)
    if body is None:
        yield from _outside(box, spans, min(s.start for s in spans), max(s.end for s in spans), names={})
    else:
        begun, closed = _own(box, spans, body, axis)
        yield from _outside(box, spans, min(s.start for s in spans), begun)
        if body.start > 1e-6:  # the line meets the slope of a cut-off edge: so much of the square box is not there
            yield StackRow("cut off its edge", -body.start, 0.0, 0.0, "as drawn", "metal", path)
        yield from layers.first
        yield from _contents(assembly, box, axis, spot)
        yield from layers.last
        if closed == body.end < made.outer_mm[axis] - 1e-6:
            yield StackRow("cut off its edge", body.end - made.outer_mm[axis], 0.0, 0.0, "as drawn", "metal", path)
        yield from _outside(box, spans, closed, max(s.end for s in spans), upward=True)
    yield from layers.whole
    yield from _finish(box, axis, path)


def _own(box: PlacedBox, spans: Sequence[Span], body: Span, axis: int) -> tuple[float, float]:
    """From where to where on the line it is the box's own rows: its body, and what closes it."""
    made = box.shell.made
    closes, far = FACE_AT[made.closed_face]
    if closes != axis:
        return body.start, body.end
    proud = made.proud_mm(made.closed_face)
    over = next(((s.start, s.end) for s in spans if s.piece.role == "closure"), (-proud, made.outer_mm[axis] + proud))
    return (body.start, over[1]) if far else (over[0], body.end)


NAMES = {"lid": "lid edge", "screw head": "screw head"}
TOLS = {"lid": 0.3, "screw head": 0.2}


def _outside(
    box: PlacedBox,
    spans: Sequence[Span],
    start_mm: float,
    end_mm: float,
    *,
    upward: bool = False,
    names: Mapping[str, str] = NAMES,
) -> Iterator[StackRow]:
    """What stands out of the tray on the line, from outside to inside (or the other way): each piece as far as the next
    one begins."""
    if end_mm - start_mm <= 1e-6:
        return
    cuts = sorted({start_mm, end_mm, *(v for s in spans for v in (s.start, s.end) if start_mm < v < end_mm)})
    rows: list[tuple[PlacedPiece | None, float]] = []
    for low, high in itertools.pairwise(cuts):
        there = [s for s in spans if s.start <= low + 1e-9 and s.end >= high - 1e-9]
        piece = (
            (min(there, key=lambda s: -s.end) if upward else min(there, key=lambda s: s.start)).piece if there else None
        )
        if rows and rows[-1][0] is piece:
            rows[-1] = piece, rows[-1][1] + high - low
        else:
            rows.append((piece, high - low))
    for piece, mm in rows:
        if piece is None:
            yield StackRow("between them", mm, 0.0, 0.0, "as drawn", "space", box.path)
        else:
            path = f"mounts/{piece.mount}" if piece.mount else f"items/{piece.gear}" if piece.gear else box.path
            yield StackRow(
                names.get(piece.name, piece.name),
                mm,
                TOLS.get(piece.name, 0.5),
                0.0,
                "sheet and its clearance, as drawn",
                "metal",
                path,
            )


def _finish(box: PlacedBox, axis: int, path: str) -> Iterator[StackRow]:
    finish = box.box.finish
    if finish.coats:
        both = 2 * finish.coats * finish.coat_mm
        yield StackRow(
            f"coating, {finish.coats} coats on two faces",
            both,
            both / 2,
            0.0,
            "per face and coat, as given",
            "other",
            path,
        )
    if not finish.beads_ground and axis != 2:
        yield StackRow(
            "weld beads, not ground",
            2 * finish.bead_mm,
            1.0,
            0.0,
            "as given; common practice, no source",
            "other",
            path,
        )


def _contents(assembly: Assembly, box: PlacedBox, axis: int, spot: tuple[float, float]) -> Iterator[StackRow]:
    """Liners, the spaces that faces ask for, modules with their growth; what is left over at the end is a row too."""
    shell, path = box.shell, box.path
    one, other = (i for i in range(3) if i != axis)
    modules = sorted(
        (m for m in shell.modules if m.low[one] <= spot[0] <= m.high[one] and m.low[other] <= spot[1] <= m.high[other]),
        key=lambda m: m.low[axis],
    )
    made = shell.made
    first, last = FACE_PAIRS[axis]
    begin, pull = made.start_mm[axis], shell.pull_mm[axis] / 2
    end = begin + shell.inner_mm[axis] - box.box.lined_mm(last) - pull
    source = f"ISO 13920 table 1, class {box.box.weld_class}, from memory"
    welds = [StackRow("room for the pull of welds", pull, 0.0, 0.0, source, "space", path)] if pull else []
    yield from _layers(assembly, box, first)
    yield from welds
    at, before = begin + box.box.lined_mm(first) + pull, modules_before(assembly, box)
    for module in modules:
        yield from _space(module, module.low[axis] - at, 2 * axis, path)
        yield from _module(module, axis, path, before + module.number)
        at = module.high[axis]
    if modules:
        yield from _space(modules[-1], end - at, 2 * axis + 1, path)
    else:
        yield StackRow("free", end - at, 0.0, 0.0, "", "space", path)
    yield from welds
    yield from reversed(list(_layers(assembly, box, last)))


def _layers(assembly: Assembly, box: PlacedBox, face: Face) -> Iterator[StackRow]:
    """The layers of a face, from the wall inward."""
    for key, layer in box.box.lining(face):
        row = assembly.tables.liners.get(layer.material or "")
        word = row.name if row else "runner" if face == "base" else "liner"
        path = f"{box.path}/layers/{face}/{key}"
        yield StackRow(word, layer.thickness_mm, LINER_TOL_MM, 0.0, "common practice, no source", "liner", path)


def _space(module: ShellModule, mm: float, way: int, path: str) -> Iterator[StackRow]:
    if mm <= 1e-6:
        return
    kind = module.spec
    face = module.looks[way]
    words = [FACES[name] for name in FACES if getattr(kind, name) == face]
    what = " and ".join(words) or (
        "tap leads" if way == 5 and kind.above_mm else f"space before {face.replace('_', ' ')}"
    )
    yield StackRow(
        what,
        mm,
        0.0,
        0.0,
        "what the module's faces ask for, as entered in Stock",
        "space",
        f"{path}/blocks/{module.block}",
    )


def modules_before(assembly: Assembly, box: PlacedBox) -> int:
    """Modules are numbered through all boxes."""
    return sum(len(b.shell.modules) for b in itertools.takewhile(lambda b: b.id != box.id, assembly.in_order()))


def _module(module: ShellModule, axis: int, path: str, number: int) -> Iterator[StackRow]:
    kind = module.spec
    size = module.high[axis] - module.low[axis]
    along = module.looks[2 * axis].split("_")[0]  # which of the module's own sides lies along the line
    grows = kind.grows_mm({"end": 0, "side": 1}.get(along, 2))
    tol, source = tolerance_by("cut", size)
    yield StackRow(f"module {number}", size - grows, tol, 0.0, source, "module", f"{path}#{number}")
    if grows:
        yield StackRow(
            "growth to the widest state", grows, 0.0, 0.0, "as entered in Stock", "growth", f"{path}#{number}"
        )
