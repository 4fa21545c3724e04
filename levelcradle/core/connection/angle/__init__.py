"""The welded angle with one bolt: see the drawing in ``pieces``; its rules in ``checks``."""

from levelcradle.core.connection.angle.angle import AngleConnection

__all__ = ["AngleConnection"]
