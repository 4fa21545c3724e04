"""What nobody has measured or weighed, that figures of what carries a box rest on."""

from collections.abc import Iterable, Sequence

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.finding import State, plain, utilisation_state

__all__ = ["rough_verdict", "unsure"]


def unsure(assembly: Assembly, boxes: Sequence[PlacedBox], paths: Iterable[str]) -> str:
    """The first of it in words, of boxes and of the spots that they hang on; empty where all is known."""
    guess = next((g for path in paths if (g := assembly.guess_of(path))), None)
    guess = guess or next((g for box in boxes if (g := assembly.guess_in(box))), None)
    if guess:
        return f"not measured: {assembly.words_of(guess)}"
    unweighed = next((box.unweighed[0] for box in boxes if box.unweighed), "")
    return f"mass or place of {unweighed} is missing" if unweighed else ""


def rough_verdict(utilisation: float, doubt: str, not_checked: str) -> tuple[State, str]:
    """The state of a use that is never better than tight, and why: a foul one stays foul, any other that rests on a
    doubt is not known."""
    state = utilisation_state(utilisation)
    if doubt:
        return ("foul" if state == "foul" else "unknown"), f"{plain(doubt)}. {not_checked}"
    return ("tight" if state == "clear" else state), not_checked
