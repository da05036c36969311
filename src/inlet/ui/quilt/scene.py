"""A quilt top ready to be painted, however many blocks it has.

Every block that looks alike is drawn once, as a small picture at the scale it is shown at; the top
is put together of those. Only where a block fills much of the screen, and where no two are alike,
as of improvised squares, is it drawn as it is.
"""

from __future__ import annotations

from collections import OrderedDict
from copy import copy
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QImage, QPainter, QPainterPath, QPen, QPolygonF, QTransform

from inlet.core.cancellation import check
from inlet.core.figures import top_figure
from inlet.core.project import Block, Project
from inlet.core.setting import Lying, PatchPicture, Spot, Top
from inlet.ui import theme
from inlet.ui.widgets.painting import fabric_brush, polygon_of

LARGE = 700
"""Pixels: a block shown larger than this is drawn as it is."""
MOST_PICTURES = 400
BLEED = 0.35
"""Pixels each patch reaches over its edge, so that no ground shows between two."""


class TopLook(NamedTuple):
    """How a top is shown: with its seams or without, in grey."""

    seams: bool = True
    grey: bool = False


class ScenePatch(NamedTuple):
    """A patch of a block as a path, in finished lengths, and its fabric."""

    path: QPainterPath
    fabric: str | None


class SceneBlock(NamedTuple):
    """A block where it lies: which drawing, how it is turned, its middle and reach on the top, and
    where its corners lie there, from its upper left round as it is drawn. Blocks of one drawing
    that are turned in one way have one number, ``alike``."""

    which: int
    alike: int
    turned: tuple[float, float, float, float]
    middle: tuple[float, float]
    reach: QRectF
    lying: Lying
    corners: tuple[tuple[float, float], ...]


class Scene:
    """The pieces of a top, in floats. Made in any thread; painted in the window's."""

    def __init__(self, top: Top, project: Project) -> None:
        self.top, self.project = top, project
        self.spots = _spots(top)
        self.size = float(top.size[0]), float(top.size[1])
        self.blocks: list[SceneBlock] = []
        self.drawings: list[tuple[Block, tuple[ScenePatch, ...]]] = []
        self._pictures: OrderedDict[object, tuple[QImage, float]] = OrderedDict()
        figure = top_figure(top, project)
        alike: dict[object, int] = {}
        for block, patches in figure.drawings:
            self.drawings.append((block, tuple(_path(patch) for patch in patches)))
        self.others: list[tuple[QPolygonF, QRectF, str]] = []
        for top_block in figure.blocks:
            check()
            matrix = top_block.on_top.matrix
            wide, high = (float(side) for side in top_block.on_top.block.finished)
            turned = (round(matrix.a, 9), round(matrix.b, 9), round(matrix.c, 9),
                      round(matrix.d, 9))  # fmt: skip
            middle = matrix((wide / 2, high / 2))
            left, above, right, below = top_block.reach
            reach = QRectF(left, above, right - left, below - above)
            drawn = (0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)
            corners = tuple(matrix(corner) for corner in drawn)
            lying = top_block.on_top.lying
            number = alike.setdefault((top_block.drawing, turned), len(alike))
            self.blocks.append(
                SceneBlock(top_block.drawing, number, turned, middle, reach, lying, corners)
            )
            for patch in top_block.on_top.improvised or ():
                polygon = polygon_of(tuple(matrix(p) for p in patch.outline))
                self.others.append((polygon, reach, patch.fabric or ""))
        self.many = len(self.others) + len(self.blocks)
        self._single = {
            top_block.drawing for top_block in figure.blocks if top_block.on_top.improvised
        }
        for area in figure.others:
            polygon = polygon_of(area.outline)
            self.others.append((polygon, polygon.boundingRect(), area.fabric or ""))

    def of(self, top: Top, project: Project) -> Scene:
        """The scene of a top: this one in other fabrics where its pieces and blocks are the
        same."""
        same = top is self.top and project.blocks is self.project.blocks
        if not same or self._single:
            return Scene(top, project)
        recoloured = copy(self)
        recoloured.project, recoloured._pictures = project, OrderedDict()
        return recoloured

    def paint(self, painter: QPainter, frame: QTransform, seen: QRectF, look: TopLook) -> None:
        """The top through ``frame`` (lengths to pixels, one scale both ways), as far as it is
        ``seen``, in pixels."""
        scale = frame.m11()
        lengths, _ = frame.inverted()
        within = lengths.mapRect(seen)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._paint_others(painter, frame, within, look)
        left, above = frame.dx(), frame.dy()
        pictures: dict[int, tuple[QImage, float]] = {}
        for drawn in self.seen(within):
            if drawn.which in self._single:
                continue
            known = pictures.get(drawn.alike)
            if known is None:
                if max(drawn.reach.width(), drawn.reach.height()) * scale > LARGE:
                    self._paint_whole(painter, frame, drawn, look)
                    continue
                known = pictures[drawn.alike] = self._picture(drawn, scale, look)
            picture, half = known
            x, y = drawn.middle
            painter.drawImage(QPointF(left + scale * x - half, above + scale * y - half), picture)

    def seen(self, within: QRectF) -> list[SceneBlock]:
        """The blocks of which something lies in a part of the top, in lengths."""
        return [drawn for drawn in self.blocks if drawn.reach.intersects(within)]

    def _paint_others(
        self, painter: QPainter, frame: QTransform, within: QRectF, look: TopLook
    ) -> None:
        painter.save()
        painter.setTransform(frame, True)
        brushes: dict[str, QBrush] = {}
        pens: dict[str, QPen] = {}
        for polygon, reach, fabric in self.others:
            if not reach.intersects(within):
                continue
            brush = brushes.get(fabric)
            if brush is None:
                brush = brushes[fabric] = fabric_brush(self.project, fabric, look.grey)
                pens[fabric] = seam_pen() if look.seams else _over_edge(brush)
            painter.setPen(pens[fabric])
            painter.setBrush(brush)
            painter.drawPolygon(polygon)
        painter.restore()

    def _picture(self, drawn: SceneBlock, scale: float, look: TopLook) -> tuple[QImage, float]:
        """A block as it lies, on a square with its middle in the middle, and half its side."""
        key = drawn.which, drawn.turned, round(scale, 6), look
        known = self._pictures.get(key)
        if known is not None:
            self._pictures.move_to_end(key)
            return known
        half = int(max(drawn.reach.width(), drawn.reach.height()) * scale / 2) + 2
        image = QImage(2 * half, 2 * half, QImage.Format.Format_ARGB32_Premultiplied)
        image.fill(Qt.GlobalColor.transparent)
        with QPainter(image) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            frame = QTransform(scale, 0, 0, scale, half, half)
            centred = drawn._replace(middle=(0.0, 0.0))
            self._paint_whole(painter, frame, centred, look)
        self._pictures[key] = image, float(half)
        while len(self._pictures) > MOST_PICTURES:
            self._pictures.popitem(last=False)
        return image, float(half)

    def _paint_whole(
        self, painter: QPainter, frame: QTransform, drawn: SceneBlock, look: TopLook
    ) -> None:
        block, patches = self.drawings[drawn.which]
        wide, high = (float(side) for side in block.finished)
        a, b, c, d = drawn.turned
        x, y = drawn.middle
        # From the block's upper left to the top: turned about its middle.
        lying = QTransform(
            a, b, c, d, x - a * wide / 2 - c * high / 2, y - b * wide / 2 - d * high / 2
        )
        painter.save()
        painter.setTransform(lying * frame, True)
        for patch in patches:
            brush = fabric_brush(self.project, patch.fabric, look.grey)
            painter.setPen(seam_pen() if look.seams else _over_edge(brush))
            painter.setBrush(brush)
            painter.drawPath(patch.path)
        painter.restore()

    def at(self, x: float, y: float) -> SceneBlock | None:
        """The block under a point of the top."""
        for drawn in self.blocks:
            if drawn.reach.contains(x, y) and polygon_of(drawn.corners).containsPoint(
                QPointF(x, y), Qt.FillRule.OddEvenFill
            ):
                return drawn
        return None


def _spots(top: Top) -> dict[Spot, QPolygonF]:
    """Where every place lies on the top."""
    spots = {}
    for row in top.rows:
        for piece in row.pieces:
            placed = piece.placed
            if placed is not None:
                outline = [QPointF(*p.floats()) for p in piece.outline]
                spots[placed.column, placed.row] = QPolygonF(outline)
    return spots


def _path(patch: PatchPicture) -> ScenePatch:
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    for corners in (patch.outline, *patch.holes):
        path.addPolygon(polygon_of(corners))
        path.closeSubpath()
    return ScenePatch(path, patch.fabric)


def seam_pen() -> QPen:
    pen = QPen(theme.INK, 0.9)
    pen.setCosmetic(True)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    return pen


def _over_edge(brush: QBrush) -> QPen:
    """A line in the fabric's own colour, so that patches meet without a gap."""
    pen = QPen(brush, 2 * BLEED)
    pen.setCosmetic(True)
    return pen
