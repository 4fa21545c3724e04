"""What the launcher tells the person at the terminal."""

import sys
import time

__all__ = ["Trouble", "say"]

_began = time.monotonic()


class Trouble(Exception):
    """Something cannot be had; the message says what and what to do about it."""


def say(text: str) -> None:
    print(f"[{time.monotonic() - _began:5.1f} s] {text}", file=sys.stderr, flush=True)
