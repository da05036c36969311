"""What is on the shelf, as a list of pictures with their words; each is drawn when it is seen, in a
turn of its own, so that a page of them does not keep the hand waiting."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QObject,
    QPersistentModelIndex,
    Qt,
    QTimer,
)
from PySide6.QtGui import QPixmap

from inlet.core.draft import draft
from inlet.core.search import Index
from inlet.core.units import picture_of
from inlet.files.shelf import ShelfBlock, ShelfFacts, findable
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.thumbnails import SmallPicture, thumbnail

SIDE = 120
"""Pixels of a picture, growing with the text."""
At = QModelIndex | QPersistentModelIndex


@guarded
class ShelfModel(QAbstractListModel):
    """All blocks read so far, those shown that have every word typed."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.blocks: list[ShelfBlock] = []
        self.facts: dict[int, ShelfFacts] = {}
        self.shown: list[int] = []
        self._typed = ""
        self._pictures: dict[int, QPixmap] = {}
        self._asked: list[int] = []
        self._turn = QTimer(self)
        self._turn.setInterval(0)
        self._turn.timeout.connect(self._draw_next)
        self._blank = QPixmap(theme.px(SIDE), theme.px(SIDE))
        self._blank.fill(Qt.GlobalColor.transparent)

    def add(self, blocks: Sequence[ShelfBlock]) -> None:
        """More blocks, after the others."""
        self.blocks += blocks
        self._choose()

    def learn(self, facts: dict[int, ShelfFacts]) -> None:
        """What is told of some blocks has come to be known."""
        self.facts |= facts
        if self._typed:
            self._choose()

    def look_for(self, typed: str) -> None:
        self._typed = typed
        self._choose()

    def _choose(self) -> None:
        self.beginResetModel()
        things = (findable(block, self.facts.get(i)) for i, block in enumerate(self.blocks))
        self.shown = Index(things).find(self._typed)
        self.endResetModel()

    def block_at(self, index: At) -> ShelfBlock | None:
        row = index.row()
        return self.blocks[self.shown[row]] if 0 <= row < len(self.shown) else None

    def facts_at(self, index: At) -> ShelfFacts | None:
        row = index.row()
        return self.facts.get(self.shown[row]) if 0 <= row < len(self.shown) else None

    # --- as Qt asks -------------------------------------------------------------------------

    def rowCount(self, parent: At = QModelIndex()) -> int:  # noqa: B008
        return len(self.shown)

    def data(self, index: At, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        block = self.block_at(index)
        if block is None:
            return None
        if role == Qt.ItemDataRole.DecorationRole:
            return self._picture(self.shown[index.row()])
        if role == Qt.ItemDataRole.DisplayRole:
            return block.block.title
        if role in (Qt.ItemDataRole.ToolTipRole, Qt.ItemDataRole.AccessibleDescriptionRole):
            facts = self.facts_at(index)
            return facts.text() if facts is not None else ""
        return None

    def _picture(self, number: int) -> QPixmap:
        """A block's picture; a blank where it is yet to be drawn."""
        known = self._pictures.get(number)
        if known is None:
            known = self._pictures[number] = self._blank
            self._asked.append(number)
            self._turn.start()
        return known

    def _draw_next(self) -> None:
        number = self._asked.pop(0)
        if not self._asked:
            self._turn.stop()
        shelf_block = self.blocks[number]
        drawn = draft(shelf_block.block)
        picture = picture_of(drawn, frozenset(range(len(drawn.patches))))
        self._pictures[number] = thumbnail(
            SmallPicture(picture, ""), shelf_block.project, theme.px(SIDE), 1, False
        )
        if number in self.shown:
            row = self.index(self.shown.index(number))
            self.dataChanged.emit(row, row, [Qt.ItemDataRole.DecorationRole])
