"""A table of text cells to read: a head, lines, one column that takes what room is left."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableWidget, QTableWidgetItem

from inlet.core.numbers import vulgar_text
from inlet.ui import theme
from inlet.ui.guard import guarded

FEW = 6
"""So many columns fill the page; of more, each takes what it needs."""


@guarded
class TextTable(QTableWidget):
    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setWordWrap(True)
        self.setShowGrid(False)
        self.setAlternatingRowColors(True)
        self.verticalHeader().hide()
        self.horizontalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft)

    def show_lines(self, lines: Sequence[Sequence[str]]) -> None:
        """The first line is the head."""
        self.clear()
        head, *rest = lines or [[]]
        self.setColumnCount(len(head))
        self.setRowCount(len(rest))
        self.setHorizontalHeaderLabels([vulgar_text(text) for text in head])
        for i, line in enumerate(rest):
            for k, text in enumerate(line):
                item = QTableWidgetItem(vulgar_text(text))
                item.setFont(theme.font(10.5))
                self.setItem(i, k, item)
        mode = QHeaderView.ResizeMode.ResizeToContents
        self.horizontalHeader().setSectionResizeMode(mode)
        self.horizontalHeader().setStretchLastSection(len(head) <= FEW)
        self.verticalHeader().setSectionResizeMode(mode)

    def cell(self, row: int, column: int) -> str:
        """What is read in a cell."""
        item = self.item(row, column)
        return item.text() if item is not None else ""
