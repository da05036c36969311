"""The block on its grid: places, layers, and which tool the hand holds."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QLineF, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFont,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPen,
    QPixmap,
    QResizeEvent,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.draft.patches import Draft, Patch
from inlet.core.draft.sizes import nearest_side, side_size
from inlet.core.draft.snapping import grid_lines, nearest_snap
from inlet.core.draft.symmetry import centre_of
from inlet.core.draft.tray import Stamp
from inlet.core.draft.value import lost_edges
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.point import Point
from inlet.core.problem import numbered
from inlet.core.project import Block
from inlet.core.words import cloth_name, place_text
from inlet.ui import theme
from inlet.ui.draft.bands import BandRulers
from inlet.ui.draft.tools import TOOLS, Tool
from inlet.ui.drawing import Frame, cloth_brush, curve_path, draw_tag, path_of
from inlet.ui.session import Session
from inlet.ui.tape import Reading

MARGIN = 30
LETTERS = {tool.letter: tool.key for tool in TOOLS}
FLASH = 1600
"""Milliseconds a place pointed out stays marked."""


class Drawing(QWidget):
    """The block itself. The left button does what the tool does; the right one, or Escape, lets
    go. Arrow keys move a cursor over the places the tool knows, Space does what the button would;
    full stop and comma go through the points drawn."""

    pointed = Signal(object)  # a Reading, or None
    asked = Signal(str)  # a tool, by its key

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.divide = 1
        self.locked = False  # keeps to 45°
        self.pointer: QPointF | None = None
        self.key_cursor: Point | None = None
        self.stamp: Stamp | None = None  # the unit to drop
        self.rulers = BandRulers(self)
        self.tools: dict[str, Tool] = {made.key: made(self) for made in TOOLS}
        self.tool = self.tools["seam"]
        self._base: QPixmap | None = None
        self._seen: tuple[Block, QSize, Frame, tuple[float, float]] | None = None
        self._flash: Sequence[Point] = ()
        self._unflash = QTimer(self)
        self._unflash.setSingleShot(True)
        self._unflash.timeout.connect(lambda: self.flash(()))
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(160, 160)
        self.setAccessibleName("Drawing of the block")
        session.changed.connect(self._changed)
        session.planned.connect(self._redraw)
        session.repeats.connect(self.update)

    # --- places -------------------------------------------------------------------------------

    def _view(self) -> tuple[Frame, tuple[float, float]]:
        """The frame, and the finished length of a grid unit, worked out once for each block and
        size of the window."""
        block = self.session.block
        if self._seen is None or self._seen[0] is not block or self._seen[1] != self.size():
            w, h = (float(x) for x in block.finished)
            m = margin()
            frame = Frame.fit(QRectF(self.rect()).adjusted(m, m, -m, -m), (0, 0, w, h))
            sx, sy = block.scale
            self._seen = (block, self.size(), frame, (float(sx), float(sy)))
        return self._seen[2], self._seen[3]

    @property
    def frame(self) -> Frame:
        """Finished lengths to pixels."""
        return self._view()[0]

    @property
    def draft(self) -> Draft:
        return self.session.draft

    @property
    def unit(self) -> tuple[float, float]:
        """Finished length of a grid unit, across and down."""
        return self._view()[1]

    def to_screen(self, p: Point) -> QPointF:
        """Grid units to pixels."""
        sx, sy = self.unit
        x, y = p.floats()
        return self.frame.at(x * sx, y * sy)

    def to_grid(self, at: QPointF) -> tuple[float, float]:
        x, y = self.frame.back(at)
        sx, sy = self.unit
        return x / sx, y / sy

    def snap(self, at: QPointF) -> Point:
        """The snap point nearest to a place on screen."""
        return nearest_snap(self.draft, *self.to_grid(at), self.divide)

    def patch_at(self, at: QPointF) -> Patch | None:
        """The patch under a place on screen (by eye: floats are enough)."""
        x, y = self.frame.back(at)
        sx, sy = self.unit
        boxes = self.draft.arrangement.boxes
        gx, gy = x / sx, y / sy
        for patch, (left, top, right, bottom) in zip(self.draft.patches, boxes, strict=True):
            if left <= gx <= right and top <= gy <= bottom:
                shapes = (patch.shape, *patch.holes)
                if sum(path_of(s).contains(QPointF(x, y)) for s in shapes) == 1:
                    return patch
        return None

    # --- what is shown ------------------------------------------------------------------------

    def use(self, key: str) -> None:
        """Take up a tool."""
        self.tool.cancel()
        self.tool = self.tools[key]
        self.tool.cancel()
        self.setCursor(self.tool.cursor)
        self.update()

    def divide_by(self, divide: int) -> None:
        self.divide = divide
        self.key_cursor = None
        self._redraw()

    def flash(self, places: Sequence[Point]) -> None:
        """Point out some places (grid units) for a moment."""
        self._flash = places
        if places:
            self._unflash.start(FLASH)
        self.update()

    def _changed(self) -> None:
        self.tool.changed()
        self._redraw()

    def _redraw(self) -> None:
        self._base = None
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._base = None

    # --- mouse --------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self.key_cursor = None
        self.pointer = event.position()
        if self.rulers.press(event):
            return
        if event.button() != Qt.MouseButton.LeftButton:
            self.tool.cancel()
            menu = self.tool.menu(event.position())
            if menu is not None:
                menu.popup(event.globalPosition().toPoint())
        else:
            self.tool.press(event.position(), self._locks(event))
        self._after()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if not self.rulers.release(event) and event.button() == Qt.MouseButton.LeftButton:
            self.tool.release(event.position(), self._locks(event))
        self._after()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.pointer = event.position()
        self.key_cursor = None
        if not self.rulers.move(event):
            dragging = bool(event.buttons() & Qt.MouseButton.LeftButton)
            self.tool.move(self.pointer, self._locks(event), dragging)
        self._after()

    def leaveEvent(self, event: QEvent) -> None:
        self.pointer = None
        self.tool.leave()
        self.pointed.emit(None)
        self.update()

    def _after(self) -> None:
        """Tell the tape and the hand where things stand."""
        self.pointed.emit(self.reading())
        self.update()

    def reading(self) -> Reading | None:
        """What the tape should show: what is being done, else what is under the pointer."""
        return self.rulers.reading() or self.tool.reading() or self._patch_reading()

    def _patch_reading(self) -> Reading | None:
        """The side of the patch under the pointer, with its allowances."""
        session = self.session
        patch = self.patch_at(self.pointer) if self.pointer else None
        if patch is None or patch.holes or patch.arcs:
            return None
        assert self.pointer is not None
        side = nearest_side(patch.outline, *self.frame.back(self.pointer))
        size = side_size(patch.outline, side, session.measure)
        what = f"{cloth_name(session.project, patch.fabric)}, this side"
        return Reading(what, *size)

    def _locks(self, event: QMouseEvent) -> bool:
        """Is drawing kept to 45°? Shift turns the lock round."""
        held = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        return held != self.locked

    # --- keys ---------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {
            Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1),
        }  # fmt: skip
        key, text = event.key(), event.text().lower()
        shifted = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        if key in steps:
            self._step(*steps[key])
        elif text and text in ".,":
            self._next_drawn(1 if text == "." else -1)
        elif key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._act_at_cursor()
        elif key == Qt.Key.Key_Escape:
            self.tool.cancel()
            self.key_cursor = None
            self._after()
        elif self.tool.key_pressed(text, shifted):
            self._after()
        elif text.upper() in LETTERS:
            self.asked.emit(LETTERS[text.upper()])
        elif text == "l":
            self.asked.emit("lock")
        elif text in "123456789" and text:
            fabrics = self.session.project.fabrics
            if int(text) <= len(fabrics):
                self.session.pick_cloth(fabrics[int(text) - 1].id)
                self.asked.emit("paint")
        else:
            super().keyPressEvent(event)

    def _step(self, dx: int, dy: int) -> None:
        """Move the key cursor to the next column or row of the tool's places; the first step only
        makes it appear."""
        xs, ys = self.tool.lattice()
        if self.key_cursor is None:
            self._put_cursor(Point(xs[0], ys[0]))
            return
        x, y = self.key_cursor
        self._put_cursor(Point(_beside(xs, x, dx), _beside(ys, y, dy)))

    def _next_drawn(self, by: int) -> None:
        """Go on to the next point drawn or marked, in reading order."""
        block = self.session.block
        found = {*self.draft.arrangement.points, *(Point(*m) for m in block.marks)}
        points = sorted(found, key=lambda p: (round(float(p.y), 6), round(float(p.x), 6)))
        now = points.index(self.key_cursor) + by if self.key_cursor in found else 0
        self._put_cursor(points[now % len(points)])

    def _put_cursor(self, p: Point) -> None:
        self.pointer = self.to_screen(p)
        self.key_cursor = p
        self.tool.move(self.pointer, False, False)
        self.setAccessibleDescription(place_text(p))
        self._after()

    def _act_at_cursor(self) -> None:
        if self.key_cursor is None:
            self._step(0, 0)
            return
        at = self.to_screen(self.key_cursor)
        self.tool.press(at, False)
        self.tool.release(at, False)
        self._after()

    # --- drawing ------------------------------------------------------------------------------

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._base is None:
            self._base = self._drawn_base()
        painter.drawPixmap(0, 0, self._base)
        self._draw_symmetry(painter)
        self.rulers.paint_hold(painter)
        self._draw_flash(painter)
        self._draw_prompt(painter)
        self.tool.paint(painter)
        if self.key_cursor is not None:
            self.draw_spot(painter, self.key_cursor)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        painter.end()

    def _drawn_base(self) -> QPixmap:
        """Everything but the tool at work: drawn once, until the document changes."""
        ratio = self.devicePixelRatioF()
        base = QPixmap(self.size() * ratio)
        base.setDevicePixelRatio(ratio)
        base.fill(Qt.GlobalColor.transparent)
        painter = QPainter(base)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._draw_patches(painter)
        self._draw_grid(painter)
        self._draw_seams(painter)
        self._draw_problems(painter)
        self.rulers.paint(painter)
        painter.end()
        return base

    def _draw_patches(self, painter: QPainter) -> None:
        session = self.session
        painter.save()
        painter.setTransform(self.frame.transform, True)
        painter.setPen(Qt.PenStyle.NoPen)
        brushes: dict[str | None, QBrush] = {None: QBrush(theme.PAPER)}
        sx, sy = self.unit
        drawn = self.draft
        corners = [QPointF(x * sx, y * sy) for x, y in drawn.arrangement.places]
        for patch in drawn.patches:
            if patch.fabric not in brushes:
                brushes[patch.fabric] = cloth_brush(session.project, patch.fabric, session.grey)
            painter.setBrush(brushes[patch.fabric])
            if patch.arcs:
                painter.drawPath(path_of(patch.shape))
            else:
                loop = drawn.arrangement.faces[patch.face].loop
                painter.drawPolygon([corners[v] for v in loop.corners])
        painter.restore()

    def _draw_grid(self, painter: QPainter) -> None:
        block = self.session.block
        width, height = block.grid
        finer = ((self.divide, theme.LINE),) if self.divide > 1 else ()
        for divide, colour in (*finer, (1, theme.INK_SOFT)):
            ink = QColor(colour)
            ink.setAlpha(150)
            painter.setPen(QPen(ink, 1, Qt.PenStyle.DotLine))
            zero = width - width
            for x in grid_lines(block.columns, divide)[1:-1]:
                painter.drawLine(
                    QLineF(self.to_screen(Point(x, zero)), self.to_screen(Point(x, height)))
                )
            for y in grid_lines(block.rows, divide)[1:-1]:
                painter.drawLine(
                    QLineF(self.to_screen(Point(zero, y)), self.to_screen(Point(width, y)))
                )

    def _draw_seams(self, painter: QPainter) -> None:
        pen = QPen(theme.INK, 1.8)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        self.draw_curves(painter, [seam.curve for seam in self.session.block.seams], pen)
        painter.setPen(QPen(theme.INK, 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        w, h = (float(x) for x in self.session.block.finished)
        painter.drawRect(QRectF(self.frame.at(0, 0), self.frame.at(w, h)))
        painter.setPen(QPen(theme.ACCENT, 1.6))
        for mark in self.session.block.marks:
            at, r = self.to_screen(Point(*mark)), theme.px(5)
            painter.drawLine(QLineF(at.x() - r, at.y() - r, at.x() + r, at.y() + r))
            painter.drawLine(QLineF(at.x() - r, at.y() + r, at.x() + r, at.y() - r))

    def draw_curves(self, painter: QPainter, curves: Sequence[Curve], pen: QPen) -> None:
        """Seams (grid units) with a pen of screen width."""
        painter.save()
        painter.setTransform(self.frame.transform, True)
        pen.setCosmetic(True)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        sx, sy = self.unit
        for curve in curves:
            painter.drawPath(curve_path(curve, sx, sy))
        painter.restore()

    def _draw_problems(self, painter: QPainter) -> None:
        """Rings at their places; numbered as in the ticket's list once the plan has come."""
        if not self.session.block.seams:
            return
        plan, marked = self.session.plan, False
        painter.setBrush(Qt.BrushStyle.NoBrush)
        found = numbered(plan.problems if plan else self.session.checks)
        for number, problem in enumerate(found, 1):
            lost = problem.code == "value-near"
            painter.setPen(QPen(theme.ACCENT, 2.5))
            if lost and not marked:
                marked = True
                self._draw_lost(painter)
            plain = lost or problem.code == "needs-curve"  # marked already, or plain to see
            for point in () if plain else problem.at[:40]:
                r = theme.px(4 if len(problem.at) > 4 else 8)
                painter.drawEllipse(self.to_screen(point), r, r)
            if problem.at and plan is not None:
                tag = self.to_screen(problem.at[0]) + QPointF(theme.px(14), -theme.px(14))
                draw_tag(painter, tag, f"! {number}", 9)
                painter.setBrush(Qt.BrushStyle.NoBrush)

    def _draw_lost(self, painter: QPainter) -> None:
        """Seams between cloths too near in value, dashed, so that the shapes they lose show."""
        arrangement = self.draft.arrangement
        lost = lost_edges(self.draft, self.session.project)
        curves = [arrangement.curve(arrangement.edges[found.edge]) for found in lost]
        self.draw_curves(painter, curves, QPen(theme.ACCENT, 3, Qt.PenStyle.DashLine))

    def _draw_symmetry(self, painter: QPainter) -> None:
        """The folds and the turns the drawing is repeated by, on the block."""
        on = self.session.symmetries
        if not on:
            return
        block = self.session.block
        width, height = block.grid
        zero, middle = width - width, centre_of(block)
        folds = {
            "left-right": (Point(middle.x, zero), Point(middle.x, height)),
            "up-down": (Point(zero, middle.y), Point(width, middle.y)),
            "falling": (Point(zero, zero), Point(width, height)),
            "rising": (Point(zero, height), Point(width, zero)),
        }
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.ACCENT, 1.6, Qt.PenStyle.DashDotLine))
        for key, ends in folds.items():
            if key in on:
                painter.drawLine(QLineF(*(self.to_screen(p) for p in ends)))
        turns = 4 if "quarter" in on else 2 if "half" in on else 0
        at, r = self.to_screen(middle), theme.px(13)
        painter.setPen(QPen(theme.ACCENT, 2))
        for k in range(turns):
            box = QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r)
            painter.drawArc(box, (k * 360 // turns + 20) * 16, (360 // turns - 40) * 16)
        if turns:
            draw_tag(painter, at, "½" if turns == 2 else "¼", 9)

    def _draw_flash(self, painter: QPainter) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for point in self._flash:
            for r, width in ((16, 4.0), (26, 2.0)):
                painter.setPen(QPen(theme.ACCENT, width))
                painter.drawEllipse(self.to_screen(point), theme.px(r), theme.px(r))

    def _draw_prompt(self, painter: QPainter) -> None:
        """What the tool waits for, under the drawing."""
        painter.setPen(theme.INK_SOFT)
        painter.setFont(theme.font(10))
        bottom = self.frame.at(0, float(self.session.block.finished[1])).y()
        foot = QRectF(4, bottom + 4, self.width() - 8, self.height() - bottom - 6)
        flags = Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom
        painter.drawText(foot, flags | Qt.TextFlag.TextWordWrap, self.tool.prompt())

    def draw_spot(self, painter: QPainter, p: Point) -> None:
        """Where the next click goes."""
        painter.setPen(QPen(theme.ACCENT, 2))
        painter.setBrush(theme.PAPER)
        painter.drawEllipse(self.to_screen(p), 5.5, 5.5)

    def draw_words(self, painter: QPainter, text: str) -> None:
        """A sentence in the middle of an empty block."""
        painter.setPen(theme.INK_SOFT)
        painter.setFont(theme.font(12, QFont.Weight.Normal))
        w, h = (float(x) for x in self.session.block.finished)
        box = QRectF(self.frame.at(0, 0), self.frame.at(w, h)).adjusted(24, 24, -24, -24)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, text)


def margin() -> int:
    """Room round the block for its rulers and the prompt; at large text the block needs it more."""
    return round(MARGIN * min(theme.text_scale(), 1.4))


def _beside(places: Sequence, now, by: int):
    """The next of some ordered places, one way or the other; the same where none is, or by is 0."""
    later = [p for p in places if (p > now if by > 0 else p < now)] if by else []
    if not later:
        return now
    return later[0] if by > 0 else later[-1]
