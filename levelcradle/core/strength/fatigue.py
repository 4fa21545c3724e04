"""What welds bear two million times: a screen, not a life."""

__all__ = ["ROOT_MPA", "SHAKEN_G", "TOE_MPA"]

# common practice, no source: a road car's box on its body; each by itself, for they seldom come together
SHAKEN_G = {
    "shaken up and down": (0.0, 0.0, 1.0),
    "shaken fore and aft": (0.4, 0.0, 0.0),
    "shaken left and right": (0.0, 0.4, 0.0),
}
"""By how much a box is shaken to either side of standing still (aft, right, up) [g]."""

_SAFE = 1.35  # γMf, safe life, high consequence: EN 1993-1-9 table 3.1, from memory
TOE_MPA = 63.0 / _SAFE  # range of stress in the sheet at a weld's toe: EN 1993-1-9 table 8.5, category 63, from memory
ROOT_MPA = 36.0 / _SAFE  # and in the weld's throat: category 36, from memory
