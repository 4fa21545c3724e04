"""A box taken apart: tray, modules, lid and brackets drawn away from each other, each with its mark."""

import math
from collections.abc import Iterator

import numpy as np

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Matrix, Placement, Vec
from levelcradle.core.box import Role
from levelcradle.core.design.base import FACE_AT
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.linework import CORNER, Body
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloons, box_bodies, fitted, module_bodies, put

__all__ = ["exploded_sheet"]

LOW_MM, TOP_MM = FOOT_MM + 8.0, 24.0
PLATE_MM, BRACKET_MM = 70.0, 160.0  # how far off the wall they are drawn


def exploded_sheet(subject: Subject, letter: str, box: PlacedBox) -> Sheet:
    job = subject.job
    sheet = Sheet(f"{letter}-exploded", f"Box {letter}, taken apart: {box.name}", job.paper, about=(box.path,))
    groups = list(_apart(subject, box))
    bodies = [body for _, group in groups for body in group]
    window = (34.0, LOW_MM, job.paper.wide_mm - 68, job.paper.tall_mm - TOP_MM - LOW_MM)
    frame = fitted(bodies, CORNER, window)
    places = put(sheet, bodies, CORNER, frame)
    numbers = {id(body): number for number, body in enumerate(bodies)}
    shown = [(mark, [places[numbers[id(b)]] for b in group if numbers[id(b)] in places]) for mark, group in groups]
    tips = [(mark, found[0]) for mark, found in shown if mark and found]
    balloons(sheet, tips, (22.0, job.paper.wide_mm - 22.0), LOW_MM + 2, job.paper.tall_mm - TOP_MM - 4)
    marks = {mark for mark, _ in groups}
    facts = tuple(f"{part.mark}: {part.name}, {part.quantity} off" for part in subject.parts if part.mark in marks)
    border(sheet, job, f"{letter}, taken apart: {box.name}", (), ("Not to scale. " + "; ".join(facts),))
    return sheet


def _apart(subject: Subject, box: PlacedBox) -> Iterator[tuple[str, list[Body]]]:
    """(mark, bodies) in the box's own frame, moved away from where they belong."""
    axis, end = FACE_AT[box.shell.made.closed_face]

    def out_of_it(share: float) -> Vec:
        by = [0.0, 0.0, 0.0]
        by[axis] = share * box.shell.outer_mm[axis] * (1 if end else -1)
        return by[0], by[1], by[2]

    tray, lid = box_bodies(box, lid=False), box_bodies(box)
    panels = list(_panels(subject, box))
    yield from panels or [(_mark(subject, box, "base"), tray)]
    if panels:
        yield "", tray[1:]  # the frame
    modules = module_bodies(box)
    yield "", [_moved(body, out_of_it(1.15)) for body in modules]
    closing = lid[len(tray) :]
    yield _mark(subject, box, "closure"), [_moved(body, out_of_it(2.4 if modules else 1.2)) for body in closing]
    back = box.placement.inverse
    middle = np.array(box.shell.outer_mm) / 2
    for mount in box.mounts:
        out = _outward(back.point(mount.spot.at), middle)
        far = dict[str, list[Body]]()
        for piece in mount.pieces:
            by = PLATE_MM if piece.welded and _is_flat(subject, piece.part) else BRACKET_MM
            body = Body((piece.solid.moved(back),), 0.25)
            far.setdefault(piece.part, []).append(_moved(body, (out[0] * by, out[1] * by, 0.0)))
        yield from ((subject.marks.get(part, ""), group) for part, group in far.items())


def _panels(subject: Subject, box: PlacedBox) -> Iterator[tuple[str, list[Body]]]:
    """Sides and base where each is a part of its own, off what they are fixed to."""
    sides = [p for p in box.shell.pieces if p.role in ("base", "wall", "top")]
    if len({piece.part for piece in sides}) < 2:
        return
    middle = np.array(box.shell.outer_mm) / 2
    for piece in sides:
        away = (np.array(piece.centre) - middle) / middle
        axis = int(np.abs(away).argmax())
        by = [0.0, 0.0, 0.0]
        by[axis] = math.copysign(BRACKET_MM, away[axis])
        yield subject.marks.get(f"{box.id}-{piece.part}", ""), [_moved(Body(piece.solids, 0.35), (by[0], by[1], by[2]))]


def _mark(subject: Subject, box: PlacedBox, role: Role) -> str:
    """Of the part that the pieces of a role are of."""
    part = next((piece.part for piece in box.shell.pieces if piece.role == role and piece.part), "")
    return subject.marks.get(f"{box.id}-{part}", "")


def _is_flat(subject: Subject, part_id: str) -> bool:
    """Whether a part has no bend: a plate between the wall and what stands on it."""
    return any(not one.bends for part in subject.parts for one in part.each if one.id == part_id)


def _outward(at: Vec, middle: Matrix) -> Vec:
    away = (np.array(at) - middle)[:2] / np.maximum(middle[:2], 1.0)
    axis = int(np.abs(away).argmax())
    out = [0.0, 0.0, 0.0]
    out[axis] = 1.0 if away[axis] > 0 else -1.0
    return out[0], out[1], out[2]


def _moved(body: Body, by: Vec) -> Body:
    place = Placement(np.eye(3), by)
    return Body(tuple(solid.moved(place) for solid in body.solids), body.weight_mm)
