"""What holds the modules in their boxes, six ways, and what a crash does to it."""

from levelcradle.core.held.findings import held_findings
from levelcradle.core.held.result import BlockHeld, WayHeld, held_result

__all__ = ["BlockHeld", "WayHeld", "held_findings", "held_result"]
