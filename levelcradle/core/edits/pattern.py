"""The same again: a design as the pattern of another car."""

from levelcradle.core.design import Design

__all__ = ["pattern_of"]


def pattern_of(design: Design) -> Design:
    """The design without what belongs to the one car it was measured on: readings, weighings, tape rows, faults and
    their pictures, the shelf's modules with their serials and tests, agreed gaps, what was sent or cut. What was drawn
    stays."""
    return design.model_copy(
        update={
            "name": f"{design.name[:100]}, again",
            **{name: {} for name in ("readings", "weighings", "tapes", "snags", "modules", "stacks")},
            **{name: {} for name in ("agreed_gaps", "pins", "cut_parts")},
        }
    )
