"""The shop's own bars across the vehicle: where they lie, what they weigh and are sawn from, and what their sections
carry."""

from levelcradle.core.crossmember.placed import PlacedCrossmember, crossmember_of
from levelcradle.core.crossmember.section import SectionFigures, section_figures

__all__ = ["PlacedCrossmember", "SectionFigures", "crossmember_of", "section_figures"]
