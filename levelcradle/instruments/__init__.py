"""Instruments that send lines over TCP, and small simulated ones to try with."""

from levelcradle.instruments.lines import read_line
from levelcradle.instruments.listener import Channel, Instruments, Source

__all__ = ["Channel", "Instruments", "Source", "read_line"]
