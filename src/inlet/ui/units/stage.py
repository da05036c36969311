"""The units stage: the block pulled apart, the methods for the unit picked side by side, and the
moves of the one in use as a strip of pictures."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from inlet.core.planning import move_text
from inlet.core.table import like_ones_together
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.units.apart import BlockApart
from inlet.ui.units.board import MethodBoard
from inlet.ui.widgets.drawing import MovePicture
from inlet.ui.widgets.parts import column, empty, label, scrolled, when_seen

MOST_MOVES = 24
BESIDE = 1.4
"""Text scale from which the block stands above its methods, not beside them."""


@guarded
class UnitsStage(QWidget):
    """What is picked in the drawing is compared beside it and made below."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.apart = BlockApart(session)
        self.board = MethodBoard(session)
        self.moves = MoveStrip(session)
        self.apart.pointed.connect(self.pointed)
        body = QWidget()
        body.setObjectName("pageBody")
        layout = column(body, 0, 0)
        # Large text has the block above its methods, and scrolls: beside them both are too small.
        beside = theme.text_scale() < BESIDE
        above = QHBoxLayout() if beside else QVBoxLayout()
        above.setSpacing(0)
        above.addWidget(self.apart, 4)
        board = scrolled(self.board, "page")
        board.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        above.addWidget(board, 9)
        layout.addLayout(above, 8)
        layout.addWidget(self.moves, 5)
        self.apart.setMinimumHeight(theme.px(200))
        board.setMinimumHeight(theme.px(240))
        column(self, 0).addWidget(scrolled(body, "page"))

    @property
    def hears(self) -> QWidget:
        """What takes the keys that its card or picture tells of."""
        return self.apart

    def reading(self) -> Reading | None:
        return self.apart.reading()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.apart.pull_apart()


class MoveStrip(QScrollArea):
    """The moves of the method in use, one picture after the other; scrolled sideways."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("strip")
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Moves at the table")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(theme.px(220))
        body = QWidget()
        body.setObjectName("stripBody")
        self.line = QHBoxLayout(body)
        self.line.setContentsMargins(*(theme.px(n) for n in (16, 8, 16, 8)))
        self.line.setSpacing(theme.px(14))
        self.setWidget(body)
        when_seen(self, self.refresh, session.planned, session.selected)

    def refresh(self) -> None:
        empty(self.line)
        unit, plan = self.session.unit, self.session.plan
        if unit is None or plan is None:
            return
        method, project = unit.in_use, self.session.project
        stacks = plan.stacks[unit.unit.label]
        shown = like_ones_together(method.moves)
        if not shown:
            self.line.addWidget(label("One piece: cut it, and it is ready to sew.", "small", True))
        for i, (move, number) in enumerate(shown[:MOST_MOVES]):
            card = QWidget()
            card.setFixedWidth(theme.px(158))
            inner = column(card, 0, 4)
            inner.addWidget(MovePicture(move, project, 90, self.session.grey), 3)
            text = f"{i + 1}.  {move_text(move.text, method, project, stacks, number)}"
            words = label(text, "caption", True)
            words.setAlignment(Qt.AlignmentFlag.AlignTop)
            words.setMinimumHeight(theme.px(64))
            inner.addWidget(words)
            self.line.addWidget(card)
        if len(shown) > MOST_MOVES:
            more = f"and {len(shown) - MOST_MOVES} more like these"
            self.line.addWidget(label(more, "small"))
        self.line.addStretch(1)
        self.horizontalScrollBar().setValue(0)
