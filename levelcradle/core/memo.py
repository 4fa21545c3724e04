"""Bounded caches of immutable values, keyed by the content they follow from."""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

from cachetools import LRUCache
from pydantic import BaseModel

__all__ = ["Memo", "written"]

T = TypeVar("T")


class Memo(Generic[T]):
    """Keeps the ``size`` values used last. Safe to share between threads; a value may be made twice, never wrongly."""

    def __init__(self, size: int) -> None:
        self._kept, self._lock = LRUCache[Hashable, T](size), Lock()

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        with self._lock:
            if key in self._kept:
                return self._kept[key]
        value = make()
        with self._lock:
            return self._kept.setdefault(key, value)  # the first one made stays, so that identity means sameness


_written: Memo[tuple[BaseModel, str]] = Memo(512)


def written(model: BaseModel) -> str:
    """A frozen model as JSON, as a key to what follows from it. Of one that is asked for again soon it is written out
    once: what is kept holds the model too, so nothing else can have its id."""
    return _written.get(id(model), lambda: (model, model.model_dump_json(by_alias=True)))[1]
