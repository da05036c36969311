"""The seam allowance test: three strips on the table, the middle one measured, and what it says."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import QFormLayout, QFrame, QWidget

from inlet.core.geometry import drawn_corners
from inlet.core.numbers import Exact, NumberError, parse_length
from inlet.core.piecing import (
    Effect,
    SeamTestResult,
    effect_text,
    read_seam_test,
    seam_test_text,
    should_measure,
    usual_seam_test,
)
from inlet.core.plan import BlockPlan
from inlet.core.project import SeamTest, replace
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.parts import ValueEdit, column, empty, label, when_seen


class SeamTestPage(QFrame):
    """Three sizes to type, the strips drawn, and what the seam does to this block, to scale."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("card")
        self.session = session
        layout = column(self, 20, 10)
        layout.addWidget(label("Seam allowance test", "title"))
        layout.addWidget(
            label(
                "Cut three strips of one width, sew them side by side, press, and measure the "
                "middle one across.",
                "",
                True,
            )
        )
        form = QFormLayout()
        form.setRowWrapPolicy(QFormLayout.RowWrapPolicy.WrapLongRows)
        self.fields: dict[str, ValueEdit] = {}
        for name, words in (
            ("strip", "strips cut"),
            ("middle", "middle one measures"),
            ("stitched", "raw edge to stitches, if measured"),
        ):
            field = ValueEdit(words, partial(self._take, name), 120)
            field.refused.connect(session.said)
            self.fields[name] = field
            form.addRow(words, field)
        layout.addLayout(form)
        self.strips = TestStrips(session)
        layout.addWidget(self.strips)
        self.body = column(spacing=6)
        layout.addLayout(self.body)
        self.picture = EffectPicture(session)
        layout.addWidget(self.picture, 1)
        when_seen(self, self.refresh, session.planned)

    def seam_test(self) -> SeamTest:
        """The test as it stands: the one of the file, or strips as one usually cuts them."""
        plan = self.session.plan
        known_seam_test = self.session.project.seam_test
        return known_seam_test or (usual_seam_test(plan.measure.seam) if plan else SeamTest())

    def _take(self, name: str, text: str) -> None:
        plan = self.session.plan
        if plan is None:
            return
        if name == "stitched" and not text.strip():
            value: Exact | None = None
        else:
            value = parse_length(text, plan.measure.system)
        new = replace(self.seam_test(), **{name: value})
        if not 0 < new.middle < new.strip:
            raise NumberError("the middle strip must be narrower than it was cut, and above 0")
        self.session.edit(replace(self.session.project, seam_test=new))

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        seam_test, measure = self.seam_test(), plan.measure
        for name, field in self.fields.items():
            value = getattr(seam_test, name)
            field.show_value("" if value is None else length_text(value, measure))
        empty(self.body)
        test, effect = plan.tested(seam_test)
        target = length_text(should_measure(seam_test.strip, measure.seam), measure)
        self.body.addWidget(label(f"The middle strip should measure {target}.", "heading"))
        said = seam_test_text(test, measure)
        for line in said[:-1]:
            self.body.addWidget(label(line, "", True))
        self.body.addWidget(label(said[-1], "title", True))
        for line in effect_text(effect, test.off, measure):
            self.body.addWidget(label(line, "", True))
        self.strips.show_test(seam_test, test)
        self.picture.show_effect(plan, test, effect)


@guarded
class TestStrips(QWidget):
    """Three strips sewn side by side, to scale: the middle one as measured, and where its edges
    would be."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.seam_test, self.test = SeamTest(), read_seam_test(SeamTest(), SeamTest().strip / 6)
        self.setMinimumHeight(theme.px(84))
        self.setAccessibleName("The three strips")

    def show_test(self, seam_test: SeamTest, test: SeamTestResult) -> None:
        self.seam_test, self.test = seam_test, test
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        strip, middle = float(self.seam_test.strip), float(self.seam_test.middle)
        outer = strip - float(self.test.takes)
        wide = 2 * outer + middle
        frame = ScreenFrame.fit(QRectF(self.rect()).adjusted(4, 4, -4, -20), (0, 0, wide, wide / 7))
        x = 0.0
        for width, ground in ((outer, theme.PANEL), (middle, theme.PAPER), (outer, theme.PANEL)):
            painter.setPen(QPen(theme.INK, 1.2))
            painter.setBrush(ground)
            painter.drawRect(QRectF(frame.at(x, 0), frame.at(x + width, wide / 7)))
            x += width
        should = middle + 2 * float(self.test.off)
        for side in (-1, 1):
            at = wide / 2 + side * should / 2
            painter.setPen(QPen(theme.ACCENT, 1.6, Qt.PenStyle.DashLine))
            painter.drawLine(frame.at(at, 0), frame.at(at, wide / 7))
        plan = self.session.plan
        if plan is not None:
            painter.setPen(theme.INK)
            painter.setFont(theme.font(9))
            low = frame.at(wide / 2, wide / 7)
            box = QRectF(low.x() - 200, low.y() + 2, 400, 18)
            text = f"{length_text(self.seam_test.middle, plan.measure)}; dashed: as it should be"
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.end()


@guarded
class EffectPicture(QWidget):
    """The block as planned, dashed, and as this seam would make it, to scale; and one of its
    points enlarged, with the seam that passes it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.shown: tuple[BlockPlan, SeamTestResult, Effect] | None = None
        self.setMinimumHeight(theme.px(190))
        self.setAccessibleName("What this seam does to the block")

    def show_effect(self, plan: BlockPlan, test: SeamTestResult, effect: Effect) -> None:
        self.shown = (plan, test, effect)
        self.update()

    def paintEvent(self, event: object) -> None:
        if self.shown is None:
            return
        plan, test, effect = self.shown
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        half = self.width() / 2
        self._block(painter, QRectF(6, 6, half - 12, self.height() - 26), plan, effect)
        if effect.points:
            self._point(painter, QRectF(half + 6, 6, half - 12, self.height() - 26), plan, test)
        painter.end()

    def _block(self, painter: QPainter, box: QRectF, plan: BlockPlan, effect: Effect) -> None:
        w, h = (float(x) for x in plan.unfinished)
        grown = max(effect.width[1], w), max(effect.height[1], h)
        frame = ScreenFrame.fit(box, (0, 0, *grown))
        new_box = QRectF(frame.at(0, 0), frame.at(effect.width[0], effect.height[0]))
        painter.setPen(QPen(theme.INK, 1.4))
        painter.setBrush(theme.PANEL)
        painter.drawRect(new_box)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        # its patches, drawn together as much as the whole is
        shrunk = effect.width[0] / w, effect.height[0] / h
        raw = float(plan.measure.seam)
        painter.setPen(QPen(theme.LINE, 1))
        for patch in plan.draft.patches:
            corners = drawn_corners(patch.shape)
            painter.drawPolygon(
                [frame.at((x + raw) * shrunk[0], (y + raw) * shrunk[1]) for x, y in corners]
            )
        painter.setPen(QPen(theme.ACCENT, 1.4, Qt.PenStyle.DashLine))
        painter.drawRect(QRectF(frame.at(0, 0), frame.at(w, h)))
        points = plan.draft.arrangement.places
        sx, sy = (float(x) for x in plan.block.scale)
        painter.setPen(QPen(theme.INK, 1.4))
        for v in effect.points:
            x, y = points[v]
            painter.drawEllipse(frame.at(x * sx + raw, y * sy + raw), 4, 4)
        _below(painter, box, "to scale; dashed as planned, rings at the points")

    def _point(self, painter: QPainter, box: QRectF, plan: BlockPlan, test: SeamTestResult) -> None:
        """A point of 90° an allowance from the raw edge, and the seam that is sewn past it."""
        seam, off = float(plan.measure.seam), float(test.off)
        reach = 3 * seam
        frame = ScreenFrame.fit(box, (-reach, 0, reach, reach))
        painter.save()
        painter.setClipRect(QRectF(frame.at(-reach, 0), frame.at(reach, reach)))
        painter.setPen(QPen(theme.INK, 1.2))
        painter.setBrush(theme.PANEL)
        painter.drawRect(QRectF(frame.at(-reach, 0), frame.at(reach, reach)))
        painter.setBrush(theme.INK_SOFT)
        tip = frame.at(0, seam)
        painter.drawPolygon([tip, frame.at(reach, seam + reach), frame.at(-reach, seam + reach)])
        painter.setPen(QPen(theme.PAPER, 4))
        y = frame.at(0, seam + off).y()
        ends = QPointF(frame.at(-reach, 0).x(), y), QPointF(frame.at(reach, 0).x(), y)
        painter.drawLine(*ends)
        painter.setPen(QPen(theme.ACCENT, 2, Qt.PenStyle.DashLine))
        painter.drawLine(*ends)
        painter.restore()
        times = frame.scale / self.logicalDpiX() * float(plan.measure.system.per_inch)
        _below(painter, box, f"a point, {times:.0f} × as large; dashed the seam sewn past it")


def _below(painter: QPainter, box: QRectF, text: str) -> None:
    painter.setPen(theme.INK_SOFT)
    painter.setFont(theme.font(9))
    line = QRectF(box.left(), box.bottom() + 2, box.width(), 18)
    painter.drawText(line, Qt.AlignmentFlag.AlignCenter, text)
