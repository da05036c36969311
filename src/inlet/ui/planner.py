"""Plans worked out off the window's thread: at most one under way and one waiting, the newest."""

from __future__ import annotations

import gc

from PySide6.QtCore import QObject, QRunnable, QThreadPool, QTimer, Signal

from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project import Block, Project

PAUSE = 12
"""Milliseconds between an edit and its planning."""

Question = tuple[Project, Block, int]


class _Work(QRunnable):
    def __init__(self, planner: Planner, question: Question) -> None:
        super().__init__()
        self.planner, self.question = planner, question

    def run(self) -> None:
        try:
            self.planner.finished.emit(plan_block(*self.question))
        except Exception as error:  # a defect of ours must not take the window down with it
            self.planner.failed.emit(repr(error))


class Planner(QObject):
    """``ask`` for a plan, get it by ``done``. A question asked while another is worked on replaces
    any that waits, so a quick hand never builds a queue.

    Python's cycle collector runs in whichever thread happens to allocate, and would destroy
    discarded widgets in the worker's, which Qt forbids. It rests while a plan is worked on and
    goes on in the window's thread.
    """

    done = Signal(object)
    broke = Signal(str)
    finished = Signal(object)
    failed = Signal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._busy = False
        self._waiting: Question | None = None
        self._soon = QTimer(self)  # the picture is redrawn first
        self._soon.setSingleShot(True)
        self._soon.setInterval(PAUSE)
        self._soon.timeout.connect(self._next)
        self.finished.connect(self._finished)
        self.failed.connect(self._failed)

    def ask(self, project: Project, block: Block, copies: int) -> None:
        self._waiting = (project, block, copies)
        if not self._busy:
            self._soon.start()

    def _next(self) -> None:
        if self._busy or self._waiting is None:
            return
        question, self._waiting = self._waiting, None
        self._busy = True
        gc.disable()
        self._pool.start(_Work(self, question))

    def _rest(self) -> None:
        self._busy = False
        gc.enable()

    def _finished(self, plan: BlockPlan) -> None:
        self._rest()
        self.done.emit(plan)
        self._next()

    def _failed(self, text: str) -> None:
        self._rest()
        self.broke.emit(text)
        self._next()

    def stop(self) -> None:
        self._waiting = None
        self._pool.waitForDone()
        gc.enable()
