"""What welds bear two million times: a screen, not a life."""

__all__ = ["ROOT_MPA", "ROOT_SOURCE", "SHAKEN_G", "TOE_MPA", "TOE_SOURCE"]

# common practice, no source: a road car's box on its body; each by itself, for they seldom come together
SHAKEN_G = {
    "shaken up and down": (0.0, 0.0, 1.0),
    "shaken fore and aft": (0.4, 0.0, 0.0),
    "shaken left and right": (0.0, 0.4, 0.0),
}
"""By how much a box is shaken to either side of standing still (aft, right, up) [g]."""

_SAFE = 1.35  # γMf, safe life, high consequence: EN 1993-1-9 table 3.1, from memory
TOE_MPA = {"steel": 63.0 / _SAFE, "aluminium": 16.0}
"""Range of stress in the sheet at a weld's toe that each family of metals bears."""
ROOT_MPA = {"steel": 36.0 / _SAFE, "aluminium": 9.0}
"""And in the weld's throat."""
TOE_SOURCE = {
    "steel": "EN 1993-1-9 table 8.5, category 63 / 1.35, from memory",
    "aluminium": "EN 1999-1-3 annex J, with its safety, from memory",
}
ROOT_SOURCE = {
    "steel": "EN 1993-1-9 table 8.5, category 36 / 1.35, from memory",
    "aluminium": "EN 1999-1-3 annex J, with its safety, from memory",
}
