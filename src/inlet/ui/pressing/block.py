"""The pressed block on screen: what is pointed at and picked in it, and what is done with that."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import (
    QSizePolicy,
    QWidget,
)

from inlet.core import figures
from inlet.core.draft import Draft, with_seams
from inlet.core.figures import (
    View,
    arrow_size,
    arrows_figure,
    counts_figure,
    held_figure,
    junctions_figure,
    pressed_figure,
    pressed_frame,
    way_figure,
)
from inlet.core.geometry import distance_to, squared_length
from inlet.core.numbers import root_up
from inlet.core.pressing import (
    OPEN,
    Junction,
    Met,
    Pinned,
    PressingPlan,
    Stretch,
    pin_centre,
    pin_stretch,
    pin_within,
    unpin_stretch,
)
from inlet.core.project import Block
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame, box_of, curve_path
from inlet.ui.widgets.painting import draw_figure

NEAR_SEAM, NEAR_JUNCTION = 16, 12
"""Pixels from which a seam, or a junction, is pointed at."""
SMALLEST = 200
"""Pixels of the picture, whatever the size of text."""


@guarded
class PressedPicture(QWidget):
    """The block, with a seam or a junction picked in it."""

    picked = Signal()
    pointed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.view: View = "back"
        self.seam: Stretch | None = None
        self.met: Met | None = None
        self.second = False
        self._under: tuple[Stretch | None, Met | None] = (None, None)
        self._drawn: tuple[object, QPixmap] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setMinimumSize(SMALLEST, SMALLEST)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("The pressed block")

    # --- what is there ------------------------------------------------------------------------

    @property
    def pressing(self) -> PressingPlan | None:
        """What is shown: the first version, or the second."""
        pressing = self.session.pressing
        return pressing.second if pressing is not None and self.second else pressing

    def arrived(self) -> None:
        """Another pressing has come: the same seam, or junction, stays picked."""
        pressing = self.pressing
        seam, met = self.seam, self.met
        self.seam = self.met = None
        self._under = (None, None)
        if pressing is not None:
            if seam is not None:
                key = seam.join.number, seam.begin
                self.seam = next(
                    (s for s in pressing.stretches if (s.join.number, s.begin) == key), None
                )
            if met is not None:
                vertex = met.junction.vertex
                self.met = next(
                    (m for m in pressing.junctions if m.junction.vertex == vertex), None
                )
        self.update()

    def _drawn_block(self, pressing: PressingPlan | None) -> Draft:
        """The block that is pressed, which may be the new one or its start block; until that is
        known the start block."""
        return pressing.seams.draft if pressing is not None else self.session.sewn_draft

    def frame(self) -> ScreenFrame:
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (10, 24, -10, -6)))
        seam = float(self.session.measure.seam)
        unit = theme.text_scale()
        pressing = self.session.pressing
        drawn = self._drawn_block(pressing)
        return ScreenFrame(pressed_frame(box_of(box), drawn, seam, self.view, unit))

    def shown(self) -> tuple[Stretch | None, Met | None]:
        """What is pointed at, else what is picked."""
        return self._under if any(self._under) else (self.seam, self.met)

    def reading(self) -> Reading | None:
        seam, _ = self.shown()
        if seam is None or self.pressing is None:
            return None
        length = root_up(squared_length(*seam.ends))
        raw = with_seams(length, self.session.measure)
        return Reading(f"Seam {seam.join.number}, to the next junction", length, raw)

    def centre(self) -> Junction | None:
        """The centre that W whirls: the junction picked, else one at an end of the seam picked."""
        met = self.centre_met()
        return met.junction if met else None

    def centre_met(self) -> Met | None:
        pressing = self.pressing
        if pressing is None:
            return None
        if self.met is not None:
            return self.met if self.met.junction.spin else None
        if self.seam is not None:
            join = self.seam.join
            ends = [join.vertices[i] for i in (self.seam.begin, self.seam.end)]
            for met in pressing.junctions:
                if met.junction.vertex in ends and met.junction.spin:
                    return met
        return None

    def wishes(self) -> list[tuple[str, Pinned]]:
        """What could be done with what is picked, in words."""
        pressing, choices = self.pressing, []
        if pressing is None:
            return []
        if self.seam is not None:
            span, now = self.seam.span, pressing.versions[0][self.seam.span]
            if now is None:
                choices += [("Close", Pinned(-1, span, None, way)) for way in (0, 1)][:1]
            else:
                choices.append(("Flip", Pinned(-1, span, None, 1 - now)))
                choices.append(("Open", Pinned(-1, span, None, OPEN)))
        met = self.centre_met()
        if met is not None:
            spun = met.state == "whirled"
            words = "Leave flat" if spun else "Spin the seams"
            choices.append((words, Pinned(-1, None, met.junction.vertex, int(not spun))))
        return choices

    # --- what is done -------------------------------------------------------------------------

    def _do(self, make: Callable[[PressingPlan, Stretch], Block]) -> None:
        pressing = self.session.pressing
        if pressing is not None and self.seam is not None and not self.second:
            self.session.edit_block(make(pressing, self.seam))

    def flip(self) -> None:
        """The seam picked goes the other way, and is pinned there."""

        def other(pressing: PressingPlan, seam: Stretch) -> Block:
            one, two = seam.beside
            return pin_stretch(pressing, seam, one if seam.toward == two else two)

        self._do(other)

    def open_seam(self) -> None:
        """Open the seam picked, or close it again."""

        def opened(pressing: PressingPlan, seam: Stretch) -> Block:
            if seam.toward is not None:
                return pin_stretch(pressing, seam, None)
            if pressing.pinned(seam.span):
                return unpin_stretch(pressing, seam)
            return pin_stretch(pressing, seam, seam.beside[0])

        self._do(opened)

    def pin(self) -> None:
        """Pin the seam picked as it is, or let go of it."""

        def pinned(pressing: PressingPlan, seam: Stretch) -> Block:
            if pressing.pinned(seam.span):
                return unpin_stretch(pressing, seam)
            return pin_stretch(pressing, seam, seam.toward)

        self._do(pinned)

    def pin_part(self) -> None:
        """Pin all seams of the unit that the seam picked is in, or else of what it makes."""

        def pinned(pressing: PressingPlan, seam: Stretch) -> Block:
            plan = None if self.session.presses_new else self.session.plan
            places = [p.part.faces for u in (plan.units if plan else ()) for p in u.unit.places]
            units = [faces for faces in places if seam.join.faces <= faces]
            return pin_within(pressing, min(units, key=len) if units else seam.join.faces)

        self._do(pinned)

    def spin(self) -> None:
        """Spin the centre, or leave it flat; a pin that says so is cleared."""
        pressing, met = self.session.pressing, self.centre_met()
        if pressing is None or met is None or self.second:
            return
        pinned = any(pin.vertex == met.junction.vertex for pin in pressing.pins)
        wish = None if pinned else met.state != "whirled"
        self.session.edit_block(pin_centre(pressing, met.junction, wish))

    def pick(self, seam: Stretch | None, met: Met | None) -> None:
        self.seam, self.met = seam, met
        self.setAccessibleDescription("" if seam is None else f"Seam {seam.join.number}")
        self.picked.emit()
        self.update()

    # --- mouse and keys -----------------------------------------------------------------------

    def at(self, point: QPointF) -> tuple[Stretch | None, Met | None]:
        """The junction at a place on screen, else the seam."""
        pressing = self.pressing
        if pressing is None:
            return None, None
        place = self.frame()
        x, y = place.back(point)
        scale = place.scale
        junctions = [
            (((x - jx) ** 2 + (y - jy) ** 2) ** 0.5, i)
            for i, met in enumerate(pressing.junctions)
            if met.junction.inside or met.counts
            for jx, jy in [met.junction.at.floats()]
        ]
        near, i = min(junctions, default=(float("inf"), -1))
        if near * scale <= theme.px(NEAR_JUNCTION):
            return None, pressing.junctions[i]
        seams = [
            (min(distance_to(c, (x, y)) for c in s.join.curves[s.begin : s.end]), i)
            for i, s in enumerate(pressing.stretches)
        ]
        near, i = min(seams, default=(float("inf"), -1))
        return (pressing.stretches[i] if near * scale <= theme.px(NEAR_SEAM) else None), None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        seam, met = self.at(event.position())
        if seam is not None and seam == self.seam:
            self.flip()
        else:
            self.pick(seam, met)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        under = self.at(event.position())
        if under != self._under:
            self._under = under
            self.pointed.emit()
            self.update()

    def leaveEvent(self, event: object) -> None:
        self._under = (None, None)
        self.pointed.emit()
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        do: Callable[[], None] | None = {
            Qt.Key.Key_F: self.flip,
            Qt.Key.Key_O: self.open_seam,
            Qt.Key.Key_P: self.pin,
            Qt.Key.Key_R: self.pin_part,
            Qt.Key.Key_W: self.spin,
            Qt.Key.Key_Right: lambda: self._step_seam(1),
            Qt.Key.Key_Left: lambda: self._step_seam(-1),
            Qt.Key.Key_Down: lambda: self._step_junction(1),
            Qt.Key.Key_Up: lambda: self._step_junction(-1),
        }.get(Qt.Key(event.key()))
        if do is None or event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            super().keyPressEvent(event)
        else:
            do()

    def _step_seam(self, by: int) -> None:
        pressing = self.pressing
        if pressing is None or not pressing.stretches:
            return
        seams = pressing.stretches
        now = seams.index(self.seam) if self.seam in seams else -1 if by > 0 else 0
        self.pick(seams[(now + by) % len(seams)], None)

    def _step_junction(self, by: int) -> None:
        pressing = self.pressing
        junctions = [m for m in pressing.junctions if m.junction.inside] if pressing else []
        if junctions:
            now = junctions.index(self.met) if self.met in junctions else -1 if by > 0 else 0
            self.pick(None, junctions[(now + by) % len(junctions)])

    # --- picture ------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        pressing = self.pressing
        place = self.frame()
        painter.drawPixmap(0, 0, self._pressed(place, pressing))
        if pressing is not None:
            for seam, met, strong in ((*self._under, False), (self.seam, self.met, True)):
                self._draw_picked(painter, place, pressing, seam, met, strong)
        painter.setPen(theme.INK_SOFT)
        painter.setFont(theme.font(9))
        words = {
            "back": "Seen from the back: left and right change places.",
            "front": "Seen from the front; darker where a dark allowance would show through.",
            "layers": "Seen from the front: the darker, the more layers lie there.",
        }[self.view]
        painter.drawText(QRectF(0, 0, self.width(), theme.px(20)), words)
        painter.end()

    def _pressed(self, place: ScreenFrame, pressing: PressingPlan | None) -> QPixmap:
        """The block with its marks, drawn once."""
        key = (pressing, self._drawn_block(pressing), self.view, self.session.grey, self.size(),
               self.session.project.fabrics)  # fmt: skip
        if self._drawn is None or self._drawn[0] != key:
            ratio = self.devicePixelRatioF()
            pixmap = QPixmap(self.size() * ratio)
            pixmap.setDevicePixelRatio(ratio)
            pixmap.fill(Qt.GlobalColor.transparent)
            with QPainter(pixmap) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                figure = self._figure(place.placed, pressing)
                draw_figure(painter, figure, self.session.project, grey=self.session.grey)
            self._drawn = key, pixmap
        return self._drawn[1]

    def _figure(self, placed: figures.Frame, pressing: PressingPlan | None) -> figures.Figure:
        layers = pressing.layers if pressing is not None else ()
        project = self.session.project
        drawn = self._drawn_block(pressing)
        block = pressed_figure(drawn, layers, project, placed, self.view)
        if pressing is None:
            return block
        held = held_figure(pressing, placed)
        if self.view == "layers":
            return block + counts_figure(pressing, placed) + held
        return block + arrows_figure(pressing, placed) + junctions_figure(pressing, placed) + held

    def _draw_picked(
        self,
        painter: QPainter,
        place: ScreenFrame,
        plan: PressingPlan,
        seam: Stretch | None,
        met: Met | None,
        strong: bool,
    ) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        ink = theme.ACCENT if strong else theme.INK
        if met is not None:
            painter.setPen(QPen(ink, 2.6))
            painter.drawEllipse(place.spot(met.junction.at), theme.px(13), theme.px(13))
        if seam is not None:
            path = _seam_path(place, seam)
            for colour, width in ((theme.PAPER, 6.0), (ink, 3.4)):
                painter.setPen(QPen(colour, width))
                painter.drawPath(path)
            size = max(arrow_size(plan, seam, place.placed), theme.px(12))
            way = way_figure(plan, seam, place.placed, size * 1.2, strong)
            draw_figure(painter, way, self.session.project)


def _seam_path(place: ScreenFrame, seam: Stretch) -> QPainterPath:
    """A seam on screen."""
    path = QPainterPath()
    for curve in seam.join.curves[seam.begin : seam.end]:
        path.addPath(place.transform.map(curve_path(curve)))
    return path
