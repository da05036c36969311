"""A small button beside a sentence of trouble, which opens the help at it."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QToolButton

from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import icon_button

WORDS = "What this means, and what to do"


def help_button(session: Session, code: Callable[[], str]) -> QToolButton:
    """Opens the page at the code of the problem that is told when it is pressed."""
    ask = session.asked_help.emit
    button = icon_button("tool-help", WORDS, lambda: ask(f"trouble#{code()}"))
    button.setObjectName("flat")
    return button
