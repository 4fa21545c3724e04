"""What a new user starts from: typical masses, fluids, CG heights, spaces and module kinds, each with its source."""

from typing import Any, get_args

from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.errors import UnknownThing
from levelcradle.core.tables import rows

__all__ = ["STARTERS", "starter_kinds", "starters"]

STARTERS = ("typical_masses", "fluids", "cg_heights", "keepouts", "liners")


def starters(subject: str) -> tuple[dict[str, str | float], ...]:
    """The rows of one table, its figures as numbers. Raises UnknownThing."""
    if subject not in STARTERS:
        raise UnknownThing("table", subject[:40])
    return tuple({k: _figure(k, v) for k, v in row.items()} for row in rows(subject))


def _figure(name: str, text: str) -> str | float:
    return float(text) if name.endswith(("_mm", "_kg", "_kg_l")) else text


def starter_kinds() -> dict[str, ModuleKind]:
    """Generic module kinds by id, each marked as made up."""
    return {row["id"]: ModuleKind.model_validate(_kind(row)) for row in rows("starter_kinds")}


def _kind(row: dict[str, str]) -> dict[str, Any]:
    asks = {face: float(row[f"ask_{face}_mm"]) for face in ("end_a", "end_b", "top") if float(row[f"ask_{face}_mm"])}
    kind: dict[str, Any] = {
        "name": row["name"],
        "size_mm": tuple(float(row[f"{way}_mm"]) for way in ("length", "width", "height")),
        "mass_kg": float(row["mass_kg"]),
        "tol_kg": float(row["tol_kg"]),
        "cells": {"series": int(row["series"]), "parallel": int(row["parallel"])},
        "nominal_v": float(row["nominal_v"]),
        "full_v": float(row["full_v"]),
        "empty_v": float(row["empty_v"]),
        "capacity_ah": float(row["capacity_ah"]),
        "may_rest_on": tuple(row["may_rest_on"].split(",")),
        "face_gap_mm": asks,
        "neighbour_gap_mm": float(row["neighbour_mm"]),
        "terminals": row["terminals"],
        "made_up": True,
        "source": row["source"],
    }
    kind |= {what: row[what] for what in ("taps", "coolant") if row[what] in get_args(ModuleFace)}
    if row["compression_axis"]:
        kind |= {"clamp": True, "compression": {"axis": row["compression_axis"], "free_mm": float(row["free_mm"])}}
    if row["holes"]:
        kind["mount_holes"] = {"count": int(row["holes"]), "diameter_mm": float(row["hole_mm"])}
    return kind
