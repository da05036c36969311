"""The fabric on the mat, its cuts and the ruler; what is pointed at and picked."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.figures import MatFrame, OnMat, mat_figure
from inlet.core.layout import LaidPlace
from inlet.core.project import Project
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import box_of
from inlet.ui.widgets.painting import draw_figure


@guarded
class Mat(QWidget):
    """One piece of fabric."""

    pointed = Signal(object)
    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(theme.px(150))
        self.setAccessibleName("Fabric on the mat")
        self.shown: OnMat | None = None
        self.project = Project()
        self.grey = False
        self.chosen = ""

    def sizeHint(self) -> QSize:
        return QSize(520, 360)

    def show_laid(self, shown: OnMat | None, project: Project, grey: bool = False) -> None:
        self.shown, self.project, self.grey = shown, project, grey
        self.update()

    def _frame(self, shown: OnMat) -> MatFrame:
        edges = (theme.px(k) for k in (34, 34, -22, -34))
        room = QRectF(self.rect()).adjusted(*edges)
        return MatFrame.fit(shown, box_of(room), theme.text_scale())

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.shown is not None:
            figure = mat_figure(self._frame(self.shown), self.chosen)
            draw_figure(painter, figure, self.project, grey=self.grey)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 8, 8)
        painter.end()

    # --- mouse --------------------------------------------------------------------------------

    def _under(self, at: QPointF) -> LaidPlace | None:
        shown = self.shown
        if shown is None:
            return None
        frame = self._frame(shown)
        for place, _ in shown.places:
            left, top, right, bottom = frame.box(place.at)
            if left <= at.x() <= right and top <= at.y() <= bottom:
                return place
        return None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        place = self._under(event.position())
        if place is not None:
            self.picked.emit(place.label)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        place, shown = self._under(event.position()), self.shown
        if place is None or shown is None:
            self.pointed.emit(None)
            return
        wide, high = sorted((place.at.width, place.at.height))
        what = f"Stack {place.label}"
        if place.holds > 1:
            what += f", {place.holds} head to tail"
        if place.at.layers > 1:
            what += f", {place.at.layers} layers"
        if wide != high:
            what += f", {length_text(wide, shown.measure)} wide"
        self.pointed.emit(Reading(what, None, high))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def focusInEvent(self, event: object) -> None:
        self.update()

    def focusOutEvent(self, event: object) -> None:
        self.update()
