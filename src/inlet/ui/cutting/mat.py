"""The fabric on the mat, to scale: folded as it lies, what is cut of it, and the ruler at the next
cut. Its length runs away from the squared end; the fold lies nearest to the maker."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFont,
    QFontMetricsF,
    QMouseEvent,
    QPainter,
    QPen,
    QPolygonF,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.cutlist import Cut, rises
from inlet.core.layout import Place, Rect, Stroke, ready_after
from inlet.core.numbers import show
from inlet.core.project import LaidCloth, Measure
from inlet.core.templates import Corners, in_box, laid_outlines
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.tape import Reading

RULER = QColor(255, 246, 196, 130)


class Shown(NamedTuple):
    """What the picture shows: fabric with its cuts, ``done`` of them made; None of them before the
    fabric is prepared."""

    cloth: LaidCloth
    strokes: tuple[Stroke, ...]
    done: int | None
    cuts: dict[str, Cut]
    colour: QColor
    measure: Measure
    left_handed: bool


@guarded
class Mat(QWidget):
    """One piece of fabric."""

    pointed = Signal(object)
    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(theme.px(150))
        self.setAccessibleName("Fabric on the mat")
        self.shown: Shown | None = None
        self.chosen = ""
        self._places: list[tuple[Place, int]] = []
        self._outlines: dict[tuple[str, int], tuple[Corners, ...]] = {}

    def sizeHint(self) -> QSize:
        return QSize(520, 360)

    def show_cloth(self, shown: Shown | None) -> None:
        self.shown = shown
        self._places = ready_after(shown.cloth, shown.strokes) if shown is not None else []
        self._outlines = {}
        for place, _ in self._places:
            cut = shown.cuts.get(place.label) if shown is not None else None
            key = place.label, place.holds
            if shown is not None and cut is not None and key not in self._outlines:
                self._outlines[key] = laid_outlines(cut, place.holds, shown.measure)
        self.update()

    # --- where things are ---------------------------------------------------------------------

    def _frame(self, shown: Shown) -> tuple[QRectF, float, float]:
        """The folded fabric on screen, pixels a length, and how far below the fold it reaches."""
        cloth = shown.cloth
        wide, deep = float(cloth.length), float(cloth.width / cloth.layers)
        below = max((-float(p.at.x) for p, _ in self._places if p.at.x < 0), default=0.0)
        room = QRectF(self.rect()).adjusted(
            theme.px(34), theme.px(34), -theme.px(22), -theme.px(34)
        )
        scale = max(0.5, min(room.width() / wide, room.height() / (deep + below)))
        size = QRectF(0, 0, wide * scale, deep * scale)
        left = room.left() + max(0.0, (room.width() - size.width()) / 2)
        top = room.top() + max(0.0, (room.height() - (deep + below) * scale) / 2)
        size.moveTo(left, top)
        return size, scale, below

    def _box(self, shown: Shown, rect: Rect) -> QRectF:
        """A piece of fabric on screen: along it to the right (left-handers: to the left), across it
        upward from the fold."""
        frame, scale, _ = self._frame(shown)
        x, wide = float(rect.y) * scale, float(rect.height) * scale
        left = frame.right() - x - wide if shown.left_handed else frame.left() + x
        bottom = frame.bottom() - float(rect.x) * scale
        high = float(rect.width) * scale
        return QRectF(left, bottom - high, wide, high)

    # --- drawing ------------------------------------------------------------------------------

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.shown is not None:
            self._draw(painter, self.shown)
        if self.hasFocus():
            painter.setPen(QPen(theme.INK_SOFT, 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 8, 8)
        painter.end()

    def _draw(self, painter: QPainter, shown: Shown) -> None:
        frame, _, _ = self._frame(shown)
        done = shown.done or 0
        painter.setPen(QPen(theme.INK_SOFT, 1))
        painter.setBrush(_light(shown.colour))
        painter.drawRect(frame)
        self._edges(painter, shown, frame)
        if shown.strokes and shown.strokes[0].what == "square" and done == 0:
            strip = self._box(shown, shown.strokes[0].of[0]._replace(height=shown.strokes[0].size))
            painter.fillRect(strip, QBrush(theme.ACCENT, Qt.BrushStyle.BDiagPattern))
        self._opened(painter, shown, done)
        for place, when in self._places:
            self._piece(painter, shown, place, 0 < when <= done)
        self._cut_lines(painter, shown, done)
        if shown.done is not None and done < len(shown.strokes):
            self._next(painter, shown, shown.strokes[done])

    def _opened(self, painter: QPainter, shown: Shown, done: int) -> None:
        """What is laid open at the fold by now, or by the next cut."""
        painter.setPen(QPen(theme.INK_SOFT, 1))
        painter.setBrush(_light(shown.colour))
        for stroke in shown.strokes[: done + 1]:
            for rect in stroke.of if stroke.opens else ():
                painter.drawRect(self._box(shown, rect))

    def _edges(self, painter: QPainter, shown: Shown, frame: QRectF) -> None:
        """Selvages, fold, grain."""
        folded = shown.cloth.layers > 1
        bolt = shown.cloth.kind in ("new", "bolt")
        painter.setFont(theme.font(9))
        band = theme.px(5)
        selvage = QBrush(theme.INK_SOFT, Qt.BrushStyle.Dense5Pattern)
        if bolt:
            top = QRectF(frame.left(), frame.top() - band, frame.width(), band)
            painter.fillRect(top, selvage)
            if not folded:
                painter.fillRect(top.translated(0, frame.height() + band), selvage)
        painter.setPen(theme.INK_SOFT)
        layers = {1: "a single layer", 2: "folded once, 2 layers", 4: "folded twice, 4 layers"}
        words = layers[shown.cloth.layers]
        above = QRectF(4, frame.top() - theme.px(26), self.width() - 8, theme.px(20))
        align = Qt.AlignmentFlag.AlignCenter
        edge = "selvages" if folded else "selvage"
        painter.drawText(above, align, f"{edge}  ·  {words}" if bolt else words)
        if folded:
            painter.setPen(QPen(theme.INK, 2.5))
            painter.drawLine(frame.bottomLeft(), frame.bottomRight())
            painter.setPen(theme.INK)
        below = QRectF(above)
        below.moveTop(frame.bottom() + theme.px(6))
        fold = "fold, nearest to you" if folded else ("selvage, nearest to you" if bolt else "")
        if min((p.at.x for p, _ in self._places), default=0) >= 0:
            painter.drawText(below, align, f"{fold}   ⟷ straight grain".strip())

    def _piece(self, painter: QPainter, shown: Shown, place: Place, ready: bool) -> None:
        box = self._box(shown, place.at)
        chosen = place.label == self.chosen
        painter.setBrush(shown.colour if ready else Qt.BrushStyle.NoBrush)
        ink = theme.ink_on(shown.colour) if ready else theme.INK_SOFT
        if chosen:
            painter.setPen(QPen(theme.INK, 1.8))
        else:
            style = Qt.PenStyle.SolidLine if ready else Qt.PenStyle.DotLine
            painter.setPen(QPen(theme.INK if ready else theme.INK_SOFT, 1, style))
        painter.drawRect(box.adjusted(1, 1, -1, -1) if ready else box)
        cut = shown.cuts.get(place.label)
        if cut is not None and cut.crosscut in ("once", "twice"):
            painter.setPen(QPen(ink, 1, Qt.PenStyle.DashLine))
            falling = QLineF(box.topLeft(), box.bottomRight())
            rising = QLineF(box.bottomLeft(), box.topRight())
            once = rising if rises(cut, box.height() > box.width()) else falling
            painter.drawLines([falling, rising] if cut.crosscut == "twice" else [once])
        for outline in self._outlines.get((place.label, place.holds), ()):
            painter.setPen(QPen(ink, 1))
            painter.drawPolygon(self._laid_on(shown, outline, box, place.turned))
        text = place.label if place.holds == 1 else f"{place.label} × {place.holds}"
        painter.setFont(theme.font(9, QFont.Weight.Medium))
        metrics = QFontMetricsF(painter.font())
        long, high = metrics.horizontalAdvance(text) + 3, metrics.height() - 3
        painter.setPen(ink)
        if long < box.width() and high < box.height():
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        elif long < box.height() and high < box.width():
            painter.save()
            painter.translate(box.center())
            painter.rotate(-90)
            size = box.size().transposed()
            lying = QRectF(QPointF(-size.width() / 2, -size.height() / 2), size)
            painter.drawText(lying, Qt.AlignmentFlag.AlignCenter, text)
            painter.restore()

    def _laid_on(self, shown: Shown, outline: Corners, box: QRectF, turned: bool) -> QPolygonF:
        """A template's cut line inside its place."""
        _, scale, _ = self._frame(shown)
        size = box.width() / scale, box.height() / scale
        return QPolygonF(
            [
                QPointF(box.left() + x * scale, box.top() + y * scale)
                for x, y in in_box(outline, *size, turned)
            ]
        )

    def _cut_lines(self, painter: QPainter, shown: Shown, done: int) -> None:
        painter.setPen(QPen(theme.INK, 1.6))
        for stroke in shown.strokes[:done]:
            painter.drawLines(self._lines(shown, stroke))

    def _lines(self, shown: Shown, stroke: Stroke) -> list[QLineF]:
        """A stroke on screen, one line in each piece."""
        lines = []
        parts = list(stroke.parts())
        for near in parts[::2]:
            box = self._box(shown, near)
            if stroke.way == "along":
                lines.append(QLineF(box.topLeft(), box.topRight()))
            elif shown.left_handed:
                lines.append(QLineF(box.topLeft(), box.bottomLeft()))
            else:
                lines.append(QLineF(box.topRight(), box.bottomRight()))
        return lines

    def _next(self, painter: QPainter, shown: Shown, stroke: Stroke) -> None:
        """The pieces of fabric the next cut goes through, the ruler on the part that comes off, and
        the line to cut along."""
        painter.setPen(QPen(theme.ACCENT, 1.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for rect in stroke.of:
            painter.drawRect(self._box(shown, rect))
        parts = list(stroke.parts())
        first, other = parts[0], parts[1]
        size = first.width if stroke.way == "along" else first.height
        off = first if size == stroke.size else other
        ruler = self._box(shown, off)
        beyond = theme.px(14)
        ruler = (
            ruler.adjusted(-beyond, 0, beyond, 0) if stroke.way == "along"
            else ruler.adjusted(0, -beyond, 0, beyond)
        )  # fmt: skip
        painter.setPen(QPen(theme.INK_SOFT, 1))
        painter.setBrush(RULER)
        painter.drawRect(ruler)
        self._ruler_lines(painter, shown, stroke, ruler)
        painter.setPen(QPen(theme.ACCENT, 3))
        painter.drawLines(self._lines(shown, stroke))
        text = show(stroke.size, system=shown.measure.system, vulgar=True)
        painter.setFont(theme.font(14, QFont.Weight.DemiBold))
        box = QFontMetricsF(painter.font()).boundingRect(text).adjusted(-6, -2, 6, 2)
        box.moveCenter(ruler.center())
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.PAPER)
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(theme.ACCENT)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _ruler_lines(self, painter: QPainter, shown: Shown, stroke: Stroke, ruler: QRectF) -> None:
        """The ruler's whole marks, counted from the cut line, on which its edge lies."""
        _, scale, _ = self._frame(shown)
        step = float(shown.measure.system.per_inch if shown.measure.system.fractions else 1) * scale
        if step < 4:
            return
        painter.setPen(QPen(theme.INK_SOFT, 0.6))
        line = self._lines(shown, stroke)[0]
        number = int(float(stroke.size) * scale / step)
        for i in range(1, number + 1):
            if stroke.way == "along":
                down = line.y1() < ruler.center().y()
                y = line.y1() + (i if down else -i) * step
                painter.drawLine(QLineF(ruler.left(), y, ruler.right(), y))
            else:
                right = line.x1() < ruler.center().x()
                x = line.x1() + (i if right else -i) * step
                painter.drawLine(QLineF(x, ruler.top(), x, ruler.bottom()))

    # --- mouse --------------------------------------------------------------------------------

    def _under(self, at: QPointF) -> Place | None:
        shown = self.shown
        if shown is None:
            return None
        return next((p for p, _ in self._places if self._box(shown, p.at).contains(at)), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        place = self._under(event.position())
        if place is not None:
            self.picked.emit(place.label)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        place, shown = self._under(event.position()), self.shown
        if place is None or shown is None:
            self.pointed.emit(None)
            return
        wide, high = sorted((place.at.width, place.at.height))
        what = f"Stack {place.label}"
        if place.holds > 1:
            what += f", {place.holds} head to tail"
        if place.at.layers > 1:
            what += f", {place.at.layers} layers"
        if wide != high:
            what += f", {length_text(wide, shown.measure)} wide"
        self.pointed.emit(Reading(what, None, high))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def focusInEvent(self, event: object) -> None:
        self.update()

    def focusOutEvent(self, event: object) -> None:
        self.update()


def _light(colour: QColor) -> QColor:
    """Fabric that is not cut yet: its colour, paler."""
    paper = theme.PAPER
    return QColor(
        (colour.red() + paper.red()) // 2,
        (colour.green() + paper.green()) // 2,
        (colour.blue() + paper.blue()) // 2,
    )
