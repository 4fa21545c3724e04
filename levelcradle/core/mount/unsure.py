"""What nobody has measured or weighed, that figures of what carries a box rest on."""

from collections.abc import Iterable, Sequence

from levelcradle.core.assembly import Assembly, PlacedBox

__all__ = ["unsure"]


def unsure(assembly: Assembly, boxes: Sequence[PlacedBox], paths: Iterable[str]) -> str:
    """The first of it in words, of boxes and of the spots that they hang on; empty where all is known."""
    guess = next((g for path in paths if (g := assembly.guess_of(path))), None)
    guess = guess or next((g for box in boxes if (g := assembly.guess_in(box))), None)
    if guess:
        return f"not measured: {assembly.words_of(guess)}"
    unweighed = next((box.unweighed[0] for box in boxes if box.unweighed), "")
    return f"mass or place of {unweighed} is missing" if unweighed else ""
