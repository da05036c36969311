"""Buttons of which one is down, for the pages of a stage or a ticket."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial
from typing import TypeVar

from PySide6.QtWidgets import QButtonGroup, QPushButton, QWidget

from inlet.ui import theme
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import PushButton

Key = TypeVar("Key")


def tabs(
    owner: QWidget, pages: Iterable[tuple[Key, str]], turn: Callable[[Key], object]
) -> tuple[QWidget, dict[Key, QPushButton]]:
    """A line of buttons, one a page with its words, and the buttons by page; a click hands its page
    to ``turn``. They belong to ``owner``."""
    group = QButtonGroup(owner)
    line = QWidget()
    layout = FlowLayout(line, 0, theme.px(6))
    buttons: dict[Key, QPushButton] = {}
    for page, words in pages:
        button = PushButton(words)
        button.setCheckable(True)
        button.clicked.connect(partial(turn, page))
        group.addButton(button)
        buttons[page] = button
        layout.addWidget(button)
    return line, buttons
