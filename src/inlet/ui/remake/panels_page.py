"""The page “Centre a motif”: a piece, the block it becomes, what to do; many packed."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Signal
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QVBoxLayout, QWidget

from inlet.core.figures import (
    Box,
    Frame,
    motif_figure,
    packed_figure,
    panel_figure,
    shown_of_piece,
)
from inlet.core.numbers import vulgar_text
from inlet.core.panels import packed_lines, panel_text, photo_scale
from inlet.core.planning import move_text
from inlet.core.words import size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.panel_model import PanelModel
from inlet.ui.remake.piece_picture import PiecePicture
from inlet.ui.widgets.drawing import box_of
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import button, column, label, when_seen

LARGE_TEXT = 1.4
"""From this size of text on the pictures stand below one another."""


class PanelsPage(QWidget):
    pointed = Signal(object)

    def __init__(self, model: PanelModel) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.model = model
        layout = column(self, 0, 8)
        self.verdict = label("", "size", True)
        self.about = label("", "", True)
        self.begin = button("Add a panel block", model.begin, kind="primary")
        for part in (self.verdict, self.about, self.begin):
            layout.addWidget(part)
        self.piece = PiecePicture(model)
        self.block = FigurePicture("The block it becomes", model, self._paint_block)
        large = theme.text_scale() >= LARGE_TEXT
        self.pictures = QWidget()
        sides: QBoxLayout = QVBoxLayout(self.pictures) if large else QHBoxLayout(self.pictures)
        sides.setContentsMargins(0, 0, 0, 0)
        sides.setSpacing(theme.px(16))
        sides.addWidget(self.piece, 3)
        right = column(spacing=6)
        self.block_words = label("", "heading", True)
        self.steps = label("", "", True)
        right.addWidget(self.block_words)
        right.addWidget(self.block, 1)
        right.addWidget(self.steps)
        sides.addLayout(right, 2)
        layout.addWidget(self.pictures, 3)
        self.many = QWidget()
        many = column(self.many, 0, 6)
        self.packed = FigurePicture("Panels packed into a top", model, self._paint_packed)
        self.packed_words = label("", "small", True)
        many.addWidget(label("All panels in one top", "heading"))
        many.addWidget(self.packed, 1)
        many.addWidget(self.packed_words)
        layout.addWidget(self.many, 2)
        layout.addStretch(0)
        self.piece.pointed.connect(self.pointed)
        when_seen(self, self.refresh, model.changed, model.session.planned)()

    def refresh(self) -> None:
        model, session = self.model, self.model.session
        ready = model.panel is not None
        self.pictures.setVisible(ready)
        self.begin.setVisible(not ready)
        many = len(model.panels) > 1
        self.many.setVisible(many)
        if many:
            titles = [block.title for block in model.panels]
            lines = packed_lines(model.packed, titles, session.measure)
            self.packed_words.setText(vulgar_text("\n".join(lines)))
            self.packed.update()
        if not ready:
            self.verdict.setText("A picture in the middle of a block")
            self.about.setVisible(True)
            self.about.setText(
                "A shirt, a panel or another print whose motif must sit in the middle although the "
                "fabric is short on one side: the missing strip comes from the side with plenty."
            )
            return
        measure, block = session.measure, session.block
        self.verdict.setText(vulgar_text(panel_text(block, measure)))
        raw = size_text(tuple(side + 2 * measure.seam for side in block.finished), measure)  # type: ignore[arg-type]
        self.block_words.setText(vulgar_text(f"The block, trimmed to {raw}"))
        self.block.update()
        self._show_steps()

    def _show_steps(self) -> None:
        session = self.model.session
        plan = session.plan
        if plan is None:
            self.steps.setText("…")
            return
        problems = [p.text for p in plan.problems if p.code.startswith("panel")]
        self.about.setVisible(bool(problems))
        self.about.setText(vulgar_text(" ".join(problems)))
        lines = [
            move_text(move.text, unit.in_use, session.project)
            for unit in plan.units if unit.panel is not None
            for move in unit.in_use.moves
        ]  # fmt: skip
        self.steps.setText(
            vulgar_text("\n".join(f"{i}. {line}" for i, line in enumerate(lines, 1)))
        )

    def _paint_block(self, painter: QPainter, box: Box) -> None:
        """The block, what shows of the piece as it was photographed."""
        model, session = self.model, self.model.session
        if model.panel is None:
            return
        block, measure = session.block, session.measure
        wide, high = map(float, block.finished)
        frame = Frame.fit(box, (0, 0, wide, high), theme.text_scale())
        draw_figure(painter, panel_figure(block, measure, frame), session.project,
                    grey=session.grey)  # fmt: skip
        image, photo = model.photo, model.panel.photo
        shown = shown_of_piece(block, measure)
        if image is None or photo is None or shown is None or session.grey:
            return
        there, piece = shown
        pixels = image.width() / photo_scale(photo)
        x, y = (float(at) * image.width() for at in photo.corner)
        source = QRectF(
            x + piece[0] * pixels, y + piece[1] * pixels,
            (piece[2] - piece[0]) * pixels, (piece[3] - piece[1]) * pixels,
        )  # fmt: skip
        target = QRectF(QPointF(*frame.at(*there[:2])), QPointF(*frame.at(*there[2:])))
        painter.drawImage(target, image, source)
        draw_figure(painter, motif_figure(block, measure, frame), session.project)

    def _paint_packed(self, painter: QPainter, box: Box) -> None:
        panels, session = self.model.panels, self.model.session
        if len(panels) < 2:
            return
        top = self.model.packed
        frame = Frame.fit(box, (0, 0, float(top.wide), float(top.high)), theme.text_scale())
        fabrics = [block.panel.fabric if block.panel is not None else None for block in panels]
        figure = packed_figure(top, fabrics, [block.title for block in panels], frame)
        draw_figure(painter, figure, session.project, grey=session.grey)


@guarded
class FigurePicture(QWidget):
    """A picture as large as there is room, painted by ``paint``."""

    def __init__(
        self, name: str, model: PanelModel, paint: Callable[[QPainter, Box], None]
    ) -> None:
        super().__init__()
        self._paint = paint
        self.setMinimumSize(theme.px(140), theme.px(150))
        self.setAccessibleName(name)
        model.changed.connect(self.update)

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (4, 4, -4, -4)))
        self._paint(painter, box_of(box))
        painter.end()
