"""Wishes that become patches: everything that is more than a figure typed into its blank. Server and study use them alike."""

from levelcradle.core.edits.blocks import blocks_changed
from levelcradle.core.edits.boxes import adding, edited, removing
from levelcradle.core.edits.construction import built_as
from levelcradle.core.edits.mounts import doubled, hung
from levelcradle.core.edits.placing import into_box, out_of_box

__all__ = ["adding", "blocks_changed", "built_as", "doubled", "edited", "hung", "into_box", "out_of_box", "removing"]
