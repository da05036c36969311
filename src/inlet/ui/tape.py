"""The tape: the one place to read a size. A measuring tape to scale for whatever is pointed at:
finished length solid, allowances hatched, the exact size and the mark to cut at."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QBrush, QFont, QFontMetricsF, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact
from inlet.core.numbers.text import show, vulgar_text
from inlet.core.project.measure import Measure
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded


class Reading(NamedTuple):
    """What the tape shows: lengths along one side, in the project's system. ``exact`` is the size
    with all allowances, ``cut`` the ruler mark to cut at; either may be None."""

    what: str
    finished: Exact | None
    exact: Exact | None = None
    cut: Fraction | None = None


@guarded
class Tape(QWidget):
    """The strip along the bottom of the window."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("tape")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.reading: Reading | None = None
        self.measure = Measure()
        self.setAccessibleName("Tape")

    def sizeHint(self) -> QSize:
        return QSize(600, theme.px(84))

    def read(self, reading: Reading | None, measure: Measure) -> None:
        """Show a reading; None clears the tape."""
        if reading == self.reading and measure == self.measure:
            return
        self.reading, self.measure = reading, measure
        self.setAccessibleDescription(self.words())
        self.update()

    def words(self) -> str:
        """The reading in words, as for a screen reader."""
        if self.reading is None:
            return ""
        parts = [self.reading.what]
        for name, value in (
            ("finished", self.reading.finished),
            ("unfinished" if self.reading.cut is None else "exact", self.reading.exact),
            ("cut", self.reading.cut),
        ):
            if value is not None:
                parts.append(f"{name} {self._size(value)}")
        return ", ".join(parts)

    def _size(self, value: Exact) -> str:
        return vulgar_text(length_text(value, self.measure))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(theme.LINE, 1))
        painter.drawLine(QLineF(0, 0.5, self.width(), 0.5))
        left = theme.px(16)
        if self.reading is None:
            painter.setFont(theme.font(10))
            painter.setPen(theme.INK_SOFT)
            text = "Point at a patch, a seam or a piece: its size is measured here."
            painter.drawText(
                self.rect().adjusted(left, 0, -left, 0), Qt.AlignmentFlag.AlignVCenter, text
            )
            painter.end()
            return
        figures = self._draw_figures(painter, left)
        self._draw_tape(painter, figures + theme.px(24))
        painter.end()

    def _draw_figures(self, painter: QPainter, left: float) -> float:
        """The sizes in large figures; returns where they end."""
        reading = self.reading
        assert reading is not None
        small, large = theme.font(9), theme.font(20, QFont.Weight.DemiBold)
        x = left
        painter.setFont(theme.font(10.5, QFont.Weight.Medium))
        painter.setPen(theme.INK)
        metrics, most = QFontMetricsF(painter.font()), theme.px(190)
        what = metrics.elidedText(reading.what, Qt.TextElideMode.ElideRight, most)
        painter.drawText(QRectF(x, 0, most, self.height()), Qt.AlignmentFlag.AlignVCenter, what)
        x += min(most, metrics.horizontalAdvance(what)) + theme.px(18)
        raw = reading.exact if reading.cut is None else None
        sizes = (("cut", reading.cut), ("unfinished", raw), ("finished", reading.finished))
        first = True
        for name, value in sizes:
            if value is None:
                continue
            text = self._size(value)
            painter.setFont(small)
            painter.setPen(theme.INK_SOFT)
            painter.drawText(QPointF(x, self.height() * 0.27), name)
            font, first = (large if first else theme.font(14)), False
            painter.setFont(font)
            painter.setPen(theme.INK)
            painter.drawText(QPointF(x, self.height() * 0.70), text)
            x += QFontMetricsF(font).horizontalAdvance(text) + theme.px(18)
        return x

    def _draw_tape(self, painter: QPainter, left: float) -> None:
        """The tape itself, to scale, as long as the room allows."""
        reading = self.reading
        assert reading is not None
        longest = max(float(v) for v in reading[1:] if v is not None)
        right = self.width() - theme.px(20)
        room = right - left
        if room < 80 or longest <= 0:
            return
        shown = longest + 1.0
        scale = room / shown
        mark = float(self.measure.mark)
        top, height = self.height() * 0.34, self.height() * 0.30
        band = QRectF(left, top, room, height)
        painter.setPen(QPen(theme.INK, 1))
        painter.setBrush(theme.PAPER)
        painter.drawRect(band)
        finished = None if reading.finished is None else float(reading.finished)
        exact = float(reading.exact if reading.exact is not None else reading.finished or 0)
        if finished is not None:
            spare = max(0.0, (exact - finished) / 2)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.INK_SOFT)
            painter.drawRect(QRectF(left + spare * scale, top, finished * scale, height))
            painter.setBrush(QBrush(theme.INK, Qt.BrushStyle.BDiagPattern))
            for start in (0.0, spare + finished):
                painter.drawRect(QRectF(left + start * scale, top, spare * scale, height))
        elif reading.exact is not None:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.INK_SOFT)
            painter.drawRect(QRectF(left, top, exact * scale, height))
        painter.setFont(theme.font(8))
        every = mark * scale
        count = int(shown / mark) if every >= 3 else int(shown)
        unit = mark if every >= 3 else 1.0
        for i in range(count + 1):
            value = i * unit
            x = left + value * scale
            whole = abs(value - round(value)) < 1e-9
            half = abs(value * 2 - round(value * 2)) < 1e-9
            length = height * (0.9 if whole else 0.6 if half else 0.35)
            painter.setPen(QPen(theme.INK, 1))
            painter.drawLine(QLineF(x, top + height, x, top + height - length * 0.5))
            if whole and i and (scale > 26 or round(value) % 5 == 0):
                painter.setPen(theme.INK_SOFT)
                box = QRectF(x - 20, top + height + 1, 40, self.height() - top - height)
                painter.drawText(box, Qt.AlignmentFlag.AlignHCenter, str(round(value)))
        if reading.cut is not None:
            x = left + float(reading.cut) * scale
            painter.setPen(QPen(theme.ACCENT, 2.2))
            painter.drawLine(QLineF(x, top - height * 0.45, x, top + height))
            painter.setFont(theme.font(9, QFont.Weight.DemiBold))
            text = f"cut {show(reading.cut, system=self.measure.system, vulgar=True)}"
            metrics = QFontMetricsF(painter.font())
            where = min(x + 5, right - metrics.horizontalAdvance(text))
            if where < x:
                where = x - 5 - metrics.horizontalAdvance(text)
            painter.drawText(QPointF(where, top - 4), text)
