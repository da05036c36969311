"""Pressing worked out off the window's thread, beside the planner: a first answer at once where
the proved one takes longer, and what else is asked of it."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QObject, Signal

from inlet.core.plan import BlockPlan
from inlet.core.pressing import PressingPlan
from inlet.ui.tasks.background import BackgroundTask

PAUSE = 40
"""Milliseconds between a plan and its pressing: an edit that follows at once is waited for."""
SLOW = 60
"""Patches of a block from which on a first answer is shown before the proved one."""


class Presser(QObject):
    """``ask`` for the pressing of a plan, get it by ``found``; ``think`` of more once it is there.
    A new question stops what is under way."""

    found = Signal(object, object)  # the plan, and how it is pressed
    failed = Signal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._task = BackgroundTask(self, self.failed.emit)

    @property
    def at_rest(self) -> bool:
        return self._task.at_rest

    def ask(self, plan: BlockPlan | None) -> None:
        """Press a plan; with none, only stop: it is of a document that is no longer this one."""
        if plan is None:
            self._task.stop()
            return
        take = partial(self._pressed, plan)
        if len(plan.draft.patches) < SLOW:
            self._task.start(partial(_press, plan), take, pause=PAUSE)
            return
        first = partial(self._pressed_at_once, plan)
        self._task.start(lambda: plan.pressing.at_once, first, pause=PAUSE)
        self._task.then(partial(_press, plan), take)

    def think(self, do: Callable[[], Any], take: Callable[[Any], object]) -> None:
        """Have something worked out after the pressing, and handed to ``take`` in the window's
        thread."""
        self._task.then(do, take)

    @property
    def tasks(self) -> tuple[BackgroundTask, ...]:
        """What works for it."""
        return (self._task,)

    def _pressed_at_once(self, plan: BlockPlan, pressing: PressingPlan | None) -> None:
        if pressing is not None:
            self.found.emit(plan, pressing)

    def _pressed(self, plan: BlockPlan, pressing: PressingPlan | None) -> None:
        self.found.emit(plan, pressing)


def _press(plan: BlockPlan) -> PressingPlan | None:
    pressing = plan.pressing.best
    if pressing is not None:
        _ = pressing.layers, pressing.junctions, pressing.edges  # the picture waits for none
    for sewn in plan.then_sewn:
        _ = sewn.pressing.best
    return pressing
