"""The demo's figures: they were computed together from pieces, and agree."""

import pytest

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.fabricate import parts_of
from levelcradle.core.finding import Finding, message_text


@pytest.fixture(scope="module")
def analysis() -> Analysis:
    from levelcradle.demo import demo_design

    return analyse(demo_design(), {})


def named(analysis: Analysis, id_: str) -> Finding:
    return next(f for f in analysis.findings if f.id == id_)


def test_as_found(analysis: Analysis) -> None:
    found = analysis.level.found
    assert found is not None
    assert (found.total_kg, round(found.front_percent, 1)) == (985, 54.0)
    assert (round(found.aft_mm, 1), round(found.across_mm or 0, 1)) == (1140.5, -4.6)


def test_ready_to_drive(analysis: Analysis) -> None:
    ready = analysis.level.ready
    assert ready is not None
    assert ready.total_kg == pytest.approx(1191.9, abs=0.05)
    assert ready.aft_mm == pytest.approx(1261.4, abs=0.05)
    assert ready.across_mm == pytest.approx(0.6, abs=0.05)
    assert ready.up_mm == pytest.approx(536.5, abs=0.1)
    assert ready.front_kg == pytest.approx(585.7, abs=0.05)
    assert ready.rear_kg == pytest.approx(606.2, abs=0.05)
    c = ready.corners
    assert c is not None
    assert [round(v) for v in (c.lf_kg, c.rf_kg, c.lr_kg, c.rr_kg)] == [293, 293, 302, 304]


@pytest.mark.parametrize(("state", "front", "rear"), [("driver", 625.0, 641.9), ("four-up", 686.9, 855.0)])
def test_with_people_aboard(analysis: Analysis, state: str, front: float, rear: float) -> None:
    loads = next(row.loads for row in analysis.level.states if row.id == state)
    assert (loads.front_kg, loads.rear_kg) == pytest.approx((front, rear), abs=0.05)


def test_boxes(analysis: Analysis) -> None:
    bonnet, tank = analysis.boxes["bonnet"], analysis.boxes["tank"]
    assert (bonnet.shell_kg, bonnet.full_kg) == pytest.approx((30.79, 160.29), abs=0.005)
    assert (tank.shell_kg, tank.full_kg) == pytest.approx((26.44, 130.34), abs=0.005)
    assert bonnet.cg_mm == pytest.approx((195.6, 0, 612.4), abs=0.1)
    assert tank.cg_mm == pytest.approx((2867.6, 18.4, 474.8), abs=0.06)
    assert (bonnet.numbers, tank.numbers) == ("1 – 5", "6 – 9")


def test_the_string(analysis: Analysis) -> None:
    string = analysis.string
    assert (string.modules, round(string.nominal_v, 1), round(string.full_v, 1)) == (9, 399.6, 453.6)
    assert string.energy_kwh == pytest.approx(38.4, abs=0.05)


@pytest.mark.parametrize(
    ("pair", "gap", "state"),
    [
        ("boxes/tank:items/axle", 10.5, "foul"),
        ("boxes/tank:items/anti-roll-bar", 22.0, "tight"),
        ("boxes/bonnet:items/motor", 20.0, "tight"),
        ("boxes/tank:items/silencer-hanger", 21.0, "clear"),
        ("boxes/tank:bays/tank/sides/top", 25.0, "clear"),
        ("boxes/bonnet:bays/bonnet/sides/top", 57.86, "clear"),
    ],
)
def test_gaps(analysis: Analysis, pair: str, gap: float, state: str) -> None:
    found = named(analysis, f"gap:{pair}")
    assert (found.state, found.value) == (state, pytest.approx(gap, abs=0.005))


def test_the_bonnet_panel_is_said_rounded_down(analysis: Analysis) -> None:
    assert message_text(named(analysis, "gap:boxes/bonnet:bays/bonnet/sides/top")).startswith(
        "Bonnet box to bonnet top: 57.8 mm"
    )


@pytest.mark.parametrize(
    ("box", "check", "utilisation"),
    [
        ("bonnet", "bolt", 0.604), ("bonnet", "leg A", 0.321), ("bonnet", "leg B", 0.671), ("bonnet", "weld", 0.572),
        ("bonnet", "wall", 0.599), ("bonnet", "doubler patch", 0.846), ("tank", "bolt", 0.726), ("tank", "leg A",
        0.344),
        ("tank", "leg B", 0.556), ("tank", "weld", 0.457), ("tank", "wall", 0.486), ("tank", "doubler patch", 0.623),
    ],
)  # fmt: skip
def test_uses_of_the_mounts(analysis: Analysis, box: str, check: str, utilisation: float) -> None:
    support = next(s for s in analysis.supports if s.box == box)
    worst = max(r.utilisation for m in support.mounts for r in m.rows if r.check == check)
    assert worst == pytest.approx(utilisation, abs=1.1e-3)


def test_every_mount_is_tight_by_rule(analysis: Analysis) -> None:
    assert [f.state for f in analysis.findings if f.code == "mount.use"] == ["tight"] * 8
    assert all(fits for s in analysis.supports for m in s.mounts for _, fits in m.geometry)


def test_four_up_the_rear_axle_is_tight(analysis: Analysis) -> None:
    found = named(analysis, "level:rating:four-up:rear axle")
    assert found.state == "tight"
    assert found.margin == pytest.approx(2.975, abs=0.005)


def test_the_watch_strip_begins_with_the_axle_and_tells_eight_mounts_as_one(analysis: Analysis) -> None:
    assert analysis.watch[0].ids == ("gap:boxes/tank:items/axle",)
    together = next(row for row in analysis.watch if len(row.ids) == 8)
    assert together.message.startswith("8 mounts tight")


def test_stations_say_how_they_stand(analysis: Analysis) -> None:
    states = analysis.stations
    assert (states["place"].foul, states["mount"].tight, states["drawings"].foul) == (1, 8, 1)
    assert not states["wire"].begun
    assert not analysis.released


def test_one_module_reads_low(analysis: Analysis) -> None:
    assert named(analysis, "stock:volts:f11").state == "tight"
    assert not any(f.id == "stock:volts:f01" for f in analysis.findings)


def test_parts_are_told_once_with_how_many_are_alike(demo: Design) -> None:
    parts = {p.id: p.quantity for p in parts_of(resolve(demo, {}))}
    assert parts["bonnet-tray"] == 1
    assert parts["tank-lf-angle"] == 4
    assert parts["bonnet-rods-foot-1"] == parts["bonnet-rods-foot-2"] == 7  # of both boxes; its two ends are mirrored
    assert len(parts) == 10
    assert sum(parts.values()) == 34


def test_finding_ids_are_unique(analysis: Analysis) -> None:
    ids = [f.id for f in analysis.findings]
    assert len(ids) == len(set(ids))
