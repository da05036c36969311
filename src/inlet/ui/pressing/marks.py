"""Junctions marked by shape as well as colour."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize
from PySide6.QtGui import QPainter, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from inlet.core.pressing import State
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.drawing import draw_blades


def draw_mark(painter: QPainter, at: QPointF, state: State, radius: float) -> None:
    """A round disc nests, four blades are whirled, a hollow diamond is open, one half filled has
    one seam open, a square with a cross stacks, a small dot is a T."""
    painter.setPen(QPen(theme.PAPER, 1.4))
    if state == "tee":
        painter.setBrush(theme.INK_SOFT)
        painter.drawEllipse(at, radius * 0.4, radius * 0.4)
    elif state == "nests":
        painter.setBrush(theme.INK)
        painter.drawEllipse(at, radius, radius)
        painter.setPen(QPen(theme.PAPER, max(1.2, radius / 4)))
        step = QPointF(radius * 0.45, 0)
        drop = QPointF(0, radius * 0.2)
        painter.drawPolyline(QPolygonF([at - step + drop, at + drop, at - drop, at + step - drop]))
    elif state == "whirled":
        draw_blades(painter, at, radius * 1.15)
    elif state == "stacks":
        box = QRectF(at.x() - radius, at.y() - radius, 2 * radius, 2 * radius)
        painter.setBrush(theme.ACCENT)
        painter.drawRect(box)
        painter.setPen(QPen(theme.PAPER, max(1.4, radius / 3.5)))
        inset = radius * 0.45
        inner = box.adjusted(inset, inset, -inset, -inset)
        painter.drawLine(QLineF(inner.topLeft(), inner.bottomRight()))
        painter.drawLine(QLineF(inner.topRight(), inner.bottomLeft()))
    else:
        _diamond(painter, at, radius * 1.3, state == "mixed")


def _diamond(painter: QPainter, at: QPointF, radius: float, half: bool) -> None:
    left, right = at - QPointF(radius, 0), at + QPointF(radius, 0)
    top, bottom = at - QPointF(0, radius), at + QPointF(0, radius)
    painter.setPen(QPen(theme.INK, 1.8))
    painter.setBrush(theme.PAPER)
    painter.drawPolygon(QPolygonF([left, top, right, bottom]))
    if half:
        painter.setBrush(theme.ACCENT)
        painter.drawPolygon(QPolygonF([top, right, bottom]))


@guarded
class Mark(QWidget):
    """A junction's mark by itself, for a list."""

    def __init__(self, state: State) -> None:
        super().__init__()
        self.state = state
        self.setFixedSize(theme.px(22), theme.px(22))

    def sizeHint(self) -> QSize:
        return QSize(theme.px(22), theme.px(22))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle = QPointF(self.width() / 2, self.height() / 2)
        draw_mark(painter, middle, self.state, theme.px(6))
        painter.end()
