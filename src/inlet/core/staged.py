"""What a plan knows, and what it can still work out. A plan is a value and never changes; what only
some ask for is worked out when it is first asked for, and kept beside it.

Nothing here waits for another thread: two that ask for the same at once both work it out, and what
the first of them found is kept. (One that waited would wait for work that lets the window go first,
and be the window.)
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, Protocol, TypeVar, overload

T = TypeVar("T")


class Known:
    """Results by name, each worked out once."""

    def __init__(self) -> None:
        self._results: dict[str, Any] = {}

    def has(self, name: str) -> bool:
        return name in self._results

    def of(self, name: str, work: Callable[[], T]) -> T:
        """The result kept under ``name``, else that of ``work``, kept from now on."""
        if name not in self._results:
            self._results.setdefault(name, work())
        result: T = self._results[name]
        return result


class HasKnown(Protocol):
    """A plan with a place for what is worked out of it."""

    @property
    def known(self) -> Known: ...


P = TypeVar("P", bound=HasKnown)


class later(Generic[P, T]):
    """A method without arguments as a property that is worked out when it is first asked for, and
    kept in the plan's ``known``."""

    def __init__(self, work: Callable[[P], T]) -> None:
        self._work = work
        self.__doc__ = work.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        self._name = name

    @overload
    def __get__(self, plan: None, owner: type) -> later[P, T]: ...
    @overload
    def __get__(self, plan: P, owner: type) -> T: ...
    def __get__(self, plan: P | None, owner: type) -> T | later[P, T]:
        if plan is None:
            return self
        return plan.known.of(self._name, lambda: self._work(plan))


class Staged(Generic[T]):
    """Something that has a first answer ``at_once`` and, after a while, its ``best``; and where it
    stands: ``settled`` once the best is known, ``now`` the better of those that are."""

    def __init__(self, at_once: Callable[[], T], best: Callable[[], T]) -> None:
        self._known = Known()
        self._at_once, self._best = at_once, best

    @property
    def at_once(self) -> T:
        return self._known.of("at once", self._at_once)

    @property
    def best(self) -> T:
        return self._known.of("best", self._best)

    @property
    def settled(self) -> bool:
        return self._known.has("best")

    @property
    def now(self) -> T:
        return self.best if self.settled else self.at_once
