"""Pictures to choose from, drawn small."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QIcon, QPainter, QPicture, QPixmap
from PySide6.QtWidgets import QWidget

from inlet.core.figures import Polyline, sheet_figure
from inlet.core.geometry import Picture
from inlet.core.project import Project
from inlet.core.remake import Segment
from inlet.ui import theme
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ToolButton
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
        self.buttons: list[ToolButton] = []
        self._shown: tuple[object, ...] = ()
        self._waiting: list[tuple[ToolButton, Callable[[], QPixmap]]] = []
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self._draw_next)

    def show_pictures(
        self, pictures: Sequence[SmallPicture], project: Project, across: int, grey: bool
    ) -> None:
        """Pictures, repeated so often across and down. Each is drawn in a turn of its own, so that
        many of them do not keep the hand waiting."""
        shown = (tuple(pictures), project.fabrics, across, grey)
        if shown == self._shown:
            return
        self._shown = shown
        empty(self.flow)
        self.buttons = []
        side = theme.px(self._side)
        for number, small in enumerate(pictures):
            button = ToolButton()
            button.setIconSize(QSize(side, side))
            button.setToolTip(small.words)
            button.setAccessibleName(small.words)
            button.clicked.connect(partial(self._chosen, number))
            self.flow.addWidget(button)
            self.buttons.append(button)
        blank = QPixmap(side, side)
        blank.fill(Qt.GlobalColor.transparent)
        for button in self.buttons:
            button.setIcon(QIcon(blank))
        self._waiting = [
            (button, partial(thumbnail, small, project, side, across, grey))
            for button, small in zip(self.buttons, pictures, strict=True)
        ]
        self._timer.start()
        self.updateGeometry()

    def _draw_next(self) -> None:
        """The next picture that is waited for."""
        if not self._waiting:
            self._timer.stop()
            return
        button, draw = self._waiting.pop(0)
        button.setIcon(QIcon(draw()))

    def _chosen(self, number: int, _on: bool = False) -> None:
        self._take(number)


def thumbnail(small: SmallPicture, project: Project, side: int, across: int, grey: bool) -> QPixmap:
    """A picture drawn small, side by side so often across and down."""
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    with QPainter(pixmap) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        draw_repeated(painter, QRectF(0, 0, side, side), small, project, across, grey)
    return pixmap


def draw_repeated(
    painter: QPainter, box: QRectF, small: SmallPicture, project: Project, across: int, grey: bool
) -> None:
    """A picture, side by side so often across and down, as its fabrics are seen from afar: without
    seams. It is drawn once, and the drawing laid beside itself."""
    corners = [p for outline, _ in small.picture for p in outline]
    wide, high = (float(max(p[axis] for p in corners)) for axis in (0, 1))
    frame = ScreenFrame.fit(box.adjusted(1, 1, -1, -1), (0, 0, wide * across, high * across))
    once = QPicture()
    with QPainter(once) as recorder:
        recorder.setRenderHint(QPainter.RenderHint.Antialiasing)
        figure = sheet_figure(small.picture, frame.placed, "ready", lettered=False)
        lines = tuple(Polyline(frame.placed.corners(each), "figure") for each in small.outline)
        draw_figure(recorder, (*figure, *lines), project, grey=grey)
    for k in range(across * across):
        across_by = k % across * wide * frame.scale
        painter.drawPicture(QPointF(across_by, k // across * high * frame.scale), once)
