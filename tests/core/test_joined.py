"""What a box is welded with, what keeps its air dry, and connectors that take each other's plugs."""

from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from tests.plain import box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
FRAME = {"construction": {"type": "framed"}, "closures": {"lid": {"type": "panel"}}}
CASE = {
    "construction": {
        "type": "existing",
        "size_mm": [400, 300, 220],
        "wall_mm": 2,
        "base_mm": 2,
        "top_mm": 2,
        "mass_kg": 5,
    },
    "closures": {},
    "layers": {},
}


def car(**more: Any) -> dict[str, Any]:
    return plain_car(boxes={"x": box_at(AT, (2, 2, 2), **more)})


def filler(material: str, with_: str | None, **more: Any) -> str | None:
    rows = found(car(material=material, filler=with_, **more), "box.filler")
    return rows[0].state if rows else None


@pytest.mark.parametrize(
    ("material", "with_", "state"),
    [
        ("s235", None, None),
        ("al5083", None, "note"),
        ("s235", "g3si1", "clear"),
        ("al5083", "al5356", "clear"),
        ("al5083", "al4043", "foul"),
        ("al5754", "al1450", "foul"),
        ("al5083", "own", "clear"),
        ("s235", "al5356", "foul"),
        ("al5083", "g3si1", "foul"),
    ],
)
@pytest.mark.parametrize("made", [{}, FRAME])
def test_a_filler_is_of_the_metals_family_and_does_not_crack_with_its_alloy(
    material: str, with_: str | None, state: str | None, made: dict[str, Any]
) -> None:
    assert filler(material, with_, **made) == state


def test_an_alloy_of_no_said_series_is_not_known_where_that_matters_and_no_welds_ask_nothing() -> None:
    tree = tree_of(validate(car(material="al5083", filler="al4043")))
    tree["tables"]["materials"]["al5083"]["series"] = None
    assert [f.state for f in found(tree, "box.filler")] == ["unknown"]
    tree["tables"]["materials"]["al5083"]["series"] = "6xxx"
    assert [f.state for f in found(tree, "box.filler")] == ["clear"]
    tree["boxes"]["x"]["filler"] = "own"
    assert [f.state for f in found(tree, "box.filler")] == ["foul"]
    assert filler("al5083", "al4043", **CASE) is None
    with pytest.raises(ValueError, match="there is no filler"):
        validate(car(filler="butter"))


def connector(pole: str | None, key: str = "", face: str = "front", kind: str = "connector") -> dict[str, Any]:
    fitted = {"kind": kind, "size": "50", "seat_mm": 40.0, "out_mm": 20.0, "in_mm": 5.0, "pole": pole, "key": key}
    edges = ["left", "base"] if face in ("front", "aft") else ["front", "base"]
    place = {"name": f"{pole} {key}", "face": face, "from": edges, "u_mm": 80.0, "v_mm": 100.0, "diameter_mm": 25.0}
    return {**place, "fitted": fitted}


def mating(*rows: dict[str, Any], other: dict[str, Any] | None = None) -> list[str]:
    boxes = {"x": box_at(AT, (2, 2, 2), openings={f"o{n}": row for n, row in enumerate(rows)})}
    if other:
        boxes["y"] = box_at((1000.0, 900.0, 400.0), (2, 2, 2), openings={"o": other})
    return [f.state for f in found(plain_car(boxes=boxes), "box.mating")]


def test_plus_and_minus_of_one_size_differ_in_their_keys() -> None:
    plus = connector("plus", "A")
    assert mating(plus, connector("minus", "A", "aft")) == ["foul"]
    assert mating(plus, connector("minus", " a ", "aft")) == ["foul"]
    assert mating(plus, connector("minus", "B", "aft")) == []
    assert mating(plus, connector("plus", "A", "aft")) == []
    assert mating(plus, connector(None, "A", "aft")) == ["note"]
    assert mating(connector(None, "A")) == []
    assert mating(plus, connector("minus", "A", "aft", kind="cable gland")) == []
    wide = connector("minus", "A", "aft")
    wide["fitted"]["size"] = "70"
    assert mating(plus, wide) == []


def test_a_plug_of_one_box_goes_into_another_box_too() -> None:
    assert mating(connector("plus", "A"), other=connector("minus", "A")) == ["foul"]
    assert mating(connector("plus", "A"), other=connector("minus", "B")) == []


def test_a_sealed_box_is_dried_by_the_litres_beside_its_modules() -> None:
    """A larger given inside, the same modules: so much more air, a gram a litre, in bags of ten."""

    def bag(size: float, sealing: str | None = "gasket") -> list[int]:
        inner = {"type": "fixed", "size_mm": [size, 500.0, 400.0]}
        shell = resolve(validate(car(inner=inner, sealing=sealing)), {}).boxes["x"].shell
        litres = size * 0.5 * 0.4 - 8 * 0.2 * 0.12 * 0.09 * 1000
        assert shell.air_l == pytest.approx(litres)
        return [int(what.split(",")[1].split()[0]) for what, _ in shell.bought() if "drying" in what]

    assert bag(500.0) == [90]  # 82.7 l
    assert bag(1000.0) == [190]  # 182.7 l
    assert bag(500.0, None) == bag(500.0, "open") == []


def test_what_a_filler_cracks_with_is_named_by_series_however_they_are_parted() -> None:
    tree = tree_of(validate(car(material="al5083", filler="al5356")))
    row = tree["tables"]["fillers"]["al5356"]
    row["cracks_with"] = "6xxx, 5xxx"
    assert [f.state for f in found(tree, "box.filler")] == ["foul"]
    row["cracks_with"] = "magnesium"
    with pytest.raises(ValueError, match="names series of alloys"):
        validate(tree)
