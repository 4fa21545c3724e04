"""What sits in the openings of a box: on flat wall, apart, clear of what is inside, with its room outside; and what a
sealed box is asked for."""

from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.tables import standard_tables
from levelcradle.core.edits import edited, fitted_in
from levelcradle.core.errors import OutOfRange
from tests.plain import a_block, box_at, found, lined, plain_car, space

AT = (1000.0, 0.0, 400.0)
GLAND = {"kind": "cable gland", "size": "M20", "seat_mm": 28.0, "out_mm": 24.0, "in_mm": 10.0}
STEEL, T, LINER = "s235", 3.0, 4.0


def hole(face: str, edges: tuple[str, str], u: float, v: float, **more: Any) -> dict[str, Any]:
    return {"name": "gland", "face": face, "from": list(edges), "u_mm": u, "v_mm": v, "diameter_mm": 20.5, **more}


def car(*holes: dict[str, Any], **more: Any) -> dict[str, Any]:
    openings = {f"o{n}": one for n, one in enumerate(holes)}
    return plain_car(boxes={"x": box_at(AT, (2, 2, 2), openings=openings, **more)})


def states(tree: dict[str, Any], code: str) -> list[str]:
    return [f.state for f in found(tree, code)]


def test_two_openings_leave_two_thicknesses_of_sheet_between_them() -> None:
    """6 for a sheet of 3; on two faces nothing is asked."""

    def told(apart: float, other: str = "front") -> list[str]:
        edges = ("left", "base")
        return states(car(hole("front", edges, 60, 80), hole(other, edges, 60 + apart, 80)), "box.openings")

    assert told(20.5 + 6.0) == []
    assert told(20.5 + 5.9) == ["foul"]
    assert told(20.5 + 5.9, "aft") == []


def test_what_sits_in_them_lies_side_by_side() -> None:
    def told(apart: float) -> list[str]:
        holes = (hole("front", ("left", "base"), at, 80, fitted=GLAND) for at in (60, 60 + apart))
        return states(car(*holes), "box.openings")

    assert told(28.0) == []
    assert told(27.9) == ["foul"]


CASE = {"type": "existing", "size_mm": (400.0, 300.0, 220.0), "wall_mm": 2, "base_mm": 2, "top_mm": 2, "mass_kg": 5}


@pytest.mark.parametrize("over", [-0.1, 0.1, 200.0])
@pytest.mark.parametrize("edges", [("left", "base"), ("right", "top")])
def test_an_opening_reaches_over_no_edge_of_its_face_whatever_the_box_is(over: float, edges: tuple[str, str]) -> None:
    """A case is not made here and asks nothing else of a hole; far off the face is over the edge too."""
    holes = (hole("front", edges, 28.0 / 2 - over, 80, fitted=GLAND),)
    told = states(car(*holes, construction=CASE, closures={}, layers={}), "box.openings")
    assert told == (["foul"] if over > 0 else [])


@pytest.mark.parametrize(
    "construction", [{}, {"construction": {"type": "framed"}, "closures": {"lid": {"type": "panel"}}}]
)
def test_a_seat_lies_on_flat_wall(construction: dict[str, Any]) -> None:
    """The hole alone may be nearer to the bend, or to the tube behind, than what sits in it."""

    def told(from_base: float, **more: Any) -> bool:
        tree = car(hole("front", ("left", "base"), 140, from_base, **more), **construction)
        return any(row.label in ("seat o0", "opening o0") for row in found(tree, "box.make"))

    least = 6.0 + 14.0 if not construction else 26.5 + 14.0  # behind the bend; beside the tube
    assert not told(least, fitted=GLAND)
    assert told(least - 0.1, fitted=GLAND)
    assert not told(least - 3.0)


def test_inside_it_keeps_five_off_modules_and_their_dividers() -> None:
    """10 of thread behind 3 of wall; the liner and what the front of the blocks leaves free is all there is to it."""

    def told(liner: float, in_mm: float = 10.0) -> tuple[str, float | None]:
        tree = car(
            hole("front", ("left", "base"), 60, 80, fitted={**GLAND, "in_mm": in_mm}),
            layers=lined(liner),
        )
        (row,) = found(tree, "box.opening")
        return row.state, row.value

    assert told(15.0) == ("clear", pytest.approx(5.0))
    assert told(14.9) == ("foul", pytest.approx(4.9))
    assert told(14.9, 9.9)[0] == "clear"


def test_inside_it_keeps_off_gear_that_is_fixed_there() -> None:
    def told(aft: float) -> str:
        place = {"type": "box", "box": "x", "face": "front", "from": ["left", "base"], "u_mm": 60.0, "v_mm": 80.0,
                 "off_mm": aft}  # fmt: skip
        relay = {**a_block((-10, -10, 0), (10, 10, 20)), "place": place, "name": "relay"}
        relay["solid"] = {"type": "block", "low_mm": [0, -10, -10], "high_mm": [20, 10, 10]}
        tree = car(hole("front", ("left", "base"), 60, 80, fitted=GLAND), layers=lined(80))
        (row,) = found({**tree, "items": {"relay": relay}}, "box.opening")
        return row.state

    assert told(18.0) == "clear"
    assert told(17.9) == "foul"


def test_outside_its_room_and_the_bend_of_its_cable_count_for_gaps() -> None:
    """24 out, then a bend of 65 to the outside of a cable 13 thick."""

    def to_a_wall(off: float, **more: Any) -> float | None:
        wall = a_block((700, -500, 300), (1000 - off, 500, 900), gap_class="same")
        rows = found(
            {**car(hole("front", ("left", "base"), 60, 80, fitted={**GLAND, **more})), "items": {"w": wall}}, "gap"
        )
        return next(f.value for f in rows if "items/w" in f.subjects)

    assert to_a_wall(50.0) == pytest.approx(50.0 - 24.0)
    assert to_a_wall(120.0, bend_radius_mm=65.0, line_mm=13.0) == pytest.approx(120.0 - 24.0 - 65.0 - 6.5)


def test_every_row_of_the_table_sits_on_more_wall_than_its_hole() -> None:
    for key, row in standard_tables().fitted.items():
        assert row.seat_mm > row.hole_mm, key
        assert row.source
        if row.kind == "cable gland":
            assert row.line_mm < row.hole_mm < float(row.size[1:]) + 1
            assert row.bend_radius_mm >= 4 * row.line_mm


def test_what_sits_in_openings_is_bought() -> None:
    from levelcradle.drawings import subject_of
    from levelcradle.drawings.sheets.lists import buying_list

    tree = car(
        *(hole("front", ("left", "base"), at, 80, fitted=GLAND) for at in (60, 160)),
        hole("aft", ("left", "base"), 60, 80),
    )
    rows = {row[0]: row[1] for row in buying_list(subject_of(resolve(validate(tree), {}))).rows}
    assert rows["cable gland M20"] == 2


# --- sealed ---


def asked(sealing: str | None, flags: dict[str, bool], *kinds: str) -> dict[str, str]:
    holes = (
        hole("front", ("left", "base"), 60 + 40 * n, 80, fitted={**GLAND, "kind": kind, "in_mm": 0})
        for n, kind in enumerate(kinds)
    )
    tree = car(*holes, sealing=sealing, bay="b")
    tree["bays"] = {"b": space((900, 1600), (400, 400), flags=flags)}
    return {f.label: f.state for code in ("box.space", "box.air") for f in found(tree, code)}


def test_a_sealed_box_is_asked_what_it_breathes_through() -> None:
    assert asked("gasket", {}) == {"breathes": "unknown"}
    assert asked("sealant", {}, "vent") == {"breathes": "note"}
    assert asked("gasket", {}, "drain") == {"breathes": "unknown"}
    assert asked("open", {}) == asked(None, {}) == {}


def test_where_it_is_wet_a_sealed_box_is_asked_for_a_drain_as_well() -> None:
    wet = {"wet": True}
    assert asked("gasket", wet) == {"sealed": "note", "breathes": "unknown", "drain": "unknown"}
    assert asked("gasket", wet, "vent", "drain") == {"sealed": "note", "breathes": "note", "drain": "note"}
    assert asked("open", wet) == {"sealed": "foul"}


@pytest.mark.parametrize(("face", "side"), [("top", "top"), ("left", "left"), ("front", "fore"), ("base", "floor")])
@pytest.mark.parametrize("yaw", [0.0, 180.0])
def test_where_it_is_wet_a_face_that_looks_out_is_sealed_and_one_that_looks_at_metal_keeps_splashes_out(
    face: str, side: str, yaw: float
) -> None:
    """Turned about, what looked at the open side looks at metal, and its fellow looks out."""

    def told(open_sides: list[str], keeps: str, sealing: str | None = "gasket") -> str:
        pose = {"anchor": "front-left-base", "at_mm": [1250.0, 0.0, 400.0], "yaw_deg": yaw}
        tree = car(sealing=sealing, bay="b", sides={face: keeps}, pose=pose)
        tree["bays"] = {"b": space((900, 1600), (400, 400), flags={"wet": True}, open_sides=open_sides)}
        return next(f.state for f in found(tree, "box.space"))

    back = {"top": "top", "floor": "floor", "left": "right", "fore": "aft"}[side] if yaw else side
    assert told([], "splash") == "note"
    assert told([back], "splash") == "foul"
    assert told([s for s in ("fore", "aft", "left", "right", "floor", "top") if s != back], "splash") == "note"
    assert told([], "open") == "foul"
    assert told([], "splash", "open") == "foul"
    assert told([], "splash", None) == "unknown"


def test_a_box_that_is_not_sealed_all_over_is_not_sealed_where_people_sit_and_breathes() -> None:
    tree = car(sealing="gasket", bay="b", sides={"top": "splash"})
    tree["bays"] = {"b": space((900, 1600), (400, 400), flags={"passenger": True})}
    states = {f.label: f.state for code in ("box.space", "box.air") for f in found(tree, code)}
    assert states == {"sealed": "foul", "vented": "unknown"}


def test_twenty_degrees_push_on_what_closes_it_as_shut_air_does() -> None:
    """p V = n R T: 101,325 Pa × 20 / 293.15 = 6.9 kPa, on the inside of the lid."""
    tree = car(sealing="gasket")
    (row,) = found(tree, "box.air")
    inner = resolve(validate(tree), {}).boxes["x"].shell.inner_mm
    assert "6.9 kPa" in row.rationale
    assert f"{101_325 * 20 / 293.15 * inner[0] * inner[1] * 1e-6:,.0f} N" in row.rationale


# --- put where it goes ---


@pytest.mark.parametrize(
    ("construction", "face"), [("folded", "top"), ("framed", "top"), ("framed", "aft"), ("framed", "left")]
)
def test_what_is_put_where_it_goes_is_clear_there_and_leaves_room_for_the_next(construction: str, face: str) -> None:
    """One after the other until a dozen sit in the box; none on what comes off."""
    made: dict[str, Any] = {"layers": lined(60, 30)}
    if construction == "framed":
        made |= {"construction": {"type": "framed"}, "closures": {"lid": {"type": "panel", "face": face}}}
    design = validate(car(**made))
    for key in ["vent", "drain", "connector", "tap-plug", *["gland-m20"] * 4, *["gland-m12"] * 4]:
        assembly = resolve(design, {})
        _, patch = fitted_in(assembly, "x", key)
        design = edited(design, patch)
    box = design.boxes["x"]
    assert len(box.openings) == 12
    assert face not in {hole.face for hole in box.openings.values()}
    tree = tree_of(design)
    assert states(tree, "box.openings") == []
    assert set(states(tree, "box.opening")) == {"clear"}
    assert not [f for f in found(tree, "box.make") if f.state == "foul"]


def test_a_drain_sits_lowest_and_a_breather_highest_as_the_box_stands() -> None:
    """Turned upside down the base of a case is up there; its lid comes off and takes neither."""
    for roll, low, high in ((0.0, "base", "sides"), (180.0, "sides", "base")):
        pose = {"anchor": "front-left-base", "at_mm": list(AT), "roll_deg": roll}
        assembly = resolve(validate(car(pose=pose, layers=lined(40, 30))), {})
        faces = {}
        for key in ("drain", "vent"):
            _, patch = fitted_in(assembly, "x", key)
            faces[key] = patch[0]["value"]["face"]
        assert {k: "base" if v == "base" else "sides" for k, v in faces.items()} == {"drain": low, "vent": high}


def test_it_is_put_where_its_room_outside_is_free_and_said_where_there_is_none_inside() -> None:
    """A wall close before the face that it would take sends it to another; a box without room takes nothing."""
    free = car(layers=lined(60))
    (op,) = fitted_in(resolve(validate(free), {}), "x", "connector")[1]
    face = op["value"]["face"]
    placed = resolve(validate(free), {}).boxes["x"]
    axis, far = FACE_AT[face]
    low, high = [v - 400.0 for v in AT], [v + 900.0 for v in AT]
    edge = AT[axis] + far * placed.shell.outer_mm[axis]
    low[axis], high[axis] = (edge + 20.0, edge + 60.0) if far else (edge - 60.0, edge - 20.0)
    walled = {**free, "items": {"w": a_block((low[0], low[1], low[2]), (high[0], high[1], high[2]))}}
    (other,) = fitted_in(resolve(validate(walled), {}), "x", "connector")[1]
    assert other["value"]["face"] != face
    with pytest.raises(OutOfRange, match="No face of X has room"):
        fitted_in(resolve(validate(car()), {}), "x", "disconnect")


@pytest.mark.parametrize(
    ("kind", "asked_for"), [("cable gland", True), ("vent", False), ("pressure relief", False), ("drain", False)]
)
def test_a_hand_joins_what_is_joined_and_nothing_else(kind: str, asked_for: bool) -> None:
    one = hole("front", ("left", "base"), 60, 80, fitted={**GLAND, "kind": kind})
    wall = a_block((700, -500, 300), (950, 500, 900), gap_class="same")
    assert states({**car(one), "items": {"w": wall}}, "access.reach") == (["foul"] if asked_for else [])


# --- what a vent blows at, metals, seals ---

VENT = {"kind": "vent", "size": "M12", "seat_mm": 20.0, "out_mm": 10.0, "in_mm": 8.0}


def blows(tree: dict[str, Any]) -> list[tuple[str, str]]:
    return [(f.state, f.message) for f in found(tree, "box.relief")]


@pytest.mark.parametrize(
    ("away", "gap_class", "state"),
    [(290.0, "hot", "foul"), (290.0, "warm", "foul"), (290.0, "same", "note"), (310.0, "hot", "clear")],
)
def test_a_vent_blows_at_nothing_hot_within_thirty_centimetres(away: float, gap_class: str, state: str) -> None:
    tree = car(hole("front", ("left", "base"), 60, 60, fitted=VENT))
    box = resolve(validate(tree), {}).boxes["x"]
    x = box.placement.point((0.0, 0.0, 0.0))[0] - away
    tree["items"] = {"w": a_block((x - 50, -500.0, 300.0), (x, 900.0, 900.0), gap_class=gap_class)}
    assert [row[0] for row in blows(tree)] == [state]


def test_a_vent_never_blows_at_people_but_is_led_outside() -> None:
    bay = space((800.0, 1600.0), (700.0, 700.0), flags={"passenger": True})
    tree = car(hole("front", ("left", "base"), 60, 60, fitted=VENT), bay="b")
    tree["bays"] = {"b": bay}
    assert [row[0] for row in blows(tree)] == ["foul"]
    tree["boxes"]["x"]["vented_outside"] = True
    assert [row[0] for row in blows(tree)] == ["note"]


def test_where_there_is_a_pressure_relief_it_blows_and_the_breather_does_not() -> None:
    """The breather looks at something hot; the relief, on the other side, into the open."""
    tree = car(hole("front", ("left", "base"), 60, 60, fitted=VENT))
    box = resolve(validate(tree), {}).boxes["x"]
    x = box.placement.point((0.0, 0.0, 0.0))[0] - 100
    tree["items"] = {"w": a_block((x - 50, -500.0, 300.0), (x, 900.0, 900.0), gap_class="hot")}
    assert [row[0] for row in blows(tree)] == ["foul"]
    relief = hole("aft", ("left", "base"), 60, 60, fitted={**VENT, "kind": "pressure relief"})
    tree["boxes"]["x"]["openings"]["relief"] = relief
    assert [row[0] for row in blows(tree)] == ["clear"]


@pytest.mark.parametrize(
    ("material", "wet", "state"), [("s235", True, None), ("al5754", False, "note"), ("al5754", True, "tight")]
)
def test_steel_on_aluminium_is_said_and_tight_where_it_is_wet(material: str, wet: bool, state: str | None) -> None:
    tree = car(material=material, bay="b")
    tree["bays"] = {"b": space((800.0, 1600.0), (700.0, 700.0), flags={"wet": True} if wet else {})}
    assert [f.state for f in found(tree, "box.metals")] == ([state] if state else [])


def test_gasket_by_the_metre_and_sealant_by_whole_cartridges() -> None:
    def bought(sealing: str | None) -> list[tuple[str, int]]:
        shell = resolve(validate(car(sealing=sealing)), {}).boxes["x"].shell
        round_m = 2 * (shell.inner_mm[0] + shell.inner_mm[1]) / 1000
        return [
            (what.replace(f"{round_m:.2f}", "N"), n)
            for what, n in shell.bought()
            if not {"screw", "bonding", "drying"} & set(what.split())
        ]

    assert bought(None) == bought("open") == []
    assert bought("gasket") == [("gasket strip, N m, closing the box", 1)]
    assert bought("sealant") == [("cartridge of sealant, N m of bead", 1)]
