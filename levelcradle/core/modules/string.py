"""Voltage and energy of the strings: modules in series, and strings that stand side by side."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from levelcradle.core.design.box import Box
from levelcradle.core.design.stock import Module, ModuleKind, PackString

__all__ = ["PackResult", "StringResult", "pack_result", "per_cell_v", "string_result", "strings_in"]

Held = tuple[ModuleKind, int]  # a module and how many of its block stand side by side as one


@dataclass(frozen=True, slots=True)
class StringResult:
    """Modules in series: how many there are, voltages and the energy of the weakest capacity; ``empty_v`` is None where
    a kind in it does not say its own."""

    modules: int
    nominal_v: float
    full_v: float
    energy_kwh: float | None
    empty_v: float | None = None


@dataclass(frozen=True, slots=True)
class PackResult:
    """All strings side by side: the highest voltage of any, the energy of all together. ``strings``: by id, and under
    "" those that are in none by name."""

    modules: int
    nominal_v: float
    full_v: float
    energy_kwh: float | None
    strings: Mapping[str, StringResult]


def string_result(kinds: Iterable[ModuleKind]) -> StringResult:
    """Sums the voltages; energy = nominal voltage x least capacity (series current is common), None if one is
    unknown."""
    return _figures([(kind, 1) for kind in kinds])


def _figures(held: list[Held]) -> StringResult:
    """Of ``n`` side by side each brings its part of the voltage and all of them the capacity."""
    nominal = sum(kind.nominal_v / n for kind, n in held)
    capacities = [kind.capacity_ah * n for kind, n in held if kind.capacity_ah is not None]
    energy = nominal * min(capacities) / 1000 if held and len(capacities) == len(held) else None
    empties = [kind.empty_v / n for kind, n in held if kind.empty_v is not None]
    empty = sum(empties) if len(empties) == len(held) else None
    return StringResult(len(held), nominal, sum(kind.full_v / n for kind, n in held), energy, empty)


def strings_in(
    boxes: Iterable[Box], kinds: Mapping[str, ModuleKind], strings: Mapping[str, PackString]
) -> dict[str, StringResult]:
    """Figures of each string that has modules in these boxes, in the order of the strings."""
    held: dict[str, list[Held]] = {key: [] for key in sorted(strings, key=lambda key: strings[key].order)}
    held[""] = []
    for box in boxes:
        for block in box.blocks.values():
            held[block.string or ""] += [(kinds[block.kind], block.parallel)] * block.counts.total
    return {key: _figures(rows) for key, rows in held.items() if rows}


def pack_result(strings: Mapping[str, StringResult]) -> PackResult:
    energies = [s.energy_kwh for s in strings.values()]
    known = [e for e in energies if e is not None]
    return PackResult(
        sum(s.modules for s in strings.values()),
        max((s.nominal_v for s in strings.values()), default=0.0),
        max((s.full_v for s in strings.values()), default=0.0),
        sum(known) if known and len(known) == len(energies) else None,
        strings,
    )


def per_cell_v(module: Module, kind: ModuleKind) -> float | None:
    """A module's newest reading divided by its cells in series: modules of different length compare only so."""
    return None if module.volts is None else module.volts / kind.cells.series
