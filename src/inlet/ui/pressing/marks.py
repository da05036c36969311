"""The mark of a junction, for a list."""

from __future__ import annotations

from PySide6.QtCore import QSize
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from inlet.core.figures import junction_mark
from inlet.core.pressing import State
from inlet.core.project import Project
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.painting import draw_figure


@guarded
class JunctionMark(QWidget):
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
        middle = self.width() / 2, self.height() / 2
        draw_figure(painter, junction_mark(middle, self.state, theme.px(6)), Project())
        painter.end()
