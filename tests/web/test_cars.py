"""The list of cars: renamed, copied, laid side by side, deleted and brought back; which car a file is."""

import json
from pathlib import Path

from playwright.sync_api import expect

from tests.web.conftest import Bench, settled


def test_renamed_copied_deleted_brought_back_and_as_it_was(bench: Bench) -> None:
    page = bench.page
    page.goto("/")
    page.get_by_role("button", name="More of Calder Ouzel 1500").click()
    page.get_by_label("New name of Calder Ouzel 1500").fill("Red Ouzel")
    page.get_by_role("button", name="Rename").click()
    expect(page.get_by_role("link", name="Red Ouzel")).to_be_visible()
    page.get_by_role("button", name="Copy as a variant").click()
    expect(page.get_by_role("link", name="Red Ouzel, variant 1")).to_be_visible()
    page.get_by_role("button", name="Variants of Red Ouzel, side by side").click()
    expect(page.get_by_role("table", name="Side by side")).to_contain_text("1,191.9 kg")
    page.get_by_role("button", name="More of Red Ouzel", exact=True).click()
    page.get_by_role("list", name="Revisions").get_by_role("button", name="look at it: revision 1").click()
    expect(page.get_by_role("table", name="Then and now")).to_contain_text("1,191.9 kg")
    page.get_by_role("button", name="Take revision 1 back").click()
    expect(page.get_by_role("link", name="Calder Ouzel 1500", exact=True).first).to_be_visible()
    assert bench.tree["name"] == "Calder Ouzel 1500"
    page.get_by_role("button", name="Delete, kept 30 days").click()
    expect(page.get_by_role("region", name="Deleted")).to_contain_text("Calder Ouzel 1500")
    page.get_by_role("button", name="Bring Calder Ouzel 1500 back").click()
    expect(page.get_by_role("region", name="Deleted")).to_have_count(0)


def test_a_file_of_a_car_that_is_here_is_asked_about(bench: Bench, tmp_path: Path) -> None:
    page, tree = bench.page, bench.tree
    tree["boxes"]["tank"]["name"] = "Rear box"
    file = tmp_path / "ouzel.cradle.json"
    file.write_text(json.dumps(tree))
    page.goto("/")
    page.get_by_label("Open a .cradle.json file or an archive").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("a newer version of it, or another car?")
    page.get_by_role("button", name="A newer version of it").click()
    expect(page.get_by_role("heading", name="Calder Ouzel 1500")).to_be_visible()
    settled(page)
    assert bench.tree["boxes"]["tank"]["name"] == "Rear box"
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = "far"
    file.write_text(json.dumps(tree, indent=1))
    page.goto("/")
    page.get_by_label("Open a .cradle.json file or an archive").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text(
        "The file is not taken: boxes, tank, pose, at_mm, 0 must be a number (line"
    )
