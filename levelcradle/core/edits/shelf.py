"""Modules put on the shelf from the rows of a table."""

from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from levelcradle.core.design import Design
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op

__all__ = ["onto_the_shelf"]

_TEST = ("open_circuit_v", "resistance_mohm", "temperature_c", "mass_kg")


def onto_the_shelf(design: Design, rows: Iterable[Mapping[str, Any]]) -> Iterator[Op]:
    """One module a row; what was measured on a day is a test, a voltage without a day its reading."""
    taken, order = set(design.modules), max((m.order for m in design.modules.values()), default=0)
    for number, row in enumerate(rows, start=1):
        key = free_id(str(row.get("serial") or row.get("name") or "module"), taken)
        taken.add(key)
        value: dict[str, Any] = {
            "name": str(row.get("name") or row.get("serial") or key),
            "kind": row["kind"],
            "order": order + number,
        }
        value |= {field: row[field] for field in ("serial", "verdict", "damage") if field in row}
        test = {field: row[field] for field in _TEST if field in row}
        if test and "on" in row:
            value["tests"] = {"t1": {"on": row["on"], **test}}
        elif "open_circuit_v" in row:
            value["reading_v"] = row["open_circuit_v"]
        yield {"op": "add", "path": f"/modules/{key}", "value": value}
