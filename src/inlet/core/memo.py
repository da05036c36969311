"""What was worked out is kept: the one way, with a size, a lock, and one call that forgets it all.

``memo`` keeps the results of a function by what it was given, which must be hashable and never
change. A whole block or drawing takes long to hash and to compare; ``Latest`` keeps what belongs to
such an object by which object it is.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from functools import lru_cache
from threading import Lock
from typing import Generic, ParamSpec, TypeVar, cast

P = ParamSpec("P")
T = TypeVar("T")
Key = TypeVar("Key")
Value = TypeVar("Value")

_FORGET: list[Callable[[], None]] = []
_SIZES: list[Callable[[], int]] = []


def forget_all() -> None:
    """Forget every result that is kept, as if no project had been looked at yet."""
    for forget in _FORGET:
        forget()


def number_kept() -> int:
    """How many results are kept now, by all memories together."""
    return sum(size() for size in _SIZES)


def memo(size: int | None) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Keep the last ``size`` results of a function by its arguments; all of them, and for good,
    where None: for tables of the program itself, which can be asked few things only. Two threads
    that ask at once may both work it out; each gets a whole result. The result is shared: it must
    be a value that is never changed."""

    def keeping(do: Callable[P, T]) -> Callable[P, T]:
        kept = lru_cache(maxsize=size)(do)
        if size is not None:
            _FORGET.append(kept.cache_clear)
            _SIZES.append(lambda: kept.cache_info().currsize)
        return cast("Callable[P, T]", kept)

    return keeping


class Latest(Generic[Key, Value]):
    """Values of the last ``size`` keys, each found again by the very object that is its key. The
    key is held, so that no other object can take its place in memory meanwhile."""

    def __init__(self, size: int) -> None:
        self._size = size
        self._kept: OrderedDict[int, tuple[Key, Value]] = OrderedDict()
        self._lock = Lock()
        _FORGET.append(self.forget)
        _SIZES.append(lambda: len(self._kept))

    def get(self, key: Key) -> Value | None:
        """The value kept for ``key``; None where there is none."""
        with self._lock:
            entry = self._kept.get(id(key))
            if entry is None:
                return None
            self._kept.move_to_end(id(key))
            return entry[1]

    def keep(self, key: Key, value: Value) -> Value:
        """Keep ``value`` for ``key``, the oldest goes where there are too many; gives it back."""
        with self._lock:
            self._kept[id(key)] = key, value
            self._kept.move_to_end(id(key))
            while len(self._kept) > self._size:
                self._kept.popitem(last=False)
        return value

    def of(self, key: Key, make: Callable[[Key], Value]) -> Value:
        """The value kept for ``key``, else ``make(key)``, kept from now on; never None."""
        value = self.get(key)
        return self.keep(key, make(key)) if value is None else value

    def forget(self) -> None:
        with self._lock:
            self._kept.clear()


class KeyedTable(Generic[Key, Value]):
    """Values of the last ``size`` keys, each found again by an equal key: for a value that is not
    worked out from its key alone, as where two things differ in their colours only."""

    def __init__(self, size: int) -> None:
        self._size = size
        self._kept: OrderedDict[Key, Value] = OrderedDict()
        self._lock = Lock()
        _FORGET.append(self.forget)
        _SIZES.append(lambda: len(self._kept))

    def of(self, key: Key, make: Callable[[], Value]) -> Value:
        """The value kept for ``key``, else ``make()``, kept from now on."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        value = make()
        with self._lock:
            self._kept[key] = value
            while len(self._kept) > self._size:
                self._kept.popitem(last=False)
        return value

    def forget(self) -> None:
        with self._lock:
            self._kept.clear()
