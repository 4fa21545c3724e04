"""Writes what is generated from the code: schema, API description, typed client, format vectors, and rules that the
screens show.

A test writes them again and compares, so that none drifts.
"""

import json
import subprocess
from pathlib import Path
from typing import Any, cast, get_args

from levelcradle.core.clearance.rooms import USUAL_MM
from levelcradle.core.design import schema
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import EDGES_OF, FACE_AT, edges_meet
from levelcradle.core.design.layers import WALLS
from levelcradle.core.design.readings import KINDS, SIZES, WAYS
from levelcradle.core.design.survey import Role
from levelcradle.core.design.taken import ASIDE, COUNTED
from levelcradle.core.fit import Wishes
from levelcradle.core.fit.edge_cuts import EDGES
from levelcradle.core.modules.orientations import DIRECTIONS, every_orientation
from levelcradle.core.mount.findings import NOT_CHECKED
from levelcradle.core.quantity import POUND_KG, write_along, write_length, write_mass
from levelcradle.server import create_app
from levelcradle.store import Store

__all__ = ["generate", "generated"]

ROOT = Path(__file__).parents[1]
CLIENT = ROOT / "web" / "src" / "design" / "schema.d.ts"
LENGTHS = (
    0.0,
    0.04,
    1.0,
    10.5,
    24.96,
    25.4,
    57.86,
    371.475,
    698.5,
    1190.0,
    2670.5,
    -12.0,
    -0.4,
    3.175,
    15.875,
    0.79375,
)


class _NoDatabase:
    def bind(self, models: object) -> None:
        """The description of the routes needs no rows."""


def generated() -> dict[Path, str]:
    """Path and text of every generated file but the typed client."""
    api = create_app(Store(_NoDatabase())).openapi()
    return {
        ROOT / "docs" / "design.schema.json": _json(schema()),
        ROOT / "docs" / "openapi.json": _json(api),
        ROOT / "web" / "src" / "ui" / "format.vectors.json": _json(_vectors()),
        ROOT / "web" / "src" / "design" / "rules.json": _json(_rules()),
    }


def generate() -> int:
    for path, text in generated().items():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text, encoding="utf-8")
    return subprocess.run(["npm", "run", "--silent", "client"], cwd=ROOT / "web").returncode


def _json(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, indent=1, sort_keys=True) + "\n"


def _rules() -> dict[str, Any]:
    """What the screens need of the core's rules: said there, shown here."""
    wishes = Wishes(kinds=("kind",), bays=("bay",)).model_dump(mode="json")
    edges: tuple[tuple[Face, Face], ...] = (*EDGES, *((face, "top") for face in WALLS))
    return {
        "pound_kg": POUND_KG,
        "ways": WAYS,
        "sizes": SIZES,
        "measures": {"endings": [ending for ending, _ in KINDS], "counted": COUNTED, "aside": ASIDE},
        "face_edges": {face: EDGES_OF[face] for face in FACE_AT},
        "cut_edges": {
            " ".join(edge): [" ".join(other) for other in edges if edges_meet(edge, other)] for edge in edges
        },
        "turns": [
            {"down": t.down, "aft": t.aft, "looks": dict(zip(looks, DIRECTIONS, strict=True))}
            for t, looks in every_orientation()
        ],
        "face_rooms_mm": USUAL_MM,
        "not_checked": NOT_CHECKED,
        "roles": list(get_args(Role)),
        "wishes": {key: wishes[key] for key in ("making", "weights", "parallel", "boxes_per_bay")},
    }


def _vectors() -> dict[str, Any]:
    """What the front end's formatting must give, as the core writes it."""
    import math

    ways = {"near": None, "down": math.floor, "up": math.ceil}
    lengths = [
        {"value": value, "unit": unit, "round": way, "text": write_length(value, cast(Any, unit), toward=turn)}
        for value in LENGTHS
        for unit in ("mm", "in")
        for way, turn in ways.items()
    ]
    masses = [
        {"value": v, "unit": u, "text": write_mass(v, cast(Any, u))}
        for v in (0.0, 24.6, 130.63, 985.0, 1191.94)
        for u in ("kg", "lb")
    ]
    places = [
        {"value": value, "way": way, "unit": unit, "text": write_along(value, cast(Any, way), cast(Any, unit))}
        for value in (0.0, 0.02, 125.0, -125.0, 2685.5, -371.475)
        for way in ("aft", "across", "up", "left", "right")
        for unit in ("mm", "in")
    ]
    return {"lengths": lengths, "masses": masses, "places": places}
