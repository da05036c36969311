"""All steps in order, and the block as laid out to compare the table with."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import QButtonGroup, QWidget

from inlet.core.bench import block_things, progress
from inlet.core.figures import lines_figure
from inlet.core.geometry import midpoint
from inlet.core.plan import BlockPlan
from inlet.core.schedule import seams_text
from inlet.core.table import DrawnLine
from inlet.core.units import picture_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.piecing.advice import AdviceList
from inlet.ui.piecing.stage import PiecingStage, step_words
from inlet.ui.shell.session import Session
from inlet.ui.widgets.answers import AnswersCard
from inlet.ui.widgets.drawing import ScreenFrame, draw_sheet
from inlet.ui.widgets.inputs import PushButton
from inlet.ui.widgets.painting import draw_figure, draw_tag
from inlet.ui.widgets.parts import column, empty, label, rule


class PiecingTicket(QWidget):
    def __init__(self, session: Session, stage: PiecingStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        layout.addWidget(label("Laid out", "title"))
        self.picture = LaidOut(session, stage)
        layout.addWidget(self.picture)
        layout.addWidget(label("This step's parts are outlined.", "caption", True))
        self.count = label("", "small", True)
        layout.addWidget(self.count)
        layout.addWidget(rule())
        layout.addWidget(label("Steps", "heading"))
        self.list = column(spacing=2)
        layout.addLayout(self.list)
        layout.addWidget(AdviceList(session))
        self.answers = AnswersCard(session)
        layout.addWidget(self.answers)
        layout.addStretch(1)
        self.group = QButtonGroup(self)
        session.planned.connect(self.refresh)
        stage.moved.connect(self._mark)
        self.refresh()

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        self.count.setText(seams_text(plan.seams))
        empty(self.list)
        things = block_things(plan)
        done = progress(self.session.project.log, things).done
        for i, (step, thing) in enumerate(zip(plan.steps, things, strict=True)):
            tick = "✓  " if done.get(thing.name, 0) >= thing.times else ""
            button = PushButton(f"{tick}{step_words(step)}")
            button.setCheckable(True)
            button.setObjectName("flat")
            button.clicked.connect(lambda _=False, k=i: self.stage.go(k))
            self.group.addButton(button, i)
            self.list.addWidget(button)
        self._mark()

    def _mark(self) -> None:
        now = self.group.button(self.stage.index)
        if now is not None:
            now.setChecked(True)
        self.picture.update()


@guarded
class LaidOut(QWidget):
    """The whole block, with what the step makes outlined wherever it lies."""

    def __init__(self, session: Session, stage: PiecingStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.setMinimumHeight(theme.px(190))
        self.setAccessibleName("The block as laid out")
        session.advised.connect(self.update)

    def paintEvent(self, event: object) -> None:
        plan = self.session.plan
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if plan is not None:
            step = plan.steps[min(self.stage.index, len(plan.steps) - 1)] if plan.steps else None
            sewn = plan.sewn_in(step) if step is not None else plan
            w, h = (float(x) for x in sewn.block.finished)
            frame = ScreenFrame.fit(QRectF(self.rect()).adjusted(4, 4, -4, -4), (0, 0, w, h))
            draw_sheet(
                painter, frame, picture_of(sewn.draft, sewn.root.faces), plan.project,
                grey=self.session.grey,
            )  # fmt: skip
            if step is not None:
                parts = [step.part, *step.alike]
                if step.unit:
                    parts = [place.part for place in step.unit.unit.places]
                painter.setBrush(Qt.BrushStyle.NoBrush)
                for ink, width in ((theme.PAPER, 6.0), (theme.ACCENT, 3.2)):
                    painter.setPen(QPen(ink, width))
                    for part in parts:
                        painter.drawPolygon(frame.polygon(part.outline))
            if sewn is plan:
                self._advised(painter, frame, plan)
        painter.end()

    def _advised(self, painter: QPainter, frame: ScreenFrame, plan: BlockPlan) -> None:
        """The seams advised, dashed, with their numbers."""
        sx, sy = plan.block.scale
        for number, advice in enumerate(self.session.advice, 1):
            start, end = advice.start.scaled(sx, sy), advice.end.scaled(sx, sy)
            seam = lines_figure((DrawnLine("seam", start, end),), frame.placed)
            draw_figure(painter, seam, plan.project)
            middle = midpoint(start, end)
            draw_tag(painter, frame.at(*middle.floats()), str(number), 8)
