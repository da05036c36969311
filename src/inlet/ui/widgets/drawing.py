"""Drawing fabric: sheets, moves and labels, in any place and scale, on any painter."""

from __future__ import annotations

import base64
from collections.abc import Iterable, Sequence
from math import atan2, cos, degrees, hypot, pi, sin

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFont,
    QFontMetricsF,
    QImage,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
    QTransform,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.geometry import Curve, Outline, Point, Polygon, circle_of, sweep
from inlet.core.memo import memo
from inlet.core.project import Project
from inlet.core.table import DrawnLine, Move, Sheet
from inlet.ui import theme
from inlet.ui.guard import guarded


class Frame:
    """Where lengths of the core go on screen: ``scale`` pixels a unit, origin at (left, top)."""

    def __init__(self, left: float, top: float, scale: float) -> None:
        self.left, self.top, self.scale = left, top, scale

    @classmethod
    def fit(cls, box: QRectF, bounds: tuple[float, float, float, float]) -> Frame:
        """The largest frame in which ``bounds`` (left, top, right, bottom) fit into ``box``,
        centred."""
        left, top, right, bottom = bounds
        width, height = max(right - left, 1e-9), max(bottom - top, 1e-9)
        scale = min(box.width() / width, box.height() / height)
        x = box.left() + (box.width() - width * scale) / 2 - left * scale
        y = box.top() + (box.height() - height * scale) / 2 - top * scale
        return cls(x, y, scale)

    def at(self, x: float, y: float) -> QPointF:
        return QPointF(self.left + x * self.scale, self.top + y * self.scale)

    def back(self, point: QPointF) -> tuple[float, float]:
        return (point.x() - self.left) / self.scale, (point.y() - self.top) / self.scale

    @property
    def transform(self) -> QTransform:
        """Finished lengths to pixels, for a painter."""
        return QTransform(self.scale, 0, 0, self.scale, self.left, self.top)

    def polygon(self, outline: Polygon) -> QPolygonF:
        return QPolygonF([self.at(*p.floats()) for p in outline])


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
    (x, y), r = side.centre.floats(), float(circle_of(side).squared) ** 0.5
    px, py = side.start.floats()
    box = QRectF((x - r) * sx, (y - r) * sy, 2 * r * sx, 2 * r * sy)
    path.arcTo(box, -degrees(atan2(py - y, px - x)), -degrees(sweep(side)))


def curve_path(curve: Curve, sx: float = 1.0, sy: float = 1.0) -> QPainterPath:
    """A seam as a path of its own."""
    path = QPainterPath()
    path.moveTo(*stretched(curve.start, sx, sy))
    add_side(path, curve, sx, sy)
    return path


def bounds_of(sheets: Iterable[Sheet]) -> tuple[float, float, float, float]:
    points = [p.floats() for sheet in sheets for outline, _ in sheet for p in outline]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def draw_sheet(
    painter: QPainter,
    frame: Frame,
    sheet: Sheet,
    project: Project,
    *,
    grey: bool = False,
    wrong_side: bool = False,
) -> None:
    """Patches in their fabric; wrong sides paler and hatched."""
    pen = QPen(theme.INK, 1.1)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    for outline, fabric in sheet:
        polygon = frame.polygon(outline)
        colour = colour_of(project, fabric, grey)
        painter.setPen(pen)
        if wrong_side:
            painter.setBrush(paler(colour))
            painter.drawPolygon(polygon)
            painter.setBrush(QBrush(theme.INK_SOFT, Qt.BrushStyle.BDiagPattern))
            painter.drawPolygon(polygon)
        else:
            painter.setBrush(colour)
            painter.drawPolygon(polygon)
            if fabric is None:
                painter.setBrush(QBrush(theme.LINE, Qt.BrushStyle.DiagCrossPattern))
                painter.drawPolygon(polygon)


def colour_of(project: Project, fabric: str | None, grey: bool = False) -> QColor:
    known = project.fabric(fabric) if fabric else None
    return theme.cloth_colour(known.colour if known else None, grey)


@memo(32)
def _print_picture(image: str, grey: bool) -> QImage:
    """The picture of a print; empty where it cannot be read."""
    made = QImage.fromData(base64.b64decode(image))
    return made.convertToFormat(QImage.Format.Format_Grayscale8) if grey and made.width() else made


def cloth_brush(project: Project, fabric: str | None, grey: bool) -> QBrush:
    """How a fabric is filled in by a painter that counts in finished lengths: its print at true
    size where it has a picture, else its colour."""
    known = project.fabric(fabric) if fabric else None
    if known is not None and known.print is not None:
        picture = _print_picture(known.print.image, grey)
        if picture.width():
            brush = QBrush(picture)
            k = float(known.print.width) / picture.width()
            brush.setTransform(QTransform.fromScale(k, k))
            return brush
    return QBrush(colour_of(project, fabric, grey))


def paler(colour: QColor) -> QColor:
    """The wrong side of a fabric of that colour."""
    return QColor(
        *((255 * 2 + part) // 3 for part in (colour.red(), colour.green(), colour.blue()))
    )


_STYLES = {
    "seam": (2.0, Qt.PenStyle.DashLine),
    "cut": (2.4, Qt.PenStyle.SolidLine),
    "mark": (1.6, Qt.PenStyle.DotLine),
    "ruler": (1.6, Qt.PenStyle.DashDotLine),
}


def draw_lines(painter: QPainter, frame: Frame, lines: Sequence[DrawnLine]) -> None:
    """Seams dashed, cuts solid in the accent, marks dotted; spots over all of them."""
    spots = [line for line in lines if line.is_spot]
    drawn_lines = [line for line in lines if not line.is_spot and line.start != line.end]
    for line in drawn_lines:
        if line.kind == "press":
            continue
        width, style = _STYLES[line.kind]
        colour = theme.ACCENT if line.kind in ("cut", "ruler") else theme.INK
        drawn = QLineF(frame.at(*line.start.floats()), frame.at(*line.end.floats()))
        # So that it is seen on dark fabric, and along the hatching of a wrong side.
        painter.setPen(QPen(theme.PAPER, width + 1.6))
        painter.drawLine(drawn)
        painter.setPen(QPen(colour, width, style))
        painter.drawLine(drawn)
    for line in drawn_lines:
        if line.kind == "press":
            _draw_press(painter, frame, line)
    for spot in spots:
        _draw_spot(painter, frame.at(*spot.start.floats()), spot)


def _draw_press(painter: QPainter, frame: Frame, line: DrawnLine) -> None:
    """Which way a seam is pressed; an arrow each way where it is opened."""
    start, end = frame.at(*line.start.floats()), frame.at(*line.end.floats())
    size = min(max(hypot(end.x() - start.x(), end.y() - start.y()), theme.px(12)), theme.px(26))
    draw_arrow(painter, start, end, size)
    if line.number:
        draw_arrow(painter, start, start - (end - start), size)


def _draw_spot(painter: QPainter, at: QPointF, line: DrawnLine) -> None:
    """A dot where a seam turns or ends short, a bar where it stops, a pin, the ring round a point
    at the edge, the number of a leg."""
    kind = line.kind
    if kind == "leg":
        draw_tag(painter, at, str(line.number), 9)
        return
    if kind == "whirl":
        draw_blades(painter, at, theme.px(8))
        return
    radius = theme.px({"dot": 4, "stop": 5, "pin": 2, "point": 7}[kind])
    painter.setPen(QPen(theme.PAPER, 1.5))
    painter.setBrush(theme.INK if kind in ("dot", "pin") else theme.ACCENT)
    if kind == "stop":
        painter.drawRect(QRectF(at.x() - radius, at.y() - radius, 2 * radius, 2 * radius))
        return
    if kind == "point":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for ink, width in ((theme.PAPER, 4.0), (theme.ACCENT, 2.0)):
            painter.setPen(QPen(ink, width))
            painter.drawEllipse(at, radius, radius)
        return
    painter.drawEllipse(at, radius, radius)


def draw_arrow(
    painter: QPainter, start: QPointF, toward: QPointF, size: float, strong: bool = False
) -> None:
    """An arrow from a seam over its allowance, ``size`` pixels long, toward a place."""
    dx, dy = toward.x() - start.x(), toward.y() - start.y()
    length = hypot(dx, dy) or 1.0
    ux, uy = dx / length * size, dy / length * size
    tip, neck = start + QPointF(ux, uy), start + QPointF(ux, uy) * 0.45
    side = QPointF(-uy, ux) * 0.34
    head = QPolygonF([tip, neck + side, neck - side])
    ink = theme.ACCENT if strong else theme.INK
    for colour, width in ((theme.PAPER, size / 4 + 2.4), (ink, size / 6 + 0.8)):
        painter.setPen(QPen(colour, width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
        painter.drawLine(QLineF(start, neck))
    painter.setPen(QPen(theme.PAPER, 1.4))
    painter.setBrush(ink)
    painter.drawPolygon(head)


def draw_blades(painter: QPainter, at: QPointF, radius: float) -> None:
    """Four blades in a ring, turned one way round: a whirled centre."""
    painter.setPen(QPen(theme.INK, max(1.4, radius / 4)))
    painter.setBrush(theme.PAPER)
    painter.drawEllipse(at, radius, radius)
    path = QPainterPath()
    for k in range(4):
        a, b, near = k * pi / 2, k * pi / 2 + pi / 3, radius * 0.7
        path.moveTo(at)
        path.lineTo(at + QPointF(cos(a) * radius, sin(a) * radius))
        path.lineTo(at + QPointF(cos(b) * near, sin(b) * near))
        path.closeSubpath()
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(theme.INK)
    painter.drawPath(path)


def draw_tag(
    painter: QPainter, centre: QPointF, text: str, points: float, on: bool = False
) -> QRectF:
    """A label on its own ground, so that it reads on any fabric; returns where it is."""
    font = theme.font(points, QFont.Weight.DemiBold)
    metrics = QFontMetricsF(font)
    width = max(metrics.horizontalAdvance(text) + 10, metrics.height() + 2)
    box = QRectF(0, 0, width, metrics.height() + 2)
    box.moveCenter(centre)
    painter.setPen(QPen(theme.INK, 1))
    painter.setBrush(theme.INK if on else theme.PAPER)
    painter.drawRoundedRect(box, 5, 5)
    painter.setPen(theme.PAPER if on else theme.INK)
    painter.setFont(font)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
    return box


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
        move = self.move_
        sheets = [s for s in (move.lower, move.upper) if s]
        if sheets:
            box = QRectF(self.rect()).adjusted(6, 6, -6, -6)
            frame = Frame.fit(box, bounds_of(sheets))
            draw_sheet(painter, frame, move.lower, self.project, grey=self.grey)
            draw_sheet(painter, frame, move.upper, self.project, grey=self.grey, wrong_side=True)
            draw_lines(painter, frame, move.lines)
        painter.end()
