"""The flat tab: a plate on the box's wall that stands beyond one of its edges."""

from levelcradle.core.connection.tab.tab import TabConnection

__all__ = ["TabConnection"]
