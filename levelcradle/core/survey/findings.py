"""What does not agree, what nobody knows and what nothing does yet."""

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from shapely.geometry import Polygon

from levelcradle.core.assembly import Assembly
from levelcradle.core.bays import DiagonalResult, Section, diagonal_result, sections
from levelcradle.core.design import Bay, Design, Reference, tree_of
from levelcradle.core.design.bay import PointStation
from levelcradle.core.design.pointer import find
from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.design.taken import untaken_things
from levelcradle.core.design.words import words_of
from levelcradle.core.finding import Figure, Finding, State, Step, Working, plain
from levelcradle.core.meshes import register_points
from levelcradle.core.survey.holes import hole_findings
from levelcradle.core.survey.missing import ToMeasure, unseen
from levelcradle.core.survey.tapes import MEET_WITHIN_MM, Swing, swing

__all__ = ["BayResult", "bay_result", "survey_findings", "swing_of"]

LEAST_MM2 = 100.0  # a section smaller than this was not measured
TAPE_MM = 1.0  # common practice, no source
DIAGONAL_TAPES = 3  # a diagonal disagrees beyond what its own tape and the two sides' allow
AGREES_MM = 0.5  # a reference still stands where its tapes meet


@dataclass(frozen=True, slots=True)
class BayResult:
    """What the screens show of a bay: its sections corner by corner, its room, its check diagonals."""

    sections: tuple[Section, ...]
    litres: float
    diagonals: tuple[DiagonalResult, ...]


def bay_result(bay: Bay) -> BayResult:
    found = sections(bay)
    return BayResult(tuple(found), _litres(found), tuple(diagonal_result(bay)))


def _litres(found: Sequence[Section]) -> float:
    """Room between the first and the last section. Source: the prismoidal formula between each two, exact for straight
    sides."""
    total = 0.0
    for near, far in pairwise(found):
        middle = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in zip(near.ring, far.ring, strict=True)]
        total += (far.aft_mm - near.aft_mm) / 6 * (_area(near.ring) + 4 * _area(middle) + _area(far.ring))
    return total / 1e6


def _area(ring: tuple[tuple[float, float], ...] | list[tuple[float, float]]) -> float:
    return abs(math.fsum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))) / 2


def survey_findings(design: Design, assembly: Assembly) -> list[Finding]:
    """Everything the Survey station has to say but the weighing: of what was written down, and what stands on it."""
    return [
        *_tapes(design),
        *_diagonals(design),
        *_scans(design, assembly.missing_scans),
        *_stance(design),
        *_duties(design),
        *_snags(design),
        *_taken_twice(design),
        *_carried_before(assembly),
        *_crossed(design),
        *hole_findings(design, assembly),
        *_untaken(design),
        *_unseen(design),
    ]


def swing_of(design: Design, reference: Reference) -> Swing | None:
    """Where a reference point's tapes meet, from where their hooks stand now."""
    rows = list(reference.tapes.values())
    return swing([design.references[t.hooked].at_mm for t in rows], [t.length_mm for t in rows], reference.at_mm)


def _tapes(design: Design) -> Iterator[Finding]:
    for key, reference in design.references.items():
        found = swing_of(design, reference)
        if found is None:
            continue
        name, path = plain(reference.name), f"references/{key}"
        moved = math.dist(found.at, reference.at_mm)
        state: State = "clear" if found.misfit_mm <= MEET_WITHIN_MM else "unknown"
        message, figure = f"{name}: its tapes meet within {{0}}", found.misfit_mm
        if state == "unknown":
            message = f"{name}: its tapes miss each other by {{0}}"
        elif moved > AGREES_MM:
            state, figure = "unknown", moved
            message = f"{name} stands {{0}} from where its tapes meet now"
        yield Finding(
            id=f"survey:tapes:{key}",
            code="survey.tapes",
            station="survey",
            state=state,
            subjects=(path,),
            message=message,
            figures=(Figure(figure, "mm", "up"),),
            value=figure,
            limit=MEET_WITHIN_MM,
            margin=MEET_WITHIN_MM - found.misfit_mm,
            unit="mm",
            rationale="a tape reached in is sure to 3 mm (common practice, no source)",
            label="tapes",
            working=lambda reference=reference, found=found: _tape_steps(design, reference, found),  # type: ignore[misc]
        )


def _tape_steps(design: Design, reference: Reference, found: Swing) -> Working:
    rows = zip(reference.tapes.values(), found.misses_mm, strict=True)
    return tuple(
        Step(
            f"from {design.references[tape.hooked].name}",
            f"tape {tape.length_mm:.1f} − distance",
            miss,
            "mm",
            "geometry",
        )
        for tape, miss in rows
    )


def _crossed(design: Design) -> Iterator[Finding]:
    """Free points whose outline crosses itself or has no room: while they are typed one by one they may, done they may
    not."""
    for key, bay in design.bays.items():
        order = sorted(bay.stations, key=lambda name, bay=bay: bay.stations[name].aft_mm)  # type: ignore[misc]
        for number, name in enumerate(order, start=1):
            station = bay.stations[name]
            if not isinstance(station, PointStation):
                continue
            points = sorted(station.points.values(), key=lambda p: p.order)
            ring = Polygon([(p.across_mm, p.up_mm) for p in points])
            if ring.is_valid and ring.area >= LEAST_MM2:
                continue
            yield Finding(
                id=f"survey:crossed:{key}:{name}",
                code="survey.crossed",
                station="survey",
                state="foul",
                subjects=(f"bays/{key}",),
                message=f"{plain(bay.name)}, station {number}: its points do not go round in order",
                rationale="an outline that crosses itself, or has no room, is no section",
                label="section",
            )


def _diagonals(design: Design) -> Iterator[Finding]:
    for key, bay in design.bays.items():
        for row in diagonal_result(bay):
            tape = bay.tolerance_mm if bay.tolerance_mm is not None else TAPE_MM
            allowed = DIAGONAL_TAPES * tape
            angle = f", {abs(row.out_of_square_deg):.1f}° out of square" if row.out_of_square_deg is not None else ""
            good = abs(row.misfit_mm) <= allowed
            yield Finding(
                id=f"survey:diagonal:{key}:{row.id}",
                code="survey.diagonal",
                station="survey",
                state="clear" if good else "unknown",
                subjects=(f"bays/{key}",),
                message=f"{plain(bay.name)}: a diagonal misses by {{0}}{'' if good else angle}",
                figures=(Figure(abs(row.misfit_mm), "mm", "up"),),
                value=row.by_tape_mm,
                limit=row.by_stations_mm,
                margin=allowed - abs(row.misfit_mm),
                unit="mm",
                tolerance=allowed,
                label="diagonal",
                rationale="three tapes go into it; more than that, one of them was misread or the section is not "
                "square",
                working=lambda row=row: (  # type: ignore[misc]
                    Step("by the stations", "distance of the two corners", row.by_stations_mm, "mm", "geometry"),
                    Step("by the tape", "as measured", row.by_tape_mm, "mm", "tape"),
                    Step("misfit", "tape − stations", row.misfit_mm, "mm"),
                    Step("out of square by", "law of cosines", row.out_of_square_deg or 0.0, "°", "geometry"),
                ),
            )


def _scans(design: Design, missing: tuple[str, ...]) -> Iterator[Finding]:
    rows = [(f"items/{k}", i.name, i.solid) for k, i in design.items.items()]
    rows += [(f"keepouts/{k}", s.name, s.solid) for k, s in design.keepouts.items()]
    for path, name, spec in rows:
        if not isinstance(spec, MeshSolid):
            continue
        if spec.file in missing:
            yield Finding(
                id=f"survey:scan:{path}",
                code="survey.scan",
                station="survey",
                state="unknown",
                subjects=(path,),
                message=f"{plain(name)}: its scan is not here, so nothing is checked against it",
                rationale="the file was not brought along with the design",
                label="scan",
            )
        if spec.ties:
            ties = list(spec.ties.values())
            fit = register_points([t.file_mm for t in ties], [t.at_mm for t in ties])
            yield Finding(
                id=f"survey:ties:{path}",
                code="survey.ties",
                station="survey",
                state="clear" if max(fit.misses_mm) <= MEET_WITHIN_MM else "unknown",
                subjects=(path,),
                message=f"{plain(name)}: the scan's points come within {{0}} of where they were measured",
                figures=(Figure(max(fit.misses_mm), "mm", "up"),),
                value=max(fit.misses_mm),
                limit=MEET_WITHIN_MM,
                margin=MEET_WITHIN_MM - max(fit.misses_mm),
                unit="mm",
                rationale="rigid fit by least squares",
                label="scan",
            )


def _stance(design: Design) -> Iterator[Finding]:
    before, after = design.vehicle.stance, design.vehicle.stance_after
    if before is None and design.bays:
        yield Finding(
            id="survey:stance",
            code="survey.stance",
            station="survey",
            state="note",
            subjects=("vehicle/stance",),
            message="Say once how the car stood while it was measured: engine in or out, on its wheels or hanging",
            rationale="the nose rises when the engine is out, and every height with it",
        )
    if before is None or after is None:
        return
    rise = [
        _mean(after.arches.lf_mm, after.arches.rf_mm, before.arches.lf_mm, before.arches.rf_mm),
        _mean(after.arches.lr_mm, after.arches.rr_mm, before.arches.lr_mm, before.arches.rr_mm),
    ]
    if rise[0] is None or rise[1] is None:
        return
    pitch = math.degrees(math.atan2(rise[0] - rise[1], design.vehicle.wheelbase_mm))
    yield Finding(
        id="survey:stance-after",
        code="survey.stance",
        station="survey",
        state="note",
        subjects=("vehicle/stance_after",),
        message=f"Front arches {{0}} higher than when measured, rear {{1}}: nose {'up' if pitch >= 0 else 'down'} by "
        f"{abs(pitch):.2f}°",
        figures=(Figure(rise[0], "mm"), Figure(rise[1], "mm")),
        value=pitch,
        rationale="arch heights after less before, over the wheelbase",
        label="stance",
    )


def _mean(*four: float | None) -> float | None:
    left, right, left_was, right_was = four
    if left is None or right is None or left_was is None or right_was is None:
        return None
    return (left + right - left_was - right_was) / 2


def _duties(design: Design) -> Iterator[Finding]:
    for key, duty in design.duties.items():
        if not duty.now and duty.done_by is None:
            yield Finding(
                id=f"survey:duty:{key}",
                code="survey.duty",
                station="survey",
                state="unknown",
                subjects=(f"duties/{key}",),
                message=f"{plain(duty.name)}: nothing does it yet",
                rationale="what came out did this job",
                label="duty",
            )


def _snags(design: Design) -> Iterator[Finding]:
    for key, snag in design.snags.items():
        if snag.state == "found":
            yield Finding(
                id=f"survey:snag:{key}",
                code="survey.snag",
                station="survey",
                state="note",
                subjects=(f"snags/{key}",),
                message=f"Found: {plain(snag.name)}",
                rationale=snag.note or "neither mended nor left on purpose yet",
                label="fault",
            )
    for key, opening in design.openings.items():
        if opening.cut == "to be cut" and not opening.framed:
            yield Finding(
                id=f"survey:opening:{key}",
                code="survey.opening",
                station="survey",
                state="unknown",
                subjects=(f"openings/{key}",),
                message=f"{plain(opening.name)} is to be cut, and nobody has said what frames it",
                rationale="metal that is cut away carried something; its rim is framed before anything hangs near it",
                label="opening",
            )
    for key, member in design.members.items():
        if member.condition in ("rusted through", "cracked"):
            yield Finding(
                id=f"survey:member:{key}",
                code="survey.member",
                station="survey",
                state="foul",
                subjects=(f"members/{key}",),
                message=f"{plain(member.name)} is {member.condition}: nothing is hung from it until it is repaired",
                rationale="a box throws many times its weight on what carries it",
                label="condition",
            )


def _carried_before(assembly: Assembly) -> Iterator[Finding]:
    """What a reused point held before is evidence for the road up to that weight, and none for a crash."""
    for box in assembly.in_order():
        share = box.hung_kg / len(box.mounts) if box.mounts else 0.0
        for spot in (m.spot for m in box.mounts):
            before, key = spot.carried_kg, spot.path.rsplit("/", 1)[-1]
            if before is None:
                continue
            held = share <= before
            message = f"{plain(spot.name)} carries about {{0}} of the {plain(box.box.name)}; before it carried {{1}}"
            yield Finding(
                id=f"survey:carried:{box.id}:{key}",
                code="survey.carried",
                station="survey",
                state="note",
                subjects=(spot.path,),
                message=message
                + (": evidence for the road, none for a crash" if held else ": more than it is known to hold"),
                figures=(Figure(share, "kg", "up"), Figure(before, "kg", "down")),
                value=share,
                limit=before,
                margin=before - share,
                unit="kg",
                rationale="an even share of the full box to each mount; what held before",
                label="carried before",
            )


def _taken_twice(design: Design) -> Iterator[Finding]:
    """Figures taken a second time without seeing the first."""
    tree = None
    for path, reading in design.readings.items():
        if reading.again_mm is None:
            continue
        tree = tree or tree_of(design)
        first = float(find(tree, path))
        off, allowed = (
            abs(reading.again_mm - first),
            reading.tolerance if reading.tolerance is not None else MEET_WITHIN_MM,
        )
        yield Finding(
            id=f"survey:twice:{path}",
            code="survey.twice",
            station="survey",
            state="clear" if off <= allowed else "unknown",
            subjects=(path[1:],),
            message=f"{plain(words_of(tree, path))}: {{0}} the first time, {{1}} the second",
            figures=(Figure(first, "mm"), Figure(reading.again_mm, "mm")),
            value=off,
            limit=allowed,
            margin=allowed - off,
            unit="mm",
            rationale="taken twice without seeing the first",
            label="taken twice",
        )


def _untaken(design: Design) -> Iterator[Finding]:
    """What was begun and not taken yet, one row a thing: until then no check counts on it."""
    things = untaken_things(design)
    tree = tree_of(design) if things else {}
    for thing, paths in things.items():
        more = f" and {len(paths) - 1} more" if len(paths) > 1 else ""
        yield Finding(
            id=f"survey:untaken:{thing}",
            code="survey.untaken",
            station="stock" if thing.startswith("module_kinds/") else "survey",
            state="unknown",
            subjects=(thing,),
            message=f"Not taken yet: {plain(words_of(tree, paths[0]))}{more}",
            rationale="it stands there only so that something can be drawn; no check counts on it",
            label="not taken",
        )


def _unseen(design: Design) -> Iterator[Finding]:
    """What no gap is checked against, one row a thing."""
    things: dict[str, list[ToMeasure]] = defaultdict(list)
    for row in unseen(design):
        things["/".join(row.path.split("/")[:2])].append(row)
    for thing, rows in things.items():
        more = f" and {len(rows) - 1} more" if len(rows) > 1 else ""
        yield Finding(
            id=f"survey:unseen:{thing}",
            code="survey.unseen",
            station="survey",
            state="unknown",
            subjects=(thing,),
            message=f"Not measured: {plain(rows[0].what)}{more}",
            rationale="no gap is checked against it",
            label="not measured",
        )
