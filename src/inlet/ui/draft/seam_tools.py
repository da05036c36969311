"""Tools that draw: straight seams, curves, and distances carried with the compass."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, Qt
from PySide6.QtGui import QColor, QPainter, QPen

from inlet.core.draft import (
    arc_end_snap,
    has_square_unit,
    quarter_arc,
    seam_length,
    swing,
    with_marks,
    with_square_unit,
)
from inlet.core.geometry import Curve, Point, arc_fault, curve_length
from inlet.core.numbers import Fraction
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.draft.paper import Paper
from inlet.ui.draft.tool import Tool, TwoEnds
from inlet.ui.shell.tape import Reading


class SeamTool(TwoEnds):
    key, letter, icon, words = "seam", "S", "tool-seam", "Seam"

    def ended(self, start: Point, end: Point) -> None:
        self._add([Curve(start, end)])

    def paint(self, painter: QPainter) -> None:
        block = self.session.block
        bare = not block.seams and not block.fabric_at
        if bare and self.start is None and self.hover is None:
            self.drawing.draw_words(
                painter, "Drag from grid point to grid point to draw a seam, or drop in a unit."
            )
        if self.start is not None and self.hover is not None and self.start != self.hover:
            self._preview(painter, Curve(self.start, self.hover))
        super().paint(painter)

    def reading(self) -> Reading | None:
        if self.start is None or self.hover is None:
            return None
        length = seam_length(self.session.block, self.start, self.hover)
        return Reading("Seam being drawn", length)

    def prompt(self) -> str:
        if self.start is None:
            return "Drag a seam, or click both its ends."
        return "Click its other end. Shift keeps to 45°."


class CurveTool(TwoEnds):
    """A quarter circle from end to end, or any arc about a centre."""

    key, letter, icon, words = "curve", "A", "tool-curve", "Curve"

    def __init__(self, drawing: Paper) -> None:
        super().__init__(drawing)
        self.about_centre = False
        self.flipped = False
        self.centre: Point | None = None

    def cancel(self) -> None:
        super().cancel()
        self.centre = None

    def key_pressed(self, text: str, shifted: bool) -> bool:
        if text == "f":
            self.flipped = not self.flipped
        return text == "f"

    def choose(self, about_centre: bool) -> None:
        self.about_centre = about_centre
        self.cancel()

    def press(self, at: QPointF, locked: bool) -> None:
        session = self.session
        if self.start is None and not has_square_unit(session.block):
            session.edit_block(with_square_unit(session.block))
            if not has_square_unit(session.block):
                session.said.emit(
                    "This block has curves already that are not round at its size; give it a "
                    "size in proportion to its bands first."
                )
                return
        if self.about_centre and self.centre is None:
            self.centre = self.place(at, False)
        else:
            super().press(at, locked)

    def place(self, at: QPointF, locked: bool) -> Point:
        if self.centre is None or self.start is None or self.drawing.key_cursor is not None:
            return super().place(at, locked)
        x, y = self.drawing.to_grid(at)
        draft, divide = self.drawing.draft, self.drawing.divide
        return arc_end_snap(draft, self.centre, self.start, x, y, divide) or self.start

    def _curve(self, start: Point, end: Point) -> Curve | None:
        if self.about_centre:
            good = self.centre is not None and arc_fault(start, end, self.centre) is None
            return Curve(start, end, self.centre) if good else None
        return quarter_arc(start, end, not self.flipped)

    def ended(self, start: Point, end: Point) -> None:
        curve, centre = self._curve(start, end), self.centre
        self.centre = None
        if curve is None:
            why = arc_fault(start, end, centre) if centre is not None else "the centre is missing"
            self.session.said.emit(f"No arc there: {why}.")
        else:
            self._add([curve])

    def _being_drawn(self) -> Curve | None:
        if self.start is None or self.hover is None or self.start == self.hover:
            return None
        return self._curve(self.start, self.hover)

    def paint(self, painter: QPainter) -> None:
        curve = self._being_drawn()
        if self.centre is not None:
            spot = self.drawing.to_screen(self.centre)
            painter.setPen(QPen(theme.ACCENT, 1.6))
            painter.drawLine(QLineF(spot.x() - 7, spot.y(), spot.x() + 7, spot.y()))
            painter.drawLine(QLineF(spot.x(), spot.y() - 7, spot.x(), spot.y() + 7))
            arm = self.start or self.hover
            if arm is not None:
                r = QLineF(spot, self.drawing.to_screen(arm)).length()
                faint = QColor(theme.ACCENT)
                faint.setAlpha(110)
                painter.setPen(QPen(faint, 1.2, Qt.PenStyle.DotLine))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawEllipse(spot, r, r)
        if curve is not None:
            self._preview(painter, curve)
        super().paint(painter)

    def reading(self) -> Reading | None:
        block = self.session.block
        curve = self._being_drawn()
        if curve is not None:
            length = Fraction(round(curve_length(curve) * float(block.scale[0]) * 1000), 1000)
            radius = seam_length(block, curve.centre or curve.start, curve.start)
            what = f"Curve, radius {length_text(radius, self.session.measure)}"
            return Reading(what, length)
        if self.centre is not None and self.hover is not None and self.hover != self.centre:
            return Reading("Radius", seam_length(block, self.centre, self.hover))
        return None

    def prompt(self) -> str:
        if not self.about_centre:
            if self.start is None:
                return "Drag a quarter circle from end to end."
            return "Click its other end. F bows it the other way."
        if self.centre is None:
            return "Click the centre of the arc."
        return "Click where it begins." if self.start is None else "Click where it ends."


class SwingTool(Tool):
    """Carry a distance, as with a compass."""

    key, letter, icon, words = "swing", "W", "tool-swing", "Swing"

    def __init__(self, drawing: Paper) -> None:
        super().__init__(drawing)
        self.points: list[Point] = []
        self.block_id = self.session.block_id
        self.hover: Point | None = None

    def cancel(self) -> None:
        self.points = []

    def changed(self) -> None:
        """The distance stays in the compass after each mark, as long as the block does."""
        if len(self.points) < 2 or self.session.block_id != self.block_id:
            self.points = []
        self.block_id = self.session.block_id

    def leave(self) -> None:
        self.hover = None

    def _place(self, at: QPointF) -> Point:
        return self.drawing.key_cursor or self.drawing.snap(at)

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        self.hover = self._place(at)

    def press(self, at: QPointF, locked: bool) -> None:
        spot = self._place(at)
        if len(self.points) < 2:
            if not self.points or spot != self.points[0]:
                self.points.append(spot)
            return
        session = self.session
        points = swing(self.drawing.draft, self.points[0], self.points[1], spot)
        if not points:
            session.said.emit(
                "No edge or seam runs through that point as far as the distance carried."
            )
            return
        session.edit_block(with_marks(session.block, session.group, points))

    def paint(self, painter: QPainter) -> None:
        painter.setPen(QPen(theme.ACCENT, 2, Qt.PenStyle.DashLine))
        spots = [self.drawing.to_screen(p) for p in self.points]
        if len(spots) == 2:
            painter.drawLine(QLineF(*spots))
        elif spots and self.hover is not None:
            painter.drawLine(QLineF(spots[0], self.drawing.to_screen(self.hover)))
        if len(spots) == 2 and self.hover is not None:
            at = self.drawing.to_screen(self.hover)
            r = QLineF(*spots).length()
            faint = QColor(theme.ACCENT)
            faint.setAlpha(110)
            painter.setPen(QPen(faint, 1.2, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(at, r, r)
            painter.setPen(QPen(theme.ACCENT, 2))
            for p in swing(self.drawing.draft, self.points[0], self.points[1], self.hover):
                painter.drawEllipse(self.drawing.to_screen(p), 4, 4)
        for p in (*self.points, *([self.hover] if self.hover is not None else [])):
            self.drawing.draw_spot(painter, p)

    def reading(self) -> Reading | None:
        ends = self.points if len(self.points) == 2 else [*self.points, self.hover]
        if len(ends) < 2 or ends[1] is None:
            return None
        length = seam_length(self.session.block, *ends)
        return Reading("Distance in the compass", length)

    def prompt(self) -> str:
        if len(self.points) < 2:
            which = "first" if not self.points else "other"
            return f"Click the {which} end of the distance to carry."
        return "Click where to carry it from. Esc takes a new distance."
