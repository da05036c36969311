"""Long work that can be stopped from outside, and tells how far it is.

Whoever runs long work does it ``under`` a ``Job``; loops deep inside call ``check``, which raises
``Stopped`` soon after somebody asked for it. Without a task ``check`` does nothing.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager


class Stopped(Exception):
    """The work was asked to stop; nothing came of it."""


class Job:
    """A piece of work under way. ``stop`` may be called from any thread; ``tell``, if given, hears
    how much of it is done, from 0 to 1, in the thread that works; ``give_way`` is called there now
    and then, and may let another thread go first."""

    def __init__(
        self,
        tell: Callable[[float], object] | None = None,
        give_way: Callable[[], object] | None = None,
    ) -> None:
        self.asked_to_stop = False
        self._tell = tell
        self.give_way = give_way

    def stop(self) -> None:
        self.asked_to_stop = True

    def told(self, share: float) -> None:
        if self._tell is not None:
            self._tell(share)


_here = threading.local()


@contextmanager
def under(job: Job) -> Iterator[None]:
    """Do what follows, in this thread, as this job."""
    before = getattr(_here, "job", None)
    _here.job = job
    try:
        yield
    finally:
        _here.job = before


def check() -> None:
    """Raise ``Stopped`` where the work under way in this thread has been asked to stop."""
    job = getattr(_here, "job", None)
    if job is None:
        return
    if job.give_way is not None:
        job.give_way()
    if job.asked_to_stop:
        raise Stopped


def tell(share: float) -> None:
    """Tell how much of the work under way in this thread is done, from 0 to 1."""
    job = getattr(_here, "job", None)
    if job is not None:
        job.told(share)
