"""Sittings: the steps as evenings, each a bar of what is done where, to the minute."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt, SignalInstance
from PySide6.QtGui import QBrush, QPainter, QPen
from PySide6.QtWidgets import QFormLayout, QFrame, QSpinBox, QWidget

from inlet.core.piecing.sittings import Sitting
from inlet.core.piecing.words import minutes_text, sitting_lines, thread_text, walks_text
from inlet.core.piecing.work import Work
from inlet.core.project.measure import Rates
from inlet.core.project.value import replace
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.parts import column, empty, label, when_seen
from inlet.ui.session import Session

_LOOKS = {
    "mat": (theme.PAPER, Qt.BrushStyle.NoBrush),
    "machine": (theme.INK_SOFT, Qt.BrushStyle.SolidPattern),
    "iron": (theme.PAPER, Qt.BrushStyle.BDiagPattern),
}
"""Ground and hatch of a place: told apart without colour."""


class SittingsPage(QFrame):
    """How long the maker has and a bobbin lasts, then every sitting of the ``work`` there is, once
    it is known."""

    def __init__(
        self, session: Session, work: Callable[[], Work | None], known: SignalInstance
    ) -> None:
        super().__init__()
        self.setObjectName("card")
        self.session, self.work = session, work
        layout = column(self, 20, 10)
        layout.addWidget(label("Sittings", "title"))
        form = QFormLayout()
        form.setRowWrapPolicy(QFormLayout.RowWrapPolicy.WrapLongRows)
        self.minutes = self._number("time at a sitting", " min", 10, 600, "sitting")
        self.bobbin = self._number("thread on a full bobbin", " yd", 5, 500, "bobbin")
        form.addRow("I have", self.minutes)
        form.addRow("A bobbin holds", self.bobbin)
        layout.addLayout(form)
        self.body = column(spacing=6)
        layout.addLayout(self.body)
        layout.addStretch(1)
        when_seen(self, self.refresh, known)

    def _number(self, words: str, suffix: str, low: int, high: int, name: str) -> QSpinBox:
        made = QSpinBox()
        made.setRange(low, high)
        made.setSuffix(suffix)
        made.setKeyboardTracking(False)
        made.setAccessibleName(words)
        made.setMaximumWidth(theme.px(130))
        made.valueChanged.connect(lambda value: self._take(name, value))
        return made

    @property
    def rates(self) -> Rates:
        return self.session.project.rates or Rates()

    def _take(self, name: str, value: int) -> None:
        if getattr(self.rates, name) != value:
            rates = replace(self.rates, **{name: value})
            self.session.edit(replace(self.session.project, rates=rates))

    def refresh(self) -> None:
        work, measure = self.work(), self.session.measure
        if work is None:
            return
        self.bobbin.setSuffix(f" {measure.system.long_unit.name}")
        for field, value in ((self.minutes, self.rates.sitting), (self.bobbin, self.rates.bobbin)):
            field.blockSignals(True)
            field.setValue(value)
            field.blockSignals(False)
        empty(self.body)
        if not work.batches:
            self.body.addWidget(label("There is nothing to sew yet.", "", True))
            return
        whole = minutes_text(work.minutes)
        self.body.addWidget(label(f"{whole} in all, {walks_text(work.batches)}", "heading"))
        self.body.addWidget(label(thread_text(work.thread, measure), "", True))
        lines = sitting_lines(work.sittings, self.rates, measure)
        longest = max(sitting.minutes for sitting in work.sittings)
        for sitting, (head, each) in zip(work.sittings, lines, strict=True):
            self.body.addWidget(label(head, "heading"))
            self.body.addWidget(SittingBar(sitting, longest))
            for line in each:
                self.body.addWidget(label(line, "", True))


@guarded
class SittingBar(QWidget):
    """One sitting: its batches side by side, to scale with the longest one."""

    def __init__(self, sitting: Sitting, minutes: float) -> None:
        super().__init__()
        self.sitting, self.minutes = sitting, minutes
        self.setFixedHeight(theme.px(26))
        places = ", ".join(f"{b.place} {minutes_text(b.minutes)}" for b in sitting.batches)
        self.setAccessibleName(places)
        self.setToolTip(places)

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        wide, high = self.width() - 2.0, self.height() - 2.0
        painter.setPen(QPen(theme.LINE, 1))
        painter.setBrush(theme.PANEL)
        painter.drawRect(QRectF(1, 1, wide, high))
        x = 1.0
        painter.setFont(theme.font(9))
        for batch in self.sitting.batches:
            share = wide * batch.minutes / self.minutes
            box = QRectF(x, 1, share, high)
            ground, hatch = _LOOKS[batch.place]
            painter.fillRect(box, ground)
            painter.setPen(QPen(theme.INK, 1))
            painter.setBrush(QBrush(theme.LINE, hatch) if hatch else Qt.BrushStyle.NoBrush)
            if batch.place == "machine":
                painter.setBrush(theme.INK_SOFT)
            painter.drawRect(box)
            name = painter.fontMetrics().horizontalAdvance(batch.place)
            if share > name + 8:
                painter.setPen(theme.PAPER if batch.place == "machine" else theme.INK)
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, batch.place)
            x += share
        painter.setPen(QPen(theme.INK, 1))
        painter.drawLine(QPointF(x, 1), QPointF(x, 1 + high))
        painter.end()
