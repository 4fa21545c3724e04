"""How findings speak: rounding to less margin, sentences, workings, stations, release."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse, finding_named
from levelcradle.core.design import Design, validate
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import Figure, message_text, plain, utilisation_state, write


@pytest.mark.parametrize(
    ("figure", "text"),
    [
        (Figure(57.869, "mm", "down"), "57.8 mm"),
        (Figure(24.99999999, "mm", "down"), "25.0 mm"),
        (Figure(25.01, "mm", "up"), "25.1 mm"),
        (Figure(0.8031, "use", "up"), "0.81"),
        (Figure(2.87, "", "up"), "2.9"),
        (Figure(130.63, "kg"), "130.6 kg"),
        (Figure(-0.04, "mm", "down"), "-0.1 mm"),
    ],
)
def test_rounding_is_toward_less_margin(figure: Figure, text: str) -> None:
    assert write(figure) == text


@pytest.mark.parametrize(
    ("utilisation", "state"), [(0.0, "clear"), (0.8, "clear"), (0.81, "tight"), (1.0, "tight"), (1.0001, "foul")]
)
def test_strength_speaks_in_use(utilisation: float, state: str) -> None:
    assert utilisation_state(utilisation) == state


def test_braces_in_a_free_name_become_parentheses() -> None:
    assert plain("a {0} {") == "a (0) ("


def test_every_sentence_can_be_written_and_every_working_ends_in_a_number(demo: Design) -> None:
    for finding in analyse(demo, {}).findings:
        assert message_text(finding)
        assert "{" not in message_text(finding)
        for step in finding.working() if finding.working else ():
            assert isinstance(step.value, float)
            assert step.what


@pytest.mark.parametrize(
    ("change", "check", "step"),
    [
        ({}, "fatigue at the weld's toe", "range of stress"),
        ({"toe_mm": 12.0}, "bolt", "Ft,Rd"),
        ({"width_mm": 26.0}, "leg A at the bolt", "moment at the bolt"),
        ({"leg_mm": 0.6}, "weld", "force per length"),
    ],
)
def test_the_working_of_a_mount_shows_the_steps_of_its_weakest_check(
    tree: dict[str, Any], change: dict[str, float], check: str, step: str
) -> None:
    tree["mounts"]["tank-rr"]["to_box" if "leg_mm" in change else "shape"] |= change
    found = finding_named(analyse(validate(tree), {}), "mount:tank-rr")
    assert found.label == check
    assert found.working is not None
    steps = {s.what: s for s in found.working()}
    assert step in steps
    assert steps[f"use of the {check}"].value == pytest.approx(found.value)
    assert all(s.source for s in steps.values() if s.rule != "demand / capacity")
    if check == "weld":
        assert steps[step].value / steps["capacity"].value == pytest.approx(found.value)


def test_a_finding_that_is_not_there_is_named(demo: Design) -> None:
    with pytest.raises(UnknownThing, match="no finding “gap:x”"):
        finding_named(analyse(demo, {}), "gap:x")


@pytest.mark.parametrize(
    ("path", "value", "released"),
    [
        ("holders", {}, False),
        ("holders", {"h": {"type": "straps", "block": "a"}}, False),
        ("material", "s235", True),
    ],
)
def test_sheets_are_held_back_by_foul_and_by_what_the_cut_sizes_rest_on(
    tree: dict[str, Any], path: str, value: Any, released: bool
) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2685.0
    tree["boxes"]["tank"][path] = value
    analysis = analyse(validate(tree), {})
    assert analysis.released is released
    assert any(f.code == "drawings.release" for f in analysis.findings) is not released


def test_an_unknown_load_does_not_hold_back_the_sheets(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2685.0
    tree["vehicle"]["cg_height"] = None
    analysis = analyse(validate(tree), {})
    assert finding_named(analysis, "level:height").state == "unknown"
    assert analysis.released


def test_a_design_with_nothing_in_it_has_nothing_foul() -> None:
    from levelcradle.core.design import new_design

    analysis = analyse(new_design("Heron van", 2650.0), {})
    assert {f.state for f in analysis.findings} == {"unknown"}
    assert analysis.released
    assert all(not s.begun for s in analysis.stations.values())


def test_findings_come_worst_first(demo: Design) -> None:
    order = ["foul", "unknown", "tight", "note", "clear"]
    states = [order.index(f.state) for f in analyse(demo, {}).findings]
    assert states == sorted(states)
