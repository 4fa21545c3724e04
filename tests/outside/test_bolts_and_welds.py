"""Bolts, bearing and welds against the standards' formulas and tables.

Sources: ISO 898-1 (stress areas, proof stresses), ISO 273, ISO 7089 and ISO 4017 (holes, washers, heads), EN 1993-1-8
tables 3.3 and 3.4, 4.5.3.3 and table 4.1. Table values were recalled from memory and agree with the formulas.
"""

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.bar import Tube
from levelcradle.core.connection.angle.checks import (
    AngleJoint,
    bearing_capacity_n,
    bolt,
    fatigue,
    toe_stress_mpa,
    utilisations,
)
from levelcradle.core.connection.hold import Load, WeldedPlate
from levelcradle.core.connection.hold.weld_group import WeldGroup
from levelcradle.core.design import Mount, standard_tables
from levelcradle.core.design.mount import Angle, Bolt, Doubler, OnHardPoint, Plugs, Welded
from levelcradle.core.design.refused import STRONGEST_MPA
from levelcradle.core.strength import (
    ROOT_MPA,
    TOE_MPA,
    Beams,
    bearing_n,
    bolt_capacity,
    bolt_group,
    buckles,
    patch_n,
    tightening,
    toe_pull,
    tube_plastic_mm3,
    weld_mpa,
)
from tests.plain import wall_of

TABLES = standard_tables()


def joint(
    size: str = "M10", grade: str = "8.8", material: str = "s355", c_mm: float = 60.0, **bracket: float
) -> AngleJoint:
    mount = Mount(
        name="m",
        carries={"boxes/b": True},
        face="left",
        shape=Angle(material=material, **bracket),  # type: ignore[arg-type]
        lands_on=OnHardPoint(hardpoint="h", bolt=Bolt(size=size, property_class=grade)),
    )
    return AngleJoint.of(mount, c_mm, wall_of(TABLES.materials["s235"], 3.0, 245.0), "s235", TABLES)


def welded(found: AngleJoint) -> WeldedPlate:
    assert isinstance(found.plate, WeldedPlate)
    return found.plate


def arrays(load: tuple[float, float, float]) -> Load:
    n, d, w = (np.array(v) for v in load)
    return n, d, w


@pytest.mark.parametrize(
    ("size", "printed"),
    [("M5", 14.2), ("M6", 20.1), ("M8", 36.6), ("M10", 58.0), ("M12", 84.3), ("M14", 115.0), ("M16", 157.0)],
)
def test_stress_areas_follow_the_thread(size: str, printed: float) -> None:
    """As = π/4 ((d2 + d3)/2)², d2 = d − 0.649519 P, d3 = d − 1.226869 P (ISO 898-1)."""
    bolt = TABLES.bolts[size]
    mean = bolt.d_mm - (0.649519 + 1.226869) / 2 * bolt.pitch_mm
    assert bolt.stress_area_mm2 == printed
    assert math.pi / 4 * mean**2 == pytest.approx(printed, rel=4e-3)


@pytest.mark.parametrize(
    ("size", "hole", "washer", "flats", "head"),
    [
        ("M8", 9.0, (8.4, 16, 1.6), 13, 5.3),
        ("M10", 11.0, (10.5, 20, 2.0), 16, 6.4),
        ("M12", 13.5, (13.0, 24, 2.5), 18, 7.5),
    ],
)
def test_holes_washers_and_heads(size: str, hole: float, washer: tuple[float, ...], flats: float, head: float) -> None:
    """ISO 273 medium; ISO 7089 d1, d2, h; ISO 4017 s, k."""
    bolt = TABLES.bolts[size]
    assert bolt.clearance_hole_mm == hole
    assert (bolt.washer_hole_mm, bolt.washer_mm, bolt.washer_thick_mm) == washer
    assert (bolt.across_flats_mm, bolt.head_mm) == (flats, head)


@pytest.mark.parametrize(
    ("grade", "strengths"), [("4.6", (400, 225)), ("5.8", (500, 380)), ("8.8", (800, 580)), ("10.9", (1000, 830))]
)
def test_property_classes(grade: str, strengths: tuple[float, ...]) -> None:
    """Nominal fub by the name of the class (EN 1993-1-8 table 3.1); stress under proof load (ISO 898-1 table 3)."""
    row = TABLES.bolt_classes[grade]
    assert (row.ultimate_mpa, row.proof_mpa) == strengths


@pytest.mark.parametrize(
    ("size", "shear", "tension"), [("M8", 14.0544, 21.0816), ("M10", 22.272, 33.408), ("M12", 32.3712, 48.5568)]
)
def test_resistance_of_a_bolt_in_class_8_8(size: str, shear: float, tension: float) -> None:
    """Threads in the shear plane, αv 0.6, γM2 1.25 [kN]."""
    assert bolt_capacity(joint(size).bolt, joint(size).grade) == pytest.approx((tension * 1e3, shear * 1e3), rel=2e-3)


@pytest.mark.parametrize(("grade", "shear"), [("10.9", 33720.0), ("4.6", 16185.6), ("4.8", 13488.0)])
def test_shear_factor_of_other_classes(grade: str, shear: float) -> None:
    assert bolt_capacity(joint("M12", grade).bolt, joint("M12", grade).grade)[1] == pytest.approx(shear, rel=2e-3)


def test_torque_and_preload_of_m10_8_8() -> None:
    """0.75 of the proof load 25,225 N; K 0.20: 50.45 N·m; 0.7 of it left."""
    torque, least = tightening(joint().bolt, joint().preload_n)
    assert torque == pytest.approx(50.45, rel=3e-3)
    assert least == pytest.approx(0.7 * 25225.5, rel=3e-3)


def test_bearing_of_an_m12_in_3_mm_s235() -> None:
    """d0 13, e1 20, e2 20: αb 0.5128, k1 2.5, 13.29 kN. With this table's hole of 13.5: αb 0.4938, k1 2.448."""
    found = bearing_capacity_n(joint("M12", "8.8", "s235", thickness_mm=3.0, toe_mm=20.0, width_mm=40.0))
    alpha, k1 = 20 / (3 * 13.5), 2.8 * 20 / 13.5 - 1.7
    assert found == pytest.approx(k1 * alpha * 360 * 12 * 3 / 1.25, rel=1e-9)
    by_the_example = found * (0.512821 / alpha) * (2.5 / k1)
    assert by_the_example == pytest.approx(13292.3, rel=2e-3)


@pytest.mark.parametrize(("legs", "throat"), [(3.0, 2.1213), (4.0, 2.8284)])
def test_throat_of_an_equal_leg_fillet(legs: float, throat: float) -> None:
    """a = leg cos 45°, in parts thick enough not to limit it."""
    mount = replace(joint().mount, to_box=Welded(leg_mm=legs))
    thick = AngleJoint.of(mount, 60.0, wall_of(TABLES.materials["s235"], 8.0, 245.0), "s235", TABLES)
    assert welded(thick).throat_mm == pytest.approx(throat, rel=1e-3)


@pytest.mark.parametrize(("material", "strength"), [("s235", 207.846), ("s355", 241.204)])
def test_design_strength_of_fillets(material: str, strength: float) -> None:
    """fu / (√3 βw γM2), βw 0.8 and 0.9, fu 360 and 470."""
    row = TABLES.materials[material]
    assert row.ultimate_mpa / (math.sqrt(3) * (row.beta_w or 0) * 1.25) == pytest.approx(strength, rel=1e-3)


def test_the_weaker_part_counts_in_a_weld() -> None:
    assert welded(joint()).weld_strength_mpa == pytest.approx(207.846, rel=1e-3)


def test_edge_distance_of_an_m10() -> None:
    """1.2 d0 = 13.2 (EN 1993-1-8 table 3.3)."""
    assert 1.2 * TABLES.bolts["M10"].clearance_hole_mm == pytest.approx(13.2)


def line_of(points: list[tuple[float, float]], step: float = 0.05) -> np.ndarray:
    """(k, 2) points along a run of weld, evenly."""
    rows = [np.linspace(a, b, int(math.dist(a, b) / step) + 1)[:-1] for a, b in itertools.pairwise(np.array(points))]
    return np.concatenate(rows)


def most_by_summing(run: np.ndarray, corners: np.ndarray, forces: np.ndarray, moments: np.ndarray) -> float:
    """Largest force per length at the corners, the group's second moments summed up piece by piece. (d, w, n), weld in
    the w-n plane.

    Source: line-weld method (statics), by numerical integration.
    """
    length, (i_n, i_w) = len(run) * 0.05, (run**2).sum(axis=0) * 0.05
    m_d, m_w, m_n = moments
    rows = []
    for w, n in corners:
        turn = np.array((m_w / i_w * n - m_n / i_n * w, -m_d / (i_w + i_n) * n, m_d / (i_w + i_n) * w))
        rows.append(np.linalg.norm(forces / length + turn))
    return float(max(rows))


@pytest.mark.parametrize(("b", "d"), [(90.0, 60.0), (40.0, 100.0)])
def test_fillets_on_three_sides_are_those_of_the_handbooks(b: float, d: float) -> None:
    """Treated as a line, two legs b and one d across their end: J = (2b + d)³/12 − b²(b + d)²/(2b + d), its middle
    b²/(2b + d) off the end (handbooks of welded structures, properties of welds treated as lines, from memory).
    Across it the turning moment is that of the load about that middle; the free ends of the legs are worst."""
    group = WeldGroup((((-d / 2, 0.0), (-d / 2, b)), ((d / 2, 0.0), (d / 2, b)), ((-d / 2, b), (d / 2, b))))
    long = 2 * b + d
    polar, middle = long**3 / 12 - b**2 * (b + d) ** 2 / long, b - b**2 / long
    turn = 1000.0 * middle / polar  # from the bolt at 0, up to the middle
    free, end = (math.hypot(1000.0 / long - turn * n, turn * d / 2) for n in (-middle, b - middle))
    assert float(group.fillet(arrays((0.0, 0.0, 1000.0)), 0.0)) == pytest.approx(max(free, end), rel=1e-9)


def test_along_the_plate_a_plug_is_stressed_as_its_fillets_are() -> None:
    """Fw,Rd = fvw,d Aw, Aw the hole's area (EN 1993-1-8 4.6 and 4.5.3.3, from memory): so much metal as sheared evenly
    bears alike."""
    mount = replace(joint().mount, to_box=Welded(plugs=Plugs(hole_mm=18.0, count=2)))
    found = AngleJoint.of(mount, 60.0, wall_of(TABLES.materials["s235"], 8.0, 245.0), "s235", TABLES)
    plate = replace(welded(found), c_mm=0.0)
    uses = plate.utilisations(arrays((10_000.0, 0.0, 0.0)), road=np.array(False))
    area = plate.throat_mm * 2 * (90.0 - 2 * plate.throat_mm) + 2 * math.pi * 9.0**2
    assert float(uses["weld"]()) == pytest.approx(10_000.0 / area / 207.846, rel=1e-3)
    assert float(uses["plugs"]()) == pytest.approx(float(uses["weld"]()), rel=1e-6)


@pytest.mark.parametrize("load", [(1000.0, 0.0, 0.0), (0.0, 1000.0, 0.0), (0.0, 0.0, 1000.0), (700.0, -2100.0, 1500.0)])
def test_the_welds_of_bracket_and_doubler_by_summing_them_up(load: tuple[float, float, float]) -> None:
    n, d, w = load
    to_box = Welded(doubler=Doubler(along_w_mm=150.0, along_n_mm=110.0, from_contact_mm=12.0))
    mount = replace(joint("M10").mount, to_box=to_box)
    found = AngleJoint.of(mount, 60.0, wall_of(TABLES.materials["s235"], 3.0, 245.0), "s235", TABLES)
    plate, bracket = to_box.doubler, mount.shape
    assert plate is not None
    a, b = plate.along_w_mm / 2, plate.along_n_mm / 2
    square = [(-a, -b), (a, -b), (a, b), (-a, b)]
    c, up = 60.0 + plate.thickness_mm, plate.from_contact_mm + b
    moments = np.cross((c, 0.0, -up), (d, w, n))
    by_hand = most_by_summing(line_of([*square, square[0]]), np.array(square), np.array((d, w, n)), moments)
    assert float(welded(found).doubler_weld_line(plate, arrays(load))) == pytest.approx(by_hand, rel=5e-3)
    half, le = bracket.width_mm / 2, to_box.length_mm / 2 - welded(found).throat_mm
    sides = np.concatenate([line_of([(s * half, -le), (s * half, le)]) for s in (-1, 1)])
    moments = np.cross((60.0, 0.0, -(to_box.from_mm + to_box.length_mm / 2)), (d, w, n))
    ends = np.array([(s * half, t * le) for s in (-1, 1) for t in (-1, 1)])
    by_hand = most_by_summing(sides, ends, np.array((d, w, n)), moments)
    assert float(welded(found).weld_line(arrays(load))) == pytest.approx(by_hand, rel=5e-3)


@given(
    steps=st.lists(st.floats(2, 60), min_size=1, max_size=5), beyond=st.floats(2, 100), lift=st.floats(-1000, 10_000)
)
def test_a_lifted_leg_on_its_toe_is_in_balance(steps: list[float], beyond: float, lift: float) -> None:
    """Statics: what the bolts pull less the lift presses at the toe, no further out than the free edge, and the moments
    about the line of the lift are equal; a leg that bears little levers little."""
    rows = tuple(itertools.accumulate(steps))
    pulls = toe_pull(np.array(lift), rows, rows[-1] + beyond)
    toe = float(pulls.sum()) - max(lift, 0.0)
    assert (pulls >= 0).all()
    assert toe >= -1e-6
    if toe > 1e-6:
        assert float(pulls @ np.array(rows)) / toe == pytest.approx(min(rows[-1] + beyond, 2.25 * rows[-1]))
    assert toe_pull(np.array(lift), (0.0,), 20.0).tolist() == [max(lift, 0.0)]
    soft = toe_pull(np.array(lift), rows[:1], rows[0] + beyond, leg_n_mm=1e-6)
    assert float(soft[0]) == pytest.approx(max(lift, 0.0), abs=1e-3)


@pytest.mark.parametrize("pull", [0.0, 500.0, 1500.0])
def test_on_the_road_a_pull_takes_from_what_holds_by_friction(pull: float) -> None:
    """V ≤ 0.15 (Fmin − T) / 1.25 and T ≤ Fmin / 1.25, Fmin 0.7 of 0.75 of the proof load of M10 8.8 (580 MPa, 58.0 mm²:
    17,661 N)."""
    found = joint("M10", c_mm=60.0)
    lever = pull * (1 + found.b1_mm / min(25.0, 1.25 * found.b1_mm))
    utilisation = bolt(found, np.array(pull), np.array(600.0), np.array(800.0), road=True)
    assert float(utilisation) == pytest.approx(
        max(1.25 * 1000 / (0.15 * (17661 - lever)), 1.25 * lever / 17661), rel=1e-3
    )


def test_a_doublers_weld_bears_what_its_steel_does() -> None:
    """S235: 207.8 MPa on the throat (EN 1993-1-8 4.5.3.3)."""
    plate = Doubler()
    found = AngleJoint.of(
        replace(joint("M10").mount, to_box=Welded(doubler=plate)),
        60.0,
        wall_of(TABLES.materials["s235"], 3.0, 245.0),
        "s235",
        TABLES,
    )
    load = (np.array(0.0), np.array(5000.0), np.array(0.0))
    per_mm = float(welded(found).doubler_weld_line(plate, load))
    throat = min(4.0 / math.sqrt(2), 0.7 * 3.0)
    assert float(found.plate.utilisations(load, road=False)["doubler weld"]()) == pytest.approx(
        per_mm / (throat * 207.846), rel=1e-4
    )


# --- inch bolts: SAE J429, ASME B1.1 and B18.2.1; from memory ---


@pytest.mark.parametrize(
    ("size", "threads", "inches2", "hole_in"),
    [
        ("1/4-20", 20, 0.0318, 9 / 32),
        ("5/16-18", 18, 0.0524, 11 / 32),
        ("3/8-16", 16, 0.0775, 13 / 32),
        ("7/16-20", 20, 0.1187, 15 / 32),
        ("1/2-13", 13, 0.1419, 9 / 16),
    ],
)
def test_inch_stress_areas_follow_the_thread(size: str, threads: int, inches2: float, hole_in: float) -> None:
    """As = π/4 (d − 0.9743 / n)² (ASME B1.1); holes ASME B18.2.8, normal."""
    bolt = TABLES.bolts[size]
    whole, part = size.split("-")[0].split("/")
    diameter = int(whole) / int(part)
    assert bolt.d_mm == pytest.approx(diameter * 25.4, abs=0.006)
    assert bolt.pitch_mm == pytest.approx(25.4 / threads, abs=0.001)
    assert bolt.stress_area_mm2 == pytest.approx(inches2 * 645.16, abs=0.06)
    assert math.pi / 4 * (diameter - 0.9743 / threads) ** 2 == pytest.approx(inches2, abs=1e-4)
    assert bolt.clearance_hole_mm == pytest.approx(hole_in * 25.4, abs=0.006)


@pytest.mark.parametrize(("grade", "proof_ksi", "tensile_ksi"), [("grade 5", 85, 120), ("grade 8", 120, 150)])
def test_grades_of_inch_bolts(grade: str, proof_ksi: float, tensile_ksi: float) -> None:
    row = TABLES.bolt_classes[grade]
    assert (row.proof_mpa, row.ultimate_mpa) == pytest.approx((proof_ksi * 6.8948, tensile_ksi * 6.8948), abs=0.7)
    ft, _ = bolt_capacity(TABLES.bolts["3/8-16"], row)
    assert ft == pytest.approx(0.9 * tensile_ksi * 6.8948 * 50.0 / 1.25, rel=1e-3)
    assert row.ultimate_mpa <= STRONGEST_MPA


# --- aluminium: EN 1999-1-1 tables 3.2 and 8.8, 6.1.6, 8.5.9.1, 8.6.3; all from memory ---


def aluminium(key: str, **bracket: float) -> AngleJoint:
    mount = Mount(
        name="m",
        carries={"boxes/b": True},
        face="left",
        shape=Angle(material=key, **bracket),  # type: ignore[arg-type]
        to_box=Welded(from_mm=22, length_mm=90, leg_mm=4),
        lands_on=OnHardPoint(hardpoint="h"),
    )
    return AngleJoint.of(mount, 60.0, wall_of(TABLES.materials[key], 5.0, 245.0), key, TABLES)


@pytest.mark.parametrize(
    ("key", "yields", "breaks", "throat_mpa"),
    [
        ("al5083", 125.0, 275.0, 240 / (math.sqrt(3) * 1.25)),  # O and H111 lose nothing; filler 5356: 240
        ("al5754", 80.0, 190.0, 170 / (math.sqrt(3) * 1.25)),  # H22 is annealed; filler 5356, as 5052: 170
    ],
)
def test_aluminium_beside_a_weld(key: str, yields: float, breaks: float, throat_mpa: float) -> None:
    found = aluminium(key)
    assert (found.plate.yield_mpa, welded(found).weld_strength_mpa) == (yields, pytest.approx(throat_mpa))
    bearing = 2.5 * min(25 / 33, 1.0) * breaks * 10 * 6 / 1.25  # table 8.5, as for steel: e1 25, M10 in 11, t 6
    assert bearing_capacity_n(found) == pytest.approx(bearing)


def test_aluminium_is_shaken_less() -> None:
    """16 MPa at a weld's toe and 9 in its throat, two million times; steel 46.7 and 26.7 (EN 1999-1-3, EN 1993-1-9)."""
    load = arrays((800.0, -900.0, 400.0))
    for found, toe, root in ((aluminium("al5083"), 16.0, 9.0), (joint(), 63 / 1.35, 36 / 1.35)):
        used, plate = dict(fatigue(found, *load)), welded(found)
        line = float(plate.weld_line(load))
        assert float(used["fatigue in the weld"]) == pytest.approx(2 * line / plate.throat_mm / root)
        stress = float(toe_stress_mpa(found, *load))
        assert float(used["fatigue at the weld's toe"]) == pytest.approx(2 * stress / toe)


def test_where_the_sheet_is_softer_than_its_weld_the_fillets_leg_decides() -> None:
    """EN 1999-1-1 8.6.3: the leg is √2 times the throat; of sheet with fu,haz 60 less than of weld metal with 170."""
    of = TABLES.materials["al5754"]
    soft = of.model_copy(update={"welded_ultimate_mpa": 60.0})
    assert weld_mpa((of, soft)) == pytest.approx(math.sqrt(2) * 60 / (math.sqrt(3) * 1.25))


def test_a_bolt_presses_soft_aluminium_no_further_than_it_yields() -> None:
    """M10 8.8 is drawn to 0.75 × 580 × 58.0 = 25,230 N; its washer's ring of 219.1 mm² bears 17,529 N at 80 MPa."""
    assert aluminium("al5754").preload_n == pytest.approx(80 * math.pi / 4 * (20**2 - 11**2))
    assert aluminium("al5083").preload_n == pytest.approx(25_230)
    assert joint().preload_n == pytest.approx(25_230)


@given(soft=st.floats(20, 130), weld=st.floats(60, 260), load=st.tuples(*[st.floats(-9000, 9000)] * 3))
def test_no_metal_bears_more_where_less_is_left_of_it(
    soft: float, weld: float, load: tuple[float, float, float]
) -> None:
    """Whatever the load: a weaker weld, or softer sheet beside it, is used no less."""
    arrays = tuple(np.array(v) for v in load)
    of = TABLES.materials["al5754"]
    mine = of.model_copy(update={"welded_yield_mpa": min(soft, 80.0), "weld_metal_mpa": min(weld, 170.0)})
    tables = TABLES.model_copy(update={"materials": {**TABLES.materials, "mine": mine}})
    mount = replace(aluminium("al5754").mount, shape=Angle(material="mine"))
    weaker = AngleJoint.of(mount, 60.0, wall_of(mine, 5.0, 245.0), "mine", tables)  # type: ignore[arg-type]
    first = dict(utilisations(aluminium("al5754"), *arrays, road=False))
    for check, used in utilisations(weaker, *arrays, road=False):
        assert float(used) >= float(first[check]) * (1 - 1e-9), check


# --- groups of bolts, and what is pressed along ---


def test_an_eccentric_group_of_four_bolts() -> None:
    """A textbook's worked example of mechanical engineering design (four M16 at ±75 and ±60, 16 kN at 425 from their
    middle), from memory and worked again by hand: 21.0 kN on the nearer two, 14.8 kN on the others."""
    places = [(x, y) for x in (-75.0, 75.0) for y in (-60.0, 60.0)]
    zero = np.array(0.0)
    moment = np.array(16_000.0 * 425.0)
    _, along, up = bolt_group(places, (zero, zero, np.array(16_000.0)), (moment, zero, zero))
    shears = sorted(float(v) / 1000 for v in np.hypot(along, up))
    assert shears == pytest.approx([14.8, 14.8, 21.0, 21.0], abs=0.05)


def test_a_group_under_a_moment_draws_most_at_its_edge() -> None:
    """Statics: two rows 80 apart under 1 kN·m: 12.5 kN a row, drawn in one and pressed in the other."""
    zero = np.array(0.0)
    off, along, up = bolt_group(
        [(-30.0, -40.0), (30.0, -40.0), (-30.0, 40.0), (30.0, 40.0)], (zero,) * 3, (zero, np.array(1e6), zero)
    )
    assert [float(v) for v in off] == pytest.approx([-6250.0, -6250.0, 6250.0, 6250.0])
    assert not along.any()
    assert not up.any()


@pytest.mark.parametrize(("slender", "share"), [(0.2, 1.0), (0.5, 0.843), (1.0, 0.540), (1.5, 0.315), (2.0, 0.196)])
def test_buckling_by_curve_c(slender: float, share: float) -> None:
    """EN 1993-1-1 table 6.1, curve c (α 0.49): χ by the relative slenderness; from memory, and by its formula."""
    steel = TABLES.materials["s355"]
    radius = 8.0 / math.sqrt(12)
    free = slender * math.pi * math.sqrt(210_000 / 355) * radius / 2
    assert buckles(steel, 8.0, free, 355.0) == pytest.approx(share, abs=6e-4)


@pytest.mark.parametrize("pitch", [24.2, 33.0, 45.0, 1000.0])
def test_bearing_by_the_distance_to_the_next_hole(pitch: float) -> None:
    """EN 1993-1-8 table 3.4: αd = p1 / 3 d0 − 1/4, k1 = 1.4 p2 / d0 − 1.7 up to 2.5, for M10 in 11."""
    m10 = TABLES.bolts["M10"]
    alone = bearing_n(m10, 800.0, 360.0, 3.0)
    k1 = min(1.4 * pitch / 11 - 1.7, 2.5) / 2.5
    alpha = min(pitch / 33 - 0.25, 1.0)
    assert bearing_n(m10, 800.0, 360.0, 3.0, pitch_mm=pitch) == pytest.approx(alone * k1 * alpha)


# --- plates and bars that are pressed on ---
#
# Yield-line theory (Johansen): collapse loads of rectangular plates under an even load, m the plastic moment of a
# strip; recalled from memory, the exact ones marked. EN 10219-2 tables of square hollow sections, from memory.

FREE, HELD = (False, False), (True, True)


@pytest.mark.parametrize(
    ("size", "held", "wanted"),
    [
        ((100.0, 100.0), (FREE, FREE), 24.0),  # exact: p = 24 m / a²
        ((1e7, 100.0), (FREE, FREE), 8.0),  # a strip: w L² / 8
        ((1e7, 100.0), (FREE, HELD), 16.0),  # held at both ends: w L² / 16
        ((1e7, 100.0), (FREE, (True, False)), 11.66),  # held at one: w L² / 11.66
        ((100.0, 100.0), (HELD, HELD), 48.0),  # yield lines along the diagonals; the exact load is 42.85
    ],
)
def test_a_plate_gives_way_under_the_load_of_yield_line_theory(
    size: tuple[float, float], held: tuple[tuple[bool, bool], tuple[bool, bool]], wanted: float
) -> None:
    """p b² / m."""
    load = patch_n(size, 1.0, size, held)
    assert load / (size[0] * size[1]) * 100.0**2 == pytest.approx(wanted, rel=1e-3)


def test_a_load_on_a_small_patch_is_taken_lower_than_its_fan_of_yield_lines() -> None:
    """A point load in the middle of a square, free to turn at its edges: 8 m (from memory)."""
    assert patch_n((100.0, 100.0), 1.0, (0.0, 0.0), (FREE, FREE)) <= 8.0
    strip = patch_n((1e7, 100.0), 1.0, (1e7, 0.0), (FREE, FREE)) / 1e7  # a line load: 4 m / L, both ends free
    assert strip * 100.0 == pytest.approx(4.0, rel=1e-3)


@pytest.mark.parametrize(("tube", "wanted_cm3"), [((25, 2), 1.47), ((40, 3), 5.72), ((50, 4), 11.7), ((100, 5), 64.6)])
def test_plastic_moduli_of_square_tubes(tube: tuple[float, float], wanted_cm3: float) -> None:
    assert tube_plastic_mm3(Tube(*tube)) / 1000 == pytest.approx(wanted_cm3, rel=5e-3)


def test_tubes_side_by_side_bear_what_beams_do() -> None:
    """Two of S235, 25 × 2, 500 long, under an even load: 2 × 8 M / L."""
    beams = Beams(2, 500.0, 0, 1470.0, 2.0, TABLES.materials["s235"])
    assert beams.carries_n((500.0, 100.0)) == pytest.approx(2 * 8 * 1470.0 * 235 / 1.1 / 500.0)


def test_detail_categories_of_a_bracket_that_is_welded_on() -> None:
    """EN 1993-1-9 tables 3.1 and 8.5, from memory: a toe is category 63, the root of a fillet that carries category 36,
    safe life with high consequence asks γMf 1.35."""
    assert pytest.approx(46.7, abs=0.05) == TOE_MPA["steel"]
    assert pytest.approx(26.7, abs=0.05) == ROOT_MPA["steel"]


def test_a_leg_that_is_shaken_bends_as_a_cantilever_does() -> None:
    """Beam theory by hand: 500 N at 60 − 3 before a leg of 90 × 6 bends it by 28 500 N·mm, W = 540 mm³: 52.8 MPa, and
    0.9 of pull, to either side."""
    rows = dict(fatigue(joint(), np.array(500.0), np.array(0.0), np.array(0.0)))
    assert float(rows["fatigue at the weld's toe"]) == pytest.approx(2 * (52.78 + 0.93) / 46.67, rel=1e-3)
    # away from the wall it bends by its way up to the welds alone: 500 × (22 − 3) = 9 500 N·mm
    rows = dict(fatigue(joint(), np.array(0.0), np.array(500.0), np.array(0.0)))
    assert float(rows["fatigue at the weld's toe"]) == pytest.approx(2 * 17.59 / 46.67, rel=1e-3)
