"""The shelf in a window: look, search, take a block, or take one off."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QModelIndex, QSize, Signal
from PySide6.QtGui import QCloseEvent
from PySide6.QtWidgets import QDialog, QLineEdit, QListView, QMessageBox, QWidget

from inlet.core.cancellation import check
from inlet.core.numbers import vulgar_text
from inlet.files.problem import FileProblem
from inlet.files.shelf import (
    ShelfBlock,
    ShelfFacts,
    Unread,
    facts_of,
    read_shelf_block,
    remove_from_shelf,
    shelf_files,
)
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shelf.shelf_model import SIDE, ShelfModel
from inlet.ui.tasks.background import BackgroundTask
from inlet.ui.widgets.parts import button, column, label, row

AT_ONCE = 24
"""Files read for the first page; the others are read in turns."""
A_TURN = 60


@guarded
class ShelfDialog(QDialog):
    """``taken`` hands over the block that was chosen."""

    taken = Signal(object)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("The shelf")
        self.setObjectName("shelf")
        self.task = BackgroundTask(self)
        self.model = ShelfModel(self)
        self.unread: list[Unread] = []
        layout = column(self, 14, 10)
        self.line = QLineEdit()
        self.line.setPlaceholderText("Search: star, geese, 9 in, 3 fabrics …")
        self.line.setAccessibleName("Search the shelf")
        self.line.setClearButtonEnabled(True)
        self.line.textChanged.connect(self._look)
        layout.addWidget(self.line)
        self.list = QListView()
        self.list.setAccessibleName("Blocks on the shelf")
        self.list.setModel(self.model)
        self.list.setViewMode(QListView.ViewMode.IconMode)
        self.list.setResizeMode(QListView.ResizeMode.Adjust)
        self.list.setMovement(QListView.Movement.Static)
        self.list.setUniformItemSizes(True)
        self.list.setWordWrap(True)
        side = theme.px(SIDE)
        self.list.setIconSize(QSize(side, side))
        self.list.setGridSize(QSize(side + theme.px(30), side + theme.px(48)))
        self.list.activated.connect(lambda _: self._take())
        self.list.selectionModel().currentChanged.connect(self._chosen)
        layout.addWidget(self.list, 1)
        self.facts = label("", "", True)
        self.says = label("", "warning", True)
        self.says.hide()
        layout.addWidget(self.facts)
        layout.addWidget(self.says)
        self.take_ = button("Take this block", self._take)
        self.off = button("Take it off the shelf", self._take_off)
        layout.addLayout(row(self.off, 1, button("Close", self.close), self.take_))
        self.resize(min(theme.px(820), 1200), min(theme.px(600), 740))
        self._read()

    # --- reading ------------------------------------------------------------------------------

    def _read(self) -> None:
        """The first page at once, the rest in turns aside."""
        try:
            files = shelf_files()
        except FileProblem as problem:
            self._say(str(problem))
            files = []
        self._take_in([read_shelf_block(path) for path in files[:AT_ONCE]])
        self._read_on(files[AT_ONCE:])
        self._chosen(QModelIndex())

    def _read_on(self, files: list[Path]) -> None:
        if not files:
            self._learn(0)
            return

        def read() -> list[ShelfBlock | Unread]:
            read_now = []
            for path in files[:A_TURN]:
                check()
                read_now.append(read_shelf_block(path))
            return read_now

        def took(read_now: list[ShelfBlock | Unread]) -> None:
            self._take_in(read_now)
            self._read_on(files[A_TURN:])

        self.task.then(read, took)

    def _take_in(self, found: list[ShelfBlock | Unread]) -> None:
        self.unread += [each for each in found if isinstance(each, Unread)]
        self.model.add([each for each in found if isinstance(each, ShelfBlock)])
        if self.unread:
            more = f" (and {len(self.unread) - 1} more)" if len(self.unread) > 1 else ""
            self._say(f"Not shown, as it cannot be read: {self.unread[0].why}{more}")
        if not self.list.currentIndex().isValid() and self.model.shown:
            self.list.setCurrentIndex(self.model.index(0))

    def _learn(self, start: int) -> None:
        """What is told of each block, in turns."""
        blocks = self.model.blocks[start : start + A_TURN]
        if not blocks:
            return

        def work() -> dict[int, ShelfFacts]:
            known = {}
            for i, block in enumerate(blocks, start):
                check()
                known[i] = facts_of(block)
            return known

        def took(known: dict[int, ShelfFacts]) -> None:
            self.model.learn(known)
            self._chosen(self.list.currentIndex())
            self._learn(start + A_TURN)

        self.task.then(work, took)

    # --- choosing -----------------------------------------------------------------------------

    def _look(self, typed: str) -> None:
        self.model.look_for(typed)
        if self.model.shown:
            self.list.setCurrentIndex(self.model.index(0))
        self._chosen(self.list.currentIndex())

    def _chosen(self, index: QModelIndex, _before: QModelIndex | None = None) -> None:
        block, facts = self.model.block_at(index), self.model.facts_at(index)
        self.take_.setEnabled(block is not None)
        self.off.setEnabled(block is not None and not block.ships)
        if block is None:
            words = "" if self.model.shown else "Nothing on the shelf has all these words."
        else:
            told = facts.text() if facts is not None else "looking at it …"
            words = f"{block.block.title}: {told}"
        self.facts.setText(vulgar_text(words))

    def _take(self) -> None:
        block = self.model.block_at(self.list.currentIndex())
        if block is not None:
            self.close()
            self.taken.emit(block)

    def _take_off(self) -> None:
        block = self.model.block_at(self.list.currentIndex())
        if block is None or block.ships:
            return
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self, "Take it off the shelf?",
            f"Take {block.block.title} off the shelf? Projects that have it keep it.",
            buttons.Yes | buttons.Cancel, buttons.Cancel,
        )  # fmt: skip
        if answer != buttons.Yes:
            return
        try:
            remove_from_shelf(block)
        except FileProblem as problem:
            self._say(str(problem))
            return
        self.task.stop()
        self.model = ShelfModel(self)
        self.list.setModel(self.model)
        self.list.selectionModel().currentChanged.connect(self._chosen)
        self.unread = []
        self._read()

    def _say(self, text: str) -> None:
        self.says.setText(text)
        self.says.setVisible(bool(text))

    def closeEvent(self, event: QCloseEvent) -> None:
        self.task.stop()
        super().closeEvent(event)
