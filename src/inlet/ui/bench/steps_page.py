"""All steps: what is cut, sewn, pressed and trimmed of each, out of how many."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QAbstractItemView, QWidget

from inlet.core.bench import OVERVIEW_HEAD, StepLine
from inlet.core.numbers import vulgar_text
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import column, label
from inlet.ui.widgets.table import TextTable


@guarded
class StepsTable(TextTable):
    """A line a step; the space bar does one more of what is next of it, the backspace key one
    less."""

    asked = Signal(int)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.text() == " ":
            self.asked.emit(1)
        elif event.text() == "\b":
            self.asked.emit(-1)
        else:
            super().keyPressEvent(event)


@guarded
class StepsPage(QWidget):
    """The table, and what is spare; the line that is picked is what the ticket is about."""

    looked_at = Signal(int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.lines: Sequence[StepLine] = ()
        layout = column(self, 0, 8)
        self.table = StepsTable("All steps")
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.currentCellChanged.connect(lambda at, *_: self._look(at))
        self.spare = label("", "small", True)
        layout.addWidget(self.table, 1)
        layout.addWidget(self.spare)

    def show_lines(self, lines: Sequence[StepLine], spare: str) -> None:
        """The steps as they are now, the line that was picked kept."""
        at = max(0, self.table.currentRow())
        self.lines = lines
        self.table.blockSignals(True)
        self.table.show_lines([OVERVIEW_HEAD, *(line.cells for line in lines)])
        self.table.blockSignals(False)
        if lines:
            self.table.setCurrentCell(min(at, len(lines) - 1), 0)
        self.spare.setText(vulgar_text(spare))
        self.spare.setVisible(bool(spare))

    def _look(self, at: int) -> None:
        if 0 <= at < len(self.lines):
            self.looked_at.emit(self.lines[at].which)
