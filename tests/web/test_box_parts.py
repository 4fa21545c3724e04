"""Parts of Box under the hand: edges cut off, paint and beads."""

from playwright.sync_api import expect

from tests.web.conftest import Bench


def at_the_tank_box(bench: Bench) -> None:
    bench.go("box")
    bench.page.get_by_role("button", name="Tank box", exact=True).click()


def test_an_edge_is_cut_off_typed_and_unfolded(bench: Bench) -> None:
    at_the_tank_box(bench)
    edges = bench.page.get_by_role("region", name="Edges cut off")
    edges.get_by_label("Edge to cut off").select_option("front left")
    edges.get_by_role("button", name="Cut it off").click()
    bench.saved(2)
    field = edges.get_by_label("on the left")
    field.fill("30")
    field.press("Enter")
    bench.saved(3)
    assert list(bench.tree["boxes"]["tank"]["chamfers"].values()) == [{"edge": ["front", "left"], "mm": [20, 30]}]
    bench.go("drawings")
    expect(bench.page.get_by_text("Tank box corner, front left, flat")).to_be_visible()
    expect(bench.page.get_by_text("Tank box lid corner, front left, flat")).to_be_visible()
    at_the_tank_box(bench)
    edges.get_by_role("button", name="leave it on").click()
    bench.saved(4)
    assert bench.tree["boxes"]["tank"]["chamfers"] == {}


def test_paint_and_beads_count_in_the_chain(bench: Bench) -> None:
    at_the_tank_box(bench)
    bench.page.get_by_label("Coats on each face").select_option("3")
    bench.saved(2)
    bench.page.get_by_label("beads outside ground flush").click()
    bench.saved(3)
    assert bench.tree["boxes"]["tank"]["finish"] == {"coats": 3, "coat_mm": 0.08, "beads_ground": False, "bead_mm": 2.0}
