"""A small picture of a car's plan, to know it by in a list."""

from collections.abc import Iterable, Iterator

from levelcradle.core.design import Design
from levelcradle.core.projections import Shape

__all__ = ["plan_picture"]

ABOUT_MM = (-900.0, -900.0, 3600.0, 900.0)  # a car that nobody gave the outside of: common practice, no source
LOOKS = {
    "bay": 'fill="none" stroke="#8c9196" stroke-width="14"',
    "item": 'fill="#d9d4c5" stroke="#6c7176" stroke-width="8"',
    "tray": 'fill="#e8d3c2" stroke="#b0622a" stroke-width="22"',
    "module": 'fill="#d6e4e0" stroke="#3f6b66" stroke-width="8"',
}


def plan_picture(design: Design, shapes: Iterable[Shape]) -> str:
    """SVG, the nose at the left and so the right of the car upward. Only outlines; no words."""
    overall, wheelbase = design.vehicle.overall, design.vehicle.wheelbase_mm
    x0, y0, x1, y1 = ABOUT_MM
    if overall:
        x0, x1 = -overall.overhang_front_mm, wheelbase + overall.overhang_rear_mm
        y0, y1 = -overall.width_mm / 2, overall.width_mm / 2
    edge, long, wide = 60.0, x1 - x0, y1 - y0
    sizes = f'x="{x0:.0f}" y="{y0:.0f}" width="{long:.0f}" height="{wide:.0f}" rx="260"'
    body = f'<rect {sizes} fill="#fbfaf5" stroke="#1c2430" stroke-width="12"/>'
    dashes = 'stroke="#8c9196" stroke-width="6" stroke-dasharray="40 24"'
    axles = "".join(f'<path d="M{x:.0f},{y0:.0f} V{y1:.0f}" {dashes}/>' for x in (0.0, wheelbase))
    view = f"{x0 - edge:.0f} {y0 - edge:.0f} {long + 2 * edge:.0f} {wide + 2 * edge:.0f}"
    drawn = "".join(_drawn(shapes))
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{view}">{body}{axles}{drawn}</svg>'


def _drawn(shapes: Iterable[Shape]) -> Iterator[str]:
    kept = [shape for shape in shapes if shape.kind in LOOKS]
    for kind, look in LOOKS.items():
        for shape in kept:
            if shape.kind == kind and len(shape.plan) > 2:
                points = " ".join(f"{aft:.0f},{-across:.0f}" for aft, across in shape.plan)
                yield f'<polygon points="{points}" {look}/>'
