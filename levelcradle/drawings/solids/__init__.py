"""The design as solid files that other programs open."""

from levelcradle.drawings.solids.bodies import Named, named_bodies
from levelcradle.drawings.solids.mesh import glb_bytes, stl_bytes
from levelcradle.drawings.solids.step import step_files

__all__ = ["Named", "glb_bytes", "named_bodies", "step_files", "stl_bytes"]
