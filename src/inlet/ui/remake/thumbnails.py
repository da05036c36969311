"""Pictures to choose from, drawn small."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtWidgets import QToolButton, QWidget

from inlet.core.figures import Polyline, sheet_figure
from inlet.core.geometry import Picture
from inlet.core.project import Project
from inlet.core.remake import Segment
from inlet.ui import theme
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import empty

FIRST = 12
"""Thumbnails drawn at first."""
SIDE = 84
"""Pixels of a thumbnail, where not said otherwise."""


class SmallPicture(NamedTuple):
    """A picture, what is said of it, and the figure on it to be outlined."""

    picture: Picture
    words: str
    outline: tuple[Segment, ...] = ()


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
        self, pictures: Sequence[SmallPicture], project: Project, across: int, grey: bool
    ) -> None:
        """Pictures with what is said of each, repeated so often across and down."""
        shown = (tuple(pictures), project.fabrics, across, grey)
        if shown == self._shown:
            return
        self._shown = shown
        empty(self.flow)
        self.buttons = []
        for number, small in enumerate(pictures):
            button = QToolButton()
            side = theme.px(self._side)
            button.setIcon(QIcon(thumbnail(small, project, side, across, grey)))
            button.setIconSize(QSize(side, side))
            button.setToolTip(small.words)
            button.setAccessibleName(small.words)
            button.clicked.connect(partial(self._chosen, number))
            self.flow.addWidget(button)
            self.buttons.append(button)
        self.updateGeometry()

    def _chosen(self, number: int, _on: bool = False) -> None:
        self._take(number)


def thumbnail(small: SmallPicture, project: Project, side: int, across: int, grey: bool) -> QPixmap:
    """A picture drawn small, side by side so often across and down."""
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    draw_repeated(painter, QRectF(0, 0, side, side), small, project, across, grey)
    painter.end()
    return pixmap


def draw_repeated(
    painter: QPainter, box: QRectF, small: SmallPicture, project: Project, across: int, grey: bool
) -> None:
    """A picture, side by side so often across and down, as its fabrics are seen from afar: without
    seams."""
    picture = small.picture
    corners = [p for outline, _ in picture for p in outline]
    wide, high = (float(max(p[axis] for p in corners)) for axis in (0, 1))
    frame = ScreenFrame.fit(box.adjusted(1, 1, -1, -1), (0, 0, wide * across, high * across))
    for k in range(across * across):
        corner = frame.at(k % across * wide, k // across * high)
        figure = sheet_figure(picture, frame.moved(corner).placed, "ready", lettered=False)
        draw_figure(painter, figure, project, grey=grey)
    for k in range(across * across if small.outline else 0):
        placed = frame.moved(frame.at(k % across * wide, k // across * high)).placed
        lines = tuple(Polyline(placed.corners(each), "figure") for each in small.outline)
        draw_figure(painter, lines, project, grey=grey)
