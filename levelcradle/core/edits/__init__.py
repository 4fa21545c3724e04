"""Wishes that become patches: everything that is more than a figure typed into its blank. Server and study use them
alike."""

from levelcradle.core.edits.blocks import Over, blocks_changed, laid_over
from levelcradle.core.edits.boxes import adding, edited, removing
from levelcradle.core.edits.construction import built_as
from levelcradle.core.edits.crossmembers import crossed, uncrossed
from levelcradle.core.edits.cut_parts import as_cut
from levelcradle.core.edits.holding import held_by
from levelcradle.core.edits.load_set import active_set, load_sets, with_load_set
from levelcradle.core.edits.mounts import alike, doubled, hung, hung_on, joined_by, unhung
from levelcradle.core.edits.openings import fitted_in, relieved
from levelcradle.core.edits.pattern import pattern_of
from levelcradle.core.edits.placing import into_box, laid_against, out_of_box
from levelcradle.core.edits.rows import copied, twinned
from levelcradle.core.edits.shelf import onto_the_shelf
from levelcradle.core.edits.solids import Shape, reshaped
from levelcradle.core.edits.survey import freed_place, square_space, station_said, weighed_as

__all__ = [
    "Over",
    "Shape",
    "active_set",
    "adding",
    "alike",
    "as_cut",
    "blocks_changed",
    "built_as",
    "copied",
    "crossed",
    "doubled",
    "edited",
    "fitted_in",
    "freed_place",
    "held_by",
    "hung",
    "hung_on",
    "into_box",
    "joined_by",
    "laid_against",
    "laid_over",
    "load_sets",
    "onto_the_shelf",
    "out_of_box",
    "pattern_of",
    "relieved",
    "removing",
    "reshaped",
    "square_space",
    "station_said",
    "twinned",
    "uncrossed",
    "unhung",
    "weighed_as",
    "with_load_set",
]
