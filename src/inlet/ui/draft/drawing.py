"""The hand over the sheet: which tool it holds, what mouse and keys do."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from inlet.core.geometry import Point
from inlet.core.numbers import Exact
from inlet.core.words import place_text
from inlet.ui import theme
from inlet.ui.draft.bands import BandRulers
from inlet.ui.draft.paper import Paper
from inlet.ui.draft.tool import Tool
from inlet.ui.draft.tools import TOOLS
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading

LETTERS = {tool.letter: tool.key for tool in TOOLS}


@guarded
class Drawing(Paper):
    """The block itself. The left button does what the tool does; the right one, or Escape, lets
    go. Arrow keys move a cursor over the places the tool knows, Space does what the button would;
    full stop and comma go through the points drawn."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.rulers = BandRulers(self)
        self.tools: dict[str, Tool] = {made.key: made(self) for made in TOOLS}
        self.tool = self.tools["seam"]
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Drawing of the block")
        session.changed.connect(self._changed)

    def use(self, key: str) -> None:
        """Take up a tool."""
        self.tool.cancel()
        self.tool = self.tools[key]
        self.tool.cancel()
        self.resting = self.tool.cursor
        self.setCursor(self.resting)
        self.update()

    def _changed(self) -> None:
        """Another document: what tools, rulers and keys remember of the last one is let go."""
        width, height = self.session.block.grid
        cursor = self.key_cursor
        if cursor is not None and not (0 <= cursor.x <= width and 0 <= cursor.y <= height):
            self.key_cursor = None
        for tool in self.tools.values():
            tool.changed()
        self.rulers.changed()
        self.redraw()

    def divide_by(self, divide: int) -> None:
        """Divide the bands otherwise; cells that the unit tool remembers are of those before. A
        seam half drawn goes on."""
        super().divide_by(divide)
        self.tools["unit"].changed()

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
        return self.rulers.reading() or self.tool.reading() or self.patch_reading()

    def _locks(self, event: QMouseEvent) -> bool:
        """Is drawing kept to 45°? Shift turns the lock round."""
        held = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        return held != self.locked

    # --- keys ---------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps: dict[int, tuple[int, int]] = {
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
                self.session.pick_fabric(fabrics[int(text) - 1].id)
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
        ends = {*self.draft.arrangement.points, *(Point(*m) for m in block.marks)}
        points = sorted(ends, key=lambda p: (round(float(p.y), 6), round(float(p.x), 6)))
        now = points.index(self.key_cursor) + by if self.key_cursor in ends else 0
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

    # --- looks --------------------------------------------------------------------------------

    def paint_layers(self, painter: QPainter) -> None:
        super().paint_layers(painter)
        self.rulers.paint(painter)

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.paint_rest(painter)
        self.rulers.paint_hold(painter)
        self._draw_prompt(painter)
        self.tool.paint(painter)
        if self.key_cursor is not None:
            self.draw_spot(painter, self.key_cursor)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        painter.end()

    def _draw_prompt(self, painter: QPainter) -> None:
        """What the tool waits for, under the drawing."""
        painter.setPen(theme.INK_SOFT)
        painter.setFont(theme.font(10))
        bottom = self.frame.at(0, float(self.session.block.finished[1])).y()
        foot = QRectF(4, bottom + 4, self.width() - 8, self.height() - bottom - 6)
        flags = Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom
        painter.drawText(foot, flags | Qt.TextFlag.TextWordWrap, self.tool.prompt())


def _beside(places: Sequence[Exact], now: Exact, by: int) -> Exact:
    """The next of some ordered places, one way or the other; the same where none is, or by is 0."""
    later = [p for p in places if (p > now if by > 0 else p < now)] if by else []
    if not later:
        return now
    return later[0] if by > 0 else later[-1]
