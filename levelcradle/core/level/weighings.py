"""What the scales say along the way against what was to be expected: the car stripped, half done and finished, each box
alone."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly
from levelcradle.core.design.vehicle import Corners, Total, Weighed
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.level.balance import WheelLoads, found_loads, loads_after
from levelcradle.core.level.result import LevelResult, base_of, computed, masses, root, was_done

__all__ = ["Compared", "WeighedRow", "weighed_rows", "weighing_findings"]


@dataclass(frozen=True, slots=True)
class Compared:
    """One reading [kg]: what was found, what was to be expected, how far apart, within what they agree (about 95 %),
    and whether."""

    name: str
    found_kg: float
    expected_kg: float
    off_kg: float
    tol_kg: float
    agrees: bool


def _held_against(name: str, found_kg: float, expected_kg: float, *tols_kg: float) -> Compared:
    off, tol = found_kg - expected_kg, math.hypot(*tols_kg)
    return Compared(name, found_kg, expected_kg, off, tol, abs(off) <= tol)


@dataclass(frozen=True, slots=True)
class WeighedRow:
    """One weighing, in the order of the work: its readings beside what was to be expected (none where nobody can say),
    by how much the farthest is off, and whether all agree."""

    id: str
    kind: str
    name: str
    rows: tuple[Compared, ...]
    worst_kg: float
    agrees: bool


def weighed_rows(assembly: Assembly, figures: LevelResult) -> list[WeighedRow]:
    """Every weighing but the one that loads are counted from."""
    base = base_of(assembly.weighings)
    order = sorted(assembly.weighings.items(), key=lambda row: (row[1].order, row[0]))
    return [_row(assembly, figures, key, weighed) for key, weighed in order if weighed is not base]


def _row(assembly: Assembly, figures: LevelResult, key: str, weighed: Weighed) -> WeighedRow:
    rows = tuple(_compared(assembly, figures, key, weighed))
    worst = max((abs(row.off_kg) for row in rows), default=0.0)
    return WeighedRow(key, weighed.kind, _name(assembly, weighed), rows, worst, all(row.agrees for row in rows))


def _name(assembly: Assembly, weighed: Weighed) -> str:
    boxes = [assembly.boxes[k].box.name for p in weighed.done if (k := p.removeprefix("boxes/")) in assembly.boxes]
    return (
        boxes[0]
        if weighed.kind == "box" and boxes
        else {"box": "a box", "as found": "as found"}.get(weighed.kind, weighed.kind)
    )


def _compared(assembly: Assembly, figures: LevelResult, key: str, weighed: Weighed) -> Iterator[Compared]:
    if weighed.kind == "box":
        yield from _box_compared(assembly, key)
        return
    found, base = found_loads(assembly.vehicle, weighed.read), base_of(assembly.weighings)
    if figures.found is None or found is None or base is None:
        return
    rows = [row for row in masses(assembly) if was_done(weighed, row) and not was_done(base, row)]
    expected = loads_after(figures.found, rows, assembly.vehicle)
    for name, read, want, *tols in _pairs(weighed, found, expected):
        yield _held_against(name, read, want, *tols)


def _pairs(
    weighed: Weighed, found: WheelLoads, expected: WheelLoads
) -> Iterator[tuple[str, float, float, float, float]]:
    """Name, found, expected and the ± of both: wheel by wheel where both know the wheels, else by axle, else the
    whole."""
    if isinstance(weighed.read, Total):
        yield "whole car", found.total_kg, expected.total_kg, found.off.total_kg, expected.off.total_kg
        return
    ours, theirs = found.corners, expected.corners
    if isinstance(weighed.read, Corners) and ours and theirs and found.off.corners_kg and expected.off.corners_kg:
        for n, (name, wheel) in enumerate(
            (("left front", "lf_kg"), ("right front", "rf_kg"), ("left rear", "lr_kg"), ("right rear", "rr_kg"))
        ):
            yield (
                name,
                getattr(ours, wheel),
                getattr(theirs, wheel),
                found.off.corners_kg[n],
                expected.off.corners_kg[n],
            )
        return
    yield "front axle", found.front_kg, expected.front_kg, found.off.front_kg, expected.off.front_kg
    yield "rear axle", found.rear_kg, expected.rear_kg, found.off.rear_kg, expected.off.rear_kg


def _box_compared(assembly: Assembly, key: str) -> Iterator[Compared]:
    """A box by the scale against its figures; only the latest weighing of a box counts."""
    for box in assembly.boxes.values():
        if box.weighed and box.weighed.key == key:
            kg, causes = computed(box)
            yield _held_against(box.box.name, box.weighed.kg, kg, box.weighed.tol_kg, root(t for _, t in causes))


def weighing_findings(weighings: list[WeighedRow]) -> Iterator[Finding]:
    """Every reading against its expectation: out of its ± one of the figures is wrong, and which is not known."""
    for weighed in weighings:
        for row in weighed.rows:
            subject, what = f"weighings/{weighed.id}", f"{plain(weighed.name).capitalize()}, {plain(row.name)}"
            if weighed.kind == "box":
                what = f"{plain(row.name)} by the scale"
            yield Finding(
                id=f"level:weighed:{weighed.id}:{row.name}",
                code="level.weighed",
                station="level",
                state="clear" if row.agrees else "unknown",
                subjects=(subject,),
                message=f"{what}: {{0}}, {{1}} ± {{2}} "
                f"expected{'' if row.agrees else '; one of the figures behind it is wrong'}",
                figures=(Figure(row.found_kg, "kg"), Figure(row.expected_kg, "kg"), Figure(row.tol_kg, "kg", "up")),
                value=row.found_kg,
                limit=row.expected_kg,
                margin=row.tol_kg - abs(row.off_kg),
                unit="kg",
                tolerance=row.tol_kg,
                rationale="expected against found; within the root of both ± squared they agree",
                label=row.name,
                working=lambda row=row: (  # type: ignore[misc]
                    Step("found", "by the scale, without who was aboard", row.found_kg, "kg", "scales"),
                    Step(
                        "expected",
                        "as weighed before, and what was done since",
                        row.expected_kg,
                        "kg",
                        "moments (statics)",
                    ),
                    Step("off by", "found − expected", row.off_kg, "kg"),
                    Step(
                        "they agree within",
                        "√(±² of both)",
                        row.tol_kg,
                        "kg",
                        "JCGM 100, from memory; k = 2, about 95 %",
                    ),
                ),
            )
