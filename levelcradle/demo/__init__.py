"""The demo designs: made-up cars only."""

from levelcradle.demo.ouzel import demo_design, demo_tree

__all__ = ["demo_design", "demo_tree"]
