"""Plans worked out off the window's thread: the newest asked for, then what goes with it."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QObject, Signal

from inlet.core.piecing import advice_for, known_advice
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project import Block, Project
from inlet.core.units import MOST_BLOCKS, BlockUnits, blocks_beside, units_of
from inlet.ui.tasks.background import BackgroundTask


class Planner(QObject):
    """``ask`` for a plan, get it by ``done``. A question asked while another is worked on takes its
    place, so a quick hand never builds a queue. With nothing asked it works out advice for the
    block, then gets to know the other blocks: what they share is told by a plan once more."""

    done = Signal(object)
    broke = Signal(str)
    advised = Signal()  # what would spare set-ins in the block planned last is known

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._plans = BackgroundTask(self, self.broke.emit)
        self._wishes = BackgroundTask(self, self.broke.emit)
        self._given_up: deque[Block] = deque(maxlen=2 * MOST_BLOCKS)
        self._known: deque[BlockUnits] = deque(maxlen=2 * MOST_BLOCKS)

    @property
    def at_rest(self) -> bool:
        """Is nothing under way, asked for or wished for?"""
        return self._plans.at_rest and self._wishes.at_rest

    def ask(self, project: Project, block: Block, copies: int) -> None:
        self._ask(project, block, copies, self._finished)

    def think(self, do: Callable[[], Any], take: Callable[[Any], object]) -> None:
        """Have something worked out beside the plans and handed to ``take`` in the window's thread;
        it is not given up for a new plan."""
        self._wishes.then(do, take)

    @property
    def tasks(self) -> tuple[BackgroundTask, ...]:
        """What works for it."""
        return (self._plans, self._wishes)

    def _ask(
        self, project: Project, block: Block, copies: int, take: Callable[[BlockPlan], object]
    ) -> None:
        others = self._beside(project, block)
        self._plans.start(partial(plan_block, project, block, copies, others), take)

    def _finished(self, plan: BlockPlan) -> None:
        self.done.emit(plan)
        if not self._plans.at_rest:
            return  # another was asked for meanwhile
        if plan.seams.pivots_at_least > 0 and known_advice(plan.block) is None:
            self._plans.then(partial(advice_for, plan.block), lambda _: self.advised.emit())
        shares = bool(plan.offers or plan.sets)
        beside = blocks_beside(plan.project, plan.block) if shares else []
        looked_at = [*(units_of_block.block for units_of_block in self._known), *self._given_up]
        to_learn = [b for b in beside if not any(b is known_block for known_block in looked_at)]
        for block in to_learn:
            self._plans.then(
                partial(units_of, block),
                self._known.append,
                failed=partial(self._give_up, block),
            )
        if to_learn:
            self._plans.then(lambda: None, lambda _: self._plan_again(plan))

    def _give_up(self, block: Block, _error: Exception) -> None:
        self._given_up.append(block)

    def _plan_again(self, before: BlockPlan) -> None:
        """All other blocks are known: what they share is told if there is any."""
        self._ask(before.project, before.block, before.copies, partial(self._compared, before))

    def _compared(self, before: BlockPlan, plan: BlockPlan) -> None:
        if (plan.offers, plan.sets) != (before.offers, before.sets):
            self.done.emit(plan)

    def _beside(self, project: Project, block: Block) -> tuple[BlockUnits, ...]:
        """The blocks known beside one of a project."""
        known = {id(units_of_block.block): units_of_block for units_of_block in self._known}
        beside = blocks_beside(project, block)
        return tuple(known[id(other_block)] for other_block in beside if id(other_block) in known)
