"""The whole top, to be looked at from near and from afar, and laid out by hand."""

from __future__ import annotations

from collections.abc import Mapping

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
    QResizeEvent,
    QTransform,
    QWheelEvent,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.setting import Spot
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.scene import Scene, TopLook
from inlet.ui.quilt.top_picture import PaintedView
from inlet.ui.widgets.painting import draw_tag, polygon_of

STEP = 1.25
"""How much nearer or farther one step goes."""
FARTHEST, NEAREST = 0.2, 60.0
"""Pixels of an inch or cm."""
AFAR = 0.32
"""The floor-distance view shows the top so small."""
DRAGGED = 6
"""Pixels a press moves before it is a drag."""
MARGIN = 18
SMALLEST_MARKED = 26
"""Pixels that the side of a block has at least where a mark shows how it lies."""
Line = tuple[tuple[float, float], ...]


@guarded
class TopView(QWidget):
    """Blocks are picked, turned, mirrored and changed over; the top is moved and looked at."""

    picked = Signal(object)  # the spots picked, the latest last
    turned = Signal(int)  # those picked, by so many quarters
    mirrored = Signal()
    reset = Signal()
    changed_over = Signal(object, object)  # two spots
    opened = Signal(object)  # the spot whose block is to be shown
    pointed = Signal(object)  # the spot under the pointer, or None

    def __init__(self) -> None:
        super().__init__()
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(theme.px(110))
        self.setAccessibleName("Quilt top")
        self.scene: Scene | None = None
        self.look = TopLook()
        self.marks = True
        self.afar = False
        self.lines: QPainterPath | None = None
        self.apart: tuple[Line, ...] = ()
        self.turned_to_nest: Mapping[tuple[str, int, int], int] = {}
        self.spots: list[Spot] = []
        self.odd: tuple[Spot, ...] = ()
        self._spot_of: dict[Spot, QPolygonF] = {}
        self._scale = 0.0  # 0: as large as fits
        self._corner = QPointF()
        self._pressed: tuple[QPointF, Spot | None, bool] | None = None
        self._dragged: QPointF | None = None
        self._picture = PaintedView(self)

    def sizeHint(self) -> QSize:
        return QSize(640, 480)

    def show_scene(self, scene: Scene | None) -> None:
        """Another top, or none; what is picked stays where it is still there."""
        if scene is self.scene:
            return
        self.scene = scene
        self._spot_of = scene.spots if scene is not None else {}
        self.spots = [spot for spot in self.spots if spot in self._spot_of]
        if self._pressed is not None and self._pressed[1] not in (None, *self._spot_of):
            self._pressed = self._dragged = None  # what was in the hand is gone
        self._picture.forget()
        self.update()

    def show_lines(self, lines: tuple[Line, ...]) -> None:
        """Quilting lines over the top."""
        self.lines = None
        if lines:
            self.lines = QPainterPath()
            for line in lines:
                self.lines.addPolygon(QPolygonF([QPointF(x, y) for x, y in line]))
        self.update()

    def show_apart(self, apart: tuple[Line, ...]) -> None:
        """Seams whose edges differ."""
        if apart != self.apart:
            self.apart = apart
            self.update()

    def set_look(self, look: TopLook) -> None:
        self.look = look
        self._picture.forget()
        self.update()

    # --- where things are ---------------------------------------------------------------------

    @property
    def frame_(self) -> QTransform:
        """Lengths of the top to pixels."""
        scene = self.scene
        if scene is None or not all(scene.size):
            return QTransform()
        wide, high = scene.size
        room = QRectF(self.rect()).adjusted(MARGIN, MARGIN, -MARGIN, -MARGIN)
        fits = max(1e-6, min(room.width() / wide, room.height() / high))
        if self.afar:
            fits *= AFAR
        if not self._scale or self.afar:
            left = room.left() + (room.width() - wide * fits) / 2
            top = room.top() + (room.height() - high * fits) / 2
            return QTransform(fits, 0, 0, fits, left, top)
        return QTransform(self._scale, 0, 0, self._scale, self._corner.x(), self._corner.y())

    def spot_under(self, at: QPointF) -> Spot | None:
        """The place under a pixel."""
        if self.scene is None:
            return None
        lengths, _ = self.frame_.inverted()
        point = lengths.map(at)
        for spot, outline in self._spot_of.items():
            if outline.containsPoint(point, Qt.FillRule.OddEvenFill):
                return spot
        return None

    def middle_of(self, spot: Spot) -> QPointF:
        """Where a place's middle is on screen."""
        return self.frame_.map(self._spot_of[spot]).boundingRect().center()

    def zoom(self, factor: float, about: QPointF | None = None) -> None:
        """Nearer or farther, what lies ``about`` staying where it is."""
        frame = self.frame_
        at = about if about is not None else QRectF(self.rect()).center()
        now = frame.m11()
        scale = max(FARTHEST, min(NEAREST, now * factor))
        point = frame.inverted()[0].map(at)
        self._scale = scale
        self._corner = at - point * scale
        self.update()

    def fit(self) -> None:
        """The whole top, as large as there is room."""
        self._scale = 0.0
        self.update()

    def go_to(self, spot: Spot) -> None:
        """A block large in the middle."""
        outline = self._spot_of.get(spot)
        if outline is None:
            return
        reach = outline.boundingRect()
        side = max(reach.width(), reach.height())
        self._scale = min(NEAREST, min(self.width(), self.height()) * 0.6 / side)
        self._corner = QRectF(self.rect()).center() - reach.center() * self._scale
        self.update()

    def set_afar(self, on: bool) -> None:
        """Small and out of focus, as the top looks from across the room."""
        self.afar = on
        self._picture.forget()
        self.update()

    # --- drawing ------------------------------------------------------------------------------

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        if self.scene is not None:
            look = self.look._replace(seams=False) if self.afar else self.look
            painter.drawImage(0, 0, self._picture.of(self.scene, self.frame_, look, self.afar))
            if not self.afar:
                self._over(painter)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 8, 8)
        painter.end()

    def _over(self, painter: QPainter) -> None:
        """Marks of how blocks lie, the odd one, what is picked, what is dragged."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        frame = self.frame_
        if self.lines is not None:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            path = frame.map(self.lines)
            for ink, wide in ((theme.PAPER, 2.6), (theme.ACCENT, 1.2)):
                painter.setPen(QPen(ink, wide))
                painter.drawPath(path)
        if self.marks and self.scene is not None:
            self._turn_marks(painter, frame, self.scene)
        self._apart(painter, frame)
        for spot in self.odd:
            if spot in self._spot_of:
                self._ring(painter, frame, spot, theme.ACCENT, 4.0)
        for spot in self.spots:
            if spot in self._spot_of:
                self._ring(painter, frame, spot, theme.INK, 3.0)
        if self._dragged is not None and self._pressed is not None and self._pressed[1]:
            self._drag(painter, frame, self._pressed[1], self._dragged)
        for number, spot in enumerate(self.odd, 1):
            if spot in self._spot_of:
                text = "odd one" if len(self.odd) == 1 else f"odd {number}"
                draw_tag(painter, self.middle_of(spot), text, 10, "strong")

    def _turn_marks(self, painter: QPainter, frame: QTransform, scene: Scene) -> None:
        """A small corner where each block's upper left lies; hollow where it is mirrored."""
        lengths, _ = frame.inverted()
        scale = frame.m11()
        small: dict[int, bool] = {}
        plain: list[QPolygonF] = []
        mirrored: list[QPolygonF] = []
        for drawn in scene.seen(lengths.mapRect(QRectF(self.rect()))):
            if drawn.alike not in small:
                small[drawn.alike] = scale * _longest(drawn.corners) < SMALLEST_MARKED
            if small[drawn.alike]:
                continue
            placed = drawn.lying.placed
            more = self.turned_to_nest.get((placed.block, placed.column, placed.row), 0)
            if placed.mirror:  # their corners go the other way round
                more = -more
            (x, y), after, across, before = drawn.corners[more:] + drawn.corners[:more]
            side = scale * _across((x, y), after)
            if side < SMALLEST_MARKED:
                continue
            size = min(0.16, 11 * theme.text_scale() / max(1.0, side))
            first = x + (across[0] - x) * 0.035, y + (across[1] - y) * 0.035
            ends = [
                (first[0] + (u - x) * size, first[1] + (v - y) * size) for u, v in (after, before)
            ]
            marks = mirrored if placed.mirror else plain
            marks.append(frame.map(polygon_of((first, *ends))))
        painter.setPen(QPen(theme.INK, 1.2))
        for marks, brush in ((plain, theme.PAPER), (mirrored, Qt.BrushStyle.NoBrush)):
            painter.setBrush(brush)
            for mark in marks:
                painter.drawPolygon(mark)

    def _apart(self, painter: QPainter, frame: QTransform) -> None:
        """A line along each seam whose edges differ, and a lozenge in its middle."""
        size = 5 * theme.text_scale()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for line in self.apart:
            begin, end = frame.map(QPointF(*line[0])), frame.map(QPointF(*line[1]))
            for ink, width in ((theme.PAPER, 5.0), (theme.ACCENT, 2.6)):
                painter.setPen(QPen(ink, width))
                painter.drawLine(begin, end)
            x, y = (begin.x() + end.x()) / 2, (begin.y() + end.y()) / 2
            half = min(size, (end - begin).manhattanLength() / 3)
            painter.setPen(QPen(theme.INK, 1.2))
            painter.setBrush(theme.ACCENT)
            corners = ((x - half, y), (x, y - half), (x + half, y), (x, y + half))
            painter.drawPolygon(QPolygonF([QPointF(*corner) for corner in corners]))

    def _ring(
        self, painter: QPainter, frame: QTransform, spot: Spot, ink: QColor, width: float
    ) -> None:
        outline = frame.map(self._spot_of[spot])
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for colour, wide in ((theme.PAPER, width + 2.4), (ink, width)):
            pen = QPen(colour, wide)
            pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
            painter.setPen(pen)
            painter.drawPolygon(outline)

    def _drag(self, painter: QPainter, frame: QTransform, spot: Spot, at: QPointF) -> None:
        """The block in the hand, and the place it would go to."""
        under = self.spot_under(at)
        if under is not None and under != spot:
            self._ring(painter, frame, under, theme.ACCENT, 3.0)
        outline = frame.map(self._spot_of[spot])
        outline.translate(at - outline.boundingRect().center())
        painter.setPen(QPen(theme.ACCENT, 2, Qt.PenStyle.DashLine))
        painter.setBrush(QColor(255, 255, 255, 90))
        painter.drawPolygon(outline)

    # --- mouse --------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        spot = self.spot_under(event.position())
        moves = event.button() in (Qt.MouseButton.RightButton, Qt.MouseButton.MiddleButton)
        self._pressed = event.position(), None if moves else spot, moves or spot is None
        if moves:
            return
        more = bool(
            event.modifiers()
            & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
        )
        if spot is None:
            self._pick([])
        elif not more:
            self._pick([spot])
        elif spot in self.spots:
            self._pick([s for s in self.spots if s != spot])
        else:
            self._pick([*self.spots, spot])

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._pressed is None:
            self.pointed.emit(self.spot_under(at))
            return
        begun, spot, moves = self._pressed
        if moves:
            frame = self.frame_
            self._scale = frame.m11()
            self._corner = QPointF(frame.dx(), frame.dy()) + at - begun
            self._pressed = at, spot, True
            self.update()
        elif spot is not None and (
            self._dragged is not None or (at - begun).manhattanLength() > DRAGGED
        ):
            self._dragged = at
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._pressed is not None and self._dragged is not None:
            spot, under = self._pressed[1], self.spot_under(event.position())
            if spot is not None and under is not None and under != spot:
                self._pick([under])
                self.changed_over.emit(spot, under)
        self._pressed = self._dragged = None
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        spot = self.spot_under(event.position())
        if spot is not None:
            self.go_to(spot)
        else:
            self.fit()

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom(STEP ** (event.angleDelta().y() / 120), event.position())

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    # --- keys ---------------------------------------------------------------------------------

    def _pick(self, spots: list[Spot]) -> None:
        self.spots = spots
        self.picked.emit(list(spots))
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, shift = event.key(), bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        ways = {
            Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1),
        }  # fmt: skip
        if key in ways:
            self._step(*ways[Qt.Key(key)])
        elif key == Qt.Key.Key_R and self.spots:
            self.turned.emit(-1 if shift else 1)
        elif key == Qt.Key.Key_M and self.spots:
            self.mirrored.emit()
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace) and self.spots:
            self.reset.emit()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.spots:
            self.opened.emit(self.spots[-1])
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self.zoom(STEP)
        elif key == Qt.Key.Key_Minus:
            self.zoom(1 / STEP)
        elif key == Qt.Key.Key_0:
            self.fit()
        else:
            super().keyPressEvent(event)

    def _step(self, dx: int, dy: int) -> None:
        """The nearest place that way becomes the one picked."""
        if not self._spot_of:
            return
        if not self.spots:
            self._pick([next(iter(self._spot_of))])
            return
        now = self._spot_of[self.spots[-1]].boundingRect().center()
        best: tuple[float, Spot] | None = None
        for spot, outline in self._spot_of.items():
            step = outline.boundingRect().center() - now
            along, aside = (step.x() * dx, step.y()) if dx else (step.y() * dy, step.x())
            if along > 1e-6 and abs(aside) <= 2 * along:
                far = along + 2 * abs(aside)
                if best is None or far < best[0]:
                    best = far, spot
        if best is not None:
            self._pick([best[1]])

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._picture.forget()


def _across(begin: tuple[float, float], end: tuple[float, float]) -> float:
    """How far it is from one corner of a block to the next, along and down."""
    return abs(end[0] - begin[0]) + abs(end[1] - begin[1])


def _longest(corners: tuple[tuple[float, float], ...]) -> float:
    """The longer side of a block."""
    return max(_across(corners[0], corners[1]), _across(corners[1], corners[2]))
