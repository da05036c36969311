"""Junctions marked by shape as well as colour, and arrows that say which way a seam goes."""

from __future__ import annotations

from math import cos, hypot, pi, sin

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPainterPath, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from inlet.core.pressing.outcomes import State
from inlet.ui import theme
from inlet.ui.guard import guarded


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
        painter.setPen(QPen(theme.INK, max(1.4, radius / 4)))
        painter.setBrush(theme.PAPER)
        painter.drawEllipse(at, radius * 1.15, radius * 1.15)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.INK)
        painter.drawPath(_blades(at, radius * 1.1))
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


def _blades(at: QPointF, radius: float) -> QPainterPath:
    path = QPainterPath()
    for k in range(4):
        a, near = k * pi / 2, radius * 0.75
        tip = at + QPointF(cos(a) * radius, sin(a) * radius)
        shoulder = at + QPointF(cos(a + pi / 3) * near, sin(a + pi / 3) * near)
        path.moveTo(at)
        path.lineTo(tip)
        path.lineTo(shoulder)
        path.closeSubpath()
    return path


def draw_arrow(
    painter: QPainter, start: QPointF, toward: QPointF, size: float, strong: bool = False
) -> None:
    """An arrow from a seam over its allowance, ``size`` pixels long, toward a place."""
    dx, dy = toward.x() - start.x(), toward.y() - start.y()
    length = hypot(dx, dy) or 1.0
    ux, uy = dx / length * size, dy / length * size
    tip, neck = start + QPointF(ux, uy), start + QPointF(ux, uy) * 0.45
    side = QPointF(-uy, ux) * 0.34
    head = QPolygonF([tip, neck + side, neck - side])
    ink = theme.ACCENT if strong else theme.INK
    for colour, width in ((theme.PAPER, size / 4 + 2.4), (ink, size / 6 + 0.8)):
        painter.setPen(QPen(colour, width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
        painter.drawLine(QLineF(start, neck))
    painter.setPen(QPen(theme.PAPER, 1.4))
    painter.setBrush(ink)
    painter.drawPolygon(head)


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
