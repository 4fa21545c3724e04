"""Kinds of mounts: where they stand, what passes through them, their solids, checks and parts."""

from levelcradle.core.connection.backing import bolt_bought
from levelcradle.core.connection.connection import (
    Connection,
    Contact,
    ForceArray,
    Governing,
    Measure,
    MountPiece,
    Road,
    Seat,
    Second,
)
from levelcradle.core.connection.hold.offer import narrowed
from levelcradle.core.connection.kinds import OFFERS, connect
from levelcradle.core.connection.offers import Place, Reach
from levelcradle.core.connection.recipes import RECIPES, SHAPE_OF
from levelcradle.core.connection.spot import Spot, crossmember_in, frame_of, spot_of

__all__ = [
    "OFFERS",
    "RECIPES",
    "SHAPE_OF",
    "Connection",
    "Contact",
    "ForceArray",
    "Governing",
    "Measure",
    "MountPiece",
    "Place",
    "Reach",
    "Road",
    "Seat",
    "Second",
    "Spot",
    "bolt_bought",
    "connect",
    "crossmember_in",
    "frame_of",
    "narrowed",
    "spot_of",
]
