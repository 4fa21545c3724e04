"""How strong mounts must be at a place, and which of those that can be made there are."""

from collections import Counter
from collections.abc import Sequence
from itertools import chain
from typing import Any

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.connection import OFFERS, RECIPES, SHAPE_OF, Connection, connect
from levelcradle.core.design.mount import Mount
from levelcradle.core.finding import TIGHT_UTILISATION
from levelcradle.core.hang.within_reach import Within
from levelcradle.core.mount import envelope
from levelcradle.core.strength import SHAKEN_G

__all__ = ["Sizing", "outline_of", "words_of_all"]

BOLT = "bolt"  # the check that a stronger bolt alone may mend


class Sizing:
    """Mounts for one box, made and asked once each."""

    def __init__(self, assembly: Assembly, box: PlacedBox) -> None:
        self.assembly, self.box = assembly, box
        self._made: dict[tuple[str, int], dict[str, Any] | None] = {}
        self._connections: dict[tuple[str, int], Connection] = {}
        self._fit: dict[Connection, bool] = {}
        self._failed = ""  # the check that the last one failed: the next is asked it first
        cases = list(assembly.tables.load_cases.values())
        thrown = assembly.tables.load_factor * np.array([(c.aft_g, c.right_g, c.up_g) for c in cases])
        self.accelerations_g = np.array([*thrown, *SHAKEN_G.values()])
        self.road = np.array([case.kind == "road" for case in cases])

    def forces(self, points: Sequence[Vec], mass_kg: float) -> Matrix:
        """(2n + 1, k, n, 3) forces on mounts at n points that carry so much, in k cases and shaken [N]."""
        return envelope(np.array(points), np.array(self.box.hung_cg), mass_kg, self.accelerations_g)

    def made(self, row: Within, number: int) -> dict[str, Any] | None:
        key = (row.path, number)
        if key not in self._made:
            self._made[key] = OFFERS[row.kind].made(RECIPES[number], row.place, self.assembly.tables)
        return self._made[key]

    def connection(self, row: Within, number: int) -> Connection:
        key = (row.path, number)
        if key not in self._connections:
            self._connections[key] = self.connected(row, self.made(row, number) or {})
        return self._connections[key]

    def connected(self, row: Within, made: dict[str, Any]) -> Connection:
        mount = Mount.model_validate({**made, "name": row.name, "face": row.face, "carries": {self.box.path: True}})
        return connect("proposed", mount, row.place.spot, row.place.seat, self.assembly.tables)

    def utilisation_of(self, connection: Connection, forces: Matrix) -> float:
        """The largest use of a mount; of a check that is never clear only what lies beyond its capacity counts as more
        than clear."""
        if not self._fits(connection):
            return np.inf
        worst, thrown = 0.0, len(self.road)
        parts, shaken = connection.parts_of(forces[:, :thrown]), connection.parts_of(forces[:, thrown:])
        asked = connection.utilisations(parts, road=self.road, first=self._failed)
        for check, utilisations in chain(asked, connection.fatigue(shaken)):
            most = float(utilisations.max())
            if most > 1.0 and check != BOLT:
                self._failed = check
                return np.inf
            worst = max(worst, min(most, TIGHT_UTILISATION) if check in connection.rough and most <= 1.0 else most)
        return worst

    def _fits(self, connection: Connection) -> bool:
        if connection not in self._fit:
            asks = connection.shape_asks()
            self._fit[connection] = not (connection.unfit or connection.unchecked) and all(fits for _, fits in asks)
        return self._fit[connection]

    def holding(self, row: Within, forces: Matrix) -> list[dict[str, Any]]:
        """What holds at one place, the lightest first, and before all what is clear where it may be."""
        utilisations: dict[int, tuple[float, int]] = {}  # by shape
        for number, shape in enumerate(SHAPE_OF):
            undecided = 1.0 < utilisations.get(shape, (2.0, 0))[0] < np.inf  # without end no other bolt would do
            if undecided and self.made(row, number) is not None:
                utilisations[shape] = min(
                    (self.utilisation_of(self.connection(row, number), forces), number),
                    utilisations.get(shape, (np.inf, 0)),
                )
        held = sorted(
            (utilisation > TIGHT_UTILISATION, number)
            for utilisation, number in utilisations.values()
            if utilisation <= 1.0
        )
        return [made for _, number in held if (made := self.made(row, number))]

    def nearest(self, row: Within, forces: Matrix) -> tuple[float, str] | None:
        """Of what can be made at one place the largest use of that which is used least, and by which check; None where
        nothing can."""
        rows = (self.connection(row, n) for n in range(len(SHAPE_OF)) if self.made(row, n) is not None)
        return min((self._most(one, forces) for one in rows if self._fits(one)), default=None)

    def _most(self, connection: Connection, forces: Matrix) -> tuple[float, str]:
        thrown = len(self.road)
        parts, shaken = connection.parts_of(forces[:, :thrown]), connection.parts_of(forces[:, thrown:])
        asked = chain(connection.utilisations(parts, road=self.road), connection.fatigue(shaken))
        return max((float(uses.max()), check) for check, uses in asked)


def outline_of(made: dict[str, Any]) -> tuple[float, ...]:
    shape, hold = made["shape"], made["to_box"]
    plate = hold.get("doubler") or {}
    outside = (plate.get(name, 0.0) for name in ("thickness_mm", "along_w_mm", "along_n_mm"))
    behind = hold.get("behind") or {}
    inside = (behind.get("thickness_mm", 0.0), *behind.get("size_mm", (0.0, 0.0)))
    long = shape[OFFERS[shape["type"]].long]
    return shape["thickness_mm"], shape["width_mm"], long, *outside, *inside


def words_of_all(made: Sequence[dict[str, Any]]) -> str:
    sorts = Counter(map(_made_of, made))
    if len(sorts) == 1:
        return next(iter(sorts))
    return "; ".join(f"{number} {words if number > 1 else _of_one(words)}" for words, number in sorts.items())


def _of_one(words: str) -> str:
    """Said of several, as it is said of one."""
    first, rest = words.split(" ", 1)
    return f"{first.removesuffix('s')} {rest}"


def _made_of(made: dict[str, Any]) -> str:
    """What the mounts are cut from, in words."""
    shape, hold, bolt = made["shape"], made["to_box"], made["lands_on"]["bolt"]
    plate = hold.get("doubler") or hold.get("behind")
    what = "plates behind the wall" if hold["type"] == "bolted" else "doublers"
    plates = f"{what} {plate['thickness_mm']:g} mm" if plate else f"no {what}"
    through = (
        f", {hold['rows'] * hold['across']} {hold['bolt']['size']} through the wall each" if "rows" in hold else ""
    )
    sheets = f"{OFFERS[shape['type']].words} {shape['thickness_mm']:g} × {shape['width_mm']:g} mm"
    return f"{sheets}, bolts {bolt['property_class']}{through}, {plates}"
