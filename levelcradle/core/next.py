"""What takes a car furthest now: the first thing, in the order of work, that a check asks for and that nobody has
done."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from levelcradle.core.design import Design, tree_of
from levelcradle.core.design.taken import not_taken
from levelcradle.core.design.words import words_of
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.survey.missing import unseen

__all__ = ["Next", "next_step"]


@dataclass(frozen=True, slots=True)
class Next:
    """One thing to do. ``goes``: the path of the document whose blank does it; a collection's is the button that adds
    to it."""

    message: str
    station: str
    goes: str
    figures: tuple[Figure, ...] = ()
    finding: str | None = None


Findings = Sequence[Finding]


def next_step(design: Design, findings: Findings) -> Next:
    """``findings``: of the same design, worst first. Where nothing is left to do it is the cut files."""
    for step in _IN_ORDER:
        if found := step(design, findings):
            return found
    return Next("everything stands: take the files to cut from", "drawings", "/drawings")


STATION = {
    "module_kinds": "stock",
    "modules": "stock",
    "strings": "stock",
    "boxes": "box",
    "mounts": "mount",
    "crossmembers": "mount",
    "load_states": "level",
}
"""Where the figures of a collection are filled in; all else is surveyed."""


def _at(message: str, goes: str) -> Next:
    return Next(message, STATION.get(goes.split("/")[1], "survey"), goes)


def _weigh(design: Design, findings: Findings) -> Next | None:
    return None if design.weighing else _at("weigh the car as it was found: two axle readings will do", "/weighings")


def _begun(design: Design, findings: Findings) -> Next | None:
    """What was begun is finished first."""
    paths = not_taken(design)
    return _at(f"take {plain(words_of(tree_of(design), paths[0]))}", paths[0]) if paths else None


def _comes_out(design: Design, findings: Findings) -> Next | None:
    if any(item.state == "out" for item in design.items.values()):
        return None
    return _at("list what comes out, with its mass and its place: engine, exhaust, tank", "/items")


def _weighs(design: Design, findings: Findings) -> Next | None:
    aboard = {key for state in design.load_states.values() for key in state.aboard}
    for key, item in design.items.items():
        if item.state in ("out", "in") or key in aboard:
            if item.weighs_kg is None:
                return _at(f"weigh the {plain(item.name)}", f"/items/{key}/mass_kg")
            if item.at_mm is None and item.solid is None and item.held_by is None:
                return _at(f"say where the {plain(item.name)} sits", f"/items/{key}/at_mm")
    return None


def _space(design: Design, findings: Findings) -> Next | None:
    return None if design.bays else _at("measure the first space that a box could go in", "/bays")


def _sides(design: Design, findings: Findings) -> Next | None:
    row = next((row for row in unseen(design) if row.path.startswith("bays/")), None)
    return _at(f"say what it is, metal or open: {plain(row.what)}", f"/{row.path}/is") if row else None


def _kind(design: Design, findings: Findings) -> Next | None:
    return None if design.module_kinds else _at("measure a module, weigh it and read its voltages", "/module_kinds")


def _shelf(design: Design, findings: Findings) -> Next | None:
    return None if design.modules else _at("say how many modules there are", "/modules")


def _box(design: Design, findings: Findings) -> Next | None:
    return None if design.boxes else Next("ask how many modules fit, and take a proposal", "place", "/boxes")


def _in_the_way(design: Design, findings: Findings) -> Next | None:
    row = next((row for row in unseen(design) if row.path.startswith("items/")), None)
    return _at(f"measure {plain(row.what)}, no gap is checked against it", f"/{row.path}") if row else None


def _first(prefixes: tuple[str, ...], states: tuple[str, ...], words: str) -> Callable[[Design, Findings], Next | None]:
    """The worst finding of a sort."""

    def step(design: Design, findings: Findings) -> Next | None:
        for finding in findings:
            if finding.state in states and finding.code.startswith(prefixes) and finding.code != "drawings.release":
                goes = "/" + finding.subjects[0] if finding.subjects else f"/{finding.station}"
                return Next(f"{words}: {finding.message}", finding.station, goes, finding.figures, finding.id)
        return None

    return step


def _points(design: Design, findings: Findings) -> Next | None:
    if design.hardpoints or design.members:
        return None
    return _at("list the holes, nuts and rails that could carry the boxes", "/hardpoints")


def _hang(design: Design, findings: Findings) -> Next | None:
    held = {path for mount in design.mounts.values() for path in mount.carries}
    for key, box in design.boxes.items():
        if f"boxes/{key}" not in held:
            return Next(f"ask how the {plain(box.name)} can hang", "mount", "/mounts")
    return None


def _cable(design: Design, findings: Findings) -> Next | None:
    found = next((f for f in findings if f.code == "box.cable"), None)
    return Next(found.message, "box", f"/{found.subjects[0]}/openings", found.figures, found.id) if found else None


def _height(design: Design, findings: Findings) -> Next | None:
    return (
        None
        if design.vehicle.cg_height
        else _at("say how high the CG is: by lifting an axle, or assumed", "/vehicle/cg_height")
    )


def _ratings(design: Design, findings: Findings) -> Next | None:
    rating = design.vehicle.ratings
    if None not in (rating.front_kg, rating.rear_kg, rating.gross_kg):
        return None
    return _at("read what the axles may carry off the vehicle's plate", "/vehicle/ratings")


def _holds_back(design: Design, findings: Findings) -> Next | None:
    """What is not known and keeps the drawings back; the rest may stay open."""
    return _first(ANY, ("unknown",), "find out")(design, [f for f in findings if f.holds_back])


ANY = ("",)
_IN_ORDER: tuple[Callable[[Design, Findings], Next | None], ...] = (
    _weigh,
    _begun,
    _comes_out,
    _weighs,
    _space,
    _sides,
    _points,
    _kind,
    _shelf,
    _box,
    _first(("gap", "place", "inside"), ("foul",), "make room"),
    _hang,
    _first(("mount",), ("foul",), "make it hold"),
    _cable,
    _in_the_way,
    _ratings,
    _height,
    _first(ANY, ("foul",), "mend"),
    _holds_back,
)
