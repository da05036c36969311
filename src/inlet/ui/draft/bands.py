"""The rulers along the top and left of the drawing: the bands, to drag, put in and take out."""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QMenu

from inlet.core.draft import (
    Regridded,
    TypedBands,
    bands_of,
    grid_lines,
    insert_band,
    move_line,
    remove_band,
    set_typed,
)
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction, nearest_mark, show
from inlet.ui import theme
from inlet.ui.draft.paper import Paper
from inlet.ui.shell.tape import Reading

NAMES = (("column", "left", "right"), ("row", "above", "below"))


class Grip(NamedTuple):
    """A grid line held: the line after band ``band``, and where it is now, finished."""

    axis: int
    band: int
    at: Exact


class BandRulers:
    """Part of the drawing: it is asked first about presses outside the block."""

    HEIGHT = 20

    def __init__(self, drawing: Paper) -> None:
        self.drawing = drawing
        self.session = drawing.session
        self.grip: Grip | None = None
        self.over: tuple[int, int] | None = None  # (axis, index) of the line under the pointer

    # --- where things are ---------------------------------------------------------------------

    def _boxes(self) -> tuple[QRectF, QRectF]:
        w, h = (float(x) for x in self.session.block.finished)
        frame = self.drawing.frame
        thick, gap = (round(x * min(theme.text_scale(), 1.4)) for x in (self.HEIGHT, 5))
        p, q = frame.at(0, 0), frame.at(w, h)
        return (
            QRectF(p.x(), p.y() - thick - gap, q.x() - p.x(), thick),
            QRectF(p.x() - thick - gap, p.y(), thick, q.y() - p.y()),
        )

    def _axis_at(self, at: QPointF) -> int | None:
        for axis, box in enumerate(self._boxes()):
            if box.contains(at):
                return axis
        return None

    def _lines(self, axis: int) -> tuple[Exact, ...]:
        """The grid lines of an axis at finished size."""
        block = self.session.block
        unit = block.scale[axis]
        return tuple(x * unit for x in grid_lines(bands_of(block, axis)))

    def _along(self, at: QPointF, axis: int) -> float:
        return self.drawing.frame.back(at)[axis]

    def _line_near(self, at: QPointF) -> tuple[int, int] | None:
        """The inner line under a place on a ruler, as (axis, band before it)."""
        axis = self._axis_at(at)
        if axis is None:
            return None
        reach = theme.px(7) / self.drawing.frame.scale
        x = self._along(at, axis)
        lines = self._lines(axis)[1:-1]
        near = [i for i, line in enumerate(lines) if abs(float(line) - x) <= reach]
        return (axis, near[0]) if near else None

    def _band_at(self, at: QPointF, axis: int) -> int:
        x = self._along(at, axis)
        return sum(x > float(line) for line in self._lines(axis)[1:-1])

    # --- the hand -----------------------------------------------------------------------------

    def press(self, event: QMouseEvent) -> bool:
        at = event.position()
        axis = self._axis_at(at)
        if axis is None:
            return False
        if event.button() == Qt.MouseButton.RightButton:
            self.menu(axis, self._band_at(at, axis)).exec(event.globalPosition().toPoint())
            return True
        line = self._line_near(at)
        if line is not None:
            self.grip = Grip(*line, self._lines(axis)[line[1] + 1])
        return True

    def move(self, event: QMouseEvent) -> bool:
        self.over = self._line_near(event.position())
        if self.grip is None:
            if self.over is not None:
                shape = (Qt.CursorShape.SplitHCursor, Qt.CursorShape.SplitVCursor)[self.over[0]]
                self.drawing.setCursor(shape)
            else:
                self.drawing.setCursor(self.drawing.resting)
            return self._axis_at(event.position()) is not None
        axis, index, _ = self.grip
        lines = self._lines(axis)
        mark = self.session.measure.mark
        wanted = nearest_mark(_exact(self._along(event.position(), axis)), mark)
        low, high = lines[index], lines[index + 2]
        if low < wanted < high:
            self.grip = Grip(axis, index, wanted)
        return True

    def changed(self) -> None:
        """The bands are others: what is held or pointed at is of those before."""
        self.grip = self.over = None

    def release(self, event: QMouseEvent) -> bool:
        grip, self.grip = self.grip, None
        if grip is None:
            return False
        axis, index, at = grip
        lines = self._lines(axis)
        if at != lines[index + 1]:
            self.session.take_bands(move_line(self.session.block, axis, index, at))
        return True

    def menu(self, axis: int, band: int) -> QMenu:
        """What can be done to a band."""
        name, before, after = NAMES[axis]
        menu = QMenu(self.drawing)
        width = bands_of(self.session.block, axis)[band]

        def put(index: int) -> Regridded:
            return insert_band(self.session.block, axis, index, width)

        for where, index in ((before, band), (after, band + 1)):
            action = menu.addAction(f"Put a {name} in {'on the ' if not axis else ''}{where}")
            action.triggered.connect(lambda _=False, i=index: self.session.take_bands(put(i)))
        entry = menu.addAction(f"Take this {name} out")
        entry.setEnabled(len(bands_of(self.session.block, axis)) > 1)
        entry.triggered.connect(
            lambda: self.session.take_bands(remove_band(self.session.block, axis, band))
        )
        equal = menu.addAction(f"Make the {name}s equal")
        equal.triggered.connect(lambda: self._equal(axis))
        return menu

    def _equal(self, axis: int) -> None:
        """As many bands, all alike."""
        count = len(bands_of(self.session.block, axis))
        bands = TypedBands((Fraction(1),) * count)
        self.session.take_bands(set_typed(self.session.block, axis, bands))

    # --- looks --------------------------------------------------------------------------------

    def reading(self) -> Reading | None:
        if self.grip is None:
            return None
        axis, index, at = self.grip
        name = NAMES[axis][0]
        before = at - self._lines(axis)[index]
        return Reading(f"{name.capitalize()} {index + 1}", before)

    def paint(self, painter: QPainter) -> None:
        """The rulers at rest."""
        painter.setFont(theme.font(8.5 / max(1.0, theme.text_scale() / 1.4)))
        for axis, box in enumerate(self._boxes()):
            self._paint_ruler(painter, axis, box, list(self._lines(axis)))

    def paint_hold(self, painter: QPainter) -> None:
        """The line under the hand, or in it."""
        grip = self.grip
        if grip is None:
            if self.over is not None:
                axis, index = self.over
                self._paint_line(painter, axis, self._lines(axis)[index + 1])
            return
        painter.setFont(theme.font(8.5 / max(1.0, theme.text_scale() / 1.4)))
        lines = list(self._lines(grip.axis))
        lines[grip.band + 1] = grip.at
        self._paint_ruler(painter, grip.axis, self._boxes()[grip.axis], lines)
        self._paint_line(painter, grip.axis, grip.at)
        self._paint_grip(painter, grip)

    def _paint_line(self, painter: QPainter, axis: int, at: Exact) -> None:
        box, scale = self._boxes()[axis], self.drawing.frame.scale
        painter.setPen(QPen(theme.ACCENT, 3))
        if axis:
            y = box.top() + float(at) * scale
            painter.drawLine(QLineF(box.left(), y, box.right(), y))
        else:
            x = box.left() + float(at) * scale
            painter.drawLine(QLineF(x, box.top(), x, box.bottom()))

    def _paint_ruler(self, painter: QPainter, axis: int, box: QRectF, lines: list[Exact]) -> None:
        frame = self.drawing.frame
        system = self.session.measure.system
        start = box.top() if axis else box.left()
        for a, b in pairwise(lines):
            low, high = (start + float(x) * frame.scale for x in (a, b))
            room = QRectF(box.left(), low, box.width(), high - low)
            if not axis:
                room = QRectF(low, box.top(), high - low, box.height())
            painter.setPen(QPen(theme.LINE, 1))
            painter.setBrush(theme.PANEL)
            painter.drawRoundedRect(room.adjusted(0.5, 0.5, -0.5, -0.5), 4, 4)
            painter.setPen(theme.INK_SOFT)
            text = show(b - a, system=system, vulgar=True, ruler=True)
            if painter.fontMetrics().horizontalAdvance(text) + 2 <= high - low:
                if axis:
                    painter.save()
                    painter.translate(room.center())
                    painter.rotate(-90)
                    side = QRectF(
                        -room.height() / 2, -room.width() / 2, room.height(), room.width()
                    )
                    painter.drawText(side, Qt.AlignmentFlag.AlignCenter, text)
                    painter.restore()
                else:
                    painter.drawText(room, Qt.AlignmentFlag.AlignCenter, text)

    def _paint_grip(self, painter: QPainter, grip: Grip) -> None:
        block = self.session.block
        width, height = block.finished
        zero, frame = width - width, self.drawing.frame
        ends = (
            (Point(zero, grip.at), Point(width, grip.at))
            if grip.axis
            else (Point(grip.at, zero), Point(grip.at, height))
        )
        painter.setPen(QPen(theme.ACCENT, 2, Qt.PenStyle.DashLine))
        painter.drawLine(QLineF(*(frame.at(*p.floats()) for p in ends)))


def _exact(x: float) -> Exact:
    return Fraction(round(x * 10**6), 10**6)
