"""The demo designs: made-up cars only."""

from levelcradle.demo.ouzel import demo_design, demo_tree
from levelcradle.demo.pell import pell_design

__all__ = ["demo_design", "demo_tree", "pell_design"]
