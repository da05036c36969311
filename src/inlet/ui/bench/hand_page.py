"""The hand: what the measured sizes say of the maker's seam, in sentences and a picture; what the
timings say of their minutes."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from inlet.core.hand import (
    Estimate,
    HandMeasure,
    MakerHand,
    hand_lines,
    is_of_whole_seams,
    learn_hand,
    times_lines,
    trim_lines,
)
from inlet.core.numbers import vulgar_text
from inlet.core.project import Project, Rates, replace
from inlet.core.tolerance import HANDS, WHOSE, Simulated, simulated, slips_text
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import button, column, empty, label, row

WAITS = "Looking at what was measured …"
SHOWN = 2.2
"""How many planned seams the picture is wide."""


@guarded
class HandPage(QWidget):
    """Learnt again whenever the plan or the log is another."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.hand: MakerHand | None = None
        self._asked: object = None
        layout = column(self, 4, 8)
        layout.addWidget(label("The hand", "title"))
        self.picture = HandPicture()
        layout.addWidget(self.picture)
        self.lines = column(spacing=7)
        layout.addLayout(self.lines)
        self.times_title = label("Your minutes", "heading")
        self.times = column(spacing=7)
        self.use_rates = button("Use these rates", self._use_rates)
        layout.addWidget(self.times_title)
        layout.addLayout(self.times)
        layout.addWidget(self.use_rates, 0, Qt.AlignmentFlag.AlignLeft)
        self.simulated = _Simulated(session)
        layout.addWidget(self.simulated)
        layout.addStretch(1)
        self.times_title.hide()
        self.use_rates.hide()

    def refresh(self) -> None:
        """Worked out aside; what was learnt before stays until then."""
        session = self.session
        plan, project = session.work_plan, session.project
        if self.hand is None:
            _say(self.lines, [WAITS])
        if plan is None:
            if session.is_quilt:
                session.plan_the_quilt()
            return
        asked = plan, project.log, project.measure, project.rates
        if self._asked is not None and asked == self._asked:
            return
        self._asked = asked
        session.think(partial(learn_hand, plan, project), partial(self._learnt, project))

    def _learnt(self, project: Project, hand: MakerHand) -> None:
        self.hand = hand
        lines = [*hand_lines(hand.seams, hand.measures, project)]
        _say(self.lines, [*lines, *trim_lines(hand.trims, project.measure)], 1)
        self.picture.show_hand(hand, project)
        rates = project.rates or Rates()
        self.times_title.show()
        _say(self.times, times_lines(hand.times, rates, project.measure))
        self.use_rates.setVisible(hand.rates != rates)
        self.simulated.setVisible(hand.seams is None)

    def _use_rates(self) -> None:
        """What was learnt becomes the maker's rates; Undo takes it back."""
        if self.hand is not None:
            self.session.edit(replace(self.session.project, rates=self.hand.rates))


@guarded
class _Simulated(QWidget):
    """A simulated maker makes the project, and writes its log: to see what there is to learn."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 7)
        words = "To see how it works, let a simulated maker make what is left. Undo takes it back."
        layout.addWidget(label(words, "", True))
        names = [(name, WHOSE[name]) for name in HANDS]
        self.buttons = {
            name: button(f"{whose[0].upper()}{whose[1:]}", partial(self._make, name))
            for name, whose in names
        }
        layout.addLayout(row(*self.buttons.values(), 1))
        self.hide()

    def _make(self, name: str) -> None:
        session, plan = self.session, self.session.work_plan
        if plan is not None:
            project, day = session.project, session.now[:10]
            make = partial(simulated, plan, project, HANDS[name], SEED, day)
            session.think(make, partial(self._made, project))

    def _made(self, before: Project, result: Simulated) -> None:
        """Kept, unless something else was done meanwhile."""
        if self.session.project is before:
            self.session.edit(result.project)
            self.session.said.emit(slips_text(result.slips))


SEED = 1
"""Of the simulated maker: the same work each time."""


def _say(lines: QVBoxLayout, words: Iterable[str], headings: int = 0) -> None:
    empty(lines)
    for i, line in enumerate(words):
        lines.addWidget(label(vulgar_text(line), "heading" if i < headings else "", True))


@guarded
class HandPicture(QWidget):
    """A seam from the raw edge on, many times as large: where it is planned, where it is sewn, and
    what each measurement says; crosses are slips."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("Your seam beside the planned one")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.estimate: Estimate | None = None
        self.measures: list[HandMeasure] = []
        self.planned, self.words = 0.25, ""
        self.hide()

    def sizeHint(self) -> QSize:
        return QSize(360, theme.px(150))

    def show_hand(self, hand: MakerHand, project: Project) -> None:
        """The seams of a hand; nothing where none was learnt that is one."""
        measure = project.measure
        self.estimate, self.measures = hand.seams, hand.measures
        if hand.seams is not None and is_of_whole_seams(hand.seams, measure):
            self.estimate = None
        self.planned = float(measure.seam) / float(measure.system.per_inch)
        self.words = vulgar_text(length_text(measure.seam, measure))
        self.setVisible(self.estimate is not None)
        self.update()

    def paintEvent(self, event: object) -> None:
        estimate = self.estimate
        if estimate is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, high = theme.px(16), self.height()
        scale = (self.width() - 2 * left) / (SHOWN * self.planned)

        def at(inches: float) -> float:
            return left + inches * scale

        fabric = QRectF(left, high * 0.12, self.width() - 2 * left, high * 0.62)
        painter.fillRect(fabric, QBrush(theme.PAPER))
        painter.setPen(QPen(theme.INK, 1.6))
        painter.drawLine(QLineF(fabric.left(), fabric.top(), fabric.left(), fabric.bottom()))
        seam = self.planned + estimate.together.more
        band = QColor(theme.INK_SOFT)
        band.setAlpha(70)
        wide = estimate.spread * scale
        painter.fillRect(
            QRectF(at(seam) - wide, fabric.top(), 2 * wide, fabric.height()), QBrush(band)
        )
        painter.setPen(QPen(theme.INK, 1.4, Qt.PenStyle.DashLine))
        x = at(self.planned)
        painter.drawLine(QLineF(x, fabric.top(), x, fabric.bottom()))
        painter.setPen(QPen(theme.ACCENT, 2.4))
        painter.drawLine(QLineF(at(seam), fabric.top(), at(seam), fabric.bottom()))
        self._points(painter, fabric, scale, estimate)
        self._words(painter, fabric, x, at(seam))
        painter.end()

    def _points(self, painter: QPainter, fabric: QRectF, scale: float, estimate: Estimate) -> None:
        """What each measurement says alone: how much a seam takes."""
        shown = [(i, m) for i, m in enumerate(self.measures) if m.squares > 0]
        for place, (i, each) in enumerate(shown):
            more = -(each.off - each.pieces * (estimate.cut or 0.0)) / sum(each.takes.values())
            x = fabric.left() + (self.planned + more) * scale
            y = fabric.top() + fabric.height() * (place + 0.5) / len(shown)
            x = max(fabric.left(), min(fabric.right(), x))
            if i in estimate.slips:
                painter.setPen(QPen(theme.ACCENT, 1.8))
                painter.drawLine(QLineF(x - 4, y - 4, x + 4, y + 4))
                painter.drawLine(QLineF(x - 4, y + 4, x + 4, y - 4))
            else:
                painter.setPen(QPen(theme.PAPER, 1))
                painter.setBrush(theme.INK)
                painter.drawEllipse(QPointF(x, y), 3.2, 3.2)

    def _words(self, painter: QPainter, fabric: QRectF, planned: float, sewn: float) -> None:
        painter.setFont(theme.font(9, QFont.Weight.Medium))
        line = painter.fontMetrics().height()
        painter.setPen(theme.INK)
        painter.drawText(QPointF(planned - 30, fabric.bottom() + line), f"planned {self.words}")
        painter.setPen(theme.ACCENT)
        painter.drawText(QPointF(sewn + 6, fabric.top() - 4), "your seam")
        painter.setPen(theme.INK_SOFT)
        painter.drawText(QPointF(fabric.left(), fabric.bottom() + line), "raw edge")
