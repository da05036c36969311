"""What can be done where cuts on the ruler's marks do not fit: the answers side by side."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter
from PySide6.QtWidgets import QFrame, QVBoxLayout, QWidget

from inlet.core.draft import Draft
from inlet.core.fitting import NAMES, Answer, misfit_text
from inlet.core.numbers import show
from inlet.core.plan import BlockPlan
from inlet.core.project import Project, replace
from inlet.core.units import picture_of
from inlet.core.words import unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.drawing import ScreenFrame, draw_sheet
from inlet.ui.widgets.parts import Link, button, column, empty, label, row


class AnswersCard(QWidget):
    """Nothing where all fits. Answers that change the drawing or its size are taken by one click;
    of the others one is in use, by the maker's choice or as the best."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setAccessibleName("What to do at this size")
        self.body = column(self, 0, 6)
        self._shown: tuple[Answer, ...] = ()
        session.planned.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """The answers take a while, and are worked out aside."""
        plan = self.session.plan
        if plan is None:
            return
        if plan.fitting is None or plan.fitting.fits:
            self._show(plan, ())
        else:
            self.setEnabled(False)  # what is shown is of the plan before
            self.session.think(lambda: plan.answers, partial(self._arrived, plan))

    def _arrived(self, plan: BlockPlan, answers: tuple[Answer, ...]) -> None:
        if self.session.plan is plan:
            self._show(plan, answers)

    def _show(self, plan: BlockPlan, answers: tuple[Answer, ...]) -> None:
        empty(self.body)
        self.setEnabled(True)
        self._shown = answers
        self.setVisible(bool(answers))
        if not answers or plan.fit is None:
            return
        seams_fit = plan.fitting is not None and plan.fitting.seams_fit
        self.body.addWidget(label(f"As cut {misfit_text(seams_fit)}", "heading", True))
        for answer in answers:
            in_use = answer.remedy == plan.fit.remedy and answer.remedy != "size"
            self.body.addWidget(self._card(plan, answer, in_use))
        if plan.measure.awkward != "best":
            best = Link("Take the best one again", "link")
            best.followed.connect(partial(self._wish, "best"))
            self.body.addWidget(best)

    def _card(self, plan: BlockPlan, answer: Answer, in_use: bool) -> QFrame:
        card = QFrame()
        card.setObjectName("answerUsed" if in_use else "answer")
        layout: QVBoxLayout = column(card, 8, 3)
        figure, _, thread = answer.comes_out.partition(", ")
        head = row(label(NAMES[answer.remedy], "heading"), 1)
        if in_use:
            head.addWidget(label("in use", "tag"))
        else:
            take = button("Use", partial(self._take, plan, answer))
            take.setAccessibleName(f"Use: {answer.text}")
            head.addWidget(take)
        layout.addLayout(head)
        comes_out = row(label(figure, "size"))
        comes_out.addWidget(label(thread, "small", True), 1)
        layout.addLayout(comes_out)
        layout.addWidget(label(answer.done, "small", True))
        facts = [f"fabric {answer.fit.fabric:.0f} sq {unit_of(plan.measure)}"]
        if answer.fit.trims:
            facts.insert(0, f"{answer.fit.trims} to trim")
        layout.addWidget(label(" · ".join(facts), "caption"))
        if answer.remedy == "bands" and answer.block is not None:
            drawn = answer.fit.sewn.layout.draft
            layout.addWidget(BandsPicture(plan.project, drawn, self.session.grey))
        return card

    def _take(self, plan: BlockPlan, answer: Answer) -> None:
        if self.session.plan is not plan:
            return  # drawn or sized otherwise since
        if answer.block is not None:
            self.session.edit_block(answer.block)
        else:
            self._wish(answer.remedy)

    def _wish(self, awkward: str) -> None:
        self.session.edit_measure(replace(self.session.measure, awkward=awkward))


@guarded
class BandsPicture(QWidget):
    """The block on its new bands, each band's width beside it."""

    def __init__(self, project: Project, drawn: Draft, grey: bool) -> None:
        super().__init__()
        self.project, self.block, self.grey_view = project, drawn.block, grey
        self.sheet = picture_of(drawn, frozenset(range(len(drawn.patches))))
        self.setFixedHeight(theme.px(150))
        self.setAccessibleName("The block on its new bands")

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(theme.font(9))
        wide, high = (float(x) for x in self.block.finished)
        room = theme.px(34)
        box = QRectF(self.rect()).adjusted(room, theme.px(18), -room, -2)
        frame = ScreenFrame.fit(box, (0, 0, wide, high))
        draw_sheet(painter, frame, self.sheet, self.project, grey=self.grey_view)
        painter.setPen(theme.INK)
        metrics = QFontMetricsF(painter.font())
        for axis, bands in enumerate((self.block.columns, self.block.rows)):
            at = 0.0
            for band in bands:
                width = band * self.block.scale[axis]
                text = show(width, system=self.project.measure.system, vulgar=True, ruler=True)
                middle = at + float(width) / 2
                spot = frame.at(*((middle, 0) if axis == 0 else (0, middle)))
                w, h = metrics.horizontalAdvance(text) + 4, metrics.height()
                if axis == 0:
                    place = QRectF(spot.x() - w / 2, spot.y() - h - 1, w, h)
                else:
                    place = QRectF(spot.x() - w - 3, spot.y() - h / 2, w, h)
                painter.drawText(place, Qt.AlignmentFlag.AlignCenter, text)
                at += float(width)
        painter.end()
