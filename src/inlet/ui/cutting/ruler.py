"""The ruler near the mark to use, large: a half-inch mistake is made where marks look alike."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QLineF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.numbers import Fraction, show
from inlet.core.project import Measure
from inlet.ui import theme
from inlet.ui.guard import guarded

GLASS = QColor(255, 252, 235, 190)
ACCENT_ON_LIGHT = QColor(theme.LIGHT["accent"])
"""The glass is light in every look."""
AROUND = Fraction(3, 2)
"""Inches of ruler shown on either side of the mark."""


@guarded
class RulerFace(QWidget):
    """A stretch of the ruler, the line to use in the accent, the fabric under it up to there."""

    def __init__(self) -> None:
        super().__init__()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.mark: Fraction | None = None
        self.measure = Measure()
        self.fabric = theme.NO_FABRIC
        self.left_handed = False
        self.setAccessibleName("Ruler")

    def sizeHint(self) -> QSize:
        return QSize(220, theme.px(92))

    def show_mark(
        self, size: Fraction | None, measure: Measure, fabric: QColor, left_handed: bool
    ) -> None:
        self.mark, self.measure, self.fabric = size, measure, fabric
        self.left_handed = left_handed
        self.setVisible(size is not None)
        self.update()

    def paintEvent(self, event: object) -> None:
        if self.mark is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        per = self.measure.system.per_inch
        wide = 2 * AROUND * per
        low = max(Fraction(0), self.mark - AROUND * per)
        scale = self.width() / float(wide)

        def at(length: Fraction) -> float:
            x = float(length - low) * scale
            return self.width() - x if self.left_handed else x

        box = QRectF(0.5, 0.5, self.width() - 1, self.height() - 1)
        edge, zero = at(self.mark), at(low)
        painter.fillRect(QRectF(min(edge, zero), 0, abs(edge - zero), self.height()), self.fabric)
        painter.fillRect(box, GLASS)
        painter.setPen(QPen(theme.INK_SOFT, 1))
        painter.drawRect(box)
        self._marks(painter, low, low + wide, at)
        painter.setPen(QPen(ACCENT_ON_LIGHT, 3))
        painter.drawLine(QLineF(edge, 0, edge, self.height()))
        painter.setFont(theme.font(15, QFont.Weight.DemiBold))
        text = show(self.mark, system=self.measure.system, vulgar=True)
        room = QFontMetricsF(painter.font())
        where = QRectF(
            edge - room.horizontalAdvance(text) - 16,
            0,
            room.horizontalAdvance(text) + 10,
            room.height() + 4,
        )
        where.moveTop(self.height() - where.height() - 2)
        if where.left() < 2:
            where.moveLeft(edge + 6)
        painter.setPen(ACCENT_ON_LIGHT)
        painter.drawText(where, Qt.AlignmentFlag.AlignCenter, text)
        painter.end()

    def _marks(
        self, painter: QPainter, low: Fraction, high: Fraction, at: Callable[[Fraction], float]
    ) -> None:
        """The ruler's own marks, longer the rounder they are; whole ones numbered."""
        system = self.measure.system
        mark = min(self.measure.mark, system.ruler)
        painter.setFont(theme.font(10.5, QFont.Weight.Medium))
        tall = self.height()
        x = -(-low // mark) * mark
        while x <= high:
            whole = x.denominator == 1
            share = 0.62 if whole else 0.42 if (2 * x).denominator == 1 else 0.2
            if system.fractions and not whole and (4 * x).denominator == 1 and share == 0.2:
                share = 0.3
            painter.setPen(QPen(theme.INK_ON_LIGHT, 1.6 if whole else 0.8))
            painter.drawLine(QLineF(at(x), 0, at(x), tall * share))
            if whole and abs(at(x) - at(self.mark or x)) > 9:
                box = QRectF(at(x) - theme.px(24), tall * 0.6, theme.px(20), theme.px(18))
                painter.drawText(
                    box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop, str(x)
                )
            x += mark
