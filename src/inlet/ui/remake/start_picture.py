"""The start block with its cuts, each dragged along the ruler's marks."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QWidget

from inlet.core.draft import Draft, draft
from inlet.core.figures import cut_apart_figure
from inlet.core.numbers import Exact, Fraction
from inlet.core.piecing import raw_sheet
from inlet.core.project import Cuts
from inlet.core.remake import Remade, SliceError, sliced
from inlet.core.table import Sheet
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.slicing import Slicing
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.painting import draw_figure

NEAR = 9
"""Pixels from a cut within which the hand takes it."""
Cut = tuple[int, int]
"""A cut: across (0) or down (1), and which, in order."""


@guarded
class StartPicture(QWidget):
    """Drag a cut, or go to the next one with N and move it with the arrow keys; the cut as far on
    the other side of the centre goes along."""

    pointed = Signal(object)

    def __init__(self, slicing: Slicing) -> None:
        super().__init__()
        self.slicing = slicing
        self.held: Cut | None = None
        self._raw: tuple[Draft, Exact, Sheet] | None = None  # what is cut, with its raw edges
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(theme.px(160), theme.px(220))
        self.setAccessibleName("The start block and its cuts")
        slicing.changed.connect(self.update)

    def frame(self) -> ScreenFrame:
        wide, high = map(float, self.slicing.frame)
        s = float(self.slicing.session.measure.seam)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (8, 8, -8, -8)))
        return ScreenFrame.fit(box, (-s, -s, wide + s, high + s))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        session, how = self.slicing.session, self.slicing.how
        drawn = how.starts[0] if how is not None else draft(self.slicing.start)
        seam = session.measure.seam
        if self._raw is None or self._raw[0] is not drawn or self._raw[1] != seam:
            sheet = raw_sheet(drawn, fabric_faces(drawn, how), seam)
            self._raw = drawn, seam, sheet
        sheet = self._raw[2]
        frame = self.frame()
        if how is None:
            figure = cut_apart_figure(sheet, (), seam, frame.placed)
        else:
            figure = cut_apart_figure(sheet, how.slices, seam, frame.placed)
        draw_figure(painter, figure, session.project, grey=session.grey)
        painter.end()

    # --- cuts ---------------------------------------------------------------------------------

    def cuts(self) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
        made_from = self.slicing.made_from
        if made_from is None:
            return (), ()
        return made_from.cuts.upright, made_from.cuts.level

    def cut_at(self, at: QPointF) -> Cut | None:
        """The cut under the hand."""
        cuts_near: list[tuple[float, Cut]] = []
        place = self.frame().back(at)
        for axis, cuts in enumerate(self.cuts()):
            half = float(self.slicing.frame[axis]) / 2
            for i, cut in enumerate(cuts):
                off = abs(place[axis] - half - float(cut)) * self.frame().scale
                cuts_near.append((off, (axis, i)))
        near = [each for each in cuts_near if each[0] <= theme.px(NEAR)]
        return min(near)[1] if near else None

    def move_cut(self, which: Cut, to: Exact) -> None:
        """Put a cut so far from the centre, or as far that way as it can be; its mirror image goes
        along with it."""
        axis, i = which
        mark = self.slicing.session.measure.mark
        before = self.cuts()[axis][i]
        back = mark if to < before else -mark
        while to != before and (to < before) == (back > 0):
            cuts = self._moved(axis, before, to)
            if cuts is not None:
                self.slicing.cut(cuts)
                self.held = axis, (cuts.upright, cuts.level)[axis].index(to)
                return
            to = to + back

    def _moved(self, axis: int, before: Exact, to: Exact) -> Cuts | None:
        """The cuts, one of them moved with its mirror image; None where no block can be cut so."""
        cuts = list(self.cuts())
        moved = {-before: -to, before: to}  # of a cut through the centre it moves itself
        cuts[axis] = tuple(sorted({moved.get(cut, cut) for cut in cuts[axis]}))
        if len(cuts[axis]) < len(self.cuts()[axis]):
            return None
        moved_cuts = Cuts(cuts[0], cuts[1], self.slicing.diagonal)
        session = self.slicing.session
        try:
            sliced(self.slicing.start.finished, moved_cuts, session.measure)
        except SliceError:
            return None
        return moved_cuts

    def reading(self, which: Cut | None) -> Reading | None:
        """How far a cut lies from the centre, for the tape."""
        cuts = self.cuts()
        if which is None or which[1] >= len(cuts[which[0]]):
            return None
        cut = cuts[which[0]][which[1]]
        side = (("left of", "right of"), ("above", "below"))[which[0]][cut > 0]
        measure = self.slicing.session.measure
        if cut == 0:
            return Reading("Cut through the centre", None, Fraction(0))
        words = f"Cut {length_text(abs(cut), measure)} {side} the centre"
        mark = abs(cut) if isinstance(cut, Fraction) and cut % measure.mark == 0 else None
        return Reading(words, None, abs(cut), mark)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self.held = self.cut_at(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if event.buttons() & Qt.MouseButton.LeftButton and self.held is not None:
            axis, _ = self.held
            half = float(self.slicing.frame[axis]) / 2
            off = self.frame().back(event.position())[axis] - half
            mark = self.slicing.session.measure.mark
            self.move_cut(self.held, round(off / float(mark)) * mark)
            self.pointed.emit(self.reading(self.held))
            return
        under = self.cut_at(event.position())
        shape = Qt.CursorShape.ArrowCursor
        if under is not None:
            shape = (Qt.CursorShape.SizeHorCursor, Qt.CursorShape.SizeVerCursor)[under[0]]
        self.setCursor(shape)
        self.pointed.emit(self.reading(under))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        every = [(axis, i) for axis, cuts in enumerate(self.cuts()) for i in range(len(cuts))]
        key = Qt.Key(event.key())
        arrows = {
            Qt.Key.Key_Left: (0, -1), Qt.Key.Key_Right: (0, 1),
            Qt.Key.Key_Up: (1, -1), Qt.Key.Key_Down: (1, 1),
        }  # fmt: skip
        if not every or (key != Qt.Key.Key_N and key not in arrows):
            super().keyPressEvent(event)
            return
        if self.held not in every:
            self.held = every[0]
        elif key == Qt.Key.Key_N:
            self.held = every[(every.index(self.held) + 1) % len(every)]
        if key in arrows:
            axis, step = arrows[key]
            if self.held is not None and self.held[0] == axis:
                cut = self.cuts()[axis][self.held[1]]
                self.move_cut(self.held, cut + step * self.slicing.session.measure.mark)
        self.pointed.emit(self.reading(self.held))


def fabric_faces(drawn: Draft, how: Remade | None) -> frozenset[int]:
    """The patches of a start block as it lies to be cut; what lies round it on point is none."""
    every = range(len(drawn.patches))
    if how is None or how.on_point is None:
        return frozenset(every)
    half = float(drawn.block.finished[0]) / 2
    inside = []
    for face in every:
        outline = drawn.patches[face].outline
        x, y = (sum(float(p[axis]) for p in outline) / len(outline) - half for axis in (0, 1))
        if abs(x) + abs(y) < half:
            inside.append(face)
    return frozenset(inside)
