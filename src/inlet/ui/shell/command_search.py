"""Find anything: a line to type in, over the window, and what it finds: actions, pages, fields."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PySide6.QtCore import QEvent, QObject, QSize, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QWidget

from inlet.core.search import Findable, Index
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.parts import column, label

SHOWN = 12
"""Lines of the list at most: the rest is found by another word."""
WIDTH = 560


class Command(NamedTuple):
    """Something that can be done or gone to: what it is called, where it is, its keys, other words
    people use for it."""

    title: str
    where: str
    keys: str
    words: str
    do: Callable[[], object]


@guarded
class CommandSearch(QFrame):
    """Lies over the window until something is chosen, or Escape. Up and Down choose, Enter does."""

    def __init__(self, body: QWidget) -> None:
        super().__init__(body)
        self.setObjectName("search")
        self.setAccessibleName("Find anything")
        layout = column(self, 12, 8)
        self.line = QLineEdit()
        self.line.setPlaceholderText("Find an action, a page or a field: fold, yardage, seam …")
        self.line.setAccessibleName("What to find")
        self.list = QListWidget()
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.list.setAccessibleName("What was found")
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.none = label("Nothing is called that. Try another word.", "small", True)
        layout.addWidget(self.line)
        layout.addWidget(self.list)
        layout.addWidget(self.none)
        self._commands: Sequence[Command] = ()
        self._index = Index(())
        self._before: QWidget | None = None
        self.line.textChanged.connect(self._look)
        self.line.installEventFilter(self)
        self.list.itemClicked.connect(lambda _: self._take())
        self.hide()

    def open(self, commands: Sequence[Command]) -> None:
        """Show all of some commands, ready to type."""
        self._before = self.window().focusWidget()
        self._commands = commands
        self._index = Index(Findable(c.title, f"{c.words} {c.where}") for c in commands)
        self.line.clear()
        self._look("")
        self.place()
        self.show()
        self.raise_()
        self.line.setFocus()

    def place(self) -> None:
        """In the middle, near the top, as high as its lines."""
        body = self.parentWidget()
        if body is None:
            return
        width = min(theme.px(WIDTH), body.width() - theme.px(24))
        high = self.list.sizeHintForRow(0) if self.list.count() else 0
        lines = max(1, min(self.list.count(), self._room(body, max(1, high))))
        self.list.setFixedHeight(lines * high + theme.px(12))
        self.setFixedWidth(max(1, width))
        self.adjustSize()
        self.move((body.width() - self.width()) // 2, min(theme.px(56), body.height() // 8))

    def _room(self, body: QWidget, high: int) -> int:
        """How many lines find room in the window."""
        return max(1, (body.height() * 3 // 4 - self.line.sizeHint().height()) // high)

    def _look(self, typed: str) -> None:
        self.list.clear()
        for i in self._index.find(typed)[:SHOWN]:
            command = self._commands[i]
            keys = f"   {command.keys}" if command.keys else ""
            item = QListWidgetItem(f"{command.title}   ·   {command.where}{keys}")
            item.setData(Qt.ItemDataRole.UserRole, i)
            item.setSizeHint(QSize(0, theme.px(30)))
            self.list.addItem(item)
        self.list.setCurrentRow(0)
        self.list.setVisible(self.list.count() > 0)
        self.none.setVisible(self.list.count() == 0)
        self.place()

    def _take(self) -> None:
        item = self.list.currentItem()
        if item is not None:
            command = self._commands[item.data(Qt.ItemDataRole.UserRole)]
            self.close_up()
            command.do()

    def close_up(self) -> None:
        """Gone, the keys where they were."""
        self.hide()
        if self._before is not None and self._before.isVisible():
            self._before.setFocus()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Keys of the list, while the line has them; a click elsewhere closes it."""
        if event.type() == QEvent.Type.FocusOut and self.isVisible():
            self.hide()
        if event.type() != QEvent.Type.KeyPress or not isinstance(event, QKeyEvent):
            return False
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step is not None and self.list.count():
            self.list.setCurrentRow((self.list.currentRow() + step) % self.list.count())
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._take()
        elif event.key() == Qt.Key.Key_Escape:
            self.close_up()
        else:
            return False
        return True
