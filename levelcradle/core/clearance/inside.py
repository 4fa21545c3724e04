"""Gaps inside the boxes, how their modules stand, and whether the shell can be made."""

from collections.abc import Iterator
from functools import lru_cache

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.box import in_one_strip
from levelcradle.core.box.making import cannot
from levelcradle.core.clearance.bolted_on import bolted_findings
from levelcradle.core.clearance.chambers import chamber_findings
from levelcradle.core.clearance.compartments import compartment_findings
from levelcradle.core.clearance.fixed import gear_findings
from levelcradle.core.clearance.lightening import lightening_findings
from levelcradle.core.clearance.mouth import mouth_findings
from levelcradle.core.clearance.openings import opening_findings
from levelcradle.core.clearance.service_panels import panel_findings
from levelcradle.core.design.tables import Liner
from levelcradle.core.finding import ORDER, Figure, Finding, State, Step, plain
from levelcradle.core.modules import RAKE_DEG, rests

__all__ = ["inside_findings"]

CELLS_REACH_C = 60.0  # in use, at the outside of a module: common practice, no source


def inside_findings(assembly: Assembly) -> list[Finding]:
    """One finding a direction of each block, one a pair of blocks, and one a thing fixed to it."""
    return [
        finding
        for box in assembly.boxes.values()
        for finding in (
            *_untaken(assembly, box),
            *_lining(assembly, box),
            *compartment_findings(assembly, box),
            *_of_itself(box),
        )
    ]


@lru_cache(maxsize=512)
def _of_itself(box: PlacedBox) -> tuple[Finding, ...]:
    """What a box tells whatever stands round it."""
    return (
        *_gaps(box),
        *_resting(box),
        *_cable(box),
        *_welds(box),
        *_strip(box),
        *opening_findings(box),
        *box.shell.made.findings(box.path, box.box.name),
        *gear_findings(box),
        *bolted_findings(box),
        *chamber_findings(box),
        *mouth_findings(box),
        *lightening_findings(box),
        *panel_findings(box),
    )


def _untaken(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """A box round modules that nobody measured is no box yet."""
    path = assembly.guess_in(box, ("length", "mass", "voltage", "number"))
    if path is None:
        return
    yield Finding(
        id=f"inside:{box.path}:untaken",
        code="inside.untaken",
        station="box",
        state="unknown",
        subjects=(box.path, "/".join(path.split("/")[1:3])),
        label="not taken",
        message=f"{plain(box.box.name)}: not taken yet is {plain(assembly.words_of(path))}",
        rationale="the box is drawn round what nobody measured",
    )


def _welds(box: PlacedBox) -> Iterator[Finding]:
    """Of a welded box of which nobody has said how true it is kept."""
    if box.box.weld_class is None and any(box.box.construction.welded):
        yield Finding(
            id=f"inside:{box.path}:welds",
            code="inside.welds",
            station="box",
            state="note",
            subjects=(box.path,),
            label="pull of welds",
            message=f"{plain(box.box.name)}: no room is left inside for the pull of its welds",
            rationale="welds shrink, and what was drawn snug no longer drops in: say a class of ISO 13920",
        )


def _gaps(box: PlacedBox) -> Iterator[Finding]:
    """A gap inside is drawn, not found: at its need it is clear."""
    for gap in box.shell.gaps:
        margin = round(gap.has_mm - gap.needs_mm, 9)
        yield Finding(
            id=f"inside:{box.path}:{gap.name}",
            code="inside",
            station="box",
            state="foul" if margin < 0 else "clear",
            subjects=(box.path, f"{box.path}/{gap.subject}"),
            message=f"{plain(box.box.name)}, {gap.message}: {{0}}, needs {{1}}",
            figures=(Figure(gap.has_mm, "mm", "down"), Figure(gap.needs_mm, "mm", "up")),
            value=gap.has_mm,
            limit=gap.needs_mm,
            margin=margin,
            unit="mm",
            rationale=gap.rationale,
            label=gap.message,
            working=lambda gap=gap: (  # type: ignore[misc]
                Step("there is", "from the layout of the block", gap.has_mm, "mm"),
                Step("needed", gap.rationale, gap.needs_mm, "mm", "module sheet, as entered in Stock"),
            ),
        )


def _cable(box: PlacedBox) -> Iterator[Finding]:
    """Modules give nothing while no cable leaves their box."""
    if box.shell.modules and not box.box.openings:
        yield Finding(
            id=f"box:{box.path}:cable",
            code="box.cable",
            station="box",
            state="unknown",
            subjects=(box.path,),
            message=f"{plain(box.box.name)} has no hole for a cable",
            rationale="what its modules give has to leave it: round holes",
            label="cable hole",
        )


def _strip(box: PlacedBox) -> Iterator[Finding]:
    """One strip is of one liner."""
    if box.box.one_strip and not in_one_strip(box.box):
        words = "its floor and two walls are lined otherwise next to the metal: no one strip lines them"
        yield cannot(box.path, box.box.name, "one strip", words, "one strip is of one sheet, as thick all over")


def _lining(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """What lies against modules: that it stands their warmth, is no conductor, and feeds no fire."""
    used = {layer.material: f"layers/{face}" for face, layers in box.box.layers.items() for layer in layers.values()}
    used |= {b.dividers.material: f"blocks/{key}" for key, b in box.box.blocks.items() if b.dividers}
    for key, where in used.items():
        row = assembly.tables.liners.get(key or "")
        said = list(_against(row)) if row and box.shell.modules else []
        if row and said:
            state, words = min(said, key=lambda one: ORDER[one[0]])
            yield Finding(
                id=f"liner:{box.path}:{key}",
                code="inside.liner",
                station="box",
                state=state,
                subjects=(box.path, f"{box.path}/{where}"),
                message=f"{plain(box.box.name)}: {plain(row.name)} {words}",
                rationale="what the table of liners says of it",
                label=row.name,
            )


def _against(row: Liner) -> Iterator[tuple[State, str]]:
    if row.limit_c is not None and row.limit_c < CELLS_REACH_C:
        yield "foul", f"stands {row.limit_c:g} °C at most, modules may reach {CELLS_REACH_C:g}"
    if row.conducts == "yes":
        yield "tight", "conducts: it lies nowhere against terminals or taps"
    if row.burns == "yes":
        yield "note", "burns: it feeds the fire of a failing cell"


def _resting(box: PlacedBox) -> Iterator[Finding]:
    """Modules that stand, as the box stands in the vehicle, on a face they may not rest on."""
    seen: set[tuple[str, tuple[str, ...]]] = set()
    for module in box.shell.modules:
        if (module.block, module.looks) in seen:
            continue
        seen.add((module.block, module.looks))
        kind = module.spec
        on = rests(module.looks, kind, box.placement.turn)
        if on.allowed:
            continue
        face, name = on.face.replace("_", " "), plain(box.box.name)
        leans = f", leaning {on.off_deg:.0f}°" if on.off_deg > RAKE_DEG else ""
        yield Finding(
            id=f"rest:{box.path}:{module.block}:{on.face}",
            code="inside.rest",
            station="box",
            state="foul",
            subjects=(box.path, f"{box.path}/blocks/{module.block}"),
            label="resting face",
            value=on.off_deg,
            limit=RAKE_DEG,
            message=f"{name}, block {module.block}: modules rest on their {face}{leans}",
            rationale=f"{plain(kind.name)} may rest on {', '.join(f.replace('_', ' ') for f in kind.may_rest_on)}, "
            f"within {RAKE_DEG:g}° of level (common practice, no source)",
        )
