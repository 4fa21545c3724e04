"""The shelf: modules out of step in voltage, and whether there are as many as were placed."""

from collections import Counter
from collections.abc import Iterator

from levelcradle.core.assembly import Assembly
from levelcradle.core.design import Design
from levelcradle.core.finding import Figure, Finding, Step, Working, plain
from levelcradle.core.modules import strings_in
from levelcradle.core.stock.shelf import MAD_FACTOR, OUTLYING, ShelfResult, ShelfRow, shelf_result
from levelcradle.core.stock.windows import window_findings

__all__ = ["stock_findings"]

DEADLY_V = 60.0  # d.c.: voltage class B, ISO 6469-3, from memory


def stock_findings(design: Design, assembly: Assembly) -> list[Finding]:
    """What stands on the shelf by itself, and against what was placed."""
    return [
        *_out_of_step(design),
        *_as_they_are(design),
        *_short(design, assembly),
        *_strings(design),
        *window_findings(design),
        *_deadly(design),
    ]


def _out_of_step(design: Design) -> Iterator[Finding]:
    shelf = shelf_result(design)
    for row in shelf.rows:
        if not row.out_of_step:
            continue
        module = design.modules[row.id]
        yield Finding(
            id=f"stock:volts:{row.id}",
            code="stock.volts",
            station="stock",
            state="tight",
            subjects=(f"modules/{row.id}",),
            message=f"{plain(module.name)} reads {{0}}, out of step by {{1}} V a cell",
            figures=(Figure(module.volts or 0.0, "V"), Figure(abs(row.off_v), "use", "up")),
            value=abs(row.off_v),
            limit=shelf.limit_v,
            margin=shelf.limit_v - abs(row.off_v),
            unit="use",
            rationale="compared per cell with the middle of the shelf",
            label="volts off, a cell",
            working=lambda row=row: _working(shelf, row),  # type: ignore[misc]
        )


def _working(shelf: ShelfResult, row: ShelfRow) -> Working:
    return (
        Step("per cell", "reading / cells in series", row.per_cell_v, "V"),
        Step("middle of the shelf", "median per cell", shelf.middle_v or 0.0, "V"),
        Step("off by", "difference", row.off_v, "V"),
        Step(
            "spread",
            f"{MAD_FACTOR} × median absolute deviation",
            shelf.spread_v,
            "V",
            "Iglewicz and Hoaglin, from memory",
        ),
        Step(
            "limit", f"the wider of the floor and {OUTLYING} spreads", shelf.limit_v, "V", "floor as set for this shelf"
        ),
        Step("the meter can tell", "its step / cells in series", shelf.meter_v, "V"),
    )


def _as_they_are(design: Design) -> Iterator[Finding]:
    """Modules altered beyond their kind's size, damaged ones still counted good, stand-ins, stacks that are to be
    split."""
    for key, module in design.modules.items():
        name, path = plain(module.name), (f"modules/{key}",)
        size = design.module_kinds[module.kind].size_mm
        if module.altered and (over := max(a - s for a, s in zip(module.altered.size_mm, size, strict=True))) > 0:
            yield Finding(
                id=f"stock:altered:{key}",
                code="stock.altered",
                station="stock",
                state="unknown",
                subjects=path,
                message=f"{name} as altered is {{0}} larger than its kind: give it a kind of its own",
                figures=(Figure(over, "mm", "up"),),
                value=over,
                limit=0.0,
                margin=-over,
                unit="mm",
                rationale=module.altered.what,
                label="altered",
            )
        if module.damage and module.verdict == "good":
            yield Finding(
                id=f"stock:damage:{key}",
                code="stock.damage",
                station="stock",
                state="tight",
                subjects=path,
                message=f"{name} is damaged and still counted good",
                rationale=module.damage,
                label="damage",
            )
        if module.stand_in:
            yield Finding(
                id=f"stock:stand-in:{key}",
                code="stock.stand_in",
                station="stock",
                state="unknown",
                subjects=path,
                message=f"{name} is a stand-in for trial: swap it before anything is joined",
                rationale="fitted to try the place only",
                label="stand-in",
            )
    for key, stack in design.stacks.items():
        if not stack.kept:
            yield Finding(
                id=f"stock:stack:{key}",
                code="stock.stack",
                station="stock",
                state="note" if stack.split_needs else "unknown",
                subjects=(f"stacks/{key}",),
                message=f"{plain(stack.name)} is to be split",
                rationale=stack.split_needs or "nobody has said what the split needs",
                label="stack",
            )


def _deadly(design: Design) -> Iterator[Finding]:
    """The caution of voltage: everything on the shelf in series, full, decides."""
    full = sum(design.module_kinds[m.kind].full_v for m in design.modules.values())
    if full > DEADLY_V:
        yield Finding(
            id="stock:deadly",
            code="stock.deadly",
            station="stock",
            state="note",
            subjects=("modules",),
            value=full,
            limit=DEADLY_V,
            unit="V",
            message="All that stand here in series: {0} full",
            figures=(Figure(full, "V", "up"),),
            rationale="above 60 V d.c. can kill (voltage class B, ISO 6469-3, from memory)",
            label="voltage",
        )


ALIKE_V = 0.05  # two strings of the same modules differ by less: rounding


def _strings(design: Design) -> Iterator[Finding]:
    """Strings side by side have one voltage, or the higher feeds the lower; and what stands side by side in a block
    goes up in it."""
    strings = strings_in(design.boxes.values(), design.module_kinds, design.strings)
    names = {key: plain(design.strings[key].name) if key else "what is in no string" for key in strings}
    highest = max(strings, key=lambda key: strings[key].full_v, default="")
    for key, string in strings.items():
        if strings[highest].full_v - string.full_v > ALIKE_V:
            yield Finding(
                id=f"string:{key or '-'}",
                code="string.alike",
                station="box",
                state="foul",
                subjects=(f"strings/{key}",) if key else (),
                message=f"{names[key]} is {{0}} full, {names[highest]} {{1}}: side by side the higher feeds the lower",
                unit="V",
                figures=(Figure(string.full_v, "V"), Figure(strings[highest].full_v, "V")),
                value=string.full_v,
                limit=strings[highest].full_v,
                margin=string.full_v - strings[highest].full_v,
                rationale="strings side by side are of one voltage (common practice, no source)",
                label="strings",
            )
    for path, block in (
        (f"boxes/{b}/blocks/{k}", block) for b, box in design.boxes.items() for k, block in box.blocks.items()
    ):
        if over := block.counts.total % block.parallel:
            yield Finding(
                id=f"string:{path}",
                code="string.uneven",
                station="box",
                state="foul",
                subjects=(path,),
                message=f"{block.counts.total} modules do not go in lots of {block.parallel} side by side: {over} over",
                value=float(over),
                rationale="as many stand side by side at every step of a string",
                label="strings",
            )


def _short(design: Design, assembly: Assembly) -> Iterator[Finding]:
    placed = Counter(m.kind for box in assembly.boxes.values() for m in box.shell.modules)
    shelf = Counter(m.kind for m in design.modules.values() if m.verdict != "reject")
    for kind, count in placed.items():
        if count > shelf[kind]:
            name = plain(design.module_kinds[kind].name)
            yield Finding(
                id=f"stock:count:{kind}",
                code="stock.count",
                station="stock",
                state="unknown",
                subjects=(f"module_kinds/{kind}",),
                message=f"{count} of {name} are placed, {shelf[kind]} stand on the shelf",
                value=float(shelf[kind]),
                limit=float(count),
                margin=float(shelf[kind] - count),
                rationale="what is not on the shelf was never measured",
            )
