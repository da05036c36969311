"""The draft's tools: what press, move and release mean while each is held."""

from __future__ import annotations

from fractions import Fraction
from itertools import pairwise
from typing import ClassVar

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen
from PySide6.QtWidgets import QMenu

from inlet.core.draft.compass import quarter_arc, swing, with_marks
from inlet.core.draft.edit import add_seams, erase_pieces, paint_all
from inlet.core.draft.regrid import has_square_unit, with_square_unit
from inlet.core.draft.sizes import seam_length
from inlet.core.draft.snapping import arc_end_snap, locked_snap, seam_near, snap_lattice
from inlet.core.draft.symmetry import repeated, repeated_points
from inlet.core.draft.tray import Box, cloths_for, drop_repeated, taken_from, turned_in_place
from inlet.core.geometry.curve import Curve, arc_fault, curve_length
from inlet.core.geometry.outline import inside_point
from inlet.core.geometry.point import Point, Turn
from inlet.core.numbers import Exact
from inlet.core.project import replace, seam_along
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.draft.sheet import Sheet
from inlet.ui.drawing import curve_path, draw_tag, path_of, stretched
from inlet.ui.tape import Reading

DRAG = 8
"""Pixels the button is held over before a press counts as a drag."""


class Tool:
    """A tool in the hand. ``letter`` takes it up; ``icon`` and ``words`` name it."""

    key: ClassVar[str]
    letter: ClassVar[str]
    icon: ClassVar[str]
    words: ClassVar[str]
    cursor = Qt.CursorShape.CrossCursor

    def __init__(self, drawing: Sheet) -> None:
        self.drawing = drawing
        self.session = drawing.session

    def press(self, at: QPointF, locked: bool) -> None:
        pass

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        pass

    def release(self, at: QPointF, locked: bool) -> None:
        pass

    def cancel(self) -> None:
        """Let go of what is half done."""

    def leave(self) -> None:
        """The pointer has gone."""

    def changed(self) -> None:
        """The document is another one."""
        self.cancel()

    def key_pressed(self, text: str, shifted: bool) -> bool:
        """Was this letter, in lower case, for the tool?"""
        return False

    def menu(self, at: QPointF) -> QMenu | None:
        """What the right button offers at a place; None lets go of what is half done."""
        return None

    def paint(self, painter: QPainter) -> None:
        pass

    def reading(self) -> Reading | None:
        return None

    def prompt(self) -> str:
        """What the tool waits for, in a sentence."""
        return ""

    def lattice(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        """Columns and rows of places for the key cursor."""
        return snap_lattice(self.session.block, self.drawing.divide)

    def _middles(self, lines_too: bool) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        """The middles between the lines, and the lines too if asked."""
        out = []
        for lines in snap_lattice(self.session.block, self.drawing.divide):
            middles = [(a + b) / 2 for a, b in pairwise(lines)]
            out.append(tuple(sorted((*middles, *lines))) if lines_too else tuple(middles))
        return out[0], out[1]

    def _add(self, curves: list[Curve]) -> None:
        """Draw seams and all their images."""
        block = self.session.block
        drawn = repeated(block, self.session.group, curves)
        self.session.edit_block(add_seams(block, (seam_along(c) for c in drawn)))

    def _preview(self, painter: QPainter, curve: Curve) -> None:
        """A seam being drawn, its images thinner."""
        images = repeated(self.session.block, self.session.group, [curve])
        faint = QColor(theme.ACCENT)
        faint.setAlpha(130)
        self.drawing.draw_curves(painter, images, QPen(faint, 1.6, Qt.PenStyle.DashLine))
        self.drawing.draw_curves(painter, [curve], QPen(theme.ACCENT, 2.4))


class _TwoEnds(Tool):
    """Press and drag, or click and click: from ``start`` to where the pointer is."""

    def __init__(self, drawing: Sheet) -> None:
        super().__init__(drawing)
        self.start: Point | None = None
        self.hover: Point | None = None
        self.pressed_at: QPointF | None = None

    def press(self, at: QPointF, locked: bool) -> None:
        if self.start is None:
            self.start, self.pressed_at = self.place(at, False), at
        else:
            self._finish(self.place(at, locked))

    def release(self, at: QPointF, locked: bool) -> None:
        if self.start is None or self.pressed_at is None:
            return
        dragged = QLineF(self.pressed_at, at).length() > theme.px(DRAG)
        self.pressed_at = None
        if dragged:
            self._finish(self.place(at, locked))

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        self.hover = self.place(at, locked)

    def cancel(self) -> None:
        self.start = self.pressed_at = None

    def leave(self) -> None:
        self.hover = None

    def place(self, at: QPointF, locked: bool) -> Point:
        if locked and self.start is not None:
            x, y = self.drawing.to_grid(at)
            return locked_snap(self.drawing.draft, self.start, x, y, self.drawing.divide)
        if self.drawing.key_cursor is not None:
            return self.drawing.key_cursor
        return self.drawing.snap(at)

    def _finish(self, end: Point) -> None:
        start, self.start = self.start, None
        if start is not None and start != end:
            self.ended(start, end)

    def ended(self, start: Point, end: Point) -> None:
        raise NotImplementedError

    def paint(self, painter: QPainter) -> None:
        if self.start is not None:
            painter.setPen(QPen(theme.ACCENT, 2))
            painter.setBrush(theme.ACCENT)
            painter.drawEllipse(self.drawing.to_screen(self.start), 4, 4)
        if self.hover is not None:
            self.drawing.draw_spot(painter, self.hover)


class SeamTool(_TwoEnds):
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


class CurveTool(_TwoEnds):
    """A quarter circle from end to end, or any arc about a centre."""

    key, letter, icon, words = "curve", "A", "tool-curve", "Curve"

    def __init__(self, drawing: Sheet) -> None:
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

    def __init__(self, drawing: Sheet) -> None:
        super().__init__(drawing)
        self.points: list[Point] = []
        self.hover: Point | None = None

    def cancel(self) -> None:
        self.points = []

    def changed(self) -> None:
        """The distance stays in the compass after each mark."""
        if len(self.points) < 2:
            self.points = []

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
        found = swing(self.drawing.draft, *self.points, spot)
        if not found:
            session.said.emit(
                "No edge or seam runs through that point as far as the distance carried."
            )
            return
        session.edit_block(with_marks(session.block, session.group, found))

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
            for p in swing(self.drawing.draft, *self.points, self.hover):
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


class UnitTool(Tool):
    """Drop a unit into a cell, or a box of cells."""

    key, letter, icon, words = "unit", "U", "tool-unit", "Unit"

    def __init__(self, drawing: Sheet) -> None:
        super().__init__(drawing)
        self.first: tuple[int, int] | None = None
        self.here: tuple[int, int] | None = None

    def cancel(self) -> None:
        self.first = None

    def leave(self) -> None:
        self.here = None

    def key_pressed(self, text: str, shifted: bool) -> bool:
        if text not in ("r", "f"):
            return False
        if shifted:
            self.turn_here((1, False) if text == "r" else (0, True))
        else:
            self.drawing.asked.emit("turn-unit" if text == "r" else "flip-unit")
        return True

    def _here(self) -> Box | None:
        return None if self.here is None else self._box(self.here, self.here, natural=False)

    def turn_here(self, turn: Turn) -> None:
        """Turn or flip what lies in the cell under the pointer."""
        box, session = self._here(), self.session
        if box is not None:
            try:
                session.edit_block(turned_in_place(session.block, box, turn))
            except ValueError as why:
                session.said.emit(f"{why}.")

    def take_here(self) -> None:
        """What lies in the cell becomes the unit to drop."""
        box = self._here()
        stamp = taken_from(self.drawing.draft, box) if box is not None else None
        if stamp is None:
            self.session.said.emit("A patch reaches out of that cell; take a whole unit.")
        else:
            self.drawing.stamp = stamp

    def menu(self, at: QPointF) -> QMenu:
        self.here = self._cell(at)
        made = QMenu(self.drawing)
        made.addAction("Turn what lies here (Shift+R)").triggered.connect(
            lambda: self.turn_here((1, False))
        )
        made.addAction("Flip what lies here (Shift+F)").triggered.connect(
            lambda: self.turn_here((0, True))
        )
        made.addAction("Take it as the unit to drop").triggered.connect(self.take_here)
        return made

    def lattice(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        return self._middles(lines_too=False)

    def _cell(self, at: QPointF) -> tuple[int, int]:
        out = []
        for lines, x in zip(super().lattice(), self.drawing.to_grid(at), strict=True):
            inner = [float(line) for line in lines[1:-1]]
            out.append(sum(x > line for line in inner))
        return out[0], out[1]

    def _box(self, one: tuple[int, int], other: tuple[int, int], natural: bool = True) -> Box:
        """From cell to cell; one cell alone stands for as many as the unit is long, if asked."""
        xs, ys = super().lattice()
        (a, b), (c, d) = one, other
        if one == other and natural:
            c, d = self._natural(one, len(xs) - 1, len(ys) - 1)
        return Box(Point(xs[min(a, c)], ys[min(b, d)]), Point(xs[max(a, c) + 1], ys[max(b, d) + 1]))

    def _natural(self, cell: tuple[int, int], across: int, down: int) -> tuple[int, int]:
        """The last cell of a unit twice as long as high (or the other way) that begins in
        ``cell``, where it has room; else the cell itself."""
        stamp, (x, y) = self.drawing.stamp, cell
        if stamp is None:
            return cell
        width, height = stamp.size
        if width == 2 * height and x + 1 < across:
            return x + 1, y
        if height == 2 * width and y + 1 < down:
            return x, y + 1
        return cell

    def press(self, at: QPointF, locked: bool) -> None:
        if self.drawing.stamp is None:
            self.session.said.emit("Choose a unit in the tray on the right first.")
            return
        self.first = self.here = self._cell(at)

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        self.here = self._cell(at)

    def release(self, at: QPointF, locked: bool) -> None:
        first, self.first = self.first, None
        stamp, session = self.drawing.stamp, self.session
        if first is None or stamp is None:
            return
        box = self._box(first, self._cell(at))
        middle = Point((box.low.x + box.high.x) / 2, (box.low.y + box.high.y) / 2)
        under = self.drawing.patch_at(self.drawing.to_screen(middle) + QPointF(0.3, 0.2))
        cloths = cloths_for(session.project, under.fabric if under else None, session.cloth or "")
        try:
            made = drop_repeated(session.block, session.group, stamp, box, cloths)
        except ValueError as why:
            session.said.emit(f"{why}.")
            return
        session.edit_block(made)

    def paint(self, painter: QPainter) -> None:
        stamp = self.drawing.stamp
        if self.here is None or stamp is None:
            return
        low, high = self._box(self.first or self.here, self.here)
        p, q = self.drawing.to_screen(low), self.drawing.to_screen(high)
        painter.setPen(QPen(theme.ACCENT, 2))
        ground = QColor(theme.PAPER)
        ground.setAlpha(130)
        painter.setBrush(ground)
        painter.drawRect(QRectF(p, q))
        painter.save()
        painter.translate(p)
        kx = (q.x() - p.x()) / float(stamp.size[0])
        ky = (q.y() - p.y()) / float(stamp.size[1])
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for seam in stamp.seams:
            if seam.centre is None:
                ends = (stretched(end, kx, ky) for end in seam.ends)
                painter.drawLine(QLineF(*(QPointF(*end) for end in ends)))
            else:
                painter.drawPath(curve_path(seam, kx, ky))
        painter.restore()

    def prompt(self) -> str:
        if self.drawing.stamp is None:
            return "Choose a unit in the tray on the right."
        return "Click a cell, or drag over a box of cells. R turns, F flips; Shift+R in place."


class PaintTool(Tool):
    key, letter, icon, words = "paint", "C", "paint-bucket", "Cloth"
    cursor = Qt.CursorShape.PointingHandCursor

    def press(self, at: QPointF, locked: bool) -> None:
        self._paint(at)

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        if dragging:
            self._paint(at)

    def lattice(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        return self._middles(lines_too=False)

    def _paint(self, at: QPointF) -> None:
        session = self.session
        patch = self.drawing.patch_at(at)
        if patch is None:
            return
        if session.cloth is None:
            session.said.emit("Add a cloth first, in the ticket on the right.")
            return
        inside = inside_point(session.draft.arrangement.outlines[patch.face])
        places = repeated_points(session.block, session.group, inside)
        now = [session.draft.patch_at(p) for p in places]
        if any(p is not None and p.fabric != session.cloth for p in now):
            spots = [(p.x, p.y) for p in places]
            session.edit_block(paint_all(session.block, spots, session.cloth))

    def paint(self, painter: QPainter) -> None:
        pointer = self.drawing.pointer
        patch = self.drawing.patch_at(pointer) if pointer is not None else None
        if patch is not None:
            painter.save()
            painter.setTransform(self.drawing.frame.transform, True)
            pen = QPen(theme.ACCENT, 3)
            pen.setCosmetic(True)
            painter.setPen(pen)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPath(path_of(patch.shape))
            painter.restore()

    def prompt(self) -> str:
        session = self.session
        fabric = session.project.fabric(session.cloth or "")
        return f"Click or drag over patches to lay {fabric.title}." if fabric else ""


class EraseTool(Tool):
    key, letter, icon, words = "erase", "E", "eraser", "Erase"
    cursor = Qt.CursorShape.PointingHandCursor
    REACH = 14

    def lattice(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        return self._middles(lines_too=True)

    def _mark_under(self, at: QPointF) -> Point | None:
        marks = [Point(*m) for m in self.session.block.marks]
        near = [
            (QLineF(self.drawing.to_screen(m), at).length(), m)
            for m in marks
        ]  # fmt: skip
        far, mark = min(near, default=(float("inf"), None), key=lambda found: found[0])
        return mark if far <= theme.px(7) else None

    def _under(self, at: QPointF) -> Curve | None:
        found = seam_near(self.drawing.draft, *self.drawing.to_grid(at))
        reach = theme.px(self.REACH) / self.drawing.frame.scale
        return found[0] if found and found[1] <= reach else None

    def press(self, at: QPointF, locked: bool) -> None:
        session = self.session
        block = session.block
        mark = self._mark_under(at)
        if mark is not None:
            gone = {(p.x, p.y) for p in repeated_points(block, session.group, mark)}
            kept = tuple(m for m in block.marks if m not in gone)
            session.edit_block(replace(block, marks=kept))
            return
        found = self._under(at)
        if found is not None:
            session.edit_block(erase_pieces(block, repeated(block, session.group, [found])))

    def paint(self, painter: QPainter) -> None:
        pointer = self.drawing.pointer
        if pointer is None:
            return
        mark = self._mark_under(pointer)
        if mark is not None:
            draw_tag(painter, self.drawing.to_screen(mark), "×", 10, True)
            return
        found = self._under(pointer)
        if found is not None:
            images = repeated(self.session.block, self.session.group, [found])
            pen = QPen(theme.ACCENT, 5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
            self.drawing.draw_curves(painter, images, pen)

    def prompt(self) -> str:
        return "Click a piece of seam, or a mark, to take it out."


TOOLS: tuple[type[Tool], ...] = (SeamTool, CurveTool, SwingTool, UnitTool, PaintTool, EraseTool)
