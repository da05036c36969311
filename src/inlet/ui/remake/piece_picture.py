"""The piece of a panel, to scale or on its photograph: motif, edges and places are dragged."""

from __future__ import annotations

from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QWidget

from inlet.core.figures import Disc, Figure, Frame, Polyline, piece_figure
from inlet.core.panels import photo_scale
from inlet.core.project import Panel
from inlet.core.words import length_text, size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.panel_model import PanelModel, Place
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.painting import draw_figure

NEAR = 13
"""Pixels from a handle within which the hand takes it."""
ROUND = 0.22
"""Room round the piece, as a part of its side, for what it lacks."""
Handle = Literal[
    "motif-corner", "motif-end", "motif", "piece-corner", "piece-end", "point-1", "point-2"
]
ON_PIECE: tuple[Handle, ...] = ("motif-corner", "motif-end", "motif")
ON_PHOTO: tuple[Handle, ...] = (*ON_PIECE, "piece-corner", "piece-end", "point-1", "point-2")


@guarded
class PiecePicture(QWidget):
    """Drag the motif, or a corner of its box; on a photograph the corners of the piece and the two
    places that give the scale, too. N goes to the next of them, the arrow keys move it."""

    pointed = Signal(object)

    def __init__(self, model: PanelModel) -> None:
        super().__init__()
        self.model = model
        self.held: Handle | None = None
        self._grip: Place = (0.0, 0.0)  # where in the motif it was taken
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(theme.px(220), theme.px(240))
        self.setAccessibleName("The piece and its motif")
        model.changed.connect(self.update)

    @property
    def panel(self) -> Panel:
        panel = self.model.panel
        assert panel is not None, "the picture is of a panel"
        return panel

    def _origin(self) -> Place:
        """The piece's top left, in lengths from the photograph's; (0, 0) without one."""
        photo = self.panel.photo
        if self.model.photo is None or photo is None:
            return 0.0, 0.0
        scale = photo_scale(photo)
        return float(photo.corner[0]) * scale, float(photo.corner[1]) * scale

    def frame(self) -> ScreenFrame:
        """Lengths from the photograph's top left, or from the piece's, on screen."""
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (8, 8, -8, -8)))
        image, photo = self.model.photo, self.panel.photo
        if image is not None and photo is not None:
            wide = photo_scale(photo)
            return ScreenFrame.fit(box, (0, 0, wide, wide * image.height() / image.width()))
        wide, high = map(float, self.panel.piece)
        a, b = ROUND * wide, ROUND * high
        return ScreenFrame.fit(box, (-a, -b, wide + a, high + b))

    def _piece_frame(self) -> Frame:
        """Lengths from the piece's top left."""
        return self.frame().moved(self.frame().at(*self._origin())).placed

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        model, session = self.model, self.model.session
        if model.panel is not None:
            image = model.photo
            if image is not None:
                frame = self.frame()
                wide = photo_scale(self.panel.photo) if self.panel.photo is not None else 1.0
                high = wide * image.height() / image.width()
                painter.drawImage(QRectF(frame.at(0, 0), frame.at(wide, high)), image)
            handles = [self._place_of(handle) for handle in self._handles() if handle != "motif"]
            figure = piece_figure(
                session.block, session.measure, self._piece_frame(),
                [(x - self._origin()[0], y - self._origin()[1]) for x, y in handles],
                image is not None,
            )  # fmt: skip
            draw_figure(painter, (*figure, *self._between_points()), session.project,
                        grey=session.grey)  # fmt: skip
        painter.end()

    def _between_points(self) -> Figure:
        """The line between the two places."""
        if self.model.photo is None:
            return ()
        frame = self.frame().placed
        ends = tuple(frame.at(*self._place_of(handle)) for handle in ON_PHOTO[-2:])
        return (Polyline(ends, "ruler"), *(Disc(end, 4.0 * frame.unit, "dot") for end in ends))

    # --- by hand ------------------------------------------------------------------------------

    def _handles(self) -> tuple[Handle, ...]:
        return ON_PHOTO if self.model.photo is not None else ON_PIECE

    def _place_of(self, handle: Handle) -> Place:
        """Where a handle lies, in lengths; the motif's is its middle."""
        panel, (x, y) = self.panel, self._origin()
        left, top = x + float(panel.left), y + float(panel.top)
        wide, high = map(float, panel.motif)
        if handle == "motif-corner":
            return left, top
        if handle == "motif-end":
            return left + wide, top + high
        if handle == "motif":
            return left + wide / 2, top + high / 2
        if handle == "piece-corner":
            return x, y
        if handle == "piece-end":
            return x + float(panel.piece[0]), y + float(panel.piece[1])
        assert panel.photo is not None, "places lie on a photograph"
        a, b = panel.photo.points[handle == "point-2"]
        scale = photo_scale(panel.photo)
        return float(a) * scale, float(b) * scale

    def spot_of(self, handle: Handle) -> QPointF:
        """Where a handle is on screen."""
        return self.frame().at(*self._place_of(handle))

    def handle_at(self, at: QPointF) -> Handle | None:
        for handle in self._handles():
            near = (self.spot_of(handle) - at).manhattanLength() <= theme.px(NEAR)
            if handle != "motif" and near:
                return handle
        inside = QRectF(self.spot_of("motif-corner"), self.spot_of("motif-end"))
        return "motif" if inside.contains(at) else None

    def move_handle(self, handle: Handle, to: Place) -> None:
        """Put a handle there, in lengths; the motif's is its top left."""
        model, (x, y) = self.model, self._origin()
        if handle == "motif":
            model.move_motif(to[0] - x, to[1] - y)
        elif handle in ("motif-corner", "motif-end"):
            other = self._place_of("motif-end" if handle == "motif-corner" else "motif-corner")
            model.take_motif((to[0] - x, to[1] - y), (other[0] - x, other[1] - y))
        elif handle in ("piece-corner", "piece-end"):
            other = self._place_of("piece-end" if handle == "piece-corner" else "piece-corner")
            model.take_piece(to, other)
        elif self.panel.photo is not None:
            scale = photo_scale(self.panel.photo)
            model.take_point(int(handle == "point-2"), (to[0] / scale, to[1] / scale))
        self.pointed.emit(self.reading(handle))

    def reading(self, handle: Handle | None) -> Reading | None:
        """What is under the hand, for the tape."""
        if handle is None or self.model.panel is None:
            return None
        panel, measure = self.panel, self.model.session.measure
        if handle.startswith("motif"):
            left, top = length_text(panel.left, measure), length_text(panel.top, measure)
            words = f"Motif {size_text(panel.motif, measure)}, {left} from the left, {top} down"
            return Reading(words, None, panel.motif[0])
        if handle.startswith("piece"):
            return Reading(f"Piece {size_text(panel.piece, measure)}", None, panel.piece[0])
        distance = panel.photo.distance if panel.photo is not None else panel.piece[0]
        return Reading("Between the two places", None, distance)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.model.panel is None:
            return
        self.setFocus()
        self.held = self.handle_at(event.position())
        if self.held == "motif":
            x, y = self.frame().back(event.position())
            left, top = self._place_of("motif-corner")
            self._grip = x - left, y - top

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.model.panel is None:
            return
        at = event.position()
        if event.buttons() & Qt.MouseButton.LeftButton and self.held is not None:
            x, y = self.frame().back(at)
            if self.held == "motif":
                x, y = x - self._grip[0], y - self._grip[1]
            self.move_handle(self.held, (x, y))
            return
        under = self.handle_at(at)
        moves = Qt.CursorShape.SizeAllCursor if under else Qt.CursorShape.ArrowCursor
        self.setCursor(Qt.CursorShape.OpenHandCursor if under == "motif" else moves)
        self.pointed.emit(self.reading(under))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        steps = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0),
                 Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}  # fmt: skip
        if self.model.panel is None or (key != Qt.Key.Key_N and key not in steps):
            super().keyPressEvent(event)
            return
        handles = self._handles()
        if self.held not in handles:
            self.held = "motif"
        elif key == Qt.Key.Key_N:
            self.held = handles[(handles.index(self.held) + 1) % len(handles)]
        if key in steps:
            mark = float(self.model.session.measure.mark)
            x, y = self._place_of("motif-corner" if self.held == "motif" else self.held)
            across, down = steps[key]
            self.move_handle(self.held, (x + across * mark, y + down * mark))
        self.pointed.emit(self.reading(self.held))
