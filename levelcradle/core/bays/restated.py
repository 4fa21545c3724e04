"""A station copied, mirrored, or said in another way of measuring: the same outline in other figures."""

import math
from typing import Literal

from pydantic import ValidationError

from levelcradle.core.bays.sections import corner_of, sections
from levelcradle.core.design.bay import (
    Bay,
    BayDepth,
    EdgeStation,
    LeanStation,
    PointStation,
    SectionPoint,
    SurveySection,
    SurveySectionSpec,
    WidthStation,
)
from levelcradle.core.errors import DesignError, Problem

__all__ = ["MeasuringMethod", "mirrored", "restated"]

MeasuringMethod = Literal["sides", "widths", "leans", "points", "edge"]


def restated(bay: Bay, key: str, way: MeasuringMethod) -> SurveySectionSpec:
    """A station in another way of measuring. Raises DesignError where that way cannot say it."""
    try:
        return _restated(bay, key, way)
    except ValidationError as error:
        message = "its walls lean too far, or its figures are too small, for that way of measuring"
        raise DesignError((Problem("", message),)) from error


def _restated(bay: Bay, key: str, way: MeasuringMethod) -> SurveySectionSpec:
    ring = next(s for s in sections(bay) if s.key == key).ring
    aft = bay.stations[key].aft_mm
    if way == "points":
        rows = {
            f"p{n + 1}": SectionPoint(across_mm=x, up_mm=z, order=n) for n, (x, z) in enumerate(dict.fromkeys(ring))
        }
        return PointStation(type="points", aft_mm=aft, points=rows)
    (_, lf, floor), (_, rf, right_floor), (_, rt, tr), (_, lt, tl) = (
        corner_of(bay, key, corner) for corner in ("left_floor", "right_floor", "right_top", "left_top")
    )
    if way == "edge":
        up = max(tl, tr)
        return EdgeStation(
            type="edge",
            aft_mm=aft,
            up_mm=up,
            depths={
                "d1": BayDepth(across_mm=lf, depth_mm=up - floor),
                "d2": BayDepth(across_mm=rf, depth_mm=up - right_floor),
            },
        )
    if way == "sides":
        return SurveySection(
            aft_mm=aft,
            floor_mm=min(floor, right_floor),
            top_left_mm=tl,
            top_right_mm=tr,
            left_floor_mm=lf,
            left_top_mm=lt,
            right_floor_mm=rf,
            right_top_mm=rt,
        )
    middle, low = (lf + rf) / 2, min(floor, right_floor)
    if way == "widths":
        if abs((lt + rt) / 2 - middle) > 0.05:
            raise DesignError((Problem("", "its top is not in the middle over its floor: two widths cannot say that"),))
        return WidthStation(
            type="widths",
            aft_mm=aft,
            floor_mm=low,
            width_floor_mm=rf - lf,
            width_top_mm=rt - lt,
            top_left_mm=tl,
            top_right_mm=tr,
            offset_mm=middle,
        )
    return LeanStation(
        type="leans",
        aft_mm=aft,
        floor_mm=low,
        width_floor_mm=rf - lf,
        top_left_mm=tl,
        top_right_mm=tr,
        offset_mm=middle,
        left_lean_deg=math.degrees(math.atan2(lf - lt, tl - low)),
        right_lean_deg=math.degrees(math.atan2(rt - rf, tr - low)),
    )


def mirrored(bay: Bay, key: str) -> SurveySectionSpec:
    """A station with left and right changed over about the centreline."""
    station = bay.stations[key]
    if isinstance(station, SurveySection):
        return station.model_copy(
            update={
                "top_left_mm": station.top_right_mm,
                "top_right_mm": station.top_left_mm,
                "left_floor_mm": -station.right_floor_mm,
                "left_top_mm": -station.right_top_mm,
                "right_floor_mm": -station.left_floor_mm,
                "right_top_mm": -station.left_top_mm,
            }
        )
    if isinstance(station, PointStation):
        return station.model_copy(
            update={"points": {k: p.model_copy(update={"across_mm": -p.across_mm}) for k, p in station.points.items()}}
        )
    if isinstance(station, EdgeStation):
        return station.model_copy(
            update={"depths": {k: d.model_copy(update={"across_mm": -d.across_mm}) for k, d in station.depths.items()}}
        )
    changed = {
        "offset_mm": -station.offset_mm,
        "top_left_mm": station.top_right_mm,
        "top_right_mm": station.top_left_mm,
    }
    if isinstance(station, LeanStation):
        changed |= {"left_lean_deg": station.right_lean_deg, "right_lean_deg": station.left_lean_deg}
    return station.model_copy(update=changed)
