"""How many fit, which way up, where; and what it would take. It tries designs; checks say what they are worth."""

from levelcradle.core.fit.first_box import FirstBox, first_box
from levelcradle.core.fit.fixes import Answer, Cost, Fix, wedge_travel_mm, what_it_takes
from levelcradle.core.fit.proposals import Progress, Proposal, ProposedBox, Study, check_wishes, study
from levelcradle.core.fit.tier import Tile, pack_tier
from levelcradle.core.fit.wishes import Wishes

__all__ = [
    "Answer",
    "Cost",
    "FirstBox",
    "Fix",
    "Progress",
    "Proposal",
    "ProposedBox",
    "Study",
    "Tile",
    "Wishes",
    "check_wishes",
    "first_box",
    "pack_tier",
    "study",
    "wedge_travel_mm",
    "what_it_takes",
]
