"""New mounting points: hard points within a bracket's reach carry a box, the missing ones of four are made."""

from levelcradle.core.design import Design
from levelcradle.core.fit.cutting import points_to_make

FAR = ((0.0, 5000.0, 0.0), (400.0, 5400.0, 300.0))


def with_points(demo: Design, *places: tuple[float, float, float]) -> Design:
    point = next(iter(demo.hardpoints.values()))
    points = {f"p{n}": point.model_copy(update={"at_mm": at}) for n, at in enumerate(places)}
    return demo.model_copy(update={"hardpoints": points, "mounts": {}})


def test_points_in_reach_are_not_made_again(demo: Design) -> None:
    box = ((1000.0, -300.0, 300.0), (1400.0, 300.0, 500.0))
    design = with_points(demo, (1200.0, 450.0, 400.0), (1200.0, -451.0, 400.0), (950.0, 0.0, 400.0))
    assert points_to_make(design, [box]) == 2  # 150 and 50 away; 151 is out of reach
    assert points_to_make(design, [box, FAR]) == 2 + 4
    assert points_to_make(design, []) == 0


def test_a_point_carries_only_the_box_it_is_nearest_to(demo: Design) -> None:
    left, right = ((1000.0, -300.0, 300.0), (1400.0, -100.0, 500.0)), ((1000.0, 0.0, 300.0), (1400.0, 300.0, 500.0))
    assert points_to_make(with_points(demo, (1200.0, -60.0, 400.0)), [left, right]) == 3 + 4


def test_a_point_that_carries_a_box_already_is_taken(demo: Design) -> None:
    key, mount = next(iter(demo.mounts.items()))
    spot = mount.lands_on.hardpoint
    at = demo.hardpoints[spot].at_mm
    low, high = tuple(v - 10 for v in at), tuple(v + 10 for v in at)
    used = demo.model_copy(update={"mounts": {key: mount}, "hardpoints": {spot: demo.hardpoints[spot]}})
    assert points_to_make(used, [((low[0], low[1], low[2]), (high[0], high[1], high[2]))]) == 4
