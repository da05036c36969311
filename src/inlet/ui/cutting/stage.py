"""The cutting stage: every cloth's strips to scale across its width, pieces laid in them."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QFont, QFontMetricsF, QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.cutting.strips import ClothNeeded, Laid
from inlet.core.cutting.words import buying_text
from inlet.core.numbers.text import show, vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.words import cloth_name, length_text
from inlet.ui import theme
from inlet.ui.drawing import colour_of
from inlet.ui.guard import guarded
from inlet.ui.parts import column, scrolled
from inlet.ui.session import Session
from inlet.ui.tape import Reading


class CuttingStage(QWidget):
    """All cloths below one another, scrolled if they must be."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.layouts = Layouts(session)
        self.pointed = self.layouts.pointed
        layout = column(self, 0)
        area = scrolled(self.layouts, "page")
        area.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        layout.addWidget(area)


@guarded
class Layouts(QWidget):
    """The drawing of the strips."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Minimum)
        self.setAccessibleName("Cloth laid out for cutting")
        self._hot: list[tuple[QRectF, Laid]] = []
        session.planned.connect(self._planned)
        session.changed.connect(self.update)
        session.selected.connect(self.update)

    def _planned(self) -> None:
        self.setMinimumHeight(round(self._height()))
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(500, round(self._height()))

    def _scale(self, plan: BlockPlan) -> float:
        """Pixels a length, so that the widest cloth fills the stage."""
        widest = max((float(c.width) for c in plan.cloth), default=42.0)
        return max(4.0, (self.width() - theme.px(60)) / widest)

    def _height(self) -> float:
        plan = self.session.plan
        if plan is None:
            return 100
        scale = self._scale(plan)
        return theme.px(30) + sum(
            theme.px(52) + sum(self._strip_height(float(s.width), scale) for s in c.strips)
            for c in plan.cloth
        )

    def _strip_height(self, width: float, scale: float) -> float:
        return max(width * scale, theme.px(10)) + theme.px(5)

    def resizeEvent(self, event: object) -> None:
        self.setMinimumHeight(round(self._height()))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._hot = []
        plan = self.session.plan
        if plan is not None:
            y = float(theme.px(22))
            scale = self._scale(plan)
            for cloth in plan.cloth:
                y = self._draw_cloth(painter, plan, cloth, y, scale)
        painter.end()

    def _draw_cloth(
        self, painter: QPainter, plan: BlockPlan, cloth: ClothNeeded, y: float, scale: float
    ) -> float:
        left = theme.px(30)
        measure = plan.measure
        painter.setPen(theme.INK)
        painter.setFont(theme.font(13, QFont.Weight.DemiBold))
        name = cloth_name(plan.project, cloth.fabric)
        painter.drawText(QPointF(left, y + theme.px(16)), name)
        x = left + QFontMetricsF(painter.font()).horizontalAdvance(name) + theme.px(14)
        painter.setFont(theme.font(10.5))
        painter.setPen(theme.INK_SOFT)
        words = f"{buying_text(cloth, measure)}, {cloth.used:.0%} in pieces"
        painter.drawText(QPointF(x, y + theme.px(16)), vulgar_text(words))
        y += theme.px(26)
        width = float(cloth.width) * scale
        for strip in cloth.strips:
            height = self._strip_height(float(strip.width), scale) - theme.px(5)
            band = QRectF(left, y, width, height)
            painter.setPen(QPen(theme.LINE, 1))
            painter.setBrush(theme.PAPER)
            painter.drawRect(band)
            squared = QRectF(band)
            squared.setWidth(float(strip.pieces[0].start) * scale)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QBrush(theme.ACCENT, Qt.BrushStyle.BDiagPattern))
            painter.drawRect(squared)  # cut off to square the end
            for piece in strip.pieces:
                self._draw_piece(painter, plan, piece, band, scale)
            painter.setPen(QPen(theme.ACCENT, 1.6))
            painter.drawLine(QLineF(band.bottomLeft(), band.bottomRight()))
            self._name_strip(painter, show(strip.width, system=measure.system, vulgar=True), band)
            y += height + theme.px(5)
        return y + theme.px(26)

    def _name_strip(self, painter: QPainter, text: str, band: QRectF) -> None:
        painter.setFont(theme.font(9, QFont.Weight.DemiBold))
        painter.setPen(theme.INK)
        where = QRectF(0, band.top(), band.left() - 4, band.height())
        align = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        if where.height() >= QFontMetricsF(painter.font()).height() * 0.8:
            painter.drawText(where, align, text)

    def _draw_piece(
        self, painter: QPainter, plan: BlockPlan, piece: Laid, band: QRectF, scale: float
    ) -> None:
        box = QRectF(
            band.left() + float(piece.start) * scale, band.top(),
            float(piece.along) * scale, float(piece.across) * scale,
        )  # fmt: skip
        self._hot.append((box, piece))
        colour = colour_of(plan.project, piece.cut.fabric, self.session.grey)
        chosen = self.session.label in piece.cut.labels
        painter.setPen(QPen(theme.ACCENT, 3) if chosen else QPen(theme.INK, 1))
        painter.setBrush(colour)
        painter.drawRect(box.adjusted(1, 1, -1, -1) if chosen else box)
        painter.setPen(QPen(theme.ink_on(colour), 1, Qt.PenStyle.DashLine))
        falling = QLineF(box.topLeft(), box.bottomRight())
        rising = QLineF(box.bottomLeft(), box.topRight())
        if piece.cut.crosscut == "twice":
            painter.drawLines([falling, rising])
        elif piece.cut.crosscut == "once":
            painter.drawLine(rising if piece.rises else falling)
        painter.setFont(theme.font(9, QFont.Weight.Medium))
        text = piece.cut.label
        metrics = QFontMetricsF(painter.font())
        if (
            metrics.horizontalAdvance(text) + 4 < box.width()
            and metrics.height() < box.height() + 3
        ):
            painter.setPen(theme.ink_on(colour))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A piece picks the unit it is for, the next one of them if it is picked already."""
        for box, piece in self._hot:
            if box.contains(event.position()):
                labels = piece.cut.labels
                at = labels.index(self.session.label) + 1 if self.session.label in labels else 0
                self.session.pick_unit(labels[at % len(labels)])
                return

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        for box, piece in self._hot:
            if box.contains(event.position()):
                measure = self.session.measure
                low, high = piece.cut.cut
                what = f"Stack {piece.cut.label}, for {', '.join(piece.cut.labels)}"
                if low != high:
                    what += f", {length_text(low, measure)} wide"
                self.pointed.emit(Reading(what, None, None, high))
                return
        self.pointed.emit(None)

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)
