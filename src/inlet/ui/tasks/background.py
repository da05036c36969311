"""Work off the window's thread: the one way to start it, hear of it, and stop it."""

from __future__ import annotations

import atexit
import threading
from collections import deque
from collections.abc import Callable, Iterable
from functools import partial
from queue import SimpleQueue
from time import monotonic, thread_time
from typing import Any, NamedTuple, TypeVar
from weakref import WeakSet

from PySide6.QtCore import QObject, QTimer, Signal
from shiboken6 import isValid

from inlet.core.cancellation import Job, Stopped, under
from inlet.ui import guard
from inlet.ui.tasks import collector, turns

T = TypeVar("T")
PAUSE = 12
"""Milliseconds between an edit and what is worked out of it: the picture is redrawn first."""
CLOSING = 0.6
"""Seconds that work which was asked to stop is waited for when its window closes."""


class _Task(NamedTuple):
    """What is to be done, and who hears of its end, in the window's thread."""

    do: Callable[[], Any]
    take: Callable[[Any], object]
    failed: Callable[[Exception], object]
    stopped: Callable[[], object]


def _nothing(*_: object) -> None:
    """For those who need not hear of an end."""


class BackgroundTask(QObject):
    """One piece of work at a time. ``start`` takes the place of all that was asked for before, and
    stops what is under way; ``then`` is done after it. Whoever asked hears of the result, of a
    failure or of the stop, in the window's thread; and of nothing once they are gone."""

    progress = Signal(float)
    """How much of what is under way is done, from 0 to 1."""
    _ended = Signal(object, object, object)  # a job, its task, and what came of it

    def __init__(self, parent: QObject, failed: Callable[[str], object] = _nothing) -> None:
        super().__init__(parent)
        _all.add(self)
        turns.listen()
        self._failed = failed  # told of every error in words
        self._waiting: deque[_Task] = deque()
        self._job: Job | None = None  # what is under way, until its end is heard of
        self._over = threading.Event()  # it has ended, whether that was heard or not
        self._orders: SimpleQueue[tuple[Job, _Task, threading.Event] | None] = SimpleQueue()
        self._thread: threading.Thread | None = None
        self._took = 0.0  # seconds that its thread was at work for the job before
        self.closed = False  # nothing is done or handed over any more
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._next)
        self._ended.connect(self._finish)

    @property
    def at_rest(self) -> bool:
        """Is nothing under way or waiting?"""
        return self._job is None and not self._waiting

    def start(
        self,
        do: Callable[[], T],
        take: Callable[[T], object],
        *,
        failed: Callable[[Exception], object] = _nothing,
        stopped: Callable[[], object] = _nothing,
        pause: int = PAUSE,
    ) -> None:
        """Do this in place of anything else, ``pause`` milliseconds from now."""
        self.stop()
        self._add(_Task(do, take, failed, stopped), pause)

    def then(
        self,
        do: Callable[[], T],
        take: Callable[[T], object],
        *,
        failed: Callable[[Exception], object] = _nothing,
    ) -> None:
        """Do this after all that was asked for, unless ``start`` or ``stop`` comes first."""
        self._add(_Task(do, take, failed, _nothing), PAUSE)

    def _add(self, task: _Task, pause: int) -> None:
        if self.closed:
            return
        self._waiting.append(task)
        if self._job is None and not self._soon.isActive():
            self._soon.start(pause)

    def stop(self) -> None:
        """Stop what is under way and forget what waits; nothing comes of either, but that whoever
        asked hears that it was stopped."""
        waiting, self._waiting = self._waiting, deque()
        self._soon.stop()
        if self._job is not None:
            self._job.stop()
        for task in waiting:
            _to(task.stopped)

    def wait(self, seconds: float) -> bool:
        """Wait so long for what was asked for, and hand it over; False where it takes longer. For
        what is nearly always done within a frame, so that nothing is drawn twice; where the job
        before took longer, nobody waits in vain."""
        until = monotonic() + seconds
        self._next()
        if self._took > seconds:
            return False
        turns.idle()
        while self._job is not None:
            if not self._over.wait(max(0.0, until - monotonic())):
                return False
            self._finish(*self._outcome)
        return True

    def _end(self, until: float) -> None:
        """Wait for what is under way until then; after that it touches nothing any more."""
        if self._job is not None:
            if not self._over.wait(max(0.0, until - monotonic())):
                _left.append(self._over)
            self._job = None
            collector.rest_over()
        self._orders.put(None)

    def _next(self) -> None:
        if self._job is not None or not self._waiting or self.closed:
            return
        self._soon.stop()
        task = self._waiting.popleft()
        self._job, self._over = Job(self._tell, turns.give_way), threading.Event()
        collector.rest()
        if self._thread is None:  # one for all: to start one takes a while beside a busy one
            self._thread = threading.Thread(target=self._work, daemon=True)
            self._thread.start()
        self._orders.put((self._job, task, self._over))

    def _tell(self, share: float) -> None:
        if isValid(self):
            self.progress.emit(share)

    def _work(self) -> None:
        """In the other thread: what is ordered, until it is closed."""
        while (order := self._orders.get()) is not None:
            job, task, over = order
            outcome: object
            began = thread_time()
            try:
                with under(job):
                    outcome = (task.do(),)
            except Exception as error:  # a defect of ours must not take the window down with it
                outcome = error
            self._took = thread_time() - began
            self._outcome = job, task, outcome
            over.set()
            if not self.closed and isValid(self):
                self._ended.emit(job, task, outcome)

    def _finish(self, job: Job, task: _Task, outcome: object) -> None:
        """In the window's thread: hand over what came of a job, once."""
        if job is not self._job:
            return
        self._job = None
        collector.rest_over()
        try:
            self._hand_over(job, task, outcome)
        finally:
            self._next()

    def _hand_over(self, job: Job, task: _Task, outcome: object) -> None:
        if job.asked_to_stop or isinstance(outcome, Stopped):
            _to(task.stopped)
        elif isinstance(outcome, tuple):
            _to(task.take, *outcome)
        elif isinstance(outcome, Exception):
            guard.log(outcome)
            self._failed(repr(outcome))
            _to(task.failed, outcome)


_all: WeakSet[BackgroundTask] = WeakSet()


@atexit.register
def _close_what_is_open() -> None:
    """No thread may be at work while Python takes its modules down."""
    close_all(task for task in tuple(_all) if isValid(task) and not task.closed)


_left: list[threading.Event] = []
"""The ends of what did not stop in time."""


def left_at_work() -> bool:
    """Is anything still at work whose task was closed?"""
    return not all(over.is_set() for over in _left)


def close_all(tasks: Iterable[BackgroundTask]) -> None:
    """Stop tasks for good, in ``CLOSING`` seconds together. What does not stop within them, as a
    solver of a library, is left to end by itself: nothing comes of it."""
    tasks = list(tasks)
    for task in tasks:
        task.stop()
        task.closed = True
    until = monotonic() + CLOSING
    turns.idle()
    for task in tasks:
        task._end(until)


def _to(take: Callable[..., object], *what: Any) -> None:
    """Hand something over, unless the widget it is for has been destroyed meanwhile."""
    whose = take
    while isinstance(whose, partial):
        whose = whose.func
    owner = getattr(whose, "__self__", None)
    if not isinstance(owner, QObject) or isValid(owner):
        take(*what)
