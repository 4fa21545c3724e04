"""What does not agree, is missing or only assumed is told; what could turn a verdict is measured twice."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Finding, message_text
from levelcradle.core.survey import carriers_near, depth_behind, still_to_measure, swing, twice

KNOWN = ((0.0, 0.0, 300.0), (1000.0, 0.0, 320.0), (400.0, 800.0, 500.0))
place = st.tuples(st.floats(-500, 1500), st.floats(100, 900), st.floats(900, 1500))


def told(tree: dict[str, Any]) -> dict[str, Finding]:
    return {f.id: f for f in analyse(validate(tree), {}).findings}


@given(there=place, error=st.floats(-1, 1))
def test_three_tapes_find_the_point_they_were_taken_from(there: tuple[float, float, float], error: float) -> None:
    lengths = [math.dist(k, there) for k in KNOWN]
    found = swing(KNOWN, lengths, (there[0] + 90, there[1] - 80, there[2] + 60))
    assert found is not None
    assert found.misfit_mm < 1e-3
    assert math.dist(found.at, there) < 0.01 or found.misfit_mm < 1e-3
    off = swing((*KNOWN, (500.0, -300.0, 900.0)), [*lengths, math.dist((500.0, -300.0, 900.0), there) + 20], there)
    assert off is not None
    assert off.misfit_mm > 1


def test_the_nearer_of_two_meeting_places_is_taken() -> None:
    lengths = [math.dist(k[:2], (500, 300)) for k in KNOWN[:2]]
    flat = [(x, y, 300.0) for x, y, _ in KNOWN[:2]]
    assert swing(flat, lengths, (450, 200, 300)).at == pytest.approx((500, 300, 300), abs=1e-3)  # type: ignore[union-attr]
    assert swing(flat, lengths, (450, -200, 300)).at == pytest.approx((500, -300, 300), abs=1e-3)  # type: ignore[union-attr]


def test_tapes_that_cannot_meet_or_place_nothing() -> None:
    short = swing(KNOWN[:2], (300.0, 300.0), (500.0, 100.0, 300.0))
    assert short is not None
    assert short.misfit_mm > 100
    assert swing(KNOWN[:1], (300.0,), (0.0, 0.0, 0.0)) is None
    assert swing(((0, 0, 1), (0, 0, 900)), (300.0, 300.0), (10.0, 0.0, 0.0)) is None


def test_a_reference_no_longer_where_its_tapes_meet(tree: dict[str, Any]) -> None:
    hooks = ("seat-seam", "sill-underside", "rear-panel-lip")
    seam = [tree["references"][k]["at_mm"] for k in hooks]
    tapes = {
        k: {"hooked": k, "length_mm": round(math.dist(p, (2500, 100, 700)), 1)}
        for k, p in zip(hooks, seam, strict=True)
    }
    tree["references"]["new"] = {"name": "spring hanger", "at_mm": [2500, 100, 700], "tapes": tapes}
    assert told(tree)["survey:tapes:new"].state == "clear"
    tree["references"]["seat-seam"]["at_mm"] = [1600, 0, 540]
    assert told(tree)["survey:tapes:new"].state == "unknown"
    tree["references"]["new"]["tapes"]["seat-seam"]["hooked"] = "new"
    with pytest.raises(DesignError, match="cannot be hooked on the point it places"):
        validate(tree)


def test_diagonals_duties_faults_and_stance_are_told(tree: dict[str, Any]) -> None:
    corners = ({"station": "a", "corner": "left_floor"}, {"station": "a", "corner": "right_top"})
    key = next(iter(tree["bays"]["tank"]["stations"]))
    for corner in corners:
        corner["station"] = key
    tree["bays"]["tank"]["diagonals"] = {"d": {"one": corners[0], "other": corners[1], "length_mm": 820.0}}
    tree["duties"] = {"vacuum": {"name": "brake vacuum", "kind": "vacuum", "was": "engine"}}
    tree["snags"] = {"rust": {"name": "rust at the left sill"}}
    tree["members"] = {"cross": {"name": "crossmember", "start_mm": [2400, -400, 640], "end_mm": [2400, 400, 640],
    "width_mm": 40,
                                 "height_mm": 30, "condition": "cracked"}}  # fmt: skip
    tree["vehicle"]["stance"] = {
        "engine": "in",
        "stands": "wheels",
        "arches": {"lf_mm": 640, "rf_mm": 640, "lr_mm": 650, "rr_mm": 650},
    }
    tree["vehicle"]["stance_after"] = {"engine": "out", "stands": "wheels",
                                       "arches": {"lf_mm": 675, "rf_mm": 675, "lr_mm": 645, "rr_mm": 645}}  # fmt: skip
    found = told(tree)
    assert (
        message_text(found["survey:diagonal:tank:d"]) == "tank space: a diagonal misses by 17.8 mm, 3.7° out of square"
    )
    assert found["survey:duty:vacuum"].state == "unknown"
    assert found["survey:snag:rust"].state == "note"
    assert found["survey:member:cross"].state == "foul"
    assert (
        message_text(found["survey:stance-after"])
        == "Front arches 35.0 mm higher than when measured, rear -5.0 mm: nose up by 0.92°"
    )


def test_taken_twice(tree: dict[str, Any]) -> None:
    path = "/items/axle/solid/high_mm/0"
    tree["readings"][path] = {"text": "2660", "unit": "mm", "basis": "measured", "again_mm": 2668.0}
    assert (
        message_text(told(tree)[f"survey:twice:{path}"])
        == "axle at full bump: its aft face: 2660.0 mm the first time, 2668.0 mm the second"
    )


def test_still_to_measure_puts_what_moves_most_first(tree: dict[str, Any]) -> None:
    tree["items"]["motor"]["mass_kg"] = None
    tree["readings"]["/items/engine/mass_kg"] = {"text": "134", "unit": "kg", "basis": "assumed"}
    rows = still_to_measure(validate(tree), "loads")
    assert (rows[0].path, rows[0].moves) == ("items/motor/mass_kg", None)
    assert rows[1].path == "items/engine/mass_kg"
    assert rows[1].moves == pytest.approx(0.2 * 134 * (1 - 70 / 2480))
    assert [r.moves for r in rows[1:]] == sorted((r.moves for r in rows[1:]), key=lambda m: -(m or 0))
    tree["vehicle"]["cg_height"] = None
    assert "vehicle/cg_height" in [r.path for r in still_to_measure(validate(tree), "level")]
    tree["bays"]["tank"]["sides"]["left"]["is"] = "not measured"
    tree["items"]["axle"]["solid"] = None
    paths = [r.path for r in still_to_measure(validate(tree), "clearances") if r.moves is None]
    assert {"bays/tank/sides/left", "items/axle/solid"} <= set(paths)


def test_measure_twice_names_what_would_turn_a_verdict(tree: dict[str, Any]) -> None:
    """The bar under the tank box is 22.0 clear where 20 is needed; its upper face 5 mm wrong makes it foul."""
    rows = {row.path: row for row in twice(validate(tree), {})}
    assert "items/anti-roll-bar/solid/high_mm/2" in rows
    assert "items/exhaust/at_mm/0" not in rows
    assert "items/brake-pipes/solid/low_mm/0" not in rows


def test_what_is_behind_a_hole_and_what_could_carry_a_box(tree: dict[str, Any]) -> None:
    assembly = resolve(validate(tree), {})
    through_the_floor = depth_behind(assembly, (2450.0, 0.0, 700.0), (0.0, 0.0, -1.0))
    assert through_the_floor is not None
    assert (through_the_floor.path, through_the_floor.depth_mm) == ("items/axle", pytest.approx(215.0))
    into_the_box = depth_behind(assembly, (2760.0, 100.0, 700.0), (0.0, 0.0, -1.0))
    assert into_the_box is not None
    assert into_the_box.path.startswith(("boxes/", "bays/"))
    assert depth_behind(assembly, (9000.0, 0.0, 5000.0), (0.0, 0.0, 1.0)) is None
    near = carriers_near(assembly.design, "tank")
    assert len(near) == 4
    assert all("wall not known" in row.message for row in near)
    assert [row.distance_mm for row in near] == sorted(row.distance_mm for row in near)


def test_points_that_do_not_go_round_are_foul_until_they_do(tree: dict[str, Any]) -> None:
    """They are typed one by one, so a crossing outline is told and not refused; drawings are held back meanwhile."""

    def points(*places: tuple[float, float]) -> dict[str, Any]:
        rows = {f"p{n}": {"across_mm": x, "up_mm": z, "order": n} for n, (x, z) in enumerate(places)}
        return {"type": "points", "aft_mm": 500.0, "points": rows}

    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2685.0
    for places, crossed in (
        (((0, 300), (200, 300), (200, 500), (0, 500)), False),
        (((0, 300), (200, 500), (200, 300), (0, 500)), True),
        (((0, 300), (100, 300), (200, 300)), True),
    ):
        tree["bays"]["odd"] = {
            "name": "odd space",
            "stations": {"a": points(*places)},
            "depth_mm": 200.0,
            "sides": {
                side: {"is": "open", "gap_class": "other"} for side in ("fore", "aft", "left", "right", "floor", "top")
            },
        }
        found = analyse(validate(tree), {})
        told = [f for f in found.findings if f.code == "survey.crossed"]
        assert [f.message for f in told] == (
            ["odd space, station 1: its points do not go round in order"] if crossed else []
        )
        assert found.released is not crossed


def test_a_member_needs_a_length(tree: dict[str, Any]) -> None:
    tree["members"]["rail"] = {
        "name": "rail",
        "start_mm": [0, 0, 0],
        "end_mm": [0, 0, 0.5],
        "width_mm": 40,
        "height_mm": 60,
    }
    with pytest.raises(DesignError) as refused:
        validate(tree)
    assert [(p.path, p.message) for p in refused.value.problems] == [
        ("/members/rail/end_mm", "must not be where the member starts")
    ]
