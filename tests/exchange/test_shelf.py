"""The shelf as spreadsheets write it: dividers, commas, marks and code pages; every row comes in or says why not."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.design import Design, tree_of, validate
from levelcradle.exchange import FileRefused, read_shelf, write_shelf

ROWS = (
    "Name;Serial;Date;Voltage;IR (mOhm);Temp\nKachel Ü1;A-1;25.11.2026;44,61;2,4;-3,5\nKachel "
    "2;A-2;2026-11-26;44,58;2,5;18\n"
)


@pytest.mark.parametrize(
    ("encoding", "told"),
    [("utf-8", "utf-8-sig"), ("utf-8-sig", "utf-8-sig"), ("cp1252", "cp1252"), ("utf-16", "utf-16")],
)
@pytest.mark.parametrize("divider", [";", "\t"])
def test_every_way_a_spreadsheet_saves(tree: dict[str, Any], encoding: str, told: str, divider: str) -> None:
    found = read_shelf(ROWS.replace(";", divider).encode(encoding), validate(tree), None, "flagstone")
    assert (found.encoding, found.divider) == (told, {"\t": "tab"}.get(divider, divider))
    assert [r.refused for r in found.rows] == ["", ""]
    assert found.rows[0].becomes == {
        "name": "Kachel Ü1", "serial": "A-1", "on": "2026-11-25", "open_circuit_v": 44.61, "resistance_mohm": 2.4,
        "temperature_c": -3.5, "kind": "flagstone",
    }  # fmt: skip


REFUSED = {
    "name,voltage\nA,abc\n": "voltage:",
    "name,voltage\nA,-4\n": "less than nothing",
    "name,kind\nA,unknown thing\n": "no module kind",
    "name,date\nA,03/04/2026\n": "no date",
    "name,date\nA,2026-13-01\n": "no date",
    "name,verdict\nA,fine\n": "neither good",
    "name,voltage\nA,\u00011\n": "cannot be printed",
}


@pytest.mark.parametrize("text", REFUSED)
def test_a_row_that_cannot_be_says_why(tree: dict[str, Any], text: str) -> None:
    found = read_shelf(text.encode(), validate(tree), None, "flagstone")
    assert REFUSED[text] in found.rows[0].refused


def test_columns_can_be_mapped_otherwise_and_serials_come_once(tree: dict[str, Any]) -> None:
    data = b"x,y\nfirst,S1\nsecond,S1\n"
    found = read_shelf(data, validate(tree), {"x": "name", "y": "serial"}, "flagstone")
    assert [r.refused for r in found.rows] == ["", "Serial S1 stands on the shelf already."]
    assert (
        read_shelf(data, validate(tree), {"x": "name", "y": ""}, None).rows[0].refused == "Say which module kind it is."
    )


@pytest.mark.parametrize(
    ("data", "message"),
    [
        (b"", "empty"),
        (b"PK\x03\x04", "Save it as CSV"),
        (b"name\n", "a line of headings"),
        (b"\x00\x01\x02", "no text"),
    ],
)
def test_what_is_no_table_says_why(tree: dict[str, Any], data: bytes, message: str) -> None:
    with pytest.raises(FileRefused, match=message):
        read_shelf(data, validate(tree), None, None)


def test_what_is_written_reads_back(tree: dict[str, Any]) -> None:
    tree["modules"]["f05"] |= {"name": "=1+1", "serial": "Ü-5", "damage": "dent; side A",
                               "tests": {"a": {"on": "2026-11-20", "open_circuit_v": 44.5,
                               "temperature_c": -4.0}}}  # fmt: skip
    design = validate(tree)
    empty = validate({**tree, "modules": {}, "boxes": {}, "mounts": {}})
    found = read_shelf(write_shelf(design).encode("utf-8-sig"), empty, None, None)
    assert not any(r.refused for r in found.rows)
    row = next(r.becomes for r in found.rows if r.becomes.get("serial") == "Ü-5")
    assert row == {"name": "=1+1", "serial": "Ü-5", "kind": "flagstone", "on": "2026-11-20", "open_circuit_v": 44.5,
                   "temperature_c": -4.0, "verdict": "good", "damage": "dent; side A"}  # fmt: skip


WORDS = st.text("abcXYZ 0189äß;,\"'-.", min_size=1, max_size=12).map(lambda s: s.strip() or "m")


@settings(max_examples=25)
@given(
    st.lists(
        st.tuples(WORDS, st.integers(0, 99_999), st.integers(0, 9_999), st.sampled_from(["good", "spare", "reject"])),
        min_size=1, max_size=8, unique_by=lambda row: row[0].lower(),
    )
)  # fmt: skip
def test_a_shelf_written_and_read_is_the_same_shelf(demo: Design, rows: list[tuple[str, int, int, str]]) -> None:
    """Names with dividers, quotes and umlauts, voltages to the millivolt, resistances, verdicts."""
    tree = tree_of(demo)
    tree["stacks"] = {}
    tree["modules"] = {
        f"m{n}": {
            "name": name, "kind": "flagstone", "order": n, "verdict": verdict,
            "tests": {"t": {"on": "2026-03-01", "open_circuit_v": mv / 1000, "resistance_mohm": ohms / 100}},
        }
        for n, (name, mv, ohms, verdict) in enumerate(rows)
    }  # fmt: skip
    design = validate(tree)
    empty = validate({**tree, "modules": {}})
    found = read_shelf(b"\xef\xbb\xbf" + write_shelf(design).encode(), empty, None, "flagstone")
    assert [r.refused for r in found.rows] == [""] * len(rows)
    for row, (name, mv, ohms, verdict) in zip(found.rows, rows, strict=True):
        assert row.becomes["name"] == name
        assert (row.becomes["open_circuit_v"], row.becomes["resistance_mohm"]) == pytest.approx((mv / 1000, ohms / 100))
        assert (row.becomes["verdict"], row.becomes["on"]) == (verdict, "2026-03-01")
