"""What comes of slices set again: pieces are chosen, turned and swapped there."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QApplication, QWidget

from inlet.core.draft import draft
from inlet.core.figures import place_boxes, set_again_figure
from inlet.core.remake import Remade
from inlet.core.units import picture_of
from inlet.core.words import size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.slicing import Slicing
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame, draw_sheet
from inlet.ui.widgets.painting import draw_figure

ARROWS = {
    Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1),
}  # fmt: skip


@guarded
class ResultPicture(QWidget):
    """Click a piece or go to it with the arrow keys; R turns it, F flips it where that can be, a
    drag onto another or Shift with an arrow swaps. ``across`` blocks are shown side by side."""

    pointed = Signal(object)

    def __init__(self, slicing: Slicing) -> None:
        super().__init__()
        self.slicing = slicing
        self.across = 1
        self._from: int | None = None
        self._began = QPointF()
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(theme.px(160), theme.px(220))
        self.setAccessibleName("The new block")
        slicing.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(360), theme.px(360))

    def show_repeats(self, across: int) -> None:
        self.across = across
        self.update()

    def frame(self, how: Remade) -> ScreenFrame:
        size = how.size if self.across == 1 else how.set_again.block.finished
        wide, high = (float(side) * self.across for side in size)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (8, 8, -8, -8)))
        return ScreenFrame.fit(box, (0, 0, wide, high))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        how, session = self.slicing.how, self.slicing.session
        if how is not None:
            picture = how.set_again.picture
            frame = self.frame(how)
            if self.across == 1:
                chosen = self.slicing.chosen if self.hasFocus() else None
                nests = self.slicing.nesting
                junctions = nests.junctions if nests is not None else ()
                figure = set_again_figure(picture, how, frame.placed, chosen, junctions)
                draw_figure(painter, figure, session.project, grey=session.grey)
            else:
                wide, high = map(float, how.set_again.block.finished)
                drawn = draft(how.set_again.block)
                picture = picture_of(drawn, frozenset(range(len(drawn.patches))))
                for k in range(self.across**2):
                    corner = frame.at(k % self.across * wide, k // self.across * high)
                    draw_sheet(
                        painter, frame.moved(corner), picture, session.project, grey=session.grey
                    )
        painter.end()

    def place_at(self, at: QPointF) -> int | None:
        """The place under the hand."""
        how = self.slicing.how
        if how is None or self.across > 1:
            return None
        x, y = self.frame(how).back(at)
        for i, (left, top, right, bottom) in enumerate(place_boxes(how)):
            if left <= x <= right and top <= y <= bottom:
                return i
        return None

    def reading(self, place: int | None) -> Reading | None:
        how = self.slicing.how
        if how is None or place is None or place >= len(how.laid):
            return None
        piece = how.slices[how.laid[place].piece]
        if piece.shape:
            return None  # it is no rectangle
        seam = self.slicing.session.measure.seam
        raw = size_text((piece.size[0] + 2 * seam, piece.size[1] + 2 * seam),
                        self.slicing.session.measure)  # fmt: skip
        return Reading(f"Piece {piece.label}, cut {raw}", piece.size[0], piece.size[0] + 2 * seam)

    # --- by hand --------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self._from, self._began = self.place_at(event.position()), event.position()
        if self._from is not None:
            self.slicing.choose(self._from)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        to, begun = self.place_at(event.position()), self._from
        self._from = None
        if to is not None and begun is not None and to != begun:
            self.slicing.swap(begun, to)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self.place_at(event.position()) is not None:
            self.slicing.turn()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        far = (event.position() - self._began).manhattanLength()
        if self._from is not None and far > QApplication.startDragDistance():
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        else:
            self.unsetCursor()
        self.pointed.emit(self.reading(self.place_at(event.position())))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def focusInEvent(self, event: object) -> None:
        self.update()

    def focusOutEvent(self, event: object) -> None:
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        how, key = self.slicing.how, Qt.Key(event.key())
        if how is None or self.across > 1:
            super().keyPressEvent(event)
        elif key in ARROWS:
            to = self._beside(how, *ARROWS[key])
            if to is None:
                return
            if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
                self.slicing.swap(self.slicing.chosen, to)
            else:
                self.slicing.choose(to)
                self.pointed.emit(self.reading(to))
        elif key == Qt.Key.Key_R:
            back = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
            self.slicing.turn(3 if back else 1)
        elif key == Qt.Key.Key_F:
            self.slicing.flip()
        else:
            super().keyPressEvent(event)

    def _beside(self, how: Remade, across: int, down: int) -> int | None:
        here = how.slices[min(self.slicing.chosen, len(how.slices) - 1)]
        wanted = here.column + across, here.row + down
        places = [(each.column, each.row) for each in how.slices]
        return places.index(wanted) if wanted in places else None
