"""A tool in the hand: what press, move and release mean while it is held."""

from __future__ import annotations

from itertools import pairwise
from typing import ClassVar

from PySide6.QtCore import QLineF, QPointF, Qt
from PySide6.QtGui import QColor, QPainter, QPen
from PySide6.QtWidgets import QMenu

from inlet.core.draft import add_seams, locked_snap, repeated, snap_lattice
from inlet.core.geometry import Curve, Point
from inlet.core.numbers import Exact
from inlet.core.project import seam_along
from inlet.ui import theme
from inlet.ui.draft.paper import Paper
from inlet.ui.shell.tape import Reading

DRAG = 8
"""Pixels the button is held over before a press counts as a drag."""


class Tool:
    """A tool in the hand. ``letter`` takes it up; ``icon`` and ``words`` name it."""

    key: ClassVar[str]
    letter: ClassVar[str]
    icon: ClassVar[str]
    words: ClassVar[str]
    cursor = Qt.CursorShape.CrossCursor

    def __init__(self, drawing: Paper) -> None:
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


class TwoEnds(Tool):
    """Press and drag, or click and click: from ``start`` to where the pointer is."""

    def __init__(self, drawing: Paper) -> None:
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
