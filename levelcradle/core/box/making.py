"""How a construction says that a box cannot be made as it is drawn."""

from collections.abc import Iterator
from dataclasses import replace

from levelcradle.core.finding import Figure, Finding, plain

__all__ = ["cannot", "too_little"]


def cannot(path: str, name: str, label: str, words: str, why: str) -> Finding:
    """Foul, without a figure. ``words``: what it is, after the name of the box."""
    return Finding(
        id=f"make:{path}:{label}",
        code="box.make",
        station="box",
        state="foul",
        subjects=(path,),
        message=f"{plain(name)}: {plain(words)}",
        rationale=why,
        label=label,
    )


def too_little(path: str, name: str, label: str, words: str, mm: tuple[float, float], why: str) -> Iterator[Finding]:
    """Foul where there is less of something than is needed. ``mm``: how much there is, and how much is needed."""
    has, needs = mm
    margin = round(has - needs, 9)
    if margin < 0:
        yield replace(
            cannot(path, name, label, words, why),
            message=f"{plain(name)}: {plain(words)} {{0}}, needs {{1}}",
            figures=(Figure(has, "mm", "down"), Figure(needs, "mm", "up")),
            value=has,
            limit=needs,
            margin=margin,
            unit="mm",
        )
