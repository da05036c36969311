"""What the table view shows of each stage, and what its keys do there."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtWidgets import QWidget

from inlet.core.bench import PLACE_TITLES, BenchJob, block_things, job_of, sewn_things
from inlet.core.piecing import Step, step_moves
from inlet.core.plan import BlockPlan, SewnBlock
from inlet.core.planning import move_text
from inlet.core.table import Move, like_ones_together
from inlet.core.words import measured_text, unit_of
from inlet.ui.at_table.view import TableCard, TableSource, size_first
from inlet.ui.bench.stage import BenchStage
from inlet.ui.cutting.mat import Mat
from inlet.ui.cutting.stage import CuttingStage
from inlet.ui.piecing.card import step_name
from inlet.ui.piecing.stage import PiecingStage
from inlet.ui.quilt.rows_page import RowsPage, StepPicture
from inlet.ui.shell.session import Session
from inlet.ui.widgets.drawing import MovePicture

MOST_PICTURES = 4


def _pictures(moves: Sequence[Move], session: Session) -> list[QWidget]:
    """The moves of a step side by side, the last ones where there are many."""
    shown = [move for move in moves if move.lower or move.upper][-MOST_PICTURES:]
    return [MovePicture(move, session.project, 160, session.grey) for move in shown]


def _step_words(plan: SewnBlock, step: Step) -> str:
    """What is done in a step: move by move of a unit, else its sentence; how it is pressed."""
    words = step.text
    if step.unit is not None:
        stacks = plan.stacks[step.unit.unit.label]
        said = [
            move_text(repeat.move.text, step.unit.in_use, plan.project, stacks, repeat.times)
            for repeat in like_ones_together(step.unit.in_use.moves)
            if repeat.move.text
        ]
        words = "  ".join(dict.fromkeys(said))
    pressed = plan.press(step) if plan.pressing.settled else None
    return f"{words}  {pressed.text}" if pressed is not None else words


class PiecingSource(TableSource):
    """The steps of a block, one after the other."""

    def __init__(self, session: Session, stage: PiecingStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        stage.moved.connect(self.changed)
        session.pressed.connect(self.changed)

    def card(self) -> TableCard | None:
        plan = self.session.plan
        if plan is None or not plan.steps:
            return None
        at = max(0, min(self.stage.index, len(plan.steps) - 1))
        step, sewn = plan.steps[at], plan.sewn_in(plan.steps[at])
        size = measured_text(step.measures, plan.measure) if step.measures else ""
        size, more = size_first(size, unit_of(plan.measure))
        number = f"make {step.times}" if step.times > 1 else "make one"
        about = f"{number}; {more}" if more else number
        moves = step_moves(sewn.draft, step, plan.measure.seam)
        return TableCard(
            f"{step_name(step)}, {about}", size, _step_words(sewn, step),
            self.stage.place_text(plan).capitalize(), lambda: _pictures(moves, self.session),
        )  # fmt: skip

    def onward(self) -> None:
        self.stage.tick(1)

    def back(self) -> None:
        self.stage.tick(-1)


class PressingSource(PiecingSource):
    """The steps of a block that are pressed: which way, seam by seam; going on ticks the pressing
    of one."""

    def card(self) -> TableCard | None:
        card = super().card()
        plan = self.session.plan
        if card is None or plan is None:
            return card
        step = plan.steps[max(0, min(self.stage.index, len(plan.steps) - 1))]
        sewn = plan.sewn_in(step)
        if not sewn.pressing.settled:
            return None
        pressed = sewn.press(step)
        if pressed is None:
            return card._replace(words="There is no seam to press.")
        job = self._job(plan, plan.steps.index(step))
        done = f", {job.done} of {job.times} pressed" if job is not None else ""
        return card._replace(
            words=pressed.text,
            place=f"Step {plan.steps.index(step) + 1} of {len(plan.steps)}{done}",
            pictures=lambda: _pictures(pressed.moves, self.session),
        )

    def _job(self, plan: BlockPlan, at: int) -> BenchJob | None:
        """The pressing of a step; None of one that has no seam."""
        name = block_things(plan)[at].name
        return job_of(plan, self.session.project, name, "Press")

    def onward(self) -> None:
        plan = self.session.plan
        if plan is not None and plan.steps:
            job = self._job(plan, self.stage.index)
            if job is not None and job.left:
                self.session.tick_job(job, job.left)
            self.stage.go(self.stage.index + 1)

    def back(self) -> None:
        plan = self.session.plan
        if plan is None or not plan.steps:
            return
        at = self.stage.index
        job = self._job(plan, at)
        if at and (job is None or not job.done):
            at -= 1
            job = self._job(plan, at)
        if job is not None and job.done:
            self.session.tick_job(job, -job.done)
        self.stage.go(at)


class CuttingSource(TableSource):
    """The cuts of the fabric on the mat; going on makes the cut."""

    def __init__(self, session: Session, stage: CuttingStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        stage.shown.connect(self.changed)

    def card(self) -> TableCard | None:
        cut_card, mat = self.stage.cut_card, self.stage.mat
        if cut_card is None:
            return None
        stacks = " ".join(f"Stack {s.label} is complete: pin its label." for s in cut_card.stacks)
        ready = f"Comes off: {cut_card.ready}." if cut_card.ready else ""
        spelled = f"{cut_card.words[0].upper()}{cut_card.words[1:]}." if cut_card.words else ""
        words = "  ".join(filter(None, (spelled, cut_card.text, ready, stacks)))

        def pictures() -> list[QWidget]:
            picture = Mat()
            picture.show_laid(mat.shown, mat.project, mat.grey)
            return [picture]

        return TableCard(cut_card.title, cut_card.shown, words, "", pictures)

    def onward(self) -> None:
        self.stage.go_on()

    def back(self) -> None:
        self.stage.go_back()


class QuiltSource(TableSource):
    """The steps of the quilt; going on does one of them."""

    def __init__(self, session: Session, page: RowsPage) -> None:
        super().__init__()
        self.session, self.page = session, page
        page.shown.connect(self.changed)

    def card(self) -> TableCard | None:
        page = self.page
        if page.at >= len(page.steps):
            return None
        step = page.steps[page.at]
        done = page.done.get(step.name, 0)
        size, more = size_first(step.measures, unit_of(self.session.measure))
        title = f"{step.title}, {more}" if more else step.title
        place = f"Step {page.at + 1} of {len(page.steps)}"
        if step.times > 1:
            place += f", {done} of {step.times} done"
        if step.sewn is not None:
            sewn, inner = step.sewn
            moves = step_moves(sewn.draft, inner, sewn.measure.seam)
            return TableCard(title, size, _step_words(sewn, inner), place,
                             lambda: _pictures(moves, self.session))  # fmt: skip

        def pictures() -> list[QWidget]:
            picture = StepPicture()
            page.draw_step(picture, step)
            return [picture]

        return TableCard(title, size, step.text, place, pictures)

    def onward(self) -> None:
        self.page.go(1)

    def back(self) -> None:
        self.page.go(-1)


class BenchSource(TableSource):
    """The jobs of today's list; going on does one, going back takes the last one back."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.ticked: list[tuple[BenchJob, int]] = []
        stage.shown.connect(self.changed)

    def card(self) -> TableCard | None:
        listed = self.stage.list
        if listed is None:
            return None
        left = len(listed.portions)
        if not left:
            return TableCard("Today's list is done", "", "", f"{len(self.ticked)} done here")
        first = listed.portions[0]
        size, more = size_first(first.job.size, unit_of(self.session.measure))
        words = [f"{PLACE_TITLES[first.job.place]}."]
        words += [f"{more[0].upper()}{more[1:]}."] if more else []
        sewn = self._sewn(first.job)
        pictures: Callable[[], Sequence[QWidget]] = tuple
        if sewn is not None:
            of, step = sewn
            words.append(_step_words(of, step))
            moves = step_moves(of.draft, step, of.measure.seam)
            pictures = partial(_pictures, moves, self.session)
        many = "1 job is left" if left == 1 else f"{left} jobs are left"
        title, figure = first.job.title(first.number), size or first.job.number_text(first.number)
        return TableCard(title, figure, "  ".join(words), f"{many} today", pictures)

    def _sewn(self, job: BenchJob) -> tuple[SewnBlock, Step] | None:
        """The step of a block that a job is part of; None of one that is no such."""
        plan = self.session.work_plan
        if plan is None or job.thing is None:
            return None
        named_steps = ((thing.name, of, step) for thing, of, step in sewn_things(plan))
        return next(((of, step) for name, of, step in named_steps if name == job.thing.name), None)

    def onward(self) -> None:
        listed = self.stage.list
        if listed is not None and listed.portions:
            first = listed.portions[0]
            self.ticked.append((first.job, first.number))
            self.stage.tick(first)

    def back(self) -> None:
        if self.ticked:
            job, number = self.ticked.pop()
            self.session.tick_job(job._replace(done=job.done + number), -number)


def source_for(
    stage: str,
    session: Session,
    cutting: CuttingStage,
    piecing: PiecingStage,
    rows: RowsPage,
    bench: BenchStage,
) -> TableSource:
    """The steps of a stage by its name; those of the block where it has none."""
    if stage == "bench":
        return BenchSource(session, bench)
    if stage == "cutting":
        return CuttingSource(session, cutting)
    if stage == "quilt":
        return QuiltSource(session, rows)
    return (PressingSource if stage == "pressing" else PiecingSource)(session, piecing)
