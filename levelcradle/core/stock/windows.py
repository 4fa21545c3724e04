"""Voltage windows of the gear: what goes in says between which voltages it works, and every string is asked whether it
stays within."""

from collections.abc import Iterator, Mapping

from levelcradle.core.design import Design
from levelcradle.core.design.survey import Item
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.modules import StringResult, strings_in

__all__ = ["common_window", "window_findings"]

HIGHEST_V = 2000.0  # of any figure in the document
WHY = "from its empty cells to its full ones, as the gear's maker states (data sheet)"


def _gear(design: Design) -> Iterator[tuple[str, Item]]:
    for key, item in design.items.items():
        if item.state == "in" and (item.least_v is not None or item.most_v is not None):
            yield key, item


def common_window(design: Design) -> tuple[float, float] | None:
    """The voltages at which all gear works that states any: the highest of the lowest to the lowest of the highest;
    None where none is stated, or where they have nothing in common."""
    gear = [item for _, item in _gear(design)]
    low = max((item.least_v for item in gear if item.least_v is not None), default=0.0)
    high = min((item.most_v for item in gear if item.most_v is not None), default=HIGHEST_V)
    return (low, high) if gear and low < high else None


def window_findings(design: Design) -> Iterator[Finding]:
    """Each string against each thing that states a window."""
    strings = strings_in(design.boxes.values(), design.module_kinds, design.strings)
    for key, item in _gear(design):
        rows = [
            row for name, string in strings.items() for row in _against(key, item, _named(design, name), name, string)
        ]
        yield from rows
        if strings and not rows:
            yield _within(key, item, strings)


def _named(design: Design, key: str) -> str:
    return plain(design.strings[key].name) if key else "The string"


def _against(key: str, item: Item, words: str, string: str, figures: StringResult) -> Iterator[Finding]:
    path, name, full, empty = f"items/{key}", plain(item.name), figures.full_v, figures.empty_v
    subjects = (path, f"strings/{string}") if string else (path,)
    if item.most_v is not None and full > item.most_v:
        message = f"{words} is {{0}} full, {name} takes {{1}} at most"
        yield _foul(f"{path}:most:{string}", subjects, message, full, item.most_v, item.most_v - full)
    if item.least_v is None:
        return
    message = f"{words} is {{0}} empty, {name} needs {{1}} at least"
    if empty is None:
        yield Finding(
            id=f"volts:{path}:least:{string}",
            code="gear.volts",
            station="stock",
            state="unknown",
            subjects=subjects,
            message=f"{words} has no empty voltage: {name} needs {{0}} at least",
            figures=(Figure(item.least_v, "V"),),
            unit="V",
            limit=item.least_v,
            rationale="not every kind in it says its empty voltage",
            label="voltage",
        )
    elif empty < item.least_v:
        yield _foul(f"{path}:least:{string}", subjects, message, empty, item.least_v, empty - item.least_v)


def _foul(ends: str, subjects: tuple[str, ...], message: str, value: float, limit: float, margin: float) -> Finding:
    return Finding(
        id=f"volts:{ends}",
        code="gear.volts",
        station="stock",
        state="foul",
        subjects=subjects,
        message=message,
        value=value,
        limit=limit,
        figures=(Figure(value, "V"), Figure(limit, "V")),
        margin=margin,
        unit="V",
        rationale=WHY,
        label="voltage",
    )


def _within(key: str, item: Item, strings: Mapping[str, StringResult]) -> Finding:
    """Says the ends that were asked, and measures at the nearer one. Only called where no string says anything against
    it."""
    path, ends = f"items/{key}", list(_ends(item, strings))
    margin, value, limit, _ = min(ends)
    words = " and ".join(f"{{{n}}} {end}" for n, (*_, end) in enumerate(ends))
    return Finding(
        id=f"volts:{path}",
        code="gear.volts",
        station="stock",
        state="clear",
        subjects=(path,),
        value=value,
        limit=limit,
        message=f"{plain(item.name)} takes the string, {words}",
        figures=tuple(Figure(volts, "V") for _, volts, _, _ in ends),
        margin=margin,
        unit="V",
        rationale=WHY,
        label="voltage",
    )


def _ends(item: Item, strings: Mapping[str, StringResult]) -> Iterator[tuple[float, float, float, str]]:
    """(margin, volts, limit, which end) of each end that the thing states."""
    if item.least_v is not None:
        empty = min(s.empty_v for s in strings.values() if s.empty_v is not None)
        yield empty - item.least_v, empty, item.least_v, "empty"
    if item.most_v is not None:
        full = max(s.full_v for s in strings.values())
        yield item.most_v - full, full, item.most_v, "full"
