"""Voltage and energy of modules in series."""

from collections.abc import Iterable
from dataclasses import dataclass

from levelcradle.core.design.stock import Module, ModuleKind

__all__ = ["StringFigures", "per_cell_v", "string_figures"]


@dataclass(frozen=True, slots=True)
class StringFigures:
    """Modules all in series: counts, voltages and the energy of the weakest capacity."""

    modules: int
    nominal_v: float
    full_v: float
    energy_kwh: float | None


def string_figures(kinds: Iterable[ModuleKind]) -> StringFigures:
    """Sums the voltages; energy = nominal voltage x least capacity (series current is common), None if one is unknown."""
    line = list(kinds)
    nominal = sum(kind.nominal_v for kind in line)
    capacities = [kind.capacity_ah for kind in line]
    known = [c for c in capacities if c is not None]
    energy = nominal * min(known) / 1000 if line and len(known) == len(line) else None
    return StringFigures(len(line), nominal, sum(kind.full_v for kind in line), energy)


def per_cell_v(module: Module, kind: ModuleKind) -> float | None:
    """A module's newest reading divided by its cells in series: modules of different length compare only so."""
    return None if module.volts is None else module.volts / kind.cells.series
