"""The shelf: modules out of step in voltage, and whether there are as many as were placed."""

from collections import Counter
from collections.abc import Iterator
from statistics import median

from levelcradle.core.assembly import Assembly
from levelcradle.core.design import Design
from levelcradle.core.finding import Figure, Finding, Step, plain
from levelcradle.core.modules import per_cell_v

__all__ = ["stock_findings"]

DEADLY_V = 60.0  # d.c.: voltage class B, ISO 6469-3, from memory
OUT_OF_STEP_V = 0.05  # a cell, against the middle of the shelf: common practice, no source


def stock_findings(assembly: Assembly) -> list[Finding]:
    return [*_out_of_step(assembly.design), *_short(assembly), *_deadly(assembly.design)]


def _out_of_step(design: Design) -> Iterator[Finding]:
    """Modules compare per cell, because modules of different length hold different cell counts."""
    readings = {key: per_cell_v(m, design.module_kinds[m.kind]) for key, m in design.modules.items() if m.verdict != "reject"}
    known = {key: volts for key, volts in readings.items() if volts is not None}
    if len(known) < 3:
        return
    middle = median(known.values())
    for key, volts in known.items():
        off = volts - middle
        if abs(off) <= OUT_OF_STEP_V:
            continue
        module = design.modules[key]
        yield Finding(
            id=f"stock:volts:{key}", code="stock.volts", station="stock", state="tight", subjects=(f"modules/{key}",),
            says=f"{plain(module.name)} reads {{0}}, out of step by {{1}} V a cell",
            figures=(Figure(module.reading_v or 0.0, "V"), Figure(abs(off), "use", "up")), value=volts, limit=OUT_OF_STEP_V,
            margin=OUT_OF_STEP_V - abs(off), unit="V", because="compared per cell with the middle of the shelf", shows="voltage",
            working=lambda volts=volts, off=off: (  # type: ignore[misc]
                Step("per cell", "reading / cells in series", volts, "V"),
                Step("middle of the shelf", "median per cell", middle, "V"),
                Step("off by", "difference", off, "V", "limit 0.05 V a cell: common practice, no source"),
            ),
        )  # fmt: skip


def _deadly(design: Design) -> Iterator[Finding]:
    """The caution of voltage: everything on the shelf in series, full, decides."""
    full = sum(design.module_kinds[m.kind].full_v for m in design.modules.values())
    if full > DEADLY_V:
        yield Finding(
            id="stock:deadly", code="stock.deadly", station="stock", state="note", subjects=("modules",), value=full,
            limit=DEADLY_V, unit="V", says="All that stand here in series: {0} full", figures=(Figure(full, "V", "up"),),
            because="above 60 V d.c. can kill (voltage class B, ISO 6469-3, from memory)", shows="voltage",
        )  # fmt: skip


def _short(assembly: Assembly) -> Iterator[Finding]:
    placed = Counter(m.kind for box in assembly.boxes.values() for m in box.shell.modules)
    shelf = Counter(m.kind for m in assembly.design.modules.values() if m.verdict != "reject")
    for kind, count in placed.items():
        if count > shelf[kind]:
            name = plain(assembly.design.module_kinds[kind].name)
            yield Finding(
                id=f"stock:count:{kind}", code="stock.count", station="stock", state="unknown", subjects=(f"module_kinds/{kind}",),
                says=f"{count} of {name} are placed, {shelf[kind]} stand on the shelf", value=float(shelf[kind]),
                limit=float(count), margin=float(shelf[kind] - count), because="what is not on the shelf was never measured",
            )  # fmt: skip
