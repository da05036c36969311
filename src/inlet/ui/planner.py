"""Plans worked out off the window's thread: at most one under way and one waiting, the newest."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QObject, QRunnable, QThreadPool, QTimer, Signal, SignalInstance

from inlet.core.piecing.advice import advice_for, known_advice
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project.block import Block
from inlet.core.project.project import Project
from inlet.core.stopping import Job, Stopped, under
from inlet.core.units.known import MOST_BLOCKS, BlockUnits, blocks_beside, units_of
from inlet.ui import collector
from inlet.ui.guard import guarded
from inlet.ui.work import PAUSE

Question = tuple[Project, Block, int, tuple[BlockUnits, ...]]
"""What a plan is of: project, block, copies, and the other blocks as far as they are known."""


@guarded
class _Work(QRunnable):
    """A plan being worked out; ``job`` stops it."""

    def __init__(self, planner: Planner, question: Question, job: Job) -> None:
        super().__init__()
        self.planner, self.question, self.job = planner, question, job

    def run(self) -> None:
        try:
            with under(self.job):
                self.planner.finished.emit(plan_block(*self.question))
        except Stopped:
            self.planner.rested.emit()
        except Exception as error:  # a defect of ours must not take the window down with it
            self.planner.failed.emit(repr(error))


@guarded
class _Aside(QRunnable):
    """Something worked out while no plan is asked for; ``told`` is emitted after it."""

    def __init__(
        self, planner: Planner, do: Callable[[], object], told: SignalInstance, job: Job
    ) -> None:
        super().__init__()
        self.planner, self.do, self.told, self.job = planner, do, told, job

    def run(self) -> None:
        try:
            with under(self.job):
                self.do()
        except Stopped:
            self.planner.rested.emit()
        except Exception as error:  # as in ``_Work``
            self.planner.failed.emit(repr(error))
        else:
            self.told.emit()


class Planner(QObject):
    """``ask`` for a plan, get it by ``done``. A question asked while another is worked on replaces
    any that waits, so a quick hand never builds a queue."""

    done = Signal(object)
    broke = Signal(str)
    finished = Signal(object)
    failed = Signal(str)
    learnt = Signal()
    thought = Signal()
    rested = Signal()
    worked_out = Signal(object, object)  # what to do with it, and something worked out aside
    advised = Signal()  # what would spare set-ins in the block planned last is known

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._busy = False
        self._job: Job | None = None  # what is under way and may be stopped for a new plan
        self._waiting: Question | None = None
        self._soon = QTimer(self)  # the picture is redrawn first
        self._soon.setSingleShot(True)
        self._soon.setInterval(PAUSE)
        self._soon.timeout.connect(self._next)
        self.finished.connect(self._finished)
        self.failed.connect(self._failed)
        self.learnt.connect(self._learnt)
        self.thought.connect(self._thought)
        self.rested.connect(self._rested)
        self.worked_out.connect(self._worked_out)
        self._wishes: list[tuple[Callable[[], object], Callable[[object], object]]] = []
        self._to_advise: Block | None = None
        self._last: BlockPlan | None = None  # the newest plan, until other blocks are known
        self._before: BlockPlan | None = None  # what it was, where it is only planned again
        self._to_learn: list[Block] = []
        self._given_up: deque[Block] = deque(maxlen=2 * MOST_BLOCKS)
        self._known: deque[BlockUnits] = deque(maxlen=2 * MOST_BLOCKS)

    def ask(self, project: Project, block: Block, copies: int) -> None:
        self._before = None
        self._waiting = (project, block, copies, self._beside(project, block))
        if not self._busy:
            self._soon.start()
        elif self._job is not None:
            self._job.stop()  # what is under way is of a document that is no longer this one

    def _next(self) -> None:
        if self._busy or self._waiting is None:
            return
        question, self._waiting = self._waiting, None
        self._busy = True
        collector.rest()
        self._job = Job()
        self._pool.start(_Work(self, question, self._job))

    def _rest(self) -> None:
        self._busy, self._job = False, None
        collector.go_on()

    def _finished(self, plan: BlockPlan) -> None:
        self._rest()
        before, self._before = self._before, None
        if before is None or (plan.offers, plan.sets) != (before.offers, before.sets):
            self.done.emit(plan)
        self._last = plan
        awkward = plan.seams.pivots_at_least > 0 and known_advice(plan.block) is None
        self._to_advise = plan.block if awkward else None
        shares = bool(plan.offers or plan.sets)
        beside = blocks_beside(plan.project, plan.block) if shares else []
        looked_at = [*(each.block for each in tuple(self._known)), *self._given_up]
        self._to_learn = [b for b in beside if not any(b is known for known in looked_at)]
        self._next()
        self._learn()

    def _learn(self) -> None:
        """With nothing asked, work out advice for the block, then get to know the other blocks one
        at a time."""
        if self._busy or self._waiting is not None:
            return
        if self._wishes:
            do, take = self._wishes.pop(0)
            self._aside(lambda: self.worked_out.emit(take, do()), self.rested, wished=True)
        elif self._to_advise is not None:
            block, self._to_advise = self._to_advise, None
            self._aside(partial(advice_for, block), self.thought)
        elif self._to_learn:
            block = self._to_learn.pop(0)
            self._aside(partial(self._learn_about, block), self.learnt)

    @property
    def at_rest(self) -> bool:
        """Is nothing under way, asked for or wished for?"""
        return not (self._busy or self._waiting is not None or self._wishes)

    def _learn_about(self, block: Block) -> None:
        """Add a block to those known; one stopped for a new plan is looked at again later."""
        try:
            self._known.append(units_of(block))
        except Stopped:
            raise
        except Exception:
            self._given_up.append(block)
            raise

    def _beside(self, project: Project, block: Block) -> tuple[BlockUnits, ...]:
        """The blocks known beside one of a project."""
        known = {id(each.block): each for each in tuple(self._known)}
        beside = blocks_beside(project, block)
        return tuple(known[id(other)] for other in beside if id(other) in known)

    def think(self, do: Callable[[], Any], take: Callable[[Any], object]) -> None:
        """Have something worked out aside and handed to ``take`` in the window's thread."""
        self._wishes.append((do, take))
        self._learn()

    def _worked_out(self, take: Callable[[object], object], what: object) -> None:
        take(what)

    def _rested(self) -> None:
        self._rest()
        self._next()
        self._learn()

    def _aside(self, do: Callable[[], object], told: SignalInstance, wished: bool = False) -> None:
        self._busy = True
        collector.rest()
        job = Job()
        self._job = None if wished else job  # what was wished for is not given up for a plan
        self._pool.start(_Aside(self, do, told, job))

    def _thought(self) -> None:
        self._rest()
        self.advised.emit()
        self._next()
        self._learn()

    def _learnt(self) -> None:
        """One more block is known; after the last, plan again: what the blocks share is told if
        there is any."""
        self._rest()
        if not self._to_learn and self._last is not None and self._waiting is None:
            self._before = self._last
            project, block = self._last.project, self._last.block
            self._waiting = (project, block, self._last.copies, self._beside(project, block))
        self._next()
        self._learn()

    def _failed(self, text: str) -> None:
        self._rest()
        self.broke.emit(text)
        self._next()
        self._learn()

    def stop(self) -> None:
        self._waiting = None
        if self._job is not None:
            self._job.stop()
        self._to_learn, self._wishes = [], []
        self._to_advise = self._last = None
        self._pool.waitForDone()
        if self._busy:
            self._rest()
