"""One of several, with its words before it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QSizePolicy, QWidget

from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.parts import label, row

LARGE = 1.5
"""Text so many times as large as usual."""
Items = Sequence[tuple[str, Any]]
"""What there is to choose from: words, and what they stand for."""


@guarded
class ChoiceField(ChoiceBox):
    """One of several; what is chosen by hand is handed to ``take``."""

    def __init__(self, name: str, take: Callable[[Any], object]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.activated.connect(lambda at: take(self.itemData(at)))

    def offer(self, items: Items, now: Any) -> None:
        """What there is to choose from, and what is chosen now."""
        if [(self.itemText(i), self.itemData(i)) for i in range(self.count())] != list(items):
            self.clear()
            for words, data in items:
                self.addItem(words, data)
        self.setCurrentIndex(max(0, self.findData(now)))

    def choose(self, data: Any) -> None:
        """As if it were chosen by hand."""
        at = self.findData(data)
        self.setCurrentIndex(at)
        self.activated.emit(at)


def field(words: str, *widgets: QWidget) -> QHBoxLayout:
    """A choice with its words before it; the choice takes what room is left. In large text a single
    choice has its words above it, so that none of its own is cut."""
    layout = row(*widgets)
    if len(widgets) == 1 and theme.text_scale() >= LARGE:
        layout.setDirection(QBoxLayout.Direction.TopToBottom)
    if words:
        before = label(words)
        before.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Preferred)
        layout.insertWidget(0, before)
    for widget in widgets:
        if isinstance(widget, ChoiceField):
            layout.setStretchFactor(widget, 1)
    return layout
