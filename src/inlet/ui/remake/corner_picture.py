"""A scrap tried on the corner of a square: the seam's ends and the scrap are dragged."""

from __future__ import annotations

from math import hypot
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPolygonF
from PySide6.QtWidgets import QWidget

from inlet.core.figures import corner_figure
from inlet.core.improvised import ends_of
from inlet.core.numbers import Exact, Fraction
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.improvising import Improvising
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.painting import draw_figure

NEAR = 14
"""Pixels from an end of the seam within which the hand takes it."""
ROUND = 0.3
"""Room round the square, as a part of its side, for what reaches past it."""
Handle = Literal["along", "down", "scrap"]
HANDLES: tuple[Handle, ...] = ("along", "down", "scrap")


@guarded
class CornerPicture(QWidget):
    """Drag an end of the seam along its edge, or the scrap along the seam; or go to the next of
    them with N and move it with the arrow keys."""

    pointed = Signal(object)

    def __init__(self, improvising: Improvising) -> None:
        super().__init__()
        self.improvising = improvising
        self.held: Handle | None = None
        self._grip: tuple[float, Exact] = (0.0, Fraction(0))  # where the scrap was taken, its slide
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(theme.px(220), theme.px(240))
        self.setAccessibleName("A scrap on a corner")
        improvising.changed.connect(self.update)

    def frame(self) -> ScreenFrame:
        wide, high = map(float, self.improvising.size)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (6, 6, -6, -6)))
        return ScreenFrame.fit(box, (-ROUND * wide, -ROUND * high, 1.1 * wide, 1.1 * high))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        shown, session = self.improvising, self.improvising.session
        figure = corner_figure(shown.trial, shown.fabrics, session.measure, self.frame().placed)
        draw_figure(painter, figure, session.project, grey=session.grey)
        painter.end()

    # --- by hand ------------------------------------------------------------------------------

    def spot_of(self, handle: Handle) -> QPointF:
        """Where a handle is on screen; the scrap's is its middle."""
        trial, frame = self.improvising.trial, self.frame()
        if handle == "scrap":
            xs, ys = zip(*(p.floats() for p in trial.lies), strict=True)
            return frame.at(sum(xs) / len(xs), sum(ys) / len(ys))
        _, level, upright = ends_of(trial.seam, trial.size)
        return frame.at(*(level if handle == "along" else upright).floats())

    def handle_at(self, at: QPointF) -> Handle | None:
        for handle in HANDLES[:2]:
            if (self.spot_of(handle) - at).manhattanLength() <= theme.px(NEAR):
                return handle
        trial, frame = self.improvising.trial, self.frame()
        for outline in (trial.lies, trial.flipped):
            polygon = QPolygonF([frame.at(*p.floats()) for p in outline])
            if polygon.containsPoint(at, Qt.FillRule.OddEvenFill):
                return "scrap"
        return None

    def _place_along(self, at: QPointF) -> float:
        """How far along the seam a place is, toward its upright end."""
        trial = self.improvising.trial
        _, level, upright = ends_of(trial.seam, trial.size)
        (x, y), (u, v) = level.floats(), upright.floats()
        long = hypot(u - x, v - y)
        px, py = self.frame().back(at)
        return ((px - x) * (u - x) + (py - y) * (v - y)) / long

    def _move(self, handle: Handle, to: Exact) -> None:
        shown, trial = self.improvising, self.improvising.trial
        if handle == "along":
            shown.take_seam(to, trial.seam.down)
        elif handle == "down":
            shown.take_seam(trial.seam.along, to)
        else:
            shown.take_scrap(trial.scrap.length, trial.scrap.width, to)
        self.pointed.emit(self.reading(handle))

    def _value(self, handle: Handle) -> Exact:
        trial = self.improvising.trial
        if handle == "scrap":
            return trial.slide
        return trial.seam.along if handle == "along" else trial.seam.down

    def reading(self, handle: Handle | None) -> Reading | None:
        """How far an end lies from the corner, for the tape."""
        if handle not in ("along", "down"):
            return None
        length = self._value(handle)
        edge = "the top edge" if handle == "along" else "the side"
        step = self.improvising.session.measure.mark
        mark = length if isinstance(length, Fraction) and length % step == 0 else None
        return Reading(f"The seam's end along {edge}, from the corner", None, length, mark)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self.held = self.handle_at(event.position())
        if self.held == "scrap":
            self._grip = self._place_along(event.position()), self.improvising.trial.slide

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        mark = self.improvising.session.measure.mark
        at = event.position()
        if event.buttons() & Qt.MouseButton.LeftButton and self.held is not None:
            if self.held == "scrap":
                off = self._place_along(at) - self._grip[0]
                self._move("scrap", self._grip[1] + round(off / float(mark)) * mark)
            else:
                reach = self.frame().back(at)[HANDLES.index(self.held)]
                self._move(self.held, round(reach / float(mark)) * mark)
            return
        under = self.handle_at(at)
        shapes = {"along": Qt.CursorShape.SizeHorCursor, "down": Qt.CursorShape.SizeVerCursor,
                  "scrap": Qt.CursorShape.OpenHandCursor}  # fmt: skip
        self.setCursor(shapes[under] if under else Qt.CursorShape.ArrowCursor)
        self.pointed.emit(self.reading(under))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1}
        if key != Qt.Key.Key_N and key not in steps:
            super().keyPressEvent(event)
            return
        if self.held is None:
            self.held = HANDLES[0]
        elif key == Qt.Key.Key_N:
            self.held = HANDLES[(HANDLES.index(self.held) + 1) % len(HANDLES)]
        if key in steps:
            mark = self.improvising.session.measure.mark
            self._move(self.held, self._value(self.held) + steps[key] * mark)
        self.pointed.emit(self.reading(self.held))
