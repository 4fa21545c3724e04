"""Bracket kinds: shape, holes, bends; solids and flat parts."""

from levelcradle.core.bracket.angle import AngleFrame, BracketPiece, angle_pieces, bracket_bend, bracket_parts

__all__ = ["AngleFrame", "BracketPiece", "angle_pieces", "bracket_bend", "bracket_parts"]
