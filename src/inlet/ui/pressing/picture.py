"""A pressed block drawn: the back with its allowances folded, the front with what shows through,
the layers. One place draws them for the stage, for cards and for the ticket."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPainterPath, QPen, QPolygonF, QTransform

from inlet.core.draft import TOO_NEAR, Draft, lightness
from inlet.core.geometry import Point, Polygon
from inlet.core.pressing import Layer, PressingPlan, Stretch
from inlet.core.project import Project
from inlet.ui import theme
from inlet.ui.pressing.marks import draw_mark
from inlet.ui.widgets.drawing import Frame, colour_of, draw_arrow, draw_tag, paler

View = Literal["back", "front", "layers"]
SHADE = 34
"""How dark one layer is, of 255."""
SHORTEST = 20.0
"""Pixels of a seam below which it has no arrow of its own."""


class PressedFrame:
    """Where a pressed block lies on screen: from the back, left and right change places."""

    def __init__(self, box: QRectF, draft: Draft, seam: float, view: View) -> None:
        self.width, self.height = (float(x) for x in draft.block.finished)
        self.mirrored = view == "back"
        self.frame = Frame.fit(box, (-seam, -seam, self.width + seam, self.height + seam))

    def at(self, p: Point) -> QPointF:
        return self.spot(*p.floats())

    def spot(self, x: float, y: float) -> QPointF:
        return self.frame.at(self.width - x if self.mirrored else x, y)

    def back(self, point: QPointF) -> tuple[float, float]:
        x, y = self.frame.back(point)
        return (self.width - x if self.mirrored else x), y

    def polygon(self, outline: Polygon) -> QPolygonF:
        return QPolygonF([self.at(p) for p in outline])

    @property
    def transform(self) -> QTransform:
        """Finished lengths to pixels."""
        if not self.mirrored:
            return self.frame.transform
        return QTransform(-1, 0, 0, 1, self.width, 0) * self.frame.transform


def draw_pressed(
    painter: QPainter,
    place: PressedFrame,
    draft: Draft,
    layers: Iterable[Layer],
    project: Project,
    view: View,
    grey: bool = False,
) -> None:
    """The block itself, without marks."""
    found = sorted(layers, key=lambda layer: layer.depth)
    if view == "back":
        _draw_back(painter, place, draft, found, project, grey)
    elif view == "front":
        _draw_front(painter, place, draft, found, project, grey)
    else:
        _draw_layers(painter, place, draft, found)


def _draw_back(
    painter: QPainter,
    place: PressedFrame,
    draft: Draft,
    layers: Iterable[Layer],
    project: Project,
    grey: bool,
) -> None:
    """Wrong sides pale and hatched; of an allowance folded back once its right side is seen."""
    painter.setPen(QPen(theme.INK, 1.0))
    for patch in draft.patches:
        polygon = place.polygon(patch.polygon)
        painter.setBrush(paler(colour_of(project, patch.fabric, grey)))
        painter.drawPolygon(polygon)
        painter.setBrush(QBrush(theme.LINE, Qt.BrushStyle.BDiagPattern))
        painter.drawPolygon(polygon)
    for layer in layers:
        colour = colour_of(project, draft.patches[layer.patch].fabric, grey)
        right_side = layer.folds % 2 == 1
        painter.setPen(QPen(theme.INK, 0.7))
        painter.setBrush(colour if right_side else paler(colour))
        painter.drawPolygon(place.polygon(layer.outline))


def _draw_front(
    painter: QPainter,
    place: PressedFrame,
    draft: Draft,
    layers: list[Layer],
    project: Project,
    grey: bool,
) -> None:
    """The fabrics, and darker where an allowance of a darker fabric lies under a lighter one."""
    levels = {f.id: lightness(f.colour) for f in project.fabrics}
    behind = [
        (place.polygon(layer.outline), levels.get(draft.patches[layer.patch].fabric or "", 100.0))
        for layer in layers
    ]
    for patch in draft.patches:
        polygon = place.polygon(patch.polygon)
        painter.setPen(QPen(theme.INK, 1.0))
        painter.setBrush(colour_of(project, patch.fabric, grey))
        painter.drawPolygon(polygon)
        own = levels.get(patch.fabric or "", 0.0)
        box = polygon.boundingRect()
        path = QPainterPath()
        path.addPolygon(polygon)
        painter.save()
        painter.setClipPath(path)
        painter.setPen(Qt.PenStyle.NoPen)
        for outline, level in behind:
            if own - level >= TOO_NEAR and outline.boundingRect().intersects(box):
                shade = QColor(theme.INK)
                shade.setAlphaF(min(0.34, (own - level) / 200))
                painter.setBrush(shade)
                painter.drawPolygon(outline)
        painter.restore()


def _draw_layers(
    painter: QPainter, place: PressedFrame, draft: Draft, layers: Iterable[Layer]
) -> None:
    """The more layers, the darker."""
    painter.setPen(QPen(theme.INK_SOFT, 0.8))
    painter.setBrush(theme.PAPER)
    for patch in draft.patches:
        painter.drawPolygon(place.polygon(patch.polygon))
    shade = QColor(theme.INK)
    shade.setAlpha(SHADE)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    for layer in layers:
        painter.drawPolygon(place.polygon(layer.outline))


# --- over it --------------------------------------------------------------------------------------


def draw_arrows(painter: QPainter, place: PressedFrame, plan: PressingPlan) -> None:
    """Which way each seam goes, once for as far as it goes so; two arrows apart where it is
    open."""
    for run in _one_way(plan):
        size = arrow_size(place, plan, run[len(run) // 2])
        if size:
            draw_way(painter, place, plan, run[len(run) // 2], size)


def _one_way(plan: PressingPlan) -> list[list[Stretch]]:
    """Seams as far as they go one way, from junction to junction."""
    out: list[list[Stretch]] = []
    for stretch in plan.stretches:
        last = out[-1][-1] if out else None
        goes_on = (
            last is not None
            and last.join is stretch.join
            and last.end == stretch.begin
            and plan.toward(last.join, last.begin) == plan.toward(stretch.join, stretch.begin)
            and stretch.join.vertices[stretch.begin] not in stretch.join.pivots
        )
        if goes_on:
            out[-1].append(stretch)
        else:
            out.append([stretch])
    return out


def arrow_size(place: PressedFrame, plan: PressingPlan, stretch: Stretch) -> float:
    """Pixels of a seam's arrow; 0 where the seam is too short for one."""
    start, end = (place.at(p) for p in stretch.ends)
    long = abs(start.x() - end.x()) + abs(start.y() - end.y())
    if long < SHORTEST:
        return 0.0
    allowance = float(plan.seam) * place.frame.scale
    return float(min(max(allowance * 1.3, theme.px(16)), long / 2, theme.px(32)))


def draw_way(
    painter: QPainter,
    place: PressedFrame,
    plan: PressingPlan,
    stretch: Stretch,
    size: float,
    strong: bool = False,
) -> None:
    middle, square = plan.middle(stretch), plan.square(stretch)
    at = place.spot(*middle)
    ahead = place.spot(middle[0] + square[0], middle[1] + square[1])
    if stretch.toward is None:
        behind = at - (ahead - at)
        draw_arrow(painter, at, ahead, size * 0.75, strong)
        draw_arrow(painter, at, behind, size * 0.75, strong)
    else:
        draw_arrow(painter, at, ahead, size, strong)


def draw_junctions(painter: QPainter, place: PressedFrame, plan: PressingPlan) -> None:
    small = len(plan.junctions) > 80
    for each in plan.junctions:
        if each.junction.inside or each.counts:
            at = place.at(each.junction.at)
            draw_mark(painter, at, each.state, theme.px(5 if small else 7))


def draw_counts(painter: QPainter, place: PressedFrame, plan: PressingPlan) -> None:
    """The most layers at each junction, in figures."""
    most = plan.thickest()
    points = 8 if len(plan.junctions) > 40 else 10
    for each in plan.junctions:
        if each.junction.inside:
            at = place.at(each.junction.at) + QPointF(theme.px(13), -theme.px(13))
            draw_tag(painter, at, str(each.layers), points, most is not None and each == most)
