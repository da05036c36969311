"""Tools for what is drawn: laying fabric and erasing."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, Qt
from PySide6.QtGui import QPainter, QPen

from inlet.core.draft import erase_pieces, paint_all, repeated, repeated_points, seam_near
from inlet.core.geometry import Curve, Point, inside_point
from inlet.core.numbers import Exact
from inlet.core.project import replace
from inlet.ui import theme
from inlet.ui.draft.tool import Tool
from inlet.ui.widgets.drawing import path_of
from inlet.ui.widgets.painting import draw_tag


class PaintTool(Tool):
    key, letter, icon, words = "paint", "C", "paint-bucket", "Fabric"
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
        if session.fabric is None:
            session.said.emit("Add a fabric first, in the ticket on the right.")
            return
        inside = inside_point(session.draft.arrangement.outlines[patch.face])
        places = repeated_points(session.block, session.group, inside)
        now = [session.draft.patch_at(p) for p in places]
        if any(p is not None and p.fabric != session.fabric for p in now):
            spots = [(p.x, p.y) for p in places]
            session.edit_block(paint_all(session.block, spots, session.fabric))

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
        fabric = session.project.fabric(session.fabric or "")
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
        image = seam_near(self.drawing.draft, *self.drawing.to_grid(at))
        reach = theme.px(self.REACH) / self.drawing.frame.scale
        return image[0] if image and image[1] <= reach else None

    def press(self, at: QPointF, locked: bool) -> None:
        session = self.session
        block = session.block
        mark = self._mark_under(at)
        if mark is not None:
            gone = {(p.x, p.y) for p in repeated_points(block, session.group, mark)}
            kept = tuple(m for m in block.marks if m not in gone)
            session.edit_block(replace(block, marks=kept))
            return
        curve = self._under(at)
        if curve is not None:
            session.edit_block(erase_pieces(block, repeated(block, session.group, [curve])))

    def paint(self, painter: QPainter) -> None:
        pointer = self.drawing.pointer
        if pointer is None:
            return
        mark = self._mark_under(pointer)
        if mark is not None:
            draw_tag(painter, self.drawing.to_screen(mark), "×", 10, "strong")
            return
        curve = self._under(pointer)
        if curve is not None:
            images = repeated(self.session.block, self.session.group, [curve])
            pen = QPen(theme.ACCENT, 5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
            self.drawing.draw_curves(painter, images, pen)

    def prompt(self) -> str:
        return "Click a piece of seam, or a mark, to take it out."
