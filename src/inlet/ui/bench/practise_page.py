"""Exercises on scraps, each for one kind of seam: what to cut and sew, what it measured, what that
says, and what comes next."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QLineF, QPointF, QSize, Qt
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.bench import Plan
from inlet.core.hand import (
    DONE_WELL,
    EXERCISES,
    Exercise,
    NextExercise,
    PracticeResult,
    coming_exercise,
    exercise_plan,
    practised,
    progress_text,
    result_text,
    with_practice,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.project import Project
from inlet.core.words import size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.piecing.card import StepPanel
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.parts import ValueEdit, button, column, label

WAITS = "Working out the exercise …"
NEXT = ""
"""Stands for the exercise that comes next, in the list."""
FARTHEST = 1 / 32
"""Inches off that reach to the edge of the picture."""


@guarded
class PractisePage(QWidget):
    """One exercise at a time: the next one, or one that was chosen."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.chosen = NEXT
        self.coming: NextExercise | None = None
        self.plan: BlockPlan | None = None
        self.exercise: Exercise | None = None
        self._asked: object = None
        self._shown: object = None
        layout = column(self, 4, 8)
        self.title = label("Practise", "title", True)
        self.why = label("", "", True)
        self.choice = ChoiceField("Exercise", self._choose)
        self.card = StepPanel()
        self.measured = ValueEdit("What it measured", self._take)
        self.measured.refused.connect(session.said)
        self.says = label("", "heading", True)
        self.progress = label("", "", True)
        self.picture = ProgressPicture()
        layout.addWidget(self.title)
        layout.addLayout(field("Exercise", self.choice))
        layout.addWidget(self.why)
        layout.addWidget(self.card)
        layout.addLayout(field("It measured", self.measured))
        for widget in (self.says, self.progress, self.picture):
            layout.addWidget(widget)
        self.add = button("Add it to my blocks", self._add)
        self.add.setToolTip("To print its templates and its guide")
        layout.addWidget(self.add, 0, Qt.AlignmentFlag.AlignLeft)
        layout.addStretch(1)

    def refresh(self) -> None:
        """Worked out aside; what was shown stays until then."""
        session = self.session
        project, work = session.project, session.work_plan
        items = [("The one that comes next", NEXT), *((e.title, e.id) for e in EXERCISES)]
        self.choice.offer(items, self.chosen)
        if self.exercise is None:
            self.why.setText(WAITS)
        asked = (
            project.log, project.measure, project.fabrics, project.cutting, project.rates, work,
            self.chosen,
        )  # fmt: skip
        if asked == self._asked:
            return
        self._asked = asked
        session.think(partial(_worked_out, work, project, self.chosen), partial(self._show, asked))

    def _show(self, asked: object, worked_out: tuple[NextExercise, Exercise, BlockPlan]) -> None:
        if asked != self._asked:
            return
        self.coming, self.exercise, self.plan = worked_out
        coming, exercise, plan = worked_out
        self.title.setText(exercise.title)
        why = f" {coming.why}" if coming.exercise == exercise else ""
        self.why.setText(vulgar_text(f"{exercise.why}{why}"))
        shown = exercise, plan.measure, plan.project.fabrics
        if shown != self._shown:
            self._shown = shown
            self._show_plan(plan)
        self._show_results(exercise)

    def _show_results(self, exercise: Exercise) -> None:
        """What was measured last, of whichever exercise; how this one went so far."""
        measure, results = self.session.measure, practised(self.session.project)
        of_exercise = [result for result in results if result.exercise == exercise]
        last = of_exercise[-1:] if self.chosen != NEXT else results[-1:]
        says = " ".join(result_text(result, measure) for result in last)
        if last and last[0].exercise != exercise:
            says = f"{last[0].exercise.title}: {says}"
        progress = progress_text(of_exercise, measure)
        for words, text in ((self.says, says), (self.progress, progress)):
            words.setText(vulgar_text(text))
            words.setVisible(bool(text))
        self.picture.show_results(of_exercise)

    def _show_plan(self, plan: BlockPlan) -> None:
        """Every step with its pictures."""
        self.card.clear()
        for step in plan.steps:
            self.card.show_step(plan, step, None, self.session.grey)
        self.measured.setPlaceholderText(size_text(plan.made_size, plan.measure))

    def _choose(self, name: str) -> None:
        self.chosen = name
        self.refresh()

    def _add(self) -> None:
        """The exercise becomes a block of the project, with all that blocks have."""
        if self.plan is not None:
            self.session.take_block(self.plan.block)

    def _take(self, text: str) -> None:
        """What was measured goes into the log; one edit, undone like any. Raises ``ValueError``."""
        if self.exercise is None or not text.strip():
            return
        session = self.session
        project, _ = with_practice(session.project, self.exercise, text, session.now)
        session.edit(project)
        self.measured.clear()
        self.refresh()


def _worked_out(
    work: Plan | None, project: Project, chosen: str
) -> tuple[NextExercise, Exercise, BlockPlan]:
    coming = coming_exercise(work, project)
    exercise = next((e for e in EXERCISES if e.id == chosen), coming.exercise)
    return coming, exercise, exercise_plan(exercise, project)


@guarded
class ProgressPicture(QWidget):
    """How far off each try was, one after the other: above the line a seam too wide, below it one
    too narrow; between the dashes it is done well. Rings are well done, dots not."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("How far off each try was")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.results: list[PracticeResult] = []
        self.hide()

    def sizeHint(self) -> QSize:
        return QSize(theme.px(360), theme.px(110))

    def show_results(self, results: list[PracticeResult]) -> None:
        self.results = results
        self.setVisible(len(results) > 1)
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, right = theme.px(90), self.width() - theme.px(16)
        middle, half = self.height() / 2, self.height() / 2 - theme.px(10)

        def level(inches: float) -> float:
            return middle - max(-1.0, min(1.0, inches / FARTHEST)) * half

        painter.setPen(QPen(theme.INK, 1.4))
        painter.drawLine(QLineF(left, middle, right, middle))
        painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DashLine))
        for edge in (DONE_WELL, -DONE_WELL):
            painter.drawLine(QLineF(left, level(edge), right, level(edge)))
        painter.setFont(theme.font(9))
        painter.setPen(theme.INK_SOFT)
        for words, y in (("too wide", level(FARTHEST * 0.8)), ("as planned", middle),
                         ("too narrow", level(-FARTHEST * 0.8))):  # fmt: skip
            painter.drawText(QPointF(theme.px(8), y + theme.px(4)), words)
        step = (right - left) / max(6, len(self.results))
        places = [
            QPointF(left + step * (i + 0.5), level(r.more)) for i, r in enumerate(self.results)
        ]
        painter.setPen(QPen(theme.INK_SOFT, 1.2))
        painter.drawPolyline(places)
        for place, result in zip(places, self.results, strict=True):
            painter.setPen(QPen(theme.INK, 1.8))
            painter.setBrush(theme.PAPER if result.is_good else theme.ACCENT)
            painter.drawEllipse(place, theme.px(5), theme.px(5))
        painter.end()
