"""Kinds of mounts: where they stand, what passes through them, their solids, checks and parts."""

from levelcradle.core.connection.connection import Connection, Contact, Governing, Load, MountPiece, Seat
from levelcradle.core.connection.kinds import connect
from levelcradle.core.connection.spot import Spot, frame_of, spot_of

__all__ = ["Connection", "Contact", "Governing", "Load", "MountPiece", "Seat", "Spot", "connect", "frame_of", "spot_of"]
