"""Pictures to choose from, drawn small."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtWidgets import QToolButton, QWidget

from inlet.core.figures import sheet_figure
from inlet.core.geometry import Picture
from inlet.core.project import Project
from inlet.ui import theme
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import empty

FIRST = 12
"""Thumbnails drawn at first."""
SIDE = 84
"""Pixels of a thumbnail, where not said otherwise."""


class Thumbnails(QWidget):
    """Pictures in lines, each a button with its words; a click hands its number to ``take``."""

    def __init__(self, name: str, take: Callable[[int], object], side: int = SIDE) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.setAccessibleName(name)
        self._take, self._side = take, side
        self.flow = FlowLayout(self, 0, theme.px(6))
        self.buttons: list[QToolButton] = []
        self._shown: tuple[object, ...] = ()

    def show_pictures(
        self, pictures: list[tuple[Picture, str]], project: Project, across: int, grey: bool
    ) -> None:
        """Pictures with what is said of each, repeated so often across and down."""
        shown = (pictures, project.fabrics, across, grey)
        if shown == self._shown:
            return
        self._shown = shown
        empty(self.flow)
        self.buttons = []
        for number, (picture, words) in enumerate(pictures):
            button = QToolButton()
            side = theme.px(self._side)
            button.setIcon(QIcon(thumbnail(picture, project, side, across, grey)))
            button.setIconSize(QSize(side, side))
            button.setToolTip(words)
            button.setAccessibleName(words)
            button.clicked.connect(partial(self._chosen, number))
            self.flow.addWidget(button)
            self.buttons.append(button)
        self.updateGeometry()

    def _chosen(self, number: int, _on: bool = False) -> None:
        self._take(number)


def thumbnail(picture: Picture, project: Project, side: int, across: int, grey: bool) -> QPixmap:
    """A picture drawn small, side by side so often across and down."""
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    draw_repeated(painter, QRectF(0, 0, side, side), picture, project, across, grey)
    painter.end()
    return pixmap


def draw_repeated(
    painter: QPainter, box: QRectF, picture: Picture, project: Project, across: int, grey: bool
) -> None:
    """A picture, side by side so often across and down, as its fabrics are seen from afar: without
    seams."""
    corners = [p for outline, _ in picture for p in outline]
    wide, high = (float(max(p[axis] for p in corners)) for axis in (0, 1))
    frame = ScreenFrame.fit(box.adjusted(1, 1, -1, -1), (0, 0, wide * across, high * across))
    for k in range(across * across):
        corner = frame.at(k % across * wide, k // across * high)
        figure = sheet_figure(picture, frame.moved(corner).placed, "ready", lettered=False)
        draw_figure(painter, figure, project, grey=grey)
