"""The crash cases of a design as one set of a body of rules: a national one, or the shocks of UN Regulation 100."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelcradle.core.design import Design
from levelcradle.core.design.patch import Op
from levelcradle.core.design.tables import LoadCase, standard_tables
from levelcradle.core.errors import UnknownThing
from levelcradle.core.tables import rows

__all__ = ["NATIONAL", "SHOCK", "LoadSet", "active_set", "load_sets", "with_load_set"]

NATIONAL = "national"
SHOCK = 1.7  # times a shock, of a rigid box where no body stiffness is stated: common practice, no source
STIFF, STIFF_HZ = 1.2, 30.0  # and where that lets a box shake no slower than so: common practice, no source
WAYS = {"front": ("forward", -1, 0), "rear": ("aft", 1, 0), "side-left": ("left", 0, -1), "side-right": ("right", 0, 1)}


@dataclass(frozen=True, slots=True)
class LoadSet:
    """What it is called, and its crash cases."""

    words: str
    cases: Mapping[str, LoadCase]


def load_sets() -> dict[str, LoadSet]:
    """By their ids: the national one that a new design begins with, and of each category of vehicle the shocks of the
    regulation, which throws nothing up or down: that stays as in the national one."""
    national = {key: case for key, case in standard_tables().load_cases.items() if case.kind == "crash"}
    upright = {key: case for key, case in national.items() if not (case.aft_g or case.right_g)}
    sets = {NATIONAL: LoadSet("a national low-volume set", national)}
    for row in rows("load_sets"):
        sets[row["id"]] = LoadSet(row["words"], {**dict(_shocks(row, SHOCK)), **upright})
        words = f"{row['words']}, boxes that shake at {STIFF_HZ:g} Hz or more"
        sets[f"{row['id']}-stiff"] = LoadSet(words, {**dict(_shocks(row, STIFF, STIFF_HZ)), **upright})
    return sets


def _shocks(row: Mapping[str, str], times: float, least_hz: float | None = None) -> Iterator[tuple[str, LoadCase]]:
    """Either way along and across, its own weight beside it once."""
    along, across = (float(row[name]) for name in ("along_g", "across_g"))
    why = f"boxes shake at {least_hz:g} Hz or more" if least_hz else "no body stiffness is stated"
    source = f"{row['source']}; times {times:g}, {why} (common practice, no source)"
    for key, (words, aft, right) in WAYS.items():
        g = (aft * along * times, right * across * times)
        yield (
            key,
            LoadCase(
                kind="crash",
                name=f"shock (thrown {words})",
                aft_g=g[0],
                right_g=g[1],
                up_g=-1.0,
                least_hz=least_hz,
                source=source,
            ),
        )


def active_set(design: Design) -> str | None:
    """Which set the crash cases of a design are; None where the shop has changed or added some."""
    own = {key: case for key, case in design.tables.load_cases.items() if case.kind == "crash"}
    return next((key for key, one in load_sets().items() if one.cases == own), None)


def with_load_set(design: Design, name: str) -> list[Op]:
    """The crash cases exchanged for those of a set; cases of the road, and crash cases of the shop's own, stay. Raises
    UnknownThing."""
    sets = load_sets()
    if name not in sets:
        raise UnknownThing("load set", name)
    kept = {key: case for key, case in design.tables.load_cases.items() if case.kind == "road" or case.own}
    cases = {**kept, **{key: case for key, case in sets[name].cases.items() if key not in kept}}
    value = {key: case.model_dump(mode="json") for key, case in cases.items()}
    return [{"op": "replace", "path": "/tables/load_cases", "value": value}]
