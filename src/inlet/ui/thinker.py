"""One thing worked out off the window's thread; what is asked for next takes its place."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, QThreadPool, QTimer, Signal

from inlet.core.stopping import Job
from inlet.ui import collector
from inlet.ui.work import PAUSE, Work


class Thinker(QObject):
    """``ask`` for something; it is handed over in the window's thread, unless something else was
    asked for meanwhile."""

    found = Signal(object, object)
    failed = Signal(str)
    finished = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._job: Job | None = None
        self._next: tuple[Callable[[], Any], Callable[[Any], object]] | None = None
        self._take: Callable[[Any], object] | None = None
        self._soon = QTimer(self)  # the picture is redrawn first
        self._soon.setSingleShot(True)
        self._soon.setInterval(PAUSE)
        self._soon.timeout.connect(self._start)
        self.found.connect(self._found)
        self.finished.connect(self._finished)

    def ask(self, do: Callable[[], Any], take: Callable[[Any], object]) -> None:
        self._next = do, take
        if self._job is not None:
            self._job.stop()
        else:
            self._soon.start()

    @property
    def at_rest(self) -> bool:
        return self._job is None and self._next is None

    def stop(self) -> None:
        """Stop what is under way; nothing comes of it."""
        self._next = None
        if self._job is not None:
            self._job.stop()

    def close(self) -> None:
        """Stop, and wait until that is so."""
        self.stop()
        self._take = None
        self._pool.waitForDone()
        if self._job is not None:
            self._job = None
            collector.go_on()

    def _start(self) -> None:
        if self._next is None or self._job is not None:
            return
        (do, self._take), self._next = self._next, None
        self._job = job = Job()
        collector.rest()
        self._pool.start(Work(self, lambda: self.found.emit(job, do()), job))

    def _found(self, job: Job, what: Any) -> None:
        if job is self._job and not job.asked_to_stop and self._take is not None:
            self._take(what)

    def _finished(self) -> None:
        if self._job is None:  # closed meanwhile
            return
        self._job = None
        collector.go_on()
        self._start()
