"""Connectors: a plug goes into none but its own."""

from collections.abc import Iterator
from itertools import groupby

from levelcradle.core.assembly import Assembly
from levelcradle.core.design.fitted import Fitted
from levelcradle.core.finding import Finding, plain

__all__ = ["mating_findings"]

Row = tuple[str, str, str, Fitted]  # size and key, path, name, what it is


def mating_findings(assembly: Assembly) -> Iterator[Finding]:
    """Of all connectors of the car that take the same plug: foul where one is plus and another minus, noted where
    nobody has said of one what it carries."""
    rows = sorted(_connectors(assembly), key=lambda row: row[:2])
    for like, group in groupby(rows, key=lambda row: row[0]):
        alike = list(group)
        plus, minus = ([row for row in alike if row[3].pole == pole] for pole in ("plus", "minus"))
        bare = [row for row in alike if row[3].pole is None]
        if plus and minus:
            words = f"the plug of {plain(plus[0][2])} goes into {plain(minus[0][2])}: another key, or another size"
            yield _finding(like, "foul", (plus[0], minus[0]), words)
        elif bare and len(alike) > 1:
            words = f"{len(alike)} connectors take the same plug, and of {plain(bare[0][2])} nobody has said its pole"
            yield _finding(like, "note", (bare[0],), words)


def _connectors(assembly: Assembly) -> Iterator[Row]:
    for box in assembly.boxes.values():
        for key, hole in box.box.openings.items():
            if hole.fitted and hole.fitted.kind == "connector":
                like = f"{hole.fitted.size.strip()}/{hole.fitted.key.strip()}".lower()
                yield like, f"{box.path}/openings/{key}", f"{box.box.name}, {hole.name}", hole.fitted


def _finding(like: str, state: str, rows: tuple[Row, ...], words: str) -> Finding:
    return Finding(
        id=f"mating:{like}",
        code="box.mating",
        station="box",
        state="foul" if state == "foul" else "note",
        subjects=tuple(dict.fromkeys(p for _, path, _, _ in rows for p in (path.rsplit("/", 2)[0], path))),
        message=words[0].upper() + words[1:],
        label="plus and minus apart",
        rationale="who joins them in place sees neither wire: shape or key keeps plus and minus apart (common "
        "practice, no source)",
    )
