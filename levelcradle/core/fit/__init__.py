"""How many fit, which way up, where. It tries designs; checks say what they are worth."""

from levelcradle.core.fit.first_box import FirstBox, first_box

__all__ = ["FirstBox", "first_box"]
