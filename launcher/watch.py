"""Brings back what fell: the database, the server or the worker, with a line saying so; five times in a minute are
enough."""

import subprocess
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field

from launcher.say import Trouble, say

__all__ = ["Part", "Process", "watch"]

LOOK_S = 0.2
MOST, WITHIN_S = 5, 60.0


@dataclass
class Part:
    """Something that runs: whether it still does, and how it is started again."""

    name: str
    lives: Callable[[], bool]
    begin: Callable[[], None]
    fell: deque[float] = field(default_factory=deque)

    def look(self) -> None:
        """Starts it again where it fell. Raises Trouble where it falls too often."""
        if self.lives():
            return
        now = time.monotonic()
        self.fell.append(now)
        while now - self.fell[0] > WITHIN_S:
            self.fell.popleft()
        if len(self.fell) > MOST:
            raise Trouble(f"The {self.name} fell {len(self.fell)} times within a minute; what it said stands above.")
        say(f"the {self.name} is gone; starting it again")
        self.begin()


def watch(parts: list[Part], *, ends: Callable[[], bool] = lambda: False) -> None:
    """Looks after the parts, in the order they need each other, until it is interrupted."""
    while not ends():
        for part in parts:
            part.look()
        time.sleep(LOOK_S)


class Process:
    """One of our processes, and how to start it."""

    def __init__(self, begin: Callable[[], "subprocess.Popen[bytes]"]) -> None:
        self._begin = begin
        self.running = begin()

    def lives(self) -> bool:
        return self.running.poll() is None

    def again(self) -> None:
        self.running = self._begin()

    def end(self) -> None:
        self.running.terminate()
        try:
            self.running.wait(10)
        except subprocess.TimeoutExpired:
            self.running.kill()
