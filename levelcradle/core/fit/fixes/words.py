"""Several changes in one sentence."""

import re
from collections.abc import Iterable

from levelcradle.core.finding import Figure
from levelcradle.core.fit.fixes.question import Move

__all__ = ["SentencePart", "joined", "move_part"]

SentencePart = tuple[str, tuple[Figure, ...]]
"""What is done, with slots for its figures."""


def joined(parts: Iterable[SentencePart]) -> SentencePart:
    """Slots are numbered through."""
    words: list[str] = []
    figures: tuple[Figure, ...] = ()
    for message, own in parts:
        words.append(_numbered_from(len(figures), message))
        figures += own
    return " and ".join(words), figures


def _numbered_from(first: int, words: str) -> str:
    return re.sub(r"\{(\d+)\}", lambda slot: f"{{{int(slot[1]) + first}}}", words)


def move_part(move: Move, far_mm: float) -> list[SentencePart]:
    """Nothing where nothing is moved."""
    return [(f"move the box {{0}} {move.word}", (Figure(far_mm, "mm", "up"),))] if far_mm else []
