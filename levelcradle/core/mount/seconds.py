"""Second restraints: in a crash they count for nothing, and are told what they must hold if the mounts let go."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import dot
from levelcradle.core.connection import Connection, Second
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import Figure, Finding, Step, Working, plain
from levelcradle.core.mount.reactions import G_MS2

__all__ = ["second_findings"]


def second_findings(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """One for each, by the crash case that throws most against it. More than one like it held in a test is tight."""
    cases = [case for case in assembly.tables.load_cases.values() if case.kind == "crash"]
    for connection in box.mounts:
        if (second := connection.second) and cases:
            worst = max(cases, key=lambda case: _thrown_g(case, second))
            yield _finding(box, connection, second, worst, assembly.tables.load_factor)


def _thrown_g(case: LoadCase, second: Second) -> float:
    return max(dot((case.aft_g, case.right_g, case.up_g), second.against), 0.0)


def _finding(box: PlacedBox, connection: Connection, second: Second, case: LoadCase, factor: float) -> Finding:
    name, held = plain(connection.mount.name), second.tested_n
    thrown_n = factor * box.hung_kg * G_MS2 * _thrown_g(case, second)
    must_n = thrown_n * second.each
    broken = next((words for words, fits in connection.shape_asks() if not fits), "")
    message = f"{name} is a second restraint: if the mounts let go, each end must hold {{0}}, {plain(case.name)}"
    tested = "nobody has tried what one like it holds" if held is None else f"one like it held {held:.0f} N in a test"
    return Finding(
        id=f"mount:{connection.id}",
        code="mount.second",
        station="mount",
        state="foul" if broken else "tight" if held is not None and held < must_n else "note",
        subjects=(f"mounts/{connection.id}", box.path),
        message=f"{name}: {plain(broken)}" if broken else message,
        figures=() if broken else (Figure(must_n, "N", "up"),),
        value=must_n,
        limit=held,
        margin=held - must_n if held is not None else None,
        unit="N",
        rationale=f"in a crash it counts for nothing; {tested}",
        label="second restraint",
        points_mm=tuple(spot.at for spot in connection.spot.ends),
        working=lambda: _working(case, second, thrown_n),
    )


def _working(case: LoadCase, second: Second, thrown_n: float) -> Working:
    return (
        Step("thrown on it", f"full mass × g × what {case.name} throws against it", thrown_n, "N", case.source),
        Step("in each end, for a newton", "1 / (sin α + sin β)", second.each, "", "statics, no friction"),
        Step("each end must hold", "both", thrown_n * second.each, "N"),
    )
