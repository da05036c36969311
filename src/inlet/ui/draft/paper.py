"""The sheet the block is drawn on: where things are on screen, and the layers to look at."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QBrush, QColor, QFont, QPainter, QPen, QPixmap, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.draft import (
    Draft,
    Patch,
    TrayUnit,
    centre_of,
    grid_lines,
    lost_edges,
    nearest_curve,
    nearest_side,
    nearest_snap,
    radius_size,
    side_size,
)
from inlet.core.geometry import Curve, Point, squared_length
from inlet.core.numbers import root_up
from inlet.core.problem import numbered
from inlet.core.project import Block
from inlet.core.words import fabric_name
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame, curve_path, path_of
from inlet.ui.widgets.painting import draw_tag, fabric_brush

MARGIN = 30
FLASH = 1600
"""Milliseconds a place pointed out stays marked."""


@guarded
class Paper(QWidget):
    """The block on its grid, with what tools need of it: places, snaps, and ways to draw. The hand
    that holds the tools is ``Drawing``."""

    pointed = Signal(object)  # a Reading, or None
    asked = Signal(str)  # a tool, by its key

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.divide = 1
        self.locked = False  # keeps to 45°
        self.pointer: QPointF | None = None
        self.key_cursor: Point | None = None
        self.tray_unit: TrayUnit | None = None  # the unit to drop
        self.resting = Qt.CursorShape.CrossCursor  # the cursor of the tool in the hand
        self._base: QPixmap | None = None
        self._seen: tuple[Block, QSize, ScreenFrame, tuple[float, float]] | None = None
        self._flash: Sequence[Point] = ()
        self._unflash = QTimer(self)
        self._unflash.setSingleShot(True)
        self._unflash.timeout.connect(lambda: self.flash(()))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(160, 160)
        session.planned.connect(self.redraw)
        session.advised.connect(self.redraw)
        session.repeats.connect(self.update)

    # --- places -------------------------------------------------------------------------------

    def _view(self) -> tuple[ScreenFrame, tuple[float, float]]:
        """The frame, and the finished length of a grid unit, worked out once for each block and
        size of the window."""
        block = self.session.block
        if self._seen is None or self._seen[0] is not block or self._seen[1] != self.size():
            w, h = (float(x) for x in block.finished)
            m = margin()
            frame = ScreenFrame.fit(QRectF(self.rect()).adjusted(m, m, -m, -m), (0, 0, w, h))
            sx, sy = block.scale
            self._seen = (block, self.size(), frame, (float(sx), float(sy)))
        return self._seen[2], self._seen[3]

    @property
    def frame(self) -> ScreenFrame:
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

    def divide_by(self, divide: int) -> None:
        self.divide = divide
        self.key_cursor = None
        self.redraw()

    def flash(self, places: Sequence[Point]) -> None:
        """Point out some places (grid units) for a moment."""
        self._flash = places
        if places:
            self._unflash.start(FLASH)
        self.update()

    def redraw(self) -> None:
        self._base = None
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._base = None

    def patch_reading(self) -> Reading | None:
        """The side of the patch under the pointer, with its allowances."""
        session = self.session
        patch = self.patch_at(self.pointer) if self.pointer else None
        if patch is None or patch.holes:
            return None
        assert self.pointer is not None
        place = self.frame.back(self.pointer)
        name = fabric_name(session.project, patch.fabric)
        if patch.arcs:
            return self._curved_reading(name, nearest_curve(patch.shape, *place))
        side = nearest_side(patch.outline, *place)
        return Reading(f"{name}, this side", *side_size(patch.outline, side, session.measure))

    def _curved_reading(self, name: str, side: Curve) -> Reading:
        """A side of a patch with arcs: the radius, and that of the template, or the length."""
        if side.centre is None:
            return Reading(f"{name}, this side", root_up(squared_length(side.start, side.end)))
        shown, cut = radius_size(side, self.session.measure)
        return Reading(f"{name}, radius of the curve and of its template", shown, cut)

    # --- layers -------------------------------------------------------------------------------

    def paint_layers(self, painter: QPainter) -> None:
        """Everything that only the document decides, from the bottom up."""
        self._draw_patches(painter)
        self._draw_grid(painter)
        self._draw_seams(painter)
        self._draw_problems(painter)
        self._draw_advice(painter)

    def paint_rest(self, painter: QPainter) -> None:
        """The layers, drawn once until the document changes, and the marks that come and go."""
        if self._base is None:
            self._base = self._drawn_base()
        painter.drawPixmap(0, 0, self._base)
        self._draw_symmetry(painter)
        self._draw_flash(painter)

    def _drawn_base(self) -> QPixmap:
        ratio = self.devicePixelRatioF()
        base = QPixmap(self.size() * ratio)
        base.setDevicePixelRatio(ratio)
        base.fill(Qt.GlobalColor.transparent)
        with QPainter(base) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self.paint_layers(painter)
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
                brushes[patch.fabric] = fabric_brush(session.project, patch.fabric, session.grey)
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
        problems = numbered(plan.problems if plan else self.session.checks)
        for number, problem in enumerate(problems, 1):
            lost = problem.code == "value-near"
            painter.setPen(QPen(theme.ACCENT, 2.5))
            if lost and not marked:
                marked = True
                self._draw_lost(painter)
            for point in () if lost else problem.at[:40]:  # those are marked already
                r = theme.px(4 if len(problem.at) > 4 else 8)
                painter.drawEllipse(self.to_screen(point), r, r)
            if problem.at and plan is not None:
                tag = self.to_screen(problem.at[0]) + QPointF(theme.px(14), -theme.px(14))
                draw_tag(painter, tag, f"! {number}", 9)
                painter.setBrush(Qt.BrushStyle.NoBrush)

    def _draw_advice(self, painter: QPainter) -> None:
        """Seams that would spare a set-in, dashed, numbered as in the ticket."""
        if self.session.plan is None:
            return
        for number, advice in enumerate(self.session.advice, 1):
            ends = [self.to_screen(p) for p in (advice.start, advice.end)]
            for ink, width in ((theme.PAPER, 4.0), (theme.ACCENT, 2.0)):
                style = Qt.PenStyle.SolidLine if ink is theme.PAPER else Qt.PenStyle.DashLine
                painter.setPen(QPen(ink, width, style))
                painter.drawLine(QLineF(*ends))
            draw_tag(painter, QLineF(*ends).center(), str(number), 9)

    def _draw_lost(self, painter: QPainter) -> None:
        """Seams between fabrics too near in value, dashed, so that the shapes they lose show."""
        arrangement = self.draft.arrangement
        lost = lost_edges(self.draft, self.session.project)
        curves = [arrangement.curve(arrangement.edges[lost_edge.edge]) for lost_edge in lost]
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
