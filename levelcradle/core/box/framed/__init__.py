"""The framed box: square tubes with panels on them, and a flat lid."""

from levelcradle.core.box.framed.box import FramedBox

__all__ = ["FramedBox"]
