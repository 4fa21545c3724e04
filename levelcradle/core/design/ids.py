"""Short readable ids that nothing has yet."""

import re
from collections.abc import Container
from itertools import count

__all__ = ["free_id"]


def free_id(wish: str, taken: Container[str]) -> str:
    """An id like a name, numbered on where that is taken.

    >>> free_id('Tank box', {'tank-box'})
    'tank-box-2'
    """
    plain = re.sub(r"[^a-z0-9]+", "-", wish.lower()).strip("-")[:50] or "thing"
    return next(key for n in count(1) if (key := plain if n == 1 else f"{plain}-{n}") not in taken)
