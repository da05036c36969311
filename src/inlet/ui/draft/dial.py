"""The dial of symmetries: the folds and turns by which whatever is drawn is repeated."""

from __future__ import annotations

from math import cos, radians, sin

from PySide6.QtCore import QLineF, QPoint, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPen, QPixmap, QPolygonF
from PySide6.QtWidgets import QToolButton, QWidget

from inlet.core.draft import SYMMETRIES, fits
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import ToolButton

# Where each knob sits: its angle from the top, clockwise.
_FOLDS = {"left-right": 0, "rising": 45, "up-down": 90, "falling": 315}
_KNOBS = _FOLDS | {"half": 225, "quarter": 135}
SIDE, KNOB, ICON = 104, 24, 15
LARGEST = 1.15
"""Text scale up to which the dial grows."""


def _px(length: float) -> int:
    """Pixels that grow with the text, but less than it: the dial has marks, not words."""
    return round(length * min(theme.text_scale(), LARGEST))


def _fold_icon(angle: float) -> QIcon:
    """A fold with a triangle on either side of it, as its knob shows it, off and on."""
    icon = QIcon()
    for state, ink in ((QIcon.State.Off, theme.INK), (QIcon.State.On, theme.PAPER)):
        for mode in (QIcon.Mode.Normal, QIcon.Mode.Disabled):
            side = 4 * _px(ICON)
            picture = QPixmap(side, side)
            picture.fill(Qt.GlobalColor.transparent)
            with QPainter(picture) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.translate(side / 2, side / 2)
                painter.rotate(angle)
                colour = theme.LINE if mode == QIcon.Mode.Disabled else ink
                painter.setPen(QPen(colour, side / 12))
                painter.drawLine(QLineF(0, -side * 0.46, 0, side * 0.46))
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(colour)
                for way in (1, -1):
                    corners = [(0.14, -0.24), (0.44, 0.24), (0.14, 0.24)]
                    painter.drawPolygon(
                        QPolygonF([QPointF(way * x * side, y * side) for x, y in corners])
                    )
            icon.addPixmap(picture, mode, state)
    return icon


@guarded
class Dial(QWidget):
    """A round of knobs: one at the end of each fold, and two for the turns."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setFixedSize(_px(SIDE), _px(SIDE))
        self.setStyleSheet(
            f"QToolButton#knob {{ border-radius: {_px(KNOB) // 2}px; font-size: {_px(13)}px }}"
        )
        self.setAccessibleName("Repeat by symmetry")
        self.knobs: dict[str, QToolButton] = {}
        for symmetry in SYMMETRIES:
            button = ToolButton(self)
            button.setCheckable(True)
            button.setObjectName("knob")
            button.setFixedSize(_px(KNOB), _px(KNOB))
            button.setToolTip(f"Repeat: {symmetry.words.lower()}")
            button.setAccessibleName(f"Repeat: {symmetry.words.lower()}")
            button.move(self._place(symmetry.key) - QPointF(1, 1).toPoint() * (_px(KNOB) // 2))
            button.toggled.connect(self._turned)
            self.knobs[symmetry.key] = button
        for key, angle in _FOLDS.items():
            self.knobs[key].setIcon(_fold_icon(angle))
            self.knobs[key].setIconSize(QSize(_px(ICON), _px(ICON)))
        self.knobs["half"].setText("½")
        self.knobs["quarter"].setText("¼")
        session.changed.connect(self._limit)
        session.repeats.connect(self._show)
        self._show()
        self._limit()

    def sizeHint(self) -> QSize:
        return QSize(_px(SIDE), _px(SIDE))

    def _place(self, key: str) -> QPoint:
        angle = _KNOBS[key]
        r = (_px(SIDE) - _px(KNOB)) / 2 - 1
        middle = _px(SIDE) / 2
        return QPointF(middle + r * sin(radians(angle)), middle - r * cos(radians(angle))).toPoint()

    def _turned(self) -> None:
        self.session.repeat_by(
            frozenset(k for k, button in self.knobs.items() if button.isChecked())
        )

    def _show(self) -> None:
        for key, button in self.knobs.items():
            button.blockSignals(True)
            button.setChecked(key in self.session.symmetries)
            button.blockSignals(False)
        self.update()

    def _limit(self) -> None:
        """An oblong block lies on itself in fewer ways."""
        for symmetry in SYMMETRIES:
            self.knobs[symmetry.key].setEnabled(fits(symmetry.turn, self.session.block))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle, r = _px(SIDE) / 2, (_px(SIDE) - _px(KNOB)) / 2
        painter.setPen(QPen(theme.LINE, 1.4))
        painter.setBrush(theme.PAPER)
        side = r * 0.62 * 2**0.5
        painter.drawRect(QRectF(middle - side / 2, middle - side / 2, side, side))
        for key, angle in _FOLDS.items():
            on = key in self.session.symmetries
            style = Qt.PenStyle.DashDotLine if on else Qt.PenStyle.DotLine
            painter.setPen(QPen(theme.ACCENT if on else theme.LINE, 1.8 if on else 1.2, style))
            x, y = r * sin(radians(angle)), -r * cos(radians(angle))
            painter.drawLine(QLineF(middle - 0.7 * x, middle - 0.7 * y, middle + x, middle + y))
        painter.setPen(theme.INK_SOFT)
        painter.setFont(theme.font(8.5 / max(1.0, theme.text_scale() / LARGEST)))
        foot = QRectF(0, _px(SIDE - 20), _px(SIDE), _px(18))
        painter.drawText(foot, Qt.AlignmentFlag.AlignCenter, "repeat")
        painter.end()
