"""What the inside of a box is lined with, piece by piece."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import FACE_PAIRS, Face
from levelcradle.core.design.box import Box
from levelcradle.core.design.layers import Layer, Runners

__all__ = ["LinerPiece", "board_pieces", "in_one_strip", "liner_pieces", "runner_count"]

Flat = tuple[float, float]
STRIPS: dict[str, tuple[Face, Face]] = {"aft": ("front", "aft"), "across": ("left", "right")}


@dataclass(frozen=True, slots=True)
class LinerPiece:
    """One rectangle of liner, where it lies and how many are alike. ``material``: its row of the table of liners;
    ``glued``: whether it lies on sheet, and does not stand by itself."""

    where: str
    quantity: int
    size_mm: Flat
    thickness_mm: float
    material: str | None = None
    glued: bool = True


def liner_pieces(box: Box, inner_mm: Vec) -> Iterator[LinerPiece]:
    """Left and right are lined whole, front and aft between them, all from the base to the rim; base and top between
    all four. Of one strip over the base and two walls, these are one piece. None where there is no liner, or no room
    for one."""
    if box.one_strip and (strip := in_one_strip(box)):
        ends, way = STRIPS[box.one_strip], 0 if box.one_strip == "aft" else 1
        (long, high), floor = _covers(box, ends[0], inner_mm), _covers(box, "base", inner_mm)
        size = (2 * high + floor[way], long)
        if min(size) > 0:
            yield LinerPiece(f"{ends[0]}, floor and {ends[1]}", 1, size, strip.thickness_mm, strip.material)
    for pair in FACE_PAIRS:
        one, other = ([*_on(box, face, inner_mm)] for face in pair)
        both = [row for row in one if row in other]
        for layer in both:
            yield from _cut(layer, f"{pair[0]} and {pair[1]}", 2)
        for face, rows in zip(pair, (one, other), strict=True):
            for layer in rows:
                if layer not in both:
                    yield from _cut(layer, "floor" if face == "base" else face, 1)


def board_pieces(box: Box, plates: Sequence[tuple[str, Vec, Vec]]) -> Iterator[LinerPiece]:
    """Dividers that are boards: between tiers where they go up. ``plates``: the box's, with their blocks."""
    count = Counter((key, plate_size(low, high)) for key, low, high in plates)
    for (key, (thick, size)), number in count.items():
        dividers = box.blocks[key].dividers
        if dividers and dividers.material:
            where = "between tiers" if dividers.along == "up" else f"between modules {dividers.along}"
            yield LinerPiece(where, number, size, thick, dividers.material, glued=False)


def plate_size(low: Vec, high: Vec) -> tuple[float, Flat]:
    """How thick a plate is, and how large."""
    thick, *size = sorted(h - v for v, h in zip(low, high, strict=True))
    return thick, (size[1], size[0])


def in_one_strip(box: Box) -> Layer | None:
    """The layer that the base and two walls have alike next to the metal, where they are lined with one strip."""
    if box.one_strip is None:
        return None
    first = [next(iter(box.lining(face)), None) for face in ("base", *STRIPS[box.one_strip])]
    layers = [row[1].model_copy(update={"order": 0}) for row in first if row]
    alike = len(layers) == 3 and layers[0].type == "sheet" and all(layer == layers[0] for layer in layers)
    return layers[0] if alike else None


def _covers(box: Box, face: Face, inner_mm: Vec) -> Flat:
    """How much of a face there is to cover. A strip that goes from left to right runs under front and aft."""
    length, width, height = inner_mm
    across = width - box.lined_mm("left") - box.lined_mm("right")
    along = length - box.lined_mm("front") - box.lined_mm("aft")
    strip = in_one_strip(box) if box.one_strip == "across" else None
    ends = (across, height - (strip.thickness_mm if strip else 0.0))
    size = {"left": (length, height), "right": (length, height), "front": ends, "aft": ends}
    return size.get(face, (along, across))


def _on(box: Box, face: Face, inner_mm: Vec) -> Iterator[tuple[Layer, Flat]]:
    """The layers of a face that are pieces of their own, each with how much of it there is to cover."""
    covers, strip = _covers(box, face, inner_mm), in_one_strip(box)
    rows = box.lining(face)
    if strip and box.one_strip and face in ("base", *STRIPS[box.one_strip]):
        rows = rows[1:]
    for _, layer in rows:
        if min(covers) > 0:
            yield layer, covers


def runner_count(runners: Runners, over_mm: float) -> int:
    """How many whole ones lie beside each other on so much of a face."""
    return int((over_mm + runners.between_mm) / (runners.wide_mm + runners.between_mm) + 1e-9)


def _cut(row: tuple[Layer, Flat], where: str, faces: int) -> Iterator[LinerPiece]:
    layer, (first, second) = row
    if not isinstance(layer, Runners):
        yield LinerPiece(where, faces, (first, second), layer.thickness_mm, layer.material)
        return
    long, over = (first, second) if layer.along == "first" else (second, first)
    strips = runner_count(layer, over)
    if strips:
        size = (long, layer.wide_mm)
        yield LinerPiece(f"{where}, runners", faces * strips, size, layer.thickness_mm, layer.material)
