"""What a section of tube, angle or flat carries: its figures about the level way across it and the way up."""

import math
from dataclasses import dataclass

from levelcradle.core.bar import Angle, Flatbar, Section, Tube, tube_area_mm2
from levelcradle.core.strength import tube_plastic_mm3

__all__ = ["SectionFigures", "section_figures"]


@dataclass(frozen=True, slots=True)
class SectionFigures:
    """Of a section that lies with a face on the vehicle: y across it, z up off that face.

    Attributes:
        area_mm2: whole.
        middle_mm: (y, z) of its centroid, from the middle of the face it lies on.
        turns_about_mm: (y, z) of its shear centre.
        plastic_mm3, elastic_mm3: about y (bent up and down) and about z; an angle, which is bent across its axes, is
            never counted as plastic.
        sheared_mm2: what carries shear along z and along y.
        twisted_mm3: torque over the shear stress that it makes.
        second_mm4: about y, free to go sideways: what it sags by.
        across_mm: from its middle line to the nearer edge beside a bolt.
    """

    area_mm2: float
    middle_mm: tuple[float, float]
    turns_about_mm: tuple[float, float]
    plastic_mm3: tuple[float, float]
    elastic_mm3: tuple[float, float]
    sheared_mm2: tuple[float, float]
    twisted_mm3: float
    second_mm4: float
    across_mm: float


def section_figures(section: Section) -> SectionFigures:
    """Sources: EN 10219-2 annex B for tubes (from memory), mechanics of materials for the others; a thin closed section
    carries torsion by 2 A t (Bredt), an open one by Σ b t² / 3 (Saint-Venant)."""
    if isinstance(section, Tube):
        return _tube(section)
    return _angle(section) if isinstance(section, Angle) else _flat(section)


def _tube(tube: Tube) -> SectionFigures:
    s, t, area = tube.size_mm, tube.wall_mm, tube_area_mm2(tube)
    second = tube_second_mm4(tube)
    plastic, elastic, half = tube_plastic_mm3(tube), second / (s / 2), s / 2
    return SectionFigures(
        area,
        (0.0, half),
        (0.0, half),
        (plastic, plastic),
        (elastic, elastic),
        (area / 2, area / 2),
        2 * (s - t) ** 2 * t,
        second,
        half,
    )


def tube_second_mm4(tube: Tube) -> float:
    """Second moment of a cold-formed square hollow section, its corners rounded as for its area [mm⁴].

    Source: EN 10219-2, annex B (formulas from memory).

    >>> round(tube_second_mm4(Tube(40, 3)) / 1e4, 2), round(tube_second_mm4(Tube(60, 4)) / 1e4, 1)
    (9.32, 43.6)
    """
    b, t = tube.size_mm, tube.wall_mm

    def corner(radius: float, half: float) -> float:
        area = (1 - math.pi / 4) * radius**2
        own = (1 / 3 - math.pi / 16 - 1 / (3 * (12 - 3 * math.pi))) * radius**4
        off = half - (10 - 3 * math.pi) / (12 - 3 * math.pi) * radius
        return own + area * off**2

    return (b**4 - (b - 2 * t) ** 4) / 12 - 4 * corner(2 * t, b / 2) + 4 * corner(t, b / 2 - t)


def _flat(flat: Flatbar) -> SectionFigures:
    s, t = flat.wide_mm, flat.thick_mm
    return SectionFigures(
        s * t,
        (0.0, t / 2),
        (0.0, t / 2),
        (s * t**2 / 4, t * s**2 / 4),
        (s * t**2 / 6, t * s**2 / 6),
        (s * t, s * t),
        s * t**2 / 3,
        s * t**3 / 12,
        s / 2,
    )


def _angle(angle: Angle) -> SectionFigures:
    """One leg lies, the other stands up at its left edge. What a moment about one of the two ways presses or pulls the
    worst corner with, counts; corners sharp."""
    b, t = angle.leg_mm, angle.wall_mm
    area = t * (2 * b - t)
    centre = (b**2 + b * t - t**2) / (2 * (2 * b - t))  # from the back of either leg
    # lying leg, then what stands on it, each about the centroid
    rows = ((b, t, b / 2, t / 2), (t, b - t, t / 2, (b + t) / 2))  # along y, along z, middle
    i_y = sum(w * h**3 / 12 + w * h * (z - centre) ** 2 for w, h, _, z in rows)
    i_z = sum(h * w**3 / 12 + w * h * (y - centre) ** 2 for w, h, y, _ in rows)
    i_yz = sum(w * h * (y - centre) * (z - centre) for w, h, y, z in rows)
    corners = [(y - centre, z - centre) for y, z in ((0.0, 0.0), (b, 0.0), (b, t), (t, b), (0.0, b))]
    whole = i_y * i_z - i_yz**2
    about_y = max(abs(i_z * z - i_yz * y) for y, z in corners) / whole
    about_z = max(abs(i_y * y - i_yz * z) for y, z in corners) / whole
    elastic = (1 / about_y, 1 / about_z)
    return SectionFigures(
        area,
        (centre - b / 2, centre),
        (t / 2 - b / 2, t / 2),
        elastic,
        elastic,
        (b * t, b * t),
        (2 * b - t) * t**2 / 3,
        whole / i_z,
        (b - t) / 2,
    )
