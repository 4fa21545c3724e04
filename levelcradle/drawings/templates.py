"""Templates at true size: brackets and plates, bolt patterns on the car, openings to be cut in it; and dummies of
modules to fold from card."""

from collections import Counter
from collections.abc import Iterator, Sequence

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.part import FlatPart
from levelcradle.drawings.border import Job
from levelcradle.drawings.sheet import Frame, Paper, Point, Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.tiles import tiles

__all__ = ["dummy_sheets", "template_sheets"]

ROUND_MM = 16.0  # free paper about a drawing, with room for its words
CENTRE_MM = 6.0
MOST_MM = 700.0  # what is larger is cut by machine and measured out, not scribed: common practice, no source


def template_sheets(subject: Subject) -> Iterator[Sheet]:
    for part in subject.parts:
        if max(part.size_mm) <= MOST_MM:
            yield from tiles(_part(part, subject.job), subject.job)
    for letter, box in subject.boxes:
        if len(box.mounts) > 1 and _apart_mm(box) <= MOST_MM:
            yield from tiles(_bolts(letter, box), subject.job)
    for opening in subject.assembly.design.openings.values():
        if opening.cut == "to be cut":
            size = (opening.width_mm, opening.height_mm)
            if opening.rim_mm:
                yield from tiles(_rim(opening.name, size, opening.rim_mm), subject.job)
            yield from tiles(
                _rectangle(f"opening-{opening.name}", f"Opening to be cut: {opening.name}", size), subject.job
            )


def _apart_mm(box: PlacedBox) -> float:
    return max(float(max(c) - min(c)) for c in zip(*((m.spot.at[0], m.spot.at[1]) for m in box.mounts), strict=True))


def _blank(name: str, title: str, low: Point, high: Point) -> tuple[Sheet, Frame]:
    """A sheet as large as what is drawn, and the frame that puts it there at true size."""
    wide, tall = high[0] - low[0] + 2 * ROUND_MM, high[1] - low[1] + 2 * ROUND_MM
    return Sheet(name, title, Paper("whole", wide, tall)), Frame((ROUND_MM, ROUND_MM), low, 1.0)


def _part(part: FlatPart, job: Job) -> Sheet:
    """Outline, holes with centres to punch, bend lines."""
    xs, ys = [p[0] for p in part.outline], [p[1] for p in part.outline]
    title = f"Template {part.mark}: {part.name}, {part.material_name} {part.thickness_mm:g} mm"
    sheet, frame = _blank(f"template-{part.mark}", title, (min(xs), min(ys)), (max(xs), max(ys)))
    sheet.outline([frame.at(p) for p in part.outline], 0.25)
    for cutout in part.cutouts:
        sheet.outline([frame.at(p) for p in cutout.outline], 0.25)
    for hole in part.holes:
        _hole(sheet, frame.at(hole.at), hole.diameter_mm, f"⌀ {job.size(hole.diameter_mm)}")
    for bend in part.bends:
        sheet.line(frame.at(bend.start), frame.at(bend.end), weight_mm=0.25, dashed=True)
        middle = frame.at(((bend.start[0] + bend.end[0]) / 2, (bend.start[1] + bend.end[1]) / 2))
        sheet.words((middle[0] + 2, middle[1] + 2), f"bend {bend.angle_deg:g}° {'up' if bend.up else 'down'}", 2.6)
    sheet.words((ROUND_MM, ROUND_MM - 6), f"{part.mark}, {part.quantity} off", 4.0, bold=True)
    return sheet


def _hole(sheet: Sheet, at: Point, diameter_mm: float, words: str) -> None:
    sheet.ring(at, diameter_mm / 2, 0.25)
    reach = diameter_mm / 2 + CENTRE_MM / 2
    sheet.line((at[0] - reach, at[1]), (at[0] + reach, at[1]), weight_mm=0.13)
    sheet.line((at[0], at[1] - reach), (at[0], at[1] + reach), weight_mm=0.13)
    sheet.words((at[0] + reach + 1, at[1] + 1), words, 2.6)


def _bolts(letter: str, box: PlacedBox) -> Sheet:
    """Where the bolts of a box come in the car, in plan, with the centreline where it is near; the nose at the left."""
    places = [(mount.spot.at[0], mount.spot.at[1]) for mount in box.mounts]
    xs, ys = [p[0] for p in places], [p[1] for p in places]
    title = f"Bolts of box {letter}, {box.name}, in plan: nose at the left, right of the car up"
    sheet, frame = _blank(f"bolts-{letter}", title, (min(xs) - 20, min(ys) - 20), (max(xs) + 60, max(ys) + 20))
    for mount in box.mounts:
        _hole(sheet, frame.at((mount.spot.at[0], mount.spot.at[1])), 3.0, f"{mount.mount.name}")
    if min(ys) < 0 < max(ys):
        sheet.line(frame.at((min(xs) - 20, 0.0)), frame.at((max(xs) + 60, 0.0)), weight_mm=0.18, dashed=True)
        x, y = frame.at((min(xs), 0.0))
        sheet.words((x, y + 1.5), "centreline of the car", 2.6)
    return sheet


def _rim(name: str, size_mm: tuple[float, float], rim_mm: float) -> Sheet:
    """A frame let in round an opening: its outer edge, and the clear size inside."""
    (wide, tall), r = size_mm, rim_mm
    sheet, frame = _blank(f"rim-{name}", f"Rim frame of the opening {name}", (-r, -r), (wide + r, tall + r))
    for low, high in (((-r, -r), (wide + r, tall + r)), ((0.0, 0.0), size_mm)):
        sheet.outline([frame.at(p) for p in (low, (high[0], low[1]), high, (low[0], high[1]))], 0.25)
    sheet.words((ROUND_MM, ROUND_MM - 6), f"rim {r:g} wide all round; the inside is the clear size", 3.0)
    return sheet


def _rectangle(name: str, title: str, size_mm: tuple[float, float]) -> Sheet:
    sheet, frame = _blank(name, title, (0.0, 0.0), size_mm)
    sheet.outline([frame.at(p) for p in ((0.0, 0.0), (size_mm[0], 0.0), size_mm, (0.0, size_mm[1]))], 0.25)
    sheet.words((ROUND_MM, ROUND_MM - 6), "cut line; frame it before it is loaded", 3.0)
    return sheet


def dummy_sheets(subject: Subject) -> Iterator[Sheet]:
    """A net for each kind of module that is in a box."""
    held = {module.kind for _, box in subject.boxes for module in box.shell.modules}
    for key in sorted(held):
        kind = subject.assembly.design.module_kinds[key]
        yield from tiles(_net(key, kind), subject.job)


Corner = tuple[float, float]


def _net(key: str, kind: ModuleKind) -> Sheet:
    """Six faces as they lie round the base: fold along the dashed lines, printed side out.

    The length runs to the right; above the base stand side b, top, and at its ends end a and end b.
    """
    length, width, height = kind.size_mm
    title = f"Dummy of {kind.name}: fold from card, printed side out"
    sheet, frame = _blank(f"dummy-{key}", title, (-height, -height), (length + height, width + height + width))
    faces: dict[str, tuple[Corner, Corner]] = {
        "base": ((0.0, 0.0), (length, width)),
        "side_a": ((0.0, -height), (length, 0.0)),
        "side_b": ((0.0, width), (length, width + height)),
        "top": ((0.0, width + height), (length, width + height + width)),
        "end_a": ((-height, 0.0), (0.0, width)),
        "end_b": ((length, 0.0), (length + height, width)),
    }
    edges = Counter(edge for low, high in faces.values() for edge in _edges(low, high))
    for (start, end), faces_there in edges.items():  # between two faces it is folded, elsewhere cut
        sheet.line(frame.at(start), frame.at(end), weight_mm=0.25, dashed=faces_there > 1)
    for name, (low, high) in faces.items():
        _face(sheet, frame, name, low, high, kind)
    return sheet


def _edges(low: Corner, high: Corner) -> Iterator[tuple[Corner, Corner]]:
    ring = [low, (high[0], low[1]), high, (low[0], high[1])]
    for start, end in zip(ring, [*ring[1:], ring[0]], strict=True):
        yield min(start, end), max(start, end)


WORDS = {"base": "base", "side_a": "side a", "side_b": "side b", "top": "top", "end_a": "end a", "end_b": "end b"}


def _face(sheet: Sheet, frame: Frame, name: str, low: Corner, high: Corner, kind: ModuleKind) -> None:
    """Its name and what is on it."""
    x, y = frame.at(((low[0] + high[0]) / 2, (low[1] + high[1]) / 2))
    has: Sequence[str] = [
        words
        for words, face in (("terminals", kind.terminals), ("taps", kind.taps), ("coolant ports", kind.coolant))
        if face == name
    ]
    sheet.words((x, y + 2.0), WORDS[name], 4.0, "middle", bold=True)
    for number, words in enumerate(has):
        sheet.words((x, y - 3.5 - 4.0 * number), words, 3.0, "middle")
    for sign, terminal_face in (("+", kind.terminals), ("−", kind.minus or kind.terminals)):
        if terminal_face == name:
            tx, ty = frame.at(_terminal(name, low, high, sign, kind))
            sheet.ring((tx, ty), 6.0, 0.35)
            sheet.words((tx, ty - 2.2), sign, 6.0, "middle", bold=True)


# what lies beyond the left, right, lower and upper edge of each face in the net
BEYOND: dict[str, tuple[str, str, str, str]] = {
    "base": ("end_a", "end_b", "side_a", "side_b"),
    "side_a": ("end_a", "end_b", "top", "base"),
    "side_b": ("end_a", "end_b", "base", "top"),
    "top": ("end_a", "end_b", "side_b", "side_a"),
    "end_a": ("top", "base", "side_a", "side_b"),
    "end_b": ("base", "top", "side_a", "side_b"),
}


def _terminal(name: str, low: Corner, high: Corner, sign: str, kind: ModuleKind) -> Corner:
    """A quarter in from the end of the face towards which the plus stands; as in every drawing."""
    along = 0 if high[0] - low[0] >= high[1] - low[1] else 1
    plus_is_high = False
    if kind.plus_towards in BEYOND[name]:
        edge = BEYOND[name].index(kind.plus_towards)
        along, plus_is_high = edge // 2, edge % 2 == 1
    at = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2]
    at[along] = low[along] + (0.75 if (sign == "+") == plus_is_high else 0.25) * (high[along] - low[along])
    return at[0], at[1]
