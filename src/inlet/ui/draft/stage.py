"""The draft stage: the block on its grid, drawn with the mouse or the arrow keys."""

from __future__ import annotations

from itertools import pairwise

from PySide6.QtCore import QEvent, QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFont, QKeyEvent, QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QButtonGroup, QSizePolicy, QToolButton, QWidget

from inlet.core.draft.edit import add_seam, erase_piece, paint
from inlet.core.draft.patches import Patch
from inlet.core.draft.sizes import nearest_side, seam_length, side_size
from inlet.core.draft.snapping import DIVISIONS, grid_lines, nearest_snap, seam_near, snap_lattice
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import inner_point
from inlet.core.words import cloth_name, place_text
from inlet.ui import theme
from inlet.ui.drawing import Frame, colour_of, draw_tag
from inlet.ui.flow import FlowLayout
from inlet.ui.parts import column, label
from inlet.ui.session import Session
from inlet.ui.tape import Reading

TOOLS = (
    ("seam", "tool-seam", "Draw seams", "S"),
    ("erase", "eraser", "Erase seams", "E"),
    ("paint", "paint-bucket", "Lay cloth", "C"),
)
_KEYS = {key.lower(): name for name, _, _, key in TOOLS}


class DraftStage(QWidget):
    """The drawing with its tools above it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.drawing = Drawing(session)
        self.drawing.asked.connect(self.use)
        layout = column(self, 12, 8)
        bar = QWidget()
        flow = FlowLayout(bar, 0, theme.px(5))
        tools = QButtonGroup(self)
        buttons: list[QWidget] = []
        for name, icon, words, key in TOOLS:
            made = QToolButton()
            made.setIcon(theme.icon(icon))
            made.setIconSize(QSize(theme.px(20), theme.px(20)))
            made.setCheckable(True)
            made.setChecked(name == "seam")
            made.setText(words)
            made.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
            made.setToolTip(f"{words} ({key})")
            made.clicked.connect(lambda _=False, tool=name: self.use(tool))
            made.toggled.connect(lambda on, b=made, i=icon: _tint(b, i, on))
            tools.addButton(made)
            buttons.append(made)
            _tint(made, icon, name == "seam")
        self.tool_buttons = dict(zip((t[0] for t in TOOLS), tools.buttons(), strict=True))
        snap_words = label("   Snap to bands divided in", "small")
        snap_words.setMinimumHeight(theme.px(32))
        buttons.append(snap_words)
        snaps = QButtonGroup(self)
        self.snap_buttons = {}
        for divide in DIVISIONS:
            made = QToolButton()
            made.setText(str(divide))
            made.setCheckable(True)
            made.setChecked(divide == 1)
            made.setMinimumWidth(theme.px(30))
            made.setToolTip(f"Each band in {divide}" if divide > 1 else "The grid as it is")
            made.setAccessibleName(f"Snap: bands in {divide}")
            made.clicked.connect(lambda _=False, d=divide: self.drawing.divide_by(d))
            snaps.addButton(made)
            self.snap_buttons[divide] = made
            buttons.append(made)
        for made in buttons:
            flow.addWidget(made)
        layout.addWidget(bar)
        layout.addWidget(self.drawing, 1)

    def use(self, tool: str) -> None:
        self.drawing.use(tool)
        self.tool_buttons[tool].setChecked(True)


def _tint(made: QToolButton, icon: str, on: bool) -> None:
    made.setIcon(theme.icon(icon, theme.PAPER if on else theme.INK))


class Drawing(QWidget):
    """The block itself. Left button draws, erases or paints; Escape lets go; arrow keys move a
    cursor over the snap points and Space does what the button would."""

    pointed = Signal(object)  # a Reading, or None
    asked = Signal(str)  # a tool, by its key

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.tool = "seam"
        self.divide = 1
        self.start: Point | None = None
        self.hover: Point | None = None
        self.pointer: QPointF | None = None
        self.key_cursor: tuple[int, int] | None = None
        self.pressed_at: QPointF | None = None
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(160, 160)
        self.setAccessibleName("Drawing of the block")
        session.changed.connect(self._changed)

    # --- places -------------------------------------------------------------------------------

    @property
    def frame(self) -> Frame:
        """Finished lengths to pixels."""
        w, h = (float(x) for x in self.session.block.finished)
        room = QRectF(self.rect()).adjusted(
            theme.px(26), theme.px(22), -theme.px(26), -theme.px(22)
        )
        return Frame.fit(room, (0, 0, w, h))

    def to_screen(self, p: Point) -> QPointF:
        """Grid units to pixels."""
        sx, sy = (float(s) for s in self.session.block.scale)
        x, y = p.floats()
        return self.frame.at(x * sx, y * sy)

    def to_grid(self, at: QPointF) -> tuple[float, float]:
        x, y = self.frame.back(at)
        sx, sy = (float(s) for s in self.session.block.scale)
        return x / sx, y / sy

    def patch_at(self, at: QPointF) -> Patch | None:
        """The patch under a place on screen (by eye: floats are enough)."""
        x, y = self.frame.back(at)
        for patch in self.session.draft.patches:
            if _polygon_holds(patch, x, y):
                return patch
        return None

    # --- tools --------------------------------------------------------------------------------

    def use(self, tool: str) -> None:
        self.tool, self.start = tool, None
        self.setCursor(
            Qt.CursorShape.CrossCursor if tool == "seam" else Qt.CursorShape.PointingHandCursor
        )
        self.update()

    def divide_by(self, divide: int) -> None:
        self.divide = divide
        self.key_cursor = None
        self.update()

    def _changed(self) -> None:
        self.start = None
        self.update()

    def _draw_to(self, end: Point) -> None:
        """End the seam begun at ``start``."""
        assert self.start is not None
        start, self.start = self.start, None
        if start != end:
            self.session.edit_block(
                add_seam(self.session.block, (start.x, start.y), (end.x, end.y))
            )
        self.update()

    def _erase(self, at: QPointF) -> None:
        found = self._seam_under(at)
        if found:
            p, q = found
            self.session.edit_block(erase_piece(self.session.block, (p.x, p.y), (q.x, q.y)))

    def _seam_under(self, at: QPointF) -> tuple[Point, Point] | None:
        found = seam_near(self.session.draft, *self.to_grid(at))
        reach = theme.px(14) / self.frame.scale
        return found[:2] if found and found[2] <= reach else None

    def _paint(self, at: QPointF) -> None:
        session = self.session
        patch = self.patch_at(at)
        if patch is None:
            return
        if session.cloth is None:
            session.said.emit("Add a cloth first, in the ticket on the right.")
            return
        if patch.fabric != session.cloth:
            inside = inner_point(session.draft.arrangement.outline(patch.face))
            session.edit_block(paint(session.block, (inside.x, inside.y), session.cloth))

    # --- mouse --------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        if event.button() != Qt.MouseButton.LeftButton:
            self.start = None
            self.update()
            return
        at = event.position()
        self.key_cursor = None
        if self.tool == "seam":
            snap = nearest_snap(self.session.draft, *self.to_grid(at), self.divide)
            if self.start is None:
                self.start, self.pressed_at = snap, at
            else:
                self._draw_to(snap)  # the second click of click, click
        elif self.tool == "erase":
            self._erase(at)
        else:
            self._paint(at)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self.tool != "seam" or self.start is None or self.pressed_at is None:
            return
        at = event.position()
        dragged = QLineF(self.pressed_at, at).length() > theme.px(8)
        self.pressed_at = None
        if dragged:
            self._draw_to(nearest_snap(self.session.draft, *self.to_grid(at), self.divide))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.pointer = event.position()
        if self.tool == "seam":
            self.hover = nearest_snap(self.session.draft, *self.to_grid(self.pointer), self.divide)
        if self.tool == "paint" and event.buttons() & Qt.MouseButton.LeftButton:
            self._paint(self.pointer)
        self._read()
        self.update()

    def leaveEvent(self, event: QEvent) -> None:
        self.pointer = self.hover = None
        self.pointed.emit(None)
        self.update()

    def _read(self) -> None:
        """Tell the tape what is under the pointer."""
        session = self.session
        if self.tool == "seam" and self.start is not None and self.hover is not None:
            length = seam_length(session.block, self.start, self.hover)
            self.pointed.emit(Reading("Seam being drawn", length))
            return
        patch = self.patch_at(self.pointer) if self.pointer else None
        if patch is None or patch.holes:
            self.pointed.emit(None)
            return
        assert self.pointer is not None
        side = nearest_side(patch.outline, *self.frame.back(self.pointer))
        size = side_size(patch.outline, side, session.measure)
        what = f"{cloth_name(session.project, patch.fabric)}, this side of the patch"
        self.pointed.emit(Reading(what, *size))

    # --- keys ---------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {
            Qt.Key.Key_Left: (-1, 0),
            Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, -1),
            Qt.Key.Key_Down: (0, 1),
        }
        key = event.key()
        if key in steps:
            self._move_cursor(*steps[key])
        elif key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._act_at_cursor()
        elif key == Qt.Key.Key_Escape:
            self.start = None
            self.key_cursor = None
            self.update()
        elif event.text().lower() in _KEYS:
            self.asked.emit(_KEYS[event.text().lower()])
        elif event.text() in "123456789" and event.text():
            fabrics = self.session.project.fabrics
            number = int(event.text())
            if number <= len(fabrics):
                self.session.pick_cloth(fabrics[number - 1].id)
                self.asked.emit("paint")
        else:
            super().keyPressEvent(event)

    def _lattice(self) -> tuple[list[Point], ...]:
        """Rows of places for the cursor: snap points for seams, the middles between the lines
        for painting and erasing (on the lines too for erasing, to reach upright seams)."""
        xs, ys = snap_lattice(self.session.block, self.divide)
        if self.tool != "seam":
            xs = tuple((a + b) / 2 for a, b in pairwise(xs))
            ys = tuple((a + b) / 2 for a, b in pairwise(ys))
            if self.tool == "erase":
                lines = snap_lattice(self.session.block, self.divide)
                xs, ys = tuple(sorted((*xs, *lines[0]))), tuple(sorted((*ys, *lines[1])))
        return tuple([Point(x, y) for x in xs] for y in ys)

    def _move_cursor(self, dx: int, dy: int) -> None:
        places = self._lattice()
        if self.key_cursor is None:
            self.key_cursor = (0, 0)
        else:
            i, j = self.key_cursor
            self.key_cursor = (
                max(0, min(len(places[0]) - 1, i + dx)),
                max(0, min(len(places) - 1, j + dy)),
            )
        self.hover = self._cursor_point()
        self.pointer = self.to_screen(self.hover)
        self.setAccessibleDescription(place_text(self.hover))
        self._read()
        self.update()

    def _cursor_point(self) -> Point:
        places = self._lattice()
        i, j = self.key_cursor or (0, 0)
        return places[min(j, len(places) - 1)][min(i, len(places[0]) - 1)]

    def _act_at_cursor(self) -> None:
        if self.key_cursor is None:
            self._move_cursor(0, 0)
            return
        point = self._cursor_point()
        if self.tool == "seam":
            if self.start is None:
                self.start = point
            else:
                self._draw_to(point)
        elif self.tool == "erase":
            self._erase(self.to_screen(point))
        else:
            self._paint(self.to_screen(point))
        self.update()

    # --- drawing ------------------------------------------------------------------------------

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._draw_patches(painter)
        self._draw_grid(painter)
        self._draw_seams(painter)
        self._draw_problems(painter)
        self._draw_tool(painter)
        painter.end()

    def _draw_patches(self, painter: QPainter) -> None:
        session, frame = self.session, self.frame
        under = self.patch_at(self.pointer) if self.pointer and self.tool == "paint" else None
        empty = not session.block.seams and not session.block.fabric_at
        painter.setPen(Qt.PenStyle.NoPen)
        for patch in session.draft.patches:
            polygon = frame.polygon(patch.outline)
            painter.setBrush(colour_of(session.project, patch.fabric, session.grey))
            painter.drawPolygon(polygon)
            if patch.fabric is None:
                painter.setBrush(theme.PAPER)
                painter.drawPolygon(polygon)
            if patch is under:
                painter.setPen(QPen(theme.ACCENT, 3))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawPolygon(polygon)
                painter.setPen(Qt.PenStyle.NoPen)
        if empty and self.start is None and self.hover is None:
            painter.setPen(theme.INK_SOFT)
            painter.setFont(theme.font(12))
            box = frame.polygon(session.draft.patches[0].outline).boundingRect()
            painter.drawText(
                box.adjusted(24, 24, -24, -24),
                Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap,
                "Drag from grid point to grid point to draw a seam.",
            )

    def _draw_grid(self, painter: QPainter) -> None:
        block = self.session.block
        width, height = block.grid
        for divide, colour, style in (
            (self.divide, theme.LINE, Qt.PenStyle.DotLine),
            (1, theme.INK_SOFT, Qt.PenStyle.DotLine),
        ):
            ink = QColor(colour)
            ink.setAlpha(150)
            painter.setPen(QPen(ink, 1, style))
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
        draft = self.session.draft
        pen = QPen(theme.INK, 1.8)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        painter.setPen(pen)
        for seam in self.session.block.seams:
            p, q = seam.ends
            painter.drawLine(QLineF(self.to_screen(p), self.to_screen(q)))
        painter.setPen(QPen(theme.INK, 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        w, h = (float(x) for x in draft.block.finished)
        painter.drawRect(QRectF(self.frame.at(0, 0), self.frame.at(w, h)))
        if self.tool == "erase" and self.pointer:
            found = self._seam_under(self.pointer)
            if found:
                painter.setPen(
                    QPen(theme.ACCENT, 5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
                )
                painter.drawLine(QLineF(self.to_screen(found[0]), self.to_screen(found[1])))

    def _draw_problems(self, painter: QPainter) -> None:
        """Numbered as in the ticket's list."""
        plan = self.session.plan
        if plan is None or not self.session.block.seams:
            return
        for number, problem in enumerate(plan.problems, 1):
            if problem.code == "patch-without-fabric":
                continue  # plain to see
            for point in problem.at:
                at = self.to_screen(point)
                painter.setPen(QPen(theme.ACCENT, 2.5))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawEllipse(at, theme.px(8), theme.px(8))
            if problem.at:
                tag = self.to_screen(problem.at[0]) + QPointF(theme.px(14), -theme.px(14))
                draw_tag(painter, tag, f"! {number}", 9)

    def _draw_tool(self, painter: QPainter) -> None:
        if self.tool == "seam" and self.start is not None:
            start = self.to_screen(self.start)
            painter.setPen(QPen(theme.ACCENT, 2.2))
            painter.setBrush(theme.ACCENT)
            painter.drawEllipse(start, 4, 4)
            if self.hover is not None:
                painter.drawLine(QLineF(start, self.to_screen(self.hover)))
        if self.hover is not None and (self.tool == "seam" or self.key_cursor is not None):
            at = self.to_screen(self.hover)
            painter.setPen(QPen(theme.ACCENT, 2))
            painter.setBrush(theme.PAPER)
            painter.drawEllipse(at, 5.5, 5.5)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        painter.setFont(theme.font(9, QFont.Weight.Medium))


def _polygon_holds(patch: Patch, x: float, y: float) -> bool:
    inside = False
    rings = (patch.outline, *patch.holes)
    for ring in rings:
        points = [p.floats() for p in ring]
        for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
            if (y0 > y) != (y1 > y) and x < x0 + (y - y0) / (y1 - y0) * (x1 - x0):
                inside = not inside
    return inside
