"""What is said of a crossmember: how it lies, its weakest check, how far it sags."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly
from levelcradle.core.finding import Figure, Finding, State, Step, plain
from levelcradle.core.mount.crossmembers import SAG_SHARE, CrossmemberResult
from levelcradle.core.mount.unsure import rough_verdict, unsure

__all__ = ["crossmember_findings"]

NOT_CHECKED = (
    "Free to turn at both ends, static. Not checked: the vehicle's own metal, fatigue, buckling to the side, weld "
    "quality. Have it checked."
)


def crossmember_findings(assembly: Assembly, result: CrossmemberResult) -> Iterator[Finding]:
    bar = result.bar
    name, broken = plain(bar.spec.name), [words for words, fits in bar.asks(assembly.tables) if not fits]
    if bar.unfit:
        yield _told(result, "unfit", "foul", f"{name} cannot lie where it is: {plain(bar.unfit)}")
        return
    for number, words in enumerate(broken, 1):
        yield _told(result, f"asks:{number}", "foul", f"{name}: {plain(words)}")
    if result.unchecked:
        state: State = "unknown" if result.boxes else "note"
        yield _told(result, "use", state, f"{name}: {plain(result.unchecked)}")
        return
    yield _use(assembly, result, name)
    if result.sag_mm is not None:
        yield _sag(result, name, result.sag_mm)


def _told(result: CrossmemberResult, key: str, state: State, message: str) -> Finding:
    return Finding(
        id=f"crossmember:{result.bar.id}:{key}",
        code="mount.crossmember",
        station="mount",
        state=state,
        subjects=(result.bar.path, *(box.path for box in result.boxes)),
        message=message,
        rationale=NOT_CHECKED,
        label="crossmember",
    )


def _use(assembly: Assembly, result: CrossmemberResult, name: str) -> Finding:
    """Never better than tight: the vehicle's own metal is not known."""
    weakest = result.checks[0]
    state, why = rough_verdict(weakest.utilisation, _unsure(assembly, result), NOT_CHECKED)
    return Finding(
        id=f"crossmember:{result.bar.id}:use",
        code="mount.crossmember",
        station="mount",
        state=state,
        subjects=(result.bar.path, *(box.path for box in result.boxes)),
        message=f"{name}: weakest is its {weakest.check}, use {{0}}, {plain(weakest.case)}",
        figures=(Figure(weakest.utilisation, "use", "up"),),
        value=weakest.utilisation,
        limit=1.0,
        margin=1.0 - weakest.utilisation,
        unit="use",
        rationale=why,
        label=weakest.check,
        working=lambda: weakest.working,
    )


def _unsure(assembly: Assembly, result: CrossmemberResult) -> str:
    """A figure that it rests on and that nobody has taken, approved or weighed."""
    for point in result.bar.ends:
        if point.kind == "seat or belt point" and not point.approved.strip():
            return f"{point.name} holds a seat or a belt: it needs its own approval"
    return unsure(assembly, result.boxes, (f"hardpoints/{key}" for key in result.bar.spec.hardpoints))


def _sag(result: CrossmemberResult, name: str, sag_mm: float) -> Finding:
    span = result.bar.span_mm
    most = span * SAG_SHARE
    return Finding(
        id=f"crossmember:{result.bar.id}:sag",
        code="mount.crossmember",
        station="mount",
        state="foul" if sag_mm > most else "clear",
        subjects=(result.bar.path, *(box.path for box in result.boxes)),
        message=f"{name} sags by {{0}} at rest, at most {{1}}",
        figures=(Figure(sag_mm, "mm", "up"), Figure(most, "mm", "down")),
        value=sag_mm,
        limit=most,
        margin=most - sag_mm,
        unit="mm",
        rationale="a five-hundredth of its span: the shop's line (common practice, no source)",
        label="sag",
        working=lambda: (
            Step("span", "between its hard points", span, "mm"),
            Step("I, up and down", str(result.bar.section), result.bar.figures.second_mm4, "mm⁴", "of the section"),
            Step("sags by", "Σ F b x (L² − b² − x²) / 6 E I L", sag_mm, "mm", "beam theory"),
            Step("at most", "span / 500", most, "mm", "common practice, no source"),
        ),
    )
