"""The block pulled apart into its units, each with its label."""

from __future__ import annotations

from PySide6.QtCore import QEasingCurve, QPointF, QRectF, Qt, QVariantAnimation, Signal
from PySide6.QtGui import QGuiApplication, QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from inlet.core.geometry import Polygon
from inlet.core.plan import BlockPlan
from inlet.core.planning import UnitPlan
from inlet.core.units import UnitPlace, label_place, picture_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame, draw_sheet
from inlet.ui.widgets.painting import draw_tag

APART = 0.22
"""How far units are pulled apart: a share of their place in the block."""
PULLING = 320
"""Milliseconds it takes to pull it apart."""


@guarded
class BlockApart(QWidget):
    """Click a unit, or go through them with the arrow keys."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Units of the block, pulled apart")
        self._hot: list[tuple[QPolygonF, UnitPlan]] = []
        self._apart = 1.0
        self._pull = QVariantAnimation(self)
        self._pull.setDuration(PULLING)
        self._pull.setStartValue(0.0)
        self._pull.setEndValue(1.0)
        self._pull.setEasingCurve(QEasingCurve.Type.OutCubic)
        self._pull.valueChanged.connect(self._pulled)
        self.setMinimumSize(theme.px(180), theme.px(180))
        for signal in (session.planned, session.selected, session.changed):
            signal.connect(self.update)

    def reading(self) -> Reading | None:
        """The unit picked, for the tape."""
        plan = self.session.plan
        units = plan.units if plan else ()
        return next((unit_reading(u) for u in units if u.unit.label == self.session.label), None)

    def pull_apart(self) -> None:
        """From the whole block, gently; at once where nobody watches."""
        if QGuiApplication.platformName() != "offscreen":
            self._pull.start()

    def _pulled(self, share: float) -> None:
        self._apart = share
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        plan = self.session.plan
        self._hot = []
        if plan is not None:
            self._draw(painter, plan)
        painter.end()

    def _draw(self, painter: QPainter, plan: BlockPlan) -> None:
        w, h = (float(x) for x in plan.block.finished)
        room = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (14, 14, -10, -14)))
        frame = ScreenFrame.fit(room, (0, 0, w * (1 + APART), h * (1 + APART)))
        # Half of what is still to come is taken off both sides, so that it opens from the middle.
        still = (1 - self._apart) * APART / 2
        frame = frame.moved(frame.at(w * still, h * still))
        smallest = min(
            (min(float(x) for x in u.unit.size) for u in plan.units if u.unit.tiles), default=1.0
        )
        points = max(6.5, min(13.0, smallest * frame.scale / 5 / theme.text_scale()))
        tags: list[tuple[QPointF, str, bool]] = []
        for unit in plan.units:
            chosen = unit.unit.label == self.session.label
            for place in unit.unit.places:
                if place.within is not None:
                    self._nested(painter, frame, plan, unit, place, tags)
                    continue
                outline = place.part.outline
                moved = self._moved(frame, outline)
                draw_sheet(
                    painter, moved, picture_of(plan.draft, place.part.faces), plan.project,
                    grey=self.session.grey,
                )  # fmt: skip
                polygon = moved.polygon(outline)
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.setPen(QPen(theme.ACCENT if chosen else theme.INK, 4 if chosen else 1.8))
                painter.drawPolygon(polygon)
                self._hot.append((polygon, unit))
                spot = moved.at(*label_place(plan.draft, place.part))
                tags.append((spot, unit.unit.label, chosen))
        for at, text, chosen in tags:
            draw_tag(painter, at, text, points, "strong" if chosen else "plain")

    def _nested(
        self,
        painter: QPainter,
        frame: ScreenFrame,
        plan: BlockPlan,
        unit: UnitPlan,
        place: UnitPlace,
        tags: list[tuple[QPointF, str, bool]],
    ) -> None:
        """A unit inside another: outlined where that one has been pulled to."""
        assert place.within is not None
        chosen = unit.unit.label == self.session.label
        moved = self._moved(frame, place.within.outline)
        polygon = moved.polygon(place.part.outline)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.ACCENT if chosen else theme.INK, 4 if chosen else 1.8))
        painter.drawPolygon(polygon)
        self._hot.append((polygon, unit))
        tags.append((moved.at(*label_place(plan.draft, place.part)), unit.unit.label, chosen))

    def _moved(self, frame: ScreenFrame, outline: Polygon) -> ScreenFrame:
        """The frame in which a unit lies where it has been pulled to."""
        xs, ys = zip(*(p.floats() for p in outline), strict=True)
        far = APART * self._apart
        x, y = (min(xs) + max(xs)) / 2 * far, (min(ys) + max(ys)) / 2 * far
        return frame.moved(frame.at(x, y))

    def _unit_at(self, at: QPointF) -> UnitPlan | None:
        for polygon, unit in reversed(self._hot):  # what is nested lies on top
            if polygon.containsPoint(at, Qt.FillRule.OddEvenFill):
                return unit
        return None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        unit = self._unit_at(event.position())
        if unit:
            self.session.pick_unit(unit.unit.label)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        unit = self._unit_at(event.position())
        self.pointed.emit(unit_reading(unit) if unit else None)

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        plan = self.session.plan
        step = {
            Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1
        }.get(Qt.Key(event.key()))  # fmt: skip
        if plan is None or step is None or not plan.units:
            super().keyPressEvent(event)
            return
        labels = [u.unit.label for u in plan.units]
        now = labels.index(self.session.label) if self.session.label in labels else 0
        self.session.pick_unit(labels[(now + step) % len(labels)])
        chosen = plan.units[(now + step) % len(labels)]
        self.pointed.emit(unit_reading(chosen))


def unit_reading(unit: UnitPlan) -> Reading:
    """For the tape: the longer side of the unit's first piece, of a strip its width, before and
    after rounding; of a unit made in another's runs its own unfinished width."""
    if not unit.in_use.pieces:
        return Reading(f"{unit.unit.label}: width", unit.unit.size[0], unit.unfinished[0])
    piece = unit.in_use.pieces[0]
    side = 0 if piece.piece.shape == "strip" else 1
    what = f"{unit.unit.label}: {piece.piece.shape} to cut"
    return Reading(what, None, piece.piece.exact[side], piece.cut[side])
