"""The line that says what comes next, rows made from rows, and where the focus goes when what had it is gone."""

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import Bench, settled


def focused(page: Page) -> str:
    text: str = page.evaluate("document.activeElement.getAttribute('aria-label') ?? document.activeElement.textContent")
    return text


def test_next_goes_to_the_very_blank_is_left_and_taken_up_again(bench: Bench) -> None:
    bench.change([{"op": "replace", "path": "/items/charger/mass_kg", "value": None}])
    bench.go("drawings")
    line = bench.page.get_by_role("region", name="Next")
    expect(line).to_contain_text("weigh the charger")
    line.get_by_role("button", name="Go there, Survey").click()
    expect(bench.page.get_by_label("charger, mass", exact=True)).to_be_focused()
    bench.page.keyboard.type("11")
    bench.page.keyboard.press("Enter")
    expect(line).to_contain_text("make room: Tank box to axle at full bump: 10.5 mm, needs 25.0 mm")
    line.get_by_role("button", name="leave it").click()
    expect(line).to_have_count(0)
    bench.page.reload()
    expect(bench.page.get_by_role("button", name="next", exact=True)).to_be_visible()
    expect(line).to_have_count(0)
    bench.page.get_by_role("button", name="next", exact=True).click()
    line.get_by_role("button", name="Go there, Place").click()
    expect(bench.page.get_by_role("heading", name="Tank box")).to_be_visible()


def test_a_twin_follows_until_it_is_cut_loose_and_several_rows_change_at_once(bench: Bench) -> None:
    bench.page.goto(f"/car/{bench.car}/survey?at=hardpoints%2Ftail-lf")
    bench.page.get_by_role("button", name="Mirror twin of left rear rail, fore").click()
    settled(bench.page)
    twin = next(key for key, row in bench.tree["hardpoints"].items() if row["mirror_of"] == "tail-lf")
    expect(bench.page.get_by_text("mirror twin of left rear rail, fore: they go together")).to_be_visible()
    aft = bench.page.get_by_label("aft", exact=True).first
    aft.fill("2800")
    aft.press("Enter")
    settled(bench.page)
    assert bench.tree["hardpoints"]["tail-lf"]["at_mm"] == [2800.0, -400.0, 540.0]
    assert bench.tree["hardpoints"][twin]["at_mm"] == [2800.0, 400.0, 540.0]
    bench.page.get_by_role("button", name="cut loose").click()
    settled(bench.page)
    aft.fill("2810")
    aft.press("Enter")
    settled(bench.page)
    assert bench.tree["hardpoints"]["tail-lf"]["at_mm"][0] == 2800.0
    bench.page.get_by_role("button", name="change several at once").first.click()
    for name in ("left rear rail, aft", "right rear rail, aft"):
        bench.page.get_by_role("checkbox", name=name, exact=True).click()
    several = bench.page.get_by_role("group", name="For all 2 ticked")
    several.get_by_label("Thread").select_option("M12")
    several.get_by_label("Wall, by caliper (empty: not known)").fill("2.5")
    several.get_by_label("Wall, by caliper (empty: not known)").press("Enter")
    settled(bench.page)
    points = bench.tree["hardpoints"]
    assert [points[key]["thread"] for key in ("tail-lr", "tail-rr", "tail-lf")] == ["M12", "M12", "M10"]
    assert [points[key]["wall_mm"] for key in ("tail-lr", "tail-rr", "tail-lf")] == [2.5, 2.5, None]


@pytest.mark.parametrize(("press", "lands"), [("Quarter turn (Q)", "aside"), ("Type its place (=)", "aside")])
def test_after_esc_the_focus_stays_beside_the_drawing(bench: Bench, press: str, lands: str) -> None:
    bench.page.goto(f"/car/{bench.car}/place?at=boxes%2Ftank")
    bench.page.get_by_role("button", name=press).focus()
    bench.page.keyboard.press("Escape")
    expect(bench.page.get_by_role("heading", name="Everything placed")).to_be_visible()
    assert bench.page.evaluate(f"!!document.activeElement.closest('{lands}')"), focused(bench.page)


def test_what_is_chosen_in_the_ledger_keeps_the_focus_there(bench: Bench) -> None:
    bench.go("mount")
    row = bench.page.get_by_role("complementary", name="Ledger").get_by_role("button", name="fore").first
    row.focus()
    bench.page.keyboard.press("Enter")
    expect(bench.page.get_by_role("button", name="all mounts")).to_be_visible()
    assert bench.page.evaluate("!!document.activeElement.closest('aside')"), focused(bench.page)


def test_a_mount_that_is_foul_says_what_would_make_it_hold(bench: Bench) -> None:
    bench.change([{"op": "replace", "path": "/mounts/tank-lf/shape/thickness_mm", "value": 4.0},
                  {"op": "replace", "path": "/mounts/tank-lf/shape/bend_radius_mm", "value": 4.0}])  # fmt: skip
    bench.page.goto(f"/car/{bench.car}/mount?at=mounts%2Ftank-lf")
    answers = bench.page.get_by_role("region", name="Size it")
    answers.get_by_role("button", name="Make it so").first.click()
    expect(answers.get_by_role("button", name="The lightest that holds here")).to_be_visible()
    assert bench.tree["mounts"]["tank-lf"]["shape"]["thickness_mm"] > 4.0
