"""A bounded cache of immutable values, keyed by the content they follow from."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

__all__ = ["Memo"]

T = TypeVar("T")


class Memo(Generic[T]):
    """Keeps the ``size`` values used last. Safe to share between threads; a value may be made twice, never wrongly."""

    def __init__(self, size: int) -> None:
        self._size, self._kept, self._lock = size, OrderedDict[Hashable, T](), Lock()

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        value = make()
        with self._lock:
            value = self._kept.setdefault(key, value)  # the first one made stays, so that identity means sameness
            if len(self._kept) > self._size:
                self._kept.popitem(last=False)
        return value
