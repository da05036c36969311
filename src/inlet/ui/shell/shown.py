"""What the window shows: the open document, the block shown, and what is worked out of it. The
draft is worked out at once; plans in other threads, and only the plan of the newest document is
ever called current."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from PySide6.QtCore import QObject, QTimer, Signal

from inlet.core.bench import BenchJob, Plan, jobs, same_but_log
from inlet.core.draft import Draft, draft, drawing_problems, group_of
from inlet.core.geometry import Turn
from inlet.core.history import History
from inlet.core.numbers import INCHES, System
from inlet.core.piecing import SeamAdvice, known_advice
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.planning import UnitPlan
from inlet.core.pressing import PressingPlan
from inlet.core.problem import Problem
from inlet.core.project import (
    Block,
    Measure,
    Project,
    first_project,
    new_block,
    replace,
    usual_measure,
)
from inlet.core.setting import block_counts
from inlet.ui.quilt.view import QuiltView, no_quilt, quilt_view
from inlet.ui.tasks.background import BackgroundTask, close_all
from inlet.ui.tasks.planner import Planner
from inlet.ui.tasks.presser import Presser

T = TypeVar("T")


def new_project(system: System = INCHES) -> Project:
    """An empty project: one empty block, three fabrics to begin with."""
    measure = usual_measure(system)
    block = new_block(set(), "Block 1", measure)
    return replace(first_project(), measure=measure, blocks=(block,))


QUIET = 1_500
"""Milliseconds after which something is worked out that nobody waits for."""
CHECKED_AT_ONCE = 150
"""Patches of a drawing that are looked at while the hand waits."""
FRAMES = 0.04
"""Seconds the hand waits for the top of a quilt: what comes later is shown when it comes."""


class Shown(QObject):
    """The document and what is being looked at; edits are ``Session``'s."""

    changed = Signal()  # the document, or which block is shown
    planned = Signal()  # a current plan has arrived
    pressed = Signal()  # how its block is pressed is known, or known better
    laid_out = Signal()  # the fabric is laid out as well as can be
    topped = Signal()  # the top of the quilt is known, later than it was asked for
    quilted = Signal()  # the fabric of the quilt is laid out
    worked = Signal()  # how far the work is, later than it was asked for
    advised = Signal()  # what would spare set-ins in the block is known
    selected = Signal()  # the unit or step picked
    picked_fabric = Signal()
    asked_help = Signal(str)  # a page of the help, and where on it: page#anchor
    repeats = Signal()  # the symmetry drawn with
    said = Signal(str)  # a sentence for the maker

    def __init__(self) -> None:
        super().__init__()
        self.history = History(new_project())
        self.path: Path | None = None
        self._wanted = self.project.blocks[0].id  # the block to show, as long as it is there
        self.label: str | None = None  # the unit picked
        self.fabric: str | None = self.project.fabrics[0].id  # the fabric to paint with
        self.grey = False
        self.symmetries: frozenset[str] = frozenset()  # what drawing is repeated by
        self.copies = 1
        self._draft: tuple[Block, Draft] | None = None
        self._plan: BlockPlan | None = None
        self._checks: tuple[Project, Block, tuple[Problem, ...]] | None = None
        self._pressing: tuple[BlockPlan, PressingPlan | None] | None = None
        self._presses_new = False
        self._presser = Presser(self)
        self._presser.found.connect(self._pressed)
        self._presser.failed.connect(
            lambda text: self.said.emit(f"Inlet could not find the pressing ({text}).")
        )
        self._cutter = BackgroundTask(
            self, lambda text: self.said.emit(f"Inlet could not lay out the fabric ({text}).")
        )
        self._view = no_quilt()
        self._view_asked: Project | None = None  # whose quilt is being laid out, or is
        self._view_waited: Project | None = None  # whose quilt was waited for
        self._viewer = BackgroundTask(self, self._no_quilt)
        self._quilter = BackgroundTask(self, self._no_quilt)
        self._keeper = BackgroundTask(
            self, lambda text: self.said.emit(f"Inlet could not keep the photograph ({text}).")
        )
        self._jobs: tuple[Plan, Project, object, tuple[BenchJob, ...]] | None = None
        self._worker = BackgroundTask(
            self, lambda text: self.said.emit(f"Inlet could not work out what is next ({text}).")
        )
        self._sizer = BackgroundTask(
            self, lambda text: self.said.emit(f"Inlet could not work out the sizes ({text}).")
        )
        self._slicer = BackgroundTask(
            self, lambda text: self.said.emit(f"Inlet could not slice the block ({text}).")
        )
        self._quiet = QTimer(self)  # nothing was asked for in a while
        self._quiet.setSingleShot(True)
        self._quiet.setInterval(QUIET)
        self._quiet.timeout.connect(self.plan_the_quilt)
        self._planner = Planner(self)
        self._planner.done.connect(self._arrived)
        self._planner.advised.connect(self.advised)
        self._planner.broke.connect(
            lambda text: self.said.emit(f"Inlet could not plan this block ({text}). It is kept.")
        )
        self._ask()

    # --- reading ------------------------------------------------------------------------------

    @property
    def project(self) -> Project:
        return self.history.project

    @property
    def measure(self) -> Measure:
        return self.project.measure

    @property
    def block(self) -> Block:
        """The block shown: the one last asked for, or the last there is. Never none, whatever is
        refused, undone or deleted."""
        blocks = self.project.blocks
        return next((block for block in blocks if block.id == self._wanted), blocks[-1])

    @property
    def block_id(self) -> str:
        return self.block.id

    @property
    def advice(self) -> tuple[SeamAdvice, ...]:
        """Seams that would spare set-ins, as far as they are known already."""
        advised = known_advice(self.block)
        return advised.seams if advised is not None else ()

    @property
    def advice_cut_short(self) -> bool:
        """Were only the most promising seams tried for it?"""
        advised = known_advice(self.block)
        return advised is not None and advised.cut_short

    @property
    def draft(self) -> Draft:
        block = self.block
        if self._draft is None or self._draft[0] is not block:
            self._draft = (block, draft(block))
        return self._draft[1]

    @property
    def sewn_block(self) -> Block:
        """The block that is sewn first: the one shown, or, where that is made from others, the
        first of its start blocks."""
        block = self.block
        while block.made_from is not None:
            block = self.project.block(block.made_from.starts[0].block)
        return block

    @property
    def sewn_draft(self) -> Draft:
        sewn = self.sewn_block
        return self.draft if sewn is self.block else draft(sewn)

    @property
    def plan(self) -> BlockPlan | None:
        """The plan of the block as it is now, or None until it has been worked out."""
        plan = self._plan
        if plan is None or not same_but_log(plan.project, self.project):
            return None
        asked = plan.asked
        return plan if asked.block is self.block and asked.copies == self.copies else None

    @property
    def pressing(self) -> PressingPlan | None:
        """How the block is pressed as it is now, of one that is made from others its start block or
        the new one; None until it has been worked out, and where there is nothing to press."""
        plan = self.plan
        if plan is not None and self.presses_new and self.start_pressing is not None:
            new = plan.asked.pressing
            return new.best if new.settled else None
        return self.start_pressing

    @property
    def start_pressing(self) -> PressingPlan | None:
        """How the block that is cut for is pressed: of one made from others, its start block."""
        if self._pressing is None or self._pressing[0] is not self.plan:
            return None
        return self._pressing[1]

    @property
    def presses_new(self) -> bool:
        """Is the pressing shown that of a block made from others, not of its start block?"""
        return self._presses_new and self.plan is not None and bool(self.plan.then_sewn)

    def show_pressing_of_new(self, new: bool) -> None:
        """Show how a block made from others is pressed, or its start block."""
        self._presses_new = new
        self.pressed.emit()

    @property
    def pressing_known(self) -> bool:
        """Is it known how the block as it is now is pressed, or that there is nothing to press?"""
        return self._pressing is not None and self._pressing[0] is self.plan

    @property
    def unit(self) -> UnitPlan | None:
        """The unit picked, as planned now."""
        units = self.plan.units if self.plan else ()
        return next((u for u in units if u.unit.label == self.label), None)

    @property
    def checks(self) -> tuple[Problem, ...]:
        """What is wrong with the drawing as it is now, found at once; what its cutting and sewing
        bring up comes with the plan, and so does all of it where there are many patches to look
        at."""
        project, block = self.project, self.block
        if len(self.draft.patches) > CHECKED_AT_ONCE:
            return ()
        if self._checks is None or self._checks[0] is not project or self._checks[1] is not block:
            self._checks = (project, block, tuple(drawing_problems(self.draft, project)))
        return self._checks[2]

    def ask_quilt(self) -> bool:
        """Ask for the quilt as it is now, where nobody did; is it known already? ``topped`` tells
        when it is."""
        project = self.project
        if self._view_asked is not project:
            self._view_asked = project
            before = self._view
            self._viewer.start(lambda: quilt_view(project, before), self._viewed, pause=0)
        return self._view.plan.project is project

    @property
    def quilt_view(self) -> QuiltView:
        """The quilt as it is now; where that takes longer than the hand waits, as it was before,
        until ``topped`` tells."""
        self.ask_quilt()
        if self._view_waited is not self.project:
            self._view_waited = self.project
            self._viewer.wait(FRAMES)
        return self._view

    @property
    def quilt_plan(self) -> QuiltPlan:
        """The plan of ``quilt_view``; what it is cut from is worked out when that is asked for."""
        return self.quilt_view.plan

    @property
    def quilt_known(self) -> bool:
        """Is the top of the quilt as it is now known?"""
        return self.quilt_view.plan.project is self.project

    def _viewed(self, view: QuiltView) -> None:
        self._view = view
        self.topped.emit()

    def _no_quilt(self, text: str) -> None:
        self.said.emit(f"Inlet could not plan the quilt ({text}). It is kept.")

    def plan_the_quilt(self) -> None:
        """Lay out the fabric of the whole quilt aside; ``quilted`` tells."""
        plan = self.quilt_plan
        if self.quilt_known and not plan.planned:
            self._quilter.start(plan.work_out, lambda _: self._quilt_planned(plan))

    @property
    def is_quilt(self) -> bool:
        """Is a quilt set, so that the work is the quilt's, not a block's?"""
        quilt = self.project.quilt
        return quilt is not None and bool(block_counts(quilt))

    @property
    def work_plan(self) -> Plan | None:
        """The plan that is made: of the quilt where one is set, else of the block shown. None until
        it is worked out; that of a quilt is, once ``plan_the_quilt`` is asked for."""
        if not self.is_quilt:
            return self.plan
        plan = self.quilt_plan
        return plan if self.quilt_known and plan.planned else None

    @property
    def jobs(self) -> tuple[BenchJob, ...] | None:
        """What is to be done for the plan of the work, and what of it is, by the document as it is
        now; None until that is known, which ``ask_jobs`` asks for."""
        plan, known = self.work_plan, self._jobs
        if plan is None or known is None:
            return None
        now = plan, self.project, plan.fabric_plans.now
        return known[3] if all(a is b for a, b in zip(known, now, strict=False)) else None

    def ask_jobs(self, at_once: bool = True) -> None:
        """Work out ``jobs`` aside, if that is not done; ``worked`` tells where that takes longer
        than the hand waits. A quilt that is not planned is: ``at_once``, or after a quiet while."""
        plan, project = self.work_plan, self.project
        if plan is None:
            if at_once:
                self.plan_the_quilt()
            elif not self._quiet.isActive():
                self._quiet.start()
        elif self.jobs is None:
            laid = plan.fabric_plans.now

            def take(found: tuple[BenchJob, ...]) -> None:
                self._jobs = plan, project, laid, found
                self.worked.emit()

            self._worker.start(lambda: jobs(plan, project), take, pause=0)
            self._worker.wait(FRAMES if at_once else 0)

    def _quilt_planned(self, plan: QuiltPlan) -> None:
        if self._view.plan is plan:
            self.quilted.emit()

    def think_of_quilt(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work something out about the quilt aside; what is asked for next takes its place."""
        self._quilter.start(do, take)

    def think_of_sizes(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work out aside what comes of a size; what is asked for next takes its place."""
        self._sizer.start(do, take)

    def think_of_slices(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work out aside what comes of slices; what is asked for next takes its place."""
        self._slicer.start(do, take)

    @property
    def group(self) -> tuple[Turn, ...]:
        """The ways the drawing is repeated, itself first."""
        return group_of(self.symmetries)

    def repeat_by(self, keys: frozenset[str]) -> None:
        if keys != self.symmetries:
            self.symmetries = keys
            self.repeats.emit()

    # --- plans --------------------------------------------------------------------------------

    def think(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work something out aside, while no plan is asked for, and hand it to ``take``."""
        self._planner.think(do, take)

    def think_of_pressing(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work out more about the pressing, once that is known, and hand it to ``take``; nothing
        comes of it where another plan is asked for first."""
        self._presser.think(do, take)

    def lay_out(self) -> None:
        """Lay out the fabric as well as can be, if that is not done; ``laid_out`` tells."""
        plan = self.plan
        if plan is not None and not plan.fabric_plans.settled:
            self._cutter.start(lambda: plan.fabric_plans.best, lambda _: self._laid_out(plan))

    def _laid_out(self, plan: BlockPlan) -> None:
        if self.plan is plan:
            self.laid_out.emit()

    def think_of_cutting(self, do: Callable[[], T], take: Callable[[T], object]) -> None:
        """Work out something about the cutting aside; what is asked for next takes its place."""
        self._cutter.start(do, take)

    @property
    def at_rest(self) -> bool:
        """Is nothing being worked out?"""
        return all(task.at_rest for task in self.tasks)

    def _refresh(self) -> None:
        """After any change of document or block: keep the choices valid, tell, plan anew."""
        if self.fabric is None or self.project.fabric(self.fabric) is None:
            self.fabric = self.project.fabrics[0].id if self.project.fabrics else None
        known = self.plan is not None  # only the log was added to
        if not known:
            self._ask()
        self.changed.emit()
        if known:
            self.planned.emit()
            self.pressed.emit()

    def _ask(self) -> None:
        self._presser.ask(None)
        self._cutter.stop()
        self._planner.ask(self.project, self.block, self.copies)

    def _arrived(self, plan: BlockPlan) -> None:
        self._plan = plan
        if self.plan is None:
            return  # of a document that is no longer this one
        labels = [u.unit.label for u in plan.units]
        if self.label not in labels:
            self.label = labels[0] if labels else None
        self.planned.emit()
        self._presser.ask(plan)

    def _pressed(self, plan: BlockPlan, pressing: PressingPlan | None) -> None:
        if self.plan is plan:
            self._pressing = plan, pressing
            self.pressed.emit()

    @property
    def tasks(self) -> tuple[BackgroundTask, ...]:
        """All that works for it, to be closed with the window."""
        background_tasks = (
            self._cutter, self._viewer, self._quilter, self._keeper, self._worker, self._sizer,
            self._slicer,
        )  # fmt: skip
        return (*self._planner.tasks, *self._presser.tasks, *background_tasks)

    def close(self) -> None:
        """Stop for good; nothing may arrive afterwards."""
        close_all(self.tasks)
