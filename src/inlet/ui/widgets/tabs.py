"""Buttons of which one is down, for the pages of a stage or a ticket; which button opens what."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import partial
from typing import TypeVar

from PySide6.QtWidgets import QAbstractButton, QButtonGroup, QPushButton, QWidget

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
        button.setProperty("page", True)
        button.clicked.connect(partial(turn, page))
        group.addButton(button)
        buttons[page] = button
        layout.addWidget(button)
    return line, buttons


def opens(buttons: Mapping[Key, QAbstractButton], pages: Mapping[Key, QWidget]) -> None:
    """Each page is opened by the button of its key: whoever looks for what is on a page that is not
    in front finds the way by ``opened_by``."""
    for key, page in pages.items():
        page.setProperty("openedBy", buttons[key])


def opened_by(widget: QWidget, itself: bool = False) -> QAbstractButton | None:
    """The button that opens the page a widget is on, or, of ``itself``, that it is."""
    above: QWidget | None = widget
    while above is not None:
        button = above.property("openedBy")
        if isinstance(button, QAbstractButton):
            return button
        above = None if itself else above.parentWidget()
    return None
