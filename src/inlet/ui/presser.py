"""Pressing worked out off the window's thread, beside the planner: a first answer at once where
the proved one takes longer, and what else is asked of it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, QThreadPool, QTimer, Signal

from inlet.core.plan import BlockPlan
from inlet.core.stopping import Job
from inlet.ui import collector
from inlet.ui.work import Work

PAUSE = 40
"""Milliseconds between a plan and its pressing: an edit that follows at once is waited for."""
SLOW = 60
"""Patches of a block from which on a first answer is shown before the proved one."""


class Presser(QObject):
    """``ask`` for the pressing of a plan, get it by ``found``; ``think`` of more once it is there.
    A new question stops what is under way."""

    found = Signal(object, object)  # the plan, and how it is pressed
    worked_out = Signal(object, object)  # what to do with it, and something worked out
    failed = Signal(str)
    finished = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._closed = False
        self._job: Job | None = None
        self._plan: BlockPlan | None = None  # to be pressed
        self._wishes: list[tuple[Callable[[], Any], Callable[[Any], object]]] = []
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(PAUSE)
        self._soon.timeout.connect(self._next)
        self.finished.connect(self._finished)
        self.worked_out.connect(self._worked_out)

    def ask(self, plan: BlockPlan | None) -> None:
        """Press a plan; with none, only stop: it is of a document that is no longer this one."""
        self._plan, self._wishes = plan, []
        if self._job is not None:
            self._job.stop()
        if plan is not None:
            self._soon.start()

    def think(self, do: Callable[[], Any], take: Callable[[Any], object]) -> None:
        """Have something worked out after the pressing, and handed to ``take`` in the window's
        thread."""
        self._wishes.append((do, take))
        self._next()

    def forget(self) -> None:
        """What was thought of and is not begun is no longer wanted."""
        self._wishes = []

    @property
    def at_rest(self) -> bool:
        return self._job is None and self._plan is None and not self._wishes

    def _next(self) -> None:
        if self._job is not None or self._soon.isActive():
            return
        if self._plan is not None:
            plan, self._plan = self._plan, None
            self._start(lambda: self._press(plan))
        elif self._wishes:
            do, take = self._wishes.pop(0)
            self._start(lambda: self.worked_out.emit(take, do()))

    def _start(self, do: Callable[[], object]) -> None:
        self._job = Job()
        collector.rest()
        self._pool.start(Work(self, do, self._job))

    def _press(self, plan: BlockPlan) -> None:
        if len(plan.draft.patches) >= SLOW:
            first = plan.pressing_at_once
            if first is not None:
                self.found.emit(plan, first)
        pressing = plan.pressing
        if pressing is not None:
            _ = pressing.layers, pressing.junctions, pressing.edges  # the picture waits for none
        self.found.emit(plan, pressing)

    def _finished(self) -> None:
        self._job = None
        collector.go_on()
        self._next()

    def _worked_out(self, take: Callable[[Any], object], what: Any) -> None:
        if not self._closed:  # what was to take it may be gone
            take(what)

    def stop(self) -> None:
        """Stop for good; nothing comes of what is under way."""
        self._closed = True
        self._plan, self._wishes = None, []
        self._soon.stop()
        if self._job is not None:
            self._job.stop()
        self._pool.waitForDone()
        if self._job is not None:
            self._job = None
            collector.go_on()
