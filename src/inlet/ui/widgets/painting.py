"""Draws figures of the core with a painter."""

from __future__ import annotations

import base64

from PySide6.QtCore import QPointF, QRectF, Qt
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

from inlet.core.figures import (
    LOOKS,
    Area,
    BoxText,
    Clip,
    Colour,
    Dash,
    Disc,
    FabricArea,
    Figure,
    Look,
    Polyline,
    Side,
    Tag,
    TagLook,
)
from inlet.core.memo import memo
from inlet.core.project import Project
from inlet.ui import theme

COLOURS: dict[Colour, QColor] = {
    "ink": theme.INK,
    "soft": theme.INK_SOFT,
    "line": theme.LINE,
    "paper": theme.PAPER,
    "accent": theme.ACCENT,
    "ruler": QColor(255, 246, 196, 130),
}
DASHES: dict[Dash, Qt.PenStyle] = {
    "whole": Qt.PenStyle.SolidLine,
    "dashes": Qt.PenStyle.DashLine,
    "dots": Qt.PenStyle.DotLine,
    "dash-dots": Qt.PenStyle.DashDotLine,
}
TAGS: dict[TagLook, tuple[QColor | None, QColor, QColor]] = {
    "plain": (theme.INK, theme.PAPER, theme.INK),
    "strong": (theme.INK, theme.INK, theme.PAPER),
    "size": (None, theme.PAPER, theme.ACCENT),
}
"""The edge, the ground and the text of labels."""

WIDTHS: dict[Side, float] = {"allowance": 0.7, "turned": 0.7, "plain": 0.8}
"""Of the edges of fabrics that are not drawn 1.1 wide."""


def colour_of(project: Project, fabric: str | None, grey: bool = False) -> QColor:
    """A fabric's colour on screen."""
    known_fabric = project.fabric(fabric) if fabric else None
    return theme.fabric_colour(known_fabric.colour if known_fabric else None, grey)


@memo(32)
def _print_picture(image: str, grey: bool) -> QImage:
    """The picture of a print; empty where it cannot be read."""
    read = QImage.fromData(base64.b64decode(image))
    return read.convertToFormat(QImage.Format.Format_Grayscale8) if grey and read.width() else read


def fabric_brush(project: Project, fabric: str | None, grey: bool) -> QBrush:
    """How a fabric is filled in by a painter that counts in finished lengths: its print at true
    size where it has a picture, else its colour."""
    known_fabric = project.fabric(fabric) if fabric else None
    if known_fabric is not None and known_fabric.print is not None:
        picture = _print_picture(known_fabric.print.image, grey)
        if picture.width():
            brush = QBrush(picture)
            k = float(known_fabric.print.width) / picture.width()
            brush.setTransform(QTransform.fromScale(k, k))
            return brush
    return QBrush(colour_of(project, fabric, grey))


def mixed(colour: QColor, other_colour: QColor, share: float) -> QColor:
    """A colour with so much of another in it."""
    parts = (QColor.red, QColor.green, QColor.blue)
    return QColor(*(int(p(colour) + (p(other_colour) - p(colour)) * share) for p in parts))


def polygon_of(points: tuple[tuple[float, float], ...]) -> QPolygonF:
    return QPolygonF([QPointF(x, y) for x, y in points])


def draw_figure(painter: QPainter, figure: Figure, project: Project, *, grey: bool = False) -> None:
    """All of a figure, in order; with ``grey``, fabrics as light as they are."""
    fabrics = _Fabrics(project, grey)
    for item in figure:
        if isinstance(item, FabricArea):
            fabrics.draw(painter, item)
        elif isinstance(item, Polyline):
            _draw_line(painter, item, fabrics.ink_on(item.on))
        elif isinstance(item, Area):
            _draw_area(painter, item)
        elif isinstance(item, Disc):
            look = LOOKS[item.kind]
            painter.setPen(pen_of(look))
            painter.setBrush(_brush_of(look))
            painter.drawEllipse(QPointF(*item.at), item.radius, item.radius)
        elif isinstance(item, Tag):
            draw_tag(painter, QPointF(*item.at), item.text, item.size, item.look)
        elif isinstance(item, BoxText):
            _draw_text(painter, item, fabrics.ink_on(item.on))
        else:
            _draw_clipped(painter, item, project, grey)


def pen_of(look: Look, width: float | None = None, ink: QColor | None = None) -> QPen:
    """The pen of a look; none where it has no line."""
    if look.line is None:
        return QPen(Qt.PenStyle.NoPen)
    cap = Qt.PenCapStyle.FlatCap if look.flat else Qt.PenCapStyle.SquareCap
    colour = ink if ink is not None else COLOURS[look.line]
    return QPen(colour, look.width if width is None else width, DASHES[look.dash], cap)


def _brush_of(look: Look, strength: float = 1.0) -> QBrush:
    if look.fill is None:
        return QBrush(Qt.BrushStyle.NoBrush)
    colour = QColor(COLOURS[look.fill])
    if strength < 1:
        colour.setAlphaF(strength)
    return QBrush(
        colour, Qt.BrushStyle.BDiagPattern if look.hatched else Qt.BrushStyle.SolidPattern
    )


def _draw_line(painter: QPainter, item: Polyline, ink: QColor | None) -> None:
    look, polygon = LOOKS[item.kind], polygon_of(item.points)
    if look.halo:
        painter.setPen(QPen(theme.PAPER, look.width + look.halo))
        painter.drawPolyline(polygon)
    painter.setPen(pen_of(look, item.width, ink))
    painter.drawPolyline(polygon)


def _draw_area(painter: QPainter, item: Area) -> None:
    look = LOOKS[item.kind]
    painter.setPen(pen_of(look))
    painter.setBrush(_brush_of(look, item.strength))
    painter.drawPolygon(polygon_of(item.points))


def _draw_clipped(painter: QPainter, item: Clip, project: Project, grey: bool) -> None:
    path = QPainterPath()
    path.addPolygon(polygon_of(item.within))
    painter.save()
    painter.setClipPath(path)
    draw_figure(painter, item.items, project, grey=grey)
    painter.restore()


class _Fabrics:
    """Fabrics of a project, as they are filled in."""

    def __init__(self, project: Project, grey: bool) -> None:
        self.project, self.grey = project, grey
        self.known: dict[tuple[str | None, Side], tuple[QColor, QBrush | None]] = {}

    def ink_on(self, fabric: str | None) -> QColor | None:
        return theme.ink_on(self.colour(fabric)) if fabric is not None else None

    def colour(self, fabric: str | None) -> QColor:
        return colour_of(self.project, fabric, self.grey)

    def draw(self, painter: QPainter, item: FabricArea) -> None:
        """The fabric's colour, or its wrong side's; hatched where it is the wrong side."""
        key = item.fabric, item.side
        fills = self.known.get(key)
        if fills is None:
            fills = self.known[key] = self._fills(item)
        fill, hatch = fills
        path = polygon_of(item.outline)
        pen = QPen(theme.INK if item.side != "plain" else theme.INK_SOFT)
        if item.side == "uncut":
            pen = QPen(theme.INK_SOFT, 1)
        else:
            pen.setWidthF(WIDTHS.get(item.side, 1.1))
        pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        painter.setPen(pen if item.side != "ready" else Qt.PenStyle.NoPen)
        painter.setBrush(fill)
        painter.drawPolygon(path)
        if hatch is not None:
            painter.setBrush(hatch)
            painter.drawPolygon(path)

    def _fills(self, item: FabricArea) -> tuple[QColor, QBrush | None]:
        colour, diagonal = self.colour(item.fabric), Qt.BrushStyle.BDiagPattern
        if item.side == "plain":
            return theme.PAPER, None
        if item.side == "uncut":
            return mixed(colour, theme.PAPER, 0.5), None
        if item.side in ("wrong", "back", "allowance"):
            ink = {"wrong": theme.INK_SOFT, "back": theme.LINE}.get(item.side)
            pale = mixed(colour, QColor(255, 255, 255), 2 / 3)
            return pale, QBrush(ink, diagonal) if ink is not None else None
        if item.fabric is None and item.side == "right":
            return colour, QBrush(theme.LINE, Qt.BrushStyle.DiagCrossPattern)
        return colour, None


# --- words --------------------------------------------------------------------------------------


def draw_tag(
    painter: QPainter, centre: QPointF, text: str, points: float, look: TagLook = "plain"
) -> QRectF:
    """A label on its ground, so that it reads on any fabric; returns where it is."""
    edge, ground, ink = TAGS[look]
    font = theme.font(points, QFont.Weight.DemiBold)
    metrics = QFontMetricsF(font)
    width = max(metrics.horizontalAdvance(text) + 10, metrics.height() + 2)
    box = QRectF(0, 0, width, metrics.height() + 2)
    box.moveCenter(centre)
    painter.setPen(QPen(edge, 1) if edge is not None else QPen(Qt.PenStyle.NoPen))
    painter.setBrush(ground)
    painter.drawRoundedRect(box, 5, 5)
    painter.setPen(ink)
    painter.setFont(font)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
    return box


def _draw_text(painter: QPainter, item: BoxText, ink: QColor | None) -> None:
    """Words in a box, on their side where they fit only so."""
    left, top, right, bottom = item.box
    box = QRectF(left, top, right - left, bottom - top)
    painter.setFont(
        theme.font(item.size, QFont.Weight.Normal if item.wide else QFont.Weight.Medium)
    )
    painter.setPen(ink if ink is not None else COLOURS[LOOKS[item.kind].line or "ink"])
    metrics = QFontMetricsF(painter.font())
    long, high = metrics.horizontalAdvance(item.text) + 3, metrics.height() - 3
    align = Qt.AlignmentFlag.AlignCenter
    if item.wide:
        reach = max(0.0, (long - box.width()) / 2)
        painter.drawText(box.adjusted(-reach, 0, reach, 0), align, item.text)
    elif long < box.width() and high < box.height():
        painter.drawText(box, align, item.text)
    elif long < box.height() and high < box.width():
        painter.save()
        painter.translate(box.center())
        painter.rotate(-90)
        size = box.size().transposed()
        painter.drawText(
            QRectF(QPointF(-size.width() / 2, -size.height() / 2), size), align, item.text
        )
        painter.restore()
