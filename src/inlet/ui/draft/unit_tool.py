"""The tool that drops units into cells, and turns those that lie there."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen
from PySide6.QtWidgets import QMenu

from inlet.core.draft import Box, drop_repeated, fabrics_for, taken_from, turned_in_place
from inlet.core.geometry import Point, Turn
from inlet.core.numbers import Exact
from inlet.ui import theme
from inlet.ui.draft.paper import Paper
from inlet.ui.draft.tool import Tool
from inlet.ui.widgets.drawing import curve_path, stretched


class UnitTool(Tool):
    """Drop a unit into a cell, or a box of cells."""

    key, letter, icon, words = "unit", "U", "tool-unit", "Unit"

    def __init__(self, drawing: Paper) -> None:
        super().__init__(drawing)
        self.first: tuple[int, int] | None = None
        self.here: tuple[int, int] | None = None

    def cancel(self) -> None:
        self.first = None

    def leave(self) -> None:
        self.here = None

    def changed(self) -> None:
        """Cells are of the block as it was: look again where the pointer is now."""
        super().changed()
        pointer = self.drawing.pointer
        self.here = self._cell(pointer) if pointer is not None and self.here else None

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
        tray_unit = taken_from(self.drawing.draft, box) if box is not None else None
        if tray_unit is None:
            self.session.said.emit("A patch reaches out of that cell; take a whole unit.")
        else:
            self.drawing.tray_unit = tray_unit

    def menu(self, at: QPointF) -> QMenu:
        self.here = self._cell(at)
        menu = QMenu(self.drawing)
        menu.addAction("Turn what lies here (Shift+R)").triggered.connect(
            lambda: self.turn_here((1, False))
        )
        menu.addAction("Flip what lies here (Shift+F)").triggered.connect(
            lambda: self.turn_here((0, True))
        )
        menu.addAction("Take it as the unit to drop").triggered.connect(self.take_here)
        return menu

    def lattice(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        return self._middles(lines_too=False)

    def _cell(self, at: QPointF) -> tuple[int, int]:
        cell = []
        for lines, x in zip(super().lattice(), self.drawing.to_grid(at), strict=True):
            inner = [float(line) for line in lines[1:-1]]
            cell.append(sum(x > line for line in inner))
        return cell[0], cell[1]

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
        tray_unit, (x, y) = self.drawing.tray_unit, cell
        if tray_unit is None:
            return cell
        width, height = tray_unit.size
        if width == 2 * height and x + 1 < across:
            return x + 1, y
        if height == 2 * width and y + 1 < down:
            return x, y + 1
        return cell

    def press(self, at: QPointF, locked: bool) -> None:
        if self.drawing.tray_unit is None:
            self.session.said.emit("Choose a unit in the tray on the right first.")
            return
        self.first = self.here = self._cell(at)

    def move(self, at: QPointF, locked: bool, dragging: bool) -> None:
        self.here = self._cell(at)

    def release(self, at: QPointF, locked: bool) -> None:
        first, self.first = self.first, None
        tray_unit, session = self.drawing.tray_unit, self.session
        if first is None or tray_unit is None:
            return
        box = self._box(first, self._cell(at))
        middle = Point((box.low.x + box.high.x) / 2, (box.low.y + box.high.y) / 2)
        under = self.drawing.patch_at(self.drawing.to_screen(middle) + QPointF(0.3, 0.2))
        fabrics = fabrics_for(
            session.project, under.fabric if under else None, session.fabric or ""
        )
        try:
            block = drop_repeated(session.block, session.group, tray_unit, box, fabrics)
        except ValueError as why:
            session.said.emit(f"{why}.")
            return
        session.edit_block(block)

    def paint(self, painter: QPainter) -> None:
        tray_unit = self.drawing.tray_unit
        if self.here is None or tray_unit is None:
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
        kx = (q.x() - p.x()) / float(tray_unit.size[0])
        ky = (q.y() - p.y()) / float(tray_unit.size[1])
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for seam in tray_unit.seams:
            if seam.centre is None:
                ends = (stretched(end, kx, ky) for end in seam.ends)
                painter.drawLine(QLineF(*(QPointF(*end) for end in ends)))
            else:
                painter.drawPath(curve_path(seam, kx, ky))
        painter.restore()

    def prompt(self) -> str:
        if self.drawing.tray_unit is None:
            return "Choose a unit in the tray on the right."
        return "Click a cell, or drag over a box of cells. R turns, F flips; Shift+R in place."
