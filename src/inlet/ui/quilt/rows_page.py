"""Making the quilt, a step a card: each row with its picture, how it is pressed, its length."""

from __future__ import annotations

from collections.abc import Mapping

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QBrush,
    QColor,
    QKeyEvent,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
    QResizeEvent,
    QTransform,
)
from PySide6.QtWidgets import QBoxLayout, QFrame, QListWidget, QListWidgetItem, QSizePolicy, QWidget

from inlet.core.bench import Thing, progress, quilt_things, spare_text
from inlet.core.figures import band_figure, band_height
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BACKING, QuiltStep, band_title
from inlet.core.project import Project, Quilt
from inlet.core.setting import JOIN, BackingWay, Band, Top, TopPiece
from inlet.core.words import CAUTIONS
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.piecing.card import SMALL_PICTURE, StepPanel
from inlet.ui.quilt.scene import Scene, TopLook
from inlet.ui.shell.session import Session
from inlet.ui.widgets.painting import colour_of, draw_figure, draw_tag
from inlet.ui.widgets.parts import button, column, label, row, scrolled

LIST, LEAST_CARD = 190, 260
"""Pixels of the list of steps, and of a card beside it at least."""
MOST = 2**24 - 1
MOST_UNITED = 300
"""Pieces of a step that are drawn with one edge round all of them; it takes long for more."""
COVER = 205
"""How far what is not of the step is covered, of 255."""


@guarded
class RowsPage(QWidget):
    """The list of steps, and the card of one of them."""

    shown = Signal()  # another step is on the card

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.at = 0
        self.steps: tuple[QuiltStep, ...] = ()
        self.things: tuple[Thing, ...] = ()
        self.done: Mapping[str, int] = {}
        self.both = whole = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(theme.px(12))
        self.list = _Steps(self)
        self.list.currentRowChanged.connect(self._choose)
        whole.addWidget(self.list)
        body = QFrame()
        body.setObjectName("card")
        card = column(body, 14, 8)
        self.title = label("", "title", True)
        self.text = label("", "", True)
        self.check = label("", "size", True)
        self.picture = StepPicture()
        self.sewn = StepPanel(SMALL_PICTURE)
        self.sewn.setObjectName("")  # it lies on this page's own card
        self.sewn.body.setContentsMargins(0, 0, 0, 0)
        self.progress = label("", "caption")
        self.back_ = button("Back", lambda: self.go(-1))
        self.done_ = button("Done (space)", lambda: self.go(1))
        card.addWidget(self.title)
        card.addWidget(self.check)
        card.addWidget(self.text)
        card.addWidget(self.picture, 1)
        card.addWidget(self.sewn)
        self.caution = label(CAUTIONS, "caption", True)
        card.addWidget(self.caution)
        right = column(spacing=8)
        right.addWidget(scrolled(body, "page"), 1)
        right.addLayout(row(self.back_, self.done_, self.progress, 1))
        self.spare = label("", "small", True)
        right.addWidget(self.spare)
        whole.addLayout(right, 1)
        session.quilted.connect(self._planned)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """With little room the list stands above the card."""
        wide = self.width() >= theme.px(LIST + LEAST_CARD)
        ways = QBoxLayout.Direction
        self.both.setDirection(ways.LeftToRight if wide else ways.TopToBottom)
        self.list.setMaximumSize(
            QSize(theme.px(LIST), MOST) if wide else QSize(MOST, self.height() // 4)
        )

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    def _planned(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """The steps of the quilt, once they are worked out; those before stay until then."""
        plan = self.session.quilt_plan
        if plan.planned or not plan.top.rows:
            self.steps = plan.steps
            self.things = quilt_things(self.steps)
        steps = self.steps
        project = self.session.project
        progressed = progress(project.log, self.things)
        self.done, spare = progressed.done, progressed.spare
        self.spare.setText(vulgar_text(spare_text(spare, project.measure)))
        self.spare.setVisible(bool(spare) and bool(self.steps))
        self.list.blockSignals(True)
        self.list.clear()
        for step in steps:
            done = self.done.get(step.name, 0)
            mark = "✓  " if done >= step.times else f"{done}/{step.times}  " if done else ""
            self.list.addItem(QListWidgetItem(f"{mark}{step.title}"))
        self.at = max(0, min(self.at, len(steps) - 1))
        self.list.setCurrentRow(self.at)
        self.list.blockSignals(False)
        self._show()

    def _choose(self, at: int) -> None:
        self.at = max(0, at)
        self._show()

    def _show(self) -> None:
        self._show_here()
        self.shown.emit()

    def _show_here(self) -> None:
        steps, plan = self.steps, self.session.quilt_plan
        here = steps[self.at] if self.at < len(steps) else None
        sewn = here.sewn if here is not None else None
        self.back_.setVisible(here is not None)
        self.done_.setVisible(here is not None)
        self.title.setVisible(sewn is None)
        self.text.setVisible(sewn is None)
        self.check.setVisible(sewn is None)
        self.picture.setVisible(here is not None and sewn is None)
        first = all(step.sewn is not None for step in steps[: self.at])
        self.caution.setVisible(here is not None and sewn is None and first)
        self.sewn.setVisible(sewn is not None)
        self.sewn.clear()
        if here is None:
            waits = bool(plan.top.rows)
            self.title.setText("Working out the steps …" if waits else "No quilt is set yet")
            words = "Set its blocks first: the ticket says how many across and down."
            self.text.setText("" if waits else words)
            self.check.setText("")
            self.progress.setText("")
            return
        done = self.done.get(here.name, 0)
        self.title.setText(here.title)
        self.progress.setText(
            f"{done} of {here.times} done" if here.times > 1 else "done" if done else ""
        )
        if sewn is not None:
            of, step = sewn
            self.sewn.show_step(of, step, of.pressing.best, self.session.grey)
            return
        self.text.setText(vulgar_text(here.text))
        self.check.setText(vulgar_text(here.measures))
        self.check.setVisible(bool(here.measures))
        self.draw_step(self.picture, here)

    def draw_step(self, picture: StepPicture, step: QuiltStep) -> None:
        """Show what a step makes."""
        plan = self.session.quilt_plan
        backing = plan.backing if step.of == BACKING else None
        bands = {band_title(band): band for band in plan.setting.bands} if plan.planned else {}
        picture.show_step(plan.top, self.session, step, backing, bands.get(step.of))

    def go(self, by: int) -> None:
        """A step is done, and the next one shown; or the last is not."""
        steps = self.steps
        if not steps:
            return
        here = steps[self.at]
        done = self.done.get(here.name, 0)
        if by < 0 and not done and self.at:
            self.at -= 1
            here = steps[self.at]
            done = self.done.get(here.name, 0)
        many = here.times if here.at_once else 1
        thing = self.things[self.at]
        if by > 0 and done + many >= here.times and self.at + 1 < len(steps):
            self.at += 1
        self.session.tick(thing, done, by * many)
        self.refresh()


@guarded
class _Steps(QListWidget):
    """The steps in their order; the space bar goes on, the backspace key back."""

    def __init__(self, page: RowsPage) -> None:
        super().__init__()
        self.page = page
        self.setAccessibleName("Steps of the quilt")
        self.setWordWrap(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Space:
            self.page.go(1)
        elif event.key() == Qt.Key.Key_Backspace:
            self.page.go(-1)
        else:
            super().keyPressEvent(event)


@guarded
class StepPicture(QWidget):
    """The whole top, all but what the step makes paler; the row's label where it is pinned."""

    def __init__(self) -> None:
        super().__init__()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(theme.px(180))
        self.setAccessibleName("What the step makes")
        self.scene: Scene | None = None
        self.of: list[QPolygonF] = []
        self.labels: list[tuple[QPolygonF, str]] = []
        self.band: Band | None = None
        self.project = Project()
        self.backing: tuple[BackingWay, list[float], QColor] | None = None
        self.look = TopLook()

    def sizeHint(self) -> QSize:
        return QSize(480, 320)

    def show_step(
        self,
        top: Top,
        session: Session,
        step: QuiltStep,
        backing: BackingWay | None,
        band: Band | None,
    ) -> None:
        """The pieces of rows or of a border, the ``backing`` with the quilt on it, or strips joined
        to a ``band``."""
        self.backing, self.band, self.project = None, band, session.project
        least = 180 if band is None else band_height(band, 1)
        self.setMinimumHeight(theme.px(round(least)))
        if backing is not None:
            project = session.project
            fabric = project.quilt.backing.fabric if project.quilt and project.quilt.backing else ""
            lost = 2 * session.measure.from_inches(JOIN)
            joins = [float(x) for x in backing.joins(project.usable_width(fabric), lost)]
            colour = colour_of(project, fabric or None, session.grey)
            self.backing = backing, joins, colour
        self.scene = session.quilt_view.scene
        rows = [row for row in top.rows if row.label in (step.of, *step.alike)]
        pieces = [piece for row in rows for piece in row.pieces]
        pieces += [piece for each in top.borders if each.label == step.of for piece in each.pieces]
        self.of = [_polygon(piece) for piece in pieces]
        self.labels = [(_polygon(row.pieces[0]), row.label) for row in rows]
        self.look = TopLook(True, session.grey)
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        if self.band is not None:
            self._draw_band(painter, self.band)
        elif self.scene is not None and self.backing is not None:
            self._draw_backing(painter, self.scene, *self.backing)
        elif self.scene is not None:
            self._draw(painter, self.scene)
        painter.end()

    def _draw_band(self, painter: QPainter, band: Band) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        room = QRectF(self.rect()).adjusted(10, 4, -10, -4)
        box = room.left(), room.top(), room.right(), room.bottom()
        figure = band_figure(band, self.project.measure, box, theme.px(1))
        draw_figure(painter, figure, self.project, grey=self.look.grey)

    def _draw_backing(
        self, painter: QPainter, scene: Scene, way: BackingWay, joins: list[float], colour: QColor
    ) -> None:
        """The widths of fabric side by side with their seams, what is cut off hatched, the quilt's
        edge on them."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide, high = (float(side) for side in way.size)
        spare = float(way.left[0])
        along = way.seam == "along"
        whole = QRectF(0, 0, wide + (spare if along else 0), high + (0 if along else spare))
        room = QRectF(self.rect()).adjusted(12, 12, -12, -12)
        scale = max(1e-6, min(room.width() / whole.width(), room.height() / whole.height()))
        corner = room.center() - whole.center() * scale
        frame = QTransform(scale, 0, 0, scale, corner.x(), corner.y())
        painter.setPen(QPen(theme.INK, 1.4))
        painter.setBrush(colour)
        painter.drawRect(frame.mapRect(whole))
        left = QRectF(wide, 0, spare, high) if along else QRectF(0, high, wide, spare)
        painter.fillRect(frame.mapRect(left), QBrush(theme.ACCENT, Qt.BrushStyle.BDiagPattern))
        for ink, width, style in (
            (theme.PAPER, 4.0, Qt.PenStyle.SolidLine), (theme.INK, 2.0, Qt.PenStyle.DashLine)
        ):  # fmt: skip
            painter.setPen(QPen(ink, width, style))
            for at in joins:
                ends = (QPointF(at, 0), QPointF(at, high)) if along else (
                    QPointF(0, at), QPointF(wide, at)
                )  # fmt: skip
                painter.drawLine(*map(frame.map, ends))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        quilt = QRectF(0, 0, *scene.size)
        quilt.moveCenter(QPointF(wide / 2, high / 2))
        for ink, width in ((theme.PAPER, 4.0), (theme.INK, 1.6)):
            painter.setPen(QPen(ink, width))
            painter.drawRect(frame.mapRect(quilt))
        draw_tag(painter, frame.map(quilt.center()), "the quilt", 10)

    def _draw(self, painter: QPainter, scene: Scene) -> None:
        wide, high = scene.size
        room = QRectF(self.rect()).adjusted(10, 10, -10, -10)
        scale = max(1e-6, min(room.width() / wide, room.height() / high))
        left = room.left() + (room.width() - wide * scale) / 2
        top = room.top() + (room.height() - high * scale) / 2
        frame = QTransform(scale, 0, 0, scale, left, top)
        scene.paint(painter, frame, QRectF(self.rect()), self.look)
        if not self.of:
            return
        cover = QColor(theme.PAPER)
        cover.setAlpha(COVER)
        painter.fillRect(frame.mapRect(QRectF(0, 0, wide, high)), cover)
        path = QPainterPath()
        path.setFillRule(Qt.FillRule.WindingFill)
        for polygon in self.of:
            outline = QPainterPath()
            outline.addPolygon(frame.map(polygon))
            outline.closeSubpath()
            if len(self.of) > MOST_UNITED:
                path.addPath(outline)
            else:
                path = path.united(outline)
        painter.save()
        painter.setClipPath(path)
        scene.paint(painter, frame, path.boundingRect(), self.look)
        painter.restore()
        painter.setPen(QPen(theme.INK, 2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(path)
        for first, words in self.labels:
            draw_tag(painter, frame.map(first).boundingRect().center(), words, 10, "strong")


def _polygon(piece: TopPiece) -> QPolygonF:
    return QPolygonF([QPointF(*p.floats()) for p in piece.outline])
