"""Where a drawing lies on screen, its curves as paths, and the picture of a move."""

from __future__ import annotations

from math import atan2, degrees

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter, QPainterPath, QPolygonF, QTransform
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core import figures
from inlet.core.figures import move_bounds, move_figure, sheet_figure
from inlet.core.geometry import Curve, Outline, Point, Polygon, float_radius, sweep
from inlet.core.project import Project
from inlet.core.table import Move, Sheet
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.painting import draw_figure


def box_of(rect: QRectF) -> figures.Box:
    """A rectangle of the screen as figures count it."""
    return rect.left(), rect.top(), rect.right(), rect.bottom()


class ScreenFrame:
    """Where lengths of the core go on screen: a frame of figures, in points of Qt."""

    def __init__(self, placed: figures.Frame) -> None:
        self.placed = placed

    @classmethod
    def fit(cls, box: QRectF, bounds: figures.Box) -> ScreenFrame:
        """The largest frame in which ``bounds`` (left, top, right, bottom) fit into ``box``,
        centred."""
        return cls(figures.Frame.fit(box_of(box), bounds, theme.text_scale()))

    def moved(self, to: QPointF) -> ScreenFrame:
        """The same with its origin there."""
        scale, unit = self.placed.scale, self.placed.unit
        return ScreenFrame(figures.Frame(to.x(), to.y(), scale, unit, self.placed.mirror))

    @property
    def left(self) -> float:
        return self.placed.left

    @property
    def top(self) -> float:
        return self.placed.top

    @property
    def scale(self) -> float:
        """Pixels a unit of length."""
        return self.placed.scale

    def at(self, x: float, y: float) -> QPointF:
        return QPointF(*self.placed.at(x, y))

    def spot(self, p: Point) -> QPointF:
        return QPointF(*self.placed.spot(p))

    def back(self, point: QPointF) -> tuple[float, float]:
        return self.placed.back(point.x(), point.y())

    @property
    def transform(self) -> QTransform:
        """Finished lengths to pixels, for a painter."""
        placed, scale = self.placed, self.placed.scale
        if placed.mirror is None:
            return QTransform(scale, 0, 0, scale, placed.left, placed.top)
        return QTransform(-scale, 0, 0, scale, placed.left + placed.mirror * scale, placed.top)

    def polygon(self, outline: Polygon) -> QPolygonF:
        return QPolygonF([self.spot(p) for p in outline])


def path_of(outline: Outline, sx: float = 1.0, sy: float = 1.0) -> QPainterPath:
    """An outline as a path, its units stretched by (sx, sy)."""
    path = QPainterPath()
    for i, side in enumerate(outline.sides()):
        if i == 0:
            path.moveTo(*stretched(side.start, sx, sy))
        add_side(path, side, sx, sy)
    path.closeSubpath()
    return path


def stretched(p: Point, sx: float, sy: float) -> tuple[float, float]:
    x, y = p.floats()
    return x * sx, y * sy


def add_side(path: QPainterPath, side: Curve, sx: float = 1.0, sy: float = 1.0) -> None:
    """Go on along a line or arc. Qt's angles run against the clock on screen, ours with it."""
    if side.centre is None:
        path.lineTo(*stretched(side.end, sx, sy))
        return
    (x, y), r = side.centre.floats(), float_radius(side)
    px, py = side.start.floats()
    box = QRectF((x - r) * sx, (y - r) * sy, 2 * r * sx, 2 * r * sy)
    path.arcTo(box, -degrees(atan2(py - y, px - x)), -degrees(sweep(side)))


def curve_path(curve: Curve, sx: float = 1.0, sy: float = 1.0) -> QPainterPath:
    """A seam as a path of its own."""
    path = QPainterPath()
    path.moveTo(*stretched(curve.start, sx, sy))
    add_side(path, curve, sx, sy)
    return path


def draw_sheet(
    painter: QPainter, frame: ScreenFrame, sheet: Sheet, project: Project, *, grey: bool = False
) -> None:
    """Patches in their fabric, right side up."""
    draw_figure(painter, sheet_figure(sheet, frame.placed), project, grey=grey)


@guarded
class MovePicture(QWidget):
    """One move at the table, drawn from its geometry."""

    def __init__(self, move: Move, project: Project, height: int = 110, grey: bool = False) -> None:
        super().__init__()
        self.move_, self.project, self.grey = move, project, grey
        self.setMinimumHeight(theme.px(height))
        self.setMinimumWidth(theme.px(height))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(f"Picture: {move.do}")

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        bounds = move_bounds(self.move_)
        if bounds is not None:
            frame = ScreenFrame.fit(QRectF(self.rect()).adjusted(6, 6, -6, -6), bounds)
            figure = move_figure(self.move_, frame.placed)
            draw_figure(painter, figure, self.project, grey=self.grey)
        painter.end()
